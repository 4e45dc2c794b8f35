"""Working of room loads."""

from math import isfinite

import numpy as np

from pendrum_core.fabric.layers import total_resistance
from pendrum_core.model.climate import day_number
from pendrum_core.model.rooms import CATEGORIES, CONTROL_CATEGORIES, GAIN_CATEGORIES, Element, Gain, Room, SunWindow
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.envelope import element_u_value
from pendrum_core.room.balance.sources import gain_at
from pendrum_core.room.outcome.detail import RoomDetail, room_detail, warmth_k
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.working.node import Node, addition, figure

_BALANCE = "Room heat balance, repeating day, solved exactly in frequency; coefficients of ISO 52016-1:2017"
_SIMPLE = "Sum of U A ΔT with the films of ISO 6946:2017, simplified procedure of EN 12831-1:2017"
_NAMES = {
    "sun": "Sun through windows",
    "walls": "Walls",
    "roofs": "Roofs and ceilings",
    "floors": "Floors",
    "windows": "Windows, conduction",
    "doors": "Doors",
    "neighbours": "Neighbouring spaces",
    "people": "People",
    "lights": "Lights",
    "equipment": "Equipment",
    "infiltration": "Infiltration",
    "outdoor air": "Untreated outdoor air",
    "drawn air": "Air drawn in by warmth",
    "storage": "Stored heat",
}


def _layers(element: Element) -> Node:
    return Node(
        "Resistance of the layers",
        total_resistance(element.layers),
        "resistance",
        "R",
        formula="sum of thickness over conductivity",
        numbers=" + ".join(f"{layer.resistance_m2k_w:.4g}" for layer in element.layers) + " m²K/W",
        source="ISO 6946:2017, 6.7",
        note=" · ".join(f"{layer.name} {layer.thickness_m * 1000:.4g} mm" for layer in element.layers),
        ref=f"{'opening' if element.category in ('windows', 'doors') else 'surface'}/{element.id}/assembly",
    )


def _element(element: Element, value: float, environment_c: float, room_c: float, period: str) -> Node:
    kind = "opening" if element.category in ("windows", "doors") else "surface"
    far = {
        "outdoors": "Sol-air temperature outside",
        "temperature": "Temperature on the far side",
        "pattern": "Scheduled temperature beyond it",
        "room": "Air of the room beyond it",
    }
    return Node(
        element.name,
        value,
        "power",
        formula="periodic conduction from the far side to the air, with its delay" if period else "steady conduction",
        source=_BALANCE if not period else f"{_BALANCE}; ISO 13786:2017 transfer matrices",
        inputs=(
            Node("Area, openings taken out", element.area_m2, "area", "A", ref=f"{kind}/{element.id}/area_m2"),
            _layers(element),
            Node(far.get(element.boundary.kind, "Neighbour"), environment_c, "temperature", "Te", note=period),
            Node("Room air", room_c, "temperature", "Ta"),
            Node("Inside convection", element.convection_w_m2k, "u_value", "hc", source="ISO 52016-1:2017, table 25"),
        ),
    )


def _window(window: SunWindow, value: float, entering: float, lit: float, note: str) -> Node:
    glass = window.glazing
    behind: tuple[Node, ...] = ()
    if window.shading is not None:
        behind += (
            Node(
                "Sunlit part behind its shading",
                lit,
                "percent",
                formula="1 − area of the plates' shadows over the opening",
                source="exact geometry at the middle of the step",
                ref=f"opening/{window.id}/shading",
            ),
        )
    if window.blind is not None:
        rule = {"irradiance": f"while more than {window.blind.threshold_w_m2:.0f} W/m² falls on the window"}
        behind += (
            Node(
                "Blind, factor while drawn",
                window.blind.solar_factor,
                "percent",
                note=f"drawn {rule.get(window.blind.rule, window.blind.rule)}",
                ref=f"opening/{window.id}/glazing",
            ),
        )
    return Node(
        window.name,
        value,
        "power",
        formula="sun that entered earlier and now, 10 % to the air, the rest by way of the room's faces",
        source=_BALANCE,
        inputs=(
            Node(
                "Sun entering at this time",
                entering,
                "power",
                formula="A (1 − frame) g (f·beam + fd·diffuse)",
                source="ASHRAE clear sky; angular curve by panes, ASHRAE Handbook Fundamentals 2017, ch. 15",
                note=note,
            ),
            Node("Opening area", window.area_m2, "area", "A", ref=f"opening/{window.id}/area_m2"),
            Node("Solar factor at normal incidence", glass.g_value, "ratio", "g", ref=f"opening/{window.id}/glazing"),
            Node("Frame share", glass.frame_share, "percent", ref=f"opening/{window.id}/glazing"),
            Node("Facing", window.azimuth_deg, "angle"),
            *behind,
        ),
    )


