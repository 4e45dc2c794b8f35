"""What a room does over a year, as inputs: courses of days, gains, set-points."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.schedule.pattern import DayPattern, constant, step_averages

Array = NDArray[np.float64]


@dataclass(frozen=True)
class YearCourse:
    """A pattern for every day of a year; `days` are places in `patterns`."""

    patterns: tuple[DayPattern, ...]
    days: tuple[int, ...]

    def steps(self) -> Array:
        """Averages over 10-minute steps, (days, 144)."""
        return np.asarray(np.stack([step_averages(pattern) for pattern in self.patterns])[np.array(self.days)])

    def hours(self) -> Array:
        """Averages over hours, (days x 24,)."""
        return np.asarray(self.steps().reshape(len(self.days), 24, 6).mean(axis=2).ravel())


def always(value: float, days: int = 365) -> YearCourse:
    """The same value all year."""
    return YearCourse((constant(value),), (0,) * days)


@dataclass(frozen=True)
class YearGain:
    """An internal gain at full schedule, sensible and as moisture [W], and the radiant share of the sensible part [-]."""

    category: str
    sensible_w: float
    radiant_share: float
    course: YearCourse
    latent_w: float = 0.0


@dataclass(frozen=True)
class YearCircuit:
    """Hours of a circuit over a year, above a half while it may run, and its flow temperature by schedule [°C]; None: always, and none."""

    running: YearCourse | None = None
    flow_c: YearCourse | None = None


@dataclass(frozen=True)
class YearDrawnAir:
    """Outdoor air drawn in while the room is warm, as in model/thermostats.py, over a year."""

    flow_m3_s: float
    above_c: float
    band_k: float
    only_cooler: bool
    course: YearCourse


@dataclass(frozen=True)
class YearRoom:
    """A room over a year; faces, windows and leaks are those of `room`.

    Attributes:
        heating, cooling: set-points [°C]; None where it is not heated or not cooled.
        heating_w, cooling_w: most that its plant can do; None without limit.
        people: share of its people that is there; hours count as occupied while it is above nought.
        warm_limit_c: above which an occupied hour counts as too warm.
        return_gains: as in Room.
        plant_w: heating and cooling that its plant can give, where it leads other rooms' plants or is led; None: it does neither [W].
        humidity_kept: above a half while its limits of humidity are to be kept; None: always.
    """

    room: Room
    gains: tuple[YearGain, ...]
    heating: YearCourse | None
    cooling: YearCourse | None
    heating_w: float | None = None
    cooling_w: float | None = None
    drawn: YearDrawnAir | None = None
    people: YearCourse | None = None
    warm_limit_c: float = 28.0
    return_gains: tuple[YearGain, ...] = ()
    humidity_kept: YearCourse | None = None
    plant_w: tuple[float, float] | None = None
