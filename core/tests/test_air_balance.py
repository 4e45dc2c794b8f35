"""Air balance of rooms, make-up units, and rooms on two systems: against sums by hand."""

import re
import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, room
from pendrum_core.air.balance import LEAKS, RETURN, SUPPLY, TRANSFER, air_balance
from pendrum_core.air.parts import DRAW_THROUGH
from pendrum_core.checks.balance import balance_snags
from pendrum_core.climate.atmosphere import site_pressure_pa
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import Boundary, Element, Gain, Room
from pendrum_core.model.systems import MAKE_UP, ROOM_UNIT, AirSystem, Extract, Terminal, Transfer
from pendrum_core.model.unit_parts import FAN, UnitPart
from pendrum_core.results.building import BuildingResults
from pendrum_core.run import calculate
from pendrum_core.run.aired import with_air
from pendrum_core.run.memory import Memory
from pendrum_core.schedule.pattern import DayPattern
from pendrum_core.working.explain import explain

P = site_pressure_pa(CLIMATE.site.elevation_m)
KG_M3 = P / (287.042 * 293.15)  # dry air at 20 °C
CP = 1006.0
WALL = room().elements[0].layers


def closed(name: str, gain_w: float = 0.0, **changed: object) -> Room:
    """A room that exchanges heat with nothing but its air: its load is its gain, all day."""
    walls = (Element("w", "inner", "neighbours", 30.0, WALL, 2.5, Boundary("adiabatic")),)
    gains = (Gain("equipment", gain_w, 0.0, 0.0),) if gain_w else ()
    return replace(
        room(name),
        elements=walls,
        windows=(),
        gains=gains,
        infiltration_m3_s=0.0,
        **changed,  # type: ignore[arg-type]
    )


def terminal(name: str, **changed: object) -> Terminal:
    return replace(Terminal(name, 0.0, 0.0, 0.0, 1.0, 0.0), **changed)  # type: ignore[arg-type]


def system(name: str, *terminals: Terminal, **changed: object) -> AirSystem:
    """A system without ducts whose fan does nearly nothing."""
    still = {
        "parts": tuple(UnitPart(kind, 0.01 if kind == FAN else 0.0) for kind in DRAW_THROUGH),
        "outlet_velocity_m_s": 0.0,
        "held_pa": 0.0,
    }
    return AirSystem(**{"id": name, "name": name, "terminals": terminals, "sections": (), **still, **changed})


def found(building: Building) -> BuildingResults:
    results = calculate(building)
    assert not results.failures, results.failures
    return results


