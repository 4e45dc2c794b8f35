"""What the outdoors does to each kind of surface on every design day: computed once per climate."""

from dataclasses import dataclass, field
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.atmosphere import dry_air_density_kg_m3, site_pressure_pa
from pendrum_core.climate.design_day import dry_bulb_c, humidity_ratio
from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import SunWindow
from pendrum_core.quantities.constants import CP_DRY_AIR
from pendrum_core.room.balance.harmonics import to_harmonics
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.sun.irradiance import ClearSky, PlaneIrradiance, clear_sky, on_plane
from pendrum_core.sun.position import SunPosition, sun_position
from pendrum_core.sun.shading import Shading, diffuse_shares, in_plane, sunlit_share
from pendrum_core.sun.skyline import horizon_deg, sky_share

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


@dataclass(frozen=True, eq=False)
class WindowSun:
    """Sun through a window per A (1 - frame) g, (months, 144) [W/m2]: onto the faces, and straight to the air."""

    radiant_w_m2: Array
    convective_w_m2: Array

    @cached_property
    def harmonics(self) -> Complex:
        """Of what falls onto the faces, (months, 73)."""
        return to_harmonics(self.radiant_w_m2)


def sky_view(tilt_deg: float) -> float:
    """Share of the sky in the view of a plane, (1 + cos tilt)/2 [-]."""
    return float((1.0 + np.cos(np.radians(tilt_deg))) / 2.0)


@dataclass
class Outdoors:
    """Design-day courses of a climate, arrays of shape (months, 144); planes are worked out when first asked for."""

    climate: Climate
    pressure_pa: float
    air_heat_j_m3k: float
    dry_bulb_c: Array
    humidity_ratio: Array
    sun: SunPosition
    sky: ClearSky
    _planes: dict[tuple[float, float, float], PlaneIrradiance] = field(default_factory=dict)
    _sol_air: dict[tuple[float, float, float, float], Complex] = field(default_factory=dict)
    _sun: dict[tuple[object, ...], WindowSun] = field(default_factory=dict)

    def plane(self, tilt_deg: float, azimuth_deg: float, eye_m: float = 0.0) -> PlaneIrradiance:
        """Irradiance on a plane, behind the site's skyline seen from a height.

        What the skyline hides of the sky gives back the ground-reflected light instead.
        """
        key = (tilt_deg, azimuth_deg, eye_m if self.climate.site.skyline else 0.0)
        if key not in self._planes:
            self._planes[key] = self._plane(*key)
        return self._planes[key]

    def _plane(self, tilt_deg: float, azimuth_deg: float, eye_m: float) -> PlaneIrradiance:
        site = self.climate.site
        own = [month.ground_reflectance for month in self.climate.months]
        reflectance = np.array([[site.ground_reflectance if r is None else r] for r in own])
        open_site = on_plane(self.sun, self.sky, tilt_deg, azimuth_deg, reflectance)
        if not site.skyline:
            return open_site
        free = self.sun.elevation_deg > horizon_deg(site.skyline, self.sun.azimuth_deg, eye_m)
        share = sky_share(site.skyline, tilt_deg, azimuth_deg, eye_m)
        up = self.sky.beam_normal * np.maximum(0.0, np.sin(np.radians(self.sun.elevation_deg)))
        given_back = (up * free + self.sky.diffuse_horizontal) * reflectance * sky_view(tilt_deg) * (1.0 - share)
        return PlaneIrradiance(
            incidence_cosine=open_site.incidence_cosine,
            beam=open_site.beam * free,
            sky_diffuse=open_site.sky_diffuse * share,
            ground_reflected=open_site.ground_reflected + given_back,
        )

    def sky_loss_k(self, tilt_deg: float) -> float:
        """How far the sky pulls the sol-air temperature down [K]."""
        c = self.climate.coefficients
        return sky_view(tilt_deg) * c.radiation_outside * c.sky_depression_k / c.outside

    def sol_air_c(self, tilt_deg: float, azimuth_deg: float, absorptance: float, eye_m: float = 0.0) -> Array:
        """Tsa = To + (alpha I - F_sky h_re 11 K)/(h_ce + h_re) [°C], shape (months, 144)."""
        irradiance = self.plane(tilt_deg, azimuth_deg, eye_m).total
        gain = absorptance * irradiance / self.climate.coefficients.outside
        return np.asarray(self.dry_bulb_c + gain - self.sky_loss_k(tilt_deg))

    def sol_air_harmonics(self, tilt_deg: float, azimuth_deg: float, absorptance: float, eye_m: float) -> Complex:
        """Harmonics of the sol-air temperature, shape (months, 73)."""
        key = (tilt_deg, azimuth_deg, absorptance, eye_m)
        if key not in self._sol_air:
            self._sol_air[key] = to_harmonics(self.sol_air_c(*key))
        return self._sol_air[key]

    def lit_share(self, window: SunWindow) -> Array:
        """Share of a window that the sun reaches past its own shading, (months, 144) [-]."""
        if window.shading is None:
            return np.ones_like(self.sun.elevation_deg)
        site, months = self.climate.site, tuple(month.month for month in self.climate.months)
        return _lit_share(
            (site.latitude_deg, site.longitude_deg, site.utc_offset_h, months),
            window.shading,
            window.width_m,
            window.height_m,
            window.tilt_deg,
            window.azimuth_deg,
        )

    def window_sun(self, window: SunWindow) -> WindowSun:
        """Sun through a window.

        f(incidence) lit beam + f_hemispherical (sky + ground) past the shading, times the blind's factor while drawn.
        """
        key = window.sun_key
        if key not in self._sun:
            self._sun[key] = self._window_sun(window)
        return self._sun[key]

    def _window_sun(self, window: SunWindow) -> WindowSun:
        plane = self.plane(window.tilt_deg, window.azimuth_deg, window.eye_m)
        curve = window.glazing.angular
        beam, diffuse = plane.beam, plane.sky_diffuse + plane.ground_reflected
        if window.shading is not None:
            size = (window.shading, window.width_m, window.height_m, window.tilt_deg)
            sky, ground = diffuse_shares(*size)
            beam = beam * self.lit_share(window)
            diffuse = plane.sky_diffuse * sky + plane.ground_reflected * ground
        through = curve.at(plane.incidence_cosine) * beam + curve.hemispherical * diffuse
        plain, blind = self.climate.coefficients.solar_share_to_air, window.blind
        if blind is None:
            return WindowSun(through * (1.0 - plain), through * plain)
        drawn = np.ones_like(through)
        if blind.rule == "irradiance":
            drawn = (beam + diffuse > blind.threshold_w_m2).astype(float)
        elif blind.rule == "schedule":
            drawn = np.stack([step_averages(blind.patterns[month.month - 1]) for month in self.climate.months])
        bare, behind = through * (1.0 - drawn), through * drawn * blind.solar_factor
        to_air = bare * plain + behind * blind.air_share
        return WindowSun(bare + behind - to_air, to_air)


