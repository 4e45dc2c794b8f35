"""Fans in terminals: flows by hand, the rooms' heat, reheat spared, the year's electricity."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.test_air_system import building
from core.tests.test_heat_sources import year_of
from pendrum_core.air.fan import FanCurve
from pendrum_core.model.building import Building
from pendrum_core.model.systems import ROOM_UNIT
from pendrum_core.results.kit import kit_list
from pendrum_core.room.supply.asked import asked_in_summer
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain

FAN = 500.0  # W for each m3/s


def warm(kind: str = "none", **system: object) -> Building:
    """Rooms that their terminals heat: no pipe ends at one."""
    base = building(terminal_fan=kind, terminal_fan_w_m3_s=FAN, **system)
    chilled, heating = base.circuits
    coil = tuple(section for section in heating.sections if section.end not in ("r0", "r1", "r2"))
    return replace(base, circuits=(chilled, replace(heating, sections=coil)))


def replace_kind(of: Building) -> Building:
    return replace(of, systems=(replace(of.systems[0], kind=ROOM_UNIT, sections=()),))


class Series(unittest.TestCase):
    def test_design_flows_carry_the_fans_heat_too(self) -> None:
        """Q = V ρ cp (Ta − Ts) − V w: with the fan the flow is larger by ΔT/(ΔT − w v/cp)."""
        plain, fanned = (calculate(warm(kind, volume="variable")).systems["s"] for kind in ("none", "series"))
        for room, before in plain.airflows.items():
            after = fanned.airflows[room]
            if before.governing != "cooling":
                continue
            air = before.supply
            warmed_k = FAN * air.specific_volume_m3_kg / air.specific_heat_j_kgk
            expected = before.design_m3_s * before.difference_k / (before.difference_k - warmed_k)
            self.assertAlmostEqual(after.design_m3_s, expected, places=9)
            heat = after.mass_kg_s * air.specific_heat_j_kgk * before.difference_k
            self.assertAlmostEqual(heat, before.peak_sensible_w + FAN * after.design_m3_s, places=6)
            self.assertAlmostEqual(fanned.served[room].fan_w, FAN * after.design_m3_s)
        self.assertIn("cooling", {flow.governing for flow in plain.airflows.values()})

    def test_its_heat_is_in_the_rooms_day(self) -> None:
        """A day that repeats: the mean of a room's air moves by the sum of its answer times the mean of all heat into it."""
        plain, fanned = (calculate(warm(kind, volume="variable")) for kind in ("none", "series"))
        for room, served in fanned.systems["s"].served.items():
            before = plain.systems["s"].served[room]
            answer = float(asked_in_summer(fanned.rooms[room]).answer.sum())
            into = (served.reheat_w - before.reheat_w) - (served.cooling_w - before.cooling_w) + served.fan_w
            moved = (served.air_c - before.air_c).mean(axis=-1)
            np.testing.assert_allclose(moved, answer * into.mean(axis=-1, dtype=float), atol=2e-4)
            self.assertGreater(float((served.cooling_w - before.cooling_w).mean()), 0.3 * served.fan_w)
        self.assertLess(fanned.systems["s"].balance, 1e-6)

    def test_it_spares_heat_on_the_winter_day(self) -> None:
        plain, fanned = (calculate(warm(kind)).systems["s"] for kind in ("none", "series"))
        for room, served in fanned.served.items():
            before = plain.served[room]
            # By mass the air is more with the fan: its own warming of that air is told apart.
            air = (
                (served.winter_flow_kg_s - before.winter_flow_kg_s)
                * 1006.0
                * (served.winter_air_c - fanned.winter.supply_c)
            )
            spared = before.heat_w - served.heat_w + air
            np.testing.assert_allclose(spared, served.fan_w, rtol=0.03, atol=0.5)


class Parallel(unittest.TestCase):
    def test_reheat_is_less_by_the_fan_and_rooms_are_as_they_were(self) -> None:
        plain, fanned = (
            calculate(warm(kind, volume="variable", terminal_fan_share=0.4)).systems["s"]
            for kind in ("none", "parallel")
        )
        for room, served in fanned.served.items():
            before = plain.served[room]
            self.assertAlmostEqual(served.fan_w, FAN * 0.4 * fanned.airflows[room].design_m3_s)
            np.testing.assert_allclose(served.air_c, before.air_c, atol=1e-9)
            np.testing.assert_allclose(served.reheat_w, np.maximum(before.reheat_w - served.fan_w, 0.0), atol=0.01)
            np.testing.assert_allclose(
                served.winter_reheat_w, np.maximum(before.winter_reheat_w - served.fan_w, 0.0), atol=0.01
            )
        self.assertGreater(max(float(served.winter_reheat_w.max()) for served in fanned.served.values()), 0.0)

    def test_where_emitters_heat_a_fan_spares_nothing_in_winter(self) -> None:
        for kind in ("none", "parallel"):
            base = building(terminal_fan=kind, terminal_fan_w_m3_s=FAN)
            found = calculate(base)
            heat = sum(emitter.duty_w for emitter in found.emitters.values())
            if kind == "none":
                before = heat
        self.assertAlmostEqual(heat, before, places=6)


