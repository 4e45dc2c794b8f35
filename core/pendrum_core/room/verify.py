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
from pendrum_core.room.loads import Solved, outdoor_air_parts

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


def _driven(solved: Solved, month_of: Ints) -> tuple[Complex, Complex, Complex, Complex]:
    """Sums over each room's faces of A across Te, and of that times G, G hc and G own, (R, 361) each."""
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
    weights: tuple[Complex, ...] = (
        np.ones_like(kinds.face), kinds.face, kinds.face * kinds.convection[:, None], kinds.face * kinds.own,
    )  # fmt: skip
    plain, face, convected, own = (area @ (table * w[kind]) + (level @ (kinds.across * w)) * constant for w in weights)
    return plain, face, convected, own


def forward_day(solved: Solved, month_of: Ints) -> DayCheck:
    """Solve one summer day of each room forward; `month_of` is the month index per room, (R,)."""
    stack, row, kinds = solved.stack, solved.row, solved.stack.kinds
    rooms = np.arange(len(stack.rooms))
    hr = solved.outside.climate.coefficients.radiation_inside
    day = solved.gains.day_of[month_of]
    leak, direct = outdoor_air_parts(solved)
    radiant = solved.sun.radiant[rooms, month_of] + solved.gains.radiant[rooms, :, day].sum(axis=1)
    convective = solved.sun.convective[rooms, month_of] + solved.gains.convective[rooms, :, day].sum(axis=1)
    convective = convective + (leak + direct)[rooms, month_of]

    plain, face, convected, own = _driven(solved, month_of)
    spreading = spread(to_harmonics(radiant)) / stack.total_area[:, None]
    held = convected + row.convected_sum * (spreading + hr * row.mean_gain * (face + row.face_sum * spreading))
    air = np.zeros_like(held)
    f = solved.floating
    if f.any():
        air[f] = ((held + spread(to_harmonics(convective))) * row.response)[f]
    mean = row.mean_gain * (face + row.face_sum * spreading + row.convected_sum * air)
    x = spreading + hr * mean
    hc = kinds.convection[:, None]
    lost = stack.kind_area @ (hc - kinds.face * hc**2)
    to_air = convected + row.convected_sum * x - lost * air
    own_sum = stack.kind_area @ (kinds.face * kinds.own)
    through = plain - own - own_sum * x - (stack.kind_area @ (kinds.face * kinds.own * hc)) * air

    flows, entering = to_steps(step_response(to_air)), to_steps(step_response(through))
    load = flows + convective
    result, closure = load, entering + convective + radiant - load
    if f.any():
        stored = (1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[f, None] + stack.exchange_w_k[f, None]) * air[f]
        result[f] = to_steps(step_response(air[f]))
        closure[f] = (entering + convective + radiant)[f] - to_steps(step_response(stored))
    throughput = (np.abs(entering) + np.abs(flows) + np.abs(convective) + radiant).max(axis=1)
    return DayCheck(result, to_steps(step_response(mean)), closure, throughput)
