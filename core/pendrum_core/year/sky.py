"""Sun and outdoor temperatures over the hours of a weather year.

A value of the file holds over the whole hour that ends at its stamp; the sun stands where it is at the middle of the hour, without
refraction. Sky diffuse on a plane by Perez et al. (1990), all-sites composite; while the sun is down at mid-hour the sky is even.
"""

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.atmosphere import dry_air_density_kg_m3, site_pressure_pa
from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import SunWindow
from pendrum_core.model.year import YearCourse
from pendrum_core.quantities.constants import CP_DRY_AIR
from pendrum_core.sun.shading import diffuse_shares, in_plane, sunlit_share
from pendrum_core.sun.skyline import horizon_deg, sky_share
from pendrum_core.weather.year import WeatherYear
from pendrum_core.year.comfort import running_mean_c

Array = NDArray[np.float64]


@dataclass(frozen=True)
class HourlyPlane:
    """What a plane receives, (hours,) [W/m2], and the cosine of the beam's incidence on it [-]."""

    cosine: Array
    beam: Array
    sky: Array
    ground: Array

    @property
    def total(self) -> Array:
        """All three."""
        return self.beam + self.sky + self.ground


@dataclass
class YearSky:
    """Outdoors over a weather year at a site; planes are worked out when first asked for."""

    weather: WeatherYear
    climate: Climate
    elevation_deg: Array
    azimuth_deg: Array
    extraterrestrial_w_m2: Array
    air_heat_j_m3k: float
    _planes: dict[tuple[float, float, float], HourlyPlane] = field(default_factory=dict)
    _suns: dict[object, tuple[Array, Array]] = field(default_factory=dict)
    _sol_airs: dict[tuple[float, float, float, float], Array] = field(default_factory=dict)

    @staticmethod
    def of(weather: WeatherYear, climate: Climate) -> "YearSky":
        """Sun positions of the file's own place; density of the site's standard air."""
        import pandas as pd  # slow to import: kept out of the start of the server
        from pvlib.solarposition import spa_python

        count = len(weather.dry_bulb_c)
        start = pd.Timestamp(year=weather.year, month=1, day=1, tz="UTC")
        middle = pd.Timedelta(minutes=30) - pd.Timedelta(hours=weather.utc_offset_h)
        sun = spa_python(
            pd.date_range(start, periods=count, freq="h") + middle, weather.latitude_deg, weather.longitude_deg
        )
        day = np.arange(count) // 24 + 1
        e0 = 1367.0 * (1.0 + 0.033 * np.cos(np.radians(360.0 * (day - 3) / 365.0)))
        density = dry_air_density_kg_m3(20.0, site_pressure_pa(weather.elevation_m))
        return YearSky(
            weather, climate, sun["elevation"].to_numpy(), sun["azimuth"].to_numpy(), e0, density * CP_DRY_AIR
        )

    @property
    def dry_bulb_c(self) -> Array:
        """[°C]."""
        return self.weather.dry_bulb_c

    @cached_property
    def running_mean_c(self) -> Array:
        """Running mean outdoor temperature by day [°C]. Source: EN 16798-1:2019, formula B.1."""
        return running_mean_c(self.weather.dry_bulb_c)

    def _reflectance(self) -> Array:
        site = self.climate.site.ground_reflectance
        own = {m.month: m.ground_reflectance for m in self.climate.months if m.dew_point_c is None}
        by_month = np.array(
            [site] + [site if own.get(month) is None else own[month] for month in range(1, 13)], dtype=float
        )
        return np.asarray(by_month[self.weather.month_of])

    def plane(self, tilt_deg: float, azimuth_deg: float, eye_m: float = 0.0) -> HourlyPlane:
        """Irradiance on a plane, behind the site's skyline seen from a height; what it hides of the sky gives ground light back."""
        key = (tilt_deg, azimuth_deg, eye_m if self.climate.site.skyline else 0.0)
        if key not in self._planes:
            self._planes[key] = self._plane(*key)
        return self._planes[key]

    def _plane(self, tilt_deg: float, azimuth_deg: float, eye_m: float) -> HourlyPlane:
        from pvlib.irradiance import perez

        w, site = self.weather, self.climate.site
        e, tilt = np.radians(self.elevation_deg), np.radians(tilt_deg)
        turned = np.radians(self.azimuth_deg - azimuth_deg)
        cosine = np.cos(e) * np.cos(turned) * np.sin(tilt) + np.sin(e) * np.cos(tilt)
        up = self.elevation_deg > 0.0
        beam = np.where(up, w.beam_w_m2 * np.maximum(cosine, 0.0), 0.0)
        view = (1.0 + np.cos(tilt)) / 2.0
        zenith = 90.0 - self.elevation_deg
        high = np.maximum(self.elevation_deg, 0.0)
        mass = 1.0 / (np.sin(np.radians(high)) + 0.50572 * (6.07995 + high) ** -1.6364)
        bright = perez(
            tilt_deg,
            azimuth_deg,
            w.diffuse_w_m2,
            dni=w.beam_w_m2,
            dni_extra=self.extraterrestrial_w_m2,
            solar_zenith=zenith,
            solar_azimuth=self.azimuth_deg,
            airmass=mass,
            model="allsitescomposite1990",
        )
        sky = np.where(up & np.isfinite(bright), np.nan_to_num(bright), w.diffuse_w_m2 * view)
        reflectance = self._reflectance()
        ground = w.global_w_m2 * reflectance * (1.0 - np.cos(tilt)) / 2.0
        if site.skyline:
            free = self.elevation_deg > horizon_deg(site.skyline, self.azimuth_deg, eye_m)
            share = sky_share(site.skyline, tilt_deg, azimuth_deg, eye_m)
            ground = ground + w.global_w_m2 * reflectance * view * (1.0 - share)
            beam, sky = beam * free, sky * share
        return HourlyPlane(cosine, beam, sky, ground)

    def sol_air_c(self, tilt_deg: float, azimuth_deg: float, absorptance: float, eye_m: float) -> Array:
        """To + (alpha I - F_sky h_re 11 K)/(h_ce + h_re) [°C]; one array for all faces that are alike."""
        key = (tilt_deg, azimuth_deg, absorptance, eye_m if self.climate.site.skyline else 0.0)
        if key not in self._sol_airs:
            self._sol_airs[key] = self._sol_air_c(*key)
        return self._sol_airs[key]

    def _sol_air_c(self, tilt_deg: float, azimuth_deg: float, absorptance: float, eye_m: float) -> Array:
        c = self.climate.coefficients
        view = (1.0 + np.cos(np.radians(tilt_deg))) / 2.0
        total = self.plane(tilt_deg, azimuth_deg, eye_m).total if absorptance else 0.0
        pull = view * c.radiation_outside * c.sky_depression_k
        return np.asarray(self.dry_bulb_c + (absorptance * total - pull) / c.outside)

    def window_sun(self, window: SunWindow, drawn_course: YearCourse | None = None) -> tuple[Array, Array]:
        """Sun through a window per A (1 - frame) g, onto the faces and straight to the air, (hours,) [W/m2]."""
        key = (window.sun_key, drawn_course)
        if key not in self._suns:
            self._suns[key] = self._window_sun(window, drawn_course)
        return self._suns[key]

    def _window_sun(self, window: SunWindow, drawn_course: YearCourse | None) -> tuple[Array, Array]:
        plane = self.plane(window.tilt_deg, window.azimuth_deg, window.eye_m)
        beam, sky, ground = plane.beam, plane.sky, plane.ground
        if window.shading is not None:
            size = (window.shading, window.width_m, window.height_m)
            up = self.elevation_deg > 0.0
            lit = np.zeros_like(beam)
            lit[up] = sunlit_share(
                *size, in_plane(self.elevation_deg[up], self.azimuth_deg[up], window.tilt_deg, window.azimuth_deg)
            )
            of_sky, of_ground = diffuse_shares(*size, window.tilt_deg)
            beam, sky, ground = beam * lit, sky * of_sky, ground * of_ground
        curve = window.glazing.angular
        through = curve.at(plane.cosine) * beam + curve.hemispherical * (sky + ground)
        plain, blind = self.climate.coefficients.solar_share_to_air, window.blind
        if blind is None:
            return through * (1.0 - plain), through * plain
        drawn = np.ones_like(through)
        if blind.rule == "irradiance":
            drawn = (beam + sky + ground > blind.threshold_w_m2).astype(float)
        elif blind.rule == "schedule" and drawn_course is not None:
            drawn = drawn_course.hours()[: len(through)]
        bare, behind = through * (1.0 - drawn), through * drawn * blind.solar_factor
        to_air = bare * plain + behind * blind.air_share
        return bare + behind - to_air, to_air
