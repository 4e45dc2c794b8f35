"""Moisture of room air: a quasi-steady balance at every step, and what keeping it within limits takes.

Supply, leaks, untreated and drawn-in outdoor air and air from other rooms bring and carry moisture off; people and
equipment add it. Room air is mixed: w = (sum of m_i w_i + G) / sum of m_i, with G the latent gains over the vapour's
enthalpy. Rooms that give each other air are solved together, round after round.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.result import AirSystemResult
from pendrum_core.moist_air import (
    humidity_ratio_from_relative,
    relative_humidity,
    saturation_humidity_ratio,
    specific_volume_m3_kg,
)
from pendrum_core.quantities.constants import CP_VAPOUR, H_VAPORISATION_0C
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
_MOST_ROUNDS, _AT_REST = 500, 1e-10
_LEAST_K = 1e-3  # between outdoors and the room, for telling a flow from its heat
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


@dataclass(frozen=True)
class _Air:
    """Dry air that reaches a room at every step, (months, 144) [kg/s], and the moisture that comes without other rooms.

    Attributes:
        total: all of it.
        brought: outdoor, supply and drawn-in air's moisture and the gains' [kg/s].
        given: from other rooms, by room.
    """

    total: Array
    brought: Array
    given: Mapping[str, float]


def room_moistures(
    rooms: Mapping[str, RoomLoads], systems_of: Mapping[str, Sequence[AirSystemResult]], outside: Outdoors
) -> dict[str, RoomMoisture]:
    """Moisture of the rooms of which some humidity is asked; nothing of one that no air reaches."""
    asked = [identity for identity, loads in rooms.items() if loads.room.humidity is not None]
    airs = _airs(asked, rooms, systems_of, outside)
    humidity = _humidity_ratios(airs, outside)
    return {
        identity: _within_limits(rooms[identity], humidity[identity], airs[identity], rooms, systems_of, outside)
        for identity in asked
        if identity in humidity
    }


def _airs(
    asked: Sequence[str],
    rooms: Mapping[str, RoomLoads],
    systems_of: Mapping[str, Sequence[AirSystemResult]],
    outside: Outdoors,
) -> dict[str, _Air]:
    """The air of rooms, of those that give them air, and so on."""
    airs: dict[str, _Air] = {}
    waiting = list(asked)
    while waiting:
        identity = waiting.pop()
        if identity not in airs:
            air = airs[identity] = _air_of(rooms[identity], systems_of.get(identity, ()), rooms, outside)
            waiting += list(air.given)
    return airs


def _humidity_ratios(airs: Mapping[str, _Air], outside: Outdoors) -> dict[str, Array]:
    """Humidity ratio of rooms that some air reaches, (months, 144) [kg/kg]."""
    moved = {identity: air for identity, air in airs.items() if air.total.min() > 0.0}
    found = {identity: np.array(outside.humidity_ratio) for identity in moved}
    for _ in range(_MOST_ROUNDS):
        apart = 0.0
        for identity, air in moved.items():
            given = sum(flow * found.get(giver, outside.humidity_ratio) for giver, flow in air.given.items())
            following = (air.brought + given) / air.total
            apart = max(apart, float(np.abs(following - found[identity]).max()))
            found[identity] = following
        if apart < _AT_REST:
            break
    return found


def _air_of(
    loads: RoomLoads, systems: Sequence[AirSystemResult], rooms: Mapping[str, RoomLoads], outside: Outdoors
) -> _Air:
    room, volume = loads.room, _volume(outside)
    shape = outside.humidity_ratio.shape
    fresh = np.full(shape, (room.infiltration_m3_s + room.direct_outdoor_air_m3_s) / volume)
    if loads.control is not None:
        fresh = fresh + _drawn_m3_s(loads, outside) / volume
    supplied, moist = np.zeros(shape), np.zeros(shape)
    for system in systems:
        flow = system.served[room.id].flow_kg_s
        supplied += flow
        moist += flow * system.summer.supply_w
    given: dict[str, float] = {}
    for transfer in room.transfers:
        if transfer.room in rooms and transfer.flow_m3_s > 0.0:
            given[transfer.room] = given.get(transfer.room, 0.0) + transfer.flow_m3_s / volume
    gains = loads.latent_w / vapour_j_kg(room.cooling_setpoint_c)
    brought = fresh * outside.humidity_ratio + moist + gains
    return _Air(fresh + supplied + sum(given.values()), brought, given)


def _drawn_m3_s(loads: RoomLoads, outside: Outdoors) -> Array:
    """Outdoor air drawn in while the room is warm: its heat over what a cubic metre brings."""
    assert loads.control is not None and loads.room.thermostat is not None
    device = loads.room.thermostat.drawn_air
    if device is None:
        return np.zeros(outside.dry_bulb_c.shape)
    summer = loads.control.summer
    apart = outside.dry_bulb_c - summer.air_c
    flow = np.divide(
        summer.drawn_w, apart * outside.air_heat_j_m3k, out=np.zeros_like(apart), where=np.abs(apart) > _LEAST_K
    )
    return np.clip(flow, 0.0, device.flow_m3_s)


def _volume(outside: Outdoors) -> float:
    return float(specific_volume_m3_kg(LEAK_C, 0.0, outside.pressure_pa))


def _within_limits(
    loads: RoomLoads,
    w: Array,
    air: _Air,
    rooms: Mapping[str, RoomLoads],
    systems_of: Mapping[str, Sequence[AirSystemResult]],
    outside: Outdoors,
) -> RoomMoisture:
    """What a room's humidity is against its limits."""
    room, limits = loads.room, loads.room.humidity
    assert limits is not None
    air_c = np.full(loads.total.shape, room.cooling_setpoint_c)
    if loads.control is not None:
        air_c = loads.control.summer.air_c.astype(np.float64)
    elif loads.cooling is None:
        air_c = room.cooling_setpoint_c + loads.total
    relative = np.minimum(1.0, relative_humidity(air_c, w, outside.pressure_pa))
    months = outside.climate.months
    held = np.stack([step_averages(limits.patterns[month.month - 1]) for month in months]) > 0.0
    looked_at = np.where(held, relative, 0.0) if held.any() else relative
    month, step = np.unravel_index(int(looked_at.argmax()), looked_at.shape)
    drying = 0.0
    if limits.high is not None:
        over = w - humidity_ratio_from_relative(air_c, limits.high, outside.pressure_pa)
        carried = air.total * vapour_j_kg(room.cooling_setpoint_c)
        drying = max(0.0, float((np.where(held, over, 0.0) * carried).max()))
    winter, added = _winter(loads, air, rooms, next(iter(systems_of.get(room.id, ())), None), outside)
    return RoomMoisture(
        relative,
        float(looked_at[month, step]),
        month=int(month),
        step=int(step),
        drying_w=drying,
        winter_relative=winter,
        humidifying_kg_s=added,
        humidifying_w=added * vapour_j_kg(loads.winter_air_c),
    )


