"""A made-up year of hours for the demo's site: its design months' swing, weather that comes and goes, clouds; nobody measured it."""

import numpy as np
from numpy.typing import NDArray

from calculations.weather import import_weather
from pendrum_core.moist_air import relative_humidity, saturation_humidity_ratio
from pendrum_core.weather.sun_hours import sun_at_hours
from projects.document import load_document
from projects.models import Project
from projects.rows import Document

FILE_NAME = "Tarnwick, made up.csv"
MAPPING = {
    "delimiter": ",", "decimal": ".", "header_rows": 2, "convention": "hour beginning", "time": 1, "missing": "",
    "columns": {
        "dry_bulb": {"index": 2, "unit": "°C"}, "relative_humidity": {"index": 3, "unit": "%"},
        "global": {"index": 4, "unit": "W/m²"}, "wind": {"index": 5, "unit": "m/s"},
    },
}  # fmt: skip
_SEED = 1743
_PERSISTENCE = 0.72  # of the weather from one day to the next
_WEATHER_K = 2.6  # standard deviation of a day's mean about the season's
_PRESSURE_PA = 98_800.0

Array = NDArray[np.float64]


def load_weather(project: Project) -> None:
    """Import the made-up year as a user would any file."""
    document = load_document(project)
    year = document.one("project")["year"]
    import_weather(project, document, FILE_NAME, made_up_hours(document), MAPPING | {"year": year})


def made_up_hours(document: Document) -> str:
    """The file: date, time, dry-bulb, relative humidity, global irradiance and wind, one line an hour."""
    site, year = document.one("site"), document.one("project")["year"]
    days = int((np.datetime64(f"{year + 1}-01-01") - np.datetime64(f"{year}-01-01")).astype(int))
    rng = np.random.default_rng(_SEED)
    cold = (site["coldest_month"] - 0.5) * days / 12.0
    winter = np.cos(2 * np.pi * (np.arange(days) - cold) / days)
    season = site["air_mean_c"] - site["air_amplitude_k"] * winter
    weather = _wandering(rng, days) * _WEATHER_K * (1.0 + 0.35 * winter)
    clear = np.clip(0.62 + 0.25 * _wandering(rng, days), 0.12, 1.0)
    ranges = np.array(
        [row["range_k"] for row in sorted(document.of("design_month").values(), key=lambda r: r["month"])]
    )
    swing = np.interp(np.arange(days), (np.arange(12) + 0.5) * days / 12.0, ranges) * (0.45 + 0.5 * clear)
    hour = np.arange(24) + 0.5
    dry_bulb = (season + weather)[:, None] + 0.5 * swing[:, None] * np.cos(2 * np.pi * (hour - 15.0) / 24.0)
    # The air's moisture changes from day to day only: its dew point lies below the night's coolest.
    moisture = saturation_humidity_ratio((season + weather - 0.95 * swing)[:, None] + 0.0 * dry_bulb, _PRESSURE_PA)
    humid = np.clip(100.0 * relative_humidity(dry_bulb, moisture, _PRESSURE_PA), 15.0, 100.0)
    elevation, normal = sun_at_hours(year, days * 24, site["latitude"], site["longitude"], site["utc_offset_h"])
    high = np.sin(np.radians(np.maximum(elevation, 0.0)))
    sun = normal * high * 0.78 * np.repeat(clear, 24) * (1.0 - 0.35 * np.exp(-high / 0.12))
    wind = np.clip(rng.gamma(2.2, 1.1, days * 24), 0.0, 18.0)
    start = np.datetime64(f"{year}-01-01T00")
    lines = ["Tarnwick,made up for the demo", "date,time,dry-bulb °C,humidity %,global W/m²,wind m/s"]
    for index in range(days * 24):
        at = str(start + np.timedelta64(index, "h"))
        values = dry_bulb.flat[index], humid.flat[index], sun[index], wind[index]
        lines.append(f"{at[:10]},{at[11:]}:00,{values[0]:.1f},{values[1]:.0f},{values[2]:.0f},{values[3]:.1f}")
    return "\n".join(lines) + "\n"


def _wandering(rng: np.random.Generator, days: int) -> Array:
    """A course of unit deviation in which each day remembers the one before."""
    course = np.empty(days)
    now = 0.0
    for day, news in enumerate(rng.standard_normal(days)):
        now = _PERSISTENCE * now + np.sqrt(1.0 - _PERSISTENCE**2) * news
        course[day] = now
    return course
