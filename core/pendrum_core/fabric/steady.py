"""U-values of plain layered elements. Source: ISO 6946:2017."""

from dataclasses import dataclass

from pendrum_core.fabric.layers import Layers, total_resistance

RSE = 0.04  # [m2 K/W], table 7
RSI_UP, RSI_HORIZONTAL, RSI_DOWN = 0.10, 0.13, 0.17

# Unventilated air gaps, R [m2 K/W] by thickness [m], table 8.
AIR_GAP_R = {
    "horizontal": ((0.0, 0.0), (0.005, 0.11), (0.007, 0.13), (0.010, 0.15), (0.015, 0.17), (0.025, 0.18)),
    "up": ((0.0, 0.0), (0.005, 0.11), (0.007, 0.13), (0.010, 0.15), (0.015, 0.16), (0.025, 0.16)),
    "down": (
        (0.0, 0.0),
        (0.005, 0.11),
        (0.007, 0.13),
        (0.010, 0.15),
        (0.015, 0.17),
        (0.025, 0.19),
        (0.050, 0.21),
        (0.100, 0.22),
        (0.300, 0.23),
    ),
}


@dataclass(frozen=True)
class SteadyValues:
    """Steady thermal values of an element.

    Attributes:
        resistance_m2k_w: surface to surface.
        rsi_m2k_w, rse_m2k_w: film resistances used.
        u_value: with films [W/m2 K].
    """

    resistance_m2k_w: float
    rsi_m2k_w: float
    rse_m2k_w: float
    u_value: float


# Element -> films inside and on the far side [m2 K/W], table 7; a partition has inner films on both.
_FILMS = {
    "wall": (RSI_HORIZONTAL, RSE),
    "door": (RSI_HORIZONTAL, RSE),
    "roof": (RSI_UP, RSE),
    "floor": (RSI_DOWN, RSE),
    "partition": (RSI_HORIZONTAL, RSI_HORIZONTAL),
}


def films_m2k_w(element: str) -> tuple[float, float]:
    """Films inside and on the far side of a "wall", "door", "roof", "floor" or "partition" [m2 K/W]."""
    return _FILMS[element]


def inside_film(tilt_deg: float) -> float:
    """Rsi by direction of heat flow for an outer element seen from inside [m2 K/W], table 7.

    Up to 30° from horizontal counts as horizontal flow; tilt 0 is a roof (heat goes up).
    """
    if tilt_deg < 60.0:
        return RSI_UP
    return RSI_HORIZONTAL if tilt_deg <= 120.0 else RSI_DOWN


def steady_values(layers: Layers, rsi_m2k_w: float, rse_m2k_w: float = RSE) -> SteadyValues:
    """U = 1/(Rsi + sum R + Rse), ISO 6946:2017, 6.7.1.1."""
    r = total_resistance(layers)
    return SteadyValues(r, rsi_m2k_w, rse_m2k_w, 1.0 / (rsi_m2k_w + r + rse_m2k_w))


def air_gap_resistance(thickness_m: float, direction: str) -> float:
    """Resistance of an unventilated air gap [m2 K/W], straight lines between the table's thicknesses.

    Raises:
        ValueError: unknown direction, or thickness outside 0 to 0.3 m.
    """
    if direction not in AIR_GAP_R:
        raise ValueError(f"direction {direction!r} is none of {', '.join(AIR_GAP_R)}")
    if not 0.0 <= thickness_m <= 0.3:
        raise ValueError(f"thickness_m {thickness_m} is outside 0 to 0.3 m")
    table = AIR_GAP_R[direction]
    for (d0, r0), (d1, r1) in zip(table, table[1:], strict=False):
        if thickness_m <= d1:
            return r0 + (r1 - r0) * (thickness_m - d0) / (d1 - d0)
    return table[-1][1]
