"""Rooms together, against sums over each room's own split; and the envelope kept from one time to the next."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, GLASS, SLAB, WALL, room
from core.tests.test_thermostat import thermostat
from pendrum_core.model.building import Building, Group
from pendrum_core.model.rooms import CATEGORIES, Boundary, Room
from pendrum_core.results.envelope import Envelopes
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.room.outcome.together import Together, group_day_w
from pendrum_core.run import Memory, calculate


def rooms() -> tuple[Room, ...]:
    """Held, steered and floating ones, some of them without a load at night."""
    steered = replace(room("c", 250.0), thermostat=thermostat())
    return (
        room("a", 90.0),
        room("b", 180.0, people=900.0),
        steered,
        room("d", 20.0, cooled=False),
        room("e", 300.0, people=0.0),
    )


class Groups(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        everything = rooms()
        groups = (
            Group("all", "All", "building", tuple(r.id for r in everything)),
            Group("some", "Some", "zone", ("c", "a")),
            Group("float", "Floating", "zone", ("d",)),
        )
        cls.results = calculate(Building(CLIMATE, everything, groups))
        assert not cls.results.failures

    def by_hand(self, members: list[RoomLoads], month: int) -> np.ndarray:
        """Each cooled room's whole split where it has a load, one after the other, (categories, 144)."""
        total = np.zeros((len(CATEGORIES), 144))
        for loads in members:
            if loads.cooling is not None:
                total += loads.parts[:, month] * (loads.total[month] > 0.0)
        return total

    def test_a_day_by_source(self) -> None:
        everything = list(self.results.rooms.values())
        for month in (0, 6, 9):
            want = self.by_hand(everything, month)
            np.testing.assert_allclose(group_day_w(everything, month), want, atol=1e-6)
            course = sum(np.maximum(r.total[month], 0.0) for r in everything if r.cooling is not None)
            np.testing.assert_allclose(want.sum(axis=0), course, atol=1e-6)

    def test_the_peak_by_source(self) -> None:
        for key in ("all", "some"):
            group = self.results.groups[key]
            members = [self.results.rooms[r] for r in group.room_ids]
            want = self.by_hand(members, group.cooling.month)[:, group.cooling.step]
            np.testing.assert_allclose(group.cooling.parts_w, want, atol=1e-6)
            self.assertAlmostEqual(sum(group.cooling.parts_w), group.cooling.sensible_w, places=6)
            self.assertGreaterEqual(group.sum_of_peaks_w, group.cooling.sensible_w)

    def test_the_order_of_the_rooms_is_irrelevant(self) -> None:
        together = Together(self.results.rooms)
        members = [self.results.rooms[r] for r in ("a", "c", "e")]
        one, other = (together.sums_of(some) for some in (members, members[::-1]))
        np.testing.assert_allclose(one.cooling.parts_w, other.cooling.parts_w)
        by_hand = sum(np.maximum(loads.total, 0.0) for loads in members if loads.cooling is not None)
        np.testing.assert_allclose(other.course_w, by_hand)

    def test_rooms_that_are_not_cooled_have_no_coincident_load(self) -> None:
        self.assertEqual(self.results.groups["float"].cooling.sensible_w, 0.0)
        self.assertEqual(self.results.groups["float"].diversity, 1.0)

    def test_moisture_of_cooled_rooms_alone(self) -> None:
        group = self.results.groups["all"]
        want = sum(r.latent_w for r in self.results.rooms.values() if r.cooling is not None)
        np.testing.assert_allclose(group.latent_w, want)

    def test_a_days_parts_of_one_room_are_those_of_all_its_days(self) -> None:
        for loads in self.results.rooms.values():
            np.testing.assert_allclose(loads.parts_on(6), loads.parts[:, 6], atol=1e-9)
            np.testing.assert_allclose(loads.parts_at(6, 90), loads.parts[:, 6, 90], atol=1e-9)

    def test_edits_leave_no_trace(self) -> None:
        """Gains there and back, by the short way both times: the same as before to the last digits but rounding."""
        memory, plain = (
            Memory(),
            Building(CLIMATE, (room("a"), room("b", 180.0)), (Group("g", "g", "use", ("a", "b")),)),
        )
        busier = replace(
            plain,
            rooms=tuple(
                replace(r, gains=tuple(replace(g, sensible_w=3 * g.sensible_w) for g in r.gains)) for r in plain.rooms
            ),
        )
        before = calculate(plain, memory).groups["g"].cooling
        for _ in range(20):
            calculate(busier, memory)
            after = calculate(plain, memory).groups["g"].cooling
        np.testing.assert_allclose(after.parts_w, before.parts_w, rtol=1e-12, atol=1e-9)


