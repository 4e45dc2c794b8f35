"""A wall between two rooms is one thing that two surfaces show: found as a pair, and kept as one when either is edited."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from projects.plan import Change, plan_changes
from projects.rows import Document, Row
from projects.starter import new_id

_UPRIGHT_DEG = 60.0  # tilts from here to 180 less it are walls
_SAME_AREA_M2 = 0.011
_COMMON = ("assembly",)  # what both sides always have alike


def is_shared(surface: Row) -> bool:
    """Whether another room is named beyond a surface."""
    return surface["boundary"] == "room" and surface["neighbour"] is not None


def other_side(surface: Row, candidates: Iterable[Row]) -> Row | None:
    """Which of the surfaces of the room beyond is the other side of a surface; None where there is none."""
    fitting = [
        row
        for row in candidates
        if row["id"] != surface["id"] and row["neighbour"] == surface["room"] and _lies(row) == -_lies(surface)
    ]

    def unlike(row: Row) -> tuple[bool, float, float]:
        turned = abs((row["azimuth_deg"] - surface["azimuth_deg"]) % 360.0 - 180.0) if _lies(row) == 0 else 0.0
        return row["boundary"] != "room", abs(row["area_m2"] - surface["area_m2"]), turned

    return min(fitting, key=unlike, default=None)


def seen_from_behind(surface: Row) -> bool:
    """Whether a surface shows its assembly turned round.

    Layers are described once: of a floor from above, of a wall from the room whose id comes first.
    """
    if not is_shared(surface):
        return False
    lies = _lies(surface)
    return lies > 0 if lies else bool(surface["room"] > surface["neighbour"])


def _lies(surface: Row) -> int:
    """1 for a ceiling, -1 for a floor, 0 for a wall."""
    if surface["tilt_deg"] < _UPRIGHT_DEG:
        return 1
    return -1 if surface["tilt_deg"] > 180.0 - _UPRIGHT_DEG else 0


def with_other_sides(document: Document, changes: Sequence[Change]) -> list[Change]:
    """A change set with what it does to the other sides of the walls it touches added to it."""
    touched = [c["id"] for c in changes if c["kind"] == "surface"]
    if not touched:
        return list(changes)
    after = Document(document.project, document.version, plan_changes(document, changes)[0])
    named = set(touched)
    extra: list[Change] = []
    for identity in dict.fromkeys(touched):
        old, new = document.of("surface").get(identity), after.of("surface").get(identity)
        if new is not None and is_shared(new):
            extra += _matched(after, old, new, named)
        elif old is not None and is_shared(old):
            extra += _let_go(document, after, old, new, named)
    return [*changes, *extra]


def _of_room(document: Document, room: str) -> list[Row]:
    return [row for row in document.of("surface").values() if row["room"] == room]


def _matched(after: Document, old: Row | None, new: Row, named: set[str]) -> Iterable[Change]:
    """Bring the other side in line with a wall to a room."""
    twin = other_side(new, _of_room(after, new["neighbour"]))
    if twin is None:
        identity = new_id()
        named.add(identity)
        yield {"op": "create", "kind": "surface", "id": identity, "fields": _mirrored(after, new)}
        return
    if twin["id"] in named:
        return
    became = old is None or not is_shared(old) or old["neighbour"] != new["neighbour"]
    wanted: dict[str, Any] = {"boundary": "room"}
    wanted |= {field: new[field] for field in _COMMON if became or (old is not None and old[field] != new[field])}
    if old is not None and old["area_m2"] != new["area_m2"] and abs(twin["area_m2"] - old["area_m2"]) < _SAME_AREA_M2:
        wanted["area_m2"] = new["area_m2"]
    yield from _set(twin, wanted)


def _let_go(document: Document, after: Document, old: Row, new: Row | None, named: set[str]) -> Iterable[Change]:
    """What becomes of the other side when this one is gone, or has something else beyond it."""
    twin = other_side(old, _of_room(document, old["neighbour"]))
    if twin is None or twin["id"] in named or not is_shared(twin) or twin["id"] not in after.of("surface"):
        return
    if new is None and twin["plan_key"] is None:
        named.add(twin["id"])
        yield {"op": "delete", "kind": "surface", "id": twin["id"]}
    else:
        yield from _set(twin, {"boundary": "adiabatic"})


def _set(row: Row, wanted: Mapping[str, Any]) -> Iterable[Change]:
    changed = {field: value for field, value in wanted.items() if row[field] != value}
    if changed:
        yield {"op": "set", "kind": "surface", "id": row["id"], "fields": changed}


def _mirrored(document: Document, wall: Row) -> dict[str, Any]:
    number = (document.row("room", wall["room"]) or {}).get("number", "")
    what = {1: "Floor over {}", -1: "Ceiling under {}", 0: "Wall to {}"}[_lies(wall)]
    return {
        "room": wall["neighbour"],
        "name": what.format(number),
        "role": wall["role"],
        "boundary": "room",
        "area_m2": wall["area_m2"],
        "tilt_deg": 180.0 - wall["tilt_deg"],
        "azimuth_deg": (wall["azimuth_deg"] + 180.0) % 360.0,
        "assembly": wall["assembly"],
        "neighbour": wall["room"],
    }
