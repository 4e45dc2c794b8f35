"""What a new project begins with: a stated starter site, plain materials, one level, one empty kit."""

import secrets
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from projects.changes import apply_changes
from projects.models import DesignMonth, Project, Site
from shelf.materials import material

STARTER_SITE = "Starter site"

# What a new project finds among its materials; the rest is on the shelf.
_MATERIALS = (
    "Brick, outer leaf", "Concrete, reinforced", "Concrete block, medium", "Aerated concrete", "Cement screed",
    "Mineral wool", "Expanded polystyrene", "Rigid polyurethane", "Timber, soft", "Plywood", "Gypsum board", "Plaster",
    "Bitumen sheet", "Fibre-cement board", "Steel sheet", "Glass", "Air gap, by thickness",
)  # fmt: skip

# A mid-latitude climate to begin with; every new project says that it is not the site's own.
STARTER_FIELDS = ("dry_bulb_c", "wet_bulb_c", "range_k", "tau_b", "tau_d")
STARTER_MONTHS = (
    (10.0, 7.0, 7.0, 0.31, 2.42), (12.0, 8.5, 8.0, 0.32, 2.36), (17.0, 11.0, 9.0, 0.35, 2.26),
    (21.5, 14.0, 10.0, 0.38, 2.18), (26.0, 17.5, 10.0, 0.41, 2.12), (29.5, 20.0, 10.5, 0.43, 2.07),
    (31.5, 21.0, 11.0, 0.44, 2.05), (31.0, 21.0, 10.5, 0.43, 2.07), (26.5, 18.5, 9.5, 0.40, 2.16),
    (21.0, 15.5, 8.0, 0.36, 2.28), (15.0, 11.5, 7.0, 0.33, 2.38), (11.0, 8.0, 6.5, 0.31, 2.44),
)  # fmt: skip

# What new things begin with in the interface, where it must begin with something; said until one of it is changed.
STARTING_FIGURES: dict[str, dict[str, Any]] = {
    "glazing": {"u_value": 1.4, "g_value": 0.5, "frame_share": 0.2, "panes": 2, "basis": "whole"},
    "use": {
        "people_value": 0.0, "lights_value": 0.0, "equipment_value": 0.0, "infiltration_ach": 0.3,
        "air_per_person_m3_s": 0.0, "air_per_area_m3_s_m2": 0.0, "heating_setpoint_c": 20.0, "cooling_setpoint_c": 24.0,
        "source": "",
    },
}  # fmt: skip


def new_id() -> str:
    """A short random id."""
    return secrets.token_hex(6)


def weekly(weekday: list[list[float]], weekend: list[list[float]]) -> dict[str, Any]:
    """Fields of a schedule with one pattern for weekdays and another for weekends and holidays."""
    patterns = [{"id": "a", "name": "Weekday", "steps": weekday}]
    if weekend == weekday:
        return {"patterns": patterns, "base": "a"}
    patterns.append({"id": "b", "name": "Weekend", "steps": weekend})
    rule = {"start": "01-01", "end": "12-31", "days": "00000111", "pattern": "b"}
    return {"patterns": patterns, "base": "a", "rules": [rule]}


@transaction.atomic
def create_project(owner: AbstractBaseUser, name: str) -> Project:
    """Make a project with its site, twelve design months and starter content."""
    project = Project.objects.create(id=new_id(), owner=owner, name=name)
    Site.objects.create(
        id=new_id(), project=project, name=STARTER_SITE, latitude=48.0, longitude=15.0, utc_offset_h=1.0,
        elevation_m=200.0, ground_reflectance=0.2, ground_temperature_c=12.0, winter_dry_bulb_c=-10.0,
    )  # fmt: skip
    DesignMonth.objects.bulk_create(
        DesignMonth(
            id=new_id(), project=project, month=i + 1, dry_bulb_c=t, wet_bulb_c=wb, range_k=r, tau_b=tb, tau_d=td
        )
        for i, (t, wb, r, tb, td) in enumerate(STARTER_MONTHS)
    )
    kit = new_id()
    changes: list[dict[str, Any]] = [
        {"op": "create", "kind": "kit", "id": kit, "fields": {"name": "Fabric kit"}},
        {"op": "set", "kind": "project", "id": project.id, "fields": {"kit": kit}},
        {"op": "create", "kind": "level", "id": new_id(), "fields": {"name": "Ground", "height_m": 3.0}},
        {"op": "create", "kind": "schedule", "id": new_id(), "fields": {
            "name": "Always", **weekly([[1440, 1.0]], [[1440, 1.0]])}},
        {"op": "create", "kind": "schedule", "id": new_id(), "fields": {
            "name": "Working hours", **weekly([[480, 0.0], [1080, 1.0], [1440, 0.0]], [[1440, 0.0]])}},
    ]  # fmt: skip
    changes += [{"op": "create", "kind": "material", "id": new_id(), "fields": material(name)} for name in _MATERIALS]
    apply_changes(project.id, owner, changes, "New project", 0, way="redo", of_version=0)
    project.refresh_from_db()
    return project
