"""Return, outdoor and exhaust ducts: flows by balance, losses by hand, what the fans get of them, and the kit."""

import unittest
from dataclasses import replace
from math import pi

import numpy as np

from core.tests.test_air_system import building
from pendrum_core.air.unit import unit_of
from pendrum_core.checks.results import result_snags
from pendrum_core.duct.methods import class_of
from pendrum_core.duct.network import DuctResult
from pendrum_core.model.building import Building
from pendrum_core.model.systems import Extract, Section
from pendrum_core.model.unit_parts import ATTENUATOR, COOLING_COIL, FAN, FILTER, HEATING_COIL, STEAM, UnitPart
from pendrum_core.network.tree import build_tree, largest_at_one_time
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain

# Dry air of 20 °C: 287.055 J/kgK.
R_DRY = 287.055


def wide(name: str, network: str, c: float = 0.0, **more: object) -> Section:
    """A section without length, of half a metre: its loss is C times the dynamic pressure alone."""
    plain = {"parent": None, "length_m": 0.0, "loss_coefficient": c, "pinned_diameter_m": 0.5, "network": network}
    return Section(name, name, **(plain | more))  # type: ignore[arg-type]


def drawn(*more: Section, extracts: tuple[Extract, ...] = (), **system: object) -> Building:
    base = building(**system)
    unit = base.systems[0]
    return replace(base, systems=(replace(unit, sections=(*unit.sections, *more)),), extracts=extracts)


RETURNS = (wide("back", "return", 2.0), *(wide(f"b{i}", "return", parent="back", end=f"r{i}") for i in range(3)))


def dynamic_pa(flow_m3_s: float, density: float) -> float:
    return density * (flow_m3_s / (pi * 0.25**2)) ** 2 / 2.0


