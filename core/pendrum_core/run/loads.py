"""The first half of a calculation: loads of rooms and of rooms together."""

import os
from collections.abc import Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from functools import partial

from pendrum_core.model.building import Building, Group
from pendrum_core.model.rooms import Room
from pendrum_core.results.building import BuildingLoads, Failure
from pendrum_core.room.chunk import (
    LEAST_AT_ONCE,
    MOST_AT_ONCE,
    Unsound,
    calculate_chunk,
    differs_in_gains_only,
    recalculate_gains,
)
from pendrum_core.room.course import AirCourse
from pendrum_core.room.follow import follow
from pendrum_core.room.loads import GroupLoads, RoomLoads
from pendrum_core.room.neighbours import Neighbours
from pendrum_core.room.outdoors import Outdoors, outdoors
from pendrum_core.room.together import Together, group_loads
from pendrum_core.run.memory import Memory, same_members

MOST_ROUNDS = 30  # of rooms that feel each other


def calculate_loads(building: Building, memory: Memory) -> BuildingLoads:
    """Calculate rooms and groups, only what changed since the last use of `memory`.

    A room that does not pass its check stands among the failures, and everything else is calculated without it.
    """
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
    return BuildingLoads(building, outside, rooms, groups, tuple(failures), count)


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


def _group(group: Group, members: tuple[RoomLoads, ...], together: Together, memory: Memory) -> GroupLoads:
    kept = memory.groups.get(group.id)
    if kept is None or kept[0] != group or not same_members(members, kept[1]):
        kept = (group, members, group_loads(group, members, together))
        memory.groups[group.id] = kept
    return kept[2]
