"""Rooms with several emitters: what each gives adds up to what the room asks, at every step and over the year."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE
from core.tests.test_air_system import building
from core.tests.test_year import swinging
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.model.plant import FloorBuild, PlantUnit
from pendrum_core.model.systems import UNDERFLOOR, Section
from pendrum_core.model.year import YearRoom, always
from pendrum_core.results.bands import Band, within
from pendrum_core.run import calculate
from pendrum_core.year.energy import building_year
from pendrum_core.year.sky import YearSky

BOILER = PlantUnit("b", "Boiler", "boiler", None, 1.0, 1.04, 0.97, 1.08, 0.98)


def two_emitters(share: float = 0.3) -> Building:
    """Rooms on radiators, one of them, r0, on a small heated floor too."""
    base = building()
    chilled, heating = base.circuits
    floor = replace(
        heating, id="f", name="Floors", sections=(Section("fp", "Floor", None, 6.0, 4.0, end="r0"),), flow_c=36.0,
        return_c=30.0, emitters=UNDERFLOOR, floor=FloorBuild(area_share=share), units=(replace(BOILER, id="bf"),),
    )  # fmt: skip
    return replace(base, systems=(), circuits=(chilled, replace(heating, units=(BOILER,)), floor))


class Bands(unittest.TestCase):
    def test_by_hand(self) -> None:
        """A floor of 600 W and a radiator behind it: of 900, 500 and 0 W."""
        asked = [900.0, 500.0, 0.0]
        np.testing.assert_allclose(within(asked, Band(0.0, 600.0)), [600.0, 500.0, 0.0])
        np.testing.assert_allclose(within(asked, Band(600.0, np.inf)), [300.0, 0.0, 0.0])
        np.testing.assert_allclose(within(asked, None), asked)
        np.testing.assert_allclose(within(asked, Band(np.inf, np.inf)), 0.0)


class TwoEmitters(unittest.TestCase):
    def test_the_floor_first_the_radiator_what_is_left(self) -> None:
        results = calculate(two_emitters())
        self.assertEqual(results.failures, ())
        floor, radiator = results.floors["r0"], results.emitters["r0"]
        self.assertAlmostEqual(floor.duty_w + radiator.duty_w, results.heating_duty_w["r0"])
        self.assertAlmostEqual(floor.duty_w, floor.gives_w)
        self.assertEqual(floor.short_w, 0.0)
        self.assertGreater(radiator.duty_w, 10.0)
        # The other rooms have one emitter, and all of their heat on it.
        self.assertAlmostEqual(results.emitters["r1"].duty_w, results.heating_duty_w["r1"])

    def test_plants_share_it_too(self) -> None:
        results = calculate(two_emitters())
        both = results.plants["h"].course.winter_w + results.plants["f"].course.winter_w
        np.testing.assert_allclose(both, sum(results.heating_duty_w.values()), rtol=1e-9)

    def test_a_floor_that_gives_all_leaves_nothing(self) -> None:
        base = two_emitters(share=1.0)
        chilled, heating, floor = base.circuits
        hot = replace(floor, flow_c=45.0, return_c=38.0)
        results = calculate(replace(base, circuits=(chilled, heating, hot)))
        self.assertGreater(results.floors["r0"].gives_w, results.heating_duty_w["r0"])
        self.assertEqual(results.emitters["r0"].duty_w, 0.0)
        snag = next(s for s in result_snags(results, {}) if (s.code, s.id) == ("emitter_without_duty", "r0"))
        self.assertIn("covered by its other emitter", snag.sentence)

    def test_a_second_pipe_to_the_same_room_does_not_double(self) -> None:
        base = two_emitters()
        chilled, heating, floor = base.circuits
        twin = replace(heating, id="t", sections=(Section("tp", "Twin", None, 6.0, 4.0, end="r1"),))
        results = calculate(replace(base, circuits=(chilled, heating, floor, twin)))
        total = results.plants["h"].course.winter_w + results.plants["f"].course.winter_w
        np.testing.assert_allclose(total, sum(results.heating_duty_w.values()), rtol=1e-9)
        self.assertNotIn("t", results.plants)  # nothing is left for it

    def test_the_year_counts_every_watt_once(self) -> None:
        results = calculate(two_emitters())
        years = [YearRoom(r, (), always(20.0), always(26.0)) for r in results.building.rooms]
        found = building_year(results, years, YearSky.of(swinging(), CLIMATE), {}, {})
        asked = sum(room.heating_w.astype(float) for room in found.rooms.values())
        given = sum(found.output_w[key].astype(float) for key in (("h", "b"), ("f", "bf")))
        unmet = found.unmet_w["h"] + found.unmet_w["f"]
        np.testing.assert_allclose(given + unmet, asked, atol=1.0)
        self.assertGreater(float(found.output_w["f", "bf"].sum()), 1e4)
        self.assertNotIn(("heating", "heat without a plant"), found.energy_w)


if __name__ == "__main__":
    unittest.main()