class Networks(unittest.TestCase):
    def found(self, *more: Section, **rest: object) -> BuildingResults:
        results = calculate(drawn(*more, **rest))  # type: ignore[arg-type]
        self.assertEqual(results.failures, ())
        return results

    def density(self, results: BuildingResults) -> float:
        return results.systems["s"].pressure_pa / (R_DRY * 293.15)

    def test_what_was_supplied_comes_back_less_what_extracts_take(self) -> None:
        plain = self.found(*RETURNS)
        unit = plain.systems["s"]
        density = self.density(plain)
        for i in range(3):
            want = unit.airflows[f"r{i}"].mass_kg_s / density
            self.assertAlmostEqual(unit.lanes["return"].sections[f"b{i}"].flow_m3_s, want, delta=0.002 * want)
        hood = Extract("x", "Hood", "r1", 0.02)
        less = self.found(*RETURNS, extracts=(hood,)).systems["s"].lanes["return"].sections
        before = unit.lanes["return"].sections
        self.assertAlmostEqual(before["b1"].flow_m3_s - less["b1"].flow_m3_s, 0.02, places=3)
        self.assertAlmostEqual(before["b2"].flow_m3_s, less["b2"].flow_m3_s, places=6)
        # One that leaves by the unit comes back in its ducts.
        by_unit = self.found(*RETURNS, extracts=(replace(hood, by_unit=True),)).systems["s"].lanes["return"].sections
        self.assertAlmostEqual(before["b1"].flow_m3_s, by_unit["b1"].flow_m3_s, places=4)

    def test_losses_by_hand_and_the_fan_that_carries_them(self) -> None:
        """One end after the other has no length: the index run is C times the dynamic pressure of the sum."""
        alone = self.found().systems["s"].fan.total_pa
        results = self.found(*RETURNS)
        unit = results.systems["s"]
        flow = sum(unit.lanes["return"].sections[f"b{i}"].flow_m3_s for i in range(3))
        self.assertAlmostEqual(unit.lanes["return"].sections["back"].flow_m3_s, flow, places=9)
        loss = 2.0 * dynamic_pa(flow, self.density(results))
        self.assertAlmostEqual(unit.lanes["return"].paths.index_loss_pa, loss, delta=1e-3 * loss)
        # Without a return fan the supply fan draws the air back; with one it does not.
        self.assertAlmostEqual(unit.fan.total_pa - alone, loss, delta=1e-3 * loss)
        helped = self.found(*RETURNS, return_fan_pa=200.0).systems["s"]
        self.assertAlmostEqual(helped.fan.total_pa, alone, places=6)

    def test_outdoor_and_return_air_meet_at_one_pressure(self) -> None:
        louvre = wide("louvre", "outdoor", 40.0)
        both = self.found(*RETURNS, louvre)
        unit, density = both.systems["s"], self.density(both)
        outdoor = unit.lanes["outdoor"].paths.index_loss_pa
        flow = unit.least_outdoor_kg_s / density
        self.assertAlmostEqual(outdoor, 40.0 * dynamic_pa(flow, density), delta=2e-3 * outdoor)
        larger = max(outdoor, unit.lanes["return"].paths.index_loss_pa)
        self.assertAlmostEqual(unit.fan.total_pa, self.found().systems["s"].fan.total_pa + larger, delta=1e-3 * larger)
        # An economizer takes all of its air from outdoors.
        free = self.found(louvre, economizer="dry-bulb differential").systems["s"]
        self.assertAlmostEqual(
            free.lanes["outdoor"].sections["louvre"].flow_m3_s, free.mass_kg_s / density, delta=1e-3 * flow
        )

    def test_a_unit_of_outdoor_air_alone_draws_nothing_back_and_may_have_an_exhaust_fan(self) -> None:
        """Its return ducts load its exhaust fan, which warms what the recovery gets; the supply fan has the louvre alone."""
        plain = {"outdoor_only": True, "recovery_sensible": 0.6}
        louvre = wide("louvre", "outdoor", 3.0)
        unit = self.found(*RETURNS, louvre, **plain).systems["s"]
        bare = self.found(**plain).systems["s"].fan.total_pa
        self.assertAlmostEqual(unit.fan.total_pa - bare, unit.lanes["outdoor"].paths.index_loss_pa, places=6)
        self.assertEqual(float(unit.summer.return_fan_w.max()), 0.0)
        fan = self.found(*RETURNS, louvre, return_fan_pa=200.0, **plain).systems["s"]
        power = fan.return_m3_s * 200.0 / (0.65 * 0.85)
        self.assertGreater(float(fan.summer.return_fan_w.max()), power)
        self.assertLess(float(fan.summer.return_fan_w.max()), 1.15 * power)
        self.assertLess(fan.balance, 1e-6)

    def test_exhaust_is_what_comes_back_and_is_not_taken_again(self) -> None:
        two = (wide("out", "exhaust", 1.0), wide("o1", "exhaust", parent="out"), wide("o2", "exhaust", parent="out"))
        results = self.found(*RETURNS, *two, economizer="dry-bulb differential", return_fan_pa=150.0)
        lanes = results.systems["s"].lanes
        back = lanes["return"].sections["back"].flow_m3_s
        # Flows of constant volume are all at their largest at one time.
        self.assertAlmostEqual(lanes["exhaust"].sections["out"].flow_m3_s, back, delta=0.01 * back)
        self.assertAlmostEqual(lanes["exhaust"].sections["o1"].flow_m3_s, lanes["exhaust"].sections["o2"].flow_m3_s)

    def test_a_weak_return_fan_is_a_snag_and_its_working_adds_up(self) -> None:
        tight = tuple(replace(one, loss_coefficient=90.0) if one.id == "back" else one for one in RETURNS)
        weak = self.found(*tight, wide("out", "exhaust", 1.0), return_fan_pa=5.0)
        codes = {snag.code: snag for snag in result_snags(weak, {})}
        self.assertIn("its return fan gives 5 Pa", codes["return_fan_short"].sentence)
        tree = explain(weak, "return_pressure", "s")
        lanes = weak.systems["s"].lanes
        self.assertAlmostEqual(
            tree.value or 0.0, sum(lanes[name].paths.index_loss_pa for name in ("return", "exhaust"))
        )
        strong = self.found(*tight, return_fan_pa=900.0)
        self.assertNotIn("return_fan_short", {snag.code for snag in result_snags(strong, {})})
        with self.assertRaises(KeyError):
            explain(self.found(), "return_pressure", "s")

    def test_the_supply_fans_working_adds_up_with_what_it_draws_through(self) -> None:
        tree = explain(self.found(*RETURNS, wide("louvre", "outdoor", 40.0)), "fan_static", "s")
        inputs = {node.name: node.value or 0.0 for node in tree.inputs}
        dynamic = inputs.pop("Dynamic pressure at the fan outlet")
        self.assertAlmostEqual(tree.value or 0.0, sum(inputs.values()) - dynamic, places=6)
        self.assertIn("Drawn through before the mixing", inputs)


