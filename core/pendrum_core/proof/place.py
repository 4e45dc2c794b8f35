"""Proof of the sun and the clear sky."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry
from pendrum_core.sun.irradiance import clear_sky, on_plane
from pendrum_core.sun.position import sun_position

_CHAPTER = "Sun and sky"
_SOURCE = "ASHRAE clear-sky model and solar geometry, worked apart from the program"


def place_entries(case: Case) -> Iterator[Entry]:
    """Sun's height, and what falls on every plane of the case: the largest difference over all its hours."""
    inputs = case["inputs"]
    site = inputs["site"]
    months, hours = tuple(sorted(int(m) for m in inputs["tau"])), tuple(inputs["hours"])
    sun = sun_position(site["latitude_deg"], site["longitude_deg"], site["time_zone_h"], months, hours)
    tau = [inputs["tau"][str(m)] for m in months]
    sky = clear_sky(sun, np.array([t["tau_b"] for t in tau]), np.array([t["tau_d"] for t in tau]))
    rows = [(row, (months.index(row["month"]), hours.index(row["hour"]))) for row in case["expected"]]
    high = max((row["sun_elevation_deg"], at) for row, at in rows)
    yield Entry(
        _CHAPTER,
        "Highest sun",
        expected=high[0],
        found=float(sun.elevation_deg[high[1]]),
        quantity="angle",
        within=0.05,
        source=_SOURCE,
    )
    beam = max((row["beam_normal_W_m2"], at) for row, at in rows)
    found = float(sky.beam_normal[beam[1]])
    yield Entry(
        _CHAPTER,
        "Strongest beam",
        expected=beam[0],
        found=found,
        quantity="power_per_area",
        within=0.005 * beam[0],
        source=_SOURCE,
    )
    for name, place in inputs["planes"].items():
        plane = on_plane(sun, sky, place["tilt_deg"], place["azimuth_deg"], 0.2)
        wanted = [
            (sum(row["planes"][name][part] for part in ("beam_W_m2", "sky_diffuse_W_m2", "ground_reflected_W_m2")), at)
            for row, at in rows
        ]
        most, at = max(wanted)
        total = plane.beam + plane.sky_diffuse + plane.ground_reflected
        title = f"Most sun on {name.replace('_', ' ')}"
        yield Entry(
            _CHAPTER,
            title,
            expected=most,
            found=float(total[at]),
            quantity="power_per_area",
            within=max(0.005 * most, 1.5),
            source=_SOURCE,
        )
