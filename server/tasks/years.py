"""The year that was calculated last."""

from collections.abc import Mapping, Sequence
from typing import Any

from calculations.weather_files import weather_key
from calculations.year import bills_of
from projects.models import Project
from projects.rows import Document
from tasks import files
from tasks.models import Task

KIND = "year"


def kept_year(project: Project, document: Document) -> tuple[Mapping[str, Any] | None, Sequence[Mapping[str, Any]]]:
    """Its summary and its bills at the document's prices; none where none is kept. "stale" in the summary: whether inputs have changed since,
    or the weather."""
    done = Task.objects.filter(project=project, kind=KIND, state=Task.DONE).first()
    if done is None:
        return None, ()
    try:
        with files.arrays(done.pk) as series:
            stale = done.result["version"] != document.version or done.result.get("weather_key") != weather_key(project)
            return {**done.result, "stale": stale}, bills_of(document, series, done.result["year"])
    except FileNotFoundError:
        return None, ()
