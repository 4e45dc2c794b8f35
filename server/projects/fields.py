"""Field types of the document with their allowed ranges, shared by all kinds."""

from datetime import date
from typing import Annotated

from pydantic import AfterValidator, Field, StringConstraints

Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9._-]{1,40}$")]
FileName = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120, pattern=r'^[^\x00-\x1f/\\:*?"<>|]+$')
]


def plain(text: str) -> str:
    """Refuse what no file can hold."""
    for sign in text:
        if not (sign.isprintable() or sign in "\u00ad\u200b\u200c\u200d\u202f\u00a0\u2009\u2007"):
            raise ValueError(f"character U+{ord(sign):04X} cannot stand in a text")
    return text


Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120), AfterValidator(plain)]


MINUTES_PER_DAY = 1440


def _check_pattern(steps: list[tuple[int, float]]) -> list[tuple[int, float]]:
    previous = 0
    for until, _ in steps:
        if until > MINUTES_PER_DAY:
            hours, minutes = divmod(until, 60)
            raise ValueError(f"{hours:02d}:{minutes:02d} is after 24:00")
        if until <= previous:
            raise ValueError(f"minute {until} does not come after minute {previous}: gaps and overlaps are not allowed")
        previous = until
    if previous != MINUTES_PER_DAY:
        raise ValueError(f"the pattern ends at minute {previous}; it must run to 24:00 (minute 1440)")
    return steps


PatternValue = Annotated[float, Field(ge=-1000, le=100_000, allow_inf_nan=False)]
Steps = Annotated[list[tuple[int, PatternValue]], AfterValidator(_check_pattern)]


def _check_date(text: str) -> str:
    try:
        month, day = (int(part) for part in text.split("-"))
        date(2024, month, day)  # a leap year: 02-29 is a date
    except ValueError:
        raise ValueError(f"{text!r} is not a date like 03-28 (month-day)") from None
    return f"{month:02d}-{day:02d}"


MonthDay = Annotated[str, StringConstraints(max_length=5), AfterValidator(_check_date)]
Coordinate = Annotated[float, Field(ge=-100_000, le=100_000)]  # on the plan [m]
