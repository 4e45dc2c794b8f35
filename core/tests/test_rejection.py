"""Cooling towers and dry coolers: against a tower marched through slices, balances by hand, and chillers settled with them."""

import unittest
from dataclasses import replace

import numpy as np
import psychrolib

from core.tests.test_air_system import building
from pendrum_core.checks.results import result_snags
from pendrum_core.model.plant import CHILLER, DRY_COOLER, WATER_CHILLER, PlantUnit, Rejection
from pendrum_core.plant.rejection import WATER_KG_M3, WATER_OVER_AIR, Cooler, settle_with, size_cooler
from pendrum_core.plant.source import AirOutside, Course, Water, members_of, size_plant
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain

P = 101_325.0
CP = 4186.0


psychrolib.SetUnitSystem(psychrolib.SI)


def h_saturated(t: np.ndarray) -> np.ndarray:
    return np.array([psychrolib.GetSatAirEnthalpy(float(one), P) for one in np.atleast_1d(t)])


def merkel_units(cooler: Cooler, cold: float, hot: float, wet_bulb: float, air_over_water: float) -> float:
    """Merkel's number of a tower, by integrating dT cp / (h saturated at the water - h of the air) over the water's cooling."""
    steps = 200
    water = cold + (np.arange(steps) + 0.5) * (hot - cold) / steps
    # The air takes up what the water below this slice gave.
    air = h_saturated(np.array(wet_bulb))[0] + CP * (water - cold) / air_over_water
    return float((CP * (hot - cold) / steps / (h_saturated(water) - air)).sum())


class Towers(unittest.TestCase):
    def setUp(self) -> None:
        self.inputs = Rejection(approach_k=4.0, range_k=5.0, least_c=18.0)
        self.cooler = size_cooler(self.inputs, 500e3, 21.0, P)

    def test_its_design_point_comes_back(self) -> None:
        self.assertAlmostEqual(float(self.cooler.water_c(np.array(500e3), np.array(21.0))), 25.0, places=6)
        self.assertAlmostEqual(self.cooler.water_kg_s, 500e3 / (CP * 5.0), delta=1e-3 * self.cooler.water_kg_s)

    def test_elsewhere_it_is_merkels_tower(self) -> None:
        """With the Merkel number of the design point, what it does at other loads and wet-bulbs lies within 0.5 K."""
        design = merkel_units(self.cooler, 25.0, 30.0, 21.0, 1.0 / WATER_OVER_AIR)
        for share, wet_bulb in ((1.0, 15.0), (0.6, 21.0), (0.4, 10.0), (1.1, 24.0)):
            heat = 500e3 * share
            found = float(self.cooler.water_c(np.array(heat), np.array(wet_bulb)))
            span = heat / (self.cooler.water_kg_s * CP)
            number = merkel_units(self.cooler, found, found + span, wet_bulb, 1.0 / WATER_OVER_AIR)
            above, below = (
                merkel_units(self.cooler, found + off, found + off + span, wet_bulb, 1.0 / WATER_OVER_AIR)
                for off in (0.5, -0.5)
            )
            self.assertTrue(
                above < design < below or abs(number / design - 1.0) < 0.1, (share, wet_bulb, number, design)
            )

    def test_more_heat_wetter_air_and_slower_fans_make_warmer_water(self) -> None:
        base = float(self.cooler.water_c(np.array(400e3), np.array(20.0)))
        self.assertGreater(float(self.cooler.water_c(np.array(450e3), np.array(20.0))), base)
        self.assertGreater(float(self.cooler.water_c(np.array(400e3), np.array(21.0))), base)
        self.assertGreater(float(self.cooler.water_c(np.array(400e3), np.array(20.0), 0.7)), base)
        # No colder than the wet-bulb, whatever the load.
        self.assertGreater(float(self.cooler.water_c(np.array(1e3), np.array(20.0))), 20.0)

    def test_an_approach_that_no_tower_reaches(self) -> None:
        with self.assertRaisesRegex(ValueError, "no tower cools water by 12 K to 0.3 K"):
            size_cooler(replace(self.inputs, approach_k=0.3, range_k=12.0), 1e5, 21.0, P)
        with self.assertRaises(ValueError):
            size_cooler(self.inputs, 0.0, 21.0, P)


