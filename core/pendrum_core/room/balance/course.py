"""What it is like inside a room over the design days, as its neighbours feel it."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.harmonics import to_harmonics

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


@dataclass(frozen=True, eq=False)
class InsideCourse:
    """A room over the summer days, (months, 144), and the mean of its winter day [°C].

    Attributes:
        air_c, winter_air_c: its air.
        radiant_c, winter_radiant_c: what a face exchanges radiation with: the mean surface temperature, raised by the
            radiant heat that falls onto the face over the radiation coefficient.
    """

    air_c: Array
    radiant_c: Array
    winter_air_c: float
    winter_radiant_c: float

    @cached_property
    def air_harmonics(self) -> Complex:
        """Of the air on the summer days, (months, 73)."""
        return to_harmonics(self.air_c)

    @cached_property
    def radiant_harmonics(self) -> Complex:
        """Of what a face exchanges radiation with, (months, 73)."""
        return to_harmonics(self.radiant_c)

    def away_from(self, other: "InsideCourse") -> float:
        """The largest difference of two courses [K]."""
        if self is other:
            return 0.0
        return max(
            float(np.abs(self.air_c - other.air_c).max()),
            float(np.abs(self.radiant_c - other.radiant_c).max()),
            abs(self.winter_air_c - other.winter_air_c),
            abs(self.winter_radiant_c - other.winter_radiant_c),
        )


def held_course(room: Room, shape: tuple[int, int]) -> InsideCourse:
    """A room at its set-points: what is taken before anything is known."""
    warm = np.full(shape, room.cooling_setpoint_c)
    return InsideCourse(warm, warm, room.heating_setpoint_c, room.heating_setpoint_c)


def convected_share(convection_w_m2k: float, radiation_w_m2k: float) -> float:
    """Share of the air in the temperature that a face feels, h_c / (h_c + h_r) [-]."""
    return convection_w_m2k / (convection_w_m2k + radiation_w_m2k)
