"""What was done in a project: every change set with what it changed, and ways back."""

from collections.abc import Sequence
from typing import Any

from django.contrib.auth.models import AbstractBaseUser

from projects.changes import apply_changes
from projects.document import load_document
from projects.errors import Refused
from projects.kinds import KINDS
from projects.models import JournalEntry, Project
from projects.plan import Change
from projects.rows import Document

AT_ONCE = 100
_FEW = 300  # differences of one change set that are told


def entries(project: Project, before: int | None = None, author: str = "", kind: str = "") -> list[dict[str, Any]]:
    """Change sets of a project, the latest first, from before a version on; of one person or about one kind of thing where that is said."""
    found = JournalEntry.objects.filter(project=project).select_related("author").order_by("-version")
    if before is not None:
        found = found.filter(version__lt=before)
    if author:
        found = found.filter(author__username=author)
    told = []
    for entry in found.defer("changes").iterator(chunk_size=50):
        kinds = {change["kind"] for change in entry.inverse}
        if kind and kind not in kinds:
            continue
        told.append(
            {
                "version": entry.version,
                "at": entry.at.isoformat(),
                "author": entry.author.get_username(),
                "label": entry.label,
                "way": entry.way,
                "changes": len(entry.inverse),
                "kinds": sorted(kinds),
            }
        )
        if len(told) == AT_ONCE:
            break
    return told


def _entry(project: Project, version: int) -> JournalEntry:
    found = JournalEntry.objects.filter(project=project, version=version).select_related("author").first()
    if found is None:
        raise Refused("not_found", f"There is no change with the number {version}.")
    return found


def difference(project: Project, version: int) -> list[dict[str, Any]]:
    """What a change set did: a line for each field, and for each thing that was made or deleted; with the values before.

    Raises:
        Refused: there is no such change set.
    """
    document = load_document(project)
    lines: list[dict[str, Any]] = []
    for change in reversed(_entry(project, version).inverse):
        kind, identity = change["kind"], change["id"]
        row = document.row(kind, identity) or change.get("fields") or {}
        name = " ".join(str(row[field]) for field in ("number", "name") if row.get(field))
        about = {"kind": kind, "id": identity, "name": name}
        if change.get("op") == "set":
            lines += [
                about | {"field": KINDS[kind].label(field), "what": "set", "before": value}
                for field, value in change["fields"].items()
            ]
        else:
            what = {"delete": "made", "create": "deleted"}.get(change.get("op", ""), "changed in the base")
            lines.append(about | {"field": "", "what": what, "before": None})
        if len(lines) >= _FEW:
            break
    return lines


def take_back(
    project: Project, author: AbstractBaseUser, version: int, base_version: int
) -> tuple[Document, list[tuple[str, str]]]:
    """Undo one change set as a new one, whoever made it.

    Raises:
        Refused: there is none, or what it changed was changed since.
    """
    entry = _entry(project, version)
    if entry.way == "base":
        raise Refused("invalid", "This came from the base: take it back there.")
    document = load_document(project)
    later = JournalEntry.objects.filter(project=project, version__gt=version)
    touched = {
        (change["kind"], change["id"], field)
        for other in later
        for change in other.inverse
        for field in _fields(change)
    }
    for change in entry.inverse:
        for field in _fields(change):
            if (change["kind"], change["id"], field) in touched or (change["kind"], change["id"], "") in touched:
                row = document.row(change["kind"], change["id"]) or {}
                name = " ".join(str(row[key]) for key in ("number", "name") if row.get(key)) or change["kind"].replace(
                    "_", " "
                )
                raise Refused(
                    "conflict",
                    f"{name} was changed again since; take back the later change first, or bring the whole state back.",
                )
    _, after, done = apply_changes(project.id, author, entry.inverse, f"Taken back: {entry.label}", base_version)
    return after, done


def _fields(change: Change) -> Sequence[str]:
    """Fields that an inverse sets; the thing as a whole where it is made or deleted."""
    return list(change["fields"]) if change.get("op") == "set" else [""]


def bring_back(
    project: Project, author: AbstractBaseUser, version: int, base_version: int
) -> tuple[Document, list[tuple[str, str]]]:
    """Make the document what it was after a version, as a new change set that can be undone. What an option has from its base stays.

    Raises:
        Refused: there is no such version, or nothing differs from it.
    """
    _entry(project, version)
    changes: list[Change] = []
    for entry in JournalEntry.objects.filter(project=project, version__gt=version).order_by("-version"):
        if entry.way != "base":
            changes += entry.inverse
    if not changes:
        raise Refused("nothing", "Nothing was changed since.")
    _, after, touched = apply_changes(project.id, author, changes, f"As it was at version {version}", base_version)
    if not touched:
        raise Refused("nothing", "The document is as it was then.")
    return after, touched
