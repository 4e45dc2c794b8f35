"""Loads of rooms on twelve summer days and the winter day, split exactly by source."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import CATEGORIES, CONDUCTION_CATEGORIES, GAIN_CATEGORIES, Room
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance import RoomRow, Transfers, room_row, transfers
from pendrum_core.room.harmonics import HARMONICS, to_harmonics, to_steps
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.room.sources import (
    GainCourses,
    Signals,
    gain_courses,
    summer_signals,
    window_heat_w,
    winter_difference_k,
)
from pendrum_core.room.stack import Stack, stack_rooms

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Solved:
    """A stack of rooms with its transfers and sources: what attribution and checks start from."""

    stack: Stack
    row: RoomRow
    transfers: Transfers
    signals: Signals
    sun_w: Array
    gains: GainCourses
    outside: Outdoors
    floating: NDArray[np.bool_]


@dataclass(frozen=True)
class RoomCourses:
    """Split of rooms' results by source on the summer days.

    Attributes:
        parts: (R, categories, 12, 144); heat to be removed [W] in cooled rooms, contribution to the air
            temperature above the reference [K] in floating ones.
        latent_w: moisture from people and equipment, (R, 144) [W].
    """

    parts: Array
    latent_w: Array


def solve(rooms: Sequence[Room], outside: Outdoors) -> Solved:
    """Set up and eliminate a stack of rooms for the summer days."""
    stack = stack_rooms(rooms, outside.climate, outside.air_heat_j_m3k)
    floating = np.array([not room.cooled for room in rooms])
    row = room_row(stack, outside.climate.coefficients.radiation_inside, floating)
    return Solved(
        stack=stack,
        row=row,
        transfers=transfers(stack, row),
        signals=summer_signals(stack, outside),
        sun_w=window_heat_w(stack.rooms, outside),
        gains=gain_courses(stack.rooms),
        outside=outside,
        floating=floating,
    )


def conduction_parts(solved: Solved, row_of: NDArray[np.int64], rows: int) -> Array:
    """Conduction through the elements, summed into `rows` by `row_of`, shape (rows, 12, 144)."""
    stack, signals = solved.stack, solved.signals
    months = len(solved.outside.climate.months)
    result = np.zeros((rows, months * HARMONICS), dtype=complex)
    # Elements that share a row and a temperature course are joined first: one multiply for all of them.
    count = len(signals.harmonics)
    joined = csr_matrix(
        (np.ones(len(stack.elements)), (row_of * count + signals.of, np.arange(len(stack.elements)))),
        shape=(rows * count, len(stack.elements)),
    )
    filled = np.unique(row_of * count + signals.of)
    folded = (joined[filled] @ solved.transfers.conduction)[:, None, :] * signals.harmonics[filled % count]
    gather = csr_matrix((np.ones(len(filled)), (filled // count, np.arange(len(filled)))), shape=(rows, len(filled)))
    result += gather @ folded.reshape(len(filled), -1)
    level = solved.transfers.conduction[:, 0] * signals.level_k * STEPS_PER_DAY
    steady = csr_matrix((level, (row_of, np.zeros_like(row_of))), shape=(rows, 1)).toarray()
    shaped = result.reshape(rows, months, HARMONICS)
    shaped[:, :, 0] += steady
    return to_steps(shaped)


def outdoor_air_parts(solved: Solved) -> tuple[Array, Array]:
    """Heat that infiltration and untreated outdoor air bring to the air, each (R, 12, 144), before response."""
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
    extra = (slice(None),) + (None,) * (radiant.ndim - 2)
    result = to_steps(to_harmonics(radiant) * solved.transfers.radiant[extra])
    held = ~solved.floating
    result[held] += convective[held]
    if solved.floating.any():
        f = solved.floating
        result[f] += to_steps(to_harmonics(convective[f]) * solved.transfers.convective[f][extra])
    return result


def courses(solved: Solved) -> RoomCourses:
    """Split every room's result by category at every step."""
    stack, outside = solved.stack, solved.outside
    count, months = len(stack.rooms), len(outside.climate.months)
    parts = np.zeros((count, len(CATEGORIES), months, STEPS_PER_DAY))
    to_air = outside.climate.coefficients.solar_share_to_air
    parts[:, CATEGORIES.index("sun")] = respond(solved, solved.sun_w * (1.0 - to_air), solved.sun_w * to_air)
    category = np.array([CONDUCTION_CATEGORIES.index(element.category) for element in stack.elements])
    row_of = stack.room_of * len(CONDUCTION_CATEGORIES) + category
    first = CATEGORIES.index(CONDUCTION_CATEGORIES[0])
    conduction = conduction_parts(solved, row_of, count * len(CONDUCTION_CATEGORIES))
    parts[:, first : first + len(CONDUCTION_CATEGORIES)] = conduction.reshape(count, -1, months, STEPS_PER_DAY)
    first = CATEGORIES.index(GAIN_CATEGORIES[0])
    gains = respond(solved, solved.gains.radiant, solved.gains.convective)
    parts[:, first : first + len(GAIN_CATEGORIES)] = gains[:, :, None, :]
    leak, direct = outdoor_air_parts(solved)
    still = np.zeros_like(leak)
    parts[:, CATEGORIES.index("infiltration")] = respond(solved, still, leak)
    parts[:, CATEGORIES.index("outdoor air")] = respond(solved, still, direct)
    return RoomCourses(parts, solved.gains.latent.sum(axis=1))


@dataclass(frozen=True)
class WinterParts:
    """Winter day of rooms, steady.

    Attributes:
        element_w: heat lost through each element, (E,) [W].
        infiltration_w, outdoor_air_w: heat lost with air, (R,) [W].
        load_w: heating load, (R,) [W]; 0 for rooms that are not heated.
        air_c: air temperature, the set-point or the floating one, (R,) [°C].
    """

    element_w: Array
    infiltration_w: Array
    outdoor_air_w: Array
    load_w: Array
    air_c: Array


def winter(solved: Solved) -> WinterParts:
    """Steady heating load of each room: no sun, no gains."""
    stack, outside = solved.stack, solved.outside
    reference = np.array([room.heating_setpoint_c for room in stack.rooms])
    difference = np.array(
        [
            winter_difference_k(element.boundary, float(reference[stack.room_of[i]]), outside)
            for i, element in enumerate(stack.elements)
        ]
    )
    transfer = (solved.row.to_air[:, 0] * stack.across[:, 0]).real
    leak = np.array([room.infiltration_m3_s for room in stack.rooms]) * outside.air_heat_j_m3k
    direct = stack.exchange_w_k - leak
    out = outside.climate.winter_dry_bulb_c - reference
    net = stack.by_room @ (transfer * difference) + stack.exchange_w_k * out
    heated = np.array([room.heated for room in stack.rooms])
    conductance = stack.exchange_w_k + solved.row.own_air[:, 0].real
    # A room that exchanges heat with nothing stays where it is.
    drift = np.divide(net, conductance, out=np.zeros_like(net), where=~heated & (conductance > 1e-9))
    return WinterParts(
        element_w=-transfer * difference,
        infiltration_w=-leak * out,
        outdoor_air_w=-direct * out,
        load_w=np.where(heated, np.maximum(0.0, -net), 0.0),
        air_c=reference + drift,
    )
