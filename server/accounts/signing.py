"""Signing in and out, and passwords."""

from datetime import timedelta

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import AbstractBaseUser
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.http import HttpRequest
from django.utils import timezone

from accounts.models import FailedTry
from projects.errors import FieldFault, Refused

TRIES, WITHIN = 5, timedelta(minutes=15)
TRIES_OF_AN_ADDRESS = 50


def _address(request: HttpRequest) -> str:
    return str(request.META.get("REMOTE_ADDR", ""))[:45]


def note_try(request: HttpRequest, name: str) -> None:
    """Count a wrong try, or another thing that may not be done without end."""
    FailedTry.objects.create(name=name[:150], address=_address(request))


def refuse_too_often(request: HttpRequest, name: str) -> None:
    """Let a name and an address rest after too many tries.

    Raises:
        Refused: there were too many.
    """
    since = timezone.now() - WITHIN
    FailedTry.objects.filter(at__lt=since).delete()
    tries = FailedTry.objects.filter(at__gte=since)
    of_address = tries.filter(address=_address(request)).count()
    if tries.filter(name=name[:150]).count() >= TRIES or of_address >= TRIES_OF_AN_ADDRESS:
        raise Refused("too_often", f"Too often: try again in {WITHIN.seconds // 60} minutes.")


def sign_in(request: HttpRequest, name: str, password: str) -> AbstractBaseUser:
    """Sign somebody in. After five wrong tries a name rests for a quarter of an hour, and so does an address after fifty; what is told does
    not say whether the name is known.

    Raises:
        Refused: wrong, or too often wrong.
    """
    refuse_too_often(request, name)
    user = authenticate(request, username=name, password=password)
    if user is None:
        note_try(request, name)
        raise Refused("sign_in", "Name or password is wrong.")
    login(request, user)
    return user


def sign_out(request: HttpRequest, everywhere: bool) -> None:
    """End this browser's session, or every session of the person."""
    if everywhere:
        own = str(request.user.pk)
        for session in Session.objects.filter(expire_date__gte=timezone.now()).iterator():
            if session.get_decoded().get("_auth_user_id") == own:
                session.delete()
    logout(request)


def refuse_weak(password: str, user: AbstractBaseUser, field: str, label: str) -> None:
    """Hold a password against the rules, for a field of this name and label.

    Raises:
        Refused: it is too short, common, or like the person's name.
    """
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Refused(
            "invalid", f"{label}: {' '.join(error.messages)}", [FieldFault(field, field, None, "weak")]
        ) from error


def change_password(request: HttpRequest, old: str, new: str) -> None:
    """A new password; every other session of the person ends with it.

    Raises:
        Refused: the old one is wrong, or the new one is weak.
    """
    user = request.user
    if not user.check_password(old):
        raise Refused("invalid", "The present password is wrong.", [FieldFault("old", "old", None, "wrong")])
    refuse_weak(new, user, "new", "New password")
    user.set_password(new)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)
