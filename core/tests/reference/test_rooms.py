"""Room cases: loads and temperatures against a separate finite-volume march."""

import unittest

import numpy as np

from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.proof.cases import climate_of, load_case, solve_with_data
from pendrum_core.proof.rooms import away_from_jumps, floating_entries, held_entries, winter_entries
from pendrum_core.room.outdoors import outdoors
from pendrum_core.room.summer import conduction_parts, courses
from pendrum_core.room.verify import forward_day


class HeldRooms(unittest.TestCase):
    def check_load(self, name: str) -> None:
        for entry in held_entries(name, name):
            self.assertTrue(entry.holds, str(entry))

    def test_south_window(self) -> None:
        self.check_load("room_light_south_window")

    def test_no_window(self) -> None:
        self.check_load("room_light_no_window")

    def test_every_source_on_its_own(self) -> None:
        case = load_case("room_light_south_window")
        solved = solve_with_data(case)
        parts = courses(solved).parts(0)[:, 0]
        elements = conduction_parts(solved, np.arange(len(solved.stack.area)), len(solved.stack.area))
        names = [element.name for element in solved.stack.rooms[0].elements]
        peak = case["expected"]["peak_W"]
        for source, course in case["expected"]["split_by_source_W"].items():
            found = elements[names.index(source), 0] if source in names else parts[CATEGORIES.index(source.split()[0])]
            off = np.abs(found - np.array(course))[away_from_jumps(case)].max()
            self.assertLess(off, 0.005 * peak, source)

    def test_whole_chain_from_the_site(self) -> None:
        """The same room with sun and air made here from the site and optical depths."""
        case = load_case("room_light_south_window")
        solved = solve_with_data(case)
        plane = outdoors(climate_of(case)).plane(90.0, 180.0)
        want = np.array(case["inputs"]["boundary"]["surfaces"]["south"]["total_W_m2"])
        self.assertLess(np.abs(plane.total[0] - want).max(), 3.0)
        self.assertLess(np.abs(outdoors(climate_of(case)).dry_bulb_c - solved.outside.dry_bulb_c).max(), 0.01)


class FloatingRoom(unittest.TestCase):
    def test_temperature(self) -> None:
        case = load_case("room_light_free_floating")
        expected = case["expected"]
        solved = solve_with_data(case, cooled=False)
        air = courses(solved).total[0, 0]
        want = np.array(expected["air_temperature_C"])
        keep = away_from_jumps(case)
        for entry in floating_entries():
            self.assertTrue(entry.holds, str(entry))
        self.assertLess(np.abs(air - want).max(), 0.5)
        day = forward_day(solved, np.array([0]))
        surface = np.array(expected["mean_surface_temperature_C"])
        self.assertLess(np.abs(day.mean_surface_k[0] - surface)[keep].max(), 0.2)


class WinterRoom(unittest.TestCase):
    def test_steady_heating(self) -> None:
        for entry in winter_entries():
            self.assertTrue(entry.holds, str(entry))
