"""Routes proposed from the plan: every end once, lengths as they are measured along the axes of the plan."""

import random
import unittest
from statistics import median

from pendrum_core.geometry.outlines import area_m2
from pendrum_core.geometry.routes import CONNECTION_M, LEAST_BRANCH_M, TOGETHER_M, Leg, RouteEnd, centre, propose

FLOORS = {"cellar": -3.0, "ground": 0.0, "first": 3.5, "second": 7.0}


def random_ends(dice: random.Random, count: int) -> list[RouteEnd]:
    return [
        RouteEnd(f"e{n}", dice.choice(list(FLOORS)), (dice.uniform(-40, 40), dice.uniform(-12, 12)))
        for n in range(count)
    ]


def path(legs: list[Leg], place: int) -> list[Leg]:
    found: list[Leg] = []
    at: int | None = place
    while at is not None:
        found.append(legs[at])
        at = legs[at].parent
    return found[::-1]


class Routes(unittest.TestCase):
    def test_every_end_is_reached_once_and_parents_come_first(self) -> None:
        dice = random.Random(3)
        for _ in range(50):
            ends = random_ends(dice, dice.randint(1, 40))
            legs = propose(ends, "ground", (dice.uniform(-40, 40), dice.uniform(-12, 12)), FLOORS)
            self.assertEqual(sorted(leg.end for leg in legs if leg.end), sorted(end.id for end in ends))
            self.assertEqual([leg.kind for leg in legs if leg.parent is None], ["start"])
            for place, leg in enumerate(legs):
                self.assertTrue(leg.parent is None or leg.parent < place)
                self.assertGreater(leg.length_m, 0.0)
                self.assertEqual(leg.kind == "branch", leg.end is not None)

    def test_lengths_are_those_of_the_plan(self) -> None:
        """Along and across from the riser to every end, past the middle of its level, and up; by plain sums."""
        dice = random.Random(4)
        for _ in range(50):
            ends, start = random_ends(dice, 12), (dice.uniform(-40, 40), dice.uniform(-12, 12))
            legs = propose(ends, "ground", start, FLOORS)
            for end in ends:
                place = next(place for place, leg in enumerate(legs) if leg.end == end.id)
                found = sum(leg.length_m for leg in path(legs, place))
                level = [other.place for other in ends if other.level == end.level]
                wide = [max(p[i] for p in level) - min(p[i] for p in level) for i in (0, 1)]
                along = 0 if wide[0] >= wide[1] else 1
                middle = median(p[1 - along] for p in level)
                wanted = CONNECTION_M + abs(FLOORS[end.level]) + abs(end.place[along] - start[along])
                wanted += abs(middle - start[1 - along]) + max(LEAST_BRANCH_M, abs(end.place[1 - along] - middle))
                self.assertAlmostEqual(found, wanted, delta=2 * TOGETHER_M + 1e-9)

    def test_risers_go_from_level_to_level(self) -> None:
        ends = [RouteEnd(level, level, (5.0, 2.0)) for level in FLOORS]
        legs = propose(ends, "ground", (0.0, 0.0), FLOORS)
        risers = {leg.level: leg for leg in legs if leg.kind == "riser"}
        self.assertEqual(sorted(risers), ["cellar", "first", "second"])
        self.assertEqual(legs[risers["second"].parent or 0], risers["first"])
        self.assertEqual((risers["second"].length_m, risers["cellar"].length_m), (3.5, 3.0))
        self.assertEqual((risers["second"].passes, risers["first"].passes), (True, False))

    def test_ends_at_one_place_leave_the_main_together(self) -> None:
        ends = [
            RouteEnd("a", "ground", (10.0, 4.0)),
            RouteEnd("b", "ground", (10.2, -4.0)),
            RouteEnd("c", "ground", (30.0, 0.0)),
        ]
        legs = propose(ends, "ground", (0.0, 0.0), FLOORS)
        by_end = {leg.end: leg for leg in legs if leg.end}
        self.assertEqual(by_end["a"].parent, by_end["b"].parent)
        self.assertNotEqual(by_end["a"].parent, by_end["c"].parent)

    def test_the_main_runs_through_a_corridor(self) -> None:
        """Rooms on both sides of a passage: the main lies in it, though most ends are on one side."""
        ends = [RouteEnd(f"n{n}", "ground", (4.0 * n, 6.0)) for n in range(8)] + [RouteEnd("s", "ground", (3.0, -6.0))]
        passage = [(-2.0, -1.0), (34.0, -1.0), (34.0, 1.0), (-2.0, 1.0)]
        short, square = (
            [(0.0, 4.0), (9.0, 4.0), (9.0, 5.0), (0.0, 5.0)],
            [(0.0, 0.0), (30.0, 0.0), (30.0, 30.0), (0.0, 30.0)],
        )
        legs = propose(ends, "ground", (0.0, 8.0), FLOORS, {"ground": [short, square, passage]})
        across = {place[1] for leg in legs if leg.kind == "main" for place in leg.course[1:]}
        self.assertEqual(across, {0.0})
        self.assertEqual([leg.length_m for leg in legs if leg.end == "n3"], [6.0])
        without = propose(ends, "ground", (0.0, 8.0), FLOORS, {"ground": [short, square]})
        self.assertEqual({place[1] for leg in without if leg.kind == "main" for place in leg.course[1:]}, {6.0})

    def test_courses_join(self) -> None:
        """A leg begins where the one before it ends, or where that one passes the riser."""
        dice = random.Random(5)
        for _ in range(20):
            legs = propose(random_ends(dice, 15), "ground", (1.0, 2.0), FLOORS)
            for leg in legs[1:]:
                before = legs[leg.parent or 0]
                self.assertAlmostEqual(leg.course[0][0], before.course[-1][0], delta=1e-9)
                self.assertAlmostEqual(leg.course[0][1], before.course[-1][1], delta=TOGETHER_M + 1e-9)

    def test_an_end_a_hair_beside_the_riser_is_not_lost(self) -> None:
        for hair in (-1e-12, 0.0, 1e-12):
            ends = [RouteEnd("a", "first", (5.0 + hair, 3.0)), RouteEnd("b", "first", (25.0, 3.0))]
            legs = propose(ends, "ground", (5.0, 3.0), FLOORS)
            self.assertEqual(sorted(leg.end for leg in legs if leg.end), ["a", "b"])

    def test_centre_of_an_angle(self) -> None:
        """An L of two rectangles: the mean of their centres by area."""
        outline = [(0.0, 0.0), (6.0, 0.0), (6.0, 2.0), (2.0, 2.0), (2.0, 5.0), (0.0, 5.0)]
        self.assertAlmostEqual(area_m2(outline), 18.0)
        x, y = centre(outline)
        self.assertAlmostEqual(x, (12.0 * 3.0 + 6.0 * 1.0) / 18.0)
        self.assertAlmostEqual(y, (12.0 * 1.0 + 6.0 * 3.5) / 18.0)
