"""U-values of glass from its panes and gaps, and of windows from glass, frame and edge."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

SIGMA = 5.67e-8
_MEAN_K = 283.0  # EN 673 reference: mean 10 °C, 15 K between the outer panes
_ACROSS_K = 15.0
_OUTSIDE_W_M2K, _INSIDE_W_M2K = 25.0, 7.7
_GLASS_MK_W = 1.0


@dataclass(frozen=True)
class Gas:
    """Density [kg/m3], dynamic viscosity [Pa s], conductivity [W/m K], specific heat [J/kg K] at 10 °C, EN 673 table 1."""

    density: float
    viscosity: float
    conductivity: float
    heat: float


GASES = {
    "air": Gas(1.232, 1.761e-5, 2.496e-2, 1008.0),
    "argon": Gas(1.699, 2.164e-5, 1.684e-2, 519.0),
    "krypton": Gas(3.560, 2.400e-5, 0.900e-2, 245.0),
}
FILLING = 0.9  # of the gap; the rest is air


@dataclass(frozen=True)
class Gap:
    """A gap between panes: width [m], gas, and the corrected emissivities of the two faces."""

    width_m: float
    gas: str
    emissivity_1: float
    emissivity_2: float


def _filled(name: str) -> Gas:
    gas, air = GASES[name], GASES["air"]
    if name == "air":
        return air
    return Gas(
        *(
            FILLING * getattr(gas, f) + (1.0 - FILLING) * getattr(air, f)
            for f in ("density", "viscosity", "conductivity", "heat")
        )
    )


def gap_conductance_w_m2k(gap: Gap, difference_k: float) -> float:
    """hs = hr + hg of a vertical gap; Nu = 0.035 (Gr Pr)^0.38, at least 1. Source: EN 673:2011, 5."""
    gas, s = _filled(gap.gas), gap.width_m
    radiation = 4.0 * SIGMA / (1.0 / gap.emissivity_1 + 1.0 / gap.emissivity_2 - 1.0) * _MEAN_K**3
    grashof = 9.81 * s**3 * difference_k * gas.density**2 / (_MEAN_K * gas.viscosity**2)
    prandtl = gas.viscosity * gas.heat / gas.conductivity
    nusselt = max(1.0, 0.035 * float((grashof * prandtl) ** 0.38))
    return radiation + nusselt * gas.conductivity / s


def centre_u_value(pane_thickness_m: Sequence[float], gaps: Sequence[Gap]) -> float:
    """U-value of the centre of a vertical glazing [W/m2 K], EN 673:2011.

    Raises:
        ValueError: the gaps are not one fewer than the panes.
    """
    if len(gaps) != len(pane_thickness_m) - 1:
        raise ValueError(f"{len(pane_thickness_m)} panes have {len(pane_thickness_m) - 1} gaps, not {len(gaps)}")
    across = [_ACROSS_K / max(1, len(gaps))] * len(gaps)
    for _ in range(20):  # the gaps share the 15 K in proportion to their resistances
        resistances = [1.0 / gap_conductance_w_m2k(g, d) for g, d in zip(gaps, across, strict=True)]
        across = [_ACROSS_K * r / sum(resistances) for r in resistances]
    glass = sum(pane_thickness_m) * _GLASS_MK_W
    return 1.0 / (1.0 / _OUTSIDE_W_M2K + sum(resistances if gaps else ()) + glass + 1.0 / _INSIDE_W_M2K)


def window_u_value(
    centre_u: float, frame_u: float, edge_psi_w_mk: float, frame_share: float, width_m: float, height_m: float
) -> float:
    """Uw = (Ag Ug + Af Uf + l psi)/A [W/m2 K], ISO 10077-1:2017; the pane keeps the window's proportions."""
    edge = 2.0 * (width_m + height_m) * sqrt(1.0 - frame_share)
    area = width_m * height_m
    return (1.0 - frame_share) * centre_u + frame_share * frame_u + edge * edge_psi_w_mk / area
