"""Rooms that feel each other's air through their walls: round after round until none feels a change any more."""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.course import AirCourse, held_course
from pendrum_core.room.loads import RoomLoads
from pendrum_core.room.mixing import Mixing
from pendrum_core.room.outdoors import Outdoors

Array = NDArray[np.float64]
SETTLED_K = 5e-3  # by how much a neighbour's air may differ from what a room was calculated with


class Neighbours:
    """The air that rooms are calculated with, and what it comes out as.

    Attributes:
        air: of every room that is another one's neighbour, by id: as calculated last, else at its set-points, and
            between rounds a mixture that comes to rest sooner than the last round alone.
    """

    def __init__(self, rooms: Sequence[Room], loads: Mapping[str, RoomLoads], outside: Outdoors) -> None:
        self._rooms = [room for room in rooms if room.neighbours]
        self._loads = loads
        felt = frozenset().union(*(room.neighbours for room in self._rooms))
        self._felt = [room for room in rooms if room.id in felt]
        self._shape = outside.dry_bulb_c.shape
        self._mixing = Mixing()
        self.air = self._found()

    def waiting(self, changed: Sequence[Room]) -> list[Room]:
        """The changed rooms, and those that were calculated with another air, or with that of a room that is gone."""
        known = {room.id for room in changed}
        moved = [room for room in self._rooms if room.id in self._loads and room.id not in known and self._feels(room)]
        return [*changed, *moved]

    def next_round(self) -> list[Room]:
        """Rooms to go once more, with the air for it; none where all are calculated with the air that came out."""
        found = self._found()
        if not any(self._apart(room, found) for room in self._rooms if room.id in self._loads):
            self.air = found
            return []
        mixed = self._mixing.mixed(self._vector(self.air), self._vector(found))
        self.air = self._courses(mixed)
        return [room for room in self._rooms if room.id in self._loads and self._apart(room, self.air)]

    def _feels(self, room: Room) -> bool:
        gone = set(self._loads[room.id].beyond) - set(self.air)
        return bool(gone) or self._apart(room, self.air)

    def _apart(self, room: Room, air: Mapping[str, AirCourse]) -> bool:
        used = self._loads[room.id].beyond
        return any(
            other not in used or used[other].away_from(air[other]) > SETTLED_K
            for other in room.neighbours
            if other in air
        )

    def _found(self) -> dict[str, AirCourse]:
        courses = {}
        for room in self._felt:
            loads = self._loads.get(room.id)
            courses[room.id] = loads.air if loads is not None else held_course(room, self._shape)
        return courses

    def _vector(self, air: Mapping[str, AirCourse]) -> Array:
        parts = [np.append(air[room.id].summer_c.ravel(), air[room.id].winter_c) for room in self._felt]
        return np.concatenate(parts)

    def _courses(self, vector: Array) -> dict[str, AirCourse]:
        rows = vector.reshape(len(self._felt), -1)
        return {
            room.id: AirCourse(row[:-1].reshape(self._shape), float(row[-1]))
            for room, row in zip(self._felt, rows, strict=True)
        }
