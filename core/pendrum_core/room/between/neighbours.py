"""Rooms that feel each other through their walls and by air from each other: rounds until none feels a change any more.

In a round rooms are calculated with one state of the others. What comes out differs from it; the coupling of the rooms
(room/between/coupling.py) says which state would not, so that rooms without thermostats are done after one such step. Thermostats
make the answer a broken line: their rounds are put together by Anderson mixing, each group and day on its own.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.course import InsideCourse, held_course
from pendrum_core.room.balance.harmonics import to_harmonics, to_steps
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.between.coupling import coupling, groups_of
from pendrum_core.room.between.mixing import Mixing
from pendrum_core.room.outcome.loads import RoomLoads

Array = NDArray[np.float64]
SETTLED_K = 2e-3  # by how much a neighbour may differ from what a room was calculated with
_RINGS = 2  # how many rooms away from a change are solved with it


class Neighbours:
    """What rooms are calculated with of each other, and what comes out.

    Attributes:
        inside: every room that is another one's neighbour, by id: as calculated last, else at its set-points, and between
            rounds what should come out.
    """

    def __init__(self, rooms: Sequence[Room], loads_of: Callable[[str], RoomLoads | None], outside: Outdoors) -> None:
        self._rooms = [room for room in rooms if room.neighbours]
        self._loads_of = loads_of
        felt = frozenset().union(*(room.neighbours for room in self._rooms))
        self._felt = [room for room in rooms if room.id in felt]
        self._outside = outside
        self._mixing: dict[tuple[frozenset[str], int], Mixing] = {}
        self.inside = self._found()

    def waiting(self, changed: Sequence[Room]) -> list[Room]:
        """The changed rooms, those calculated with another state of the rest or with a room that is gone, and those of
        which it is not known what they are like inside.
        """
        known = {room.id for room in changed}
        blank = [r for r in self._felt if r.id not in known and (of := self._loads_of(r.id)) and of.inside is None]
        known |= {room.id for room in blank}
        moved = [room for room in self._rooms if room.id not in known and self._feels(room)]
        return [*changed, *blank, *moved]

    def next_round(self) -> list[Room]:
        """Rooms to go once more, with `inside` for it; none where all are calculated with what came out."""
        found = self._found()
        if not any(self._apart(room, found) for room in self._rooms):
            self.inside = found
            return []
        self.inside = self._agreed(found)
        return [room for room in self._rooms if self._apart(room, self.inside)]

    def most_apart(self) -> tuple[Room, float]:
        """The room whose neighbours are furthest from what it was calculated with, and by how much [K]."""
        found = self._found()

        def off(room: Room) -> float:
            used = self._used(room)
            return max((used[o].away_from(found[o]) for o in room.neighbours if o in used and o in found), default=0.0)

        worst = max(self._rooms, key=off)
        return worst, off(worst)

    def _used(self, room: Room) -> Mapping[str, InsideCourse]:
        loads = self._loads_of(room.id)
        return loads.beyond if loads is not None else {}

    def _feels(self, room: Room) -> bool:
        gone = set(self._used(room)) - set(self.inside)
        return bool(gone) or self._apart(room, self.inside)

    def _apart(self, room: Room, inside: Mapping[str, InsideCourse]) -> bool:
        if self._loads_of(room.id) is None:
            return False
        used = self._used(room)
        return any(
            other not in used or used[other].away_from(inside[other]) > SETTLED_K
            for other in room.neighbours
            if other in inside
        )

    def _found(self) -> dict[str, InsideCourse]:
        courses = {}
        for room in self._felt:
            loads = self._loads_of(room.id)
            known = loads.inside if loads is not None else None
            courses[room.id] = known or held_course(room, self._outside.dry_bulb_c.shape)
        return courses

    def _agreed(self, found: dict[str, InsideCourse]) -> dict[str, InsideCourse]:
        """What should come out of another round."""
        moved = {room.id for room in self._felt if found[room.id].away_from(self.inside[room.id]) > SETTLED_K}
        region = _around(self._felt, moved)
        result = dict(found)
        for group in groups_of(self._felt, region):
            result |= self._group_agreed(group, found)
        return result

    def _group_agreed(self, group: list[Room], found: Mapping[str, InsideCourse]) -> dict[str, InsideCourse]:
        system = coupling(group, self._outside)
        names = frozenset(room.id for room in group)
        before, after = (_laid_out([of[room.id] for room in group]) for of in (self.inside, found))
        summer, winter = self._afloat(group)
        changed = after[0] - before[0]
        alike: dict[bytes, list[int]] = {}
        for month in range(changed.shape[2]):
            alike.setdefault(summer[:, month].tobytes(), []).append(month)
        for months in alike.values():
            harmonics = system.summer(to_harmonics(changed[:, :, months]), summer[:, months[0]])
            changed[:, :, months] = to_steps(harmonics)
        cold = system.winter(after[1] - before[1], winter)
        bent = any((loads := self._loads_of(room.id)) is not None and loads.control is not None for room in group)
        best, best_cold = before[0] + changed, before[1] + cold
        if bent:
            for month in range(changed.shape[2]):
                best[:, :, month] = self._mixed(names, month, before[0][:, :, month], best[:, :, month])
            best_cold = self._mixed(names, -1, before[1], best_cold)
        return {
            room.id: InsideCourse(best[i, 0], best[i, 1], float(best_cold[i, 0]), float(best_cold[i, 1]))
            for i, room in enumerate(group)
        }

    def _mixed(self, names: frozenset[str], day: int, before: Array, after: Array) -> Array:
        mixing = self._mixing.setdefault((names, day), Mixing())
        return mixing.mixed(before.ravel(), after.ravel()).reshape(before.shape)

    def _afloat(self, group: Sequence[Room]) -> tuple[Array, Array]:
        """For how much of a day a room's air answers to others, (N, months), and of the winter day, (N,)."""
        months = len(self._outside.dry_bulb_c)
        summer, winter = np.zeros((len(group), months)), np.zeros(len(group))
        for i, room in enumerate(group):
            loads = self._loads_of(room.id)
            control = loads.control if loads is not None else None
            if control is None:
                summer[i], winter[i] = room.floats, not room.heated
            else:
                summer[i], winter[i] = _idle(room, control.summer.plant_w), _idle(room, control.winter.plant_w)[0]
        return summer, winter


