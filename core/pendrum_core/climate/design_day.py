"""Hourly course of a summer design day.

Source: ASHRAE Handbook Fundamentals 2017, ch. 14 (daily course from maximum and range).
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import humidity_ratio_from_wet_bulb, saturation_humidity_ratio
from pendrum_core.quantities.constants import STEPS_PER_DAY

Array = NDArray[np.float64]

# Share of the daily range below the maximum at hours 1..24.
# Source: ASHRAE Handbook Fundamentals 2017, ch. 14, table 6.
HANDBOOK_PROFILE = (
    0.88,
    0.92,
    0.95,
    0.98,
    1.00,
    0.98,
    0.91,
    0.74,
    0.55,
    0.38,
    0.23,
    0.13,
    0.05,
    0.00,
    0.00,
    0.06,
    0.14,
    0.24,
    0.39,
    0.50,
    0.59,
    0.68,
    0.75,
    0.82,
)


@lru_cache(maxsize=8)
def _mid_step_hours() -> Array:
    return (np.arange(STEPS_PER_DAY) + 0.5) * 24.0 / STEPS_PER_DAY


def mid_step_hours() -> Array:
    """Local standard time at the middle of each step [h], shape (144,)."""
    return _mid_step_hours().copy()


def range_fraction(profile: str = "handbook") -> Array:
    """Share f of the daily range by which the air is below its maximum, shape (144,) [-].

    "handbook": the published 24 values, straight lines between the full hours.
    "sinusoid": f = (1 - cos(2 pi (t - 15)/24))/2, its maximum temperature at 15:00.

    Raises:
        ValueError: unknown profile.
    """
    hours = _mid_step_hours()
    if profile == "handbook":
        at = np.arange(0, 25)
        values = np.array([HANDBOOK_PROFILE[-1], *HANDBOOK_PROFILE])
        return np.asarray(np.interp(hours, at, values))
    if profile == "sinusoid":
        return np.asarray((1.0 - np.cos(2 * np.pi * (hours - 15.0) / 24.0)) / 2.0)
    raise ValueError(f"profile {profile!r} is neither 'handbook' nor 'sinusoid'")


def dry_bulb_c(maximum_c: Array, range_k: Array, profile: str = "handbook") -> Array:
    """Dry-bulb temperature T = Tmax - f range [°C], shape (months, 144)."""
    return np.asarray(maximum_c[:, None] - range_fraction(profile)[None, :] * range_k[:, None])


def humidity_ratio(
    maximum_c: Array, wet_bulb_c: Array, dew_point_c: Array, course_c: Array, pressure_pa: float
) -> Array:
    """Humidity ratio of the day [kg/kg], shape (months, 144).

    Constant from the maximum dry-bulb and its coincident wet-bulb, or from the dew point where that is a number
    (NaN elsewhere), held to saturation at each step.
    """
    constant = np.array(humidity_ratio_from_wet_bulb(maximum_c, wet_bulb_c, pressure_pa))
    given = ~np.isnan(dew_point_c)
    constant[given] = saturation_humidity_ratio(dew_point_c[given], pressure_pa)
    return np.minimum(constant[:, None], saturation_humidity_ratio(course_c, pressure_pa))
