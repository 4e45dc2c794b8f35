"""Rooms beyond walls: found by balance, whatever the order, and the same as if their air had been entered."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.plain_march import PlainRoom
from core.tests.rooms import CLIMATE, MONTHS, room
from pendrum_core.fabric.layers import Layer
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import Boundary, Element, Room
from pendrum_core.model.thermostats import NEVER_COOLED, Thermostat
from pendrum_core.run import Memory, calculate
from pendrum_core.schedule.pattern import DayPattern, constant

PLASTER = (Layer("board", 0.05, 0.25, 900.0, 1000.0),)
ONE_MONTH = replace(CLIMATE, months=(MONTHS[6],))


def wall(to: str, area: float = 30.0) -> Element:
    beyond = Boundary("room", extra_resistance_m2k_w=0.13, neighbour=to)
    return Element(f"to {to}", f"to {to}", "neighbours", area, PLASTER, 2.5, beyond)


def beside(name: str, *others: str, azimuth: float = 200.0, **changes) -> Room:
    subject = room(name, azimuth)
    return replace(subject, elements=(*subject.elements, *(wall(other) for other in others)), **changes)


def loads(*rooms: Room, memory: Memory | None = None) -> dict:
    return dict(calculate(Building(ONE_MONTH, rooms), memory).rooms)


def as_entered(subject: Room, air: np.ndarray, winter_c: float) -> Room:
    """The same room with its neighbour's air entered as a schedule."""
    course = DayPattern(tuple(((i + 1) * 10, float(value)) for i, value in enumerate(air)))
    beyond = Boundary(
        "pattern", extra_resistance_m2k_w=0.13, patterns=(course,) * 12, winter_pattern=constant(winter_c)
    )
    elements = tuple(replace(e, boundary=beyond) if e.boundary.kind == "room" else e for e in subject.elements)
    return replace(subject, elements=elements)


class Neighbours(unittest.TestCase):
    def test_an_unheated_store_is_found_by_balance(self) -> None:
        office, store = beside("office", "store"), beside("store", "office", heated=False, cooled=False)
        found = loads(office, store)
        cold = found["store"]
        self.assertGreater(cold.winter_air_c, CLIMATE.winter_dry_bulb_c + 3.0)
        self.assertLess(cold.winter_air_c, 15.0)
        # Each of them alone, with the other one's air entered by hand, gives the same.
        for subject, other in ((office, cold), (store, found["office"])):
            alone = loads(as_entered(subject, other.air.summer_c[0], other.air.winter_c))[subject.id]
            mine = found[subject.id]
            self.assertAlmostEqual(alone.heating.load_w, mine.heating.load_w, delta=0.1)
            self.assertLess(np.abs(alone.total - mine.total).max(), 0.1)
        # Without the store the wall would lose nothing, with outdoors beyond it far more.
        adiabatic = loads(beside("office", "nobody"))["office"].heating.load_w
        self.assertGreater(found["office"].heating.load_w, adiabatic + 100.0)

    def test_rooms_held_alike_do_not_feel_each_other(self) -> None:
        one, two = beside("a", "b"), beside("b", "a", azimuth=20.0)
        together = loads(one, two)
        lonely = loads(beside("a", "nobody"))["a"]
        self.assertAlmostEqual(together["a"].heating.load_w, lonely.heating.load_w, places=6)

    def test_two_rooms_that_float_and_the_order(self) -> None:
        rooms = [
            beside("a", "b", heated=False, cooled=False),
            beside("b", "a", "c", azimuth=20.0, heated=False, cooled=False),
            beside("c", "b", azimuth=110.0),
        ]
        found, other = loads(*rooms), loads(*reversed(rooms))
        for name in "abc":
            self.assertLess(np.abs(found[name].total - other[name].total).max(), 0.1)
        # The warm shell of a lightly built room: a plain march with b's air beyond the wall.
        subject = as_entered(rooms[0], found["b"].air.summer_c[0], found["b"].air.winter_c)
        fixed = float(found["b"].air.summer_c[0].mean())
        still = replace(
            subject,
            elements=tuple(
                replace(e, boundary=Boundary("temperature", temperature_c=fixed, extra_resistance_m2k_w=0.13))
                if e.boundary.kind == "pattern"
                else e
                for e in subject.elements
            ),
        )
        _, means, _ = PlainRoom(still, calculate(Building(ONE_MONTH, (still,))).outdoors).run(0, lambda *_: 0.0)
        self.assertAlmostEqual(found["a"].air.summer_c[0].mean(), means.mean(), delta=0.1)

    def test_a_neighbour_set_back_at_night(self) -> None:
        low = DayPattern(((420, 12.0), (1080, 20.0), (1440, 12.0)))
        thermostat = Thermostat((low,) * 12, NEVER_COOLED, low, warm_up_h=2.0)
        held = loads(beside("a", "b"), beside("b", "a"))
        moved = loads(beside("a", "b"), replace(beside("b", "a"), thermostat=thermostat, cooled=False))
        self.assertGreater(moved["a"].heating.load_w, held["a"].heating.load_w + 10.0)

    def test_only_what_feels_a_change_is_calculated_again(self) -> None:
        memory = Memory()
        far = room("far", 90.0)
        store = beside("b", "a", heated=False, cooled=False)
        before = loads(beside("a", "b"), store, far, memory=memory)
        warmer = replace(store, gains=tuple(replace(g, sensible_w=g.sensible_w * 3) for g in store.gains))
        after = loads(beside("a", "b"), warmer, far, memory=memory)
        self.assertIs(after["far"], before["far"])
        self.assertGreater(after["a"].total.max(), before["a"].total.max() + 5.0)
        fresh = loads(beside("a", "b"), warmer, far)
        self.assertLess(np.abs(fresh["a"].total - after["a"].total).max(), 0.1)
        gone = loads(beside("a", "b"), far, memory=memory)
        self.assertAlmostEqual(gone["a"].heating.load_w, loads(beside("a", "b"))["a"].heating.load_w, places=6)
