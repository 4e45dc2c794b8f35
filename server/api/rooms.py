"""Routes of rooms in and out of files."""

from dataclasses import asdict
from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils.http import content_disposition_header
from ninja import Field, File, Form, Router, Schema, UploadedFile

from api.answers import answer, applied
from calculations.service import whole
from exchange.apart import read_apart
from exchange.loads import loads_table
from exchange.rooms.files import LARGEST_MODEL_BYTES, MEDIA_TYPES, is_table, read_rooms, write_rooms
from exchange.rooms.incoming import Comparison
from exchange.rooms.numbers import give_numbers
from projects.changes import apply_changes
from projects.document import Document, load_document
from projects.errors import Refused
from projects.models import Project

router = Router()


def _document(request: HttpRequest, project_id: str) -> Document:
    return load_document(get_object_or_404(Project, pk=project_id, owner=request.user))


class Reading(Schema):
    """How a file with rooms is read."""

    numbered: bool = Field(False, description="Rooms without a number get the next free one.")
    separator: str = Field("", description="Of a CSV's columns: comma, semicolon or tab; empty: found.")
    decimal: str = Field("", description="Of a CSV's decimals: point or comma; empty: found.")


def _compared(document: Document, file: UploadedFile, how: Reading) -> Comparison:
    name = file.name or "file"
    if (file.size or 0) > LARGEST_MODEL_BYTES:
        raise Refused("invalid", f"{name} is too large; at most {LARGEST_MODEL_BYTES / 1e6:.0f} MB are read.")
    incoming = read_apart(read_rooms, name, file.read(), how.separator, how.decimal)
    if how.numbered:
        give_numbers(incoming.rooms, {room["number"] for room in document.of("room").values()})
    return Comparison(document, incoming)


@router.post("/projects/{project_id}/rooms/read", response=dict[str, Any], operation_id="read_rooms")
def read(request: HttpRequest, project_id: str, file: File[UploadedFile], how: Form[Reading]) -> Any:
    """How a file's rooms differ from the project's; nothing is changed."""
    document = _document(request, project_id)
    found = _compared(document, file, how)
    return answer(
        {
            "rows": [asdict(row) for row in found.rows],
            "notes": found.notes,
            "version": document.version,
            "table": is_table(file.name or ""),
        }
    )


@router.post("/projects/{project_id}/rooms/take", response=dict[str, Any], operation_id="take_rooms")
def take(
    request: HttpRequest, project_id: str, file: File[UploadedFile], taken: Form[str], base_version: Form[int],
    how: Form[Reading],
) -> Any:  # fmt: skip
    """Take chosen rows of a file, in one step, read as it was looked at."""
    document = _document(request, project_id)
    try:
        keys = orjson.loads(taken)
    except orjson.JSONDecodeError:
        keys = None
    if not isinstance(keys, list) or not all(isinstance(key, str) for key in keys):
        raise Refused("invalid", "taken: a list of row keys is needed.")
    changes = _compared(document, file, how).changes(keys)
    if not changes:
        raise Refused("nothing", "None of the chosen rows changes anything.")
    label = f"{len(keys)} rooms of {file.name}"[:160]
    _, after, touched = apply_changes(project_id, request.user, changes, label, base_version)
    return applied(request, after, touched, base_version)


@router.get("/projects/{project_id}/rooms.{form}", operation_id="rooms_file")
def rooms_file(request: HttpRequest, project_id: str, form: str, units: str = "SI") -> HttpResponse:
    """All rooms as a file: xlsx, csv, gbxml or ifc."""
    document = _document(request, project_id)
    data = write_rooms(document, form, "IP" if units == "IP" else "SI")
    response = HttpResponse(data, content_type=MEDIA_TYPES[form])
    return _named(response, document, f"rooms.{'xml' if form == 'gbxml' else form}")


@router.get("/projects/{project_id}/loads.{form}", operation_id="loads_file")
def loads_file(request: HttpRequest, project_id: str, form: str, units: str = "SI") -> HttpResponse:
    """Loads of rooms, levels, zones, uses, systems and the building as a file: xlsx or csv."""
    document = _document(request, project_id)
    data = loads_table(document, whole(document), form, "IP" if units == "IP" else "SI")
    return _named(HttpResponse(data, content_type=MEDIA_TYPES[form]), document, f"loads.{form}")


def _named(response: HttpResponse, document: Document, name: str) -> HttpResponse:
    full = f"{document.one('project')['name']}, {name}"
    response.headers["Content-Disposition"] = content_disposition_header(True, full) or "attachment"
    return response
