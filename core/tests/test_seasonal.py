"""Seasonal figures: seasons of the standard, closed forms, and a sum by hand."""

import unittest
from dataclasses import replace

import numpy as np

from pendrum_core.model.plant import PlantUnit
from pendrum_core.plant.seasonal import season_of

PUMP = PlantUnit("u", "Heat pump", "heat pump", None, 1.0, 2.4, 3.6, 2.7, 4.2, least_part=0.25, fuel="electricity")
CHILLER = replace(PUMP, kind="chiller", full_cool=4.3, full_warm=2.9, part_cool=5.6, part_warm=3.6)


def even(kind: str, efficiency: float, **more: float) -> PlantUnit:
    """A machine of one efficiency at all its points, that never cycles."""
    points = dict.fromkeys(("full_cool", "full_warm", "part_cool", "part_warm"), efficiency)
    return replace(PUMP, kind=kind, **{"least_part": 0.0} | points | more)


class Seasons(unittest.TestCase):
    def test_hours_of_the_standard(self) -> None:
        """EN 14825: 4,910 hours of heating from -10 to 15 °C, 2,602 of cooling from 17 to 39 °C."""
        heating, cooling = season_of(PUMP, 10_000.0), season_of(CHILLER, 10_000.0)
        assert heating is not None and cooling is not None
        self.assertEqual((heating.hours.sum(), heating.outdoor_c[0], heating.outdoor_c[-1]), (4910.0, -10.0, 15.0))
        self.assertEqual((cooling.hours.sum(), cooling.outdoor_c[0], cooling.outdoor_c[-1]), (2602.0, 17.0, 39.0))
        # 2,066 and 600 equivalent full-load hours are what the standard's defaults come to for these seasons, nearly.
        self.assertAlmostEqual(float((heating.hours * heating.load_w).sum()) / 10_000.0 / 2066.0, 1.0, delta=0.02)

    def test_part_load_is_the_standards(self) -> None:
        """Its points A to D: 88, 54, 35 and 15 % of heating at -7, 2, 7 and 12 °C; 100, 74, 47 and 21 % of cooling at 35 to 20 °C."""
        for unit, points in (
            (PUMP, {-7: 0.88, 2: 0.54, 7: 0.35, 12: 0.15}),
            (CHILLER, {35: 1.0, 30: 0.74, 25: 0.47, 20: 0.21}),
        ):
            season = season_of(unit, 1000.0)
            assert season is not None
            for outdoor, share in points.items():
                (at,) = np.flatnonzero(season.outdoor_c == outdoor)
                self.assertAlmostEqual(season.load_w[at] / 1000.0, share, places=2)

    def test_one_efficiency_is_the_seasons(self) -> None:
        for kind in ("heat pump", "chiller"):
            for size in (500.0, 80_000.0):
                season = season_of(even(kind, 3.3), size)
                assert season is not None
                self.assertAlmostEqual(season.figure, 3.3)

    def test_no_more_than_its_capacity(self) -> None:
        season = season_of(CHILLER, 5000.0)
        assert season is not None
        self.assertEqual(season.output_w.max(), 5000.0)
        self.assertGreater(season.load_w.max(), 5000.0)

    def test_a_sum_by_hand(self) -> None:
        """Two bins of the heat pump, worked from its points: full and 30 % load, -7 and 7 °C."""
        season = season_of(PUMP, 10_000.0)
        assert season is not None
        for outdoor in (-7.0, 2.0):
            (at,) = np.flatnonzero(season.outdoor_c == outdoor)
            part = (outdoor - 16.0) / -26.0
            x = (part - 0.3) / 0.7
            y = (outdoor + 7.0) / 14.0
            full, low = 2.4 + y * 1.2, 2.7 + y * 1.5
            self.assertAlmostEqual(season.taken_w[at], 10_000.0 * part / (low + x * (full - low)))
        by_hand = float((season.hours * season.output_w).sum()) / float((season.hours * season.taken_w).sum())
        self.assertAlmostEqual(season.figure, by_hand)
        # Between its worst and its best point.
        self.assertTrue(2.4 < season.figure < 4.2)

    def test_auxiliaries_and_cycling_lower_it(self) -> None:
        plain = season_of(even("heat pump", 3.0), 10_000.0)
        fans = season_of(even("heat pump", 3.0, running_w=200.0), 10_000.0)
        assert plain is not None and fans is not None
        self.assertLess(fans.figure, plain.figure)
        losing = season_of(even("heat pump", 3.0, least_part=0.5, idle_share=0.02), 10_000.0)
        assert losing is not None
        self.assertLess(losing.figure, plain.figure)

    def test_what_has_no_season(self) -> None:
        self.assertIsNone(season_of(replace(PUMP, kind="boiler"), 1000.0))
        self.assertIsNone(season_of(replace(PUMP, kind="district"), 1000.0))
        with self.assertRaisesRegex(ValueError, "above 0"):
            season_of(PUMP, 0.0)
