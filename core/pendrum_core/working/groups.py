"""Working of rooms together: a level, a use, a system, the building."""

from pendrum_core.model.climate import day_number
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.loads import RoomLoads
from pendrum_core.results.margins import group_with_margin
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
    members = [results.rooms[room] for room in group.room_ids if room in results.rooms]
    cooled = [loads for loads in members if loads.cooling is not None]
    now = [(loads, float(loads.total[month, step])) for loads in cooled]
    left_out = sum(value <= 0.0 for _, value in now)
    with_margin, _ = group_with_margin(results, group)
    return Node(
        f"{group.name}: sensible cooling load, coincident peak", group.cooling.sensible_w, "load", "Qs",
        formula=f"largest sum of the rooms' loads at one time, {MONTHS[day_number(day) - 1]} {clock(step)}",
        source="coincident peak of the rooms' courses",
        note=f"A room whose load is negative then counts as nothing: {left_out} of {len(now)}. Rooms' own peaks add to "
        f"{group.sum_of_peaks_w / 1000.0:.2f} kW, diversity {group.diversity:.2f}. {_margin(with_margin)}",
        inputs=_listed([(loads, value) for loads, value in now if value > 0.0], "load"),
    )  # fmt: skip


def group_heating(results: BuildingResults, group_id: str) -> Node:
    """Heating load of a group: its rooms' added."""
    group = results.groups[group_id]
    members = [results.rooms[room] for room in group.room_ids if room in results.rooms]
    _, with_margin = group_with_margin(results, group)
    return Node(
        f"{group.name}: heating load", group.heating.load_w, "load", "QH",
        formula="sum of the rooms' loads on the winter day",
        note=_margin(with_margin),
        inputs=_listed([(loads, loads.heating.load_w) for loads in members if loads.heating.load_w > 0.0], "load"),
    )  # fmt: skip
