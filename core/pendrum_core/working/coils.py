"""Working of coils: their face and rows, and what those give."""

from pendrum_core.air.coil_size import CoilSize
from pendrum_core.air.fin_tube import ALONG_M, FIN_PITCH_M, TUBE_M
from pendrum_core.model.unit_parts import COOLING_COIL, HEATING_COIL, MOST_ROWS
from pendrum_core.results.building import BuildingResults
from pendrum_core.working.node import Node, figure

_SURFACE = "plain fins on staggered tubes, j factors by McQuiston; tubes by Gnielinski; docs/methods/air.md"
_ROWS = "effectiveness of crossflow rows in counterflow (Kays and London); wet coils by enthalpy (Braun, Klein and Mitchell 1989)"


def cooling_coil_size(results: BuildingResults, system_id: str) -> Node:
    """Capacity of the cooling coil's rows.

    Raises:
        KeyError: no such system, or nothing feeds its coil.
    """
    return _size(results, system_id, COOLING_COIL)


def heating_coil_size(results: BuildingResults, system_id: str) -> Node:
    """Capacity of the first heating coil's rows.

    Raises:
        KeyError: no such system, or nothing feeds its coil.
    """
    return _size(results, system_id, HEATING_COIL)


def _size(results: BuildingResults, system_id: str, kind: str) -> Node:
    coil = next((coil for coil in results.coils[system_id].values() if coil.kind == kind), None)
    if coil is None:
        raise KeyError(system_id)
    system = next(s for s in results.building.systems if s.id == system_id)
    air = coil.entering
    return Node(
        f"{system.name}: {coil.rows} rows of the {kind}",
        coil.capacity_w,
        "load",
        formula="effectiveness × flow × difference of the two inlets, of temperature or, wet, of enthalpy",
        source=_ROWS,
        note=_why(coil),
        inputs=(
            Node("Largest duty", coil.duty_w, "load"),
            Node("Dry-air flow then", air.flow_kg_s, "mass_flow"),
            Node("Air in front of it", air.dry_bulb_c, "temperature"),
            Node("Its humidity ratio", air.humidity_ratio, "humidity_ratio"),
            *_inside(coil),
            Node(
                "Face",
                coil.face_m2,
                "area",
                formula="largest flow / face velocity",
                inputs=(
                    Node("Face velocity", coil.face_velocity_m_s, "velocity", ref=f"air_system/{system.drawn}/parts"),
                ),
            ),
            *_bypass(coil, system.bypass_factor, system.drawn),
            Node(
                "Surface",
                None,
                "",
                source=_SURFACE,
                note=f"tubes of {TUBE_M * 1000:.1f} mm, rows {ALONG_M * 1000:.1f} mm and fins {FIN_PITCH_M * 1000:.1f} mm apart",
            ),
        ),
    )


def _inside(coil: CoilSize) -> tuple[Node, ...]:
    if coil.refrigerant:
        return (Node("Refrigerant at", coil.flow_c, "temperature"),)
    return (
        Node("Water, in", coil.flow_c, "temperature"),
        Node("Water, out", coil.return_c, "temperature"),
        Node("Water flow", coil.water_kg_s, "mass_flow", formula="duty / (cp × difference)"),
    )


def _why(coil: CoilSize) -> str:
    asks = f"the duty asks for {coil.rows_for_duty}" if coil.rows_for_duty else f"not even {MOST_ROWS} give the duty"
    by = f", the bypass factor for {coil.rows_for_bypass}" if coil.rows_for_bypass else ""
    return f"{'Pinned' if coil.pinned else 'Sized'}: {asks}{by}; {figure(coil.capacity_w, 'load')} for {figure(coil.duty_w, 'load')}."


def _bypass(coil: CoilSize, entered: float, drawn: str) -> tuple[Node, ...]:
    if coil.rows_for_bypass is None:
        return ()
    return (
        Node(
            "Bypass factor of these rows",
            coil.bypass_factor,
            "ratio",
            formula="exp(−rows × transfer units of a row)",
            inputs=(Node("Bypass factor entered", entered, "ratio", ref=f"air_system/{drawn}/bypass_factor"),),
        ),
    )
