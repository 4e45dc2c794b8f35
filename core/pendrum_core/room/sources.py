"""Sources of a stack of rooms: sun, gains, outdoor air."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import GAIN_CATEGORIES, Gain, Room
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class SunCourses:
    """Sun through each room's windows (R, months, 144) [W]: onto the faces, and straight to the air."""

    radiant: Array
    convective: Array


def sun_courses(rooms: Sequence[Room], outside: Outdoors) -> SunCourses:
    """Area (1 - frame) g times what the plane, its shading and its blind let through."""
    rows: dict[object, int] = {}
    tables: list[tuple[Array, Array]] = []
    entries: list[tuple[int, int, float]] = []
    for index, room in enumerate(rooms):
        for window in room.windows:
            key = window.sun_key
            row = rows.get(key)
            if row is None:
                row = rows[key] = len(tables)
                tables.append(outside.window_sun_w_m2(window))
            entries.append((index, row, window.sun_area_m2))
    shape = (len(rooms), len(outside.climate.months), STEPS_PER_DAY)
    if not entries:
        return SunCourses(np.zeros(shape), np.zeros(shape))
    at, to, scales = zip(*entries, strict=True)
    share = csr_matrix((scales, (at, to)), shape=(len(rooms), len(tables)))
    radiant, convective = (np.stack([table[i].ravel() for table in tables]) for i in (0, 1))
    return SunCourses((share @ radiant).reshape(shape), (share @ convective).reshape(shape))


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
