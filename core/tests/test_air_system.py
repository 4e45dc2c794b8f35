"""A whole air system: mass and energy balances at every step, and Working that agrees with the results."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, DAY, room
from pendrum_core.air.outdoor_air import breathing_air_m3_s, system_outdoor_air, zone_outdoor_air_m3_s
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.model.systems import AirSystem, Circuit, Section, Terminal
from pendrum_core.model.unit_parts import COOLING_COIL, FAN, UnitPart
from pendrum_core.moist_air import enthalpy_j_kg, relative_humidity
from pendrum_core.plant.motors import MOTOR_OUTPUTS_KW
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.water.pump import part_loads
from pendrum_core.working.explain import explain


def building(**system: object) -> Building:
    """Three rooms on one system, with ducts, a chilled and a heating circuit."""
    rooms = tuple(room(f"r{i}", 90.0 * i) for i in range(3))
    terminals = tuple(Terminal(r.id, 4.0, 0.0025, 0.0003, 1.0, 0.0) for r in rooms)
    ducts = (
        Section("main", "Main", None, 10.0, 0.4),
        *(
            Section(f"d{r.id}", f"Branch {r.id}", "main", 5.0 + i, 1.0, end=r.id, end_drop_pa=30.0)
            for i, r in enumerate(rooms)
        ),
    )
    air = AirSystem(**{"id": "s", "name": "S", "terminals": terminals, "sections": ducts, **system})
    chilled = Circuit(
        "c", "Chilled", "chilled", (Section("cp", "Pipe", None, 15.0, 6.0, end="s", end_drop_pa=15_000.0),), 7.0, 13.0
    )
    pipes = (
        Section("hm", "Main", None, 10.0, 4.0),
        Section("hs", "Coil", "hm", 6.0, 5.0, end="s", end_drop_pa=9000.0),
        *(Section(f"h{r.id}", f"To {r.id}", "hm", 8.0, 4.0, end=r.id, end_drop_pa=3000.0) for r in rooms),
    )
    return Building(CLIMATE, rooms, (), (air,), (chilled, Circuit("h", "Heating", "heating", pipes, 55.0, 45.0)))


class OutdoorAirOfARoom(unittest.TestCase):
    def test_the_larger_of_rates_and_air_changes(self) -> None:
        """By hand: 20 people of 5 L/s and 80 m² of 0.9 L/s are 172 L/s; 240 m³ three times an hour are 200 L/s."""
        self.assertAlmostEqual(breathing_air_m3_s(0.1, 0.072, 2.0, 240.0), 0.172)
        self.assertAlmostEqual(breathing_air_m3_s(0.1, 0.072, 3.0, 240.0), 0.2)
        shop = Terminal("r", 20.0, 0.005, 0.0009, 0.8, 0.0, outdoor_air_changes=3.0)
        self.assertAlmostEqual(zone_outdoor_air_m3_s(shop, 80.0, 240.0), 0.25)
        self.assertAlmostEqual(zone_outdoor_air_m3_s(replace(shop, outdoor_air_changes=0.0), 80.0, 240.0), 0.215)

    def test_its_working_ends_at_the_same_figure(self) -> None:
        for changes in (0.0, 6.0):
            base = building()
            system = base.systems[0]
            terminals = tuple(replace(t, outdoor_air_changes=changes) for t in system.terminals)
            results = calculate(replace(base, systems=(replace(system, terminals=terminals),)))
            tree = explain(results, "room_airflow", "r0")
            need = next(node for node in tree.inputs if node.name == "For ventilation")
            room_ = results.rooms["r0"].room
            rates = 0.0025 * 4.0 + 0.0003 * room_.floor_area_m2
            self.assertAlmostEqual(need.value or 0.0, max(rates, changes * room_.volume_m3 / 3600.0))
            self.assertEqual("n V / 3600" in (need.formula or ""), changes > 0.0)


class Balances(unittest.TestCase):
    def setUp(self) -> None:
        self.results = calculate(building())
        self.system = self.results.systems["s"]

    def test_everything_is_worked_out(self) -> None:
        self.assertEqual(self.results.failures, ())
        self.assertTrue(self.system.converged)

    def test_energy_of_the_whole_path_at_every_step(self) -> None:
        """Rooms, coils, fan and outdoor air add up to nothing at every step, by enthalpies of their own."""
        s, p = self.system, self.system.summer
        out = self.results.outdoors
        mixed = p.outdoor_share * enthalpy_j_kg(out.dry_bulb_c, out.humidity_ratio) + (
            1 - p.outdoor_share
        ) * enthalpy_j_kg(p.return_c, p.return_w)
        self.assertLess(np.abs(mixed - enthalpy_j_kg(p.mixed_c, p.mixed_w)).max(), 1e-3)
        supplied = enthalpy_j_kg(p.supply_c, p.supply_w)
        open_w = p.flow_kg_s * (supplied - mixed) - p.heating_w - p.fan_w + p.cooling_w + p.condensate_w
        self.assertLess(np.abs(open_w / (p.flow_kg_s * np.abs(supplied))).max(), 1e-6)
        gained = sum(
            room.flow_kg_s * (enthalpy_j_kg(room.air_c, p.room_w[i]) - supplied)
            for i, room in enumerate(s.served.values())
        )
        returned = p.flow_kg_s * (enthalpy_j_kg(p.return_c, p.return_w) - supplied)
        self.assertLess(np.abs(gained - returned).max(), 1e-3)
        self.assertLess(s.balance, 1e-6)

    def test_moisture_of_the_rooms_closes(self) -> None:
        s, p = self.system, self.system.summer
        out = self.results.outdoors.humidity_ratio
        gained = removed = 0.0
        for room_id, served in s.served.items():
            loads, flow = self.results.rooms[room_id], served.flow_kg_s
            leak = loads.room.infiltration_m3_s / 0.8442  # m3/kg of dry air at 20 °C and the site's 99.5 kPa
            room_w = (flow * p.supply_w + leak * out + loads.latent_w / 2.5456e6) / (flow + leak)
            gained = gained + flow * room_w
            removed = removed + flow
        self.assertLess(np.abs(gained / removed - p.return_w).max(), 2e-5)

    def test_rooms_stay_between_their_set_points_by_their_own_balance(self) -> None:
        """What supply air and reheat bring moves a room by its answer to a watt, from what it is asked at 24 °C."""
        p = self.system.summer
        for room_id, served in self.system.served.items():
            loads = self.results.rooms[room_id]
            brought = served.flow_kg_s * (1006 + 1860 * p.supply_w) * (p.supply_c - served.air_c)
            heat = brought + served.reheat_w + served.emitter_w + loads.total
            answer = loads.answers[0]
            moved = np.stack([
                sum(answer[k] * np.roll(day, k) for k in range(144)) for day in heat
            ])  # fmt: skip
            self.assertLess(np.abs(24.0 + moved - served.air_c).max(), 1e-4)
            self.assertLess(served.air_c.max(), 24.001)
            self.assertGreater(served.air_c.min(), 20.0 - 1e-3)
            self.assertLess(served.under_k + served.over_k, 1e-3)

    def test_coil_peak_is_the_largest_of_all_steps(self) -> None:
        self.assertEqual(self.system.coil_total_w[self.system.peak], self.system.coil_total_w.max())
        self.assertLessEqual(
            relative_humidity(self.system.summer.coil.leaving_c, self.system.summer.coil.leaving_w, 99_500.0).max(),
            1.001,
        )

    def test_winter_coil_by_hand(self) -> None:
        """Saturated air of -9 °C mixed with the rooms' 20 °C, warmed to 20 °C less the fan's rise."""
        w, s = self.system.winter, self.system
        share, flow = float(w.outdoor_share[0, 0]), float(w.flow_kg_s[0, 0])
        self.assertAlmostEqual(share, s.outdoor_share, places=6)
        self.assertAlmostEqual(float(w.mixed_c[0, 0]), share * -9.0 + (1 - share) * 20.0, delta=0.05)
        cp = 1006.0 + 1860.0 * float(w.mixed_w[0, 0])
        by_hand = flow * cp * (20.0 - float(w.fan_rise_k[0, 0]) - float(w.mixed_c[0, 0]))
        self.assertAlmostEqual(float(w.heating_w[0, 0]) / by_hand, 1.0, places=6)

    def test_pinned_flow_that_is_too_small_falls_short_and_says_so(self) -> None:
        base = building()
        terminals = tuple(replace(t, pinned_flow_m3_s=0.05) for t in base.systems[0].terminals)
        results = calculate(building(terminals=terminals))
        self.assertGreater(results.systems["s"].short_w.max(), 100.0)
        self.assertIn("airflow_short", {snag.code for snag in result_snags(results, {})})

    def test_a_fan_too_strong_for_its_coil_is_a_failure_with_a_reason(self) -> None:
        results = calculate(building(parts=(UnitPart(COOLING_COIL, 25_000.0), UnitPart(FAN))))
        self.assertIn("warms the air by", results.failures[0].reason)
        self.assertEqual(results.systems, {})

    def test_supply_above_the_room_is_a_failure_with_a_reason(self) -> None:
        results = calculate(building(supply_c=25.0))
        self.assertIn("25.0", results.failures[0].reason)
        self.assertIn("not_calculated", {snag.code for snag in result_snags(results, {})})


class EconomizerWithRecovery(unittest.TestCase):
    """An exchanger rests while outdoor air cools for nothing, and works on a cold day, whatever the economizer's limit says."""

    def setUp(self) -> None:
        found = [
            calculate(building(**more))
            for more in (
                {"recovery_sensible": 0.7, "economizer": "dry-bulb differential"},
                {"recovery_sensible": 0.7},
                {"economizer": "dry-bulb differential"},
            )
        ]
        self.outdoor_c = found[0].outdoors.dry_bulb_c
        self.both, self.recovery, self.economizer = (results.systems["s"] for results in found)

    def test_winter_is_that_of_recovery_alone(self) -> None:
        np.testing.assert_allclose(self.both.winter.heating_w, self.recovery.winter.heating_w, rtol=1e-6)
        self.assertLess(self.both.heating_coil_w, 0.8 * self.economizer.heating_coil_w)
        assert self.both.winter.recovered is not None
        self.assertGreater(float(self.both.winter.recovered.share.min()), 0.0)

    def test_it_rests_while_more_than_the_least_is_taken_and_never_adds_to_the_coil(self) -> None:
        path = self.both.summer
        assert path.recovered is not None
        more = path.outdoor_share > 1.05 * self.both.outdoor_share
        self.assertTrue(more.any())
        outdoors = np.broadcast_to(self.outdoor_c, path.fresh_c.shape)
        np.testing.assert_allclose(path.fresh_c[more], outdoors[more])
        np.testing.assert_allclose(path.cooling_w[more], self.economizer.summer.cooling_w[more], rtol=1e-3, atol=2.0)
        self.assertTrue(path.cools_free[more].all())
        # On the winter day its limit holds, and there is nothing to cool.
        self.assertTrue(self.both.winter.economizing.all())
        self.assertFalse(self.both.winter.cools_free.any())
        self.assertLess(self.both.balance, 1e-6)