class LostWater(unittest.TestCase):
    def test_what_evaporates_closes_the_airs_balance(self) -> None:
        """Air of 30 °C and 22 °C wet-bulb takes 300 kW: it leaves saturated with that heat; held against another library."""
        tower = size_cooler(Rejection(cycles=5.0), 300e3, 22.0, 101_325.0)
        one = np.ones(1)
        lost = float(tower.made_up_kg_s(300e3 * one, one, 30.0 * one, 22.0 * one)[0])
        air = tower.water_kg_s / WATER_OVER_AIR
        psychrolib.SetUnitSystem(psychrolib.SI)
        entering = psychrolib.GetHumRatioFromTWetBulb(30.0, 22.0, 101_325.0)
        evaporated = lost * 4.0 / 5.0
        leaving = entering + evaporated / air
        left = psychrolib.GetTDewPointFromHumRatio(
            35.0, leaving, 101_325.0
        )  # saturated: its dew point is its temperature
        gained = psychrolib.GetMoistAirEnthalpy(left, leaving) - psychrolib.GetMoistAirEnthalpy(30.0, entering)
        self.assertAlmostEqual(air * gained / 300e3, 1.0, delta=0.01)
        # The air warms up by more than its dry-bulb falls: about nine tenths of the heat evaporate water.
        self.assertAlmostEqual(evaporated * 2.45e6 / 300e3, 0.9, delta=0.25)

    def test_none_at_rest_and_none_of_a_dry_cooler(self) -> None:
        tower = size_cooler(Rejection(), 300e3, 22.0, 101_325.0)
        still = np.zeros(2)
        np.testing.assert_array_equal(tower.made_up_kg_s(still, still, 30.0 + still, 22.0 + still), still)
        dry = size_cooler(Rejection(DRY_COOLER, approach_k=8.0), 300e3, 30.0, 101_325.0)
        np.testing.assert_array_equal(dry.made_up_kg_s(still + 1e5, still + 1.0, 30.0 + still, 22.0 + still), still)

    def test_suction_head_by_hand(self) -> None:
        """Water of 26 °C: 3363 Pa of vapour; (101325 − 3363 − 20000)/(996 × 9.80665) + 1.5 m."""
        tower = size_cooler(Rejection(suction_pa=20e3, above_pump_m=1.5), 300e3, 22.0, 101_325.0)
        self.assertAlmostEqual(tower.cold_c, 26.0)
        self.assertAlmostEqual(tower.suction_head_m, (101_325.0 - 3363.0 - 20e3) / (996.0 * 9.80665) + 1.5, delta=0.002)


class DryCoolers(unittest.TestCase):
    def test_equal_rates_by_hand(self) -> None:
        """At design both rates are equal: ε = NTU/(1 + NTU) = range/(range + approach); the heat goes with the difference."""
        cooler = size_cooler(Rejection(DRY_COOLER, approach_k=10.0, range_k=5.0), 300e3, 35.0, P)
        self.assertAlmostEqual(cooler.units, 0.5)
        self.assertAlmostEqual(float(cooler.water_c(np.array(300e3), np.array(35.0))), 45.0, places=6)
        # Half the heat: half of range and approach.
        self.assertAlmostEqual(float(cooler.water_c(np.array(150e3), np.array(20.0))), 25.0, places=6)