class AtOneTime(unittest.TestCase):
    def test_what_is_taken_at_one_time_by_hand(self) -> None:
        tree = build_tree({"main": None, "branch": "main", "a": "branch", "b": "branch", "c": "main"})
        design = {"a": 3.0, "b": 3.0, "c": 5.0}
        courses = {"a": np.array([3.0, 1.0, 0.0]), "b": np.array([1.0, 3.0, 0.5]), "c": np.array([0.0, 1.0, 2.0])}
        flow = largest_at_one_time(tree, design, courses)
        # a and b together: 4 in the first and second step; all three: 5 in the second; c alone is pinned at 5.
        self.assertEqual({name: flow[name] for name in ("a", "b", "c", "branch", "main")},
                         {"a": 3.0, "b": 3.0, "c": 5.0, "branch": 4.0, "main": 5.0})  # fmt: skip
        both = largest_at_one_time(tree, design, courses | {"c": np.array([5.0, 5.0, 5.0])})
        self.assertEqual(both["main"], 9.0)

    def test_mains_of_variable_volume_carry_what_flows_at_one_time(self) -> None:
        unit = calculate(building(volume="variable", least_share=0.1)).systems["s"]
        assert unit.ducts is not None
        ends = [unit.ducts.sections[f"dr{i}"].flow_m3_s for i in range(3)]
        self.assertAlmostEqual(sum(ends), sum(flow.design_m3_s for flow in unit.airflows.values()))
        main = unit.ducts.sections["main"].flow_m3_s
        self.assertLess(main, 0.99 * sum(ends))
        # The fan carries the same, by mass; what the terminals' air weighs was fixed when they were sized.
        kilograms = sum(flow.mass_kg_s for flow in unit.airflows.values())
        self.assertAlmostEqual(main / sum(ends), unit.mass_kg_s / kilograms, places=3)
        constant = calculate(building()).systems["s"]
        assert constant.ducts is not None
        flows = {name: found.flow_m3_s for name, found in constant.ducts.sections.items()}
        self.assertAlmostEqual(flows["main"], sum(flows[f"dr{i}"] for i in range(3)))


class Velocities(unittest.TestCase):
    def test_each_class_of_section_keeps_its_own(self) -> None:
        tree = build_tree({"m": None, "b": "m", "x": "b", "y": "b", "z": "m"})
        self.assertEqual([class_of(tree, s) for s in ("m", "b", "x", "z")], ["main", "branch", "runout", "runout"])
        slow = {
            "branch_velocity_m_s": 3.0,
            "runout_velocity_m_s": 2.0,
            "velocity_limit_m_s": 6.0,
            "friction_limit_pa_m": 5.0,
        }
        plain = calculate(building(velocity_limit_m_s=6.0, friction_limit_pa_m=5.0)).systems["s"].ducts
        found = calculate(building(**slow)).systems["s"].ducts
        assert plain is not None and found is not None
        # The main of the example carries ends alone: it is a branch.
        self.assertLessEqual(found.sections["main"].friction.velocity_m_s, 3.0)
        self.assertGreater(plain.sections["main"].friction.velocity_m_s, 3.0)
        for i in range(3):
            self.assertLessEqual(found.sections[f"dr{i}"].friction.velocity_m_s, 2.0)
            self.assertGreaterEqual(found.sections[f"dr{i}"].diameter_m, plain.sections[f"dr{i}"].diameter_m)
        base = building(runout_velocity_m_s=2.0)
        narrow = tuple(replace(one, pinned_diameter_m=0.1) if one.end else one for one in base.systems[0].sections)
        pinned = calculate(building(runout_velocity_m_s=2.0, sections=narrow)).systems["s"].ducts
        assert pinned is not None
        for i in range(3):
            found_one = pinned.sections[f"dr{i}"]
            self.assertEqual(
                found_one.within_limits, found_one.friction.velocity_m_s <= 2.0 and found_one.friction.rate_pa_m <= 0.8
            )
        self.assertFalse(all(pinned.sections[f"dr{i}"].within_limits for i in range(3)))


