"""Routes of reports and issues."""

from typing import Annotated, Any, Literal

import orjson
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils.http import content_disposition_header
from ninja import Query, Router
from pydantic import Field

from api.access import project_of
from api.schemas import ProjectOut, Strict
from api.tasks import TaskOut
from api.told.things import IssueOut, ReportChoices
from exchange.attachments import project_from_file
from exchange.report.html import PAGES
from exchange.report.issue import MEDIA, PROJECT, checked, file_of, preview
from exchange.report.parts import PARTS
from projects.models import Issue
from tasks.asking import ask
from tasks.years import kept_year

router = Router()


class IssueIn(Strict):
    """A report to be issued."""

    parts: Annotated[list[str], Field(max_length=50)]
    system: Literal["SI", "IP"] = "SI"
    page: str = "A4"
    purpose: Annotated[str, Field(min_length=1, max_length=120)]
    remarks: Annotated[str, Field(max_length=2000)] = ""


@router.get("/report", response=ReportChoices, operation_id="report_choices")
def choices(request: HttpRequest) -> Any:
    """Parts and pages that a report may have."""
    return {"parts": [{"key": key, "title": title} for key, (title, _) in PARTS.items()], "pages": list(PAGES)}


@router.get("/projects/{project_id}/report.html", operation_id="report_preview")
def report(
    request: HttpRequest,
    project_id: str,
    parts: Annotated[list[str], Query()],
    system: Literal["SI", "IP"] = "SI",
    page: str = "A4",
) -> HttpResponse:
    """The pages of a report as they would be issued now."""
    told = preview(project_of(request, project_id), {"parts": parts, "system": system, "page": page}, kept_year)
    return HttpResponse(told, content_type="text/html; charset=utf-8")


@router.post("/projects/{project_id}/issues", response={202: TaskOut}, operation_id="issue_report")
def new_issue(request: HttpRequest, project_id: str, body: IssueIn) -> Any:
    """Write and freeze a report: a task, all of it or nothing."""
    asked = checked(body.model_dump())
    inputs = {"asked": asked, "purpose": body.purpose, "remarks": body.remarks}
    return 202, ask(request.user, project_of(request, project_id), "issue", f"Issue: {body.purpose}", inputs, b"")


@router.get("/projects/{project_id}/issues", response=list[IssueOut], operation_id="issues")
def issues(request: HttpRequest, project_id: str) -> Any:
    """Issues of a project and its options, the last first."""
    home = project_of(request, project_id).home
    return [
        {
            "id": one.id,
            "number": one.number,
            "at": one.at.isoformat(),
            "author": one.author.get_username(),
            "purpose": one.purpose,
            "remarks": one.remarks,
            "option": one.option,
            "version": one.version,
            "asked": one.asked,
            "files": one.files,
        }
        for one in home.issues.select_related("author")
    ]


def _issue(request: HttpRequest, project_id: str, issue_id: str) -> Issue:
    found: Issue = get_object_or_404(Issue, pk=issue_id, project=project_of(request, project_id, reading=True).home)
    return found


@router.get("/projects/{project_id}/issues/{issue_id}/files/{name}", operation_id="issue_file")
def issue_file(request: HttpRequest, project_id: str, issue_id: str, name: str) -> HttpResponse:
    """A file of an issue; it is what was written then, or it is refused."""
    found = _issue(request, project_id, issue_id)
    data = file_of(found, name)
    response = HttpResponse(data, content_type=MEDIA[name])
    stem, _, end = name.partition(".")
    said = f"{found.project.name}, issue {found.number}, {stem}.{end}"
    response.headers["Content-Disposition"] = content_disposition_header(True, said) or "attachment"
    response.headers["ETag"] = f'"{found.files[name]["sha256"]}"'
    return response


@router.post("/projects/{project_id}/issues/{issue_id}/open", response={201: ProjectOut}, operation_id="open_issue")
def open_issue(request: HttpRequest, project_id: str, issue_id: str) -> Any:
    """What was issued as a project of its own, to read it as it was and to go on from it."""
    found = _issue(request, project_id, issue_id)
    made = project_from_file(
        request.user, orjson.loads(file_of(found, PROJECT)), f"{found.project.name}, issue {found.number}"[:120]
    )
    return 201, {"id": made.id, "name": made.name, "version": made.version}
