"""The second half of a calculation: air systems, ducts, coils, circuits and emitters for loads that are known."""

import os
from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

from pendrum_core.air.moisture import RoomMoisture, room_moistures
from pendrum_core.air.system import AirSystemResult, RoomDemand, size_system
from pendrum_core.model.building import Building
from pendrum_core.model.systems import AirSystem, Circuit
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.building import BuildingLoads, BuildingResults, Failure
from pendrum_core.room.asked import asked_in_summer, asked_in_winter
from pendrum_core.room.loads import RoomLoads
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.run.memory import Memory, same_members
from pendrum_core.water.emitters import EmitterResult, size_radiator
from pendrum_core.water.network import CircuitResult, size_circuit


def calculate_plant(loads: BuildingLoads, memory: Memory) -> BuildingResults:
    """Size everything that serves the rooms, only what changed since the last use of `memory`.

    A system or circuit that cannot be sized stands among the failures.
    """
    building, rooms, failures = loads.building, loads.rooms, list(loads.failures)
    systems = _systems(building, rooms, loads.outdoors, memory, failures)
    serving = {room: system for system in systems.values() for room in system.airflows}
    duties = _heating_duties(rooms, systems)
    circuits, emitters = _circuits(building, rooms, duties, systems, failures)
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
    )


def _systems(
    building: Building,
    rooms: Mapping[str, RoomLoads],
    outside: Outdoors,
    memory: Memory,
    failures: list[Failure],
) -> dict[str, AirSystemResult]:
    results: dict[str, AirSystemResult] = {}
    # What a room's terminal need not give: rooms with an emitter are heated by it.
    ends = {s.end for circuit in building.circuits if circuit.kind == "heating" for s in circuit.sections}
    asked: list[tuple[AirSystem, tuple[RoomLoads, ...], frozenset[str | None]]] = []
    for drawn in building.systems:
        sound = tuple(terminal for terminal in drawn.terminals if terminal.room in rooms)
        system = drawn if len(sound) == len(drawn.terminals) else replace(drawn, terminals=sound)
        members = tuple(rooms[terminal.room] for terminal in sound)
        if members:
            asked.append((system, members, frozenset(ends & {terminal.room for terminal in sound})))
    waiting = [one for one in asked if not _known(memory, *one)]
    for (system, members, emitters), found in zip(waiting, _all_sized(waiting, outside), strict=True):
        if isinstance(found, Failure):
            failures.append(found)
            memory.systems.pop(system.id, None)
        else:
            memory.systems[system.id] = ((system, emitters), members, found)
    for system, *_ in asked:
        if system.id in memory.systems:
            results[system.id] = memory.systems[system.id][2]
    return results


def _known(memory: Memory, system: AirSystem, members: tuple[RoomLoads, ...], emitters: frozenset[str | None]) -> bool:
    """Whether a system's result stands."""
    kept = memory.systems.get(system.id)
    return kept is not None and kept[0] == (system, emitters) and same_members(members, kept[1])


def _all_sized(
    waiting: Sequence[tuple[AirSystem, tuple[RoomLoads, ...], frozenset[str | None]]], outside: Outdoors
) -> list[AirSystemResult | Failure]:
    """Systems sized, on all processors where there are several."""
    if len(waiting) < 2:
        return [_sized(system, members, outside, emitters) for system, members, emitters in waiting]
    with ThreadPoolExecutor(max_workers=os.cpu_count()) as pool:
        return list(pool.map(lambda one: _sized(one[0], one[1], outside, one[2]), waiting))


def _sized(
    system: AirSystem, members: tuple[RoomLoads, ...], outside: Outdoors, emitters: frozenset[str | None]
) -> AirSystemResult | Failure:
    try:
        return size_system(system, [_demand(loads, loads.room.id in emitters) for loads in members], outside)
    except Exception as error:
        return Failure("air_system", system.id, reason_of(error, f"System {system.name}"))


def _demand(loads: RoomLoads, has_emitter: bool) -> RoomDemand:
    room = loads.room
    extra = room.thermostat.reheat_w_m2 if room.thermostat is not None and room.heated else None
    return RoomDemand(
        room, loads.cooling_course_w, loads.latent_w, asked_in_summer(loads), asked_in_winter(loads),
        (extra or 0.0) * room.floor_area_m2, has_emitter,
    )  # fmt: skip


def _heating_duties(rooms: Mapping[str, RoomLoads], systems: Mapping[str, AirSystemResult]) -> dict[str, float]:
    """What each room's emitter must give [W]: its heating load; under supply air what that leaves of it, or adds to it."""
    duties = {room: loads.heating.load_w for room, loads in rooms.items()}
    for system in systems.values():
        for room, served in system.served.items():
            duties[room] = float(served.heat_w.max())
    return duties


def _duties(
    building: Building, circuit: Circuit, room_duties: Mapping[str, float], systems: Mapping[str, AirSystemResult]
) -> dict[str, float]:
    duties: dict[str, float] = {}
    for section in circuit.sections:
        if section.end is None:
            continue
        margins = building.margins_of(section.end)
        warm = 1.0 + margins.heating
        if section.end in systems:
            system = systems[section.end]
            month, step = system.peak
            cold = max(0.0, float(system.coil_total_w[month, step]))
            duties[section.end] = (
                system.heating_coil_w * warm if circuit.kind == "heating" else cold * (1.0 + margins.cooling)
            )
        elif section.end in room_duties and circuit.kind == "heating":
            duties[section.end] = room_duties[section.end] * warm
    return duties


def _circuits(
    building: Building,
    rooms: Mapping[str, RoomLoads],
    room_duties: Mapping[str, float],
    systems: Mapping[str, AirSystemResult],
    failures: list[Failure],
) -> tuple[dict[str, CircuitResult], dict[str, EmitterResult]]:
    circuits: dict[str, CircuitResult] = {}
    emitters: dict[str, EmitterResult] = {}
    for circuit in building.circuits:
        duties = _duties(building, circuit, room_duties, systems)
        if not any(duty > 0.0 for duty in duties.values()):
            continue
        try:
            circuits[circuit.id] = size_circuit(circuit, duties)
            if circuit.kind == "heating":
                for room in (end for end in duties if end in rooms):
                    air_c = rooms[room].room.heating_setpoint_c
                    emitters[room] = size_radiator(
                        duties[room], circuit.flow_c, circuit.return_c, air_c, circuit.emitter_exponent
                    )
        except Exception as error:
            failures.append(Failure("circuit", circuit.id, reason_of(error, f"Circuit {circuit.name}")))
    return circuits, emitters