class Filters(unittest.TestCase):
    def test_the_fan_is_sized_for_dirty_ones_and_runs_at_the_mean(self) -> None:
        parts = (UnitPart(FILTER, 200.0, 80.0), UnitPart(FILTER, 150.0), UnitPart(COOLING_COIL, 60.0), UnitPart(FAN))
        built = building(parts=parts)
        system = built.systems[0]
        self.assertEqual(system.cleaner_pa, 60.0)
        sized = calculate(built).systems["s"]
        soiled, mean = (
            unit_of(
                system, sized.fan, sized.return_m3_s, sized.least_outdoor_kg_s, sized.pressure_pa, sized.ducts, {}, pa
            )
            for pa in (0.0, system.cleaner_pa)
        )
        assert soiled.supply_fan is not None and mean.supply_fan is not None
        self.assertAlmostEqual(soiled.supply_fan.design_pa, sized.fan.total_pa)
        self.assertAlmostEqual(soiled.supply_fan.design_pa - mean.supply_fan.design_pa, 60.0)


class WarmedOnTheWayBack(unittest.TestCase):
    """Return ducts in a warm void: every room's air by the exponential of its own way, the coil carries what they bring."""

    AROUND_C, WOOL_M, METRES = 45.0, 0.02, 40.0

    def found(self, insulation_m: float | None) -> BuildingResults:
        long = (
            wide("back", "return", length_m=self.METRES),
            *(wide(f"b{i}", "return", parent="back", end=f"r{i}") for i in range(3)),
        )
        bare = drawn(*long, duct_insulation_m=insulation_m, duct_around_c=self.AROUND_C)
        # Without supply ducts nothing else is warmed.
        unit = bare.systems[0]
        return calculate(
            replace(bare, systems=(replace(unit, sections=tuple(s for s in unit.sections if s.network == "return")),))
        )

    def test_by_the_exponential_of_a_duct(self) -> None:
        system = self.found(self.WOOL_M).systems["s"]
        path, at = system.summer, system.peak
        radius = 0.25
        outer = radius + self.WOOL_M
        resistance = (
            1.0 / (2 * pi * radius * 25.0)
            + np.log(outer / radius) / (2 * pi * 0.037)
            + 1.0 / (2 * pi * outer * 8.0)
        )  # fmt: skip
        sized_for = system.return_m3_s * system.pressure_pa / (R_DRY * 293.15)
        flow, back_c = float(path.return_kg_s[at]), [float(room.air_c[at]) for room in system.served.values()]
        shares = [float(room.flow_kg_s[at]) / flow for room in system.served.values()]
        room_c = sum(s * t for s, t in zip(shares, back_c, strict=True))
        self.assertAlmostEqual(flow, sized_for, delta=0.01 * sized_for)
        end_c = self.AROUND_C + (room_c - self.AROUND_C) * np.exp(-self.METRES / resistance / (flow * 1020.0))
        self.assertAlmostEqual(float(path.return_c[at]), end_c, delta=0.02 * (end_c - room_c))
        assert path.return_gain_k is not None
        self.assertAlmostEqual(float(path.return_gain_k[at]), end_c - room_c, delta=0.02 * (end_c - room_c))
        self.assertGreater(end_c - room_c, 0.5)
        self.assertLess(system.balance, 1e-6)

    def test_the_coil_carries_it(self) -> None:
        bare, wrapped = (self.found(m).systems["s"] for m in (None, self.WOOL_M))
        self.assertIsNone(bare.summer.return_gain_k)
        at = wrapped.peak
        path = wrapped.summer
        assert path.return_gain_k is not None
        brought = float(path.flow_kg_s[at] - path.outdoor_kg_s[at]) * 1020.0 * float(path.return_gain_k[at])
        self.assertAlmostEqual(
            float(wrapped.coil_sensible_w[at] - bare.coil_sensible_w[at]), brought, delta=0.02 * brought
        )  # fmt: skip

    def test_the_kit_counts_their_insulation_and_working_tells_them(self) -> None:
        results = self.found(self.WOOL_M)
        wool = next(item for item in kit_list(results) if item.item.startswith("Duct insulation"))
        self.assertAlmostEqual(wool.duties[0].wanted, pi * (0.5 + 2 * self.WOOL_M) * self.METRES, places=6)
        back = next(node for node in explain(results, "coil_total", "s").inputs if node.name == "Return")
        self.assertEqual(back.inputs[-1].name, "Warmed in the return ducts by")


