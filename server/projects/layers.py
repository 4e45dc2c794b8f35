"""Options: layers over a base, kept as what differs.

A layer holds, by kind and id, one of: {"op": "set", "fields", "was"}, the fields that differ with the base's values when they were
set; {"op": "made", "fields"}; {"op": "gone"}. Rows that it does not touch are the base's own objects.
"""

from collections.abc import Iterable, Mapping
from typing import Any

from projects.kinds import KINDS, KindInfo
from projects.rows import Difference, Document, Row

Entry = dict[str, Any]
Layer = dict[str, dict[str, Entry]]
SET, MADE, GONE = "set", "made", "gone"


def overlaid(base: Document, layer: Layer, identity: str, version: int, before: Document | None = None) -> Document:
    """The document of an option; rows that are as in `before` keep their identity.

    What rests on things that the base has no more is left out; the layer keeps it.
    """
    rows = dict(base.rows)
    for name, entries in layer.items():
        if name not in KINDS:
            continue
        table, kind = dict(rows[name]), KINDS[name]
        for key, entry in entries.items():
            row = _row(kind, key, entry, table.get(key))
            if row is None:
                table.pop(key, None)
                continue
            old = before.of(name).get(key) if before is not None else None
            table[key] = old if old == row else row
        rows[name] = table
    _drop_dangling(rows, layer)
    document = Document(identity, version, rows, base.project)
    document.conflicts = tuple(one for one in differences(base, layer) if one.conflict)
    return document


def _row(kind: KindInfo, key: str, entry: Entry, base: Row | None) -> Row | None:
    if entry["op"] == GONE or (entry["op"] == SET and base is None):
        return None
    known = {field: value for field, value in entry["fields"].items() if field in kind.columns}
    if base is not None:
        return base | known
    if len(known) < len(kind.columns):
        # Made before a field was there: it has what a new thing has.
        known = kind.schema.model_validate(known).model_dump(mode="json")
    return {"id": key} | known


def _drop_dangling(rows: dict[str, dict[str, Row]], layer: Layer) -> None:
    """Empty references to what is not there, or leave the row out where it cannot be without."""
    suspects = {(name, key) for name, entries in layer.items() if name in KINDS for key in entries if key in rows[name]}
    missing = {name for name, entries in layer.items() for entry in entries.values() if entry["op"] != SET}
    while suspects or missing:
        for name, kind in KINDS.items():
            if missing & set(kind.references.values()):
                suspects |= {(name, key) for key in rows[name]}
        missing = set()
        for name, key in suspects:
            row = rows[name].get(key)
            if row is None:
                continue
            kind = KINDS[name]
            lost = [c for c, target in kind.references.items() if row[c] is not None and row[c] not in rows[target]]
            if not lost:
                continue
            rows[name] = dict(rows[name])
            if all(kind.clearable(column) and kind.about.owner != column for column in lost):
                rows[name][key] = row | dict.fromkeys(lost)
            else:
                del rows[name][key]
                missing.add(name)
        suspects = set()


def layered(
    base: Document, layer: Layer, rows: Mapping[str, Mapping[str, Row]], touched: Iterable[tuple[str, str]]
) -> Layer:
    """The layer after an edit that left `rows`."""
    found: Layer = {name: dict(entries) for name, entries in layer.items()}
    for name, key in touched:
        entries = found.setdefault(name, {})
        now, there = rows[name].get(key), base.of(name).get(key)
        if now is None and there is None:
            entries.pop(key, None)
        elif now is None:
            entries[key] = {"op": GONE}
        elif there is None:
            entries[key] = {"op": MADE, "fields": {c: now[c] for c in KINDS[name].columns}}
        else:
            fields = {c: now[c] for c in KINDS[name].columns if now[c] != there[c]}
            was = entries.get(key, {}).get("was", {})
            if fields:
                entries[key] = {"op": SET, "fields": fields, "was": {c: was.get(c, there[c]) for c in fields}}
            else:
                entries.pop(key, None)
    return {name: entries for name, entries in found.items() if entries}


def differences(base: Document, layer: Layer) -> list[Difference]:
    """Every field and thing in which the option differs from the base as it is now."""
    found = []
    for name in KINDS:
        for key, entry in layer.get(name, {}).items():
            there = base.of(name).get(key)
            if entry["op"] != SET:
                if (entry["op"] == GONE) != (there is None):
                    found.append(
                        Difference(name, key, entry["op"], field="", base=None, value=None, was=None, conflict=False)
                    )
                continue
            for field, value in entry["fields"].items():
                was = entry["was"].get(field)
                if there is None:
                    found.append(
                        Difference(name, key, SET, field=field, base=None, value=value, was=was, conflict=True)
                    )
                elif there.get(field) != value:
                    found.append(
                        Difference(
                            name,
                            key,
                            SET,
                            field=field,
                            base=there.get(field),
                            value=value,
                            was=was,
                            conflict=there.get(field) != was,
                        )
                    )
    return found


def as_changes(base: Document, layer: Layer) -> list[dict[str, Any]]:
    """The layer as a change set on its base: what is made first in order of dependence, then what is set, then what goes."""
    made: list[dict[str, Any]] = []
    late: list[dict[str, Any]] = []
    for name in KINDS:
        new = {
            key: entry["fields"]
            for key, entry in layer.get(name, {}).items()
            if entry["op"] == MADE and key not in base.of(name)
        }
        for key, fields in new.items():
            # Things of one kind that point at each other, or at a later kind: those references come when all are there.
            kind, order = KINDS[name], list(KINDS)
            ahead = {
                c: fields[c]
                for c, target in kind.references.items()
                if fields.get(c) is not None and c != kind.about.owner and order.index(target) >= order.index(name)
            }
            made.append({"op": "create", "kind": name, "id": key, "fields": fields | dict.fromkeys(ahead)})
            if ahead:
                late.append({"op": "set", "kind": name, "id": key, "fields": ahead})
    fields = [
        {"op": "set", "kind": name, "id": key, "fields": entry["fields"]}
        for name in KINDS
        for key, entry in layer.get(name, {}).items()
        if entry["op"] == SET and key in base.of(name)
    ]
    gone = [
        {"op": "delete", "kind": name, "id": key, "fields": {}}
        for name in reversed(KINDS)
        for key, entry in layer.get(name, {}).items()
        if entry["op"] == GONE and key in base.of(name)
    ]
    return made + late + fields + gone


def agreed(base: Document, layer: Layer, kind: str, identity: str, field: str) -> Layer:
    """The layer after somebody said that its value stands against the base's as it is now.

    Raises:
        KeyError: the layer does not say otherwise there.
    """
    entry = layer[kind][identity]
    if field not in entry["fields"]:
        raise KeyError(field)
    was = entry["was"] | {field: base.of(kind)[identity][field]}
    return layer | {kind: layer[kind] | {identity: entry | {"was": was}}}
