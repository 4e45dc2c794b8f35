"""Issuing a report: everything frozen in files of its own, with their hashes."""

import hashlib
import shutil
from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import orjson
from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db import IntegrityError

from calculations.compare import figures_beside, inputs_between, side_by_side
from calculations.service import SOURCES, records_of
from calculations.year_figures import year_figures
from exchange.attachments import attached_to
from exchange.report.book import archive, workbook
from exchange.report.html import PAGES, page
from exchange.report.parts import PARTS, parts_of
from exchange.report.pdf import write_pdf
from exchange.report.sheet import Part
from exchange.report.source import Source
from exchange.rooms.gbxml_out import rooms_gbxml
from projects.document import load_document
from projects.errors import FieldFault, Refused
from projects.models import Issue, Project
from projects.rows import Document
from projects.starter import new_id
from projects.whole import as_file

PDF, XLSX, CSV, GBXML, PROJECT, RECORDS = (
    "report.pdf",
    "tables.xlsx",
    "tables-csv.zip",
    "rooms.xml",
    "project.json",
    "results.json",
)
MEDIA = {
    PDF: "application/pdf",
    XLSX: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    CSV: "application/zip",
    GBXML: "application/xml",
    PROJECT: "application/json",
    RECORDS: "application/json",
}
Years = Callable[[Project, Document], tuple[Mapping[str, Any] | None, Sequence[Mapping[str, Any]]]]


def folder_of(identity: str) -> Path:
    """Where an issue's files are."""
    path: Path = settings.VAR / "issues" / identity
    return path


def checked(asked: Mapping[str, Any]) -> dict[str, Any]:
    """Parts, units and page of a report.

    Raises:
        Refused: one of them is not known.
    """
    parts = [part for part in PARTS if part in asked["parts"]]
    for part in asked["parts"]:
        if part not in PARTS:
            raise Refused(
                "invalid",
                f"Parts {part!r}: allowed is one of {', '.join(PARTS)}.",
                [FieldFault("parts", "parts", part, "unknown")],
            )
    if not parts:
        raise Refused("invalid", "Parts: choose at least one.", [FieldFault("parts", "parts", [], "none")])
    if asked["page"] not in PAGES:
        raise Refused(
            "invalid",
            f"Page {asked['page']!r}: allowed is one of {', '.join(PAGES)}.",
            [FieldFault("page", "page", asked["page"], "unknown")],
        )
    return {"parts": parts, "system": "IP" if asked["system"] == "IP" else "SI", "page": asked["page"]}


def latest(project: Project) -> Issue | None:
    """The last issue of a project."""
    found: Issue | None = project.home.issues.first()
    return found


_MOST_OPTIONS = 6


def _beside(project: Project, years: Years) -> dict[str, Any] | None:
    """Base and options side by side; None where there is no option."""
    home = project.home
    columns = [home, *home.options.filter(state="open").order_by("created")[:_MOST_OPTIONS]]
    if len(columns) == 1:
        return None
    documents = {column.id: load_document(column) for column in columns}
    told = {column.id: years(column, documents[column.id]) for column in columns}
    base = documents[home.id]
    return {
        "columns": [{"id": c.id, "name": c.name if c.base_id else "Base", "capital": c.capital} for c in columns],
        "totals": side_by_side(documents)["totals"],
        "years": {
            key: None if summary is None else year_figures(summary, bills) for key, (summary, bills) in told.items()
        },
        "differences": [
            {"option": column.name, **one}
            for column in columns[1:]
            for one in inputs_between({kind: rows.values() for kind, rows in base.rows.items()}, documents[column.id])
        ],
    }


def source_of(
    project: Project, document: Document, years: Years, parts: Sequence[str], head: Mapping[str, str] | None = None
) -> Source:
    """What a report of a project is made of, as it is now."""
    before = latest(project)
    year, bills = years(project, document)
    revisions = [
        {
            "number": str(one.number),
            "date": f"{one.at:%Y-%m-%d}",
            "author": one.author.get_username(),
            "purpose": one.purpose,
            "remarks": one.remarks,
        }
        for one in project.home.issues.select_related("author")[:20]
    ]
    return Source(
        document,
        records_of(document),
        categories=SOURCES,
        year=year,
        bills=bills,
        changes=_since(before, document) if before and "changes" in parts else None,
        head=head,
        revisions=revisions,
        option=project.name if project.base_id else "",
        options=_beside(project, years) if "options" in parts else None,
    )