class KeptEnvelopes(unittest.TestCase):
    def test_the_same_as_anew_after_every_change(self) -> None:
        kept, some = Envelopes(), list(rooms())
        for change in (
            lambda r: r,
            lambda r: replace(r, infiltration_m3_s=0.02),
            lambda r: replace(r, elements=r.elements[:-1]),
            lambda r: replace(r, elements=tuple(replace(e, area_m2=2 * e.area_m2) for e in r.elements)),
        ):
            some[1] = change(some[1])
            found, fresh = kept.of(some, 1200.0), Envelopes().of(some, 1200.0)
            self.assertAlmostEqual(found.transmission_w_k, fresh.transmission_w_k, places=9)
            self.assertAlmostEqual(found.capacity_j_k, fresh.capacity_j_k, places=3)
            self.assertAlmostEqual(found.air_w_k, fresh.air_w_k, places=9)
            self.assertEqual([vars(x) for x in found.lines], [vars(x) for x in fresh.lines])
        self.assertLess(kept.of(some[:2], 1200.0).transmission_w_k, found.transmission_w_k)

    def test_what_passes_between_rooms_is_no_loss_of_the_building(self) -> None:
        """A wall of 10 m² between two rooms, seen from both sides, stands among the lines and in no sum."""
        apart = list(rooms())[:2]
        wall = replace(apart[0].elements[0], area_m2=10.0, category="neighbours")
        joined = [
            replace(one, elements=(*one.elements, replace(wall, boundary=Boundary("room", 90.0, neighbour=other.id))))
            for one, other in zip(apart, reversed(apart), strict=True)
        ]
        alone, found = Envelopes().of(apart, 1200.0), Envelopes().of(joined, 1200.0)
        self.assertAlmostEqual(found.transmission_w_k, alone.transmission_w_k, places=9)
        self.assertGreater(found.capacity_j_k, alone.capacity_j_k)
        line = next(line for line in found.lines if line.inside)
        self.assertAlmostEqual(line.area_m2, 20.0)
        self.assertIs(found.lines[-1], line)

    def test_by_hand(self) -> None:
        """Walls 22 m², glass 4 m² to the outdoors, floor 20 m² to the ground; ISO 6946 films."""
        wall = 22.0 / (0.13 + 0.1 / 0.77 + 0.12 / 0.037 + 0.013 / 0.5 + 0.04)
        glass = 4.0 / (0.13 + GLASS.resistance_m2k_w + 0.04)
        floor = 20.0 / (0.17 + 0.15 / 2.1 + 2.0)
        found = Envelopes().of([room()], 1200.0)
        self.assertAlmostEqual(found.transmission_w_k, wall + glass + floor, places=6)
        self.assertAlmostEqual(found.air_w_k, 0.006 * 1200.0)
        self.assertGreater(found.capacity_j_k, 280_000.0)
        # Of twice the faces twice the heat is kept; air and furniture stay.
        one = room()
        wide = replace(one, elements=tuple(replace(e, area_m2=2.0 * e.area_m2) for e in one.elements))
        faces = found.capacity_j_k - one.capacity_j_k
        self.assertAlmostEqual(Envelopes().of([wide], 1200.0).capacity_j_k, one.capacity_j_k + 2.0 * faces, places=3)
        self.assertEqual(len(WALL) + len(SLAB), 4)
