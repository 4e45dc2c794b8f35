"""Schedules as the core takes them: the day pattern of every month's design day, and of the winter day."""

from dataclasses import dataclass

from calculations.lookups import Lookups
from pendrum_core.model.schedules import (
    CONSTANT_ONE,
    DayPattern,
    Rule,
    YearPlan,
    daily_sum,
    in_daylight_saving,
    shifted,
)
from projects.rows import Row

MonthDay = tuple[int, int]
EMPTY = DayPattern(((1440, 0.0),))


@dataclass(frozen=True)
class DesignPatterns:
    """Patterns of the design days in local standard time.

    Attributes:
        by_month: January to December.
        chosen: id of the pattern of each month, and of winter (None for nobody there).
    """

    by_month: tuple[DayPattern, ...]
    winter: DayPattern
    chosen: tuple[str, ...]
    winter_chosen: str | None


ALWAYS = DesignPatterns((CONSTANT_ONE,) * 12, CONSTANT_ONE, ("",) * 12, None)


def month_day(text: str) -> MonthDay:
    """A stored date."""
    month, day = text.split("-")
    return int(month), int(day)


def holidays(look: Lookups) -> frozenset[MonthDay]:
    """The project's holidays."""
    return frozenset(month_day(item["date"]) for item in look.said("project", "holidays"))


def year_plan(row: Row) -> YearPlan:
    """A schedule row as a year plan."""
    return YearPlan(
        patterns=tuple((p["id"], DayPattern(tuple((u, v) for u, v in p["steps"]))) for p in row["patterns"]),
        base=row["base"],
        rules=tuple(
            Rule(month_day(r["start"]), month_day(r["end"]), tuple(c == "1" for c in r["days"]), r["pattern"])
            for r in row["rules"]
        ),
    )


def days_of_year(look: Lookups, row: Row) -> tuple[str, ...]:
    """Pattern id of every day of the project's year."""
    return year_plan(row).days(look.said("project", "year"), holidays(look))


def design_patterns(look: Lookups, schedule: str | None, pick: str = "busiest") -> DesignPatterns:
    """Patterns of a schedule for the design days; none given means always full.

    `pick` is how the day is chosen where the schedule does not name it: "busiest", the largest of the working days, the
    winter day without anybody (or the coldest of temperatures); "highest" or "lowest", set-points month by month, winter
    included.
    """
    if schedule is None:
        return ALWAYS
    key = schedule if pick == "busiest" else f"{schedule}/{pick}"
    found: DesignPatterns = look.remembered("design patterns", key, lambda: _design(look, schedule, pick))
    return found


def _design(look: Lookups, identity: str, pick: str) -> DesignPatterns:
    row = look.existing("schedule", identity)
    plan, off, year = year_plan(row), holidays(look), look.said("project", "year")
    saving = (look.said("site", "saving_from"), look.said("site", "saving_to"))
    start, end = (month_day(day) if day else None for day in saving)
    sign = -1.0 if pick == "lowest" else 1.0
    if row["summer"]:
        chosen = [row["summer"]] * 12
    elif row["summer_by_month"] or pick != "busiest":
        chosen = [plan.busiest(year, off, month, sign) for month in range(1, 13)]
    else:
        chosen = [plan.busiest(year, off)] * 12
    made: dict[tuple[str, bool], DayPattern] = {}
    by_month = []
    for month, name in enumerate(chosen, start=1):
        key = (name, in_daylight_saving(month, 21, start, end))
        if key not in made:
            # Clocks an hour ahead: what the clock calls 9 happens at 8 by the sun.
            made[key] = shifted(plan.pattern(name), -60) if key[1] else plan.pattern(name)
        by_month.append(made[key])
    winter = row["winter"]
    if winter is None and pick != "busiest":
        # Winter's design day falls in the colder half of the year, which of its months does not matter for ordinary plans.
        winter = chosen[0] if look.said("site", "latitude") >= 0 else chosen[6]
    elif winter is None and row["kind"] == "temperature":
        winter = min((identity for identity, _ in plan.patterns), key=lambda i: daily_sum(plan.pattern(i)))
    return DesignPatterns(tuple(by_month), plan.pattern(winter) if winter else EMPTY, tuple(chosen), winter)
