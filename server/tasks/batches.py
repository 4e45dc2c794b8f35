"""Many years at once: options, weather and values of a field against each other, each a task that any worker may take."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product
from typing import Any

from calculations.sweep import setting
from calculations.weather_files import weather_files
from pendrum_core.weather.typical import NAME
from projects.document import catch_up, load_document
from projects.errors import Refused
from projects.models import Project
from projects.plan import plan_changes
from projects.starter import new_id
from tasks import files
from tasks.asking import cancel, put
from tasks.models import Task
from tasks.queue import enqueue

MOST_POINTS = 48
TYPICAL = ""  # in place of a weather file's id


@dataclass(frozen=True)
class Asked:
    """Ids of options, the base's own among them, ids of weather files or TYPICAL, and a field with the values to try."""

    options: Sequence[str]
    weathers: Sequence[str]
    field: tuple[str, str, str] | None = None
    values: Sequence[float] = ()


def ask_years(owner: Any, project: Project, asked: Asked) -> None:
    """Put every combination into the queue; those asked for before go.

    Raises:
        Refused: too many or none, one that is not there, a value that the field does not take, or years that are still under way.
    """
    values: Sequence[float | None] = asked.values if asked.field else [None]
    points = list(product(asked.options, asked.weathers, values))
    if not 1 <= len(points) <= MOST_POINTS:
        raise Refused("invalid", f"Years: {len(points)} were asked for; 1 to {MOST_POINTS} are calculated at a time.")
    home, options, weathers = project.home, options_of(project), weathers_of(project)
    for identity in asked.options:
        if identity not in options:
            raise Refused("invalid", f"Options: {identity!r} is none of this project.")
    for identity in asked.weathers:
        if identity not in weathers:
            raise Refused("invalid", f"Weather: {identity!r} is no file of this project.")
    if asked.field is not None:
        for identity in asked.options:
            for value in asked.values:
                plan_changes(load_document(options[identity]), [setting(asked.field, value)])
    _let_go(home)
    batch, tasks = new_id(), []
    for option, weather, at in points:
        told = f"{options[option].name}, {weathers[weather]}" + ("" if at is None else f", {at:g}")
        inputs = {"batch": batch, "option": option, "weather": weather, "field": asked.field, "value": at}
        tasks.append(put(owner, home, Task.POINT, f"Year of {told}", inputs, new_id()))
    for task in tasks:
        enqueue(task.pk)


def _let_go(home: Project) -> None:
    before = Task.objects.filter(project=home, kind=Task.POINT)
    if before.filter(state__in=Task.OPEN).exists():
        raise Refused("conflict", "The years that were asked for before are still under way; stop them first.")
    for identity in before.values_list("pk", flat=True):
        files.forget(identity)
    before.delete()


def options_of(project: Project) -> dict[str, Project]:
    """The base and its options, by id."""
    home = project.home
    return {one.pk: one for one in (home, *Project.objects.filter(base=home, state="open").order_by("created"))}


def weathers_of(project: Project) -> dict[str, str]:
    """Names of the weather there is for the base and any of its options, by id."""
    return {TYPICAL: NAME} | {file.pk: file.name for file in weather_files(project.home)}


def asked_years(project: Project) -> dict[str, Any]:
    """The latest batch: what is tried, and every year with how far it is or what it came to."""
    options, weathers, field, points = options_of(project), weathers_of(project), None, []
    for option in options.values():
        if option.base_id is not None:
            catch_up(option)  # an edit of the base makes its options' years old too
    for task in Task.objects.filter(project=project.home, kind=Task.POINT).order_by("created", "id"):
        inputs, field = task.inputs, task.inputs["field"]
        of = options.get(inputs["option"])
        result = task.result or {}
        points.append(
            {
                "task": task.pk,
                "option": inputs["option"],
                "option_name": of.name if of else "removed",
                "weather": inputs["weather"],
                "weather_name": weathers.get(inputs["weather"], "removed"),
                "value": inputs["value"],
                "state": task.state,
                "progress": task.progress,
                "fault": (task.error or {}).get("title", ""),
                "figures": {k: v for k, v in result.items() if k != "version"} or None,
                "stale": bool(result) and (of is None or of.version != result["version"]),
            }
        )
    return {"field": field and dict(zip(("kind", "id", "field"), field, strict=True)), "points": points}


def stop_years(project: Project) -> None:
    """Stop every year of the batch that is not done."""
    for task in Task.objects.filter(project=project.home, kind=Task.POINT, state__in=Task.OPEN):
        cancel(task)
