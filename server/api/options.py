"""Routes of options: layers over a project, each a project of its own to every other route."""

from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import Query, Router
from pydantic import Field

from api.access import document_of, project_of
from api.answers import answer, applied
from api.schemas import Strict
from api.told.compare import ComparisonOut, DifferencesOut, OptionOut, OptionsOut, SweepOut
from calculations.compare import name_of, side_by_side
from calculations.sweep import MOST, swept
from calculations.year_figures import year_figures
from projects.changes import apply_changes
from projects.document import load_document
from projects.errors import Refused
from projects.fields import Id
from projects.kinds import KINDS
from projects.layers import agreed, as_changes, differences
from projects.models import JournalEntry, Project
from projects.rows import Document
from projects.starter import new_id
from tasks.years import kept_year

router = Router()
MOST_OPTIONS, MOST_COLUMNS = 200, 11
Name = Annotated[str, Field(min_length=1, max_length=120)]


class OptionIn(Strict):
    """A new option, with the differences of another one where `like` names it."""

    name: Name
    like: Id | None = None


class OptionSet(Strict):
    name: Name | None = None
    remarks: Annotated[str, Field(max_length=2000)] | None = None
    capital: Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)] | None = None


class FieldIn(Strict):
    kind: str
    id: Id
    field: str


class TakeOver(Strict):
    base_version: int


class SweepIn(Strict):
    """One field of one thing, with the values to try."""

    kind: str
    id: Id
    field: str
    values: Annotated[list[float], Field(min_length=1, max_length=MOST)]
    other: FieldIn | None = None
    other_values: Annotated[list[float], Field(max_length=MOST)] = []


def _base(request: HttpRequest, identity: str) -> Project:
    return project_of(request, identity).home


def _option(request: HttpRequest, identity: str) -> Project:
    found = project_of(request, identity)
    if found.base is None:
        raise Refused("invalid", "This is no option but the base itself.")
    return found


def _told(option: Project) -> dict[str, Any]:
    return {
        "id": option.id,
        "name": option.name,
        "remarks": option.remarks,
        "capital": option.capital,
        "differences": sum(
            len(entry.get("fields", {})) if entry["op"] == "set" else 1
            for entries in option.layer.values()
            for entry in entries.values()
        ),
    }


@router.get("/projects/{project_id}/options", response=OptionsOut, operation_id="options")
def options(request: HttpRequest, project_id: str) -> Any:
    """The base of a project or option, and the options that stand on it."""
    base = _base(request, project_id)
    found = base.options.filter(state="open").order_by("created")
    return {"base": {"id": base.id, "name": base.name}, "options": [_told(option) for option in found]}


@router.post("/projects/{project_id}/options", response={201: OptionOut}, operation_id="create_option")
def new_option(request: HttpRequest, project_id: str, body: OptionIn) -> Any:
    """Start an option that does not differ yet, or as another one does."""
    base = _base(request, project_id)
    there = base.options.filter(state="open")
    if there.count() >= MOST_OPTIONS:
        raise Refused("invalid", f"A project has at most {MOST_OPTIONS} options; delete some first.")
    if there.filter(name__iexact=body.name).exists():
        raise Refused("invalid", f"Name {body.name!r}: there is already an option of this name.")
    layer = {} if body.like is None else _option(request, body.like).layer
    made = Project.objects.create(
        id=new_id(),
        owner=base.owner,
        name=body.name,
        base=base,
        base_version=base.version,
        version=base.version,
        layer=layer,
    )
    return 201, _told(made)


@router.patch("/projects/{option_id}/option", response=OptionOut, operation_id="set_option")
def set_option(request: HttpRequest, option_id: str, body: OptionSet) -> Any:
    """Name it otherwise, say what it is for, or what it costs more than the base."""
    option = _option(request, option_id)
    for field, value in body.model_dump(exclude_none=True).items():
        setattr(option, field, value)
    option.save(update_fields=["name", "remarks", "capital"])
    return _told(option)


