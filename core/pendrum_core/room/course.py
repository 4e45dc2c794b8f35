"""Air temperature of a room over the design days, as its neighbours feel it."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.harmonics import to_harmonics

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


@dataclass(frozen=True, eq=False)
class AirCourse:
    """Summer days (months, 144) and the mean of the winter day [°C]."""

    summer_c: Array
    winter_c: float

    @cached_property
    def harmonics(self) -> Complex:
        """Of the summer days, (months, 73)."""
        return to_harmonics(self.summer_c)

    def away_from(self, other: "AirCourse") -> float:
        """The largest difference of two courses [K]."""
        return max(float(np.abs(self.summer_c - other.summer_c).max()), abs(self.winter_c - other.winter_c))


def held_course(room: Room, shape: tuple[int, int]) -> AirCourse:
    """A room at its set-points: what is taken before anything is known."""
    return AirCourse(np.full(shape, room.cooling_setpoint_c), room.heating_setpoint_c)
