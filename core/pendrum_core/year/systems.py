"""Air systems over a year: the design day's walk on hourly arrays.

First what the rooms ask says how cold the supply has to be; then the rooms are marched under the air that flows whatever they ask
(constant flow, the least flow of a variable terminal, make-up air), so that they float and are reheated under it as they would be; what
is left of their cooling is more flow of a variable terminal. With flows and rooms the air is walked through the unit, all hours in one
call.
"""

from collections.abc import Container, Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.duct_gain import apart_from_mean_k, kept_shares, mean_kept
from pendrum_core.air.flows import least_flow_m3_s
from pendrum_core.air.outdoor_air import demanded_share
from pendrum_core.air.path import Rooms, Unit
from pendrum_core.air.result import AirSystemResult
from pendrum_core.air.terminal_fans import fans_in
from pendrum_core.air.unit import unit_of
from pendrum_core.air.walk import walk
from pendrum_core.model.systems import MAKE_UP, PARALLEL, ROOM_UNIT, SERIES, AirSystem
from pendrum_core.model.year import YearCourse
from pendrum_core.moist_air import humidity_ratio_from_relative, specific_heat_j_kgk, specific_volume_m3_kg
from pendrum_core.year.rooms import RoomYear, Stream
from pendrum_core.year.sky import YearSky

Array = NDArray[np.float64]
_LEAK_C, _USUAL_W, _LEAST_K = 20.0, 0.008, 0.5
_NO_RATE = 1e-9  # W/K


@dataclass(frozen=True)
class Planned:
    """A system's year before its rooms are under it: its rooms, their flows (rooms, hours) [kg/s], the supply temperature in the mean
    of all air [°C], and how far each room's is from it (duct_gain.py) [K]; fans in series in its terminals, (rooms, hours) [W].
    """

    names: tuple[str, ...]
    on: Array
    least_kg_s: Array
    most_kg_s: Array
    supply_c: Array
    apart_k: Array | None = None
    fans_w: Array | None = None

    @property
    def rooms_supply_c(self) -> Array:
        """Supply air of each room, (rooms, hours), or (hours) where it is the same for all [°C]."""
        return self.supply_c if self.apart_k is None else self.supply_c + self.apart_k

    def streams(self) -> dict[str, Stream]:
        """Air that flows whatever the rooms ask."""
        cp = float(specific_heat_j_kgk(_USUAL_W))
        supply = np.broadcast_to(self.rooms_supply_c, self.least_kg_s.shape)
        if self.fans_w is not None:
            # Their heat comes with the air that flows at all times.
            rate = self.least_kg_s * cp
            supply = supply + np.divide(self.fans_w, rate, out=np.zeros_like(rate), where=rate > _NO_RATE)
        return {name: Stream(self.least_kg_s[row] * cp, supply[row]) for row, name in enumerate(self.names)}


@dataclass(frozen=True)
class SystemYear:
    """A system's year, hourly: dry air [kg/s], duties [W], water of the humidifier [kg/s], cooling that its flow cannot carry [W].

    `fan_heat_w` is what fans in parallel give of the heat of each room's terminal, by room [W].
    """

    flow_kg_s: Array
    outdoor_kg_s: Array
    cooling_w: Array
    heating_w: Array
    fans_w: Array
    water_kg_s: Array
    short_w: Array
    balance: float
    fan_heat_w: Mapping[str, Array]


