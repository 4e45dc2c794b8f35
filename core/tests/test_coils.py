"""Coils: held back by what flows in them, and sized against marches through their rows, exact fins and published tables."""

import unittest
from dataclasses import replace
from math import log

import numpy as np
import psychrolib
from scipy.optimize import brentq
from scipy.special import i0, i1, k0, k1

from core.tests.test_air_system import building
from pendrum_core.air.coil import coil_to_temperature
from pendrum_core.air.coil_size import MOST_ROWS, Entering, Inside, capacities_w, effectiveness, size_coil
from pendrum_core.air.fin_tube import (
    ACROSS_M,
    ALONG_M,
    FIN_M,
    FIN_W_MK,
    TUBE_INSIDE_M,
    TUBE_M,
    _fin_efficiency,
    air_film_w_m2k,
    row_conductance,
    water_film_w_m2k,
)
from pendrum_core.checks.results import result_snags
from pendrum_core.model.plant import PlantUnit
from pendrum_core.model.systems import REFRIGERANT
from pendrum_core.model.unit_parts import COOLING_COIL, HEATING_COIL
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.water.properties import conductivity_w_mk, specific_heat_j_kgk, viscosity_pa_s
from pendrum_core.working.explain import explain

PRESSURE = 101_325.0
psychrolib.SetUnitSystem(psychrolib.SI)


def saturated(temperature_c: float) -> tuple[float, float]:
    """Enthalpy and humidity ratio of saturated air, by another library."""
    w = psychrolib.GetSatHumRatio(temperature_c, PRESSURE)
    return psychrolib.GetMoistAirEnthalpy(temperature_c, w), w


class HeldBack(unittest.TestCase):
    def test_a_dry_coil_by_hand(self) -> None:
        """Air of 30 °C over an apparatus of 20 °C with a bypass of 0.1 leaves at 21 °C, whatever was wanted."""
        for wanted, leaves in ((14.0, 21.0), (20.9, 21.0), (25.0, 25.0), (31.0, 30.0)):
            state = coil_to_temperature(30.0, 0.005, wanted, 0.1, PRESSURE, coldest_c=20.0)
            self.assertAlmostEqual(float(state.leaving_c), leaves, places=9)
            self.assertAlmostEqual(float(state.condensate_kg_kg), 0.0, places=12)

    def test_a_wet_coil_lies_between_the_air_and_saturation(self) -> None:
        h, w = saturated(12.0)
        state = coil_to_temperature(28.0, 0.014, 5.0, 0.15, PRESSURE, coldest_c=12.0)
        self.assertAlmostEqual(float(state.leaving_w), w + 0.15 * (0.014 - w), delta=2e-5)
        expected = h + 0.15 * (psychrolib.GetMoistAirEnthalpy(28.0, 0.014) - h)
        found = psychrolib.GetMoistAirEnthalpy(float(state.leaving_c), float(state.leaving_w))
        self.assertAlmostEqual(found / expected, 1.0, delta=2e-3)
        self.assertAlmostEqual(float(state.apparatus_dew_point_c), 12.0)

    def test_air_colder_than_the_coil_passes(self) -> None:
        state = coil_to_temperature(10.0, 0.006, 5.0, 0.1, PRESSURE, coldest_c=14.0)
        self.assertAlmostEqual(float(state.leaving_c), 10.0)
        self.assertAlmostEqual(float(state.total_j_kg), 0.0, places=6)

    def test_no_jump_where_it_begins_to_bind(self) -> None:
        """Over the temperature of the limit, air leaves without a jump: free, held and wet, held and dry."""
        limits = np.linspace(4.0, 30.0, 521)
        left = [float(coil_to_temperature(27.0, 0.012, 14.0, 0.12, PRESSURE, float(t)).leaving_c) for t in limits]
        steps = np.diff(left)
        self.assertLess(np.abs(steps).max(), 0.06)
        self.assertTrue((steps >= -1e-9).all())

    def of(self, flow_c: float) -> BuildingResults:
        base = building()
        chilled, heating = base.circuits
        return calculate(replace(base, circuits=(replace(chilled, flow_c=flow_c, return_c=flow_c + 6.0), heating)))

    def test_a_shortage_goes_to_the_rooms_and_balances_close(self) -> None:
        cold, warm = self.of(6.0), self.of(14.0)
        free, held = cold.systems["s"], warm.systems["s"]
        self.assertLess(float(np.abs(free.summer.supply_c - free.asked_supply_c).max()), 1e-5)
        self.assertGreater(float((held.summer.supply_c - held.asked_supply_c).max()), 2.0)
        self.assertLess(held.balance, 1e-6)
        self.assertTrue(held.converged)
        self.assertLess(float(held.coil_total_w.max()), float(free.coil_total_w.max()))
        self.assertGreater(
            max(room.over_k for room in held.served.values()), max(room.over_k for room in free.served.values())
        )
        # 15 °C and a bypass of 0.12: the air off the coil follows what enters it.
        on = held.summer.supply_c - held.asked_supply_c > 0.1
        dry = on & (held.summer.coil.condensate_kg_kg == 0.0)
        entering = held.summer.entering_c
        expected = 15.0 + 0.12 * (entering - 15.0)
        self.assertTrue(dry.any())
        self.assertLess(float(np.abs(held.summer.coil.leaving_c - expected)[dry].max()), 1e-6)
        self.assertIn("coil_below_water", {snag.code for snag in result_snags(warm, {})})
        self.assertNotIn("coil_below_water", {snag.code for snag in result_snags(cold, {})})

    def test_heated_air_stays_a_kelvin_below_its_water(self) -> None:
        base = building(winter_supply_c=35.0)
        chilled, heating = base.circuits
        results = calculate(replace(base, circuits=(chilled, replace(heating, flow_c=30.0, return_c=25.0))))
        found = results.systems["s"]
        self.assertAlmostEqual(float(found.winter.heated_c.max()), 29.0, places=6)
        self.assertLess(found.balance, 1e-6)


