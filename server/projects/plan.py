"""What a list of changes comes to in a document, before anything is written: rows made, set and deleted, or a refusal."""

from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import ValidationError

from projects.errors import FieldFault, Refused
from projects.kinds import KINDS, KindInfo
from projects.labels import in_words
from projects.rows import Document, Row
from projects.trees import refuse_broken_trees

Change = dict[str, Any]


_SHOWN = 80


# Kinds of faults whose message says more than the field's range would.
_TELL_THEMSELVES = ("value_error", "string_pattern_mismatch", "extra_forbidden", "missing")


_LIMITS = {"ge": "at least", "gt": "more than", "le": "at most", "lt": "less than"}


def _bounds(context: Mapping[str, Any]) -> str:
    """The bound that a value inside a list went past, in words."""
    return " and ".join(
        f"{_LIMITS[key]} {context[key]:g}" for key in _LIMITS if isinstance(context.get(key), int | float)
    )


def _shown(value: Any) -> str:
    """A refused value, no longer than can be read; a part of a list is told by its place alone."""
    if isinstance(value, dict):
        return ""
    text = repr(value)
    return text if len(text) <= _SHOWN else f"{text[:_SHOWN]} …"


def _at(fields: Mapping[str, Any], place: Sequence[str | int]) -> Any:
    """The value at a place of a validation error; the innermost that is there."""
    value: Any = fields
    for part in place:
        try:
            value = value[part]
        except (KeyError, IndexError, TypeError):
            break
    return None if value is fields else value


