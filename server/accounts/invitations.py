"""Asking somebody by mail into a project: asked, withdrawn, and come in."""

import logging
import secrets
from datetime import timedelta

from django.contrib.auth import get_user_model
from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.core.validators import validate_email
from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.http import Http404
from django.utils import timezone

from accounts.models import Invitation, Member
from accounts.signing import refuse_weak
from accounts.tokens import digest
from projects.errors import FieldFault, Refused
from projects.models import Project

STANDS = timedelta(days=14)
MOST = 50  # that wait in a project
_log = logging.getLogger("pendrum.mail")
_ROLES = {Member.EDITOR: "work in it", Member.READER: "read it"}


def _that_count() -> "QuerySet[Invitation]":
    return Invitation.objects.filter(created__gte=timezone.now() - STANDS)


def waiting(project: Project) -> "QuerySet[Invitation]":
    """Invitations into a project that still count."""
    return _that_count().filter(project=project)


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
    if waiting(project).exclude(address=address).count() >= MOST:
        raise Refused("invalid", f"{MOST} invitations wait already; withdraw one.")
    token = secrets.token_urlsafe(32)
    text = (
        f"{by.get_username()} would like you to {_ROLES[role]}: {project.name}, in Pendrum.\n\n"
        f"Come in by this link within {STANDS.days} days:\n{page}invited/{token}\n\n"
        "If this means nothing to you, do nothing.\n"
    )
    told = {"role": role, "invited_by": by, "digest": digest(token), "created": timezone.now()}
    try:
        with transaction.atomic():
            found, _ = Invitation.objects.update_or_create(project=project, address=address, defaults=told)
            send_mail(f"{by.get_username()} asks you into {project.name}", text, None, [address])
    except OSError as error:
        _log.exception("a mail with an invitation could not be sent")
        raise Refused("busy", "The mail could not be sent; nobody was invited. Try again later.") from error
    return found


def invitation_of(token: str) -> Invitation:
    """The invitation that a link stands for.

    Raises:
        Http404: there is none, it is withdrawn, used, or too old.
    """
    invitation = _that_count().select_related("project", "invited_by").filter(digest=digest(token)).first()
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
    except ValidationError as error:
        fault = FieldFault("name", "name", name, "no name")
        raise Refused("invalid", f"Name {name!r}: {' '.join(error.messages)}", [fault]) from error
    refuse_weak(password, user, "password", "Password")
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
