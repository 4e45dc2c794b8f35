"""Working of a room's heating: the design day's losses, warm-up, and the simple method beside it."""

import numpy as np

from pendrum_core.model.rooms import CATEGORIES, GAIN_CATEGORIES, Element
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.envelope import element_u_value
from pendrum_core.room.outcome.detail import room_detail
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.working.elements import BALANCE, CATEGORY_NAMES, SIMPLE, element_terms, layers_of, transfer
from pendrum_core.working.node import Node, addition, figure


def _warm_up(loads: RoomLoads, value: float) -> Node:
    """What the plant gives above the losses at the set-point."""
    thermostat = loads.room.thermostat
    assert thermostat is not None and loads.control is not None
    if thermostat.reheat_w_m2 is not None:
        return Node(
            "Warm-up allowance",
            value,
            "power",
            formula="allowance × floor area",
            source="EN 12831-1:2017, heating-up capacity",
            inputs=(
                Node("Allowance", thermostat.reheat_w_m2, "power_per_area"),
                Node("Floor area", loads.room.floor_area_m2, "area", ref=f"room/{loads.room.id}/floor_area_m2"),
            ),
        )
    if np.ptp(step_averages(thermostat.winter)) < 1e-9:
        return Node(
            "Holding what is sensed",
            value,
            "power",
            formula="what holding the sensed temperature at a constant set-point takes above the losses with the air held at it",
            source=BALANCE,
            inputs=(
                Node("Share of the surfaces in what is sensed", thermostat.radiant_weight, "percent"),
                Node("Air then", float(loads.control.winter.air_c.mean()), "temperature"),
            ),
        )
    return Node(
        "Warm-up",
        value,
        "power",
        formula="constant power, worked out so that the sensed temperature meets the set-point when the time is over, less the "
        "losses at the set-point",
        source="periodic answer of the room's air to a watt, ISO 13786:2017 transfer matrices; docs/methods/rooms.md",
        inputs=(
            Node("Time to warm up", thermostat.warm_up_h, "time", ref=f"room/{loads.room.id}/warm_up_h"),
            Node("Coldest air before", float(loads.control.winter.air_c.min()), "temperature"),
        ),
    )


def room_heating(results: BuildingResults, room_id: str) -> Node:
    """A room's heating load on the winter day."""
    loads = results.rooms[room_id]
    room, detail = loads.room, room_detail(loads.room, results.outdoors, loads.beyond)
    inputs: list[Node] = []
    for i, element in enumerate(room.elements):
        lost = float(detail.winter.term_w[i])
        if abs(lost) > 0.05:
            far = float(detail.winter_environment_c[i])
            inputs.append(element_terms(element, lost, far, room.heating_setpoint_c, ""))
    more = float(detail.winter.emitter_w.sum())
    if more > 0.05:
        share = Node(
            "Radiant share", room.heating_radiant_share, "percent", ref=f"room/{room_id}/heating_radiant_share"
        )
        inputs.append(
            Node(
                "Emitter's radiant heat, lost through faces it warms",
                more,
                "power",
                formula="s Q (1 − R), R what of a radiant watt arrives at the air",
                source=BALANCE,
                inputs=(share,),
            )
        )
    for name, flow, lost in (
        ("Infiltration", room.winter_leak_m3_s, float(detail.winter.infiltration_w[0])),
        ("Untreated outdoor air", room.direct_outdoor_air_m3_s, float(detail.winter.outdoor_air_w[0])),
    ):
        if lost:
            flow_node = Node("Outdoor air", flow, "airflow", "V")
            inputs.append(Node(name, lost, "power", formula="ρ cp V (Ta − To)", inputs=(flow_node,)))
    if room.transfers:
        walls = sum(
            float(lost)
            for e, lost in zip(room.elements, detail.winter.term_w + detail.winter.emitter_w, strict=True)
            if e.category == "neighbours"
        )
        given = loads.heating.parts_w[CATEGORIES.index("neighbours")] - walls
        inputs.append(transfer(room, given, "ρ cp V (Ta − Tthere)"))
    warm_up = loads.heating.parts_w[CATEGORIES.index("storage")]
    if abs(warm_up) > 0.05:
        inputs.append(_warm_up(loads, warm_up))
    gains = [(name, loads.heating.parts_w[CATEGORIES.index(name)]) for name in GAIN_CATEGORIES]
    inputs += [
        Node(f"{CATEGORY_NAMES[name]}, counted share", part, "power", ref="project//winter_gains_share")
        for name, part in gains
        if abs(part) > 0.05
    ]
    return Node(
        f"{room.number} {room.name}: heating load",
        loads.heating.load_w,
        "load",
        "QH",
        formula="sum of losses on the winter day, no sun"
        + (", and what its thermostat takes more" if abs(warm_up) > 0.05 else ""),
        numbers=addition([float(node.value or 0.0) for node in inputs], "load"),
        source=SIMPLE if results.building.climate.heating_procedure == "u_values" else BALANCE,
        inputs=(
            *inputs,
            Node("Air held at", room.heating_setpoint_c, "temperature", ref=f"room/{room.id}/heating_setpoint_c"),
            Node(
                "Outdoors in winter",
                results.building.climate.winter_dry_bulb_c,
                "temperature",
                ref="site//winter_dry_bulb_c",
            ),
        ),
    )