class _Plan:
    """Works a change set out on copies of the document's tables."""

    def __init__(self, document: Document) -> None:
        self.before = document
        self.rows: dict[str, dict[str, Row]] = dict(document.rows)
        self.copied: set[str] = set()
        self.inverse: list[Change] = []
        self.touched: dict[tuple[str, str], None] = {}
        self._names: dict[str, dict[str, str]] = {}
        self._users: dict[tuple[str, str], dict[str, dict[str, None]]] = {}

    def names(self, name: str, column: str) -> dict[str, str]:
        """Ids of a kind by the name that no two may share; made once, then kept up."""
        if name not in self._names:
            self._names[name] = {row[column].casefold(): row["id"] for row in self.rows[name].values()}
        return self._names[name]

    def users(self, name: str, column: str) -> dict[str, dict[str, None]]:
        """Ids of a kind by what they point at; made once, then kept up."""
        if (name, column) not in self._users:
            found: dict[str, dict[str, None]] = {}
            for row in self.rows[name].values():
                if row[column] is not None:
                    found.setdefault(row[column], {})[row["id"]] = None
            self._users[name, column] = found
        return self._users[name, column]

    def _put(self, name: str, identity: str, row: Row | None) -> None:
        """A row in place of the one before, in the table and in what is kept up beside it."""
        kind, table = KINDS[name], self.table(name)
        old = table.get(identity)
        if row is None:
            del table[identity]
        else:
            table[identity] = row
        if name in self._names and kind.about.unique:
            if old is not None:
                self._names[name].pop(old[kind.about.unique].casefold(), None)
            if row is not None:
                self._names[name][row[kind.about.unique].casefold()] = identity
        for column in kind.references:
            found = self._users.get((name, column))
            if found is None:
                continue
            if old is not None and old[column] is not None:
                found.get(old[column], {}).pop(identity, None)
            if row is not None and row[column] is not None:
                found.setdefault(row[column], {})[identity] = None

    def table(self, kind: str) -> dict[str, Row]:
        """A table that may be changed."""
        if kind not in self.copied:
            self.rows[kind] = dict(self.rows[kind])
            self.copied.add(kind)
        return self.rows[kind]

    def kind(self, name: str, path: str) -> KindInfo:
        if name not in KINDS:
            raise Refused("invalid", f"There is no kind {name!r}.", [FieldFault(path, "kind", name, "unknown kind")])
        return KINDS[name]

    def existing(self, kind: str, identity: str, path: str) -> Row:
        row = self.rows[kind].get(identity)
        if row is None:
            raise Refused(
                "not_found", f"This {kind} is not there any more.", [FieldFault(path, "id", identity, "gone")]
            )
        return row

    def checked(self, kind: KindInfo, name: str, fields: Mapping[str, Any], path: str) -> Row:
        """Validate a whole row and its references.

        Raises:
            Refused: naming every faulty field with its value and range.
        """
        try:
            values = kind.schema.model_validate(fields).model_dump(mode="json")
        except ValidationError as error:
            faults = []
            for item in error.errors(include_url=False):
                place = [str(part) for part in item["loc"]]
                column = place[0] if place else ""
                message = in_words(item["msg"].removeprefix("Value error, "), kind)
                if item["type"] == "string_pattern_mismatch":
                    message = "it holds signs that cannot stand in it"
                elif item["type"] == "missing":
                    message = "it is needed"
                if item["type"] == "extra_forbidden":
                    message = f"there is no such field of a {name.replace('_', ' ')}"
                value = _at(fields, item["loc"]) if column else None
                context = item.get("ctx", {})
                fact = kind.facts.get(column)
                allowed = _bounds(context) if len(place) > 1 or fact is None else fact.allowed
                label = " ".join([column, *(str(int(p) + 1) if p.isdigit() else p for p in place[1:])])
                faults.append(FieldFault(f"{path}/fields/{'/'.join(place)}", label, value, message, allowed))
            first = faults[0]
            shown = f"{kind.label(first.field)} {_shown(first.value)}".strip() + ": " if first.field else ""
            # The library's own words only where there is no range to tell.
            by_range = first.allowed and error.errors()[0]["type"] not in _TELL_THEMSELVES
            said = f"allowed is {first.allowed}" if by_range else first.message
            raise Refused("invalid", f"{shown}{said}.", faults) from error
        for column, target in kind.references.items():
            if values[column] is not None and values[column] not in self.rows[target]:
                fault = FieldFault(f"{path}/fields/{column}", column, values[column], f"no such {target}")
                what = target.replace("_", " ")
                raise Refused(
                    "invalid", f"{kind.label(column)} {_shown(values[column])}: there is no such {what}.", [fault]
                )
        return values

    def refuse_taken(self, kind: KindInfo, name: str, identity: str, values: Row, path: str) -> None:
        """Refuse a second thing with the same name, where names must differ.

        Raises:
            Refused: the name is taken.
        """
        if kind.about.unique is None:
            return
        other = self.names(name, kind.about.unique).get(values[kind.about.unique].casefold(), identity)
        if other != identity:
            fault = FieldFault(
                f"{path}/fields/{kind.about.unique}",
                kind.about.unique,
                values[kind.about.unique],
                "taken",
                "another name",
            )
            taken = self.rows[name][other][kind.about.unique]
            raise Refused("invalid", f"There is already a {name} with the name {taken!r}.", [fault])

    def create(self, change: Change, path: str) -> None:
        name, identity = change["kind"], change["id"]
        kind = self.kind(name, path)
        if kind.about.single:
            raise Refused("invalid", f"A {name} is made with its project.", [FieldFault(path, "kind", name, "single")])
        if identity in self.rows[name]:
            raise Refused(
                "conflict",
                f"A {name} with the id {identity} is already there.",
                [FieldFault(path, "id", identity, "taken")],
            )
        if len(self.rows[name]) >= kind.about.most:
            raise Refused(
                "invalid",
                f"A project has at most {kind.about.most} of the kind {name.replace('_', ' ')}.",
                [FieldFault(path, "kind", name, "too many", f"at most {kind.about.most}")],
            )
        values = self.checked(kind, name, change.get("fields", {}), path)
        self.refuse_taken(kind, name, identity, values, path)
        self._put(name, identity, {"id": identity, **values})
        self.inverse.append({"op": "delete", "kind": name, "id": identity})
        self.touched[(name, identity)] = None

    def set(self, change: Change, path: str) -> None:
        name, identity, fields = change["kind"], change["id"], change.get("fields", {})
        kind = self.kind(name, path)
        row = self.existing(name, identity, path)
        merged = {column: row[column] for column in kind.columns} | fields
        values = self.checked(kind, name, merged, path)
        self.refuse_taken(kind, name, identity, values, path)
        changed = [column for column in kind.columns if values[column] != row[column]]
        if not changed:
            return
        self._put(name, identity, {"id": identity, **values})
        before = {column: row[column] for column in changed}
        self.inverse.append({"op": "set", "kind": name, "id": identity, "fields": before})
        self.touched[(name, identity)] = None

    def delete(self, change: Change, path: str) -> None:
        """Delete a row with its parts; references to it are emptied or re-hung, or the change is refused."""
        name, identity = change["kind"], change["id"]
        kind = self.kind(name, path)
        if kind.about.single:
            raise Refused("invalid", f"A {name} stays with its project.", [FieldFault(path, "kind", name, "single")])
        row = self.existing(name, identity, path)
        for other, info in KINDS.items():
            for column, target in info.references.items():
                if target != name:
                    continue
                users = [self.rows[other][user] for user in self.users(other, column).get(identity, ())]
                if info.about.owner == column:
                    for user in users:
                        if user["id"] in self.rows[other]:
                            self.delete({"kind": other, "id": user["id"]}, path)
                elif info.about.rehang == column:
                    for user in users:
                        self.set({"kind": other, "id": user["id"], "fields": {column: row[column]}}, path)
                elif users and info.clearable(column):
                    for user in users:
                        self.set({"kind": other, "id": user["id"], "fields": {column: None}}, path)
                elif users:
                    label = row.get("name", identity)
                    raise Refused(
                        "in_use",
                        f"{label} is used by {len(users)} {other}{'s' if len(users) > 1 else ''}; give them another first.",
                        [FieldFault(path, column, identity, "in use")],
                    )
        self._put(name, identity, None)
        self.inverse.append({"op": "create", "kind": name, "id": identity, "fields": {c: row[c] for c in kind.columns}})
        self.touched[(name, identity)] = None


def plan_changes(
    document: Document, changes: Sequence[Change]
) -> tuple[dict[str, dict[str, Row]], list[Change], list[tuple[str, str]]]:
    """Work out a change set: the new tables, its inverse, and what was touched.

    Raises:
        Refused: something in it is not allowed; nothing of it stands.
    """
    plan = _Plan(document)
    for index, change in enumerate(changes):
        path = f"/changes/{index}"
        {"create": plan.create, "set": plan.set, "delete": plan.delete}[change["op"]](change, path)
    refuse_broken_trees(plan.rows, plan.touched)
    return plan.rows, list(reversed(plan.inverse)), list(plan.touched)
