"""Thermostats: against a plain march in time, an analytic room, and what must always hold."""

import math
import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from core.tests.plain_march import PlainRoom
from core.tests.rooms import CLIMATE, MONTHS, WALL, room
from pendrum_core.checks.results import result_snags
from pendrum_core.fabric.layers import Layer
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import CATEGORIES, Boundary, Element, Room
from pendrum_core.model.thermostats import NEVER_COOLED, NEVER_HEATED, NO_COOLING, NO_HEATING, DrawnAir, Thermostat
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.room.outcome.chunk import calculate_chunk
from pendrum_core.room.outcome.loads import RoomLoads, Unsound
from pendrum_core.room.thermostat.control import rises
from pendrum_core.room.thermostat.controlled import flat_out_h
from pendrum_core.run import Memory, calculate
from pendrum_core.schedule.pattern import CONSTANT_ONE, DayPattern, step_averages
from pendrum_core.working.explain import explain

ONE_MONTH = replace(CLIMATE, months=(MONTHS[6],))
OUTSIDE = outdoors(ONE_MONTH)
JULY = 0


def between(begin_h: float, end_h: float, inside: float, outside: float) -> DayPattern:
    """A value between two hours and another one outside them."""
    return DayPattern(((round(begin_h * 60), outside), (round(end_h * 60), inside), (1440, outside)))


def always(value: float) -> DayPattern:
    return DayPattern(((1440, value),))


def thermostat(**changes) -> Thermostat:
    """Heated to 20 °C and cooled to 24 °C from 7 to 18 h, 16 and 28 °C else."""
    usual = {
        "heating": (between(7, 18, 20.0, 16.0),) * 12,
        "cooling": (between(7, 18, 24.0, 28.0),) * 12,
        "winter": between(7, 18, 20.0, 16.0),
    }
    return Thermostat(**(usual | changes))


def result(subject: Room, **changes) -> RoomLoads:
    found = calculate_chunk([replace(subject, thermostat=thermostat(**changes))], OUTSIDE)[0]
    assert not isinstance(found, Unsound), found.reason
    return found


def keeps(low: np.ndarray, high: np.ndarray, most: float = math.inf):
    """A controller of the plain march: gives what the set-points ask, at most so much."""

    def plant(step: int, sensed: float, answer: float) -> float:
        wanted = max((low[step] - sensed) / answer, 0.0) + min((high[step] - sensed) / answer, 0.0)
        return min(max(wanted, -most), most)

    return plant