class Together(unittest.TestCase):
    def settled(self, wet_bulb: list[float], least: float = 18.0) -> tuple[Cooler, object, np.ndarray]:
        """A chiller of 400 kW whose ratio falls from 6 at 20 °C to 4.5 at 30 °C of condenser water."""
        cooler = size_cooler(Rejection(approach_k=4.0, range_k=5.0, least_c=least), 480e3, 21.0, P)

        def heat_of(water: np.ndarray) -> np.ndarray:
            return 400e3 * (1.0 + 1.0 / np.interp(water, [20.0, 30.0], [6.0, 4.5]))

        air = np.array(wet_bulb)
        return cooler, settle_with(cooler, heat_of, air), heat_of(settle_with(cooler, heat_of, air).water_c)

    def test_chiller_and_tower_agree_at_every_step(self) -> None:
        cooler, found, heat = self.settled([24.0, 21.0, 16.0])
        np.testing.assert_allclose(found.heat_w, heat, rtol=1e-6)
        np.testing.assert_allclose(found.water_c, cooler.water_c(heat, np.array([24.0, 21.0, 16.0])), atol=1e-3)
        self.assertTrue((found.speed == 1.0).all())
        np.testing.assert_allclose(found.fan_w, 0.015 * 480e3)

    def test_fans_slow_down_to_hold_the_coldest_water(self) -> None:
        cooler, found, heat = self.settled([12.0, 5.0], least=20.0)
        np.testing.assert_allclose(found.water_c, 20.0)
        self.assertTrue((found.speed < 1.0).all())
        self.assertLess(found.speed[1], found.speed[0])
        # At that speed the tower gives just that water; the fan takes the cube of it.
        again = cooler.water_c(heat, np.array([12.0, 5.0]), found.speed)
        np.testing.assert_allclose(again, 20.0, atol=1e-3)
        np.testing.assert_allclose(found.fan_w, cooler.fan_w * found.speed**3)


def chiller(kind: str, name: str = "u", **more: object) -> PlantUnit:
    plain = {"capacity_w": None, "share": 1.0, "full_cool": 6.0, "full_warm": 4.6, "part_cool": 6.5, "part_warm": 5.0,
             "fuel": "electricity"}  # fmt: skip
    return PlantUnit(name, name, kind, **(plain | more))  # type: ignore[arg-type]


