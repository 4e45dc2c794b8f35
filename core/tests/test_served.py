"""What rooms get: supply air in their balance, dead band, limits, and the path of the air; against hand and explicit marches."""

import unittest
from dataclasses import replace
from itertools import permutations

import numpy as np

from core.tests.test_air_system import building
from pendrum_core.air.economizer import Economizer
from pendrum_core.air.fan import FanCurve
from pendrum_core.air.parts import BLOW_THROUGH, DRAW_THROUGH
from pendrum_core.air.path import TO_OUTDOORS, Ducts, Rooms, Unit
from pendrum_core.air.recovery import Recovery, recover
from pendrum_core.air.terminals import AT_LEAST, AT_MOST, FOLLOWS, terminal_flow
from pendrum_core.air.walk import walk
from pendrum_core.model.unit_parts import ADIABATIC, COOLING_COIL, FAN, HEATING_COIL, KINDS, STEAM, refused
from pendrum_core.moist_air import enthalpy_j_kg, humidity_ratio_from_relative, saturation_humidity_ratio
from pendrum_core.proof.air_paths import plate_entries, vav_entries
from pendrum_core.proof.cases import load_case
from pendrum_core.room.supply.served import Asked, serve
from pendrum_core.run import calculate
from pendrum_core.schedule.pattern import DayPattern

STEP_S, STEPS = 600.0, 144
P = 99_500.0


def answer_of(capacity_j_k: float, loss_w_k: float) -> np.ndarray:
    """One node's temperature at the ends of steps for a watt through step 0 of every day, in closed form."""
    decay = np.exp(-loss_w_k * STEP_S / capacity_j_k)
    return (1.0 - decay) / loss_w_k * decay ** np.arange(STEPS) / (1.0 - decay**STEPS)


def one(value: float) -> np.ndarray:
    return np.full((1, 1, STEPS), value)


class DeadBand(unittest.TestCase):
    """A room of 50 W/K to 10 °C under 250 W/K of air at 14 °C that another room asks for, no gains, band 20 to 24 °C."""

    def served(self, heat_most_w: float, low_c: float = 20.0, supply_c: float = 14.0, rate: float = 250.0):
        asked = Asked(answer_of(3e5, 50.0)[None], one(0.0), one(10.0), one(low_c), one(24.0))
        return serve(asked, one(supply_c), one(rate), one(rate), np.full((1, 1, 1), heat_most_w))

    def test_reheated_to_the_heating_set_point_and_no_further(self) -> None:
        found = self.served(np.inf)
        np.testing.assert_allclose(found.heat_w, 250.0 * 6.0 + 50.0 * 10.0, rtol=1e-9)
        np.testing.assert_allclose(found.air_c, 20.0, atol=1e-9)

    def test_not_heated_it_stands_where_the_balance_is(self) -> None:
        found = self.served(0.0)
        self.assertEqual(float(found.heat_w.max()), 0.0)
        np.testing.assert_allclose(found.air_c, (250.0 * 14.0 + 50.0 * 10.0) / 300.0, atol=1e-7)

    def test_a_limit_leaves_it_colder(self) -> None:
        found = self.served(1200.0)
        np.testing.assert_allclose(found.air_c, (250.0 * 14.0 + 50.0 * 10.0 + 1200.0) / 300.0, atol=1e-7)

    def test_a_lower_set_point_never_raises_a_duty(self) -> None:
        duties = [float(self.served(np.inf, low).heat_w.max()) for low in (21.0, 20.0, 18.0, 15.0, 12.0)]
        self.assertEqual(duties, sorted(duties, reverse=True))
        self.assertEqual(duties[-1], 0.0)  # 13.3 °C by itself

    def test_warm_supply_carries_the_loss(self) -> None:
        """250 W/K at 21 °C bring 250 W into a room of 20 °C that loses 500 W: its emitter gives the other half."""
        np.testing.assert_allclose(self.served(np.inf, supply_c=21.0).heat_w, 250.0, rtol=1e-9)
        np.testing.assert_allclose(self.served(np.inf, supply_c=23.0).heat_w, 0.0, atol=1e-9)


