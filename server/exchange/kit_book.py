"""The kit list as a workbook."""

from collections.abc import Iterable

from calculations.kit import KitRow
from exchange.kit import KIT_HEADER
from exchange.report.book import workbook
from exchange.report.sheet import Cell, Column, Part, Table

_FIGURES = {KIT_HEADER.index(title) for title in ("figure", "pieces", "electrical power W", "weight kg")}


def kit_xlsx(rows: Iterable[KitRow]) -> bytes:
    """XLSX: the same rows as the CSV, figures as numbers."""
    cells: list[list[Cell]] = [
        [float(cell) if at in _FIGURES and cell else cell for at, cell in enumerate(row)] for row in rows
    ]
    table = Table("Kit list", tuple(Column(title) for title in KIT_HEADER), cells)
    return workbook([Part("kit", "Kit list", [table])], "SI")