@router.get("/projects/{option_id}/differences", response=DifferencesOut, operation_id="differences")
def option_differences(request: HttpRequest, option_id: str) -> Any:
    """Every field and thing in which an option differs from its base, with what the base has now."""
    option = _option(request, option_id)
    assert option.base is not None
    base, document = load_document(option.base), load_document(option)
    found = []
    for one in differences(base, option.layer):
        row = document.row(one.kind, one.id) or base.row(one.kind, one.id)
        found.append(
            {
                **vars(one),
                "name": name_of(row) if row else "",
                "label": KINDS[one.kind].label(one.field) if one.field else "",
            }
        )
    return answer({"version": document.version, "differences": found})


@router.post("/projects/{option_id}/agree", response=OptionOut, operation_id="agree")
def agree(request: HttpRequest, option_id: str, body: FieldIn) -> Any:
    """Say that the option's value of a field stands, although the base has changed it since."""
    option = _option(request, option_id)
    assert option.base is not None
    base = load_document(option.base)
    try:
        layer = agreed(base, option.layer, body.kind, body.id, body.field)
    except KeyError as error:
        raise Refused("not_found", "The option does not differ there any more.") from error
    _moved(option, layer, "Kept against the base", [(body.kind, body.id)])
    return _told(option)


def _moved(option: Project, layer: dict[str, Any], label: str, touched: list[tuple[str, str]]) -> None:
    """Save a layer that says the same in another way, as a version of its own, so that its snags are looked at again."""
    moved = Project.objects.filter(pk=option.pk, version=option.version).update(version=option.version + 1, layer=layer)
    if not moved:
        raise Refused("conflict", "The option was changed meanwhile; look at it again.")
    inverse = [{"kind": kind, "id": identity} for kind, identity in touched]
    JournalEntry.objects.create(
        project=option,
        version=option.version + 1,
        author_id=option.owner_id,
        label=label,
        changes=[],
        inverse=inverse,
        way="base",
    )
    option.refresh_from_db()


@router.post("/projects/{option_id}/take-over", operation_id="take_over")
def take_over(request: HttpRequest, option_id: str, body: TakeOver) -> Any:
    """Make the base what the option is, as one change set of the base that can be undone. The option stays as it is."""
    option = _option(request, option_id)
    assert option.base is not None
    base = load_document(option.base)
    changes = as_changes(base, option.layer)
    if not differences(base, option.layer):
        raise Refused("nothing", f"{option.name} does not differ from the base.")
    _, after, touched = apply_changes(
        base.project, request.user, changes, f"{option.name} taken over", min(body.base_version, base.version)
    )
    return applied(request, after, touched, base.version)


def _year(project: Project, document: Document) -> dict[str, Any] | None:
    summary, bills = kept_year(project, document)
    return None if summary is None else year_figures(summary, bills)


@router.get("/projects/{project_id}/compare", response=ComparisonOut, operation_id="compare")
def compare(
    request: HttpRequest,
    project_id: str,
    options: Annotated[list[str], Query()],
    kind: Literal["room", "group"] = "group",
    subject: str = "building",
) -> Any:
    """The base and some of its options side by side, in the order in which they are named; loads by source of a room or group."""
    base = _base(request, project_id)
    wanted = list(dict.fromkeys(options))
    if len(wanted) > MOST_COLUMNS - 1:
        raise Refused("invalid", f"options: {len(wanted)} were named, at most {MOST_COLUMNS - 1} are compared at once.")
    columns = [base, *(project_of(request, identity) for identity in wanted)]
    for column in columns[1:]:
        if column.base_id != base.id:
            raise Refused("invalid", f"{column.name} is no option of {base.name}.")
    documents = {column.id: load_document(column) for column in columns}
    years = {column.id: _year(column, documents[column.id]) for column in columns}
    columns_told = [{"id": c.id, "name": c.name if c.base_id else "Base", "capital": c.capital} for c in columns]
    return answer({"columns": columns_told, "years": years, **side_by_side(documents, (kind, subject))})


@router.post("/projects/{project_id}/sweep", response=SweepOut, operation_id="sweep")
def sweep(request: HttpRequest, project_id: str, body: SweepIn) -> Any:
    """What peaks and sizes become when one field, or two against each other, take several values; nothing is kept."""
    document = document_of(request, project_id, reading=True)
    other = None if body.other is None else (body.other.kind, body.other.id, body.other.field)
    return answer(swept(document, (body.kind, body.id, body.field), body.values, other, body.other_values))
