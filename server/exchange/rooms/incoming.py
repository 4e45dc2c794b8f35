"""What a file says of rooms, and how it differs from the document."""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from calculations.plan import with_plan
from exchange.rooms.columns import COLUMNS, REFERENCES, Column
from projects.errors import Refused
from projects.plan import Change, plan_changes
from projects.resolver import effective_values, kit_in_use
from projects.rows import Document, Row
from projects.starter import new_id

Outline = list[list[float]]
ADDED, CHANGED, UNCHANGED, MISSING, REFUSED = "added", "changed", "unchanged", "missing", "refused"
_SAME = 5e-4  # relative: figures that only went through a file's rounding


@dataclass
class IncomingSurface:
    """A face with its openings; `beyond` is the number of the room on the other side, `assembly` a name."""

    name: str
    role: str
    boundary: str
    area_m2: float
    tilt_deg: float
    azimuth_deg: float
    beyond: str = ""
    openings: list[dict[str, Any]] = field(default_factory=list)
    assembly: str = ""


@dataclass
class IncomingRoom:
    """A room of a file.

    Attributes:
        place: where it stands in the file, for messages.
        fields: of the room; level, use and air system by name. A field that is None is empty in the file.
        outline: None where the file has none; then the plan is left as it is.
        surfaces: None where the file says nothing of them.
    """

    number: str
    name: str
    place: str
    fields: dict[str, Any] = field(default_factory=dict)
    outline: Outline | None = None
    surfaces: list[IncomingSurface] | None = None
    fault: str = ""


@dataclass
class Incoming:
    """A file read: rooms, levels by name with elevation and height [m] where it tells them, and what to know of it."""

    rooms: list[IncomingRoom]
    levels: dict[str, tuple[float, float | None]] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)


@dataclass
class Difference:
    """One room of the difference table."""

    key: str
    state: str
    number: str
    name: str
    reason: str = ""
    changes: list[dict[str, Any]] = field(default_factory=list)


