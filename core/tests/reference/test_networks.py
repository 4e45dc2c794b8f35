"""Duct tree, emitters and pipes against closed forms, explicit networks and the fluids library."""

import unittest

import numpy as np
from CoolProp.CoolProp import PropsSI
from fluids.friction import friction_factor

from pendrum_core.duct.methods import DuctRules
from pendrum_core.duct.network import air, section_loss, size_tree
from pendrum_core.duct.shapes import ROUND_SIZES_M, Shape, chosen_shape, rectangular_shape, round_shape
from pendrum_core.model.systems import Circuit, Section
from pendrum_core.network.friction import Fluid, friction, round_area_m2
from pendrum_core.network.tree import TreeError, build_tree, path_losses, sum_upwards
from pendrum_core.plant.motors import next_motor_w
from pendrum_core.proof.cases import load_case
from pendrum_core.water.emitters import Rated, output_factor, size_radiator
from pendrum_core.water.network import size_circuit, water_flow_m3_s
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk, viscosity_pa_s


class NineSections(unittest.TestCase):
    """Sizes given: losses, index run, balancing and fan."""

    def test_losses_paths_and_fan(self) -> None:
        case = load_case("duct_tree_nine_sections")
        inputs, expected = case["inputs"], case["expected"]
        fluid = Fluid(inputs["air_density_kg_m3"], inputs["air_viscosity_Pa_s"])
        tree = build_tree({s["id"]: s["parent"] for s in inputs["sections"]})
        flows = sum_upwards(tree, {s["id"]: s.get("terminal_flow_m3_s", 0.0) for s in inputs["sections"]})
        losses = {}
        for s in inputs["sections"]:
            shape = (
                round_shape(s["diameter_m"])
                if s["shape"] == "round"
                else rectangular_shape(s["width_m"], s["height_m"])
            )
            section = Section(
                s["id"], s["id"], s["parent"], s["length_m"], s["C"], s["component_drop_Pa"], None,
                s.get("terminal_drop_Pa", 0.0),
            )  # fmt: skip
            straight, _, _, losses[s["id"]] = section_loss(section, flows[s["id"]], shape, inputs["roughness_m"], fluid)
            want = expected["sections"][s["id"]]
            self.assertAlmostEqual(flows[s["id"]], want["flow_m3_s"], places=9)
            self.assertAlmostEqual(straight.factor / want["friction_factor"], 1.0, delta=0.001)
            self.assertAlmostEqual(losses[s["id"]] / want["section_loss_Pa"], 1.0, delta=0.01)
        paths = path_losses(tree, losses, list(expected["terminals"]))
        self.assertEqual(paths.index, expected["index_terminal"])
        for end, want in expected["terminals"].items():
            self.assertEqual(list(tree.path(end)), want["path"])
            self.assertAlmostEqual(paths.loss_pa[end] / want["path_loss_Pa"], 1.0, delta=0.01)
            self.assertLess(abs(paths.balancing_pa[end] - want["balancing_loss_Pa"]), 0.01 * paths.index_loss_pa)
        fan = expected["fan"]
        self.assertAlmostEqual(paths.index_loss_pa / fan["fan_total_pressure_Pa"], 1.0, delta=0.01)

    def test_friction_factor_is_the_librarys_colebrook(self) -> None:
        found = friction(0.3, round_area_m2(0.315), 0.315, 9e-5, air(15.0, 101_325.0))
        want = friction_factor(Re=found.reynolds, eD=9e-5 / 0.315, Method="Colebrook")
        self.assertAlmostEqual(found.factor / want, 1.0, delta=0.001)


