"""Infiltration from effective leakage area. Source: ASHRAE Handbook Fundamentals 2017, ch. 16, eq. 48, tables 4 to 6."""

from math import sqrt

# Stack coefficient [(L/s)2/(cm4 K)] by storeys of the house.
STACK = (0.000145, 0.000290, 0.000435)
# Wind coefficient [(L/s)2/(cm4 (m/s)2)] by shelter class 1 (none) to 5 (very heavy), for one, two, three storeys.
WIND = (
    (0.000319, 0.000246, 0.000174, 0.000104, 0.000032),
    (0.000420, 0.000325, 0.000231, 0.000137, 0.000042),
    (0.000494, 0.000382, 0.000271, 0.000161, 0.000049),
)
# Atmospheric boundary layer: exponent a and thickness [m]; ASHRAE Handbook Fundamentals 2017, ch. 24, table 1.
TERRAINS = {"city": (0.33, 460.0), "suburb": (0.22, 370.0), "open country": (0.14, 270.0), "open water": (0.10, 210.0)}
MET_EXPONENT, MET_LAYER_M, MET_HEIGHT_M = 0.14, 270.0, 10.0


def local_wind_m_s(wind_m_s: float, terrain: str, height_m: float = 10.0) -> float:
    """Wind at a height over a terrain from that of an open weather station at 10 m (ch. 24, eq. 4)."""
    exponent, layer = TERRAINS[terrain]
    return float(wind_m_s * (MET_LAYER_M / MET_HEIGHT_M) ** MET_EXPONENT * (height_m / layer) ** exponent)


def leakage_flow_m3_s(
    leakage_area_cm2: float, difference_k: float, wind_m_s: float, shelter_class: int, storeys: int
) -> float:
    """Q = AL/1000 sqrt(Cs |dT| + Cw U2) [m3/s]; more than three storeys count as three."""
    row = min(max(storeys, 1), 3) - 1
    driven = STACK[row] * abs(difference_k) + WIND[row][shelter_class - 1] * wind_m_s**2
    return leakage_area_cm2 / 1000.0 * sqrt(driven)
