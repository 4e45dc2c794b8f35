"""Heat pumps and chillers by outdoors and by the temperature of their water: capacities, backup, efficiencies by hand."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.test_air_system import building
from pendrum_core.checks.results import result_snags
from pendrum_core.model.plant import BOILER, HEAT_PUMP, PlantUnit
from pendrum_core.model.systems import Circuit
from pendrum_core.plant.seasonal import season_of
from pendrum_core.plant.source import AirOutside, Course, Water, by_flow, members_of, size_plant, staged_unit
from pendrum_core.results.building import BuildingResults
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain


def pump(**more: object) -> PlantUnit:
    """COP 2.5 at -7 °C and 3.5 at 7 °C at any part load; three quarters of its output at -7 °C."""
    plain = {"capacity_w": 8000.0, "share": 1.0, "full_cool": 2.5, "full_warm": 3.5, "part_cool": 2.5, "part_warm": 3.5,
             "fuel": "electricity", "least_part": 0.0, "other_share": 0.75}  # fmt: skip
    return PlantUnit("hp", "Heat pump", HEAT_PUMP, **(plain | more))  # type: ignore[arg-type]


BACKUP = PlantUnit("el", "Element", BOILER, 4000.0, 0.0, 1.0, 1.0, 1.0, 1.0, least_part=0.0, fuel="electricity")


def circuit(*units: PlantUnit, **more: object) -> Circuit:
    return replace(building().circuits[1], units=units, **more)  # type: ignore[arg-type]


class Outputs(unittest.TestCase):
    def test_between_and_beyond_the_points_by_the_line(self) -> None:
        unit = staged_unit(pump(), 8000.0)
        want = {7.0: 8000.0, -7.0: 6000.0, 0.0: 7000.0, -14.0: 5000.0, 14.0: 9000.0}
        for outdoor, watts in want.items():
            self.assertAlmostEqual(float(unit.most_w(np.array(outdoor))), watts)
        # Far beyond, never less than three tenths.
        self.assertAlmostEqual(float(unit.most_w(np.array(-60.0))), 2400.0)

    def test_backup_gives_what_the_machine_lacks(self) -> None:
        """9 kW at -7, 0 and 7 °C outdoors: the machine gives 6, 7 and 8, the element the rest; each takes by its efficiency."""
        plant = circuit(pump(), BACKUP)
        out = np.array([[-7.0, 0.0, 7.0]])
        load = np.full((1, 3), 9000.0)
        staged, _ = members_of(plant, (8000.0, 4000.0), (0, 1)).run(
            load, AirOutside(out, out, 1e5), Water(np.full((1, 3), 35.0), np.full((1, 3), 30.0)), None
        )
        np.testing.assert_allclose(staged.output_w[0, 0], [6000.0, 7000.0, 8000.0])
        np.testing.assert_allclose(staged.output_w[1, 0], [3000.0, 2000.0, 1000.0])
        np.testing.assert_allclose(staged.fuel_w[0, 0], [6000.0 / 2.5, 7000.0 / 3.0, 8000.0 / 3.5])
        np.testing.assert_allclose(staged.unmet_w, 0.0, atol=1e-9)

    def test_a_share_is_met_where_the_load_is_largest(self) -> None:
        """Sized by its share it covers the winter day; what is bought is larger by what it loses in the cold."""
        still = np.zeros((1, 4))
        course = Course(still, np.full((1, 4), 6000.0), still, np.full((1, 4), 6000.0), still[0])
        cold, mild = (AirOutside(np.full((1, 4), t), np.full((1, 4), t), 1e5) for t in (-7.0, 15.0))
        plant = circuit(pump(capacity_w=None))
        found = size_plant(plant, plant.units, course, 0.0, mild, cold)
        self.assertAlmostEqual(found.capacity_w[0], 8000.0)
        self.assertAlmostEqual(found.working_w, 6000.0)
        np.testing.assert_allclose(found.winter.unmet_w, 0.0, atol=1e-6)

    def test_a_pinned_one_too_small_says_so(self) -> None:
        base = building()
        small = replace(base.circuits[1], units=(pump(capacity_w=500.0),))
        results: BuildingResults = calculate(replace(base, circuits=(base.circuits[0], small)))
        self.assertGreater(float(results.plants["h"].winter.unmet_w.max()), 0.0)


class Water_(unittest.TestCase):  # noqa: N801 (the class of inputs is Water)
    def test_kelvins_from_what_it_is_told_for(self) -> None:
        unit = pump(flow_share_k=0.02, told_flow_c=35.0)
        np.testing.assert_allclose(by_flow(unit, np.array([35.0, 45.0, 30.0, 95.0])), [1.0, 0.8, 1.1, 0.5])
        np.testing.assert_allclose(by_flow(BACKUP, np.array([35.0, 90.0])), 1.0)

    def test_water_that_no_line_reaches_is_a_snag(self) -> None:
        base = building()
        for share, there in ((0.02, False), (0.06, True)):
            heating = replace(base.circuits[1], units=(pump(flow_share_k=share, told_flow_c=35.0),))
            results = calculate(replace(base, circuits=(base.circuits[0], heating)))
            self.assertEqual("told_far" in {snag.code for snag in result_snags(results, {})}, there)

    def test_hotter_water_takes_more_and_working_says_why(self) -> None:
        base = building()
        taken = {}
        for share in (0.0, 0.02):
            unit = pump(capacity_w=None, flow_share_k=share, told_flow_c=35.0)
            heating = replace(base.circuits[1], units=(unit,), flow_c=55.0, return_c=45.0)
            results = calculate(replace(base, circuits=(base.circuits[0], heating)))
            taken[share] = float(results.plants["h"].winter.fuel_w.max())
            tree = explain(results, "plant_input", "hp")
            names = {node.name: node.value for node in tree.inputs}
            self.assertEqual("What its water makes of it" in names, share > 0.0)
            if share:
                self.assertAlmostEqual(names["What its water makes of it"] or 0.0, 1.0 - 0.02 * 20.0)
        self.assertAlmostEqual(taken[0.02], taken[0.0] / 0.6, delta=1e-6 * taken[0.02])

    def test_a_season_asks_no_more_than_the_machine_gives_at_design(self) -> None:
        season = season_of(pump(), 8000.0)
        assert season is not None
        self.assertTrue((season.output_w <= season.load_w + 1e-9).all())
        at_design = float(season.load_w[season.outdoor_c == -10.0][0])
        self.assertAlmostEqual(at_design, 8000.0 * (0.75 - 3.0 / 14.0 * 0.25))
