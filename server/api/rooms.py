"""Routes of rooms in and out of files."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Field, File, Form, Router, Schema, UploadedFile

from api.access import document_of, project_of
from api.answers import applied
from api.schemas import AppliedOut
from api.tasks import TaskOut, owned_task
from calculations.service import whole
from exchange.loads import loads_table
from exchange.rooms.files import LARGEST_MODEL_BYTES, MEDIA_TYPES, write_rooms
from exchange.rooms.incoming import Comparison
from projects.changes import apply_changes
from projects.errors import Refused
from projects.rows import Document
from tasks import files
from tasks.asking import ask
from tasks.models import Task

router = Router()


class Reading(Schema):
    """How a file with rooms is read."""

    numbered: bool = Field(False, description="Rooms without a number get the next free one.")
    separator: str = Field("", description="Of a CSV's columns: comma, semicolon or tab; empty: found.")
    decimal: str = Field("", description="Of a CSV's decimals: point or comma; empty: found.")


@router.post("/projects/{project_id}/rooms/read", response={202: TaskOut}, operation_id="read_rooms")
def read(request: HttpRequest, project_id: str, file: File[UploadedFile], how: Form[Reading]) -> Any:
    """Find out how a file's rooms differ from the project's: a task, whose result has the rows. Nothing is changed."""
    project = project_of(request, project_id)
    name = (file.name or "file")[-120:]
    if (file.size or 0) > LARGEST_MODEL_BYTES:
        raise Refused("invalid", f"{name} is too large; at most {LARGEST_MODEL_BYTES / 1e6:.0f} MB are read.")
    inputs = how.dict() | {"name": name}
    return 202, ask(request.user, project, "rooms", f"Rooms of {name}", inputs, file.read())


class Taken(Schema):
    """Rows of a file that was read, to be taken."""

    task: str = Field(description="The task that read the file.")
    rows: list[str] = Field(description="Keys of the rows to take.")
    base_version: int


@router.post("/projects/{project_id}/rooms/take", response=AppliedOut, operation_id="take_rooms")
def take(request: HttpRequest, project_id: str, body: Taken) -> Any:
    """Take chosen rows of a file that was read, in one step."""
    document = document_of(request, project_id)
    task = owned_task(request, body.task)
    if task.kind != "rooms" or task.state != Task.DONE or task.project_id != project_id:
        raise Refused("nothing", "This file was not read for this project.")
    changes = Comparison(document, files.found(task.pk)).changes(body.rows)
    if not changes:
        raise Refused("nothing", "None of the chosen rows changes anything.")
    label = f"{len(body.rows)} rooms of {task.inputs['name']}"[:160]
    _, after, touched = apply_changes(project_id, request.user, changes, label, body.base_version)
    return applied(request, after, touched, body.base_version)


@router.get("/projects/{project_id}/rooms.{form}", operation_id="rooms_file")
def rooms_file(request: HttpRequest, project_id: str, form: str, units: str = "SI") -> HttpResponse:
    """All rooms as a file: xlsx, csv, gbxml or ifc."""
    document = document_of(request, project_id)
    data = write_rooms(document, form, "IP" if units == "IP" else "SI")
    response = HttpResponse(data, content_type=MEDIA_TYPES[form])
    return _named(response, document, f"rooms.{'xml' if form == 'gbxml' else form}")


@router.get("/projects/{project_id}/loads.{form}", operation_id="loads_file")
def loads_file(request: HttpRequest, project_id: str, form: str, units: str = "SI") -> HttpResponse:
    """Loads of rooms, levels, zones, uses, systems and the building as a file: xlsx or csv."""
    document = document_of(request, project_id)
    data = loads_table(document, whole(document), form, "IP" if units == "IP" else "SI")
    return _named(HttpResponse(data, content_type=MEDIA_TYPES[form]), document, f"loads.{form}")


def _named(response: HttpResponse, document: Document, name: str) -> HttpResponse:
    full = f"{document.one('project')['name']}, {name}"
    response.headers["Content-Disposition"] = content_disposition_header(True, full) or "attachment"
    return response
