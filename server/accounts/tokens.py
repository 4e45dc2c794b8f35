"""Tokens for programs: made, shown once, known again by their digest, withdrawn."""

import secrets
from datetime import timedelta
from hashlib import sha256

from django.contrib.auth.models import AbstractBaseUser
from django.utils import timezone

from accounts.models import AccessToken
from projects.errors import FieldFault, Refused

BEGINS = "pendrum_"  # so that a token in the wrong place is found by a search
MOST = 20
_NOTED_EVERY = timedelta(minutes=1)


def digest(text: str) -> str:
    """What is kept of a secret that is told once."""
    return sha256(text.encode()).hexdigest()


def make_token(user: AbstractBaseUser, name: str) -> tuple[AccessToken, str]:
    """A token of a name, and what is to be shown once.

    Raises:
        Refused: the person has too many.
    """
    if AccessToken.objects.filter(user=user).count() >= MOST:
        raise Refused(
            "invalid", f"There are {MOST} tokens already; withdraw one.", [FieldFault("name", "name", name, "too many")]
        )
    text = BEGINS + secrets.token_urlsafe(32)
    return AccessToken.objects.create(user=user, name=name, digest=digest(text)), text


def user_of(text: str) -> AbstractBaseUser | None:
    """Whose token it is; None where it is nobody's or its person may not come in any more."""
    found = AccessToken.objects.select_related("user").filter(digest=digest(text)).first()
    if found is None or not found.user.is_active:
        return None
    now = timezone.now()
    if found.used is None or now - found.used > _NOTED_EVERY:
        AccessToken.objects.filter(pk=found.pk).update(used=now)
    user: AbstractBaseUser = found.user
    return user
