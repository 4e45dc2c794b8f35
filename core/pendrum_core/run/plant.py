"""The second half of a calculation: air systems, ducts, coils, circuits and emitters for loads that are known."""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.moisture import RoomMoisture, room_moistures
from pendrum_core.air.result import AirSystemResult, ServedRoom
from pendrum_core.model.building import Building
from pendrum_core.model.catalogue import RADIATOR, rows_of
from pendrum_core.model.systems import UNDERFLOOR, WATER_REHEAT, Circuit
from pendrum_core.moist_air import wet_bulb_c
from pendrum_core.plant.source import AirOutside, Course, PlantResult, size_plant, whole_course
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.building import BuildingLoads, BuildingResults, Failure
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.run.memory import Memory
from pendrum_core.run.systems import size_systems
from pendrum_core.water.emitters import RATINGS_W, EmitterResult, size_radiator
from pendrum_core.water.floor import FloorResult, size_floor
from pendrum_core.water.hot_water import HotWaterResult, size_hot_water
from pendrum_core.water.network import CircuitResult, size_circuit

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
    stores = _stores(loads.building, failures)
    circuits, emitters, floors, plants = _circuits(loads, duties, systems, stores, failures)
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
        circuits=circuits,
        emitters=emitters,
        floors=floors,
        plants=plants,
        stores=stores,
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


def _duties(
    building: Building, circuit: Circuit, room_duties: Mapping[str, float], units: Mapping[str, list[AirSystemResult]]
) -> dict[str, float]:
    """Largest duty of each end, by which its pipes are sized [W]."""
    duties: dict[str, float] = {}
    for section in circuit.sections:
        if section.end is None:
            continue
        margins = building.margins_of(section.end)
        warm = 1.0 + margins.heating
        if section.end in units:
            # One set per room: what all of them ask at one time.
            cold = max(0.0, float(np.sum([unit.coil_total_w for unit in units[section.end]], axis=0).max()))
            hot = sum(
                unit.heating_coil_w + max(float(unit.reheat_w.max()), float(_reheat_winter_w(unit).max()))
                if _reheats_by_water(building, unit)
                else unit.heating_coil_w
                for unit in units[section.end]
            )
            duties[section.end] = hot * warm if circuit.kind == "heating" else cold * (1.0 + margins.cooling)
        elif section.end in room_duties and circuit.kind == "heating":
            duties[section.end] = room_duties[section.end] * warm
    return duties


def _reheats_by_water(building: Building, unit: AirSystemResult) -> bool:
    """Whether the circuit of a unit's heating coil feeds its terminals too."""
    return any(system.id == unit.id and system.reheat == WATER_REHEAT for system in building.systems)


def _reheat_winter_w(unit: AirSystemResult) -> Array:
    """What its terminals give on the winter day: all the heat of rooms that have no emitter [W]."""
    return np.asarray(np.sum([served.winter_reheat_w for served in unit.served.values()], axis=0, dtype=np.float64))


def _course(
    loads: BuildingLoads,
    circuit: Circuit,
    systems: Mapping[str, AirSystemResult],
    units: Mapping[str, list[AirSystemResult]],
    stores: Mapping[str, HotWaterResult],
    pipes_lose_w: float,
) -> Course:
    """What ends and stores ask at every step together, without margins: summer's design days and the winter day [W]."""
    shape = loads.outdoors.dry_bulb_c.shape
    summer, winter = np.zeros(shape), np.zeros((1, shape[1]))
    serving: dict[str, ServedRoom] = {}
    for system in systems.values():
        serving |= system.served  # the system that serves a room last leaves it its heating
    # In the order of the sections: a sum of other order has another last digit, and every process is to tell the same.
    for end in dict.fromkeys(section.end for section in circuit.sections if section.end is not None):
        for unit in units.get(end, ()):
            if circuit.kind == "chilled":
                summer += unit.coil_total_w
            else:
                path, cold = unit.summer, unit.winter
                summer += path.heating_w + path.reheat_w + path.preheat_w
                winter += cold.heating_w + cold.reheat_w + cold.preheat_w
                if _reheats_by_water(loads.building, unit):
                    summer += unit.reheat_w
                    winter += _reheat_winter_w(unit)
        room = loads.rooms.get(end)
        if room is None or circuit.kind == "chilled":
            continue
        if end in serving:
            summer += serving[end].emitter_w
            winter += serving[end].heat_w
        else:
            if room.control is not None:
                summer += np.maximum(room.control.summer.plant_w, 0.0)
            winter += room.heating.load_w
    own = [found for found in stores.values() if found.store.circuit == circuit.id]
    first, beside = (
        np.sum([f.charge_course_w for f in own if f.store.priority is waits], axis=0) + np.zeros(shape[1])
        for waits in (True, False)
    )
    return whole_course(circuit, summer, winter, first, beside, pipes_lose_w)


