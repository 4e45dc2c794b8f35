"""Moisture of room air: a quasi-steady balance at every step, and what keeping it within limits takes.

Supply, leaks and untreated outdoor air bring and carry moisture off; people and equipment add it. Room air is mixed:
w = (sum of m_i w_i + G) / sum of m_i, with G the latent gains over the vapour's enthalpy.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.psychrometrics import (
    humidity_ratio_from_relative,
    relative_humidity,
    saturation_humidity_ratio,
    specific_volume_m3_kg,
)
from pendrum_core.air.system import AirSystemResult
from pendrum_core.model.rooms import Room
from pendrum_core.quantities.constants import CP_VAPOUR, H_VAPORISATION_0C
from pendrum_core.results.loads import RoomLoads
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
LEAK_C = 20.0  # volume of leaking and untreated air is taken at this temperature


@dataclass(frozen=True)
class RoomMoisture:
    """Relative humidity of a room and its limits.

    Attributes:
        relative: on the summer days, floating, (months, 144) [-].
        highest: the largest while the limits hold, with month index and step.
        drying_w: largest latent heat that has to be taken out to keep the upper limit [W].
        winter_relative: on the winter day, without people [-].
        humidifying_kg_s, humidifying_w: water to be added then to keep the lower limit, and its latent heat.
    """

    relative: Array
    highest: float
    month: int
    step: int
    drying_w: float
    winter_relative: float
    humidifying_kg_s: float
    humidifying_w: float


def vapour_j_kg(room_c: float) -> float:
    """Enthalpy of water vapour at room temperature [J/kg]."""
    return H_VAPORISATION_0C + CP_VAPOUR * room_c


def _outdoor_kg_s(room: Room, outside: Outdoors) -> float:
    return (room.infiltration_m3_s + room.direct_outdoor_air_m3_s) / _volume(outside)


def _volume(outside: Outdoors) -> float:
    return float(specific_volume_m3_kg(LEAK_C, 0.0, outside.pressure_pa))


def room_moisture(loads: RoomLoads, system: AirSystemResult | None, outside: Outdoors) -> RoomMoisture | None:
    """Moisture of a room with limits; None where nothing is asked or no air moves."""
    room, limits = loads.room, loads.room.humidity
    if limits is None:
        return None
    air_c = np.full(loads.total.shape, room.cooling_setpoint_c)
    if loads.control is not None:
        air_c = loads.control.summer.air_c.astype(np.float64)
    elif loads.cooling is None:
        air_c = room.cooling_setpoint_c + loads.total
    fresh = _outdoor_kg_s(room, outside)
    supplied = system.airflows[room.id].mass_kg_s if system else 0.0
    if fresh + supplied <= 0.0:
        return None
    supply_w: Array | float = system.path.coil.leaving_w if system else 0.0
    gains = loads.latent_w / vapour_j_kg(room.cooling_setpoint_c)
    w = (fresh * outside.humidity_ratio + supplied * supply_w + gains) / (fresh + supplied)
    relative = np.minimum(1.0, relative_humidity(air_c, w, outside.pressure_pa))
    months = outside.climate.months
    held = np.stack([step_averages(limits.patterns[month.month - 1]) for month in months]) > 0.0
    looked_at = np.where(held, relative, 0.0) if held.any() else relative
    month, step = np.unravel_index(int(looked_at.argmax()), looked_at.shape)
    drying = 0.0
    if limits.high is not None:
        over = w - humidity_ratio_from_relative(air_c, limits.high, outside.pressure_pa)
        carried = (fresh + supplied) * vapour_j_kg(room.cooling_setpoint_c)
        drying = max(0.0, float((np.where(held, over, 0.0) * carried).max()))
    winter, added = _winter(room, limits.low, loads.winter_air_c, supplied, system, outside)
    return RoomMoisture(
        relative, float(looked_at[month, step]), int(month), int(step), drying, winter, added,
        added * vapour_j_kg(loads.winter_air_c),
    )  # fmt: skip


def _winter(
    room: Room, low: float | None, air_c: float, supplied: float, system: AirSystemResult | None, outside: Outdoors
) -> tuple[float, float]:
    """Relative humidity on the winter day without people, and the water needed [kg/s]: outdoor air is saturated."""
    leak = (room.winter_leak_m3_s + room.direct_outdoor_air_m3_s) / _volume(outside)
    fresh = leak + (supplied * system.outdoor_share if system else 0.0)
    outdoor_w = float(saturation_humidity_ratio(outside.climate.winter_dry_bulb_c, outside.pressure_pa))
    relative = min(1.0, float(relative_humidity(air_c, outdoor_w, outside.pressure_pa)))
    if low is None:
        return relative, 0.0
    wanted = float(humidity_ratio_from_relative(air_c, low, outside.pressure_pa))
    return relative, fresh * max(0.0, wanted - outdoor_w)
