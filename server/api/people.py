"""Routes of signing in, and of the people of a project."""

from typing import Annotated, Any, Literal

from django.contrib.auth import get_user_model
from django.http import HttpRequest
from ninja import Router
from ninja.security import SessionAuth
from pydantic import Field

from accounts.models import Member
from accounts.signing import change_password, sign_in, sign_out
from api.access import owned
from api.schemas import Strict
from api.told.things import PersonOut, SignedIn
from projects.errors import FieldFault, Refused
from projects.models import Project


class Anybody(SessionAuth):
    """Whoever comes, but from the program's own page."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return True


router = Router()
Password = Annotated[str, Field(max_length=200)]


class SignIn(Strict):
    name: Annotated[str, Field(min_length=1, max_length=150)]
    password: Password


class SignOut(Strict):
    sessions: Literal["this", "all"]


class NewPassword(Strict):
    old: Password
    new: Password


class PersonIn(Strict):
    name: Annotated[str, Field(min_length=1, max_length=150)]
    role: Literal["editor", "reader"]


@router.post("/sign-in", auth=Anybody(csrf=True), response=SignedIn, operation_id="sign_in")
def signing_in(request: HttpRequest, body: SignIn) -> Any:
    """Sign in with name and password."""
    return {"user": sign_in(request, body.name, body.password).get_username()}


@router.post("/sign-out", response={204: None}, operation_id="sign_out")
def signing_out(request: HttpRequest, body: SignOut) -> Any:
    """End this browser's session, or all of the person's."""
    sign_out(request, body.sessions == "all")
    return 204, None


@router.post("/password", response={204: None}, operation_id="set_password")
def password(request: HttpRequest, body: NewPassword) -> Any:
    """A new password for whoever is signed in; their other sessions end."""
    change_password(request, body.old, body.new)
    return 204, None


def _people(project: Project) -> list[dict[str, str]]:
    members = project.members.select_related("user").order_by("user__username")
    return [
        {"name": project.owner.get_username(), "role": "owner"},
        *({"name": member.user.get_username(), "role": member.role} for member in members),
    ]


@router.get("/projects/{project_id}/people", response=list[PersonOut], operation_id="people")
def people(request: HttpRequest, project_id: str) -> Any:
    """Who may read a project or work in it."""
    return _people(owned(request, project_id).home)


@router.put("/projects/{project_id}/people", response=list[PersonOut], operation_id="put_person")
def put_person(request: HttpRequest, project_id: str, body: PersonIn) -> Any:
    """Let somebody who has an account read a project, or work in it."""
    project = owned(request, project_id).home
    user = get_user_model().objects.filter(username__iexact=body.name).first()
    if user is None:
        raise Refused(
            "invalid",
            f"Name {body.name!r}: nobody of this name has an account.",
            [FieldFault("name", "name", body.name, "unknown")],
        )
    if user.pk == project.owner_id:
        raise Refused(
            "invalid", f"{body.name} owns the project already.", [FieldFault("name", "name", body.name, "owner")]
        )
    Member.objects.update_or_create(project=project, user=user, defaults={"role": body.role})
    return _people(project)


@router.delete("/projects/{project_id}/people/{name}", response=list[PersonOut], operation_id="drop_person")
def drop_person(request: HttpRequest, project_id: str, name: str) -> Any:
    """Withdraw what somebody may do."""
    project = owned(request, project_id).home
    Member.objects.filter(project=project, user__username__iexact=name).delete()
    return _people(project)
