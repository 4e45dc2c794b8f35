"""Liquid water at about atmospheric pressure, 0 to 100 °C."""

from bisect import bisect_right

from pendrum_core.network.friction import Fluid
from pendrum_core.quantities.constants import KELVIN

# Specific heat [J/kg K] every 10 K from 0 °C. Source: IAPWS SR6-08(2011), liquid water at 0.1 MPa.
_CP = (4219.4, 4195.5, 4184.4, 4180.1, 4179.6, 4181.5, 4185.1, 4190.2, 4196.9, 4205.4, 4215.7)
_CONDUCTIVITY = ((1.6630, -1.15), (-1.7781, -3.4), (1.1567, -6.0), (-0.432115, -7.6))
_VISCOSITY = ((280.68, -1.9), (511.45, -7.7), (61.131, -19.6), (0.45903, -40.0))


def _check(temperature_c: float) -> None:
    if not 0.0 <= temperature_c <= 100.0:
        raise ValueError(f"temperature_c {temperature_c} is outside 0 to 100 °C of liquid water")


def density_kg_m3(temperature_c: float) -> float:
    """Density of air-free water [kg/m3]. Source: Kell (1975), J. Chem. Eng. Data 20, 97."""
    _check(temperature_c)
    t = temperature_c
    top = 999.83952 + t * (
        16.945176 + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - t * 280.54253e-12)))
    )
    return top / (1.0 + 16.879850e-3 * t)


def viscosity_pa_s(temperature_c: float) -> float:
    """Dynamic viscosity [Pa s]. Source: IAPWS SR6-08(2011), eq. 7."""
    _check(temperature_c)
    ratio = (temperature_c + KELVIN) / 300.0
    return float(1e-6 * sum(a * ratio**b for a, b in _VISCOSITY))


def conductivity_w_mk(temperature_c: float) -> float:
    """Thermal conductivity [W/(m K)]. Source: IAPWS SR6-08(2011), eq. 8."""
    _check(temperature_c)
    ratio = (temperature_c + KELVIN) / 300.0
    return float(sum(a * ratio**b for a, b in _CONDUCTIVITY))


def specific_heat_j_kgk(temperature_c: float) -> float:
    """Specific heat [J/kg K], straight lines between the tabulated tens of degrees. Source: IAPWS SR6-08(2011)."""
    _check(temperature_c)
    index = min(bisect_right(range(0, 101, 10), temperature_c) - 1, 9)
    share = temperature_c / 10.0 - index
    return _CP[index] + share * (_CP[index + 1] - _CP[index])


def water(temperature_c: float) -> Fluid:
    """Water as a fluid in pipes."""
    return Fluid(density_kg_m3(temperature_c), viscosity_pa_s(temperature_c))