class Surfaces(unittest.TestCase):
    def test_water_conducts_as_published(self) -> None:
        """IAPWS SR6-08(2011), table of thermal conductivity at 0.1 MPa."""
        self.assertAlmostEqual(conductivity_w_mk(25.0), 0.60652, places=4)

    def test_fins_against_exact_annular_ones(self) -> None:
        inner = TUBE_M / 2.0 + FIN_M
        outer = float(np.sqrt(ACROSS_M * ALONG_M / np.pi))
        for h in (30.0, 60.0, 120.0):
            m = (2.0 * h / (FIN_W_MK * FIN_M)) ** 0.5
            a, b = m * inner, m * outer
            exact = 2.0 * inner / (m * (outer**2 - inner**2))
            exact *= (k1(a) * i1(b) - i1(a) * k1(b)) / (i0(a) * k1(b) + k0(a) * i1(b))
            self.assertAlmostEqual(_fin_efficiency(h) / exact, 1.0, delta=0.03)

    def test_water_film_near_dittus_and_boelter(self) -> None:
        for t in (10.0, 50.0, 70.0):
            reynolds = 998.0 * TUBE_INSIDE_M / viscosity_pa_s(t)
            prandtl = viscosity_pa_s(t) * specific_heat_j_kgk(t) / conductivity_w_mk(t)
            film = 0.023 * reynolds**0.8 * prandtl**0.35 * conductivity_w_mk(t) / TUBE_INSIDE_M
            self.assertAlmostEqual(water_film_w_m2k(t) / film, 1.0, delta=0.15)

    def test_faster_air_conducts_more_but_bypasses_more(self) -> None:
        self.assertGreater(air_film_w_m2k(3.0), air_film_w_m2k(2.0))
        slow, fast = (row_conductance(v, 3000.0).outside / v for v in (2.0, 3.0))
        self.assertGreater(slow, fast)


