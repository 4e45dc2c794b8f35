"""Surroundings as a skyline: what stands between the building and the sky.

Source: plane geometry; light of an even sky by the definition of the form factor (Lambert).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.sun.shading import hemisphere, in_plane

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Obstruction:
    """Something that stands in a range of directions, clockwise from `from_deg` to `to_deg`; height and distance [m]."""

    from_deg: float
    to_deg: float
    height_m: float
    distance_m: float


Skyline = tuple[Obstruction, ...]


def horizon_deg(skyline: Skyline, azimuth_deg: Array, eye_m: float) -> Array:
    """Elevation of the skyline above the horizon by direction, seen from a height above ground [deg]."""
    azimuth = np.asarray(azimuth_deg, dtype=float) % 360.0
    highest = np.zeros_like(azimuth)
    for item in skyline:
        span = (item.to_deg - item.from_deg) % 360.0
        within = (azimuth - item.from_deg) % 360.0 <= (span if span > 0.0 else 360.0)
        angle = float(np.degrees(np.arctan2(max(0.0, item.height_m - eye_m), item.distance_m)))
        highest = np.where(within, np.maximum(highest, angle), highest)
    return highest


def sky_share(skyline: Skyline, tilt_deg: float, facing_deg: float, eye_m: float) -> float:
    """Share of an even sky's light on a plane that the skyline leaves [-]."""
    if not skyline:
        return 1.0
    elevation, azimuth, solid = hemisphere()
    weight = solid * np.maximum(0.0, in_plane(elevation, azimuth, tilt_deg, facing_deg)[:, 2])
    free = elevation > horizon_deg(skyline, azimuth, eye_m)
    total = weight.sum()
    return float((weight * free).sum() / total) if total > 1e-6 else 1.0
