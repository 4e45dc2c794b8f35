"""Standard atmosphere and air density at the site.

Source: ASHRAE Handbook Fundamentals 2017, ch. 1 (standard atmosphere; ideal gas).
"""

from pendrum_core.quantities.constants import KELVIN, R_DRY_AIR, STANDARD_PRESSURE_PA


def site_pressure_pa(elevation_m: float) -> float:
    """Pressure of the ICAO standard atmosphere [Pa] at an elevation [m].

    p = 101325 (1 - 2.25577e-5 z)^5.25588. Source: ASHRAE Handbook Fundamentals 2017, ch. 1, eq. 3.
    Valid from -500 m to 11 000 m.

    Raises:
        ValueError: outside that range.
    """
    if not -500.0 <= elevation_m <= 11_000.0:
        raise ValueError(f"elevation_m {elevation_m} is outside -500 to 11000 m")
    return float(STANDARD_PRESSURE_PA * (1.0 - 2.25577e-5 * elevation_m) ** 5.25588)


def dry_air_density_kg_m3(temperature_c: float, pressure_pa: float) -> float:
    """Density of dry air [kg/m3] as an ideal gas."""
    return pressure_pa / (R_DRY_AIR * (temperature_c + KELVIN))
