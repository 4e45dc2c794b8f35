"""Undo and redo, read from the journal."""

from dataclasses import dataclass

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser

from projects.changes import apply_changes
from projects.document import load_document
from projects.errors import Refused
from projects.models import JournalEntry, Project
from projects.rows import Document


@dataclass(frozen=True)
class Steps:
    """What undo and redo would do next."""

    undo: JournalEntry | None
    redo: JournalEntry | None


def next_steps(project_id: str, author: AbstractBaseUser | AnonymousUser) -> Steps:
    """Walk the journal back to the author's edit that undo takes back and the one that redo repeats.

    A new edit ends redo: what was undone before it cannot be repeated any more. What others did is theirs to undo.
    """
    latest_way: dict[int, JournalEntry] = {}
    newest_edit = 0
    redo: JournalEntry | None = None
    # What the entries did is read only of the one that is stepped: an import's changes are megabytes.
    entries = JournalEntry.objects.filter(project_id=project_id, author_id=author.pk)
    entries = entries.defer("changes", "inverse").order_by("-version")
    for entry in entries.iterator(chunk_size=50):
        if entry.way != "edit":
            latest_way.setdefault(entry.of_version or 0, entry)
            continue
        newest_edit = max(newest_edit, entry.version)
        last = latest_way.get(entry.version)
        if last is None or last.way == "redo":
            return Steps(entry, redo)
        if last.version > newest_edit:
            redo = entry
    return Steps(None, redo)


def step(
    project_id: str, author: AbstractBaseUser, way: str, key: str | None = None
) -> tuple[Document, Document, list[tuple[str, str]], str]:
    """Undo or redo one edit; the same `key` steps once.

    Raises:
        Refused: there is nothing to undo or redo, or somebody else changed since what it would change.
    """
    if key is not None and (done := JournalEntry.objects.filter(project_id=project_id, key=key).first()) is not None:
        document = load_document(Project.objects.get(pk=project_id))
        return document, document, [(change["kind"], change["id"]) for change in done.inverse], done.label
    steps = next_steps(project_id, author)
    entry = steps.undo if way == "undo" else steps.redo
    if entry is None:
        raise Refused("nothing", f"There is nothing to {way}.")
    changes = entry.inverse if way == "undo" else entry.changes
    # On the version that the edit left: fields that others changed since are a conflict, one's own steps are not.
    before, after, touched = apply_changes(
        project_id,
        author,
        changes=changes,
        label=entry.label,
        base_version=entry.version,
        way=way,
        of_version=entry.version,
        key=key,
    )
    return before, after, touched, entry.label


def touched_between(project_id: str, after_version: int, until_version: int) -> dict[tuple[str, str], None]:
    """Everything that edits of the versions after one, up to another, made, changed or deleted: kind and id."""
    if after_version >= until_version:
        return {}
    found = JournalEntry.objects.filter(project_id=project_id, version__gt=after_version, version__lte=until_version)
    return {
        (change["kind"], change["id"]): None
        for inverse in found.order_by("version").values_list("inverse", flat=True)
        for change in inverse
    }
