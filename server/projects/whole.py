"""Whole projects: copied, and in and out as one open JSON file."""

from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from projects.changes import apply_changes
from projects.document import load_document
from projects.earlier import brought_forward
from projects.errors import FieldFault, Refused
from projects.kinds import KINDS
from projects.models import Project
from projects.plan import Change
from projects.rows import Document
from projects.starter import create_project, new_id

FORM = "pendrum-project"
VERSION = 4
_SINGLE = tuple(name for name, kind in KINDS.items() if kind.about.single)
_MOST_OBJECTS = 200_000
# What stands beside the objects; read and written by the layer above.
_HOURS = ("dry_bulb_c", "relative_humidity", "pressure_pa", "wind_m_s", "global_w_m2", "beam_w_m2", "diffuse_w_m2")
_WEATHER = {
    "type": "object",
    "required": ["name", "about", "hours"],
    "properties": {
        "name": {"type": "string"},
        "about": {
            "type": "object",
            "required": ["year", "latitude_deg", "longitude_deg", "utc_offset_h", "elevation_m", "notes"],
        },
        "hours": {
            "type": "object",
            "required": list(_HOURS),
            "properties": {name: {"type": "array", "items": {"type": "number"}} for name in _HOURS},
        },
    },
}
_DRAWING = {
    "type": "object",
    "required": ["level", "name", "media_type", "width", "height", "m_per_unit", "x_m", "y_m", "data"],
    "properties": {
        "level": {"type": "string"},
        "media_type": {"enum": ["image/png", "image/jpeg", "application/x-pendrum-lines"]},
        "data": {"type": "string", "contentEncoding": "base64"},
    },
}


@dataclass(frozen=True)
class Taken:
    """A project made of a file, and the new id of each object of the file, by kind and old id."""

    project: Project
    ids: dict[tuple[str, str], str]


def as_file(document: Document) -> dict[str, Any]:
    """A project as one object: every row of every kind, references by id."""
    return {
        "format": FORM,
        "version": VERSION,
        "objects": {kind: list(rows.values()) for kind, rows in document.rows.items()},
    }


def file_schema() -> dict[str, Any]:
    """JSON Schema of a project's file."""
    definitions: dict[str, Any] = {}
    kinds = {}
    for name, kind in KINDS.items():
        schema = kind.schema.model_json_schema(ref_template="#/$defs/{model}")
        definitions |= schema.pop("$defs", {})
        schema["properties"] = {"id": {"type": "string", "pattern": "^[A-Za-z0-9._-]{1,40}$"}, **schema["properties"]}
        schema["required"] = ["id", *schema.get("required", [])]
        definitions[f"object_{name}"] = schema
        kinds[name] = {"type": "array", "items": {"$ref": f"#/$defs/object_{name}"}}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Pendrum project",
        "type": "object",
        "required": ["format", "version", "objects"],
        "properties": {
            "format": {"const": FORM},
            "version": {"const": VERSION},
            "objects": {"type": "object", "properties": kinds, "additionalProperties": False},
            "weather": _WEATHER,
            "other_weather": {"type": "array", "items": _WEATHER},
            "drawings": {"type": "array", "items": _DRAWING},
        },
        "$defs": definitions,
    }


