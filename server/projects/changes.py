"""The one door for edits: a change set is planned on the document in memory, then written in one transaction.

A change is {"op": "create" | "set" | "delete", "kind", "id", "fields"}. The journal keeps the change set and its
inverse, so that undo is the same door walked backwards.
"""

import logging
from collections.abc import Sequence
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import IntegrityError, transaction

from projects.citations import with_citations
from projects.document import load_document, remember
from projects.errors import FieldFault, Refused
from projects.kinds import KINDS, KindInfo
from projects.layers import layered
from projects.models import JournalEntry, Project
from projects.plan import Change, plan_changes
from projects.rows import Document, Row

_log = logging.getLogger("pendrum.changes")


_FEW, _AT_ONCE = 3, 500  # different changes that get a statement each; rows of one statement


_TRIES = 8  # to save on a document that others keep moving on


def _entries_since(project: Project, base_version: int) -> list[JournalEntry]:
    if base_version > project.version:
        raise Refused("conflict", f"Version {base_version} is not there yet; the document is at {project.version}.")
    if base_version == project.version:
        return []
    return list(JournalEntry.objects.filter(project=project, version__gt=base_version).order_by("version"))


def refuse_stale(
    project: Project, base_version: int, changes: Sequence[Change], document: Document, own: object = None
) -> None:
    """Refuse what somebody else changed since the version a change set was made on.

    That is a field that was set to another value, and a thing to be deleted that was edited; other fields merge. Entries
    of the author `own` are passed over: taking one's own steps back is no conflict with oneself.

    Raises:
        Refused: with both values of every such field, and the rows as they are now.
    """
    entries = [entry for entry in _entries_since(project, base_version) if own is None or entry.author_id != own]
    if not entries:
        return
    mine = {
        (c["kind"], c["id"], column): value
        for c in changes
        for column, value in c.get("fields", {}).items()
        if c["op"] == "set"
    }
    gone = {(c["kind"], c["id"]) for c in changes if c["op"] == "delete"}
    faults: dict[str, FieldFault] = {}
    rows: dict[str, dict[str, Row]] = {}
    for entry in entries:
        for other in entry.changes:
            kind, identity = other["kind"], other["id"]
            row = document.of(kind).get(identity)
            if row is None:
                continue
            if (kind, identity) in gone and other["op"] == "set":
                text = f"{row.get('name') or row.get('number') or 'it'} was edited meanwhile: {entry.label}"
                faults[f"{kind}/{identity}"] = FieldFault(f"{kind}/{identity}", "", None, text)
                rows.setdefault(kind, {})[identity] = row
            for column in other.get("fields", {}) if other["op"] == "set" else ():
                key = (kind, identity, column)
                if key in mine and row[column] != mine[key]:
                    place = f"{kind}/{identity}/{column}"
                    faults[place] = FieldFault(
                        place, column, mine[key], "was changed meanwhile", str(row[column]), row[column]
                    )
                    rows.setdefault(kind, {})[identity] = row
    if not faults:
        return
    found = list(faults.values())
    names = ", ".join(dict.fromkeys(_named(document, fault.path) for fault in found[:4]))
    more = f" and {len(found) - 4} more" if len(found) > 4 else ""
    sentence = f"Somebody else changed {names}{more} meanwhile; choose which is to stand."
    raise Refused("conflict", sentence, found, {kind: list(of.values()) for kind, of in rows.items()})


def _named(document: Document, path: str) -> str:
    """The thing that a fault is about, as people call it."""
    kind, identity, *_ = path.split("/")
    row = document.of(kind).get(identity) or {}
    name = " ".join(str(row[field]) for field in ("number", "name") if row.get(field))
    return name or f"the {kind.replace('_', ' ')}"