class Kitchen(unittest.TestCase):
    """A hood of 450 L/s in a room that is kept negative by 40 L/s: 410 L/s are made up, 40 L/s leak in."""

    def setUp(self) -> None:
        made = system("m", terminal("k"), kind=MAKE_UP, winter_supply_c=16.0, supply_c=16.0)
        kitchen = replace(closed("k"), heating_setpoint_c=16.0, cooled=False)
        self.building = Building(
            CLIMATE, (kitchen,), systems=(made,), extracts=(Extract("h", "Hood", "k", 0.45),), offsets_m3_s={"k": -0.04}
        )
        self.results = found(self.building)

    def test_flows(self) -> None:
        balance = self.results.balance.rooms["k"]
        self.assertEqual(balance.free, SUPPLY)
        self.assertAlmostEqual(balance.make_up_m3_s, 0.41)
        self.assertAlmostEqual(balance.leak_in_m3_s, 0.04)
        self.assertAlmostEqual(balance.surplus_m3_s, 0.0)
        made = self.results.systems["m"]
        np.testing.assert_allclose(made.summer.terminal_kg_s, 0.41 * KG_M3, rtol=1e-4)
        np.testing.assert_allclose(made.summer.relief_kg_s, 0.0, atol=1e-9)

    def test_winter_coil_and_what_is_left_to_the_room(self) -> None:
        kelvin = 16.0 - CLIMATE.winter_dry_bulb_c
        duty = float(self.results.systems["m"].winter.heating_w.max())
        # Moisture of saturated air at -9 °C adds 0.3 % to its heat capacity.
        self.assertLess(abs(duty / (0.41 * KG_M3 * CP * kelvin) - 1.0), 0.005)
        left = self.results.heating_duty_w["k"]
        self.assertLess(abs(left / (0.04 * KG_M3 * CP * kelvin) - 1.0), 0.01)

    def test_make_up_follows_the_hood(self) -> None:
        half = DayPattern(((720, 0.0), (1440, 0.5)))
        hood = replace(self.building.extracts[0], by_month=(half,) * 12)
        path = found(replace(self.building, extracts=(hood,))).systems["m"].summer
        np.testing.assert_allclose(path.terminal_kg_s[:, 72:], (0.225 - 0.04) * KG_M3, rtol=1e-4)
        np.testing.assert_allclose(path.terminal_kg_s[:, :72], 0.0, atol=1e-12)

    def test_its_air_under_what_is_made_up(self) -> None:
        """2 kW in 450 L/s of air that comes at 16 °C, and 10 L/s of leaks that are up to 35 °C warm."""
        hot = replace(
            closed("k", 2000.0), heating_setpoint_c=16.0, cooled=False, infiltration_m3_s=0.01, cooling_setpoint_c=24.0
        )
        air_c = found(replace(self.building, rooms=(hot,), offsets_m3_s={})).served_air_c("k")
        assert air_c is not None
        over_k = 2000.0 / (0.45 * KG_M3 * CP)
        warmth_k = float(air_c.max()) - 16.0
        self.assertGreater(warmth_k, 0.98 * over_k)
        self.assertLess(warmth_k, over_k + 0.01 / 0.45 * (35.0 - 16.0))
        self.assertIsNone(found(replace(self.building, systems=())).served_air_c("k"))

    def test_without_make_up_it_draws_outdoor_air(self) -> None:
        alone = found(replace(self.building, systems=()))
        balance = alone.balance.rooms["k"]
        self.assertEqual((balance.free, round(balance.leak_in_m3_s, 6)), (LEAKS, 0.45))
        kelvin = 16.0 - CLIMATE.winter_dry_bulb_c
        self.assertLess(abs(alone.heating_duty_w["k"] / (0.45 * KG_M3 * CP * kelvin) - 1.0), 0.01)


