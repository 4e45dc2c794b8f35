"""Flows at one time in pipes, several ways to one end, another pump of the same duty: by sums over steps by hand."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.test_air_system import building
from core.tests.test_heat_sources import year_of
from core.tests.test_reverse import DUTIES, circuit
from pendrum_core.checks.results import result_snags
from pendrum_core.duct.methods import DuctRules
from pendrum_core.duct.network import air, size_tree
from pendrum_core.model.systems import Section
from pendrum_core.network.ends import missing_shares, shares_of_ends
from pendrum_core.run import calculate
from pendrum_core.water.network import size_circuit, water_flow_m3_s
from pendrum_core.water.pump import other_pump
from pendrum_core.working.explain import explain

# What three ends ask at four steps: each has its own largest at another one.
COURSES = {
    "ea": np.array([2000.0, 500.0, 0.0, 1000.0]),
    "eb": np.array([0.0, 1000.0, 500.0, 1000.0]),
    "ec": np.array([0.0, 1500.0, 3000.0, 1000.0]),
}


def flow(watts: float) -> float:
    return water_flow_m3_s(watts, 70.0, 50.0)


class AtOneTime(unittest.TestCase):
    def test_pipes_carry_the_largest_sum_of_a_step_where_flow_is_variable(self) -> None:
        found = size_circuit(circuit(water_flow="variable"), DUTIES, courses=COURSES)
        carried = {name: section.flow_m3_s for name, section in found.sections.items()}
        # Sums of all three by step: 2000, 3000, 3500, 3000; of the last two: 0, 2500, 3500, 2000.
        expected = {"m1": 3500.0, "m2": 3500.0, "m3": 3000.0, "a": 2000.0, "b": 1000.0, "c": 3000.0}
        for name, watts in expected.items():
            self.assertAlmostEqual(carried[name], flow(watts), places=12, msg=name)
        self.assertAlmostEqual(found.pump.flow_m3_s, flow(3500.0), places=12)
        self.assertAlmostEqual(found.pump.diversity, 3500.0 / 6000.0)

    def test_at_constant_flow_and_without_courses_all_of_it(self) -> None:
        for of, courses in ((circuit(), COURSES), (circuit(water_flow="variable"), None)):
            found = size_circuit(of, DUTIES, courses=courses)
            self.assertAlmostEqual(found.pump.flow_m3_s, flow(6000.0), places=12)
            self.assertEqual(found.pump.diversity, 1.0)

    def test_a_diversity_that_is_entered_counts_before_both(self) -> None:
        found = size_circuit(circuit(diversity=0.8, water_flow="variable"), DUTIES, courses=COURSES)
        self.assertAlmostEqual(found.pump.flow_m3_s, flow(4800.0), places=12)
        # Beyond the second joint 80 % of 4000 W; but no pipe carries less than one end alone takes.
        self.assertAlmostEqual(found.sections["m2"].flow_m3_s, flow(3200.0), places=12)
        least = size_circuit(circuit(diversity=0.2), DUTIES)
        self.assertAlmostEqual(least.pump.flow_m3_s, flow(3000.0), places=12)

    def test_mains_of_several_roots_meet_in_the_pump(self) -> None:
        ways = (Section("x", "X", None, 5.0, 0.0, end="ea"), Section("y", "Y", None, 5.0, 0.0, end="ec"))
        found = size_circuit(circuit(*ways, water_flow="variable"), DUTIES, courses=COURSES)
        self.assertAlmostEqual(found.pump.flow_m3_s, flow(3000.0), places=12)

    def test_a_whole_building_by_its_own_courses(self) -> None:
        base = building()
        chilled, heating = base.circuits
        results = calculate(replace(base, circuits=(chilled, replace(heating, water_flow="variable"))))
        for identity in ("c", "h"):
            found, course = results.circuits[identity], results.courses[identity]
            most = max(float(course.summer_ends_w.max()), float(course.winter_ends_w.max()))
            own = sum(found.duty_w.values())
            # The ends of the demo's heating ask their most on the winter day together.
            self.assertAlmostEqual(found.pump.diversity, min(1.0, most / own), delta=0.02, msg=identity)
        tree = explain(results, "pump_power", "h")
        flows = next(node for node in tree.inputs if node.name == "Flow")
        self.assertAlmostEqual(flows.inputs[0].value or 0.0, results.circuits["h"].pump.diversity)


class SeveralWays(unittest.TestCase):
    def test_two_pipes_to_one_end_share_what_it_takes(self) -> None:
        ways = (
            Section("m", "M", None, 5.0, 0.0),
            Section("x", "X", "m", 5.0, 0.0, end="ea"),
            Section("y", "Y", "m", 5.0, 0.0, end="ea"),
            Section("z", "Z", "m", 5.0, 0.0, end="eb"),
        )
        found = size_circuit(circuit(*ways), DUTIES)
        self.assertAlmostEqual(found.sections["m"].flow_m3_s, flow(3000.0), places=12)
        self.assertAlmostEqual(found.sections["x"].flow_m3_s, flow(1000.0), places=12)
        told = tuple(replace(way, end_share=0.75) if way.id == "x" else way for way in ways)
        found = size_circuit(circuit(*told), DUTIES)
        self.assertAlmostEqual(found.sections["x"].flow_m3_s, flow(1500.0), places=12)
        self.assertAlmostEqual(found.sections["y"].flow_m3_s, flow(500.0), places=12)
        self.assertAlmostEqual(found.pump.flow_m3_s, flow(3000.0), places=12)

    def test_two_branches_to_one_room_share_its_air(self) -> None:
        ways = (
            Section("m", "M", None, 5.0, 0.0),
            Section("x", "X", "m", 5.0, 0.0, end="r", end_share=0.4),
            Section("y", "Y", "m", 5.0, 0.0, end="r"),
        )
        for courses in (None, {"r": np.array([0.1, 0.5])}):
            found = size_tree(ways, {"r": 0.5}, air(20.0, 101325.0), DuctRules(), courses_m3_s=courses)
            got = {name: section.flow_m3_s for name, section in found.sections.items()}
            self.assertAlmostEqual(got["m"], 0.5)
            self.assertAlmostEqual(got["x"], 0.2)
            self.assertAlmostEqual(got["y"], 0.3)

    def test_shares_that_miss_the_whole_count_in_proportion_and_are_told(self) -> None:
        def ways(*shares: float | None) -> tuple[Section, ...]:
            return tuple(
                Section(str(n), "S", None, 1.0, 0.0, end="e", end_share=share) for n, share in enumerate(shares)
            )

        self.assertEqual(list(shares_of_ends(ways(0.3, 0.3)).values()), [0.5, 0.5])
        self.assertEqual(dict(missing_shares(ways(0.3, 0.3))), {"e": 0.6})
        self.assertEqual(list(shares_of_ends(ways(1.5, None)).values()), [1.0, 0.0])
        self.assertEqual(dict(missing_shares(ways(1.5, None))), {"e": 1.5})
        self.assertEqual(dict(missing_shares(ways(0.3, None))), {})
        base = building()
        chilled, heating = base.circuits
        end = next(section for section in heating.sections if section.end)
        twice = (*heating.sections, replace(end, id="again", end_share=0.2))
        twice = tuple(replace(one, end_share=0.2) if one.id == end.id else one for one in twice)
        results = calculate(replace(base, circuits=(chilled, replace(heating, sections=twice))))
        (snag,) = (snag for snag in result_snags(results, {}) if snag.code == "end_shares")
        self.assertIn("40%", snag.sentence)


class AnotherPump(unittest.TestCase):
    def test_what_it_takes_and_saves_at_the_duty_and_over_the_year(self) -> None:
        base = building()
        chilled, heating = base.circuits
        of = replace(
            base,
            circuits=(
                chilled,
                replace(
                    heating,
                    pump_efficiency=0.5,
                    motor_efficiency=0.8,
                    other_pump_efficiency=0.7,
                    other_motor_efficiency=0.9,
                ),
            ),
        )
        results, year = year_of(of)
        pump = results.circuits["h"].pump
        other = other_pump(results.building.circuits[1], pump)
        assert other is not None
        self.assertAlmostEqual(other.electrical_w, pump.flow_m3_s * pump.head_pa / (0.7 * 0.9))
        self.assertAlmostEqual(pump.electrical_w / other.electrical_w, 0.63 / 0.40)
        saved = explain(results, "pump_saving", "h")
        self.assertAlmostEqual(saved.value or 0.0, pump.electrical_w - other.electrical_w)
        ours, others = year.pumps_w["h"]
        assert others is not None
        # The same control and flow: it takes the same share at every hour.
        self.assertGreater(float(ours.sum()), 0.0)
        np.testing.assert_allclose(others, ours * 0.40 / 0.63, rtol=1e-5)
        self.assertIsNone(year.pumps_w["c"][1])

    def test_its_control_counts_at_part_load(self) -> None:
        of = circuit(water_flow="variable", other_pump_control="constant pressure")
        found = size_circuit(of, DUTIES)
        other = other_pump(of, found.pump)
        assert other is not None
        self.assertEqual(other.electrical_w, found.pump.electrical_w)
        self.assertEqual((other.control, found.pump.control), ("constant pressure", "constant speed"))
        with self.assertRaises(ValueError):
            other_pump(replace(of, other_pump_control="by hand"), found.pump)
        with self.assertRaises(KeyError):
            explain(calculate(building()), "pump_saving", "h")
