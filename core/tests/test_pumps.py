"""Pumps: heads, pins, control at part load, motors; against recomputation by other means."""

import unittest
from typing import Any

import numpy as np
from scipy.optimize import brentq

from pendrum_core.model.systems import Circuit
from pendrum_core.plant.motors import MOTOR_CLASSES, motor_efficiency
from pendrum_core.water.pump import (
    CONTROLS,
    NO_FLOW_HEAD,
    PumpResult,
    curve_head,
    electrical_w,
    held_head,
    part_loads,
    shaft_share,
    size_pump,
)

FLOW, INDEX = 0.004, 45_000.0


def pump(**more: Any) -> PumpResult:
    fields: dict[str, Any] = {"kind": "heating", "flow_c": 55.0, "return_c": 45.0, "source_drop_pa": 15_000.0, "pump_margin": 0.1}  # fmt: skip
    return size_pump(Circuit("c", "c", sections=(), **(fields | more)), FLOW, INDEX)


class Heads(unittest.TestCase):
    def test_calculated_and_pinned(self) -> None:
        free, pinned = pump(), pump(pinned_head_pa=100_000.0)
        self.assertAlmostEqual(free.head_pa, 60_000.0 * 1.1)
        self.assertAlmostEqual(free.hydraulic_w, 0.004 * 66_000.0)
        self.assertEqual((pinned.head_pa, pinned.calculated_head_pa), (100_000.0, free.head_pa))
        self.assertAlmostEqual(pinned.shaft_w / free.shaft_w, 100.0 / 66.0)

    def test_unthrottled_flow_is_where_both_curves_meet(self) -> None:
        for head in (40_000.0, 66_000.0, 100_000.0):
            found = pump(pinned_head_pa=head)
            meets = brentq(lambda q, h=head: h * (1.25 - 0.25 * q * q) - 60_000.0 * q * q, 0.1, 2.2)
            self.assertAlmostEqual(found.open_share, meets, places=9)
        self.assertLess(pump(pinned_head_pa=40_000.0).open_share, 1.0)

    def test_several_pumps_share_the_flow_and_have_smaller_motors(self) -> None:
        one, three = pump(), pump(pump_count=3, pump_standby=1)
        self.assertAlmostEqual(one.shaft_w, three.shaft_w)
        self.assertEqual((three.count, three.standby), (3, 1))
        assert one.motor_w is not None and three.motor_w is not None
        self.assertLess(three.motor_w, one.motor_w)
        self.assertGreaterEqual(three.motor_w, one.shaft_w / 3.0 * 1.15)


class Control(unittest.TestCase):
    def speed_by_search(self, control: str, share: float) -> float:
        """Speed at which the pump's curve, moved by the affinity laws, passes through the held head."""
        head = float(held_head(control, np.array([share]))[0])
        return float(
            brentq(lambda n: n * n * float(curve_head(np.array([share / n]))[0]) - head, share * 0.5 + 1e-6, 1.5)
        )

    def test_power_by_the_affinity_laws(self) -> None:
        """Hydraulic power over the efficiency at the point that the speed makes of it, found by search."""
        for control in CONTROLS:
            for share in (0.1, 0.25, 0.5, 0.8, 1.0):
                at = share / self.speed_by_search(control, share)
                efficiency = 2.0 * at - at * at
                head = float(held_head(control, np.array([share]))[0])
                self.assertAlmostEqual(
                    float(shaft_share(control, np.array([share]))[0]), share * head / efficiency, places=9
                )

    def test_less_is_held_less_is_taken(self) -> None:
        shares = np.linspace(0.0, 1.0, 21)
        constant, even, proportional = (shaft_share(control, shares) for control in CONTROLS)
        self.assertTrue((constant[:-1] > even[:-1]).all())
        self.assertTrue((even[:-1] > proportional[:-1]).all())
        for powers in (constant, even, proportional):
            self.assertAlmostEqual(powers[-1], 1.0)
            self.assertTrue((np.diff(powers) > 0.0).all())
        self.assertAlmostEqual(constant[0], NO_FLOW_HEAD / 2.0)
        with self.assertRaisesRegex(ValueError, "none of"):
            held_head("by hand", shares)

    def test_part_loads_hang_together(self) -> None:
        found = pump(pump_control="proportional pressure", motor_class="IE3")
        for point in part_loads(found):
            self.assertAlmostEqual(point.hydraulic_w, point.share * FLOW * point.head_pa)
            self.assertAlmostEqual(point.shaft_w, point.hydraulic_w / point.efficiency)
            self.assertAlmostEqual(point.electrical_w, point.shaft_w / found.motor_efficiency)
        self.assertAlmostEqual(part_loads(found)[0].head_pa, found.head_pa * 0.625)
        self.assertAlmostEqual(float(electrical_w(found, np.ones(1))[0]), found.electrical_w)


class Motors(unittest.TestCase):
    def test_classes_stand_in_order(self) -> None:
        for lower, higher in (("IE2", "IE3"), ("IE3", "IE4")):
            for a, b in zip(MOTOR_CLASSES[lower], MOTOR_CLASSES[higher], strict=True):
                self.assertLess(a, b)
        for row in MOTOR_CLASSES.values():
            self.assertEqual(list(row), sorted(row))

    def test_printed_values(self) -> None:
        """IEC 60034-30-1: 11 kW, four poles."""
        for name, printed in (("IE2", 89.8), ("IE3", 91.4), ("IE4", 93.3)):
            self.assertAlmostEqual(100.0 * motor_efficiency(name, 11_000.0), printed)
        self.assertEqual(motor_efficiency("IE3", 60.0), 0.648)
        self.assertEqual(motor_efficiency("IE3", 315_000.0), 0.96)
        with self.assertRaises(ValueError):
            motor_efficiency("IE9", 1000.0)
        own, classed = pump(), pump(motor_class="IE4")
        self.assertAlmostEqual(own.electrical_w * own.motor_efficiency, classed.electrical_w * classed.motor_efficiency)