def _gain(gain: Gain, room_id: str, month: int, step: int) -> Node:
    now = gain_at(gain, month, step)
    return Node(
        f"{gain.name or _NAMES[gain.category]} present now",
        gain.sensible_w * now,
        "power",
        formula="full sensible gain × fraction of the day pattern",
        numbers=f"{figure(gain.sensible_w, 'power')} × {now:.3g}",
        inputs=(
            Node("Full sensible gain", gain.sensible_w, "power", ref=f"room/{room_id}/{gain.category}"),
            Node(f"Fraction at {clock(step)}", now, "ratio", ref=f"room/{room_id}/{gain.category}_schedule"),
            Node("Radiant share", gain.radiant_share, "percent", ref=f"room/{room_id}/{gain.category}_radiant"),
        ),
    )


def _category(
    name: str, value: float, loads: RoomLoads, detail: RoomDetail, calendar: int, month: int, step: int, text: str
) -> Node:
    room = loads.room
    inputs: tuple[Node, ...] = ()
    if name == "sun":
        inputs = tuple(
            _window(
                w,
                float(detail.sun_w[i, month, step]),
                float(detail.sun_entering_w[i, month, step]),
                float(detail.lit_share[i, month, step]),
                text,
            )
            for i, w in enumerate(room.windows)
        )
    elif name in GAIN_CATEGORIES:
        inputs = tuple(_gain(gain, room.id, calendar, step) for gain in room.gains if gain.category == name)
    elif name in CONTROL_CATEGORIES:
        return _control(name, value, loads, month, step)
    elif name in ("infiltration", "outdoor air"):
        flow = room.infiltration_m3_s if name == "infiltration" else room.direct_outdoor_air_m3_s
        inputs = (Node("Outdoor air", flow, "airflow", "V", ref=f"room/{room.id}/{name.replace(' ', '_')}"),)
    else:
        inputs = tuple(
            _element(
                e,
                float(detail.conduction_w[i, month, step]),
                float(detail.environment_c[i, month, step]),
                room.cooling_setpoint_c,
                text,
            )
            for i, e in enumerate(room.elements)
            if e.category == name and e.boundary.kind != "adiabatic"
        )
    if name == "neighbours" and room.transfers:
        rest = value - sum(node.value or 0.0 for node in inputs)
        inputs = (
            *inputs,
            _transfer(room, rest, "ρ cp V (Tthere − Ta)" + (", as it warms the room" if room.floats else "")),
        )
    formula = "sum of its elements"
    if name in ("infiltration", "outdoor air"):
        formula = "ρ cp V (To − Ta)"
    elif name in GAIN_CATEGORIES:
        formula = "the convective part now, and the radiant part of this and earlier steps as the faces give it back"
    return Node(_NAMES[name], value, "power", formula=formula, inputs=inputs)


def _transfer(room: Room, value: float, formula: str) -> Node:
    """Air that comes in from other rooms."""
    flows = tuple(Node("Air that comes in", transfer.flow_m3_s, "airflow", "V") for transfer in room.transfers)
    return Node("Air from other rooms", value, "power", formula=formula, inputs=flows)


