"""Heat for hot water."""

from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk


def daily_heat_j(litres_per_day: float, hot_c: float, cold_c: float) -> float:
    """Heat to warm a day's hot water from the cold main [J]; nothing where the main is as warm."""
    mean = (hot_c + cold_c) / 2.0
    per_litre = density_kg_m3(mean) / 1000.0 * specific_heat_j_kgk(mean)
    return litres_per_day * per_litre * max(0.0, hot_c - cold_c)