class Yardsticks(unittest.TestCase):
    def test_a_room_outside_its_range_is_named(self) -> None:
        results = calculate(building())
        found = results.rooms["r1"].cooling.sensible_w / 20.0
        snags = list(result_snags(results, {"r0": (0.0, 1e4), "r1": (found + 1, found + 2)}))
        self.assertEqual([snag.id for snag in snags if snag.code == "yardstick"], ["r1"])
        self.assertIn(f"{found:.0f} W/m²", next(s.sentence for s in snags if s.code == "yardstick"))


class Ventilation(unittest.TestCase):
    def test_system_efficiency_by_hand(self) -> None:
        # Two rooms: Voz 60 and 40 L/s of 200 and 100 L/s. Xs = 100/300, Zd = 0.4, Ev = 0.9333, Vot = 107.1 L/s.
        needs = {"a": 0.06, "b": 0.04}
        found = system_outdoor_air(needs, needs, {"a": 0.2, "b": 0.1})
        self.assertEqual(found.critical_room, "b")
        self.assertAlmostEqual(found.efficiency, 1 + 1 / 3 - 0.4)
        self.assertAlmostEqual(found.intake_m3_s, 0.1 / (1 + 1 / 3 - 0.4))

    def test_one_room_and_outdoor_air_alone(self) -> None:
        """62.1, 6.2.3 and 6.2.4: what the zones need with their own effectiveness, nothing for the system."""
        one = system_outdoor_air({"a": 0.06}, {"a": 0.075}, {"a": 0.2})
        self.assertEqual((one.rule, one.efficiency), ("one zone", 1.0))
        self.assertAlmostEqual(one.intake_m3_s, 0.075)
        breathing, zones, supply = {"a": 0.06, "b": 0.04}, {"a": 0.075, "b": 0.05}, {"a": 0.2, "b": 0.1}
        fresh = system_outdoor_air(breathing, zones, supply, outdoor_air_only=True)
        self.assertAlmostEqual(fresh.intake_m3_s, 0.125)

    def test_working_speaks_of_its_own_procedure(self) -> None:
        for procedure, words in (("sum", "EN 16798-1"), ("62.1 simplified", "6.2.5.3"), ("62.1 full", "appendix A")):
            tree = explain(calculate(building(ventilation=procedure)), "coil_total", "s")
            intake = next(node for node in tree.inputs if node.name == "Outdoor air intake")
            self.assertIn(words, intake.source)
            self.assertEqual("Zd" in str(intake.inputs), procedure == "62.1 full")

    def test_intake_never_above_supply(self) -> None:
        needs = {"a": 0.2, "b": 0.01}
        self.assertLessEqual(system_outdoor_air(needs, needs, {"a": 0.1, "b": 0.1}).intake_m3_s, 0.2)


