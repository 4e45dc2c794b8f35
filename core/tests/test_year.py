"""The year: rooms against steady networks solved here, sums by hand, and laws that hold for every year."""

import unittest
from dataclasses import replace
from datetime import date

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray

from core.tests.rooms import CLIMATE, DAY, room
from core.tests.test_air_system import building
from pendrum_core.model.plant import CHILLER, WATER_CHILLER, PlantUnit, Rejection
from pendrum_core.model.rooms import HumidityLimits, Room
from pendrum_core.model.unit_parts import COOLING_COIL, FAN, FILTER, HEATING_COIL, STEAM, UnitPart
from pendrum_core.model.year import YearCourse, YearDrawnAir, YearGain, YearRoom, always
from pendrum_core.moist_air import humidity_ratio_from_relative, specific_volume_m3_kg
from pendrum_core.run import calculate
from pendrum_core.weather.year import WeatherYear
from pendrum_core.year.comfort import adaptive_hours, running_mean_c
from pendrum_core.year.energy import building_year
from pendrum_core.year.rooms import Stream
from pendrum_core.year.sky import YearSky
from pendrum_core.year.tariff import Band, Tariff, bills, emissions_kg, in_blocks
from pendrum_core.year.together import rooms_year

HOURS = 8760
Array = NDArray[np.float64]


def weather(dry_bulb_c: Array, sun: Array | None = None, year: int = 2027, latitude: float = 46.0) -> WeatherYear:
    count = len(dry_bulb_c)
    even, dark = np.ones(count), np.zeros(count)
    shine = dark if sun is None else sun
    return WeatherYear(
        year, latitude, 10.0, 1.0, 150.0, dry_bulb_c, 0.5 * even, 99_500.0 * even, 2.0 * even, shine, dark, shine
    )


def swinging(hours: int = HOURS, latitude: float = 46.0, year: int = 2027) -> WeatherYear:
    """Seasons and days, with an even sky by day."""
    at = np.arange(hours)
    season = -np.cos(2 * np.pi * at / hours) * (1.0 if latitude > 0 else -1.0)
    day = -np.cos(2 * np.pi * (at % 24 - 3) / 24)
    return weather(11.0 + 12.0 * season + 5.0 * day, np.maximum(day, 0.0) * (150.0 + 60.0 * season), year, latitude)


def steady(of: Room, outdoor_c: float, air_c: float | None, rate_w_k: float = 0.0, supply_c: float = 0.0) -> float:
    """Heat that holds the air at `air_c`, or the air without any: a network of faces and one radiant node [W or °C]."""
    faces = [e for e in of.elements if e.boundary.kind != "adiabatic"]
    closed = [e for e in of.elements if e.boundary.kind == "adiabatic"]
    radiation, outside = CLIMATE.coefficients.radiation_inside, CLIMATE.coefficients.outside
    pull = 0.5 * CLIMATE.coefficients.radiation_outside * CLIMATE.coefficients.sky_depression_k / outside  # of walls
    n = len(faces) + len(closed)
    left, right = np.zeros((n + 2, n + 2)), np.zeros(n + 2)  # faces, radiant node, air
    for row, e in enumerate([*faces, *closed]):
        u, there = 0.0, 0.0
        if e.boundary.kind == "outdoors":
            u, there = 1.0 / (sum(layer.resistance_m2k_w for layer in e.layers) + 1.0 / outside), outdoor_c - pull
        elif e.boundary.kind != "adiabatic":
            b = e.boundary
            u = 1.0 / (sum(layer.resistance_m2k_w for layer in e.layers) + b.extra_resistance_m2k_w)
            there = b.temperature_c if b.kind == "temperature" else of.heating_setpoint_c - b.heating_difference_k
        hc = e.convection_w_m2k
        left[row, row], left[row, n], left[row, n + 1] = hc + radiation + u, -radiation, -hc
        right[row] = u * there
        left[n, row], left[n, n] = -e.area_m2 * radiation, left[n, n] + e.area_m2 * radiation
        left[n + 1, row], left[n + 1, n + 1] = -e.area_m2 * hc, left[n + 1, n + 1] + e.area_m2 * hc
    leak = of.infiltration_m3_s * YearSky.of(weather(np.zeros(24)), CLIMATE).air_heat_j_m3k
    left[n + 1, n + 1] += leak + rate_w_k
    right[n + 1] = leak * outdoor_c + rate_w_k * supply_c
    if air_c is None:
        return float(np.linalg.solve(left, right)[n + 1])
    known = np.linalg.solve(left[: n + 1, : n + 1], right[: n + 1] - left[: n + 1, n + 1] * air_c)
    return float(left[n + 1, : n + 1] @ known + left[n + 1, n + 1] * air_c - right[n + 1])


