"""Findings about air systems: each is there where its cause is, and not where it is not."""

import unittest
from dataclasses import replace

from core.tests.test_air_system import building
from pendrum_core.checks.results import result_snags
from pendrum_core.run import calculate


class AirFindings(unittest.TestCase):
    def codes(self, **system: object) -> set[str]:
        return {snag.code for snag in result_snags(calculate(building(**system)), {})}

    def test_an_ordinary_system_has_none(self) -> None:
        found = {"reheat_large", "heats_and_cools", "overcooled", "coil_frost", "coil_below_water", "air_balance_open"}
        self.assertEqual(found & self.codes(), set())

    def test_large_least_flows_reheat(self) -> None:
        """Ten times the air that the rooms need at 14 °C has to be warmed up again."""
        base = building(volume="variable", least_share=1.0)
        terminals = tuple(replace(t, pinned_flow_m3_s=0.8) for t in base.systems[0].terminals)
        self.assertIn("reheat_large", self.codes(volume="variable", least_share=1.0, terminals=terminals))

    def test_without_reheat_the_room_is_too_cold(self) -> None:
        base = building()
        terminals = tuple(replace(t, pinned_flow_m3_s=0.8) for t in base.systems[0].terminals)
        results = calculate(
            replace(building(volume="variable", least_share=1.0, reheat="none", terminals=terminals), circuits=())
        )
        snags = [snag for snag in result_snags(results, {}) if snag.code == "overcooled"]
        self.assertEqual({snag.id for snag in snags}, {"r0", "r1", "r2"})
        self.assertIn("below its heating set-point", snags[0].sentence)

    def test_too_little_air_leaves_rooms_warm(self) -> None:
        base = building()
        terminals = tuple(replace(t, pinned_flow_m3_s=0.04) for t in base.systems[0].terminals)
        self.assertIn("undercooled", self.codes(terminals=terminals))

    def test_outdoor_air_alone_freezes_and_recovery_helps(self) -> None:
        self.assertIn("coil_frost", self.codes(outdoor_only=True))
        self.assertNotIn("coil_frost", self.codes(outdoor_only=True, recovery_sensible=0.8))

    def test_water_that_is_not_cold_or_hot_enough(self) -> None:
        base = building()
        chilled, heating = base.circuits
        warm = replace(base, circuits=(replace(chilled, flow_c=12.0), replace(heating, flow_c=20.5, return_c=19.0)))
        found = {snag.code for snag in result_snags(calculate(warm), {})}
        self.assertLessEqual({"coil_below_water"}, found)
        hot = replace(building(winter_supply_c=30.0), circuits=(chilled, replace(heating, flow_c=30.0, return_c=25.0)))
        self.assertIn("coil_above_water", {snag.code for snag in result_snags(calculate(hot), {})})

    def test_an_economizer_by_temperature_in_humid_air(self) -> None:
        plain = self.codes(economizer="enthalpy differential")
        self.assertNotIn("economizer_adds", plain)
