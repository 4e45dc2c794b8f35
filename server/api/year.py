"""Routes of the year: run it, read what it came to, and any of its courses."""

from typing import Any, Literal

import numpy as np
from django.http import HttpRequest, HttpResponse
from ninja import Field, Router, Schema

from api.access import project_of
from api.answers import answer
from api.tasks import TaskOut
from api.told.year import Bill, SeriesOut, YearSummary
from exchange.year import EnergyUnit, Interval, course_csv
from projects.document import load_document
from projects.errors import Refused
from tasks import files
from tasks.asking import ask
from tasks.models import Task
from tasks.years import KIND, kept_year

router = Router()


class YearOut(Schema):
    """The latest year that was worked out, and what is under way."""

    summary: YearSummary | None = Field(
        description="Energy by use and carrier, rooms, systems; none before the first run."
    )
    stale: bool = Field(description="Whether the project has changed since.")
    bills: list[Bill]
    task: TaskOut | None = Field(description="A run that is not done, or the last one where it failed.")


def _latest(request: HttpRequest, project_id: str) -> Task:
    done = Task.objects.filter(project=project_of(request, project_id), kind=KIND, state=Task.DONE).first()
    if done is None:
        raise Refused("nothing", "The year is not calculated yet.")
    return done


@router.post("/projects/{project_id}/year", response={202: TaskOut}, operation_id="run_year")
def run(request: HttpRequest, project_id: str) -> Any:
    """Calculate the year, as a task; one that waits already is told instead."""
    project = project_of(request, project_id)
    waiting = Task.objects.filter(
        project=project, kind=KIND, state__in=Task.OPEN, inputs__version=project.version
    ).first()
    return 202, waiting or ask(request.user, project, KIND, "The year", {"version": project.version}, b"")


@router.get("/projects/{project_id}/year", response=YearOut, operation_id="year")
def year(request: HttpRequest, project_id: str) -> Any:
    """What the year came to."""
    project = project_of(request, project_id)
    runs = Task.objects.filter(project=project, kind=KIND)
    last = runs.defer("result").first()
    under_way = last if last is not None and last.state in (*Task.OPEN, Task.FAILED) else None
    summary, told = kept_year(project, load_document(project))
    return answer(
        {
            "summary": summary and {name: value for name, value in summary.items() if name != "stale"},
            "stale": summary is not None and summary["stale"],
            "bills": list(told),
            "task": under_way and TaskOut.from_orm(under_way).dict(),
        }
    )


def _course(request: HttpRequest, project_id: str, name: str) -> Any:
    task = _latest(request, project_id)
    try:
        with files.arrays(task.pk) as series:
            return series[name]
    except FileNotFoundError as error:
        raise Refused(
            "nothing", "The hours of the last run are not kept any more; calculate the year again."
        ) from error
    except KeyError as error:
        raise Refused("not_found", f"There is no course {name!r} in the year.") from error


@router.get("/projects/{project_id}/year/series", response=SeriesOut, operation_id="year_series")
def series(request: HttpRequest, project_id: str, name: str) -> Any:
    """One course of the year, an hour each, SI."""
    return answer({"name": name, "values": [float(f"{value:.6g}") for value in _course(request, project_id, name)]})


@router.get("/projects/{project_id}/year/series.csv", operation_id="year_series_csv")
def series_csv(
    request: HttpRequest,
    project_id: str,
    name: str,
    interval: Interval = "hour",
    system: Literal["SI", "IP"] = "SI",
    energy: EnergyUnit | None = None,
) -> HttpResponse:
    """One course as CSV: means over the interval in the units asked for, or the energy of a power."""
    values = np.asarray(_course(request, project_id, name), dtype=float)
    told = course_csv(name, values, _latest(request, project_id).result["year"], interval, system, energy)
    response = HttpResponse(told, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="year-{interval}.csv"'
    return response
