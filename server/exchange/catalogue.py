"""Catalogues as CSV: item, name, flow in L/s, head or pressure in kPa, output in kW, diameters in mm, weight in kg; a comma, semicolon or tab
between columns. One of made-up products ships with the program (products.csv)."""

import csv
import io
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from exchange.kit import safe_cell
from projects.errors import FieldFault, Refused
from projects.plan import Change
from projects.rows import Document
from projects.starter import new_id

_FIELDS = {
    "flow L/s": ("flow_m3_s", 1e-3),
    "pressure kPa": ("pressure_pa", 1e3),
    "output kW": ("output_w", 1e3),
    "inner mm": ("diameter_m", 1e-3),
    "outer mm": ("outer_m", 1e-3),
    "weight kg": ("weight_kg", 1.0),
}
HEADER = ("item", "name", *_FIELDS)
MOST_BYTES = 5_000_000
_PRODUCTS = Path(__file__).parent / "products.csv"


def made_up_products() -> str:
    """The catalogue of made-up products that ships, as CSV."""
    return _PRODUCTS.read_text(encoding="utf-8")


def catalogue_csv(document: Document) -> str:
    """All rows of the catalogue, by item and size."""
    target = io.StringIO()
    writer = csv.writer(target)
    writer.writerow(HEADER)
    rows = sorted(
        document.of("catalogue_row").values(),
        key=lambda row: (row["item"], row["output_w"], row["flow_m3_s"], row["diameter_m"], row["name"]),
    )
    for row in rows:
        figures = [f"{row[field] / scale:.6g}" if row[field] else "" for field, scale in _FIELDS.values()]
        writer.writerow([row["item"], safe_cell(row["name"]), *figures])
    return target.getvalue()


def _figure(cell: str, column: str, line: int) -> float:
    text = cell.strip().replace("\u00a0", "").replace(" ", "")
    if not text:
        return 0.0
    try:
        return float(text.replace(",", ".") if text.count(",") == 1 and "." not in text else text)
    except ValueError:
        said = f"Line {line}, {column}: {cell.strip()[:40]!r} is not a number."
        raise Refused("invalid", said, [FieldFault(f"line {line}", column, cell, "not a number")]) from None


def _table(text: str) -> tuple[list[str], list[list[str]]]:
    sign = max(";\t,", key=lambda one: text.split("\n", 1)[0].count(one))
    rows = list(csv.reader(io.StringIO(text), delimiter=sign))
    head = [cell.strip().casefold() for cell in rows[0]] if rows else []
    missing = [name for name in ("item", "name") if name not in head]
    if missing:
        raise Refused("invalid", f"The first line has no column {missing[0]!r}; it needs {', '.join(HEADER)}.")
    return head, rows[1:]


def catalogue_changes(document: Document, text: str) -> tuple[list[Change], int]:
    """Changes that put a file's rows in the place of what the catalogue has of the same items, and how many rows it has.

    Raises:
        Refused: a column that is missing, a cell that is no number, or no row at all.
    """
    head, lines = _table(text.removeprefix("\ufeff"))
    places = {name: head.index(name.casefold()) for name in HEADER if name.casefold() in head}
    made: list[Change] = []
    for number, cells in enumerate(lines, start=2):
        if not any(cell.strip() for cell in cells):
            continue
        made.append({"op": "create", "kind": "catalogue_row", "id": new_id(), "fields": _fields(cells, places, number)})
    if not made:
        raise Refused("invalid", "The file has no rows below its first line.")
    items = {change["fields"]["item"] for change in made}
    gone: list[Change] = [
        {"op": "delete", "kind": "catalogue_row", "id": row["id"]}
        for row in document.of("catalogue_row").values()
        if row["item"] in items
    ]
    return gone + made, len(made)


def _fields(cells: Sequence[str], places: dict[str, int], line: int) -> dict[str, Any]:
    def cell(name: str) -> str:
        at = places.get(name, len(cells))
        return cells[at] if at < len(cells) else ""

    figures = {field: _figure(cell(name), name, line) * scale for name, (field, scale) in _FIELDS.items()}
    return {"item": cell("item").strip().casefold(), "name": cell("name").strip().lstrip("'"), **figures}
