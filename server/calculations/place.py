"""Design-day courses of the site, of a surface, and of an opening's shading."""

from typing import Any

from calculations.inputs.climate import air_by_month_c, climate, ground_by_month_c
from calculations.inputs.windows import shading_of
from calculations.lookups import Lookups
from pendrum_core.model.climate import Climate
from pendrum_core.results.courses import place_courses, shading_day, surface_day
from projects.errors import FieldFault, Refused
from projects.rows import Document


def _climate(document: Document, month: int) -> Climate:
    found = climate(Lookups(document))
    if not 1 <= month <= len(found.months):
        raise Refused("invalid", f"month {month} is outside 1 to {len(found.months)}.")
    return found


def within(name: str, value: float, low: float, high: float) -> None:
    """Refuse a query value outside its range.

    Raises:
        Refused: naming it.
    """
    if not low <= value <= high:
        fault = FieldFault(name, name, value, "out of range", f"{low:g} to {high:g}")
        raise Refused("invalid", f"{name} {value:g} is outside {low:g} to {high:g}.", [fault])


def place_day(document: Document, month: int, tilt: float, azimuth: float, eye: float) -> dict[str, Any]:
    """Courses of a month's design day (13: the dehumidification day) and of one surface, as plain lists.

    Raises:
        Refused: a value outside its range.
    """
    found = _climate(document, month)
    within("tilt", tilt, 0.0, 180.0)
    within("azimuth", azimuth, 0.0, 360.0)
    within("eye", eye, 0.0, 1000.0)
    look = Lookups(document)
    c, s = place_courses(found, month), surface_day(found, month, tilt, azimuth, eye)
    return {
        "dry_bulb_c": c.dry_bulb_c.round(3).tolist(),
        "humidity_ratio": c.humidity_ratio.round(7).tolist(),
        "relative_humidity": c.relative_humidity.round(4).tolist(),
        "irradiance_w_m2": {face: values.round(2).tolist() for face, values in c.irradiance_w_m2.items()},
        "sun_elevation_deg": c.sun_elevation_deg.round(3).tolist(),
        "sun_azimuth_deg": c.sun_azimuth_deg.round(3).tolist(),
        "pressure_pa": c.pressure_pa,
        "ground_c": list(ground_by_month_c(look)),
        "air_mean_by_month_c": list(air_by_month_c(look)),
        "surface": {
            "incidence_deg": s.incidence_deg.round(2).tolist(),
            "beam_w_m2": s.beam_w_m2.round(2).tolist(),
            "sky_w_m2": s.sky_w_m2.round(2).tolist(),
            "ground_w_m2": s.ground_w_m2.round(2).tolist(),
        },
        "horizon_deg": s.horizon_deg.round(2).tolist(),
    }


def shaded_day(
    document: Document, identity: str, month: int, width: float, height: float, azimuth: float
) -> dict[str, Any]:
    """Sunlit part of a vertical opening behind a shading on a month's design day.

    Raises:
        Refused: no such shading, or a value outside its range.
    """
    found = _climate(document, month)
    row = document.of("shading").get(identity)
    if row is None:
        raise Refused("not_found", f"There is no shading {identity!r}.")
    within("width", width, 0.1, 50.0)
    within("height", height, 0.1, 50.0)
    within("azimuth", azimuth, 0.0, 360.0)
    day = shading_day(
        found,
        month,
        shading=shading_of(row),
        width_m=width,
        height_m=height,
        tilt_deg=90.0,
        azimuth_deg=azimuth % 360.0,
    )
    return {
        "lit_share": day.lit_share.round(4).tolist(),
        "sky_share": day.sky_share,
        "ground_share": day.ground_share,
        "shadows": [[[[round(x, 3), round(y, 3)] for x, y in corners] for corners in step] for step in day.shadows],
    }