class Comparison:
    """A file against a document: the table, and the change set for the rows that are taken."""

    def __init__(self, document: Document, incoming: Incoming, whole: bool = True) -> None:
        self.document = document
        self.incoming = incoming
        self._by_number = {_folded(room["number"]): room for room in document.of("room").values()}
        self._names = {
            kind: {row["name"].strip().casefold(): row["id"] for row in document.of(kind).values()}
            for kind in REFERENCES
        }
        # Levels, uses, systems and zones that the file names and the project lacks: they are made with the rooms.
        self._new: dict[tuple[str, str], str] = {}
        self._edits: dict[str, list[Change]] = {}
        # Rooms of the file by number, and the number beyond every surface that names one.
        self._ids: dict[str, str] = {}
        self._beyond: dict[str, str] = {}
        self.rows = [*self._rooms(), *(self._missing() if whole else ())]

    def changes(self, taken: Collection[str]) -> list[Change]:
        """The change set of the rows with these keys, levels first; the plan's surfaces with it.

        Raises:
            Refused: a key that is not in the table or cannot be taken, or rooms that together make no plan.
        """
        known = {row.key: row for row in self.rows}
        for key in taken:
            row = known.get(key)
            if row is None or row.state not in (ADDED, CHANGED, MISSING):
                raise Refused("invalid", f"{key}: this row cannot be taken.")
        chosen = [change for key in dict.fromkeys(taken) for change in self._edits[key]]
        used = {(change.get("fields") or {}).get(kind) for change in chosen for kind in REFERENCES}
        edits = [*self._new_things(used), *self._with_neighbours(chosen)]
        # Rooms that come with surfaces of their own keep them; the plan makes those of the others.
        own = {c["fields"]["room"] for c in edits if c["kind"] == "surface" and c["op"] == "create"}
        drawn = any(
            c["kind"] == "room" and c["id"] not in own and (c.get("fields") or {}).get("outline_m") for c in edits
        )
        return with_plan(self.document, edits, own) if drawn else edits

    def _with_neighbours(self, chosen: list[Change]) -> list[Change]:
        """Walls between rooms, where both are there afterwards; a wall to one that is not taken loses nothing."""
        made = {c["id"] for c in chosen if c["kind"] == "room" and c["op"] == "create"}
        gone = {c["id"] for c in chosen if c["kind"] == "room" and c["op"] == "delete"}
        there = (set(self.document.of("room")) | made) - gone
        walls, others = [], []
        for change in chosen:
            neighbour = self._ids.get(self._beyond.get(change["id"], ""))
            if change["kind"] == "surface" and change["op"] == "create" and neighbour in there:
                beyond = {"boundary": "room", "neighbour": neighbour}
                walls.append({**change, "fields": {**change["fields"], **beyond}})
            else:
                others.append(change)
        # After all rooms, so that the one beyond is there.
        return [*others, *walls]

    def _rooms(self) -> Iterable[Difference]:
        seen: dict[str, str] = {}
        for room in self.incoming.rooms:
            self._number_of_label(room)
            folded = _folded(room.number)
            key = room.number or room.place
            if room.fault:
                yield Difference(key, REFUSED, room.number, room.name, f"{room.place}: {room.fault}")
            elif not folded:
                yield Difference(room.place, REFUSED, "", room.name, f"{room.place}: there is no number.")
            elif folded in seen:
                yield Difference(
                    f"{key} ({room.place})",
                    REFUSED,
                    room.number,
                    room.name,
                    f"{room.place}: the number {room.number} stood at {seen[folded]} already.",
                )
            else:
                seen[folded] = room.place
                yield self._one(key, room, self._by_number.get(folded))

    def _number_of_label(self, room: IncomingRoom) -> None:
        """A label that is number and name in one, where the number is one of the project's."""
        first, _, rest = room.number.strip().partition(" ")
        if rest and room.number.casefold() not in self._by_number and first.casefold() in self._by_number:
            room.number, room.name = first, rest.strip()

    def _one(self, key: str, room: IncomingRoom, old: Row | None) -> Difference:
        try:
            fields = self._resolved(room)
            changed = self._changed(fields, old)
            edits = self._edited(room, fields, changed, old)
            if edits:
                # What the document would refuse is refused here, with its own words, and holds no other row back.
                plan_changes(self.document, [*self._new_things({fields.get(kind) for kind in REFERENCES}), *edits])
        except Refused as error:
            return Difference(key, REFUSED, room.number, room.name, f"{room.place}: {error.sentence}")
        self._edits[key] = edits
        state = ADDED if old is None else CHANGED if edits else UNCHANGED
        lines = [self._line(name, fields[name], old) for name in changed]
        if any(edit["kind"] == "surface" for edit in edits) and room.surfaces:
            openings = sum(len(s.openings) for s in room.surfaces)
            lines.append(
                {
                    "field": "surfaces",
                    "title": "Surfaces",
                    "quantity": "",
                    "old": None,
                    "new": f"{len(room.surfaces)} with {openings} openings",
                }
            )
        return Difference(key, state, room.number, room.name, "", lines)

    def _resolved(self, room: IncomingRoom) -> dict[str, Any]:
        """Fields with references by id."""
        fields: dict[str, Any] = {"number": room.number}
        # A table without names leaves those that are there.
        if room.name or _folded(room.number) not in self._by_number:
            fields["name"] = room.name or room.number
        fields |= room.fields
        for kind in REFERENCES:
            wanted = fields.get(kind)
            if wanted is None:
                continue
            found = self._names[kind].get(str(wanted).strip().casefold())
            if found is None:
                found = self._new.setdefault((kind, str(wanted).strip()), new_id())
            fields[kind] = found
        if room.outline is not None:
            fields["outline_m"] = room.outline
        return fields

    def _changed(self, fields: Mapping[str, Any], old: Row | None) -> list[str]:
        if old is None:
            return [name for name, value in fields.items() if value is not None]
        now = dict(old)
        if old["height_m"] is None and fields.get("height_m") is not None:
            now["height_m"] = effective_height_m(self.document, old)
        return [name for name, value in fields.items() if not _same(value, now[name])]

    def _edited(self, room: IncomingRoom, fields: dict[str, Any], changed: list[str], old: Row | None) -> list[Change]:
        if old is None:
            identity = self._ids[_folded(room.number)] = new_id()
            edits: list[Change] = [{"op": "create", "kind": "room", "id": identity, "fields": dict(fields)}]
            return edits + self._faces(room, identity)
        self._ids[_folded(room.number)] = old["id"]
        edits = [_set("room", old["id"], {name: fields[name] for name in changed})] if changed else []
        if room.surfaces is not None and self._faces_differ(room, old):
            if old["plan_area_m2"] is not None:
                # From now on its surfaces are the file's and no longer follow the plan.
                edits.append(_set("room", old["id"], {"plan_area_m2": None}))
            gone = [row for row in self.document.of("surface").values() if row["room"] == old["id"]]
            edits += [{"op": "delete", "kind": "surface", "id": row["id"], "fields": {}} for row in gone]
            edits += self._faces(room, old["id"])
        return edits

    def _faces(self, room: IncomingRoom, identity: str) -> list[Change]:
        edits: list[Change] = []
        for surface in room.surfaces or ():
            key = new_id()
            if surface.beyond:
                self._beyond[key] = _folded(surface.beyond)
            fields = {
                "room": identity,
                "name": surface.name,
                "role": surface.role,
                "boundary": surface.boundary,
                "area_m2": surface.area_m2,
                "tilt_deg": surface.tilt_deg,
                "azimuth_deg": surface.azimuth_deg,
                "assembly": self._own_assembly(surface),
            }
            edits.append({"op": "create", "kind": "surface", "id": key, "fields": fields})
            edits += [
                {"op": "create", "kind": "opening", "id": new_id(), "fields": {"surface": key, **opening}}
                for opening in surface.openings
            ]
        return edits

    def _own_assembly(self, surface: IncomingSurface) -> str | None:
        """The assembly of the file's name where the project has one and its kit would give another one."""
        found = next(
            (row["id"] for row in self.document.of("assembly").values() if row["name"] == surface.assembly), None
        )
        kit = kit_in_use(self.document)
        return None if kit and kit[surface.role] == found else found

    def _faces_differ(self, room: IncomingRoom, old: Row) -> bool:
        """Whether area, direction or openings of a room's faces are others than in the file."""
        surfaces = [row for row in self.document.of("surface").values() if row["room"] == old["id"]]
        own = {row["id"] for row in surfaces}
        openings = [row for row in self.document.of("opening").values() if row["surface"] in own]
        have = sorted((s["role"], round(s["azimuth_deg"]) % 360, round(s["area_m2"], 1)) for s in surfaces)
        want = sorted((s.role, round(s.azimuth_deg) % 360, round(s.area_m2, 1)) for s in room.surfaces or ())
        glass = sum(o["count"] * o["width_m"] * o["height_m"] for o in openings)
        incoming = sum(
            o.get("count", 1) * o["width_m"] * o["height_m"] for s in room.surfaces or () for o in s.openings
        )
        return have != want or abs(glass - incoming) > 0.05

    def _line(self, name: str, value: Any, old: Row | None) -> dict[str, Any]:
        column: Column | None = COLUMNS.get(name)
        title = column.title if column else name.replace("_m", "").replace("_", " ").capitalize()
        before = old[name] if old else None
        return {
            "field": name,
            "title": title,
            "quantity": column.quantity if column else "",
            "old": self._shown(name, before),
            "new": self._shown(name, value),
        }

    def _shown(self, name: str, value: Any) -> Any:
        if name in REFERENCES and value is not None:
            row = self.document.of(name).get(value)
            return row["name"] if row else next((n for (_, n), i in self._new.items() if i == value), value)
        return f"{len(value)} corners" if name == "outline_m" and value else value

    def _new_things(self, used: Collection[Any]) -> list[Change]:
        edits = []
        for position, ((kind, name), identity) in enumerate(self._new.items()):
            if identity not in used:
                continue
            fields: dict[str, Any] = {"name": name}
            if kind == "level":
                floor, height = self.incoming.levels.get(name, (0.0, None))
                fields |= {"floor_m": floor, "height_m": height, "position": 100 + position}
            edits.append({"op": "create", "kind": kind, "id": identity, "fields": fields})
        return edits

    @property
    def notes(self) -> list[str]:
        """What to know of the file, and what is made with its rooms."""
        made: dict[str, list[str]] = {}
        for kind, name in self._new:
            made.setdefault(kind, []).append(name)
        words = {"level": "Levels", "use": "Uses", "air_system": "Air systems", "zone": "Zones"}
        told = [
            f"{words[kind]} that the project lacks are made with ordinary values, to be looked at: {', '.join(names)}."
            for kind, names in made.items()
            if kind != "level" or any(name not in self.incoming.levels for name in names)
        ]
        return [*self.incoming.notes, *told]

    def _missing(self) -> Iterable[Difference]:
        there = {_folded(room.number) for room in self.incoming.rooms}
        for folded, row in self._by_number.items():
            if folded not in there:
                self._edits[row["number"]] = [{"op": "delete", "kind": "room", "id": row["id"], "fields": {}}]
                yield Difference(row["number"], MISSING, row["number"], row["name"], "not in the file")


def _folded(number: str) -> str:
    return number.strip().casefold()


def _set(kind: str, identity: str, fields: dict[str, Any]) -> Change:
    return {"op": "set", "kind": kind, "id": identity, "fields": fields}


def _same(one: Any, other: Any) -> bool:
    if isinstance(one, bool) or isinstance(other, bool) or one is None or other is None:
        return bool(one == other)
    if isinstance(one, int | float) and isinstance(other, int | float):
        return abs(one - other) <= _SAME * max(abs(one), abs(other)) + 1e-9
    if isinstance(one, list) and isinstance(other, list):
        return len(one) == len(other) and all(_same(a, b) for a, b in zip(one, other, strict=True))
    return bool(one == other)


def effective_height_m(document: Document, room: Row) -> float:
    """Height of a room, its own or its level's [m]."""
    return float(effective_values(document, room)["height_m"].value or 0.0)
