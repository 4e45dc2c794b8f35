"""Losses of insulated pipes: against a march through rings, the heat of the bare surface, and hand-made circuits."""

import unittest
from math import log, pi

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from pendrum_core.model.systems import Circuit, Section
from pendrum_core.plant.source import with_losses_w
from pendrum_core.water.insulation import pipe_loss_w_m
from pendrum_core.water.network import size_circuit
from pendrum_core.water.pipes import PIPES


def by_rings(
    water_c: float, around_c: float, outer_m: float, insulation_m: float, conductivity: float, rings: int = 400
) -> float:
    """Temperature marched out of the pipe ring by ring for a guessed heat, the guess halved until the film closes it."""
    low, high = 0.0, 1e4
    edges = np.linspace(outer_m / 2, outer_m / 2 + insulation_m, rings + 1)
    for _ in range(100):
        q = (low + high) / 2
        surface = water_c
        for inner, outer in zip(edges, edges[1:], strict=False):
            surface -= q * (outer - inner) / (conductivity * pi * (inner + outer))
        apart = surface - around_c
        film = (8.5 + 0.05 * apart) * pi * 2 * edges[-1] * apart if apart > 0 else 0.0
        low, high = (q, high) if film > q else (low, q)
    return q


class Loss(unittest.TestCase):
    def test_against_rings(self) -> None:
        for water, around, outer, thick, conductivity in (
            (55.0, 20.0, 0.0337, 0.03, 0.035),
            (80.0, 5.0, 0.1143, 0.1, 0.04),
            (45.0, -10.0, 0.0172, 0.009, 0.05),
        ):
            marched = by_rings(water, around, outer, thick, conductivity)
            self.assertAlmostEqual(pipe_loss_w_m(water, around, outer, thick, conductivity) / marched, 1.0, places=5)

    def test_a_bare_pipe_gives_what_its_surface_gives(self) -> None:
        bare = pipe_loss_w_m(60.0, 20.0, 0.0424, 0.0, 0.035)
        self.assertAlmostEqual(bare, (8.5 + 0.05 * 40.0) * pi * 0.0424 * 40.0, places=6)

    def test_thick_insulation_is_all_that_resists(self) -> None:
        found = pipe_loss_w_m(60.0, 20.0, 0.02, 0.3, 0.005)
        layer_alone = 2 * pi * 0.005 * 40.0 / log(0.62 / 0.02)
        self.assertAlmostEqual(found / layer_alone, 1.0, places=2)
        self.assertLess(found, layer_alone)

    def test_thin_layers_of_poor_stuff_on_thin_pipes_lose_more(self) -> None:
        """Below the critical radius, lambda / h, the surface grows faster than the layer resists."""
        bare, wrapped = (pipe_loss_w_m(60.0, 20.0, 0.012, thick, 0.2) for thick in (0.0, 0.005))
        self.assertGreater(wrapped, bare)

    @given(
        water=st.floats(2, 95),
        around=st.floats(-20, 40),
        outer=st.floats(0.01, 0.33),
        thick=st.floats(0.005, 0.2),
        conductivity=st.floats(0.02, 0.05),
    )
    def test_signs_growth_and_symmetry(
        self, water: float, around: float, outer: float, thick: float, conductivity: float
    ) -> None:
        found = pipe_loss_w_m(water, around, outer, thick, conductivity)
        self.assertAlmostEqual(found, -pipe_loss_w_m(around, water, outer, thick, conductivity), places=6)
        if water > around:
            warmer = pipe_loss_w_m(water + 1.0, around, outer, thick, conductivity)
            self.assertGreater(warmer, found)
            self.assertGreater(found, 0.0)
            self.assertLess(pipe_loss_w_m(water, around, outer, thick, conductivity * 0.8), found)

    def test_what_cannot_be(self) -> None:
        self.assertEqual(pipe_loss_w_m(20.0, 20.0, 0.02, 0.02, 0.035), 0.0)
        for outer, thick, conductivity in ((0.0, 0.02, 0.035), (0.02, -0.01, 0.035), (0.02, 0.02, 0.0)):
            with self.assertRaisesRegex(ValueError, "insulation"):
                pipe_loss_w_m(60.0, 20.0, outer, thick, conductivity)
        with self.assertRaisesRegex(ValueError, "200 K"):
            pipe_loss_w_m(260.0, 20.0, 0.02, 0.02, 0.035)