def marched(air: Entering, inside: Inside, water_kg_s: float, face_m2: float, rows: int, wet: bool) -> float:
    """Heat of a coil from a march through its rows, tube by tube: air unmixed within a row, mixed behind it."""
    cells = 60
    velocity = air.flow_kg_s / (1.2 * face_m2)
    cp = psychrolib.GetMoistAirEnthalpy(20.0, air.humidity_ratio) - psychrolib.GetMoistAirEnthalpy(
        19.0, air.humidity_ratio
    )
    span = saturated(inside.return_c)[0] - saturated(inside.flow_c)[0]
    row = row_conductance(
        velocity,
        water_film_w_m2k((inside.flow_c + inside.return_c) / 2.0),
        span / (inside.return_c - inside.flow_c) / cp if wet else 1.0,
    )
    water_rate = water_kg_s * specific_heat_j_kgk((inside.flow_c + inside.return_c) / 2.0)
    outside, within = (value * face_m2 / cells for value in (row.outside, row.inside))
    flow = air.flow_kg_s / cells

    def cell(potential: float, water: float) -> float:
        """Heat that one strip of a row gives to the water."""
        if not wet:
            ua = 1.0 / (1.0 / outside + 1.0 / within)
            return flow * cp * (potential - water) * (1.0 - np.exp(-ua / (flow * cp)))
        taken = 1.0 - np.exp(-outside / (cp * flow))
        surface = brentq(
            lambda t: flow * taken * (potential - saturated(t)[0]) - within * (t - water), water - 1.0, 60.0
        )
        return float(within * (surface - water))

    start = psychrolib.GetMoistAirEnthalpy(air.dry_bulb_c, air.humidity_ratio) if wet else air.dry_bulb_c
    per = 1.0 if wet else cp
    behind = np.linspace(start, start - (start - inside.flow_c) / 4.0 if not wet else start * 0.8, rows + 1)
    for _ in range(40):
        water, heats = inside.flow_c, np.zeros(rows)
        for r in reversed(range(rows)):  # water enters the last row
            for _ in range(cells):
                q = cell(float(behind[r]), water)
                heats[r] += q
                water += q / water_rate
        new = np.concatenate(([start], start - np.cumsum(heats) / (air.flow_kg_s * per)))
        if np.abs(new - behind).max() < 1e-4 * abs(start):
            break
        behind = 0.5 * behind + 0.5 * new
    return float(heats.sum())


