"""Check of a calculation by another route: faces solved forward with all sources at once.

The split by source uses the adjoint row; here every face's temperature is worked out from all sources together, the
heat to the air is summed from the faces, and the balance of the whole room is closed. Done for each room on the day
of its own peak, on every calculation.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.harmonics import OMEGA_RAD_S, spread, step_response, to_harmonics, to_steps
from pendrum_core.room.loads import Solved, outdoor_air_parts

Array = NDArray[np.float64]


@dataclass(frozen=True)
class DayCheck:
    """One day of each room, solved forward.

    Attributes:
        result: load [W] of held rooms, air temperature above the reference [K] of floating ones, (R, 144).
        mean_surface_k: mean surface temperature above the reference, (R, 144) [K].
        closure_w: heat entering minus leaving the room, (R, 144) [W]; 0 but for rounding.
        throughput_w: the largest sum of the magnitudes of what enters, (R,) [W].
    """

    result: Array
    mean_surface_k: Array
    closure_w: Array
    throughput_w: Array


def forward_day(solved: Solved, month_of: NDArray[np.int64]) -> DayCheck:
    """Solve one summer day of each room forward; `month_of` is the month index per room, (R,)."""
    stack, row = solved.stack, solved.row
    rooms = np.arange(len(stack.rooms))
    hr = solved.outside.climate.coefficients.radiation_inside
    share = solved.outside.climate.coefficients.solar_share_to_air
    sun = solved.sun_w[rooms, month_of]
    radiant = sun * (1.0 - share) + solved.gains.radiant.sum(axis=1)
    leak, direct = outdoor_air_parts(solved)
    convective = sun * share + solved.gains.convective.sum(axis=1) + (leak + direct)[rooms, month_of]

    outside_k = solved.signals.harmonics[solved.signals.of, month_of[stack.room_of]].copy()
    outside_k[:, 0] += STEPS_PER_DAY * solved.signals.level_k
    driven = stack.across * spread(outside_k)
    flux = (spread(to_harmonics(radiant)) / stack.total_area[:, None])[stack.room_of] + driven
    to_air_node = spread(to_harmonics(convective))

    area, hc = stack.area[:, None], stack.convection[:, None]
    held_mean = (stack.by_room @ (area * row.face * flux)) * row.mean_gain
    held_face = row.face * (flux + hr * held_mean[stack.room_of])
    air = np.zeros_like(held_mean)
    if solved.floating.any():
        heat = stack.by_room @ (area * hc * held_face) + to_air_node
        air[solved.floating] = (heat * row.response)[solved.floating]
    flux = flux + hc * air[stack.room_of]
    mean = (stack.by_room @ (area * row.face * flux)) * row.mean_gain
    face = row.face * (flux + hr * mean[stack.room_of])

    convected = stack.by_room @ (area * hc * (face - air[stack.room_of]))
    through = stack.by_room @ (area * (driven - stack.own * face))
    stored = (1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[:, None] + stack.exchange_w_k[:, None]) * air
    load = to_steps(step_response(convected)) + convective
    entering = to_steps(step_response(through - stored)) + convective + radiant
    mean_area = (stack.by_room @ (area * face)) / stack.total_area[:, None]
    result = np.where(solved.floating[:, None], to_steps(step_response(air)), load)
    closure = np.where(solved.floating[:, None], entering, entering - load)
    magnitudes = stack.by_room @ np.abs(area * to_steps(step_response(driven - stack.own * face)))
    throughput = (magnitudes + np.abs(convective) + radiant).max(axis=1)
    return DayCheck(result, to_steps(step_response(mean_area)), closure, throughput)
