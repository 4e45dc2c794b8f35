"""Fittings by kind, series of pipes and glycol, against published figures and recomputation by other means."""

import unittest
from math import log, pi, sqrt
from typing import Any

from scipy.optimize import brentq

from pendrum_core.duct.methods import DuctRules
from pendrum_core.duct.network import air, size_tree
from pendrum_core.model.systems import Circuit, Fitted, Section
from pendrum_core.network.fittings import FITTINGS, coefficient, turbulent_factor
from pendrum_core.water.glycol import (
    GLYCOLS,
    SHARES,
    freezing_c,
    mixture_density_kg_m3,
    mixture_specific_heat_j_kgk,
    mixture_viscosity_pa_s,
)
from pendrum_core.water.network import CircuitResult, size_circuit
from pendrum_core.water.pipes import PIPES
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk, viscosity_pa_s


class Table(unittest.TestCase):
    def test_every_row_has_a_figure_and_a_source(self) -> None:
        self.assertGreaterEqual(len(FITTINGS), 40)
        for key, found in FITTINGS.items():
            self.assertTrue(found.source, key)
            self.assertNotEqual(found.coefficient is None, found.multiple == 0.0, key)
            self.assertLessEqual(len(key), 40)
        self.assertEqual(len({found.title for found in FITTINGS.values()}), len(FITTINGS))

    def test_pipes_by_the_friction_factors_that_the_paper_prints(self) -> None:
        """TP-410, A-26: factors by nominal size of clean steel pipe; 2 in., 4 in. and 8 in."""
        for inner_mm, factor in ((52.5, 0.019), (102.3, 0.016), (202.7, 0.014)):
            self.assertAlmostEqual(turbulent_factor(inner_mm / 1000.0), factor, delta=0.0006)
        elbow = coefficient(Fitted("pipe_elbow_90", 1), 0.0525)
        self.assertAlmostEqual(elbow, 30 * 0.019, delta=0.02)
        self.assertAlmostEqual(coefficient(Fitted("pipe_tee_branch", 1), 0.0525) / elbow, 2.0, places=9)

    def test_bends_get_better_with_radius_and_pieces(self) -> None:
        of = {key: float(found.coefficient or 0.0) for key, found in FITTINGS.items() if found.of == "duct"}
        by_radius = [of[f"round_bend_90_r{r}"] for r in ("05", "075", "1", "15", "2")]
        self.assertEqual(by_radius, sorted(by_radius, reverse=True))
        self.assertLess(of["round_bend_5_pieces_r1"], of["round_bend_3_pieces_r1"])
        self.assertLess(of["mitre_90_vanes"], of["mitre_90"] / 5.0)
        # A branch at right angles loses the whole main's pressure and its own; at 45° less, by the momentum it keeps.
        self.assertAlmostEqual(of["branch_90_as_fast"], 2.0)
        self.assertAlmostEqual(of["branch_45_as_fast"], 2.0 - sqrt(2.0), places=3)
        self.assertEqual(of["expander_sudden"], 0.25)

    def test_own_figures_come_before_the_table(self) -> None:
        self.assertEqual(coefficient(Fitted("round_bend_90_r1", 2, 0.3), 0.2), 0.3)
        with self.assertRaises(KeyError):
            coefficient(Fitted("no such", 1), 0.2)