class Transfers(unittest.TestCase):
    def test_untreated_outdoor_air_spares_what_is_drawn_in(self) -> None:
        """The hood takes 450 L/s; 100 L/s of untreated outdoor air come already, so that 350 L/s are drawn in through leaks."""
        kitchen = replace(closed("k"), direct_outdoor_air_m3_s=0.1, winter_infiltration_m3_s=0.02)
        building = Building(CLIMATE, (kitchen,), extracts=(Extract("h", "Hood", "k", 0.45),))
        aired, balance = with_air(building, Memory())
        self.assertAlmostEqual(balance.rooms["k"].drawn_m3_s - 0.1, aired.rooms[0].infiltration_m3_s)
        self.assertAlmostEqual(aired.rooms[0].infiltration_m3_s, 0.35)
        self.assertAlmostEqual(aired.rooms[0].winter_infiltration_m3_s or 0.0, 0.35)

    def test_washroom_is_balanced_by_its_corridor(self) -> None:
        """60 L/s leave the washroom, 25 come in from a lobby: the corridor owes 35, which its return gives up."""
        rooms = (closed("w", cooled=False), closed("c", 500.0), closed("l", cooled=False))
        flows = (Transfer("a", "l", "w", 0.025), Transfer("b", "c", "w", None))
        air = system("s", terminal("c", pinned_flow_m3_s=0.2))
        results = found(
            Building(CLIMATE, rooms, systems=(air,), extracts=(Extract("x", "Toilet", "w", 0.06),), transfers=flows)
        )
        self.assertAlmostEqual(results.balance.transfers_m3_s["b"], 0.035)
        washroom, corridor, lobby = (results.balance.rooms[r] for r in "wcl")
        self.assertEqual((washroom.free, corridor.free, lobby.free), (TRANSFER, RETURN, LEAKS))
        self.assertAlmostEqual(lobby.leak_in_m3_s, 0.025)  # drawn through it
        path = results.systems["s"].summer
        np.testing.assert_allclose(path.terminal_kg_s - path.return_kg_s, 0.035 * KG_M3, rtol=1e-3)
        # The outdoor share replaces at least what does not come back.
        self.assertGreaterEqual(float((path.outdoor_kg_s - 0.035 * KG_M3).min()), -1e-6)

    def test_every_room_of_a_random_web_balances(self) -> None:
        random = np.random.default_rng(7)
        names = [f"r{i}" for i in range(12)]
        for _ in range(30):
            rooms = tuple(closed(name) for name in names)
            given = tuple(
                Transfer(f"g{i}", names[i], names[j], float(random.uniform(0.01, 0.1)))
                for i, j in (random.choice(12, 2, replace=False) for _ in range(8))
            )
            # A tree of flows that balance never goes round in a ring.
            free = tuple(Transfer(f"f{i}", names[int(random.integers(0, i))], names[i], None) for i in range(1, 12))
            extracts = tuple(Extract(f"x{i}", "x", names[i], float(random.uniform(0.0, 0.4))) for i in range(1, 12))
            balance = air_balance(Building(CLIMATE, rooms, extracts=extracts, transfers=given + free))
            wrong_way = {name for name, said in balance.faults.items() if "other way" in said}
            touched = {t.target for t in free if t.id in wrong_way} | {t.source for t in free if t.id in wrong_way}
            for name, b in balance.rooms.items():
                if name not in touched:
                    inwards = b.supply_m3_s + b.transfer_in_m3_s + b.leak_in_m3_s
                    out = b.extract_m3_s + b.by_unit_m3_s + b.transfer_out_m3_s + b.leak_out_m3_s
                    self.assertAlmostEqual(inwards, out, places=9)

    def test_rings_and_closed_ends_are_said(self) -> None:
        rooms = (closed("a"), closed("b"))
        ring = (Transfer("1", "a", "b", None), Transfer("2", "b", "a", None))
        self.assertEqual(set(air_balance(Building(CLIMATE, rooms, transfers=ring)).faults), {"1", "2"})
        held = tuple(system(name, terminal(name)) for name in "ab")
        faults = air_balance(Building(CLIMATE, rooms, systems=held, transfers=ring[:1])).faults
        self.assertIn("give it a flow", faults["1"])

    def test_return_that_would_be_negative_is_drawn_from_outdoors(self) -> None:
        air = system("s", terminal("c", pinned_flow_m3_s=0.1))
        building = Building(CLIMATE, (closed("c", 500.0),), systems=(air,), extracts=(Extract("x", "Hood", "c", 0.25),))
        balance = air_balance(building).rooms["c"].with_supply(0.1)
        self.assertAlmostEqual(balance.surplus_m3_s, -0.15)
        self.assertAlmostEqual(balance.leak_in_m3_s, 0.15)
        self.assertEqual(balance.returned_m3_s, 0.0)

    def test_the_snag_says_how_much_the_extracts_take_too_much(self) -> None:
        air = system("s", terminal("c", pinned_flow_m3_s=0.1))
        hood = (Extract("x", "Hood", "c", 0.25),)
        results = found(Building(CLIMATE, (closed("c", 500.0),), systems=(air,), extracts=hood))
        snags = [snag for snag in balance_snags(results) if snag.code == "return_below_nought"]
        self.assertEqual([snag.id for snag in snags], ["c"])
        # 100 L/s at the supply air's 14 °C are 102 L/s of air at 20 °C; its moisture adds half a litre.
        lacks = int(re.search(r"take (\d+) L/s more than its system brings", snags[0].sentence)[1])  # type: ignore[index]
        self.assertAlmostEqual(lacks, 250.0 - 100.0 * 293.15 / 287.15, delta=1.5)
        plenty = system("s", terminal("c", pinned_flow_m3_s=0.3))
        results = found(Building(CLIMATE, (closed("c", 500.0),), systems=(plenty,), extracts=hood))
        self.assertEqual(list(balance_snags(results)), [])