def _idle(room: Room, plant_w: Array) -> Array:
    """For how much of a day a thermostat leaves the plant alone, off or at its limit, in eighths, (days,)."""
    thermostat = room.thermostat
    if thermostat is None or thermostat.leader is not None:
        return np.ones(len(plant_w))
    most = np.inf if thermostat.heating_capacity_w is None else thermostat.heating_capacity_w
    least = -np.inf if thermostat.cooling_capacity_w is None else -thermostat.cooling_capacity_w
    free = (plant_w == 0.0) | (plant_w >= most) | (plant_w <= least)
    return np.asarray(np.round(free.mean(axis=1) * 8.0) / 8.0)


def _laid_out(courses: Sequence[InsideCourse]) -> tuple[Array, Array]:
    """Air and radiant of rooms on the summer days, (N, 2, months, 144), and on the winter day, (N, 2)."""
    summer = np.stack([np.stack([course.air_c, course.radiant_c]) for course in courses])
    return summer, np.array([[course.winter_air_c, course.winter_radiant_c] for course in courses])


def _around(rooms: Sequence[Room], moved: Iterable[str]) -> set[str]:
    """Rooms some walls away from those that moved."""
    feels: dict[str, set[str]] = {}
    for room in rooms:
        for other in room.neighbours:
            feels.setdefault(other, set()).add(room.id)
            feels.setdefault(room.id, set()).add(other)
    found = set(moved)
    edge = found
    for _ in range(_RINGS):
        edge = {other for name in edge for other in feels.get(name, ())} - found
        found = found | edge
    return found
