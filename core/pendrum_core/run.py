"""The one entry of the core: a building in, results out."""

import os
from collections.abc import Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from functools import partial

from pendrum_core.air.moisture import room_moistures
from pendrum_core.air.system import AirSystemResult, RoomDemand, size_system
from pendrum_core.model.building import Building, Group
from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import AirSystem, Circuit
from pendrum_core.results.air import AirCourse
from pendrum_core.results.building import BuildingResults, Failure
from pendrum_core.results.loads import GroupLoads, RoomLoads
from pendrum_core.room.chunk import (
    LEAST_AT_ONCE,
    MOST_AT_ONCE,
    Unsound,
    calculate_chunk,
    differs_in_gains_only,
    recalculate_gains,
)
from pendrum_core.room.follow import follow
from pendrum_core.room.neighbours import Neighbours
from pendrum_core.room.outdoors import Outdoors, outdoors
from pendrum_core.room.together import Together, group_loads
from pendrum_core.water.emitters import EmitterResult, size_radiator
from pendrum_core.water.network import CircuitResult, size_circuit

MOST_ROUNDS = 30  # of rooms that feel each other


class Memory:
    """Results kept from one calculation to the next: what has not changed is not calculated again."""

    def __init__(self) -> None:
        self.climate: Climate | None = None
        self.rooms: dict[str, RoomLoads] = {}
        # Followers by id: as with a sensor of their own, their leader, and as led.
        self.led: dict[str, tuple[RoomLoads, RoomLoads, RoomLoads]] = {}
        self.groups: dict[str, tuple[Group, tuple[RoomLoads, ...], GroupLoads]] = {}
        self.systems: dict[str, tuple[AirSystem, tuple[RoomLoads, ...], AirSystemResult]] = {}

    def copy(self) -> "Memory":
        """A second memory that knows the same and goes its own way: for trying a change out."""
        other = Memory()
        other.climate, other.rooms, other.led = self.climate, dict(self.rooms), dict(self.led)
        other.groups, other.systems = dict(self.groups), dict(self.systems)
        return other

    def prepare(self, climate: Climate) -> None:
        """Forget everything where the climate is another one."""
        if self.climate != climate:
            self.__init__()  # type: ignore[misc]
            self.climate = climate

    def knows(self, room: Room) -> bool:
        """Whether the room's results stand."""
        kept = self.rooms.get(room.id)
        return kept is not None and (kept.room is room or kept.room == room)


def calculate(building: Building, memory: Memory | None = None) -> BuildingResults:
    """Calculate a building; with a `memory`, only what changed since its last use.

    A room that does not pass its check stands among the failures, and everything else is calculated without it.
    """
    memory = memory if memory is not None else Memory()
    memory.prepare(building.climate)
    outside = outdoors(building.climate)
    memory.rooms = {room.id: memory.rooms[room.id] for room in building.rooms if room.id in memory.rooms}
    changed = [room for room in building.rooms if not memory.knows(room)]
    neighbours = Neighbours(building.rooms, memory.rooms, outside)
    waiting = neighbours.waiting(changed)
    count = len(waiting)
    failures: list[Failure] = []
    for _ in range(MOST_ROUNDS):
        for found in _calculated(waiting, memory, outside, neighbours.air):
            if isinstance(found, Unsound):
                memory.rooms.pop(found.room.id, None)
                failures.append(Failure("room", found.room.id, found.reason))
            else:
                memory.rooms[found.room.id] = found
        waiting = neighbours.next_round()
        if not waiting:
            break
    for room in waiting:
        del memory.rooms[room.id]
        reason = (
            f"{room.number} {room.name} and its neighbours do not come to rest; a wall between them must be extreme."
        )
        failures.append(Failure("room", room.id, reason))
    rooms = {room.id: memory.rooms[room.id] for room in building.rooms if room.id in memory.rooms}
    rooms |= _led(rooms, memory, outside, failures)
    together = Together(rooms)
    groups: dict[str, GroupLoads] = {}
    for group in building.groups:
        members = tuple(rooms[room] for room in group.room_ids if room in rooms)
        if members:
            groups[group.id] = _group(group, members, together, memory)
    systems = _systems(building, rooms, outside, memory, failures)
    serving = {room: system for system in systems.values() for room in system.airflows}
    duties = _heating_duties(rooms, systems)
    circuits, emitters = _circuits(building, rooms, duties, systems, failures)
    return BuildingResults(
        building, outside, rooms, groups, systems, duties, room_moistures(rooms, serving, outside), circuits, emitters,
        tuple(failures), count,
    )  # fmt: skip