def bare(**more: object) -> YearRoom:
    """Heated to 20 °C, without gains."""
    return YearRoom(**{"room": room(), "gains": (), "heating": always(20.0), "cooling": None, **more})


class SteadyYears(unittest.TestCase):
    """Weather that never changes: what the year says is a sum by hand."""

    def setUp(self) -> None:
        self.sky = YearSky.of(weather(np.full(HOURS, -9.0)), CLIMATE)

    def test_heating_is_the_networks_and_the_winter_days(self) -> None:
        found = rooms_year([bare()], self.sky)["r"]
        wanted = steady(room(), -9.0, 20.0)
        self.assertAlmostEqual(float(found.heating_w.mean(dtype=float)), wanted, delta=1e-3 * wanted)
        self.assertLess(float(np.ptp(found.heating_w)), 1e-3 * wanted)
        designed = calculate(building()).rooms["r0"]
        zero = rooms_year([bare(room=designed.room)], self.sky)["r0"]
        self.assertAlmostEqual(
            float(zero.heating_w[100]), designed.heating.load_w, delta=1e-6 * designed.heating.load_w + 0.01
        )

    def test_air_without_plant_and_under_supply_air(self) -> None:
        free = rooms_year([bare(heating=None)], self.sky)["r"]
        self.assertAlmostEqual(float(free.air_c[500]), steady(room(), -9.0, None), delta=0.01)
        stream = Stream(np.full(HOURS, 60.0), np.full(HOURS, 16.0))
        under = rooms_year([bare(heating=None)], self.sky, streams={"r": stream})["r"]
        self.assertAlmostEqual(float(under.air_c[500]), steady(room(), -9.0, None, 60.0, 16.0), delta=0.01)
        held = rooms_year([bare()], self.sky, streams={"r": stream})["r"]
        wanted = steady(room(), -9.0, 20.0, 60.0, 16.0)
        self.assertAlmostEqual(float(held.heating_w[500]), wanted, delta=1e-3 * wanted)
        self.assertAlmostEqual(held.balance_kwh["supply air"], 60.0 * (16.0 - 20.0) * HOURS / 1e3, delta=3.0)

    def test_plant_that_is_too_small_gives_all_it_has(self) -> None:
        small = rooms_year([bare(heating_w=300.0)], self.sky)["r"]
        self.assertTrue(np.allclose(small.heating_w, 300.0))
        self.assertEqual(small.unmet_heating_h, HOURS)
        self.assertAlmostEqual(small.missed_heating_kh, float((20.0 - small.air_c.astype(float)).sum()), delta=1.0)


