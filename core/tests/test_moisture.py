"""Moisture of rooms that give each other air, against a direct solution; and snags of too little air."""

import unittest
from dataclasses import replace

import numpy as np
import psychrolib

from core.tests.rooms import CLIMATE, room
from core.tests.test_air_system import building
from pendrum_core.checks.fresh_air import fresh_air_snags
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import HumidityLimits, Room, TransferAir
from pendrum_core.model.schedules import constant
from pendrum_core.model.thermostats import NEVER_COOLED, NEVER_HEATED, DrawnAir, Thermostat
from pendrum_core.results.building import BuildingResults
from pendrum_core.run import calculate

psychrolib.SetUnitSystem(psychrolib.SI)
ASKED = HumidityLimits(0.4, 0.6)
DRY_M3_KG = 287.042 * 293.15  # times 1/p: volume of dry air at 20 °C


def found(*rooms: Room) -> BuildingResults:
    results = calculate(Building(CLIMATE, rooms))
    assert not results.failures, results.failures
    return results


def relative(results: BuildingResults, w: float, air_c: float) -> float:
    return psychrolib.GetRelHumFromHumRatio(air_c, w, results.outdoors.pressure_pa)


class Given(unittest.TestCase):
    def setUp(self) -> None:
        """Two rooms that give each other air, and a third that gets some from the second."""
        a = replace(room("a", people=900.0), humidity=ASKED, transfers=(TransferAir("b", 0.02),))
        b = replace(room("b"), transfers=(TransferAir("a", 0.03),))
        c = replace(room("c", people=0.0), humidity=ASKED, transfers=(TransferAir("b", 0.01),), infiltration_m3_s=0.004)
        self.results = found(a, b, c)

    def solved(self, month: int, step: int) -> np.ndarray:
        """Humidity ratios of the three rooms by one linear system."""
        out = self.results.outdoors
        per_kg = DRY_M3_KG / out.pressure_pa
        leak = np.array([0.006, 0.006, 0.004]) / per_kg
        given = {0: (1, 0.02), 1: (0, 0.03), 2: (1, 0.01)}
        vapour = 2.501e6 + 1860.0 * 24.0
        matrix, right = np.diag(leak), leak * out.humidity_ratio[month, step]
        for to, (source, flow) in given.items():
            matrix[to, to] += flow / per_kg
            matrix[to, source] -= flow / per_kg
        latent = [self.results.rooms[key].latent_w[month, step] for key in "abc"]
        return np.linalg.solve(matrix, right + np.array(latent) / vapour)

    def test_every_step_is_the_direct_solution(self) -> None:
        for key, place in (("a", 0), ("c", 2)):
            course = self.results.moisture[key].relative
            for month, step in ((0, 20), (6, 60), (6, 100), (11, 143)):
                want = min(1.0, relative(self.results, self.solved(month, step)[place], 24.0))
                self.assertAlmostEqual(course[month, step], want, delta=2e-3)

    def test_only_rooms_that_are_asked_are_told(self) -> None:
        self.assertEqual(set(self.results.moisture), {"a", "c"})

    def test_in_winter_air_from_a_room_that_is_kept_moist_needs_less_water(self) -> None:
        plain, kept = room("p"), replace(room("p"), humidity=ASKED)
        taker = replace(room("t"), humidity=ASKED, transfers=(TransferAir("p", 0.02),))
        dry, moist = found(plain, taker).moisture["t"], found(kept, taker).moisture["t"]
        out = self.results.outdoors
        saturated = psychrolib.GetSatHumRatio(-9.0, out.pressure_pa)
        wanted = psychrolib.GetHumRatioFromRelHum(20.0, 0.4, out.pressure_pa)
        per_kg = DRY_M3_KG / out.pressure_pa
        self.assertAlmostEqual(dry.humidifying_kg_s, 0.026 / per_kg * (wanted - saturated), delta=2e-6)
        self.assertAlmostEqual(moist.humidifying_kg_s, 0.006 / per_kg * (wanted - saturated), delta=2e-6)

    def test_drawn_in_air_carries_moisture_off(self) -> None:
        device = DrawnAir(0.2, 20.0, 1.0, False, (constant(1.0),) * 12)
        shut = replace(
            room("d", people=900.0), cooled=False, humidity=ASKED,
            thermostat=Thermostat(NEVER_HEATED, NEVER_COOLED, NEVER_HEATED[0], drawn_air=None, heating_capacity_w=0.0),
        )  # fmt: skip
        opened = replace(shut, thermostat=replace(shut.thermostat, drawn_air=device))
        results = found(opened)
        loads, out = results.rooms["d"], results.outdoors
        month, step = 6, 90
        air = float(loads.control.summer.air_c[month, step])
        self.assertGreater(air, 21.5)  # fully open
        per_kg = DRY_M3_KG / out.pressure_pa
        gained = loads.latent_w[month, step] / (2.501e6 + 1860.0 * 24.0)
        want = relative(results, out.humidity_ratio[month, step] + gained / (0.206 / per_kg), air)
        self.assertAlmostEqual(results.moisture["d"].relative[month, step], want, delta=3e-3)
        closed = found(shut)
        warm = float(closed.rooms["d"].control.summer.air_c[month, step])
        held = closed.moisture["d"].relative[month, step]
        self.assertGreater(
            psychrolib.GetHumRatioFromRelHum(warm, held, out.pressure_pa), out.humidity_ratio[month, step] * 1.3
        )


