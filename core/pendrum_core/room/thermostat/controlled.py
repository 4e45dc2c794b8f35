"""What a thermostat makes of a room's design days.

Source: counts by definition of the courses that they count.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Single = NDArray[np.float32]
_STEPS_PER_HOUR = 6.0
_NOTICED_K = 0.05
OPERATIVE = np.float32(0.5)  # share of the mean surface temperature, ISO 7726 at low air speed


@dataclass(frozen=True)
class Missed:
    """How far a set-point is missed: degrees at the worst, hours, when; `day` and `step` are where it is worst."""

    kelvin: float
    hours: float
    day: int
    step: int


@dataclass(frozen=True)
class Day:
    """Courses of the design days of a season, (days, 144): summer has its months, winter one day.

    Attributes:
        plant_w: what the plant brings into the air; cooling negative.
        drawn_w: what drawn-in outdoor air brings.
        air_c, surfaces_c: means over the steps, of the air and of the surfaces by area.
        sensed_c: what the thermostat senses, at the ends of the steps.
        low_c, high_c: set-points, infinite where there is none.
    """

    plant_w: Array
    drawn_w: Array
    air_c: Single
    surfaces_c: Single
    sensed_c: Single
    low_c: Single
    high_c: Single

    @property
    def operative_c(self) -> Single:
        """Operative temperature, means over the steps."""
        return (1.0 - OPERATIVE) * self.air_c + OPERATIVE * self.surfaces_c

    def too_cold(self) -> Missed | None:
        """Where the heating set-point is missed."""
        return _missed(self.low_c - self.sensed_c)

    def too_warm(self) -> Missed | None:
        """Where the cooling set-point is missed."""
        return _missed(self.sensed_c - self.high_c)


@dataclass(frozen=True)
class Control:
    """Summer's design days and the winter day of a room with a thermostat."""

    summer: Day
    winter: Day


def _missed(beyond_k: Single) -> Missed | None:
    """The day with the largest miss: how much, and for how many hours of it."""
    day, step = (int(i) for i in np.unravel_index(int(np.argmax(beyond_k)), beyond_k.shape))
    worst = float(beyond_k[day, step])
    if not worst > _NOTICED_K:
        return None
    return Missed(worst, float((beyond_k[day] > _NOTICED_K).sum() / _STEPS_PER_HOUR), day, step)


def flat_out_h(plant_w: Array, most_w: float | None) -> float:
    """Hours of a day (144) that a plant gives all it can."""
    if most_w is None or most_w <= 0.0:
        return 0.0
    return float((np.abs(plant_w) >= most_w * (1.0 - 1e-9)).sum() / _STEPS_PER_HOUR)
