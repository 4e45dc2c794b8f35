"""Delimited text of any layout, read by a mapping of its columns."""

from calendar import isleap
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.atmosphere import site_pressure_pa
from pendrum_core.weather.dated import hour_of, in_order
from pendrum_core.weather.fault import Fault
from pendrum_core.weather.plausible import sun_faults
from pendrum_core.weather.sun_hours import split_global, sun_at_hours
from pendrum_core.weather.year import WeatherYear, relative_from_dew_point

Array = NDArray[np.float64]
MOST_FAULTS = 200

# Quantity -> unit -> (factor, offset): SI = value x factor + offset.
UNITS: dict[str, dict[str, tuple[float, float]]] = {
    "dry_bulb": {"°C": (1.0, 0.0), "°F": (5 / 9, -160 / 9), "K": (1.0, -273.15)},
    "dew_point": {"°C": (1.0, 0.0), "°F": (5 / 9, -160 / 9), "K": (1.0, -273.15)},
    "relative_humidity": {"%": (0.01, 0.0), "fraction": (1.0, 0.0)},
    "pressure": {"Pa": (1.0, 0.0), "hPa": (100.0, 0.0), "kPa": (1000.0, 0.0)},
    "wind": {"m/s": (1.0, 0.0), "km/h": (1 / 3.6, 0.0), "mph": (0.44704, 0.0), "kn": (0.514444, 0.0)},
    "global": {"W/m²": (1.0, 0.0), "kJ/m²h": (1 / 3.6, 0.0), "J/m²h": (1 / 3600.0, 0.0)},
    "beam": {"W/m²": (1.0, 0.0), "kJ/m²h": (1 / 3.6, 0.0), "J/m²h": (1 / 3600.0, 0.0)},
    "diffuse": {"W/m²": (1.0, 0.0), "kJ/m²h": (1 / 3.6, 0.0), "J/m²h": (1 / 3600.0, 0.0)},
}
# What can be: SI.
LIMITS = {
    "dry_bulb": (-80.0, 65.0),
    "dew_point": (-95.0, 45.0),
    "relative_humidity": (0.0, 1.1),
    "pressure": (45_000.0, 110_000.0),
    "wind": (0.0, 80.0),
    "global": (-5.0, 1500.0),
    "beam": (-5.0, 1400.0),
    "diffuse": (-5.0, 1000.0),
}
CONVENTIONS = ("hour beginning", "hour ending", "instant")


@dataclass(frozen=True)
class Column:
    """Where a quantity stands: number of the column (0 is the first), and its unit."""

    index: int
    unit: str


@dataclass(frozen=True)
class Mapping:
    """Layout of a file.

    Attributes:
        delimiter: one character, or "space" for any run of blanks.
        decimal: "." or ",".
        header_rows: lines before the first hour.
        columns: by quantity; a dry-bulb, a humidity (relative or dew point) and a global irradiance are needed.
        convention: whether a line's time is that of the hour that begins, of the hour that ended, or of an instant
            (values are then averaged with the next line's). The first line is the first hour of the year.
        time: column with the time of day, to find where hours are missing; None where there is none.
        date: column with the date, by which lines are put in order; None where they are taken as they come.
        missing: text that stands for no value.
        year: calendar of the hours.
    """

    delimiter: str
    decimal: str
    header_rows: int
    columns: dict[str, Column]
    convention: str
    year: int
    missing: str = ""
    time: int | None = None
    date: int | None = None


@dataclass
class Reading:
    """Outcome: a year, or the faults for which there is none."""

    year: WeatherYear | None = None
    faults: list[Fault] = field(default_factory=list)


@dataclass(frozen=True)
class Location:
    """Where the weather was measured: degrees, hours from UTC, metres."""

    latitude_deg: float
    longitude_deg: float
    utc_offset_h: float
    elevation_m: float


def split_lines(text: str, delimiter: str) -> list[list[str]]:
    """Lines as cells; a quotation mark is a sign like any other, so that a line always stays a line."""
    if delimiter == "space":
        return [line.split() for line in text.splitlines()]
    return [[cell.strip().strip('"') for cell in line.split(delimiter)] for line in text.splitlines()]


def _mapping_faults(mapping: Mapping) -> list[Fault]:
    faults = []
    if "dry_bulb" not in mapping.columns:
        faults.append(Fault(0, "no column is chosen for the dry-bulb"))
    if not {"relative_humidity", "dew_point"} & set(mapping.columns):
        faults.append(Fault(0, "no column is chosen for humidity: relative humidity or dew point"))
    if "global" not in mapping.columns and not {"beam", "diffuse"} <= set(mapping.columns):
        faults.append(Fault(0, "no column is chosen for sun: global, or beam and diffuse"))
    for quantity, column in mapping.columns.items():
        if quantity not in UNITS or column.unit not in UNITS[quantity]:
            faults.append(Fault(0, f"{quantity} in {column.unit!r} is not known"))
    if mapping.convention not in CONVENTIONS:
        faults.append(Fault(0, f"time convention {mapping.convention!r} is none of {', '.join(CONVENTIONS)}"))
    return faults


