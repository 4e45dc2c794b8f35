"""Design conditions from a year of hours. Statistics after ASHRAE Handbook Fundamentals 2017, ch. 14.

One year stands for many here: the rare percentiles rest on few hours, which is said beside them.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.weather.sun_hours import sun_at_hours
from pendrum_core.weather.year import WeatherYear

Array = NDArray[np.float64]
NEAR_K = 0.5
COOLING_PERCENT = (0.4, 1.0, 2.0)
HEATING_PERCENT = (99.6, 99.0)


@dataclass(frozen=True)
class DerivedMonth:
    """Conditions of a month: dry-bulb exceeded by `percent` of its hours, mean coincident wet-bulb, mean daily range
    of the days that reach the 5 % dry-bulb, optical depths fitted to its clearest days (None where it has no sun)."""

    month: int
    dry_bulb_c: float
    wet_bulb_c: float
    range_k: float
    tau_b: float | None
    tau_d: float | None


@dataclass(frozen=True)
class DerivedConditions:
    """Everything a weather year tells about design.

    Attributes:
        percent: of the summer months.
        heating_c: dry-bulb that 99.6 and 99 % of the year's hours exceed [°C].
        winter_wind_m_s: mean wind of the hours near the 99.6 % dry-bulb.
        dew_point_c, dew_dry_bulb_c, dew_month: dehumidification, 0.4 % of the year, mean coincident dry-bulb.
        monthly_mean_c: mean air temperature by month.
    """

    percent: float
    months: tuple[DerivedMonth, ...]
    heating_c: tuple[float, float]
    winter_wind_m_s: float
    dew_point_c: float
    dew_dry_bulb_c: float
    dew_month: int
    monthly_mean_c: tuple[float, ...]

    @property
    def mean_c(self) -> float:
        """Mean of the year [°C]."""
        return float(np.mean(self.monthly_mean_c))

    @property
    def amplitude_k(self) -> float:
        """Half of the swing of the monthly means [K]."""
        return (max(self.monthly_mean_c) - min(self.monthly_mean_c)) / 2.0

    @property
    def coldest_month(self) -> int:
        """1 to 12."""
        return int(np.argmin(self.monthly_mean_c)) + 1


def coincident(values: Array, of: Array, at: float) -> float:
    """Mean of `values` [as given] in the hours in which `of` is within half a kelvin of a design value, or in the nearest five."""
    off = np.abs(of - at)
    near = off <= max(NEAR_K, float(np.sort(off)[4]))
    return float(values[near].mean())


def clear_sky_depths(beam: Array, diffuse: Array, elevation_deg: Array, extraterrestrial: Array) -> tuple[float, float]:
    """Optical depths [-] that give back beam and diffuse on the horizontal of some clear hours, by their median.

    The clear-sky model of sun/irradiance.py solved for tau_b and tau_d, hour by hour.
    """
    mass = 1.0 / (np.sin(np.radians(elevation_deg)) + 0.50572 * (6.07995 + elevation_deg) ** -1.6364)
    tb, td = np.full_like(mass, 0.4), np.full_like(mass, 2.2)
    deep_b, deep_d = -np.log(beam / extraterrestrial), -np.log(diffuse / extraterrestrial)
    for _ in range(60):
        ab = 1.454 - 0.406 * tb - 0.268 * td + 0.021 * tb * td
        ad = 0.507 + 0.205 * tb - 0.080 * td - 0.190 * tb * td
        tb = (tb + np.clip(deep_b / mass**ab, 0.05, 2.0)) / 2.0
        td = (td + np.clip(deep_d / mass**ad, 0.5, 4.0)) / 2.0
    return float(np.median(tb)), float(np.median(td))


def _depths(year: WeatherYear, month: int, elevation: Array, e0: Array) -> tuple[float | None, float | None]:
    inside = year.month_of == month
    days = np.arange(len(inside)) // 24
    sums = np.bincount(days, weights=year.beam_w_m2 * inside)
    clearest = np.argsort(sums)[-3:]
    hours = inside & np.isin(days, clearest) & (elevation > 15.0) & (year.beam_w_m2 > 200.0) & (year.diffuse_w_m2 > 5.0)
    if hours.sum() < 3:
        return None, None
    return clear_sky_depths(year.beam_w_m2[hours], year.diffuse_w_m2[hours], elevation[hours], e0[hours])


def derive_conditions(year: WeatherYear, percent: float = 0.4) -> DerivedConditions:
    """Design conditions of a weather year; `percent` of the hours of each month are warmer than its dry-bulb."""
    month_of, dry = year.month_of, year.dry_bulb_c
    wet, dew = year.wet_bulb_c, year.dew_point_c
    elevation, e0 = sun_at_hours(year.year, len(dry), year.latitude_deg, year.longitude_deg, year.utc_offset_h)
    months = []
    for month in range(1, 13):
        inside = month_of == month
        of_days = dry[inside].reshape(-1, 24)
        design = float(np.quantile(dry[inside], 1.0 - percent / 100.0))
        warm = of_days.max(axis=1) >= np.quantile(dry[inside], 0.95)
        spread = of_days.max(axis=1) - of_days.min(axis=1)
        tau_b, tau_d = _depths(year, month, elevation, e0)
        months.append(
            DerivedMonth(
                month,
                design,
                min(design, coincident(wet[inside], dry[inside], design)),
                float(spread[warm].mean()),
                tau_b,
                tau_d,
            )
        )
    heating = tuple(float(np.quantile(dry, 1.0 - p / 100.0)) for p in HEATING_PERCENT)
    dew_design = float(np.quantile(dew, 0.996))
    dewy = np.abs(dew - dew_design) <= NEAR_K
    return DerivedConditions(
        percent=percent,
        months=tuple(months),
        heating_c=(heating[0], heating[1]),
        winter_wind_m_s=coincident(year.wind_m_s, dry, heating[0]),
        dew_point_c=dew_design,
        dew_dry_bulb_c=coincident(dry, dew, dew_design),
        dew_month=int(np.bincount(month_of[dewy], minlength=13).argmax()),
        monthly_mean_c=tuple(float(dry[month_of == month].mean()) for month in range(1, 13)),
    )
