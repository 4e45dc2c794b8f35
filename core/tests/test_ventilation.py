"""Outdoor air of fewer people in all than in each room, and of those who are there."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import DAY
from core.tests.test_air_system import building
from pendrum_core.air.outdoor_air import Breathing, demanded_share, simplified_efficiency, system_outdoor_air
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.results.building import BuildingResults
from pendrum_core.run import calculate
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.working.explain import explain


def peopled(**system: object) -> Building:
    """Ten people in every room, of 5 L/s, and 0.5 L/s for each of its 20 m²."""
    base = building(**system)
    unit = base.systems[0]
    terminals = tuple(
        replace(t, people=10.0, air_per_person_m3_s=0.005, air_per_area_m3_s_m2=0.0005) for t in unit.terminals
    )
    return replace(base, systems=(replace(unit, terminals=terminals),))


class Diversity(unittest.TestCase):
    def test_efficiency_of_the_simplified_procedure(self) -> None:
        """Points of 62.1-2019, 6.2.5.3.1: 0.22 + 0.88 D below D 0.60, from there on 0.75."""
        for share, want in ((0.1, 0.308), (0.5, 0.66), (0.59, 0.7392), (0.6, 0.75), (1.0, 0.75)):
            self.assertAlmostEqual(simplified_efficiency(share), want)

    def test_uncorrected_air_by_hand(self) -> None:
        """3 x (0.4 x 10 x 5 + 20 x 0.5) L/s = 90 L/s instead of 180; Xs and Ev follow, Zd stays the zones' own."""
        results = calculate(peopled(people_share=0.4))
        found, full = results.systems["s"].outdoor_air, calculate(peopled()).systems["s"].outdoor_air
        self.assertAlmostEqual(found.uncorrected_m3_s, 0.09)
        self.assertAlmostEqual(full.uncorrected_m3_s, 0.18)
        self.assertAlmostEqual(found.critical_fraction, full.critical_fraction)
        supply = sum(flow.design_m3_s for flow in results.systems["s"].airflows.values())
        want = min(1.0, 1.0 + 0.09 / supply - found.critical_fraction)
        self.assertAlmostEqual(found.efficiency, want)
        self.assertAlmostEqual(found.intake_m3_s, min(supply, 0.09 / want))
        # Every room still gets what all of its people need.
        self.assertGreaterEqual(min(f.design_m3_s for f in results.systems["s"].airflows.values()), 0.06 - 1e-9)
        tree = explain(results, "system_outdoor_air", "s")
        self.assertIn("D 0.40", str(tree.inputs))

    def test_the_sum_of_en_16798_counts_those_at_one_time(self) -> None:
        half = calculate(peopled(people_share=0.5, ventilation="sum")).systems["s"].outdoor_air
        self.assertAlmostEqual(half.intake_m3_s, 3 * (0.5 * 10 * 0.005 + 20 * 0.0005))

    def test_one_zone_and_outdoor_air_alone_know_no_diversity(self) -> None:
        zone, breathing, supply = {"a": 0.06}, {"a": 0.03}, {"a": 0.2}
        one = system_outdoor_air(breathing, zone, supply, people_share=0.5, together_m3_s=0.03)
        self.assertAlmostEqual(one.intake_m3_s, 0.06)
        alone = system_outdoor_air(breathing, zone, supply, outdoor_air_only=True, people_share=0.5, together_m3_s=0.03)
        self.assertAlmostEqual(alone.intake_m3_s, 0.06)

    def test_demand_of_one_zone_is_measured_by_all_its_people(self) -> None:
        """D stands for nothing in one zone: half of its people ask for half of their part of its own intake."""
        base = peopled(people_share=0.5, outdoor_by_people=True)
        unit = base.systems[0]
        alone = replace(base, systems=(replace(unit, terminals=unit.terminals[:1]),))
        found = calculate(alone).systems["s"]
        self.assertEqual((found.outdoor_air.rule, found.outdoor_air.people_share), ("one zone", 1.0))
        want = (10 * 0.005 * step_averages(DAY) + 20 * 0.0005) / (10 * 0.005 + 20 * 0.0005)
        taken = np.minimum(found.least_outdoor_kg_s * want, found.summer.flow_kg_s[6])
        np.testing.assert_allclose(found.summer.outdoor_kg_s[6], taken, rtol=1e-6)

    def test_schedules_that_bring_more_together_are_a_snag(self) -> None:
        """All three rooms have one schedule: all people are there at one time."""
        codes = {snag.code: snag for snag in result_snags(calculate(peopled(people_share=0.4)), {})}
        self.assertIn("40% of its people", codes["people_share_low"].sentence)
        self.assertIn("100% are there together", codes["people_share_low"].sentence)
        self.assertNotIn("people_share_low", {snag.code for snag in result_snags(calculate(peopled()), {})})


class Demand(unittest.TestCase):
    def setUp(self) -> None:
        self.results: BuildingResults = calculate(peopled(outdoor_by_people=True))

    def test_shares_by_hand(self) -> None:
        needs = {"a": Breathing(0.05, 0.01, 0.0), "b": Breathing(0.02, 0.0, 0.015)}
        nobody, half = np.zeros(1), np.full(1, 0.5)
        # Nobody: 10 + 15 L/s of 80; a half full: 25 + 10 + 15 of 80.
        self.assertAlmostEqual(float(demanded_share(needs, {"a": nobody, "b": nobody}, 1.0)[0]), 0.025 / 0.08)  # type: ignore[index]
        self.assertAlmostEqual(float(demanded_share(needs, {"a": half, "b": nobody}, 1.0)[0]), 0.05 / 0.08)  # type: ignore[index]
        self.assertEqual(demanded_share({}, {}, 1.0), 1.0)

    def test_outdoor_air_follows_the_schedule_at_every_step(self) -> None:
        unit = self.results.systems["s"]
        path = unit.summer
        present = step_averages(DAY)
        want = (10 * 0.005 * present + 20 * 0.0005) / (10 * 0.005 + 20 * 0.0005)
        taken = np.minimum(unit.least_outdoor_kg_s * want, path.flow_kg_s[6])
        np.testing.assert_allclose(path.outdoor_kg_s[6], taken, rtol=1e-6)
        self.assertLess(float(taken.min()), 0.4 * float(taken.max()))
        self.assertLess(self.results.systems["s"].balance, 1e-6)

    def test_the_winter_day_takes_all_of_it(self) -> None:
        cold, full = self.results.systems["s"].winter, calculate(peopled()).systems["s"].winter
        np.testing.assert_allclose(cold.outdoor_kg_s, full.outdoor_kg_s, rtol=1e-6)
