"""Routes of a project's history."""

from typing import Any

from django.http import HttpRequest
from ninja import Router

from api.access import project_of
from api.answers import answer, applied
from api.schemas import AppliedOut, Strict
from api.told.things import EntryOut, LineOut
from projects.history import bring_back, difference, entries, take_back

router = Router()
_PATH = "/projects/{project_id}/history"


class Back(Strict):
    base_version: int


@router.get(_PATH, response=list[EntryOut], operation_id="history")
def history(request: HttpRequest, project_id: str, before: int | None = None, author: str = "", kind: str = "") -> Any:
    """Change sets, the latest first."""
    return entries(project_of(request, project_id), before, author, kind)


@router.get(_PATH + "/{version}", response=list[LineOut], operation_id="change_set")
def change_set(request: HttpRequest, project_id: str, version: int) -> Any:
    """What one change set did."""
    return answer(difference(project_of(request, project_id), version))


@router.post(_PATH + "/{version}/take-back", response=AppliedOut, operation_id="take_back")
def taking_back(request: HttpRequest, project_id: str, version: int, body: Back) -> Any:
    """Take one change set back, as a new one."""
    after, touched = take_back(project_of(request, project_id), request.user, version, body.base_version)
    return applied(request, after, touched, body.base_version)


@router.post(_PATH + "/{version}/bring-back", response=AppliedOut, operation_id="bring_back")
def bringing_back(request: HttpRequest, project_id: str, version: int, body: Back) -> Any:
    """Bring the state after a version back, as a new change set."""
    after, touched = bring_back(project_of(request, project_id), request.user, version, body.base_version)
    return applied(request, after, touched, body.base_version)
