"""Results of tasks that are done, by what they did."""

from typing import Any, Literal

from pydantic import Field

from api.told import Told
from api.told.year import YearSummary


class FieldChange(Told):
    """A field that a file has otherwise; SI."""

    field: str
    title: str
    quantity: str = Field(description="Key of the unit in which it is shown; empty for text")
    old: Any
    new: Any


class RoomRow(Told):
    """A room of a file beside the project's."""

    key: str
    state: Literal["added", "changed", "unchanged", "missing", "refused"]
    number: str
    name: str
    reason: str = Field(description="Why it is refused")
    changes: list[FieldChange]


class RoomsRead(Told):
    """How a file's rooms differ from the project's."""

    rows: list[RoomRow]
    notes: list[str]
    version: int
    table: bool = Field(description="Whether the file is a table, whose rooms may be numbered")


class WeatherRead(Told):
    """The file whose year was imported."""

    name: str


class IssueMade(Told):
    """The report that was issued."""

    issue: str
    number: int


TaskResult = RoomsRead | WeatherRead | IssueMade | YearSummary