def _control(name: str, value: float, loads: RoomLoads, month: int, step: int) -> Node:
    """What the thermostat's day adds to the held room."""
    control, thermostat = loads.control, loads.room.thermostat
    assert control is not None and thermostat is not None
    air = Node("Room air now", float(control.summer.air_c[month, step]), "temperature", "Ta")
    if name == "storage":
        return Node(
            _NAMES[name],
            value,
            "power",
            formula="heat that air, furniture and fabric give back because the air was not at its set-point all day",
            source="periodic answer of the room's air to a watt, ISO 13786:2017 transfer matrices; docs/methods/rooms.md",
            inputs=(air, Node("Held at otherwise", loads.room.cooling_setpoint_c, "temperature")),
        )
    device = thermostat.drawn_air
    assert device is not None
    return Node(
        _NAMES[name],
        value,
        "power",
        formula="ρ cp V · share open · (To − Ta)",
        inputs=(
            Node("Fully open", device.flow_m3_s, "airflow", "V"),
            Node("Begins above", device.above_c, "temperature"),
            Node("Fully open above that by", device.band_k, "temperature_difference"),
            air,
        ),
    )


def _set_point(loads: RoomLoads, month: int, step: int, room_id: str) -> Node:
    if loads.control is None:
        held = loads.room.cooling_setpoint_c
        return Node("Air held at", held, "temperature", "Ta", ref=f"room/{room_id}/cooling_setpoint_c")
    now = float(loads.control.summer.high_c[month, step])
    text = "" if isfinite(now) else "no cooling at this time"
    value = now if isfinite(now) else None
    return Node("Cooling set-point now", value, "temperature", note=text, ref=f"room/{room_id}/cooling_setpoint_c")


def room_cooling(results: BuildingResults, room_id: str, month: int | None = None, step: int | None = None) -> Node:
    """A room's sensible cooling load at its peak, or at a given month index and step.

    Raises:
        KeyError: the room is not cooled; its result is a temperature.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    detail = room_detail(loads.room, results.outdoors, loads.beyond)
    at_peak = month is None or step is None
    m, s = (loads.peak_month, loads.peak_step) if month is None or step is None else (month, step)
    parts = [(name, value) for name, value in zip(CATEGORIES, loads.parts_at(m, s).tolist(), strict=True)]
    parts = sorted((p for p in parts if abs(p[1]) > 0.05), key=lambda p: -abs(p[1]))
    day = results.building.climate.months[m]
    text = f"{MONTHS[day_number(day) - 1]} {clock(s)}"
    air = _set_point(loads, m, s, room_id)
    held = (
        "air held at the set-point"
        if loads.control is None
        else "air held at its design set-point, and what its own course adds"
    )
    return Node(
        f"{loads.room.number} {loads.room.name}: sensible cooling load" + (", peak" if at_peak else ""),
        float(loads.total[m, s]),
        "load",
        "Qs",
        formula=f"sum of what each source does to the air at {text}, {held}",
        numbers=addition([value for _, value in parts], "load"),
        source=_BALANCE,
        note=f"Searched over {loads.total.shape[0]} design days × {loads.total.shape[1]} steps. "
        f"Parts add up to the total within {max(loads.split_error, 1e-15):.0e}, "
        f"the balance closes within {max(loads.balance_error, 1e-15):.0e}.",
        inputs=(
            *(
                _category(name, value, loads=loads, detail=detail, calendar=day.month, month=m, step=s, text=text)
                for name, value in parts
            ),
            air,
        ),
    )


def room_temperature(results: BuildingResults, room_id: str) -> Node:
    """The hottest air of a room that is not cooled, and what each source makes of it.

    Raises:
        KeyError: the room is cooled.
    """
    loads = results.rooms[room_id]
    if loads.floating_peak_c is None:
        raise KeyError(room_id)
    month, step = loads.peak_month, loads.peak_step
    day = results.building.climate.months[month]
    text = f"{MONTHS[day_number(day) - 1]} {clock(step)}"
    reference = loads.room.cooling_setpoint_c
    made = zip(CATEGORIES, warmth_k(loads, results.outdoors)[:, month, step].tolist(), strict=True)
    names = _NAMES | {"storage": "Heating and cooling"}
    parts = sorted(((names[name], value) for name, value in made if abs(value) > 5e-3), key=lambda part: -abs(part[1]))
    hours, worst = loads.too_warm_h()
    worst_month = MONTHS[day_number(results.building.climate.months[worst]) - 1]
    return Node(
        f"{loads.room.number} {loads.room.name}: hottest air",
        loads.floating_peak_c,
        "temperature",
        "Ta",
        formula=f"reference + what each source makes of the air's temperature at {text}",
        numbers=f"{figure(reference, 'temperature')} + {addition([value for _, value in parts], 'temperature_difference')}",
        source=_BALANCE,
        note=f"Above the limit of its use, {loads.room.warm_limit_c:.0f} °C, for {hours:.1f} h of the {worst_month} design day.",
        inputs=(
            Node("Reference, from which all temperatures are counted", reference, "temperature"),
            *(Node(name, value, "temperature_difference") for name, value in parts),
        ),
    )


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
            source=_BALANCE,
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
            inputs.append(_element(element, lost, far, room.heating_setpoint_c, ""))
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
                source=_BALANCE,
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
        inputs.append(_transfer(room, given, "ρ cp V (Ta − Tthere)"))
    warm_up = loads.heating.parts_w[CATEGORIES.index("storage")]
    if abs(warm_up) > 0.05:
        inputs.append(_warm_up(loads, warm_up))
    gains = [(name, loads.heating.parts_w[CATEGORIES.index(name)]) for name in GAIN_CATEGORIES]
    inputs += [
        Node(f"{_NAMES[name]}, counted share", part, "power", ref="project//winter_gains_share")
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
        source=_SIMPLE if results.building.climate.heating_procedure == "u_values" else _BALANCE,
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


def room_latent(results: BuildingResults, room_id: str) -> Node:
    """Moisture of a room at the time of its sensible peak, as heat.

    Raises:
        KeyError: no such room, or it is not cooled.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    month, step = loads.cooling.month, loads.cooling.step
    day = results.building.climate.months[month]
    inputs = []
    for gain in loads.room.gains:
        now = gain_at(gain, day.month, step)
        if gain.latent_w:
            inputs.append(
                Node(
                    gain.name or _NAMES[gain.category],
                    gain.latent_w * now,
                    "power",
                    formula="full latent gain × fraction of the day pattern",
                    numbers=f"{figure(gain.latent_w, 'power')} × {now:.3g}",
                    inputs=(
                        Node("Full latent gain", gain.latent_w, "power", ref=f"room/{room_id}/{gain.category}"),
                        Node(
                            f"Fraction at {clock(step)}", now, "ratio", ref=f"room/{room_id}/{gain.category}_schedule"
                        ),
                    ),
                )
            )
    return Node(
        f"{loads.room.number} {loads.room.name}: latent load at the sensible peak",
        loads.cooling.latent_w,
        "load",
        "Ql",
        formula=f"moisture of people and equipment at {MONTHS[day_number(day) - 1]} {clock(step)}",
        numbers=addition([float(node.value or 0.0) for node in inputs], "load"),
        inputs=tuple(inputs),
        note="Moisture that comes with leaks counts on the coil.",
    )


