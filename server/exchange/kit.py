"""The kit list as a table in a file."""

import csv
import io
from collections.abc import Iterable

from calculations.kit import KitRow

KIT_HEADER = (
    "tag",
    "item",
    "serves",
    "line",
    "what",
    "figure",
    "unit",
    "when",
    "size",
    "why",
    "pieces",
    "electrical power W",
    "weight kg",
    "state",
    "remark",
)
# Spreadsheet programs run cells that begin so as formulas.
_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def safe_cell(text: str) -> str:
    """A text that no spreadsheet program takes for a formula."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def _is_figure(text: str) -> bool:
    """Whether a cell is a figure, below nought too."""
    return text.replace(".", "", 1).lstrip("-").isdigit()


def kit_csv(rows: Iterable[KitRow]) -> str:
    """The kit list as CSV: a row for each line of each piece's account."""
    target = io.StringIO()
    writer = csv.writer(target)
    writer.writerow(KIT_HEADER)
    for row in rows:
        writer.writerow([cell if _is_figure(cell) else safe_cell(cell) for cell in row])
    return target.getvalue()
