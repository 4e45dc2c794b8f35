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
from pendrum_core.room.balance.harmonics import HARMONICS, OMEGA_RAD_S, spread, step_response, to_harmonics, to_steps
from pendrum_core.room.balance.solve import Solved

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class DayCheck:
    """One day of each room, solved forward.

    Attributes:
        result: load [W] of held rooms, air temperature above the reference [K] of floating ones, (R, 144).
        mean_surface_k: mean surface temperature above the reference of the floating rooms, (floating, 144) [K].
        closure_w: heat entering minus leaving the room, (R, 144) [W]; 0 but for rounding.
        throughput_w: the largest sum of the magnitudes of what enters, (R,) [W].
        lost: of a radiant watt on the faces, what goes into them, folded to steps, (R, 73).
    """

    result: Array
    mean_surface_k: Array
    closure_w: Array
    throughput_w: Array
    lost: Complex


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


def forward_day(solved: Solved, month_of: Ints) -> DayCheck:
    """Solve one summer day of each room forward; `month_of` is the month index per room, (R,)."""
    stack, row, kinds, outside = solved.stack, solved.row, solved.stack.kinds, solved.outside
    rooms = np.arange(len(stack.rooms))
    hr, area = outside.climate.coefficients.radiation_inside, stack.total_area[:, None]
    day = solved.gains.day_of[month_of]
    sun_radiant, sun_convective = solved.sun.on(month_of)
    radiant = sun_radiant + solved.gains.radiant[rooms, :, day].sum(axis=1)
    convective = sun_convective + solved.gains.convective[rooms, :, day].sum(axis=1)
    convective += _outdoor_air_w(solved, month_of) + solved.transfer.summer_w[rooms, month_of]

    crossing, face, convected = _driven(solved, month_of)
    own_sum = stack.kind_area @ (kinds.face * kinds.own)
    # Mean surface temperature without radiant heat; a radiant watt per area of all faces brings `spread_out`.
    free = row.mean_gain * face
    spread_out = 1.0 + hr * row.mean_gain * row.face_sum
    # Radiant heat is the same from one fold to the next: its answers are folded before they meet it.
    reaches, lost = step_response(row.convected_sum * spread_out) / area, step_response(own_sum * spread_out) / area
    source = to_harmonics(radiant)
    held = convected + hr * row.convected_sum * free
    to_air = step_response(held) + reaches * source
    through = step_response(crossing - hr * own_sum * free) - lost * source
    f = solved.floating
    mean: Complex = np.zeros((0, HARMONICS), dtype=complex)
    air: Complex = mean
    if f.any():
        hc = kinds.convection[:, None]
        arriving = held[f] + row.convected_sum[f] * spread_out[f] * spread(source[f]) / area[f]
        air = np.asarray((arriving + spread(to_harmonics(convective[f]))) * row.response[f])
        follow = (row.mean_gain * row.convected_sum)[f] * air
        to_air[f] += step_response(
            hr * row.convected_sum[f] * follow - (stack.kind_area[f] @ (hc - kinds.face * hc**2)) * air
        )
        through[f] -= step_response(
            hr * own_sum[f] * follow + (stack.kind_area[f] @ (kinds.face * kinds.own * hc)) * air
        )
        mean = step_response(free[f] + follow)
        mean += step_response((row.mean_gain * row.face_sum)[f]) / area[f] * source[f]

    flows, entering = to_steps(to_air), to_steps(through)
    load = flows + convective
    result, closure = load, entering + convective + radiant - load
    if f.any():
        stored = (1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[f, None] + stack.exchange_w_k[f, None]) * air
        result[f] = to_steps(step_response(air))
        closure[f] = (entering + convective + radiant)[f] - to_steps(step_response(stored))
    throughput = (np.abs(entering) + np.abs(flows) + np.abs(convective) + radiant).max(axis=1)
    return DayCheck(result, to_steps(mean), closure, throughput, lost)


def _outdoor_air_w(solved: Solved, month_of: Ints) -> Array:
    """Heat that leaks and untreated outdoor air bring to the air, before response, (R, 144) [W]."""
    rooms, outside = solved.stack.rooms, solved.outside
    reference = np.array([room.cooling_setpoint_c for room in rooms])
    flow = np.array([room.infiltration_m3_s + room.direct_outdoor_air_m3_s for room in rooms])
    return np.asarray((flow * outside.air_heat_j_m3k)[:, None] * (outside.dry_bulb_c[month_of] - reference[:, None]))
