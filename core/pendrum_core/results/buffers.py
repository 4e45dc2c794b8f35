"""Buffer stores beside plants: what lets the smallest unit run long enough at its least output while nothing is taken.

Source: heat balance of the store.
"""

from dataclasses import dataclass

from pendrum_core.model.systems import Circuit
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.hot_water import standing_w
from pendrum_core.water.network import liquid_of

_H = 3600.0  # seconds
AROUND_C = 20.0  # air around stores
# Volumes that are made [m3].
SERIES_M3 = (0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.75, 1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 7.5, 10.0)


@dataclass(frozen=True)
class Buffer:
    """A buffer store.

    Attributes:
        unit: id of the unit whose least output is the smallest; least_w that output [W].
        needed_m3: for the least run; volume_m3: pinned, the next one that is made, or what is needed where that is above all of them.
        runs_h: how long the unit runs with it [h].
        standing_w: what it loses to the room around it, of a chilled one takes in, at the circuit's mean temperature [W].
        heat_j_m3k: of what fills the circuit, at its mean temperature [J/m3 K].
    """

    unit: str
    least_w: float
    needed_m3: float
    volume_m3: float
    runs_h: float
    heat_j_m3k: float
    standing_w: float


def buffer_of(results: BuildingResults, circuit: Circuit) -> Buffer | None:
    """The buffer of a circuit's plant; None where it has none, or no plant. V = Q least t / (rho c dT).

    Source: heat balance of the store.
    """
    plant = results.plants.get(circuit.id)
    if circuit.buffer_h is None or plant is None or circuit.by_refrigerant:
        return None
    least = {i: circuit.units[i].least_part * plant.capacity_w[i] for i in plant.working}
    smallest = min(least, key=lambda i: least[i])
    mean = (circuit.flow_c + circuit.return_c) / 2.0
    liquid = liquid_of(circuit)
    heat = liquid.density_kg_m3(mean) * liquid.specific_heat_j_kgk(mean)
    needed = least[smallest] * circuit.buffer_h * _H / (heat * circuit.buffer_k)
    made = next((volume for volume in SERIES_M3 if volume >= needed), needed) if needed > 0.0 else 0.0
    volume = made if circuit.pinned_buffer_m3 is None else circuit.pinned_buffer_m3
    runs = volume * heat * circuit.buffer_k / least[smallest] / _H if least[smallest] > 0.0 else circuit.buffer_h
    warm, cold = max(mean, AROUND_C), min(mean, AROUND_C)
    stands = standing_w(volume * 1000.0, warm, cold) if volume > 0.0 else 0.0
    return Buffer(circuit.units[smallest].id, least[smallest], needed, volume, runs, heat, stands)
