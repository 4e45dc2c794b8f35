"""Refusals, as they are told to the browser."""

from dataclasses import dataclass, field
from typing import Any


@dataclass
class FieldFault:
    """One field that was refused: its place, the value, and what is allowed; in a conflict, what it is now."""

    path: str
    field: str
    value: Any
    message: str
    allowed: str = ""
    now: Any = None


@dataclass
class Refused(Exception):
    """A change set that was not applied; nothing of it was saved.

    `code` is one of "invalid" (422), "conflict" (409), "in_use" (409), "not_found" (404), "nothing" (409), "busy" (503).
    `rows` are the rows in question as they are now, by kind, where there is a conflict.
    """

    code: str
    sentence: str
    faults: list[FieldFault] = field(default_factory=list)
    rows: dict[str, list[dict[str, Any]]] = field(default_factory=dict)

    def __str__(self) -> str:
        return self.sentence
