"""What stands beside loads: outdoor air that is the coil's, and margins; against mixing by another library and by hand."""

import unittest
from dataclasses import replace

import psychrolib

from core.tests.rooms import CLIMATE, room
from core.tests.test_air_system import building
from pendrum_core.model.building import Building, Group, Margins
from pendrum_core.results.margins import group_with_margin, room_with_margin
from pendrum_core.results.outdoor_air import outdoor_air_part, serving
from pendrum_core.results.yardsticks import group_basis, room_basis, yardsticks
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain

psychrolib.SetUnitSystem(psychrolib.SI)


class OutdoorAir(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        drawn = building()
        alone = room("alone", 30.0)
        everything = (*drawn.rooms, alone)
        group = Group("g", "All", "building", tuple(r.id for r in everything))
        cls.results = calculate(replace(drawn, rooms=everything, groups=(group,)))
        cls.system_of = serving(cls.results)

    def part(self, rooms: tuple[str, ...], month: int, step: int) -> tuple[float, float]:
        found = outdoor_air_part(self.results, self.system_of, rooms, month, step)
        assert found is not None
        return found.sensible_w, found.latent_w

    def test_rooms_of_a_system_add_up_to_what_mixing_does_to_the_air(self) -> None:
        """h mixed - h return of all the supply air, by another psychrometric library."""
        system, rooms = self.results.systems["s"], ("r0", "r1", "r2")
        for month, step in ((0, 40), (6, 96), (7, 20), (11, 0)):
            with self.subTest(month=month, step=step):
                p, at = system.summer, (month, step)
                mixed = psychrolib.GetMoistAirEnthalpy(p.mixed_c[at], p.mixed_w[at])
                back = psychrolib.GetMoistAirEnthalpy(p.return_c[at], p.return_w[at])
                want = p.flow_kg_s[at] * (mixed - back)
                whole = self.part(rooms, *at)
                self.assertAlmostEqual(sum(whole), want, delta=1e-3 * abs(want) + 1.0)
                each = [self.part((one,), *at) for one in rooms]
                self.assertAlmostEqual(sum(s for s, _ in each), whole[0], places=6)
                self.assertAlmostEqual(sum(latent for _, latent in each), whole[1], places=6)
                # Without a difference in moisture nothing is latent: 2501 kJ/kg and the vapour's own heat make it.
                moisture = p.outdoor_kg_s[at] * (p.fresh_w[at] - p.return_w[at])
                self.assertAlmostEqual(whole[1], moisture * (2.501e6 + 1860.0 * p.fresh_c[at]), delta=1e-3)

    def test_a_room_on_no_system_has_none(self) -> None:
        self.assertIsNone(outdoor_air_part(self.results, self.system_of, ("alone",), 6, 96))
        with self.assertRaises(KeyError):
            explain(self.results, "room_outdoor_air", "alone")

    def test_working_says_the_same(self) -> None:
        one = explain(self.results, "room_outdoor_air", "r1")
        loads = self.results.rooms["r1"]
        self.assertAlmostEqual(one.value, sum(self.part(("r1",), loads.peak_month, loads.peak_step)))
        flow, outdoors, back = one.inputs
        self.assertAlmostEqual(one.value, flow.value * (outdoors.value - back.value), delta=1e-6 * abs(one.value))
        group = self.results.groups["g"]
        together = explain(self.results, "group_outdoor_air", "g")
        self.assertAlmostEqual(together.value, sum(node.value for node in together.inputs))
        members = ("r0", "r1", "r2", "alone")
        self.assertAlmostEqual(together.value, sum(self.part(members, group.cooling.month, group.cooling.step)))


class Compared(unittest.TestCase):
    """Yardsticks by hand from the results that they are made of."""

    @classmethod
    def setUpClass(cls) -> None:
        drawn = building()
        everything = (*drawn.rooms, replace(room("alone", 30.0), cooled=False))
        groups = (
            Group("g", "All", "building", tuple(r.id for r in everything)),
            Group("s", "S", "air_system", ("r0", "r1", "r2")),
        )
        cls.results = calculate(replace(drawn, rooms=everything, groups=groups))
        cls.system_of = serving(cls.results)

    def test_of_a_room(self) -> None:
        loads, flow = self.results.rooms["r1"], self.results.systems["s"].airflows["r1"]
        found = yardsticks(room_basis(self.results, self.system_of, loads))
        cooling = loads.cooling.sensible_w
        self.assertAlmostEqual(found.cooling_w_m2, cooling / 20.0)
        self.assertAlmostEqual(found.area_per_cooling_m2_w * cooling, 20.0)
        self.assertAlmostEqual(found.heating_w_m2, loads.heating.load_w / 20.0)
        self.assertAlmostEqual(found.air_changes_per_h, flow.design_m3_s * 3600.0 / 60.0)
        self.assertAlmostEqual(found.supply_m3_s_m2, flow.design_m3_s / 20.0)
        self.assertAlmostEqual(found.supply_per_cooling_m3_s_w, flow.design_m3_s / cooling)
        self.assertAlmostEqual(found.outdoor_share, self.results.systems["s"].outdoor_share)
        self.assertAlmostEqual(found.supply_difference_k, 24.0 - 14.0)

    def test_of_rooms_together_and_of_one_without_air(self) -> None:
        group, system = self.results.groups["g"], self.results.systems["s"]
        found = yardsticks(group_basis(self.results, self.system_of, group))
        self.assertAlmostEqual(found.cooling_w_m2, group.cooling.sensible_w / 80.0)
        self.assertAlmostEqual(found.supply_m3_s_m2, system.flow_m3_s / 80.0)
        self.assertAlmostEqual(found.outdoor_share, system.outdoor_share)
        self.assertIsNone(found.supply_difference_k)
        alone = yardsticks(room_basis(self.results, self.system_of, self.results.rooms["alone"]))
        self.assertEqual((alone.cooling_w_m2, alone.supply_m3_s_m2, alone.area_per_cooling_m2_w), (None, None, None))

    def test_each_explains_itself_of_a_room_and_of_rooms_together(self) -> None:
        one = vars(yardsticks(room_basis(self.results, self.system_of, self.results.rooms["r1"])))
        many = vars(yardsticks(group_basis(self.results, self.system_of, self.results.groups["g"])))
        for who, subject, found in (("room", "r1", one), ("group", "g", many)):
            for name, value in found.items():
                with self.subTest(who=who, name=name):
                    if value is None:
                        with self.assertRaises(KeyError):
                            explain(self.results, f"{who}_{name}", subject)
                        continue
                    node = explain(self.results, f"{who}_{name}", subject)
                    self.assertAlmostEqual(node.value, value)
                    first, second = (child.value for child in node.inputs)
                    by_hand = first - second if name == "supply_difference_k" else first / second
                    self.assertAlmostEqual(by_hand * (3600.0 if name == "air_changes_per_h" else 1.0), value)

    def test_every_figure_of_a_group_explains_itself(self) -> None:
        for quantity, want in (
            ("group_latent", self.results.groups["s"].cooling.latent_w),
            ("group_heating_simple", self.results.groups["s"].heating.simple_w),
            ("group_cooling_with_margin", self.results.groups["s"].cooling.sensible_w),
            ("group_heating_with_margin", self.results.groups["s"].heating.load_w),
            ("group_airflow", self.results.systems["s"].flow_m3_s),
        ):
            with self.subTest(quantity=quantity):
                node = explain(self.results, quantity, "s")
                self.assertAlmostEqual(node.value, want, places=9)
                self.assertAlmostEqual(sum(child.value for child in node.inputs), want, places=6)
        by_area = explain(self.results, "group_cooling_per_area", "s")
        self.assertAlmostEqual(by_area.value * 60.0, self.results.groups["s"].cooling.sensible_w)


class Added(unittest.TestCase):
    """Rooms and systems have margins of their own, or the building's."""

    @classmethod
    def setUpClass(cls) -> None:
        drawn = building()
        group = Group("g", "All", "building", ("r0", "r1", "r2"))
        cls.plain = calculate(replace(drawn, groups=(group,)))
        cls.added = calculate(
            replace(
                drawn, groups=(group,), margins=Margins(0.1, 0.05), room_margins={"r1": Margins(0.3, 0.2)},
                system_margins={"s": Margins(0.0, 0.15)},
            )
        )  # fmt: skip

    def test_loads_themselves_stay(self) -> None:
        for key, loads in self.added.rooms.items():
            self.assertEqual(loads.cooling, self.plain.rooms[key].cooling)
            self.assertEqual(loads.heating, self.plain.rooms[key].heating)

    def test_each_room_has_the_nearest(self) -> None:
        for key, heating, cooling in (("r0", 1.1, 1.05), ("r1", 1.3, 1.2), ("r2", 1.1, 1.05)):
            loads = self.plain.rooms[key]
            found = room_with_margin(self.added, loads)
            self.assertAlmostEqual(found[0], loads.cooling.sensible_w * cooling)
            self.assertAlmostEqual(found[1], loads.heating.load_w * heating)

    def test_a_group_adds_rooms_each_with_its_own(self) -> None:
        group = self.added.groups["g"]
        now = {key: float(r.total[group.cooling.month, group.cooling.step]) for key, r in self.plain.rooms.items()}
        cooling, heating = group_with_margin(self.added, group)
        self.assertAlmostEqual(cooling, 1.05 * (now["r0"] + now["r2"]) + 1.2 * now["r1"])
        want = sum(r.heating.load_w * (1.3 if key == "r1" else 1.1) for key, r in self.plain.rooms.items())
        self.assertAlmostEqual(heating, want)
        same = calculate(
            Building(CLIMATE, (room("a"),), groups=(Group("g", "g", "use", ("a",)),), margins=Margins(0.2))
        )
        self.assertAlmostEqual(group_with_margin(same, same.groups["g"])[1], 1.2 * same.rooms["a"].heating.load_w)

    def test_emitters_and_coils_are_sized_with_them(self) -> None:
        before, after = self.plain.circuits["h"].duty_w, self.added.circuits["h"].duty_w
        self.assertAlmostEqual(after["r0"] / before["r0"], 1.1)
        self.assertAlmostEqual(after["r1"] / before["r1"], 1.3)
        self.assertAlmostEqual(after["s"] / before["s"], 1.0)
        cold = self.added.circuits["c"].duty_w["s"] / self.plain.circuits["c"].duty_w["s"]
        self.assertAlmostEqual(cold, 1.15)

    def test_working_names_the_margin(self) -> None:
        node = explain(self.added, "room_heating_with_margin", "r1")
        self.assertEqual((node.inputs[1].value, node.inputs[1].ref), (0.3, "room/r1/heating_margin"))
        self.assertAlmostEqual(node.value, node.inputs[0].value * 1.3)
        self.assertIn("with those of its rooms", explain(self.added, "group_heating", "g").note)
