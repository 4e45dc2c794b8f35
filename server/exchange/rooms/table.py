"""Tables of rooms: XLSX and CSV, out with units in the header, in by the header's titles and units."""

import csv
import io
import zipfile
from collections.abc import Iterable, Sequence
from typing import Any

from openpyxl import Workbook, load_workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.datavalidation import DataValidation

from calculations.units import shown, stored, unit
from exchange.kit import safe_cell
from exchange.rooms.columns import COLUMNS, REFERENCES, Column
from exchange.rooms.incoming import Incoming, IncomingRoom
from projects.errors import Refused
from projects.rows import Document, Row

LARGEST_BYTES = 20_000_000
_UNPACKED_BYTES = 200_000_000
_MOST_ROWS, _MOST_COLUMNS = 20_000, 200
_YES, _NO = {"true", "yes", "y", "1", "x"}, {"false", "no", "n", "0", ""}


def _rooms(document: Document) -> list[Row]:
    return sorted(document.of("room").values(), key=lambda row: row["number"])


def _header(column: Column, system: str) -> str:
    return f"{column.title} [{unit(column.quantity, system)}]" if column.quantity else column.title


def _out(document: Document, room: Row, column: Column, system: str) -> Any:
    value = room[column.field]
    if value is None:
        return None
    if column.kind in REFERENCES:
        row = document.of(column.kind).get(value)
        return row["name"] if row else None
    return round(shown(value, column.quantity, system), 6) if column.quantity else value


def rooms_csv(document: Document, system: str) -> str:
    """All rooms as CSV; an empty cell is a value that the room takes over."""
    target = io.StringIO()
    writer = csv.writer(target)
    writer.writerow([_header(column, system) for column in COLUMNS.values()])
    for room in _rooms(document):
        cells = [_out(document, room, column, system) for column in COLUMNS.values()]
        writer.writerow([_plain(cell) for cell in cells])
    return target.getvalue()


def _plain(cell: Any) -> Any:
    if cell is None:
        return ""
    if isinstance(cell, bool):
        return "true" if cell else "false"
    return safe_cell(cell) if isinstance(cell, str) else cell


def rooms_xlsx(document: Document, system: str) -> bytes:
    """All rooms as a workbook with drop-downs of uses, levels and systems."""
    book = Workbook()
    sheet = book.active
    sheet.title = "Rooms"
    lists = book.create_sheet("Lists")
    sheet.append([_header(column, system) for column in COLUMNS.values()])
    rooms = _rooms(document)
    for room in rooms:
        cells = [_out(document, room, column, system) for column in COLUMNS.values()]
        sheet.append([safe_cell(cell) if isinstance(cell, str) else cell for cell in cells])
    last = max(len(rooms) + 1, 2) + 200
    for index, column in enumerate(COLUMNS.values(), start=1):
        letter = get_column_letter(index)
        sheet.column_dimensions[letter].width = max(10, len(_header(column, system)) + 2)
        sheet[f"{letter}1"].font = Font(bold=True)
        if column.kind in REFERENCES:
            names = sorted(row["name"] for row in document.of(column.kind).values())
            for at, name in enumerate(names, start=1):
                lists[f"{letter}{at}"] = safe_cell(name)
            formula = f"Lists!${letter}$1:${letter}${max(1, len(names))}"
        elif column.kind == "yesno":
            formula = '"TRUE,FALSE"'
        else:
            continue
        choice = DataValidation(type="list", formula1=formula, allow_blank=True)
        sheet.add_data_validation(choice)
        choice.add(f"{letter}2:{letter}{last}")
    lists.sheet_state = "hidden"
    sheet.freeze_panes = "C2"
    target = io.BytesIO()
    book.save(target)
    return target.getvalue()


