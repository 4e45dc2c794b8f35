"""Working of air systems: flows, outdoor air, cooling coil."""

from pendrum_core.air.outdoor_air import SystemOutdoorAir
from pendrum_core.air.result import AirSystemResult
from pendrum_core.model.climate import day_number
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import CENTRAL, COINCIDENT, AirSystem, Terminal
from pendrum_core.moist_air import enthalpy_j_kg
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.outdoor_air import serving
from pendrum_core.working.node import Node, figure
from pendrum_core.working.rooms import room_cooling


def _system(results: BuildingResults, system_id: str) -> tuple[AirSystem, AirSystemResult]:
    system = next(s for s in results.building.systems if s.id == system_id)
    return system, results.systems[system_id]


def room_airflow(results: BuildingResults, room_id: str) -> Node:
    """A room's supply airflow."""
    system, result = _system(results, serving(results)[room_id])
    flow = result.airflows[room_id]
    room = results.rooms[room_id].room
    supply = flow.supply
    terminal = next(t for t in system.terminals if t.room == room_id)
    together = system.sizing == COINCIDENT and system.kind == CENTRAL
    cooling = Node(
        "For cooling",
        flow.cooling_m3_s,
        "airflow",
        "Vc",
        formula="Qs / (cp (Ta − Ts)) · v",
        numbers=f"{flow.peak_sensible_w:.4g} W / ({supply.specific_heat_j_kgk:.4g} J/kgK × {flow.difference_k:.3g} K) "
        f"× {supply.specific_volume_m3_kg:.4g} m³/kg",
        inputs=(
            *(
                (Node("At the hour at which all rooms ask the most together", flow.peak_sensible_w, "load", "Qs"),)
                if together
                else ()
            ),
            *((room_cooling(results, room_id),) if results.rooms[room_id].cooling is not None else ()),
            Node("Room air", room.cooling_setpoint_c, "temperature", "Ta", ref=f"room/{room_id}/cooling_setpoint_c"),
            Node(
                "Supply air",
                supply.temperature_c,
                "temperature",
                "Ts",
                ref=f"air_system/{system.drawn}/supply_c",
                note=f"The fan in the terminal warms it by {flow.warmed_k:.2f} K." if flow.warmed_k else "",
            ),
            Node(
                "Specific heat, moist",
                supply.specific_heat_j_kgk,
                "specific_heat",
                "cp",
                source="ASHRAE Handbook Fundamentals 2017, ch. 1",
            ),
            Node(
                "Volume per kg at supply state and site pressure",
                supply.specific_volume_m3_kg,
                "ratio",
                "v",
                note="m³/kg; moisture of the room at 50 % relative humidity, at most saturated",
                source="ASHRAE Handbook Fundamentals 2017, ch. 1, eq. 26",
            ),
        ),
    )
    needs = (
        cooling,
        Node(
            "For ventilation",
            flow.ventilation_m3_s,
            "airflow",
            "Voz",
            formula=_outdoor_air_formula(terminal),
            numbers=_outdoor_air_numbers(terminal, room),
            source="ANSI/ASHRAE 62.1-2019, eqs. 6-1, 6-2",
            ref=f"room/{room_id}/outdoor_air",
        ),
        Node(
            "For minimum air changes",
            flow.air_changes_m3_s,
            "airflow",
            formula="n V / 3600",
            ref=f"room/{room_id}/minimum_air_changes",
        ),
    )
    pinned = flow.governing == "pinned"
    return Node(
        f"{room.number} {room.name}: supply airflow",
        flow.design_m3_s,
        "airflow",
        "V",
        formula="pinned by the engineer" if pinned else f"the largest need: {flow.governing}",
        numbers="" if pinned else "max(" + ", ".join(figure(n.value or 0.0, "airflow") for n in needs) + ")",
        inputs=needs,
    )


def _outdoor_air_formula(terminal: Terminal) -> str:
    return "max(Rp P + Ra A, n V / 3600) / Ez" if terminal.outdoor_air_changes else "(Rp P + Ra A) / Ez"


def _outdoor_air_numbers(terminal: Terminal, room: Room) -> str:
    """The need with this room's figures, in litres per second."""
    rates = (
        f"{terminal.air_per_person_m3_s * 1000:.4g} L/s × {terminal.people:.4g} + "
        f"{terminal.air_per_area_m3_s_m2 * 1000:.4g} L/s·m² × {room.floor_area_m2:.4g} m²"
    )
    if terminal.outdoor_air_changes:
        changed = f"{terminal.outdoor_air_changes:.4g} 1/h × {room.volume_m3:.4g} m³ / 3.6"
        return f"max({rates}, {changed}) / {terminal.effectiveness:.3g}"
    return f"({rates}) / {terminal.effectiveness:.3g}"


_INTAKES = {
    "one zone": ("Vot = Voz", "ANSI/ASHRAE 62.1-2019, 6.2.3: one zone"),
    "outdoor air only": ("Vot = sum(Voz)", "ANSI/ASHRAE 62.1-2019, 6.2.4: outdoor air alone"),
    "sum": ("sum of what the rooms need", "EN 16798-1:2019, people and building parts of all rooms added"),
}


