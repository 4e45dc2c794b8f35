"""Terminals that are unlike the others of their system, and supply air that ducts warm on the way to each of them."""

import unittest
from dataclasses import replace
from math import exp

import numpy as np

from core.tests.test_air_system import building
from pendrum_core.air.result import AirSystemResult
from pendrum_core.model.building import Building
from pendrum_core.moist_air import specific_heat_j_kgk
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.working.explain import explain


def with_terminals(changes: dict[str, dict[str, object]], **system: object) -> Building:
    base = building(**system)
    terminals = tuple(replace(t, **changes.get(t.room, {})) for t in base.systems[0].terminals)  # type: ignore[arg-type]
    return replace(base, systems=(replace(base.systems[0], terminals=terminals),))


class Unlike(unittest.TestCase):
    def of(self, **changes: dict[str, object]) -> tuple[BuildingResults, AirSystemResult]:
        results = calculate(with_terminals(changes, volume="variable", least_share=0.2))
        return results, results.systems["s"]

    def test_one_stays_at_its_design_flow(self) -> None:
        _, system = self.of(r1={"constant": True})
        share = {room: float(s.flow_kg_s.min() / s.flow_kg_s.max()) for room, s in system.served.items()}
        self.assertGreater(share["r1"], 0.97)  # heat capacity stays; moister air is a little less dry air
        self.assertLess(share["r0"], 0.5)
        self.assertLess(system.balance, 1e-6)

    def test_one_has_a_least_flow_of_its_own(self) -> None:
        _, system = self.of(r2={"least_share": 0.6})
        design, served = system.airflows["r2"].mass_kg_s, system.served["r2"]
        self.assertAlmostEqual(float(served.flow_kg_s.min()) / design, 0.6, delta=0.01)
        other = float(system.served["r0"].flow_kg_s.min()) / system.airflows["r0"].mass_kg_s
        self.assertLess(other, 0.5)

    def test_one_without_reheat_gets_colder(self) -> None:
        base = replace(
            with_terminals({"r0": {"reheats": False}}, volume="variable", least_share=1.0, supply_c=12.0), circuits=()
        )
        cold = tuple(replace(t, pinned_flow_m3_s=0.6) for t in base.systems[0].terminals)
        system = calculate(replace(base, systems=(replace(base.systems[0], terminals=cold),))).systems["s"]
        self.assertEqual(float(system.served["r0"].reheat_w.max()), 0.0)
        self.assertGreater(system.served["r0"].under_k, 0.5)
        self.assertGreater(float(system.served["r1"].reheat_w.max()), 100.0)
        self.assertLess(system.served["r1"].under_k, 1e-3)
        self.assertEqual(float(system.served["r0"].winter_reheat_w.max()), 0.0)

    def test_the_kit_tells_them_apart(self) -> None:
        results, system = self.of(r1={"constant": True, "reheats": False, "outlets": 4}, r2={"outlets": 2})
        lines = {i.item: i for i in kit_list(results) if i.item.startswith("Supply terminals")}
        self.assertEqual(
            set(lines),
            {
                "Supply terminals, constant flow: together, and how many",
                "Supply terminals, variable flow, reheat: together, and how many",
            },
        )
        constant = lines["Supply terminals, constant flow: together, and how many"]
        self.assertEqual((constant.duties[1].wanted, constant.size), (1.0, "4 outlets"))
        variable = lines["Supply terminals, variable flow, reheat: together, and how many"]
        self.assertEqual((variable.duties[1].wanted, variable.size), (2.0, "3 outlets"))
        self.assertAlmostEqual(
            constant.duties[0].wanted + variable.duties[0].wanted, sum(f.design_m3_s for f in system.airflows.values())
        )


class Sizing(unittest.TestCase):
    def test_flows_of_the_hour_of_all_together(self) -> None:
        own, both = (calculate(with_terminals({}, sizing=sizing)) for sizing in ("own peak", "coincident"))
        rooms = [own.rooms[room].cooling_course_w.clip(0.0) for room in ("r0", "r1", "r2")]
        at = np.unravel_index(int(np.argmax(sum(rooms))), rooms[0].shape)
        system = both.systems["s"]
        for load, flow in zip(rooms, system.airflows.values(), strict=True):
            carried = flow.cooling_m3_s / flow.supply.specific_volume_m3_kg * flow.supply.specific_heat_j_kgk
            self.assertAlmostEqual(carried * flow.difference_k, float(load[at]), places=6)
        sums = [sum(f.cooling_m3_s for f in r.systems["s"].airflows.values()) for r in (own, both)]
        self.assertAlmostEqual(sums[1] / sums[0], float(sum(rooms)[at]) / sum(float(r.max()) for r in rooms), places=9)
        self.assertLess(sums[1], 0.995 * sums[0])
        self.assertLess(system.balance, 1e-6)
        late = max(range(3), key=lambda i: float(rooms[i].max() - rooms[i][at]))
        self.assertGreater(system.served[f"r{late}"].over_k, 0.0)
        told = explain(both, "room_airflow", "r0").inputs[0].inputs[0]
        self.assertEqual(told.value, system.airflows["r0"].peak_sensible_w)


