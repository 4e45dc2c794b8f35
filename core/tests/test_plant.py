"""Plants: sharing of loads, coincident courses, capacities; against sums by hand and laws that hold for every plant."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from core.tests.test_air_system import building
from pendrum_core.checks.results import result_snags
from pendrum_core.model.plant import CHILLER, PlantUnit
from pendrum_core.plant.staging import BEST, EQUAL, FEWEST, IN_TURN, STAGINGS, EfficiencyTable, Unit, stage
from pendrum_core.results.kit import kit_list
from pendrum_core.results.vessels import vessel_of, water_content_m3
from pendrum_core.run import calculate
from pendrum_core.water.emitters import Rated, output_factor, return_of, size_panel, size_radiator
from pendrum_core.water.vessel import size_vessel
from pendrum_core.working.explain import explain

FLAT = EfficiencyTable((0.3, 1.0), (30.0, 60.0), ((0.9, 0.9), (0.9, 0.9)))
TILTED = EfficiencyTable((0.3, 1.0), (30.0, 60.0), ((1.08, 0.98), (1.04, 0.97)))


def boiler(name: str, kilowatts: float, table: EfficiencyTable = TILTED, **more: float) -> Unit:
    return Unit(name, 1e3 * kilowatts, table, **more)


class Sharing(unittest.TestCase):
    def test_tables_by_hand(self) -> None:
        """Middle of all four corners, and held outside."""
        self.assertAlmostEqual(float(TILTED.at(0.65, 45.0)), (1.08 + 0.98 + 1.04 + 0.97) / 4.0)
        self.assertAlmostEqual(float(TILTED.at(0.1, 20.0)), 1.08)
        self.assertAlmostEqual(float(TILTED.at(2.0, 90.0)), 0.97)

    def test_each_rule_by_hand(self) -> None:
        units = [boiler("a", 100.0, FLAT), boiler("b", 50.0, FLAT)]
        for rule, want in (
            (IN_TURN, ([80.0, 100.0, 100.0, 100.0], [0.0, 20.0, 50.0, 50.0])),
            (EQUAL, ([53.333, 80.0, 100.0, 100.0], [26.667, 40.0, 50.0, 50.0])),
            (FEWEST, ([80.0, 80.0, 100.0, 100.0], [0.0, 40.0, 50.0, 50.0])),
        ):
            found = stage(units, np.array([80e3, 120e3, 150e3, 170e3]), 40.0, rule)
            np.testing.assert_allclose(found.output_w / 1e3, want, atol=1e-3)
            np.testing.assert_allclose(found.unmet_w, [0.0, 0.0, 0.0, 20e3])

    def test_cycling_below_the_least_part_load(self) -> None:
        """5 kW of 100 with a least of 20: a quarter of the time at 20 kW, three quarters at 0.5 kW of standstill loss."""
        unit = boiler("a", 100.0, FLAT, least_part=0.2, idle_share=0.005, running_w=100.0, resting_w=8.0)
        found = stage([unit], np.array([5e3]), 40.0)
        self.assertAlmostEqual(float(found.fuel_w[0, 0]), 5e3 / 0.9 + 0.75 * 500.0)
        self.assertAlmostEqual(float(found.auxiliary_w[0, 0]), 0.25 * 100.0 + 0.75 * 8.0)

    def test_best_never_takes_more_than_another_rule(self) -> None:
        units = [boiler("a", 120.0), boiler("b", 80.0, least_part=0.3, idle_share=0.01), boiler("c", 40.0, FLAT)]
        load, back = np.linspace(1e3, 240e3, 60), np.linspace(30.0, 60.0, 60)
        fuel = {rule: stage(units, load, back, rule).fuel_w.sum(axis=0) for rule in STAGINGS}
        for rule in (EQUAL, FEWEST):
            self.assertLess(float((fuel[BEST] - fuel[rule]).max()), 1e-6)

    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(st.floats(1.0, 500.0), min_size=1, max_size=5), st.lists(st.floats(0.0, 1500.0), min_size=1, max_size=12),
        st.sampled_from(STAGINGS), st.booleans(),
    )  # fmt: skip
    def test_load_is_given_or_said_to_be_missing(
        self, sizes: list[float], loads: list[float], rule: str, warm: bool
    ) -> None:
        units = [boiler(str(i), size) for i, size in enumerate(sizes)]
        load = 1e3 * np.array(loads)
        found = stage(units, load, 45.0, rule, warm)
        np.testing.assert_allclose(found.output_w.sum(axis=0) + found.unmet_w, load, rtol=1e-9, atol=1e-6)
        self.assertTrue((found.output_w <= 1e3 * np.array(sizes)[:, None] * (1 + 1e-9)).all())
        # Steps stand alone: one call for all is as one call each.
        each = [stage(units, load[k : k + 1], 45.0, rule, warm).fuel_w[:, 0] for k in range(len(loads))]
        np.testing.assert_allclose(np.stack(each, axis=1), found.fuel_w, rtol=1e-12)

    def test_what_cannot_be_is_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "1 to 8 units"):
            stage([], np.array([1.0]), 40.0)
        with self.assertRaisesRegex(ValueError, "staging"):
            stage([boiler("a", 1.0)], np.array([1.0]), 40.0, "somehow")
        with self.assertRaisesRegex(ValueError, "must rise"):
            EfficiencyTable((1.0, 0.3), (30.0, 60.0), ((1.0, 1.0), (1.0, 1.0)))


class Plants(unittest.TestCase):
    def setUp(self) -> None:
        base = building()
        chilled, heating = base.circuits
        two = tuple(PlantUnit(f"b{i}", f"Boiler {i}", "boiler", None, 0.6, 1.04, 0.97, 1.08, 0.98) for i in (1, 2))
        machine = PlantUnit("ch", "Chiller", CHILLER, 50e3, 1.0, 4.3, 2.9, 5.6, 3.6, fuel="electricity")
        self.building = replace(
            base,
            circuits=(
                replace(chilled, units=(machine,)),
                replace(
                    heating, units=two, loss_share=0.05, flow_rule="outdoors", reset_cold_c=-9.0, reset_mild_c=15.0
                ),
            ),
        )
        self.results = calculate(self.building)
        self.assertEqual(self.results.failures, ())

    def test_the_course_is_of_what_stands_on_the_circuit(self) -> None:
        plant, system = self.results.plants["h"], self.results.systems["s"]
        rooms = sum(served.heat_w for served in system.served.values())
        ends = rooms + system.winter.heating_w + system.winter.preheat_w
        np.testing.assert_allclose(plant.course.winter_ends_w, ends, rtol=1e-12)
        np.testing.assert_allclose(plant.course.winter_w, 1.05 * ends, rtol=1e-12)
        self.assertAlmostEqual(plant.capacity_w[0], 0.6 * plant.design_w)
        self.assertAlmostEqual(plant.without_largest_w, 0.6 * plant.design_w)
        np.testing.assert_allclose(self.results.plants["c"].course.summer_ends_w, system.coil_total_w, rtol=1e-12)

    def test_coincident_is_never_more_than_the_sum_of_peaks(self) -> None:
        plant, circuit = self.results.plants["h"], self.results.circuits["h"]
        self.assertLessEqual(plant.course.peak[0], 1.05 * sum(circuit.duty_w.values()) * (1 + 1e-9))

    def test_reset_and_return(self) -> None:
        """55 °C at -9 °C outdoors; on the winter day the water comes back 10 K colder at the largest load."""
        plant = self.results.plants["h"]
        np.testing.assert_allclose(plant.winter_flow_c, 55.0)
        self.assertAlmostEqual(float(plant.winter_return_c.min()), 45.0, places=6)
        mild = self.results.outdoors.dry_bulb_c
        want = np.interp(mild, [-9.0, 15.0], [55.0, 35.0])
        np.testing.assert_allclose(plant.flow_c, want)

    def test_snags(self) -> None:
        def codes(**units: object) -> set[str]:
            heating = replace(self.building.circuits[1], **units)
            results = calculate(replace(self.building, circuits=(self.building.circuits[0], heating)))
            return {snag.code for snag in result_snags(results, {})}

        one, two = self.building.circuits[1].units
        self.assertIn("largest_unit_out", codes())
        self.assertIn("shares_below_load", codes(units=(replace(one, share=0.3), replace(two, share=0.3))))
        self.assertIn("plant_short", codes(units=(replace(one, capacity_w=500.0),)))
        self.assertIn("efficiency_impossible", codes(units=(replace(one, part_cool=1.08, gross=True), two)))
        self.assertIn("vessel_impossible", codes(safety_valve_pa=1.5e5))
        self.assertNotIn("plant_short", codes())

    def test_working_ends_at_the_figures(self) -> None:
        tree = explain(self.results, "plant_load", "h")
        ends, losses, margin = (node.value or 0.0 for node in tree.inputs[:3])
        self.assertAlmostEqual(tree.value or 0.0, ends * (1 + losses) * (1 + margin), places=3)
        unit = explain(self.results, "plant_input", "b1")
        self.assertGreater(unit.value or 0.0, 0.0)
        self.assertAlmostEqual((unit.inputs[0].value or 0.0) / (unit.value or 1.0), 1.0, delta=0.12)
        vessel = explain(self.results, "expansion_vessel", "h")
        parts = {node.name: node.value or 0.0 for node in vessel.inputs}
        high, low = parts["Final pressure"] + 1e5, parts["Final pressure"] - parts["Initial pressure"]
        self.assertAlmostEqual(
            vessel.value or 0.0, (parts["Expansion volume"] + parts["Reserve"]) * high / low, places=9
        )
        rating = explain(self.results, "emitter_rating", "r0")
        self.assertAlmostEqual(rating.value or 0.0, self.results.emitters["r0"].rating_w)

    def test_kit_counts_them(self) -> None:
        items = {item.tag: item for item in kit_list(self.results)}
        self.assertAlmostEqual(items["Heating Boiler 1"].duties[0].wanted, self.results.plants["h"].capacity_w[0])
        self.assertEqual(items["Chilled Chiller"].state, "pinned")
        self.assertAlmostEqual(
            items["Heating EV"].duties[0].wanted, vessel_of(self.results, self.building.circuits[1]).volume_m3
        )

    def test_content_counts_radiators_that_are_chosen(self) -> None:
        pipes, emitters, source, buffer = water_content_m3(self.results, self.building.circuits[1])
        chosen = sum(e.chosen_w or 0.0 for e in self.results.emitters.values())
        self.assertAlmostEqual(emitters, 0.007 * chosen / 1000.0)
        self.assertGreater(pipes, 0.0)
        self.assertEqual(source, 0.05)
        self.assertEqual(buffer, 0.0)


class Panels(unittest.TestCase):
    """Radiant panels by EN 14037: 300 W/m at 55 K, n = 1.15; at 60/50 in a room of 18 °C the mean excess is 37 K."""

    def test_length_by_hand(self) -> None:
        rated = Rated(80.0, 70.0, 20.0, 1.15)
        metre = 300.0 * (37.0 / 55.0) ** 1.15
        for duty in (900.0, 2_150.0, 7_777.0):
            found = size_panel(duty, 60.0, 50.0, 18.0, rated, 300.0)
            self.assertEqual(found.rule, "arithmetic")
            assert found.length_m is not None
            self.assertAlmostEqual(found.length_m % 0.5, 0.0)
            self.assertGreaterEqual(found.length_m * metre, duty - 1e-6)
            self.assertLess((found.length_m - 0.5) * metre, duty)
        self.assertIsNone(size_panel(1e6, 60.0, 50.0, 18.0, rated, 300.0).length_m)

    def test_in_rooms_kit_and_working(self) -> None:
        base = building()
        heating = replace(
            next(c for c in base.circuits if c.kind == "heating"),
            emitters="radiant panels",
            panel_w_m=250.0,
            rated_exponent=1.15,
        )
        others = tuple(c for c in base.circuits if c.kind != "heating")
        results = calculate(replace(base, circuits=(*others, heating)))
        lines = [line for line in kit_list(results) if line.item.startswith("Radiant panels")]
        self.assertEqual(len(lines), sum(e.duty_w > 0.0 for e in results.emitters.values()))
        self.assertTrue(lines)
        for line in lines:
            emitter = results.emitters[line.owner]
            self.assertEqual((line.duties[1].wanted, line.duties[1].quantity), (emitter.length_m, "length"))
            told = explain(results, "emitter_rating", line.owner)
            self.assertIn("panels", told.name)
            self.assertIn(emitter.length_m, [node.value for node in told.inputs])


class Radiators(unittest.TestCase):
    def test_return_of_a_larger_radiator_gives_the_duty_back(self) -> None:
        for share in (0.2, 0.5, 0.9):
            back = return_of(share, 75.0, 20.0, Rated())
            self.assertAlmostEqual(output_factor(75.0, back, 20.0, 1.3, True), share, places=7)

    def test_rule_by_the_ratio(self) -> None:
        """(45 - 20)/(55 - 20) = 0.714 and (60 - 20)/(80 - 20) = 0.667."""
        self.assertEqual(size_radiator(1000.0, 55.0, 45.0, 20.0, Rated()).rule, "arithmetic")
        self.assertEqual(size_radiator(1000.0, 80.0, 60.0, 20.0, Rated()).rule, "logarithmic")

    def test_other_ratings_by_hand(self) -> None:
        """Rated 1000 W at 90/70/20, 60 K in the arithmetic mean: at 55/45/20, 30 K, half of it to the power of 1.25."""
        rated = Rated(90.0, 70.0, 20.0, 1.25)
        found = size_radiator(1000.0 * 0.5**1.25, 55.0, 45.0, 20.0, rated)
        self.assertEqual(found.rule, "arithmetic")
        self.assertAlmostEqual(found.rating_w, 1000.0, places=6)
        # The same radiator under both ratings: what it is called changes, its water does not.
        usual = size_radiator(1000.0, 75.0, 65.0, 20.0, Rated(), (1000.0,))
        self.assertAlmostEqual(usual.chosen_return_c, 65.0, delta=0.1)

    def test_ratings_of_a_circuit_reach_emitters_and_working(self) -> None:
        base = building()
        heating = replace(base.circuits[1], rated_flow_c=90.0, rated_return_c=70.0, rated_exponent=1.2)
        usual, other = calculate(base), calculate(replace(base, circuits=(base.circuits[0], heating)))
        self.assertGreater(other.emitters["r0"].rating_w, usual.emitters["r0"].rating_w)
        tree = explain(other, "emitter_rating", "r0")
        self.assertIn("90/70/20", tree.name)
        exponent = next(node for node in tree.inputs if node.name == "Exponent")
        self.assertEqual((exponent.value, exponent.ref), (1.2, "circuit/h/rated_exponent"))

    def test_vessel_refuses_a_valve_below_its_pressure(self) -> None:
        with self.assertRaisesRegex(ValueError, "leaves"):
            size_vessel(0.2, 999.8, 970.0, 2.6e5, 3.0e5)


if __name__ == "__main__":
    unittest.main()
