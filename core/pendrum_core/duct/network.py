"""A duct tree: sizes, losses, index run, balancing, fan pressure.

Source: ASHRAE Handbook Fundamentals 2017, ch. 21; kv by definition (IEC 60534-1).
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.climate.atmosphere import dry_air_density_kg_m3
from pendrum_core.duct.methods import (
    EQUAL_FRICTION,
    DuctRules,
    class_of,
    gains_w_k,
    leaks_m3_s,
    shape_for,
    velocity_limit_m_s,
)
from pendrum_core.duct.shapes import STEEL_KG_M3, Shape, round_shape
from pendrum_core.model.systems import Section
from pendrum_core.network.ends import shares_of_ends
from pendrum_core.network.fittings import coefficient, sum_of_coefficients
from pendrum_core.network.friction import Fluid, Friction, friction
from pendrum_core.network.tree import Paths, Tree, build_tree, largest_at_one_time, path_losses, sum_upwards
from pendrum_core.quantities.constants import KELVIN

_LEAK_ROUNDS, _SIZED_ROUNDS, _LEAK_AT_REST_M3_S = 40, 2, 1e-9
_AIR_J_KGK = 1006.0  # dry air, for what ducts warm it


def air(temperature_c: float, pressure_pa: float) -> Fluid:
    """Dry air in a duct: ideal gas; viscosity by Sutherland's formula (reference 1.716e-5 Pa s at 273.15 K, S 110.4 K)."""
    t = temperature_c + KELVIN
    viscosity = 1.716e-5 * (t / 273.15) ** 1.5 * (273.15 + 110.4) / (t + 110.4)
    return Fluid(dry_air_density_kg_m3(temperature_c, pressure_pa), viscosity)


@dataclass(frozen=True)
class SectionResult:
    """One sized section.

    Attributes:
        flow_m3_s: actual flow.
        shape: chosen or pinned.
        sized: False where it is pinned.
        within_limits: False where no standard size, or the pinned one, meets the limits.
        friction: in the straight duct.
        friction_loss_pa, fitting_loss_pa: over the length; C times the dynamic pressure.
        loss_pa: whole section with component and terminal drops.
        sheet_m2, sheet_kg: of its straight length.
        coefficients: C of each of its fittings, one of each entry [-].
        velocity_limit_m_s: of its class.
    """

    id: str
    flow_m3_s: float
    shape: Shape
    sized: bool
    within_limits: bool
    friction: Friction
    friction_loss_pa: float
    fitting_loss_pa: float
    loss_pa: float
    sheet_m2: float
    sheet_kg: float
    coefficients: tuple[float, ...] = ()
    velocity_limit_m_s: float = 0.0

    @property
    def diameter_m(self) -> float:
        """Diameter, or that of the round duct of the same friction [m]."""
        return self.shape.equivalent_diameter_m


def valve_drop_pa(flow_m3_s: float, kv_m3_h: float, density_kg_m3: float) -> float:
    """Drop of a valve: (q/kv)² bar, times the density over 1000 [Pa]. Source: EN 60534, definition of Kv."""
    return float((flow_m3_s * 3600.0 / kv_m3_h) ** 2 * 1e5 * density_kg_m3 / 1000.0)


def valve_kv_m3_h(flow_m3_s: float, drop_pa: float, density_kg_m3: float) -> float:
    """Kv of a valve that takes a drop at a flow [m3/h]."""
    return float(flow_m3_s * 3600.0 * (1e5 / drop_pa * density_kg_m3 / 1000.0) ** 0.5)


def fittings_coefficient(section: Section, shape: Shape) -> float:
    """Sum of a section's C, entered and by its fittings [-]."""
    return sum_of_coefficients(section.loss_coefficient, section.fittings, shape.equivalent_diameter_m)


