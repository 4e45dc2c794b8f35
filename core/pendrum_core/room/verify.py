"""Check of a calculation by another route: faces solved forward with all sources at once.

The split by source uses the adjoint row; here the faces' temperatures are worked out from all sources together, the
heat to the air is summed from the faces, and the balance of the whole room is closed. Done for each room on the day
of its own peak, on every calculation. With X = r/sum(A) + hr Tm a face is T = G (across Te + X + hc Ta), so sums over
the faces are sums of G, with a weight, over kinds and over what drives them.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.harmonics import OMEGA_RAD_S, spread, step_response, to_harmonics, to_steps
from pendrum_core.room.solve import Solved

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


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


def _driven(solved: Solved, month_of: Ints) -> tuple[Complex, Complex, Complex]:
    """Sums over each room's faces of A across Te times 1 - G own, G, and G hc, (R, 361) each."""
    stack, kinds, signals = solved.stack, solved.stack.kinds, solved.signals
    months, courses = len(solved.outside.climate.months), len(signals.harmonics)
    key = (stack.kind_of * courses + signals.of) * months + month_of[stack.room_of]
    used, column = np.unique(key, return_inverse=True)
    kind, signal, month = used // (courses * months), used // months % courses, used % months
    table = kinds.across[kind] * spread(signals.harmonics[signal, month])
    rooms = len(stack.rooms)
    area = csr_matrix((stack.area, (stack.room_of, column)), shape=(rooms, len(used)))
    level = csr_matrix((stack.area * signals.level_k, (stack.room_of, stack.kind_of)), shape=(rooms, len(kinds.face)))
    constant = spread(to_harmonics(np.ones((1, STEPS_PER_DAY))))
    weights = (1.0 - kinds.face * kinds.own, kinds.face, kinds.face * kinds.convection[:, None])
    # A constant course has only those frequencies that fold to zero.
    still = np.flatnonzero(constant[0])
    sums = []
    for weight in weights:
        total = area @ (table * weight[kind])
        total[:, still] += level @ (kinds.across[:, still] * weight[:, still]) * constant[0, still]
        sums.append(total)
    return sums[0], sums[1], sums[2]


def _outdoor_air_w(solved: Solved) -> tuple[Array, Array]:
    """Heat that infiltration and untreated outdoor air bring to the air, each (R, months, 144), before response."""
    rooms, outside = solved.stack.rooms, solved.outside
    reference = np.array([room.cooling_setpoint_c for room in rooms])
    difference = outside.dry_bulb_c[None] - reference[:, None, None]
    leak = np.array([room.infiltration_m3_s for room in rooms]) * outside.air_heat_j_m3k
    direct = np.array([room.direct_outdoor_air_m3_s for room in rooms]) * outside.air_heat_j_m3k
    return leak[:, None, None] * difference, direct[:, None, None] * difference


def forward_day(solved: Solved, month_of: Ints) -> DayCheck:
    """Solve one summer day of each room forward; `month_of` is the month index per room, (R,)."""
    stack, row, kinds = solved.stack, solved.row, solved.stack.kinds
    rooms = np.arange(len(stack.rooms))
    hr = solved.outside.climate.coefficients.radiation_inside
    day = solved.gains.day_of[month_of]
    leak, direct = _outdoor_air_w(solved)
    sun_radiant, sun_convective = solved.sun.on(month_of)
    radiant = sun_radiant + solved.gains.radiant[rooms, :, day].sum(axis=1)
    convective = sun_convective + solved.gains.convective[rooms, :, day].sum(axis=1)
    convective = convective + (leak + direct + solved.transfer.summer_w)[rooms, month_of]

    crossing, face, convected = _driven(solved, month_of)
    spreading = spread(to_harmonics(radiant)) / stack.total_area[:, None]
    air = np.zeros_like(face)
    f = solved.floating
    mean = row.mean_gain * (face + row.face_sum * spreading)
    if f.any():
        held = convected[f] + row.convected_sum[f] * (spreading[f] + hr * mean[f])
        air[f] = (held + spread(to_harmonics(convective[f]))) * row.response[f]
        mean[f] += (row.mean_gain * row.convected_sum)[f] * air[f]
    x = spreading + hr * mean
    hc = kinds.convection[:, None]
    to_air = convected + row.convected_sum * x
    through = crossing - (stack.kind_area @ (kinds.face * kinds.own)) * x
    if f.any():
        to_air[f] -= (stack.kind_area[f] @ (hc - kinds.face * hc**2)) * air[f]
        through[f] -= (stack.kind_area[f] @ (kinds.face * kinds.own * hc)) * air[f]

    flows, entering = to_steps(step_response(to_air)), to_steps(step_response(through))
    load = flows + convective
    result, closure = load, entering + convective + radiant - load
    if f.any():
        stored = (1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[f, None] + stack.exchange_w_k[f, None]) * air[f]
        result[f] = to_steps(step_response(air[f]))
        closure[f] = (entering + convective + radiant)[f] - to_steps(step_response(stored))
    throughput = (np.abs(entering) + np.abs(flows) + np.abs(convective) + radiant).max(axis=1)
    return DayCheck(result, to_steps(step_response(mean)), closure, throughput)
