"""The winter day of rooms, steady: losses, the share of gains that counts, and the heating load.

Source: EN 12831-1 for the simplified procedure; else the steady heat balance of room/balance.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.fabric.steady import RSE
from pendrum_core.model.rooms import GAIN_CATEGORIES
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance.harmonics import to_harmonics, to_steps
from pendrum_core.room.balance.solve import Solved
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class WinterParts:
    """Winter day of rooms, steady.

    Attributes:
        term_w: heat lost through each term, (T,) [W].
        infiltration_w, outdoor_air_w: heat lost with air, (R,) [W].
        gains_w: heat that the counted share of gains brings, by category, (R, 3, 144); None where none is counted.
        net_w: heat that reaches the air held at the reference without them; negative where it is lost, (R,) [W].
        surfaces_k: mean surface temperature above the reference then, (R,) [K].
        felt_c: what a face exchanges radiation with once the room is at `air_c` and its emitter works, (R,) [°C].
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
    felt_c: Array
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
    # The balance's film outdoors gives way to the standard's.
    beyond = np.where(kinds.beyond_m2k_w == 1.0 / c.outside, RSE, kinds.beyond_m2k_w)
    return np.asarray(1.0 / (kinds.film_m2k_w + kinds.layers_m2k_w + beyond)[solved.stack.pair_kind])


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
    surfaces = np.bincount(stack.room_of, weights=driven, minlength=count) * solved.row.mean_gain[:, 0].real
    follow = (solved.row.mean_gain * solved.row.convected_sum)[:, 0].real
    return WinterParts(
        term_w=term_w,
        infiltration_w=-leak * out,
        outdoor_air_w=-direct * out,
        gains_w=gains,
        net_w=net,
        surfaces_k=surfaces,
        felt_c=reference + surfaces + follow * drift + emitters_felt_k(solved, load),
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


def emitters_felt_k(solved: Solved, power_w: Array) -> Array:
    """By how much emitters of a power (R,) raise what a face exchanges radiation with, the air being held (R,) [K].

    They warm the faces, and their radiant heat falls onto them: over the radiation coefficient that counts like kelvin.
    """
    row, area = solved.row, solved.stack.total_area
    warmed = (row.mean_gain * row.face_sum)[:, 0].real / area
    falling = 1.0 / (area * solved.outside.climate.coefficients.radiation_inside)
    return np.asarray(radiant_shares(solved) * power_w * (warmed + falling))


def radiant_shares(solved: Solved) -> Array:
    """Radiant share of each room's heating, (R,); none by the simplified procedure."""
    if solved.outside.climate.heating_procedure == "u_values":
        return np.zeros(len(solved.stack.rooms))
    return np.array([room.heating_radiant_share for room in solved.stack.rooms])
