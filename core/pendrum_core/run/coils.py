"""Coils of the units, sized against what flows in them."""

import numpy as np

from pendrum_core.air.coil_size import FACE_M_S, CoilSize, Entering, Inside, size_coil
from pendrum_core.air.path import Array, Path
from pendrum_core.air.result import AirSystemResult
from pendrum_core.model.building import Building
from pendrum_core.model.systems import AirSystem, Circuit
from pendrum_core.model.unit_parts import COOLING_COIL, HEATING_COIL
from pendrum_core.run.memory import Memory
from pendrum_core.water.network import liquid_of

_LEAST_W = 1.0
_FED_BY = {COOLING_COIL: "chilled", HEATING_COIL: "heating"}


def size_coils(building: Building, system: AirSystem, found: AirSystemResult, memory: Memory) -> dict[int, CoilSize]:
    """Coils of a unit by their place among its parts; those that nothing feeds or that have no duty are left out."""
    ending = [c for c in building.circuits if any(section.end == system.drawn for section in c.sections)]
    # Of several the one whose flow the walk reckons with (run/systems.py).
    feeding: dict[str, Circuit] = {}
    for circuit in sorted(ending, key=lambda c: -c.flow_c if c.kind == "heating" else c.flow_c):
        feeding.setdefault(circuit.kind, circuit)
    inside = {kind: _inside(circuit) for kind, circuit in feeding.items()}
    kept = memory.coils.get(system.id)
    if kept is not None and kept[0] is found and kept[1] == inside:
        return kept[2]
    sized = {}
    for place, part in enumerate(system.fitted):
        water = inside.get(_FED_BY.get(part.kind, ""))
        if water is None:
            continue
        duty, air = _largest(found, place, part.kind)
        if duty < _LEAST_W or air.flow_kg_s <= 0.0:
            continue
        sized[place] = size_coil(
            part.kind,
            duty,
            air,
            water,
            largest_m3_s=found.fan.flow_m3_s,
            face_velocity_m_s=part.face_velocity_m_s or FACE_M_S,
            bypass_factor=system.bypass_factor if part.kind == COOLING_COIL else None,
            rows=part.rows,
        )
    memory.coils[system.id] = (found, inside, sized)
    return sized


def _inside(circuit: Circuit) -> Inside:
    if circuit.by_refrigerant:
        return Inside(circuit.flow_c, circuit.flow_c, refrigerant=True)
    heat = liquid_of(circuit).specific_heat_j_kgk((circuit.flow_c + circuit.return_c) / 2.0)
    return Inside(circuit.flow_c, circuit.return_c, heat_j_kgk=heat)


def _largest(found: AirSystemResult, place: int, kind: str) -> tuple[float, Entering]:
    """Largest duty of a coil, and the air in front of it then."""

    def duties(path: Path) -> Array:
        return path.cooling_w if kind == COOLING_COIL else np.asarray(path.parts[place].heat_w)

    path = max((found.summer, found.winter), key=lambda path: float(duties(path).max()))
    at = np.unravel_index(int(duties(path).argmax()), path.flow_kg_s.shape)
    before = path.parts[place - 1] if place else None
    entering = (path.mixed_c, path.mixed_w) if before is None else (before.leaving_c, before.leaving_w)
    air_c, air_w = (float(values[at]) for values in entering)
    return float(duties(path)[at]), Entering(float(path.flow_kg_s[at]), air_c, air_w, found.pressure_pa)