def intake(air: SystemOutdoorAir) -> Node:
    """Outdoor air of a system in the terms of the rule that it was found by."""
    title, symbol = "Outdoor air intake", "Vot"
    if air.rule in _INTAKES:
        formula, source = _INTAKES[air.rule]
        needs = Node("What the rooms need, each with its effectiveness", air.zones_m3_s, "airflow")
        return Node(title, air.intake_m3_s, "airflow", symbol, formula=formula, source=source, inputs=(needs,))
    diverse = air.people_share < 1.0
    uncorrected = Node(
        "Uncorrected outdoor air, all rooms",
        air.uncorrected_m3_s,
        "airflow",
        "Vou",
        formula="D × sum(Rp Pz) + sum(Ra Az)",
        note=f"D {air.people_share:.2f}: of all people those at one time" if diverse else "D 1: all people at one time",
    )
    if air.rule == "62.1 simplified":
        efficiency = Node(
            "System ventilation efficiency",
            air.efficiency,
            "ratio",
            "Ev",
            formula="0.88 D + 0.22 below D 0.60, else 0.75",
        )
        source = "ANSI/ASHRAE 62.1-2019, 6.2.5.3"
    else:
        efficiency = Node(
            "System ventilation efficiency",
            air.efficiency,
            "ratio",
            "Ev",
            formula="1 + Xs − Zd",
            numbers=f"1 + {air.average_fraction:.4g} − {air.critical_fraction:.4g}",
        )
        source = "ANSI/ASHRAE 62.1-2019, 6.2.5 and appendix A"
    return Node(
        title,
        air.intake_m3_s,
        "airflow",
        symbol,
        formula="Vou / Ev",
        numbers=f"{figure(air.uncorrected_m3_s, 'airflow')} / {air.efficiency:.4g}",
        source=source,
        inputs=(uncorrected, efficiency),
    )


def _duct_gain(system: AirSystem, ducts: str, gain_k: float) -> Node:
    return Node(
        f"Warmed in the {ducts} ducts by",
        gain_k,
        "temperature_difference",
        formula="Ta + (Tin − Ta) · exp(−UA / (m cp))" + (" for each room's way, mixed" if ducts == "return" else ""),
        source="films and mineral wool by EN ISO 12241",
        inputs=(
            Node(
                "Air around the ducts",
                system.duct_around_c,
                "temperature",
                "Ta",
                ref=f"air_system/{system.drawn}/duct_around_c",
            ),
        ),
    )


def coil_total(results: BuildingResults, system_id: str) -> Node:
    """The cooling coil's total load at its own peak."""
    system, result = _system(results, system_id)
    m, s = result.peak
    path = result.summer
    flow = float(path.flow_kg_s[m, s])
    total = float(result.coil_total_w[m, s])
    t_in, w_in = float(path.entering_c[m, s]), float(path.entering_w[m, s])
    h_in = float(enthalpy_j_kg(t_in, w_in))
    h_out = float(enthalpy_j_kg(path.coil.leaving_c[m, s], path.coil.leaving_w[m, s]))
    condensate = float(path.condensate_w[m, s])
    air = result.outdoor_air
    when = f"{MONTHS[day_number(results.building.climate.months[m]) - 1]} {clock(s)}"

    def state(name: str, t: float, w: float, *more: Node, note: str = "") -> Node:
        return Node(
            name,
            float(enthalpy_j_kg(t, w)),
            "enthalpy",
            "h",
            note=note,
            inputs=(Node("Dry-bulb", t, "temperature"), Node("Humidity ratio", w, "humidity_ratio"), *more),
        )

    warmed, warmed_outdoors = (
        () if gain_k is None else (_duct_gain(system, ducts, float(gain_k[m, s])),)
        for ducts, gain_k in (("return", path.return_gain_k), ("outdoor", path.outdoor_gain_k))
    )

    outdoor_air = intake(air)
    return Node(
        f"{system.name}: cooling coil, total",
        total,
        "load",
        "Qt",
        formula="dry-air flow × (h entering − h leaving) − condensate",
        numbers=f"{flow:.4g} kg/s × ({h_in / 1000:.4g} − {h_out / 1000:.4g}) kJ/kg − {condensate / 1000:.3g} kW",
        source="ASHRAE Handbook Fundamentals 2017, ch. 1; coil by apparatus dew point and bypass factor",
        note=f"At {when}: searched over every step of every month, the coil's own peak.",
        inputs=(
            Node("Dry-air flow", flow, "mass_flow", "m", formula="sum of what the rooms take then, and what leaks"),
            state("Entering, mixed", t_in, w_in, note=f"{float(path.outdoor_share[m, s]):.1%} outdoor air"),
            state("Outdoors", float(path.fresh_c[m, s]), float(path.fresh_w[m, s]), *warmed_outdoors),
            state("Return", float(path.plenum_c[m, s]), float(path.plenum_w[m, s]), *warmed),
            state(
                "Leaving the coil",
                float(path.coil.leaving_c[m, s]),
                float(path.coil.leaving_w[m, s]),
                note=f"apparatus dew point {float(path.coil.apparatus_dew_point_c[m, s]):.2f} °C",
            ),
            Node("Bypass factor", system.bypass_factor, "ratio", ref=f"air_system/{system.drawn}/bypass_factor"),
            Node("Condensate's heat", condensate, "load", formula="moisture removed × cp water × leaving temperature"),
            Node(
                "Fan's temperature rise",
                float(path.fan_rise_k[m, s]),
                "temperature_difference",
                formula="P electrical / (m cp)",
            ),
            outdoor_air,
        ),
    )