class Plants(unittest.TestCase):
    def plant(self, *units: PlantUnit, **circuit: object) -> object:
        base = building()
        chilled = replace(base.circuits[0], units=units, **circuit)  # type: ignore[arg-type]
        results = calculate(replace(base, circuits=(chilled, base.circuits[1])))
        self.assertEqual(results.failures, ())
        return results

    def test_heat_rejected_is_cold_and_power(self) -> None:
        results = self.plant(chiller(WATER_CHILLER))
        plant = results.plants["c"]
        np.testing.assert_allclose(
            plant.rejected.heat_w, plant.summer.output_w.sum(axis=0) + plant.summer.fuel_w.sum(axis=0), rtol=1e-9
        )
        # Sized for the largest heat with that step's wet-bulb, not for the worst wet-bulb of all.
        at = np.unravel_index(int(plant.rejected.heat_w.argmax()), plant.rejected.heat_w.shape)
        self.assertAlmostEqual(plant.cooler.heat_w, float(plant.rejected.heat_w[at]), delta=0.02 * plant.cooler.heat_w)
        self.assertLessEqual(float(plant.rejected.water_c.min()), plant.cooler.cold_c)
        self.assertGreaterEqual(float(plant.rejected.water_c.min()), 20.0 - 1e-6)

    def test_its_working_and_its_kit(self) -> None:
        results = self.plant(chiller(WATER_CHILLER))
        plant = results.plants["c"]
        tree = explain(results, "heat_rejection", "c")
        self.assertAlmostEqual(tree.value, plant.cooler.heat_w, delta=1e-6 * plant.cooler.heat_w)
        items = {item.tag: item for item in kit_list(results)}
        self.assertAlmostEqual(items["Chilled CT"].duties[0].wanted, plant.cooler.heat_w)
        self.assertAlmostEqual(items["Chilled CP"].duties[0].wanted * WATER_KG_M3, plant.cooler.water_kg_s)
        with self.assertRaises(KeyError):
            explain(self.plant(chiller(CHILLER)), "heat_rejection", "c")

    def test_a_tower_below_its_pump_is_a_snag_and_its_water_stands_in_the_kit(self) -> None:
        base = building()
        unit = PlantUnit("w", "Chiller", WATER_CHILLER, None, 1.0, 6.0, 5.0, 6.0, 5.0, fuel="electricity")

        def results(**rejection: float) -> BuildingResults:
            chilled = replace(base.circuits[0], units=(unit,), rejection=Rejection(**rejection))
            return calculate(replace(base, circuits=(chilled, base.circuits[1])))

        high, low = results(), results(above_pump_m=-5.0, suction_pa=40e3)
        codes = [{snag.code for snag in result_snags(one, {})} for one in (high, low)]
        self.assertNotIn("pump_draws_vapour", codes[0])
        self.assertIn("pump_draws_vapour", codes[1])
        line = {item.tag: item for item in kit_list(high)}["Chilled MW"]
        made_up = high.plants["c"].made_up_kg_s
        self.assertAlmostEqual(line.duties[0].wanted, float(made_up.max()) / WATER_KG_M3)
        names = [node.name for node in explain(high, "heat_rejection", "c").inputs]
        self.assertIn("Water made up, at most", names)
        self.assertIn("Suction head of its pump", names)

    def test_units_of_one_plant_rest_on_their_own_temperatures(self) -> None:
        """An air-cooled and a water-cooled machine: each takes what it would alone for its half of the load."""
        half = {"share": 0.5, "least_part": 0.0}
        both = self.plant(chiller(CHILLER, "a", **half), chiller(WATER_CHILLER, "w", **half), staging="equal").plants[
            "c"
        ]
        load = np.array([[1e5]])
        air = AirOutside(np.array([[32.0]]), np.array([[21.0]]), P)
        circuit = replace(
            building().circuits[0], units=(chiller(CHILLER, "a"), chiller(WATER_CHILLER, "w")), staging="equal"
        )
        staged, rejected = members_of(circuit, (1e5, 1e5), (0, 1)).run(
            load, air, Water(np.array([[7.0]]), np.array([[13.0]])), both.cooler
        )
        assert rejected is not None
        x = (32.0 - 20.0) / 15.0
        part = 6.5 + (0.5 - 0.3) / 0.7 * (6.0 - 6.5), 5.0 + (0.5 - 0.3) / 0.7 * (4.6 - 5.0)
        self.assertAlmostEqual(float(staged.fuel_w[0, 0, 0]), 5e4 / (part[0] + x * (part[1] - part[0])), places=3)
        y = np.clip((float(rejected.water_c[0, 0]) - 20.0) / 10.0, 0.0, 1.0)
        self.assertAlmostEqual(float(staged.fuel_w[1, 0, 0]), 5e4 / (part[0] + y * (part[1] - part[0])), places=3)
        self.assertAlmostEqual(float(rejected.heat_w[0, 0]), 5e4 + float(staged.fuel_w[1, 0, 0]), places=3)

    def test_a_dry_cooler_makes_warmer_water_than_a_tower(self) -> None:
        wet = self.plant(chiller(WATER_CHILLER)).plants["c"]
        dry = self.plant(chiller(WATER_CHILLER), rejection=Rejection(DRY_COOLER, approach_k=8.0)).plants["c"]
        self.assertGreater(dry.cooler.cold_c, wet.cooler.cold_c + 5.0)
        self.assertGreater(float(dry.summer.fuel_w.sum()), float(wet.summer.fuel_w.sum()))

    def test_a_plant_without_load_has_no_cooler(self) -> None:
        still = np.zeros((1, 4))
        air = AirOutside(np.full((1, 4), 30.0), np.full((1, 4), 20.0), P)
        circuit = replace(building().circuits[0], units=(chiller(WATER_CHILLER, capacity_w=1e5),))
        found = size_plant(circuit, circuit.units, Course(still, still, still, still, still[0]), 0.0, air, air)
        self.assertIsNone(found.cooler)
        self.assertIsNone(found.rejected)
