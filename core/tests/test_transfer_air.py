"""Air from another room: against closed forms, both ways of a chain, and what must hold."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.plain_march import PlainRoom
from core.tests.rooms import CLIMATE, room
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import CATEGORIES, Room, TransferAir
from pendrum_core.model.schedules import constant
from pendrum_core.model.thermostats import NEVER_COOLED, Thermostat
from pendrum_core.results.building import BuildingResults
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain

NEIGHBOURS = CATEGORIES.index("neighbours")


def closed(name: str, **changed: object) -> Room:
    """A room that exchanges heat with nothing but air."""
    plain = room(name)
    shut = tuple(
        replace(e, boundary=replace(e.boundary, kind="adiabatic"), category="neighbours") for e in plain.elements
    )
    return replace(plain, elements=shut, windows=(), gains=(), infiltration_m3_s=0.0, **changed)


def found(*rooms: Room) -> BuildingResults:
    results = calculate(Building(CLIMATE, rooms))
    assert not results.failures, results.failures
    return results


class TransferAirInRooms(unittest.TestCase):
    def test_a_closed_room_has_the_air_it_gets(self) -> None:
        source = replace(room("a"), cooling_setpoint_c=23.0, heating_setpoint_c=19.0)
        led = closed("b", cooled=False, heated=False, transfers=(TransferAir("a", 0.05),))
        loads = found(source, led).rooms["b"]
        self.assertAlmostEqual(float(loads.air_c.min()), 23.0, places=6)
        self.assertAlmostEqual(float(loads.air_c.max()), 23.0, places=6)
        self.assertAlmostEqual(loads.winter_air_c, 19.0, places=6)

    def test_two_airs_mix_by_their_flows(self) -> None:
        leak, moved = 0.02, 0.03
        led = closed("b", cooled=False, heated=False, transfers=(TransferAir("a", moved),))
        led = replace(led, infiltration_m3_s=leak)
        results = found(replace(room("a"), cooling_setpoint_c=23.0, heating_setpoint_c=19.0), led)
        outdoors = results.outdoors.dry_bulb_c.mean(axis=1)
        want = (leak * outdoors + moved * 23.0) / (leak + moved)
        self.assertLess(np.abs(results.rooms["b"].air_c.mean(axis=1) - want).max(), 1e-6)
        winter = (leak * CLIMATE.winter_dry_bulb_c + moved * 19.0) / (leak + moved)
        self.assertAlmostEqual(results.rooms["b"].winter_air_c, winter, places=6)

    def test_held_rooms_get_so_much_heat(self) -> None:
        source = replace(room("a"), cooling_setpoint_c=27.0, heating_setpoint_c=15.0)
        plain = room("b")
        with_air = replace(plain, transfers=(TransferAir("a", 0.04),))
        before, after = found(source, plain), found(source, with_air)
        heat = 0.04 * after.outdoors.air_heat_j_m3k
        more = after.rooms["b"].total - before.rooms["b"].total
        self.assertLess(np.abs(more - heat * 3.0).max(), 1e-6)
        self.assertAlmostEqual(after.rooms["b"].heating.load_w - before.rooms["b"].heating.load_w, heat * 5.0, places=6)
        self.assertAlmostEqual(
            after.rooms["b"].heating.simple_w - before.rooms["b"].heating.simple_w, heat * 5.0, places=6
        )
        for name, loads in after.rooms.items():
            self.assertLess(np.abs(loads.parts.sum(axis=0) - loads.total).max(), 1e-6 * loads.total.max(), name)
            self.assertAlmostEqual(sum(loads.heating.parts_w), loads.heating.load_w, places=6)
        self.assertAlmostEqual(
            after.rooms["b"].heating.parts_w[NEIGHBOURS] - before.rooms["b"].heating.parts_w[NEIGHBOURS],
            heat * 5.0,
            places=6,
        )

    def test_a_floating_source_is_felt_over_the_day(self) -> None:
        """A room left to itself warms the one that its air goes to; a plain march with that air gives the same."""
        source = room("a", cooled=False)
        led = replace(room("b", 20.0), transfers=(TransferAir("a", 0.03),))
        results = found(source, led)
        self.assertGreater(float(np.ptp(results.rooms["a"].air_c[6])), 1.0)
        heat = 0.03 * results.outdoors.air_heat_j_m3k
        more = results.rooms["b"].total - found(room("b", 20.0)).rooms["b"].total
        want = heat * (results.rooms["a"].air_c - 24.0)
        self.assertLess(np.abs(more - want).max(), heat * 6e-3)

    def test_a_circle_of_air_comes_to_rest(self) -> None:
        rooms = [
            replace(room(f"r{i}", 90.0 * i, cooled=False), transfers=(TransferAir(f"r{(i + 1) % 3}", 0.02 + 0.01 * i),))
            for i in range(3)
        ]
        results = found(*rooms)
        for index, one in enumerate(rooms):
            air, other = (results.rooms[name].air_c for name in (one.id, rooms[(index + 1) % 3].id))
            alone = replace(one, transfers=(), infiltration_m3_s=one.infiltration_m3_s + one.transfer_m3_s)
            # A march in which the leak brings the neighbour's air for the part that comes from it.
            share = one.transfer_m3_s / alone.infiltration_m3_s
            month = 6
            plain = PlainRoom(alone, results.outdoors)
            drive = plain._drive

            def mixed(
                m: int, step: int, winter: bool, drive=drive, other=other, share=share, plain=plain
            ) -> np.ndarray:
                result = drive(m, step, winter)
                result[-1] += plain.leak_w_k * share * (other[m, step] - results.outdoors.dry_bulb_c[m, step])
                return result

            plain._drive = mixed
            want = plain.run(month, lambda *_: 0.0)[1]
            self.assertLess(np.abs(air[month] - want).max(), 0.05)

    def test_a_thermostat_feels_it(self) -> None:
        heated = Thermostat(
            heating=(constant(20.0),) * 12, cooling=NEVER_COOLED, winter=constant(20.0), heating_capacity_w=5e4
        )
        source = replace(room("a"), heating_setpoint_c=15.0)
        plain = replace(room("b"), thermostat=heated, cooled=False)
        before = found(source, plain)
        after = found(source, replace(plain, transfers=(TransferAir("a", 0.04),)))
        heat = 0.04 * after.outdoors.air_heat_j_m3k
        self.assertAlmostEqual(
            after.rooms["b"].heating.load_w - before.rooms["b"].heating.load_w, heat * 5.0, delta=1e-3 * heat
        )

    def test_working_names_it(self) -> None:
        source = replace(room("a"), cooling_setpoint_c=27.0, heating_setpoint_c=15.0)
        results = found(source, replace(room("b"), transfers=(TransferAir("a", 0.04),)))
        heat = 0.04 * results.outdoors.air_heat_j_m3k
        for quantity, want in (("room_cooling", 3.0), ("room_heating", 5.0), ("room_heating_simple", 5.0)):
            node = explain(results, quantity, "b")
            nodes = [*node.inputs, *(child for part in node.inputs for child in part.inputs)]
            (air,) = [part for part in nodes if part.name == "Air from other rooms"]
            self.assertAlmostEqual(air.value, heat * want, places=5)

    def test_refuses_what_cannot_be(self) -> None:
        for flow in (-0.1, 2000.0, float("nan")):
            with self.assertRaisesRegex(ValueError, "0 to 1000"):
                TransferAir("a", flow)
