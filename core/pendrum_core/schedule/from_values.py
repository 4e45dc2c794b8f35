"""Schedules from rows of numbers, and back.

Source: means by definition.
"""

from collections.abc import Sequence
from datetime import date, timedelta

from pendrum_core.schedule.pattern import MINUTES_PER_DAY, DayPattern
from pendrum_core.schedule.year_plan import Rule, YearPlan

PER_DAY = (24, 48, 96, 1440)


def pattern_of(values: Sequence[float]) -> DayPattern:
    """A day pattern of equal steps.

    Raises:
        ValueError: not a number of values that divides a day into whole minutes of 60, 30, 15 or 1.
    """
    if len(values) not in PER_DAY:
        raise ValueError(f"a day has 24, 48, 96 or 1440 values, not {len(values)}")
    width = MINUTES_PER_DAY // len(values)
    steps: list[tuple[int, float]] = []
    for index, value in enumerate(values):
        if steps and steps[-1][1] == value:
            steps.pop()
        steps.append(((index + 1) * width, float(value)))
    return DayPattern(tuple(steps))


def plan_of(values: Sequence[float], year: int) -> YearPlan:
    """A year plan of hourly values, 8760 or 8784: equal days share a pattern, and runs of them a rule.

    Raises:
        ValueError: the values are not one for each hour of the year (8760 are also taken for a leap year, whose
            29 February then is as the day before).
    """
    first = date(year, 1, 1)
    count = (date(year + 1, 1, 1) - first).days
    rows = list(values)
    if len(rows) == 8760 and count == 366:
        leap = (date(year, 2, 29) - first).days * 24
        rows[leap:leap] = rows[leap - 24 : leap]
    if len(rows) != count * 24:
        raise ValueError(f"{year} has {count * 24} hours; there are {len(values)} values")
    patterns: dict[tuple[float, ...], str] = {}
    days = []
    for index in range(count):
        day = tuple(float(v) for v in rows[index * 24 : index * 24 + 24])
        days.append(patterns.setdefault(day, f"d{len(patterns) + 1}"))
    base = max(patterns.values(), key=days.count)
    every = (True,) * 8
    rules: list[Rule] = []
    start = 0
    for index in range(1, count + 1):
        if index == count or days[index] != days[start]:
            if days[start] != base:
                a, b = first + timedelta(start), first + timedelta(index - 1)
                rules.append(Rule((a.month, a.day), (b.month, b.day), every, days[start]))
            start = index
    named = tuple((identity, pattern_of(day)) for day, identity in patterns.items())
    return YearPlan(named, base, tuple(rules))


def hourly(plan: YearPlan, year: int, holidays: frozenset[tuple[int, int]]) -> list[float]:
    """Average of every hour of a year [as given]."""
    by_id = {identity: _hours(pattern) for identity, pattern in plan.patterns}
    return [value for identity in plan.days(year, holidays) for value in by_id[identity]]


def _hours(pattern: DayPattern) -> list[float]:
    hours, start = [0.0] * 24, 0
    for until, value in pattern.steps:
        for hour in range(start // 60, (until + 59) // 60):
            hours[hour] += (min(until, (hour + 1) * 60) - max(start, hour * 60)) / 60.0 * value
        start = until
    return hours
