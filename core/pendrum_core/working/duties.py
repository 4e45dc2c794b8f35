"""Working of the duties of air systems beside the cooling coil, and of rooms' air balances."""

import numpy as np

from pendrum_core.air.balance import LEAKS, RETURN, SUPPLY, TRANSFER
from pendrum_core.air.parts import HUMIDIFIERS
from pendrum_core.air.path import Path
from pendrum_core.air.result import AirSystemResult
from pendrum_core.air.terminal_fans import fans_in
from pendrum_core.model.climate import day_number
from pendrum_core.model.systems import SERIES, AirSystem
from pendrum_core.model.unit_parts import HEATING_COIL
from pendrum_core.moist_air import enthalpy_j_kg
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.balance import room_balances
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.outdoor_air import serving
from pendrum_core.working.air import intake
from pendrum_core.working.node import Node, figure

_BOOK = "ASHRAE Handbook Fundamentals 2017, ch. 1"


def _system(results: BuildingResults, system_id: str) -> tuple[AirSystem, AirSystemResult]:
    return next(s for s in results.building.systems if s.id == system_id), results.systems[system_id]


def _largest(results: BuildingResults, result: AirSystemResult, name: str) -> tuple[Path, int, int, str]:
    """The season, day and step at which a duty of the path is largest, and when that is."""
    summer, winter = (np.asarray(getattr(path, name)) for path in (result.summer, result.winter))
    if float(winter.max()) >= float(summer.max()):
        day, step = (int(i) for i in np.unravel_index(int(winter.argmax()), winter.shape))
        return result.winter, day, step, f"the winter day, {clock(step)}"
    day, step = (int(i) for i in np.unravel_index(int(summer.argmax()), summer.shape))
    return result.summer, day, step, f"{MONTHS[day_number(results.building.climate.months[day]) - 1]} {clock(step)}"


def _air(name: str, t: float, w: float, note: str = "") -> Node:
    return Node(
        name,
        float(enthalpy_j_kg(t, w)),
        "enthalpy",
        "h",
        note=note,
        inputs=(Node("Dry-bulb", t, "temperature"), Node("Humidity ratio", w, "humidity_ratio")),
    )


def heating_coil(results: BuildingResults, system_id: str) -> Node:
    """The heating coil's largest duty."""
    system, result = _system(results, system_id)
    path, d, s, when = _largest(results, result, "heating_w")
    flow, duty = float(path.flow_kg_s[d, s]), float(path.heating_w[d, s])
    (before_c, before_w), (behind_c, _) = path.around((HEATING_COIL,)) or ((path.mixed_c, path.mixed_w),) * 2
    t_in, w, t_out = float(before_c[d, s]), float(before_w[d, s]), float(behind_c[d, s])
    h_in, h_out = float(enthalpy_j_kg(t_in, w)), float(enthalpy_j_kg(t_out, w))
    return Node(
        f"{system.name}: heating coil",
        duty,
        "load",
        "Qh",
        formula="dry-air flow × (h leaving − h entering)",
        numbers=f"{flow:.4g} kg/s × ({h_out / 1000:.4g} − {h_in / 1000:.4g}) kJ/kg",
        source=_BOOK,
        note=f"On {when}; the air leaves it so warm that fan and ducts bring it to the supply temperature.",
        inputs=(
            Node("Dry-air flow", flow, "mass_flow", "m"),
            _air("Entering, mixed", t_in, w, f"{float(path.outdoor_share[d, s]):.1%} outdoor air"),
            _air("Leaving", t_out, w),
            Node(
                "Supply temperature wanted",
                float(path.supply_c[d, s]),
                "temperature",
                ref=f"air_system/{system.drawn}/winter_supply_c",
            ),
            Node(
                "Fan's temperature rise",
                float(path.fan_rise_k[d, s]),
                "temperature_difference",
                formula="P electrical / (m cp)",
            ),
        ),
    )


