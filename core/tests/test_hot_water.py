"""Hot water: stores against brute force and by hand, tanks of a year against an independent integrator."""

import unittest
from types import SimpleNamespace
from typing import Any

import numpy as np
from scipy.integrate import solve_ivp

from pendrum_core.model.hot_water import Collector, Draw, HotWaterStore
from pendrum_core.model.year import always
from pendrum_core.schedule.pattern import DayPattern, constant
from pendrum_core.water.hot_water import VOLUMES_L, daily_heat_j, heat_j_per_litre, size_hot_water, standing_w
from pendrum_core.year.hot_water import hot_water_year, hourly_draw, march_tanks, saved_share

KWH = 3.6e6


def pattern(*steps: tuple[int, float]) -> DayPattern:
    return DayPattern(tuple(steps))


def store(**more: Any) -> HotWaterStore:
    fields: dict[str, Any] = {
        "id": "s", "name": "Store", "circuit": None, "draws": (Draw(1000.0, 55.0),), "loop_m": 0.0,
        "profile": pattern((360, 0.0), (420, 1.0), (1440, 0.0)),
    } | more  # fmt: skip
    return HotWaterStore(**fields)


class Day(unittest.TestCase):
    def test_heat_of_a_litre(self) -> None:
        """4.18 kJ/(kg K) within what water's tables vary by; a main that is warm enough takes nothing."""
        self.assertAlmostEqual(heat_j_per_litre(55.0, 10.0) / (4180.0 * 45.0), 0.9955, delta=0.004)
        self.assertEqual(daily_heat_j(100.0, 20.0, 25.0), 0.0)

    def test_one_hour_of_draw_by_hand(self) -> None:
        """All of Q in one hour, store full again in t hours: E = Q - E/t, so E = Q t/(t + 1)."""
        for hours in (1.0, 2.0, 4.0):
            found = size_hot_water(store(reheat_h=hours))
            assert found is not None
            heat = daily_heat_j(1000.0, 55.0, 10.0)
            self.assertAlmostEqual(found.heat_j_day, heat, delta=1.0)
            usable = heat_j_per_litre(60.0, 10.0) * 0.9
            self.assertAlmostEqual(found.needed_l * usable / heat, hours / (hours + 1.0), places=6)
            self.assertIn(found.volume_l, VOLUMES_L)
            self.assertGreaterEqual(found.volume_l, found.needed_l)
            self.assertAlmostEqual(found.peak_l_s, 1000.0 / 3600.0, places=9)

    def test_an_even_draw_needs_no_store_but_its_mean(self) -> None:
        found = size_hot_water(store(profile=constant(0.4)))
        assert found is not None
        self.assertAlmostEqual(found.needed_l, 0.0, delta=0.01)
        self.assertAlmostEqual(found.charge_w - found.losses_w, found.heat_j_day / 86_400.0, places=3)
        self.assertEqual(found.volume_l, 80.0)

    def test_the_store_is_never_empty_and_a_smaller_one_is(self) -> None:
        """Random days, marched minute by minute by another rule than the one that sizes."""
        chance = np.random.default_rng(3)
        for _ in range(12):
            values = chance.uniform(0.0, 1.0, 24) ** 3
            day = pattern(*((60 * (i + 1), float(v)) for i, v in enumerate(values)))
            found = size_hot_water(store(profile=day, reheat_h=float(chance.uniform(0.5, 6.0))))
            assert found is not None
            need = found.needed_l * heat_j_per_litre(60.0, 10.0) * 0.9
            power = max(need / (found.store.reheat_h * 3600.0), found.heat_j_day / 86_400.0)
            for share, empties in ((1.001, False), (0.97, True)):
                full = content = need * share
                lowest = full
                for step in np.tile(np.repeat(found.draw_w, 10), 3):
                    content = min(full, content + (power - step) * 60.0)
                    lowest = min(lowest, content)
                self.assertEqual(lowest < -1.0, empties, share)

    def test_the_day_closes(self) -> None:
        """What is charged is what is drawn and lost; content ends where it began."""
        found = size_hot_water(store(loop_m=60.0, loop_w_m=8.0))
        assert found is not None
        self.assertAlmostEqual(found.loop_w, 480.0)
        charged = float(found.charge_course_w.sum()) * 600.0
        self.assertAlmostEqual(charged / (found.heat_j_day + found.losses_w * 86_400.0), 1.0, places=9)
        self.assertLessEqual(float(found.charge_course_w.max()), found.charge_w + 1e-6)
        self.assertEqual(found.short_j, 0.0)

    def test_standing_loss_follows_the_regulation(self) -> None:
        """300 L at 65 °C in 20 °C: 16.66 + 8.33 x 300^0.4 = 98.2 W; at half the difference half of it."""
        self.assertAlmostEqual(standing_w(300.0, 65.0, 20.0), 98.23, delta=0.02)
        self.assertAlmostEqual(standing_w(300.0, 42.5, 20.0), 98.23 / 2, delta=0.02)

    def test_pins(self) -> None:
        """A smaller store needs more power; a small power a larger store; too little of both is short."""
        free = size_hot_water(store())
        small = size_hot_water(store(volume_l=300.0))
        weak = size_hot_water(store(charge_w=4_000.0))
        both = size_hot_water(store(volume_l=200.0, charge_w=3_000.0))
        assert free and small and weak and both
        self.assertGreater(small.charge_w, free.charge_w)
        self.assertGreater(weak.needed_l, free.needed_l)
        self.assertEqual((free.state, small.state, both.state), ("sized", "pinned", "pinned"))
        self.assertEqual(small.short_j, 0.0)
        self.assertGreater(both.short_j, KWH)

    def test_nothing_drawn_and_what_cannot_be(self) -> None:
        self.assertIsNone(size_hot_water(store(draws=())))
        with self.assertRaisesRegex(ValueError, "no warmer than the cold main"):
            size_hot_water(store(store_c=10.0, draws=(Draw(10.0, 20.0),)))
        with self.assertRaisesRegex(ValueError, "nought all day"):
            size_hot_water(store(profile=constant(0.0)))


