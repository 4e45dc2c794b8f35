"""Loads of rooms on the summer design days and the winter day, split exactly by source."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.fabric.steady import RSE, inside_film
from pendrum_core.model.rooms import CATEGORIES, CONDUCTION_CATEGORIES, GAIN_CATEGORIES, Room
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.results.air import AirCourse
from pendrum_core.room.balance import RoomRow, Transfers, room_row, transfers
from pendrum_core.room.harmonics import step_response, to_harmonics, to_steps
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.room.products import summed_products
from pendrum_core.room.sources import GainCourses, SunCourses, gain_courses, sun_courses
from pendrum_core.room.stack import Signals, Stack, stack_rooms
from pendrum_core.room.terms import FIXED, FIXED_CATEGORIES, Terms, TermStack, fixed_split
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class TransferHeat:
    """What air from other rooms brings to the air held at its set-point: summer (R, months, 144), winter (R,) [W]."""

    summer_w: Array
    winter_w: Array


@dataclass(frozen=True)
class Solved:
    """A stack of rooms with its transfers and sources: what attribution and checks start from."""

    stack: Stack
    row: RoomRow
    transfers: Transfers
    signals: Signals
    sun: SunCourses
    gains: GainCourses
    outside: Outdoors
    floating: NDArray[np.bool_]
    transfer: TransferHeat


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


def solve(
    rooms: Sequence[Room], outside: Outdoors, merge: bool = True, beyond: Mapping[str, AirCourse] | None = None
) -> Solved:
    """Set up and eliminate a stack of rooms for the summer days; `merge` and `beyond` as in `stack_rooms`."""
    stack, signals = stack_rooms(rooms, outside, merge, beyond)
    floating = np.array([room.floats for room in rooms])
    row = room_row(stack, outside.climate.coefficients.radiation_inside, floating)
    return Solved(
        stack=stack,
        row=row,
        transfers=transfers(stack, row, floating),
        signals=signals,
        sun=sun_courses(stack.rooms, outside),
        gains=gain_courses(stack.rooms, [month.month for month in outside.climate.months]),
        outside=outside,
        floating=floating,
        transfer=transfer_heat(stack.rooms, outside, beyond or {}),
    )


def transfer_heat(rooms: Sequence[Room], outside: Outdoors, beyond: Mapping[str, AirCourse]) -> TransferHeat:
    """Heat of air from other rooms, ρ cp V (T there - set-point); nothing where the other room's air is not known."""
    summer = np.zeros((len(rooms), *outside.dry_bulb_c.shape))
    winter = np.zeros(len(rooms))
    for index, room in enumerate(rooms):
        if room.transfer is not None and room.transfer.room in beyond:
            air, conductance = beyond[room.transfer.room], room.transfer.flow_m3_s * outside.air_heat_j_m3k
            summer[index] = conductance * (air.summer_c - room.cooling_setpoint_c)
            winter[index] = conductance * (air.winter_c - room.heating_setpoint_c)
    return TransferHeat(summer, winter)


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
    """Conduction through the terms, summed into `rows` by `row_of`, shape (rows, months, 144).

    `through` takes the place of the transfers to the air, per pair of room and kind (P, 73).
    """
    through = solved.transfers.conduction if through is None else through
    to, of, transfer = _joined(solved, row_of, through)
    result = to_steps(summed_products(to, of, transfer, solved.signals.harmonics, rows))
    return result + _levels(solved, row_of, rows, through)[:, None, None]


def outdoor_air_parts(solved: Solved) -> tuple[Array, Array]:
    """Heat that infiltration and untreated outdoor air bring to the air, each (R, months, 144), before response."""
    rooms, outside = solved.stack.rooms, solved.outside
    reference = np.array([room.cooling_setpoint_c for room in rooms])
    difference = outside.dry_bulb_c[None] - reference[:, None, None]
    leak = np.array([room.infiltration_m3_s for room in rooms]) * outside.air_heat_j_m3k
    direct = np.array([room.direct_outdoor_air_m3_s for room in rooms]) * outside.air_heat_j_m3k
    return leak[:, None, None] * difference, direct[:, None, None] * difference


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