class OuterDiameters(unittest.TestCase):
    def test_walls_are_those_of_the_standards(self) -> None:
        steel = PIPES["steel"]
        # EN 10255, medium: walls of 2.3, 3.2 and 4.5 mm.
        for inner, wall in ((0.0126, 2.3), (0.0273, 3.2), (0.1053, 4.5)):
            self.assertAlmostEqual((steel.outer_of(inner) - inner) * 500.0, wall, places=1)
        self.assertAlmostEqual(PIPES["copper"].outer_of(0.020), 0.022)
        self.assertAlmostEqual(PIPES["multilayer"].outer_of(0.012), 0.016)
        for series in PIPES.values():
            outers = [series.outer_of(inner) for inner in series.inner_m]
            self.assertEqual(outers, sorted(outers))
        # A pinned one between sizes has the wall of its neighbour.
        self.assertAlmostEqual(steel.outer_of(0.0280) - 0.0280, 0.0064, places=4)


def circuit(**more: object) -> Circuit:
    sections = (
        Section("main", "Main", None, 20.0, 2.0),
        Section("a", "To A", "main", 8.0, 4.0, end="a", end_drop_pa=5000.0),
        Section("b", "To B", "main", 12.0, 4.0, end="b", end_drop_pa=5000.0),
    )
    return Circuit("c", "Heating", "heating", sections, 55.0, 45.0, **more)  # type: ignore[arg-type]


class Circuits(unittest.TestCase):
    def test_a_circuit_loses_what_its_sections_lose(self) -> None:
        one = circuit(pipe_insulation_m=0.03, pipe_insulation_w_mk=0.04, pipe_around_c=15.0)
        found = size_circuit(one, {"a": 3000.0, "b": 5000.0})
        by_hand = 0.0
        for section in one.sections:
            outer = PIPES["steel"].outer_of(found.sections[section.id].diameter_m)
            by_hand += section.length_m * sum(by_rings(w, 15.0, outer, 0.03, 0.04) for w in (55.0, 45.0))
        self.assertAlmostEqual(found.pipes_lose_w / by_hand, 1.0, places=4)
        self.assertAlmostEqual(sum(found.lost_w.values()), found.pipes_lose_w)

    def test_cold_water_takes_heat_in_and_gives_none(self) -> None:
        cold = Circuit(
            "c", "Chilled", "chilled", circuit().sections, 7.0, 13.0, pipe_insulation_m=0.02, pipe_around_c=26.0
        )
        warm_around = size_circuit(cold, {"a": 3000.0, "b": 5000.0}).pipes_lose_w
        self.assertGreater(warm_around, 0.0)
        outdoors = Circuit(
            "c", "Chilled", "chilled", circuit().sections, 7.0, 13.0, pipe_insulation_m=0.02, pipe_around_c=-5.0
        )
        self.assertEqual(size_circuit(outdoors, {"a": 3000.0, "b": 5000.0}).pipes_lose_w, 0.0)

    def test_losses_come_on_top_while_anything_is_asked(self) -> None:
        ends = np.array([[0.0, 500.0, 8000.0]])
        insulated = circuit(pipe_insulation_m=0.03, loss_share=0.1)
        np.testing.assert_allclose(with_losses_w(insulated, ends, 200.0), [[0.0, 700.0, 8200.0]])
        stated = circuit(loss_share=0.1)
        np.testing.assert_allclose(with_losses_w(stated, ends, 0.0), [[0.0, 550.0, 8800.0]])
        self.assertEqual(size_circuit(stated, {"a": 3000.0, "b": 5000.0}).lost_w, {})
