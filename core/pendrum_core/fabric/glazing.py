"""Windows: surface-to-surface resistance and the angular course of the solar factor."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.fabric.steady import RSE, RSI_HORIZONTAL

Array = NDArray[np.float64]
WINDOW_FILMS_M2K_W = RSI_HORIZONTAL + RSE  # that a declared window U includes (ISO 10077-1)
_CURVE_ANGLES_DEG = (0.0, 40.0, 50.0, 60.0, 70.0, 80.0, 90.0)

# Solar factor at an angle over that at normal incidence, and its hemispherical value, for clear panes.
# Source: ASHRAE Handbook Fundamentals 2017, ch. 15, table 10 (clear single 3 mm, double 6 mm, triple 6 mm),
# divided by the value at 0°.
_CURVES: dict[int, tuple[tuple[float, ...], float]] = {
    1: ((1.0, 0.977, 0.953, 0.907, 0.779, 0.488, 0.0), 0.907),
    2: ((1.0, 0.957, 0.914, 0.829, 0.643, 0.329, 0.0), 0.857),
    3: ((1.0, 0.934, 0.869, 0.738, 0.508, 0.213, 0.0), 0.787),
}


@dataclass(frozen=True)
class AngularCurve:
    """Factor on the normal solar factor: straight lines between `angles_deg`, and for diffuse light."""

    angles_deg: tuple[float, ...]
    factors: tuple[float, ...]
    hemispherical: float

    def at(self, incidence_cosine: Array) -> Array:
        """Factor for beam by the cosine of incidence [-]; 0 behind the plane."""
        angle = np.degrees(np.arccos(np.clip(incidence_cosine, 0.0, 1.0)))
        return np.interp(angle, self.angles_deg, self.factors)


@dataclass(frozen=True)
class Glazing:
    """A window type.

    Attributes:
        u_value: of the whole window, films included [W/m2 K].
        g_value: total solar factor of the glass at normal incidence [-].
        frame_share: share of the opening taken by the frame [-].
        panes: 1, 2 or 3; picks the angular curve where the maker gives none.
        curve: the maker's.

    Raises:
        ValueError: a value outside its range.
    """

    name: str
    u_value: float
    g_value: float
    frame_share: float
    panes: int = 2
    curve: AngularCurve | None = None

    def __post_init__(self) -> None:
        if not 0.1 <= self.u_value < 1.0 / WINDOW_FILMS_M2K_W:
            raise ValueError(f"glazing {self.name!r}: u_value {self.u_value} is outside 0.1 to 5.88 W/m2K")
        if not 0.0 <= self.g_value <= 1.0 or not 0.0 <= self.frame_share < 1.0:
            raise ValueError(f"glazing {self.name!r}: g_value and frame_share lie between 0 and 1")
        if self.panes not in _CURVES:
            raise ValueError(f"glazing {self.name!r}: panes {self.panes} is none of 1, 2, 3")

    @property
    def angular(self) -> AngularCurve:
        """How its solar factor falls with the angle."""
        return self.curve or angular_curve(self.panes)

    @property
    def resistance_m2k_w(self) -> float:
        """Surface to surface R = 1/U - 0.17 [m2 K/W]."""
        return 1.0 / self.u_value - WINDOW_FILMS_M2K_W


def angular_curve(panes: int) -> AngularCurve:
    """The published curve by pane count."""
    factors, hemispherical = _CURVES[panes]
    return AngularCurve(_CURVE_ANGLES_DEG, factors, hemispherical)
