"""Results of rooms and of groups of rooms."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, Room

Array = NDArray[np.float64]


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
    """A winter heating load, split in the order of CATEGORIES (sun and gains are 0) [W]."""

    load_w: float
    parts_w: tuple[float, ...]


@dataclass(frozen=True)
class RoomLoads:
    """Results of one room.

    Attributes:
        parts: (categories, 12, 144): signed sensible load [W] in a cooled room, contribution to the air
            temperature above `reference_c` [K] in a floating one.
        total: their sum, (12, 144).
        removed_w: the positive part of it: what counts in a group of rooms, (12, 144).
        latent_w: moisture from people and equipment, (12, 144) [W].
        cooling: None for a room that is not cooled.
        heating: load 0 for a room that is not heated.
        floating_peak_c: hottest air of a room that is not cooled [°C], with month and step; else None.
        winter_air_c: air on the winter day [°C].
        mean_surface_c, day_c: mean surface and air temperature on the peak's day, (144,) [°C].
        split_error, balance_error: of the check on the peak's day, relative to the throughput [-].
    """

    room: Room
    parts: Array
    total: Array
    removed_w: Array
    latent_w: Array
    cooling: Peak | None
    heating: Heating
    floating_peak_c: float | None
    peak_month: int
    peak_step: int
    winter_air_c: float
    mean_surface_c: Array
    split_error: float
    balance_error: float

    @property
    def cooling_course_w(self) -> Array:
        """Signed sensible load at every step, zero for a room that is not cooled, (12, 144) [W]."""
        return self.total if self.cooling is not None else np.zeros_like(self.total)


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


def empty_parts() -> tuple[float, ...]:
    """A split of nothing."""
    return (0.0,) * len(CATEGORIES)
