"""Results of rooms and of groups of rooms.

Source: sums of a balance that is linear in what drives it.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, CONTROL_CATEGORIES, GAIN_CATEGORIES, Room
from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.days.terms import Ensemble, Terms, fixed_split
from pendrum_core.room.thermostat.controlled import Control

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]
_NOTICED_K = 1e-3
_STEPS_PER_HOUR = 6.0
FIRST_GAIN = CATEGORIES.index(GAIN_CATEGORIES[0])


@dataclass(frozen=True)
class Peak:
    """A cooling peak.

    Attributes:
        sensible_w: largest sensible load [W].
        latent_w: moisture from people and equipment at that time [W].
        month: index of the summer month, 0 is the first.
        step: index of the 10-minute step, 0..143.
        parts_w: split of the sensible load in the order of CATEGORIES [W].
    """

    sensible_w: float
    latent_w: float
    month: int
    step: int
    parts_w: tuple[float, ...]

    @property
    def total_w(self) -> float:
        """Sensible and latent [W]."""
        return self.sensible_w + self.latent_w


@dataclass(frozen=True)
class Heating:
    """A winter heating load, split in the order of CATEGORIES (sun and gains are 0) [W].

    `simple_w` stands beside it for comparison: losses at the set-point by U-values, simplified EN 12831-1.
    """

    load_w: float
    parts_w: tuple[float, ...]
    simple_w: float


@dataclass(frozen=True)
class RoomResponse:
    """How a held room answers to a radiant watt on its faces, folded to steps; kept so that a change of gains alone is
    worked out from it.

    Attributes:
        radiant: load, (73,).
        lost: heat that goes into the faces, (73,).
    """

    radiant: Complex
    lost: Complex


@dataclass(frozen=True)
class RoomLoads:
    """Results of one room.

    Attributes:
        terms: what brings heat to the air held at the set-point [W], apart from gains and control; in a floating room
            what makes its temperature above it [K].
        held: the sum of that, (months, 144).
        gains: (gain categories, different days, 144), of the gains.
        day_of: which of those days each month has, (months,).
        total: signed sensible load: the sum of all held parts, or what a thermostat asks of the plant, (months, 144).
        latent_days_w: moisture from people and equipment, (different days, 144) [W].
        cooling: None for a room that is not cooled.
        heating: load 0 for a room that is not heated.
        floating_peak_c: hottest air of a room that is not cooled [°C], with month and step; else None.
        winter_air_c: air on the winter day [°C].
        split_error, balance_error: of the check on the peak's day, relative to the throughput [-].
        response: None for a floating room and one with a thermostat.
        answers: of its air, at the ends of steps, to a watt through a step, summer and winter, (2, 144) [K/W].
        control: None where the air is held at its set-points day and night.
        beyond: the rooms beyond its walls as they were when it was calculated.
        inside: the room itself as its neighbours feel it; None where it has none.
        plant_w: heating and cooling that its plant can give, of a room under another one's sensor [W].
    """

    room: Room
    terms: Terms
    held: Array
    gains: Array
    day_of: Ints
    total: Array
    latent_days_w: Array
    cooling: Peak | None
    heating: Heating
    floating_peak_c: float | None
    peak_month: int
    peak_step: int
    winter_air_c: float
    split_error: float
    balance_error: float
    response: RoomResponse | None
    answers: Array
    control: Control | None = None
    plant_w: tuple[float, float] | None = None
    beyond: Mapping[str, InsideCourse] = field(default_factory=dict)
    inside: InsideCourse | None = None

    @property
    def parts(self) -> Array:
        """The whole split in the order of CATEGORIES, (categories, months, 144)."""
        asked = (self.total, self.control.summer.drawn_w) if self.control else None
        return whole_split(fixed_split(self.terms, len(self.held)), self.gains[:, self.day_of], asked)

    def parts_on(self, month: int) -> Array:
        """The split of a month's day, (categories, 144)."""
        asked = (self.total[month], self.control.summer.drawn_w[month]) if self.control else None
        return whole_split(Ensemble([self.terms]).days(np.array([month]))[0], self.gains[:, self.day_of[month]], asked)

    def parts_at(self, month: int, step: int) -> Array:
        """The split at one step, (categories,)."""
        return self.parts_on(month)[:, step]

    @property
    def air_c(self) -> Array:
        """The room's air on the summer days, (months, 144) [°C]."""
        if self.control is not None:
            return self.control.summer.air_c.astype(np.float64)
        floating = self.total if self.room.floats else np.zeros_like(self.total)
        return np.asarray(self.room.cooling_setpoint_c + floating)

    def too_warm_h(self) -> tuple[float, int]:
        """Hours of the design day on which a room without cooling is longest above its limit, and the day's index."""
        above = (self.air_c > self.room.warm_limit_c + _NOTICED_K).sum(axis=1)
        day = int(above.argmax())
        return float(above[day]) / _STEPS_PER_HOUR, day

    @property
    def latent_w(self) -> Array:
        """Moisture from people and equipment, (months, 144) [W]."""
        return self.latent_days_w[self.day_of]

    @property
    def cooling_course_w(self) -> Array:
        """Signed sensible load at every step, zero for a room that is not cooled, (months, 144) [W]."""
        return self.total if self.cooling is not None else np.zeros_like(self.total)


