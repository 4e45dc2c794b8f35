"""From outlines on the plan to the surfaces of rooms, as changes of the document."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence, Set
from typing import Any

from pendrum_core.geometry.outlines import area_m2
from pendrum_core.geometry.plan import (
    Face,
    PlanLevel,
    PlanRoom,
    checked_outline,
    faces,
    joined_outline,
    overlaps,
    split_outline,
)
from projects.errors import FieldFault, Refused
from projects.plan import Change, plan_changes
from projects.resolver import effective_values
from projects.rows import Document, Row
from projects.starter import new_id

# Walls of two rooms up to this far apart are one wall: outlines are drawn along inner faces or along axes.
WALL_GAP_M = 0.45
_AREA_NOISE_M2 = 0.011
_TURN_DEG = 45.0
# Kind of face: role, boundary and name of the surface.
_SURFACES = {
    "outer_wall": ("outer_wall", "outdoors", "Outer wall"),
    "inner_wall": ("inner_wall", "adiabatic", "Wall to {}"),
    "roof": ("roof", "outdoors", "Roof"),
    "ground_floor": ("ground_floor", "ground", "Ground floor"),
    "overhang": ("ground_floor", "outdoors", "Floor over outdoors"),
    "ceiling": ("inner_floor", "adiabatic", "Ceiling under {}"),
    "floor": ("inner_floor", "adiabatic", "Floor over {}"),
}


# What the surfaces of drawn rooms follow, by kind; None for anything.
_FOLLOWED = {"room": {"outline_m", "height_m", "level"}, "level": {"height_m", "floor_m"}, "site": {"rotation_deg"}}


def with_plan(document: Document, changes: Sequence[Change], own: Set[str] = frozenset()) -> list[Change]:
    """A change set with what it does to the plan's surfaces added to it; as it is where it does nothing to them.

    Rooms in `own` bring surfaces of their own: their outlines make none.

    Raises:
        Refused: an outline that is none, or rooms that lie on each other; nothing is changed then.
    """
    changes = [_area_of_plan(document, change) for change in changes]
    if not any(_concerns_plan(document, change) for change in changes):
        return changes
    tidy = [_checked(change) for change in changes]
    after = Document(document.project, document.version, plan_changes(document, tidy)[0])
    drawn = {c["id"] for c in tidy if c["kind"] == "room" and "outline_m" in (c.get("fields") or {})}
    drawn -= own
    return [*tidy, *_derived(after, drawn)]


def _area_of_plan(document: Document, change: Change) -> Change:
    """The change, but for an emptied floor area of a room on the plan: it takes the plan's again."""
    fields = change.get("fields") or {}
    room = document.row("room", change["id"]) if change["kind"] == "room" and change["op"] == "set" else None
    if room is None or "floor_area_m2" not in fields or fields["floor_area_m2"] is not None or not room["plan_area_m2"]:
        return change
    return {**change, "fields": {**fields, "floor_area_m2": room["plan_area_m2"]}}


def _concerns_plan(document: Document, change: Change) -> bool:
    followed = _FOLLOWED.get(change["kind"], set())
    if change["op"] == "delete":
        return change["kind"] == "room" and bool((document.row("room", change["id"]) or {}).get("plan_area_m2"))
    named = followed & set(change.get("fields") or {})
    if change["op"] == "create":
        return "outline_m" in named and bool(change["fields"]["outline_m"])
    return bool(named)


def split_room(document: Document, room_id: str, start: tuple[float, float], end: tuple[float, float]) -> list[Change]:
    """Cut a room in two along a line; the larger part stays the room, the other becomes a new one like it.

    Raises:
        Refused: there is no such room or outline, or the line does not cut it in two.
    """
    room = _outlined(document, room_id)
    try:
        first, second = split_outline(room["outline_m"], start, end)
    except ValueError as error:
        raise Refused("invalid", f"{room['number']} {room['name']}: {error}.") from error
    fields = {key: value for key, value in room.items() if key not in ("id", "plan_area_m2", "floor_area_m2")}
    fields |= {"number": _free_number(document, room["number"]), "outline_m": second}
    changes: list[Change] = [
        {"op": "set", "kind": "room", "id": room_id, "fields": {"outline_m": first}},
        {"op": "create", "kind": "room", "id": new_id(), "fields": fields},
    ]
    return with_plan(document, changes)


