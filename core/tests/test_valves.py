"""Authority of control valves: what stands across them when they are shut, by going round the network."""

import unittest
from dataclasses import replace

from core.tests.test_air_system import building
from pendrum_core.checks.results import result_snags
from pendrum_core.model.systems import Circuit, Section
from pendrum_core.run import calculate
from pendrum_core.water.network import size_circuit
from pendrum_core.water.valves import GOOD_AUTHORITY, LEAST_AUTHORITY, authorities
from pendrum_core.working.explain import explain

DUTIES = {"near": 4_000.0, "far": 6_000.0}


def circuit(**more: object) -> Circuit:
    sections = (
        Section("m", "Main", None, 25.0, 6.0),
        Section("n", "Near", "m", 3.0, 4.0, end="near", end_drop_pa=2_000.0, valve_kv_m3_h=0.6),
        Section("f", "Far", "m", 30.0, 8.0, end="far", end_drop_pa=2_500.0, valve_kv_m3_h=2.5),
    )
    return Circuit("h", "Heating", "heating", sections, 70.0, 50.0, **({"water_flow": "variable"} | more))  # type: ignore[arg-type]


class Authority(unittest.TestCase):
    def test_shut_it_takes_what_the_shared_pipes_leave(self) -> None:
        """Round the loop: the pump's pressure less what the main takes stands across each branch, and across a shut valve all of it."""
        drawn = circuit()
        found = size_circuit(drawn, DUTIES)
        valves = authorities(drawn, found)
        left = found.paths.index_loss_pa - found.sections["m"].loss_pa
        for section in ("n", "f"):
            self.assertAlmostEqual(valves[section].closed_pa, left, places=6)

    def test_open_by_the_definition_of_kv(self) -> None:
        drawn = circuit()
        found = size_circuit(drawn, DUTIES)
        for section, kv in (("n", 0.6), ("f", 2.5)):
            m3_h = found.sections[section].flow_m3_s * 3600.0
            bar = (m3_h / kv) ** 2 * found.fluid.density_kg_m3 / 1000.0
            self.assertAlmostEqual(authorities(drawn, found)[section].drop_pa, bar * 1e5, places=6)

    def test_the_valve_that_is_told_has_half(self) -> None:
        """Of the run that is not the index run: its balancing valve gives up what the smaller control valve takes."""
        drawn = circuit()
        valve = authorities(drawn, size_circuit(drawn, DUTIES))["n"]
        kept = tuple(
            replace(s, valve_kv_m3_h=valve.good_kv_m3_h) if s.id == "n" else s for s in drawn.sections
        )  # fmt: skip
        again = authorities(replace(drawn, sections=kept), size_circuit(replace(drawn, sections=kept), DUTIES))["n"]
        self.assertAlmostEqual(again.authority, GOOD_AUTHORITY, places=6)

    def test_at_constant_flow_its_emitter_stands_beside_it(self) -> None:
        drawn = circuit(water_flow="constant")
        valves = authorities(drawn, size_circuit(drawn, DUTIES))
        self.assertAlmostEqual(valves["f"].closed_pa - valves["f"].drop_pa, 2_500.0)

    def test_none_without_a_kv_or_a_flow(self) -> None:
        drawn = circuit()
        bare = replace(drawn, sections=tuple(replace(s, valve_kv_m3_h=None) for s in drawn.sections))
        self.assertEqual(authorities(bare, size_circuit(bare, DUTIES)), {})
        self.assertEqual(set(authorities(drawn, size_circuit(drawn, {"near": 4_000.0}))), {"n"})

    def test_a_wide_valve_is_a_snag_and_working_tells_it(self) -> None:
        base = building()
        heating = next(c for c in base.circuits if c.kind == "heating")
        end = next(s for s in heating.sections if s.end is not None)

        def with_kv(kv: float) -> tuple[float, bool]:
            sections = tuple(replace(s, valve_kv_m3_h=kv) if s.id == end.id else s for s in heating.sections)
            circuits = tuple(replace(c, sections=sections) if c.id == heating.id else c for c in base.circuits)
            results = calculate(replace(base, circuits=circuits))
            node = next(n for n in explain(results, "pipe_section", end.id).inputs if n.symbol == "a")
            told = any(s.code == "valve_authority" and s.id == end.id for s in result_snags(results, {}))
            return node.value or 0.0, told

        wide, narrow = with_kv(40.0), with_kv(0.05)
        self.assertLess(wide[0], LEAST_AUTHORITY)
        self.assertTrue(wide[1])
        self.assertGreater(narrow[0], LEAST_AUTHORITY)
        self.assertFalse(narrow[1])


if __name__ == "__main__":
    unittest.main()