class AgainstAMarch(unittest.TestCase):
    """A node with gains by the hour, marched in steps of two seconds until the day repeats."""

    def test_variable_flow_and_reheat_through_a_day(self) -> None:
        capacity, loss, outdoor, supply = 4e5, 60.0, 16.0, 13.0
        least, most, low, high = 40.0, 220.0, 20.0, 24.0
        hours = np.arange(STEPS) / 6.0
        gains = np.where((hours >= 8) & (hours < 18), 1900.0, 50.0)
        # Asked: held at 24 °C, the load of each step by the balance.
        load = gains + loss * (outdoor - 24.0)
        asked = Asked(answer_of(capacity, loss)[None], -load[None, None], one(24.0), one(low), one(high))
        found = serve(asked, one(supply), one(least), one(most), np.full((1, 1, 1), np.inf))
        fine = 300
        dt = STEP_S / fine
        air, rates, heats, airs = 22.0, np.zeros(STEPS), np.zeros(STEPS), np.zeros(STEPS)
        for _ in range(6):
            for step in range(STEPS):
                rate_sum = heat_sum = 0.0
                for _ in range(fine):
                    drift = gains[step] + loss * (outdoor - air)
                    rate = least
                    heat = 0.0
                    if air >= high:
                        rate = min(most, max(least, drift / (air - supply) + 1e-3 * capacity * (air - high)))
                    elif air <= low:
                        heat = max(0.0, -(drift + least * (supply - air)) + 1e-3 * capacity * (low - air))
                    air += dt / capacity * (drift + rate * (supply - air) + heat)
                    rate_sum += rate / fine
                    heat_sum += heat / fine
                rates[step], heats[step], airs[step] = rate_sum, heat_sum, air
        self.assertTrue(found.settled.all())
        self.assertLess(np.abs(found.air_c[0, 0] - airs).max(), 0.15)
        self.assertAlmostEqual(float(found.rate_w_k[0, 0].sum()) / rates.sum(), 1.0, delta=0.005)
        self.assertAlmostEqual(float(found.heat_w[0, 0].sum()) / max(heats.sum(), 1.0), 1.0, delta=0.02)
        self.assertAlmostEqual(float(found.rate_w_k.max()) / rates.max(), 1.0, delta=0.01)


class Terminals(unittest.TestCase):
    def test_three_ways_by_hand(self) -> None:
        """(1006 + 1860 × 0.008) × 10 K carry 10.21 kJ a kilogram."""
        loads = np.array([3000.0, 400.0, -500.0, 9000.0])
        found = terminal_flow(loads, *(np.full(4, v) for v in (24.0, 14.0, 0.008, 0.1, 0.5)))
        carried = (1006.0 + 1860.0 * 0.008) * 10.0
        np.testing.assert_allclose(found.flow_kg_s, [3000.0 / carried, 0.1, 0.1, 0.5])
        np.testing.assert_allclose(found.reheat_w, [0.0, 0.1 * carried - 400.0, 0.1 * carried + 500.0, 0.0])
        np.testing.assert_allclose(found.short_w, [0.0, 0.0, 0.0, 9000.0 - 0.5 * carried])
        self.assertEqual(found.mode.tolist(), [FOLLOWS, AT_LEAST, AT_LEAST, AT_MOST])


class Exchangers(unittest.TestCase):
    def test_frost_limit_by_hand(self) -> None:
        """ε 0.75, -15 and 21 °C, exhaust not below 1 °C, equal flows, dry: ε falls to 20/36, 5 °C off the exchanger."""
        found = recover(
            Recovery(0.75, frost="turned down", exhaust_least_c=1.0),
            *map(np.array, (1.0, 1.0, -15.0, 0.0, 21.0, 0.0)),
            P,
        )
        self.assertAlmostEqual(0.75 * float(found.share), 20.0 / 36.0, places=6)
        self.assertAlmostEqual(float(found.leaving_c), 5.0, places=5)
        self.assertAlmostEqual(1006.0 * (20.0 - float(found.leaving_c)) / 1000.0, 15.09, places=2)

    def test_preheat_instead(self) -> None:
        found = recover(
            Recovery(0.75, frost="preheat", exhaust_least_c=1.0), *map(np.array, (1.0, 1.0, -15.0, 0.0, 21.0, 0.0)), P
        )
        # 21 - 0.75 (21 - t) = 1 with t = -5.667 °C.
        self.assertAlmostEqual(float(found.entering_c), 21.0 - 20.0 / 0.75, places=5)
        self.assertAlmostEqual(float(found.preheat_j_kg), 1006.0 * (15.0 + 21.0 - 20.0 / 0.75), delta=0.1)
        self.assertAlmostEqual(float(found.exhaust_c), 1.0, places=5)

    def test_the_effectiveness_is_of_the_smaller_flow_and_heat_is_kept(self) -> None:
        m_s, m_e = np.array(0.6), np.array(0.4)
        found = recover(Recovery(0.8, 0.5), m_s, m_e, *map(np.array, (-5.0, 0.002, 21.0, 0.006)), P)
        self.assertAlmostEqual(float(found.leaving_c), -5.0 + 0.8 * (0.4 / 0.6) * 26.0)
        gained = 0.6 * (enthalpy_j_kg(found.leaving_c, found.leaving_w) - enthalpy_j_kg(-5.0, 0.002))
        water = float(found.dripped_kg_kg) * 4186.0 * float(found.exhaust_c)
        lost = 0.4 * (enthalpy_j_kg(21.0, 0.006) - enthalpy_j_kg(found.exhaust_c, found.exhaust_w) - water)
        self.assertAlmostEqual(float(gained / lost), 1.0, places=8)
        most = saturation_humidity_ratio(found.exhaust_c, P)
        self.assertLessEqual(float(found.exhaust_w), float(most) * (1 + 1e-9))

    def test_out_of_range_is_refused(self) -> None:
        for unit in (Recovery(1.2), Recovery(0.5, -0.1), Recovery(0.5, frost="hope")):
            with self.assertRaises(ValueError):
                recover(unit, *map(np.array, (1.0, 1.0, 0.0, 0.002, 20.0, 0.006)), P)