def join_rooms(document: Document, room_ids: Sequence[str]) -> list[Change]:
    """Make rooms that touch one; the first one stays, the others go with their surfaces.

    Raises:
        Refused: fewer than two rooms, different levels, or rooms that do not touch.
    """
    rooms = [_outlined(document, room_id) for room_id in dict.fromkeys(room_ids)]
    if len(rooms) < 2:
        raise Refused("invalid", "Choose two rooms or more to join.")
    if len({room["level"] for room in rooms}) > 1:
        raise Refused("invalid", "Rooms of different levels cannot be joined.")
    try:
        outline = joined_outline([room["outline_m"] for room in rooms])
    except ValueError as error:
        names = ", ".join(room["number"] for room in rooms)
        raise Refused("invalid", f"{names}: {error}.") from error
    changes: list[Change] = [{"op": "delete", "kind": "room", "id": room["id"], "fields": {}} for room in rooms[1:]]
    changes.append({"op": "set", "kind": "room", "id": rooms[0]["id"], "fields": {"outline_m": outline}})
    return with_plan(document, changes)


def surface_fields(face: Face, numbers: Mapping[str, str]) -> dict[str, Any]:
    """A face as the fields of a surface."""
    role, boundary, name = _SURFACES[face.kind]
    fields: dict[str, Any] = {
        "room": face.room,
        "name": name.format(numbers.get(face.neighbour or "", "")),
        "role": role,
        "boundary": boundary,
        "area_m2": face.area_m2,
        "tilt_deg": face.tilt_deg,
        "azimuth_deg": face.azimuth_deg,
        "plan_key": face.key,
        "plan_area_m2": face.area_m2,
    }
    if face.neighbour is not None:
        fields["neighbour"] = face.neighbour
    if face.kind == "ground_floor":
        fields["exposed_perimeter_m"] = face.exposed_m
    return fields


def _outlined(document: Document, room_id: str) -> Row:
    room = document.of("room").get(room_id)
    if room is None or not room["outline_m"]:
        raise Refused("not_found", "This room is not on the plan.")
    return room


def _free_number(document: Document, number: str) -> str:
    taken = {room["number"] for room in document.of("room").values()}
    return next(name for letter in "bcdefghijklmnopqrstuvwxyz" if (name := f"{number}{letter}"[:20]) not in taken)


def _checked(change: Change) -> Change:
    """The change with a tidy outline."""
    outline = (change.get("fields") or {}).get("outline_m")
    if change["kind"] != "room" or not outline:
        return change
    try:
        points = checked_outline([(float(x), float(y)) for x, y in outline])
    except (TypeError, ValueError) as error:
        fault = FieldFault("outline_m", "outline_m", outline, str(error))
        raise Refused("invalid", f"Outline: {error}.", [fault]) from error
    return {**change, "fields": {**change["fields"], "outline_m": [list(point) for point in points]}}


def plan_levels(document: Document) -> list[PlanLevel]:
    """Levels with the rooms that have an outline."""
    rooms: dict[str, list[PlanRoom]] = defaultdict(list)
    for room in document.of("room").values():
        if room["outline_m"] and room["level"]:
            height = effective_values(document, room)["height_m"].value or 0.0
            outline = tuple((x, y) for x, y in room["outline_m"])
            rooms[room["level"]].append(PlanRoom(room["id"], room["number"], outline, height))
    return [
        PlanLevel(level["floor_m"], tuple(rooms[identity]))
        for identity, level in document.of("level").items()
        if rooms[identity]
    ]