def section_loss(
    section: Section, flow_m3_s: float, shape: Shape, roughness_m: float, fluid: Fluid, pipes: int = 1
) -> tuple[Friction, float, float, float]:
    """Friction, friction loss, fitting loss and whole loss of a section [Pa].

    loss = pipes * rate * length + sum of C * dynamic pressure + component + end drop. `pipes` is 2 for flow and return.
    """
    straight = friction(flow_m3_s, shape.area_m2, shape.hydraulic_diameter_m, roughness_m, fluid)
    friction_loss = pipes * straight.rate_pa_m * section.length_m
    fitting_loss = fittings_coefficient(section, shape) * straight.dynamic_pressure_pa
    loss = friction_loss + fitting_loss + section.component_drop_pa + section.end_drop_pa
    if section.valve_kv_m3_h is not None:
        loss += valve_drop_pa(flow_m3_s, section.valve_kv_m3_h, fluid.density_kg_m3)
    return straight, friction_loss, fitting_loss, loss


@dataclass(frozen=True)
class DuctResult:
    """A whole tree.

    Attributes:
        sections: by id.
        paths: losses to the ends.
        unit_drop_pa: components in the unit.
        fan_total_pa: index run plus unit.
        outlet_dynamic_pa: dynamic pressure in the fan outlet.
        fan_static_pa: total minus outlet dynamic pressure.
        leak_share: of the flow at the root, lost on the way; 0 where it is not worked out [-].
        gains_w_k: UA of the way to each end, by the id of what stands there; empty where it is not worked out [W/K].
        insulation_m2: around its sections, on its outside.
    """

    tree: Tree
    fluid: Fluid
    sections: Mapping[str, SectionResult]
    paths: Paths
    unit_drop_pa: float
    fan_total_pa: float
    outlet_dynamic_pa: float
    fan_static_pa: float
    leak_share: float = 0.0
    gains_w_k: Mapping[str, float] = field(default_factory=dict)
    insulation_m2: float = 0.0


def _pinned(section: Section) -> Shape | None:
    """The size that the engineer fixed: of a round duct its diameter, of others width and height together."""
    if section.shape == "round":
        return None if section.pinned_diameter_m is None else round_shape(section.pinned_diameter_m)
    if section.pinned_width_m is None or section.pinned_height_m is None:
        return None
    width, height = sorted((section.pinned_width_m, section.pinned_height_m), reverse=True)
    return Shape(section.shape, width, height)


