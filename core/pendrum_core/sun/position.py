"""Sun position on the 21st of each month, from the pvlib library."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.design_day import mid_step_hours

Array = NDArray[np.float64]
DESIGN_YEAR = 2023  # a year without a leap day, so that the 21st is the same day of the year for all months
_DAYS_BEFORE_MONTH = (0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334)


@dataclass(frozen=True)
class SunPosition:
    """Sun at instants of design days.

    Attributes:
        elevation_deg: true elevation without refraction, shape (months, instants) [deg].
        azimuth_deg: clockwise from true north, same shape [deg].
        extraterrestrial_w_m2: normal irradiance outside the atmosphere, shape (months,) [W/m2].
    """

    elevation_deg: Array
    azimuth_deg: Array
    extraterrestrial_w_m2: Array


def day_of_year(month: int, day: int = 21) -> int:
    """Day number of a date in a year without a leap day (1 = 1 January)."""
    return _DAYS_BEFORE_MONTH[month - 1] + day


@lru_cache(maxsize=32)
def sun_position(
    latitude_deg: float,
    longitude_deg: float,
    utc_offset_h: float,
    months: tuple[int, ...] = tuple(range(1, 13)),
    hours: tuple[float, ...] | None = None,
) -> SunPosition:
    """Position of the sun on the 21st of `months` at local standard `hours` (mid-step by default).

    Elevation and azimuth by the NREL algorithm (pvlib `spa_python`, true zenith).
    E0 = 1367 (1 + 0.033 cos(360° (n - 3)/365)); ASHRAE Handbook Fundamentals 2017, ch. 14, eq. 4.
    """
    import pandas as pd  # slow to import: kept out of the start of the server
    from pvlib.solarposition import spa_python

    at = np.array(hours) if hours is not None else mid_step_hours()
    starts = pd.DatetimeIndex([pd.Timestamp(DESIGN_YEAR, month, 21) for month in months])
    utc = (starts.to_numpy()[:, None] + ((at - utc_offset_h) * 3.6e12).astype("timedelta64[ns]")[None, :]).ravel()
    sun = spa_python(pd.DatetimeIndex(utc, tz="UTC"), latitude_deg, longitude_deg)
    shape = (len(months), len(at))
    n = np.array([day_of_year(month) for month in months])
    return SunPosition(
        elevation_deg=sun["elevation"].to_numpy().reshape(shape),
        azimuth_deg=sun["azimuth"].to_numpy().reshape(shape),
        extraterrestrial_w_m2=1367.0 * (1.0 + 0.033 * np.cos(np.radians(360.0 * (n - 3) / 365.0))),
    )
