"""Rooms that have no sensor of their own: their plant gives the share of its capacity that another room's sensor asks.

Source: shares of capacity by definition.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.outcome.chunk import calculate_chunk
from pendrum_core.room.outcome.loads import RoomLoads, Unsound
from pendrum_core.room.thermostat.control import Command

Array = NDArray[np.float64]
_LEAST_W = 1e-6


def plant_courses(loads: RoomLoads) -> tuple[Array, Array]:
    """Power of a room's plant in summer (months, 144) and on the winter day (144,), heating positive [W]."""
    if loads.control is not None:
        return loads.control.summer.plant_w, loads.control.winter.plant_w[0]
    summer = -loads.total if loads.cooling is not None else np.zeros_like(loads.total)
    return summer, np.full(summer.shape[-1], loads.heating.load_w)


def capacities_w(loads: RoomLoads) -> tuple[float, float]:
    """Heating and cooling that a room's plant can give: entered, or sized for the room with a sensor of its own [W]."""
    if loads.plant_w is not None:
        return loads.plant_w
    thermostat = loads.room.thermostat
    sized_cooling = loads.cooling.sensible_w if loads.cooling is not None else 0.0
    heating = thermostat.heating_capacity_w if thermostat else None
    cooling = thermostat.cooling_capacity_w if thermostat else None
    return (loads.heating.load_w if heating is None else heating, sized_cooling if cooling is None else cooling)


def command(leader: RoomLoads, follower: RoomLoads) -> Command:
    """What a leader's sensor tells a follower's plant."""
    heating, cooling = capacities_w(leader)
    shares = [
        np.where(course > 0.0, course / max(heating, _LEAST_W), course / max(cooling, _LEAST_W))
        for course in plant_courses(leader)
    ]
    own_heating, own_cooling = capacities_w(follower)
    return Command(shares[0], shares[1], own_heating, own_cooling)


def follow(
    rooms: Sequence[Room],
    own: Mapping[str, RoomLoads],
    leaders: Mapping[str, RoomLoads],
    outside: Outdoors,
    beyond: Mapping[str, InsideCourse],
) -> list[RoomLoads | Unsound]:
    """Followers anew under the commands of their leaders; `own` are their results with sensors of their own."""
    commands = {room.id: command(leaders[room.id], own[room.id]) for room in rooms}
    found = calculate_chunk(rooms, outside, commands, beyond)
    return [
        replace(led, plant_w=capacities_w(own[led.room.id])) if isinstance(led, RoomLoads) else led for led in found
    ]
