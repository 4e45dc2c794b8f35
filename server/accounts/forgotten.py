"""A forgotten password: a link by mail, and a new password by it."""

import logging

from django.contrib.auth import get_user_model
from django.contrib.auth.tokens import default_token_generator
from django.core.mail import send_mail
from django.db.models import Q
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode

from accounts.signing import refuse_weak
from projects.errors import Refused

_log = logging.getLogger("pendrum.mail")


def send_link(name: str, page: str) -> None:
    """Send a link to the address of an account, found by name or address; nothing tells whether there is one.

    The link counts for three days, once, and not after a sign-in or another new password (Django's own tokens).
    """
    users = get_user_model().objects.filter(Q(username__iexact=name) | Q(email__iexact=name), is_active=True)
    for user in users.exclude(email="")[:3]:
        person = urlsafe_base64_encode(str(user.pk).encode())
        link = f"{page}new-password/{person}/{default_token_generator.make_token(user)}"
        text = (
            f"For {user.get_username()} a new password was asked for. Choose it here:\n{link}\n\n"
            "If you did not ask for it, do nothing: the password stays as it is.\n"
        )
        try:
            send_mail("A new password for Pendrum", text, None, [user.email])
        except OSError:  # a mail server that is away; to say so would tell that there is such an account
            _log.exception("a mail with a link for a new password could not be sent")


def set_by_link(person: str, token: str, new: str) -> None:
    """A new password by a link; all sessions of the person end with it.

    Raises:
        Refused: the link does not count, or the password is weak.
    """
    try:
        pk = int(urlsafe_base64_decode(person))
        user = get_user_model().objects.filter(pk=pk, is_active=True).first()
    except (ValueError, OverflowError):
        user = None
    if user is None or not default_token_generator.check_token(user, token):
        raise Refused("not_found", "This link does not count any more; ask for a new one.")
    refuse_weak(new, user, "new", "New password")
    user.set_password(new)
    user.save(update_fields=["password"])