def _air_outside(loads: BuildingLoads) -> AirOutside:
    """Outdoor air of the design days."""
    outdoors = loads.outdoors
    wet = wet_bulb_c(outdoors.dry_bulb_c, outdoors.humidity_ratio, outdoors.pressure_pa)
    return AirOutside(outdoors.dry_bulb_c, wet, outdoors.pressure_pa)


def _winter_air(loads: BuildingLoads, shape: tuple[int, ...]) -> AirOutside:
    """Saturated air of the winter day."""
    cold = np.full(shape, loads.building.climate.winter_dry_bulb_c)
    return AirOutside(cold, cold, loads.outdoors.pressure_pa)


def _circuits(
    loads: BuildingLoads,
    room_duties: Mapping[str, float],
    systems: Mapping[str, AirSystemResult],
    stores: Mapping[str, HotWaterResult],
    failures: list[Failure],
) -> tuple[dict[str, CircuitResult], dict[str, EmitterResult], dict[str, FloorResult], dict[str, PlantResult]]:
    building, rooms = loads.building, loads.rooms
    circuits: dict[str, CircuitResult] = {}
    emitters: dict[str, EmitterResult] = {}
    floors: dict[str, FloorResult] = {}
    plants: dict[str, PlantResult] = {}
    units: dict[str, list[AirSystemResult]] = {}
    for drawn in building.systems:
        if drawn.id in systems:
            units.setdefault(drawn.drawn, []).append(systems[drawn.id])
    ratings_w = tuple(row.output_w for row in rows_of(building.catalogue, RADIATOR)) or RATINGS_W
    for circuit in building.circuits:
        duties = _duties(building, circuit, room_duties, units)
        asks = any(duty > 0.0 for duty in duties.values())
        charges = any(found.store.circuit == circuit.id for found in stores.values())
        try:
            if asks:
                circuits[circuit.id] = size_circuit(circuit, duties)
            if asks and circuit.kind == "heating":
                for room in (end for end in duties if end in rooms):
                    air_c = rooms[room].room.heating_setpoint_c
                    if circuit.emitters == UNDERFLOOR:
                        area = rooms[room].room.floor_area_m2
                        floors[room] = size_floor(
                            duties[room], area, air_c, circuit.flow_c, circuit.return_c, circuit.floor
                        )
                        continue
                    emitters[room] = size_radiator(
                        duties[room], circuit.flow_c, circuit.return_c, air_c, circuit.emitter_exponent, ratings_w
                    )
            if circuit.units and (asks or charges):
                margin = building.margins.heating if circuit.kind == "heating" else building.margins.cooling
                lost_w = circuits[circuit.id].pipes_lose_w if circuit.id in circuits else 0.0
                course = _course(loads, circuit, systems, units, stores, lost_w)
                plants[circuit.id] = size_plant(
                    circuit,
                    circuit.units,
                    course,
                    margin,
                    summer=_air_outside(loads),
                    winter=_winter_air(loads, course.winter_w.shape),
                )
        except Exception as error:
            failures.append(Failure("circuit", circuit.id, reason_of(error, f"Circuit {circuit.name}")))
    return circuits, emitters, floors, plants
