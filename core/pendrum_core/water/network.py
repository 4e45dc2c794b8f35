"""A tree of two pipes, with direct or reverse return: flows from duties, pipe sizes, index run, pump.

Source: heat balance of flowing water; losses after EN 12828 practice by Darcy and Weisbach.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.duct.network import valve_drop_pa
from pendrum_core.duct.shapes import round_shape
from pendrum_core.model.systems import REVERSE_RETURN, Circuit, Section
from pendrum_core.network.ends import shares_of_ends
from pendrum_core.network.fittings import coefficient, sum_of_coefficients
from pendrum_core.network.friction import Fluid, Friction, friction, smallest_size
from pendrum_core.network.tree import Paths, Tree, build_tree, largest_at_one_time, path_losses, sum_upwards
from pendrum_core.water.insulation import pipe_loss_w_m
from pendrum_core.water.liquid import PLAIN_WATER, Liquid
from pendrum_core.water.pipes import series_of
from pendrum_core.water.pump import PumpResult, size_pump
from pendrum_core.water.reverse import Chain, chains

Array = NDArray[np.float64]
_NONE: Mapping[str, float] = {}
FLOW_AND_RETURN, FLOW, RETURN, BACK = "flow and return", "flow", "return", "back from the end"


@dataclass(frozen=True)
class PipeRun:
    """A pipe that belongs to a section: what it carries, its size, metres of pipe, and what it loses with its fittings [Pa].

    `role`: FLOW_AND_RETURN for both alike; of a main with reverse return FLOW, RETURN beside it, and at the first section BACK from the
    end of the main.
    """

    role: str
    flow_m3_s: float
    size: str
    diameter_m: float
    length_m: float
    friction: Friction
    loss_pa: float
    within_limits: bool


@dataclass(frozen=True)
class PipeResult:
    """One sized section of two pipes; losses are of flow and return together [Pa].

    Attributes:
        runs: its pipes.
        path_pa: what it adds to a path that leads through it: its loss, with reverse return its flow pipe less the return beside it
            (a path that runs on leaves that return aside), and at the first section all return pipes of the main.
    """

    id: str
    flow_m3_s: float
    size: str
    diameter_m: float
    sized: bool
    within_limits: bool
    friction: Friction
    friction_loss_pa: float
    fitting_loss_pa: float
    loss_pa: float
    runs: tuple[PipeRun, ...]
    path_pa: float
    coefficients: tuple[float, ...] = ()  # of each of its fittings, one of each entry


@dataclass(frozen=True)
class CircuitResult:
    """A whole circuit.

    Attributes:
        duty_w: by the id of what is served.
        end_flow_m3_s: the same.
        water_content_m3: in the pipes.
        lost_w: through the insulation of flow and return, by section, at the design temperatures; in a chilled circuit what
            comes in [W]. Empty where losses are stated; `stated_lost_w` where that is by floor area.
    """

    tree: Tree
    fluid: Fluid
    specific_heat_j_kgk: float
    duty_w: Mapping[str, float]
    end_flow_m3_s: Mapping[str, float]
    sections: Mapping[str, PipeResult]
    paths: Paths
    pump: PumpResult
    water_content_m3: float
    lost_w: Mapping[str, float]
    stated_lost_w: float = 0.0

    @property
    def pipes_lose_w(self) -> float:
        """All its pipes together, and what is stated of them [W]. Source: EN ISO 12241:2008."""
        return sum(self.lost_w.values()) + self.stated_lost_w


def water_flow_m3_s(duty_w: float, flow_c: float, return_c: float, liquid: Liquid = PLAIN_WATER) -> float:
    """V = Q/(rho c dT) with water, or what fills the circuit, at the mean temperature [m3/s]."""
    mean = (flow_c + return_c) / 2.0
    return duty_w / (liquid.density_kg_m3(mean) * liquid.specific_heat_j_kgk(mean) * abs(flow_c - return_c))


def liquid_of(circuit: Circuit) -> Liquid:
    """What fills a circuit."""
    return Liquid(circuit.glycol, circuit.glycol_share)


def roughness_of(circuit: Circuit) -> float:
    """Roughness of a circuit's pipes [m]: its own, or that of its series."""
    return series_of(circuit).roughness_m if circuit.roughness_m is None else circuit.roughness_m


