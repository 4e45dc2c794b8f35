"""A stack of rooms set up and eliminated: what the summer days, the winter day and the check start from."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.balance.eliminate import RoomRow, Transfers, room_row, transfers
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.balance.sources import GainCourses, SunCourses, gain_courses, sun_courses
from pendrum_core.room.balance.stack import Signals, Stack, stack_rooms

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class TransferHeat:
    """What air from other rooms brings to the air held at its set-point: summer (R, months, 144), winter (R,) [W]."""

    summer_w: Array
    winter_w: Array


@dataclass(frozen=True)
class Solved:
    """A stack of rooms with its transfers and sources: what attribution and checks start from."""

    stack: Stack
    row: RoomRow
    transfers: Transfers
    signals: Signals
    sun: SunCourses
    gains: GainCourses
    outside: Outdoors
    floating: NDArray[np.bool_]
    transfer: TransferHeat


def solve(
    rooms: Sequence[Room], outside: Outdoors, merge: bool = True, beyond: Mapping[str, InsideCourse] | None = None
) -> Solved:
    """Set up and eliminate a stack of rooms for the summer days; `merge` and `beyond` as in `stack_rooms`."""
    stack, signals = stack_rooms(rooms, outside, merge, beyond)
    floating = np.array([room.floats for room in rooms])
    row = room_row(stack, outside.climate.coefficients.radiation_inside, floating)
    return Solved(
        stack=stack,
        row=row,
        transfers=transfers(stack, row, floating),
        signals=signals,
        sun=sun_courses(stack.rooms, outside),
        gains=gain_courses(stack.rooms, [month.month for month in outside.climate.months]),
        outside=outside,
        floating=floating,
        transfer=transfer_heat(stack.rooms, outside, beyond or {}),
    )


def transfer_heat(rooms: Sequence[Room], outside: Outdoors, beyond: Mapping[str, InsideCourse]) -> TransferHeat:
    """Heat of air from other rooms, ρ cp V (T there - set-point); nothing where the other room's air is not known."""
    summer = np.zeros((len(rooms), *outside.dry_bulb_c.shape))
    winter = np.zeros(len(rooms))
    for index, room in enumerate(rooms):
        for transfer in (one for one in room.transfers if one.room in beyond):
            air, conductance = beyond[transfer.room], transfer.flow_m3_s * outside.air_heat_j_m3k
            summer[index] += conductance * (air.air_c - room.cooling_setpoint_c)
            winter[index] += conductance * (air.winter_air_c - room.heating_setpoint_c)
    return TransferHeat(summer, winter)
