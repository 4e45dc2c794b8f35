"""Working of rooms together: a level, a use, a system, the building."""

from pendrum_core.model.climate import day_number
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.margins import group_with_margin
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.working.node import Node, figure

_SHOWN = 40  # rooms that are listed by themselves


def _listed(rooms: list[tuple[RoomLoads, float]], quantity: str) -> tuple[Node, ...]:
    """Rooms with what they give, the largest first; those beyond `_SHOWN` in one line."""
    order = sorted(rooms, key=lambda pair: -pair[1])
    nodes = [Node(f"{loads.room.number} {loads.room.name}", value, quantity) for loads, value in order[:_SHOWN]]
    rest = order[_SHOWN:]
    if rest:
        nodes.append(Node(f"{len(rest)} smaller ones", sum(value for _, value in rest), quantity))
    return tuple(nodes)


def _margin(with_margin_w: float) -> str:
    return f"Without margins; with those of its rooms {figure(with_margin_w, 'load')}."


def group_cooling(results: BuildingResults, group_id: str) -> Node:
    """Coincident sensible peak of a group."""
    group = results.groups[group_id]
    month, step = group.cooling.month, group.cooling.step
    day = results.building.climate.months[month]
    members = _members(results, group_id)
    cooled = [loads for loads in members if loads.cooling is not None]
    now = [(loads, float(loads.total[month, step])) for loads in cooled]
    left_out = sum(value <= 0.0 for _, value in now)
    with_margin, _ = group_with_margin(results, group)
    return Node(
        f"{group.name}: sensible cooling load, coincident peak",
        group.cooling.sensible_w,
        "load",
        "Qs",
        formula=f"largest sum of the rooms' loads at one time, {MONTHS[day_number(day) - 1]} {clock(step)}",
        source="coincident peak of the rooms' courses",
        note=f"A room whose load is negative then counts as nothing: {left_out} of {len(now)}. Rooms' own peaks add to "
        f"{group.sum_of_peaks_w / 1000.0:.2f} kW, diversity {group.diversity:.2f}. {_margin(with_margin)}",
        inputs=_listed([(loads, value) for loads, value in now if value > 0.0], "load"),
    )


def group_heating(results: BuildingResults, group_id: str) -> Node:
    """Heating load of a group: its rooms' added."""
    group = results.groups[group_id]
    members = _members(results, group_id)
    _, with_margin = group_with_margin(results, group)
    return Node(
        f"{group.name}: heating load",
        group.heating.load_w,
        "load",
        "QH",
        formula="sum of the rooms' loads on the winter day",
        note=_margin(with_margin),
        inputs=_listed([(loads, loads.heating.load_w) for loads in members if loads.heating.load_w > 0.0], "load"),
    )


def group_latent(results: BuildingResults, group_id: str) -> Node:
    """Moisture of a group's cooled rooms at the time of its coincident sensible peak, as heat."""
    group, members = results.groups[group_id], _members(results, group_id)
    month, step = group.cooling.month, group.cooling.step
    now = [(m, float(m.latent_w[month, step])) for m in members if m.cooling is not None]
    return Node(
        f"{group.name}: latent load at the coincident peak",
        group.cooling.latent_w,
        "load",
        "Ql",
        formula="sum of the rooms' moisture of people and equipment then",
        inputs=_listed([(loads, value) for loads, value in now if value > 0.0], "load"),
    )


def group_cooling_per_area(results: BuildingResults, group_id: str) -> Node:
    """Coincident sensible peak over floor area."""
    group = results.groups[group_id]
    return Node(
        f"{group.name}: sensible peak by floor area",
        group.cooling.sensible_w / group.floor_area_m2,
        "power_per_area",
        formula="coincident peak / floor area of all its rooms",
        numbers=f"{figure(group.cooling.sensible_w, 'load')} / {figure(group.floor_area_m2, 'area')}",
        inputs=(
            Node("Coincident peak", group.cooling.sensible_w, "load"),
            Node("Floor area", group.floor_area_m2, "area", formula="sum of the rooms'"),
        ),
    )


def group_heating_simple(results: BuildingResults, group_id: str) -> Node:
    """Losses by U-values of a group: its rooms' added."""
    group, members = results.groups[group_id], _members(results, group_id)
    return Node(
        f"{group.name}: losses by U-values",
        group.heating.simple_w,
        "load",
        "ΦU",
        formula="sum of the rooms' losses",
        source="EN 12831-1:2017, simplified",
        inputs=_listed([(m, m.heating.simple_w) for m in members if m.heating.simple_w > 0.0], "load"),
    )


def group_cooling_with_margin(results: BuildingResults, group_id: str) -> Node:
    """Coincident peak, every room with its margin."""
    group, members = results.groups[group_id], _members(results, group_id)
    month, step = group.cooling.month, group.cooling.step
    now = [
        (m, max(0.0, float(m.total[month, step])) * (1.0 + results.building.margins_of(m.room.id).cooling))
        for m in members
        if m.cooling is not None
    ]
    return Node(
        f"{group.name}: cooling load with margins",
        group_with_margin(results, group)[0],
        "load",
        formula="sum of the rooms' loads at the coincident peak × (1 + margin of each)",
        inputs=_listed([(loads, value) for loads, value in now if value > 0.0], "load"),
    )


def group_heating_with_margin(results: BuildingResults, group_id: str) -> Node:
    """Heating load, every room with its margin."""
    group, members = results.groups[group_id], _members(results, group_id)
    now = [(m, m.heating.load_w * (1.0 + results.building.margins_of(m.room.id).heating)) for m in members]
    return Node(
        f"{group.name}: heating load with margins",
        group_with_margin(results, group)[1],
        "load",
        formula="sum of the rooms' loads × (1 + margin of each)",
        inputs=_listed([(loads, value) for loads, value in now if value > 0.0], "load"),
    )


def group_airflow(results: BuildingResults, system_id: str) -> Node:
    """Supply air of an air system: its rooms' design flows added."""
    found = results.systems[system_id]
    name = next(system.name for system in results.building.systems if system.id == system_id)
    flows = [(results.rooms[room], flow.design_m3_s) for room, flow in found.airflows.items()]
    return Node(
        f"{name}: supply air",
        found.flow_m3_s,
        "airflow",
        "V",
        formula="sum of the rooms' design flows",
        inputs=_listed(flows, "airflow"),
    )


def _members(results: BuildingResults, group_id: str) -> list[RoomLoads]:
    return [results.rooms[room] for room in results.groups[group_id].room_ids if room in results.rooms]