class Rows(unittest.TestCase):
    def test_effectiveness_has_its_limits(self) -> None:
        """Many rows come to counterflow; none of the ways gives more than all of the smaller capacity rate."""
        for units, ratio in ((1.0, 0.5), (2.0, 1.0), (3.0, 1.6), (0.7, 0.0)):
            gone = np.exp(-units * (1.0 - ratio))
            counter = units / (1.0 + units) if ratio == 1.0 else (1.0 - gone) / (1.0 - ratio * gone)
            self.assertAlmostEqual(effectiveness(units, ratio, 400), counter, delta=2e-3)
            self.assertLess(effectiveness(units, ratio, 1), counter + 1e-12)
        self.assertLess(effectiveness(50.0, 2.0, 8), 0.5 + 1e-9)
        by_formula = (1.0 - np.exp(-0.5 * (1.0 - np.exp(-1.0)))) / 0.5
        self.assertAlmostEqual(effectiveness(1.0, 0.5, 1), by_formula)

    def test_against_a_march_through_the_rows(self) -> None:
        dry = Entering(1.2, 27.0, 0.004, PRESSURE)
        wet = Entering(1.2, 27.0, 0.0135, PRESSURE)
        for air, is_wet, within in ((dry, False, 0.01), (wet, True, 0.03)):
            found = capacities_w(air, Inside(7.0, 12.0), 0.9, 0.4)
            for rows in (1, 3, 6):
                with self.subTest(wet=is_wet, rows=rows):
                    expected = marched(air, Inside(7.0, 12.0), 0.9, 0.4, rows, is_wet)
                    self.assertAlmostEqual(found[rows - 1] / expected, 1.0, delta=within)

    def test_the_smallest_number_that_gives_the_duty(self) -> None:
        air, water = Entering(1.2, 27.0, 0.011, PRESSURE), Inside(6.0, 12.0)
        for duty in (8e3, 15e3, 22e3, 28e3):
            coil = size_coil(COOLING_COIL, duty, air, water, 1.0, bypass_factor=0.5)
            gives = capacities_w(air, water, coil.water_kg_s, coil.face_m2)
            assert coil.rows_for_duty is not None
            self.assertGreaterEqual(gives[coil.rows_for_duty - 1], duty)
            if coil.rows_for_duty > 1:
                self.assertLess(gives[coil.rows_for_duty - 2], duty)
            self.assertAlmostEqual(coil.water_kg_s * 4194.0 * 6.0, duty, delta=0.002 * duty)
            self.assertAlmostEqual(coil.face_m2, 0.4)

    def test_rows_make_the_bypass(self) -> None:
        air, water = Entering(1.2, 27.0, 0.011, PRESSURE), Inside(6.0, 12.0)
        coil = size_coil(COOLING_COIL, 8e3, air, water, 1.0, bypass_factor=0.12)
        self.assertLessEqual(coil.bypass_factor, 0.12)
        fewer = size_coil(COOLING_COIL, 8e3, air, water, 1.0, bypass_factor=0.12, rows=coil.rows - 1)
        self.assertGreater(fewer.bypass_factor, 0.12)
        self.assertAlmostEqual(log(fewer.bypass_factor) / log(coil.bypass_factor), 1.0 - 1.0 / coil.rows)

    def test_what_no_coil_can_do(self) -> None:
        air = Entering(1.2, 27.0, 0.011, PRESSURE)
        coil = size_coil(COOLING_COIL, 60e3, air, Inside(12.0, 18.0), 1.0, bypass_factor=0.12)
        self.assertIsNone(coil.rows_for_duty)
        self.assertEqual(coil.rows, MOST_ROWS)
        for faulty in ({"bypass_factor": 1.0}, {"face_velocity_m_s": 0.0}):
            with self.assertRaises(ValueError):
                size_coil(COOLING_COIL, 1e3, air, Inside(6.0, 12.0), 1.0, **faulty)  # type: ignore[arg-type]

    def test_a_refrigerant_gives_more_than_water_that_warms_up(self) -> None:
        air = Entering(1.2, 27.0, 0.011, PRESSURE)
        water = capacities_w(air, Inside(7.0, 13.0), 0.8, 0.4)
        boiling = capacities_w(air, Inside(7.0, 7.0, refrigerant=True), 0.0, 0.4)
        self.assertGreater(boiling[3], water[3])


