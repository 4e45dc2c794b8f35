"""The room heat balance per frequency.

Inner face s of a room with air Ta and area-weighted mean surface temperature Tm = sum(A T)/sum(A):

    across_s Te_s - own_s T_s + r_s = hc_s (T_s - Ta) + hr (T_s - Tm)

With G = 1/(own + hc + hr) the faces are eliminated by hand: there is no matrix to solve. What a source x_s at face s
delivers to the air is A_s G_s (hc_s + H) x_s, with H = hr sum(A G hc)/(sum(A) - hr sum(A G)): one row per room
serves every source (an adjoint solution). Coefficients as in ISO 52016-1:2017.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.room.harmonics import OMEGA_RAD_S, step_response
from pendrum_core.room.stack import Stack

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


@dataclass(frozen=True)
class RoomRow:
    """How sources reach the room air, before folding to steps; 361 frequencies.

    Attributes:
        face: G per element, (E, 361) [m2 K/W].
        to_air: A G (hc + H): heat to the air per flux at a face, (E, 361) [m2].
        own_air: heat taken from the air per kelvin of its own temperature by the faces, (R, 361) [W/K].
        mean_gain: 1/(sum(A) - hr sum(A G)), (R, 361) [1/m2].
        response: what a watt into the air becomes: 1 for held rooms (load), K/W for floating ones, (R, 361).
    """

    face: Complex
    to_air: Complex
    own_air: Complex
    mean_gain: Complex
    response: Complex


@dataclass(frozen=True)
class Transfers:
    """Folded to step averages; 73 harmonics.

    Attributes:
        conduction: per element, environment temperature to result, (E, 73).
        radiant: a watt of radiant heat spread over all faces by area, (R, 73).
        convective: a watt straight into the air, (R, 73).
    """

    conduction: Complex
    radiant: Complex
    convective: Complex


def room_row(stack: Stack, radiation_w_m2k: float, floating: NDArray[np.bool_]) -> RoomRow:
    """Eliminate the faces of every room."""
    convection, area = stack.convection[:, None], stack.area[:, None]
    face = 1.0 / (stack.own + (convection + radiation_w_m2k))
    weighted = area * face
    mean_gain = 1.0 / (stack.total_area[:, None] - radiation_w_m2k * (stack.by_room @ weighted))
    through_mean = radiation_w_m2k * (stack.by_room @ (weighted * convection)) * mean_gain
    to_air = weighted * (convection + through_mean[stack.room_of])
    own_air = (stack.by_room @ (area * convection)) - stack.by_room @ (to_air * convection)
    response = np.ones_like(own_air)
    if floating.any():
        store = 1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[:, None]
        response[floating] = 1.0 / (store + stack.exchange_w_k[:, None] + own_air)[floating]
    return RoomRow(face, to_air, own_air, mean_gain, response)


def transfers(stack: Stack, row: RoomRow) -> Transfers:
    """Fold the row into step-to-step transfers."""
    conduction = row.to_air * stack.across * row.response[stack.room_of]
    radiant = (stack.by_room @ row.to_air) / stack.total_area[:, None] * row.response
    return Transfers(step_response(conduction), step_response(radiant), step_response(row.response))