def mean_surface_k(solved: Solved) -> Array:
    """Mean surface temperature above the reference, the air held at it, (R, months, 144) [K]."""
    stack, row = solved.stack, solved.row
    table = (stack.kinds.face * stack.kinds.across)[stack.pair_kind] * row.mean_gain[stack.pair_room]
    conducted = conduction_parts(solved, stack.room_of, len(stack.rooms), step_response(table))
    spreading = step_response(row.mean_gain * row.face_sum / stack.total_area[:, None])
    radiant = solved.sun.whole()[0] + solved.gains.radiant.sum(axis=1)[:, solved.gains.day_of]
    return np.asarray(conducted + to_steps(to_harmonics(radiant) * spreading[:, None]))


@dataclass(frozen=True)
class WinterParts:
    """Winter day of rooms, steady.

    Attributes:
        term_w: heat lost through each term, (T,) [W].
        infiltration_w, outdoor_air_w: heat lost with air, (R,) [W].
        gains_w: heat that the counted share of gains brings, by category, (R, 3, 144); None where none is counted.
        net_w: heat that reaches the air held at the reference without them; negative where it is lost, (R,) [W].
        surfaces_k: mean surface temperature above the reference then, (R,) [K].
        load_w: heating load, (R,) [W]; 0 for rooms that are not heated.
        air_c: air temperature, the set-point or the floating one, (R,) [°C].
        simple_w: losses at the set-point by U-values, whatever the project chose, (R,) [W]; 0 for rooms not heated.
        emitter_w: what each term loses more because the emitter's radiant heat warms the faces, (T,) [W].
    """

    term_w: Array
    infiltration_w: Array
    outdoor_air_w: Array
    gains_w: Array | None
    net_w: Array
    surfaces_k: Array
    load_w: Array
    air_c: Array
    simple_w: Array
    emitter_w: Array


def steady_transfer_w_m2k(solved: Solved) -> Array:
    """Heat to the air per kelvin of a pair's environment, steady, (P,) [W/m2 K].

    By the room balance, or by U-values with the standard's inside films (ISO 6946) where the project chose
    the simplified procedure of EN 12831-1.
    """
    stack, kinds = solved.stack, solved.stack.kinds
    if solved.outside.climate.heating_procedure == "u_values":
        return _u_values(solved)
    reach = kinds.convection[stack.pair_kind] + solved.row.through_mean[stack.pair_room, 0].real
    return np.asarray((kinds.face * kinds.across)[:, 0].real[stack.pair_kind] * reach)


def _u_values(solved: Solved) -> Array:
    """U-values of pairs with the standard's films, (P,) [W/m2 K], ISO 6946:2017."""
    kinds, c = solved.stack.kinds, solved.outside.climate.coefficients
    tilt = {c.convection_ceiling: 0.0, c.convection_floor: 180.0}
    films = np.array([inside_film(tilt.get(float(hc), 90.0)) for hc in kinds.convection])
    # The balance's film outdoors gives way to the standard's.
    beyond = np.where(kinds.beyond_m2k_w == 1.0 / c.outside, RSE, kinds.beyond_m2k_w)
    return np.asarray(1.0 / (films + kinds.layers_m2k_w + beyond)[solved.stack.pair_kind])


def _winter_gains(solved: Solved) -> Array | None:
    """What the counted share of gains brings to held air on the winter day, (R, 3, 144) [W]."""
    rooms, share = solved.stack.rooms, solved.outside.climate.winter_gains_share
    if share <= 0.0:
        return None
    radiant, convective = np.zeros((2, len(rooms), len(GAIN_CATEGORIES), STEPS_PER_DAY))
    for index, room in enumerate(rooms):
        for gain in room.gains:
            row = GAIN_CATEGORIES.index(gain.category)
            course = share * gain.sensible_w * step_averages(gain.winter)
            radiant[index, row] += gain.radiant_share * course
            convective[index, row] += (1.0 - gain.radiant_share) * course
    return np.asarray(to_steps(to_harmonics(radiant) * solved.transfers.radiant[:, None]) + convective)


