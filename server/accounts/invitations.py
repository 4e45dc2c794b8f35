"""Asking somebody by mail into a project: asked, withdrawn, and come in."""

import secrets
from datetime import timedelta
from hashlib import sha256

from django.contrib.auth import get_user_model
from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.core.validators import validate_email
from django.db import IntegrityError, transaction
from django.http import Http404
from django.utils import timezone

from accounts.models import Invitation, Member
from projects.errors import FieldFault, Refused
from projects.models import Project

STANDS = timedelta(days=14)
MOST = 50  # that wait in a project
_ROLES = {Member.EDITOR: "work in it", Member.READER: "read it"}


def _digest(token: str) -> str:
    return sha256(token.encode()).hexdigest()


def invite(project: Project, address: str, role: str, by: AbstractBaseUser, page: str) -> Invitation:
    """Ask an address into a project; asked again, the link before no longer counts. `page` is the program's own address.

    Raises:
        Refused: this is no address, or too many wait.
    """
    address = address.strip().lower()
    try:
        validate_email(address)
    except ValidationError as error:
        raise Refused(
            "invalid",
            f"Mail address {address!r}: this is no mail address.",
            [FieldFault("address", "address", address, "no address", "name@place")],
        ) from error
    if project.invitations.exclude(address=address).count() >= MOST:
        raise Refused("invalid", f"{MOST} invitations wait already; withdraw one.")
    token = secrets.token_urlsafe(32)
    found, _ = Invitation.objects.update_or_create(
        project=project,
        address=address,
        defaults={"role": role, "invited_by": by, "digest": _digest(token), "created": timezone.now()},
    )
    send_mail(
        f"{by.get_username()} asks you into {project.name}",
        f"{by.get_username()} would like you to {_ROLES[role]}: {project.name}, in Pendrum.\n\n"
        f"Come in by this link within {STANDS.days} days:\n{page}invited/{token}\n\n"
        "If this means nothing to you, do nothing.\n",
        None,
        [address],
    )
    return found


def invitation_of(token: str) -> Invitation:
    """The invitation that a link stands for.

    Raises:
        Http404: there is none, it is withdrawn, used, or too old.
    """
    since = timezone.now() - STANDS
    found = Invitation.objects.select_related("project", "invited_by").filter(digest=_digest(token), created__gte=since)
    invitation = found.first()
    if invitation is None:
        raise Http404("This invitation does not count any more; ask for a new one.")
    return invitation


def new_account(invitation: Invitation, name: str, password: str) -> AbstractBaseUser:
    """An account for who was invited, with the address that the invitation went to.

    Raises:
        Refused: the name is taken or cannot be one, or the password is weak.
    """
    users = get_user_model()
    user = users(username=name, email=invitation.address)
    try:
        users.username_validator(name)
        validate_password(password, user)
    except ValidationError as error:
        field = "password" if name and "password" in str(error).lower() else "name"
        label = "Password" if field == "password" else "Name"
        raise Refused(
            "invalid", f"{label}: {' '.join(error.messages)}", [FieldFault(field, field, None, "cannot be taken")]
        ) from error
    taken = Refused(
        "invalid", f"Name {name!r} is taken; choose another one.", [FieldFault("name", "name", name, "taken")]
    )
    if users.objects.filter(username__iexact=name).exists():
        raise taken
    user.set_password(password)
    try:
        with transaction.atomic():
            user.save()
    except IntegrityError as error:
        raise taken from error
    return user


def come_in(invitation: Invitation, user: AbstractBaseUser | AnonymousUser) -> Project:
    """Make somebody a member by an invitation, which then no longer counts."""
    project = invitation.project
    if project.owner_id != user.pk:
        Member.objects.update_or_create(project=project, user=user, defaults={"role": invitation.role})
    invitation.delete()
    return project
