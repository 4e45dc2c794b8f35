"""Every quantity that an engineer sees: its units in both systems and how many decimals it is shown with.

The browser's unit table is generated from this one, so that no conversion factor stands twice.

Source: conversion factors by definition (ISO 80000, NIST SP 811).
"""

from dataclasses import dataclass


@dataclass(frozen=True)
class Quantity:
    """A kind of number.

    Attributes:
        si: unit label of the SI figure shown.
        si_factor: shown SI figure = stored value * si_factor + si_offset [-].
        ip: unit label of the inch-pound figure.
        ip_factor: shown inch-pound figure = stored value * ip_factor + ip_offset [-].
    """

    si: str
    ip: str
    ip_factor: float
    si_decimals: int = 1
    ip_decimals: int = 1
    si_factor: float = 1.0
    ip_offset: float = 0.0


_BTU_H = 3.412141633
_FT = 1 / 0.3048
_CFM = 2118.880003

QUANTITIES: dict[str, Quantity] = {
    "ratio": Quantity("", "", 1.0, 2, 2),
    "count": Quantity("", "", 1.0, 0, 0),
    "percent": Quantity("%", "%", 100.0, 0, 0, si_factor=100.0),
    "temperature": Quantity("°C", "°F", 1.8, 1, 1, ip_offset=32.0),
    "temperature_difference": Quantity("K", "°F", 1.8, 1, 1),
    "length": Quantity("m", "ft", _FT, 2, 2),
    "thickness": Quantity("mm", "in", _FT * 12, 1, 2, si_factor=1000.0),
    "diameter": Quantity("mm", "in", _FT * 12, 0, 1, si_factor=1000.0),
    "area": Quantity("m²", "ft²", _FT**2, 1, 0),
    "volume": Quantity("m³", "ft³", _FT**3, 1, 0),
    "angle": Quantity("°", "°", 1.0, 0, 0),
    "elevation": Quantity("m", "ft", _FT, 0, 0),
    "load": Quantity("kW", "MBh", _BTU_H / 1000, 2, 1, si_factor=0.001),
    "power": Quantity("W", "Btu/h", _BTU_H, 0, 0),
    # What lights and equipment are rated at: watts in both systems.
    "connected_power": Quantity("W", "W", 1.0, 0, 0),
    "connected_density": Quantity("W/m²", "W/ft²", 1 / _FT**2, 1, 2),
    "machine_power": Quantity("W", "hp", 1 / 745.699872, 0, 3),
    "electric_power": Quantity("kW", "hp", 1 / 745.699872, 2, 2, si_factor=0.001),
    "refrigeration": Quantity("kW", "ton", _BTU_H / 12000, 1, 2, si_factor=0.001),
    "power_per_area": Quantity("W/m²", "Btu/h·ft²", _BTU_H / _FT**2, 1, 1),
    "people_density": Quantity("/m²", "/1000 ft²", 1000 / _FT**2, 3, 1),
    "airflow": Quantity("L/s", "cfm", _CFM, 0, 0, si_factor=1000.0),
    "airflow_per_area": Quantity("L/s·m²", "cfm/ft²", _CFM / _FT**2, 2, 2, si_factor=1000.0),
    "airflow_per_power": Quantity("L/s·kW", "cfm/ton", _CFM / (12000 * _BTU_H), 0, 0, si_factor=1e6),
    "area_per_power": Quantity("m²/kW", "ft²/ton", _FT**2 / (12000 * _BTU_H), 1, 0, si_factor=1000.0),
    "airflow_per_person": Quantity("L/s·p", "cfm/p", _CFM, 1, 1, si_factor=1000.0),
    "air_changes": Quantity("1/h", "1/h", 1.0, 2, 2),
    "weight": Quantity("kg", "lb", 2.2046226218, 1, 0),
    "mass_flow": Quantity("kg/s", "lb/h", 2.204622622 * 3600, 3, 0),
    "condensate": Quantity("kg/h", "lb/h", 2.204622622 * 3600, 1, 1, si_factor=3600.0),
    "water_flow": Quantity("L/s", "gpm", 15850.32314, 2, 1, si_factor=1000.0),
    "pressure": Quantity("Pa", "in. w.g.", 1 / 249.08891, 0, 3),
    "air_pressure": Quantity("kPa", "psi", 1 / 6894.757293, 1, 2, si_factor=0.001),
    "head": Quantity("kPa", "ft", 1 / 2989.0669, 1, 1, si_factor=0.001),
    "friction_rate": Quantity("Pa/m", "in./100 ft", 100 / 249.08891 / _FT, 2, 3),
    "pipe_friction_rate": Quantity("Pa/m", "ft/100 ft", 100 / 2989.0669 / _FT, 0, 2),
    "velocity": Quantity("m/s", "ft/min", _FT * 60, 1, 0),
    "wind": Quantity("m/s", "mph", 1 / 0.44704, 1, 1),
    "water_velocity": Quantity("m/s", "ft/s", _FT, 2, 1),
    "u_value": Quantity("W/m²K", "Btu/h·ft²°F", 0.1761101838, 3, 4),
    "resistance": Quantity("m²K/W", "h·ft²°F/Btu", 5.678263337, 3, 2),
    "conductivity": Quantity("W/mK", "Btu·in/h·ft²°F", 6.933471798, 3, 3),
    "density": Quantity("kg/m³", "lb/ft³", 0.06242796, 0, 1),
    "specific_heat": Quantity("J/kgK", "Btu/lb°F", 1 / 4186.8, 0, 3),
    "surface_mass": Quantity("kg/m²", "lb/ft²", 0.2048161436, 1, 1),
    "heat_capacity": Quantity("kJ/m²K", "Btu/ft²°F", 1 / 20441.75, 1, 2, si_factor=0.001),
    "linear_transmittance": Quantity("W/mK", "Btu/h·ft°F", 0.5777893, 3, 3),
    "heat_per_length": Quantity("W/m", "Btu/h·ft", _BTU_H / _FT, 1, 1),
    "heat_loss": Quantity("W/K", "Btu/h·°F", _BTU_H / 1.8, 1, 1),
    "capacity": Quantity("MJ/K", "Btu/°F", 1 / 1899.1005, 2, 0, si_factor=1e-6),
    "energy": Quantity("kWh", "kBtu", 1 / 1_055_055.853, 1, 1, si_factor=1 / 3.6e6),
    "water_volume": Quantity("L", "gal", 264.172052, 1, 1, si_factor=1000.0),
    "gauge_pressure": Quantity("bar", "psi", 1 / 6894.757293, 2, 1, si_factor=1e-5),
    "litres": Quantity("L", "gal", 0.264172052, 1, 1),
    "litres_per_area": Quantity("L/m²", "gal/ft²", 0.264172052 / _FT**2, 2, 4),
    "leakage": Quantity("cm²/m²", "in²/100 ft²", 1.44, 2, 3),
    "leak_per_area": Quantity("L/s·m²", "cfm/ft²", _CFM / _FT**2, 3, 3, si_factor=1000.0),
    "area_per_person": Quantity("m²", "ft²", _FT**2, 1, 0),
    "vapour_pressure": Quantity("Pa", "in. Hg", 1 / 3386.389, 0, 3),
    "time": Quantity("h", "h", 1.0, 1, 1),
    "minutes": Quantity("min", "min", 60.0, 0, 0, si_factor=60.0),
    "irradiance": Quantity("W/m²", "Btu/h·ft²", _BTU_H / _FT**2, 0, 0),
    "humidity_ratio": Quantity("g/kg", "gr/lb", 7000.0, 1, 0, si_factor=1000.0),
    "enthalpy": Quantity("kJ/kg", "Btu/lb", 0.429922614 / 1000, 1, 1, si_factor=0.001),
    "specific_fan_power": Quantity("W/(L/s)", "W/cfm", 1 / _CFM, 2, 2, si_factor=0.001),
    # The year's: energy is stored in kWh there, hours and money as they are.
    "yearly_energy": Quantity("kWh", "kBtu", 3600 / 1055.05585262, 0, 0),
    "energy_per_area": Quantity("kWh/m²", "kBtu/ft²", 3600 / 1055.05585262 / _FT**2, 1, 1),
    "hours": Quantity("h", "h", 1.0, 0, 0),
    "degree_hours": Quantity("K·h", "°F·h", 1.8, 0, 0),
    "money": Quantity("", "", 1.0, 2, 2),
    "price_per_kwh": Quantity("/kWh", "/kWh", 1.0, 4, 4),
    "price_per_kw": Quantity("/kW", "/kW", 1.0, 2, 2),
    "demand": Quantity("kW", "kW", 1.0, 1, 1),
    "metered_energy": Quantity("kWh", "kWh", 1.0, 0, 0),
    "emission_factor": Quantity("kg/kWh", "kg/kWh", 1.0, 3, 3),
    "emission_mass": Quantity("kg", "lb", 2.2046226218, 0, 0),
}


def shown(value: float, quantity: str, system: str = "SI") -> tuple[float, str]:
    """Return a stored SI value as the figure and its [unit label] of "SI" or "IP".

    Raises:
        KeyError: the quantity is not registered.
    """
    q = QUANTITIES[quantity]
    if system == "IP":
        return value * q.ip_factor + q.ip_offset, q.ip
    return value * q.si_factor, q.si
