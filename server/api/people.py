"""Routes of signing in, and of the people of a project."""

from typing import Annotated, Any, Literal

from django.contrib.auth import get_user_model, login
from django.http import HttpRequest
from ninja import Router
from ninja.security import SessionAuth
from pydantic import Field

from accounts.forgotten import send_link, set_by_link
from accounts.invitations import come_in, invitation_of, invite, new_account, waiting
from accounts.models import Invitation, Member
from accounts.presence import note
from accounts.signing import change_password, note_try, refuse_too_often, sign_in, sign_out
from api.access import owned, project_of
from api.schemas import Strict
from api.told.things import CameIn, HereOut, InvitationOut, InvitedOut, PersonOut, SignedIn
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


class Forgotten(Strict):
    name: Annotated[str, Field(min_length=1, max_length=254, description="Of the account, or its mail address")]


class ByLink(Strict):
    person: Annotated[str, Field(max_length=40)]
    token: Annotated[str, Field(max_length=80)]
    new: Password


class InvitationIn(Strict):
    address: Annotated[str, Field(min_length=3, max_length=254)]
    role: Literal["editor", "reader"]


class ComeIn(Strict):
    """Empty for somebody who is signed in; else the account to be made."""

    name: Annotated[str, Field(max_length=150)] = ""
    password: Password = ""


class HereIn(Strict):
    window: Annotated[str, Field(pattern=r"^[0-9a-f]{12}$")]
    stage: Annotated[str, Field(max_length=24)]


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


@router.post("/password/forgotten", auth=Anybody(csrf=True), response={204: None}, operation_id="forgot_password")
def forgotten(request: HttpRequest, body: Forgotten) -> Any:
    """Send a link for a new password to the account's mail address; the answer does not tell whether there is one."""
    # Counted apart from wrong passwords: who has tried those five times is who needs the link.
    name = body.name.strip()
    refuse_too_often(request, f"link for {name.casefold()}")
    note_try(request, f"link for {name.casefold()}")
    send_link(name, request.build_absolute_uri("/"))
    return 204, None


@router.post("/password/by-link", auth=Anybody(csrf=True), response={204: None}, operation_id="password_by_link")
def by_link(request: HttpRequest, body: ByLink) -> Any:
    """A new password by the link of a mail."""
    refuse_too_often(request, body.person)
    note_try(request, body.person)
    set_by_link(body.person, body.token, body.new)
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


def _invitations(project: Project) -> list[dict[str, str]]:
    rows = waiting(project)
    return [{"address": row.address, "role": row.role, "created": row.created.isoformat()} for row in rows]


@router.get("/projects/{project_id}/invitations", response=list[InvitationOut], operation_id="invitations")
def invitations(request: HttpRequest, project_id: str) -> Any:
    """Who is asked into a project and has not come in yet."""
    return _invitations(owned(request, project_id).home)


@router.post("/projects/{project_id}/invitations", response=list[InvitationOut], operation_id="invite")
def inviting(request: HttpRequest, project_id: str, body: InvitationIn) -> Any:
    """Ask a mail address into a project; who has no account makes one by the link."""
    project = owned(request, project_id).home
    invite(project, body.address, body.role, request.user, request.build_absolute_uri("/"))
    return _invitations(project)


@router.delete("/projects/{project_id}/invitations/{address}", response=list[InvitationOut], operation_id="uninvite")
def uninviting(request: HttpRequest, project_id: str, address: str) -> Any:
    """Withdraw an invitation: its link no longer counts."""
    project = owned(request, project_id).home
    Invitation.objects.filter(project=project, address=address.lower()).delete()
    return _invitations(project)


@router.get("/invited/{token}", auth=Anybody(csrf=True), response=InvitedOut, operation_id="invitation")
def invited(request: HttpRequest, token: str) -> Any:
    """What an invitation's link stands for."""
    found = invitation_of(token)
    return {
        "project": found.project.name,
        "role": found.role,
        "address": found.address,
        "by": found.invited_by.get_username(),
        "user": request.user.get_username(),
    }


@router.post("/invited/{token}", auth=Anybody(csrf=True), response=CameIn, operation_id="come_in")
def coming_in(request: HttpRequest, token: str, body: ComeIn) -> Any:
    """Come into a project by an invitation: as who is signed in, or with a new account."""
    found = invitation_of(token)
    user = request.user
    if body.name or not user.is_authenticated:
        user = new_account(found, body.name.strip(), body.password)
        login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    project = come_in(found, user)
    return {"id": project.id, "user": user.get_username()}


@router.post("/projects/{project_id}/here", response=list[HereOut], operation_id="here")
def here(request: HttpRequest, project_id: str, body: HereIn) -> Any:
    """Say which stage a window shows, and hear who else has the project open."""
    return note(project_of(request, project_id, reading=True), request.user, body.window, body.stage)
