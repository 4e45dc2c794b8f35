"""Inheritance in one place: project, level, use and zone pass values on to a room, the kit gives assemblies by role."""

from typing import Any, NamedTuple, Protocol

from projects.kinds.passed_on import MarginFields, SharedFields
from projects.rows import Row

# Fields that a room takes from its use where it has none of its own.
FROM_USE = ("people_per_m2", "lights_w_m2", "equipment_w_m2", "heated", "cooled")
# Fields that the building, its levels, uses and zones may say as well; the nearest to the room counts.
SHARED = tuple(SharedFields.model_fields)
# Fields that the building and its air systems may say as well.
MARGINS = tuple(MarginFields.model_fields)
_POWERS = {"lights_w_m2": "lights", "equipment_w_m2": "equipment"}


class Effective(NamedTuple):
    """A value with its origin: "own", "zone", "use", "level", "air_system", "project", "kit" or "" where there is none."""

    value: Any
    origin: str


_NOTHING = Effective(None, "")


class Rows(Protocol):
    """Something that finds rows: a document, or one that remembers what was looked at."""

    def row(self, kind: str, identity: str | None) -> Row | None: ...

    def one(self, kind: str) -> Row: ...


def people_per_m2(use: Row, area_m2: float | None) -> float | None:
    """Density of people by the use's basis; None where it needs a floor area that is not there."""
    value = float(use["people_value"])
    if use["people_basis"] == "per_m2":
        return value
    if use["people_basis"] == "m2_per_person":
        return 1.0 / value if value > 0.0 else 0.0
    return value / area_m2 if area_m2 else None


def power_per_m2(use: Row, what: str, area_m2: float | None, people: float | None) -> float | None:
    """Lights or equipment per floor area by the use's basis; None where what it needs is not there."""
    value, basis = float(use[f"{what}_value"]), use[f"{what}_basis"]
    if basis == "w_m2":
        return value
    if basis == "w":
        return value / area_m2 if area_m2 else None
    return None if people is None else value * people


def effective_values(rows: Rows, room: Row) -> dict[str, Effective]:
    """Every inheritable field of a room."""
    use = rows.row("use", room["use"])
    own, level, project = ("own", room), ("level", rows.row("level", room["level"])), ("project", rows.one("project"))
    zone, system = ("zone", rows.row("zone", room["zone"])), ("air_system", rows.row("air_system", room["air_system"]))
    result: dict[str, Effective] = {}
    for fields, chain in (
        (SHARED, (own, zone, ("use", use), level, project)),
        (MARGINS, (own, system, project)),
        (("sensor_room",), (own, zone)),
        (("height_m",), (own, level, project)),
    ):
        _take_nearest(result, fields, [(origin, row) for origin, row in chain if row is not None])
    for field in FROM_USE:
        shared = None if use is None else _of_use(use, field, room["floor_area_m2"], result)
        result[field] = _first(("own", room[field]), ("use", shared))
    return result


def _take_nearest(result: dict[str, Effective], fields: tuple[str, ...], chain: list[tuple[str, Row]]) -> None:
    """The value of each field that is said nearest to the room. Every room of an edit passes here: no calls inside."""
    for field in fields:
        for origin, row in chain:
            value = row[field]
            if value is not None:
                result[field] = Effective(value, origin)
                break
        else:
            result[field] = _NOTHING


def _of_use(use: Row, field: str, area_m2: float | None, known: dict[str, Effective]) -> Any:
    """What a use passes on to a room of an area."""
    if field == "people_per_m2":
        return people_per_m2(use, area_m2)
    if field in _POWERS:
        return power_per_m2(use, _POWERS[field], area_m2, known["people_per_m2"].value)
    return use[field]


def value_of_use(rows: Rows, use: Row, field: str) -> Any:
    """A shared value as a use passes it on where no level says otherwise: its own, else the project's."""
    return use[field] if use[field] is not None else rows.one("project")[field]


def _first(*candidates: tuple[str, Any]) -> Effective:
    for origin, value in candidates:
        if value is not None:
            return Effective(value, origin)
    return _NOTHING


def kit_in_use(rows: Rows) -> Row | None:
    """The fabric kit that the project has chosen."""
    return rows.row("kit", rows.one("project")["kit"])


def surface_assembly(rows: Rows, surface: Row, kit: Row | None) -> Effective:
    """Assembly row of a surface: its own, else the kit's for its role."""
    found = _first(("own", surface["assembly"]), ("kit", kit[surface["role"]] if kit else None))
    return Effective(rows.row("assembly", found.value), found.origin)


def opening_construction(rows: Rows, opening: Row, kit: Row | None) -> Effective:
    """Glazing row of a window or assembly row of a door: its own, else the kit's."""
    column, kind = ("glazing", "glazing") if opening["kind"] == "window" else ("assembly", "assembly")
    found = _first(("own", opening[column]), ("kit", kit[opening["kind"]] if kit else None))
    return Effective(rows.row(kind, found.value), found.origin)
