"""The second half of a calculation: air systems, ducts, coils, circuits and emitters for loads that are known."""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.moisture import RoomMoisture, room_moistures
from pendrum_core.air.result import AirSystemResult
from pendrum_core.model.building import Building
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.building import BuildingLoads, BuildingResults, Failure
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.run.coils import size_coils
from pendrum_core.run.memory import Memory
from pendrum_core.run.systems import size_systems
from pendrum_core.run.water import Water, cooling_course_w
from pendrum_core.water.hot_water import HotWaterResult, size_hot_water

Array = NDArray[np.float64]


def calculate_plant(loads: BuildingLoads, memory: Memory) -> BuildingResults:
    """Size everything that serves the rooms, only what changed since the last use of `memory`.

    A system or circuit that cannot be sized stands among the failures.
    """
    rooms, failures = loads.rooms, list(loads.failures)
    systems = size_systems(loads, memory, failures)
    serving: dict[str, list[AirSystemResult]] = {}
    for system in systems.values():
        for room in system.airflows:
            serving.setdefault(room, []).append(system)
    duties = _heating_duties(rooms, systems)
    cold = _cooling_duties(rooms, systems)
    asked = {room: (duty, cold[room]) for room, duty in duties.items()}
    stores = _stores(loads.building, failures)
    water = Water(loads, asked, systems, stores, failures)
    drawn = {system.id: system for system in loads.building.systems}
    coils = {}
    for identity, sized in systems.items():
        try:
            coils[identity] = size_coils(loads.building, drawn[identity], sized, memory)
        except Exception as error:
            name = drawn[identity].name
            failures.append(Failure("air_system", drawn[identity].drawn, reason_of(error, f"Coils of {name}")))
    moisture: Mapping[str, RoomMoisture] = {}
    try:
        moisture = room_moistures(rooms, serving, loads.outdoors)
    except Exception as error:
        failures.append(Failure("moisture", "", reason_of(error, "Humidity of the rooms")))
    return BuildingResults(
        **(vars(loads) | {"failures": tuple(failures)}),
        systems=systems,
        heating_duty_w=duties,
        moisture=moisture,
        circuits=water.circuits,
        emitters=water.emitters,
        floors=water.floors,
        ceilings=water.ceilings,
        bands=water.bands,
        plants=water.plants,
        feeds=water.feeds,
        courses=water.courses,
        loss_shares=water.loss_shares,
        given_back_w=water.given_back_w,
        stores=stores,
        coils=coils,
    )


def _stores(building: Building, failures: list[Failure]) -> dict[str, HotWaterResult]:
    """Stores of hot water that something is drawn from, by id."""
    found = {}
    for store in building.stores:
        try:
            sized = size_hot_water(store)
            if sized is not None:
                found[store.id] = sized
        except Exception as error:
            failures.append(Failure("hot_water", store.id, reason_of(error, f"Hot water {store.name}")))
    return found


def _heating_duties(rooms: Mapping[str, RoomLoads], systems: Mapping[str, AirSystemResult]) -> dict[str, float]:
    """What each room's emitter must give [W]: its heating load; under supply air what that leaves of it, or adds to it."""
    duties = {room: loads.heating.load_w for room, loads in rooms.items()}
    for system in systems.values():
        for room, served in system.served.items():
            duties[room] = float(served.heat_w.max())
    return duties


def _cooling_duties(rooms: Mapping[str, RoomLoads], systems: Mapping[str, AirSystemResult]) -> dict[str, float]:
    """What each room would ask of a chilled ceiling [W]: what its supply air leaves of its cooling load, or all of it without."""
    duties = {room: float(cooling_course_w(loads).max()) for room, loads in rooms.items()}
    for system in systems.values():
        for room, served in system.served.items():
            duties[room] = float(served.chilled_w.max())
    return duties