class OfABuilding(unittest.TestCase):
    def test_coils_stand_in_working_and_kit(self) -> None:
        results = calculate(building())
        found = {coil.kind: coil for coil in results.coils["s"].values()}
        self.assertEqual(set(found), {COOLING_COIL, HEATING_COIL})
        cooling = found[COOLING_COIL]
        self.assertAlmostEqual(cooling.duty_w, float(results.systems["s"].coil_total_w.max()))
        self.assertGreaterEqual(cooling.capacity_w, cooling.duty_w)
        self.assertAlmostEqual(cooling.face_m2 * 2.5, results.systems["s"].fan.flow_m3_s)
        for kind, quantity in ((COOLING_COIL, "cooling_coil_size"), (HEATING_COIL, "heating_coil_size")):
            tree = explain(results, quantity, "s")
            self.assertEqual(tree.value, found[kind].capacity_w)
            self.assertIn(f"{found[kind].rows} rows", tree.name)
        lines = {item.tag: item for item in kit_list(results)}
        self.assertIn(f"{cooling.rows} rows", lines["S CC"].size)
        self.assertEqual(lines["S CC"].state, "sized")

    def test_pinned_rows_are_held_against_duty_and_bypass(self) -> None:
        base = building()
        parts = tuple(replace(part, rows=1) if part.kind == COOLING_COIL else part for part in base.systems[0].parts)
        results = calculate(building(parts=parts))
        codes = {snag.code for snag in result_snags(results, {})}
        self.assertLessEqual({"coil_too_small", "rows_against_bypass"}, codes)
        self.assertEqual({i.tag: i.state for i in kit_list(results)}["S CC"], "pinned")
        plain = {snag.code for snag in result_snags(calculate(base), {})}
        self.assertFalse({"coil_too_small", "rows_against_bypass"} & plain)

    def test_glycol_below_freezing_carries_more_of_it(self) -> None:
        base = building()
        cold = replace(base.circuits[0], flow_c=-4.0, return_c=2.0, glycol="ethylene", glycol_share=0.35)
        results = calculate(replace(base, circuits=(cold, base.circuits[1])))
        self.assertEqual(results.failures, ())
        coil = next(c for c in results.coils["s"].values() if c.kind == COOLING_COIL)
        self.assertGreater(coil.water_kg_s, 1.1 * coil.duty_w / (4200.0 * 6.0))

    def test_without_a_circuit_nothing_is_sized(self) -> None:
        results = calculate(replace(building(), circuits=()))
        self.assertEqual(dict(results.coils["s"]), {})
        with self.assertRaises(KeyError):
            explain(results, "cooling_coil_size", "s")


class ByRefrigerant(unittest.TestCase):
    def of(self, **circuit: object) -> BuildingResults:
        base = building()
        chilled, heating = base.circuits
        machine = PlantUnit(
            "u", "Outdoor unit", capacity_w=None, share=1.0, kind="chiller", fuel="electricity",
            full_cool=4.0, full_warm=3.0, part_cool=4.0, part_warm=3.0, told_flow_c=8.0,
        )  # fmt: skip
        direct = replace(chilled, medium=REFRIGERANT, flow_c=8.0, units=(machine,), **circuit)
        return calculate(replace(base, circuits=(direct, heating)))

    def test_its_machine_carries_the_coil_and_there_is_no_pump(self) -> None:
        results = self.of()
        self.assertEqual(results.failures, ())
        self.assertNotIn("c", results.circuits)
        plant, coil = results.plants["c"], results.systems["s"].coil_total_w
        month, step = results.systems["s"].peak
        self.assertAlmostEqual(plant.design_w, float(coil.max()))
        outdoor = float(results.outdoors.dry_bulb_c[month, step])
        efficiency = 3.0 + (35.0 - outdoor) / 15.0  # by the line through 3.0 at 35 °C and 4.0 at 20 °C
        self.assertAlmostEqual(float(plant.summer.fuel_w[0, month, step]), float(coil.max()) / efficiency, delta=1.0)
        self.assertEqual({coil.kind: coil.refrigerant for coil in results.coils["s"].values()}[COOLING_COIL], True)
        self.assertFalse([item.tag for item in kit_list(results) if item.tag.startswith("Chilled P")])
        self.assertIn("Chilled Outdoor unit", {item.tag for item in kit_list(results)})

    def test_it_holds_the_coil_back(self) -> None:
        self.assertAlmostEqual(self.of().systems["s"].limits.coldest_c or 0.0, 9.0)

    def test_no_room_ends_at_it(self) -> None:
        base = building()
        heating = replace(base.circuits[1], medium=REFRIGERANT)
        results = calculate(replace(base, circuits=(base.circuits[0], heating)))
        self.assertIn("carries refrigerant", results.failures[0].reason)
        self.assertEqual(results.failures[0].id, "h")


if __name__ == "__main__":
    unittest.main()
