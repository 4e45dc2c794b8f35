"""The room heat balance: against a plain march in time, a direct steady solution, and its own invariants."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from core.tests.plain_march import PlainRoom
from core.tests.rooms import CLIMATE, DAY, MONTHS, SLAB, WALL, room
from pendrum_core.fabric.layers import total_resistance
from pendrum_core.model.building import Building, Group
from pendrum_core.model.rooms import CATEGORIES, Room, Shading
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.room.outcome.chunk import TOLERANCE, calculate_chunk, differs_in_gains_only, recalculate_gains
from pendrum_core.room.outcome.together import group_day_w
from pendrum_core.run import Memory, calculate
from pendrum_core.schedule.pattern import step_averages

OUTSIDE = outdoors(CLIMATE)


class AgainstOtherMeans(unittest.TestCase):
    def test_a_plain_march_in_time(self) -> None:
        subject = room()
        found = calculate_chunk([subject], OUTSIDE)[0]
        month = found.cooling.month
        want = PlainRoom(subject, OUTSIDE).held(month)
        self.assertAlmostEqual(found.total[month].max() / want.max(), 1.0, delta=0.01)
        self.assertLessEqual(abs(int(found.total[month].argmax()) - int(want.argmax())), 1)
        self.assertLess(np.abs(found.total[month] - want).max(), 0.02 * want.max())

    def test_steady_winter_solved_directly(self) -> None:
        for share in (0.0, 0.3, 0.8):
            with self.subTest(radiant_share=share):
                self.check_winter(replace(room(), heating_radiant_share=share))

    def check_winter(self, subject: Room) -> None:
        """Faces and the emitter's power by one linear system; the emitter's radiant share falls onto the faces by area."""
        share, c = subject.heating_radiant_share, CLIMATE.coefficients
        area = np.array([e.area_m2 for e in subject.elements])
        n = len(area)
        matrix, right = np.zeros((n + 1, n + 1)), np.zeros(n + 1)
        for i, e in enumerate(subject.elements):
            b = e.boundary
            te = {
                "outdoors": CLIMATE.winter_dry_bulb_c - 0.5 * c.radiation_outside * 11.0 / c.outside,
                "temperature": b.temperature_c,
                "difference": 20.0 - b.heating_difference_k,
            }.get(b.kind)
            outer = 1.0 / c.outside if b.kind == "outdoors" else b.extra_resistance_m2k_w
            u = 0.0 if te is None else 1.0 / (total_resistance(e.layers) + outer)
            matrix[i, i] += u + e.convection_w_m2k + c.radiation_inside
            matrix[i, :n] -= c.radiation_inside * area / area.sum()
            matrix[i, n] = -share / area.sum()
            right[i] = u * (te or 0.0) + e.convection_w_m2k * 20.0
        hc = np.array([e.convection_w_m2k for e in subject.elements])
        matrix[n, :n], matrix[n, n] = area * hc, 1.0 - share
        right[n] = 20.0 * (area * hc).sum() + subject.infiltration_m3_s * OUTSIDE.air_heat_j_m3k * 29.0
        lost = np.linalg.solve(matrix, right)[n]
        found = calculate_chunk([subject], OUTSIDE)[0].heating
        self.assertAlmostEqual(found.load_w / lost, 1.0, delta=1e-9)
        self.assertAlmostEqual(sum(found.parts_w), found.load_w, places=6)


class Invariants(unittest.TestCase):
    @settings(max_examples=15, deadline=None)
    @given(azimuth=st.floats(0, 359), scale=st.floats(0.2, 20), people=st.floats(0, 5000), cooled=st.booleans())
    def test_parts_add_up_and_balance_closes(self, azimuth: float, scale: float, people: float, cooled: bool) -> None:
        found = calculate_chunk([room("a", azimuth, cooled, scale, people)], OUTSIDE)[0]
        self.assertLess(found.split_error, TOLERANCE)
        self.assertLess(found.balance_error, TOLERANCE)
        self.assertLess(np.abs(found.parts.sum(axis=0) - found.total).max(), 1e-6 * np.abs(found.total).max())

    def test_doubling_every_size_doubles_the_load(self) -> None:
        one, two = calculate_chunk([room("a"), room("b", scale=2.0)], OUTSIDE)
        self.assertLess(np.abs(two.total - 2 * one.total).max(), 1e-6 * one.total.max())

    def test_turning_the_building_with_the_sun_keeps_the_load(self) -> None:
        """At the pole the sun only goes round: a building turned by 90° has the same day six hours later, its shading as well.

        What is left is the sun's declination, which moves a little over the day.
        """
        months = tuple(replace(month, range_k=0.0) for month in MONTHS)
        pole = outdoors(replace(CLIMATE, months=months, site=replace(CLIMATE.site, latitude_deg=90.0)))
        shading = Shading(overhang_m=0.8, left_fin_m=0.5)

        def facing(azimuth: float) -> Room:
            plain = replace(room(f"r{azimuth}", azimuth), gains=())
            window = replace(plain.windows[0], width_m=2.0, height_m=1.0, shading=shading)
            return replace(plain, windows=(window,))

        first, later, less = calculate_chunk([facing(10.0), facing(100.0), facing(45.0)], pole)
        for month in (5, 6):
            course = first.total[month]
            self.assertGreater(np.ptp(course), 0.5 * course.max())
            for steps, other in ((36, later), (14, less)):
                away = np.abs(np.roll(course, steps) - other.total[month]).max()
                self.assertLess(away, 0.002 * course.max())

    def test_superposition(self) -> None:
        none, some, more = calculate_chunk([room("a", people=0), room("b", people=100), room("c", people=300)], OUTSIDE)
        self.assertLess(np.abs((more.total - none.total) - 3 * (some.total - none.total)).max(), 1e-6)

    def test_order_of_rooms_is_irrelevant(self) -> None:
        rooms = [room(f"r{i}", 40.0 * i, cooled=i % 3 > 0) for i in range(6)]
        forth = {r.room.id: r.total for r in calculate_chunk(rooms, OUTSIDE)}
        back = {r.room.id: r.total for r in calculate_chunk(rooms[::-1], OUTSIDE)}
        for key, total in forth.items():
            self.assertLess(np.abs(total - back[key]).max(), 1e-6)

    @settings(max_examples=10, deadline=None)
    @given(lower=st.floats(18, 24), by=st.floats(0.1, 6))
    def test_a_lower_set_point_never_lowers_the_load(self, lower: float, by: float) -> None:
        cold = replace(room("a"), cooling_setpoint_c=lower)
        warm = replace(room("b"), cooling_setpoint_c=lower + by)
        low, high = calculate_chunk([cold, warm], OUTSIDE)
        self.assertGreaterEqual((low.total - high.total).min(), -1e-6)

    def test_a_radiant_watt_arrives_whole_in_the_end(self) -> None:
        """Over a day a room with only adiabatic faces passes all its gain on to the air."""
        closed = replace(
            room(), windows=(), infiltration_m3_s=0.0,
            elements=tuple(replace(e, boundary=replace(e.boundary, kind="adiabatic"), category="neighbours",
                                   layers=SLAB if e.layers != WALL else WALL) for e in room().elements),
        )  # fmt: skip
        found = calculate_chunk([closed], OUTSIDE)[0]
        given_wh = sum(g.sensible_w for g in closed.gains) * step_averages(DAY).sum() / 6
        self.assertAlmostEqual(found.total[0].sum() / 6 / given_wh, 1.0, delta=1e-9)


class GainsAlone(unittest.TestCase):
    """A change of gains alone is worked out from what is known of the room, and is what a fresh calculation gives."""

    def test_same_as_fresh(self) -> None:
        rooms = [room(f"r{i}", 40.0 * i, cooled=i != 2) for i in range(5)]
        memory = Memory()
        calculate(Building(CLIMATE, tuple(rooms)), memory)
        busier = [
            replace(r, gains=tuple(replace(g, sensible_w=3 * g.sensible_w, latent_w=7.0) for g in r.gains))
            for r in rooms
        ]
        self.assertEqual(
            [differs_in_gains_only(memory.rooms[r.id], r) for r in busier], [True, True, False, True, True]
        )
        found = calculate(Building(CLIMATE, tuple(busier)), memory)
        fresh = calculate(Building(CLIMATE, tuple(busier)))
        for key, loads in found.rooms.items():
            want = fresh.rooms[key]
            self.assertLess(np.abs(loads.total - want.total).max(), 1e-6)
            self.assertLess(np.abs(loads.parts - want.parts).max(), 1e-6)
            self.assertEqual((loads.peak_month, loads.peak_step), (want.peak_month, want.peak_step))
            self.assertLess(loads.balance_error, 1e-9)
            np.testing.assert_allclose(loads.latent_w, want.latent_w)
        self.assertEqual(found.rooms_calculated, 5)

    def test_anything_else_is_calculated_whole(self) -> None:
        subject = room()
        kept = calculate_chunk([subject], OUTSIDE)[0]
        for other in (
            replace(subject, cooling_setpoint_c=25.0), replace(subject, infiltration_m3_s=0.1),
            replace(subject, elements=subject.elements[1:]), replace(subject, windows=()),
        ):  # fmt: skip
            self.assertFalse(differs_in_gains_only(kept, other))
        with np.errstate(all="ignore"):
            broken = replace(subject, gains=(replace(subject.gains[0], sensible_w=float("nan")),))
            self.assertIn("did not pass", recalculate_gains([kept], [broken], OUTSIDE)[0].reason)


class Unsound(unittest.TestCase):
    def test_an_impossible_room_stands_alone_and_the_others_are_calculated(self) -> None:
        good = room("good")
        bad = replace(room("bad"), infiltration_m3_s=float("nan"))
        both = Building(CLIMATE, (good, bad), (Group("all", "all", "building", ("good", "bad")),))
        with np.errstate(all="ignore"):
            results = calculate(both)
        self.assertEqual(set(results.rooms), {"good"})
        self.assertEqual([failure.id for failure in results.failures], ["bad"])
        self.assertIn("did not pass its check", results.failures[0].reason)
        self.assertEqual(results.groups["all"].room_ids, ("good",))


class Groups(unittest.TestCase):
    def setUp(self) -> None:
        self.rooms = tuple(room(f"r{i}", 90.0 * i) for i in range(4))
        self.building = Building(
            CLIMATE, self.rooms, (Group("all", "all", "building", tuple(r.id for r in self.rooms)),)
        )

    def test_coincident_peak(self) -> None:
        results = calculate(self.building)
        group = results.groups["all"]
        stacked = np.sum([np.maximum(results.rooms[r.id].total, 0) for r in self.rooms], axis=0)
        self.assertAlmostEqual(group.cooling.sensible_w, stacked.max())
        self.assertLessEqual(group.diversity, 1.0)
        parts = group_day_w(list(results.rooms.values()), group.cooling.month)
        self.assertAlmostEqual(parts[:, group.cooling.step].sum(), stacked.max(), places=6)
        self.assertEqual(len(group.cooling.parts_w), len(CATEGORIES))

    def test_memory_calculates_only_what_changed(self) -> None:
        memory = Memory()
        self.assertEqual(calculate(self.building, memory).rooms_calculated, 4)
        self.assertEqual(calculate(self.building, memory).rooms_calculated, 0)
        other = (replace(self.rooms[0], infiltration_m3_s=0.02), *self.rooms[1:])
        changed = calculate(replace(self.building, rooms=other), memory)
        self.assertEqual(changed.rooms_calculated, 1)
        fresh = calculate(replace(self.building, rooms=other))
        self.assertAlmostEqual(changed.groups["all"].cooling.sensible_w, fresh.groups["all"].cooling.sensible_w)
        colder = replace(self.building, climate=replace(CLIMATE, winter_dry_bulb_c=-20.0))
        self.assertEqual(calculate(colder, memory).rooms_calculated, 4)
