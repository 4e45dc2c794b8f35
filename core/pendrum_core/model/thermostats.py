"""Thermostats, limits of plant, and outdoor air that follows the room's temperature, as the room calculation takes them."""

import math
from dataclasses import dataclass

from pendrum_core.schedule.pattern import DayPattern, constant

NO_HEATING, NO_COOLING = -math.inf, math.inf
NEVER_HEATED = (constant(NO_HEATING),) * 12
NEVER_COOLED = (constant(NO_COOLING),) * 12


@dataclass(frozen=True)
class DrawnAir:
    """Outdoor air drawn through a room while it is warm: opened windows, or an extract fan set off by temperature.

    Attributes:
        flow_m3_s: with everything open [m3/s].
        above_c: room air at which it begins [°C]; it is fully open `band_k` above that, and in proportion between.
        only_cooler: only while outdoors is cooler than the room (people close windows against heat; a fan does not).
        patterns: share that may open over the days of January to December [-].
    """

    flow_m3_s: float
    above_c: float
    band_k: float
    only_cooler: bool
    patterns: tuple[DayPattern, ...]


@dataclass(frozen=True)
class Thermostat:
    """Set-points over the design days and what the plant may do to keep them.

    A set-point of minus infinity is no heating at that time, one of plus infinity no cooling.

    Attributes:
        heating, cooling: set-points of January to December [°C].
        winter: heating set-points of the winter day [°C].
        radiant_weight: share of the mean surface temperature in what is sensed: 0 air, 0.5 operative [-].
        heating_capacity_w, cooling_capacity_w: most that the plant can do; None where it is sized here.
        warm_up_h, pull_down_h: time given to come back from a lower heating or a higher cooling set-point [h].
        reheat_w_m2: allowance of EN 12831-1 in place of a warm-up worked out, per floor area; None where it is.
        drawn_air: None where there is none.
        leader: room whose sensor commands this one; None where it has its own.
    """

    heating: tuple[DayPattern, ...]
    cooling: tuple[DayPattern, ...]
    winter: DayPattern
    radiant_weight: float = 0.0
    heating_capacity_w: float | None = None
    cooling_capacity_w: float | None = None
    warm_up_h: float = 0.0
    pull_down_h: float = 0.0
    reheat_w_m2: float | None = None
    drawn_air: DrawnAir | None = None
    leader: str | None = None