@transaction.atomic
def from_file(owner: AbstractBaseUser, content: Any, name: str | None = None) -> Taken:
    """A new project of a file's objects, all ids made anew.

    Raises:
        Refused: it is no such file, or something in it is not allowed; then no project is made.
    """
    objects = _checked(content)
    project = create_project(owner, name or str(_only(objects, "project").get("name") or "Project")[:120])
    document = load_document(project)
    ids = _new_ids(objects, document, project)
    changes: list[Change] = [
        {"op": "delete", "kind": kind, "id": row, "fields": {}}
        for kind in reversed(KINDS)
        if kind not in _SINGLE
        for row in document.of(kind)
    ]
    # Things that point at their own kind, or at one that comes later, get those references at the end.
    order = list(KINDS)
    late: list[Change] = []
    for kind, info in KINDS.items():
        for row in objects.get(kind, ()):
            fields = {key: value for key, value in row.items() if key != "id"}
            for column, target in info.references.items():
                if isinstance(fields.get(column), str):
                    fields[column] = ids.get((target, fields[column]), fields[column])
            own = {
                column: fields[column]
                for column, target in info.references.items()
                if order.index(target) >= order.index(kind) and fields.get(column)
            }
            if own:
                late.append({"op": "set", "kind": kind, "id": ids[(kind, row["id"])], "fields": own})
                fields |= dict.fromkeys(own)
            if kind == "project" and name:
                fields["name"] = name
            operation = "set" if kind in _SINGLE else "create"
            changes.append({"op": operation, "kind": kind, "id": ids[(kind, row["id"])], "fields": fields})
    apply_changes(project.id, owner, changes + late, "Project from a file", project.version, way="redo", of_version=0)
    project.refresh_from_db()
    return Taken(project, ids)


def _checked(content: Any) -> dict[str, list[dict[str, Any]]]:
    """The objects of a file, as this version has them."""
    if not isinstance(content, dict) or content.get("format") != FORM:
        raise Refused("invalid", f"This is no project's file: format is not {FORM!r}.")
    version = content.get("version")
    if type(version) is not int or not 1 <= version <= VERSION:
        raise Refused("invalid", f"version {version!r} of the file is not known; known are 1 to {VERSION}.")
    objects: Any = content.get("objects")
    if not isinstance(objects, dict) or not all(
        isinstance(rows, list) and all(isinstance(row, dict) and isinstance(row.get("id"), str) for row in rows)
        for rows in objects.values()
    ):
        raise Refused("invalid", "objects: lists of objects with an id are needed, by kind.")
    objects = brought_forward(objects, version)
    for kind in objects:
        if kind not in KINDS:
            raise Refused(
                "invalid", f"There is no kind {kind!r}.", [FieldFault(f"objects/{kind}", kind, None, "unknown kind")]
            )
    if sum(len(rows) for rows in objects.values()) > _MOST_OBJECTS:
        raise Refused("invalid", f"The file holds more than {_MOST_OBJECTS} objects.")
    for kind, rows in objects.items():
        if len(rows) > KINDS[kind].about.most:
            raise Refused("invalid", f"{kind}: the file holds {len(rows)}, at most {KINDS[kind].about.most} are taken.")
        if len({row["id"] for row in rows}) < len(rows):
            raise Refused("invalid", f"{kind}: two objects of the file have the same id.")
    for kind in ("project", "site"):
        _only(objects, kind)
    months: list[Any] = [row.get("month") for row in objects.get("design_month", ())]
    if not all(type(month) is int for month in months) or sorted(months) != list(range(1, 13)):
        raise Refused("invalid", "design_month: one object for each month from 1 to 12 is needed.")
    return objects


def _only(objects: dict[str, list[dict[str, Any]]], kind: str) -> dict[str, Any]:
    rows = objects.get(kind, [])
    if len(rows) != 1:
        raise Refused("invalid", f"{kind}: exactly one object is needed, the file has {len(rows)}.")
    return rows[0]


def _new_ids(
    objects: dict[str, list[dict[str, Any]]], document: Document, project: Project
) -> dict[tuple[str, str], str]:
    months = {row["month"]: identity for identity, row in document.of("design_month").items()}
    ids = {}
    for kind, rows in objects.items():
        for row in rows:
            if kind == "project":
                ids[(kind, row["id"])] = project.id
            elif kind == "site":
                ids[(kind, row["id"])] = document.one("site")["id"]
            elif kind == "design_month":
                ids[(kind, row["id"])] = months[row["month"]]
            else:
                ids[(kind, row["id"])] = new_id()
    return ids
