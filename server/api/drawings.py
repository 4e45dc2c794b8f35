"""Routes of the drawings that lie under the plan. They stand beside the document, outside undo."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Router, UploadedFile

from api.access import project_of
from api.schemas import DrawingPlace
from api.told.things import DrawingOut
from exchange.apart import read_apart
from exchange.drawings import LARGEST_BYTES, LINES, about, read_drawing
from projects.errors import Refused
from projects.models import Level, LevelDrawing

router = Router()
_PATH = "/projects/{project_id}/levels/{level}/drawing"


def _level(request: HttpRequest, project_id: str, level: str) -> Level:
    return get_object_or_404(Level, pk=level, project=project_of(request, project_id).home)


@router.get("/projects/{project_id}/drawings", response=list[DrawingOut], operation_id="drawings")
def drawings(request: HttpRequest, project_id: str) -> Any:
    """Drawings of all levels, without their bytes."""
    found = LevelDrawing.objects.filter(level__project=project_of(request, project_id).home).defer("data")
    return [about(drawing) for drawing in found]


@router.get(_PATH, operation_id="drawing")
def drawing(request: HttpRequest, project_id: str, level: str) -> HttpResponse:
    """The picture, or lines as JSON."""
    found = get_object_or_404(LevelDrawing, level=_level(request, project_id, level))
    media = "application/json" if found.media_type == LINES else found.media_type
    response = HttpResponse(bytes(found.data), content_type=media)
    response.headers["X-Content-Type-Options"] = "nosniff"
    return response


@router.post(_PATH, response=DrawingOut, operation_id="put_drawing")
def put_drawing(request: HttpRequest, project_id: str, level: str, file: File[UploadedFile]) -> Any:
    """Lay a file under the plan of a level."""
    its = _level(request, project_id, level)
    if (file.size or 0) > LARGEST_BYTES:
        raise Refused("invalid", f"The file is too large; at most {LARGEST_BYTES / 1e6:.0f} MB are read.")
    read = read_apart(read_drawing, file.name or "file", file.read())
    fields = {**vars(read), "name": (file.name or "drawing")[:120], "x_m": 0.0, "y_m": 0.0}
    stored, _ = LevelDrawing.objects.update_or_create(level=its, defaults=fields)
    return about(stored)


@router.put(_PATH, response=DrawingOut, operation_id="place_drawing")
def place_drawing(request: HttpRequest, project_id: str, level: str, body: DrawingPlace) -> Any:
    """Scale and move it, and choose the layers that are shown."""
    found = get_object_or_404(LevelDrawing, level=_level(request, project_id, level))
    found.m_per_unit, found.x_m, found.y_m = body.m_per_unit, body.x_m, body.y_m
    if body.hidden_layers is not None:
        unknown = [layer for layer in body.hidden_layers if layer not in found.layers]
        if unknown:
            raise Refused("invalid", f"The drawing has no layer {unknown[0][:80]!r}.")
        found.hidden_layers = body.hidden_layers
    found.save(update_fields=["m_per_unit", "x_m", "y_m", "hidden_layers"])
    return about(found)


@router.delete(_PATH, response={204: None}, operation_id="remove_drawing")
def remove_drawing(request: HttpRequest, project_id: str, level: str) -> Any:
    """Take it away."""
    LevelDrawing.objects.filter(level=_level(request, project_id, level)).delete()
    return 204, None