@dataclass(frozen=True)
class _Sizing:
    """How pipes of a circuit are sized."""

    circuit: Circuit
    fluid: Fluid

    def run(self, role: str, flow: float, length_m: float, pinned: float | None = None) -> PipeRun:
        """A pipe for a flow, with the friction of its length."""
        circuit, series, roughness = self.circuit, series_of(self.circuit), roughness_of(self.circuit)
        limits = (circuit.friction_limit_pa_m, circuit.velocity_limit_m_s)
        index = smallest_size(flow, series.inner_m, roughness, self.fluid, *limits)
        diameter = pinned if pinned is not None else series.inner_m[index if index is not None else -1]
        straight = friction(flow, round_shape(diameter).area_m2, diameter, roughness, self.fluid)
        within = straight.rate_pa_m <= limits[0] and straight.velocity_m_s <= limits[1]
        lost = straight.rate_pa_m * length_m
        return PipeRun(role, flow, series.name_of(diameter), diameter, length_m, straight, lost, within)

    def both(self, section: Section, flow: float) -> PipeResult:
        """A section whose flow and return are alike."""
        run = self.run(FLOW_AND_RETURN, flow, 2.0 * section.length_m, section.pinned_diameter_m)
        fitted = self.zeta(section, run) * run.friction.dynamic_pressure_pa
        loss = run.loss_pa + fitted + self.rest_pa(section, flow)
        return self._result(section, (replace(run, loss_pa=loss),), run.loss_pa, fitted, loss)

    def zeta(self, section: Section, run: PipeRun) -> float:
        """Sum of a section's ζ, entered and by its fittings, of flow and return together [-]."""
        return sum_of_coefficients(section.loss_coefficient, section.fittings, run.diameter_m)

    def rest_pa(self, section: Section, flow: float) -> float:
        """What stands in it and at its end, with the valve there [Pa]."""
        kv = section.valve_kv_m3_h
        valve = 0.0 if kv is None else valve_drop_pa(flow, kv, self.fluid.density_kg_m3)
        return section.component_drop_pa + section.end_drop_pa + valve

    def main(self, chain: Chain, flows: Mapping[str, float], sections: Mapping[str, Section]) -> list[PipeResult]:
        """The sections of a main with reverse return; half of a section's fittings stand in its flow, half in its return."""

        def fitted(run: PipeRun, zeta: float, rest_pa: float = 0.0) -> PipeRun:
            return replace(run, loss_pa=run.loss_pa + zeta * run.friction.dynamic_pressure_pa + rest_pa)

        way_back = self.run(BACK, chain.whole_flow, sum(sections[one].length_m for one in chain.sections))
        found: list[PipeResult] = []
        for place, (identity, back) in enumerate(zip(chain.sections, chain.return_flow, strict=True)):
            section = sections[identity]
            there = self.run(FLOW, flows[identity], section.length_m, section.pinned_diameter_m)
            half, rest = self.zeta(section, there) / 2.0, self.rest_pa(section, flows[identity])
            runs = [fitted(there, half, rest)]
            if place == 0:
                # Its return half lies in the way back.
                runs.append(fitted(way_back, half))
            elif back > 0.0:
                runs.append(fitted(self.run(RETURN, back, section.length_m), half))
            frictions = sum(run.friction.rate_pa_m * run.length_m for run in runs)
            loss = sum(run.loss_pa for run in runs)
            found.append(self._result(section, tuple(runs), frictions, loss - frictions - rest, loss))
        returns = sum(run.loss_pa for result in found for run in result.runs if run.role == RETURN)
        return [
            replace(result, path_pa=result.loss_pa + returns)
            if place == 0
            else replace(result, path_pa=sum(run.loss_pa if run.role == FLOW else -run.loss_pa for run in result.runs))
            for place, result in enumerate(found)
        ]

    def _result(
        self, section: Section, runs: tuple[PipeRun, ...], friction_loss: float, fitting_loss: float, loss: float
    ) -> PipeResult:
        first = runs[0]
        return PipeResult(
            section.id,
            first.flow_m3_s,
            size=first.size,
            diameter_m=first.diameter_m,
            sized=section.pinned_diameter_m is None,
            within_limits=all(run.within_limits for run in runs),
            friction=first.friction,
            friction_loss_pa=friction_loss,
            fitting_loss_pa=fitting_loss,
            loss_pa=loss,
            runs=runs,
            path_pa=loss,
            coefficients=tuple(coefficient(fitted, first.diameter_m) for fitted in section.fittings),
        )


_ALL = ""  # stands before all sections that hang on none