class OutdoorAirUnitAndFanCoil(unittest.TestCase):
    """60 L/s of outdoor air and a fan coil in one room."""

    def results(self, gain_w: float, outdoor_air_c: float, low_c: float = 20.0) -> BuildingResults:
        one = replace(closed("r", gain_w), heating_setpoint_c=low_c)
        fresh = system(
            "o", terminal("r", outdoor_air_changes=3.6, shared=True), supply_c=outdoor_air_c, outdoor_only=True,
            supply_rule="fixed", winter_supply_c=outdoor_air_c, reheat="none", ventilation="sum",
        )  # fmt: skip
        unit = system("f", terminal("r", rank=2, shared=True, pinned_flow_m3_s=0.2), kind=ROOM_UNIT, supply_c=14.0)
        return found(Building(CLIMATE, (one,), systems=(unit, fresh)))

    def test_fan_coil_takes_what_is_left(self) -> None:
        results = self.results(2000.0, 18.0)
        first, second = results.systems["o"], results.systems["f"]
        self.assertEqual(list(results.systems), ["o", "f"])
        flow = float(first.summer.terminal_kg_s.max())
        self.assertLess(abs(flow / (0.06 * KG_M3) - 1.0), 0.01)  # 3.6 changes of 60 m³
        left = 2000.0 - flow * CP * 6.0
        np.testing.assert_allclose(second.coil_sensible_w[6], left, rtol=0.012)
        self.assertEqual(float(second.summer.outdoor_kg_s.max()), 0.0)
        np.testing.assert_allclose(second.served["r"].air_c[6], 24.0, atol=0.02)

    def test_cold_outdoor_air_makes_it_heat_in_july(self) -> None:
        results = self.results(0.0, 14.0)
        flow = float(results.systems["o"].summer.terminal_kg_s.max())
        heat = float(results.systems["f"].served["r"].reheat_w[6].max())
        self.assertLess(abs(heat / (flow * CP * 6.0) - 1.0), 0.03)
        self.assertAlmostEqual(float(results.systems["f"].served["r"].air_c[6].min()), 20.0, places=3)

    def test_heat_of_the_room_closes_over_both(self) -> None:
        """Gain = what both streams take out + heat, at every step of the year's days."""
        results = self.results(900.0, 16.0)
        taken = sum(
            s.served["r"].flow_kg_s * (1006 + 1860 * s.summer.supply_w) * (s.served["r"].air_c - s.summer.supply_c)
            for s in results.systems.values()
        )
        open_w = 900.0 + results.systems["f"].served["r"].reheat_w - taken
        # The air's own store lets a step's end differ from its mean.
        self.assertLess(np.abs(open_w.mean(axis=1)).max(), 3.0)


class WorkingOfDuties(unittest.TestCase):
    """Every duty's Working ends at the figure that it explains, and its parts make it."""

    def test_balance_and_heating_coil(self) -> None:
        kitchen = Kitchen()
        kitchen.setUp()
        results = kitchen.results
        tree = explain(results, "room_balance", "k")
        parts = {node.name: node.value or 0.0 for node in tree.inputs}
        inwards = parts["Supply"] + parts["From other rooms"] + parts["Through leaks, in"]
        out = parts["Return"] + parts["Extracts"] + parts["To other rooms"] + parts["Through leaks, out"]
        self.assertAlmostEqual(inwards, out, places=6)
        self.assertAlmostEqual(tree.value or 0.0, inwards)
        coil = explain(results, "heating_coil", "m")
        flow, entering, leaving = (node.value or 0.0 for node in coil.inputs[:3])
        self.assertAlmostEqual(coil.value or 0.0, flow * (leaving - entering), places=3)

    def test_reheat_is_the_sum_of_its_rooms(self) -> None:
        results = OutdoorAirUnitAndFanCoil().results(0.0, 14.0)
        tree = explain(results, "terminals_reheat", "f")
        self.assertGreater(tree.value or 0.0, 100.0)
        self.assertAlmostEqual(tree.value or 0.0, sum(node.value or 0.0 for node in tree.inputs), delta=1.0)


if __name__ == "__main__":
    unittest.main()
