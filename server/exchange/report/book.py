"""A report as a workbook, a sheet for each table, figures as numbers; and as CSV files in one archive."""

import csv
import io
import re
import zipfile
from collections.abc import Iterable, Sequence
from typing import Any

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from exchange.kit import safe_cell
from exchange.report.sheet import Part, Table, head, number

_NOT_IN_NAMES = re.compile(r"[\[\]:*?/\\']")


def tables(parts: Sequence[Part], system: str) -> Iterable[tuple[str, list[str], list[list[Any]]]]:
    """Every table with a name of its own, its heads and its cells; room data sheets stay out, the room list has their figures."""
    seen: set[str] = set()
    for part in parts:
        for block in part.blocks:
            if not isinstance(block, Table) or part.key == "sheets":
                continue
            base = _NOT_IN_NAMES.sub(" ", block.title or part.title)[:28].strip() or "Table"
            name, turn = base, 2
            while name.casefold() in seen:
                name, turn = f"{base[:25]} {turn}", turn + 1
            seen.add(name.casefold())
            cells = [
                [_safe(number(cell, column.quantity, system)) for cell, column in zip(row, block.columns, strict=True)]
                for row in block.rows
            ]
            yield name, [head(column, system) for column in block.columns], cells


def _safe(value: Any) -> Any:
    return safe_cell(value) if isinstance(value, str) else value


def workbook(parts: Sequence[Part], system: str) -> bytes:
    """XLSX."""
    book = Workbook(write_only=True)
    for name, heads, cells in tables(parts, system):
        sheet = book.create_sheet(name)
        sheet.freeze_panes = "A2"
        for at, title in enumerate(heads, start=1):
            sheet.column_dimensions[get_column_letter(at)].width = max(10, min(40, len(title) + 2))
        sheet.append([_bold(sheet, title) for title in heads])
        for row in cells:
            sheet.append(row)
    if not book.worksheets:
        book.create_sheet("Empty")
    target = io.BytesIO()
    book.save(target)
    return target.getvalue()


def _bold(sheet: Any, title: str) -> Any:
    from openpyxl.cell import WriteOnlyCell

    cell = WriteOnlyCell(sheet, value=title)
    cell.font = Font(bold=True)
    return cell


def archive(parts: Sequence[Part], system: str) -> bytes:
    """CSV files in a ZIP; the same bytes for the same tables."""
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as zipped:
        for name, heads, cells in tables(parts, system):
            text = io.StringIO()
            csv.writer(text).writerows([heads, *([("" if cell is None else cell) for cell in row] for row in cells)])
            zipped.writestr(zipfile.ZipInfo(f"{name}.csv"), "\ufeff" + text.getvalue())
    return target.getvalue()