class Paths(unittest.TestCase):
    def unit(self, **more: object) -> Unit:
        fan = FanCurve(1.0, 800.0, 200.0, 0.6, 0.85)
        plain = {
            "pressure_pa": P,
            "target_c": np.full(6, 13.0),
            "least_outdoor_kg_s": 0.3,
            "bypass": 0.1,
            "supply_fan": fan,
        }
        return Unit(**(plain | more))  # type: ignore[arg-type]

    def rooms(self, count: int = 6) -> Rooms:
        shape = (2, count)
        flow, latent = np.full(shape, 0.5), np.full(shape, 300.0)
        return Rooms(flow, np.zeros(shape), np.full(shape, 23.5), latent, np.full(shape, 0.01), np.full(count, 400.0))

    OUT = (np.array([34.0, 26.0, 20.0, 14.0, 5.0, -8.0]), np.array([0.015, 0.012, 0.011, 0.008, 0.004, 0.0015]))

    def test_balances_close_whatever_the_unit_has(self) -> None:
        for more in (
            {},
            {"economizer": Economizer("enthalpy differential"), "return_fan": FanCurve(1.0, 300.0, 0.0, 0.6, 0.85)},
            {"economizer": Economizer("dry-bulb fixed", 18.0), "parts": BLOW_THROUGH},
            {"recovery": Recovery(0.7, 0.4, "turned down", 1.0), "parts": (*DRAW_THROUGH, ADIABATIC), "least_return_w": 0.007},
            {"recovery": Recovery(0.6, 0.0, "preheat", 2.0), "outdoor_only": True, "parts": (STEAM, *DRAW_THROUGH), "least_return_w": 0.006},
            {"parts": (COOLING_COIL, FAN, HEATING_COIL), "dry_to_c": 9.0, "at_terminals": True},
            {"ducts": Ducts(0.06, TO_OUTDOORS, 300.0), "at_terminals": True, "cools": False},
        ):  # fmt: skip
            path = walk(self.unit(**more), self.rooms(), *self.OUT)
            self.assertTrue(path.settled, more)
            self.assertLess(path.balance, 1e-6, more)

    def test_any_number_of_steps_and_no_calendar(self) -> None:
        """A year in one call is the same as its hours one by one."""
        rng = np.random.default_rng(5)
        out_c, out_w = rng.uniform(-10, 35, 8760), rng.uniform(0.001, 0.012, 8760)
        out_w = np.minimum(out_w, 0.98 * saturation_humidity_ratio(out_c, P))
        unit = replace(self.unit(economizer=Economizer("dry-bulb differential")), target_c=np.full(8760, 13.0))
        year = walk(unit, self.rooms(8760), out_c, out_w)
        self.assertTrue(year.settled)
        for hour in (0, 4000, 8759):
            alone = walk(replace(unit, target_c=np.full(1, 13.0)), self.rooms(1), out_c[[hour]], out_w[[hour]])
            self.assertAlmostEqual(float(alone.cooling_w[0]), float(year.cooling_w[hour]), delta=1e-3)
            self.assertAlmostEqual(float(alone.supply_w[0]), float(year.supply_w[hour]), places=9)

    def test_the_humidifier_holds_what_comes_back(self) -> None:
        wanted = float(humidity_ratio_from_relative(21.0, 0.4, P))
        for kind in (STEAM, ADIABATIC):
            path = walk(self.unit(parts=(HEATING_COIL, kind, FAN), least_return_w=wanted), self.rooms(), *self.OUT)
            held = path.humidified_kg_kg > 0.0
            self.assertTrue(held.any())
            np.testing.assert_allclose(path.return_w[held], wanted, rtol=1e-6)

    def test_every_order_of_parts_reaches_its_target_and_closes(self) -> None:
        """Wherever fan, coils and humidifier stand, terminals get what they want in every season, and heat adds up."""
        base = (HEATING_COIL, COOLING_COIL, FAN)
        orders = {o for more in ((), (STEAM,), (ADIABATIC,)) for o in permutations((*base, *more)) if not refused(o)}
        self.assertEqual(len(orders), 6 + 2 * 24)
        for order in sorted(orders):
            unit = self.unit(parts=order, at_terminals=True, least_return_w=0.006, target_c=np.full(6, 14.0))
            path = walk(unit, self.rooms(), *self.OUT)
            self.assertTrue(path.settled, order)
            self.assertLess(path.balance, 1e-6, order)
            heater, cooler = order.index(HEATING_COIL), order.index(COOLING_COIL)
            humidifier = next((i for i, kind in enumerate(order) if kind in (STEAM, ADIABATIC)), None)
            # On the coldest day the heating coil holds the target, on the hottest the cooling coil; steam behind the coils
            # may leave the air a little warmer, never colder.
            if humidifier is None or humidifier < heater:
                self.assertGreater(float(path.supply_c[-1]), 14.0 - 1e-5, order)
                self.assertLess(float(path.supply_c[-1]), 14.0 + (1e-5 if humidifier is None else 0.3), order)
            if humidifier is None or humidifier < cooler:
                self.assertAlmostEqual(float(path.supply_c[0]), 14.0, places=5, msg=str(order))

    def test_the_fan_before_the_coil_spares_the_heating_and_costs_no_cooling_twice(self) -> None:
        """By hand: at constant flow and no condensation both orders take m cp (T mixed - T supply) + fan from the coil."""
        dry = (np.full(6, 30.0), np.full(6, 0.004))
        rooms = self.rooms()
        rooms = replace(rooms, latent_w=np.zeros_like(rooms.latent_w))
        for parts in (DRAW_THROUGH, BLOW_THROUGH):
            unit = self.unit(parts=parts, at_terminals=True, supply_fan=None, fan_w=1500.0)
            path = walk(unit, rooms, *dry)
            cp = 1006.0 + 1860.0 * path.supply_w
            want = path.flow_kg_s * cp * (path.mixed_c - path.supply_c) + 1500.0
            np.testing.assert_allclose(path.cooling_w, want, rtol=2e-4)

    def test_drying_needs_a_heating_coil_behind_to_come_back(self) -> None:
        """Without it the air stays as cold as it was dried to; with it, it comes at the target, and no drier."""
        dried = {"dry_to_c": 9.0, "at_terminals": True, "target_c": np.full(6, 16.0)}
        plain = walk(self.unit(parts=(COOLING_COIL, FAN), **dried), self.rooms(), *self.OUT)
        again = walk(self.unit(parts=(COOLING_COIL, FAN, HEATING_COIL), **dried), self.rooms(), *self.OUT)
        self.assertAlmostEqual(float(plain.supply_c[0]), 9.0 + float(plain.fan_rise_k[0]), places=6)
        self.assertAlmostEqual(float(again.supply_c[0]), 16.0, places=6)
        self.assertAlmostEqual(float(again.supply_w[0]), float(plain.supply_w[0]), places=5)
        # The coil behind gives just what lies between.
        cp = 1006.0 + 1860.0 * float(again.supply_w[0])
        gap = 16.0 - 9.0 - float(again.fan_rise_k[0])
        self.assertAlmostEqual(float(again.heating_w[0]) / (cp * gap), float(again.flow_kg_s[0]), places=4)

    def test_orders_that_no_unit_can_have(self) -> None:
        self.assertEqual(refused(DRAW_THROUGH), "")
        for order, word in (
            ((COOLING_COIL,), "one supply fan"),
            ((FAN, FAN), "one supply fan"),
            ((COOLING_COIL, FAN, COOLING_COIL), "one cooling coil"),
            ((FAN, STEAM, ADIABATIC), "one humidifier"),
            ((HEATING_COIL, FAN, HEATING_COIL), "two heating coils"),
        ):
            self.assertIn(word, refused(order))
        self.assertEqual(len(KINDS), len(set(KINDS)))

    def test_refusals(self) -> None:
        with self.assertRaises(ValueError):
            walk(self.unit(ducts=Ducts(0.95)), self.rooms(), *self.OUT)
        with self.assertRaises(ValueError):
            walk(self.unit(economizer=Economizer("by feeling")), self.rooms(), *self.OUT)


