"""The one door for edits: a change set is planned on the document in memory, then written in one transaction.

A change is {"op": "create" | "set" | "delete", "kind", "id", "fields"}. The journal keeps the change set and its
inverse, so that undo is the same door walked backwards.
"""

from collections.abc import Mapping, Sequence
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import IntegrityError, transaction
from pydantic import ValidationError

from projects.document import Document, Row, load_document, remember
from projects.errors import FieldFault, Refused
from projects.kinds import KINDS, KindInfo
from projects.models import JournalEntry, Project

Change = dict[str, Any]
_LIMITS = {"ge": "at least", "gt": "more than", "le": "at most", "lt": "less than"}


def _allowed(context: Mapping[str, Any], kind: KindInfo, name: str) -> str:
    """The allowed range of a field in words, from its schema."""
    texts: list[str] = []
    schema = kind.schema.model_json_schema()["properties"].get(name, {})
    options = [schema, *schema.get("anyOf", [])]
    for option in options:
        for key, word in (("minimum", "ge"), ("exclusiveMinimum", "gt"), ("maximum", "le"), ("exclusiveMaximum", "lt")):
            if key in option:
                texts.append(f"{_LIMITS[word]} {option[key]:g}")
        if "enum" in option:
            texts.append("one of " + ", ".join(str(value) for value in option["enum"]))
        if "maxLength" in option:
            texts.append(f"{option.get('minLength', 0)} to {option['maxLength']} characters")
        if option.get("type") in ("number", "integer", "boolean") and not texts:
            texts.append(
                {"number": "a number", "integer": "a whole number", "boolean": "true or false"}[option["type"]]
            )
    return " and ".join(texts) or str(context.get("expected", ""))


def _bounds(context: Mapping[str, Any]) -> str:
    """The bound that a value inside a list went past, in words."""
    return " and ".join(
        f"{_LIMITS[key]} {context[key]:g}" for key in _LIMITS if isinstance(context.get(key), int | float)
    )


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
                message = item["msg"].removeprefix("Value error, ")
                if item["type"] == "extra_forbidden":
                    message = f"{name} has no field {column}"
                value = _at(fields, item["loc"]) if column else None
                context = item.get("ctx", {})
                allowed = _allowed(context, kind, column) if len(place) <= 1 else _bounds(context)
                label = " ".join([column, *(str(int(p) + 1) if p.isdigit() else p for p in place[1:])])
                faults.append(FieldFault(f"{path}/fields/{'/'.join(place)}", label, value, message, allowed))
            first = faults[0]
            shown = f"{first.field} {first.value!r}: " if first.field else ""
            span = f" (allowed: {first.allowed})" if first.allowed else ""
            raise Refused("invalid", f"{shown}{first.message}{span}.", faults) from error
        for column, target in kind.references.items():
            if values[column] is not None and values[column] not in self.rows[target]:
                fault = FieldFault(f"{path}/fields/{column}", column, values[column], f"no such {target}")
                raise Refused("invalid", f"{column} {values[column]!r}: there is no such {target}.", [fault])
        return values

    def refuse_taken(self, kind: KindInfo, name: str, identity: str, values: Row, path: str) -> None:
        """Refuse a second thing with the same name, where names must differ.

        Raises:
            Refused: the name is taken.
        """
        if kind.unique is None:
            return
        wanted = values[kind.unique].casefold()
        for other in self.rows[name].values():
            if other["id"] != identity and other[kind.unique].casefold() == wanted:
                fault = FieldFault(
                    f"{path}/fields/{kind.unique}", kind.unique, values[kind.unique], "taken", "another name"
                )
                raise Refused("invalid", f"There is already a {name} with the name {other[kind.unique]!r}.", [fault])

    def create(self, change: Change, path: str) -> None:
        name, identity = change["kind"], change["id"]
        kind = self.kind(name, path)
        if kind.single:
            raise Refused("invalid", f"A {name} is made with its project.", [FieldFault(path, "kind", name, "single")])
        if identity in self.rows[name]:
            raise Refused("conflict", f"A {name} with the id {identity} is already there.",
                          [FieldFault(path, "id", identity, "taken")])  # fmt: skip
        values = self.checked(kind, name, change.get("fields", {}), path)
        self.refuse_taken(kind, name, identity, values, path)
        self.table(name)[identity] = {"id": identity, **values}
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
        self.table(name)[identity] = {"id": identity, **values}
        before = {column: row[column] for column in changed}
        self.inverse.append({"op": "set", "kind": name, "id": identity, "fields": before})
        self.touched[(name, identity)] = None

    def delete(self, change: Change, path: str) -> None:
        """Delete a row with its parts; references to it are emptied or re-hung, or the change is refused."""
        name, identity = change["kind"], change["id"]
        kind = self.kind(name, path)
        if kind.single:
            raise Refused("invalid", f"A {name} stays with its project.", [FieldFault(path, "kind", name, "single")])
        row = self.existing(name, identity, path)
        for other, info in KINDS.items():
            for column, target in info.references.items():
                if target != name:
                    continue
                users = [user for user in self.rows[other].values() if user[column] == identity]
                if info.owner == column:
                    for user in users:
                        if user["id"] in self.rows[other]:
                            self.delete({"kind": other, "id": user["id"]}, path)
                elif info.rehang == column:
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
        del self.table(name)[identity]
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
    return plan.rows, list(reversed(plan.inverse)), list(plan.touched)


