"""Weather files: first look, reading, keeping, and what they tell about design."""

import io
import re
from dataclasses import asdict, dataclass
from typing import Any

import numpy as np

from calculations.weather_files import ARRAYS, keep_weather, weather_file, year_of
from pendrum_core.weather.delimited import (
    CONVENTIONS,
    LIMITS,
    UNITS,
    Column,
    Location,
    Mapping,
    read_delimited,
    split_lines,
)
from pendrum_core.weather.derive import derive_conditions
from pendrum_core.weather.fault import Fault
from pendrum_core.weather.plausible import sun_faults
from pendrum_core.weather.tmy3 import looks_like_tmy3, read_tmy3_text
from pendrum_core.weather.year import WeatherYear
from projects.errors import FieldFault, Refused
from projects.models import Project
from projects.rows import Document

LARGEST_BYTES = 20_000_000
_SHOWN_LINES, _SHOWN_LENGTH = 12, 4000
_QUANTITY = dict(
    zip(ARRAYS, ("dry_bulb", "relative_humidity", "pressure", "wind", "global", "beam", "diffuse"), strict=True)
)
_FACTS = ("year", "latitude_deg", "longitude_deg", "utc_offset_h", "elevation_m", "notes")
_COMMA_NUMBER = re.compile(r"\s*-?\d+,\d+\s*")
_DELIMITERS = (",", ";", "\t", "|", "space")


def text_of(content: bytes) -> str:
    """An uploaded file as text.

    Raises:
        Refused: too large, empty, or no text.
    """
    if len(content) > LARGEST_BYTES:
        raise Refused(
            "invalid", f"The file has {len(content) / 1e6:.0f} MB; at most {LARGEST_BYTES / 1e6:.0f} MB are read."
        )
    if b"\x00" in content[:4096]:
        raise Refused("invalid", "This is not a text file.")
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = content.decode("latin-1")  # older files; it takes any bytes
    if not text.strip():
        raise Refused("invalid", "The file is empty.")
    return text


@dataclass(frozen=True)
class Look:
    """First lines of a file and a guess at its layout."""

    kind: str
    delimiter: str
    decimal: str
    header_rows: int
    lines: list[str]


def first_look(text: str) -> dict[str, Any]:
    """What a file seems to be."""
    if looks_like_tmy3(text):
        return asdict(Look("tmy3", ",", ".", 2, _beginning(text, _SHOWN_LINES)))
    lines = _beginning(text, _SHOWN_LINES * 3)
    delimiter = _delimiter(lines)
    cells = split_lines("\n".join(lines[:_SHOWN_LINES]), delimiter)
    decimal = "," if delimiter != "," and any(_COMMA_NUMBER.fullmatch(cell) for row in cells for cell in row) else "."
    header = next((i for i, row in enumerate(cells) if _mostly_numbers(row, decimal)), 0)
    return asdict(Look("delimited", delimiter, decimal, header, lines[:_SHOWN_LINES]))


def _beginning(text: str, count: int) -> list[str]:
    return [line[:_SHOWN_LENGTH] for line in text.splitlines()[:count]]