class WholeSystems(unittest.TestCase):
    def test_variable_volume_moves_less_air_and_reheats_less(self) -> None:
        constant = calculate(building()).systems["s"]
        variable = calculate(building(volume="variable", least_share=0.3)).systems["s"]
        self.assertLessEqual(variable.flow_m3_s, constant.flow_m3_s * 1.001)
        self.assertLess(variable.summer.fan_w.sum(), constant.summer.fan_w.sum())
        for room_id, served in variable.served.items():
            design = variable.airflows[room_id].mass_kg_s
            self.assertLessEqual(served.flow_kg_s.max(), design * 1.01)
            self.assertGreaterEqual(served.flow_kg_s.min(), 0.3 * design * 0.99)

    def test_a_unit_that_runs_by_day_leaves_the_rooms_alone_at_night(self) -> None:
        hours = DayPattern(((480, 0.0), (1080, 1.0), (1440, 0.0)))
        system = calculate(building(running=(hours,) * 12, running_winter=hours)).systems["s"]
        on = np.arange(STEPS)[None] // 6
        night = (on < 8) | (on >= 18)
        for served in system.served.values():
            self.assertEqual(float(served.flow_kg_s[:, night[0]].max()), 0.0)
            self.assertEqual(float(served.reheat_w[:, night[0]].max()), 0.0)
            self.assertGreater(float(served.flow_kg_s[:, ~night[0]].min()), 0.0)
        self.assertEqual(float(system.summer.cooling_w[:, night[0]].max()), 0.0)
        self.assertEqual(float(system.winter.heating_w[:, night[0]].max()), 0.0)
        self.assertLess(system.balance, 1e-6)
        always = calculate(building()).systems["s"]
        # The rooms are warm in the morning: the first hours ask for more than those of a unit that never stops.
        self.assertGreater(float(system.summer.cooling_w.max()), float(always.summer.cooling_w.max()))

    def test_an_economizer_cools_with_outdoor_air(self) -> None:
        plain = calculate(building()).systems["s"]
        free = calculate(building(economizer="dry-bulb differential")).systems["s"]
        self.assertLess(free.summer.cooling_w.sum(), plain.summer.cooling_w.sum())
        self.assertTrue(free.summer.economizing.any())
        self.assertLess(free.balance, 1e-6)

    def test_recovery_shrinks_the_heating_coil(self) -> None:
        plain = calculate(building(outdoor_only=True)).systems["s"]
        saving = calculate(building(outdoor_only=True, recovery_sensible=0.7)).systems["s"]
        self.assertLess(saving.heating_coil_w, 0.55 * plain.heating_coil_w)
        self.assertEqual(float(plain.winter.outdoor_share.min()), 1.0)

    def test_cold_supply_in_winter_is_the_rooms_to_warm(self) -> None:
        cold = calculate(building(winter_supply_c=16.0))
        system = cold.systems["s"]
        for room_id, served in system.served.items():
            flow = served.winter_flow_kg_s * (1006 + 1860 * system.winter.supply_w)
            want = cold.rooms[room_id].heating.load_w + float((flow * 4.0).mean())
            self.assertAlmostEqual(cold.heating_duty_w[room_id], want, delta=1.0)


class ReferenceCases(unittest.TestCase):
    def test_variable_volume_unit_with_four_economizers(self) -> None:
        wrong = [str(entry) for entry in vav_entries(load_case("air_vav_multi_room_steps")) if not entry.holds]
        self.assertEqual(wrong, [])

    def test_outdoor_air_unit_with_plate_and_steam(self) -> None:
        wrong = [str(entry) for entry in plate_entries(load_case("air_plate_recovery_steam")) if not entry.holds]
        self.assertEqual(wrong, [])
