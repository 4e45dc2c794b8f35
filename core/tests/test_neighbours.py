"""Rooms beyond walls: found by balance, whatever the order, and the same as if their air had been entered."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.network_march import Keep, Network
from core.tests.rooms import CLIMATE, MONTHS, room
from pendrum_core.fabric.layers import Layer
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import CATEGORIES, Boundary, Element, Room
from pendrum_core.model.thermostats import NEVER_COOLED, Thermostat
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.run import Memory, calculate
from pendrum_core.schedule.pattern import DayPattern

PLASTER = (Layer("board", 0.05, 0.25, 900.0, 1000.0),)
SLAB = (Layer("concrete", 0.2, 2.1, 2400.0, 1000.0),)
_LINING = Layer("lining", 0.0125, 0.25, 900.0, 1000.0)
STUD = (_LINING, Layer("wool", 0.07, 0.04, 30.0, 1030.0), _LINING)
BOARD = (Layer("board", plain_resistance_m2k_w=0.2),)
ONE_MONTH = replace(CLIMATE, months=(MONTHS[6],))
OUTSIDE = outdoors(ONE_MONTH)


def wall(to: str, area: float = 30.0) -> Element:
    beyond = Boundary("room", neighbour=to)
    return Element(f"to {to}", f"to {to}", "neighbours", area, PLASTER, 2.5, beyond)


def beside(name: str, *others: str, azimuth: float = 200.0, **changes) -> Room:
    subject = room(name, azimuth)
    return replace(subject, elements=(*subject.elements, *(wall(other) for other in others)), **changes)


def partition(layers: tuple[Layer, ...], faces: tuple[float, float], *cooling_c: float) -> tuple[Room, Room]:
    """Two rooms with 20 m² between them; `faces` are the convection coefficients on either side."""
    rooms = room("one", 200.0), room("other", 20.0)
    result = []
    for i, subject in enumerate(rooms):
        beyond = Boundary("room", neighbour=rooms[1 - i].id, far_convection_w_m2k=faces[1 - i])
        element = Element("between", "between", "neighbours", 20.0, layers[:: 1 - 2 * i], faces[i], beyond)
        result.append(replace(subject, elements=(*subject.elements, element), cooling_setpoint_c=cooling_c[i]))
    return result[0], result[1]


def block(*size: int) -> tuple[Room, ...]:
    """Rooms without plant side by side and above each other, open to outdoors at the ends and on top."""
    rooms = []
    steps = [(axis, way) for axis in range(3) for way in (1, -1)]
    for at in np.ndindex(*size):
        bare = room("-".join(map(str, at)), azimuth=37.0 * at[0] + 91.0 * at[1])
        elements = [e for e in bare.elements if e.id in ("w1", "win", "floor")] if at[0] in (0, size[0] - 1) else []
        for axis, way in steps:
            other = list(at)
            other[axis] += way
            if not 0 <= other[axis] < size[axis]:
                continue
            hc, far = (5.0, 0.7)[::way] if axis == 2 else (2.5, 2.5)
            beyond = Boundary("room", neighbour="-".join(map(str, other)), far_convection_w_m2k=far)
            # The same slab or wall from both sides: symmetric layers need no turning.
            layers, area = (SLAB, 20.0) if axis == 2 else (STUD, 12.0)
            elements.append(Element(f"{axis}{way}", "n", "neighbours", area, layers, hc, beyond))
        windows = bare.windows if at[0] in (0, size[0] - 1) else ()
        rooms.append(replace(bare, elements=tuple(elements), windows=windows, cooled=False, heated=False))
    return tuple(rooms)


def loads(*rooms: Room, memory: Memory | None = None) -> dict:
    return dict(calculate(Building(ONE_MONTH, rooms), memory).rooms)


class Neighbours(unittest.TestCase):
    def test_an_unheated_store_is_found_by_balance(self) -> None:
        office, store = beside("office", "store"), beside("store", "office", azimuth=20.0, heated=False, cooled=False)
        found = loads(office, store)
        held = Keep(np.full(144, 24.0), np.full(144, 24.0))
        want = Network([office, store], OUTSIDE).run({"office": held}, days=60)
        self.assertLess(np.abs(found["store"].air_c[0] - want["store"].air_c).max(), 0.03)
        peak = -want["office"].plant_w.min()
        self.assertAlmostEqual(found["office"].total.max() / peak, 1.0, delta=0.001)
        self.assertEqual(found["office"].total[0].argmax(), (-want["office"].plant_w).argmax())
        warm = Keep(np.full(144, 20.0), np.full(144, 20.0))
        cold = Network([office, store], OUTSIDE).run({"office": warm}, days=120, winter=True)
        self.assertAlmostEqual(found["store"].winter_air_c, cold["store"].air_c.mean(), delta=0.01)
        self.assertAlmostEqual(found["office"].heating.load_w / cold["office"].plant_w.mean(), 1.0, delta=0.001)
        # Without the store the wall would lose nothing, with outdoors beyond it far more.
        adiabatic = loads(beside("office", "nobody"))["office"].heating.load_w
        self.assertGreater(found["office"].heating.load_w, adiabatic + 100.0)

    def test_set_points_apart(self) -> None:
        """Two rooms at 24 and 28 °C: stud wall, and a slab with the colder room below; each against the network of both."""
        for name, layers, faces in (("stud", STUD, (2.5, 2.5)), ("slab", SLAB, (5.0, 0.7))):
            for cold_side in (0, 1):
                with self.subTest(wall=name, cold_side=cold_side):
                    one, other = partition(layers, faces, 24.0 + 4.0 * cold_side, 28.0 - 4.0 * cold_side)
                    found = loads(one, other)
                    goals = {r.id: np.full(144, r.cooling_setpoint_c) for r in (one, other)}
                    keeps = {name: Keep(goal, goal) for name, goal in goals.items()}
                    want = Network([one, other], OUTSIDE).run(keeps, days=60)
                    for room_ in (one, other):
                        plant = -want[room_.id].plant_w
                        self.assertAlmostEqual(found[room_.id].total.max() / plant.max(), 1.0, delta=0.002)
                        self.assertLess(np.abs(found[room_.id].total[0] - plant).max(), 0.005 * plant.max())

    def test_what_one_room_loses_the_other_gains(self) -> None:
        """A room without plant and with nothing but a wall in common: what the wall brings it, its own leaks take away."""
        one, other = partition(BOARD, (2.5, 2.5), 24.0, 24.0)
        store = replace(
            other,
            elements=other.elements[-1:],
            windows=(),
            gains=(),
            heated=False,
            cooled=False,
            infiltration_m3_s=0.02,
        )
        found = loads(one, store)
        alone = loads(replace(one, elements=one.elements[:-1]), store)
        row = CATEGORIES.index("neighbours")
        lost = found["one"].heating.parts_w[row] - alone["one"].heating.parts_w[row]
        leaked = 0.02 * OUTSIDE.air_heat_j_m3k * (found["other"].winter_air_c - CLIMATE.winter_dry_bulb_c)
        # The room's own neighbour 8 K colder gives way a little where there is a wall more.
        self.assertAlmostEqual(lost / leaked, 1.0, delta=0.06)

    def test_thermostats_on_both_sides_and_a_follower(self) -> None:
        one, other = partition(STUD, (2.5, 2.5), 24.0, 24.0)
        low, high = (
            DayPattern(((420, 16.0), (1080, 20.0), (1440, 16.0))),
            DayPattern(((420, 28.0), (1080, 24.0), (1440, 28.0))),
        )
        kept = Thermostat((low,) * 12, (high,) * 12, low)
        one, other = replace(one, thermostat=kept), replace(other, thermostat=kept)
        found = loads(one, other)
        day = found["one"].control.summer
        keep = Keep(day.low_c[0].astype(float), day.high_c[0].astype(float))
        want = Network([one, other], OUTSIDE).run({"one": keep, "other": keep}, days=60)
        for name in ("one", "other"):
            plant = want[name].plant_w
            self.assertLess(np.abs(found[name].control.summer.plant_w[0] - plant).max(), 0.005 * np.abs(plant).max())
        # A follower without plant of its own floats, and its neighbour feels that, not what it would be with its own.
        idle = replace(other, thermostat=replace(kept, leader="one", heating_capacity_w=0.0, cooling_capacity_w=0.0))
        led = loads(one, idle)
        alone = Network([one, other], OUTSIDE).run({"one": keep}, days=60)
        self.assertLess(np.abs(led["other"].air_c[0] - alone["other"].air_c).max(), 0.05)
        self.assertLess(np.abs(led["one"].control.summer.plant_w[0] - alone["one"].plant_w).max(), 8.0)

    def test_a_floor_of_floating_rooms_comes_to_rest(self) -> None:
        """A block of 3 by 1 by 2 rooms without plant: each is warmed by all others, and all by the sun on their outside."""
        found = calculate(Building(ONE_MONTH, block(3, 1, 2)))
        self.assertEqual(found.failures, ())
        want = Network(block(3, 1, 2), OUTSIDE, seconds=100.0).run({}, days=200)
        for name, course in want.items():
            self.assertLess(np.abs(found.rooms[name].air_c[0] - course.air_c).max(), 0.1, name)

    def test_rooms_held_alike_do_not_feel_each_other(self) -> None:
        """By symmetry nothing goes through the wall: it is as if nobody were there."""
        one, two = beside("a", "b"), beside("b", "a", azimuth=20.0)
        together = loads(one, two)
        lonely = loads(beside("a", "nobody"))["a"]
        self.assertAlmostEqual(together["a"].heating.load_w, lonely.heating.load_w, places=3)

    def test_two_rooms_that_float_and_the_order(self) -> None:
        rooms = [
            beside("a", "b", heated=False, cooled=False),
            beside("b", "a", "c", azimuth=20.0, heated=False, cooled=False),
            beside("c", "b", azimuth=110.0),
        ]
        found, other = loads(*rooms), loads(*reversed(rooms))
        for name in "abc":
            self.assertLess(np.abs(found[name].total - other[name].total).max(), 0.1)

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
