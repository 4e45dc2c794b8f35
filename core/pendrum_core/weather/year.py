"""A year of hourly weather.

Source: saturation pressure of moist_air.py; relative humidity by definition.
"""

from calendar import isleap
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import dew_point_c, humidity_ratio_from_relative, saturation_pressure_pa, wet_bulb_c

Array = NDArray[np.float64]


@dataclass(frozen=True)
class WeatherYear:
    """Hours 0 to 8759 or 8783 in local standard time; each value is of the hour that begins then.

    Attributes:
        year: the calendar that the hours follow; for typical years the first one.
        dry_bulb_c, relative_humidity, pressure_pa, wind_m_s: [°C], 0 to 1, [Pa], [m/s].
        global_w_m2, beam_w_m2, diffuse_w_m2: on the horizontal, normal to the sun, on the horizontal [W/m2].
        notes: what was worked out rather than read.
    """

    year: int
    latitude_deg: float
    longitude_deg: float
    utc_offset_h: float
    elevation_m: float
    dry_bulb_c: Array
    relative_humidity: Array
    pressure_pa: Array
    wind_m_s: Array
    global_w_m2: Array
    beam_w_m2: Array
    diffuse_w_m2: Array
    notes: tuple[str, ...] = ()

    @property
    def month_of(self) -> NDArray[np.int64]:
        """Month 1 to 12 of every hour."""
        days = [31, 29 if isleap(self.year) else 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
        months = np.repeat(np.arange(1, 13), np.array(days) * 24)
        # A typical year of 8760 hours may carry a leap year's number.
        return months[: len(self.dry_bulb_c)] if len(months) == len(self.dry_bulb_c) else _plain_months()

    @property
    def humidity_ratio(self) -> Array:
        """[kg/kg]."""
        pressure = float(np.mean(self.pressure_pa))
        return np.asarray(humidity_ratio_from_relative(self.dry_bulb_c, self.relative_humidity, pressure))

    @property
    def dew_point_c(self) -> Array:
        """[°C]."""
        return np.asarray(dew_point_c(np.maximum(self.humidity_ratio, 1e-5), float(np.mean(self.pressure_pa))))

    @property
    def wet_bulb_c(self) -> Array:
        """[°C]."""
        return np.asarray(wet_bulb_c(self.dry_bulb_c, self.humidity_ratio, float(np.mean(self.pressure_pa))))


def _plain_months() -> NDArray[np.int64]:
    days = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
    return np.repeat(np.arange(1, 13), np.array(days) * 24)


def relative_from_dew_point(dry_bulb_c: Array, dew_point: Array) -> Array:
    """Relative humidity of air with a dew point [-]."""
    return np.asarray(saturation_pressure_pa(dew_point) / saturation_pressure_pa(dry_bulb_c))
