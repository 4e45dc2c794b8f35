"""Rows looked up while something is built are remembered with it, so that it is built again only when one changes."""

from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from projects.rows import Document, Row

# Name of an index -> kind and the field that it groups by.
INDEXES = {
    "surfaces of room": ("surface", "room"),
    "openings of surface": ("opening", "surface"),
    "layers of assembly": ("layer", "assembly"),
    "items of use": ("use_item", "use"),
    "extracts of room": ("extract", "room"),
}
_Key = tuple[str, str]


@dataclass(frozen=True)
class _Entry:
    """Something built: the rows it looked at, the other built things that went into it, and itself."""

    rows: tuple[tuple[str, str, Any], ...]
    parts: tuple[tuple[_Key, "_Entry"], ...]
    result: Any


class _Frame:
    """What has been looked at since a building began."""

    def __init__(self) -> None:
        self.rows: dict[_Key, Any] = {}
        self.parts: dict[_Key, _Entry] = {}


class Lookups:
    """One document's rows, with a memory of what was built from them in the version before."""

    def __init__(self, document: Document, before: "Lookups | None" = None) -> None:
        self.document = document
        self._tables: dict[str, dict[str, Any]] = dict(document.rows)
        for name, (kind, column) in INDEXES.items():
            self._tables[name] = _index(document, kind, column, before, name)
        self._months = _months(document, before)
        self._tables["months"] = {"": self._months}
        self._tables["every"] = document.rows
        self._tables["levels"] = {"": len(document.of("level"))}
        self._tables["said"] = _said(document, before)
        self._old: dict[_Key, _Entry] = before._kept if before else {}
        self._kept: dict[_Key, _Entry] = {}
        self._frames = [_Frame()]

    def _look(self, table: str, key: str) -> Any:
        found = self._tables[table].get(key)
        self._frames[-1].rows[(table, key)] = found
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

    def every(self, kind: str) -> dict[str, Row]:
        """All rows of a kind by id."""
        found: dict[str, Row] = self._look("every", kind) or {}
        return found

    def months(self) -> tuple[Row, ...]:
        """Design months, January first."""
        return self._look("months", "") or ()

    def level_count(self) -> int:
        """How many levels there are."""
        return int(self._look("levels", ""))

    def said(self, kind: str, field: str) -> Any:
        """One field of the site or the project, for those to whom the rest of it is nothing."""
        return self._look("said", f"{kind}.{field}")

    def remembered(self, what: str, identity: str, build: Callable[[], Any], compare: bool = False) -> Any:
        """What `build` makes, or what it made before where everything that it looked at is the same.

        `build` must look up every row it uses itself, here: what is handed to it from outside is not seen, unless it
        is part of `identity`. With `compare` a result that equals the one before is the one before: what rests on it
        then stands as well.
        """
        key = (what, identity)
        entry = self._current(key)
        if entry is None:
            self._frames.append(_Frame())
            try:
                result = build()
            except Exception:
                # What failed depends on what was looked at as well.
                failed = self._frames.pop()
                self._frames[-1].rows.update(failed.rows)
                self._frames[-1].parts.update(failed.parts)
                raise
            frame = self._frames.pop()
            before = self._old.get(key) if compare else None
            if before is not None and before.result == result:
                result = before.result
            rows = tuple((table, looked, value) for (table, looked), value in frame.rows.items())
            entry = _Entry(rows, tuple(frame.parts.items()), result)
            self._kept[key] = entry
        self._frames[-1].parts[key] = entry
        return entry.result

    def _current(self, key: _Key) -> "_Entry | None":
        """What is known under a key, if it still stands."""
        kept = self._kept.get(key)
        if kept is not None:
            return kept
        entry = self._old.get(key)
        if entry is None:
            return None
        tables = self._tables
        # Plain loops: this runs for every row that every room looks at, at every edit.
        for table, looked, value in entry.rows:
            if tables[table].get(looked) is not value:
                return None
        for part, known in entry.parts:
            if self._current(part) is not known:
                return None
        self._kept[key] = entry
        return entry

    def forget_before(self) -> None:
        """Let go of what the version before knew and this one did not ask for."""
        self._old = {}


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


def _said(document: Document, before: Lookups | None) -> dict[str, Any]:
    """Fields of rows of which a project has one; each stays the same object while it says the same."""
    old = before._tables["said"] if before else {}
    new = {
        f"{kind}.{field}": value
        for kind in ("site", "project")
        for row in document.of(kind).values()
        for field, value in row.items()
    }
    return {key: old[key] if key in old and old[key] == value else value for key, value in new.items()}