class InTrees(unittest.TestCase):
    def test_a_duct_with_fittings_is_one_with_their_sum(self) -> None:
        fittings = (Fitted("round_bend_90_r1", 2), Fitted("damper_blades", 1), Fitted("", 3, 0.11))
        flow, fluid = {"room": 0.3}, air(16.0, 101_325.0)

        def loss(own: float, parts: tuple[Fitted, ...], method: str) -> float:
            tree = (
                Section("main", "main", None, 10.0, 0.1),
                Section("end", "end", "main", 12.0, own, end="room", end_drop_pa=25.0, fittings=parts),
            )
            found = size_tree(
                tree, flow, fluid, DuctRules(method=method, friction_limit_pa_m=0.8, velocity_limit_m_s=7.0)
            )
            return found.fan_total_pa

        for method in ("equal friction", "static regain"):
            by_kind, as_sum = loss(0.2, fittings, method), loss(0.2 + 2 * 0.22 + 0.52 + 0.33, (), method)
            self.assertAlmostEqual(by_kind, as_sum, places=9)
            self.assertGreater(by_kind, loss(0.2, (), method) + 1.0)

    def circuit(self, **more: Any) -> CircuitResult:
        section = Section("one", "one", None, 20.0, 1.0, end="coil", fittings=more.pop("fittings", ()))
        fields: dict[str, Any] = {"kind": "chilled", "flow_c": 6.0, "return_c": 12.0, "source_drop_pa": 0.0, "pump_margin": 0.0}  # fmt: skip
        return size_circuit(Circuit("c", "c", sections=(section,), **(fields | more)), {"coil": 30_000.0})

    def loss_by_hand(self, found: CircuitResult, roughness_m: float, zeta: float, fluid: tuple[float, float]) -> float:
        """Darcy with Colebrook, solved by bracketing; density and viscosity given."""
        (pipe,), (density, viscosity) = found.sections.values(), fluid
        speed = pipe.flow_m3_s / (pi * pipe.diameter_m**2 / 4.0)
        reynolds = density * speed * pipe.diameter_m / viscosity
        self.assertGreater(reynolds, 4000.0)
        rough = roughness_m / pipe.diameter_m / 3.7
        f = brentq(lambda f: 1.0 / sqrt(f) + 2.0 * log(rough + 2.51 / (reynolds * sqrt(f)), 10), 1e-3, 1.0)
        return (2 * 20.0 * f / pipe.diameter_m + zeta) * density * speed**2 / 2.0

    def test_copper_with_elbows(self) -> None:
        found = self.circuit(pipe="copper", fittings=(Fitted("pipe_elbow_90", 6),))
        (pipe,) = found.sections.values()
        self.assertIn(pipe.size, [name for name, _ in PIPES["copper"].sizes])
        zeta = 1.0 + 6 * 30 * turbulent_factor(pipe.diameter_m)
        water = density_kg_m3(9.0), viscosity_pa_s(9.0)
        self.assertAlmostEqual(pipe.loss_pa / self.loss_by_hand(found, 1.5e-6, zeta, water), 1.0, places=4)

    def test_glycol_takes_more_flow_and_more_head(self) -> None:
        """Flow from the duty by the mixture's own heat; the same pipe pinned, so that the heads can be told apart."""
        plain = self.circuit()
        mixed = self.circuit(glycol="ethylene", glycol_share=0.3)
        heat = mixture_density_kg_m3("ethylene", 0.3, 9.0) * mixture_specific_heat_j_kgk("ethylene", 0.3, 9.0)
        self.assertAlmostEqual(mixed.pump.flow_m3_s, 30_000.0 / (heat * 6.0), places=12)
        self.assertAlmostEqual(
            plain.pump.flow_m3_s, 30_000.0 / (density_kg_m3(9.0) * specific_heat_j_kgk(9.0) * 6.0), places=12
        )
        self.assertGreater(mixed.pump.flow_m3_s / plain.pump.flow_m3_s, 1.05)
        fluid = mixture_density_kg_m3("ethylene", 0.3, 9.0), mixture_viscosity_pa_s("ethylene", 0.3, 9.0)
        (pipe,) = mixed.sections.values()
        self.assertAlmostEqual(pipe.loss_pa / self.loss_by_hand(mixed, 4.5e-5, 1.0, fluid), 1.0, places=4)

    def test_series_are_in_order_and_as_their_standards_say(self) -> None:
        for series in PIPES.values():
            self.assertEqual(list(series.inner_m), sorted(series.inner_m))
        self.assertAlmostEqual(dict(PIPES["copper"].sizes)["54 × 1.5"], 0.051)
        self.assertAlmostEqual(dict(PIPES["multilayer"].sizes)["20 × 2"], 0.016)
        self.assertAlmostEqual(dict(PIPES["cross-linked polyethylene"].sizes)["32 × 4.4"], 0.0232)


class Glycol(unittest.TestCase):
    def test_handbook_values(self) -> None:
        """CRC Handbook of Chemistry and Physics, concentrative properties of aqueous solutions, 20 °C, by mass."""
        for share, density, freezing in ((0.1, 1010.8, -3.4), (0.2, 1024.1, -7.9), (0.3, 1037.8, -14.0)):
            self.assertAlmostEqual(mixture_density_kg_m3("ethylene", share, 20.0) / density, 1.0, delta=0.001)
            self.assertAlmostEqual(freezing_c("ethylene", share), freezing, delta=0.7)

    def test_less_glycol_comes_near_water(self) -> None:
        for kind in GLYCOLS:
            for t in (5.0, 20.0, 50.0, 80.0):
                nine = [mixture_specific_heat_j_kgk(kind, share, t) for share in (0.1, 0.25, 0.4, 0.55)]
                self.assertEqual(nine, sorted(nine, reverse=True))
                self.assertLess(nine[0], specific_heat_j_kgk(t))
                thick = [mixture_viscosity_pa_s(kind, share, t) for share in (0.1, 0.25, 0.4, 0.55)]
                self.assertEqual(thick, sorted(thick))
                self.assertGreater(thick[0], viscosity_pa_s(t))
            cold = [freezing_c(kind, share) for share in (0.1, 0.2, 0.3, 0.4, 0.5, 0.6)]
            self.assertEqual(cold, sorted(cold, reverse=True))
            self.assertLess(cold[0], -2.0)

    def test_outside_its_range_it_refuses(self) -> None:
        for share in (SHARES[0] - 0.01, SHARES[1] + 0.01, 0.9):
            for of in (mixture_density_kg_m3, mixture_specific_heat_j_kgk, mixture_viscosity_pa_s):
                with self.assertRaisesRegex(ValueError, "glycol share"):
                    of("ethylene", share, 20.0)
        with self.assertRaisesRegex(ValueError, "none of"):
            freezing_c("methanol", 0.3)
