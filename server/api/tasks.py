"""Routes of long work: what is under way, how far it is, its result, and stopping it."""

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema

from api.answers import answer
from api.told.tasks import TaskResult
from projects.errors import Refused
from tasks.asking import cancel
from tasks.models import Task
from tasks.progress import end_left_over

router = Router()
_LISTED = 20


class TaskProblem(Schema):
    """Why a task failed, as an answer would say it."""

    code: str
    title: str
    faults: list[dict[str, Any]]


class TaskOut(Schema):
    """A piece of long work."""

    id: str
    kind: str
    title: str
    state: Literal["waiting", "running", "done", "failed", "cancelled"]
    progress: float = Field(description="Share that is done, 0 to 1.")
    doing: str = Field(description="What is being done just now.")
    created: datetime
    ended: datetime | None
    error: TaskProblem | None


def owned_task(request: HttpRequest, task_id: str) -> Task:
    """A task of the one who asks."""
    found: Task = get_object_or_404(Task, pk=task_id, owner=request.user)
    return found


@router.get("/projects/{project_id}/tasks", response=list[TaskOut], operation_id="tasks")
def tasks(request: HttpRequest, project_id: str) -> Any:
    """The latest tasks of a project, the newest first."""
    end_left_over()
    found = (
        Task.objects.filter(project_id=project_id, owner=request.user)
        .exclude(kind=Task.POINT)
        .defer("result", "inputs")
    )
    return list(found[:_LISTED])


@router.get("/tasks/{task_id}", response=TaskOut, operation_id="task")
def task(request: HttpRequest, task_id: str) -> Any:
    """How far a task is."""
    end_left_over()
    return get_object_or_404(Task.objects.defer("result", "inputs"), pk=task_id, owner=request.user)


@router.get("/tasks/{task_id}/result", response=TaskResult, operation_id="task_result")
def result(request: HttpRequest, task_id: str) -> Any:
    """What a task that is done has found."""
    found = owned_task(request, task_id)
    if found.state != Task.DONE:
        raise Refused("nothing", f"{found.title} is {found.state}; it has no result.")
    return answer(found.result or {})


@router.post("/tasks/{task_id}/cancel", response=TaskOut, operation_id="cancel_task")
def stop(request: HttpRequest, task_id: str) -> Any:
    """Stop a task: one that waits at once, one at work at its next step."""
    found = owned_task(request, task_id)
    cancel(found)
    return found
