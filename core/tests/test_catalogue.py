"""What is chosen from a catalogue, against looking through all of it."""

import random
import unittest

from pendrum_core.model.catalogue import BOILER, FAN, PUMP, RADIATOR, CatalogueRow, choose, rows_of
from pendrum_core.water.emitters import Rated, size_radiator


class Choosing(unittest.TestCase):
    def setUp(self) -> None:
        dice = random.Random(7)
        self.rows = [
            CatalogueRow(PUMP, f"P{n}", dice.uniform(1e-4, 0.02), dice.uniform(1e4, 2e5)) for n in range(60)
        ] + [CatalogueRow(BOILER, f"B{n}", output_w=dice.uniform(1e4, 5e5)) for n in range(30)]  # fmt: skip

    def test_the_least_that_covers(self) -> None:
        dice = random.Random(8)
        for _ in range(200):
            flow, head = dice.uniform(0, 0.022), dice.uniform(0, 2.2e5)
            fit = [r for r in self.rows if r.item == PUMP and r.flow_m3_s >= flow and r.pressure_pa >= head]
            found = choose(rows_of(self.rows, PUMP), flow_m3_s=flow, pressure_pa=head)
            if found is None:
                self.assertEqual(fit, [])
            else:
                self.assertIn(found, fit)
                self.assertEqual(found.flow_m3_s * found.pressure_pa, min(r.flow_m3_s * r.pressure_pa for r in fit))
        boilers = sorted(r.output_w for r in self.rows if r.item == BOILER)
        found = choose(rows_of(self.rows, BOILER), output_w=boilers[3] + 1.0)
        assert found is not None
        self.assertEqual(found.output_w, boilers[4])

    def test_items_are_kept_apart(self) -> None:
        self.assertIsNone(choose(rows_of(self.rows, FAN), flow_m3_s=0.0, pressure_pa=0.0))
        self.assertEqual(len(rows_of(self.rows, BOILER)), 30)

    def test_a_series_of_radiators_of_ones_own(self) -> None:
        """The rating needed is the same; what is chosen is the next of the series, and its water returns by that."""
        usual = size_radiator(1000.0, 55.0, 45.0, 20.0, Rated())
        series = (usual.rating_w * 0.9, usual.rating_w * 1.4, usual.rating_w * 3.0)
        own = size_radiator(1000.0, 55.0, 45.0, 20.0, Rated(), series)
        self.assertEqual((own.rating_w, own.chosen_w), (usual.rating_w, series[1]))
        self.assertLess(own.chosen_return_c, usual.chosen_return_c)
        self.assertIsNone(size_radiator(1000.0, 55.0, 45.0, 20.0, Rated(), series[:1]).chosen_w)
        self.assertEqual(rows_of([CatalogueRow(RADIATOR, "R", output_w=5.0)], RADIATOR)[0].name, "R")
