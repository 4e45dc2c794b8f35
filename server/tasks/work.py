"""Doing a task: its kind's work, and a record of how it ended."""

import logging
import secrets
from collections.abc import Callable
from dataclasses import asdict
from typing import Any

from projects.errors import Refused
from tasks import files
from tasks.kinds import KINDS
from tasks.models import Task
from tasks.progress import Cancelled, Progress, ended

_log = logging.getLogger("pendrum.tasks")
Work = Callable[[Task, Progress], dict[str, Any]]


def work_on(identity: str) -> None:
    """Do a task that waits; one that was cancelled before is left."""
    started = Task.objects.filter(pk=identity, state=Task.WAITING, cancel_asked=False).update(state=Task.RUNNING)
    if not started:
        ended(identity, Task.CANCELLED)
        return
    task = Task.objects.get(pk=identity)
    try:
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


def end_left_over() -> None:
    """Tasks that a worker before left unfinished are over."""
    title = "The server was ended while this was at work. Start it again."
    problem = {"code": "fault", "title": title, "faults": []}
    for task in Task.objects.filter(state=Task.RUNNING):
        ended(task.pk, Task.FAILED, error=problem, doing="")