class AgainstThePlainMarch(unittest.TestCase):
    def test_an_emitter_that_radiates(self) -> None:
        """Limited power at a setback: the share on the faces comes back late, and some of it goes out through them."""
        low, high = [float(x) for x in step_averages(between(7, 18, 20.0, 16.0))], [math.inf] * 144
        for weight in (0.0, 0.5):
            with self.subTest(weight=weight):
                subject = replace(room(), heating_radiant_share=0.5)
                found = result(subject, heating_capacity_w=1500.0, radiant_weight=weight)
                plain = PlainRoom(subject, OUTSIDE)
                want = plain.run(JULY, keeps(low, high, 1500.0), winter=True, radiant_weight=weight, radiant_plant=0.5)
                self.compare(found, want, winter=True)
                in_air = result(
                    replace(subject, heating_radiant_share=0.0), heating_capacity_w=1500.0, radiant_weight=weight
                )
                self.assertGreater(np.abs(found.control.winter.air_c - in_air.control.winter.air_c).max(), 0.3)

    def compare(self, found: RoomLoads, want: tuple, winter: bool = False, kelvin: float = 0.1) -> None:
        """Temperatures everywhere, closely away from the steps in which the plant starts or a set-point jumps; power there.

        The march's own steps of 100 s are what is left: with 20 s the differences are a fifth.
        """
        day = found.control.winter if winter else found.control.summer
        plant, means, _ = want
        self.assertLess(np.abs(day.air_c[0] - means).max(), kelvin)
        busy = np.abs(plant - np.roll(plant, 1)) > 0.1 * np.abs(plant).max()
        calm = ~(busy | np.roll(busy, 1) | np.roll(busy, -1))
        self.assertGreater(calm.sum(), 60)
        self.assertLess(np.abs(day.air_c[0] - means)[calm].max(), 0.06)
        self.assertLess(np.abs(day.plant_w[0] - plant)[calm].max(), 0.015 * np.abs(plant).max())
        self.assertAlmostEqual(day.plant_w[0].sum() / plant.sum(), 1.0, delta=0.01)

    def test_set_up_and_limited_cooling(self) -> None:
        """700 W are too little: the room floats above its set-point in the afternoon."""
        found = result(room(), cooling_capacity_w=700.0)
        day = found.control.summer
        plain = PlainRoom(room(), OUTSIDE)
        want = plain.run(JULY, keeps(day.low_c[0], day.high_c[0], 700.0))
        self.compare(found, want)
        self.assertAlmostEqual(found.cooling.sensible_w, 700.0, places=6)
        missed = day.too_warm()
        self.assertAlmostEqual(missed.kelvin, (want[2] - day.high_c[0]).max(), delta=0.1)
        self.assertAlmostEqual(missed.hours, (want[2] > day.high_c[0] + 0.05).sum() / 6, delta=0.35)
        self.assertAlmostEqual(flat_out_h(day.plant_w[0], 700.0), (want[0] < -699.9).sum() / 6, delta=0.35)

    def test_a_heating_programme_leaves_cooling_alone(self) -> None:
        """Cooling held at 24 °C: whatever heating is told, with warm-ups or without, a summer day's load stays as it is."""
        programme = DayPattern(((360, 16.0), (540, 20.0), (750, 21.0), (840, 20.0), (1080, 21.0), (1440, 18.0)))
        held = {"cooling": (always(24.0),) * 12}
        plain = result(room(), heating=(always(16.0),) * 12, **held)
        for course in (programme, between(7, 18, 20.0, 16.0)):
            for hours in (0.0, 2.0, 3.0):
                found = result(room(), heating=(course,) * 12, warm_up_h=hours, **held)
                self.assertAlmostEqual(found.cooling.sensible_w / plain.cooling.sensible_w, 1.0, delta=1e-4)
                self.assertIsNone(found.control.summer.too_warm())

    def test_the_first_hour_of_a_pull_down(self) -> None:
        """From 28 to 24 °C at once: the hour's mean within 2 % of a march in steps of 5 s, and so is its first step."""
        found = result(room())
        day = found.control.summer
        want, _, _ = PlainRoom(room(), OUTSIDE, 5.0).run(JULY, keeps(day.low_c[0], day.high_c[0]), days=20)
        hour = slice(42, 48)
        self.assertAlmostEqual(day.plant_w[0][hour].mean() / want[hour].mean(), 1.0, delta=0.02)
        self.assertAlmostEqual(day.plant_w[0][42] / want[42], 1.0, delta=0.02)
        # With half an hour for it the capacity is less, and the set-point is met when it begins.
        given = result(room(), pull_down_h=0.5)
        self.assertLess(given.cooling.sensible_w, 0.9 * found.cooling.sensible_w)
        self.assertLess(given.control.summer.sensed_c[0][41], 24.0 + 1e-3)

    def test_operative_sensing(self) -> None:
        found = result(room(), radiant_weight=0.5)
        day = found.control.summer
        want = PlainRoom(room(), OUTSIDE).run(JULY, keeps(day.low_c[0], day.high_c[0]), radiant_weight=0.5)
        # At the jump itself the march's shorter steps pull the air down within the step.
        self.compare(found, want, kelvin=0.9)
        held = found.total[0] > 50.0
        held &= np.roll(held, 1)
        self.assertLess(np.abs(day.operative_c[0] - 24.0)[held].max(), 0.05)
        # Warm faces are made up for by colder air: but for the pull-down itself, that takes more.
        self.assertGreater(found.total[0][held].max(), result(room()).total[0][held].max())

    def test_windows_opened_by_temperature(self) -> None:
        flow, above, band = 0.12, 22.0, 2.0
        device = DrawnAir(flow, above, band, True, (between(9, 20, 1.0, 0.0),) * 12)
        found = result(replace(room(), cooled=False), heating=NEVER_HEATED, cooling=NEVER_COOLED, drawn_air=device)
        out = OUTSIDE.dry_bulb_c[JULY]

        def drawn(step: int, air_c: float) -> float:
            share = min(max((air_c - above) / band, 0.0), 1.0) if 54 <= step < 120 and out[step] < air_c else 0.0
            return flow * OUTSIDE.air_heat_j_m3k * share * (out[step] - air_c)

        _, means, _ = PlainRoom(room(), OUTSIDE, 50.0).run(JULY, lambda *_: 0.0, drawn=drawn)
        day = found.control.summer
        self.assertLess(np.abs(day.air_c[0] - means).max(), 0.15)
        self.assertAlmostEqual(found.floating_peak_c, means.max(), delta=0.08)
        self.assertIsNone(found.cooling)
        self.assertLess(day.drawn_w.min(), -100.0)

    def test_warm_up_capacity_brings_the_air_just_there(self) -> None:
        """The plain march with the capacity found here: at 7 h the air is at its set-point, not before and not after."""
        subject = room()
        found = result(subject, warm_up_h=2.0)
        day = found.control.winter
        capacity = found.heating.load_w
        self.assertLess(np.ptp(day.plant_w[0, 30:42]), 1e-6)
        self.assertAlmostEqual(day.plant_w[0, 30], capacity, places=6)
        low = day.low_c[0].copy()
        low[30:42] = 20.0
        want = PlainRoom(subject, OUTSIDE).run(0, keeps(low, day.high_c[0], capacity), winter=True)
        self.compare(found, want, winter=True)
        self.assertAlmostEqual(want[2][41], 20.0, delta=0.03)
        self.assertLess(want[2][40], 19.97)


