"""Ways of sizing ducts, leakage by class and heat gain, against recomputation by other means."""

import unittest
from math import exp, log, pi, sqrt
from typing import Any

from scipy.optimize import brentq

from pendrum_core.duct.methods import (
    CONSTANT_VELOCITY,
    LEAK_CLASSES,
    STATIC_REGAIN,
    DuctRules,
    gains_w_k,
    loss_per_length_w_mk,
)
from pendrum_core.duct.network import DuctResult, air, size_tree
from pendrum_core.duct.shapes import ROUND_SIZES_M, rectangular_shape, round_shape
from pendrum_core.model.systems import Section
from pendrum_core.network.tree import build_tree

FLUID = air(16.0, 101_325.0)
ROUGH = 9e-5
FLOWS = {"a": 0.25, "b": 0.20, "c": 0.35, "d": 0.15}


def section(identity: str, parent: str | None, end: str | None, length: float, c: float = 0.3, **more: Any) -> Section:
    fields: dict[str, Any] = {"id": identity, "name": identity, "parent": parent, "end": end, "length_m": length, "loss_coefficient": c}  # fmt: skip
    return Section(**(fields | more))


TREE = (
    section("main", None, None, 12.0, end_drop_pa=0.0),
    section("mid", "main", None, 9.0),
    section("far", "mid", None, 7.0),
    section("A", "main", "a", 4.0, 0.8, end_drop_pa=25.0),
    section("B", "mid", "b", 4.0, 0.8, end_drop_pa=25.0),
    section("C", "far", "c", 6.0, 0.6, end_drop_pa=25.0),
    section("D", "far", "d", 5.0, 0.8, end_drop_pa=25.0),
)


def friction_pa_m(flow: float, diameter: float) -> tuple[float, float]:
    """Rate by Colebrook, solved by bracketing, and dynamic pressure."""
    speed = flow / (pi * diameter**2 / 4.0)
    reynolds = FLUID.density_kg_m3 * speed * diameter / FLUID.viscosity_pa_s
    factor = brentq(
        lambda f: 1.0 / sqrt(f) + 2.0 * log(ROUGH / diameter / 3.7 + 2.51 / (reynolds * sqrt(f)), 10), 1e-3, 1.0
    )
    dynamic = FLUID.density_kg_m3 * speed**2 / 2.0
    return factor * dynamic / diameter, dynamic


class Methods(unittest.TestCase):
    def sized(self, **rules: Any) -> DuctResult:
        return size_tree(TREE, FLOWS, FLUID, DuctRules(**rules))

    def test_static_regain(self) -> None:
        """The fall of dynamic pressure covers the loss; one size smaller it does not; nothing grows downstream."""
        found = self.sized(method=STATIC_REGAIN, velocity_limit_m_s=9.0).sections
        by_id = {s.id: s for s in TREE}
        regained = 0
        for one in TREE:
            if one.parent is None:
                continue
            above, here = found[one.parent], found[one.id]
            self.assertLessEqual(here.diameter_m, above.diameter_m)
            if here.diameter_m == above.diameter_m and not here.within_limits:
                continue  # nothing up to the one before was enough
            regained += 1
            before = friction_pa_m(above.flow_m3_s, above.diameter_m)[1]

            def falls(diameter: float, of: Any = one, flow: float = here.flow_m3_s, p: float = before) -> float:
                rate, dynamic = friction_pa_m(flow, diameter)
                return p - dynamic - rate * by_id[of.id].length_m - by_id[of.id].loss_coefficient * dynamic

            self.assertGreaterEqual(falls(here.diameter_m), -1e-3, one.id)
            smaller = ROUND_SIZES_M[ROUND_SIZES_M.index(here.diameter_m) - 1]
            self.assertLess(falls(smaller), 0.0, one.id)
        self.assertGreaterEqual(regained, 3)

    def test_constant_velocity(self) -> None:
        for one in self.sized(
            method=CONSTANT_VELOCITY, velocity_limit_m_s=6.0, friction_limit_pa_m=0.01
        ).sections.values():
            self.assertLessEqual(one.friction.velocity_m_s, 6.0)
            smaller = ROUND_SIZES_M[ROUND_SIZES_M.index(one.diameter_m) - 1]
            self.assertGreater(one.flow_m3_s / (pi * smaller**2 / 4.0), 6.0)

    def test_unknown_names_are_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "sized by"):
            self.sized(method="by eye")
        with self.assertRaisesRegex(ValueError, "class A, B, C, D"):
            self.sized(leak_class="E")