class OutdoorDucts(unittest.TestCase):
    """Ducts of outdoor air through a warm building: by the exponential at the flow of the step, before mixing."""

    WOOL_M, METRES, AROUND_C = 0.02, 30.0, 24.0

    def found(self, insulation_m: float | None, **more: object) -> BuildingResults:
        lane = (wide("in", "outdoor", length_m=self.METRES),)
        built = drawn(*lane, duct_insulation_m=insulation_m, duct_around_c=self.AROUND_C, **more)
        unit = built.systems[0]
        only = tuple(section for section in unit.sections if section.network == "outdoor")
        return calculate(replace(built, systems=(replace(unit, sections=only),)))

    def test_outdoor_air_comes_warmer_on_the_winter_day_and_cooler_on_hot_days(self) -> None:
        results = self.found(self.WOOL_M)
        system = results.systems["s"]
        outer = 0.25 + self.WOOL_M
        resistance = (
            1.0 / (2 * pi * 0.25 * 25.0) + np.log(outer / 0.25) / (2 * pi * 0.037) + 1.0 / (2 * pi * outer * 8.0)
        )
        for path, outdoor_c in (
            (system.summer, results.outdoors.dry_bulb_c),
            (system.winter, np.full((1, 144), results.building.climate.winter_dry_bulb_c)),
        ):
            assert path.outdoor_gain_k is not None
            rate = path.outdoor_kg_s * 1020.0
            expected = (self.AROUND_C - outdoor_c) * (1.0 - np.exp(-self.METRES / resistance / rate))
            np.testing.assert_allclose(path.outdoor_gain_k, expected, rtol=0.03, atol=0.01)
            mixed = path.outdoor_share * (outdoor_c + path.outdoor_gain_k) + (1.0 - path.outdoor_share) * path.plenum_c
            np.testing.assert_allclose(path.mixed_c, mixed, atol=0.05)
        self.assertGreater(float(system.winter.outdoor_gain_k.max()), 1.0)  # type: ignore[union-attr]
        self.assertLess(system.balance, 1e-6)
        bare = self.found(None).systems["s"]
        self.assertIsNone(bare.summer.outdoor_gain_k)
        # What warms it on the way is spared by the heating coil.
        brought = float((system.winter.outdoor_kg_s * 1006.0 * system.winter.outdoor_gain_k)[0, 0])  # type: ignore[operator]
        spared = float(bare.winter.heating_w[0, 0] - system.winter.heating_w[0, 0])
        self.assertAlmostEqual(spared, brought, delta=0.03 * brought)
        tree = explain(results, "coil_total", "s")
        outdoors = next(node for node in tree.inputs if node.name == "Outdoors")
        self.assertEqual(outdoors.inputs[-1].name, "Warmed in the outdoor ducts by")

    def test_an_economizer_mixes_what_comes_out_of_them(self) -> None:
        results = self.found(self.WOOL_M, economizer="dry-bulb differential")
        self.assertLess(results.systems["s"].balance, 1e-6)
        self.assertTrue(results.systems["s"].summer.cools_free.any())


