"""Schedules, outlines, units, glazing and the docstrings."""

import ast
import unittest
from pathlib import Path

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

import pendrum_core
from pendrum_core.climate.design_day import range_fraction
from pendrum_core.fabric.glazing import Glazing, angular_curve
from pendrum_core.quantities.registry import shown
from pendrum_core.schedule.pattern import DayPattern, step_averages


class Patterns(unittest.TestCase):
    @given(st.lists(st.tuples(st.integers(1, 1439), st.floats(0, 1)), max_size=12), st.floats(0, 1))
    def test_average_of_the_day_is_kept(self, cuts: list[tuple[int, float]], last: float) -> None:
        steps = tuple(sorted(dict(cuts).items())) + ((1440, last),)
        start, total = 0, 0.0
        for until, value in steps:
            total += (until - start) * value
            start = until
        self.assertAlmostEqual(step_averages(DayPattern(steps)).mean() * 1440, total, places=6)

    def test_gaps_overlaps_and_25_hours_are_refused(self) -> None:
        for steps in (((600, 1.0),), ((600, 1.0), (500, 0.0), (1440, 1.0)), ((1500, 1.0),)):
            with self.assertRaises(ValueError):
                DayPattern(steps)


class DesignDay(unittest.TestCase):
    def test_profile_hits_the_published_hours(self) -> None:
        f = range_fraction()
        # Mid-steps either side of 05:00 and 14:30 lie at f = 1 and 0 within one step's slope.
        self.assertAlmostEqual(f[29], 1.0, delta=0.003)
        self.assertEqual(f[86], 0.0)
        self.assertAlmostEqual(range_fraction("sinusoid")[89:91].mean(), 0.0, delta=1e-3)
        with self.assertRaisesRegex(ValueError, "'flat'"):
            range_fraction("flat")


class Units(unittest.TestCase):
    def test_against_exact_definitions(self) -> None:
        for value, quantity, want in (
            (20.0, "temperature", 68.0),
            (10.0, "temperature_difference", 18.0),
            (3516.852842, "refrigeration", 1.0),
            (0.00047194745, "airflow", 1.0),
            (0.3048, "length", 1.0),
            (5.678263337, "u_value", 1.0),
            (745.699872, "electric_power", 1.0),
            (6.309019640e-5, "water_flow", 1.0),
            (249.08891, "pressure", 1.0),
            (2326.0, "enthalpy", 1.0),
        ):
            self.assertAlmostEqual(shown(value, quantity, "IP")[0] / want, 1.0, delta=1e-5, msg=quantity)
        self.assertEqual(shown(1234.0, "load"), (1.234, "kW"))


class Glass(unittest.TestCase):
    def test_published_points(self) -> None:
        # ASHRAE Handbook Fundamentals 2017, ch. 15, table 10, clear double 6 mm: SHGC 0.70 at 0°, 0.58 at 60°, 0.23 at 80°.
        curve = angular_curve(2)
        for angle, shgc in ((0, 0.70), (40, 0.67), (60, 0.58), (80, 0.23)):
            self.assertAlmostEqual(float(curve.at(np.cos(np.radians(angle)))) * 0.70, shgc, delta=0.005)
        self.assertEqual(float(curve.at(np.array(-0.2))), 0.0)

    def test_ranges(self) -> None:
        with self.assertRaisesRegex(ValueError, r"6\.5 is outside 0\.1 to 5\.88"):
            Glazing("g", 6.5, 0.5, 0.2)
        with self.assertRaisesRegex(ValueError, "4 is none of 1, 2, 3"):
            Glazing("g", 1.5, 0.5, 0.2, 4)


class Docstrings(unittest.TestCase):
    def test_every_public_function_says_what_it_is(self) -> None:
        missing = []
        for path in Path(pendrum_core.__file__).parent.rglob("*.py"):
            tree = ast.parse(path.read_text())
            for node in [tree, *ast.walk(tree)]:
                if isinstance(node, ast.Module | ast.FunctionDef | ast.ClassDef):
                    name = getattr(node, "name", path.name)
                    if not name.startswith("_") and ast.get_docstring(node) is None and not _nested(tree, node):
                        missing.append(f"{path.name}:{name}")
        self.assertEqual(missing, [])


def _nested(tree: ast.Module, node: ast.AST) -> bool:
    return any(
        node in ast.walk(outer) and node is not outer for outer in ast.walk(tree) if isinstance(outer, ast.FunctionDef)
    )