class WorkingTrees(unittest.TestCase):
    def setUp(self) -> None:
        self.results = calculate(building())

    def test_value_is_the_result(self) -> None:
        r = self.results
        month, step = r.systems["s"].peak
        for quantity, subject, want in (
            ("room_cooling", "r1", r.rooms["r1"].cooling.sensible_w),
            ("room_heating", "r1", r.rooms["r1"].heating.load_w),
            ("room_airflow", "r1", r.systems["s"].airflows["r1"].design_m3_s),
            ("coil_total", "s", r.systems["s"].coil_total_w[month, step]),
            ("fan_static", "s", r.systems["s"].fan.static_pa),
            ("duct_section", "dr1", r.systems["s"].ducts.sections["dr1"].loss_pa),
            ("pump_head", "c", r.circuits["c"].pump.head_pa),
            ("pump_power", "c", r.circuits["c"].pump.electrical_w),
            ("pump_power_25", "c", part_loads(r.circuits["c"].pump)[0].electrical_w),
            ("pump_power_75", "c", part_loads(r.circuits["c"].pump)[2].electrical_w),
            ("pump_open_flow", "c", r.circuits["c"].pump.open_share * r.circuits["c"].pump.flow_m3_s),
            ("pipe_section", "hr1", r.circuits["h"].sections["hr1"].loss_pa),
        ):
            self.assertAlmostEqual(explain(r, quantity, subject).value, want, places=9, msg=quantity)

    def test_parts_of_a_load_add_up_level_by_level(self) -> None:
        tree = explain(self.results, "room_cooling", "r1")
        parts = [node for node in tree.inputs if node.quantity == "power"]
        self.assertAlmostEqual(sum(node.value for node in parts), tree.value, delta=0.2)
        for node in parts:
            if node.inputs and node.inputs[0].quantity == "power" and node.name.startswith(("Walls", "Sun", "Windows")):
                self.assertAlmostEqual(sum(child.value for child in node.inputs), node.value, delta=1e-6, msg=node.name)

    def test_fan_static_adds_up(self) -> None:
        tree = explain(self.results, "fan_static", "s")
        index, *unit, dynamic = tree.inputs
        self.assertAlmostEqual(index.value + sum(n.value for n in unit) - dynamic.value, tree.value)
        self.assertAlmostEqual(sum(n.value for n in index.inputs), index.value)

    def test_winter_losses_follow_from_the_temperatures_shown(self) -> None:
        """Each loss over the difference shown is one conductance per area for walls of one build-up, sky and all."""
        tree = explain(self.results, "room_heating", "r1")
        self.assertAlmostEqual(sum(n.value for n in tree.inputs if n.quantity == "power"), tree.value, delta=0.1)
        conductances = []
        for node in tree.inputs:
            if node.name == "wall":
                values = {child.name: child.value for child in node.inputs}
                # 4.14/24.14 of half an 11 K depression below -9 °C.
                self.assertAlmostEqual(
                    values["Sol-air temperature outside"], -9.0 - 0.5 * 11.0 * 4.14 / 24.14, places=9
                )
                drop = values["Room air"] - values["Sol-air temperature outside"]
                conductances.append(node.value / values["Area, openings taken out"] / drop)
        self.assertEqual(len(conductances), 2)
        self.assertAlmostEqual(conductances[0], conductances[1], places=9)

    def test_a_floating_room_has_no_cooling_load_to_explain(self) -> None:
        base = building()
        floating = replace(base, rooms=(replace(base.rooms[0], cooled=False), *base.rooms[1:]))
        results = calculate(floating)
        with self.assertRaises(KeyError):
            explain(results, "room_cooling", "r0")
        self.assertGreater(explain(results, "room_airflow", "r0").value, 0.0)

    def test_unknown_is_refused(self) -> None:
        with self.assertRaises(KeyError):
            explain(self.results, "room_cooling", "nowhere")
        with self.assertRaises(KeyError):
            explain(self.results, "colour", "r1")


