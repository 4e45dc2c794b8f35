"""A year of twelve typical days made from the design data, where there is no file of hours.

A design day is warmer and clearer than its month. How much warmer is not in the design data; the gap between the
coldest month's design day and the winter design temperature brackets that month, and its middle is taken for it. All
months are colder than their design days by the same. Half of the days are taken to be clear and half overcast, with a
quarter of the clear day's light. It is a first idea of the year and no more; each day of a month is the same.

Source: overcast light by Kasten and Czeplak (1980), G/G0 = 1 - 0.75 N^3.4 with N = 1; the rest as told above.
"""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.atmosphere import site_pressure_pa
from pendrum_core.climate.design_day import dry_bulb_c, humidity_ratio
from pendrum_core.model.climate import Climate
from pendrum_core.moist_air import dew_point_c, saturation_pressure_pa
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.sun.irradiance import clear_sky
from pendrum_core.sun.position import sun_position
from pendrum_core.weather.year import WeatherYear

Array = NDArray[np.float64]
NAME = "twelve typical days made from the design data"
OVERCAST = 0.25  # of the clear day's light on the horizontal
_WIND_M_S = 3.0
_DRIEST = 1e-5  # kg/kg
_YEAR = 2023  # any that is no leap year: weekdays are those of the project's year


def colder_k(climate: Climate) -> float:
    """How far a month's typical day is below its design day [K]: half of the way from the coldest month's design day, in its mean,
    to the winter design temperature; never below nought.

    Source: module.
    """
    means = _courses_c(climate).mean(axis=1)
    return max(0.0, (float(means.min()) - climate.winter_dry_bulb_c) / 2.0)


def _months(climate: Climate) -> Climate:
    """The climate without its dehumidification day."""
    return replace(climate, months=tuple(month for month in climate.months if month.dew_point_c is None))


def _courses_c(climate: Climate) -> Array:
    months = _months(climate).months
    tops, ranges = (np.array([getattr(m, name) for m in months], dtype=float) for name in ("dry_bulb_c", "range_k"))
    return dry_bulb_c(tops, ranges, climate.profile)


def typical_year(climate: Climate) -> WeatherYear:
    """8,760 hours [°C, Pa, W/m2] of twelve days, each repeated through its month.

    Raises:
        ValueError: the climate has no design day for every month.
    """
    site, months = climate.site, _months(climate).months
    if [month.month for month in months] != list(range(1, 13)):
        raise ValueError("typical days need a design day of every month, January to December")
    pressure, course = site_pressure_pa(site.elevation_m), _courses_c(climate)
    tops, wet = (np.array([getattr(m, name) for m in months]) for name in ("dry_bulb_c", "wet_bulb_c"))
    moisture = humidity_ratio(tops, wet, np.full(12, np.nan), course, pressure)
    colder = colder_k(climate)
    dry = course - colder
    dew = dew_point_c(np.maximum(moisture, _DRIEST), pressure) - colder
    relative = np.minimum(saturation_pressure_pa(dew) / saturation_pressure_pa(dry), 1.0)
    sun = sun_position(site.latitude_deg, site.longitude_deg, site.utc_offset_h, tuple(range(1, 13)))
    sky = clear_sky(sun, *(np.array([getattr(m, name) for m in months]) for name in ("tau_b", "tau_d")))
    up = sky.beam_normal * np.maximum(0.0, np.sin(np.radians(sun.elevation_deg)))
    clear = up + sky.diffuse_horizontal
    diffuse = 0.5 * sky.diffuse_horizontal + 0.5 * OVERCAST * clear
    days = np.repeat(np.arange(12), [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31])

    def hours(steps: Array) -> Array:
        return np.asarray(steps.reshape(12, 24, STEPS_PER_DAY // 24).mean(axis=2)[days].ravel())

    return WeatherYear(
        year=_YEAR,
        latitude_deg=site.latitude_deg,
        longitude_deg=site.longitude_deg,
        utc_offset_h=site.utc_offset_h,
        elevation_m=site.elevation_m,
        dry_bulb_c=hours(dry),
        relative_humidity=np.clip(hours(relative), 0.01, 1.0),
        pressure_pa=np.full(8760, pressure),
        wind_m_s=np.full(8760, _WIND_M_S),
        global_w_m2=hours(0.5 * up + diffuse),
        beam_w_m2=hours(0.5 * sky.beam_normal),
        diffuse_w_m2=hours(diffuse),
        notes=(f"{NAME}: {colder:.1f} K below the design days, half clear and half overcast",),
    )
