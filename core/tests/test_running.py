"""When circuits run: against a walk step by step, and by sums that must close."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, DAY
from core.tests.test_air_system import building
from core.tests.test_feeds import BOILER, circuit, plant_of
from core.tests.test_year import always, swinging
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.model.schedules import DayPattern, constant
from pendrum_core.model.systems import Circuit
from pendrum_core.model.year import YearCircuit, YearCourse, YearGain, YearRoom
from pendrum_core.plant.running import flow_temperature_c, runs
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain
from pendrum_core.year.energy import BuildingYear, building_year
from pendrum_core.year.sky import YearSky

OFFICE_HOURS = DayPattern(((360, 0.0), (1080, 1.0), (1440, 0.0)))


def walked(outdoor_c: np.ndarray, heats: bool, starts_c: float, stops_c: float) -> list[bool]:
    """The rule as a controller follows it, two times around the day; the second is told."""
    state, told = True, []
    for temperature in [*outdoor_c, *outdoor_c]:
        if temperature >= stops_c if heats else temperature <= stops_c:
            state = False
        elif temperature <= starts_c if heats else temperature >= starts_c:
            state = True
        told.append(state)
    return told[len(outdoor_c) :]


class Rule(unittest.TestCase):
    def test_it_goes_on_as_it_was_between_both_limits(self) -> None:
        dice = np.random.default_rng(4)
        for heats in (True, False):
            lower, upper = 13.0, 16.0
            limits = (lower, upper) if heats else (upper, lower)
            one = circuit(60.0, 45.0, kind="heating" if heats else "chilled", starts_c=limits[0], stops_c=limits[1])
            days = 15.0 + np.cumsum(dice.normal(0.0, 0.8, (12, 144)), axis=1)
            found = runs(one, days)
            for day, row in zip(days, found, strict=True):
                self.assertEqual(row.tolist(), walked(day, heats, *limits))
            self.assertTrue(found.any() and not found.all())

    def test_one_limit_is_both_and_none_is_always(self) -> None:
        outdoor = np.array([[14.9, 15.0, 15.1, 20.0]])
        for more in ({"starts_c": 15.0}, {"stops_c": 15.0}, {"starts_c": 15.0, "stops_c": 15.0}):
            self.assertEqual(runs(circuit(60.0, 45.0, **more), outdoor).tolist(), [[True, False, False, False]])
        self.assertTrue(runs(circuit(60.0, 45.0), outdoor).all())
        mild = circuit(60.0, 45.0, starts_c=10.0, stops_c=30.0)
        self.assertTrue(runs(mild, outdoor).all())
        on = np.array([[1.0, 0.5, 1.0, 0.0]])
        self.assertEqual(runs(circuit(60.0, 45.0), outdoor, on).tolist(), [[True, False, True, False]])

    def test_the_flow_by_a_schedule(self) -> None:
        one, outdoor = circuit(60.0, 45.0, flow_rule="schedule"), np.zeros((2, 3))
        self.assertEqual(
            flow_temperature_c(one, outdoor, np.array([[50.0, 55.0, 60.0]])).tolist(), [[50.0, 55.0, 60.0]] * 2
        )
        self.assertEqual(flow_temperature_c(one, outdoor).tolist(), [[60.0] * 3] * 2)


def own_plant(**more: object) -> Building:
    """The heating circuit of three rooms and a coil with a boiler of its own."""
    base = building()
    chilled, heating = base.circuits
    return replace(base, circuits=(chilled, replace(heating, units=(BOILER,), **more)))  # type: ignore[arg-type]


class DesignDays(unittest.TestCase):
    def test_what_is_asked_is_carried_or_told(self) -> None:
        free = calculate(own_plant()).courses["h"]
        limits = {"starts_c": 12.0, "stops_c": 14.0}
        results = calculate(own_plant(running=(OFFICE_HOURS,) * 12, running_winter=OFFICE_HOURS, **limits))
        course, outdoor = results.courses["h"], results.outdoors.dry_bulb_c
        np.testing.assert_allclose(course.summer_w + course.stopped_summer_w, free.summer_w, rtol=1e-12)
        np.testing.assert_allclose(course.winter_w + course.stopped_winter_w, free.winter_w, rtol=1e-12)
        self.assertEqual(float(course.summer_w[outdoor > 14.0].max()), 0.0)
        self.assertEqual(float(course.winter_w[0, :36].max()), 0.0)
        self.assertEqual(float(course.stopped_winter_w[0, 36:108].max()), 0.0)
        self.assertGreater(float(course.winter_w[0, 36:108].min()), 1000.0)

    def test_a_snag_and_working_tell_the_largest(self) -> None:
        results = calculate(own_plant(running=(OFFICE_HOURS,) * 12, running_winter=OFFICE_HOURS))
        largest = float(results.courses["h"].stopped_winter_w.max())
        snag = {s.code: s for s in result_snags(results, {})}["circuit_stopped"]
        self.assertIn(f"{largest / 1000:.1f} kW are asked of it on the winter day at ", snag.sentence)
        self.assertAlmostEqual(explain(results, "circuit_stopped", "h").value or 0.0, largest)
        self.assertNotIn("circuit_stopped", {s.code for s in result_snags(calculate(own_plant()), {})})

    def test_one_that_never_runs_has_no_plant(self) -> None:
        never = constant(0.0)
        results = calculate(own_plant(running=(never,) * 12, running_winter=never))
        self.assertEqual((results.failures, "h" in results.plants), ((), False))

    def test_a_source_that_stops_carries_nothing_of_what_it_feeds(self) -> None:
        fed = plant_of(starts_c=12.0, stops_c=14.0)
        results = calculate(fed)
        course = results.courses["p"]
        warm = results.outdoors.dry_bulb_c > 14.0
        np.testing.assert_allclose(course.stopped_summer_w[warm], results.courses["h"].summer_w[warm], rtol=1e-12)
        self.assertEqual(float(course.summer_w[warm].max()), 0.0)

    def test_water_by_a_schedule_too_cold_for_the_largest_load(self) -> None:
        hot = constant(55.0)
        cold = own_plant(flow_rule="schedule", flow_by_month=(hot,) * 12, flow_winter=hot, flow_c=60.0, return_c=45.0)
        results = calculate(cold)
        self.assertIn("flow_short", {s.code for s in result_snags(results, {})})
        np.testing.assert_allclose(results.plants["h"].winter_flow_c, 55.0)
        enough = replace(cold.circuits[1], flow_winter=constant(60.0))
        results = calculate(replace(cold, circuits=(cold.circuits[0], enough)))
        self.assertNotIn("flow_short", {s.code for s in result_snags(results, {})})

    def test_a_schedule_of_something_else_is_a_snag(self) -> None:
        people = constant(120.0)
        wrong = own_plant(flow_rule="schedule", flow_by_month=(people,) * 12, flow_winter=people)
        self.assertIn("flow_beyond", {s.code for s in result_snags(calculate(wrong), {})})
        right = own_plant(flow_rule="schedule", flow_by_month=(constant(70.0),) * 12, flow_winter=constant(70.0))
        self.assertNotIn("flow_beyond", {s.code for s in result_snags(calculate(right), {})})

    def test_resting_units_are_not_kept_warm_while_it_stands_still(self) -> None:
        idle = replace(BOILER, idle_share=0.01)
        kept = own_plant(kept_warm=True, starts_c=12.0, stops_c=14.0)
        kept = replace(kept, circuits=(kept.circuits[0], replace(kept.circuits[1], units=(idle,))))
        results = calculate(kept)
        plant, warm = results.plants["h"], results.outdoors.dry_bulb_c > 14.0
        self.assertEqual(float(plant.summer.fuel_w[0][warm].max()), 0.0)
        always_on = calculate(
            replace(kept, circuits=(kept.circuits[0], replace(kept.circuits[1], starts_c=None, stops_c=None)))
        )
        self.assertGreater(float(always_on.plants["h"].summer.fuel_w[0][warm].min()), 0.0)


class Year(unittest.TestCase):
    def year(self, of: Building, hours: YearCircuit | None = None) -> BuildingYear:
        day = YearCourse((DAY,), (0,) * 365)
        results = calculate(of)
        years = [
            YearRoom(r, (YearGain("lights", 160.0, 0.5, day),), always(20.0), always(24.0), people=day)
            for r in results.building.rooms
        ]
        told = {} if hours is None else {"h": hours}
        return building_year(results, years, YearSky.of(swinging(), CLIMATE), {}, {}, circuits=told)

    def test_hours_and_limits_over_the_year(self) -> None:
        free = self.year(own_plant())
        hours = YearCourse((OFFICE_HOURS,), (0,) * 365)
        found = self.year(own_plant(starts_c=8.0, stops_c=10.0), YearCircuit(running=hours))
        outdoor = YearSky.of(swinging(), CLIMATE).dry_bulb_c
        carried, unmet = (course["h"].astype(float) for course in (found.carried_w, found.unmet_w))
        np.testing.assert_allclose(carried + unmet, free.carried_w["h"], rtol=1e-5, atol=1e-2)
        inside = np.tile([6 <= hour < 18 for hour in range(24)], 365)
        mild = np.array(walked(outdoor, True, 8.0, 10.0))
        self.assertEqual(float(carried[~(inside & mild)].max()), 0.0)
        self.assertEqual(float(unmet[inside & mild].max()), 0.0)
        self.assertGreater(float(carried.sum()), 1e5)

    def test_a_colder_flow_by_schedule_condenses_more(self) -> None:
        def gas(of: Building, flow_c: float | None) -> float:
            told = None if flow_c is None else YearCircuit(flow_c=always(flow_c))
            found = self.year(of, told)
            return float(found.energy_w["heating", "natural gas"].sum(dtype=float))

        fixed = own_plant(flow_c=70.0, return_c=50.0)
        by_hours = own_plant(flow_c=70.0, return_c=50.0, flow_rule="schedule")
        self.assertAlmostEqual(gas(by_hours, 70.0) / gas(fixed, None), 1.0, places=6)
        self.assertLess(gas(by_hours, 50.0), gas(fixed, None) * 0.99)


class Declared(unittest.TestCase):
    def test_defaults_are_always_and_fixed(self) -> None:
        one = Circuit("x", "X", "heating", (), 60.0, 45.0)
        outdoor = np.linspace(-20.0, 40.0, 24)[None]
        self.assertTrue(runs(one, outdoor).all())
        self.assertEqual(set(flow_temperature_c(one, outdoor).ravel()), {60.0})


if __name__ == "__main__":
    unittest.main()
