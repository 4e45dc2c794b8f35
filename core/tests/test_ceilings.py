"""Chilled ceilings and beams: sizes by hand, rooms under them by their own response, their circuit, plant and year."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, DAY
from core.tests.test_air_system import building
from core.tests.test_year import swinging
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.model.plant import BEAMS, CHILLER, CeilingBuild, PlantUnit
from pendrum_core.model.systems import Section
from pendrum_core.model.year import YearCourse, YearGain, YearRoom, always
from pendrum_core.moist_air import specific_heat_j_kgk
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.room.supply.asked import asked_in_summer
from pendrum_core.run import calculate
from pendrum_core.water.ceiling import size_ceiling
from pendrum_core.working.explain import explain
from pendrum_core.year.energy import building_year
from pendrum_core.year.sky import YearSky

MACHINE = PlantUnit("uc", "Chiller", CHILLER, None, 1.2, 4.3, 2.9, 5.6, 3.6, fuel="electricity")


def with_ceilings(served: bool = True, flow_c: float = 16.0, build: CeilingBuild | None = None) -> Building:
    """Three rooms under chilled ceilings; their air system brings outdoor air alone, or there is none."""
    base = building(outdoor_only=True, supply_c=18.0, supply_rule="fixed", winter_supply_c=20.0)
    chilled, heating = base.circuits
    pipes = tuple(Section(f"c{r.id}", f"Ceiling {r.id}", "cm", 8.0, 4.0, end=r.id, end_drop_pa=5e3) for r in base.rooms)
    main = Section("cm", "Main", None, 12.0, 4.0)
    coil = Section("cp", "Coil", "cm", 5.0, 6.0, end="s", end_drop_pa=15e3)
    water = replace(
        chilled, sections=(main, coil, *pipes) if served else (main, *pipes), flow_c=flow_c, return_c=flow_c + 3.0,
        units=(MACHINE,), ceiling=build or CeilingBuild(),
    )  # fmt: skip
    return replace(base, systems=base.systems if served else (), circuits=(water, heating))


class Sizes(unittest.TestCase):
    def test_ceilings_by_hand(self) -> None:
        """80 W/m² at 8 K; at 24 − 17.5 = 6.5 K with n 1.1: 80 (6.5/8)^1.1 = 63.66 W/m²."""
        found = size_ceiling(900.0, 20.0, 24.0, 16.0, 19.0, CeilingBuild())
        self.assertAlmostEqual(found.capacity, 63.66, delta=0.01)
        self.assertAlmostEqual(found.needed, 900.0 / 63.66, delta=0.01)
        self.assertAlmostEqual(found.most, 14.0)
        self.assertAlmostEqual(found.short_w, 900.0 - 14.0 * 63.66, delta=0.2)

    def test_beams_have_a_length_and_place(self) -> None:
        found = size_ceiling(900.0, 20.0, 25.5, 16.0, 19.0, CeilingBuild(BEAMS))
        self.assertAlmostEqual(found.needed, 3.6)  # 8 K: its rating
        self.assertEqual(found.short_w, 0.0)

    def test_water_warmer_than_the_room_is_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "must rise in this order"):
            size_ceiling(900.0, 20.0, 18.0, 16.0, 19.0, CeilingBuild())


class WithoutAir(unittest.TestCase):
    def test_the_circuit_carries_the_rooms_loads(self) -> None:
        results = calculate(with_ceilings(served=False))
        self.assertEqual(results.failures, ())
        loads = [np.maximum(loads.cooling_course_w, 0.0) for loads in results.rooms.values()]
        np.testing.assert_allclose(results.plants["c"].course.summer_ends_w, sum(loads), rtol=1e-6)
        for room, ceiling in results.ceilings.items():
            self.assertAlmostEqual(
                ceiling.duty_w, max(0.0, float(results.rooms[room].cooling_course_w.max())), places=3
            )
        codes = {snag.code for snag in result_snags(results, {})}
        self.assertNotIn("cooled_without_system", codes)


class UnderAir(unittest.TestCase):
    results: BuildingResults

    @classmethod
    def setUpClass(cls) -> None:
        cls.results = calculate(with_ceilings())

    def test_rooms_are_held_and_balances_close(self) -> None:
        system = self.results.systems["s"]
        self.assertEqual(self.results.failures, ())
        self.assertTrue(system.converged)
        self.assertLess(system.balance, 1e-6)
        for served in system.served.values():
            self.assertLess(served.over_k, 1e-3)
            self.assertGreater(float(served.chilled_w.max()), 50.0)

    def test_the_air_is_for_ventilation_alone(self) -> None:
        for flow in self.results.systems["s"].airflows.values():
            self.assertEqual(flow.cooling_m3_s, 0.0)
            self.assertEqual(flow.governing, "ventilation")

    def test_each_room_by_its_own_response(self) -> None:
        """Air = asked + K (what air and ceiling bring − what was asked), as one convolution over the day that repeats."""
        system = self.results.systems["s"]
        for room, served in system.served.items():
            asked = asked_in_summer(self.results.rooms[room])
            path, rate = system.summer, served.flow_kg_s * specific_heat_j_kgk(system.summer.supply_w)
            brought = rate * (path.supply_c - served.air_c) - served.chilled_w + served.reheat_w + served.emitter_w
            moved = np.fft.irfft(
                np.fft.rfft(asked.answer[0]) * np.fft.rfft(brought - asked.heat_w[0], axis=-1), 144, axis=-1
            )
            self.assertLess(float(np.abs(asked.air_c[0] + moved - served.air_c).max()), 2e-3)

    def test_the_ceiling_takes_what_the_air_leaves(self) -> None:
        """No less than the load at its peak less what air at its largest difference can take."""
        system = self.results.systems["s"]
        for room, served in system.served.items():
            peak = float(self.results.rooms[room].cooling_course_w.max())
            together = float((served.chilled_w + served.cooling_w).max())
            self.assertAlmostEqual(together / peak, 1.0, delta=0.05)
            self.assertLess(float(served.chilled_w.max()), peak)

    def test_coil_and_ceilings_share_the_circuit(self) -> None:
        system = self.results.systems["s"]
        rooms = sum(np.asarray(served.chilled_w, dtype=float) for served in system.served.values())
        np.testing.assert_allclose(
            self.results.plants["c"].course.summer_ends_w, rooms + system.coil_total_w, rtol=1e-5
        )

    def test_working_and_kit(self) -> None:
        tree = explain(self.results, "chilled_ceiling", "r0")
        self.assertEqual(tree.value, self.results.ceilings["r0"].needed)
        line = {item.tag: item for item in kit_list(self.results)}[f"C {self.results.rooms['r0'].room.number}"]
        self.assertEqual(line.duties[0].wanted, self.results.ceilings["r0"].duty_w)
        beams = calculate(with_ceilings(build=CeilingBuild(BEAMS)))
        self.assertIn("beams", explain(beams, "chilled_ceiling", "r0").name)

    def test_snags_of_place_and_of_water_that_drips(self) -> None:
        def codes(**more: object) -> set[str]:
            return {snag.code for snag in result_snags(calculate(with_ceilings(**more)), {})}  # type: ignore[arg-type]

        self.assertIn("ceiling_drips", codes(flow_c=7.0))
        # A coil on colder water of its own dries the air below the ceilings' water.
        base = with_ceilings(flow_c=19.0)
        water, heating = base.circuits
        own = replace(
            water, id="k", sections=(Section("kp", "Coil", None, 9.0, 6.0, end="s"),), flow_c=6.0, return_c=12.0
        )
        ceilings = replace(water, sections=tuple(s for s in water.sections if s.id != "cp"))
        dry = replace(base.systems[0], supply_c=14.0)
        results = calculate(replace(base, systems=(dry,), circuits=(ceilings, own, heating)))
        self.assertEqual(results.failures, ())
        self.assertNotIn("ceiling_drips", {snag.code for snag in result_snags(results, {})})
        small = CeilingBuild(rating_w_m2=20.0, area_share=0.1)
        self.assertIn("ceiling_short", codes(build=small))
        self.assertNotIn("ceiling_short", codes(build=CeilingBuild(rating_w_m2=300.0)))


class Year(unittest.TestCase):
    def test_the_chiller_carries_ceilings_and_coil(self) -> None:
        day = YearCourse((DAY,), (0,) * 365)
        for served in (True, False):
            results = calculate(with_ceilings(served))
            years = [
                YearRoom(r, (YearGain("lights", 160.0, 0.5, day),), always(20.0), always(24.0), people=day)
                for r in results.building.rooms
            ]
            found = building_year(results, years, YearSky.of(swinging(), CLIMATE), {}, {})
            self.assertNotIn(("cooling", "cold without a plant"), found.energy_w)
            asked = sum(room.cooling_w.astype(float) for room in found.rooms.values())
            asked = asked + sum(system.cooling_w for system in found.systems.values())
            given = found.output_w["c", "uc"].astype(float) + found.unmet_w["c"]
            self.assertGreater(float(given.sum()), 1e4)
            # Coil and ceilings, and the friction of their water.
            np.testing.assert_allclose(
                given, asked + np.where(asked > 0.0, results.circuits["c"].pump.shaft_w, 0.0), atol=1.0
            )


if __name__ == "__main__":
    unittest.main()