def _update(kind: KindInfo, moved: Sequence[tuple[Row, Row]], project: str) -> None:
    """Bring rows of a kind to what they are now: those that change alike in one statement, the rest in one by kind."""
    alike: dict[str, tuple[dict[str, Any], list[str]]] = {}
    for now, old in moved:
        changed = {kind.column(c): now[c] for c in kind.columns if now[c] != old[c]}
        if changed:
            alike.setdefault(repr(changed), (changed, []))[1].append(now["id"])
    if len(alike) <= _FEW:
        for changed, ids in alike.values():
            for start in range(0, len(ids), _AT_ONCE):
                kind.table._default_manager.filter(pk__in=ids[start : start + _AT_ONCE]).update(**changed)
        return
    fields = sorted({name for changed, _ in alike.values() for name in changed})
    touched = {identity for _, ids in alike.values() for identity in ids}
    objects = [
        kind.table(
            id=now["id"],
            **({} if kind.table is Project else {"project_id": project}),
            **{kind.column(c): now[c] for c in kind.columns},
        )
        for now, _ in moved
        if now["id"] in touched
    ]
    kind.table._default_manager.bulk_update(objects, fields, batch_size=_AT_ONCE)


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
        pairs = [(rows[name].get(i), before.of(name).get(i)) for i in by_kind.get(name, [])]
        moved = [(now, old) for now, old in pairs if now is not None and old is not None and now is not old]
        _update(kind, moved, project.id)
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
    key: str | None = None,
) -> tuple[Document, Document, list[tuple[str, str]]]:
    """Apply a change set in one transaction; returns the documents before and after and what was touched.

    A change set with a `key` is applied once, however often it is sent.

    Raises:
        Refused: invalid, stale or impossible; nothing was saved.
    """
    for _ in range(_TRIES):
        project = Project.objects.get(pk=project_id)
        before = load_document(project)
        if key is not None and (done := JournalEntry.objects.filter(project=project, key=key).first()) is not None:
            # Sent again after a lost connection: it is saved already.
            return before, before, [(change["kind"], change["id"]) for change in done.inverse]
        # Worked out before anybody has to wait for it: only the writing holds the database.
        refuse_stale(project, base_version, changes, before, own=author.pk if way != "edit" else None)
        if way == "edit":
            changes = with_citations(before, changes)
        rows, inverse, touched = plan_changes(before, changes)
        if not touched:
            return before, before, []
        version = project.version + 1
        entry = JournalEntry(
            project=project,
            version=version,
            author=author,
            label=label[:160],
            changes=list(changes),
            inverse=inverse,
            way=way,
            of_version=of_version,
            key=key,
        )
        if _saved(project, before, rows, touched, entry):
            if before.base is None:
                after = Document(project_id, version, rows)
                remember(after)
            else:
                after = load_document(Project.objects.get(pk=project_id))
            return before, after, touched
    raise Refused("busy", "Others are saving at the same time; nothing was changed. Try again in a moment.")


def _saved(
    project: Project,
    before: Document,
    rows: dict[str, dict[str, Row]],
    touched: Sequence[tuple[str, str]],
    entry: JournalEntry,
) -> bool:
    """Write one version in one transaction; False where somebody else made that version meanwhile.

    Raises:
        Refused: an id is in use in another project.
    """
    try:
        with transaction.atomic():
            mine: dict[str, Any] = {"version": entry.version}
            if project.base is not None:
                mine["layer"] = layered(load_document(project.base), project.layer, rows, touched)
            moved_on = Project.objects.filter(pk=project.pk, version=project.version).update(**mine)
            if not moved_on:
                return False
            if project.base is None:
                _write(project, before, rows, touched)
            entry.save(force_insert=True)
    except IntegrityError as error:
        _log.warning("project %s: the database refused version %s", project.pk, entry.version, exc_info=error)
        sentence = (
            "Nothing was saved: a new thing has an id that is in use elsewhere, or two things would be alike where they must "
            "differ, as two design months of the same month."
        )
        raise Refused("conflict", sentence) from error
    return True
