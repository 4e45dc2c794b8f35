"""Darcy friction of round and equivalent conduits, by the fluids library.

Source: Darcy and Weisbach; friction factor of Colebrook (1939).
"""

from dataclasses import dataclass
from functools import lru_cache
from math import pi

LAMINAR_TO, ROUGH_FROM = 2000.0, 4000.0  # Reynolds numbers


@dataclass(frozen=True)
class Fluid:
    """Density [kg/m3] and dynamic viscosity [Pa s]."""

    density_kg_m3: float
    viscosity_pa_s: float


@dataclass(frozen=True)
class Friction:
    """Flow in a straight conduit.

    Attributes:
        velocity_m_s: flow over the real area.
        reynolds, factor: at the hydraulic diameter [-]; the factor is Darcy's.
        dynamic_pressure_pa: rho v²/2.
        rate_pa_m: friction per metre.
    """

    velocity_m_s: float
    reynolds: float
    factor: float
    dynamic_pressure_pa: float
    rate_pa_m: float


@lru_cache(maxsize=65536)
def friction(
    flow_m3_s: float, area_m2: float, hydraulic_diameter_m: float, roughness_m: float, fluid: Fluid
) -> Friction:
    """Darcy-Weisbach: 64/Re up to 2000, Colebrook's factor from 4000, and a straight line in Re between.

    dp/L = f/d rho v²/2. Source: ASHRAE Handbook Fundamentals 2017, ch. 21, eqs. 18, 19; fluids, Clamond's solution.
    """
    velocity = flow_m3_s / area_m2
    dynamic = fluid.density_kg_m3 * velocity**2 / 2.0
    if velocity == 0.0:
        return Friction(0.0, 0.0, 0.0, 0.0, 0.0)
    reynolds = fluid.density_kg_m3 * velocity * hydraulic_diameter_m / fluid.viscosity_pa_s
    factor = _factor(reynolds, roughness_m / hydraulic_diameter_m)
    return Friction(velocity, reynolds, factor, dynamic, factor / hydraulic_diameter_m * dynamic)


def _factor(reynolds: float, relative_roughness: float) -> float:
    from fluids.friction import friction_factor

    if reynolds <= LAMINAR_TO:
        return 64.0 / reynolds
    rough = float(friction_factor(Re=max(reynolds, ROUGH_FROM), eD=relative_roughness, Method="Clamond"))
    if reynolds >= ROUGH_FROM:
        return rough
    share = (reynolds - LAMINAR_TO) / (ROUGH_FROM - LAMINAR_TO)
    return 64.0 / LAMINAR_TO + share * (rough - 64.0 / LAMINAR_TO)


def round_area_m2(diameter_m: float) -> float:
    """Area of a circle [m2]."""
    return pi * diameter_m**2 / 4.0


@lru_cache(maxsize=16384)
def smallest_size(
    flow_m3_s: float,
    diameters_m: tuple[float, ...],
    roughness_m: float,
    fluid: Fluid,
    limit_pa_m: float,
    limit_m_s: float,
) -> int | None:
    """Index of the smallest round size that meets both limits; None where even the largest does not.

    Friction and velocity both fall with the size, so a bisection finds it.
    """

    def fits(index: int) -> bool:
        d = diameters_m[index]
        result = friction(flow_m3_s, round_area_m2(d), d, roughness_m, fluid)
        return result.rate_pa_m <= limit_pa_m and result.velocity_m_s <= limit_m_s

    if not fits(len(diameters_m) - 1):
        return None
    low, high = -1, len(diameters_m) - 1
    while high - low > 1:
        middle = (low + high) // 2
        if fits(middle):
            high = middle
        else:
            low = middle
    return high
