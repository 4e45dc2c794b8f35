"""The surface of ordinary coils: plain plate fins on staggered tubes, and what a row of it conducts.

One geometry stands for all coils; makers' coils differ by some ten per cent, and are chosen by their own programs.
Source: air side by McQuiston's correlation of j factors (McQuiston, Parker and Spitler, Heating, Ventilating and Air
Conditioning, 6th ed., ch. 14); fins by Schmidt's hexagons (1945); water side by Gnielinski (1976).
"""

from dataclasses import dataclass
from math import log, pi, sqrt, tanh

from pendrum_core.water.properties import conductivity_w_mk, density_kg_m3, specific_heat_j_kgk, viscosity_pa_s

TUBE_M, TUBE_INSIDE_M = 0.0127, 0.0119
ACROSS_M, ALONG_M = 0.03175, 0.0275  # pitch of tubes in a row, and of rows
FIN_PITCH_M, FIN_M, FIN_W_MK = 0.0021, 0.00015, 200.0  # aluminium
WATER_M_S = 1.0  # through the tubes at design, by the number of circuits
REFRIGERANT_W_M2K = 2500.0  # boiling or condensing in the tubes, ordinary halogenated refrigerants
_AIR_PA_S, _AIR_PRANDTL, _AIR_J_KGK = 1.82e-5, 0.71, 1006.0


@dataclass(frozen=True)
class RowConductance:
    """Of one row, over the face area [W/(m² K)]: from the air to the surface, and from the tubes to what flows in them."""

    outside: float
    inside: float


def _fin_efficiency(h_w_m2k: float) -> float:
    """Of a plate fin, its share of each tube taken as a circle by the hexagon around it."""
    radius = TUBE_M / 2.0 + FIN_M
    m_side, l_side = ACROSS_M / 2.0, sqrt((ACROSS_M / 2.0) ** 2 + ALONG_M**2) / 2.0
    short, long = min(m_side, l_side), max(m_side, l_side)
    psi, beta = short / radius, long / short
    reach = 1.27 * psi * sqrt(beta - 0.3)
    height = (reach - 1.0) * (1.0 + 0.35 * log(reach))
    x = sqrt(2.0 * h_w_m2k / (FIN_W_MK * FIN_M)) * radius * height
    return tanh(x) / x


def air_film_w_m2k(face_velocity_m_s: float, density_kg_m3: float = 1.2) -> float:
    """Heat transfer coefficient of the air between the fins [W/(m² K)], for 1 to 4 m/s of face velocity.

    j = 0.0014 + 0.2618 Re^-0.4 (A/A tubes)^-0.15, Re by the tube and the narrowest section.

    Source: McQuiston (1978), four rows.
    """
    flux = density_kg_m3 * face_velocity_m_s / _free_share()
    reynolds = flux * TUBE_M / _AIR_PA_S
    tubes = pi * TUBE_M / ACROSS_M
    j = 0.0014 + 0.2618 * reynolds**-0.4 * (outer_area() / tubes) ** -0.15
    return float(j * flux * _AIR_J_KGK * _AIR_PRANDTL ** (-2.0 / 3.0))


def _free_share() -> float:
    collar = TUBE_M + 2.0 * FIN_M
    return (ACROSS_M - collar) * (FIN_PITCH_M - FIN_M) / (ACROSS_M * FIN_PITCH_M)


def outer_area() -> float:
    """Surface of a row in the air, over the face area [m²/m²]. Source: geometry."""
    collar = TUBE_M + 2.0 * FIN_M
    fins = 2.0 * (ACROSS_M * ALONG_M - pi * collar**2 / 4.0)
    bare = pi * collar * (FIN_PITCH_M - FIN_M)
    return (fins + bare) / (ACROSS_M * FIN_PITCH_M)


def water_film_w_m2k(temperature_c: float) -> float:
    """Heat transfer coefficient of water in the tubes at the design velocity [W/(m² K)], for 2 to 100 °C.

    Source: Gnielinski (1976), smooth tubes.
    """
    viscosity = viscosity_pa_s(temperature_c)
    conductivity = conductivity_w_mk(temperature_c)
    prandtl = viscosity * specific_heat_j_kgk(temperature_c) / conductivity
    reynolds = WATER_M_S * density_kg_m3(temperature_c) * TUBE_INSIDE_M / viscosity
    f = (0.79 * log(reynolds) - 1.64) ** -2  # Petukhov's, smooth
    nusselt = (f / 8.0) * (reynolds - 1000.0) * prandtl / (1.0 + 12.7 * sqrt(f / 8.0) * (prandtl ** (2.0 / 3.0) - 1.0))
    return float(nusselt * conductivity / TUBE_INSIDE_M)


def row_conductance(face_velocity_m_s: float, inside_w_m2k: float, wetness: float = 1.0) -> RowConductance:
    """What a row conducts; `wetness` is the specific heat of saturated air over that of dry air on a wet coil, 1 on a dry one.

    Source: resistances in series; a wet fin's efficiency with the coefficient times the wetness (Threlkeld 1970).
    """
    h = air_film_w_m2k(face_velocity_m_s)
    area = outer_area()
    bare = pi * (TUBE_M + 2.0 * FIN_M) * (FIN_PITCH_M - FIN_M) / (ACROSS_M * FIN_PITCH_M)
    efficiency = 1.0 - (1.0 - bare / area) * (1.0 - _fin_efficiency(h * wetness))
    return RowConductance(h * area * efficiency, inside_w_m2k * pi * TUBE_INSIDE_M / ACROSS_M)
