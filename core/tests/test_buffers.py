"""Buffer stores: by the heat that a store takes up, and what follows from them."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.test_air_system import building
from core.tests.test_ceilings import MACHINE
from core.tests.test_feeds import BOILER
from core.tests.test_heat_sources import year_of
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.results.buffers import SERIES_M3, buffer_of
from pendrum_core.results.kit import kit_list
from pendrum_core.results.vessels import vessel_of
from pendrum_core.run import calculate
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk
from pendrum_core.working.explain import explain

SMALL = replace(BOILER, id="s", name="Small one", capacity_w=1000.0, least_part=0.5)


def plant(**more: object) -> Building:
    base = building()
    chilled, heating = base.circuits
    own = replace(heating, units=(replace(BOILER, least_part=0.3), SMALL), **more)  # type: ignore[arg-type]
    return replace(base, circuits=(chilled, own))


class Buffers(unittest.TestCase):
    def test_the_smallest_unit_warms_it_in_its_least_run(self) -> None:
        results = calculate(plant(buffer_h=1.0 / 3.0, buffer_k=8.0))
        circuit = results.building.circuits[1]
        found = buffer_of(results, circuit)
        assert found is not None
        self.assertEqual((found.unit, found.least_w), ("s", 500.0))
        mean = (circuit.flow_c + circuit.return_c) / 2.0
        mass = found.needed_m3 * density_kg_m3(mean)
        self.assertAlmostEqual(mass * specific_heat_j_kgk(mean) * 8.0, 500.0 * 1200.0, delta=1.0)
        self.assertIn(found.volume_m3, SERIES_M3)
        self.assertGreaterEqual(found.volume_m3, found.needed_m3)
        self.assertAlmostEqual(found.runs_h * 3.0, found.volume_m3 / found.needed_m3)
        tree = explain(results, "buffer_store", "h")
        self.assertAlmostEqual(tree.value or 0.0, found.needed_m3)
        self.assertIn("Heating BS", {item.tag for item in kit_list(results)})

    def test_its_water_counts_in_the_vessel(self) -> None:
        with_it, without = calculate(plant(buffer_h=1.0 / 3.0)), calculate(plant())
        buffer = buffer_of(with_it, with_it.building.circuits[1])
        assert buffer is not None
        big, small = (vessel_of(r, r.building.circuits[1]) for r in (with_it, without))
        grown = big.expansion_m3 - small.expansion_m3
        self.assertAlmostEqual(grown, big.expansion_share * buffer.volume_m3, places=9)
        with self.assertRaises(KeyError):
            explain(without, "buffer_store", "h")

    def test_it_loses_heat_over_the_year_and_takes_it_in_where_it_is_cold(self) -> None:
        """500 L: 16.66 + 8.33 · 500^0.4 = 116.7 W at 45 K, straight with the difference to 20 °C."""
        of = plant(buffer_h=1.0 / 3.0, pinned_buffer_m3=0.5)
        results = calculate(of)
        found, circuit = buffer_of(results, of.circuits[1]), of.circuits[1]
        assert found is not None
        mean = (circuit.flow_c + circuit.return_c) / 2.0
        self.assertAlmostEqual(found.standing_w, 116.7 * (mean - 20.0) / 45.0, delta=0.1)
        by_year = {}
        for name, building_ in (("with", of), ("without", plant())):
            by_year[name] = year_of(building_)[1].carried_w["h"].astype(float)
        np.testing.assert_allclose(by_year["with"] - by_year["without"], found.standing_w, atol=0.1)
        cold = replace(of.circuits[0], units=(MACHINE,), buffer_h=0.5, pinned_buffer_m3=0.5, flow_c=6.0, return_c=12.0)
        chilled = calculate(replace(of, circuits=(cold, circuit)))
        taken = buffer_of(chilled, chilled.building.circuits[0])
        assert taken is not None
        self.assertAlmostEqual(taken.standing_w, 116.7 * 11.0 / 45.0, delta=0.1)

    def test_one_that_is_pinned_too_small_is_a_snag(self) -> None:
        pinned = calculate(plant(buffer_h=1.0 / 3.0, pinned_buffer_m3=0.011))
        self.assertIn("buffer_short", {snag.code for snag in result_snags(pinned, {})})
        enough = calculate(plant(buffer_h=1.0 / 3.0, pinned_buffer_m3=2.0))
        self.assertNotIn("buffer_short", {snag.code for snag in result_snags(enough, {})})

    def test_units_that_go_down_to_nothing_need_none(self) -> None:
        results = calculate(plant(buffer_h=1.0 / 3.0))
        circuit = results.building.circuits[1]
        free = replace(circuit, units=(replace(SMALL, least_part=0.0),))
        results = calculate(replace(results.building, circuits=(results.building.circuits[0], free)))
        found = buffer_of(results, free)
        assert found is not None
        self.assertEqual((found.needed_m3, found.volume_m3), (0.0, 0.0))


if __name__ == "__main__":
    unittest.main()
