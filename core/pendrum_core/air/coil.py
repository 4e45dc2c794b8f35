"""Mixing, cooling coil by apparatus dew point and bypass factor, fan heat.

Source: ASHRAE Handbook Fundamentals 2017, ch. 1 (adiabatic mixing); apparatus dew point and bypass factor after
Carrier (1936).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from pendrum_core.moist_air import dry_bulb_from_enthalpy_c, enthalpy_j_kg, saturation_humidity_ratio
from pendrum_core.quantities.constants import CP_WATER

Array = NDArray[np.float64]
_ROUNDS, _REACHED_K = 12, 1e-10
APPROACH_K = 1.0  # of a coil's apparatus to the water or refrigerant in it, and of heated air to hot water
_IDLE_K = 1e-7  # air that is warmer by no more than this is cold enough


def mix(share: ArrayLike, t1: ArrayLike, w1: ArrayLike, t2: ArrayLike, w2: ArrayLike) -> tuple[Array, Array]:
    """Mix two streams, `share` of dry air from the first; straight in h and w. Returns T [°C] and w [kg/kg]."""
    x = np.asarray(share, dtype=float)
    w = x * np.asarray(w1) + (1.0 - x) * np.asarray(w2)
    h = x * enthalpy_j_kg(t1, w1) + (1.0 - x) * enthalpy_j_kg(t2, w2)
    return dry_bulb_from_enthalpy_c(h, w), np.asarray(w)


@dataclass(frozen=True)
class CoilLimits:
    """What the water or refrigerant in a unit's coils lets them do; None where nothing is known of it.

    Attributes:
        coldest_c: apparatus dew point that its cooling coil never goes below [°C].
        hottest_c: air that its heating coils never heat above [°C].
    """

    coldest_c: float | None = None
    hottest_c: float | None = None


NO_LIMITS = CoilLimits()


@dataclass(frozen=True)
class CoilState:
    """Air through a cooling coil, per kg of dry air, arrays of one shape.

    Attributes:
        leaving_c, leaving_w: state off the coil [°C], [kg/kg].
        apparatus_dew_point_c: [°C]; NaN where the coil is dry or idle.
        total_j_kg: h entering - h leaving, the condensate's heat included [J/kg].
        sensible_j_kg: h(T entering, w leaving) - h leaving [J/kg].
        condensate_kg_kg: moisture taken out [kg/kg].
        condensate_j_kg: heat that leaves with the condensate, at the leaving temperature [J/kg].
    """

    leaving_c: Array
    leaving_w: Array
    apparatus_dew_point_c: Array
    total_j_kg: Array
    sensible_j_kg: Array
    condensate_kg_kg: Array
    condensate_j_kg: Array


def _leaving(dew_point_c: Array, w_adp: Array, h_in: Array, w_in: Array, bypass: float) -> tuple[Array, Array]:
    """State off a coil whose apparatus is at a dew point, where saturated air holds `w_adp`."""
    h_adp = enthalpy_j_kg(dew_point_c, w_adp)
    w = w_adp + bypass * (w_in - w_adp)
    return dry_bulb_from_enthalpy_c(h_adp + bypass * (h_in - h_adp), w), w


def _state(t_in: Array, w_in: Array, t_out: Array, w_out: Array, dew_point_c: Array) -> CoilState:
    h_out = enthalpy_j_kg(t_out, w_out)
    removed = w_in - w_out
    return CoilState(
        leaving_c=t_out,
        leaving_w=w_out,
        apparatus_dew_point_c=dew_point_c,
        total_j_kg=enthalpy_j_kg(t_in, w_in) - h_out,
        sensible_j_kg=enthalpy_j_kg(t_in, w_out) - h_out,
        condensate_kg_kg=removed,
        condensate_j_kg=removed * CP_WATER * t_out,
    )


def coil_at_dew_point(
    entering_c: ArrayLike, entering_w: ArrayLike, dew_point_c: ArrayLike, bypass: float, pressure_pa: float
) -> CoilState:
    """A wet coil at a given apparatus dew point: (leaving - ADP)/(entering - ADP) = bypass, for h and w."""
    t, w, adp = (np.asarray(value, dtype=float) for value in (entering_c, entering_w, dew_point_c))
    t_out, w_out = _leaving(adp, saturation_humidity_ratio(adp, pressure_pa), enthalpy_j_kg(t, w), w, bypass)
    return _state(t, w, t_out, w_out, adp)


def coil_to_temperature(
    entering_c: ArrayLike,
    entering_w: ArrayLike,
    leaving_c: ArrayLike,
    bypass: float,
    pressure_pa: float,
    coldest_c: float | None = None,
) -> CoilState:
    """A coil controlled to a leaving temperature: the apparatus dew point follows.

    Idle where the air is already cold enough; dry where the apparatus is above the air's dew point. Where the apparatus would
    have to be below `coldest_c` it stays there, and the air leaves as warm as that makes it.
    """
    t, w, target = np.broadcast_arrays(
        np.asarray(entering_c, dtype=float), np.asarray(entering_w, dtype=float), np.asarray(leaving_c, dtype=float)
    )
    active = t > target + _IDLE_K
    h_in = enthalpy_j_kg(t, w)
    adp = np.where(active, (target - bypass * t) / (1.0 - bypass), target)
    for _ in range(_ROUNDS):
        w_adp = saturation_humidity_ratio(adp, pressure_pa)
        reached, w_wet = _leaving(adp, w_adp, h_in, w, bypass)
        off = np.where(active, reached - target, 0.0)
        if not np.abs(off).max(initial=0.0) > _REACHED_K:
            break
        adp = adp - off / (1.0 - bypass)
    wet = active & (w_adp < w)
    w_out = np.where(wet, w_wet, w)
    t_out = np.where(active, target, t)
    if coldest_c is not None:
        apparatus = np.where(wet, adp, (target - bypass * t) / (1.0 - bypass))
        held = active & (apparatus < coldest_c)
        if held.any():
            w_least = float(saturation_humidity_ratio(coldest_c, pressure_pa))
            wet_c, wet_w = _leaving(np.full_like(t, coldest_c), np.full_like(t, w_least), h_in, w, bypass)
            wet = np.where(held, (w_least < w) & (coldest_c < t), wet)
            # Air that is colder than the coil passes as it is.
            dry_c = np.minimum(coldest_c + bypass * (t - coldest_c), t)
            t_out = np.where(held, np.where(wet, wet_c, dry_c), t_out)
            w_out = np.where(held, np.where(wet, wet_w, w), w_out)
            adp = np.where(held, coldest_c, adp)
    return _state(t, w, t_out, w_out, np.where(wet, adp, np.nan))
