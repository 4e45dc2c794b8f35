"""The kit list as a table in a file."""

import csv
import io
from collections.abc import Iterable

from calculations.kit import KitRow

_HEADER = ("tag", "item", "serves", "duty", "unit", "second duty", "unit", "size", "electrical power W", "state")
# Spreadsheet programs run cells that begin so as formulas.
_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def safe_cell(text: str) -> str:
    """A text that no spreadsheet program takes for a formula."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def kit_csv(rows: Iterable[KitRow]) -> str:
    """The kit list as CSV."""
    target = io.StringIO()
    writer = csv.writer(target)
    writer.writerow(_HEADER)
    for row in rows:
        writer.writerow([safe_cell(cell) for cell in row])
    return target.getvalue()
