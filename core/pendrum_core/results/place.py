"""What an engineer sees of the design days while entering them."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.psychrometrics import enthalpy_j_kg, humidity_ratio_from_relative, relative_humidity
from pendrum_core.model.climate import Climate, day_number
from pendrum_core.room.outdoors import outdoors

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


def humidity_lines(pressure_pa: float) -> tuple[list[float], dict[str, list[float]]]:
    """Temperatures [°C] and humidity ratios at equal relative humidity [kg/kg], for a psychrometric chart."""
    temperature = np.arange(0.0, 42.5, 1.0)
    lines = {
        f"{share:.1f}": humidity_ratio_from_relative(temperature, share, pressure_pa).round(6).tolist()
        for share in (0.2, 0.4, 0.6, 0.8, 1.0)
    }
    return temperature.tolist(), lines
