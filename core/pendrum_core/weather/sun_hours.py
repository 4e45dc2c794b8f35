"""Sun over the hours of a weather year, and the splitting of global irradiance.

Source: NREL solar position algorithm, Reda and Andreas (2004); splitting as each function says.
"""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def sun_at_hours(year: int, count: int, latitude: float, longitude: float, utc_offset_h: float) -> tuple[Array, Array]:
    """True elevation [deg] at the middle of every hour, and extraterrestrial normal irradiance [W/m2]."""
    import pandas as pd  # slow to import: kept out of the start of the server
    from pvlib.solarposition import spa_python

    start = pd.Timestamp(year=year, month=1, day=1, tz="UTC")
    at = pd.date_range(start, periods=count, freq="h") + pd.Timedelta(minutes=30) - pd.Timedelta(hours=utc_offset_h)
    sun = spa_python(at, latitude, longitude)
    day = np.arange(count) // 24 + 1
    extraterrestrial = 1367.0 * (1.0 + 0.033 * np.cos(np.radians(360.0 * (day - 3) / 365.0)))
    return sun["elevation"].to_numpy(), extraterrestrial


def split_global(global_w_m2: Array, elevation_deg: Array, year: int) -> tuple[Array, Array]:
    """Beam normal and diffuse horizontal from global irradiance, by Erbs, Klein and Duffie (1982) [W/m2]."""
    import pandas as pd
    from pvlib.irradiance import erbs

    hours = pd.date_range(pd.Timestamp(year=year, month=1, day=1), periods=len(global_w_m2), freq="h")
    parts = erbs(global_w_m2, 90.0 - elevation_deg, hours)
    return np.nan_to_num(np.asarray(parts["dni"])), np.nan_to_num(np.asarray(parts["dhi"]))