def recovered_heat(results: BuildingResults, system_id: str) -> Node:
    """What the exchanger brings on the winter day.

    Raises:
        KeyError: no such system, or it recovers nothing.
    """
    system, result = _system(results, system_id)
    path, recovered = result.winter, result.winter.recovered
    if recovered is None:
        raise KeyError(system_id)
    gained = path.outdoor_kg_s * recovered.recovered_j_kg
    d, s = (int(i) for i in np.unravel_index(int(gained.argmax()), gained.shape))
    flow = float(path.outdoor_kg_s[d, s])
    return Node(
        f"{system.name}: heat recovered",
        float(gained[d, s]),
        "load",
        formula="outdoor air × (h off the exchanger − h outdoors)",
        numbers=f"{flow:.4g} kg/s × {float(recovered.recovered_j_kg[d, s]) / 1000:.4g} kJ/kg",
        source="effectiveness on the smaller of the two dry-air flows; docs/methods/air.md",
        note=f"The winter day, {clock(s)}. The exchanger works at {float(recovered.share[d, s]):.0%} of its effectiveness"
        + ("; frost protection holds it back." if float(recovered.share[d, s]) < 0.999 else "."),
        inputs=(
            Node("Outdoor air", flow, "mass_flow"),
            Node("Exhaust air", float(path.relief_kg_s[d, s]), "mass_flow"),
            Node(
                "Sensible effectiveness",
                system.recovery_sensible,
                "percent",
                ref=f"air_system/{system.drawn}/recovery_sensible",
            ),
            Node(
                "Latent effectiveness",
                system.recovery_latent,
                "percent",
                ref=f"air_system/{system.drawn}/recovery_latent",
            ),
            Node("Exhaust before it", float(path.plenum_c[d, s]), "temperature"),
            Node("Outdoor air behind it", float(recovered.leaving_c[d, s]), "temperature"),
        ),
    )


def humidifier_water(results: BuildingResults, system_id: str) -> Node:
    """Water of the humidifier on the winter day."""
    system, result = _system(results, system_id)
    path = result.winter
    water = path.flow_kg_s * path.humidified_kg_kg
    (_, before_w), (_, behind_w) = path.around(HUMIDIFIERS) or ((path.mixed_c, path.mixed_w),) * 2
    d, s = (int(i) for i in np.unravel_index(int(water.argmax()), water.shape))
    return Node(
        f"{system.name}: humidifier",
        float(water[d, s]),
        "condensate",
        formula="dry-air flow × (w behind − w before)",
        numbers=f"{float(path.flow_kg_s[d, s]):.4g} kg/s × {1000.0 * float(path.humidified_kg_kg[d, s]):.4g} g/kg",
        note=f"The winter day, {clock(s)}: what keeps the lower humidity limits of the rooms in the air that returns from them.",
        inputs=(
            Node("Dry-air flow", float(path.flow_kg_s[d, s]), "mass_flow"),
            Node("Before it", float(before_w[d, s]), "humidity_ratio"),
            Node("Behind it", float(behind_w[d, s]), "humidity_ratio"),
            Node("Return from the rooms", float(path.return_w[d, s]), "humidity_ratio"),
        ),
    )


def terminals_reheat(results: BuildingResults, system_id: str) -> Node:
    """Reheat of all terminals together, at its own peak."""
    system, result = _system(results, system_id)
    total = result.reheat_w
    m, s = (int(i) for i in np.unravel_index(int(total.argmax()), total.shape))
    rooms = []
    for row, (room_id, served) in enumerate(result.served.items()):
        heat = float(served.reheat_w[m, s])
        if heat > 0.5:
            room = results.rooms[room_id].room
            rooms.append(
                Node(
                    f"{room.number} {room.name}",
                    heat,
                    "power",
                    formula="what keeps its heating set-point under its supply air",
                    inputs=(
                        Node("Room air", float(served.air_c[m, s]), "temperature"),
                        Node("Supply air", float(result.summer.room_supply_c(row)[m, s]), "temperature"),
                        Node("Supply flow", float(served.flow_kg_s[m, s]), "mass_flow"),
                    ),
                )
            )
    when = f"{MONTHS[day_number(results.building.climate.months[m]) - 1]} {clock(s)}"
    return Node(
        f"{system.name}: reheat",
        float(total[m, s]),
        "load",
        formula="sum over its rooms",
        note=f"At {when}, its own peak.",
        inputs=tuple(rooms),
    )


def system_outdoor_air(results: BuildingResults, system_id: str) -> Node:
    """Outdoor air that a system needs, by the rule that it was found by."""
    return intake(_system(results, system_id)[1].outdoor_air)


_FREE = {
    RETURN: "the return to its system",
    SUPPLY: "the supply of its make-up unit",
    TRANSFER: "a transfer that balances",
    LEAKS: "nothing but leaks",
}