def _delimiter(lines: list[str]) -> str:
    """The sign that stands equally often, and most often, in the later lines; blanks where there is none."""
    later = [line for line in lines[len(lines) // 2 :] if line.strip()]
    counts = {sign: {line.count(sign) for line in later} for sign in _DELIMITERS[:4]}
    even = {sign: next(iter(found)) for sign, found in counts.items() if len(found) == 1}
    best = max(even, key=lambda sign: even[sign], default="space")
    return best if even.get(best) else "space"


def _mostly_numbers(row: list[str], decimal: str) -> bool:
    numbers = 0
    for cell in row:
        try:
            float(cell.strip().replace(decimal, "."))
        except ValueError:
            continue
        numbers += 1
    return numbers >= max(2, len(row) // 2)


def choices() -> dict[str, Any]:
    """Quantities with their units, and time conventions, for the mapping."""
    return {"units": {name: list(units) for name, units in UNITS.items()}, "conventions": list(CONVENTIONS)}


def mapping_of(raw: dict[str, Any]) -> Mapping:
    """A mapping as the browser sends it.

    Raises:
        Refused: a part of it is missing or of another type.
    """
    try:
        columns = {
            str(name): Column(int(part["index"]), str(part["unit"])) for name, part in dict(raw["columns"]).items()
        }
        time = raw.get("time")
        found = Mapping(
            str(raw["delimiter"]),
            str(raw["decimal"]),
            header_rows=int(raw["header_rows"]),
            columns=columns,
            convention=str(raw["convention"]),
            year=int(raw["year"]),
            missing=str(raw.get("missing", "")),
            time=None if time is None else int(time),
            date=None if raw.get("date") is None else int(raw["date"]),
        )
    except (KeyError, TypeError, ValueError, AttributeError) as error:
        raise Refused("invalid", f"The mapping is not complete: {error}.") from None
    if found.decimal not in (".", ",") or found.delimiter not in _DELIMITERS or found.delimiter == found.decimal:
        raise Refused("invalid", f"delimiter {found.delimiter!r} with decimal {found.decimal!r} cannot be.")
    if not 1900 <= found.year <= 2150 or found.header_rows < 0 or any(c.index < 0 for c in columns.values()):
        raise Refused("invalid", f"year {found.year} or header_rows {found.header_rows} cannot be.")
    return found


def import_weather(project: Project, document: Document, name: str, text: str, mapping: dict[str, Any] | None) -> None:
    """Read a file and keep its year, or refuse it with every fault's line.

    Raises:
        Refused: the file is not a whole year of values that can be.
    """
    keep_weather(project, name, *read_year(name, text.encode(), document.one("site"), mapping))


def read_year(
    name: str, data: bytes, site: dict[str, Any], mapping: dict[str, Any] | None
) -> tuple[dict[str, Any], bytes]:
    """A year of hours: facts, and its arrays packed.

    Raises:
        Refused: the file is not a whole year of values that can be; with every fault's line.
    """
    text = text_of(data)
    if mapping is None:
        reading = read_tmy3_text(text)
    else:
        at = Location(site["latitude"], site["longitude"], site["utc_offset_h"], site["elevation_m"])
        reading = read_delimited(text, mapping_of(mapping), at)
    if reading.year is None:
        raise Refused("invalid", _summary(reading.faults), [_fault(fault) for fault in reading.faults])
    arrays = {name: getattr(reading.year, name) for name in ARRAYS}
    return {fact: getattr(reading.year, fact) for fact in _FACTS}, _packed(arrays)


def _packed(arrays: dict[str, Any]) -> bytes:
    packed = io.BytesIO()
    np.savez_compressed(packed, **{name: values.astype(np.float32) for name, values in arrays.items()})
    return packed.getvalue()


def hours_as_lists(hours: bytes) -> dict[str, list[float]]:
    """The arrays of a kept year as plain numbers, six figures of each."""
    with np.load(io.BytesIO(hours)) as packed:
        return {name: [float(f"{value:.6g}") for value in packed[name]] for name in ARRAYS}


def hours_from_lists(about: Any, hours: Any) -> tuple[dict[str, Any], bytes]:
    """A year to keep, of plain numbers. Sun that does not fit the place is noted: the year was kept so before.

    Raises:
        Refused: facts or arrays are missing, of different lengths, or hold values that cannot be.
    """
    if not isinstance(about, dict) or not isinstance(hours, dict):
        raise Refused("invalid", "weather: about and hours are objects.")
    facts: dict[str, Any] = dict.fromkeys(_FACTS)
    for name, low, high in (
        ("year", 1900, 2150),
        ("latitude_deg", -90, 90),
        ("longitude_deg", -180, 180),
        ("utc_offset_h", -12, 14),
        ("elevation_m", -500, 9000),
    ):
        value = about.get(name)
        if isinstance(value, bool) or not isinstance(value, int | float) or not low <= value <= high:
            raise Refused("invalid", f"weather: about.{name} is a number from {low} to {high}.")
        facts[name] = int(value) if name == "year" else float(value)
    notes = about.get("notes")
    if not isinstance(notes, list) or len(notes) > 50 or not all(isinstance(note, str) for note in notes):
        raise Refused("invalid", "weather: about.notes is a list of texts.")
    facts["notes"] = [note[:500] for note in notes]
    arrays = {}
    for name in ARRAYS:
        values = hours.get(name)
        if not isinstance(values, list) or not all(type(value) in (int, float) for value in values):
            raise Refused("invalid", f"weather: hours.{name} is a list of numbers.")
        if len(values) not in (8760, 8784):
            raise Refused("invalid", f"weather: hours.{name} has {len(values)} values; a year has 8760 or 8784.")
        arrays[name] = np.array(values, dtype=float)
    if len({len(values) for values in arrays.values()}) > 1:
        raise Refused("invalid", "weather: the arrays of hours differ in length.")
    for name in ARRAYS:
        least, most = LIMITS[_QUANTITY[name]]
        outside = np.flatnonzero(~((arrays[name] >= least) & (arrays[name] <= most)))
        if outside.size:
            at = int(outside[0])
            raise Refused(
                "invalid", f"weather: hours.{name}[{at}] is {arrays[name][at]:g}; possible is {least:g} to {most:g}."
            )
    faults = sun_faults(WeatherYear(**(facts | {"notes": ()} | arrays)))
    facts["notes"] += [fault.message for fault in faults if fault.message not in facts["notes"]]
    return facts, _packed(arrays)


def _summary(faults: list[Fault]) -> str:
    first = faults[0]
    where = f"line {first.line}, " if first.line else ""
    more = f" and {len(faults) - 1} more" if len(faults) > 1 else ""
    return f"Nothing was imported: {where}{first.message}{more}."


def _fault(fault: Fault) -> FieldFault:
    place = f"line {fault.line}" if fault.line else "file"
    return FieldFault(place, place, None, fault.message)


def weather_of(project: Project, percent: float) -> dict[str, Any] | None:
    """The kept year with plots and derived conditions; None where there is none.

    Raises:
        Refused: percent is none of 0.4, 1 and 2.
    """
    if percent not in (0.4, 1.0, 2.0):
        raise Refused("invalid", f"percent {percent:g} is none of 0.4, 1 and 2.")
    file = weather_file(project)
    if file is None:
        return None
    year = year_of(file)
    found = derive_conditions(year, percent)
    month_of, dry = year.month_of, year.dry_bulb_c
    ranges = [
        {
            "month": m,
            "low_c": float(dry[month_of == m].min()),
            "mean_c": found.monthly_mean_c[m - 1],
            "high_c": float(dry[month_of == m].max()),
        }
        for m in range(1, 13)
    ]
    counts, t_edges, w_edges = np.histogram2d(dry, year.humidity_ratio * 1000.0, bins=(40, 24))
    return {
        "name": file.name,
        "about": file.about,
        "hours": len(dry),
        "carpet_c": dry.reshape(-1, 24).round(1).tolist(),
        "ranges": ranges,
        "scatter": {
            "temperature_c": t_edges.round(2).tolist(),
            "humidity_g_kg": w_edges.round(3).tolist(),
            "counts": counts.astype(int).tolist(),
        },
        "derived": {
            "percent": percent,
            "months": [asdict(month) for month in found.months],
            "heating_c": list(found.heating_c),
            "winter_wind_m_s": found.winter_wind_m_s,
            "dew_point_c": found.dew_point_c,
            "dew_dry_bulb_c": found.dew_dry_bulb_c,
            "dew_month": found.dew_month,
            "mean_c": found.mean_c,
            "amplitude_k": found.amplitude_k,
            "coldest_month": found.coldest_month,
        },
    }
