"""Routes of projects as a whole."""

from typing import Any, Literal

import orjson
from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import File, Router, UploadedFile
from pydantic import BaseModel

from api.access import owned, project_of, projects_of
from api.bodies import refuse_deep
from api.schemas import NewProject, ProjectOut, Strict
from exchange.attachments import attached_to, project_from_file
from projects.document import load_document
from projects.errors import Refused
from projects.models import Project
from projects.starter import create_project
from projects.whole import as_file, file_schema

router = Router()
_LARGEST_BYTES = 40_000_000


class ProjectState(Strict):
    state: Literal["open", "archived", "deleted"]


class ListedProject(BaseModel):
    id: str
    name: str
    version: int
    state: str


def _content(project: Project) -> dict[str, Any]:
    return as_file(load_document(project)) | attached_to(project)


def _out(project: Project) -> dict[str, Any]:
    return {"id": project.id, "name": project.name, "version": project.version}


@router.get("/projects", response=list[ListedProject], operation_id="projects")
def projects(request: HttpRequest) -> Any:
    """All projects of the signed-in engineer, archived and deleted ones too."""
    found = projects_of(request)
    return [_out(project) | {"state": project.state} for project in found]


@router.post("/projects", response={201: ProjectOut}, operation_id="create_project")
def new_project(request: HttpRequest, body: NewProject) -> Any:
    """Start an empty project."""
    return 201, _out(create_project(request.user, body.name))


@router.post("/projects/{project_id}/copy", response={201: ProjectOut}, operation_id="copy_project")
def copy(request: HttpRequest, project_id: str, body: NewProject) -> Any:
    """A second project of the same content, without its history."""
    project = project_of(request, project_id, reading=True)
    return 201, _out(project_from_file(request.user, _content(project), body.name))


@router.put("/projects/{project_id}/state", response=ListedProject, operation_id="set_project_state")
def set_state(request: HttpRequest, project_id: str, body: ProjectState) -> Any:
    """Archive a project, delete it, or bring it back."""
    project = project_of(request, project_id)
    if project.base_id is None:
        project = owned(request, project_id)
    project.state = body.state
    project.save(update_fields=["state"])
    return _out(project) | {"state": project.state}


@router.get("/projects/{project_id}/project.json", operation_id="project_file")
def project_file(request: HttpRequest, project_id: str) -> HttpResponse:
    """The whole project as one file."""
    project = project_of(request, project_id)
    data = orjson.dumps(_content(project), option=orjson.OPT_INDENT_2)
    response = HttpResponse(data, content_type="application/json")
    response.headers["Content-Disposition"] = content_disposition_header(True, f"{project.name}.json") or "attachment"
    return response


@router.post("/projects/file", response={201: ProjectOut}, operation_id="project_from_file")
def new_from_file(request: HttpRequest, file: File[UploadedFile]) -> Any:
    """A new project of a file."""
    if (file.size or 0) > _LARGEST_BYTES:
        raise Refused("invalid", f"The file is too large; at most {_LARGEST_BYTES / 1e6:.0f} MB are read.")
    try:
        content = orjson.loads(file.read())
    except orjson.JSONDecodeError as error:
        raise Refused("invalid", f"This is no JSON: {error}.") from error
    refuse_deep(content)
    return 201, _out(project_from_file(request.user, content))


@router.get("/project-schema.json", response=dict[str, Any], operation_id="project_schema")
def project_schema(request: HttpRequest) -> Any:
    """JSON Schema of a project's file."""
    return file_schema()
