"""Refusals, as they are told to the browser."""

from dataclasses import dataclass, field
from typing import Any


@dataclass
class FieldFault:
    """One field that was refused: its place, the value, and what is allowed."""

    path: str
    field: str
    value: Any
    message: str
    allowed: str = ""


@dataclass
class Refused(Exception):
    """A change set that was not applied; nothing of it was saved.

    `code` is one of "invalid" (422), "conflict" (409), "in_use" (409), "not_found" (404), "nothing" (409).
    """

    code: str
    sentence: str
    faults: list[FieldFault] = field(default_factory=list)

    def __str__(self) -> str:
        return self.sentence
