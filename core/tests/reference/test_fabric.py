"""Walls: U-values, ISO 13786 quantities and periodic fluxes against separate calculations."""

import unittest

import numpy as np

from pendrum_core.fabric.layers import Layer
from pendrum_core.fabric.periodic import dynamic_values
from pendrum_core.fabric.steady import air_gap_resistance, steady_values
from pendrum_core.proof.cases import layers_of, load_case
from pendrum_core.room.balance.harmonics import step_response, to_harmonics, to_steps
from pendrum_core.room.balance.stack import admittance


class SteadyElements(unittest.TestCase):
    def test_u_values(self) -> None:
        case = load_case("u_values_layered")
        for element, want in zip(case["inputs"]["elements"], case["expected"], strict=True):
            found = steady_values(layers_of(element["layers"]), element["Rsi_m2K_W"], element["Rse_m2K_W"])
            self.assertAlmostEqual(found.u_value / want["U_W_m2K"], 1.0, delta=0.001, msg=element["name"])

    def test_air_gap_table(self) -> None:
        # ISO 6946:2017, table 8: 25 mm and more, horizontal 0.18, up 0.16; 50 mm down 0.21.
        self.assertAlmostEqual(air_gap_resistance(0.05, "horizontal"), 0.18)
        self.assertAlmostEqual(air_gap_resistance(0.025, "up"), 0.16)
        self.assertAlmostEqual(air_gap_resistance(0.05, "down"), 0.21)
        self.assertAlmostEqual(air_gap_resistance(0.0125, "horizontal"), 0.16)
        with self.assertRaisesRegex(ValueError, r"0\.4.*0 to 0\.3"):
            air_gap_resistance(0.4, "up")


class PeriodicWall(unittest.TestCase):
    def setUp(self) -> None:
        self.case = load_case("wall_light_periodic")
        self.layers = layers_of(self.case["inputs"]["layers"])

    def test_iso_13786(self) -> None:
        for key, rsi, rse in (("with_surface_resistances", 0.13, 0.04), ("without_surface_resistances", 0.0, 0.0)):
            want = self.case["expected"]["iso_13786_24h"][key]
            found = dynamic_values(self.layers, rsi, rse)
            for name, value in (("Z11", found.z11), ("Z12", found.z12), ("Z21", found.z21), ("Z22", found.z22)):
                self.assertLess(abs(value - complex(*want[name])), 0.002 * abs(complex(*want[name])), name)
            self.assertAlmostEqual(found.time_lag_h, want["time_lag_h"], delta=0.02)
            for name, value in (
                ("periodic_transmittance_W_m2K", found.periodic_transmittance),
                ("decrement_factor", found.decrement_factor),
                ("internal_admittance_W_m2K", found.internal_admittance),
                ("external_admittance_W_m2K", found.external_admittance),
                ("internal_areal_heat_capacity_J_m2K", found.internal_areal_capacity),
                ("external_areal_heat_capacity_J_m2K", found.external_areal_capacity),
            ):
                self.assertAlmostEqual(value / want[name], 1.0, delta=0.002, msg=name)

    def test_flux_of_both_profiles(self) -> None:
        inside = Layer("film", plain_resistance_m2k_w=self.case["inputs"]["Rsi_m2K_W"])
        wall = admittance((*self.layers, inside), self.case["inputs"]["Rse_m2K_W"])
        for profile in ("sinusoid", "square"):
            outside = np.array(self.case["inputs"]["outside_temperature_C"][profile]) - 24.0
            flux = to_steps(to_harmonics(outside) * step_response(wall.across))
            want = np.array(self.case["expected"][profile]["inside_flux_W_m2"])
            swing = np.abs(want - want.mean()).max()
            self.assertLess(np.abs(flux - want).max(), 0.005 * swing, profile)


class LayerInput(unittest.TestCase):
    def test_refuses_what_has_no_resistance(self) -> None:
        with self.assertRaisesRegex(ValueError, "brick.*thickness"):
            Layer("brick", 0.0, 0.7, 1700.0, 900.0)
        with self.assertRaisesRegex(ValueError, "density_kg_m3 -1"):
            Layer("brick", 0.1, 0.7, -1.0, 900.0)

    def test_a_thick_light_wall_does_not_overflow(self) -> None:
        wall = admittance((Layer("fibre", 3.0, 0.04, 150.0, 2100.0),), 0.04)
        self.assertTrue(np.isfinite(wall.own).all() and np.isfinite(wall.across).all())
        self.assertAlmostEqual(wall.across[0].real, 1.0 / (0.04 + 3.0 / 0.04), places=9)