class TooLittleAir(unittest.TestCase):
    def codes(self, results: BuildingResults) -> dict[str, str]:
        return {snag.code: snag.sentence for snag in fresh_air_snags(results)}

    def test_a_pinned_flow_below_the_need(self) -> None:
        base = building()
        few = tuple(replace(t, pinned_flow_m3_s=0.005) for t in base.systems[0].terminals)
        need = (0.0025 * 4 + 0.0003 * 20) * 1000.0
        self.assertIn(
            f"pinned 5 L/s are below the {need:.0f} L/s",
            self.codes(calculate(building(terminals=few)))["ventilation_below_need"],
        )
        self.assertNotIn("ventilation_below_need", self.codes(calculate(base)))

    def test_people_need_air(self) -> None:
        self.assertIn("people_without_air", self.codes(found(room("a"))))
        self.assertNotIn("people_without_air", self.codes(found(replace(room("a"), direct_outdoor_air_m3_s=0.01))))
        self.assertNotIn("people_without_air", self.codes(found(room("a", people=0.0))))

    def test_a_room_gives_no_more_than_it_gets(self) -> None:
        taker = replace(room("b"), transfers=(TransferAir("a", 0.02),))
        self.assertIn(
            "gives 20 L/s to other rooms, but only 6 L/s come in",
            self.codes(found(room("a"), taker))["more_given_than_gets"],
        )
        supplied = replace(room("a"), direct_outdoor_air_m3_s=0.02)
        self.assertNotIn("more_given_than_gets", self.codes(found(supplied, taker)))

    def test_cold_supply_into_moist_rooms(self) -> None:
        drawn = building(supply_c=10.0)
        wet = tuple(replace(r, gains=tuple(replace(g, latent_w=2500.0) for g in r.gains)) for r in drawn.rooms)
        moist = calculate(replace(drawn, rooms=wet))
        self.assertIn("supply_below_dew_point", self.codes(moist))
        path = moist.systems["s"].summer
        month, step = np.unravel_index(int((path.return_w).argmax()), path.return_w.shape)
        dew = psychrolib.GetTDewPointFromHumRatio(24.0, path.return_w[month, step], moist.outdoors.pressure_pa)
        self.assertGreater(dew, 10.5)

    def test_gains_beyond_what_is_ordinary_to_cool(self) -> None:
        results = found(room("a"))
        inside = (160.0 + 240.0) / 20.0
        self.assertIn("gains_implausible", {s.code for s in result_snags(results, {"a": (5.0, inside - 1.0)})})
        self.assertNotIn("gains_implausible", {s.code for s in result_snags(results, {"a": (5.0, inside + 1.0)})})
