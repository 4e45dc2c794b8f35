"""Lines of Working about a room's elements: walls with their layers, windows, other parts of its load."""

from math import isfinite

from pendrum_core.fabric.layers import total_resistance
from pendrum_core.model.rooms import CONTROL_CATEGORIES, GAIN_CATEGORIES, Element, Gain, Room, SunWindow
from pendrum_core.quantities.times import clock
from pendrum_core.room.balance.sources import gain_at
from pendrum_core.room.outcome.detail import RoomDetail
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.working.node import Node, figure

BALANCE = "Room heat balance, repeating day, solved exactly in frequency; coefficients of ISO 52016-1:2017"
SIMPLE = "Sum of U A ΔT with the films of ISO 6946:2017, simplified procedure of EN 12831-1:2017"
CATEGORY_NAMES = {
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


def layers_of(element: Element) -> Node:
    """The layers of a wall, slab or roof and what they resist."""
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


def element_terms(element: Element, value: float, environment_c: float, room_c: float, period: str) -> Node:
    """What comes through an element, from its far side's temperature."""
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
        source=BALANCE if not period else f"{BALANCE}; ISO 13786:2017 transfer matrices",
        inputs=(
            Node("Area, openings taken out", element.area_m2, "area", "A", ref=f"{kind}/{element.id}/area_m2"),
            layers_of(element),
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
        source=BALANCE,
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
        f"{gain.name or CATEGORY_NAMES[gain.category]} present now",
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


def category_term(
    name: str, value: float, loads: RoomLoads, detail: RoomDetail, calendar: int, month: int, step: int, text: str
) -> Node:
    """What one category of sources adds to a room's load at a step."""
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
            element_terms(
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
            transfer(room, rest, "ρ cp V (Tthere − Ta)" + (", as it warms the room" if room.floats else "")),
        )
    formula = "sum of its elements"
    if name in ("infiltration", "outdoor air"):
        formula = "ρ cp V (To − Ta)"
    elif name in GAIN_CATEGORIES:
        formula = "the convective part now, and the radiant part of this and earlier steps as the faces give it back"
    return Node(CATEGORY_NAMES[name], value, "power", formula=formula, inputs=inputs)


def transfer(room: Room, value: float, formula: str) -> Node:
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
            CATEGORY_NAMES[name],
            value,
            "power",
            formula="heat that air, furniture and fabric give back because the air was not at its set-point all day",
            source="periodic answer of the room's air to a watt, ISO 13786:2017 transfer matrices; docs/methods/rooms.md",
            inputs=(air, Node("Held at otherwise", loads.room.cooling_setpoint_c, "temperature")),
        )
    device = thermostat.drawn_air
    assert device is not None
    return Node(
        CATEGORY_NAMES[name],
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


def set_point(loads: RoomLoads, month: int, step: int, room_id: str) -> Node:
    """The temperature that a room's air is held at, at a step of a day, with what sets it."""
    if loads.control is None:
        held = loads.room.cooling_setpoint_c
        return Node("Air held at", held, "temperature", "Ta", ref=f"room/{room_id}/cooling_setpoint_c")
    now = float(loads.control.summer.high_c[month, step])
    text = "" if isfinite(now) else "no cooling at this time"
    value = now if isfinite(now) else None
    return Node("Cooling set-point now", value, "temperature", note=text, ref=f"room/{room_id}/cooling_setpoint_c")
