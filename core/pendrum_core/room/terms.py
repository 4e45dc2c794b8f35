"""What drives a room's air apart from its gains, kept so that it is told apart by source only when that is asked for.

A room's split over all days takes 9 x months x 144 numbers; what it is made of takes a few rows of 73. The parts of a
peak, of a day or of all days are worked out from those by the same sums as the whole.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import CATEGORIES, CONTROL_CATEGORIES, GAIN_CATEGORIES
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.harmonics import HARMONICS, to_steps
from pendrum_core.room.products import summed_products

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]

FIXED_CATEGORIES = tuple(name for name in CATEGORIES if name not in (*GAIN_CATEGORIES, *CONTROL_CATEGORIES))
FIXED = len(FIXED_CATEGORIES)
# Value of a day at a step is the real part of the sum over its harmonics times these weights, (144, 73).
_TURN = np.exp(2j * np.pi * np.arange(STEPS_PER_DAY)[:, None] * np.arange(HARMONICS) / STEPS_PER_DAY)
_TURN *= np.where((np.arange(HARMONICS) == 0) | (np.arange(HARMONICS) == STEPS_PER_DAY // 2), 1.0, 2.0) / STEPS_PER_DAY


@dataclass(frozen=True, eq=False)
class Terms:
    """One room: transfers with the signal each works on, courses that reach the air as they are, and constants.

    Attributes:
        category: of each transfer, counted in FIXED_CATEGORIES, ascending, (J,).
        transfer: (J, 73).
        signals: of each, (months, 73); rooms share them.
        direct: category, factor and course (months, 144) of what reaches the air of a held room at once.
        steady: by category, (FIXED,).
    """

    category: Ints
    transfer: Complex
    signals: tuple[Complex, ...]
    direct: tuple[tuple[int, float, Array], ...]
    steady: Array


@dataclass(frozen=True, eq=False)
class TermStack:
    """The terms of many rooms end to end; attributes as those of a room's, with the room of each."""

    rooms: int
    room: Ints
    category: Ints
    transfer: Complex
    signal_of: Ints
    signals: tuple[Complex, ...]
    direct_room: Ints
    direct_category: Ints
    direct_factor: Array
    direct_of: Ints
    courses: tuple[Array, ...]
    steady: Array

    def total(self) -> Array:
        """Everything together, (rooms, months, 144)."""
        signals = np.stack(self.signals)
        months = signals.shape[1]
        result = to_steps(summed_products(self.room, self.signal_of, self.transfer, signals, self.rooms))
        result += self.steady.sum(axis=1)[:, None, None]
        if self.courses:
            share = csr_matrix(
                (self.direct_factor, (self.direct_room, self.direct_of)), shape=(self.rooms, len(self.courses))
            )
            at_once = share @ np.stack(self.courses).reshape(len(self.courses), -1)
            result += at_once.reshape(self.rooms, months, STEPS_PER_DAY)
        return result

    def by_room(self) -> list[Terms]:
        """The terms of each room, apart from the others': a room that stays does not keep them all."""
        order = np.lexsort((self.category, self.room))
        category, transfer, of = self.category[order], self.transfer[order], self.signal_of[order].tolist()
        ends = np.searchsorted(self.room[order], np.arange(self.rooms + 1)).tolist()
        direct: list[list[tuple[int, float, Array]]] = [[] for _ in range(self.rooms)]
        entries = (self.direct_room, self.direct_category, self.direct_factor, self.direct_of)
        for room, kind, factor, course in zip(*(entry.tolist() for entry in entries), strict=True):
            direct[room].append((kind, factor, self.courses[course]))
        return [
            Terms(
                category[begin:end].copy(),
                transfer[begin:end].copy(),
                tuple(self.signals[signal] for signal in of[begin:end]),
                tuple(direct[room]),
                self.steady[room].copy(),
            )
            for room, (begin, end) in enumerate(zip(ends, ends[1:], strict=False))
        ]


class _Days:
    """Rooms with a month each: their terms end to end, and the different days that they work on."""

    def __init__(self, rooms: Sequence[Terms], month_of: Sequence[int]) -> None:
        signals: dict[tuple[int, int], int] = {}
        days: list[Complex] = []
        courses: dict[tuple[int, int], int] = {}
        direct: list[Array] = []
        of: list[int] = []
        entries: list[tuple[int, float, int]] = []
        for index, (terms, month) in enumerate(zip(rooms, month_of, strict=True)):
            for signal in terms.signals:
                key = (id(signal), month)
                if key not in signals:
                    signals[key] = len(days)
                    days.append(signal[month])
                of.append(signals[key])
            for category, factor, course in terms.direct:
                key = (id(course), month)
                if key not in courses:
                    courses[key] = len(direct)
                    direct.append(course[month])
                entries.append((index * FIXED + category, factor, courses[key]))
        self.count = len(rooms)
        sizes = [len(terms.category) for terms in rooms]
        categories = np.concatenate([terms.category for terms in rooms])
        self.row = np.repeat(np.arange(self.count), sizes) * FIXED + categories
        self.transfer = np.concatenate([terms.transfer for terms in rooms])
        self.of = np.array(of, dtype=np.int64)
        self.days = np.stack(days) if days else np.zeros((1, HARMONICS), dtype=complex)
        self.direct = np.stack(direct) if direct else np.zeros((1, STEPS_PER_DAY))
        self.direct_row: Ints = np.array([row for row, _, _ in entries], dtype=np.int64)
        self.direct_factor: Array = np.array([factor for _, factor, _ in entries], dtype=np.float64)
        self.direct_of: Ints = np.array([place for _, _, place in entries], dtype=np.int64)
        self.steady = np.stack([terms.steady for terms in rooms])


def fixed_at(rooms: Sequence[Terms], month_of: Sequence[int], step_of: Sequence[int]) -> Array:
    """Split of rooms at a step of a month each, by FIXED_CATEGORIES, (rooms, FIXED)."""
    days = _Days(rooms, month_of)
    step = np.asarray(step_of, dtype=np.int64)
    result = days.steady.ravel().copy()
    driven = days.transfer * days.days[days.of] * _TURN[step[days.row // FIXED]]
    np.add.at(result, days.row, driven.real.sum(axis=1))
    at_once = days.direct[days.direct_of, step[days.direct_row // FIXED]]
    np.add.at(result, days.direct_row, days.direct_factor * at_once)
    return result.reshape(days.count, FIXED)


def fixed_days(rooms: Sequence[Terms], month_of: Sequence[int]) -> Array:
    """Split of rooms over a day of a month each, by FIXED_CATEGORIES, (rooms, FIXED, 144)."""
    days = _Days(rooms, month_of)
    used, to = np.unique(days.row, return_inverse=True)
    harmonics = summed_products(to.ravel(), days.of, days.transfer, days.days[:, None], len(used))
    result = np.repeat(days.steady.reshape(-1, 1), STEPS_PER_DAY, axis=1)
    result[used] += to_steps(harmonics[:, 0])
    np.add.at(result, days.direct_row, days.direct_factor[:, None] * days.direct[days.direct_of])
    return result.reshape(days.count, FIXED, STEPS_PER_DAY)


def fixed_split(room: Terms, months: int) -> Array:
    """Split of a room over all days, by FIXED_CATEGORIES, (FIXED, months, 144)."""
    return np.ascontiguousarray(fixed_days([room] * months, range(months)).transpose(1, 0, 2))