class LightsToReturn(unittest.TestCase):
    """Half of the lights' heat never enters the rooms: it warms the return air on its way to the unit."""

    def test_the_rooms_need_less_and_the_return_air_is_warmer_by_it(self) -> None:
        plain = building()
        moved = []
        for one in plain.rooms:
            lights = next(gain for gain in one.gains if gain.category == "lights")
            half = replace(lights, sensible_w=lights.sensible_w / 2)
            rest = tuple(half if gain is lights else gain for gain in one.gains)
            moved.append(replace(one, gains=rest, return_gains=(replace(half, radiant_share=0.0),)))
        before, after = calculate(plain), calculate(replace(plain, rooms=tuple(moved)))
        for one in plain.rooms:
            self.assertLess(after.rooms[one.id].cooling.sensible_w, before.rooms[one.id].cooling.sensible_w)
        unit = after.systems["s"]
        path = unit.summer
        m, s = unit.peak
        heat = sum(80.0 * float(step_averages(DAY)[s]) for _ in plain.rooms)
        warmed = float(path.plenum_c[m, s] - path.return_c[m, s])
        self.assertAlmostEqual(warmed, heat / (float(path.flow_kg_s[m, s]) * 1020.0), delta=0.05 * warmed)
        self.assertLess(unit.balance, 1e-6)
        # What does not enter the rooms still reaches the coil, but for what goes out with the exhaust.
        fell = float(before.systems["s"].coil_total_w[m, s] - unit.coil_total_w[m, s])
        self.assertLess(fell, heat)
        plain_path = before.systems["s"].summer
        self.assertAlmostEqual(float(plain_path.plenum_c[m, s]), float(plain_path.return_c[m, s]), places=6)


