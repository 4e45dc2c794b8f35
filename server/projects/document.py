"""A project's document in memory: plain rows by kind and id, never changed in place."""

from collections import OrderedDict
from typing import Any

from django.db.models import F

from projects.kinds import KINDS
from projects.models import Project

Row = dict[str, Any]


class Document:
    """All rows of a project at one version.

    A row that does not change keeps its identity from one version to the next: caches rest on that.
    """

    def __init__(self, project: str, version: int, rows: dict[str, dict[str, Row]]) -> None:
        self.project = project
        self.version = version
        self.rows = rows

    def of(self, kind: str) -> dict[str, Row]:
        """Rows of a kind by id."""
        return self.rows[kind]

    def row(self, kind: str, identity: str | None) -> Row | None:
        """A row by its id."""
        return self.rows[kind].get(identity or "")

    def one(self, kind: str) -> Row:
        """The row of a kind of which a project has one."""
        return next(iter(self.rows[kind].values()))


_kept: OrderedDict[tuple[str, int], Document] = OrderedDict()
_KEEP = 6


def remember(document: Document) -> None:
    """Keep a document for the next request of this process."""
    _kept[(document.project, document.version)] = document
    while len(_kept) > _KEEP:
        _kept.popitem(last=False)


def forget_all() -> None:
    """Drop every kept document (tests roll the database back under them)."""
    _kept.clear()


def load_document(project: Project) -> Document:
    """The document at the project's version: one query per kind, or none where it is kept."""
    kept = _kept.get((project.id, project.version))
    if kept is not None:
        return kept
    rows: dict[str, dict[str, Row]] = {}
    for name, kind in KINDS.items():
        own = {"pk": project.id} if name == "project" else {"project_id": project.id}
        plain = [column for column in kind.columns if column not in kind.references]
        # References under their own name, but as ids.
        ids = {f"ref_{column}": F(f"{column}_id") for column in kind.references}
        table: dict[str, Row] = {}
        for found in kind.table._default_manager.filter(**own).values("id", *plain, **ids):
            row = {"id": found["id"]}
            for column in kind.columns:
                row[column] = found[f"ref_{column}" if column in kind.references else column]
            table[row["id"]] = row
        rows[name] = table
    document = Document(project.id, project.version, rows)
    remember(document)
    return document
