"""Mixtures of water with ethylene or propylene glycol, from their freezing point to 100 °C.

Source: Melinder, Properties of Secondary Working Fluids for Indirect Systems (IIR, 2010): polynomials in the share by mass and the
temperature, density in kg/m³, heat in J/(kg K), the natural logarithm of the viscosity in mPa s; freezing point in °C.
"""

from dataclasses import dataclass
from math import exp

Rows = tuple[tuple[float, ...], ...]


@dataclass(frozen=True)
class _Mixture:
    """Coefficients by power of the share (rows) and of the temperature (columns), from a middle share and temperature."""

    title: str
    share_0: float
    temperature_0: float
    density: Rows
    heat: Rows
    viscosity: Rows
    freezing: tuple[float, ...]


GLYCOLS = {
    "ethylene": _Mixture(
        "ethylene glycol", 0.308462, 31.728,
        ((1034.0, -0.4781, -2.692e-3, 4.725e-6), (131.1, -0.6876, 4.805e-3, 1.69e-6), (0.7490, 0.7855, -3.995e-3, 4.982e-5),
         (-106.2, 1.229, -1.153e-2), (-96.23, -7.211), (489.1,)),
        ((3737.0, 2.930, -4.675e-3, -1.389e-5), (-1799.0, 10.46, -4.147e-2, 1.847e-5), (-993.3, 3.516, 5.109e-2, -7.138e-4),
         (2610.0, -1.189, -0.1643), (1537.0, -42.72), (-16180.0,)),
        ((0.4705, -0.02550, 1.782e-4, -7.669e-7), (2.471, -0.01171, 1.052e-4, -1.634e-6), (0.03328, 0.01086, 1.051e-4, -6.475e-6),
         (1.659, 3.157e-3, 4.063e-4), (3.089, 0.01831), (-18.65,)),
        (-15.25, -80.8, -133.4, -72.93, 100.6, 11.4),
    ),
    "propylene": _Mixture(
        "propylene glycol", 0.307031, 32.7083,
        ((1018.0, -0.5406, -2.666e-3, 1.347e-5), (76.04, -0.9450, 5.541e-3, -1.343e-5), (-24.98, 0.2700, -4.018e-3, 3.376e-5),
         (-155.0, 2.829, -7.175e-3), (-113.1, -2.221), (234.2,)),
        ((3882.0, 2.699, -1.659e-3, -1.032e-5), (-1304.0, 5.070, -4.752e-3, 1.522e-4), (-1598.0, 0.9534, 0.1167, -4.870e-4),
         (353.9, 31.02, -0.2950), (5000.0, -71.35), (-4959.0,)),
        ((0.6837, -0.03045, 2.525e-4, -1.399e-6), (3.328, -0.03984, 4.332e-4, -1.860e-6), (0.5453, -8.6e-4, -1.593e-4, -4.465e-7),
         (-3.900, 0.1054, -1.589e-3), (-1.587, 0.04475), (35.64,)),
        (-13.25, -66.31, -109.4, -228.3, -340.9, 146.5),
    ),
}  # fmt: skip
SHARES = (0.1, 0.6)  # by mass, for which the polynomials are


def _value(rows: Rows, share: float, temperature: float) -> float:
    return sum(c * share**i * temperature**j for i, row in enumerate(rows) for j, c in enumerate(row))


def _checked(kind: str, share: float, temperature_c: float) -> tuple[_Mixture, float, float]:
    if kind not in GLYCOLS:
        raise ValueError(f"{kind!r} is none of {', '.join(GLYCOLS)}")
    if not SHARES[0] <= share <= SHARES[1]:
        raise ValueError(f"a glycol share of {share:g} is outside {SHARES[0]:g} to {SHARES[1]:g}")
    mixture = GLYCOLS[kind]
    return mixture, share - mixture.share_0, temperature_c - mixture.temperature_0


def freezing_c(kind: str, share: float) -> float:
    """Temperature at which the first ice forms [°C].

    Raises:
        ValueError: no such glycol, or a share outside 0.1 to 0.6.
    """
    mixture, x, _ = _checked(kind, share, 0.0)
    return sum(c * x**i for i, c in enumerate(mixture.freezing))


def mixture_density_kg_m3(kind: str, share: float, temperature_c: float) -> float:
    """Density [kg/m³].

    Raises:
        ValueError: no such glycol, or a share outside 0.1 to 0.6.
    """
    mixture, x, t = _checked(kind, share, temperature_c)
    return _value(mixture.density, x, t)


def mixture_specific_heat_j_kgk(kind: str, share: float, temperature_c: float) -> float:
    """Specific heat [J/(kg K)].

    Raises:
        ValueError: no such glycol, or a share outside 0.1 to 0.6.
    """
    mixture, x, t = _checked(kind, share, temperature_c)
    return _value(mixture.heat, x, t)


def mixture_viscosity_pa_s(kind: str, share: float, temperature_c: float) -> float:
    """Dynamic viscosity [Pa s].

    Raises:
        ValueError: no such glycol, or a share outside 0.1 to 0.6.
    """
    mixture, x, t = _checked(kind, share, temperature_c)
    return exp(_value(mixture.viscosity, x, t)) / 1000.0
