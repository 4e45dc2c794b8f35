"""Faces from outlines: what must hold for any plan, and single plans by hand."""

import unittest
from collections import defaultdict

from hypothesis import given, settings
from hypothesis import strategies as st

from pendrum_core.geometry.outlines import area_m2, edges, facing
from pendrum_core.geometry.plan import (
    PlanLevel,
    PlanRoom,
    checked_outline,
    faces,
    joined_outline,
    overlaps,
    split_outline,
)

HEIGHT = 3.0
WIDTH, DEPTH = 20.0, 12.0


def rectangle(x0: float, y0: float, x1: float, y1: float) -> tuple:
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))


@st.composite
def floors(draw) -> list[tuple]:
    """A rectangle cut again and again by straight walls."""
    parts = [(0.0, 0.0, WIDTH, DEPTH)]
    for _ in range(draw(st.integers(0, 7))):
        index = draw(st.integers(0, len(parts) - 1))
        x0, y0, x1, y1 = parts[index]
        share = draw(st.floats(0.2, 0.8))
        if draw(st.booleans()) and x1 - x0 > 1.5:
            x = round(x0 + share * (x1 - x0), 2)
            parts[index : index + 1] = [(x0, y0, x, y1), (x, y0, x1, y1)]
        elif y1 - y0 > 1.5:
            y = round(y0 + share * (y1 - y0), 2)
            parts[index : index + 1] = [(x0, y0, x1, y), (x0, y, x1, y1)]
    return [rectangle(*part) for part in parts]


def level(outlines: list[tuple], floor_m: float = 0.0, name: str = "r", height: float = HEIGHT) -> PlanLevel:
    rooms = tuple(PlanRoom(f"{name}{i}", f"{name}{i}", outline, height) for i, outline in enumerate(outlines))
    return PlanLevel(floor_m, rooms)


class AnyPlan(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(floors(), floors(), st.floats(0, 359))
    def test_what_must_hold(self, lower: list[tuple], upper: list[tuple], rotation: float) -> None:
        found = faces([level(upper, 3.5, "u"), level(lower, 0.0, "g")], rotation)
        outer, between = defaultdict(float), defaultdict(float)
        flat = defaultdict(float)
        for face in found:
            if face.kind == "outer_wall":
                outer[round((face.azimuth_deg - rotation) % 360.0) % 360] += face.area_m2
            elif face.neighbour:
                between[(face.kind, face.room, face.neighbour)] += face.area_m2
            if face.tilt_deg != 90.0:
                flat[(face.room, face.tilt_deg)] += face.area_m2
        # Outer walls add up to the sides of the building, twice for two storeys.
        for azimuth, length in ((0, WIDTH), (90, DEPTH), (180, WIDTH), (270, DEPTH)):
            self.assertAlmostEqual(outer[azimuth], 2 * length * HEIGHT, delta=0.5)
        # What is a wall of one room is a wall of the other; a ceiling below is a floor above.
        other_side = {"inner_wall": "inner_wall", "ceiling": "floor", "floor": "ceiling"}
        for (kind, room, neighbour), area in between.items():
            self.assertAlmostEqual(between[(other_side[kind], neighbour, room)], area, delta=0.003)
        # Roofs, ceilings and floors add up to each room's area; roofs only above, ground only below.
        for name, outlines in (("g", lower), ("u", upper)):
            for index, outline in enumerate(outlines):
                for tilt in (0.0, 180.0):
                    self.assertAlmostEqual(flat[(f"{name}{index}", tilt)], area_m2(outline), delta=0.3)
        self.assertEqual({f.room[0] for f in found if f.kind == "roof"}, {"u"})
        self.assertEqual({f.room[0] for f in found if f.kind == "ground_floor"}, {"g"})
        keys = [(face.room, face.key) for face in found]
        self.assertEqual(len(keys), len(set(keys)))

    @settings(max_examples=40, deadline=None)
    @given(floors(), st.floats(0.0, 0.4))
    def test_walls_with_a_thickness_are_the_same_walls(self, outlines: list[tuple], gap: float) -> None:
        """Every room drawn along its inner faces: the same neighbours, a little less area."""
        shrunk = [
            rectangle(*(v + s * gap / 2 for v, s in zip((*o[0], *o[2]), (1, 1, -1, -1), strict=True))) for o in outlines
        ]
        whole = {
            (f.room, f.neighbour) for f in faces([level(outlines)], 0.0) if f.kind == "inner_wall" and f.area_m2 > 3.0
        }
        found = {(f.room, f.neighbour) for f in faces([level(shrunk)], 0.0, 0.45) if f.kind == "inner_wall"}
        self.assertLessEqual(whole, found)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(0.5, 9), st.floats(0.5, 9), st.floats(-3, 3))
    def test_shared_stretches_pair_exactly(self, width: float, depth: float, shift: float) -> None:
        square, other = rectangle(0, 0, 4, 3), rectangle(4, shift, 4 + width, shift + depth)
        both = []
        for one, two in ((square, other), (other, square)):
            stretches = [facing(a, b, 0.01) for a in edges(one) for b in edges(two)]
            both.append(sum(s.end_m - s.begin_m for s in stretches if s))
        want = max(0.0, min(3.0, shift + depth) - max(0.0, shift))
        self.assertAlmostEqual(both[0], both[1], places=9)
        self.assertAlmostEqual(both[0], want, places=9)