def size_tree(
    sections: tuple[Section, ...],
    end_flow_m3_s: Mapping[str, float],
    fluid: Fluid,
    rules: DuctRules,
    unit_drop_pa: float = 0.0,
    outlet_velocity_m_s: float = 0.0,
    courses_m3_s: Mapping[str, NDArray[np.float64]] | None = None,
) -> DuctResult:
    """Size every section by the rules and find the fan's pressure.

    `end_flow_m3_s` is the flow by the id of what a section serves; with its courses over the steps, sections that carry
    several are sized for the largest sum at one time, else for the sum of the ends' own. A pinned size is kept. Where leakage is worked out, every
    section carries what is beyond it and what leaks from it; sizes follow for two rounds, then stand.

    Raises:
        TreeError: the sections are not a tree.
        ValueError: a rule that is none, or a height limit below every standard height.
    """
    tree = build_tree({section.id: section.parent for section in sections})
    by_id = {section.id: section for section in sections}
    shares = shares_of_ends(sections)
    taken = {s.id: shares[s.id] * end_flow_m3_s.get(s.end, 0.0) for s in sections if s.end is not None}
    ends = [section.id for section in sections if section.end is not None]
    leaks = dict.fromkeys(by_id, 0.0)
    carried = sum_upwards(tree, taken)
    if courses_m3_s is not None:
        their = {
            s.id: shares[s.id] * courses_m3_s[s.end] for s in sections if s.end is not None and s.end in courses_m3_s
        }
        carried = largest_at_one_time(tree, taken, their)
    shapes: dict[str, tuple[Shape, bool]] = {}
    for number in range(_LEAK_ROUNDS):
        lost = sum_upwards(tree, leaks)
        flows = {identity: carried[identity] + lost[identity] for identity in by_id}
        results = _sections(
            tree, by_id, flows=flows, fluid=fluid, rules=rules, known=shapes if number > _SIZED_ROUNDS else {}
        )
        shapes = {identity: (found.shape, found.within_limits) for identity, found in results.items()}
        paths = path_losses(tree, {key: result.loss_pa for key, result in results.items()}, ends)
        if not rules.leak_class:
            break
        now = leaks_m3_s(
            tree,
            by_id,
            {i: r.loss_pa for i, r in results.items()},
            {i: r.friction.dynamic_pressure_pa for i, r in results.items()},
            surface_m2={i: r.sheet_m2 for i, r in results.items()},
            start_pa=paths.index_loss_pa,
            leak_class=rules.leak_class,
            suction=rules.suction,
        )
        apart = max(abs(now[i] - leaks[i]) for i in now)
        leaks = now
        if number > _SIZED_ROUNDS and apart < _LEAK_AT_REST_M3_S:
            break
    total = paths.index_loss_pa + unit_drop_pa
    dynamic = fluid.density_kg_m3 * outlet_velocity_m_s**2 / 2.0
    root_flow = sum(flows[i] for i in tree.order if tree.parent[i] is None)
    heat = fluid.density_kg_m3 * _AIR_J_KGK
    warmed: dict[str, float] = {}
    wrapped = 0.0
    if rules.insulation_m is not None:
        wrapped = sum(shape.wrapped_m(rules.insulation_m) * by_id[i].length_m for i, (shape, _) in shapes.items())
        warmed = gains_w_k(
            tree,
            by_id,
            {i: shape for i, (shape, _) in shapes.items()},
            flows,
            heat_j_m3k=heat,
            insulation_m=rules.insulation_m,
        )
    return DuctResult(
        tree,
        fluid,
        sections={section.id: results[section.id] for section in sections},
        paths=paths,
        unit_drop_pa=unit_drop_pa,
        fan_total_pa=total,
        outlet_dynamic_pa=dynamic,
        fan_static_pa=total - dynamic,
        leak_share=sum(leaks.values()) / root_flow if root_flow > 0.0 else 0.0,
        gains_w_k=warmed,
        insulation_m2=wrapped,
    )


def _sections(
    tree: Tree,
    by_id: Mapping[str, Section],
    flows: Mapping[str, float],
    fluid: Fluid,
    rules: DuctRules,
    known: Mapping[str, tuple[Shape, bool]],
) -> dict[str, SectionResult]:
    """Every section sized, from the root on: by some rules it hangs on the one before."""
    results: dict[str, SectionResult] = {}
    for identity in tree.order:
        section, flow, parent = by_id[identity], flows[identity], tree.parent[identity]
        above = None if parent is None else (results[parent].shape, results[parent].friction)
        limit = velocity_limit_m_s(rules, class_of(tree, identity))
        here = replace(rules, velocity_limit_m_s=limit)
        pinned = _pinned(section)
        shape, within = (
            (pinned, True)
            if pinned is not None
            else known.get(identity) or shape_for(section, flow, here, fluid, above)
        )
        straight, friction_loss, fitting_loss, loss = section_loss(section, flow, shape, rules.roughness_m, fluid)
        if pinned is not None:
            within = straight.velocity_m_s <= limit and (
                rules.method != EQUAL_FRICTION or straight.rate_pa_m <= rules.friction_limit_pa_m
            )
        sheet = shape.perimeter_m * section.length_m
        results[identity] = SectionResult(
            identity,
            flow,
            shape=shape,
            sized=pinned is None,
            within_limits=within,
            friction=straight,
            friction_loss_pa=friction_loss,
            fitting_loss_pa=fitting_loss,
            loss_pa=loss,
            sheet_m2=sheet,
            sheet_kg=sheet * shape.sheet_m * STEEL_KG_M3,
            coefficients=tuple(coefficient(fitted, shape.equivalent_diameter_m) for fitted in section.fittings),
            velocity_limit_m_s=limit,
        )
    return results
