"""Working of what stands beside a load: the outdoor air that its system brings, and the margin."""

from pendrum_core.model.climate import day_number
from pendrum_core.moist_air import enthalpy_j_kg
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.margins import room_with_margin
from pendrum_core.results.outdoor_air import outdoor_air_part, serving
from pendrum_core.working.node import Node, figure

_FORMULA = "outdoor air × (h outdoors − h return)"


def room_outdoor_air(results: BuildingResults, room_id: str) -> Node:
    """Outdoor air that a room's system brings for it, at the room's peak: a load of the coil, not of the room.

    Raises:
        KeyError: the room is not cooled, or on no system.
    """
    loads, system_of = results.rooms[room_id], serving(results)
    if loads.cooling is None:
        raise KeyError(room_id)
    m, s = loads.peak_month, loads.peak_step
    found = outdoor_air_part(results, system_of, (room_id,), m, s)
    if found is None:
        raise KeyError(room_id)
    system = results.systems[system_of[room_id]]
    name = next(drawn.name for drawn in results.building.systems if drawn.id == system.id)
    supplied, path = float(system.served[room_id].flow_kg_s[m, s]), system.summer
    states, enthalpies = [], []
    for title, t, w in (
        ("Outdoors", path.fresh_c[m, s], path.fresh_w[m, s]),
        ("Return", path.plenum_c[m, s], path.plenum_w[m, s]),
    ):
        h = float(enthalpy_j_kg(t, w))
        enthalpies.append(h / 1000.0)
        inputs = (Node("Dry-bulb", float(t), "temperature"), Node("Humidity ratio", float(w), "humidity_ratio"))
        states.append(Node(title, h, "enthalpy", "h", inputs=inputs))
    share = float(path.outdoor_share[m, s])
    outdoors = supplied * share
    return Node(
        f"{loads.room.number} {loads.room.name}: outdoor air by {name}",
        found.total_w,
        "load",
        "Qo",
        formula=_FORMULA,
        numbers=f"{outdoors:.4g} kg/s × ({enthalpies[0]:.4g} − {enthalpies[1]:.4g}) kJ/kg",
        source="ASHRAE Handbook Fundamentals 2017, ch. 1; mixing of two streams",
        note=f"At the room's own peak, {_when(results, m, s)}. The coil takes it, not the room; sensible "
        f"{figure(found.sensible_w, 'load')}, latent {figure(found.latent_w, 'load')}.",
        inputs=(
            Node(
                "Outdoor air for the room",
                outdoors,
                "mass_flow",
                "m",
                formula="supply × share of outdoor air",
                numbers=f"{supplied:.4g} kg/s × {share:.4g}",
            ),
            *states,
        ),
    )


def group_outdoor_air(results: BuildingResults, group_id: str) -> Node:
    """Outdoor air that systems bring for a group's rooms, at the group's coincident peak.

    Raises:
        KeyError: none of its rooms is on a system.
    """
    group, system_of = results.groups[group_id], serving(results)
    m, s = group.cooling.month, group.cooling.step
    found = outdoor_air_part(results, system_of, group.room_ids, m, s)
    if found is None:
        raise KeyError(group_id)
    names = {system.id: system.name for system in results.building.systems}
    by_system: dict[str, list[str]] = {}
    for room in group.room_ids:
        if room in system_of:
            by_system.setdefault(system_of[room], []).append(room)
    inputs = []
    for system, rooms in by_system.items():
        part = outdoor_air_part(results, system_of, rooms, m, s)
        inputs.append(
            Node(f"{names[system]}, {len(rooms)} rooms", part.total_w if part else None, "load", formula=_FORMULA)
        )
    return Node(
        f"{group.name}: outdoor air by air systems",
        found.total_w,
        "load",
        "Qo",
        formula="sum over the systems",
        note=f"At the coincident peak of the rooms, {_when(results, m, s)}; sensible {figure(found.sensible_w, 'load')}, "
        f"latent {figure(found.latent_w, 'load')}. A coil's own peak is another time's.",
        inputs=tuple(inputs),
    )


def room_cooling_with_margin(results: BuildingResults, room_id: str) -> Node:
    """Cooling load with its margin.

    Raises:
        KeyError: no such room, or it is not cooled.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    return _margin(results, room_id, "cooling", loads.cooling.sensible_w, room_with_margin(results, loads)[0])


def room_heating_with_margin(results: BuildingResults, room_id: str) -> Node:
    """Heating load with its margin."""
    loads = results.rooms[room_id]
    return _margin(results, room_id, "heating", loads.heating.load_w, room_with_margin(results, loads)[1])


def _margin(results: BuildingResults, room_id: str, what: str, load_w: float, value_w: float | None) -> Node:
    room = results.rooms[room_id].room
    share = getattr(results.building.margins_of(room_id), what)
    return Node(
        f"{room.number} {room.name}: {what} load with margin",
        value_w,
        "load",
        formula="load × (1 + margin)",
        numbers=f"{figure(load_w, 'load')} × {1.0 + share:.4g}",
        inputs=(
            Node(f"{what.capitalize()} load", load_w, "load"),
            Node("Margin", share, "percent", ref=f"room/{room_id}/{what}_margin"),
        ),
    )


def _when(results: BuildingResults, month: int, step: int) -> str:
    return f"{MONTHS[day_number(results.building.climate.months[month]) - 1]} {clock(step)}"