def _winter(
    loads: RoomLoads, air: _Air, rooms: Mapping[str, RoomLoads], system: AirSystemResult | None, outside: Outdoors
) -> tuple[float, float]:
    """Relative humidity on the winter day without people, and the water needed [kg/s]: outdoor air is saturated.

    Air from another room has the moisture of outdoors, or what that room is kept at.
    """
    room, air_c = loads.room, loads.winter_air_c
    assert room.humidity is not None
    supplied, humid = 0.0, 0.0
    if system is not None:
        # Of supply air, what is not return air; with a humidifier all of it, as moist as it comes.
        supplied = float(system.served[room.id].winter_flow_kg_s.mean())
        if float(system.winter.humidified_kg_kg.max()) > 0.0:
            humid = float(system.winter.supply_w.mean())
        else:
            supplied *= float(system.winter.outdoor_share.mean())
    fresh = (room.winter_leak_m3_s + room.direct_outdoor_air_m3_s) / _volume(outside) + supplied
    dry = float(saturation_humidity_ratio(outside.climate.winter_dry_bulb_c, outside.pressure_pa))
    whole = fresh + sum(air.given.values())
    given_w = sum(flow * max(dry, _kept_at(rooms[giver], outside)) for giver, flow in air.given.items())
    moist = supplied * max(humid - dry, 0.0)
    mixed = (fresh * dry + moist + given_w) / whole if whole > 0.0 else dry
    relative = min(1.0, float(relative_humidity(air_c, mixed, outside.pressure_pa)))
    if room.humidity.low is None:
        return relative, 0.0
    wanted = float(humidity_ratio_from_relative(air_c, room.humidity.low, outside.pressure_pa))
    return relative, whole * max(0.0, wanted - mixed)


def _kept_at(loads: RoomLoads, outside: Outdoors) -> float:
    """Humidity ratio that a room is kept at in winter; 0 where nothing is asked of it."""
    low = loads.room.humidity.low if loads.room.humidity is not None else None
    return 0.0 if low is None else float(humidity_ratio_from_relative(loads.winter_air_c, low, outside.pressure_pa))