class ChangingYears(unittest.TestCase):
    def test_sources_add_up_and_scale(self) -> None:
        sky = YearSky.of(swinging(), CLIMATE)
        gains = (YearGain("lights", 200.0, 0.5, YearCourse((DAY,), (0,) * 365)),)
        one, two = (
            rooms_year([bare(room=room(scale=s), cooling=always(25.0), gains=tuple(replace(g, sensible_w=s * g.sensible_w) for g in gains))], sky)["r"]
            for s in (1.0, 2.0)
        )  # fmt: skip
        through = sum(abs(value) for value in one.balance_kwh.values())
        self.assertLess(abs(one.open_kwh), 1e-3 * through)
        np.testing.assert_allclose(2.0 * one.heating_w, two.heating_w, atol=1.0)
        # 200 W by the pattern's mean: (4 + 1 x 0.4 + 5 + 6 x 0.05) / 24 of it.
        self.assertAlmostEqual(one.balance_kwh["lights"], 200.0 * (4 + 0.4 + 5 + 0.3) / 24 * 8.76, delta=0.01)

    @settings(max_examples=6, deadline=None)
    @given(low=st.floats(14.0, 20.0), setback=st.floats(1.0, 6.0))
    def test_a_lower_set_point_never_takes_more(self, low: float, setback: float) -> None:
        sky = YearSky.of(swinging(), CLIMATE)
        warm = rooms_year([bare(heating=always(low + setback))], sky)["r"]
        cool = rooms_year([bare(heating=always(low))], sky)["r"]
        self.assertLessEqual(cool.heating_kwh, warm.heating_kwh + 1e-6)
        self.assertGreaterEqual(float(cool.air_c.min()), low - 0.01)

    def test_drawn_air_cools_down_to_its_limit_only(self) -> None:
        sky = YearSky.of(swinging(), CLIMATE)
        drawn = YearDrawnAir(0.1, 24.0, 0.5, True, always(1.0))
        warm = (YearGain("equipment", 500.0, 0.3, always(1.0)),)
        shut = rooms_year([bare(heating=None, gains=warm)], sky)["r"]
        aired = rooms_year([bare(heating=None, gains=warm, drawn=drawn)], sky)["r"]
        self.assertTrue((aired.air_c <= shut.air_c + 0.01).all())
        self.assertLess(float(aired.air_c.max()), float(shut.air_c.max()) - 1.0)
        self.assertEqual(float(np.abs(aired.drawn_w[shut.air_c < 23.0]).max()), 0.0)

    def test_the_south_and_leap_years(self) -> None:
        south = YearSky.of(swinging(latitude=-34.0), CLIMATE)
        found = rooms_year([bare()], south)["r"]
        month = south.weather.month_of
        self.assertGreater(found.heating_w[month == 7].sum(), 3.0 * found.heating_w[month == 1].sum())
        leap = YearSky.of(swinging(8784, year=2028), CLIMATE)
        long = rooms_year([bare(heating=always(20.0, 366))], leap)["r"]
        self.assertEqual((len(long.air_c), int((leap.weather.month_of == 2).sum())), (8784, 29 * 24))