def _derived(document: Document, drawn: Set[str]) -> Iterable[Change]:
    """Changes of the rooms that are drawn: those whose surfaces came from the plan, and those drawn just now.

    Rooms whose surfaces came from elsewhere keep them, and count as neighbours.
    """
    levels = plan_levels(document)
    rooms = document.of("room")
    for level in levels:
        for one, other, area in overlaps(level):
            raise Refused(
                "invalid", f"{rooms[one]['number']} and {rooms[other]['number']} lie on each other by {area:.2f} m²."
            )
    numbers = {identity: room["number"] for identity, room in rooms.items()}
    wanted: dict[str, list[Face]] = defaultdict(list)
    for face in faces(levels, document.one("site")["rotation_deg"], WALL_GAP_M):
        wanted[face.room].append(face)
    have: dict[str, list[Row]] = defaultdict(list)
    for surface in document.of("surface").values():
        if surface["plan_key"]:
            have[surface["room"]].append(surface)
    for identity, room in rooms.items():
        if not room["outline_m"]:
            for surface in have[identity]:
                yield _set("surface", surface["id"], plan_key=None, plan_area_m2=None)
            if room["plan_area_m2"] is not None:
                yield _set("room", identity, plan_area_m2=None)
            continue
        if room["plan_area_m2"] is None and identity not in drawn:
            continue
        yield from _room_area(room)
        yield from _surfaces(wanted[identity], have[identity], numbers)


def _set(kind: str, identity: str, **fields: Any) -> Change:
    return {"op": "set", "kind": kind, "id": identity, "fields": fields}


def _room_area(room: Row) -> Iterable[Change]:
    """Floor area from the outline, unless it was typed otherwise."""
    area = round(area_m2(room["outline_m"]), 3)
    now, before = room["floor_area_m2"], room["plan_area_m2"]
    follows = now is None or (before is not None and abs(now - before) < _AREA_NOISE_M2)
    fields = {"plan_area_m2": area} | ({"floor_area_m2": area} if follows else {})
    if any(room[key] != value for key, value in fields.items()):
        yield _set("room", room["id"], **fields)


def _surfaces(found: list[Face], have: list[Row], numbers: Mapping[str, str]) -> Iterable[Change]:
    """Surfaces of one room brought in line with its faces; what was changed by hand stays."""
    old = {row["plan_key"]: row for row in have}
    pairs = [(face, old.pop(face.key)) for face in found if face.key in old]
    for face in (face for face in found if face.key not in {pair[0].key for pair in pairs}):
        near = _same_wall(face, old.values())
        if near is not None:
            pairs.append((face, old.pop(near["plan_key"])))
        else:
            yield {"op": "create", "kind": "surface", "id": new_id(), "fields": surface_fields(face, numbers)}
    for face, row in pairs:
        fields = surface_fields(face, numbers)
        kept = {"plan_key", "plan_area_m2", "azimuth_deg"} | ({"neighbour"} & set(fields))
        if abs(row["area_m2"] - (row["plan_area_m2"] or 0.0)) < _AREA_NOISE_M2:
            kept.add("area_m2")
        if "exposed_perimeter_m" in fields:
            kept.add("exposed_perimeter_m")
        changed = {key: fields[key] for key in kept if row[key] != fields[key]}
        if changed:
            yield _set("surface", row["id"], **changed)
    for row in old.values():
        yield {"op": "delete", "kind": "surface", "id": row["id"], "fields": {}}


def _same_wall(face: Face, rows: Iterable[Row]) -> Row | None:
    """A surface that this face was before its side turned."""
    kind, neighbour = face.key.split("/")[0], face.neighbour or ""
    near = [
        row
        for row in rows
        if row["plan_key"].split("/")[:2] == [kind, neighbour]
        and abs((row["azimuth_deg"] - face.azimuth_deg + 180.0) % 360.0 - 180.0) < _TURN_DEG
    ]
    return min(near, key=lambda row: abs(row["area_m2"] - face.area_m2), default=None)
