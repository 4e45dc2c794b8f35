"""The summer days of rooms: their loads or temperatures at every step, and what these are made of by source.

Source: the heat balance of room/balance, linear in what drives it.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import CATEGORIES, CONDUCTION_CATEGORIES, GAIN_CATEGORIES
from pendrum_core.room.balance.harmonics import At, step_response, to_harmonics, to_steps
from pendrum_core.room.balance.solve import Solved
from pendrum_core.room.days.products import summed_products
from pendrum_core.room.days.terms import FIXED, FIXED_CATEGORIES, Terms, TermStack, fixed_split

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class RoomCourses:
    """Rooms' results on the summer days, the air held at the reference, and what they are made of.

    Heat to be removed [W] in cooled rooms, air temperature above the reference [K] in floating ones.

    Attributes:
        terms: what drives each room apart from its gains, (R,).
        held: the sum of that, (R, months, 144).
        gains: of the gains, (R, 3, V, 144), and `day_of` the different day V of each month.
        latent_w: moisture from people and equipment, (R, V, 144) [W].
    """

    terms: list[Terms]
    held: Array
    gains: Array
    day_of: Ints
    latent_w: Array

    @property
    def total(self) -> Array:
        """All together, (R, months, 144)."""
        return np.asarray(self.held + self.gains.sum(axis=1)[:, self.day_of])

    def parts(self, room: int) -> Array:
        """The whole split of a room in the order of CATEGORIES without those of control, (categories, months, 144)."""
        first = CATEGORIES.index(GAIN_CATEGORIES[0])
        fixed = fixed_split(self.terms[room], self.held.shape[1])
        return np.concatenate([fixed[:first], self.gains[room][:, self.day_of], fixed[first:]])


def _joined(solved: Solved, row_of: Ints, through: Complex) -> tuple[Ints, Ints, Complex]:
    """Terms that share a row and a temperature course as one: rows and signals (J,), and their transfers (J, 73)."""
    stack, signals = solved.stack, solved.signals
    count = len(signals.rows)
    filled, where = np.unique(row_of * count + signals.of, return_inverse=True)
    joined = csr_matrix((stack.area, (where, stack.pair_of)), shape=(len(filled), len(stack.pair_room)))
    keep = filled % count > 0  # the first signal is nothing
    return filled[keep] // count, filled[keep] % count, np.asarray(joined[keep] @ through)


def _levels(solved: Solved, row_of: Ints, rows: int, through: Complex) -> Array:
    """What the constant part of the terms' temperatures brings, (rows,)."""
    stack = solved.stack
    brought = through[stack.pair_of, 0].real * stack.area * solved.signals.level_k
    return np.asarray(np.bincount(row_of, weights=brought, minlength=rows), dtype=np.float64)


def conduction_parts(solved: Solved, row_of: Ints, rows: int, through: Complex | None = None) -> Array:
    """Conduction [W] through the terms, summed into `rows` by `row_of`, shape (rows, months, 144).

    `through` takes the place of the transfers to the air, per pair of room and kind (P, 73).
    """
    through = solved.transfers.conduction if through is None else through
    to, of, transfer = _joined(solved, row_of, through)
    result = to_steps(summed_products(to, of, transfer, solved.signals.harmonics, rows))
    return result + _levels(solved, row_of, rows, through)[:, None, None]


def respond(solved: Solved, radiant: Array, convective: Array) -> Array:
    """Result of radiant and convective heat [W] with a course on the last axis; rooms on the first.

    The convective part reaches the air of a held room directly, outside the harmonics.
    """
    extra = (slice(None),) + (None,) * (convective.ndim - 2)
    result = to_steps(to_harmonics(radiant) * solved.transfers.radiant[extra])
    held = ~solved.floating
    result[held] += convective[held]
    if solved.floating.any():
        f = solved.floating
        result[f] += to_steps(to_harmonics(convective[f]) * solved.transfers.convective[extra])
    return result


class _Air:
    """Courses that act on the air at once: entries of room, category, factor and course."""

    def __init__(self) -> None:
        self.rooms: list[int] = []
        self.categories: list[int] = []
        self.factors: list[float] = []
        self.of: list[int] = []
        self.courses: list[Array] = []
        self._known: dict[int, int] = {}

    def add(self, room: int, category: str, factor: float, course: Array) -> None:
        """One more entry; nothing for a factor of 0."""
        if factor == 0.0:
            return
        place = self._known.setdefault(id(course), len(self.courses))
        if place == len(self.courses):
            self.courses.append(course)
        self.rooms.append(room)
        self.categories.append(FIXED_CATEGORIES.index(category))
        self.factors.append(factor)
        self.of.append(place)


