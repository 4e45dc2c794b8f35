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

from pendrum_core.room.balance.harmonics import HARMONICS, OMEGA_RAD_S, step_response
from pendrum_core.room.balance.stack import Stack

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


@dataclass(frozen=True)
class RoomRow:
    """How sources reach the room air, before folding to steps; (R, 361) each.

    Attributes:
        face_sum, convected_sum: sum(A G) [m4 K/W], sum(A G hc) [m2].
        through_mean: H, what reaches the air by way of the mean surface temperature [W/m2 K].
        own_air: heat taken from the air per kelvin of its own temperature by the faces [W/K].
        mean_gain: 1/(sum(A) - hr sum(A G)) [1/m2].
        follows_at_once: part of a change of the air that the mean surface temperature follows at once, (R,) [-].
        response: what a watt into the air becomes: 1 for held rooms (load), K/W for floating ones.
    """

    face_sum: Complex
    convected_sum: Complex
    through_mean: Complex
    own_air: Complex
    mean_gain: Complex
    follows_at_once: Array
    response: Complex


@dataclass(frozen=True)
class Transfers:
    """Folded to step averages; 73 harmonics.

    Attributes:
        conduction: environment temperature to result per area, for each pair of room and kind, (P, 73).
        radiant: a watt of radiant heat spread over all faces by area, (R, 73).
        convective: a watt straight into the air of the floating rooms, (floating, 73).
    """

    conduction: Complex
    radiant: Complex
    convective: Complex


def room_row(stack: Stack, radiation_w_m2k: float, floating: NDArray[np.bool_]) -> RoomRow:
    """Eliminate the faces of every room."""
    kinds = stack.kinds
    convection = kinds.convection[:, None]
    face_sum = stack.kind_area @ kinds.face
    convected_sum = stack.kind_area @ (kinds.face * convection)
    mean_gain = 1.0 / (stack.total_area[:, None] - radiation_w_m2k * face_sum)
    through_mean = radiation_w_m2k * convected_sum * mean_gain
    direct = stack.kind_area @ (convection - kinds.face * convection**2)
    own_air = direct - through_mean * convected_sum
    response = np.ones_like(own_air)
    if floating.any():
        store = 1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[floating, None]
        response[floating] = 1.0 / (store + stack.exchange_w_k[floating, None] + own_air[floating])
    faces, convected = (stack.kind_area @ of for of in (kinds.face_at_once, kinds.face_at_once * kinds.convection))
    at_once = convected / (stack.total_area - radiation_w_m2k * faces)
    return RoomRow(
        face_sum,
        convected_sum,
        through_mean=through_mean,
        own_air=own_air,
        mean_gain=mean_gain,
        follows_at_once=at_once,
        response=response,
    )


def transfers(stack: Stack, row: RoomRow, floating: NDArray[np.bool_]) -> Transfers:
    """Fold the row into step-to-step transfers."""
    kinds = stack.kinds
    # G across (hc + H), for the pairs of room and kind that have something beyond them.
    crossed = (kinds.across[:, 0] != 0.0)[stack.pair_kind]
    kind, room = stack.pair_kind[crossed], stack.pair_room[crossed]
    through = (kinds.face * kinds.across)[kind]
    through *= kinds.convection[kind, None] + row.through_mean[room]
    radiant = (row.convected_sum + row.through_mean * row.face_sum) / stack.total_area[:, None]
    if floating.any():
        through *= row.response[room]
        radiant *= row.response
    conduction = np.zeros((len(crossed), HARMONICS), dtype=complex)
    conduction[crossed] = step_response(through)
    return Transfers(conduction, step_response(radiant), step_response(row.response[floating]))
