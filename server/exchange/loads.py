"""Loads of rooms and of rooms together as a table: CSV and XLSX, figures unrounded, units in the header."""

import csv
import io
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from calculations.units import shown, unit
from exchange.kit import safe_cell
from projects.errors import Refused
from projects.rows import Document, Row

_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
_GROUPS = {"level": "Level", "zone": "Zone", "use": "Use", "air_system": "Air system", "building": "Building"}
_STEP_MIN = 10


@dataclass(frozen=True)
class _Line:
    """One row of the table: its row of the document where it is a room, its loads, and what its air system brings it."""

    kind: str
    room: Row | None
    name: str
    floor_area_m2: float | None
    loads: dict[str, Any]
    supply_m3_s: float | None


@dataclass(frozen=True)
class _Column:
    title: str
    quantity: str
    value: Callable[[_Line], Any]

    def head(self, system: str) -> str:
        return f"{self.title} [{unit(self.quantity, system)}]" if self.quantity else self.title

    def cell(self, line: _Line, system: str) -> Any:
        value = self.value(line)
        if value is None:
            return ""
        if isinstance(value, str):
            return safe_cell(value)
        return round(shown(value, self.quantity, system), 6) if self.quantity else value


def _lines(document: Document, results: dict[str, Any]) -> Iterable[_Line]:
    """Rooms by number, then levels, zones, uses, systems and the building; what could not be calculated is left out."""
    rooms, airflows, systems = results["room"], results.get("airflow", {}), results.get("air_system", {})
    for room in sorted(document.of("room").values(), key=lambda row: row["number"]):
        if room["id"] in rooms:
            supply = airflows.get(room["id"], {}).get("design_m3_s")
            yield _Line("Room", room, room["name"], room["floor_area_m2"], rooms[room["id"]], supply)
    for kind, title in _GROUPS.items():
        for identity, group in results["group"].items():
            if group["kind"] == kind:
                supply = systems.get(identity, {}).get("flow_m3_s") if kind == "air_system" else None
                yield _Line(title, None, group["name"], group["floor_area_m2"], group, supply)


def _peak(key: str) -> Callable[[_Line], Any]:
    """A figure of the cooling peak; none where nothing is cooled."""

    def value(line: _Line) -> Any:
        peak = line.loads["cooling"]
        return peak[key] if peak and peak["sensible_w"] > 0 else None

    return value


def _month(line: _Line) -> str | None:
    month = _peak("month")(line)
    return None if month is None else _MONTHS[month - 1]


def _time(line: _Line) -> str | None:
    step = _peak("step")(line)
    return None if step is None else f"{step * _STEP_MIN // 60:02d}:{step * _STEP_MIN % 60:02d}"


def _by_area(line: _Line) -> float | None:
    peak = _peak("sensible_w")(line)
    return peak / line.floor_area_m2 if peak is not None and line.floor_area_m2 else None


def _own(field: str) -> Callable[[_Line], Any]:
    return lambda line: line.loads[field]


def _of_room(field: str) -> Callable[[_Line], Any]:
    return lambda line: line.loads[field] if line.room else None


def _part(parts: Callable[[_Line], Any], at: int) -> Callable[[_Line], Any]:
    def value(line: _Line) -> Any:
        found = parts(line)
        return None if found is None else found[at]

    return value


def _columns(document: Document, categories: Iterable[str]) -> list[_Column]:
    def place(kind: str) -> Callable[[_Line], Any]:
        def value(line: _Line) -> Any:
            row = document.of(kind).get(line.room[kind]) if line.room else None
            return row["name"] if row else None

        return value

    sources = list(enumerate(categories))
    return [
        _Column("Kind", "", lambda line: line.kind),
        _Column("Number", "", lambda line: line.room["number"] if line.room else None),
        _Column("Name", "", lambda line: line.name),
        *(_Column(_GROUPS[kind], "", place(kind)) for kind in ("level", "zone", "use", "air_system")),
        _Column("Floor area", "area", lambda line: line.floor_area_m2),
        _Column("Cooling, sensible", "load", _peak("sensible_w")),
        _Column("Cooling, latent", "load", _peak("latent_w")),
        _Column("Cooling, total", "load", _peak("total_w")),
        _Column("Month of the cooling peak", "", _month),
        _Column("Time of the cooling peak", "", _time),
        _Column("Cooling, sensible, by area", "power_per_area", _by_area),
        _Column("Cooling with margin", "load", _own("cooling_with_margin_w")),
        _Column("Heating", "load", _own("heating_w")),
        _Column("Heating with margin", "load", _own("heating_with_margin_w")),
        _Column("Supply air", "airflow", lambda line: line.supply_m3_s),
        _Column("Warmest air where nothing cools", "temperature", _of_room("floating_peak_c")),
        *(_Column(f"Cooling by {name}", "load", _part(_peak("parts_w"), at)) for at, name in sources),
        *(_Column(f"Heating by {name}", "load", _part(_own("heating_parts_w"), at)) for at, name in sources),
    ]


def loads_table(document: Document, results: dict[str, Any], form: str, system: str) -> bytes:
    """The loads of a document as a file.

    Args:
        document: What was entered.
        results: Everything worked out for it, as sent to the browser.
        form: "csv" or "xlsx".
        system: "SI" or "IP".

    Raises:
        Refused: another form.
    """
    if form not in ("csv", "xlsx"):
        raise Refused("invalid", f"Loads are written as CSV or XLSX, not as {form!r}.")
    columns = _columns(document, results["categories"])
    heads = [column.head(system) for column in columns]
    cells = [[column.cell(line, system) for column in columns] for line in _lines(document, results["changed"])]
    if form == "xlsx":
        return _workbook(heads, cells)
    text = io.StringIO()
    csv.writer(text).writerows([heads, *cells])
    return ("\ufeff" + text.getvalue()).encode()


def _workbook(heads: list[str], cells: list[list[Any]]) -> bytes:
    book = Workbook()
    sheet = book.active
    sheet.title = "Loads"
    for row in (heads, *cells):
        sheet.append([None if cell == "" else cell for cell in row])
    for at, head in enumerate(heads, start=1):
        letter = get_column_letter(at)
        sheet.column_dimensions[letter].width = max(10, len(head) + 2)
        sheet[f"{letter}1"].font = Font(bold=True)
    sheet.freeze_panes = "D2"
    target = io.BytesIO()
    book.save(target)
    return target.getvalue()
