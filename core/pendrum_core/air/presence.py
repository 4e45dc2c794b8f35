"""Who is in a room, as its people's heat tells it.

Source: schedules of the people's gains.
"""

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]


def people_w(room: Room) -> float:
    """Sensible heat of all its people [W]."""
    return sum(gain.sensible_w for gain in room.gains if gain.category == "people")


def presence(room: Room, outside: Outdoors) -> Array | None:
    """Share of a room's people over the design days, (months, steps) [-]; None where nobody is entered."""
    whole = people_w(room)
    if whole <= 0.0:
        return None
    people = [gain for gain in room.gains if gain.category == "people"]
    days = [
        sum((gain.sensible_w * step_averages(gain.on(month.month)) for gain in people), start=np.zeros(()))
        for month in outside.climate.months
    ]
    return np.stack(days) / whole
