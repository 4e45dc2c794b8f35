"""A project's rows at one version, in memory."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any

Row = dict[str, Any]


@dataclass(frozen=True)
class Difference:
    """A field, or a whole thing, in which an option differs from its base; `was` is the base's value when it was set."""

    kind: str
    id: str
    op: str
    field: str
    base: Any
    value: Any
    was: Any
    conflict: bool


class Document:
    """All rows of a project at one version.

    A row that does not change keeps its identity from one version to the next: caches rest on that.
    """

    def __init__(self, project: str, version: int, rows: dict[str, dict[str, Row]], base: str | None = None) -> None:
        self.project = project
        self.version = version
        self.rows = rows
        self.base = base  # the project that an option stands on
        self.conflicts: tuple[Difference, ...] = ()  # fields that an option and its base both changed

    @cached_property
    def size(self) -> int:
        """How many rows it has."""
        return sum(len(rows) for rows in self.rows.values())

    def of(self, kind: str) -> dict[str, Row]:
        """Rows of a kind by id."""
        return self.rows[kind]

    def row(self, kind: str, identity: str | None) -> Row | None:
        """A row by its id."""
        return self.rows[kind].get(identity or "")

    def one(self, kind: str) -> Row:
        """The row of a kind of which a project has one."""
        return next(iter(self.rows[kind].values()))
