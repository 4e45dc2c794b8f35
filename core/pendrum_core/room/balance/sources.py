"""Sources of a stack of rooms: sun, gains, outdoor air."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import GAIN_CATEGORIES, Gain, Room
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance.outdoors import Outdoors, WindowSun
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class SunCourses:
    """Sun through rooms' windows: which room gets how much of which course.

    Attributes:
        rooms: how many rooms there are.
        room, table, scale: of each entry: the room, the course, and A (1 - frame) g [m2].
        radiant, convective: the courses per scale, (months, 144) each: onto the faces, and straight to the air [W/m2].
        harmonics: of the radiant ones, (months, 73) each.
    """

    rooms: int
    room: Ints
    table: Ints
    scale: Array
    radiant: tuple[Array, ...]
    convective: tuple[Array, ...]
    harmonics: tuple[Complex, ...]

    def _summed(self, courses: tuple[Array, ...]) -> Array:
        share = csr_matrix((self.scale, (self.room, self.table)), shape=(self.rooms, len(courses)))
        stacked = np.stack(courses)
        return np.asarray((share @ stacked.reshape(len(courses), -1)).reshape(self.rooms, *stacked.shape[1:]))

    def whole(self) -> tuple[Array, Array]:
        """Onto the faces and straight to the air, (R, months, 144) [W]; a single 0 where no room has a window."""
        if not self.radiant:
            return np.zeros((1, 1, 1)), np.zeros((1, 1, 1))
        return self._summed(self.radiant), self._summed(self.convective)

    def on(self, month_of: Ints) -> tuple[Array, Array]:
        """The same on one day of each room, (R, 144) [W]."""
        radiant, convective = np.zeros((2, self.rooms, STEPS_PER_DAY))
        for result, courses in ((radiant, self.radiant), (convective, self.convective)):
            if courses:
                months = month_of[self.room].tolist()
                days = np.stack([courses[t][m] for t, m in zip(self.table.tolist(), months, strict=True)])
                np.add.at(result, self.room, self.scale[:, None] * days)
        return radiant, convective


def sun_courses(rooms: Sequence[Room], outside: Outdoors) -> SunCourses:
    """Area (1 - frame) g times what the plane, its shading and its blind let through."""
    rows: dict[object, int] = {}
    tables: list[WindowSun] = []
    entries: dict[tuple[int, int], float] = {}
    for index, room in enumerate(rooms):
        for window in room.windows:
            key = window.sun_key
            row = rows.get(key)
            if row is None:
                row = rows[key] = len(tables)
                tables.append(outside.window_sun(window))
            entries[index, row] = entries.get((index, row), 0.0) + window.sun_area_m2
    at = np.array(list(entries), dtype=np.int64).reshape(-1, 2)
    return SunCourses(
        rooms=len(rooms),
        room=at[:, 0],
        table=at[:, 1],
        scale=np.array(list(entries.values()), dtype=np.float64),
        radiant=tuple(table.radiant_w_m2 for table in tables),
        convective=tuple(table.convective_w_m2 for table in tables),
        harmonics=tuple(table.harmonics for table in tables),
    )


@dataclass(frozen=True)
class GainCourses:
    """Internal gains by category over the different days, (R, 3, V, 144) [W]; `day_of` is V of each month, (months,)."""

    radiant: Array
    convective: Array
    latent: Array
    day_of: Ints


def gain_courses(rooms: Sequence[Room], months: Sequence[int]) -> GainCourses:
    """Gains by category; months (1..12) whose patterns are all the same share a day."""
    gains = [(index, gain) for index, room in enumerate(rooms) for gain in room.gains]
    # Patterns are told apart by identity: rooms of one use share them.
    plans = list({id(gain.by_month) if gain.by_month else id(gain.pattern): gain for _, gain in gains}.values())
    days: dict[tuple[int, ...], int] = {}
    day_of, month_of = [], []
    for month in months:
        signature = tuple(id(gain.on(month)) for gain in plans)
        if signature not in days:
            days[signature] = len(days)
            month_of.append(month)
        day_of.append(days[signature])
    shape = (len(rooms), len(GAIN_CATEGORIES), len(month_of), STEPS_PER_DAY)
    patterns: dict[int, int] = {}
    table: list[Array] = []
    rows, columns, scales = [], [], []
    for day, month in enumerate(month_of):
        for index, gain in gains:
            pattern = gain.on(month)
            column = patterns.get(id(pattern))
            if column is None:
                column = patterns[id(pattern)] = len(table)
                table.append(step_averages(pattern))
            rows.append((index * len(GAIN_CATEGORIES) + GAIN_CATEGORIES.index(gain.category)) * len(month_of) + day)
            columns.append(column)
            radiant = gain.sensible_w * gain.radiant_share
            scales.append((radiant, gain.sensible_w - radiant, gain.latent_w))
    if not rows:
        return GainCourses(np.zeros(shape), np.zeros(shape), np.zeros(shape), np.array(day_of, dtype=np.int64))
    values = np.array(scales).T
    size = (shape[0] * shape[1] * shape[2], len(table))
    courses = np.stack(table)
    radiant_w, convective_w, latent_w = (
        (csr_matrix((value, (rows, columns)), shape=size) @ courses).reshape(shape) for value in values
    )
    return GainCourses(radiant_w, convective_w, latent_w, np.array(day_of, dtype=np.int64))


def gain_at(gain: Gain, month: int, step: int) -> float:
    """Fraction of a gain present at a step of a month's design day (1..12) [-]."""
    return float(step_averages(gain.on(month))[step])
