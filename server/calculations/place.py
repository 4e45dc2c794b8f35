"""Design-day courses of the site."""

from typing import Any

from calculations.snapshot import climate_of
from pendrum_core.results.courses import place_courses
from projects.document import Document
from projects.errors import Refused


def place_day(document: Document, month: int) -> dict[str, Any]:
    """Courses of a month's design day as plain lists.

    Raises:
        Refused: month outside 1 to 12.
    """
    if not 1 <= month <= 12:
        raise Refused("invalid", f"month {month} is outside 1 to 12.")
    c = place_courses(climate_of(document), month)
    return {
        "dry_bulb_c": c.dry_bulb_c.round(3).tolist(),
        "humidity_ratio": c.humidity_ratio.round(7).tolist(),
        "relative_humidity": c.relative_humidity.round(4).tolist(),
        "irradiance_w_m2": {face: values.round(2).tolist() for face, values in c.irradiance_w_m2.items()},
        "sun_elevation_deg": c.sun_elevation_deg.round(3).tolist(),
        "sun_azimuth_deg": c.sun_azimuth_deg.round(3).tolist(),
        "pressure_pa": c.pressure_pa,
    }
