"""The first half of a calculation: loads of rooms and of rooms together."""

import os
from collections.abc import Callable, Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from functools import partial

from pendrum_core.model.building import Building, Group
from pendrum_core.model.rooms import Room
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.building import BuildingLoads, Failure
from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.balance.outdoors import Outdoors, outdoors
from pendrum_core.room.between.follow import follow
from pendrum_core.room.between.neighbours import Neighbours
from pendrum_core.room.outcome.chunk import (
    LEAST_AT_ONCE,
    MOST_AT_ONCE,
    calculate_chunk,
    differs_in_gains_only,
    recalculate_gains,
)
from pendrum_core.room.outcome.loads import GroupLoads, RoomLoads, Unsound
from pendrum_core.room.outcome.together import Together, group_loads
from pendrum_core.run.aired import with_air
from pendrum_core.run.memory import Memory, same_members

MOST_ROUNDS = 30  # of rooms that feel each other


def calculate_loads(building: Building, memory: Memory) -> BuildingLoads:
    """Calculate rooms and groups, only what changed since the last use of `memory`.

    A room that does not pass its check stands among the failures, and everything else is calculated without it.
    """
    memory.prepare(building.climate)
    building, balance = with_air(building, memory)
    outside = outdoors(building.climate)
    known = {room.id for room in building.rooms}
    memory.rooms = {name: loads for name, loads in memory.rooms.items() if name in known}
    memory.led = {name: led for name, led in memory.led.items() if name in known}
    changed = [room for room in building.rooms if not memory.knows(room)]
    neighbours = Neighbours(building.rooms, memory.as_led, outside)
    waiting = neighbours.waiting(changed)
    count = len(waiting)
    failures: dict[str, Failure] = {}
    for _ in range(MOST_ROUNDS):
        for found in _calculated(waiting, memory, outside, neighbours.inside):
            _keep(found, memory.rooms, failures)
        _lead(memory, outside, neighbours.inside, failures)
        waiting = neighbours.next_round()
        if not waiting:
            break
    if waiting:
        worst, kelvin = neighbours.most_apart()
        for room in waiting:
            memory.rooms.pop(room.id, None)
            reason = (
                f"{room.number} {room.name} and the rooms around it do not come to rest within {MOST_ROUNDS} rounds: what "
                f"{worst.number} {worst.name} feels of its neighbours still moves by {kelvin:.2g} K. Look for thermostats "
                "there whose set-points or capacities work against each other."
            )
            failures[room.id] = Failure("room", room.id, reason)
    rooms = {
        room.id: loads
        for room in building.rooms
        if room.id not in failures and (loads := memory.as_led(room.id)) is not None
    }
    together = Together(rooms)
    groups: dict[str, GroupLoads] = {}
    for group in building.groups:
        members = tuple(rooms[room] for room in group.room_ids if room in rooms)
        if members:
            try:
                groups[group.id] = _group(group, members, together, memory)
            except Exception as error:
                failures[group.id] = Failure("group", group.id, reason_of(error, group.name))
    return BuildingLoads(
        building,
        outside,
        rooms=rooms,
        groups=groups,
        failures=tuple(failures.values()),
        rooms_calculated=count,
        balance=balance,
    )


def _keep(found: RoomLoads | Unsound, results: dict[str, RoomLoads], failures: dict[str, Failure]) -> None:
    """A result of a round; a room that fell in an earlier one may stand in this."""
    name = found.room.id
    failures.pop(name, None)
    if isinstance(found, Unsound):
        results.pop(name, None)
        failures[name] = Failure("room", name, found.reason)
    else:
        results[name] = found


def _calculated(
    waiting: list[Room], memory: Memory, outside: Outdoors, beyond: Mapping[str, InsideCourse]
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
            alone = not room.neighbours and room.id not in beyond
            gains_alone = alone and kept is not None and differs_in_gains_only(kept, room, in_winter)
            (gains if gains_alone else held).append(room)
    whole = [*_some_at_a_time(held), *_some_at_a_time(with_thermostat)]
    work = [partial(_each, some, partial(calculate_chunk, outside=outside, beyond=beyond)) for some in whole]
    work += [
        partial(_each, some, lambda of: recalculate_gains([memory.rooms[room.id] for room in of], of, outside))
        for some in _some_at_a_time(gains)
    ]
    if len(work) <= 1:
        yield from (found for one in work for found in one())
        return
    with ThreadPoolExecutor(max_workers=os.cpu_count()) as pool:
        for results in pool.map(lambda one: one(), work):
            yield from results


def _each(rooms: list[Room], calculate: Callable[[list[Room]], list[RoomLoads | Unsound]]) -> list[RoomLoads | Unsound]:
    """Rooms calculated together; where that fails, one by one, so that only the one at fault is left out."""
    try:
        return calculate(rooms)
    except Exception as error:
        if len(rooms) == 1:
            return [Unsound(rooms[0], reason_of(error, f"{rooms[0].number} {rooms[0].name}"))]
        return [found for room in rooms for found in _each([room], calculate)]


def _lead(memory: Memory, outside: Outdoors, beyond: Mapping[str, InsideCourse], failures: dict[str, Failure]) -> None:
    """Rooms that follow another one's sensor, under its command, where either of the two is new."""
    rooms, kept = memory.rooms, memory.led
    leaders: dict[str, RoomLoads] = {}
    for room_id, loads in rooms.items():
        wanted = loads.room.thermostat.leader if loads.room.thermostat else None
        if wanted is not None and wanted in rooms and wanted != room_id:
            leaders[room_id] = rooms[wanted]
    memory.led = {}
    waiting = []
    for room_id, leader in leaders.items():
        known = kept.get(room_id)
        if known is not None and known[0] is rooms[room_id] and known[1] is leader:
            memory.led[room_id] = known
        else:
            waiting.append(rooms[room_id].room)
    led: dict[str, RoomLoads] = {}
    for some in _some_at_a_time(waiting):
        for found in _each(some, partial(follow, own=rooms, leaders=leaders, outside=outside, beyond=beyond)):
            _keep(found, led, failures)
    for room_id, loads in led.items():
        memory.led[room_id] = (rooms[room_id], leaders[room_id], loads)


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