def room_balance(results: BuildingResults, room_id: str) -> Node:
    """Air of a room: what comes in and what goes out."""
    balance = next(b for b in room_balances(results) if b.room == room_id)
    room = results.rooms[room_id].room
    extracts = tuple(
        Node(e.name, e.flow_m3_s, "airflow", ref=f"extract/{e.id}/flow_m3_s")
        for e in results.building.extracts
        if e.room == room_id and not e.triggered
    )
    moved = results.balance.transfers_m3_s
    names = {r.id: r.number for r in results.building.rooms}
    came = tuple(
        Node(f"From {names[t.source]}", moved[t.id], "airflow", ref=f"transfer/{t.id}/flow_m3_s")
        for t in results.building.transfers
        if t.target == room_id and t.id in moved
    )
    left = tuple(
        Node(f"To {names[t.target]}", moved[t.id], "airflow", ref=f"transfer/{t.id}/flow_m3_s")
        for t in results.building.transfers
        if t.source == room_id and t.id in moved
    )
    inwards = balance.supply_m3_s + balance.transfer_in_m3_s + balance.leak_in_m3_s
    return Node(
        f"{room.number} {room.name}: air balance",
        inwards,
        "airflow",
        formula="supply + from rooms + leaks in = return + extracts + to rooms + leaks out",
        numbers=" + ".join(
            figure(v, "airflow") for v in (balance.supply_m3_s, balance.transfer_in_m3_s, balance.leak_in_m3_s)
        )
        + " = "
        + " + ".join(
            figure(v, "airflow")
            for v in (
                balance.returned_m3_s,
                balance.extract_m3_s + balance.by_unit_m3_s,
                balance.transfer_out_m3_s,
                balance.leak_out_m3_s,
            )
        ),
        note=f"It is balanced by {_FREE[balance.free]}. Air of 20 °C, all extracts running, systems at their design flows.",
        inputs=(
            Node("Supply", balance.supply_m3_s, "airflow", note=f"make-up {figure(balance.make_up_m3_s, 'airflow')}"),
            Node("From other rooms", balance.transfer_in_m3_s, "airflow", inputs=came),
            Node(
                "Through leaks, in",
                balance.leak_in_m3_s,
                "airflow",
                formula="max(free leaks, what is drawn in)",
                inputs=(Node("Drawn in", balance.drawn_m3_s, "airflow"),),
            ),
            Node("Return", balance.returned_m3_s, "airflow"),
            Node("Extracts", balance.extract_m3_s + balance.by_unit_m3_s, "airflow", inputs=extracts),
            Node("To other rooms", balance.transfer_out_m3_s, "airflow", inputs=left),
            Node("Through leaks, out", balance.leak_out_m3_s, "airflow"),
            Node("Pressure offset", balance.offset_m3_s, "airflow", ref=f"room/{room_id}/offset_m3_s"),
        ),
    )


def terminal_fans(results: BuildingResults, system_id: str) -> Node:
    """Electricity of the fans in a system's terminals.

    Raises:
        KeyError: no such system, or its terminals have none.
    """
    system, result = _system(results, system_id)
    kind = fans_in(system)
    if not kind:
        raise KeyError(system_id)
    share = 1.0 if kind == SERIES else system.terminal_fan_share
    flow = sum(result.airflows[room].design_m3_s for room in result.served)
    specific = Node(
        "Electricity by flow",
        system.terminal_fan_w_m3_s,
        "specific_fan_power",
        ref=f"air_system/{system.drawn}/terminal_fan_w_m3_s",
    )
    part = Node("Their flow, of the terminals'", share, "percent", ref=f"air_system/{system.drawn}/terminal_fan_share")
    return Node(
        f"{system.name}: fans in terminals",
        result.terminal_fans_w,
        "electric_power",
        formula="sum of design flows × electricity by flow" + ("" if kind == SERIES else " × share"),
        numbers=f"{flow:.4g} m³/s × {system.terminal_fan_w_m3_s:.4g} W/(m³/s)"
        + ("" if kind == SERIES else f" × {share:.3g}"),
        source="heat balance of the rooms: what the fans take warms them; docs/methods/air.md",
        note="In series: while the unit runs."
        if kind == SERIES
        else "In parallel: while terminals reheat, of which their heat is a part.",
        inputs=(Node("Sum of design flows", flow, "airflow"), specific, *(() if kind == SERIES else (part,))),
    )


def room_reheat(results: BuildingResults, room_id: str) -> Node:
    """Reheat of a room's terminal, at its own peak."""
    system, result = _system(results, serving(results)[room_id])
    served, room = result.served[room_id], results.rooms[room_id].room
    row = list(result.served).index(room_id)
    m, s = (int(i) for i in np.unravel_index(int(served.reheat_w.argmax()), served.reheat_w.shape))
    when = f"{MONTHS[day_number(results.building.climate.months[m]) - 1]} {clock(s)}"
    return Node(
        f"{room.number} {room.name}: reheat by {system.name}",
        float(served.reheat_w[m, s]),
        "load",
        formula="what keeps its heating set-point under its supply air, no more",
        note=f"At {when}, its own peak.",
        source="room under its supply air; docs/methods/air.md",
        inputs=(
            Node("Room air", float(served.air_c[m, s]), "temperature"),
            Node("Heating set-point", room.heating_setpoint_c, "temperature", ref=f"room/{room_id}/heating_setpoint_c"),
            Node("Supply air", float(result.summer.room_supply_c(row)[m, s]), "temperature"),
            Node("Supply flow", float(served.flow_kg_s[m, s]), "mass_flow"),
            Node("Taken out by the supply air", float(served.cooling_w[m, s]), "load"),
        ),
    )
