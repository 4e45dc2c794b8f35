"""The API's routes: parse, permission, action, return."""

from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import NinjaAPI
from ninja.renderers import BaseRenderer
from ninja.security import SessionAuth

from api.problems import install
from api.schemas import (
    AppliedOut,
    ChangeSetIn,
    DocumentOut,
    NewProject,
    ProjectOut,
    ResultsOut,
    SessionOut,
)
from calculations.explanations import working
from calculations.kit import kit_rows
from calculations.place import place_day
from calculations.service import calculated, day_courses, since, system_day, whole
from exchange.kit import kit_csv
from projects.changes import apply_changes
from projects.document import Document, load_document
from projects.errors import Refused
from projects.journal import next_steps, step
from projects.models import Project
from projects.starter import create_project


class Fast(BaseRenderer):
    """orjson, with numpy numbers."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        return orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY)


api = NinjaAPI(
    title="Pendrum",
    version="1",
    auth=SessionAuth(csrf=True),
    renderer=Fast(),
    docs_url=None,
    openapi_url=None,
)
install(api)


def _project(request: HttpRequest, project_id: str) -> Project:
    """The signed-in engineer's project; anything else is not there."""
    return get_object_or_404(Project, pk=project_id, owner=request.user)


def _document(request: HttpRequest, project_id: str) -> Document:
    return load_document(_project(request, project_id))


def _steps(project_id: str) -> dict[str, str | None]:
    steps = next_steps(project_id)
    return {"undo": steps.undo.label if steps.undo else None, "redo": steps.redo.label if steps.redo else None}


def _answer(data: Any, status: int = 200) -> HttpResponse:
    """Answer without validating again what the server itself made: large bodies stay fast."""
    return HttpResponse(
        orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY), content_type="application/json", status=status
    )


def _applied(before: Document, after: Document, touched: list[tuple[str, str]], base_version: int) -> HttpResponse:
    changed: dict[str, list[dict[str, Any]]] = {}
    gone: dict[str, list[str]] = {}
    for kind, identity in touched:
        row = after.of(kind).get(identity)
        if row is None:
            gone.setdefault(kind, []).append(identity)
        else:
            changed.setdefault(kind, []).append(row)
    calculated(before)
    results = since(after, base_version if base_version == before.version else -1, calculated(after))
    return _answer(
        {
            "version": after.version,
            "objects": {"changed": changed, "gone": gone},
            "results": results,
            "steps": _steps(after.project),
        }
    )


@api.get("/session", response=SessionOut, operation_id="session")
def session(request: HttpRequest) -> Any:
    """Who is signed in, and the projects that belong to them."""
    projects = [
        {"id": p.id, "name": p.name, "version": p.version}
        for p in Project.objects.filter(owner=request.user).order_by("created")
    ]
    return {"user": request.user.get_username(), "projects": projects}


@api.post("/projects", response={201: ProjectOut}, operation_id="create_project")
def new_project(request: HttpRequest, body: NewProject) -> Any:
    """Start an empty project."""
    project = create_project(request.user, body.name)
    return 201, {"id": project.id, "name": project.name, "version": project.version}


@api.get("/projects/{project_id}/document", response=DocumentOut, operation_id="document")
def document(request: HttpRequest, project_id: str) -> Any:
    """Everything the engineer entered."""
    found = _document(request, project_id)
    objects = {kind: list(rows.values()) for kind, rows in found.rows.items()}
    return _answer({"version": found.version, "objects": objects, "steps": _steps(project_id)})


@api.post("/projects/{project_id}/changes", response=AppliedOut, operation_id="apply_changes")
def changes(request: HttpRequest, project_id: str, body: ChangeSetIn) -> Any:
    """Apply a change set: all of it or nothing."""
    _project(request, project_id)
    plain = [change.model_dump() for change in body.changes]
    before, after, touched = apply_changes(project_id, request.user, plain, body.label, body.base_version)
    return _applied(before, after, touched, body.base_version)


@api.post("/projects/{project_id}/undo", response=AppliedOut, operation_id="undo")
def undo(request: HttpRequest, project_id: str, base_version: int) -> Any:
    """Take the last edit back."""
    _project(request, project_id)
    before, after, touched, _ = step(project_id, request.user, "undo")
    return _applied(before, after, touched, base_version)


@api.post("/projects/{project_id}/redo", response=AppliedOut, operation_id="redo")
def redo(request: HttpRequest, project_id: str, base_version: int) -> Any:
    """Repeat the edit that was taken back."""
    _project(request, project_id)
    before, after, touched, _ = step(project_id, request.user, "redo")
    return _applied(before, after, touched, base_version)


@api.get("/projects/{project_id}/results", response=ResultsOut, operation_id="results")
def results(request: HttpRequest, project_id: str) -> Any:
    """All results of the present version."""
    return _answer(whole(calculated(_document(request, project_id))))


@api.get("/projects/{project_id}/day", response=dict[str, Any], operation_id="day")
def day(request: HttpRequest, project_id: str, kind: str, subject: str, month: int) -> Any:
    """Courses of a room or group over a summer day."""
    try:
        return _answer(day_courses(calculated(_document(request, project_id)), kind, subject, month))
    except KeyError as error:
        raise Refused("not_found", f"There is no result for {error}.") from error


@api.get("/projects/{project_id}/air/{system}", response=dict[str, Any], operation_id="air_day")
def air(request: HttpRequest, project_id: str, system: str, month: int) -> Any:
    """States along an air path over a summer day."""
    try:
        return _answer(system_day(calculated(_document(request, project_id)), system, month))
    except KeyError as error:
        raise Refused("not_found", f"There is no result for {error}.") from error


@api.get("/projects/{project_id}/place", response=dict[str, Any], operation_id="place_day")
def place(request: HttpRequest, project_id: str, month: int) -> Any:
    """Temperature, humidity and sun of a design day."""
    return _answer(place_day(_document(request, project_id), month))


@api.get("/projects/{project_id}/working", response=dict[str, Any], operation_id="working")
def explained(request: HttpRequest, project_id: str, quantity: str, subject: str) -> Any:
    """How a figure came about."""
    found = _document(request, project_id)
    try:
        return _answer(working(calculated(found), found, quantity, subject))
    except KeyError as error:
        raise Refused("not_found", f"There is no working for {error}.") from error


@api.get("/projects/{project_id}/kit.csv", operation_id="kit_csv")
def kit(request: HttpRequest, project_id: str, system: str = "SI") -> HttpResponse:
    """The kit list as CSV, in "SI" or "IP"."""
    found = _document(request, project_id)
    if system not in ("SI", "IP"):
        raise Refused("invalid", f"system {system!r} is neither SI nor IP.")
    text = kit_csv(kit_rows(calculated(found).results, system))
    response = HttpResponse(text, content_type="text/csv; charset=utf-8")
    response.headers["Content-Disposition"] = 'attachment; filename="kit.csv"'
    return response