def read_xlsx(data: bytes) -> Incoming:
    """Rooms of the first sheet of a workbook.

    Raises:
        Refused: it is no workbook, unpacks to far more than a table of rooms, or has no column "Number".
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            size = sum(part.file_size for part in archive.infolist())
        if size > _UNPACKED_BYTES:
            raise Refused(
                "invalid", f"The workbook unpacks to {size / 1e6:.0f} MB; at most {_UNPACKED_BYTES / 1e6:.0f} are read."
            )
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        lines = [
            list(row)
            for row in book.worksheets[0].iter_rows(max_row=_MOST_ROWS + 2, max_col=_MOST_COLUMNS, values_only=True)
        ]
    except Refused:
        raise
    except Exception as error:  # openpyxl raises whatever its parts raise on a broken file
        raise Refused("invalid", f"This is no XLSX workbook that can be read ({type(error).__name__}).") from error
    return _incoming(lines, comma=False)


SEPARATORS = {"comma": ",", "semicolon": ";", "tab": "\t"}
DECIMALS = ("point", "comma")


def read_csv(data: bytes, separator: str = "", decimal: str = "") -> Incoming:
    """Rooms of a CSV file; UTF-8, UTF-16 with its mark, or Windows-1252.

    separator: comma, semicolon or tab; empty: the one that stands most often in the first line.
    decimal: point or comma; empty: comma where columns are separated by semicolons.

    Raises:
        Refused: it is no text, or has no column "Number", or a sign is not known.
    """
    for name, value, known in (("separator", separator, tuple(SEPARATORS)), ("decimal", decimal, DECIMALS)):
        if value and value not in known:
            raise Refused("invalid", f"{name} {value[:40]!r} is none of {', '.join(known)}.")
    if separator == decimal == "comma":
        raise Refused("invalid", "Columns and decimals cannot both be marked by a comma.")
    text = _decoded(data)
    first = text.split("\n", 1)[0]
    sign = SEPARATORS.get(separator) or max(",;\t", key=first.count)
    by_comma = decimal == "comma" or (not decimal and sign == ";")
    try:
        lines = list(csv.reader(io.StringIO(text), delimiter=sign))
    except csv.Error as error:
        raise Refused("invalid", f"This CSV file cannot be read: {error}.") from error
    incoming = _incoming(lines, by_comma)
    name = next(name for name, value in SEPARATORS.items() if value == sign)
    incoming.notes.append(f"Columns separated by {name}, decimals marked by {'comma' if by_comma else 'point'}.")
    return incoming


def _decoded(data: bytes) -> str:
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return data.decode("utf-16", errors="replace")
    if b"\x00" in data[:4000]:
        raise Refused("invalid", "This is no text file.")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace")


def _incoming(lines: Sequence[Sequence[Any]], comma: bool) -> Incoming:
    if len(lines) > _MOST_ROWS + 1:
        raise Refused("invalid", f"The table has more than {_MOST_ROWS} rows.")
    head = next((i for i, line in enumerate(lines[:10]) if any(_title(cell) == "number" for cell in line)), None)
    if head is None:
        raise Refused("invalid", "There is no column with the title “Number” in the first ten rows.")
    columns = list(_columns(lines[head]))
    known = {at for at, _, _ in columns}
    unknown = [str(cell).strip() for at, cell in enumerate(lines[head]) if at not in known and _text(cell)]
    notes = [f"Columns that are not read: {', '.join(unknown[:20])}."] if unknown else []
    rooms = []
    for index, line in enumerate(lines[head + 1 :], start=head + 2):
        if any(_text(cell) for cell in line):
            rooms.append(_room(line, columns, f"row {index}", comma))
    return Incoming(rooms, notes=notes)


def _title(cell: Any) -> str:
    return str(cell or "").split("[")[0].strip().casefold()


def _columns(header: Sequence[Any]) -> Iterable[tuple[int, Column, str]]:
    """Place, column and unit system of every title that is known.

    Raises:
        Refused: a title in a unit that is none of its quantity's.
    """
    by_title = {column.title.casefold(): column for column in COLUMNS.values()}
    for place, cell in enumerate(header):
        column = by_title.get(_title(cell))
        if column is None:
            continue
        system = "SI"
        written = str(cell).partition("[")[2].rstrip("] ").strip()
        if column.quantity and written:
            systems = [name for name in ("SI", "IP") if unit(column.quantity, name) == written]
            if not systems:
                known = " or ".join(unit(column.quantity, name) for name in ("SI", "IP"))
                raise Refused("invalid", f"{column.title} is in [{written}]; known is {known}.")
            system = systems[0]
        yield place, column, system


def _text(cell: Any) -> str:
    """A cell as text; the mark that keeps formulas from running is taken off again."""
    text = str(cell).strip() if cell is not None else ""
    return text[1:] if text[:1] == "'" and text[1:2] in ("=", "+", "-", "@") else text


def _room(line: Sequence[Any], columns: Sequence[tuple[int, Column, str]], place: str, comma: bool) -> IncomingRoom:
    room = IncomingRoom("", "", place)
    for at, column, system in columns:
        cell = line[at] if at < len(line) else None
        try:
            value = _value(cell, column, system, comma)
        except ValueError as error:
            room.fault = room.fault or f"{column.title} {_text(cell)!r}: {error}."
            continue
        if column.field == "number":
            room.number = value or ""
        elif column.field == "name":
            room.name = value or ""
        elif column.field == "occupied":
            room.fields["occupied"] = True if value is None else value
        else:
            room.fields[column.field] = value
    return room


def _value(cell: Any, column: Column, system: str, comma: bool) -> Any:
    text = _text(cell)
    if column.kind == "yesno":
        if text == "":
            return None
        if text.casefold() in _YES:
            return True
        if text.casefold() in _NO:
            return False
        raise ValueError("true or false is needed")
    if column.kind == "number":
        if text == "":
            return None
        try:
            figure = float(cell) if isinstance(cell, int | float) else float(text.replace(",", ".") if comma else text)
        except ValueError as error:
            raise ValueError("a number is needed") from error
        if figure != figure or abs(figure) > 1e12:
            raise ValueError("a number is needed")
        return stored(figure, column.quantity, system)
    if isinstance(cell, float) and cell.is_integer():
        return str(int(cell))
    return text or None