def light_room() -> Room:
    """One wall without mass: a room of one node, whose course is an exponential."""
    pane = (Layer("pane", plain_resistance_m2k_w=0.5),)
    wall = Element("w", "wall", "walls", 40.0, pane, 2.5, Boundary("outdoors", 90.0, 180.0, 0.0))
    return replace(room(), elements=(wall,), windows=(), gains=())


class OneNode(unittest.TestCase):
    def test_warm_up_of_an_exponential(self) -> None:
        """Off for eleven hours, two hours to warm up: T falls and rises by exp(-t/tau) towards its two ends."""
        subject = light_room()
        steady = calculate_chunk([subject], OUTSIDE)[0].heating.load_w
        u = steady / (20.0 - self.outdoor_c())
        found = result(subject, winter=between(7, 18, 20.0, NO_HEATING), warm_up_h=2.0)
        tau_h = subject.capacity_j_k / u / 3600.0
        cooled = self.outdoor_c() + (20.0 - self.outdoor_c()) * math.exp(-11.0 / tau_h)
        left = math.exp(-2.0 / tau_h)
        goal = (20.0 - self.outdoor_c() - (cooled - self.outdoor_c()) * left) / (1.0 - left)
        self.assertAlmostEqual(found.heating.load_w / (u * goal), 1.0, delta=1e-5)

    def test_a_free_room_settles_outdoors(self) -> None:
        found = result(light_room(), winter=always(NO_HEATING), warm_up_h=2.0)
        self.assertAlmostEqual(float(found.control.winter.air_c[0, 0]), self.outdoor_c(), places=4)
        self.assertEqual(found.heating.load_w, 0.0)

    def outdoor_c(self) -> float:
        """Where a room without heating ends: the mean of air and sky-cooled wall by their conductances."""
        subject = light_room()
        c = CLIMATE.coefficients
        wall = 40.0 / (0.5 + 1.0 / c.outside + 1.0 / 2.5)
        leak = subject.infiltration_m3_s * OUTSIDE.air_heat_j_m3k
        sky = CLIMATE.winter_dry_bulb_c - 0.5 * c.radiation_outside * 11.0 / c.outside
        return (wall * sky + leak * CLIMATE.winter_dry_bulb_c) / (wall + leak)


