"""A two-pipe tree: flows from duties, pipe sizes, index run, pump.

Source: heat balance of flowing water; losses after EN 12828 practice by Darcy and Weisbach.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.duct.network import section_loss
from pendrum_core.duct.shapes import round_shape
from pendrum_core.model.systems import Circuit, Section
from pendrum_core.network.fittings import coefficient
from pendrum_core.network.friction import Fluid, Friction, smallest_size
from pendrum_core.network.tree import Paths, Tree, build_tree, path_losses, sum_upwards
from pendrum_core.water.insulation import pipe_loss_w_m
from pendrum_core.water.liquid import PLAIN_WATER, Liquid
from pendrum_core.water.pipes import PIPES
from pendrum_core.water.pump import PumpResult, size_pump


@dataclass(frozen=True)
class PipeResult:
    """One sized two-pipe section; losses are of flow and return together [Pa]."""

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
    coefficients: tuple[float, ...] = ()  # of each of its fittings, one of each entry


@dataclass(frozen=True)
class CircuitResult:
    """A whole circuit.

    Attributes:
        duty_w: by the id of what is served.
        end_flow_m3_s: the same.
        water_content_m3: in the pipes.
        lost_w: through the insulation of flow and return, by section, at the design temperatures; in a chilled circuit what
            comes in [W]. Empty where losses are stated as a share.
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

    @property
    def pipes_lose_w(self) -> float:
        """All its pipes together [W]. Source: EN ISO 12241:2008."""
        return sum(self.lost_w.values())


def water_flow_m3_s(duty_w: float, flow_c: float, return_c: float, liquid: Liquid = PLAIN_WATER) -> float:
    """V = Q/(rho c dT) with water, or what fills the circuit, at the mean temperature [m3/s]."""
    mean = (flow_c + return_c) / 2.0
    return duty_w / (liquid.density_kg_m3(mean) * liquid.specific_heat_j_kgk(mean) * abs(flow_c - return_c))


def liquid_of(circuit: Circuit) -> Liquid:
    """What fills a circuit."""
    return Liquid(circuit.glycol, circuit.glycol_share)


def roughness_of(circuit: Circuit) -> float:
    """Roughness of a circuit's pipes [m]: its own, or that of its series."""
    return PIPES[circuit.pipe].roughness_m if circuit.roughness_m is None else circuit.roughness_m


def size_circuit(circuit: Circuit, duty_w: Mapping[str, float]) -> CircuitResult:
    """Size a circuit for the duties of what its sections serve.

    Raises:
        TreeError: the sections are not a tree.
    """
    mean = (circuit.flow_c + circuit.return_c) / 2.0
    liquid, series, roughness = liquid_of(circuit), PIPES[circuit.pipe], roughness_of(circuit)
    fluid = liquid.fluid(mean)
    tree = build_tree({section.id: section.parent for section in circuit.sections})
    served = [section.end for section in circuit.sections if section.end is not None]
    duties = {end: duty_w.get(end, 0.0) for end in served}
    per_watt = water_flow_m3_s(1.0, circuit.flow_c, circuit.return_c, liquid)
    end_flow = {end: duty * per_watt for end, duty in duties.items()}
    flows = sum_upwards(tree, {s.id: end_flow[s.end] for s in circuit.sections if s.end is not None})
    results: dict[str, PipeResult] = {}
    content = 0.0
    for section in circuit.sections:
        flow, pinned = flows[section.id], section.pinned_diameter_m
        limits = (circuit.friction_limit_pa_m, circuit.velocity_limit_m_s)
        index = smallest_size(flow, series.inner_m, roughness, fluid, *limits)
        diameter = pinned if pinned is not None else series.inner_m[index if index is not None else -1]
        shape = round_shape(diameter)
        straight, friction_loss, fitting_loss, loss = section_loss(section, flow, shape, roughness, fluid, pipes=2)
        within = straight.rate_pa_m <= limits[0] and straight.velocity_m_s <= limits[1]
        results[section.id] = PipeResult(
            section.id,
            flow,
            size=series.name_of(diameter),
            diameter_m=diameter,
            sized=pinned is None,
            within_limits=within,
            friction=straight,
            friction_loss_pa=friction_loss,
            fitting_loss_pa=fitting_loss,
            loss_pa=loss,
            coefficients=tuple(coefficient(fitted, diameter) for fitted in section.fittings),
        )
        content += 2.0 * section.length_m * shape.area_m2
    ends = [section.id for section in circuit.sections if section.end is not None]
    paths = path_losses(tree, {key: result.loss_pa for key, result in results.items()}, ends)
    return CircuitResult(
        tree=tree,
        fluid=fluid,
        specific_heat_j_kgk=liquid.specific_heat_j_kgk(mean),
        duty_w=duties,
        end_flow_m3_s=end_flow,
        sections=results,
        paths=paths,
        pump=size_pump(circuit, sum(end_flow.values()), paths.index_loss_pa),
        water_content_m3=content,
        lost_w={s.id: section_lost_w(circuit, s, results[s.id].diameter_m) for s in circuit.sections}
        if circuit.pipe_insulation_m is not None
        else {},
    )


def section_lost_w(circuit: Circuit, section: Section, diameter_m: float) -> float:
    """What a section's flow and return lose together, at the design temperatures; of a chilled circuit what they take in [W].

    Source: EN ISO 12241:2008.
    """
    outer = PIPES[circuit.pipe].outer_of(diameter_m)
    thickness, conductivity = circuit.pipe_insulation_m or 0.0, circuit.pipe_insulation_w_mk
    lost = sum(
        pipe_loss_w_m(water, circuit.pipe_around_c, outer, thickness, conductivity)
        for water in (circuit.flow_c, circuit.return_c)
    )
    return max(0.0, lost if circuit.kind == "heating" else -lost) * section.length_m
