"""Expansion vessels of circuits.

Source: EN 12828, annex D.
"""

from pendrum_core.model.systems import Circuit
from pendrum_core.quantities.constants import GRAVITY_M_S2
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.floor import content_m3
from pendrum_core.water.network import liquid_of
from pendrum_core.water.vessel import Vessel, size_vessel

EMITTER_M3_W = 7e-6  # water in radiators by their rating, 7 L per kW; steel panels of usual make
FILL_C, ABOVE_FLOW_K, COOLING_HIGHEST_C = 10.0, 10.0, 40.0
OVER_STATIC_PA = 0.3e5  # EN 12828, against vapour at the top


def water_content_m3(results: BuildingResults, circuit: Circuit) -> tuple[float, float, float, float]:
    """Water in the pipes, the emitters, the source and its buffer [m3]."""
    ends = {section.end for section in circuit.sections}
    ratings = [
        emitter.chosen_w or emitter.rating_w
        for room, emitter in results.emitters.items()
        if room in ends and circuit.kind == "heating"
    ]
    floors = sum(
        content_m3(floor, circuit.floor)
        for room, floor in results.floors.items()
        if room in ends and circuit.kind == "heating"
    )
    pipes = results.circuits[circuit.id].water_content_m3
    buffer = buffer_of(results, circuit)
    return pipes, EMITTER_M3_W * sum(ratings) + floors, circuit.source_content_m3, buffer.volume_m3 if buffer else 0.0


def initial_pa(circuit: Circuit) -> float:
    """Initial pressure: the static height of the water above the vessel, and 0.3 bar [Pa, gauge]."""
    return circuit.static_height_m * liquid_of(circuit).density_kg_m3(FILL_C) * GRAVITY_M_S2 + OVER_STATIC_PA


def highest_c(circuit: Circuit) -> float:
    """Highest temperature of the water: 10 K above a heating flow; of chilled water, that it stands at when nothing runs."""
    return min(100.0, circuit.flow_c + ABOVE_FLOW_K) if circuit.kind == "heating" else COOLING_HIGHEST_C


def vessel_of(results: BuildingResults, circuit: Circuit) -> Vessel:
    """The vessel of a circuit.

    Raises:
        ValueError: its safety valve leaves nothing for expansion.
    """
    content = sum(water_content_m3(results, circuit))
    liquid = liquid_of(circuit)
    hot = liquid.density_kg_m3(highest_c(circuit))
    return size_vessel(content, liquid.density_kg_m3(FILL_C), hot, initial_pa(circuit), circuit.safety_valve_pa)
