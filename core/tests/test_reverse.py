"""Reverse return against a network that is solved pipe by pipe, and its paths by hand."""

import unittest
from dataclasses import replace
from math import log10, pi

from core.tests.test_air_system import building
from pendrum_core.model.systems import Circuit, Section
from pendrum_core.network.tree import build_tree
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.water.network import CircuitResult, size_circuit
from pendrum_core.water.reverse import chains
from pendrum_core.working.explain import explain

# A main of three sections with three ends, 2, 1 and 3 kW, each on a branch of its own.
MAIN = (
    Section("m1", "M1", None, 10.0, 4.0),
    Section("m2", "M2", "m1", 8.0, 2.0),
    Section("m3", "M3", "m2", 12.0, 2.0),
    Section("a", "A", "m1", 3.0, 5.0, end="ea", end_drop_pa=3000.0),
    Section("b", "B", "m2", 3.0, 5.0, end="eb", end_drop_pa=3000.0),
    Section("c", "C", "m3", 3.0, 5.0, end="ec", end_drop_pa=3000.0),
)
DUTIES = {"ea": 2000.0, "eb": 1000.0, "ec": 3000.0}


def circuit(*sections: Section, **more: object) -> Circuit:
    return Circuit("h", "Heating", "heating", sections or MAIN, 70.0, 50.0, **more)  # type: ignore[arg-type]


def drop(found: CircuitResult, flow: float, d: float, length: float, zeta: float, roughness: float = 4.5e-5) -> float:
    """Darcy-Weisbach with Colebrook, written out; laminar below Re 2000, a straight line up to 4000."""
    rho, mu = found.fluid.density_kg_m3, found.fluid.viscosity_pa_s
    v = flow / (pi * d * d / 4.0)
    re = rho * v * d / mu

    def colebrook(number: float) -> float:
        f = 0.02
        for _ in range(60):
            f = (-2.0 * log10(roughness / (3.7 * d) + 2.51 / (number * f**0.5))) ** -2
        return f

    if re <= 2000.0:
        f = 64.0 / re
    elif re >= 4000.0:
        f = colebrook(re)
    else:
        f = 0.032 + (re - 2000.0) / 2000.0 * (colebrook(4000.0) - 0.032)
    return (f * length / d + zeta) * rho * v * v / 2.0


