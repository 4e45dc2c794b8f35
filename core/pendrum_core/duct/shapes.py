"""Cross-sections of ducts: round, rectangular, flat oval; standard sizes, and the one that is chosen within limits.

Rectangular and flat oval: of all standard sizes within friction, velocity and height (width not below height) the one with the
least perimeter, which is the least sheet; of equal ones the higher. Friction goes by the hydraulic diameter 4 A/P with the real
velocity; equivalent diameters are for display alone (ASHRAE Handbook Fundamentals 2017, ch. 21, eqs. 25, 27).
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from math import pi

from pendrum_core.network.friction import Fluid, friction, smallest_size

KINDS = ("round", "rectangular", "flat oval")
# Recommended diameters of EN 1506 [m]; sides of EN 1505; widths and heights of spiral flat oval ducts.
ROUND_SIZES_M = (0.063, 0.080, 0.100, 0.125, 0.160, 0.200, 0.250, 0.315, 0.400, 0.500, 0.630, 0.800, 1.000, 1.250)
RECTANGULAR_SIDES_M = (0.10, 0.15, 0.20, 0.25, 0.30, 0.40, 0.50, 0.60, 0.80, 1.00, 1.20, 1.40, 1.60, 1.80, 2.00)
OVAL_WIDTHS_M = (0.20, 0.25, 0.30, 0.35, 0.40, 0.45, 0.50, 0.55, 0.60, 0.70, 0.80, 0.90, 1.00, 1.10, 1.20)
OVAL_HEIGHTS_M = (0.100, 0.125, 0.150, 0.200, 0.250, 0.300, 0.350, 0.400)
STEEL_KG_M3 = 7850.0
# Sheet by the longest side or the diameter [m]: up to, thickness; EN 1505 and EN 1506 practice.
_FLAT_SHEET_M = ((0.5, 0.0006), (1.0, 0.0008), (99.0, 0.0010))
_ROUND_SHEET_M = ((0.315, 0.0005), (0.8, 0.0006), (99.0, 0.0008))
_TIE_M = 1e-9


@dataclass(frozen=True)
class Shape:
    """Cross-section: kind, overall width and height [m]; of a round duct both are its diameter."""

    kind: str
    width_m: float
    height_m: float

    @property
    def area_m2(self) -> float:
        """Free area [m2]."""
        if self.kind == "rectangular":
            return self.width_m * self.height_m
        # Of a round duct the flat part is nothing.
        return pi * self.height_m**2 / 4.0 + self.height_m * (self.width_m - self.height_m)

    @property
    def perimeter_m(self) -> float:
        """[m]."""
        if self.kind == "rectangular":
            return 2.0 * (self.width_m + self.height_m)
        return pi * self.height_m + 2.0 * (self.width_m - self.height_m)

    @property
    def hydraulic_diameter_m(self) -> float:
        """4 A/P [m]."""
        return 4.0 * self.area_m2 / self.perimeter_m

    @property
    def equivalent_diameter_m(self) -> float:
        """Round duct of the same friction at the same flow [m]: 1.30 (ab)^0.625/(a+b)^0.25; flat oval 1.55 A^0.625/P^0.25."""
        if self.kind == "round":
            return self.width_m
        if self.kind == "rectangular":
            return float(1.30 * (self.width_m * self.height_m) ** 0.625 / (self.width_m + self.height_m) ** 0.25)
        return float(1.55 * self.area_m2**0.625 / self.perimeter_m**0.25)

    def wrapped_m(self, insulation_m: float) -> float:
        """Length around insulation of a thickness on it, on its outside [m]. Source: geometry."""
        return self.perimeter_m + (8.0 if self.kind == "rectangular" else 2.0 * pi) * insulation_m

    @property
    def sheet_m(self) -> float:
        """Thickness of the sheet [m]."""
        table = _ROUND_SHEET_M if self.kind == "round" else _FLAT_SHEET_M
        return next(thickness for most, thickness in table if max(self.width_m, self.height_m) <= most + _TIE_M)

    @property
    def size(self) -> str:
        """As it is ordered [mm]."""
        if self.kind == "round":
            return f"{self.width_m * 1000:.0f}"
        return f"{self.width_m * 1000:.0f} × {self.height_m * 1000:.0f}"


def round_shape(diameter_m: float) -> Shape:
    """A round duct."""
    return Shape("round", diameter_m, diameter_m)


def rectangular_shape(width_m: float, height_m: float) -> Shape:
    """A rectangular duct."""
    return Shape("rectangular", width_m, height_m)


def _standard(kind: str, height_limit_m: float | None) -> Iterator[Shape]:
    most = float("inf") if height_limit_m is None else height_limit_m + _TIE_M
    widths, heights = (
        (RECTANGULAR_SIDES_M, RECTANGULAR_SIDES_M) if kind == "rectangular" else (OVAL_WIDTHS_M, OVAL_HEIGHTS_M)
    )
    for height in heights:
        if height <= most:
            yield from (Shape(kind, width, height) for width in widths if width >= height)


def standard_shapes(kind: str, height_limit_m: float | None) -> list[Shape]:
    """Standard rectangular or flat oval ducts, the one with the least sheet first, of equal ones the higher.

    Raises:
        ValueError: a height limit below every standard height.
    """
    shapes = sorted(_standard(kind, height_limit_m), key=lambda shape: (round(shape.perimeter_m, 9), -shape.height_m))
    if not shapes:
        raise ValueError(f"no standard {kind} duct is as low as {height_limit_m:g} m")
    return shapes


def fits(shape: Shape, flow_m3_s: float, roughness_m: float, fluid: Fluid, limit_pa_m: float, limit_m_s: float) -> bool:
    """Whether a shape carries a flow within both limits."""
    found = friction(flow_m3_s, shape.area_m2, shape.hydraulic_diameter_m, roughness_m, fluid)
    return found.rate_pa_m <= limit_pa_m and found.velocity_m_s <= limit_m_s


@lru_cache(maxsize=16384)
def chosen_shape(
    kind: str,
    height_limit_m: float | None,
    flow_m3_s: float,
    roughness_m: float,
    fluid: Fluid,
    limit_pa_m: float,
    limit_m_s: float,
    round_sizes_m: tuple[float, ...] = ROUND_SIZES_M,
) -> tuple[Shape, bool]:
    """The standard size for a flow [m3/s], round ones of `round_sizes_m`, and whether it meets the limits; the largest there is
    where none does.

    Raises:
        ValueError: no such kind, or a height limit below every standard height.
    """
    if kind not in KINDS:
        raise ValueError(f"a duct is {', '.join(KINDS)}, not {kind!r}")
    if kind == "round":
        index = smallest_size(flow_m3_s, round_sizes_m, roughness_m, fluid, limit_pa_m, limit_m_s)
        return round_shape(round_sizes_m[index if index is not None else -1]), index is not None
    shapes = standard_shapes(kind, height_limit_m)
    for shape in shapes:
        # Cheap first: the velocity; the friction of what is left.
        if flow_m3_s <= limit_m_s * shape.area_m2 and fits(shape, flow_m3_s, roughness_m, fluid, limit_pa_m, limit_m_s):
            return shape, True
    return max(shapes, key=lambda shape: shape.area_m2), False
