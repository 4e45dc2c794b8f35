"""Documents of projects: read, kept, brought forward; never changed in place."""

import threading
from collections import OrderedDict
from collections.abc import Sequence
from itertools import chain
from typing import Any

from django.db import transaction
from django.db.models import F

from projects.errors import Refused
from projects.kinds import KINDS
from projects.layers import overlaid
from projects.models import JournalEntry, Project
from projects.rows import Document, Row

_kept: OrderedDict[tuple[str, int], Document] = OrderedDict()
_lock = threading.Lock()
_KEPT_ROWS = 250_000  # of all kept documents; rows that versions share are counted with each
_TRIES = 20


def remember(document: Document) -> None:
    """Keep a document for the next request of this process, and as many others as fit."""
    with _lock:
        _kept[(document.project, document.version)] = document
        _kept.move_to_end((document.project, document.version))
        total = sum(kept.size for kept in _kept.values())
        while total > _KEPT_ROWS and len(_kept) > 2:
            total -= _kept.popitem(last=False)[1].size


def forget_all() -> None:
    """Drop every kept document (tests roll the database back under them)."""
    with _lock:
        _kept.clear()


def load_document(project: Project) -> Document:
    """The document at the project's version or a later one: one query per kind, or none where it is kept.

    One that another process moved on is brought forward from the version that is kept by reading what the journal names.
    An option's is that of its base with the option's layer laid over it.
    """
    if project.base_id is not None:
        return _load_option(project)
    for _ in range(_TRIES):
        kept = _kept.get((project.id, project.version))
        if kept is not None:
            return kept
        document = _brought_forward(project) or _read(project)
        # Several queries see one state only if nobody saved in between.
        version = Project.objects.filter(pk=project.id).values_list("version", flat=True).get()
        if version == project.version:
            remember(document)
            return document
        project.version = version
    raise Refused("busy", "The project is being changed faster than it can be read. Try again in a moment.")


def _load_option(project: Project) -> Document:
    for _ in range(_TRIES):
        base = catch_up(project)
        kept = _kept.get((project.id, project.version))
        if kept is not None:
            return kept
        with _lock:
            versions = [version for identity, version in _kept if identity == project.id]
            before = _kept[(project.id, max(versions))] if versions else None
        document = overlaid(base, project.layer, project.id, project.version, before)
        if not Project.objects.filter(pk=project.id).exclude(version=project.version).exists():
            remember(document)
            return document
    raise Refused("busy", "The project is being changed faster than it can be read. Try again in a moment.")


def catch_up(option: Project) -> Document:
    """Bring an option to its base as it is now: what the base's edits touched is an entry of the option's journal, so that undo,
    conflicts and what others see go by one rule. Returns the base's document.
    """
    for _ in range(_TRIES):
        option.refresh_from_db()
        assert option.base is not None
        base = load_document(option.base)
        if base.version == option.base_version:
            return base
        since = JournalEntry.objects.filter(
            project_id=base.project, version__gt=option.base_version, version__lte=base.version
        )
        changes: list[dict[str, Any]] = []
        inverse: list[dict[str, Any]] = []
        for entry in since.order_by("version"):
            changes += [change | {"fields": dict.fromkeys(change.get("fields", {}))} for change in entry.changes]
            inverse += [{"kind": change["kind"], "id": change["id"]} for change in entry.inverse]
        with transaction.atomic():
            moved = Project.objects.filter(pk=option.pk, version=option.version).update(
                version=option.version + 1, base_version=base.version
            )
            if moved:
                JournalEntry.objects.create(
                    project=option,
                    version=option.version + 1,
                    author_id=option.owner_id,
                    label="Base changed",
                    changes=changes,
                    inverse=inverse,
                    way="base",
                )
    raise Refused("busy", "The base is being changed faster than it can be followed. Try again in a moment.")


def _brought_forward(project: Project) -> Document | None:
    """The document from the newest one that is kept and the rows that the journal names since; None where none is kept."""
    with _lock:
        versions = [version for identity, version in _kept if identity == project.id and version < project.version]
        base = _kept[(project.id, max(versions))] if versions else None
    if base is None:
        return None
    entries = JournalEntry.objects.filter(project=project, version__gt=base.version, version__lte=project.version)
    touched: dict[str, set[str]] = {}
    for inverse in entries.values_list("inverse", flat=True):
        for change in inverse:
            touched.setdefault(change["kind"], set()).add(change["id"])
    rows = dict(base.rows)
    for name, ids in touched.items():
        table, found = dict(rows[name]), _rows(name, project.id, sorted(ids))
        for identity in ids:
            if identity not in found:
                table.pop(identity, None)
        rows[name] = table | found
    return Document(project.id, project.version, rows)


def _read(project: Project) -> Document:
    return Document(project.id, project.version, {name: _rows(name, project.id) for name in KINDS})


def _rows(name: str, project: str, ids: Sequence[str] | None = None) -> dict[str, Row]:
    """Rows of a kind by id, all or some."""
    kind = KINDS[name]
    own = {"pk": project} if name == "project" else {"project_id": project}
    plain = [column for column in kind.columns if column not in kind.references]
    # References under their own name, but as ids.
    named = {f"ref_{column}": F(f"{column}_id") for column in kind.references}
    every = kind.table._default_manager.filter(**own)
    parts = [every] if ids is None else [every.filter(pk__in=ids[at : at + 500]) for at in range(0, len(ids), 500)]
    table: dict[str, Row] = {}
    for found in chain.from_iterable(part.values("id", *plain, **named) for part in parts):
        row = {"id": found["id"]}
        for column in kind.columns:
            row[column] = found[f"ref_{column}" if column in kind.references else column]
        table[row["id"]] = row
    return table
