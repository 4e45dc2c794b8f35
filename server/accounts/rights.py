"""What somebody may do in a project."""

from typing import Literal

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser

from accounts.models import Member
from projects.models import Project

Role = Literal["owner", "editor", "reader"]


def role_in(project: Project, user: AbstractBaseUser | AnonymousUser) -> Role | None:
    """The role of somebody in a project or option; None where it is nothing to them."""
    home = project.home
    if home.owner_id == user.pk:
        return "owner"
    found = Member.objects.filter(project=home, user_id=user.pk).values_list("role", flat=True).first()
    if found is None:
        return None
    return "editor" if found == Member.EDITOR else "reader"
