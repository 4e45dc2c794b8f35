"""Which reader and writer a file gets."""

from exchange.rooms.gbxml import read_gbxml
from exchange.rooms.gbxml_out import rooms_gbxml
from exchange.rooms.ifc import read_ifc, rooms_ifc
from exchange.rooms.incoming import Incoming
from exchange.rooms.table import LARGEST_BYTES, read_csv, read_xlsx, rooms_csv, rooms_xlsx
from projects.errors import Refused
from projects.rows import Document

LARGEST_MODEL_BYTES = 100_000_000
_READERS = {
    "xlsx": read_xlsx,
    "csv": read_csv,
    "txt": read_csv,
    "xml": read_gbxml,
    "gbxml": read_gbxml,
    "ifc": read_ifc,
}
_TABLES = ("xlsx", "csv", "txt")
MEDIA_TYPES = {
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "csv": "text/csv; charset=utf-8",
    "gbxml": "application/xml",
    "ifc": "application/x-step",
}


def read_rooms(name: str, data: bytes, separator: str = "", decimal: str = "") -> Incoming:
    """Rooms of a file, by its ending; `separator` and `decimal` are of CSV files, empty where they are to be found.

    Raises:
        Refused: no such reader, too large, or nothing that can be read.
    """
    ending = name.rpartition(".")[2].casefold()
    reader = _READERS.get(ending)
    if reader is None:
        raise Refused("invalid", f"{name}: rooms are read from XLSX, CSV, gbXML and IFC files.")
    most = LARGEST_BYTES if ending in _TABLES else LARGEST_MODEL_BYTES
    if len(data) > most:
        raise Refused("invalid", f"{name} has {len(data) / 1e6:.0f} MB; at most {most / 1e6:.0f} MB are read.")
    incoming = read_csv(data, separator, decimal) if reader is read_csv else reader(data)
    if not incoming.rooms:
        raise Refused("invalid", f"{name} holds no rooms.")
    return incoming


def is_table(name: str) -> bool:
    """Whether a file is a table of rooms."""
    return name.rpartition(".")[2].casefold() in _TABLES


def write_rooms(document: Document, form: str, system: str) -> bytes:
    """All rooms in a form: xlsx, csv, gbxml or ifc.

    Raises:
        Refused: another form.
    """
    if form == "xlsx":
        return rooms_xlsx(document, system)
    if form == "csv":
        return ("\ufeff" + rooms_csv(document, system)).encode()
    if form == "gbxml":
        return rooms_gbxml(document)
    if form == "ifc":
        return rooms_ifc(document)
    raise Refused("not_found", f"Rooms are not written as {form!r}; known are {', '.join(MEDIA_TYPES)}.")