def _carried(
    circuit: Circuit, tree: Tree, end_flow: Mapping[str, float], courses: Mapping[str, Array] | None
) -> tuple[dict[str, float], float]:
    """Flow that every section is sized for, and that of all together [m3/s].

    Source: mass balance at every joint and step.
    """
    shares = shares_of_ends(circuit.sections)
    taken = {s.id: shares[s.id] * end_flow[s.end] for s in circuit.sections if s.end is not None}
    flows = sum_upwards(tree, taken)
    whole = sum(end_flow.values())
    if circuit.diversity is not None:
        least = dict(flows)
        for one in reversed(tree.order):
            if carries := tree.children[one]:
                least[one] = max(taken.get(one, 0.0), *(least[by] for by in carries), circuit.diversity * flows[one])
        return least, max([circuit.diversity * whole, *(least[one] for one in tree.order if tree.parent[one] is None)])
    if courses is None or circuit.water_flow != "variable" or circuit.piping == REVERSE_RETURN:
        return flows, whole
    rooted = build_tree(
        {_ALL: None} | {one: _ALL if tree.parent[one] is None else tree.parent[one] for one in tree.order}
    )
    still = np.zeros(next((course.shape for course in courses.values()), (1,)))
    their = {}
    for section in circuit.sections:
        if section.end is not None:
            course = courses.get(section.end, still)
            most = float(course.max(initial=0.0))
            # Of an end that asks nothing on the design days it is not known when it asks: it counts at any time.
            their[section.id] = taken[section.id] * (course / most if most > 0.0 else still + 1.0)
    carried = largest_at_one_time(rooted, taken, their)
    return carried, carried.pop(_ALL)


def size_circuit(
    circuit: Circuit,
    duty_w: Mapping[str, float],
    returns_c: Mapping[str, float] = _NONE,
    courses: Mapping[str, Array] | None = None,
) -> CircuitResult:
    """Size a circuit for the duties of what its sections serve; `returns_c` of ends whose water comes back otherwise than the
    circuit's design says [°C]; `courses` of what ends ask, in one unit and over the same steps.

    At variable flow pipes and pump carry the largest that ends take at one time by their courses; at constant flow, with reverse
    return and without courses the sum of their own, and in any case that sum times the circuit's diversity where it has one.

    Raises:
        TreeError: the sections are not a tree.
    """
    mean = (circuit.flow_c + circuit.return_c) / 2.0
    liquid = liquid_of(circuit)
    fluid = liquid.fluid(mean)
    tree = build_tree({section.id: section.parent for section in circuit.sections})
    served = [section.end for section in circuit.sections if section.end is not None]
    duties = {end: duty_w.get(end, 0.0) for end in served}
    end_flow = {
        end: water_flow_m3_s(duty, circuit.flow_c, returns_c.get(end, circuit.return_c), liquid)
        for end, duty in duties.items()
    }
    flows, together = _carried(circuit, tree, end_flow, courses)
    sizing, by_id = _Sizing(circuit, fluid), {section.id: section for section in circuit.sections}
    found: dict[str, PipeResult] = {}
    if circuit.piping == REVERSE_RETURN:
        found = {one.id: one for chain in chains(tree, flows) for one in sizing.main(chain, flows, by_id)}
    results = {
        section.id: found.get(section.id) or sizing.both(section, flows[section.id]) for section in circuit.sections
    }
    ends = [section.id for section in circuit.sections if section.end is not None]
    paths = path_losses(tree, {key: result.path_pa for key, result in results.items()}, ends)
    return CircuitResult(
        tree=tree,
        fluid=fluid,
        specific_heat_j_kgk=liquid.specific_heat_j_kgk(mean),
        duty_w=duties,
        end_flow_m3_s=end_flow,
        sections=results,
        paths=paths,
        pump=replace(
            size_pump(circuit, together, paths.index_loss_pa),
            diversity=together / whole if (whole := sum(end_flow.values())) > 0.0 else 1.0,
        ),
        water_content_m3=sum(
            run.length_m * round_shape(run.diameter_m).area_m2 for result in results.values() for run in result.runs
        ),
        lost_w={identity: section_lost_w(circuit, result.runs) for identity, result in results.items()}
        if circuit.pipe_insulation_m is not None
        else {},
    )


def section_lost_w(circuit: Circuit, runs: Sequence[PipeRun]) -> float:
    """What the pipes of a section lose together, at the design temperatures; of a chilled circuit what they take in [W].

    Source: EN ISO 12241:2008.
    """
    thickness, conductivity = circuit.pipe_insulation_m or 0.0, circuit.pipe_insulation_w_mk
    total = 0.0
    for run in runs:
        outer = series_of(circuit).outer_of(run.diameter_m)
        waters = {FLOW_AND_RETURN: (circuit.flow_c, circuit.return_c), FLOW: (circuit.flow_c,)}.get(
            run.role, (circuit.return_c,)
        )
        for water in waters:
            lost = pipe_loss_w_m(water, circuit.pipe_around_c, outer, thickness, conductivity)
            total += lost * run.length_m / len(waters)
    return max(0.0, total if circuit.kind == "heating" else -total)
