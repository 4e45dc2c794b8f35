"""Asking for a task, and stopping it."""

from typing import Any

from projects.errors import Refused
from projects.models import Project
from projects.starter import new_id
from tasks import files
from tasks.models import Task
from tasks.progress import ended
from tasks.queue import enqueue

MOST_OPEN, KEPT = 20, 30  # of one person at a time, and of a project on record


def ask(owner: Any, project: Project, kind: str, title: str, inputs: dict[str, Any], upload: bytes) -> Task:
    """Put a task on record and into the queue.

    Raises:
        Refused: too many of the owner's are not done yet.
    """
    if Task.objects.filter(owner=owner, state__in=Task.OPEN).exclude(kind=Task.POINT).count() >= MOST_OPEN:
        raise Refused("conflict", f"{MOST_OPEN} tasks are not done yet; wait for them, or cancel some.")
    identity = new_id()
    files.put_upload(identity, upload)
    task = put(owner, project, kind, title, inputs, identity)
    _tidy(project)
    enqueue(identity)
    try:
        task.refresh_from_db()
    except Task.DoesNotExist:  # it went with its project
        raise Refused("not_found", "This project was deleted meanwhile.") from None
    return task


def put(owner: Any, project: Project, kind: str, title: str, inputs: dict[str, Any], identity: str) -> Task:
    """Put a task on record; it waits until it is put into the queue."""
    return Task.objects.create(id=identity, owner=owner, project=project, kind=kind, title=title[:200], inputs=inputs)


def cancel(task: Task) -> None:
    """Stop a task: one that waits at once, one at work at its next step."""
    Task.objects.filter(pk=task.pk).update(cancel_asked=True)
    if Task.objects.filter(pk=task.pk, state=Task.WAITING).exists():
        ended(task.pk, Task.CANCELLED)
    task.refresh_from_db()


def _tidy(project: Project) -> None:
    """Old tasks of a project go, with their files."""
    for task in Task.objects.filter(project=project).exclude(state__in=Task.OPEN).exclude(kind=Task.POINT)[KEPT:]:
        files.forget(task.pk)
        task.delete()