class LeaksOfOtherNetworks(unittest.TestCase):
    def lanes(self, leak_class: str) -> dict[str, DuctResult]:
        sections = (
            *(
                wide("back", "return", length_m=30.0),
                *(wide(f"b{i}", "return", parent="back", end=f"r{i}") for i in range(3)),
            ),
            wide("in", "outdoor", 4.0, length_m=25.0),
            wide("out", "exhaust", 4.0, length_m=25.0),
        )
        unit = calculate(drawn(*sections, duct_leak_class=leak_class)).systems["s"]
        return dict(unit.lanes)

    def test_grilles_and_outlets_get_less_and_louvres_what_is_wanted(self) -> None:
        tight, loose = self.lanes(""), self.lanes("A")
        back, through = (lanes["return"].sections for lanes in (tight, loose))
        share = loose["return"].leak_share
        self.assertGreater(share, 0.001)
        # At the unit the same comes back; what leaks in stands between it and the grilles.
        self.assertAlmostEqual(through["back"].flow_m3_s, back["back"].flow_m3_s, delta=1e-4 * back["back"].flow_m3_s)
        for i in range(3):
            self.assertLess(through[f"b{i}"].flow_m3_s, back[f"b{i}"].flow_m3_s)
        out, leaky = tight["exhaust"].sections["out"], loose["exhaust"].sections["out"]
        self.assertAlmostEqual(leaky.flow_m3_s, out.flow_m3_s, delta=1e-4 * out.flow_m3_s)
        inwards, more = tight["outdoor"].sections["in"], loose["outdoor"].sections["in"]
        self.assertAlmostEqual(more.flow_m3_s * (1.0 - loose["outdoor"].leak_share), inwards.flow_m3_s, places=6)

    def test_by_the_class_at_the_mean_pressure_of_a_duct(self) -> None:
        """EN 12237: 0.027 Δp^0.65 L/s for each m² of class A. The total pressure falls along the duct by its loss; what moves
        has its dynamic pressure less: below the void's by so much more in suction, above it by so much less behind a fan."""
        for name, sign in (("outdoor", 1.0), ("exhaust", -1.0)):
            found = self.lanes("A")[name]
            (section,) = found.sections.values()
            speed = section.flow_m3_s / (pi * 0.25**2)
            dynamic = found.fluid.density_kg_m3 * speed**2 / 2.0
            static = found.paths.index_loss_pa / 2.0 + sign * dynamic
            surface = pi * 0.5 * 25.0
            per_area = found.leak_share * section.flow_m3_s * 1000.0 / surface / 0.027
            self.assertAlmostEqual(per_area, max(0.0, static) ** 0.65, delta=0.02 * abs(static) ** 0.65, msg=name)


