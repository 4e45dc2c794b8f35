"""Results of a building."""

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.balance import AirBalance
from pendrum_core.air.coil_size import CoilSize
from pendrum_core.air.moisture import RoomMoisture
from pendrum_core.air.result import AirSystemResult
from pendrum_core.model.building import Building
from pendrum_core.model.systems import Circuit
from pendrum_core.plant.source import Course, PlantResult
from pendrum_core.results.bands import Band
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.outcome.loads import GroupLoads, RoomLoads
from pendrum_core.water.ceiling import CeilingResult
from pendrum_core.water.emitters import EmitterResult
from pendrum_core.water.feeds import Feed
from pendrum_core.water.floor import FloorResult
from pendrum_core.water.hot_water import HotWaterResult
from pendrum_core.water.network import CircuitResult

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Failure:
    """A part of the building that could not be calculated, and why."""

    kind: str
    id: str
    reason: str


@dataclass(frozen=True)
class BuildingLoads:
    """Loads of a building's rooms, and of its rooms together; maps by id. `balance` is of their air, without what loads size."""

    building: Building
    outdoors: Outdoors
    rooms: Mapping[str, RoomLoads]
    groups: Mapping[str, GroupLoads]
    failures: tuple[Failure, ...]
    rooms_calculated: int
    balance: AirBalance


@dataclass(frozen=True)
class BuildingResults(BuildingLoads):
    """Everything worked out for a building: the loads, and what serves them.

    `stores` are of hot water, by id; `heating_duty_w` is by room: its heating load, and warming supply air that comes below the set-point [W]; `moisture`
    by room where humidity limits are asked; `emitters` are radiators and `floors`
    heated floors, by room, `ceilings` what cools them by water; `bands` by circuit and
    room, of rooms with several emitters; `plants` by circuit; `coils` by system and place among its parts; `feeds` by
    circuit that another one feeds; `courses` what each circuit carries; `loss_shares` by circuit, of
    what it loses what rooms get [-], and `given_back_w` the most that they get back, by circuit and room [W].
    """

    systems: Mapping[str, AirSystemResult]
    heating_duty_w: Mapping[str, float]
    moisture: Mapping[str, RoomMoisture]
    circuits: Mapping[str, CircuitResult]
    emitters: Mapping[str, EmitterResult]
    floors: Mapping[str, FloorResult]
    plants: Mapping[str, PlantResult]
    stores: Mapping[str, HotWaterResult]
    coils: Mapping[str, Mapping[int, CoilSize]] = field(default_factory=dict)
    feeds: Mapping[str, Feed] = field(default_factory=dict)
    courses: Mapping[str, Course] = field(default_factory=dict)
    loss_shares: Mapping[str, Mapping[str, float]] = field(default_factory=dict)
    given_back_w: Mapping[tuple[str, str], float] = field(default_factory=dict)
    ceilings: Mapping[str, CeilingResult] = field(default_factory=dict)
    bands: Mapping[tuple[str, str], Band] = field(default_factory=dict)

    def drawn(self, circuit_id: str) -> Circuit:
        """A circuit as it was entered.

        Raises:
            StopIteration: there is none of this id.
        """
        return next(circuit for circuit in self.building.circuits if circuit.id == circuit_id)

    def served_air_c(self, room: str) -> Array | None:
        """Air of a room with what its systems bring, summer's days by steps [°C]; None where none serves it.

        Systems serve it one after the other: the last one leaves it as it is.
        """
        served = [system.served[room] for system in self.systems.values() if room in system.served]
        return served[-1].air_c if served else None