class Reverse(unittest.TestCase):
    def setUp(self) -> None:
        self.found = size_circuit(circuit(piping="reverse return", roughness_m=4.5e-5), DUTIES)

    def test_flows_of_supply_and_return(self) -> None:
        q = {end: self.found.end_flow_m3_s[end] for end in DUTIES}
        runs = {name: {run.role: run for run in self.found.sections[name].runs} for name in ("m1", "m2", "m3")}
        self.assertAlmostEqual(runs["m1"]["flow"].flow_m3_s, sum(q.values()))
        self.assertAlmostEqual(runs["m2"]["flow"].flow_m3_s, q["eb"] + q["ec"])
        self.assertAlmostEqual(runs["m3"]["flow"].flow_m3_s, q["ec"])
        # The return beside the second section carries what the first branch took, beside the third also the second's.
        self.assertNotIn("return", runs["m1"])
        self.assertAlmostEqual(runs["m2"]["return"].flow_m3_s, q["ea"])
        self.assertAlmostEqual(runs["m3"]["return"].flow_m3_s, q["ea"] + q["eb"])
        self.assertAlmostEqual(runs["m1"]["back from the end"].flow_m3_s, sum(q.values()))
        self.assertAlmostEqual(runs["m1"]["back from the end"].length_m, 30.0)

    def test_every_path_by_hand(self) -> None:
        """Supply up to the joint, branch, return from there to the end of the main, and the way back."""
        found, runs = self.found, {}
        for name, zeta in (("m1", 4.0), ("m2", 2.0), ("m3", 2.0)):
            for run in found.sections[name].runs:
                runs[name, run.role] = drop(found, run.flow_m3_s, run.diameter_m, run.length_m, zeta / 2.0)
        branch = {}
        for name, end in (("a", "ea"), ("b", "eb"), ("c", "ec")):
            size = found.sections[name].diameter_m
            branch[name] = drop(found, found.end_flow_m3_s[end], size, 6.0, 5.0) + 3000.0
        back = runs["m1", "back from the end"]
        want = {
            "a": runs["m1", "flow"] + branch["a"] + runs["m2", "return"] + runs["m3", "return"] + back,
            "b": runs["m1", "flow"] + runs["m2", "flow"] + branch["b"] + runs["m3", "return"] + back,
            "c": runs["m1", "flow"] + runs["m2", "flow"] + runs["m3", "flow"] + branch["c"] + back,
        }
        for name, loss in want.items():
            self.assertAlmostEqual(found.paths.loss_pa[name], loss, delta=2e-3 * loss)

    def test_paths_of_equal_ends_are_nearly_alike(self) -> None:
        """Ten equal radiators on one main: direct return favours the first, reverse return hardly any."""
        sections: list[Section] = []
        for i in range(10):
            sections.append(Section(f"m{i}", f"M{i}", f"m{i - 1}" if i else None, 6.0, 1.0))
            sections.append(Section(f"e{i}", f"E{i}", f"m{i}", 2.0, 4.0, end=f"r{i}", end_drop_pa=2000.0))
        duties = {f"r{i}": 1200.0 for i in range(10)}
        spread = {}
        for piping in ("two pipes", "reverse return"):
            found = size_circuit(circuit(*sections, piping=piping), duties)
            losses = found.paths.loss_pa.values()
            spread[piping] = max(losses) - min(losses)
            self.assertAlmostEqual(max(found.paths.balancing_pa.values()), spread[piping])
        self.assertLess(spread["reverse return"], 0.5 * spread["two pipes"])

    def test_a_main_of_one_section_is_as_with_direct_return(self) -> None:
        short = (MAIN[0], replace(MAIN[3], id="x"), replace(MAIN[4], id="y", parent="m1"))
        one, two = (size_circuit(circuit(*short, piping=piping), DUTIES) for piping in ("two pipes", "reverse return"))
        for name in ("x", "y"):
            self.assertAlmostEqual(one.paths.loss_pa[name], two.paths.loss_pa[name], places=6)
        self.assertAlmostEqual(one.water_content_m3, two.water_content_m3, places=9)

    def test_mains_start_anew_where_they_part(self) -> None:
        tree = build_tree(
            {"r": None, "f1": "r", "f2": "r", "g1": "f1", "x": "f1", "y": "g1", "z": "g1", "w": "f2", "v": "f2"}
        )
        flow = {"r": 6.0, "f1": 4.0, "f2": 2.0, "g1": 3.0, "x": 1.0, "y": 1.0, "z": 2.0, "w": 1.0, "v": 1.0}
        found = {chain.sections: chain for chain in chains(tree, flow)}
        self.assertEqual(set(found), {("r",), ("f1", "g1"), ("f2",)})
        self.assertEqual(found["f1", "g1"].return_flow, (0.0, 1.0))

    def test_content_losses_kit_and_working_count_every_pipe(self) -> None:
        length = sum(run.length_m for result in self.found.sections.values() for run in result.runs)
        # Flow, the return beside all but the first, and the way back; branches are two pipes.
        self.assertAlmostEqual(length, 30.0 + 20.0 + 30.0 + 3 * 6.0)
        base = building()
        heating = replace(base.circuits[1], piping="reverse return", pipe_insulation_m=0.03)
        results = calculate(replace(base, circuits=(base.circuits[0], heating)))
        self.assertEqual(results.failures, ())
        found = results.circuits["h"]
        every = sum(run.length_m for result in found.sections.values() for run in result.runs)
        items = [item for item in kit_list(results) if item.owner == "h"]
        self.assertAlmostEqual(
            sum(item.duties[0].wanted for item in items if item.item.endswith("pipe, flow and return")), every
        )
        self.assertAlmostEqual(
            sum(item.duties[0].wanted for item in items if item.item.startswith("Pipe insulation")), every
        )
        self.assertEqual(len({(item.order, item.tag, item.owner) for item in items}), len(items))
        tree = explain(results, "pump_head", "h")
        index = next(node for node in tree.inputs if node.name == "Index run")
        self.assertAlmostEqual(sum(node.value or 0.0 for node in index.inputs), index.value or 0.0, places=6)
        lost = explain(results, "pipes_lose", "h")
        self.assertAlmostEqual(lost.value or 0.0, found.pipes_lose_w)
