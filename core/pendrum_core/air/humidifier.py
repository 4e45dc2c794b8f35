"""Humidifiers: steam, or water that evaporates in the air.

Source: ASHRAE Handbook Fundamentals 2017, ch. 1 (moisture added to moist air): the heat balance of mixing with water
or steam.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import dry_bulb_from_enthalpy_c, enthalpy_j_kg

Array = NDArray[np.float64]
KINDS = ("none", "steam", "adiabatic")
STEAM_J_KG = 2_675_600.0  # saturated at 100 °C
WATER_C, _WATER_J_KGK = 10.0, 4190.0  # feed water


@dataclass(frozen=True)
class Humidifier:
    """Kind, one of KINDS; feed water of the adiabatic one [°C]."""

    kind: str = "none"
    water_c: float = WATER_C


def water_j_kg(unit: Humidifier) -> float:
    """Enthalpy that a kilogram of its water brings into the air [J/kg]."""
    return STEAM_J_KG if unit.kind == "steam" else _WATER_J_KGK * unit.water_c


def before_it(unit: Humidifier, leaving_c: Array, w: Array, added_w: Array) -> Array:
    """Temperature that the air must have before it so that it leaves at `leaving_c` with `added_w` more [°C]."""
    return np.asarray(dry_bulb_from_enthalpy_c(enthalpy_j_kg(leaving_c, w + added_w) - added_w * water_j_kg(unit), w))


def after_it(unit: Humidifier, t: Array, w: Array, added_w: Array) -> Array:
    """Temperature of the air behind it [°C]: h_out = h_in + dw h_water."""
    return np.asarray(dry_bulb_from_enthalpy_c(enthalpy_j_kg(t, w) + added_w * water_j_kg(unit), w + added_w))
