"""Ways of sizing ducts, what leaks out of them, and what heat gets in.

Source: leakage classes of EN 12237 and EN 1507; heat through a cylinder and a wall in series, EN ISO 12241.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import exp, log, pi

from pendrum_core.duct.shapes import ROUND_SIZES_M, Shape, chosen_shape, round_shape, standard_shapes
from pendrum_core.model.systems import Section
from pendrum_core.network.fittings import sum_of_coefficients
from pendrum_core.network.friction import Fluid, Friction, friction
from pendrum_core.network.tree import Tree

EQUAL_FRICTION, CONSTANT_VELOCITY, STATIC_REGAIN = "equal friction", "constant velocity", "static regain"
METHODS = (EQUAL_FRICTION, CONSTANT_VELOCITY, STATIC_REGAIN)
# Leakage f p^0.65 of sheet ducts by class [m3/(s m2)] at p in Pa. Source: EN 12237:2003, table 1; EN 1507:2006.
LEAK_CLASSES = {"A": 0.027e-3, "B": 0.009e-3, "C": 0.003e-3, "D": 0.001e-3}
LEAK_EXPONENT = 0.65
# Films inside (moving air) and outside (still air) of a duct, and mineral wool around it; chosen within EN ISO 12241:2008.
INSIDE_W_M2K, OUTSIDE_W_M2K, WOOL_W_MK = 25.0, 8.0, 0.037
_NO_FRICTION_PA_M = 1e9
_TIE_M2 = 1e-12


MAIN, BRANCH, RUNOUT = "main", "branch", "runout"


@dataclass(frozen=True)
class DuctRules:
    """How a system's ducts are sized.

    Attributes:
        method: of METHODS.
        friction_limit_pa_m, velocity_limit_m_s: of equal friction; velocity alone of the others.
        branch_velocity_m_s, runout_velocity_m_s: of sections that carry ends alone, and of those that lead to one; None: as mains.
        roughness_m: of the sheet.
        leak_class: of LEAK_CLASSES; empty where leakage is not worked out by section. suction: whether a fan draws through them.
        insulation_m: mineral wool around ducts; None: no heat gain is worked out.
        around_c: air around the ducts [°C].
        round_sizes_m: inner diameters of round ducts to choose from, small to large [m].
    """

    method: str = EQUAL_FRICTION
    friction_limit_pa_m: float = 0.8
    velocity_limit_m_s: float = 7.0
    branch_velocity_m_s: float | None = None
    runout_velocity_m_s: float | None = None
    roughness_m: float = 9e-5
    leak_class: str = ""
    suction: bool = False
    insulation_m: float | None = None
    around_c: float = 24.0
    round_sizes_m: tuple[float, ...] = ROUND_SIZES_M


def class_of(tree: Tree, section: str) -> str:
    """MAIN, BRANCH or RUNOUT: a runout carries no other section, a branch runouts alone."""
    below = tree.children[section]
    if not below:
        return RUNOUT
    return BRANCH if all(not tree.children[child] for child in below) else MAIN


def velocity_limit_m_s(rules: DuctRules, kind: str) -> float:
    """Highest velocity in a section of a class [m/s]: its own limit, or that of mains. Source: inputs."""
    own = {BRANCH: rules.branch_velocity_m_s, RUNOUT: rules.runout_velocity_m_s}.get(kind)
    return rules.velocity_limit_m_s if own is None else own


def shape_for(
    section: Section, flow_m3_s: float, rules: DuctRules, fluid: Fluid, above: tuple[Shape, Friction] | None
) -> tuple[Shape, bool]:
    """The standard size of a section by the rules, and whether it keeps them; `above` is what it hangs on.

    Raises:
        ValueError: no such method, or what shapes.chosen_shape raises.
    """
    if rules.method not in METHODS:
        raise ValueError(f"ducts are sized by {', '.join(METHODS)}, not {rules.method!r}")
    by_friction = rules.friction_limit_pa_m if rules.method == EQUAL_FRICTION else _NO_FRICTION_PA_M
    if rules.method != STATIC_REGAIN or above is None:
        return chosen_shape(
            section.shape,
            section.height_limit_m,
            flow_m3_s,
            roughness_m=rules.roughness_m,
            fluid=fluid,
            limit_pa_m=by_friction,
            limit_m_s=rules.velocity_limit_m_s,
            round_sizes_m=rules.round_sizes_m,
        )
    return _regained(section, flow_m3_s, rules, fluid, *above)


def _regained(
    section: Section, flow_m3_s: float, rules: DuctRules, fluid: Fluid, before: Shape, upstream: Friction
) -> tuple[Shape, bool]:
    """The smallest size whose loss of total pressure the fall of dynamic pressure covers; never larger than the one before."""
    shapes = (
        [round_shape(d) for d in rules.round_sizes_m]
        if section.shape == "round"
        else standard_shapes(section.shape, section.height_limit_m)
    )
    allowed = [shape for shape in shapes if shape.area_m2 <= before.area_m2 + _TIE_M2]
    for shape in allowed:
        found = friction(flow_m3_s, shape.area_m2, shape.hydraulic_diameter_m, rules.roughness_m, fluid)
        fittings = sum_of_coefficients(section.loss_coefficient, section.fittings, shape.equivalent_diameter_m)
        lost = found.rate_pa_m * section.length_m + fittings * found.dynamic_pressure_pa
        if upstream.dynamic_pressure_pa - found.dynamic_pressure_pa >= lost:
            return shape, found.velocity_m_s <= rules.velocity_limit_m_s
    largest = max(allowed or shapes[:1], key=lambda shape: shape.area_m2)
    return largest, False


def leaks_m3_s(
    tree: Tree,
    sections: Mapping[str, Section],
    loss_pa: Mapping[str, float],
    dynamic_pa: Mapping[str, float],
    surface_m2: Mapping[str, float],
    start_pa: float,
    leak_class: str,
    suction: bool = False,
) -> dict[str, float]:
    """What leaks from every section, or into it: f p^0.65 of its surface at the mean static pressure of its two ends.

    `start_pa` is the total pressure behind the unit, or with `suction` how far it is below the air around in front of it; what dampers
    take stands at the ends. Moving air has less static pressure than total: in suction so much further below.

    Raises:
        ValueError: no such class.
    """
    if leak_class not in LEAK_CLASSES:
        raise ValueError(f"ducts are of class {', '.join(LEAK_CLASSES)}, not {leak_class!r}")
    total: dict[str, float] = {}
    leaks = {}
    for identity in tree.order:
        parent = tree.parent[identity]
        begins = start_pa if parent is None else total[parent]
        ends = begins - (loss_pa[identity] - sections[identity].end_drop_pa)
        total[identity] = ends
        mean = (begins + ends) / 2.0
        static = max(0.0, mean + dynamic_pa[identity] if suction else mean - dynamic_pa[identity])
        leaks[identity] = LEAK_CLASSES[leak_class] * static**LEAK_EXPONENT * surface_m2[identity]
    return leaks


def loss_per_length_w_mk(shape: Shape, insulation_m: float) -> float:
    """Heat through a metre of duct per kelvin: film, insulation, film; round ducts by the cylinder [W/(m K)]."""
    if shape.kind == "round":
        inner, outer = shape.width_m / 2.0, shape.width_m / 2.0 + insulation_m
        through = 1.0 / (2 * pi * inner * INSIDE_W_M2K) + 1.0 / (2 * pi * outer * OUTSIDE_W_M2K)
        return 1.0 / (through + log(outer / inner) / (2 * pi * WOOL_W_MK))
    inside, outside = shape.perimeter_m, shape.perimeter_m + 8.0 * insulation_m
    middle = (inside + outside) / 2.0
    return 1.0 / (1.0 / (inside * INSIDE_W_M2K) + insulation_m / (middle * WOOL_W_MK) + 1.0 / (outside * OUTSIDE_W_M2K))


def gains_w_k(
    tree: Tree,
    sections: Mapping[str, Section],
    shapes: Mapping[str, Shape],
    flow_m3_s: Mapping[str, float],
    heat_j_m3k: float,
    insulation_m: float,
) -> dict[str, float]:
    """UA of the way to each end, by the id of what stands there [W/K]: one duct of it warms the end's air as its whole way does.

    Every section by T = Ta + (Tin - Ta) exp(-U L/(m cp)), one after the other along each path; of several ways to one end by
    the mean of their air.
    """
    kept: dict[str, float] = {}
    at: dict[str, list[tuple[float, float]]] = {}
    for identity in tree.order:
        parent, flow = tree.parent[identity], flow_m3_s[identity]
        ua = loss_per_length_w_mk(shapes[identity], insulation_m) * sections[identity].length_m
        through = exp(-ua / (flow * heat_j_m3k)) if flow > 0.0 else 0.0
        kept[identity] = (1.0 if parent is None else kept[parent]) * through
        end = sections[identity].end
        if end is not None and flow > 0.0:
            at.setdefault(end, []).append((flow, kept[identity]))
    found = {}
    for end, ways in at.items():
        flow = sum(one for one, _ in ways)
        mean = sum(one * share for one, share in ways) / flow
        found[end] = -flow * heat_j_m3k * log(max(mean, 1e-12))
    return found
