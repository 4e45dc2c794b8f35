"""Moist air as a mixture of ideal gases. Source: ASHRAE Handbook Fundamentals 2017, ch. 1.

Symbols: T dry-bulb [°C], w humidity ratio [kg/kg dry air], h enthalpy [J/kg dry air], p pressure [Pa].
Every function works on arrays of any shape and broadcasts.
"""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from pendrum_core.quantities.constants import CP_DRY_AIR, CP_VAPOUR, H_VAPORISATION_0C, KELVIN, R_DRY_AIR

Array = NDArray[np.float64]
MASS_RATIO = 0.621945

_ICE = (-5.6745359e3, 6.3925247, -9.6778430e-3, 6.2215701e-7, 2.0747825e-9, -9.4840240e-13, 4.1635019)
_WATER = (-5.8002206e3, 1.3914993, -4.8640239e-2, 4.1764768e-5, -1.4452093e-8, 6.5459673)


def saturation_pressure_pa(temperature_c: ArrayLike) -> Array:
    """Saturation pressure of water vapour [Pa] over ice below 0.01 °C and over water above (eqs. 5, 6)."""
    t = np.asarray(temperature_c, dtype=float) + KELVIN
    log = np.log(t)
    exponent = _WATER[0] / t + _WATER[1] + t * (_WATER[2] + t * (_WATER[3] + t * _WATER[4])) + _WATER[5] * log
    frozen = t < 273.16
    if frozen.any():
        ice = _ICE[0] / t + _ICE[1] + t * (_ICE[2] + t * (_ICE[3] + t * (_ICE[4] + t * _ICE[5]))) + _ICE[6] * log
        exponent = np.where(frozen, ice, exponent)
    return np.asarray(np.exp(exponent))


def saturation_humidity_ratio(temperature_c: ArrayLike, pressure_pa: float) -> Array:
    """Humidity ratio of saturated air [kg/kg] (eq. 21)."""
    vapour = saturation_pressure_pa(temperature_c)
    return np.asarray(MASS_RATIO * vapour / (pressure_pa - vapour))


def humidity_ratio_from_relative(temperature_c: ArrayLike, relative: ArrayLike, pressure_pa: float) -> Array:
    """Humidity ratio [kg/kg] from relative humidity [-] (eqs. 20, 22)."""
    vapour = saturation_pressure_pa(temperature_c) * np.asarray(relative, dtype=float)
    return np.asarray(MASS_RATIO * vapour / (pressure_pa - vapour))


def relative_humidity(temperature_c: ArrayLike, w: ArrayLike, pressure_pa: float) -> Array:
    """Relative humidity [-] (eqs. 12, 20)."""
    ratio = np.asarray(w, dtype=float)
    vapour = pressure_pa * ratio / (MASS_RATIO + ratio)
    return np.asarray(vapour / saturation_pressure_pa(temperature_c))


def enthalpy_j_kg(temperature_c: ArrayLike, w: ArrayLike) -> Array:
    """Enthalpy h = 1006 T + w (2 501 000 + 1860 T) [J/kg dry air] (eq. 30)."""
    t = np.asarray(temperature_c, dtype=float)
    return np.asarray(CP_DRY_AIR * t + np.asarray(w) * (H_VAPORISATION_0C + CP_VAPOUR * t))


def dry_bulb_from_enthalpy_c(h: ArrayLike, w: ArrayLike) -> Array:
    """Dry-bulb [°C] of a state given by enthalpy and humidity ratio."""
    ratio = np.asarray(w, dtype=float)
    return np.asarray((np.asarray(h) - ratio * H_VAPORISATION_0C) / (CP_DRY_AIR + ratio * CP_VAPOUR))


def specific_heat_j_kgk(w: ArrayLike) -> Array:
    """Specific heat of moist air per kg of dry air [J/kg K]."""
    return np.asarray(CP_DRY_AIR + CP_VAPOUR * np.asarray(w, dtype=float))


def specific_volume_m3_kg(temperature_c: ArrayLike, w: ArrayLike, pressure_pa: float) -> Array:
    """Volume of moist air per kg of dry air [m3/kg] (eq. 26)."""
    t = np.asarray(temperature_c, dtype=float) + KELVIN
    return np.asarray(R_DRY_AIR * t * (1.0 + np.asarray(w) / MASS_RATIO) / pressure_pa)


def humidity_ratio_from_wet_bulb(temperature_c: ArrayLike, wet_bulb_c: ArrayLike, pressure_pa: float) -> Array:
    """Humidity ratio [kg/kg] from dry-bulb and thermodynamic wet-bulb (eqs. 33, 35)."""
    t, wb = np.asarray(temperature_c, dtype=float), np.asarray(wet_bulb_c, dtype=float)
    ws = saturation_humidity_ratio(wb, pressure_pa)
    above = ((2501 - 2.326 * wb) * ws - 1.006 * (t - wb)) / (2501 + 1.86 * t - 4.186 * wb)
    below = ((2830 - 0.24 * wb) * ws - 1.006 * (t - wb)) / (2830 + 1.86 * t - 2.1 * wb)
    return np.asarray(np.maximum(np.where(wb >= 0.0, above, below), 0.0))


def wet_bulb_c(temperature_c: ArrayLike, w: ArrayLike, pressure_pa: float) -> Array:
    """Thermodynamic wet-bulb [°C], the inverse of `humidity_ratio_from_wet_bulb`, by bisection to 1e-6 K."""
    t, ratio = np.broadcast_arrays(np.asarray(temperature_c, dtype=float), np.asarray(w, dtype=float))
    low, high = t - 60.0, t.copy()
    for _ in range(46):
        middle = 0.5 * (low + high)
        too_dry = humidity_ratio_from_wet_bulb(t, middle, pressure_pa) < ratio
        low, high = np.where(too_dry, middle, low), np.where(too_dry, high, middle)
    return np.asarray(0.5 * (low + high))


def dew_point_c(w: ArrayLike, pressure_pa: float) -> Array:
    """Dew point [°C]: where air of humidity ratio w is saturated, by bisection to 1e-6 K (-60 to 80 °C)."""
    ratio = np.asarray(w, dtype=float)
    low, high = np.full(ratio.shape, -60.0), np.full(ratio.shape, 80.0)
    for _ in range(48):
        middle = 0.5 * (low + high)
        dry = saturation_humidity_ratio(middle, pressure_pa) < ratio
        low, high = np.where(dry, middle, low), np.where(dry, high, middle)
    return np.asarray(0.5 * (low + high))
