"""Years of hours that a project keeps, and the one that it goes by."""

import io
from collections.abc import Sequence
from typing import Any

import numpy as np
from django.db import transaction
from django.db.models import Q

from pendrum_core.weather.year import WeatherYear
from projects.errors import Refused
from projects.models import Project, WeatherFile
from projects.starter import new_id

MOST_FILES = 8
ARRAYS = ("dry_bulb_c", "relative_humidity", "pressure_pa", "wind_m_s", "global_w_m2", "beam_w_m2", "diffuse_w_m2")


@transaction.atomic
def keep_weather(project: Project, name: str, about: dict[str, Any], hours: bytes, chosen: bool = True) -> None:
    """Keep a year beside the others, in the place of one of the same name; where it is chosen the project goes by it from now on.

    Raises:
        Refused: as many are kept already as can be.
    """
    own = WeatherFile.objects.filter(project=project)
    if own.exclude(name=name[:120]).count() >= MOST_FILES:
        raise Refused("conflict", f"{MOST_FILES} weather files are kept with this project; remove one first.")
    own.filter(name=name[:120]).delete()
    if chosen:
        own.update(chosen=False)
    WeatherFile.objects.create(id=new_id(), project=project, name=name[:120], about=about, hours=hours, chosen=chosen)


def weather_files(project: Project) -> Sequence[WeatherFile]:
    """What a project keeps and, of an option, what its base does, without their hours; its own first, by name."""
    found = WeatherFile.objects.filter(Q(project=project) | Q(project_id=project.base_id)).defer("hours")
    return sorted(found, key=lambda file: (file.project_id != project.pk, file.name))


def weather_file(project: Project) -> WeatherFile | None:
    """The year that a project goes by: its own, or that of its base."""
    chosen = WeatherFile.objects.filter(chosen=True)
    return chosen.filter(project=project).first() or chosen.filter(project_id=project.base_id).first()


@transaction.atomic
def choose_weather(project: Project, identity: str | None) -> None:
    """Go by one of the project's own files from now on; None: by none, an option then by its base's.

    Raises:
        Refused: it is none of the project's own.
    """
    own = WeatherFile.objects.filter(project=project)
    if identity is not None and not own.filter(pk=identity).exists():
        raise Refused("not_found", "Weather file: this project keeps no such file.")
    own.update(chosen=False)
    own.filter(pk=identity).update(chosen=True)


def forget_weather(project: Project, identity: str) -> None:
    """Remove one of the project's own files.

    Raises:
        Refused: it is none of them.
    """
    if not WeatherFile.objects.filter(project=project, pk=identity).delete()[0]:
        raise Refused("not_found", "Weather file: this project keeps no such file.")


def weather_key(project: Project) -> str:
    """What tells one weather of a project from another; empty where there is no file."""
    file = weather_file(project)
    return "" if file is None else file.pk


def year_of(file: WeatherFile) -> WeatherYear:
    """The kept hours as the core takes them."""
    with np.load(io.BytesIO(bytes(file.hours))) as packed:
        arrays = {name: packed[name].astype(float) for name in ARRAYS}
    about = dict(file.about)
    return WeatherYear(**{**about, "notes": tuple(about["notes"])}, **arrays)