class SizedTree(unittest.TestCase):
    SECTIONS = (
        Section("main", "main", None, 10.0, 0.3),
        Section("a", "a", "main", 8.0, 1.0, end="ra", end_drop_pa=30.0),
        Section("b", "b", "main", 15.0, 1.2, end="rb", end_drop_pa=30.0),
    )

    def size(self, limit: float = 0.8):
        return size_tree(
            self.SECTIONS,
            {"ra": 0.2, "rb": 0.35},
            air(14.0, 99_000.0),
            DuctRules(friction_limit_pa_m=limit, velocity_limit_m_s=6.0),
            300.0,
            8.0,
        )

    def test_smallest_size_within_both_limits(self) -> None:
        result = self.size()
        for section in result.sections.values():
            self.assertTrue(section.within_limits)
            smaller = ROUND_SIZES_M[ROUND_SIZES_M.index(section.diameter_m) - 1]
            below = friction(section.flow_m3_s, round_area_m2(smaller), smaller, 9e-5, result.fluid)
            self.assertTrue(below.rate_pa_m > 0.8 or below.velocity_m_s > 6.0, section.id)

    def test_mass_and_pressure_add_up(self) -> None:
        result = self.size()
        self.assertEqual(result.sections["main"].flow_m3_s, 0.2 + 0.35)
        index = result.sections["main"].loss_pa + max(result.sections[s].loss_pa for s in "ab")
        self.assertAlmostEqual(result.fan_total_pa, index + 300.0)
        dynamic = result.fluid.density_kg_m3 * 32.0
        self.assertAlmostEqual(result.fan_static_pa, result.fan_total_pa - dynamic)

    def test_a_tighter_limit_never_gives_smaller_ducts(self) -> None:
        wide, tight = self.size(1.2), self.size(0.4)
        for key, section in wide.sections.items():
            self.assertGreaterEqual(tight.sections[key].diameter_m, section.diameter_m)

    def test_what_is_no_tree_is_refused(self) -> None:
        with self.assertRaisesRegex(TreeError, "circle"):
            build_tree({"a": "b", "b": "a"})
        with self.assertRaisesRegex(TreeError, "not there"):
            build_tree({"a": "x"})


class Water(unittest.TestCase):
    def test_properties_against_another_library(self) -> None:
        for t in (5.0, 10.0, 40.0, 50.0, 75.0):
            kelvin = t + 273.15
            self.assertAlmostEqual(density_kg_m3(t) / PropsSI("D", "T", kelvin, "P", 1e5, "Water"), 1.0, delta=2e-4)
            self.assertAlmostEqual(viscosity_pa_s(t) / PropsSI("V", "T", kelvin, "P", 1e5, "Water"), 1.0, delta=0.01)
            self.assertAlmostEqual(
                specific_heat_j_kgk(t) / PropsSI("C", "T", kelvin, "P", 1e5, "Water"), 1.0, delta=1e-3
            )
        with self.assertRaisesRegex(ValueError, "120"):
            density_kg_m3(120.0)

    def test_radiators(self) -> None:
        case = load_case("radiator_conversion_and_vessel")
        for want in case["expected"]["operating_points"]:
            args = (want["flow_C"], want["return_C"], want["room_C"], 1.3)
            self.assertAlmostEqual(
                1000 * output_factor(*args, True) / want["output_W_log_with_dTn_49_83"], 1.0, delta=0.002
            )
            self.assertAlmostEqual(
                1000 * output_factor(*args) / want["output_W_arithmetic_with_dTn_50"], 1.0, delta=0.002
            )
            rating = size_radiator(1000.0, *args[:3], Rated()).logarithmic_w
            self.assertAlmostEqual(rating / want["rating_needed_for_1000_W_log"], 1.0, delta=0.002)
        with self.assertRaisesRegex(ValueError, "fall in this order"):
            output_factor(40.0, 45.0, 20.0, 1.3)

    def test_circuit_by_hand(self) -> None:
        sections = (
            Section("m", "main", None, 12.0, 4.0),
            Section("a", "a", "m", 6.0, 5.0, end="ra", end_drop_pa=3000.0),
            Section("b", "b", "m", 9.0, 5.0, end="rb", end_drop_pa=3000.0),
        )
        circuit = Circuit("c", "c", "heating", sections, 55.0, 45.0)
        result = size_circuit(circuit, {"ra": 4000.0, "rb": 7000.0})
        # 11 kW over 10 K: rho and c of water at 50 °C are 988.0 kg/m3 and 4181.5 J/kgK (IAPWS).
        self.assertAlmostEqual(result.pump.flow_m3_s, 11_000 / (988.04 * 4181.5 * 10), delta=1e-7)
        self.assertAlmostEqual(water_flow_m3_s(11_000, 55.0, 45.0), result.pump.flow_m3_s, places=12)
        for section in sections:
            found = result.sections[section.id]
            f = friction_factor(Re=found.friction.reynolds, eD=4.5e-5 / found.diameter_m, Method="Colebrook")
            dynamic = 988.04 / 2 * found.friction.velocity_m_s**2
            loss = 2 * section.length_m * f / found.diameter_m * dynamic + section.loss_coefficient * dynamic
            self.assertAlmostEqual(found.loss_pa / (loss + section.end_drop_pa), 1.0, delta=0.002)
        index = result.sections["m"].loss_pa + max(result.sections[s].loss_pa for s in "ab")
        self.assertAlmostEqual(result.pump.head_pa, (index + 15_000) * 1.1, places=6)


