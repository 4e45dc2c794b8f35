"""Rows looked up while something is built are remembered with it, so that it is built again only when one changes."""

from collections import defaultdict
from collections.abc import Callable
from typing import Any

from projects.document import Document, Row

# Name of an index -> kind and the field that it groups by.
INDEXES = {
    "surfaces of room": ("surface", "room"),
    "openings of surface": ("opening", "surface"),
    "layers of assembly": ("layer", "assembly"),
    "items of use": ("use_item", "use"),
}
_Entry = tuple[tuple[tuple[str, str, Any], ...], Any]


class Lookups:
    """One document's rows, with a memory of what was built from them in the version before."""

    def __init__(self, document: Document, before: "Lookups | None" = None) -> None:
        self.document = document
        self._tables: dict[str, dict[str, Any]] = dict(document.rows)
        for name, (kind, column) in INDEXES.items():
            self._tables[name] = _index(document, kind, column, before, name)
        self._months = _months(document, before)
        self._tables["months"] = {"": self._months}
        self._tables["levels"] = {"": len(document.of("level"))}
        self._old: dict[tuple[str, str], _Entry] = before._kept if before else {}
        self._kept: dict[tuple[str, str], _Entry] = {}
        self._frames: list[dict[tuple[str, str], Any]] = [{}]

    def _look(self, table: str, key: str) -> Any:
        found = self._tables[table].get(key)
        self._frames[-1][(table, key)] = found
        return found

    def row(self, kind: str, identity: str | None) -> Row | None:
        """A row by its id."""
        found: Row | None = self._look(kind, identity or "")
        return found

    def existing(self, kind: str, identity: str) -> Row:
        """A row that is there because something refers to it."""
        found: Row = self._look(kind, identity)
        return found

    def one(self, kind: str) -> Row:
        """The row of a kind of which a project has one."""
        return self.existing(kind, next(iter(self._tables[kind])))

    def many(self, index: str, identity: str) -> tuple[Row, ...]:
        """Rows that belong to something."""
        return self._look(index, identity) or ()

    def months(self) -> tuple[Row, ...]:
        """Design months, January first."""
        return self._look("months", "") or ()

    def level_count(self) -> int:
        """How many levels there are."""
        return int(self._look("levels", ""))

    def remembered(self, what: str, identity: str, build: Callable[[], Any]) -> Any:
        """What `build` makes, or what it made before where every row that it looked at is the same."""
        key = (what, identity)
        entry = self._kept.get(key)
        if entry is None:
            entry = self._old.get(key)
            if entry is None or not self._stands(entry):
                self._frames.append({})
                try:
                    result = build()
                    seen = self._frames[-1]
                finally:
                    frame = self._frames.pop()
                    # A failure depends on what was looked at as well.
                    self._frames[-1].update(frame)
                entry = (tuple((table, key, value) for (table, key), value in seen.items()), result)
            self._kept[key] = entry
        for table, looked, value in entry[0]:
            self._frames[-1][(table, looked)] = value
        return entry[1]

    def forget_before(self) -> None:
        """Let go of what the version before knew and this one did not ask for."""
        self._old = {}

    def _stands(self, entry: _Entry) -> bool:
        tables = self._tables
        return all(tables[table].get(key) is value for table, key, value in entry[0])


def _index(document: Document, kind: str, column: str, before: Lookups | None, name: str) -> dict[str, tuple[Row, ...]]:
    if before is not None and before.document.of(kind) is document.of(kind):
        return before._tables[name]
    groups: dict[str, list[Row]] = defaultdict(list)
    for row in document.of(kind).values():
        groups[row[column]].append(row)
    old: dict[str, tuple[Row, ...]] = before._tables[name] if before else {}
    result = {}
    for identity, rows in groups.items():
        if "position" in rows[0]:
            rows.sort(key=lambda row: row["position"])
        kept = old.get(identity)
        same = kept is not None and len(kept) == len(rows) and all(a is b for a, b in zip(kept, rows, strict=True))
        result[identity] = kept if kept is not None and same else tuple(rows)
    return result


def _months(document: Document, before: Lookups | None) -> tuple[Row, ...]:
    if before is not None and before.document.of("design_month") is document.of("design_month"):
        return before._months
    return tuple(sorted(document.of("design_month").values(), key=lambda row: row["month"]))