class UnitsWithout(unittest.TestCase):
    """Units that lack a part which others have: what they do not do is said, and all balances close."""

    def codes(self, results: BuildingResults) -> set[str]:
        return {snag.code for snag in result_snags(results, {})}

    def test_variable_volume_without_a_cooling_coil_stays_at_its_design_flow(self) -> None:
        parts = (UnitPart(FILTER, 90.0), UnitPart(HEATING_COIL), UnitPart(FAN))
        found = calculate(building(volume="variable", parts=parts))
        plain = calculate(building(parts=parts))
        self.assertIn("variable_without_coil", self.codes(found))
        self.assertNotIn("variable_without_coil", self.codes(plain))
        np.testing.assert_allclose(found.systems["s"].summer.flow_kg_s, plain.systems["s"].summer.flow_kg_s)
        self.assertLess(found.systems["s"].balance, 1e-6)

    def test_drying_waits_for_a_heating_coil_behind(self) -> None:
        bare, whole = (
            (UnitPart(COOLING_COIL, 60.0), UnitPart(FAN)),
            (UnitPart(COOLING_COIL, 60.0), UnitPart(FAN), UnitPart(HEATING_COIL)),
        )
        none, dries = (calculate(building(parts=parts, dry_to_c=9.0)) for parts in (bare, whole))
        self.assertIn("dried_not_reheated", self.codes(none))
        self.assertNotIn("dried_not_reheated", self.codes(dries))
        # Its air is as without; with the coil behind it is drier at the same temperature.
        plain = calculate(building(parts=bare))
        np.testing.assert_allclose(none.systems["s"].summer.supply_w, plain.systems["s"].summer.supply_w)
        wet = none.systems["s"].summer.supply_w > 0.0085
        self.assertTrue(wet.any())
        self.assertLess(
            float(dries.systems["s"].summer.supply_w[wet].max()), float(none.systems["s"].summer.supply_w[wet].max())
        )
        asked = dries.systems["s"].asked_supply_c
        np.testing.assert_allclose(dries.systems["s"].summer.supply_c[wet], asked[wet], atol=1e-4)
        for results in (none, dries):
            self.assertLess(results.systems["s"].balance, 1e-6)


class Kit(unittest.TestCase):
    def test_ducts_of_every_network_and_parts_of_the_unit(self) -> None:
        parts = (
            UnitPart(FILTER, 90.0),
            UnitPart(HEATING_COIL, 30.0),
            UnitPart(COOLING_COIL, 60.0),
            UnitPart(STEAM, 5.0),
            UnitPart(FAN),
            UnitPart(FILTER, 110.0),
            UnitPart(ATTENUATOR, 40.0),
        )
        run = tuple(replace(one, length_m=7.0) for one in RETURNS)
        results = calculate(drawn(*run, parts=parts, return_fan_pa=180.0, recovery_sensible=0.6))
        items = {item.tag: item for item in kit_list(results)}
        back = sum(i.duties[0].wanted for tag, i in items.items() if tag.startswith("S return D"))
        self.assertAlmostEqual(back, 4 * 7.0)
        self.assertEqual([items[f"S FI{n}"].duties[1].wanted for n in (1, 2)], [90.0, 110.0])
        self.assertEqual(items["S AT1"].duties[1].wanted, 40.0)
        unit = results.systems["s"]
        self.assertEqual(items["S RF"].duties[1].wanted, 180.0)
        # The return fan's electricity by hand: at constant volume its flow is larger than that of air of 20 °C as the warm
        # and moist air is lighter, its pressure by the square of that.
        warmest, moistest = float(unit.summer.plenum_c.max()), float(unit.summer.plenum_w.max())
        lighter = (warmest + 273.15) / 293.15 * (1.0 + 1.6078 * moistest)
        power = items["S RF"].duties[0].wanted * 180.0 / (0.65 * 0.85)
        self.assertLess(items["S RF"].power_w, power * lighter**3 * 1.005)
        self.assertGreater(items["S RF"].power_w, power)
        outdoor = unit.outdoor_share * unit.mass_kg_s
        cp = 1006.0 + 1860.0 * 0.002
        recovered = items["S HR"].duties[1].wanted
        lift = recovered / (outdoor * cp)
        warm = float(unit.winter.plenum_c.max()) - results.building.climate.winter_dry_bulb_c
        self.assertLessEqual(lift, 0.6 * warm * 1.02)
        self.assertGreater(lift, 0.3 * warm)
        self.assertIn("S HU", items)
        bare = {item.tag for item in kit_list(calculate(drawn(parts=(UnitPart(FAN),))))}
        self.assertFalse({"S CC", "S HC", "S HR", "S HU", "S RF"} & bare)
