"""What drives a room's air apart from its gains, kept so that it is told apart by source only when that is asked for.

A room's split over all days takes 9 x months x 144 numbers; what it is made of takes a few rows of 73. The parts of a
peak, of a day or of all days are worked out from those by the same sums as the whole.

Source: the heat balance of room/balance, linear in what drives it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import CATEGORIES, CONTROL_CATEGORIES, GAIN_CATEGORIES
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance.harmonics import HARMONICS, to_steps
from pendrum_core.room.days.products import add_products_at, summed_products

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


class Ensemble:
    """Rooms' terms end to end, for telling the split of many of them at once."""

    def __init__(self, rooms: Sequence[Terms]) -> None:
        self.count = len(rooms)
        self._size: Ints = np.array([len(terms.category) for terms in rooms], dtype=np.int64)
        self._start: Ints = np.cumsum(self._size) - self._size
        self._category = np.concatenate([terms.category for terms in rooms])
        self._transfer = np.concatenate([terms.transfer for terms in rooms])
        self._signals, self._of = _different([signal for terms in rooms for signal in terms.signals])
        entries = [(index, *entry) for index, terms in enumerate(rooms) for entry in terms.direct]
        self._courses, self._direct_of = _different([course for _, _, _, course in entries])
        self._direct_room: Ints = np.array([room for room, _, _, _ in entries], dtype=np.int64)
        self._direct_category: Ints = np.array([category for _, category, _, _ in entries], dtype=np.int64)
        self._direct_factor: Array = np.array([factor for _, _, factor, _ in entries], dtype=np.float64)
        self._steady = np.stack([terms.steady for terms in rooms])

    def at(self, month_of: Ints, step_of: Ints, some: Ints | None = None) -> Array:
        """Split of some rooms, ascending (or all), at a step of a month each, by FIXED_CATEGORIES, (n, FIXED)."""
        terms, room, direct, direct_room, result = self._chosen(some)
        if len(room):
            days, of = _at_months(self._signals, self._of[terms], month_of[room])
            row = room * FIXED + self._category[terms]
            add_products_at(
                terms,
                row,
                transfer=self._transfer,
                days=days,
                of=of,
                turn=_TURN,
                step=step_of[room],
                out=result.reshape(-1),
            )
        if len(direct_room):
            courses, of = _at_months(self._courses, self._direct_of[direct], month_of[direct_room])
            found = courses[of, step_of[direct_room]] * self._direct_factor[direct]
            np.add.at(result.reshape(-1), direct_room * FIXED + self._direct_category[direct], found)
        return result

    def days(self, month_of: Ints) -> Array:
        """Split of all rooms over a day of a month each, by FIXED_CATEGORIES, (rooms, FIXED, 144)."""
        terms, room, direct, direct_room, steady = self._chosen(None)
        result = np.repeat(steady.reshape(-1, 1), STEPS_PER_DAY, axis=1)
        used, to = np.unique(room * FIXED + self._category[terms], return_inverse=True)
        if len(used):
            days, of = _at_months(self._signals, self._of[terms], month_of[room])
            result[used] += to_steps(summed_products(to.ravel(), of, self._transfer, days[:, None], len(used))[:, 0])
        if len(direct_room):
            courses, of = _at_months(self._courses, self._direct_of[direct], month_of[direct_room])
            found = courses[of] * self._direct_factor[direct, None]
            np.add.at(result, direct_room * FIXED + self._direct_category[direct], found)
        return result.reshape(self.count, FIXED, STEPS_PER_DAY)

    def _chosen(self, some: Ints | None) -> tuple[Ints, Ints, Ints, Ints, Array]:
        """Terms and direct entries of some rooms, the place among those of the room of each, and their constants."""
        every = np.arange(self.count)
        if some is None or len(some) == self.count:
            room, direct = np.repeat(every, self._size), np.arange(len(self._direct_room))
            return np.arange(len(room)), room, direct, self._direct_room, self._steady.copy()
        size = self._size[some]
        terms = np.arange(size.sum()) + np.repeat(self._start[some] - np.cumsum(size) + size, size)
        place = np.full(self.count, -1)
        place[some] = np.arange(len(some))
        direct = np.flatnonzero(place[self._direct_room] >= 0)
        room = np.repeat(np.arange(len(some)), size)
        return terms, room, direct, place[self._direct_room[direct]], self._steady[some]


def _different(arrays: list[Any]) -> tuple[list[Any], Ints]:
    """The different objects among arrays, and which of them each is."""
    keys = [id(array) for array in arrays]
    unique = dict(zip(keys, arrays, strict=True))
    place = {key: index for index, key in enumerate(unique)}
    return list(unique.values()), np.array([place[key] for key in keys], dtype=np.int64)


def _at_months(arrays: list[Any], of: Ints, month_of: Ints) -> tuple[Any, Ints]:
    """The days of arrays in the months that are asked for, and which of them is that of array `of` in its month."""
    months, place = np.unique(month_of, return_inverse=True)
    return np.stack([array[month] for month in months.tolist() for array in arrays]), place.ravel() * len(arrays) + of


def fixed_split(room: Terms, months: int) -> Array:
    """Split of a room over all days [W, or K where it floats], by FIXED_CATEGORIES, (FIXED, months, 144)."""
    return np.ascontiguousarray(Ensemble([room] * months).days(np.arange(months)).transpose(1, 0, 2))