def _refuse_stale(project: Project, base_version: int, changes: Sequence[Change], document: Document) -> None:
    """Refuse fields that somebody else changed since the version the change set was made on."""
    if base_version > project.version:
        raise Refused("conflict", f"Version {base_version} is not there yet; the document is at {project.version}.")
    mine = {(c["kind"], c["id"], column): value for c in changes for column, value in c.get("fields", {}).items()
            if c["op"] == "set"}  # fmt: skip
    faults: list[FieldFault] = []
    for entry in JournalEntry.objects.filter(project=project, version__gt=base_version):
        for other in entry.changes:
            for column in other.get("fields", {}) if other["op"] == "set" else ():
                key = (other["kind"], other["id"], column)
                row = document.of(other["kind"]).get(other["id"])
                if key in mine and row is not None and row[column] != mine[key]:
                    place = f"{other['kind']}/{other['id']}/{column}"
                    text = f"now {row[column]!r}, wanted {mine[key]!r}"
                    faults.append(FieldFault(place, column, mine[key], text, str(row[column])))
    if faults:
        first = faults[0]
        raise Refused("conflict", f"{first.field} was changed meanwhile: {first.message}.", faults)


def _write(
    project: Project, before: Document, rows: dict[str, dict[str, Row]], touched: Sequence[tuple[str, str]]
) -> None:
    """Bring the tables to `rows`: creations in order of dependence, then updates, then deletions."""
    by_kind: dict[str, list[str]] = {}
    for name, identity in touched:
        by_kind.setdefault(name, []).append(identity)
    for name, kind in KINDS.items():
        made = [rows[name][i] for i in by_kind.get(name, []) if i in rows[name] and i not in before.of(name)]
        objects = [
            kind.table(id=row["id"], project_id=project.id, **{kind.column(c): row[c] for c in kind.columns})
            for row in made
        ]
        kind.table._default_manager.bulk_create(objects, batch_size=500)
    for name, kind in KINDS.items():
        for identity in by_kind.get(name, []):
            now, old = rows[name].get(identity), before.of(name).get(identity)
            if now is not None and old is not None and now is not old:
                changed = {kind.column(c): now[c] for c in kind.columns if now[c] != old[c]}
                if changed:
                    kind.table._default_manager.filter(pk=identity).update(**changed)
    for name, kind in reversed(KINDS.items()):
        gone = [i for i in by_kind.get(name, []) if i not in rows[name] and i in before.of(name)]
        if gone:
            kind.table._default_manager.filter(pk__in=gone)._raw_delete(using="default")


def apply_changes(
    project_id: str,
    author: AbstractBaseUser,
    changes: Sequence[Change],
    label: str,
    base_version: int,
    way: str = "edit",
    of_version: int | None = None,
) -> tuple[Document, Document, list[tuple[str, str]]]:
    """Apply a change set in one transaction; returns the documents before and after and what was touched.

    Raises:
        Refused: invalid, stale or impossible; nothing was saved.
    """
    try:
        with transaction.atomic():
            project = Project.objects.select_for_update().get(pk=project_id)
            before = load_document(project)
            _refuse_stale(project, base_version, changes, before)
            rows, inverse, touched = plan_changes(before, changes)
            if not touched:
                return before, before, []
            _write(project, before, rows, touched)
            version = project.version + 1
            Project.objects.filter(pk=project_id).update(version=version)
            JournalEntry.objects.create(
                project=project, version=version, author=author, label=label[:160], changes=list(changes),
                inverse=inverse, way=way, of_version=of_version,
            )  # fmt: skip
    except IntegrityError as error:
        raise Refused("conflict", f"The database refused this: {error}.") from error
    after = Document(project_id, version, rows)
    remember(after)
    return before, after, touched