class Rules(unittest.TestCase):
    def test_warm_up_stops_at_a_time_that_is_warm_already(self) -> None:
        low = np.full(144, 16.0)
        low[48:60], low[63:120] = 20.0, 20.0
        self.assertEqual(rises(low, 12), [(36, 12, 20.0), (60, 3, 20.0)])
        self.assertEqual(rises(np.where(np.arange(144) < 6, 20.0, 16.0), 12), [(132, 12, 20.0)])
        self.assertEqual(rises(np.full(144, 20.0), 12), [])

    def test_allowance_in_place_of_a_warm_up(self) -> None:
        found = result(room(), reheat_w_m2=11.0, warm_up_h=2.0)
        held = calculate_chunk([room()], OUTSIDE)[0].heating.load_w
        self.assertAlmostEqual(found.heating.load_w, held + 11.0 * 20.0, delta=1e-3)

    def test_parts_add_up_with_storage(self) -> None:
        found = result(room(), warm_up_h=2.0, pull_down_h=1.0)
        self.assertLess(np.abs(found.parts.sum(axis=0) - found.total).max(), 1e-6 * found.total.max())
        self.assertAlmostEqual(sum(found.heating.parts_w), found.heating.load_w, places=6)
        storage = found.parts[CATEGORIES.index("storage")]
        # Over a day nothing is kept: what the fabric takes up it gives back, or loses more or less to outdoors.
        self.assertGreater(storage.max(), 50.0)
        self.assertLess(storage.min(), -50.0)

    def test_constant_set_points_never_reached_by_heating_are_the_held_room(self) -> None:
        """Where the room asks for cooling at every step, a thermostat and a held room are the same."""
        busy = room(people=1500.0)
        busy = replace(busy, gains=tuple(replace(gain, pattern=CONSTANT_ONE) for gain in busy.gains))
        held = calculate_chunk([busy], OUTSIDE)[0]
        self.assertGreater(held.total.min(), 0.0)
        found = result(busy, heating=(always(20.0),) * 12, cooling=(always(24.0),) * 12, winter=always(20.0))
        self.assertLess(np.abs(found.total - held.total).max(), 0.01 * held.total.max())
        self.assertAlmostEqual(found.heating.load_w / held.heating.load_w, 1.0, delta=1e-6)

    def test_months_of_a_season_without_cooling(self) -> None:
        by_month = tuple(always(24.0 if 4 <= m <= 9 else NO_COOLING) for m in range(12))
        found = calculate_chunk([replace(room(), thermostat=thermostat(cooling=by_month))], outdoors(CLIMATE))[0]
        self.assertEqual(float(np.maximum(found.total[:4], 0.0).max()), 0.0)
        self.assertGreater(found.total[5].max(), 100.0)


class Always(unittest.TestCase):
    @settings(max_examples=12, deadline=None)
    @given(st.floats(100, 3000), st.floats(0, 359), st.floats(0.0, 3.0), st.sampled_from([0.0, 0.3, 0.5]))
    def test_no_plant_gives_more_than_it_can(self, most: float, azimuth: float, hours: float, weight: float) -> None:
        found = result(
            room(azimuth=azimuth), cooling_capacity_w=most, heating_capacity_w=most / 2, warm_up_h=hours,
            pull_down_h=hours, radiant_weight=weight,
        )  # fmt: skip
        for day in (found.control.summer, found.control.winter):
            self.assertLessEqual(day.plant_w.max(), most / 2 * (1 + 1e-9))
            self.assertGreaterEqual(day.plant_w.min(), -most * (1 + 1e-9))

    @settings(max_examples=8, deadline=None)
    @given(st.floats(22, 27), st.floats(0.2, 2.0), st.floats(0, 359))
    def test_a_lower_set_point_never_lowers_the_load(self, high: float, less: float, azimuth: float) -> None:
        loads = [
            result(room(azimuth=azimuth), cooling=(between(7, 18, c, 30.0),) * 12).cooling.sensible_w
            for c in (high, high - less)
        ]
        self.assertGreaterEqual(loads[1], loads[0] * (1 - 1e-9))

    def test_twice_the_room_twice_the_load(self) -> None:
        one, two = result(room(), warm_up_h=1.5), result(room(scale=2.0), warm_up_h=1.5)
        self.assertAlmostEqual(two.cooling.sensible_w / one.cooling.sensible_w, 2.0, places=5)
        self.assertAlmostEqual(two.heating.load_w / one.heating.load_w, 2.0, places=5)

    def test_rooms_beside_it_do_not_matter(self) -> None:
        rooms = [replace(room(name=f"r{i}", azimuth=40.0 * i), thermostat=thermostat(warm_up_h=1.0)) for i in range(5)]
        together = calculate_chunk(rooms, OUTSIDE)
        for subject, found in zip(rooms, together, strict=True):
            alone = calculate_chunk([subject], OUTSIDE)[0]
            self.assertLess(np.abs(alone.total - found.total).max(), 1e-4 * alone.total.max())


