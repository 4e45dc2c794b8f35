"""The demo engineer."""

from django.conf import settings
from django.contrib.auth import get_user_model, login
from django.contrib.auth.models import AbstractBaseUser
from django.http import HttpRequest

DEMO_NAME = "demo-engineer"


def demo_engineer() -> AbstractBaseUser:
    """The demo's user, made where it is not there; it has no password and so no other way in."""
    user, made = get_user_model().objects.get_or_create(username=DEMO_NAME)
    if made:
        user.set_unusable_password()
        user.save(update_fields=["password"])
    return user


def sign_in_demo_engineer(request: HttpRequest) -> None:
    """Sign an anonymous visitor in, only where the demo is switched on."""
    if settings.DEMO_SIGN_IN and not request.user.is_authenticated:
        login(request, demo_engineer(), backend="django.contrib.auth.backends.ModelBackend")