def _since(before: Issue, document: Document) -> dict[str, Any] | None:
    folder = folder_of(before.id)
    try:
        entered = orjson.loads((folder / PROJECT).read_bytes())["objects"]
        records = orjson.loads((folder / RECORDS).read_bytes())
    except FileNotFoundError:
        return None
    figures, _ = figures_beside({"before": records, "now": records_of(document)}, [document])
    return {"number": before.number, "inputs": inputs_between(entered, document), "figures": figures}


def heads(project: Project, foot: str) -> dict[str, str]:
    """Title, and what stands at the head and foot of every page."""
    name = load_document(project).one("project")["name"]
    running = f"{name}, {project.name}" if project.base_id else name
    return {"title": running, "running": running, "foot": foot}


def preview(project: Project, asked: Mapping[str, Any], years: Years) -> str:
    """The pages of a report that is not issued yet, as one page for the screen."""
    wanted = checked(asked)
    parts = parts_of(source_of(project, load_document(project), years, wanted["parts"]), wanted["parts"])
    return page(parts, wanted["system"], wanted["page"], heads(project, "not issued"), embedded=False)


def issue(
    project: Project,
    author: AbstractBaseUser,
    asked: Mapping[str, Any],
    purpose: str,
    remarks: str,
    years: Years,
    tell: Callable[[float, str], None],
) -> Issue:
    """Write and freeze an issue: all of its files or nothing.

    Raises:
        Refused: something asked for is not known, or another issue was made meanwhile.
    """
    wanted = checked(asked)
    document = load_document(project)
    before = latest(project)
    number = before.number + 1 if before else 1
    today = datetime.now(UTC)
    head = {
        "number": str(number),
        "date": f"{today:%Y-%m-%d}",
        "author": author.get_username(),
        "purpose": purpose,
        "remarks": remarks,
    }
    tell(0.05, "calculating")
    source = source_of(project, document, years, wanted["parts"], head)
    tell(0.1, "parts")
    parts: list[Part] = parts_of(source, wanted["parts"])
    identity = new_id()
    folder = folder_of(identity)
    folder.mkdir(parents=True)
    try:
        foot = f"Issue {number}, {head['date']}, {purpose}"
        pages = write_pdf(
            parts,
            wanted["system"],
            wanted["page"],
            heads(project, foot),
            folder,
            lambda share: tell(0.12 + 0.75 * share, "pages"),
        )
        tell(0.9, "tables")
        files = {
            PDF: pages,
            XLSX: workbook(parts, wanted["system"]),
            CSV: archive(parts, wanted["system"]),
            GBXML: rooms_gbxml(document),
            PROJECT: orjson.dumps(as_file(document) | attached_to(project), option=orjson.OPT_INDENT_2),
            RECORDS: orjson.dumps(source.records, option=orjson.OPT_SERIALIZE_NUMPY),
        }
        for name, data in files.items():
            (folder / name).write_bytes(data)
        tell(0.97, "putting on record")
        made: Issue = Issue.objects.create(
            id=identity,
            project=project.home,
            option=project.name if project.base_id else "",
            number=number,
            author=author,
            purpose=purpose,
            remarks=remarks,
            version=document.version,
            asked=wanted,
            files={
                name: {"sha256": hashlib.sha256(data).hexdigest(), "bytes": len(data)} for name, data in files.items()
            },
        )
    except IntegrityError as error:
        shutil.rmtree(folder, ignore_errors=True)
        raise Refused(
            "conflict", f"Issue {number} was made by somebody else meanwhile; look at it, then issue again."
        ) from error
    except BaseException:
        shutil.rmtree(folder, ignore_errors=True)
        raise
    return made


def file_of(made: Issue, name: str) -> bytes:
    """A file of an issue, as it was written.

    Raises:
        Refused: there is no such file, or it is not what was written.
    """
    told = made.files.get(name)
    if told is None:
        raise Refused("not_found", f"Issue {made.number} has no file {name!r}.")
    try:
        data = (folder_of(made.id) / name).read_bytes()
    except FileNotFoundError as error:
        raise Refused(
            "not_found",
            f"{name} of issue {made.number} is not in the server's folder any more; restore it from a backup.",
        ) from error
    if hashlib.sha256(data).hexdigest() != told["sha256"]:
        raise Refused(
            "conflict",
            f"{name} of issue {made.number} is not the file that was issued: its SHA-256 differs. Restore it from a backup.",
        )
    return data
