"""Schedules from and to rows of numbers."""

import re
from datetime import date, timedelta
from typing import Any

from calculations.inputs.schedules import holidays, year_plan
from calculations.lookups import Lookups
from pendrum_core.model.schedules import PER_DAY, hourly, pattern_of, plan_of, step_averages
from projects.errors import Refused
from projects.rows import Document

# What the values of each kind are in a file, and headings that say otherwise: share of the figure and what is taken off it first.
UNITS = {"fraction": "fraction", "on_off": "on or off", "temperature": "°C", "w_per_person": "W"}
_HEADINGS = {"%": (0.01, 0.0), "°f": (5.0 / 9.0, 32.0), "degf": (5.0 / 9.0, 32.0)}


def read_values(text: str, document: Document) -> dict[str, Any]:
    """Fields of a schedule from 24, 48, 96, 1440, 8760 or 8784 numbers; the last number of each line counts.

    Numbers are fractions, °C or W; a line of headings that names % or °F has them converted.

    Raises:
        Refused: a line without a number, or another count of them.
    """
    values, scale, offset = [], 1.0, 0.0
    lines = text.strip().splitlines()
    pieces = re.split(r"[;,\t ]+", lines[0].strip()) if len(lines) == 1 else lines
    for line, row in enumerate(pieces, start=1):
        cells = [cell for cell in row.replace(";", ",").replace("\t", ",").split(",") if cell.strip()]
        if not cells:
            continue
        try:
            values.append((float(cells[-1]) - offset) * scale)
        except ValueError:
            if line == 1:
                heading = cells[-1].lower().replace(" ", "")
                scale, offset = next((way for unit, way in _HEADINGS.items() if unit in heading), (1.0, 0.0))
                continue
            raise Refused("invalid", f"Line {line}: {cells[-1].strip()!r} is not a number.") from None
    year = document.one("project")["year"]
    try:
        if len(values) in (8760, 8784):
            plan = plan_of(values, year)
            patterns, base, rules = plan.patterns, plan.base, plan.rules
        else:
            patterns, base, rules = (("a", pattern_of(values)),), "a", ()
    except ValueError as error:
        raise Refused("invalid", f"{len(values)} numbers: {error}.") from None
    return {
        "patterns": [
            {"id": identity, "name": f"Day {index}", "steps": [list(step) for step in pattern.steps]}
            for index, (identity, pattern) in enumerate(patterns, start=1)
        ],
        "base": base,
        "rules": [
            {
                "start": _text(r.start),
                "end": _text(r.end),
                "days": "".join("01"[d] for d in r.days),
                "pattern": r.pattern,
            }
            for r in rules
        ],
    }


def _text(day: tuple[int, int]) -> str:
    return f"{day[0]:02d}-{day[1]:02d}"


def year_csv(document: Document, identity: str) -> tuple[str, str]:
    """Name and text of a schedule's year, one line an hour: date, hour, value.

    Raises:
        Refused: no such schedule.
    """
    row = document.of("schedule").get(identity)
    if row is None:
        raise Refused("not_found", f"There is no schedule {identity!r}.")
    look = Lookups(document)
    year = look.one("project")["year"]
    first = date(year, 1, 1)
    lines = [f"date,hour,value in {UNITS[row['kind']]}"]
    for index, value in enumerate(hourly(year_plan(row), year, holidays(look))):
        lines.append(f"{first + timedelta(index // 24)},{index % 24},{value:.6g}")
    return row["name"], "\r\n".join(lines) + "\r\n"


def pattern_csv(document: Document, identity: str, pattern: str, values: int) -> tuple[str, str]:
    """Name and text of one day pattern in equal steps: time of day, average.

    Raises:
        Refused: no such schedule or pattern, or another number of values than 24, 48, 96 or 1440.
    """
    row = document.of("schedule").get(identity)
    found = next((part for part in row["patterns"] if part["id"] == pattern), None) if row else None
    if row is None or found is None:
        raise Refused("not_found", f"There is no pattern {pattern!r} of a schedule {identity!r}.")
    if values not in PER_DAY:
        raise Refused("invalid", f"values {values} is none of {', '.join(map(str, PER_DAY))} and 8760.")
    averages = step_averages(year_plan(row).pattern(pattern), values)
    width = 1440 // values
    lines = [
        f"time,value in {UNITS[row['kind']]}",
        *(f"{i * width // 60:02d}:{i * width % 60:02d},{v:.6g}" for i, v in enumerate(averages)),
    ]
    return f"{row['name']}, {found['name']}", "\r\n".join(lines) + "\r\n"
