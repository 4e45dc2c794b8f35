"""Who has a project open, and which stage they look at."""

from datetime import timedelta

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.db import IntegrityError
from django.utils import timezone

from accounts.models import Presence
from projects.models import Project

STAYS = timedelta(seconds=20)  # after a window's last word


def note(project: Project, user: AbstractBaseUser | AnonymousUser, window: str, stage: str) -> list[dict[str, str]]:
    """Note that a window shows a stage of a project, and tell who else is there: base and options are one project."""
    home, now = project.home, timezone.now()
    row = Presence(window=window, project=home, user_id=user.pk, stage=stage, seen=now)
    try:
        Presence.objects.bulk_create(
            [row], update_conflicts=True, unique_fields=["window"], update_fields=["project", "user", "stage", "seen"]
        )
    except IntegrityError:  # the project went in this moment
        raise Project.DoesNotExist from None
    Presence.objects.filter(seen__lt=now - 3 * STAYS).delete()
    others = Presence.objects.filter(project=home, seen__gte=now - STAYS).exclude(window=window)
    return [
        {"name": other.user.get_username(), "stage": other.stage}
        for other in others.select_related("user").order_by("user__username", "window")
    ]
