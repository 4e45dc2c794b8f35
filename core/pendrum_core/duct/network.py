"""A duct tree: sizes by equal friction, losses, index run, balancing, fan pressure."""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.climate.atmosphere import dry_air_density_kg_m3
from pendrum_core.model.systems import Section
from pendrum_core.network.friction import Fluid, Friction, friction, round_area_m2, smallest_size
from pendrum_core.network.tree import Paths, Tree, build_tree, path_losses, sum_upwards
from pendrum_core.quantities.constants import KELVIN

# Recommended diameters of EN 1506 [m].
ROUND_SIZES_M = (
    0.063, 0.080, 0.100, 0.125, 0.160, 0.200, 0.250, 0.315, 0.400, 0.500, 0.630, 0.800, 1.000, 1.250,
)  # fmt: skip


def air(temperature_c: float, pressure_pa: float) -> Fluid:
    """Dry air in a duct: ideal gas; viscosity by Sutherland's formula (reference 1.716e-5 Pa s at 273.15 K, S 110.4 K)."""
    t = temperature_c + KELVIN
    viscosity = 1.716e-5 * (t / 273.15) ** 1.5 * (273.15 + 110.4) / (t + 110.4)
    return Fluid(dry_air_density_kg_m3(temperature_c, pressure_pa), viscosity)


@dataclass(frozen=True)
class Shape:
    """Cross-section: real area [m2] and hydraulic diameter [m]."""

    area_m2: float
    hydraulic_diameter_m: float


def round_shape(diameter_m: float) -> Shape:
    """A round duct."""
    return Shape(round_area_m2(diameter_m), diameter_m)


def rectangular_shape(width_m: float, height_m: float) -> Shape:
    """A rectangular duct, hydraulic diameter 2ab/(a+b)."""
    return Shape(width_m * height_m, 2.0 * width_m * height_m / (width_m + height_m))


@dataclass(frozen=True)
class SectionResult:
    """One sized section.

    Attributes:
        flow_m3_s: actual flow.
        diameter_m: chosen or pinned.
        sized: False where the diameter is pinned.
        within_limits: False where no standard size, or the pinned one, meets the limits.
        friction: in the straight duct.
        friction_loss_pa, fitting_loss_pa: over the length; C times the dynamic pressure.
        loss_pa: whole section with component and terminal drops.
    """

    id: str
    flow_m3_s: float
    diameter_m: float
    sized: bool
    within_limits: bool
    friction: Friction
    friction_loss_pa: float
    fitting_loss_pa: float
    loss_pa: float


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
        pinned = section.pinned_diameter_m
        if pinned is None:
            index = smallest_size(flow, ROUND_SIZES_M, roughness_m, fluid, friction_limit_pa_m, velocity_limit_m_s)
            diameter, within = ROUND_SIZES_M[index if index is not None else -1], index is not None
        else:
            diameter = pinned
        straight, friction_loss, fitting_loss, loss = section_loss(
            section, flow, round_shape(diameter), roughness_m, fluid
        )
        if pinned is not None:
            within = straight.rate_pa_m <= friction_limit_pa_m and straight.velocity_m_s <= velocity_limit_m_s
        results[section.id] = SectionResult(
            section.id, flow, diameter, pinned is None, within, straight, friction_loss, fitting_loss, loss
        )
    ends = [section.id for section in sections if section.end is not None]
    paths = path_losses(tree, {key: result.loss_pa for key, result in results.items()}, ends)
    total = paths.index_loss_pa + unit_drop_pa
    dynamic = fluid.density_kg_m3 * outlet_velocity_m_s**2 / 2.0
    return DuctResult(tree, fluid, results, paths, unit_drop_pa, total, dynamic, total - dynamic)