def _far_air_c(element: Element, felt_c: float, loads: RoomLoads, results: BuildingResults) -> float:
    """The air beyond an element on the winter day: U-values know no pull of the sky, and no colder faces of a room."""
    if element.boundary.kind == "outdoors":
        return results.building.climate.winter_dry_bulb_c
    if element.boundary.kind == "room" and element.boundary.neighbour in loads.beyond:
        return loads.beyond[element.boundary.neighbour].winter_air_c
    return felt_c


def room_heating_simple(results: BuildingResults, room_id: str) -> Node:
    """Losses of a room at its set-point by U-values: beside the balance's, for comparison."""
    loads = results.rooms[room_id]
    room, outside = loads.room, results.outdoors
    detail = room_detail(room, outside, loads.beyond)
    inputs: list[Node] = []
    for element, cold in zip(room.elements, detail.winter_environment_c.tolist(), strict=True):
        if element.boundary.kind == "adiabatic":
            continue
        far = _far_air_c(element, cold, loads, results)
        u_value, apart = element_u_value(element), room.heating_setpoint_c - far
        inputs.append(
            Node(
                element.name,
                u_value * element.area_m2 * apart,
                "power",
                formula="U A (Ta − Tfar)",
                numbers=f"{figure(u_value, 'u_value')} × {figure(element.area_m2, 'area')} × {apart:.4g} K",
                source="ISO 6946:2017",
                inputs=(
                    Node("U-value with the standard's films", u_value, "u_value", "U", inputs=(layers_of(element),)),
                ),
            )
        )
    flow = room.winter_leak_m3_s + room.direct_outdoor_air_m3_s
    apart = room.heating_setpoint_c - results.building.climate.winter_dry_bulb_c
    if flow:
        inputs.append(
            Node(
                "Infiltration and untreated outdoor air",
                flow * outside.air_heat_j_m3k * apart,
                "power",
                formula="ρ cp V (Ta − To)",
                inputs=(Node("Outdoor air", flow, "airflow", "V"),),
            )
        )
    if room.transfers:
        inputs.append(
            transfer(room, loads.heating.simple_w - sum(n.value or 0.0 for n in inputs), "ρ cp V (Ta − Tthere)")
        )
    return Node(
        f"{room.number} {room.name}: losses by U-values",
        loads.heating.simple_w,
        "load",
        "QH",
        formula="sum of U A ΔT and of the air's",
        numbers=addition([float(n.value or 0.0) for n in inputs], "load"),
        source=SIMPLE,
        note="Without heating-up. It stands beside the load for comparison; the balance differs by its films "
        "and by the surfaces' exchange among themselves.",
        inputs=tuple(inputs),
    )
