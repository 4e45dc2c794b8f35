"""A duct tree: sizes by equal friction, losses, index run, balancing, fan pressure."""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.climate.atmosphere import dry_air_density_kg_m3
from pendrum_core.duct.shapes import STEEL_KG_M3, Shape, chosen_shape, round_shape
from pendrum_core.model.systems import Section
from pendrum_core.network.friction import Fluid, Friction, friction
from pendrum_core.network.tree import Paths, Tree, build_tree, path_losses, sum_upwards
from pendrum_core.quantities.constants import KELVIN


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


def section_loss(
    section: Section, flow_m3_s: float, shape: Shape, roughness_m: float, fluid: Fluid, pipes: int = 1
) -> tuple[Friction, float, float, float]:
    """Friction, friction loss, fitting loss and whole loss of a section [Pa].

    loss = pipes * rate * length + C * dynamic pressure + component + end drop. `pipes` is 2 for flow and return.
    """
    straight = friction(flow_m3_s, shape.area_m2, shape.hydraulic_diameter_m, roughness_m, fluid)
    friction_loss = pipes * straight.rate_pa_m * section.length_m
    fitting_loss = section.loss_coefficient * straight.dynamic_pressure_pa
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
    """

    tree: Tree
    fluid: Fluid
    sections: Mapping[str, SectionResult]
    paths: Paths
    unit_drop_pa: float
    fan_total_pa: float
    outlet_dynamic_pa: float
    fan_static_pa: float


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
    friction_limit_pa_m: float,
    velocity_limit_m_s: float,
    roughness_m: float,
    unit_drop_pa: float,
    outlet_velocity_m_s: float,
) -> DuctResult:
    """Size every section by equal friction within the velocity limit and find the fan's pressure.

    `end_flow_m3_s` is the flow by the id of what a section serves. A pinned diameter is kept.

    Raises:
        TreeError: the sections are not a tree.
    """
    tree = build_tree({section.id: section.parent for section in sections})
    taken = {section.id: end_flow_m3_s.get(section.end, 0.0) for section in sections if section.end is not None}
    flows = sum_upwards(tree, taken)
    results: dict[str, SectionResult] = {}
    for section in sections:
        flow = flows[section.id]
        limits = (friction_limit_pa_m, velocity_limit_m_s)
        pinned = _pinned(section)
        shape, within = pinned, True
        if shape is None:
            shape, within = chosen_shape(section.shape, section.height_limit_m, flow, roughness_m, fluid, *limits)
        straight, friction_loss, fitting_loss, loss = section_loss(section, flow, shape, roughness_m, fluid)
        if pinned is not None:
            within = straight.rate_pa_m <= friction_limit_pa_m and straight.velocity_m_s <= velocity_limit_m_s
        sheet = shape.perimeter_m * section.length_m
        results[section.id] = SectionResult(
            section.id, flow, shape=shape, sized=pinned is None, within_limits=within, friction=straight, friction_loss_pa=friction_loss, fitting_loss_pa=fitting_loss, loss_pa=loss, sheet_m2=sheet,
            sheet_kg=sheet * shape.sheet_m * STEEL_KG_M3,
        )  # fmt: skip
    ends = [section.id for section in sections if section.end is not None]
    paths = path_losses(tree, {key: result.loss_pa for key, result in results.items()}, ends)
    total = paths.index_loss_pa + unit_drop_pa
    dynamic = fluid.density_kg_m3 * outlet_velocity_m_s**2 / 2.0
    return DuctResult(
        tree,
        fluid,
        sections=results,
        paths=paths,
        unit_drop_pa=unit_drop_pa,
        fan_total_pa=total,
        outlet_dynamic_pa=dynamic,
        fan_static_pa=total - dynamic,
    )
