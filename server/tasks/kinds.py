"""What each kind of task does."""

from collections.abc import Callable
from dataclasses import asdict
from typing import Any

from calculations.service import results_of
from calculations.sweep import setting, tried
from calculations.weather import read_year
from calculations.weather_files import keep_weather, weather_file
from calculations.year import bills_of, run_year
from calculations.year_figures import year_figures
from exchange.apart import read_apart
from exchange.report.issue import issue
from exchange.rooms.files import is_table, read_rooms
from exchange.rooms.incoming import Comparison, Incoming
from exchange.rooms.numbers import give_numbers
from projects.document import load_document
from projects.errors import Refused
from projects.models import Project, WeatherFile, WeatherMapping
from tasks import files
from tasks.models import Task
from tasks.progress import Progress
from tasks.years import kept_year


def _project(task: Task) -> Any:
    assert task.project is not None
    return task.project


def read_rooms_task(task: Task, progress: Progress) -> dict[str, Any]:
    """Read a file with rooms and compare it with the project; nothing is changed."""
    name = task.inputs["name"]
    progress.tell(0.02, "reading the file")
    incoming: Incoming = read_apart(
        read_rooms,
        name,
        files.upload(task.pk),
        task.inputs["separator"],
        task.inputs["decimal"],
        waiting=progress.within(0.02, 0.8, "reading the file"),
    )
    progress.tell(0.85, "comparing with the project")
    document = load_document(_project(task))
    if task.inputs["numbered"]:
        give_numbers(incoming.rooms, {room["number"] for room in document.of("room").values()})
    files.put_found(task.pk, incoming)
    found = Comparison(document, incoming)
    return {
        "rows": [asdict(row) for row in found.rows],
        "notes": found.notes,
        "version": document.version,
        "table": is_table(name),
    }


def read_weather_task(task: Task, progress: Progress) -> dict[str, Any]:
    """Read a year of hours and keep it: all of it or nothing."""
    project, layout, kept = _project(task), task.inputs["mapping"], task.inputs["remember"]
    name, site = task.inputs["name"], load_document(project).one("site")
    progress.tell(0.02, "reading the year")
    year = read_apart(
        read_year, name, files.upload(task.pk), site, layout, waiting=progress.within(0.02, 0.9, "reading the year")
    )
    progress.tell(0.95, "keeping the year")
    keep_weather(project, name, *year)
    if layout is not None and kept:
        WeatherMapping.objects.update_or_create(owner=task.owner, name=kept, defaults={"mapping": layout})
    return {"name": name}


def year_task(task: Task, progress: Progress) -> dict[str, Any]:
    """Rooms, systems and plant over the hours of the project's weather."""
    project = _project(task)
    progress.tell(0.01, "sizes of the design days")
    document = load_document(project)
    found, summary = run_year(document, weather_file(project), results_of(document).results, progress.tell)
    files.put_arrays(task.pk, found)
    return summary


def issue_task(task: Task, progress: Progress) -> dict[str, Any]:
    """A report, written and frozen."""
    i = task.inputs
    made = issue(
        _project(task),
        task.owner,
        asked=i["asked"],
        purpose=i["purpose"],
        remarks=i["remarks"],
        years=kept_year,
        tell=progress.tell,
    )
    return {"issue": made.id, "number": made.number}


def year_point_task(task: Task, progress: Progress) -> dict[str, Any]:
    """One year of many, in a few figures; its hours are not kept."""
    inputs, project = task.inputs, Project.objects.filter(pk=task.inputs["option"]).first()
    file = WeatherFile.objects.filter(pk=inputs["weather"]).first() if inputs["weather"] else None
    if project is None or (inputs["weather"] and file is None):
        raise Refused("nothing", "Its option or its weather file was removed meanwhile.")
    progress.tell(0.01, "sizes of the design days")
    document = load_document(project)
    if inputs["field"] is None:
        after, results = document, results_of(document).results
    else:
        after, results = tried(document, [setting(tuple(inputs["field"]), inputs["value"])])
    series, summary = run_year(after, file, results, progress.tell)
    bills = bills_of(after, series, summary["year"])
    return year_figures(summary | {"stale": False}, bills) | {"version": document.version}


KINDS: dict[str, Callable[[Task, Progress], dict[str, Any]]] = {
    "rooms": read_rooms_task,
    "weather": read_weather_task,
    "year": year_task,
    Task.POINT: year_point_task,
    "issue": issue_task,
}
