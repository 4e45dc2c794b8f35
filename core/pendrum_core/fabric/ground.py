"""Floors and walls in contact with the ground. Source: ISO 13370:2017.

Symbols follow the standard: B' the characteristic dimension, d the equivalent thicknesses, z the depth of a basement.
"""

from dataclasses import dataclass
from math import cos, exp, log, pi, sqrt

RSI_FLOOR, RSI_WALL, RSE = 0.17, 0.13, 0.04  # [m2 K/W]
YEAR_S = 3.15e7  # as the standard rounds it
SOIL_THICKNESS_M = 0.5  # of soil that takes part in a day's storage (ISO 52016-1:2017, 6.5.8)


@dataclass(frozen=True)
class Soil:
    """Conductivity [W/m K] and heat capacity per volume [J/m3 K] of unfrozen ground, table 7."""

    conductivity_w_mk: float
    capacity_j_m3k: float

    @property
    def periodic_depth_m(self) -> float:
        """Periodic penetration depth for a year, delta [m] (annex C)."""
        return sqrt(YEAR_S * self.conductivity_w_mk / (pi * self.capacity_j_m3k))


SOILS = {"clay": Soil(1.5, 3.0e6), "sand": Soil(2.0, 2.0e6), "rock": Soil(3.5, 2.0e6)}


@dataclass(frozen=True)
class GroundContact:
    """A floor on the ground, or the floor or wall of a basement.

    Attributes:
        part: "slab", "basement_floor" or "basement_wall".
        area_m2, perimeter_m: of the whole ground floor, and of its edge towards the outdoors.
        wall_thickness_m: of the walls above the ground.
        floor_resistance_m2k_w, wall_resistance_m2k_w: of the layers, without films.
        depth_m: of a basement's floor below the ground.
        edge_resistance_m2k_w, edge_width_m, edge_vertical: insulation along the edge of a slab and how far it reaches.

    Raises:
        ValueError: no area, no perimeter, or a basement without depth.
    """

    part: str
    area_m2: float
    perimeter_m: float
    wall_thickness_m: float
    floor_resistance_m2k_w: float
    soil: Soil
    wall_resistance_m2k_w: float = 0.0
    depth_m: float = 0.0
    edge_resistance_m2k_w: float = 0.0
    edge_width_m: float = 0.0
    edge_vertical: bool = False

    def __post_init__(self) -> None:
        if not self.area_m2 > 0.0 or not self.perimeter_m > 0.0:
            raise ValueError("the whole ground floor needs an area and an exposed perimeter")
        if self.part != "slab" and not self.depth_m > 0.0:
            raise ValueError("a basement needs a depth below the ground")

    @property
    def characteristic_m(self) -> float:
        """B' = A/(0.5 P) [m] (eq. 3)."""
        return self.area_m2 / (0.5 * self.perimeter_m)

    @property
    def floor_thickness_m(self) -> float:
        """Equivalent thickness of the floor, d = w + lambda (Rsi + Rf + Rse) [m]."""
        return self.wall_thickness_m + self.soil.conductivity_w_mk * (RSI_FLOOR + self.floor_resistance_m2k_w + RSE)

    @property
    def wall_equivalent_m(self) -> float:
        """Equivalent thickness of a basement's wall [m]."""
        return self.soil.conductivity_w_mk * (RSI_WALL + self.wall_resistance_m2k_w + RSE)


def edge_psi_w_mk(contact: GroundContact) -> float:
    """What insulation along the edge of a slab changes, per length of perimeter [W/m K] (annex D)."""
    conductivity = contact.soil.conductivity_w_mk
    extra = contact.edge_resistance_m2k_w * conductivity
    reach = contact.edge_width_m * (2.0 if contact.edge_vertical else 1.0)
    if extra <= 0.0 or reach <= 0.0:
        return 0.0
    d = contact.floor_thickness_m
    return -conductivity / pi * (log(reach / d + 1.0) - log(reach / (d + extra) + 1.0))


LEAST_U = 0.01  # [W/m2 K]; below it the formulas are outside what they are for


def ground_u_value(contact: GroundContact) -> float:
    """Steady U-value with the ground [W/m2 K] (7.1 to 7.3).

    Raises:
        ValueError: insulation along the edge takes away more than the floor loses.
    """
    conductivity, b = contact.soil.conductivity_w_mk, contact.characteristic_m
    d, z = contact.floor_thickness_m, contact.depth_m
    if contact.part == "basement_wall":
        wall = contact.wall_equivalent_m
        floor = min(d, wall)
        return 2.0 * conductivity / (pi * z) * (1.0 + 0.5 * floor / (floor + z)) * log(z / wall + 1.0)
    thick = d + (z / 2.0 if contact.part == "basement_floor" else 0.0)
    if thick < b:
        u = 2.0 * conductivity / (pi * b + thick) * log(pi * b / thick + 1.0)
    else:
        u = conductivity / (0.457 * b + thick)
    u += 2.0 * edge_psi_w_mk(contact) / b if contact.part == "slab" else 0.0
    if u < LEAST_U:
        raise ValueError("insulation along the edge takes away more than the floor loses; check its width and R")
    return u


def periodic_conductance_w_k(contact: GroundContact) -> float:
    """External periodic heat transfer coefficient of the part for a year's swing outdoors [W/K] (annex C)."""
    delta, conductivity = contact.soil.periodic_depth_m, contact.soil.conductivity_w_mk
    d, z, p = contact.floor_thickness_m, contact.depth_m, contact.perimeter_m
    fades = exp(-z / delta)
    if contact.part == "basement_wall":
        return 0.37 * p * conductivity * 2.0 * (1.0 - fades) * log(delta / contact.wall_equivalent_m + 1.0)
    return 0.37 * p * conductivity * fades * log(delta / d + 1.0)


def virtual_temperatures_c(
    contact: GroundContact, mean_c: float, amplitude_k: float, coldest_month: int
) -> tuple[float, ...]:
    """Temperature beyond the ground's U-value for January to December with a constant room [°C] (annex C, annex F).

    The month's heat flow A U (room - mean) + Hpe amplitude cos(2 pi (m - coldest - 1)/12), put as a temperature.
    """
    area = contact.area_m2 if contact.part != "basement_wall" else contact.perimeter_m * contact.depth_m
    swing = periodic_conductance_w_k(contact) / (area * ground_u_value(contact)) * amplitude_k
    return tuple(mean_c - swing * cos(2.0 * pi * (month - coldest_month - 1) / 12.0) for month in range(1, 13))
