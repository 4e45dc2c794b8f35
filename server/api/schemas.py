"""Bodies of the API."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from projects.fields import Id, Name


class Strict(BaseModel):
    """Unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")


class NewProject(Strict):
    name: Name


class ProjectOut(BaseModel):
    id: str
    name: str
    version: int


class OpenProject(ProjectOut):
    role: Literal["owner", "editor", "reader"]


class SessionOut(BaseModel):
    user: str
    staff: bool = Field(description="Whether the administrator's pages are open to them")
    projects: list[OpenProject]


class ChangeIn(Strict):
    op: Literal["create", "set", "delete"]
    kind: str = Field(max_length=40)
    id: Id
    fields: dict[str, Any] = Field(default_factory=dict)


class ChangeSetIn(Strict):
    base_version: int = Field(ge=0)
    results_version: int | None = Field(default=None, ge=-1)
    key: Id | None = None
    label: str = Field(min_length=1, max_length=160)
    changes: list[ChangeIn] = Field(min_length=1, max_length=20_000)


Place = tuple[Annotated[float, Field(ge=-100_000, le=100_000)], Annotated[float, Field(ge=-100_000, le=100_000)]]


class WeatherChoice(Strict):
    """One of a project's weather files; none: typical days, or what an option's base goes by."""

    file: str | None = None


class SplitIn(Strict):
    """A line on the plan, in metres."""

    base_version: int = Field(ge=0)
    room: Id
    start: Place
    end: Place


class JoinIn(Strict):
    base_version: int = Field(ge=0)
    rooms: list[Id] = Field(min_length=2, max_length=200)


class RouteIn(Strict):
    """Sections of an air system or circuit to be laid anew along the plan."""

    base_version: int = Field(ge=0)
    kind: Literal["duct_section", "pipe_section"]
    owner: Id = Field(description="The air system or circuit.")
    start_room: Id = Field(description="Room in which the unit or plant stands.")
    rooms: list[Id] = Field(max_length=2_000)
    coils: list[Id] = Field([], max_length=500, description="Air systems whose coils are fed.")
    network: Literal["supply", "return"] = Field("supply", description="Of ducts: which of the system's networks.")


class DrawingPlace(Strict):
    """Where a drawing lies under the plan."""

    m_per_unit: float = Field(gt=1e-6, le=1000)
    x_m: float = Field(ge=-100_000, le=100_000)
    y_m: float = Field(ge=-100_000, le=100_000)
    hidden_layers: list[str] | None = Field(None, description="Layers of a DXF that are not shown; none: as they are.")


class ObjectsOut(BaseModel):
    """Objects that changed, by kind, and the ids of those that are gone."""

    changed: dict[str, list[dict[str, Any]]]
    gone: dict[str, list[str]]


class ResultsOut(BaseModel):
    """Result records by kind and id; `all` where they replace everything the browser holds."""

    version: int
    milliseconds: float
    rooms_calculated: int
    changed: dict[str, dict[str, dict[str, Any]]]
    gone: dict[str, list[str]]
    categories: list[str]
    all: bool = True


class StepsOut(BaseModel):
    """Labels of what undo and redo would do; None where there is nothing."""

    undo: str | None
    redo: str | None


class DocumentOut(BaseModel):
    version: int
    objects: dict[str, list[dict[str, Any]]]
    steps: StepsOut


class AppliedOut(BaseModel):
    """All that changed since the version the caller knew; `results` are missing where the calculation failed, which the log
    tells under `calculation_fault`, and where nothing changed.
    """

    version: int
    objects: ObjectsOut
    results: ResultsOut | None
    calculation_fault: str | None
    steps: StepsOut


class PeaksOut(BaseModel):
    """Peaks of the building; None where it has no room that can be calculated."""

    cooling_w: float | None
    heating_w: float | None
    rooms: int


class PreviewOut(BaseModel):
    """The building before and after a change set that is not kept."""

    before: PeaksOut
    after: PeaksOut
    touched: int
    rooms_calculated: int


class TextIn(Strict):
    text: str = Field(min_length=1, max_length=2_000_000)


class ProblemOut(BaseModel):
    """An error: machine code, sentence, and the faulty fields with value and allowed range."""

    status: int
    code: str
    title: str
    faults: list[dict[str, Any]]
    rows: dict[str, list[dict[str, Any]]]
