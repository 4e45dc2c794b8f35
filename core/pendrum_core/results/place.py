"""What an engineer sees of the design days while entering them.

Source: the courses are those of climate/design_day.py; humidity lines by the definition of relative humidity.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.climate import Climate, day_number
from pendrum_core.moist_air import enthalpy_j_kg, humidity_ratio_from_relative, relative_humidity
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.sun.shading import Shading, diffuse_shares, in_plane, shadow_corners, sunlit_share
from pendrum_core.sun.skyline import horizon_deg

Array = NDArray[np.float64]
FACES = {"N": 0.0, "NE": 45.0, "E": 90.0, "SE": 135.0, "S": 180.0, "SW": 225.0, "W": 270.0, "NW": 315.0}


@dataclass(frozen=True)
class PlaceCourses:
    """Courses of one design day, (144,).

    Attributes:
        dry_bulb_c, humidity_ratio, relative_humidity, enthalpy_j_kg: of the outdoor air.
        irradiance_w_m2: on the eight compass directions and a flat roof.
        sun_elevation_deg, sun_azimuth_deg: of the sun.
        pressure_pa: at the site.
    """

    dry_bulb_c: Array
    humidity_ratio: Array
    relative_humidity: Array
    enthalpy_j_kg: Array
    irradiance_w_m2: dict[str, Array]
    sun_elevation_deg: Array
    sun_azimuth_deg: Array
    pressure_pa: float


def place_courses(climate: Climate, month: int) -> PlaceCourses:
    """Courses of a month's design day.

    Raises:
        StopIteration: the climate has no such month.
    """
    index = next(i for i, row in enumerate(climate.months) if day_number(row) == month)
    out = outdoors(climate)
    t, w = out.dry_bulb_c[index], out.humidity_ratio[index]
    planes = {name: out.plane(90.0, azimuth).total[index] for name, azimuth in FACES.items()}
    return PlaceCourses(
        dry_bulb_c=t,
        humidity_ratio=w,
        relative_humidity=relative_humidity(t, w, out.pressure_pa),
        enthalpy_j_kg=enthalpy_j_kg(t, w),
        irradiance_w_m2=planes | {"Roof": out.plane(0.0, 0.0).total[index]},
        sun_elevation_deg=out.sun.elevation_deg[index],
        sun_azimuth_deg=out.sun.azimuth_deg[index],
        pressure_pa=out.pressure_pa,
    )


@dataclass(frozen=True)
class SurfaceDay:
    """A surface on one design day, (144,): incidence angle [deg], irradiance [W/m2]; and the skyline it looks at.

    `horizon_deg` holds the skyline's elevation every five degrees of azimuth from north.
    """

    incidence_deg: Array
    beam_w_m2: Array
    sky_w_m2: Array
    ground_w_m2: Array
    horizon_deg: Array


def surface_day(climate: Climate, month: int, tilt_deg: float, azimuth_deg: float, eye_m: float) -> SurfaceDay:
    """What a surface sees of the sun on a month's design day.

    Raises:
        StopIteration: the climate has no such month.
    """
    index = next(i for i, row in enumerate(climate.months) if day_number(row) == month)
    plane = outdoors(climate).plane(tilt_deg, azimuth_deg, eye_m)
    cosine = np.clip(plane.incidence_cosine[index], -1.0, 1.0)
    return SurfaceDay(
        incidence_deg=np.degrees(np.arccos(cosine)),
        beam_w_m2=plane.beam[index],
        sky_w_m2=plane.sky_diffuse[index],
        ground_w_m2=plane.ground_reflected[index],
        horizon_deg=horizon_deg(climate.site.skyline, np.arange(0.0, 360.0, 5.0), eye_m),
    )


@dataclass(frozen=True)
class ShadingDay:
    """Fixed shading of an opening on one design day.

    Attributes:
        lit_share: that the sun reaches, (144,); 0 where it does not stand before the opening.
        sky_share, ground_share: of diffuse light that passes.
        shadows: per step the corners of the plates' shadows in the opening's plane [m].
    """

    lit_share: Array
    sky_share: float
    ground_share: float
    shadows: list[list[list[tuple[float, float]]]]


def shading_day(
    climate: Climate, month: int, shading: Shading, width_m: float, height_m: float, tilt_deg: float, azimuth_deg: float
) -> ShadingDay:
    """Sunlit part of an opening on a month's design day.

    Raises:
        StopIteration: the climate has no such month.
    """
    index = next(i for i, row in enumerate(climate.months) if day_number(row) == month)
    sun = outdoors(climate).sun
    toward = in_plane(sun.elevation_deg[index], sun.azimuth_deg[index], tilt_deg, azimuth_deg)
    up = sun.elevation_deg[index] > 0.0
    sky, ground = diffuse_shares(shading, width_m, height_m, tilt_deg)
    return ShadingDay(
        lit_share=np.where(up, sunlit_share(shading, width_m, height_m, toward), 0.0),
        sky_share=sky,
        ground_share=ground,
        shadows=[
            shadow_corners(shading, width_m, height_m, d) if above else [] for d, above in zip(toward, up, strict=True)
        ],
    )


def humidity_lines(pressure_pa: float) -> tuple[list[float], dict[str, list[float]]]:
    """Temperatures [°C] and humidity ratios at equal relative humidity [kg/kg], for a psychrometric chart."""
    temperature = np.arange(-30.0, 52.5, 1.0)
    lines = {
        f"{share:.1f}": humidity_ratio_from_relative(temperature, share, pressure_pa).round(6).tolist()
        for share in (0.2, 0.4, 0.6, 0.8, 1.0)
    }
    return temperature.tolist(), lines
