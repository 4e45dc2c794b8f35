"""What circuits lose on the way and what rooms get back: sums that close, by hand and over the year."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, DAY
from core.tests.test_air_system import building
from core.tests.test_ceilings import MACHINE
from core.tests.test_feeds import BOILER, circuit
from core.tests.test_year import always, swinging
from pendrum_core.model.building import Building
from pendrum_core.model.systems import BY_AREA, BY_RUN, Section
from pendrum_core.model.year import YearCourse, YearGain, YearRoom
from pendrum_core.run import calculate
from pendrum_core.water.losses import given_back_w, shares_of_rooms, stated_w
from pendrum_core.working.explain import explain
from pendrum_core.year.energy import BuildingYear, building_year
from pendrum_core.year.sky import YearSky

AREAS = {"a": 30.0, "b": 10.0}
PIPES = (
    Section("m", "Main", None, 20.0, 0.0),
    Section("x", "To A", "m", 6.0, 0.0, end="a"),
    Section("y", "To B", "m", 4.0, 0.0, end="b"),
    Section("z", "To a coil", "m", 10.0, 0.0, end="unit"),
)


class Shares(unittest.TestCase):
    def test_by_area_all_of_it_goes_to_the_rooms_at_the_ends(self) -> None:
        found = shares_of_rooms(circuit(60.0, 45.0, sections=PIPES, loss_to=BY_AREA), AREAS, {})
        self.assertEqual(found, {"a": 0.75, "b": 0.25})

    def test_by_run_what_runs_elsewhere_is_lost(self) -> None:
        one = circuit(60.0, 45.0, sections=PIPES, loss_to=BY_RUN)
        found = shares_of_rooms(one, AREAS, {})
        self.assertEqual(found, {"a": 6.0 / 40.0, "b": 4.0 / 40.0})
        main = replace(PIPES[0], through="b")
        by_watts = {"m": 100.0, "x": 50.0, "y": 25.0, "z": 25.0}
        found = shares_of_rooms(replace(one, sections=(main, *PIPES[1:])), AREAS, by_watts)
        self.assertEqual(found, {"b": 125.0 / 200.0, "a": 50.0 / 200.0})
        self.assertEqual(shares_of_rooms(circuit(60.0, 45.0, sections=PIPES), AREAS, {}), {})

    def test_of_floor_area(self) -> None:
        self.assertEqual(stated_w(circuit(60.0, 45.0, sections=PIPES, loss_w_m2=2.5), AREAS), 100.0)
        insulated = circuit(60.0, 45.0, sections=PIPES, loss_w_m2=2.5, pipe_insulation_m=0.03)
        self.assertEqual((stated_w(insulated, AREAS), insulated.lost_share), (0.0, 0.0))


class GivenBack(unittest.TestCase):
    def test_a_share_of_the_load_closes(self) -> None:
        """Ends of 4 kW that lose 25 %, half of it given back."""
        one = circuit(60.0, 45.0, loss_share=0.25)
        asked = {"a": np.array([3000.0]), "b": np.array([1000.0])}
        ends = np.array([4000.0])
        found = given_back_w(one, asked, ends, 0.0, {"a": 0.3, "b": 0.2})
        self.assertEqual({room: float(watts[0]) for room, watts in found.items()}, {"a": 300.0, "b": 200.0})

    def test_never_more_than_a_room_asks_and_nothing_while_none_does(self) -> None:
        one = circuit(60.0, 45.0, loss_w_m2=5.0)
        asked = {"a": np.array([50.0, 0.0, 900.0, 0.0])}
        found = given_back_w(one, asked, np.array([500.0, 500.0, 900.0, 0.0]), 400.0, {"a": 0.5})
        self.assertEqual(found["a"].tolist(), [50.0, 0.0, 200.0, 0.0])


def plant(**more: object) -> Building:
    base = building()
    chilled, heating = base.circuits
    return replace(base, circuits=(chilled, replace(heating, units=(BOILER,), **more)))  # type: ignore[arg-type]


class Whole(unittest.TestCase):
    def year(self, of: Building) -> BuildingYear:
        day = YearCourse((DAY,), (0,) * 365)
        results = calculate(of)
        years = [
            YearRoom(r, (YearGain("lights", 160.0, 0.5, day),), always(20.0), always(24.0), people=day)
            for r in results.building.rooms
        ]
        return building_year(results, years, YearSky.of(swinging(), CLIMATE), {}, {})

    def test_the_plant_gives_so_much_less_as_rooms_get_back(self) -> None:
        lost, back = calculate(plant(loss_w_m2=4.0)), calculate(plant(loss_w_m2=4.0, loss_to=BY_AREA))
        areas = sum(
            r.floor_area_m2
            for r in lost.building.rooms
            if any(s.end == r.id for s in lost.building.circuits[1].sections)
        )
        self.assertAlmostEqual(lost.circuits["h"].pipes_lose_w, 4.0 * areas)
        plain = calculate(plant())
        np.testing.assert_allclose(lost.courses["h"].winter_w, plain.courses["h"].winter_w + 4.0 * areas, rtol=1e-12)
        # On the winter day every room asks for more than its pipes give: all of the loss comes back.
        np.testing.assert_allclose(back.courses["h"].winter_w, plain.courses["h"].winter_w, rtol=1e-12)
        self.assertAlmostEqual(sum(back.given_back_w.values()), 4.0 * areas)
        # What stands at the ends is sized as before.
        self.assertEqual(
            {k: e.duty_w for k, e in back.emitters.items()}, {k: e.duty_w for k, e in plain.emitters.items()}
        )

    def test_chillers_carry_the_heat_of_their_pumps(self) -> None:
        """Friction ends as heat: hydraulic power over the pump's efficiency, while anything is asked, on design days and over the year."""
        base = building()
        of = replace(base, circuits=(replace(base.circuits[0], units=(MACHINE,)), base.circuits[1]))
        results = calculate(of)
        pump, course = results.circuits["c"].pump, results.plants["c"].course
        friction = pump.flow_m3_s * pump.head_pa / pump.efficiency
        self.assertGreater(friction, 1.0)
        ends = course.summer_ends_w
        plain = ends * (1.0 + of.circuits[0].lost_share)
        np.testing.assert_allclose(course.summer_w, plain + np.where(ends > 0.0, friction, 0.0), rtol=1e-12)
        told = explain(results, "plant_load", "c")
        self.assertIn("Heat of the pumps", {node.name for node in told.inputs})
        year = self.year(of)
        coils = sum(system.cooling_w for system in year.systems.values())
        carried = np.where(coils > 0.0, coils * (1.0 + of.circuits[0].lost_share) + friction, 0.0)
        np.testing.assert_allclose(year.carried_w["c"], carried, rtol=1e-5, atol=0.1)
        # In heating they are left out.
        heat = results.courses["h"]
        np.testing.assert_allclose(heat.winter_w, heat.winter_ends_w * (1.0 + of.circuits[1].lost_share), rtol=1e-12)

    def test_working_leads_to_the_share_and_the_loss(self) -> None:
        back = calculate(plant(pipe_insulation_m=0.02, loss_to=BY_RUN))
        (circuit, room), watts = max(back.given_back_w.items(), key=lambda it: it[1])
        tree = explain(back, "pipes_give", f"{circuit}/{room}")
        self.assertAlmostEqual(tree.value or 0.0, watts)
        share, loss = (node.value or 0.0 for node in tree.inputs[:2])
        self.assertAlmostEqual(share * loss, watts)
        stated = explain(calculate(plant(loss_w_m2=4.0)), "pipes_lose", "h")
        self.assertAlmostEqual(stated.value or 0.0, calculate(plant(loss_w_m2=4.0)).circuits["h"].pipes_lose_w)
        with self.assertRaises(KeyError):
            explain(calculate(plant()), "pipes_give", f"{circuit}/{room}")

    def test_over_the_year_the_difference_is_what_came_back(self) -> None:
        lost, back = self.year(plant(loss_w_m2=4.0)), self.year(plant(loss_w_m2=4.0, loss_to=BY_AREA))
        plain = self.year(plant())
        hours = plain.carried_w["h"] > 0.0
        pipes = calculate(plant(loss_w_m2=4.0)).circuits["h"].pipes_lose_w
        np.testing.assert_allclose(lost.carried_w["h"][hours] - plain.carried_w["h"][hours], pipes, rtol=1e-3)
        spared = (lost.carried_w["h"] - back.carried_w["h"]).astype(float)
        self.assertGreaterEqual(float(spared.min()), -0.1)
        self.assertLessEqual(float(spared.max()), pipes * (1.0 + 1e-3))
        self.assertGreater(float(spared.sum()), 0.3 * pipes * int(hours.sum()))


if __name__ == "__main__":
    unittest.main()
