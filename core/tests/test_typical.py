"""Twelve typical days: temperatures, moisture and light against the design data they come from."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE
from pendrum_core.moist_air import dew_point_c, humidity_ratio_from_relative
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.weather.plausible import sun_faults
from pendrum_core.weather.typical import OVERCAST, colder_k, typical_year


class TypicalDays(unittest.TestCase):
    def setUp(self) -> None:
        self.year = typical_year(CLIMATE)
        self.design = outdoors(CLIMATE)

    def days(self, values: np.ndarray) -> np.ndarray:
        """One day of each month; all days of a month are alike."""
        found = []
        for month in range(1, 13):
            days = values[self.year.month_of == month].reshape(-1, 24)
            self.assertEqual(float(np.abs(days - days[0]).max()), 0.0)
            found.append(days[0])
        return np.stack(found)

    def hourly(self, steps: np.ndarray) -> np.ndarray:
        return steps[:12].reshape(12, 24, 6).mean(axis=2)

    def test_the_coldest_month_is_half_way_to_winter(self) -> None:
        dry, design = self.days(self.year.dry_bulb_c), self.hourly(self.design.dry_bulb_c)
        coldest = int(design.mean(axis=1).argmin())
        middle = (design[coldest].mean() + CLIMATE.winter_dry_bulb_c) / 2.0
        self.assertAlmostEqual(float(dry[coldest].mean()), float(middle), places=9)
        np.testing.assert_allclose(design - dry, colder_k(CLIMATE), atol=1e-9)

    def test_the_dew_point_moves_with_it(self) -> None:
        pressure = self.year.pressure_pa[0]
        moist = humidity_ratio_from_relative(self.year.dry_bulb_c, self.year.relative_humidity, pressure)
        dew = self.days(np.asarray(dew_point_c(moist, pressure)))
        design = self.hourly(np.asarray(dew_point_c(self.design.humidity_ratio[:12], pressure)))
        np.testing.assert_allclose(design - dew, colder_k(CLIMATE), atol=0.1)
        self.assertLessEqual(float(self.year.relative_humidity.max()), 1.0)

    def test_half_of_the_days_are_clear(self) -> None:
        """Sums of light over a day: beam halves, the overcast half gives a quarter of the clear day's."""
        up = self.design.sky.beam_normal * np.maximum(0.0, np.sin(np.radians(self.design.sun.elevation_deg)))
        clear = (up + self.design.sky.diffuse_horizontal)[:12].mean(axis=1)
        np.testing.assert_allclose(self.days(self.year.global_w_m2).mean(axis=1), clear * (1.0 + OVERCAST) / 2.0)
        beam = self.design.sky.beam_normal[:12].mean(axis=1)
        np.testing.assert_allclose(self.days(self.year.beam_w_m2).mean(axis=1), beam / 2.0)
        self.assertEqual(sun_faults(self.year), [])

    def test_a_winter_warmer_than_its_design_day_moves_nothing(self) -> None:
        mild = replace(CLIMATE, winter_dry_bulb_c=30.0)
        self.assertEqual(colder_k(mild), 0.0)

    def test_every_month_is_needed(self) -> None:
        with self.assertRaisesRegex(ValueError, "every month"):
            typical_year(replace(CLIMATE, months=CLIMATE.months[5:8]))


if __name__ == "__main__":
    unittest.main()