class Followers(unittest.TestCase):
    def test_a_sunny_follower_falls_short_of_a_shaded_leader(self) -> None:
        leader = replace(room("north", 0.0), thermostat=thermostat())
        sunny = replace(room("west", 260.0), thermostat=thermostat(leader="north", cooling_capacity_w=600.0))
        memory = Memory()
        found = calculate(Building(ONE_MONTH, (leader, sunny)), memory).rooms
        own, led = found["north"].control.summer, found["west"].control.summer
        share = -own.plant_w / found["north"].cooling.sensible_w
        self.assertLess(np.abs(-led.plant_w - 600.0 * np.maximum(share, 0.0)).max(), 1e-6)
        plain = PlainRoom(sunny, OUTSIDE)
        _, means, _ = plain.run(JULY, lambda step, *_: float(led.plant_w[0, step]))
        self.assertLess(np.abs(led.air_c[0] - means).max(), 0.1)
        self.assertGreater(led.too_warm().kelvin, 0.3)
        again = calculate(Building(ONE_MONTH, (leader, sunny)), memory)
        self.assertIs(again.rooms["west"], found["west"])
        moved = replace(leader, thermostat=thermostat(cooling=(always(26.0),) * 12))
        self.assertIsNot(calculate(Building(ONE_MONTH, (moved, sunny)), memory).rooms["west"], found["west"])

    def test_without_its_leader_a_room_uses_its_own_sensor(self) -> None:
        alone = replace(room("west", 260.0), thermostat=thermostat(leader="nowhere"))
        found = calculate(Building(ONE_MONTH, (alone,))).rooms["west"]
        self.assertIsNone(found.control.summer.too_warm())


class HeavyRoom(unittest.TestCase):
    def test_it_settles(self) -> None:
        """Days of memory: thick insulated mass, short plant hours."""
        heavy = tuple(replace(layer, thickness_m=layer.thickness_m * 3) for layer in WALL)
        subject = room()
        subject = replace(
            subject, elements=tuple(replace(e, layers=heavy) if e.layers is WALL else e for e in subject.elements)
        )
        found = result(subject, cooling=(between(12, 13, 24.0, NO_COOLING),) * 12, warm_up_h=4.0)
        self.assertGreater(found.cooling.sensible_w, 0.0)


class WithoutCooling(unittest.TestCase):
    def test_the_warmth_is_explained_by_source(self) -> None:
        """Hottest air: reference and what each source makes of it, whether the room floats or has a heating thermostat."""
        floats = replace(room("f"), cooled=False)
        kept = replace(floats, id="k", thermostat=thermostat(cooling=NEVER_COOLED))
        found = calculate(Building(ONE_MONTH, (floats, kept)))
        for name in ("f", "k"):
            tree = explain(found, "room_temperature", name)
            self.assertAlmostEqual(tree.value, found.rooms[name].floating_peak_c, places=6)
            self.assertAlmostEqual(sum(node.value for node in tree.inputs), tree.value, delta=0.02)
            # Its heating is explained as well.
            self.assertGreater(explain(found, "room_heating", name).value, 100.0)
        with self.assertRaises(KeyError):
            explain(calculate(Building(ONE_MONTH, (room(),))), "room_temperature", "r")

    def test_hours_above_the_limit_of_the_use(self) -> None:
        hot = replace(room(), cooled=False)
        air = PlainRoom(hot, OUTSIDE).run(JULY, lambda *_: 0.0)[1]
        limit = float(np.sort(air)[100]) + 0.02
        found = calculate(Building(ONE_MONTH, (replace(hot, warm_limit_c=limit),)))
        self.assertAlmostEqual(found.rooms["r"].too_warm_h()[0], (air > limit).sum() / 6, delta=0.35)
        self.assertIn("too_warm", {snag.code for snag in result_snags(found, {})})
        fine = calculate(Building(ONE_MONTH, (replace(hot, warm_limit_c=60.0),)))
        self.assertNotIn("too_warm", {snag.code for snag in result_snags(fine, {})})
