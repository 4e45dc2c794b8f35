"""Working of loads: what it says adds up, and is what a hand calculation gives."""

import unittest
from dataclasses import replace

from core.tests.rooms import CLIMATE, room
from pendrum_core.model.building import Building, Group
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain
from pendrum_core.working.node import Node

ROOMS = tuple(room(f"r{i}", 50.0 * i, people=100.0 * i) for i in range(45))
NORTH = replace(room("cold", 0.0), gains=(), windows=(), cooling_setpoint_c=60.0)


def added(node: Node) -> float:
    return sum(child.value or 0.0 for child in node.inputs)


class Loads(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        everything = (*ROOMS, NORTH)
        group = Group("g", "All of it", "building", tuple(r.id for r in everything))
        cls.results = calculate(Building(CLIMATE, everything, groups=(group,)))

    def test_a_group_is_what_its_rooms_have_at_one_time(self) -> None:
        node = explain(self.results, "group_cooling", "g")
        loads = self.results.groups["g"].cooling
        now = [float(r.total[loads.month, loads.step]) for r in self.results.rooms.values()]
        self.assertAlmostEqual(node.value, sum(value for value in now if value > 0.0), places=6)
        self.assertAlmostEqual(added(node), node.value, places=6)
        self.assertLess(now[-1], 0.0)
        self.assertIn("1 of 46", node.note)
        self.assertEqual(node.inputs[-1].name, "5 smaller ones")
        self.assertGreaterEqual(node.inputs[0].value, node.inputs[1].value)

    def test_a_group_heats_all_its_rooms(self) -> None:
        node = explain(self.results, "group_heating", "g")
        self.assertAlmostEqual(node.value, sum(r.heating.load_w for r in self.results.rooms.values()), places=6)
        self.assertAlmostEqual(added(node), node.value, places=6)

    def test_latent_and_by_area(self) -> None:
        peak = self.results.rooms["r7"].cooling
        node = explain(self.results, "room_latent", "r7")
        self.assertAlmostEqual(node.value, peak.latent_w)
        self.assertAlmostEqual(added(node), node.value, places=9)
        by_area = explain(self.results, "room_cooling_per_area", "r7")
        self.assertAlmostEqual(by_area.value, peak.sensible_w / 20.0)

    def test_losses_by_u_values_by_hand(self) -> None:
        """20 °C inside, -9 °C outside; films of ISO 6946: 0.13 walls, 0.10 ceiling, 0.17 floor, 0.04 outside."""
        wall = 1.0 / (0.13 + 0.1 / 0.77 + 0.12 / 0.037 + 0.013 / 0.5 + 0.04)
        glass = 1.0 / (0.13 + ROOMS[0].elements[2].layers[0].resistance_m2k_w + 0.04)
        floor = 1.0 / (0.17 + 0.15 / 2.1 + 2.0)
        inner = 1.0 / (0.13 + 0.1 / 0.77 + 0.12 / 0.037 + 0.013 / 0.5 + 0.13)
        air = 0.006 * self.results.outdoors.air_heat_j_m3k
        by_hand = (wall * 22.0 + glass * 4.0 + air) * 29.0 + floor * 20.0 * (20.0 - 12.0) + inner * 9.0 * 8.0
        self.assertAlmostEqual(self.results.rooms["r0"].heating.simple_w, by_hand, delta=1e-6 * by_hand)
        node = explain(self.results, "room_heating_simple", "r0")
        self.assertAlmostEqual(added(node), node.value, delta=1e-6 * by_hand)
        # Beside it the balance, which knows other films and that the surfaces see each other.
        self.assertAlmostEqual(self.results.rooms["r0"].heating.load_w / by_hand, 1.0, delta=0.1)

    def test_nothing_of_a_room_that_is_not_cooled(self) -> None:
        results = calculate(Building(CLIMATE, (room("f", cooled=False),)))
        for quantity in ("room_latent", "room_cooling_per_area"):
            with self.assertRaises(KeyError):
                explain(results, quantity, "f")