def _calculated(
    waiting: list[Room], memory: Memory, outside: Outdoors, beyond: Mapping[str, AirCourse]
) -> Iterator[RoomLoads | Unsound]:
    """Calculate rooms some at a time, on all processors where there are many."""
    in_winter = outside.climate.winter_gains_share > 0.0
    gains: list[Room] = []
    held: list[Room] = []
    with_thermostat: list[Room] = []
    for room in waiting:
        kept = memory.rooms.get(room.id)
        if room.thermostat is not None:
            with_thermostat.append(room)
        else:
            alone = kept is not None and not room.neighbours and differs_in_gains_only(kept, room, in_winter)
            (gains if alone else held).append(room)
    whole = [*_some_at_a_time(held), *_some_at_a_time(with_thermostat)]
    work = [partial(calculate_chunk, some, outside, beyond=beyond) for some in whole]
    work += [
        partial(recalculate_gains, [memory.rooms[room.id] for room in some], some, outside)
        for some in _some_at_a_time(gains)
    ]
    if len(work) <= 1:
        yield from (found for one in work for found in one())
        return
    with ThreadPoolExecutor(max_workers=os.cpu_count()) as pool:
        for results in pool.map(lambda one: one(), work):
            yield from results


def _led(
    rooms: Mapping[str, RoomLoads], memory: Memory, outside: Outdoors, failures: list[Failure]
) -> dict[str, RoomLoads]:
    """Rooms that follow another one's sensor, under its command."""
    leaders: dict[str, RoomLoads] = {}
    for room_id, loads in rooms.items():
        wanted = loads.room.thermostat.leader if loads.room.thermostat else None
        if wanted is not None and wanted in rooms and wanted != room_id:
            leaders[room_id] = rooms[wanted]
    kept = {}
    for room_id, leader in leaders.items():
        known = memory.led.get(room_id)
        if known is not None and known[0] is rooms[room_id] and known[1] is leader:
            kept[room_id] = known
    waiting = [rooms[room_id].room for room_id in leaders if room_id not in kept]
    for some in _some_at_a_time(waiting):
        for found in follow(some, rooms, leaders, outside):
            room_id = found.room.id
            if isinstance(found, Unsound):
                failures.append(Failure("room", room_id, found.reason))
            else:
                kept[room_id] = (rooms[room_id], leaders[room_id], found)
    memory.led = kept
    return {room_id: led for room_id, (_, _, led) in kept.items()}


def _some_at_a_time(rooms: list[Room]) -> list[list[Room]]:
    """As few chunks as keep every processor busy and the memory bounded."""
    size = min(MOST_AT_ONCE, max(LEAST_AT_ONCE, -(-len(rooms) // (os.cpu_count() or 1))))
    return [rooms[start : start + size] for start in range(0, len(rooms), size)]


def _same(now: tuple[RoomLoads, ...], before: tuple[RoomLoads, ...]) -> bool:
    return len(now) == len(before) and all(a is b for a, b in zip(now, before, strict=True))


def _group(group: Group, members: tuple[RoomLoads, ...], together: Together, memory: Memory) -> GroupLoads:
    kept = memory.groups.get(group.id)
    if kept is None or kept[0] != group or not _same(members, kept[1]):
        kept = (group, members, group_loads(group, members, together))
        memory.groups[group.id] = kept
    return kept[2]


def _systems(
    building: Building,
    rooms: Mapping[str, RoomLoads],
    outside: Outdoors,
    memory: Memory,
    failures: list[Failure],
) -> dict[str, AirSystemResult]:
    results: dict[str, AirSystemResult] = {}
    for drawn in building.systems:
        sound = tuple(terminal for terminal in drawn.terminals if terminal.room in rooms)
        system = drawn if len(sound) == len(drawn.terminals) else replace(drawn, terminals=sound)
        members = tuple(rooms[terminal.room] for terminal in sound)
        if not members:
            continue
        kept = memory.systems.get(system.id)
        if kept is None or kept[0] != system or not _same(members, kept[1]):
            found = _sized(system, members, outside)
            if isinstance(found, Failure):
                failures.append(found)
                continue
            kept = (system, members, found)
            memory.systems[system.id] = kept
        results[system.id] = kept[2]
    return results


def _sized(system: AirSystem, members: tuple[RoomLoads, ...], outside: Outdoors) -> AirSystemResult | Failure:
    demands = [RoomDemand(m.room, m.cooling_course_w, m.latent_w, m.heating.load_w, m.winter_air_c) for m in members]
    try:
        return size_system(system, demands, outside)
    except ValueError as error:
        return Failure("air_system", system.id, str(error))


def _heating_duties(rooms: Mapping[str, RoomLoads], systems: Mapping[str, AirSystemResult]) -> dict[str, float]:
    """What each room's emitter must give: its heating load, and warming supply air that is below the set-point [W]."""
    duties = {room: loads.heating.load_w for room, loads in rooms.items()}
    for system in systems.values():
        for room, deficit in system.winter.deficit_w.items():
            duties[room] += deficit
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
                system.winter.duty_w * warm if circuit.kind == "heating" else cold * (1.0 + margins.cooling)
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
        except ValueError as error:
            failures.append(Failure("circuit", circuit.id, str(error)))
    return circuits, emitters