def plan(
    system: AirSystem,
    sized: AirSystemResult,
    rooms: Mapping[str, RoomYear],
    loads_w: Mapping[str, Array],
    sky: YearSky,
    running: YearCourse | None = None,
    owed_kg_s: Mapping[str, Array] | None = None,
) -> Planned:
    """Flows and supply temperature for what the rooms ask with ideal plant, `loads_w`, cooling above nought; `owed_kg_s` is what a make-up unit owes."""
    names = tuple(t.room for t in system.terminals if t.room in rooms and t.room in sized.airflows)
    hours = len(sky.dry_bulb_c)
    on = np.ones(hours) if running is None else (running.hours()[:hours] > 0.5).astype(float)
    flows = [sized.airflows[name] for name in names]
    most = np.array([flow.mass_kg_s for flow in flows])[:, None] * on
    terminals = {terminal.room: terminal for terminal in system.terminals}
    share = np.array(
        [
            least_flow_m3_s(system, terminals[name], flow) / max(flow.design_m3_s, 1e-12)
            for name, flow in zip(names, flows, strict=True)
        ]
    )
    least = share[:, None] * most
    if system.kind == MAKE_UP:
        owed = owed_kg_s or {}
        most = least = np.stack([owed.get(name, most[row]) * on for row, name in enumerate(names)])
    air = np.stack([rooms[name].air_c for name in names]).astype(float)
    load = np.stack([loads_w[name] for name in names])
    fans_w = None
    if fans_in(system) == SERIES:
        fans_w = np.array([sized.served[name].fan_w for name in names])[:, None] * on
        load = load + fans_w
    supply = _target(system, air, load, most * float(specific_heat_j_kgk(_USUAL_W)), sky.dry_bulb_c)
    if not system.cools:
        supply = np.maximum(supply, sky.dry_bulb_c)
    elif _may_be_held(system, sized, supply, float(max(air.max(), sky.dry_bulb_c.max()))):
        latent = np.stack([rooms[name].gains_w[-1] for name in names]).astype(float)
        still = np.zeros_like(most)
        unit = replace(_unit(system, sized, names), target_c=supply)
        path = walk(
            unit, Rooms(most, still, air, latent, still, np.zeros(hours)), sky.dry_bulb_c, _outdoor_w(sky, sized)
        )
        supply = np.maximum(supply, path.supply_c)
    return Planned(names, on, least, most, supply, _apart_k(system, sized, names, least, supply), fans_w)


def _apart_k(
    system: AirSystem, sized: AirSystemResult, names: tuple[str, ...], flow_kg_s: Array, supply_c: Array
) -> Array | None:
    """How far each room's supply air is from the mean by the ducts on its way [K]."""
    if sized.ducts is None or not sized.ducts.gains_w_k:
        return None
    kept = kept_shares(np.array([sized.ducts.gains_w_k.get(name, 0.0) for name in names]), flow_kg_s)
    return apart_from_mean_k(kept, mean_kept(kept, flow_kg_s), supply_c, system.duct_around_c)


def _may_be_held(system: AirSystem, sized: AirSystemResult, supply_c: Array, warmest_c: float) -> bool:
    """Whether what flows in the cooling coil can keep supply air from its temperature at all."""
    coldest = sized.limits.coldest_c
    if coldest is None:
        return False
    reached = coldest + system.bypass_factor * (warmest_c - coldest)
    return float(supply_c.min()) - sized.fan.rise_k < reached


def _unit(system: AirSystem, sized: AirSystemResult, names: tuple[str, ...]) -> Unit:
    """Its unit for the rooms that have a year, with filters in the mean of their lives."""
    system = replace(system, terminals=tuple(t for t in system.terminals if t.room in names))
    sizes = (sized.return_m3_s, sized.least_outdoor_kg_s, sized.pressure_pa)
    return unit_of(system, sized.fan, *sizes, sized.ducts, sized.lanes, system.cleaner_pa, sized.limits)


def _outdoor_w(sky: YearSky, sized: AirSystemResult) -> Array:
    return humidity_ratio_from_relative(sky.dry_bulb_c, sky.weather.relative_humidity, sized.pressure_pa)