def _on_the_air(solved: Solved) -> tuple[_Air, Array]:
    """Sun that goes straight to the air and air that comes in, and the constants that belong to it, (R, FIXED)."""
    outside, air = solved.outside, _Air()
    steady = np.zeros((len(solved.stack.rooms), FIXED))
    sun = solved.sun
    for room, table, scale in zip(sun.room.tolist(), sun.table.tolist(), sun.scale.tolist(), strict=True):
        air.add(room, "sun", scale, sun.convective[table])
    for index, room in enumerate(solved.stack.rooms):
        for category, flow in (("infiltration", room.infiltration_m3_s), ("outdoor air", room.direct_outdoor_air_m3_s)):
            conductance = flow * outside.air_heat_j_m3k
            air.add(index, category, conductance, outside.dry_bulb_c)
            steady[index, FIXED_CATEGORIES.index(category)] = -conductance * room.cooling_setpoint_c
    # Air from other rooms belongs to what the neighbours do, like their walls.
    for index in np.flatnonzero(solved.transfer.summer_w.any(axis=(1, 2))).tolist():
        air.add(index, "neighbours", 1.0, solved.transfer.summer_w[index].copy())
    return air, steady


def _terms(solved: Solved) -> TermStack:
    """Everything that drives the rooms but their gains."""
    stack, sun, signals = solved.stack, solved.sun, solved.signals
    count = len(stack.rooms)
    row_of = stack.room_of * FIXED + FIXED_CATEGORIES.index(CONDUCTION_CATEGORIES[0]) + stack.category_of
    through = solved.transfers.conduction
    row, of, transfer = _joined(solved, row_of, through)
    steady = _levels(solved, row_of, count * FIXED, through).reshape(count, FIXED)
    rows, ofs, transfers_ = [row], [of], [transfer]
    every = [*signals.rows, *sun.harmonics]
    if len(sun.room):
        rows.append(sun.room * FIXED + FIXED_CATEGORIES.index("sun"))
        ofs.append(sun.table + len(signals.rows))
        transfers_.append(sun.scale[:, None] * solved.transfers.radiant[sun.room])
    air, constants = _on_the_air(solved)
    entry_room = np.array(air.rooms, dtype=np.int64)
    floats = solved.floating[entry_room]
    if solved.floating.any():
        # What reaches the air of a floating room has to warm it: it goes through the air's answer like all else.
        answers = np.zeros((count, solved.transfers.convective.shape[1]), dtype=complex)
        answers[solved.floating] = solved.transfers.convective
        constants[solved.floating] *= answers[solved.floating, 0].real[:, None]
        some = np.flatnonzero(floats)
        used, place = np.unique(np.array(air.of, dtype=np.int64)[some], return_inverse=True)
        rows.append(entry_room[some] * FIXED + np.array(air.categories, dtype=np.int64)[some])
        ofs.append(place.ravel() + len(every))
        transfers_.append(np.array(air.factors)[some, None] * answers[entry_room[some]])
        every += [to_harmonics(air.courses[course]) for course in used.tolist()]
    row = np.concatenate(rows)
    return TermStack(
        rooms=count,
        room=row // FIXED,
        category=row % FIXED,
        transfer=np.concatenate(transfers_),
        signal_of=np.concatenate(ofs),
        signals=tuple(every),
        direct_room=entry_room[~floats],
        direct_category=np.array(air.categories, dtype=np.int64)[~floats],
        direct_factor=np.array(air.factors, dtype=np.float64)[~floats],
        direct_of=np.array(air.of, dtype=np.int64)[~floats],
        courses=tuple(air.courses),
        steady=steady + constants,
    )


def courses(solved: Solved) -> RoomCourses:
    """Every room's result at every step, and what it is made of."""
    terms = _terms(solved)
    gains = respond(solved, solved.gains.radiant, solved.gains.convective)
    return RoomCourses(terms.by_room(), terms.total(), gains, solved.gains.day_of, solved.gains.latent.sum(axis=1))


def radiant_w(solved: Solved) -> Array:
    """Sun and gains that fall onto the faces, (R, months, 144) [W]."""
    return np.asarray(solved.sun.whole()[0] + solved.gains.radiant.sum(axis=1)[:, solved.gains.day_of])


def mean_surface_k(solved: Solved, radiant: Array, at: At = At.MEAN) -> Array:
    """Mean surface temperature above the reference, the air held at it, (R, months, 144) [K].

    `radiant` is what falls onto the faces [W]; `at` says which temperature of each step.
    """
    stack, row = solved.stack, solved.row
    crossed = (stack.kinds.across[:, 0] != 0.0)[stack.pair_kind]
    table = (stack.kinds.face * stack.kinds.across)[stack.pair_kind[crossed]] * row.mean_gain[stack.pair_room[crossed]]
    through = np.zeros_like(solved.transfers.conduction)
    through[crossed] = step_response(table, at)
    conducted = conduction_parts(solved, stack.room_of, len(stack.rooms), through)
    spreading = step_response(row.mean_gain * row.face_sum / stack.total_area[:, None], at)
    return np.asarray(conducted + to_steps(to_harmonics(radiant) * spreading[:, None]))