def room_cooling_per_area(results: BuildingResults, room_id: str) -> Node:
    """Sensible peak over floor area.

    Raises:
        KeyError: no such room, or it is not cooled.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    area = loads.room.floor_area_m2
    return Node(
        f"{loads.room.number} {loads.room.name}: cooling by area",
        loads.cooling.sensible_w / area,
        "power_per_area",
        formula="sensible peak over floor area",
        numbers=f"{figure(loads.cooling.sensible_w, 'load')} / {figure(area, 'area')}",
        inputs=(
            room_cooling(results, room_id),
            Node("Floor area", area, "area", "A", ref=f"room/{room_id}/floor_area_m2"),
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
                    Node("U-value with the standard's films", u_value, "u_value", "U", inputs=(_layers(element),)),
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
            _transfer(room, loads.heating.simple_w - sum(n.value or 0.0 for n in inputs), "ρ cp V (Ta − Tthere)")
        )
    return Node(
        f"{room.number} {room.name}: losses by U-values",
        loads.heating.simple_w,
        "load",
        "QH",
        formula="sum of U A ΔT and of the air's",
        numbers=addition([float(n.value or 0.0) for n in inputs], "load"),
        source=_SIMPLE,
        note="Without heating-up. It stands beside the load for comparison; the balance differs by its films "
        "and by the surfaces' exchange among themselves.",
        inputs=tuple(inputs),
    )
