"""Rooms as they are without systems, in the form that supply air is worked out with."""

import numpy as np
from numpy.typing import NDArray

from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.room.supply.served import Asked
from pendrum_core.room.thermostat.answers import SUMMER, WINTER
from pendrum_core.room.thermostat.controlled import Day

Array = NDArray[np.float64]
_AT_WORK_W = 1e-6


def asked_in_summer(loads: RoomLoads) -> Asked:
    """A room on the summer days, (1, months, 144).

    Air that is held floats, once it is served, between its heating and its cooling set-point. Under a thermostat it keeps what
    its plant makes of it wherever that heats or cools (warm-ups and limits of capacity too), and floats between the set-points
    at work elsewhere.
    """
    room, shape = loads.room, loads.total.shape
    answer = loads.answers[SUMMER][None]
    if loads.control is not None:
        return _under_control(answer, loads.control.summer, _radiant(loads))
    low = np.full(shape, room.heating_setpoint_c if room.heated else -np.inf)
    if loads.cooling is None:
        return Asked(answer, np.zeros(shape)[None], loads.air_c[None], low[None], np.full(shape, np.inf)[None])
    air = np.full(shape, room.cooling_setpoint_c)
    return Asked(answer, -loads.total[None], air[None], np.minimum(low, air)[None], air[None])


def asked_in_winter(loads: RoomLoads) -> Asked:
    """The same on the winter day, (1, 1, 144): nothing cools then."""
    room, shape = loads.room, (1, loads.total.shape[1])
    answer = loads.answers[WINTER][None]
    if loads.control is not None:
        asked = _under_control(answer, loads.control.winter, _radiant(loads))
        return Asked(answer, asked.heat_w, asked.air_c, asked.low_c, np.full_like(asked.high_c, np.inf))
    heat = loads.heating.load_w if room.heated else 0.0
    low = room.heating_setpoint_c if room.heated else -np.inf
    fields = (heat, loads.winter_air_c, low, np.inf)
    return Asked(answer, *(np.full(shape, value)[None] for value in fields))


def _radiant(loads: RoomLoads) -> bool:
    return loads.room.thermostat is not None and loads.room.thermostat.radiant_weight > 0.0


def _under_control(answer: Array, day: Day, radiant: bool) -> Asked:
    heat = day.plant_w
    # At the ends of steps the air is what is sensed, but where surfaces are sensed too: there the set-points of the air are off
    # by what it differs from that.
    air = (day.air_c if radiant else day.sensed_c).astype(np.float64)
    off = air - day.sensed_c.astype(np.float64)
    low = np.where(heat > _AT_WORK_W, air, np.minimum(day.low_c + off, air))
    high = np.where(heat < -_AT_WORK_W, air, np.maximum(day.high_c + off, air))
    return Asked(answer, heat[None], air[None], low[None], high[None])
