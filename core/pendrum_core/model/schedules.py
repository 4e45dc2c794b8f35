"""Schedules as inputs, for callers outside the core."""

from pendrum_core.schedule.from_values import PER_DAY, hourly, pattern_of, plan_of
from pendrum_core.schedule.pattern import (
    CONSTANT_ONE,
    DayPattern,
    constant,
    crossings,
    multiplied,
    step_averages,
    where_on,
)
from pendrum_core.schedule.year_plan import Rule, YearPlan, daily_sum, in_daylight_saving, shifted

__all__ = [
    "CONSTANT_ONE",
    "PER_DAY",
    "DayPattern",
    "Rule",
    "YearPlan",
    "constant",
    "crossings",
    "daily_sum",
    "hourly",
    "in_daylight_saving",
    "multiplied",
    "pattern_of",
    "plan_of",
    "shifted",
    "step_averages",
    "where_on",
]