def system_year(
    system: AirSystem,
    sized: AirSystemResult,
    planned: Planned,
    rooms: Mapping[str, RoomYear],
    takes: Mapping[str, bool],
    reheated: Container[str],
    leaks_m3_s: Mapping[str, float],
    lights_w: Array,
    least_relative: Mapping[str, Array],
    sky: YearSky,
) -> SystemYear:
    """The system with its rooms under its air; `takes` says of which rooms it carries the cooling that is left, `reheated` are those that its terminals heat, `least_relative` the lower
    limits of relative humidity that its humidifier keeps, by room and hour; 0 where none is to be kept.
    """
    names, hours = planned.names, len(sky.dry_bulb_c)
    air = np.stack([rooms[name].air_c for name in names]).astype(float)
    left = np.stack([rooms[name].cooling_w if takes[name] else np.zeros(hours) for name in names]).astype(float)
    latent = np.stack([rooms[name].gains_w[-1] for name in names]).astype(float)
    cp = float(specific_heat_j_kgk(_USUAL_W))
    carries = cp * np.maximum(air - planned.rooms_supply_c, _LEAST_K)
    more = np.minimum(left / carries, planned.most_kg_s - planned.least_kg_s)
    short = np.maximum(left - more * carries, 0.0)
    flow = planned.least_kg_s + more
    volume = float(specific_volume_m3_kg(_LEAK_C, 0.0, sized.pressure_pa))
    leak = np.array([leaks_m3_s.get(name, 0.0) / volume for name in names])[:, None] * np.ones(hours)
    unit = replace(
        _unit(system, sized, names),
        target_c=planned.supply_c,
        least_outdoor_kg_s=sized.least_outdoor_kg_s * _demanded(system, sized, rooms),
        least_return_w=_least_humidity(system, sized, names, air, least_relative),
    )
    fan_heat = {
        name: np.minimum(sized.served[name].fan_w, rooms[name].heating_w.astype(float)) * planned.on
        for name in names
        if fans_in(system) == PARALLEL and takes[name] and name in reheated
    }
    in_terminals = sum(fan_heat.values(), np.zeros(hours)) + (
        0.0 if planned.fans_w is None else planned.fans_w.sum(axis=0)
    )
    taken = flow if system.kind == MAKE_UP else np.zeros_like(flow)
    path = walk(unit, Rooms(flow, taken, air, latent, leak, lights_w), sky.dry_bulb_c, _outdoor_w(sky, sized))
    return SystemYear(
        path.flow_kg_s,
        path.outdoor_kg_s,
        cooling_w=path.cooling_w,
        heating_w=path.heating_w + path.reheat_w + path.preheat_w,
        fans_w=path.fan_w + path.return_fan_w + in_terminals,
        water_kg_s=path.flow_kg_s * path.humidified_kg_kg,
        short_w=short.sum(axis=0),
        balance=path.balance,
        fan_heat_w=fan_heat,
    )


def _least_humidity(
    system: AirSystem, sized: AirSystemResult, names: tuple[str, ...], air_c: Array, least_relative: Mapping[str, Array]
) -> Array | float:
    """Humidity ratio that keeps the lower limit of every room that has one, at its air of the hour [kg/kg]."""
    limited = [row for row, name in enumerate(names) if name in least_relative]
    if system.humidifier == "none" or not limited:
        return 0.0
    relative = np.stack([least_relative[names[row]] for row in limited])
    return np.asarray(humidity_ratio_from_relative(air_c[limited], relative, sized.pressure_pa).max(axis=0))


def _demanded(system: AirSystem, sized: AirSystemResult, rooms: Mapping[str, RoomYear]) -> Array | float:
    """Of the design's outdoor air, what the people who are there ask for, over the hours."""
    if not system.outdoor_by_people or system.takes_outdoor_air_alone:
        return 1.0
    present = {
        name: np.asarray(rooms[name].gains_w[0], dtype=float) / whole
        for name, whole in sized.people_w.items()
        if whole > 0.0
    }
    return demanded_share(sized.breathing, present, sized.outdoor_air.people_share)


def _target(system: AirSystem, air: Array, load: Array, rate: Array, outdoor_c: Array) -> Array:
    """Supply temperature at the terminals by the system's rule."""
    if system.kind != ROOM_UNIT and system.supply_rule == "outdoors":
        ends = (system.reset_cold_c, system.reset_warm_c), (system.winter_supply_c, system.supply_c)
        return np.asarray(np.interp(outdoor_c, *ends))
    if system.kind != ROOM_UNIT and (system.supply_rule == "fixed" or system.follows_load):
        return np.full(outdoor_c.shape, system.supply_c)
    wanted = np.where(rate > 1e-9, air - np.maximum(load, 0.0) / np.maximum(rate, 1e-9), air).min(axis=0)
    if system.kind == ROOM_UNIT:
        return np.asarray(np.maximum(wanted, system.supply_c))
    return np.asarray(np.clip(wanted, system.supply_c, max(system.supply_c, system.winter_supply_c)))