class OnTheWay(unittest.TestCase):
    def setUp(self) -> None:
        base = building(duct_insulation_m=0.03, duct_around_c=28.0)
        far = {"dr2": 60.0}
        sections = tuple(replace(s, length_m=far.get(s.id, s.length_m)) for s in base.systems[0].sections)
        self.base = replace(base, systems=(replace(base.systems[0], sections=sections),))
        self.results = calculate(self.base)
        self.system = self.results.systems["s"]

    def test_the_far_room_gets_warmer_air(self) -> None:
        path = self.system.summer
        near, far = path.room_supply_c(0), path.room_supply_c(2)
        self.assertGreater(float((far - near).min()), 0.5)
        self.assertLess(self.system.balance, 1e-6)
        self.assertTrue(self.system.converged)

    def test_every_way_by_its_own_exponential(self) -> None:
        ducts, path, at = self.system.ducts, self.system.summer, self.system.peak
        assert ducts is not None
        cp = float(specific_heat_j_kgk(0.008))
        for row, (room, served) in enumerate(self.system.served.items()):
            rate = float(served.flow_kg_s[at]) * cp
            expected = 28.0 + (float(path.outlet_c[at]) - 28.0) * exp(-ducts.gains_w_k[room] / rate)
            self.assertAlmostEqual(float(path.room_supply_c(row)[at]), expected, delta=2e-3)

    def test_the_mean_is_what_the_rule_asks(self) -> None:
        path = self.system.summer
        flows = np.stack([served.flow_kg_s for served in self.system.served.values()])
        rooms = np.stack([path.room_supply_c(row) for row in range(3)])
        mean = (flows * rooms).sum(axis=0) / flows.sum(axis=0)
        self.assertLess(float(np.abs(mean - path.supply_c).max()), 1e-6)
        self.assertLess(float(np.abs(path.supply_c - self.system.asked_supply_c).max()), 1e-5)

    def test_rooms_are_served_with_their_own_air(self) -> None:
        """What a room's supply air takes out of it is its heat capacity rate times its own difference."""
        path = self.system.summer
        for row, served in enumerate(self.system.served.values()):
            rate = served.flow_kg_s * specific_heat_j_kgk(path.supply_w)
            expected = rate * (served.air_c - path.room_supply_c(row))
            self.assertLess(float(np.abs(served.cooling_w - expected).max()), 1e-3 * float(np.abs(expected).max()))

    def test_no_insulation_no_difference(self) -> None:
        plain = calculate(replace(self.base, systems=(replace(self.base.systems[0], duct_insulation_m=None),)))
        self.assertIsNone(plain.systems["s"].summer.apart_k)
        self.assertIsNotNone(self.system.summer.apart_k)

    def test_flows_that_their_own_ducts_warm_come_to_rest(self) -> None:
        """A smaller flow gets warmer on its way and cools less: states that chase each other, with coils held back too."""
        for system, least, flow_c in (
            ({"supply_c": 12.0, "duct_insulation_m": 0.02, "duct_around_c": 34.6, "bypass_factor": 0.3}, 0.0, 4.0),
            ({"supply_c": 15.4, "duct_insulation_m": 0.05, "duct_around_c": 38.5, "supply_rule": "fixed"}, 0.0, 10.0),
            (
                {"supply_c": 14.6, "duct_insulation_m": 0.02, "duct_around_c": 23.2, "supply_rule": "outdoors",
                 "winter_supply_c": 44.9, "bypass_factor": 0.0}, 0.5, 6.0,
            ),
        ):  # fmt: skip
            with self.subTest(system):
                base = building(volume="variable", least_share=least, **system)
                chilled = replace(base.circuits[0], flow_c=flow_c, return_c=flow_c + 5.0)
                found = calculate(replace(base, circuits=(chilled, base.circuits[1]))).systems["s"]
                self.assertLess(found.balance, 1e-6)
                self.assertTrue(found.converged)

    def test_working_and_kit_tell_it(self) -> None:
        tree = explain(self.results, "room_reheat", "r2")
        served = self.system.served["r2"]
        at = np.unravel_index(int(served.reheat_w.argmax()), served.reheat_w.shape)
        supply = next(node for node in tree.inputs if node.name == "Supply air")
        self.assertAlmostEqual(supply.value or 0.0, float(self.system.summer.room_supply_c(2)[at]))
        line = next(i for i in kit_list(self.results) if i.item.startswith("Duct insulation"))
        assert self.system.ducts is not None
        self.assertAlmostEqual(line.duties[0].wanted, self.system.ducts.insulation_m2)
        self.assertAlmostEqual(line.duties[1].wanted, 0.03)


if __name__ == "__main__":
    unittest.main()