class ByHand(unittest.TestCase):
    def test_slivers_do_not_add_up_to_a_roof(self) -> None:
        """Walls above stand 3 cm beside those below: two strips of 0.045 m², each too small for a face."""
        lower = [rectangle(0, 0, 8, 1.5), rectangle(0, 1.5, 8, 3), rectangle(8, 0, 20, 3)]
        upper = [rectangle(0, 0, 8.03, 1.5), rectangle(0, 1.5, 8.03, 3), rectangle(8.03, 0, 20, 3)]
        found = faces([level(upper, 3.5, "u"), level(lower, 0.0, "g")], 0.0)
        self.assertEqual({face.room for face in found if face.kind == "roof"}, {"u0", "u1", "u2"})
        self.assertEqual({face.room for face in found if face.kind == "overhang"}, set())

    def found(self, levels: list[PlanLevel], rotation: float = 0.0) -> dict[tuple[str, str], float]:
        return {(f.room, f.key): f.area_m2 for f in faces(levels, rotation)}

    def test_directions_of_a_square(self) -> None:
        self.assertEqual([round(e.azimuth_deg) for e in edges(rectangle(0, 0, 4, 3))], [180, 90, 0, 270])
        found = {f.key: f.azimuth_deg for f in faces([level([rectangle(0, 0, 4, 3)])], 30.0) if f.tilt_deg == 90.0}
        self.assertEqual(
            found, {"outer_wall//180": 210.0, "outer_wall//90": 120.0, "outer_wall//0": 30.0, "outer_wall//270": 300.0}
        )

    def test_a_step_back_above_has_a_roof_below(self) -> None:
        found = self.found([level([rectangle(0, 0, 10, 8)], 0, "g"), level([rectangle(0, 0, 6, 8)], 3, "u")])
        self.assertEqual(found[("g0", "roof")], 32.0)
        self.assertEqual(found[("g0", "ceiling/u0")], 48.0)
        over = self.found([level([rectangle(0, 0, 6, 8)], 0, "g"), level([rectangle(0, 0, 10, 8)], 3, "u")])
        self.assertEqual(over[("u0", "overhang")], 32.0)

    def test_a_low_neighbour_leaves_a_strip_of_outer_wall(self) -> None:
        rooms = (PlanRoom("hall", "1", rectangle(0, 0, 5, 4), 6.0), PlanRoom("shed", "2", rectangle(5, 0, 8, 4), 2.5))
        found = self.found([PlanLevel(0.0, rooms)])
        self.assertEqual(found[("hall", "inner_wall/shed/90")], 10.0)
        self.assertEqual(found[("hall", "outer_wall//90")], 14.0)

    def test_the_nearest_of_two_is_the_neighbour(self) -> None:
        """A shaft as thin as a wall: the room beyond it is no neighbour."""
        rooms = [rectangle(0, 0, 4, 4), rectangle(4, 0, 4.3, 4), rectangle(4.3, 0, 8, 4)]
        found = {(f.room, f.neighbour) for f in faces([level(rooms)], 0.0, 0.45) if f.kind == "inner_wall"}
        self.assertEqual(found, {("r0", "r1"), ("r1", "r0"), ("r1", "r2"), ("r2", "r1")})

    def test_outer_edge_of_a_ground_floor(self) -> None:
        two = faces([level([rectangle(0, 0, 4, 3), rectangle(4, 0, 9, 3)])], 0.0)
        self.assertEqual([f.exposed_m for f in two if f.kind == "ground_floor"], [11.0, 13.0])

    def test_split_and_join(self) -> None:
        shape = ((0.0, 0.0), (6.0, 0.0), (6.0, 2.0), (3.0, 2.0), (3.0, 5.0), (0.0, 5.0))
        larger, smaller = split_outline(shape, (-1.0, 2.0), (7.0, 2.0))
        self.assertEqual((area_m2(larger), area_m2(smaller)), (12.0, 9.0))
        self.assertAlmostEqual(area_m2(joined_outline([larger, smaller])), 21.0, places=6)
        for wrong, words in (
            (lambda: split_outline(shape, (8.0, 0.0), (8.0, 1.0)), "into 1"),
            (lambda: split_outline(shape, (1.0, 1.0), (1.0, 1.0)), "no length"),
            (lambda: joined_outline([rectangle(0, 0, 1, 1), rectangle(5, 5, 6, 6)]), "do not touch"),
            (lambda: checked_outline([(0, 0), (2, 2), (2, 0), (0, 2)]), "crosses itself"),
            (lambda: checked_outline([(0, 0), (1, 0), (0, 0)]), "corners|area|crosses"),
        ):
            with self.assertRaisesRegex(ValueError, words):
                wrong()

    def test_outlines_are_tidied(self) -> None:
        clockwise = [(0, 0), (0, 3), (0, 3), (2, 3), (4, 3), (4, 0)]
        self.assertEqual(area_m2(checked_outline(clockwise)), 12.0)
        self.assertEqual(len(checked_outline(clockwise)), 4)

    def test_rooms_on_each_other(self) -> None:
        found = overlaps(level([rectangle(0, 0, 4, 3), rectangle(3, 0, 6, 3), rectangle(6, 0, 8, 3)]))
        self.assertEqual(found, [("r0", "r1", 3.0)])
