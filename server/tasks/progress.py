"""What a task tells while it works, and how it learns that it is to stop."""

import time
from collections.abc import Callable
from datetime import timedelta

from django.db.models import Q
from django.db.models.functions import Now
from django.utils import timezone

from tasks.models import Task

_EVERY_S = 0.25
SILENT = timedelta(seconds=30)  # a worker says every five seconds that it is at it (work.py)


class Cancelled(Exception):
    """The task is to stop."""


class Progress:
    """Progress of one task; telling it raises Cancelled where the task was cancelled."""

    def __init__(self, identity: str) -> None:
        self._id = identity
        self._told = 0.0

    def tell(self, share: float, doing: str) -> None:
        """How far it is, 0 to 1, and what is being done.

        Raises:
            Cancelled: it is to stop.
        """
        Task.objects.filter(pk=self._id).update(progress=min(1.0, max(0.0, share)), doing=doing[:200])
        self._told = time.monotonic()
        self.check()

    def within(self, low: float, high: float, doing: str) -> Callable[[float], None]:
        """A function that takes the share of a part of the work, told a few times a second."""

        def part(share: float) -> None:
            if time.monotonic() - self._told >= _EVERY_S:
                self.tell(low + (high - low) * min(1.0, share), doing)

        return part

    def check(self) -> None:
        """Raise Cancelled where the task is to stop."""
        if Task.objects.filter(pk=self._id, cancel_asked=True).exists():
            raise Cancelled


def ended(identity: str, state: str, **fields: object) -> None:
    """Put a task's end on record."""
    Task.objects.filter(pk=identity).update(state=state, ended=Now(), **fields)


def end_left_over() -> None:
    """Tasks whose worker is gone are over: they were at work, and nobody has said for a while that they are."""
    title = "The server was ended while this was at work. Start it again."
    problem = {"code": "fault", "title": title, "faults": []}
    gone = Q(beat__lt=timezone.now() - SILENT) | Q(beat=None)
    for task in Task.objects.filter(gone, state=Task.RUNNING):
        ended(task.pk, Task.FAILED, error=problem, doing="")
