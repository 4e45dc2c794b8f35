"""Schedules: day patterns, and which day gets which."""

from typing import Annotated, ClassVar, Self

from pydantic import AfterValidator, Field, model_validator

from projects.fields import FileName, MonthDay, Steps, plain
from projects.kinds.declare import About, Kind, called, options

# Kind of schedule -> what its values may be.
SCHEDULE_RANGES = {
    "fraction": (0.0, 1.0),
    "on_off": (0.0, 1.0),
    "temperature": (-60.0, 120.0),
    "w_per_person": (0.0, 600.0),
}


class PatternPart(Kind):
    """A day pattern of a schedule."""

    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,12}$"), called("Id")]
    name: Annotated[str, Field(min_length=1, max_length=80), AfterValidator(plain), called("Pattern name")]
    steps: Annotated[Steps, called("Steps", hint="Minute of the day until which a value holds, and the value.")]


class RulePart(Kind):
    """Days that get a pattern."""

    start: Annotated[MonthDay, called("From")]
    end: Annotated[MonthDay, called("To")]
    days: Annotated[
        str, Field(pattern=r"^[01]{8}$"), called("Days", hint="A 1 or 0 for Monday to Sunday and holidays.")
    ] = "11111111"
    pattern: Annotated[str, called("Pattern")]


class ScheduleFields(Kind):
    """A schedule: day patterns, and which day gets which."""

    about: ClassVar[About] = About(unique="name")

    name: Annotated[FileName, called("Name")]
    kind: Annotated[
        str,
        options(
            "Values are",
            {
                "fraction": "share of the full value",
                "on_off": "on and off",
                "temperature": "temperature",
                "w_per_person": "heat of a person",
            },
        ),
    ] = "fraction"
    patterns: Annotated[list[PatternPart], Field(min_length=1, max_length=400), called("Patterns")]
    base: Annotated[str, Field(max_length=12), called("Pattern of every day")]
    rules: Annotated[list[RulePart], Field(max_length=400), called("Rules")] = []
    summer: Annotated[str, Field(max_length=12), called("Summer design pattern")] | None = None
    summer_by_month: Annotated[bool, called("The busiest of each month")] = False
    winter: Annotated[str, Field(max_length=12), called("Winter design pattern")] | None = None

    @model_validator(mode="after")
    def consistent(self) -> Self:
        low, high = SCHEDULE_RANGES[self.kind]
        for pattern in self.patterns:
            for until, value in pattern.steps:
                if not low <= value <= high or (self.kind == "on_off" and value not in (0, 1)):
                    span = "0 or 1" if self.kind == "on_off" else f"{low:g} to {high:g}"
                    raise ValueError(f"{pattern.name}: {value:g} until minute {until} is outside {span}")
        known = [pattern.id for pattern in self.patterns]
        for identity in known:
            if known.count(identity) > 1:
                raise ValueError(f"pattern {identity!r} is there twice")
        named = [self.base, *(rule.pattern for rule in self.rules), self.summer, self.winter]
        for name in named:
            if name is not None and name not in known:
                raise ValueError(f"pattern {name!r} is not among the schedule's patterns")
        return self