class Motors(unittest.TestCase):
    def test_next_size(self) -> None:
        self.assertEqual(next_motor_w(1_900.0, 0.15), 2_200.0)
        self.assertEqual(next_motor_w(2_000.0, 0.15), 3_000.0)
        self.assertIsNone(next_motor_w(400_000.0, 0.0))


class Shapes(unittest.TestCase):
    FLUID = Fluid(1.2, 1.8e-5)

    def test_every_choice_is_the_least_perimeter_by_search(self) -> None:
        """All standard sizes tried one by one, for many flows and heights."""
        from pendrum_core.duct.shapes import OVAL_HEIGHTS_M, OVAL_WIDTHS_M, RECTANGULAR_SIDES_M

        for kind, widths, heights in (
            ("rectangular", RECTANGULAR_SIDES_M, RECTANGULAR_SIDES_M),
            ("flat oval", OVAL_WIDTHS_M, OVAL_HEIGHTS_M),
        ):
            for flow in (0.05, 0.2, 0.6, 1.1):
                for limit in (0.15, 0.3, None):
                    good = []
                    for width in widths:
                        for height in heights:
                            if width < height or (limit and height > limit):
                                continue
                            shape = Shape(kind, width, height)
                            found = friction(flow, shape.area_m2, shape.hydraulic_diameter_m, 9e-5, self.FLUID)
                            if found.rate_pa_m <= 0.8 and found.velocity_m_s <= 6.0:
                                good.append((round(shape.perimeter_m, 9), -height, width))
                    shape, within = chosen_shape(kind, limit, flow, 9e-5, self.FLUID, 0.8, 6.0)
                    self.assertEqual(within, bool(good), (kind, flow, limit))
                    if good:
                        self.assertEqual((shape.width_m, -shape.height_m), (min(good)[2], min(good)[1]))

    def test_areas_by_hand(self) -> None:
        oval = Shape("flat oval", 0.55, 0.25)
        self.assertAlmostEqual(oval.area_m2, np.pi * 0.25**2 / 4 + 0.25 * 0.3)
        self.assertAlmostEqual(oval.perimeter_m, np.pi * 0.25 + 2 * 0.3)
        self.assertAlmostEqual(
            rectangular_shape(0.6, 0.3).equivalent_diameter_m, 0.4566, places=3
        )  # 1.30 x 0.18^.625 / 0.9^.25

    def test_pins_and_limits(self) -> None:
        pinned = Section(
            "a", "A", None, 10.0, 0.5, end="r", shape="rectangular", pinned_width_m=0.2, pinned_height_m=0.4
        )
        found = size_tree((pinned,), {"r": 0.3}, self.FLUID, DuctRules(velocity_limit_m_s=6.0), 0.0, 8.0).sections["a"]
        self.assertEqual((found.shape.size, found.sized), ("400 × 200", False))
        self.assertAlmostEqual(found.sheet_m2, 2 * (0.4 + 0.2) * 10.0)
        self.assertAlmostEqual(found.sheet_kg, 12.0 * 0.0006 * 7850.0)
        with self.assertRaises(ValueError):
            chosen_shape("rectangular", 0.05, 0.3, 9e-5, self.FLUID, 0.8, 6.0)
        with self.assertRaises(ValueError):
            chosen_shape("triangular", None, 0.3, 9e-5, self.FLUID, 0.8, 6.0)
