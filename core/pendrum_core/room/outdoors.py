"""What the outdoors does to each kind of surface on every design day: computed once per climate."""

from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.atmosphere import dry_air_density_kg_m3, site_pressure_pa
from pendrum_core.climate.design_day import dry_bulb_c, humidity_ratio
from pendrum_core.fabric.glazing import angular_curve
from pendrum_core.model.climate import Climate
from pendrum_core.quantities.constants import CP_DRY_AIR
from pendrum_core.room.harmonics import to_harmonics
from pendrum_core.sun.irradiance import ClearSky, PlaneIrradiance, clear_sky, on_plane
from pendrum_core.sun.position import SunPosition, sun_position

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


def sky_view(tilt_deg: float) -> float:
    """Share of the sky in the view of a plane, (1 + cos tilt)/2 [-]."""
    return float((1.0 + np.cos(np.radians(tilt_deg))) / 2.0)


@dataclass
class Outdoors:
    """Design-day courses of a climate, arrays of shape (12, 144); planes are worked out when first asked for."""

    climate: Climate
    pressure_pa: float
    air_heat_j_m3k: float
    dry_bulb_c: Array
    humidity_ratio: Array
    sun: SunPosition
    sky: ClearSky
    _planes: dict[tuple[float, float], PlaneIrradiance] = field(default_factory=dict)
    _sol_air: dict[tuple[float, float, float], Complex] = field(default_factory=dict)
    _solar: dict[tuple[float, float, int], Array] = field(default_factory=dict)

    def plane(self, tilt_deg: float, azimuth_deg: float) -> PlaneIrradiance:
        """Irradiance on a plane."""
        key = (tilt_deg, azimuth_deg)
        if key not in self._planes:
            reflectance = self.climate.site.ground_reflectance
            self._planes[key] = on_plane(self.sun, self.sky, tilt_deg, azimuth_deg, reflectance)
        return self._planes[key]

    def sky_loss_k(self, tilt_deg: float) -> float:
        """How far the sky pulls the sol-air temperature down [K]."""
        c = self.climate.coefficients
        return sky_view(tilt_deg) * c.radiation_outside * c.sky_depression_k / c.outside

    def sol_air_c(self, tilt_deg: float, azimuth_deg: float, absorptance: float) -> Array:
        """Tsa = To + (alpha I - F_sky h_re 11 K)/(h_ce + h_re) [°C], shape (12, 144)."""
        irradiance = self.plane(tilt_deg, azimuth_deg).total
        gain = absorptance * irradiance / self.climate.coefficients.outside
        return np.asarray(self.dry_bulb_c + gain - self.sky_loss_k(tilt_deg))

    def sol_air_harmonics(self, tilt_deg: float, azimuth_deg: float, absorptance: float) -> Complex:
        """Harmonics of the sol-air temperature, shape (12, 73)."""
        key = (tilt_deg, azimuth_deg, absorptance)
        if key not in self._sol_air:
            self._sol_air[key] = to_harmonics(self.sol_air_c(*key))
        return self._sol_air[key]

    def window_factor_w_m2(self, tilt_deg: float, azimuth_deg: float, panes: int) -> Array:
        """f(incidence) beam + f_hemispherical (sky + ground) [W/m2], shape (12, 144); times area (1 - frame) g."""
        key = (tilt_deg, azimuth_deg, panes)
        if key not in self._solar:
            plane, curve = self.plane(tilt_deg, azimuth_deg), angular_curve(panes)
            diffuse = plane.sky_diffuse + plane.ground_reflected
            self._solar[key] = curve.at(plane.incidence_cosine) * plane.beam + curve.hemispherical * diffuse
        return self._solar[key]


@lru_cache(maxsize=16)
def outdoors(climate: Climate) -> Outdoors:
    """Work out the design days of a climate."""
    site, months = climate.site, climate.months
    pressure = site_pressure_pa(site.elevation_m)

    def column(name: str) -> Array:
        return np.array([getattr(month, name) for month in months], dtype=float)

    course = dry_bulb_c(column("dry_bulb_c"), column("range_k"), climate.profile)
    sun = sun_position(site.latitude_deg, site.longitude_deg, site.utc_offset_h, tuple(month.month for month in months))
    return Outdoors(
        climate=climate,
        pressure_pa=pressure,
        air_heat_j_m3k=dry_air_density_kg_m3(20.0, pressure) * CP_DRY_AIR,
        dry_bulb_c=course,
        humidity_ratio=humidity_ratio(column("dry_bulb_c"), column("wet_bulb_c"), course, pressure),
        sun=sun,
        sky=clear_sky(sun, column("tau_b"), column("tau_d")),
    )
