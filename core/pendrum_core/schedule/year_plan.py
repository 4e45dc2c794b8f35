"""Which day of the year gets which day pattern.

Source: sums by definition.
"""

from dataclasses import dataclass
from datetime import date, timedelta

from pendrum_core.schedule.pattern import MINUTES_PER_DAY, DayPattern

HOLIDAY = 7  # place of holidays after Monday (0) to Sunday (6)
MonthDay = tuple[int, int]


@dataclass(frozen=True)
class Rule:
    """Days of a range that get a pattern: from and to as (month, day), both included, over the new year where to < from.

    `days` tells for Monday to Sunday and holidays whether the rule is for them; a holiday is no weekday.
    """

    start: MonthDay
    end: MonthDay
    days: tuple[bool, ...]
    pattern: str

    def covers(self, day: date, holiday: bool) -> bool:
        """Whether a day falls under the rule."""
        at = (day.month, day.day)
        within = self.start <= at <= self.end if self.start <= self.end else at >= self.start or at <= self.end
        return within and self.days[HOLIDAY if holiday else day.weekday()]


@dataclass(frozen=True)
class YearPlan:
    """Patterns by id, one for every day to begin with, and rules of which later ones win.

    Raises:
        ValueError: the base or a rule names a pattern that is not there.
    """

    patterns: tuple[tuple[str, DayPattern], ...]
    base: str
    rules: tuple[Rule, ...] = ()

    def __post_init__(self) -> None:
        known = {identity for identity, _ in self.patterns}
        for name in (self.base, *(rule.pattern for rule in self.rules)):
            if name not in known:
                raise ValueError(f"pattern {name!r} is not among the schedule's")

    def pattern(self, identity: str) -> DayPattern:
        """A pattern by its id."""
        return dict(self.patterns)[identity]

    def days(self, year: int, holidays: frozenset[MonthDay]) -> tuple[str, ...]:
        """Pattern of every day of a year: 365 or 366 ids."""
        first = date(year, 1, 1)
        count = (date(year + 1, 1, 1) - first).days
        result = []
        for offset in range(count):
            day = first + timedelta(offset)
            holiday = (day.month, day.day) in holidays
            found = self.base
            for rule in self.rules:
                if rule.covers(day, holiday):
                    found = rule.pattern
            result.append(found)
        return tuple(result)

    def busiest(self, year: int, holidays: frozenset[MonthDay], month: int | None = None, sign: float = 1.0) -> str:
        """Pattern with the largest daily sum among those of working weekdays, of the year or of one month.

        A month without working weekdays has the busiest of all its days. With `sign` -1 it is the smallest sum.
        """
        first = date(year, 1, 1)
        taken: dict[str, None] = {}
        spare: dict[str, None] = {}
        for offset, identity in enumerate(self.days(year, holidays)):
            day = first + timedelta(offset)
            if month is not None and day.month != month:
                continue
            spare[identity] = None
            if day.weekday() < 5 and (day.month, day.day) not in holidays:
                taken[identity] = None
        by_id = dict(self.patterns)
        return max(taken or spare, key=lambda identity: sign * daily_sum(by_id[identity]))


def daily_sum(pattern: DayPattern) -> float:
    """Sum of the pattern over the day [value x h]."""
    total, start = 0.0, 0
    for until, value in pattern.steps:
        total += (until - start) * value
        start = until
    return total / 60.0


def shifted(pattern: DayPattern, minutes: int) -> DayPattern:
    """The pattern moved later by some minutes, round the day (earlier where negative)."""
    pieces: list[tuple[int, int, float]] = []
    start = 0
    for until, value in pattern.steps:
        a, b = start + minutes, until + minutes
        for turn in (-MINUTES_PER_DAY, 0, MINUTES_PER_DAY):
            low, high = max(0, a + turn), min(MINUTES_PER_DAY, b + turn)
            if low < high:
                pieces.append((low, high, value))
        start = until
    pieces.sort()
    steps: list[tuple[int, float]] = []
    for index, (_, high, value) in enumerate(pieces):
        if index + 1 < len(pieces) and pieces[index + 1][2] == value:
            continue
        steps.append((high, value))
    return DayPattern(tuple(steps))


def in_daylight_saving(month: int, day: int, start: MonthDay | None, end: MonthDay | None) -> bool:
    """Whether clocks are an hour ahead on a date; on the southern half the range runs over the new year."""
    if start is None or end is None:
        return False
    at = (month, day)
    return start <= at < end if start <= end else at >= start or at < end
