"""Ducts of an air system or pipes of a circuit, proposed from the plan."""

from collections.abc import Sequence
from typing import Any

from pendrum_core.geometry.routes import Leg, RouteEnd, centre, propose
from projects.errors import FieldFault, Refused
from projects.plan import Change
from projects.rows import Document, Row
from projects.starter import new_id

# Fittings of each kind of leg: a pipe section is flow and return, so its fittings count twice.
_PASSES = {"duct_section": [("through_as_fast", 1)], "pipe_section": [("pipe_tee_run", 2)]}
_TURNS = {"duct_section": [("branch_90_as_fast", 1)], "pipe_section": [("pipe_tee_branch", 2)]}
_BENDS = {"duct_section": [("round_bend_90_r1", 1)], "pipe_section": [("pipe_elbow_90", 2)]}
_DROPS_PA = {"duct_section": 30.0, "pipe_section": 3_000.0}
_COIL_DROP_PA = 12_000.0
_OWNER = {"duct_section": "air_system", "pipe_section": "circuit"}
# What an end keeps of the section that led to it before.
_KEPT = ("end_drop_pa", "valve_kv_m3_h", "shape", "height_limit_m")


def proposed_sections(
    document: Document,
    kind: str,
    owner: str,
    start_room: str,
    rooms: Sequence[str],
    coils: Sequence[str],
    network: str = "supply",
) -> list[Change]:
    """Changes that lay the sections of an air system's network or of a circuit anew, from a room to rooms and coils.

    Coils stand beside the start.

    Raises:
        Refused: no such thing, or rooms that are not on the plan, named.
    """
    if owner not in document.of(_OWNER[kind]):
        raise Refused("not_found", f"There is no such {_OWNER[kind].replace('_', ' ')} any more.")
    start = _placed(document, [start_room])[0]
    ends = _placed(document, rooms)
    if coils and kind == "duct_section":
        raise Refused("invalid", "Ducts lead to rooms, not to coils.")
    if any(coil not in document.of("air_system") for coil in coils):
        raise Refused("not_found", "An air system whose coil is to be fed is not there any more.")
    ends += [RouteEnd(coil, start.level, start.place) for coil in coils]
    if not ends:
        raise Refused("invalid", "There is no end that a route could lead to.")
    heights = {identity: row["floor_m"] for identity, row in document.of("level").items()}
    outlines: dict[str, list[list[tuple[float, float]]]] = {}
    for row in document.of("room").values():
        if row["outline_m"] and row["level"]:
            outlines.setdefault(row["level"], []).append([(x, y) for x, y in row["outline_m"]])
    legs = propose(ends, start.level, start.place, heights, outlines)
    before = [row for row in _sections(document, kind, owner) if row.get("network", network) == network]
    old = {row["room"] or row.get("air_system"): row for row in before if row["room"] or kind == "pipe_section"}
    gone: list[Change] = [{"op": "delete", "kind": kind, "id": row["id"]} for row in before]
    ids = [new_id() for _ in legs]
    made: list[Change] = []
    for place, leg in enumerate(legs):
        fields: dict[str, Any] = {
            _OWNER[kind]: owner,
            "name": _name(document, leg, place),
            "position": float(place),
            "length_m": round(leg.length_m, 2),
            "parent": None if leg.parent is None else ids[leg.parent],
            "fittings": _fittings(kind, leg),
            "level": leg.level,
            "course_m": [[round(x, 3), round(y, 3)] for x, y in leg.course],
        }
        if kind == "duct_section":
            fields["network"] = network
        if leg.end is not None:
            fields |= _end(document, kind, leg.end, old.get(leg.end))
        made.append({"op": "create", "kind": kind, "id": ids[place], "fields": fields})
    return gone + made


def _sections(document: Document, kind: str, owner: str) -> list[Row]:
    return [row for row in document.of(kind).values() if row[_OWNER[kind]] == owner]


def _placed(document: Document, rooms: Sequence[str]) -> list[RouteEnd]:
    """Rooms with their places on the plan."""
    table = document.of("room")
    missing = [
        table[room] for room in rooms if room in table and (not table[room]["outline_m"] or not table[room]["level"])
    ]
    if missing:
        numbers = ", ".join(row["number"] for row in missing[:12])
        fault = FieldFault("rooms", "rooms", numbers, "not on the plan")
        raise Refused(
            "invalid",
            f"Not on the plan of a level: {numbers}. Draw them first, or lay their sections by hand.",
            [fault],
        )
    if any(room not in table for room in rooms):
        raise Refused("not_found", "A room is not there any more.")
    return [
        RouteEnd(room, table[room]["level"], centre([tuple(p) for p in table[room]["outline_m"]])) for room in rooms
    ]


def _name(document: Document, leg: Leg, place: int) -> str:
    level = document.of("level")[leg.level]["name"]
    if leg.kind == "start":
        return "Unit"
    if leg.kind == "riser":
        return f"Riser to {level}"[:120]
    if leg.kind == "main":
        return f"Main {place}, {level}"[:120]
    room = document.of("room").get(leg.end or "")
    return f"To {room['number']}" if room else f"To {document.of('air_system')[leg.end or '']['name']}"[:120]


def _fittings(kind: str, leg: Leg) -> list[dict[str, Any]]:
    found = []
    if leg.kind != "start":
        found += _PASSES[kind] if leg.passes else _TURNS[kind]
    if leg.kind == "branch":
        found += _BENDS[kind]
    return [{"kind": name, "count": count} for name, count in found]


def _end(document: Document, kind: str, end: str, old: Row | None) -> dict[str, Any]:
    field = "room" if end in document.of("room") else "air_system"
    drop = _DROPS_PA[kind] if field == "room" else _COIL_DROP_PA
    kept = {name: old[name] for name in _KEPT if name in old} if old is not None else {}
    return {field: end, "end_drop_pa": drop} | kept