def read_delimited(text: str, mapping: Mapping, location: Location) -> Reading:
    """Read a whole year or nothing; every fault names its line."""
    faults = _mapping_faults(mapping)
    if faults:
        return Reading(faults=faults)
    rows = split_lines(text, mapping.delimiter)
    body = [(n, row) for n, row in enumerate(rows, start=1) if n > mapping.header_rows and any(c.strip() for c in row)]
    want = 8784 if isleap(mapping.year) else 8760
    if len(body) not in (8760, want):
        faults.append(
            Fault(0, f"{len(body)} hours after {mapping.header_rows} header lines; {mapping.year} has {want}")
        )
    if mapping.date is not None:
        body, disorder = in_order(body, mapping.date, mapping.time, mapping.convention == "hour ending")
        faults.extend(disorder)
    else:
        faults.extend(_gaps(body, mapping.time))
    if faults:
        return Reading(faults=faults)
    values: dict[str, Array] = {name: np.full(len(body), np.nan) for name in mapping.columns}
    for hour, (line, row) in enumerate(body):
        for name, column in mapping.columns.items():
            value, why = _value(row, column, name, mapping)
            if why:
                faults.append(Fault(line, f"{name.replace('_', ' ')}: {why}"))
                if len(faults) >= MOST_FAULTS:
                    return Reading(faults=[*faults, Fault(0, f"the first {MOST_FAULTS} faults are shown")])
            else:
                values[name][hour] = value
    if faults:
        return Reading(faults=faults)
    if mapping.convention == "instant":
        values = {name: (course + np.roll(course, -1)) / 2.0 for name, course in values.items()}
    year = _assemble(values, mapping, location)
    wrong = sun_faults(year)
    return Reading(faults=wrong) if wrong else Reading(year=year)


def _gaps(body: list[tuple[int, list[str]]], time: int | None) -> list[Fault]:
    """Lines whose hour of the day does not follow that of the line before."""
    if time is None:
        return []
    faults, before = [], None
    for line, row in body:
        found = hour_of(row[time]) if time < len(row) else None
        if found is None:
            return [Fault(line, "no time of day in the time column")]
        hour = found % 24
        if before is not None and (hour - before) % 24 != 1:
            faults.append(Fault(line, f"hour {hour:02d} follows hour {before:02d}: hours are missing or double"))
        before = hour
    return faults[:MOST_FAULTS]


def _value(row: list[str], column: Column, name: str, mapping: Mapping) -> tuple[float, str]:
    if column.index >= len(row):
        return 0.0, f"the line has {len(row)} columns, not {column.index + 1}"
    text = row[column.index].strip()
    if not text or (mapping.missing and text == mapping.missing):
        return 0.0, "no value"
    try:
        raw = float(text.replace(mapping.decimal, "."))
    except ValueError:
        return 0.0, f"{text!r} is not a number"
    factor, offset = UNITS[name][column.unit]
    value = raw * factor + offset
    low, high = LIMITS[name]
    if not low <= value <= high:
        return 0.0, f"{text} {column.unit} cannot be (between {low:g} and {high:g} in SI)"
    return value, ""


def _assemble(values: dict[str, Array], mapping: Mapping, at: Location) -> WeatherYear:
    notes = []
    count = len(values["dry_bulb"])
    dry = values["dry_bulb"]
    if "relative_humidity" in values:
        relative = np.clip(values["relative_humidity"], 0.0, 1.0)
    else:
        relative = np.clip(relative_from_dew_point(dry, values["dew_point"]), 0.0, 1.0)
        notes.append("relative humidity from the dew point")
    pressure = values.get("pressure")
    if pressure is None:
        pressure = np.full(count, site_pressure_pa(at.elevation_m))
        notes.append("pressure of the standard atmosphere at the site's elevation")
    wind = values.get("wind")
    if wind is None:
        wind = np.zeros(count)
        notes.append("no wind in the file")
    elevation, _ = sun_at_hours(mapping.year, count, at.latitude_deg, at.longitude_deg, at.utc_offset_h)
    up = np.maximum(np.sin(np.radians(elevation)), 0.0)
    beam, diffuse, total = values.get("beam"), values.get("diffuse"), values.get("global")
    if total is None:
        assert beam is not None and diffuse is not None  # refused before
        total = beam * up + diffuse
        notes.append("global irradiance from beam and diffuse")
    total = np.maximum(total, 0.0)
    if beam is None and diffuse is None:
        beam, diffuse = split_global(total, elevation, mapping.year)
        notes.append("beam and diffuse split from global by Erbs, Klein and Duffie (1982)")
    elif diffuse is None:
        assert beam is not None
        diffuse = np.maximum(total - beam * up, 0.0)
        notes.append("diffuse irradiance from global and beam")
    elif beam is None:
        beam = np.where(up > 0.05, np.maximum(total - diffuse, 0.0) / np.maximum(up, 0.05), 0.0)
        notes.append("beam irradiance from global and diffuse")
    return WeatherYear(
        mapping.year,
        at.latitude_deg,
        longitude_deg=at.longitude_deg,
        utc_offset_h=at.utc_offset_h,
        elevation_m=at.elevation_m,
        dry_bulb_c=dry,
        relative_humidity=relative,
        pressure_pa=pressure,
        wind_m_s=wind,
        global_w_m2=total,
        beam_w_m2=np.maximum(beam, 0.0),
        diffuse_w_m2=np.maximum(diffuse, 0.0),
        notes=tuple(notes),
    )
