"""Moist air, coil and fan against real-gas data and another psychrometric library."""

import unittest

import psychrolib
from CoolProp.HumidAirProp import HAPropsSI

from pendrum_core import moist_air as psy
from pendrum_core.air.coil import coil_at_dew_point, coil_to_temperature, mix
from pendrum_core.air.fan import size_fan
from pendrum_core.climate.atmosphere import site_pressure_pa
from pendrum_core.proof.cases import load_case

psychrolib.SetUnitSystem(psychrolib.SI)


class CoilCase(unittest.TestCase):
    def setUp(self) -> None:
        self.case = load_case("air_mixing_cooling_coil")
        self.p = self.case["inputs"]["pressure_Pa"]

    def near_state(self, t: float, w: float, want: dict) -> None:
        self.assertAlmostEqual(t, want["T_C"], delta=0.1)
        self.assertAlmostEqual(w / want["w_kg_kg"], 1.0, delta=0.005)
        h = float(psy.enthalpy_j_kg(t, w)) / 1000
        self.assertLess(abs(h - want["h_kJ_kg"]), max(0.005 * want["h_kJ_kg"], 0.15))
        self.assertAlmostEqual(float(psy.relative_humidity(t, w, self.p)), want["RH"], delta=0.01)
        self.assertAlmostEqual(float(psy.wet_bulb_c(t, w, self.p)), want["wet_bulb_C"], delta=0.1)
        self.assertAlmostEqual(float(psy.dew_point_c(w, self.p)), want["dew_point_C"], delta=0.1)
        self.assertAlmostEqual(float(psy.specific_volume_m3_kg(t, w, self.p)) / want["v_m3_kg"], 1.0, delta=0.005)

    def test_whole_path(self) -> None:
        inputs, expected = self.case["inputs"], self.case["expected"]
        out, ret = inputs["outdoor"], inputs["return_air"]
        w_out = float(psy.humidity_ratio_from_relative(out["T_C"], out["RH"], self.p))
        w_ret = float(psy.humidity_ratio_from_relative(ret["T_C"], ret["RH"], self.p))
        self.near_state(out["T_C"], w_out, expected["outdoor"])
        m = out["dry_air_flow_kg_s"] + ret["dry_air_flow_kg_s"]
        t_mix, w_mix = mix(out["dry_air_flow_kg_s"] / m, out["T_C"], w_out, ret["T_C"], w_ret)
        self.near_state(float(t_mix), float(w_mix), expected["mixed"])
        coil = coil_at_dew_point(t_mix, w_mix, inputs["coil"]["apparatus_dew_point_C"], 0.12, self.p)
        self.near_state(float(coil.leaving_c), float(coil.leaving_w), expected["leaving_coil"])
        duty = expected["coil_duty"]
        for value, key in (
            (coil.total_j_kg, "total_without_condensate_kW"),
            (coil.total_j_kg - coil.condensate_j_kg, "total_net_of_condensate_kW"),
            (coil.sensible_j_kg, "sensible_kW"),
        ):
            self.assertAlmostEqual(m * float(value) / 1000 / duty[key], 1.0, delta=0.01, msg=key)
        self.assertAlmostEqual(m * float(coil.condensate_kg_kg) * 3600 / duty["condensate_kg_h"], 1.0, delta=0.01)
        flow = m * float(psy.specific_volume_m3_kg(coil.leaving_c, coil.leaving_w, self.p))
        rate = m * float(psy.specific_heat_j_kgk(coil.leaving_w))
        fan = size_fan(flow, rate, 600.0, 580.0, 0.6, 0.85, 0.0)
        self.assertAlmostEqual(fan.shaft_w / expected["fan_shaft_power_W"], 1.0, delta=0.01)
        self.assertAlmostEqual(fan.electrical_w / expected["fan_electrical_power_W"], 1.0, delta=0.01)
        self.assertAlmostEqual(float(coil.leaving_c) + fan.rise_k, expected["after_fan"]["T_C"], delta=0.1)

    def test_coil_to_temperature_is_the_same_coil(self) -> None:
        coil = coil_at_dew_point(27.0, 0.0112, 11.0, 0.12, self.p)
        again = coil_to_temperature(27.0, 0.0112, float(coil.leaving_c), 0.12, self.p)
        self.assertAlmostEqual(float(again.leaving_w), float(coil.leaving_w), places=7)
        self.assertAlmostEqual(float(again.apparatus_dew_point_c), 11.0, places=5)

    def test_dry_and_idle_coils(self) -> None:
        dry = coil_to_temperature(27.0, 0.005, 18.0, 0.1, self.p)
        self.assertEqual(float(dry.condensate_kg_kg), 0.0)
        self.assertAlmostEqual(float(dry.total_j_kg), float(dry.sensible_j_kg))
        idle = coil_to_temperature(10.0, 0.005, 13.0, 0.1, self.p)
        self.assertEqual(float(idle.total_j_kg), 0.0)


class OtherLibraries(unittest.TestCase):
    def test_enthalpy_within_half_a_percent_of_real_gas(self) -> None:
        for t, rh in ((-5.0, 0.8), (13.0, 0.95), (24.0, 0.5), (35.0, 0.4)):
            w = float(psy.humidity_ratio_from_relative(t, rh, 98_000.0))
            real = HAPropsSI("H", "T", t + 273.15, "P", 98_000.0, "R", rh)
            self.assertLess(abs(float(psy.enthalpy_j_kg(t, w)) - real), max(0.005 * abs(real), 150.0))

    def test_humidity_from_wet_bulb_as_psychrolib(self) -> None:
        for t, wb in ((34.1, 22.9), (12.1, 8.3), (-2.0, -4.0)):
            ours = float(psy.humidity_ratio_from_wet_bulb(t, wb, 98_800.0))
            self.assertAlmostEqual(ours, psychrolib.GetHumRatioFromTWetBulb(t, wb, 98_800.0), delta=2e-5)

    def test_standard_atmosphere_as_psychrolib(self) -> None:
        for z in (0.0, 212.0, 1600.0):
            self.assertAlmostEqual(site_pressure_pa(z), psychrolib.GetStandardAtmPressure(z), delta=1.0)
        with self.assertRaisesRegex(ValueError, "12000"):
            site_pressure_pa(12_000.0)
