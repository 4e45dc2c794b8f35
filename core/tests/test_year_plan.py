"""Year plans: every day has exactly one pattern; design days; values in and out."""

import unittest
from datetime import date, timedelta

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from pendrum_core.schedule.from_values import hourly, pattern_of, plan_of
from pendrum_core.schedule.pattern import DayPattern, multiplied, step_averages
from pendrum_core.schedule.year_plan import Rule, YearPlan, daily_sum, in_daylight_saving, shifted

FULL, HALF, NONE = (DayPattern(((1440, v),)) for v in (1.0, 0.5, 0.0))
DAY = DayPattern(((480, 0.0), (720, 1.0), (780, 0.4), (1080, 1.0), (1440, 0.05)))
EVERY = (True,) * 8
month_day = st.tuples(st.integers(1, 12), st.integers(1, 28))
rules = st.lists(
    st.builds(Rule, month_day, month_day, st.tuples(*[st.booleans()] * 8), st.sampled_from(["a", "b", "c"])), max_size=6
)
patterns = st.lists(st.tuples(st.integers(1, 1439), st.integers(0, 20)), max_size=6).map(
    lambda cuts: DayPattern(tuple((until, value / 20) for until, value in sorted(dict(cuts).items())) + ((1440, 0.25),))
)


def minutes(pattern: DayPattern) -> np.ndarray:
    values, start = np.empty(1440), 0
    for until, value in pattern.steps:
        values[start:until] = value
        start = until
    return values


class Days(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(rules=rules, year=st.integers(1990, 2060), off=st.frozensets(month_day, max_size=5))
    def test_every_day_has_exactly_one_pattern_and_the_last_rule_wins(
        self, rules: list[Rule], year: int, off: frozenset[tuple[int, int]]
    ) -> None:
        plan = YearPlan((("a", FULL), ("b", HALF), ("c", NONE)), "a", tuple(rules))
        days = plan.days(year, off)
        first = date(year, 1, 1)
        self.assertEqual(len(days), (date(year + 1, 1, 1) - first).days)
        for index in range(0, len(days), 13):
            day = first + timedelta(index)
            at, kind = (day.month, day.day), 7 if (day.month, day.day) in off else day.weekday()
            fitting = [
                r for r in rules
                if r.days[kind] and ((r.start <= at <= r.end) if r.start <= r.end else (at >= r.start or at <= r.end))
            ]  # fmt: skip
            self.assertEqual(days[index], fitting[-1].pattern if fitting else "a")

    def test_a_range_over_the_new_year(self) -> None:
        plan = YearPlan((("a", FULL), ("b", NONE)), "a", (Rule((12, 24), (1, 6), EVERY, "b"),))
        days = plan.days(2027, frozenset())
        self.assertEqual([i for i, d in enumerate(days) if d == "b"], [*range(6), *range(357, 365)])

    def test_a_holiday_is_no_weekday(self) -> None:
        weekdays = (True,) * 5 + (False,) * 3
        plan = YearPlan((("a", NONE), ("b", FULL)), "a", (Rule((1, 1), (12, 31), weekdays, "b"),))
        self.assertEqual(plan.days(2027, frozenset())[4 - 1], "b")  # Monday 4 January
        self.assertEqual(plan.days(2027, frozenset({(1, 4)}))[4 - 1], "a")

    def test_an_unknown_pattern_is_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "'x' is not among"):
            YearPlan((("a", FULL),), "a", (Rule((1, 1), (1, 2), EVERY, "x"),))


class DesignDays(unittest.TestCase):
    def test_busiest_weekday(self) -> None:
        """A fair on Sundays is larger, and does not count; August is shut."""
        rules = (Rule((1, 1), (12, 31), (False,) * 6 + (True, False), "fair"), Rule((8, 1), (8, 31), EVERY, "shut"))
        plan = YearPlan((("day", DAY), ("fair", FULL), ("shut", HALF)), "day", rules)
        self.assertEqual(plan.busiest(2027, frozenset()), "shut" if daily_sum(HALF) > daily_sum(DAY) else "day")
        self.assertEqual(plan.busiest(2027, frozenset(), 8), "shut")
        self.assertEqual(plan.busiest(2027, frozenset(), 7), "day")

    @given(pattern=patterns, by=st.integers(-1440, 1440))
    def test_shifting_turns_the_day(self, pattern: DayPattern, by: int) -> None:
        np.testing.assert_array_equal(minutes(shifted(pattern, by)), np.roll(minutes(pattern), by))

    @given(one=patterns, other=patterns)
    def test_products_minute_by_minute(self, one: DayPattern, other: DayPattern) -> None:
        np.testing.assert_allclose(minutes(multiplied(one, other, 2.0)), 2 * minutes(one) * minutes(other))

    def test_daylight_saving_on_both_halves_of_the_earth(self) -> None:
        self.assertTrue(in_daylight_saving(7, 21, (3, 28), (10, 31)))
        self.assertFalse(in_daylight_saving(10, 31, (3, 28), (10, 31)))
        self.assertTrue(in_daylight_saving(1, 21, (10, 3), (4, 4)))
        self.assertFalse(in_daylight_saving(6, 21, (10, 3), (4, 4)))
        self.assertFalse(in_daylight_saving(7, 21, None, None))


class Values(unittest.TestCase):
    @given(st.sampled_from([24, 48, 96]).flatmap(lambda n: st.lists(st.integers(0, 9), min_size=n, max_size=n)))
    def test_rows_of_a_day_come_back(self, row: list[int]) -> None:
        pattern = pattern_of([float(v) for v in row])
        np.testing.assert_allclose(minutes(pattern).reshape(len(row), -1).mean(axis=1), row)
        self.assertTrue(all(a[1] != b[1] for a, b in zip(pattern.steps, pattern.steps[1:], strict=False)))

    @settings(max_examples=10, deadline=None)
    @given(seed=st.integers(0, 1000), year=st.sampled_from([2027, 2028]))
    def test_a_year_of_hours_comes_back(self, seed: int, year: int) -> None:
        maker = np.random.default_rng(seed)
        kinds = maker.integers(0, 5, size=(4, 24)).astype(float)
        count = (date(year + 1, 1, 1) - date(year, 1, 1)).days
        values = kinds[maker.integers(0, 4, size=count)].ravel()
        plan = plan_of(list(values), year)
        self.assertLessEqual(len(plan.patterns), 4)
        np.testing.assert_allclose(hourly(plan, year, frozenset()), values)

    def test_counts_that_cannot_be(self) -> None:
        for count in (0, 23, 25, 100):
            with self.assertRaisesRegex(ValueError, "24, 48, 96 or 1440"):
                pattern_of([0.0] * count)
        with self.assertRaisesRegex(ValueError, "8760 hours"):
            plan_of([0.0] * 8759, 2027)
        # A leap year takes 8760 hours too, with 29 February as the day before.
        leap = hourly(plan_of([float(i // 24) for i in range(8760)], 2028), 2028, frozenset())
        self.assertEqual((leap[58 * 24], leap[59 * 24], leap[60 * 24]), (58.0, 58.0, 59.0))

    def test_hours_of_a_pattern_with_minutes(self) -> None:
        plan = YearPlan((("a", DayPattern(((90, 1.0), (1440, 0.0)))),), "a")
        self.assertEqual(hourly(plan, 2027, frozenset())[:3], [1.0, 0.5, 0.0])
        self.assertAlmostEqual(float(step_averages(DAY).sum()) / 6, daily_sum(DAY))