class Kit(unittest.TestCase):
    def test_everything_sized_is_on_the_list(self) -> None:
        results = calculate(building())
        items = {item.tag: item for item in kit_list(results)}
        self.assertAlmostEqual(items["S SF"].duties[0].wanted, results.systems["s"].fan.flow_m3_s)
        self.assertAlmostEqual(items["Chilled P"].duties[1].wanted, results.circuits["c"].pump.head_pa)
        # A motor is told in kW: the next rating above what the shaft takes, with its margin.
        word, kw, unit = items["Chilled P"].size.split(" ")
        shaft_kw = results.circuits["c"].pump.shaft_w / 1000.0
        self.assertEqual((word, unit), ("motor", "kW"))
        self.assertEqual(float(kw), min(rated for rated in MOTOR_OUTPUTS_KW if rated >= 1.15 * shaft_kw))
        # Supply air of 20 °C brings nothing into a room of 20 °C: its emitter gives what the room loses.
        self.assertAlmostEqual(items["R r1"].duties[0].wanted, results.rooms["r1"].heating.load_w, delta=0.5)
        ducts = sum(item.duties[0].wanted for tag, item in items.items() if item.item.startswith("Round duct"))
        self.assertAlmostEqual(ducts, sum(s.length_m for s in building().systems[0].sections))
        # A section of pipe stands for flow and return: two lengths to buy.
        pipes = sum(item.duties[0].wanted for item in items.values() if item.item.startswith("Steel pipe"))
        self.assertAlmostEqual(pipes, 2.0 * sum(s.length_m for c in building().circuits for s in c.sections))
