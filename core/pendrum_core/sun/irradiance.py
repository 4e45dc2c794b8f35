"""Clear-sky beam and diffuse irradiance, and what falls on a tilted plane.

Source: ASHRAE Handbook Fundamentals 2017, ch. 14, "Clear-sky solar radiation" and "Transposition to
receiving surfaces"; air mass by Kasten and Young (1989).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.sun.position import SunPosition

Array = NDArray[np.float64]


@dataclass(frozen=True)
class ClearSky:
    """Irradiance at the site, shape (months, instants) [W/m2]."""

    beam_normal: Array
    diffuse_horizontal: Array


@dataclass(frozen=True)
class PlaneIrradiance:
    """What one plane receives, shape (months, instants).

    Attributes:
        incidence_cosine: cosine of the angle between sun and the plane's normal [-], negative behind it.
        beam, sky_diffuse, ground_reflected: irradiances [W/m2].
    """

    incidence_cosine: Array
    beam: Array
    sky_diffuse: Array
    ground_reflected: Array

    @property
    def total(self) -> Array:
        """Sum of the three parts [W/m2]."""
        return np.asarray(self.beam + self.sky_diffuse + self.ground_reflected)


def clear_sky(sun: SunPosition, tau_b: Array, tau_d: Array) -> ClearSky:
    """Clear-sky irradiance by optical depths, each of shape (months,) [-].

    Eb = E0 exp(-tau_b m^ab), Ed = E0 exp(-tau_d m^ad); zero where the sun is not above the horizon.
    """
    up = sun.elevation_deg > 0.0
    b = np.where(up, sun.elevation_deg, 1.0)
    mass = 1.0 / (np.sin(np.radians(b)) + 0.50572 * (6.07995 + b) ** -1.6364)
    tb, td = tau_b[:, None], tau_d[:, None]
    ab = 1.454 - 0.406 * tb - 0.268 * td + 0.021 * tb * td
    ad = 0.507 + 0.205 * tb - 0.080 * td - 0.190 * tb * td
    e0 = sun.extraterrestrial_w_m2[:, None]
    return ClearSky(
        beam_normal=np.where(up, e0 * np.exp(-tb * mass**ab), 0.0),
        diffuse_horizontal=np.where(up, e0 * np.exp(-td * mass**ad), 0.0),
    )


def incidence_cosine(sun: SunPosition, tilt_deg: float, azimuth_deg: float) -> Array:
    """Cosine of the incidence angle on a plane [-]."""
    b, az = np.radians(sun.elevation_deg), np.radians(sun.azimuth_deg - azimuth_deg)
    tilt = np.radians(tilt_deg)
    return np.asarray(np.cos(b) * np.cos(az) * np.sin(tilt) + np.sin(b) * np.cos(tilt))


def on_plane(
    sun: SunPosition, sky: ClearSky, tilt_deg: float, azimuth_deg: float, ground_reflectance: float | Array
) -> PlaneIrradiance:
    """Irradiance on a plane; diffuse by the ratio Y = max(0.45, 0.55 + 0.437 c + 0.313 c²).

    c is the cosine of incidence on the vertical plane of the same azimuth. The ground's reflectance is one number, or
    one for each month (months, 1).
    """
    cosine = incidence_cosine(sun, tilt_deg, azimuth_deg)
    c = incidence_cosine(sun, 90.0, azimuth_deg)
    y = np.maximum(0.45, 0.55 + 0.437 * c + 0.313 * c**2)
    tilt = np.radians(tilt_deg)
    facing_up = np.cos(tilt) if tilt_deg <= 90.0 else 0.0
    horizontal = sky.beam_normal * np.maximum(0.0, np.sin(np.radians(sun.elevation_deg))) + sky.diffuse_horizontal
    return PlaneIrradiance(
        incidence_cosine=cosine,
        beam=sky.beam_normal * np.maximum(0.0, cosine),
        sky_diffuse=sky.diffuse_horizontal * (y * np.sin(tilt) + facing_up),
        ground_reflected=horizontal * ground_reflectance * (1.0 - np.cos(tilt)) / 2.0,
    )