class Buildings(unittest.TestCase):
    def setUp(self) -> None:
        self.sky = YearSky.of(swinging(), CLIMATE)
        base = building(supply_rule="fixed", supply_c=14.0)
        chilled, heating = base.circuits
        machine = PlantUnit("uc", "Chiller", CHILLER, None, 1.2, 4.3, 2.9, 5.6, 3.6, fuel="electricity")
        boiler = PlantUnit("uh", "Boiler", "boiler", None, 1.2, 1.04, 0.97, 1.08, 0.98)
        self.circuits = (replace(chilled, units=(machine,)), replace(heating, units=(boiler,)))
        self.results = calculate(replace(base, circuits=self.circuits))
        day = YearCourse((DAY,), (0,) * 365)
        self.years = [
            YearRoom(r, (YearGain("lights", 160.0, 0.5, day),), always(20.0), always(24.0), people=day)
            for r in self.results.building.rooms
        ]
        self.found = building_year(self.results, self.years, self.sky, {}, {})

    def test_systems_close_and_plant_carries_what_circuits_ask(self) -> None:
        self.assertEqual(self.found.faults, ())
        system = self.found.systems["s"]
        self.assertLess(system.balance, 1e-6)
        chilled = self.circuits[0]
        friction = self.results.circuits["c"].pump.shaft_w
        asked = system.cooling_w * (1.0 + chilled.loss_share) + np.where(system.cooling_w > 0.0, friction, 0.0)
        given_ = self.found.output_w["c", "uc"].astype(float) + self.found.unmet_w["c"]
        np.testing.assert_allclose(given_, asked, atol=1.0)

    def test_a_humidifier_keeps_the_lower_limit(self) -> None:
        """What it adds is what outdoor air and leaks take out, less what people give; where it adds, the return stands at its limit."""
        base = self.results.building
        limited = tuple(replace(r, humidity=HumidityLimits(0.4, None)) for r in base.rooms)
        parts = (UnitPart(FILTER), UnitPart(HEATING_COIL), UnitPart(COOLING_COIL), UnitPart(STEAM), UnitPart(FAN))
        system = replace(base.systems[0], parts=parts)
        results = calculate(replace(base, rooms=limited, systems=(system,)))
        cold = np.full(HOURS, -2.0)
        sky = YearSky.of(replace(weather(cold), relative_humidity=np.full(HOURS, 0.8)), CLIMATE)
        years = [replace(year, room=r) for year, r in zip(self.years, limited, strict=True)]
        found = building_year(results, years, sky, {}, {})
        of_system = found.systems["s"]
        self.assertLess(of_system.balance, 1e-6)
        pressure = results.systems["s"].pressure_pa
        air = np.stack([found.rooms[r.id].air_c for r in limited]).astype(float)
        wanted = np.asarray(humidity_ratio_from_relative(air, 0.4, pressure)).max(axis=0)
        outside = float(humidity_ratio_from_relative(-2.0, 0.8, pressure))
        volume = float(specific_volume_m3_kg(20.0, 0.0, pressure))
        leak = sum(r.infiltration_m3_s for r in limited) / volume
        taken = (of_system.outdoor_kg_s + leak) * (wanted - outside)
        self.assertGreater(float(of_system.water_kg_s.min()), 0.0)
        np.testing.assert_allclose(of_system.water_kg_s, taken, rtol=0.02)
        steam = found.energy_w["humidifying", "electricity"].astype(float)
        np.testing.assert_allclose(steam, of_system.water_kg_s * 2.6756e6, rtol=1e-4)
        np.testing.assert_array_equal(found.water_kg_s["humidifier", "s"], of_system.water_kg_s.astype(np.float32))

    def test_water_of_a_tower_carries_the_heat_that_its_air_does_not(self) -> None:
        """Evaporating a kilogram takes some 2.45 MJ; in hot weather that is nearly all of the heat, in cold weather less of it."""
        chilled, heating = self.circuits
        wet = replace(chilled.units[0], kind=WATER_CHILLER)
        circuits = (replace(chilled, units=(wet,), rejection=Rejection(cycles=4.0)), heating)
        results = calculate(replace(self.results.building, circuits=circuits))
        found = building_year(results, self.years, self.sky, {}, {})
        self.assertEqual(set(found.water_kg_s), {("tower", "c")})
        evaporated = found.water_kg_s["tower", "c"].astype(float) * 3.0 / 4.0
        rejected = found.output_w["c", "uc"].astype(float) + found.energy_w["cooling", "electricity"].astype(float)
        on = rejected > 500.0
        self.assertGreater(int(on.sum()), 100)
        self.assertTrue((evaporated[~(rejected > 1e-3)] == 0.0).all())
        share = evaporated[on] * 2.45e6 / rejected[on]
        self.assertGreater(float(share.min()), 0.3)
        self.assertLess(float(share.max()), 1.35)
        warm = share[self.sky.dry_bulb_c[on] > 20.0]
        self.assertGreater(float(warm.mean()), float(share[self.sky.dry_bulb_c[on] < 10.0].mean()))

    def test_lights_by_hand_and_no_cold_is_lost(self) -> None:
        lights = float(self.found.energy_w["lights", "electricity"].sum(dtype=float)) / 1e3
        self.assertAlmostEqual(lights, 3 * 160.0 * (4 + 0.4 + 5 + 0.3) / 24 * 8.76, delta=0.1)
        self.assertNotIn(("cooling", "cold without a plant"), self.found.energy_w)
        # The chiller takes less than it gives, the boiler more.
        gas = sum(
            w.sum(dtype=float) for (use, c), w in self.found.energy_w.items() if (use, c) == ("heating", "natural gas")
        )
        self.assertGreater(gas, float(self.found.output_w["h", "uh"].sum(dtype=float)))

    def test_lights_into_the_return_air_are_paid_for_and_not_lost(self) -> None:
        """Half of their heat into the return: the same electricity; the coil still gets it, the rooms are no warmer for it."""
        day = YearCourse((DAY,), (0,) * 365)
        half = YearGain("lights", 80.0, 0.5, day)
        years = [replace(year, gains=(half,), return_gains=(half,)) for year in self.years]
        moved = building_year(self.results, years, self.sky, {}, {})
        total = [float(one.energy_w["lights", "electricity"].sum(dtype=float)) for one in (self.found, moved)]
        self.assertAlmostEqual(total[1] / total[0], 1.0, places=5)
        self.assertLess(moved.systems["s"].balance, 1e-6)
        for identity, found in moved.asked.items():
            self.assertLess(float(found.cooling_w.sum()), float(self.found.asked[identity].cooling_w.sum()))

    def test_loads_outside_the_rooms_are_metered_and_heat_nothing(self) -> None:
        lift = np.where(np.arange(HOURS) % 24 == 9, 3000.0, 0.0)
        found = building_year(self.results, self.years, self.sky, {}, {}, connected=[("lifts", lift), ("lifts", lift)])
        self.assertAlmostEqual(
            float(found.energy_w["lifts", "electricity"].sum(dtype=float)), 2 * 365 * 3000.0, places=1
        )
        for identity, year in self.found.rooms.items():
            np.testing.assert_array_equal(found.rooms[identity].air_c, year.air_c)

    def test_a_cancelled_year_stops(self) -> None:
        def tell(share: float, doing: str) -> None:
            if share > 0.3:
                raise KeyboardInterrupt

        with self.assertRaises(KeyboardInterrupt):
            building_year(self.results, self.years, self.sky, {}, {}, tell)


