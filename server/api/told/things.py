"""Answers about working trees, proof, prices, ordinary things, drawings, history, people and issues."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from api.told import Told


class WorkingOut(Told):
    """How a figure came about; values in SI."""

    name: str
    value: float | None
    quantity: str = Field(description="Key of the unit in which it is shown")
    symbol: str
    formula: str
    numbers: str
    source: str
    note: str
    origin: str = Field(description="Where an input comes from: own, a use, a zone; empty for what is calculated")
    stage: str = Field(description="Stage that shows the input")
    place: str = Field(description='"kind/id" of the thing that holds the input')
    field: str = Field(description="Field of that thing; empty where it is entered otherwise")
    inputs: list[WorkingOut]


class ProofEntry(Told):
    """A figure that is known from elsewhere, and this installation's own; SI."""

    chapter: str
    name: str
    expected: float
    found: float
    quantity: str
    within: float = Field(description="Difference that is allowed")
    source: str
    difference: float
    share_of_bound: float
    holds: bool


class PriceLine(Told):
    """An item and size of the kit list; money in the project's currency."""

    item: str
    size: str
    count: int
    duty: float = Field(description="Of all of them, in `unit`")
    unit: str
    price: str | None = Field(description="Id of the price that counts")
    each: float | None
    per_unit: float | None
    total: float | None


class PricesOut(Told):
    """The kit list with what it costs."""

    lines: list[PriceLine]
    total: float | None = Field(description="Null where the project has no price at all")
    unpriced: int


class ShelfItem(Told):
    """Fields of a new row; the group it belongs to, or the schedules it refers to by name."""

    group: str = ""
    fields: dict[str, Any] = Field(description="As a new row of the kind takes them")
    schedules: dict[str, str] = {}


class ShelfOut(Told):
    """Ordinary things to take from."""

    materials: list[ShelfItem]
    schedules: list[ShelfItem]
    uses: list[ShelfItem]


class ReadPattern(Told):
    """A day pattern: pairs of minute of the day and value that holds from then on."""

    id: str
    name: str
    steps: list[tuple[float, float]]


class ReadRule(Told):
    """When a pattern holds; dates as MM-DD."""

    start: str
    end: str
    days: str
    pattern: str


class ReadSchedule(Told):
    """Fields of a schedule read from numbers."""

    patterns: list[ReadPattern]
    base: str
    rules: list[ReadRule]


class DrawingOut(Told):
    """A drawing under the plan of a level, without its bytes."""

    level: str
    name: str
    media_type: str
    width: float = Field(description="In the drawing's own units")
    height: float = Field(description="In the drawing's own units")
    m_per_unit: float = Field(description="m of the building for one unit of the drawing")
    x_m: float
    y_m: float
    layers: list[str]
    hidden_layers: list[str]


class EntryOut(Told):
    """A change set."""

    version: int
    at: str = Field(description="ISO 8601, UTC")
    author: str
    label: str
    way: str
    changes: int
    kinds: list[str]


class LineOut(Told):
    """What a change set did to one field, or to a thing as a whole."""

    kind: str
    id: str
    name: str
    field: str
    what: Literal["set", "made", "deleted", "changed in the base"]
    before: Any = Field(description="The value before, as it is stored, SI")


class PersonOut(Told):
    """Somebody who may read a project or work in it."""

    name: str
    role: Literal["owner", "editor", "reader"]


class SignedIn(Told):
    """Who is signed in."""

    user: str


class PartOut(Told):
    """A part that a report may have."""

    key: str
    title: str


class ReportChoices(Told):
    """Parts and pages that a report may have."""

    parts: list[PartOut]
    pages: list[str]


class AskedOut(Told):
    """What was asked of a report."""

    parts: list[str]
    system: Literal["SI", "IP"]
    page: str


class FileOut(Told):
    """A file of an issue."""

    sha256: str
    bytes: int


class IssueOut(Told):
    """A report that was issued."""

    id: str
    number: int
    at: str = Field(description="ISO 8601, UTC")
    author: str
    purpose: str
    remarks: str
    option: str
    version: int
    asked: AskedOut
    files: dict[str, FileOut]


class InvitationOut(Told):
    """Somebody who is asked into a project and has not come in yet."""

    address: str
    role: Literal["editor", "reader"]
    created: str = Field(description="ISO 8601, UTC")


class InvitedOut(Told):
    """What an invitation's link stands for."""

    project: str = Field(description="Name of the project")
    role: Literal["editor", "reader"]
    address: str
    by: str = Field(description="Who invites")
    user: str = Field(description="Who is signed in already; empty: nobody")


class CameIn(Told):
    """The project that an invitation led into."""

    id: str
    user: str


class HereOut(Told):
    """Somebody else's window on the project."""

    name: str
    stage: str
