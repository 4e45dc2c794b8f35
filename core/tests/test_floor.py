"""Heated floors by EN 1264-2 against conduction solved in a section of screed, and what follows of it by hand."""

import unittest
from dataclasses import replace
from math import log, pi

import numpy as np
from scipy.sparse import coo_matrix
from scipy.sparse.linalg import spsolve

from core.tests.test_air_system import building
from pendrum_core.checks.results import result_snags
from pendrum_core.model.plant import FloorBuild
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.water.floor import flux_per_k, size_floor, surface_flux_w_m2
from pendrum_core.working.explain import explain


def section_w_m2k(build: FloorBuild, screed: float = 1.2, cell: float = 0.0025) -> float:
    """Flux at the surface over the water's excess, from plane conduction in half a spacing of screed on an insulated bottom.

    The pipe is the cell or cells of its area, held behind the resistance of its wall (0.35 W/mK, 2 mm).
    """
    side = build.pipe_m * (pi / 4.0) ** 0.5
    wide, deep = round(build.spacing_m / 2.0 / cell), round((build.cover_m + build.pipe_m + 0.005) / cell)
    index = np.arange(wide * deep).reshape(deep, wide)
    top = round(build.cover_m / cell)
    pipe = {int(index[i, j]) for i in range(top, top + round(side / cell)) for j in range(round(side / 2.0 / cell))}
    wall = log(build.pipe_m / (build.pipe_m - 0.004)) / (2.0 * pi * 0.35)  # mK/W of the whole pipe
    rows, columns, values = [], [], []
    right = np.zeros(wide * deep)
    diagonal = np.zeros(wide * deep)

    def join(a: int, b: int, conductance: float) -> None:
        rows.extend((a, b))
        columns.extend((b, a))
        values.extend((-conductance, -conductance))
        diagonal[a] += conductance
        diagonal[b] += conductance

    for i in range(deep):
        for j in range(wide):
            here = int(index[i, j])
            solid = 1e4 if here in pipe else screed
            for k, m in ((i + 1, j), (i, j + 1)):
                if k < deep and m < wide:
                    there = int(index[k, m])
                    other = 1e4 if there in pipe else screed
                    join(here, there, 2.0 / (1.0 / solid + 1.0 / other))
    up = cell / (cell / 2.0 / screed + build.covering_m2k_w + 1.0 / 10.8)
    for j in range(wide):
        diagonal[index[0, j]] += up
    # Half of the pipe stands in half of the spacing: twice its wall's resistance, shared by its cells.
    for here in pipe:
        g = 1.0 / (2.0 * wall) / len(pipe)
        diagonal[here] += g
        right[here] += g
    rows.extend(range(wide * deep))
    columns.extend(range(wide * deep))
    values.extend(diagonal)
    found = spsolve(coo_matrix((values, (rows, columns))).tocsr(), right)
    return float(up * found[index[0]].sum() / (build.spacing_m / 2.0))


class Builds(unittest.TestCase):
    def test_against_conduction_in_the_screed(self) -> None:
        for build in (
            FloorBuild(0.10, 0.016, 0.045, 0.0),
            FloorBuild(0.15, 0.016, 0.045, 0.10),
            FloorBuild(0.15, 0.020, 0.045, 0.05),
            FloorBuild(0.20, 0.016, 0.060, 0.05),
            FloorBuild(0.30, 0.020, 0.045, 0.15),
        ):
            want = section_w_m2k(build)
            self.assertAlmostEqual(flux_per_k(build) / want, 1.0, delta=0.08, msg=str(build))

    def test_closer_pipes_and_thinner_coverings_give_more(self) -> None:
        base = FloorBuild()
        self.assertGreater(flux_per_k(replace(base, spacing_m=0.1)), flux_per_k(base))
        self.assertGreater(flux_per_k(replace(base, covering_m2k_w=0.05)), flux_per_k(base))
        self.assertLess(flux_per_k(replace(base, cover_m=0.065)), flux_per_k(base))
        for wrong in ({"spacing_m": 0.5}, {"covering_m2k_w": 0.3}, {"cover_m": 0.005}):
            with self.assertRaises(ValueError):
                flux_per_k(replace(base, **wrong))

    def test_the_surface_by_the_basic_curve(self) -> None:
        """EN 1264: 9 K give 100 W/m2."""
        self.assertAlmostEqual(surface_flux_w_m2(9.0), 100.0, delta=0.5)


class Rooms(unittest.TestCase):
    def test_a_room_by_hand(self) -> None:
        build = FloorBuild()
        found = size_floor(900.0, 20.0, 20.0, 40.0, 32.0, build)
        mean = 8.0 / log(20.0 / 12.0)
        self.assertAlmostEqual(found.excess_k, mean)
        self.assertAlmostEqual(found.gives_w, flux_per_k(build) * mean * 17.0)
        self.assertAlmostEqual(found.pipe_m, 17.0 / 0.15)
        self.assertEqual(found.loops, 2)
        self.assertAlmostEqual(surface_flux_w_m2(found.surface_c - 20.0) * 17.0, min(900.0, found.gives_w))
        # With the flow that it says it needs it gives the duty.
        again = size_floor(900.0, 20.0, 20.0, found.needed_flow_c, found.needed_flow_c - 8.0, build)
        self.assertAlmostEqual(again.flux_w_m2 * 17.0, 900.0, places=4)

    def test_no_surface_gets_too_warm(self) -> None:
        hot = size_floor(9000.0, 20.0, 20.0, 60.0, 50.0, FloorBuild(spacing_m=0.1, covering_m2k_w=0.0))
        self.assertGreater(hot.flux_w_m2, hot.limit_w_m2)
        self.assertAlmostEqual(hot.gives_w, surface_flux_w_m2(9.0) * 17.0)
        self.assertAlmostEqual(hot.surface_c, 29.0)
        self.assertAlmostEqual(hot.short_w, 9000.0 - hot.gives_w)


class Circuits(unittest.TestCase):
    def found(self, **more: object) -> BuildingResults:
        base = building()
        heating = replace(base.circuits[1], emitters="underfloor", flow_c=40.0, return_c=33.0, **more)  # type: ignore[arg-type]
        results = calculate(replace(base, circuits=(base.circuits[0], heating)))
        self.assertEqual(results.failures, ())
        return results

    def test_floors_stand_in_place_of_radiators(self) -> None:
        results = self.found()
        self.assertEqual(dict(results.emitters), {})
        self.assertEqual(set(results.floors), {"r0", "r1", "r2"})
        # The same heat is asked of them as of radiators, and the pump moves it at their difference.
        plain = calculate(building())
        for room, floor in results.floors.items():
            self.assertAlmostEqual(floor.duty_w, plain.emitters[room].duty_w, places=6)
        tree = explain(results, "heated_floor", "r1")
        self.assertAlmostEqual(tree.value or 0.0, results.floors["r1"].gives_w)
        items = {item.tag: item for item in kit_list(results)}
        self.assertAlmostEqual(items["F r1"].duties[1].wanted, results.floors["r1"].pipe_m)
        self.assertNotIn("R r1", items)

    def test_one_that_is_short_is_a_snag_with_the_water_it_needs(self) -> None:
        poor = self.found(floor=FloorBuild(spacing_m=0.3, covering_m2k_w=0.15, area_share=0.3))
        short = [snag for snag in result_snags(poor, {}) if snag.code == "floor_short"]
        self.assertEqual({snag.id for snag in short}, {r for r, floor in poor.floors.items() if floor.short_w > 10.0})
        self.assertTrue(short)
        self.assertIn("would give it", short[0].sentence)