class Comfort(unittest.TestCase):
    def test_running_mean_day_by_day(self) -> None:
        """The recursion of EN 16798-1, run until the year's beginning does not matter."""
        hours = 15.0 + 10.0 * np.sin(np.arange(HOURS) / 400.0) + np.random.default_rng(3).normal(size=HOURS)
        days, lagged = hours.reshape(-1, 24).mean(axis=1), 0.0
        for _ in range(2):
            found = np.empty(365)
            for day in range(365):
                lagged = 0.2 * days[day - 1] + 0.8 * lagged
                found[day] = lagged
        np.testing.assert_allclose(running_mean_c(hours), found, atol=1e-9)

    def test_limits_by_hand(self) -> None:
        """At a running mean of 20 °C the middle is 25.4 °C; category II ends at 28.4 and 21.4 °C."""
        there = np.ones(24, dtype=bool)
        there[:4] = False
        operative = np.full(24, 25.0)
        operative[2:6], operative[10:13], operative[20] = 28.5, 21.3, 20.3
        found = adaptive_hours(operative, np.array([20.0]), there)
        self.assertEqual(found, {"I": (2, 4), "II": (2, 4), "III": (0, 1)})
        # Below 10 °C the upper limit stays at 25.1 °C and there is no lower one; above 30 °C the limits stay.
        self.assertEqual(adaptive_hours(operative, np.array([5.0]), there)["II"], (2, 0))
        hot = np.full(24, 0.33 * 30.0 + 18.8 + 3.1)
        self.assertEqual(adaptive_hours(hot, np.array([36.0]), there)["II"][0], 20)


class Bills(unittest.TestCase):
    def test_a_month_by_hand(self) -> None:
        """10 kW all year, 30 kW in the peak hours of 4 January 2027, a Monday; 8 to 12 h on weekdays cost more."""
        kw = np.full(HOURS, 10.0)
        kw[3 * 24 + 8 : 3 * 24 + 12] = 30.0
        peak = Band("peak", frozenset(range(1, 13)), frozenset(range(5)), 8, 12, 0.5)
        tariff = Tariff((peak,), 0.2, (), 6.0, ("peak",), 0.6, 1.0, 0.01, 0.19, 0.4)
        year = bills(tariff, kw, 2027)
        weekdays = sum(date(2027, 1, d).weekday() < 5 for d in range(1, 32))
        in_peak = weekdays * 4 * 10.0 + 4 * 20.0
        january = year[0]
        self.assertAlmostEqual(january.kwh["peak"], in_peak)
        self.assertAlmostEqual(january.energy, in_peak * 0.5 + (31 * 240.0 + 80.0 - in_peak) * 0.2)
        self.assertAlmostEqual(january.demand, 30.0 * 6.0)
        self.assertAlmostEqual(year[5].billed_kw, 0.6 * 30.0)  # its own 10 kW are below the ratchet
        self.assertAlmostEqual(january.standing, 31.0)
        self.assertAlmostEqual(january.tax, 0.19 * (january.energy + january.demand + january.standing + january.levy))
        self.assertAlmostEqual(emissions_kg(tariff, kw), 0.4 * kw.sum())

    def test_blocks_by_hand(self) -> None:
        """100 kWh at 0.3, 400 at 0.2, the rest at 0.1."""
        blocks = ((100.0, 0.3), (500.0, 0.2), (None, 0.1))
        for used, cost in ((50.0, 15.0), (100.0, 30.0), (300.0, 70.0), (800.0, 140.0)):
            self.assertAlmostEqual(in_blocks(blocks, used), cost)

    def test_refusals(self) -> None:
        with self.assertRaisesRegex(ValueError, "hours 12 to 8"):
            Band("odd", frozenset({1}), frozenset({0}), 12, 8, 0.1)
        with self.assertRaisesRegex(ValueError, "none of the tariff's bands"):
            bills(Tariff(demand_bands=("night",)), np.zeros(HOURS), 2027)