@dataclass(frozen=True)
class Unsound:
    """A room whose calculation did not pass its own check; nothing of it is shown."""

    room: Room
    reason: str


def whole_split(fixed: Array, gains: Array, asked: tuple[Array, Array] | None = None) -> Array:
    """Fixed categories, gains and what control added [W], along the first axis in the order of CATEGORIES.

    `asked` is the load that a thermostat asks of the plant, and the heat of drawn-in air. What is then left is storage:
    heat that air, furniture and fabric give back because the air is not held at the reference.
    """
    whole = np.zeros((len(CATEGORIES), *fixed.shape[1:]))
    last = FIRST_GAIN + len(gains)
    whole[:FIRST_GAIN], whole[FIRST_GAIN:last] = fixed[:FIRST_GAIN], gains
    whole[last : len(CATEGORIES) - len(CONTROL_CATEGORIES)] = fixed[FIRST_GAIN:]
    if asked is not None:
        load, drawn = asked
        whole[-2] = drawn
        whole[-1] = load - whole[:-1].sum(axis=0)
    return whole


@dataclass(frozen=True)
class GroupLoads:
    """Rooms together: a level, a system, the building.

    A room whose load is negative at a step does not cool its neighbours: it counts as zero in the sum.

    Attributes:
        course_w: coincident sensible load, (12, 144) [W]; its split is worked out when asked for.
        sum_of_peaks_w: of the rooms' own peaks.
    """

    id: str
    name: str
    kind: str
    room_ids: tuple[str, ...]
    floor_area_m2: float
    course_w: Array
    latent_w: Array
    cooling: Peak
    heating: Heating
    sum_of_peaks_w: float

    @property
    def diversity(self) -> float:
        """Coincident peak over the sum of own peaks [-]; 1 where there is none."""
        return self.cooling.sensible_w / self.sum_of_peaks_w if self.sum_of_peaks_w > 0.0 else 1.0


def peak_time(course_w: Array) -> tuple[int, int]:
    """Month index and step of the largest value of a course (12, 144)."""
    month, step = np.unravel_index(int(np.argmax(course_w)), course_w.shape)
    return int(month), int(step)


def peak_of(course_w: Array, parts_at_peak_w: Array, latent_w: Array) -> Peak:
    """The largest value of a course (12, 144), with the split at that time (categories,)."""
    month, step = peak_time(course_w)
    return Peak(
        sensible_w=max(0.0, float(course_w[month, step])),
        latent_w=float(latent_w[month, step]),
        month=month,
        step=step,
        parts_w=tuple(float(value) for value in parts_at_peak_w),
    )
