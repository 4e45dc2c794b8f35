"""What comes from ground and wells over the year: a wave that lags the air, between the coldest and the warmest that is told.

A borehole field is not worked out here: its coldest and warmest liquid are inputs, as its design tells them.
"""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from pendrum_core.model.plant import PlantUnit

Array = NDArray[np.float64]
COLDEST_DAY = 59.0  # of the year, in the north: the end of February, some weeks after the coldest air
_DAYS = 365.0


def middle_of(month: int) -> float:
    """Day of the year in the middle of a month, 1 to 12 [d].

    Source: months of equal length.
    """
    return (month - 0.5) * _DAYS / 12.0


def warmth(day_of_year: ArrayLike, southern: bool = False) -> Array:
    """Where the year stands between the ground's coldest (0) and warmest (1) day [-].

    Args:
        day_of_year: 1 to 366, of any shape.
        southern: whether the site is south of the equator: half a year later.

    Source: annual wave in the ground (EN ISO 13370:2017, annex H: one sine a year with a lag).
    """
    coldest = COLDEST_DAY + (_DAYS / 2.0 if southern else 0.0)
    return np.asarray(0.5 - 0.5 * np.cos(2.0 * np.pi * (np.asarray(day_of_year, dtype=float) - coldest) / _DAYS))


def source_c(unit: PlantUnit, share: ArrayLike) -> Array:
    """What comes to a heat pump from its ground or well [°C], `share` of the way from its coldest to its warmest [-].

    Source: straight between both.
    """
    return np.asarray(unit.source_cold_c + np.asarray(share) * (unit.source_warm_c - unit.source_cold_c))


def extracted_w(output_w: Array, power_w: Array) -> Array:
    """Heat that a heat pump draws from its source over steps [W].

    Source: its heat balance, without what its case loses.
    """
    return np.maximum(output_w - power_w, 0.0)
