"""Doing a task: its kind's work, and a record of how it ended."""

import logging
import secrets
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import asdict
from typing import Any

from django.conf import settings
from django.db import DatabaseError, connection
from django.db.models.functions import Now

from projects.errors import Refused
from tasks import files
from tasks.kinds import KINDS
from tasks.models import Task
from tasks.progress import Cancelled, Progress, end_left_over, ended

_log = logging.getLogger("pendrum.tasks")
_BEATS_S = 5.0
Work = Callable[[Task, Progress], dict[str, Any]]


def work_on(identity: str) -> None:
    """Do a task that waits; one that was cancelled before is left."""
    end_left_over()
    started = Task.objects.filter(pk=identity, state=Task.WAITING, cancel_asked=False).update(
        state=Task.RUNNING, beat=Now()
    )
    if not started:
        # Cancelled while it waited; one that another worker is at is that one's.
        if Task.objects.filter(pk=identity, state=Task.WAITING).exists():
            ended(identity, Task.CANCELLED)
        return
    task = Task.objects.get(pk=identity)
    try:
        with _beating(identity):
            result = KINDS[task.kind](task, Progress(identity))
    except Cancelled:
        ended(identity, Task.CANCELLED, doing="")
        files.forget(identity)
    except Refused as error:
        problem = {"code": error.code, "title": error.sentence, "faults": [asdict(fault) for fault in error.faults]}
        ended(identity, Task.FAILED, error=problem, doing="")
    except Exception as error:  # whatever it is, the task ends and says so
        number = secrets.token_hex(4)
        _log.error("fault %s: task %s %s", number, task.kind, identity, exc_info=error)
        title = f"A fault of the program, number {number}. Nothing was changed."
        ended(identity, Task.FAILED, error={"code": "fault", "title": title, "faults": []}, doing="")
    else:
        ended(identity, Task.DONE, result=result, progress=1.0, doing="")


@contextmanager
def _beating(identity: str) -> Iterator[None]:
    """Say now and then that the task is being done, for as long as it is."""
    if settings.QUEUE == "immediate":
        yield  # done where it is asked for: who asks is the one who waits
        return
    over = threading.Event()

    def beat() -> None:
        while not over.wait(_BEATS_S):
            try:
                Task.objects.filter(pk=identity).update(beat=Now())
            except DatabaseError:  # busy, or full: the next beat tells
                _log.warning("task %s could not tell that it goes on", identity)
        connection.close()

    thread = threading.Thread(target=beat, daemon=True)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join()