class Year(unittest.TestCase):
    @staticmethod
    def sky(hours: int = 240, sun: float = 0.0, outdoor: float = 5.0) -> Any:
        day = np.clip(np.sin(2 * np.pi * (np.arange(hours) % 24 - 6) / 24), 0.0, None) * sun
        return SimpleNamespace(
            dry_bulb_c=np.full(hours, outdoor), plane=lambda tilt, azimuth: SimpleNamespace(total=day)
        )

    def test_balance_closes(self) -> None:
        """Charged + solar = drawn + lost + what the tanks took up, to 1e-6 of the whole."""
        sized = size_hot_water(store(loop_m=40.0, collector=Collector(8.0, tank_l=500.0)))
        assert sized is not None
        found = hot_water_year(sized, None, self.sky(sun=800.0))
        into = float((found.charged_w + found.solar_w).sum()) * 3600.0
        out = float((found.drawn_w + found.lost_w).sum()) * 3600.0 + found.stored_j
        self.assertAlmostEqual(into / out, 1.0, places=6)
        # Fully mixed, the tank cools below 55 °C within the hour that takes it all: some of that is missing, and said so.
        self.assertLess(float(found.missing_w.sum()), 0.1 * float(found.asked_w.sum()))
        self.assertAlmostEqual(float((found.missing_w + found.drawn_w - found.asked_w).max()), 0.0, places=6)

    def test_tanks_against_an_independent_integrator(self) -> None:
        """The preheating tank of an hour-by-hour draw, integrated with scipy to 1e-9."""
        hours, mass, loss, area = 48, 500.0 * 4180.0, 2.6, 6.0
        chance = np.random.default_rng(1)
        use, sun = chance.uniform(0.0, 60.0, hours), chance.uniform(0.0, 900.0, hours)
        outdoor = np.full(hours, 8.0)
        rows = [np.empty(hours) for _ in range(6)]
        fixed = (55.0, 10.0, 60.0, 18.0, 400.0 * 4180.0, 2.0, 150.0, 1e9, mass, loss, area, 0.78, 3.5, 0.015, 8.0, 90.0)
        march_tanks(use, *fixed, sun, outdoor, 60.0, 10.0, *rows)

        def slope(_: float, y: Any, hour: int) -> Any:
            over = y[0] + 8.0 - 8.0
            gain = max(0.0, area * (0.78 * sun[hour] - 3.5 * over - 0.015 * over * abs(over)))
            out = use[hour] * 45.0 / 50.0
            return [(gain - loss * (y[0] - 18.0) - out * (y[0] - 10.0)) / mass]

        state = [10.0]
        for hour in range(hours):
            state = list(solve_ivp(slope, (0.0, 3600.0), state, args=(hour,), rtol=1e-9, atol=1e-9).y[:, -1])
            self.assertAlmostEqual(rows[5][hour], state[0], delta=0.05)

    def test_at_rest_the_collectors_hold_what_is_lost(self) -> None:
        """Even sun and no draw: area (eta0 G - a1 dT - a2 dT^2) = U (T - around), by a root finder."""
        hours = 2000
        rows = [np.empty(hours) for _ in range(6)]
        zero = np.zeros(hours)
        _, pre = march_tanks(
            zero, 55.0, 10.0, 60.0, 20.0, 1e6, 1.0, 0.0, 1e4, 300.0 * 4180.0, 2.5, 2.0, 0.8, 4.0, 0.02, 5.0, 95.0, zero + 300.0, zero + 20.0,
            60.0, 20.0, *rows,
        )  # fmt: skip
        roots = np.roots([-2.0 * 0.02, -2.0 * (4.0 + 0.02 * 10.0) - 2.5, 2.0 * (0.8 * 300.0 - 4.0 * 5.0 - 0.02 * 25.0)])
        self.assertAlmostEqual(pre, 20.0 + float(max(roots)), delta=0.01)

    def test_a_store_without_sun_takes_what_is_drawn_and_lost(self) -> None:
        sized = size_hot_water(store(profile=constant(1.0)))
        assert sized is not None
        found = hot_water_year(sized, always(1.0, 10), self.sky())
        self.assertAlmostEqual(float(found.charged_w[-1]), float(found.asked_w[-1]) + sized.standing_w, delta=0.5)
        self.assertEqual(float(found.solar_w.sum()), 0.0)

    def test_sun_saves_and_more_of_it_saves_more(self) -> None:
        shares = []
        for area in (2.0, 6.0, 12.0):
            plain, sunny = size_hot_water(store()), size_hot_water(store(collector=Collector(area, tank_l=60.0 * area)))
            assert plain and sunny
            sky = self.sky(sun=900.0, outdoor=15.0)
            shares.append(saved_share(hot_water_year(sunny, None, sky), hot_water_year(plain, None, sky)))
        self.assertTrue(0.0 < shares[0] < shares[1] < shares[2] < 1.0, shares)

    def test_the_busiest_day_of_the_year_is_the_design_day(self) -> None:
        """A profile of half the height on the second day takes half of it."""
        from pendrum_core.model.year import YearCourse

        sized = size_hot_water(store())
        assert sized is not None
        course = YearCourse((constant(1.0), constant(0.5)), (0, 1))
        asked = hourly_draw(sized, course, 48)
        self.assertAlmostEqual(float(asked[:24].sum()) * 3600.0 / sized.heat_j_day, 1.0, places=9)
        self.assertAlmostEqual(float(asked[24:].sum()) / float(asked[:24].sum()), 0.5, places=9)
