"""A layered wall as frozen inputs, and its heat transfer matrix.

Source: EN ISO 6946 (resistances in series), EN ISO 13786 (heat transfer matrix).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Complex = NDArray[np.complex128]
Array = NDArray[np.float64]


@dataclass(frozen=True)
class Layer:
    """One homogeneous layer, or a plain resistance such as an air gap.

    Attributes:
        name: material name, for explanations.
        thickness_m: [m]; 0 for a plain resistance.
        conductivity_w_mk: [W/m K]; 0 for a plain resistance.
        density_kg_m3, specific_heat_j_kgk: [kg/m3], [J/kg K].
        plain_resistance_m2k_w: [m2 K/W], used where conductivity is 0.

    Raises:
        ValueError: neither a conductivity with a thickness nor a resistance is given, or a value is negative.
    """

    name: str
    thickness_m: float = 0.0
    conductivity_w_mk: float = 0.0
    density_kg_m3: float = 0.0
    specific_heat_j_kgk: float = 0.0
    plain_resistance_m2k_w: float = 0.0

    def __post_init__(self) -> None:
        for field in ("thickness_m", "conductivity_w_mk", "density_kg_m3", "specific_heat_j_kgk"):
            if not getattr(self, field) >= 0.0:
                raise ValueError(f"layer {self.name!r}: {field} {getattr(self, field)} must be 0 or more")
        if not self.resistance_m2k_w > 0.0:
            raise ValueError(f"layer {self.name!r} has no resistance: give a thickness with a conductivity")

    @property
    def resistance_m2k_w(self) -> float:
        """Thermal resistance R = d/lambda [m2 K/W]."""
        if self.conductivity_w_mk > 0.0:
            return self.thickness_m / self.conductivity_w_mk
        return self.plain_resistance_m2k_w

    @property
    def capacity_j_m2k(self) -> float:
        """Heat capacity per area d rho c [J/m2 K]."""
        return self.thickness_m * self.density_kg_m3 * self.specific_heat_j_kgk


Layers = tuple[Layer, ...]


def total_resistance(layers: Layers) -> float:
    """Sum of the layers' resistances, without surface films [m2 K/W]."""
    return sum(layer.resistance_m2k_w for layer in layers)


def total_mass_kg_m2(layers: Layers) -> float:
    """Mass per area [kg/m2]."""
    return sum(layer.thickness_m * layer.density_kg_m3 for layer in layers)


def total_capacity_j_m2k(layers: Layers) -> float:
    """Heat capacity per area [J/m2 K]."""
    return sum(layer.capacity_j_m2k for layer in layers)


@dataclass(frozen=True)
class TransferMatrix:
    """Matrix from the outer to the inner face, [T; q]_outer = M [T; q]_inner, with a common factor taken out.

    The true elements are the stored ones times exp(log_scale): thick layers at high frequency would
    overflow otherwise. q is positive inwards [W/m2]. All arrays have the shape of the angular frequencies.
    """

    a: Complex
    b: Complex
    c: Complex
    d: Complex
    log_scale: Array


def transfer_matrix(layers: Layers, omega_rad_s: Array) -> TransferMatrix:
    """Chain the layers' matrices, outermost first. Source: ISO 13786:2017, 6.2 and annex A.

    For a layer with xi = sqrt(j omega R C): a = d = cosh xi, b = R sinh(xi)/xi, c = xi sinh(xi)/R.
    """
    ones = np.ones(len(omega_rad_s), dtype=complex)
    a, b, c, d = ones, np.zeros_like(ones), np.zeros_like(ones), ones
    log_scale = np.zeros(len(omega_rad_s))
    for layer in layers:
        r, capacity = layer.resistance_m2k_w, layer.capacity_j_m2k
        if capacity <= 0.0:
            a, b, c, d = a, a * r + b, c, c * r + d
            continue
        xi = np.sqrt(1j * omega_rad_s * r * capacity)
        shift = xi.real
        grow, decay = np.exp(xi - shift), np.exp(-xi - shift)
        cosh, sinh = (grow + decay) / 2.0, (grow - decay) / 2.0
        still = np.abs(xi) < 1e-9
        safe = np.where(still, 1.0, xi)
        lb = np.where(still, r, r * sinh / safe)
        lc = np.where(still, 0.0, xi * sinh / r)
        a, b, c, d = a * cosh + b * lc, a * lb + b * cosh, c * cosh + d * lc, c * lb + d * cosh
        log_scale = log_scale + shift
    return TransferMatrix(a, b, c, d, log_scale)
