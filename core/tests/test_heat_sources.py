"""Heat pumps from ground and wells, machines that heat and cool, water that valves throttle: by hand and by closed balances."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, DAY
from core.tests.test_air_system import building
from core.tests.test_feeds import BOILER
from core.tests.test_heat_pumps import circuit, pump
from core.tests.test_year import always, swinging
from pendrum_core.model.building import Building
from pendrum_core.model.plant import CHILLER, GROUND_PUMP, WELL_PUMP, PlantUnit
from pendrum_core.model.year import YearCourse, YearGain, YearRoom
from pendrum_core.plant.ground import warmth
from pendrum_core.plant.running import part_flow
from pendrum_core.plant.seasonal import season_of
from pendrum_core.plant.source import AirOutside, Water, members_of
from pendrum_core.plant.staging import BEST, EQUAL, FEWEST, IN_TURN
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.extraction import extraction_of
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain
from pendrum_core.year.energy import BuildingYear, building_year
from pendrum_core.year.sky import YearSky


def ground(**more: object) -> PlantUnit:
    """COP 3 at -5 °C and 5 at 5 °C of brine at any part load; four fifths of its output at -5 °C; brine of 0 to 10 °C."""
    plain = {"full_cool": 3.0, "part_cool": 3.0, "full_warm": 5.0, "part_warm": 5.0, "other_share": 0.8}
    return replace(pump(**(plain | more)), kind=GROUND_PUMP, name="Ground heat pump")


def chiller(**more: object) -> PlantUnit:
    return PlantUnit("ch", "Cooling side", CHILLER, None, 1.0, 4.0, 4.0, 4.0, 4.0, least_part=0.0, fuel="electricity", **more)  # type: ignore[arg-type]  # fmt: skip


def heated_by(*units: PlantUnit, cooled_by: tuple[PlantUnit, ...] = (), **more: object) -> Building:
    base = building()
    chilled, heating = base.circuits
    return replace(base, circuits=(replace(chilled, units=cooled_by), replace(heating, units=units, **more)))  # type: ignore[arg-type]


def year_of(of: Building) -> tuple[BuildingResults, BuildingYear]:
    day = YearCourse((DAY,), (0,) * 365)
    results = calculate(of)
    years = [
        YearRoom(r, (YearGain("lights", 160.0, 0.5, day),), always(20.0), always(24.0), people=day)
        for r in results.building.rooms
    ]
    return results, building_year(results, years, YearSky.of(swinging(), CLIMATE), {"s": None}, {})


class Seasons(unittest.TestCase):
    def test_ground_lags_the_air_and_turns_round_in_the_south(self) -> None:
        self.assertAlmostEqual(float(warmth(59)), 0.0)
        self.assertAlmostEqual(float(warmth(59 + 182.5)), 1.0)
        self.assertAlmostEqual(float(warmth(59 + 182.5 / 2)), 0.5)
        self.assertAlmostEqual(float(warmth(59, southern=True)), 1.0)

    def test_one_source_temperature_in_every_bin(self) -> None:
        """EN 14825: brine of 0 °C, half way between both points; a well of 10 °C, at its cool one."""
        for unit, efficiency in ((ground(), 4.0), (replace(ground(), kind=WELL_PUMP), 3.0)):
            season = season_of(unit, 8000.0)
            assert season is not None
            self.assertAlmostEqual(season.figure, efficiency)
            # The load's line starts from what the machine gives at that source.
            self.assertAlmostEqual(float(season.load_w[0]), 8000.0 * (0.9 if unit.kind == GROUND_PUMP else 0.8))


class FromTheGround(unittest.TestCase):
    def test_output_and_power_by_the_brine(self) -> None:
        """Brine of 0, 5 and 10 °C: 0.9, 1.0 and 1.1 of the output, COP 4, 5 and, held beyond its points, 5."""
        still = np.zeros((1, 3))
        air = AirOutside(still - 20.0, still - 20.0, 1e5, np.array([[0.0, 0.5, 1.0]]))
        load = np.full((1, 3), 20_000.0)
        water = Water(still + 35.0, still + 30.0)
        staged, _ = members_of(circuit(ground()), (8000.0,), (0,)).run(load, air, water, None)
        np.testing.assert_allclose(staged.output_w[0, 0], [7200.0, 8000.0, 8800.0])
        np.testing.assert_allclose(staged.fuel_w[0, 0], [1800.0, 1600.0, 1760.0])

    def test_what_it_draws_and_the_flow(self) -> None:
        """25 % ethylene glycol near 0 °C: 1,038 kg/m³ and 3.74 kJ/(kg K) (published tables of the mixture), cooled by 3 K."""
        found = extraction_of(ground(), 9000.0)
        assert found is not None
        self.assertAlmostEqual(found.flow_m3_s, 9000.0 / (1038.0 * 3740.0 * 3.0), delta=0.02 * found.flow_m3_s)
        well = extraction_of(replace(ground(), kind=WELL_PUMP, source_cold_c=9.0), 9000.0)
        assert well is not None
        self.assertAlmostEqual(well.flow_m3_s, 9000.0 / (999.8 * 4197.0 * 3.0), delta=0.002 * well.flow_m3_s)
        self.assertIsNone(extraction_of(pump(), 9000.0))

    def test_sized_at_its_coldest_source(self) -> None:
        results = calculate(heated_by(ground(capacity_w=None)))
        plant = results.plants["h"]
        np.testing.assert_allclose(plant.winter.unmet_w, 0.0, atol=1e-6)
        # 0 °C of brine on the winter day: it is bought for a ninth more than the load.
        self.assertAlmostEqual(plant.capacity_w[0], plant.design_w / 0.9)
        (line,) = (item for item in kit_list(results) if item.item.startswith("Ground loops"))
        self.assertAlmostEqual(line.duties[0].wanted, float(plant.winter.output_w.max()) * 0.75)
        tree = explain(results, "plant_input", "hp")
        told = {node.name: node.value for node in tree.inputs}
        self.assertEqual(told["From the ground or well then"], 0.0)
        self.assertAlmostEqual(told["Drawn from it at most"] or 0.0, line.duties[0].wanted)

    def test_the_year_draws_output_less_power(self) -> None:
        results, year = year_of(heated_by(ground(capacity_w=None)))
        given = year.output_w["h", "hp"].astype(float)
        power = year.energy_w["heating", "electricity"].astype(float)
        self.assertGreater(float(given.sum()), 0.0)
        np.testing.assert_allclose(year.extracted_w["h", "hp"], given - power, rtol=1e-4, atol=0.5)
        self.assertNotIn(("h", "hp"), year_of(heated_by(pump(capacity_w=None)))[1].extracted_w)
        # Between what its efficiency is at the coldest and at the warmest source of the year.
        self.assertTrue(4.0 < given.sum() / power.sum() < 5.0)


class OtherSide(unittest.TestCase):
    def test_time_is_shared_and_heating_goes_first(self) -> None:
        """A machine of 8 kW that heats with 2, 6 and 8 kW has three quarters, a quarter and none of its time for 5 kW of cold."""
        still = np.zeros((1, 3))
        air, water = AirOutside(still + 35.0, still + 20.0, 1e5), Water(still + 7.0, still + 12.0)
        heats = np.array([[2000.0, 6000.0, 8000.0]]) / 8000.0
        unit = chiller(reverses="hp")
        for rule in (IN_TURN, EQUAL, FEWEST, BEST):
            members = members_of(replace(circuit(unit), kind="chilled", staging=rule), (8000.0,), (0,))
            staged, _ = members.run(np.full((1, 3), 5000.0), air, water, None, {"ch": heats})
            np.testing.assert_allclose(staged.output_w[0, 0], [5000.0, 2000.0, 0.0])
            np.testing.assert_allclose(staged.fuel_w[0, 0], [1250.0, 500.0, 0.0])
            np.testing.assert_allclose(staged.unmet_w[0], [0.0, 3000.0, 5000.0])

    def test_cold_is_missing_by_what_it_heats(self) -> None:
        """Of the same building: with a machine of its own nothing is missing; as the other side of one, what heating takes of its time."""
        own = calculate(heated_by(pump(capacity_w=None), cooled_by=(chiller(),)))
        both = calculate(heated_by(pump(capacity_w=None), cooled_by=(chiller(reverses="hp"),)))
        self.assertEqual(both.failures, ())
        heating, chilled = both.plants["h"], both.plants["c"]
        self.assertGreater(float(heating.summer.output_w.max()), 0.0)
        np.testing.assert_allclose(own.plants["c"].summer.unmet_w, 0.0, atol=1e-6)
        left = chilled.capacity_w[0] * (1.0 - heating.summer.used[0])
        missing = np.maximum(chilled.course.summer_w - left, 0.0)
        np.testing.assert_allclose(chilled.summer.unmet_w, missing, atol=1e-6)
        lines = [item.item for item in kit_list(both)]
        self.assertTrue(any("The same machine as" in line for line in lines))

    def test_the_year_has_no_hour_with_more_than_its_time(self) -> None:
        results, year = year_of(heated_by(pump(capacity_w=9000.0), cooled_by=(chiller(reverses="hp"),)))
        hot, cold = year.output_w["h", "hp"].astype(float), year.output_w["c", "ch"].astype(float)
        outdoor = swinging().dry_bulb_c
        most = 9000.0 * np.maximum(0.75 + (outdoor + 7.0) / 14.0 * 0.25, 0.3)
        used = hot / most + cold / results.plants["c"].capacity_w[0]
        self.assertGreater(np.count_nonzero((hot > 1.0) & (cold > 1.0)), 10)
        self.assertLess(float(used.max()), 1.0 + 1e-5)

    def test_what_cannot_be_one_machine_is_said(self) -> None:
        for units, cooled, said in (
            ((BOILER,), (chiller(reverses="b"),), "other side of an air-source heat pump"),
            ((pump(),), (chiller(reverses="ch"),), "other side of an air-source heat pump"),
            ((pump(),), (chiller(reverses="hp"), replace(chiller(reverses="hp"), id="c2")), "two chillers"),
        ):
            failures = calculate(heated_by(*units, cooled_by=cooled)).failures
            self.assertEqual([failure.id for failure in failures], ["c"])
            self.assertIn(said, failures[0].reason)


class Throttled(unittest.TestCase):
    def at(self, share: float, flow_c: float, **more: object) -> tuple[float, float]:
        one = replace(circuit(), flow_c=70.0, return_c=50.0, **({"water_flow": "variable"} | more))  # type: ignore[arg-type]
        flow, cooled = part_flow(one, np.array([flow_c]), np.array([share]), 20.0)
        return float(flow[0]), float(cooled[0])

    def test_heat_is_flow_times_difference(self) -> None:
        for share in (0.05, 0.3, 0.7, 1.0):
            for flow_c in (35.0, 50.0, 70.0):
                for kind in ("heating", "chilled"):
                    for water in ("constant", "variable"):
                        flow, cooled = self.at(share, flow_c, kind=kind, water_flow=water)
                        self.assertAlmostEqual(flow * cooled, share * 20.0)
                        self.assertLessEqual(flow, 1.0 + 1e-12)

    def test_radiators_throttled_bring_colder_water_back(self) -> None:
        """70/50 °C, rooms 20 °C, exponent 1.3: what comes back at part load by the logarithmic mean, solved here by bisection."""
        design = 20.0 / np.log(50.0 / 30.0)
        for share, flow_c in ((0.5, 70.0), (0.2, 70.0), (0.8, 65.0), (0.02, 70.0)):
            wanted, low, high = design * share ** (1.0 / 1.3), 1e-12, flow_c - 20.0 - 1e-9
            for _ in range(200):
                back = (low + high) / 2.0
                mean = (flow_c - 20.0 - back) / np.log((flow_c - 20.0) / back)
                low, high = (back, high) if mean < wanted else (low, back)
            self.assertAlmostEqual(flow_c - self.at(share, flow_c, rated_exponent=1.3)[1], 20.0 + back, places=5)
        # At its design it is the design.
        np.testing.assert_allclose(self.at(1.0, 70.0, rated_exponent=1.3), (1.0, 20.0))
        # Water that is hardly as hot as the load needs goes at the design flow.
        self.assertAlmostEqual(self.at(0.5, 45.0, rated_exponent=1.3)[0], 1.0)

    def test_at_constant_flow_and_chilled(self) -> None:
        self.assertEqual(self.at(0.25, 70.0, water_flow="constant"), (1.0, 5.0))
        self.assertEqual(self.at(0.25, 6.0, kind="chilled"), (0.25, 20.0))
        self.assertEqual(self.at(0.0, 6.0, kind="chilled")[0], 0.0)

    def test_boilers_condense_more_and_pumps_take_less(self) -> None:
        by_hour = {}
        for water in ("constant", "variable"):
            results, year = year_of(heated_by(replace(BOILER, full_cool=1.08), water_flow=water))
            self.assertEqual(results.failures, ())
            by_hour[water] = {use: float(row.sum()) for (use, _), row in year.energy_w.items()}
        self.assertLess(by_hour["variable"]["heating"], by_hour["constant"]["heating"])
        self.assertLess(by_hour["variable"]["pumps"], by_hour["constant"]["pumps"])


if __name__ == "__main__":
    unittest.main()