class Told(unittest.TestCase):
    def test_kit_and_working(self) -> None:
        results = calculate(warm("series", volume="variable"))
        system = results.systems["s"]
        power = sum(FAN * flow.design_m3_s for flow in system.airflows.values())
        self.assertAlmostEqual(system.terminal_fans_w, power)
        lines = [item for item in kit_list(results) if item.item.startswith("Supply terminals")]
        self.assertTrue(all("fan in series" in item.item for item in lines))
        self.assertAlmostEqual(sum(item.power_w for item in lines), power)
        self.assertAlmostEqual(explain(results, "terminal_fans", "s").value or 0.0, power)
        with self.assertRaises(KeyError):
            explain(calculate(warm()), "terminal_fans", "s")

    def test_room_units_have_none(self) -> None:
        self.assertEqual(calculate(replace_kind(warm("series"))).systems["s"].terminal_fans_w, 0.0)


class Year(unittest.TestCase):
    def test_in_series_they_run_with_the_unit_and_warm_rooms(self) -> None:
        (_, plain), (results, fanned) = (year_of(warm(kind)) for kind in ("none", "series"))
        power = results.systems["s"].terminal_fans_w
        more = fanned.systems["s"].fans_w - plain.systems["s"].fans_w
        # The unit's own fan moves a little more air too.
        own = results.systems["s"].fan.electrical_w
        self.assertGreater(float(more.min()), 0.999 * power)
        self.assertLess(float(more.max()), power + 0.1 * own)
        spared = sum(float((plain.rooms[r].heating_w - fanned.rooms[r].heating_w).sum()) for r in plain.rooms)
        self.assertGreater(spared, 0.0)

    def test_in_parallel_they_run_with_the_reheat_and_give_part_of_it(self) -> None:
        (_, plain), (results, fanned) = (year_of(warm(kind)) for kind in ("none", "parallel"))
        served = results.systems["s"].served
        expected = sum(
            np.minimum(served[room].fan_w, found.heating_w.astype(float)) for room, found in fanned.rooms.items()
        )
        more = fanned.systems["s"].fans_w - plain.systems["s"].fans_w
        np.testing.assert_allclose(more, expected, atol=0.01)
        self.assertGreater(float(more.max()), 0.0)
        # What they give the heaters of terminals do not.
        heat = [
            sum(float(w.sum()) for (use, _), w in year.energy_w.items() if use == "heating") for year in (plain, fanned)
        ]
        self.assertAlmostEqual(heat[0] - heat[1], float(more.sum()), delta=0.001 * float(more.sum()) + 1.0)


class SupplyFan(unittest.TestCase):
    def test_part_loads_by_hand(self) -> None:
        curve = FanCurve(2.0, 500.0, 150.0, 0.6, 0.8)
        points = curve.points()
        self.assertEqual([point.share for point in points], [0.25, 0.5, 0.75, 1.0])
        # 150 + 350/4 Pa at 1 m³/s over 0.48.
        self.assertAlmostEqual(points[1].total_pa, 237.5)
        self.assertAlmostEqual(points[1].electrical_w, 237.5 / 0.48)
        self.assertAlmostEqual(points[3].electrical_w, 2.0 * 500.0 / 0.48)

    def test_their_working_is_of_the_sized_fan(self) -> None:
        results = calculate(warm(volume="variable", held_pa=80.0))
        fan = results.systems["s"].fan
        whole = explain(results, "fan_power", "s")
        self.assertAlmostEqual(whole.value or 0.0, fan.electrical_w, places=6)
        half = explain(results, "fan_power_50", "s")
        total = 80.0 + (fan.total_pa - 80.0) / 4.0
        self.assertAlmostEqual(half.value or 0.0, fan.flow_m3_s / 2.0 * total / (0.65 * 0.85), places=6)