@lru_cache(maxsize=1024)
def _lit_share(
    sun_key: tuple[float, float, float, tuple[int, ...]],
    shading: Shading,
    width_m: float,
    height_m: float,
    tilt_deg: float,
    azimuth_deg: float,
) -> Array:
    """Kept apart from a climate: shadows do not change with its temperatures."""
    sun = sun_position(*sun_key)
    lit = np.zeros_like(sun.elevation_deg)
    up = sun.elevation_deg > 0.0
    toward = in_plane(sun.elevation_deg[up], sun.azimuth_deg[up], tilt_deg, azimuth_deg)
    lit[up] = sunlit_share(shading, width_m, height_m, toward)
    return lit


@lru_cache(maxsize=16)
def outdoors(climate: Climate) -> Outdoors:
    """Work out the design days of a climate."""
    site, months = climate.site, climate.months
    pressure = site_pressure_pa(site.elevation_m)

    def column(name: str) -> Array:
        return np.array([getattr(month, name) for month in months], dtype=float)  # None becomes NaN

    course = dry_bulb_c(column("dry_bulb_c"), column("range_k"), climate.profile)
    sun = sun_position(site.latitude_deg, site.longitude_deg, site.utc_offset_h, tuple(month.month for month in months))
    return Outdoors(
        climate=climate,
        pressure_pa=pressure,
        air_heat_j_m3k=dry_air_density_kg_m3(20.0, pressure) * CP_DRY_AIR,
        dry_bulb_c=course,
        humidity_ratio=humidity_ratio(
            column("dry_bulb_c"), column("wet_bulb_c"), column("dew_point_c"), course, pressure
        ),
        sun=sun,
        sky=clear_sky(sun, column("tau_b"), column("tau_d")),
    )