class Leakage(unittest.TestCase):
    def test_along_one_duct(self) -> None:
        """Marched in a thousand slices: pressure falls by friction, flow by what leaks from each slice."""
        duct = section("x", None, "a", 30.0, 0.0, end_drop_pa=250.0, pinned_diameter_m=0.4)
        for name in "ABC":
            found = size_tree((duct,), {"a": 0.6}, FLUID, DuctRules(leak_class=name))
            slices, step = 1000, 30.0 / 1000
            flow, pressure, lost = 0.6, 250.0, 0.0
            for _ in range(slices):  # from the end back to the unit
                rate, dynamic = friction_pa_m(flow, 0.4)
                leak = LEAK_CLASSES[name] * max(0.0, pressure - dynamic) ** 0.65 * pi * 0.4 * step
                flow, pressure, lost = flow + leak, pressure + rate * step, lost + leak
            self.assertAlmostEqual(found.leak_share, lost / flow, delta=0.02 * lost / flow)
            self.assertAlmostEqual(found.sections["x"].flow_m3_s, flow, delta=0.02 * lost)

    def test_a_section_carries_what_leaks_beyond_it(self) -> None:
        found = size_tree(TREE, FLOWS, FLUID, DuctRules(leak_class="A"))
        flow = {identity: one.flow_m3_s for identity, one in found.sections.items()}
        self.assertGreater(flow["C"], 0.35)
        self.assertGreater(flow["far"], flow["C"] + flow["D"])
        self.assertAlmostEqual(found.leak_share, 1.0 - sum(FLOWS.values()) / flow["main"], places=9)
        tight = size_tree(TREE, FLOWS, FLUID, DuctRules(leak_class="D"))
        self.assertAlmostEqual(found.leak_share / tight.leak_share, 27.0, delta=2.0)
        self.assertEqual(size_tree(TREE, FLOWS, FLUID, DuctRules()).leak_share, 0.0)


class Gain(unittest.TestCase):
    def test_films_and_insulation(self) -> None:
        """By hand: round 0.4 m with 30 mm; flat sheet where the insulation is thin against the duct."""
        r = 1 / (pi * 0.4 * 25.0) + log(0.46 / 0.4) / (2 * pi * 0.037) + 1 / (pi * 0.46 * 8.0)
        self.assertAlmostEqual(loss_per_length_w_mk(round_shape(0.4), 0.03), 1 / r, places=9)
        flat = loss_per_length_w_mk(rectangular_shape(2.0, 2.0), 0.01)
        self.assertAlmostEqual(flat / 8.0, 1 / (1 / 25 + 0.01 / 0.037 + 1 / 8), delta=0.02)
        bare = loss_per_length_w_mk(round_shape(0.4), 0.0)
        self.assertAlmostEqual(bare, pi * 0.4 / (1 / 25 + 1 / 8), places=9)

    def test_two_branches_warm_by_their_own_length(self) -> None:
        """By exponentials along each path; the UA of each way gives the same."""
        sections = {s.id: s for s in (section("m", None, None, 10.0), section("p", "m", "a", 5.0), section("q", "m", "b", 40.0))}  # fmt: skip
        tree = build_tree({i: s.parent for i, s in sections.items()})
        shapes, flows, heat = dict.fromkeys(sections, round_shape(0.25)), {"m": 0.5, "p": 0.3, "q": 0.2}, 1210.0
        u = loss_per_length_w_mk(round_shape(0.25), 0.02)
        main = exp(-u * 10 / (0.5 * heat))
        found = gains_w_k(tree, sections, shapes, flows, heat, 0.02)
        self.assertAlmostEqual(exp(-found["a"] / (0.3 * heat)), main * exp(-u * 5 / (0.3 * heat)), places=12)
        self.assertAlmostEqual(exp(-found["b"] / (0.2 * heat)), main * exp(-u * 40 / (0.2 * heat)), places=12)
        self.assertGreater(found["b"] / 0.2, found["a"] / 0.3)
        tree_of = size_tree(TREE, FLOWS, FLUID, DuctRules(insulation_m=0.03))
        self.assertGreater(min(tree_of.gains_w_k.values()), 0.0)
        round_ones = [s for s in tree_of.sections.values() if s.shape.kind == "round"]
        self.assertEqual(len(round_ones), len(tree_of.sections))
        by_hand = sum(pi * (s.diameter_m + 0.06) * next(t.length_m for t in TREE if t.id == s.id) for s in round_ones)
        self.assertAlmostEqual(tree_of.insulation_m2, by_hand)