def winter(solved: Solved) -> WinterParts:
    """Heating load of each room at a held set-point: no sun, and no more of the gains than the project counts."""
    stack, outside = solved.stack, solved.outside
    rooms, count = stack.rooms, len(stack.rooms)
    reference = np.array([room.heating_setpoint_c for room in rooms])
    transfer = steady_transfer_w_m2k(solved)[stack.pair_of] * stack.area
    term_w = -transfer * solved.signals.winter_k
    leak = np.array([room.winter_leak_m3_s for room in rooms]) * outside.air_heat_j_m3k
    direct = np.array([room.direct_outdoor_air_m3_s for room in rooms]) * outside.air_heat_j_m3k
    out = outside.climate.winter_dry_bulb_c - reference
    net = (leak + direct) * out + solved.transfer.winter_w - np.bincount(stack.room_of, weights=term_w, minlength=count)
    heated = np.array([room.heated for room in rooms])
    moved = np.array([room.transfer_m3_s for room in rooms]) * outside.air_heat_j_m3k
    conductance = leak + direct + moved + solved.row.own_air[:, 0].real
    # A room that exchanges heat with nothing stays where it is.
    drift = np.divide(net, conductance, out=np.zeros_like(net), where=~heated & (conductance > 1e-9))
    simple = _u_values(solved)[stack.pair_of] * stack.area * -(solved.signals.winter_k + solved.signals.sky_k)
    simple_w = (
        np.bincount(stack.room_of, weights=simple, minlength=count) - (leak + direct) * out - solved.transfer.winter_w
    )
    gains = _winter_gains(solved)
    least = 0.0 if gains is None else gains.sum(axis=1).min(axis=1)
    load = np.where(heated, np.maximum(0.0, -net - least), 0.0)
    load, emitter = _with_radiant_emitters(solved, load)
    kinds, of = stack.kinds, stack.kind_of
    driven = (kinds.face * kinds.across)[of, 0].real * stack.area * solved.signals.winter_k
    return WinterParts(
        term_w=term_w,
        infiltration_w=-leak * out,
        outdoor_air_w=-direct * out,
        gains_w=gains,
        net_w=net,
        surfaces_k=np.bincount(stack.room_of, weights=driven, minlength=count) * solved.row.mean_gain[:, 0].real,
        load_w=load,
        air_c=reference + drift,
        simple_w=np.where(heated, np.maximum(0.0, simple_w), 0.0),
        emitter_w=emitter,
    )


def _with_radiant_emitters(solved: Solved, to_air_w: Array) -> tuple[Array, Array]:
    """Power of emitters that give a share as radiant heat, (R,), and what the terms lose more for it, (T,) [W].

    Of a radiant watt R arrives at the held air, the rest is lost through faces that it warms:
    Q (1 - s + s R) is what the air needs. The simplified procedure of EN 12831-1 knows no such share.
    """
    stack, row, kinds = solved.stack, solved.row, solved.stack.kinds
    share = radiant_shares(solved)
    spread_out = 1.0 + solved.outside.climate.coefficients.radiation_inside * row.mean_gain[:, 0] * row.face_sum[:, 0]
    arrives = (row.convected_sum[:, 0] * spread_out).real / stack.total_area
    load = to_air_w / (1.0 - share * (1.0 - arrives))
    on_faces = share * load / stack.total_area * spread_out.real
    through = (kinds.own * kinds.face)[:, 0].real[stack.kind_of] * stack.area
    return load, on_faces[stack.room_of] * through


def radiant_shares(solved: Solved) -> Array:
    """Radiant share of each room's heating, (R,); none by the simplified procedure."""
    if solved.outside.climate.heating_procedure == "u_values":
        return np.zeros(len(solved.stack.rooms))
    return np.array([room.heating_radiant_share for room in solved.stack.rooms])
