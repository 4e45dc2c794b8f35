"""What a project carries beside its objects, in its file: the year of weather and the drawings under its plans."""

import base64
import binascii
from typing import Any

import pydantic
from django.db import transaction

from calculations.weather import hours_as_lists, hours_from_lists
from calculations.weather_files import keep_weather, weather_file, weather_files
from exchange.drawings import LARGEST_BYTES, LINES, layers_of
from projects.errors import Refused
from projects.models import LevelDrawing, Project, WeatherFile
from projects.whole import Taken, from_file

_MEDIA = ("image/png", "image/jpeg", LINES)
_SIGNS = {"image/png": b"\x89PNG\r\n\x1a\n", "image/jpeg": b"\xff\xd8\xff"}


class _Drawing(pydantic.BaseModel):
    """A drawing as a file has it; `data` is base64."""

    level: str
    name: str = pydantic.Field(max_length=120)
    media_type: str
    width: float = pydantic.Field(gt=0, lt=1e12, allow_inf_nan=False)
    height: float = pydantic.Field(ge=0, lt=1e12, allow_inf_nan=False)
    m_per_unit: float = pydantic.Field(gt=1e-9, le=1000)
    x_m: float = pydantic.Field(ge=-100_000, le=100_000)
    y_m: float = pydantic.Field(ge=-100_000, le=100_000)
    hidden_layers: list[str] = []
    data: str


def attached_to(project: Project) -> dict[str, Any]:
    """The parts `weather`, `other_weather` and `drawings` of a project's file; only those that there are."""
    found: dict[str, Any] = {}
    weather = weather_file(project)
    if weather is not None:
        found["weather"] = _hours(weather)
    others = [file for file in weather_files(project) if weather is None or file.pk != weather.pk]
    if others:
        found["other_weather"] = [_hours(file) for file in others]
    drawings = LevelDrawing.objects.filter(level__project=project.home)
    if drawings:
        found["drawings"] = [
            {
                "level": drawing.level_id,
                **{name: getattr(drawing, name) for name in _Drawing.model_fields if name not in ("level", "data")},
                "data": base64.b64encode(bytes(drawing.data)).decode(),
            }
            for drawing in drawings
        ]
    return found


def _hours(file: WeatherFile) -> dict[str, Any]:
    return {"name": file.name, "about": file.about, "hours": hours_as_lists(bytes(file.hours))}


@transaction.atomic
def project_from_file(owner: Any, content: Any, name: str | None = None) -> Project:
    """A new project of a file's content, with its weather and drawings.

    Raises:
        Refused: something in the file is not allowed; then no project is made.
    """
    taken = from_file(owner, content, name)
    others = content.get("other_weather") or []
    if not isinstance(others, list):
        raise Refused("invalid", "other_weather: a list is needed.")
    for part in others:
        _keep(taken.project, "other_weather", part, chosen=False)
    if content.get("weather") is not None:
        _keep(taken.project, "weather", content["weather"], chosen=True)
    drawings = content.get("drawings") or []
    if not isinstance(drawings, list):
        raise Refused("invalid", "drawings: a list is needed.")
    for at, part in enumerate(drawings):
        _lay(taken, part, f"drawings/{at}")
    return taken.project


def _keep(project: Project, place: str, part: Any, chosen: bool) -> None:
    if not isinstance(part, dict) or not isinstance(part.get("name"), str):
        raise Refused("invalid", f"{place}: an object with name, about and hours is needed.")
    keep_weather(project, part["name"], *hours_from_lists(part.get("about"), part.get("hours")), chosen=chosen)


def _lay(taken: Taken, part: Any, place: str) -> None:
    try:
        drawing = _Drawing.model_validate(part)
        data = base64.b64decode(drawing.data, validate=True)
    except pydantic.ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(step) for step in first["loc"])
        raise Refused("invalid", f"{place}: {where or 'object'}: {first['msg']}.") from None
    except (binascii.Error, ValueError):
        raise Refused("invalid", f"{place}: data is no base64.") from None
    level = taken.ids.get(("level", drawing.level))
    if level is None:
        raise Refused("invalid", f"{place}: the file has no level {drawing.level!r}.")
    if drawing.media_type not in _MEDIA:
        raise Refused("invalid", f"{place}: media_type {drawing.media_type!r} is none of {', '.join(_MEDIA)}.")
    if len(data) > LARGEST_BYTES:
        raise Refused("invalid", f"{place}: the drawing is larger than {LARGEST_BYTES / 1e6:.0f} MB.")
    if not data.startswith(_SIGNS.get(drawing.media_type, b"")):
        raise Refused("invalid", f"{place}: data is no {drawing.media_type}.")
    layers = layers_of(data, place) if drawing.media_type == LINES else []
    fields = drawing.model_dump(exclude={"level", "data"}) | {"layers": layers}
    LevelDrawing.objects.update_or_create(level_id=level, defaults=fields | {"data": data})
