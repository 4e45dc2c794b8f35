"""Inheritance in one place: level and use pass values on to a room, and the kit gives assemblies by role."""

from dataclasses import dataclass
from typing import Any

from projects.document import Document, Row

# Fields that a room takes from its use where it has none of its own.
FROM_USE = (
    "people_per_m2", "lights_w_m2", "equipment_w_m2", "infiltration_ach", "minimum_air_changes",
    "heated", "heating_setpoint_c", "cooled", "cooling_setpoint_c",
)  # fmt: skip


@dataclass(frozen=True)
class Effective:
    """A value with its origin: "own", "use", "level", "kit" or "" where there is none."""

    value: Any
    origin: str


def effective_values(document: Document, room: Row) -> dict[str, Effective]:
    """Every inheritable field of a room."""
    use = document.of("use").get(room["use"] or "")
    level = document.of("level").get(room["level"] or "")
    result = {"height_m": _first(("own", room["height_m"]), ("level", level["height_m"] if level else None))}
    for field in FROM_USE:
        result[field] = _first(("own", room[field]), ("use", use[field] if use else None))
    return result


def _first(*candidates: tuple[str, Any]) -> Effective:
    for origin, value in candidates:
        if value is not None:
            return Effective(value, origin)
    return Effective(None, "")


def surface_assembly(document: Document, surface: Row) -> Effective:
    """Assembly row of a surface: its own, else the kit's for its role."""
    kit = document.of("kit").get(document.one("project")["kit"] or "")
    found = _first(("own", surface["assembly"]), ("kit", kit[surface["role"]] if kit else None))
    return Effective(document.of("assembly").get(found.value or ""), found.origin)


def opening_construction(document: Document, opening: Row) -> Effective:
    """Glazing row of a window or assembly row of a door: its own, else the kit's."""
    kit = document.of("kit").get(document.one("project")["kit"] or "")
    column, kind = ("glazing", "glazing") if opening["kind"] == "window" else ("assembly", "assembly")
    found = _first(("own", opening[column]), ("kit", kit[opening["kind"]] if kit else None))
    return Effective(document.of(kind).get(found.value or ""), found.origin)
