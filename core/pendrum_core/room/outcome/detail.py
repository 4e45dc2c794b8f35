"""One room element by element: what Working and the day rail show.

Source: the heat balance of room/balance, linear in what drives it.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, Room
from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.balance.harmonics import OMEGA_RAD_S, step_response, to_harmonics, to_steps
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.balance.solve import solve
from pendrum_core.room.days.summer import conduction_parts
from pendrum_core.room.days.winter import WinterParts, winter
from pendrum_core.room.outcome.loads import RoomLoads

Array = NDArray[np.float64]


@dataclass(frozen=True)
class RoomDetail:
    """Courses of a room's elements and windows on the summer days [W], and its winter day.

    Attributes:
        conduction_w: (elements, 12, 144) in the order of room.elements.
        sun_w: (windows, 12, 144) effect on the load in the order of room.windows.
        sun_entering_w: (windows, 12, 144) heat that enters.
        lit_share: (windows, 12, 144) part that the sun reaches past the window's own shading [-].
        environment_c: (elements, 12, 144) temperature on the far side; the set-point for adiabatic elements.
        winter_environment_c: the same on the winter day, (elements,).
    """

    room: Room
    conduction_w: Array
    sun_w: Array
    sun_entering_w: Array
    lit_share: Array
    environment_c: Array
    winter_environment_c: Array
    winter: WinterParts


def warmth_k(loads: RoomLoads, outside: Outdoors) -> Array:
    """What each source makes of the air's temperature above the reference, (categories, months, 144) [K].

    A room that floats has its split in kelvin. Under a thermostat the heat of each source goes through the air's answer,
    and what the plant gives stands in the place of storage: the temperature holds what is kept.
    """
    if loads.control is None:
        return loads.parts
    solved = solve([loads.room], outside, beyond=loads.beyond)
    store = 1j * OMEGA_RAD_S[None, :] * solved.stack.capacity_j_k[:, None]
    response = 1.0 / (store + solved.stack.exchange_w_k[:, None] + solved.row.own_air)
    answer = step_response(response, behind_mass=True)[0]
    heat = loads.parts
    heat[CATEGORIES.index("storage")] = loads.control.summer.plant_w
    return to_steps(to_harmonics(heat) * answer)


def room_detail(room: Room, outside: Outdoors, beyond: Mapping[str, InsideCourse] | None = None) -> RoomDetail:
    """Work out one room element by element, by the same functions as the whole building."""
    solved = solve([room], outside, merge=False, beyond=beyond)
    count = len(room.elements)
    shape = (len(room.windows), *outside.dry_bulb_c.shape)
    radiant, convective = np.zeros(shape), np.zeros(shape)
    for index, window in enumerate(room.windows):
        sun = outside.window_sun(window)
        radiant[index] = window.sun_area_m2 * sun.radiant_w_m2
        convective[index] = window.sun_area_m2 * sun.convective_w_m2
    direct = convective
    if room.floats:
        direct = to_steps(to_harmonics(convective) * solved.transfers.convective[0])
    return RoomDetail(
        room=room,
        conduction_w=conduction_parts(solved, np.arange(count), count),
        sun_w=to_steps(to_harmonics(radiant) * solved.transfers.radiant[0]) + direct,
        sun_entering_w=radiant + convective,
        lit_share=np.stack([outside.lit_share(window) for window in room.windows]) if room.windows else np.zeros(shape),
        environment_c=to_steps(solved.signals.at(np.arange(count))) + room.cooling_setpoint_c,
        winter_environment_c=solved.signals.winter_k + room.heating_setpoint_c,
        winter=winter(solved),
    )
