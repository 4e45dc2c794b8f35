"""An air system: its flows, what its rooms get, the path of its air in summer and winter, ducts and fan.

Rooms come as they are without systems (asked). From their loads come the terminals' flows and the temperature of the supply
air; with these the rooms are served (room/supply/served.py), and the air is walked from the louvre to the terminal and back (walk.py)
at every step of every design day and of the winter day. Served rooms and path are brought together in rounds: the moisture
of the supply air is in its heat capacity.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from pendrum_core.air.airflow import RoomAirflow
from pendrum_core.air.coil import NO_LIMITS, CoilLimits
from pendrum_core.air.flows import design_flows, least_flow_m3_s, supply_course
from pendrum_core.air.outdoor_air import demanded_share, system_outdoor_air
from pendrum_core.air.path import Array, Path
from pendrum_core.air.presence import people_w, presence
from pendrum_core.air.result import AirSystemResult, RoomDemand, ServedRoom
from pendrum_core.air.season import RoomAir, Season, served_by, settled
from pendrum_core.air.terminal_fans import fans_in, powers_w, warmed
from pendrum_core.air.unit import ducts_and_fan, unit_of
from pendrum_core.duct.lanes import LaneFlows
from pendrum_core.model.systems import MAKE_UP, PARALLEL, ROOM_UNIT, AirSystem
from pendrum_core.moist_air import humidity_ratio_from_relative, saturation_humidity_ratio, specific_volume_m3_kg
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.supply.served import Asked, Served
from pendrum_core.schedule.pattern import step_averages

_UNHEATED_C = -100.0  # asked of a unit that has no heating coil of its own
_LEAK_C = 20.0  # volume of leaking air is taken at this temperature


def size_system(
    system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors, limits: CoilLimits = NO_LIMITS
) -> AirSystemResult:
    """Size a system from its rooms to its coils and fan; `demands` in the order of the terminals, `limits` of its coils by
    what flows in them.

    Raises:
        ValueError: no room has any airflow, the supply is not colder than a room, or a parameter is out of its range.
        TreeError: the duct sections are not a tree.
    """
    pressure = outside.pressure_pa
    flows, breathing = design_flows(system, demands, outside)
    on, winter_on = _running(system, outside), _running_in_winter(system, outside)
    fans_w = powers_w(system, flows)
    demands = warmed(system, demands, fans_w, on, winter_on)
    supply = {room: flow.design_m3_s for room, flow in flows.items()}
    if sum(supply.values()) <= 0.0:
        raise ValueError(f"system {system.name}: none of its rooms needs any air")
    variable = system.follows_load
    zone = {room: flow.ventilation_m3_s for room, flow in flows.items()}
    least = {t.room: least_flow_m3_s(system, t, flows[t.room]) for t in system.terminals if t.room in flows}
    together = {room: float(need.at(system.people_share)) for room, need in breathing.items()}
    effectiveness = {terminal.room: terminal.effectiveness for terminal in system.terminals}
    intake = system_outdoor_air(
        together,
        zone,
        supply,
        system.ventilation,
        system.takes_outdoor_air_alone,
        least if variable else None,
        people_share=system.people_share,
        together_m3_s=sum(need / effectiveness[room] for room, need in together.items()),
    )
    target, short = supply_course(system, demands, flows, outside.dry_bulb_c)
    most_kg, least_kg = (
        np.array([flows[d.room.id].mass_kg_s * (of[d.room.id] / max(supply[d.room.id], 1e-12)) for d in demands])
        for of in (supply, least)
    )
    reheats = [system.reheat != "none" and terminal.reheats for terminal in system.terminals]
    volume = float(specific_volume_m3_kg(_LEAK_C, 0.0, pressure))
    summer = Season(
        _joined([d.summer for d in demands]),
        [d.air for d in demands],
        outdoor_c=outside.dry_bulb_c,
        outdoor_w=outside.humidity_ratio,
        supply_c=target,
        least_kg_s=_made_up(least_kg[:, None, None] * on, [d.air for d in demands]),
        most_kg_s=_made_up(most_kg[:, None, None] * on, [d.air for d in demands]),
        heat_most_w=_heat_most(demands, reheats, on),
        cool_most_w=np.array([np.inf if d.has_ceiling else 0.0 for d in demands])[:, None, None],
        latent_w=np.stack([d.latent_w for d in demands]),
        leak_kg_s=np.array([d.room.infiltration_m3_s / volume for d in demands]),
        cp_j_kgk=_cp(flows),
        by_mass=system.kind == MAKE_UP,
        lights_w=_lights_w(system, demands, outside),
    )
    # The largest sum of what rooms take at one time: what fan and unit carry.
    served = served_by(summer, target)
    mass = float(served.rate_w_k.sum(axis=0).max()) / summer.cp_j_kgk
    total_flow = sum(supply.values()) * mass / max(float(most_kg.sum()), 1e-12)
    alone = system.takes_outdoor_air_alone
    least_outdoor = mass if alone else min(mass, mass * intake.intake_m3_s / total_flow)
    courses_kg = served.rate_w_k / summer.cp_j_kgk
    courses = {
        d.room.id: supply[d.room.id] / max(float(most), 1e-12) * course
        for d, most, course in zip(demands, most_kg, courses_kg, strict=True)
    }
    lane_flows = _lane_flows(system, demands, courses_kg, mass, least_outdoor, volume)
    ducts, lanes, fan = ducts_and_fan(system, flows, courses, mass, lane_flows, pressure)
    unit = unit_of(system, fan, lane_flows.together_m3_s, least_outdoor, pressure, ducts, lanes, limits=limits)
    demanded: Array | float = 1.0
    if system.outdoor_by_people and not alone:
        present = {d.room.id: course for d in demands if (course := presence(d.room, outside)) is not None}
        demanded = demanded_share(breathing, present, intake.people_share)
    summer_unit = replace(unit, target_c=target, least_outdoor_kg_s=least_outdoor * demanded)
    summer_served, path, summer_flow, summer_open = settled(summer, summer_unit, served)
    winter = _winter_season(
        system,
        demands,
        reheats,
        winter_on,
        outside=outside,
        least_kg=least_kg,
        most_kg=most_kg,
        volume=volume,
        cp=summer.cp_j_kgk,
    )
    winter_unit = replace(
        unit, target_c=winter.supply_c, cools=False, least_return_w=_least_humidity(system, demands, pressure)
    )
    cold = served_by(winter, winter.supply_c)
    winter_served, winter_path, winter_flow, winter_open = settled(winter, winter_unit, cold)
    coil = path.cooling_w
    month, step = np.unravel_index(int(np.argmax(coil)), coil.shape)
    warm, winterly = (summer_served, path, summer_flow), (winter_served, winter_path, winter_flow)
    parallel = fans_in(system) == PARALLEL
    rooms = {
        d.room.id: _served_room(
            i, d, reheats[i], summer, warm, winterly, fan_w=fans_w.get(d.room.id, 0.0), spares_heat=parallel
        )
        for i, d in enumerate(demands)
    }
    return AirSystemResult(
        id=system.id,
        airflows=flows,
        served=rooms,
        mass_kg_s=mass,
        flow_m3_s=total_flow,
        outdoor_air=intake,
        breathing=breathing,
        people_w={d.room.id: people_w(d.room) for d in demands},
        outdoor_share=least_outdoor / mass,
        least_outdoor_kg_s=least_outdoor,
        ducts=ducts,
        lanes=lanes,
        return_m3_s=lane_flows.together_m3_s,
        fan=fan,
        summer=path,
        winter=winter_path,
        asked_supply_c=target,
        short_w=short,
        peak=(int(month), int(step)),
        balance=max(path.balance, winter_path.balance, summer_open, winter_open),
        converged=bool(
            path.settled and winter_path.settled and summer_served.settled.all() and winter_served.settled.all()
        ),
        pressure_pa=pressure,
        limits=limits,
    )


def _lane_flows(
    system: AirSystem,
    demands: Sequence[RoomDemand],
    courses_kg_s: Array,
    mass_kg_s: float,
    least_outdoor_kg_s: float,
    volume_m3_kg: float,
) -> LaneFlows:
    """What return, outdoor and exhaust ducts are sized for: what comes back from each room on the summer's days, and outdoor air
    as far as the economizer takes it."""
    back = {
        demand.room.id: np.maximum(course - np.asarray(demand.air.taken_kg_s), 0.0)
        for demand, course in zip(demands, courses_kg_s, strict=True)
    }
    outdoor = mass_kg_s if system.takes_outdoor_air_alone or system.economizer != "none" else least_outdoor_kg_s
    together = float(np.sum(list(back.values()), axis=0).max())
    return LaneFlows(
        {room: flow * volume_m3_kg for room, flow in back.items()},
        together * volume_m3_kg,
        outdoor * volume_m3_kg,
        max(0.0, together - (mass_kg_s - outdoor)) * volume_m3_kg,
    )


def _lights_w(system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors) -> Array:
    """Heat of lights into its return air on the design days, (months, steps) [W]; of rooms that it serves first."""
    first = {terminal.room for terminal in system.terminals if terminal.rank == 1}
    total = np.zeros(outside.dry_bulb_c.shape)
    for demand in demands:
        for gain in demand.room.return_gains if demand.room.id in first else ():
            total += gain.sensible_w * np.stack([step_averages(gain.on(m.month)) for m in outside.climate.months])
    return total


def _joined(parts: Sequence[Asked]) -> Asked:
    """Rooms together."""
    return Asked(*(np.concatenate([getattr(part, name) for part in parts]) for name in Asked.__dataclass_fields__))


def _made_up(flow_kg_s: Array, airs: Sequence[RoomAir]) -> Array:
    """Flows with what a make-up unit owes its rooms in place of theirs."""
    if all(one.make_up_kg_s is None for one in airs):
        return flow_kg_s
    flows = np.array(flow_kg_s)
    for row, owed in enumerate(one.make_up_kg_s for one in airs):
        if owed is not None:
            flows[row] = np.where(flows[row] > 0.0, owed, 0.0)
    return flows


def _running(system: AirSystem, outside: Outdoors) -> Array:
    """1 at every step of the months at which the unit runs, else 0, (months, 144)."""
    if not system.running:
        return np.ones_like(outside.dry_bulb_c)
    days = [step_averages(system.running[month.month - 1]) > 0.5 for month in outside.climate.months]
    return np.stack(days).astype(np.float64)


def _running_in_winter(system: AirSystem, outside: Outdoors) -> Array:
    """The same on the winter day, (1, 144)."""
    day = np.ones((1, outside.dry_bulb_c.shape[1]))
    return day if system.running_winter is None else (step_averages(system.running_winter) > 0.5)[None] * day


def _heat_most(demands: Sequence[RoomDemand], reheats: Sequence[bool], on: Array) -> Array:
    """Most that heats each room: its emitter at any time, its terminal while the unit runs, (R, D, 144)."""
    limits = np.zeros((len(demands), *on.shape))
    for limit, demand, reheated in zip(limits, demands, reheats, strict=True):
        if demand.room.heated and demand.has_emitter:
            limit[:] = np.inf
        elif demand.room.heated and reheated:
            limit[on > 0.0] = np.inf
    return limits


def _cp(flows: Mapping[str, RoomAirflow]) -> float:
    return next(iter(flows.values())).supply.specific_heat_j_kgk


def _least_humidity(system: AirSystem, demands: Sequence[RoomDemand], pressure_pa: float) -> float:
    """Humidity ratio that keeps the lower limit of every room that has one, at its heating set-point [kg/kg]."""
    wanted = [
        float(humidity_ratio_from_relative(d.room.heating_setpoint_c, d.room.humidity.low, pressure_pa))
        for d in demands
        if d.room.humidity is not None and d.room.humidity.low is not None
    ]
    return max(wanted, default=0.0) if system.humidifier != "none" else 0.0


def _winter_season(
    system: AirSystem,
    demands: Sequence[RoomDemand],
    reheats: Sequence[bool],
    on: Array,
    outside: Outdoors,
    least_kg: Array,
    most_kg: Array,
    volume: float,
    cp: float,
) -> Season:
    """The winter day: no sun, no people; supply air at the winter value, variable terminals at their least."""
    cold = outside.climate.winter_dry_bulb_c
    day = np.ones((1, outside.dry_bulb_c.shape[1]))
    flow = least_kg if system.follows_load else most_kg
    airs = [d.winter_air for d in demands]
    flows = _made_up(flow[:, None, None] * on, airs)
    wanted_c = _UNHEATED_C if system.kind == ROOM_UNIT else system.winter_supply_c
    return Season(
        _joined([d.winter for d in demands]),
        airs,
        outdoor_c=cold * day,
        outdoor_w=float(saturation_humidity_ratio(cold, outside.pressure_pa)) * day,
        supply_c=wanted_c * day,
        least_kg_s=flows,
        most_kg_s=flows,
        heat_most_w=_heat_most(demands, reheats, on),
        cool_most_w=0.0,
        latent_w=np.zeros((len(demands), *day.shape)),
        leak_kg_s=np.array([d.room.winter_leak_m3_s / volume for d in demands]),
        cp_j_kgk=cp,
        by_mass=True,
    )


def _served_room(
    index: int,
    demand: RoomDemand,
    reheats: bool,
    summer: Season,
    warm: tuple[Served, Path, Array],
    cold: tuple[Served, Path, Array],
    fan_w: float,
    spares_heat: bool,
) -> ServedRoom:
    """A room as its system serves it; a fan in its terminal spares reheat where it runs while that heats."""
    (served, path, flow), (winter, winter_path, winter_flow) = warm, cold
    given, rate, air = served.heat_w[index], served.rate_w_k[index], served.air_c[index]
    heat = np.maximum(given, 0.0)
    taken = rate * (air - path.room_supply_c(index))
    # Where an emitter heats the room, the terminal makes up for what the air takes out of it, and no more.
    reheat = (
        (np.minimum(heat, np.maximum(taken, 0.0)) if demand.has_emitter else heat) if reheats else np.zeros_like(heat)
    )
    emitted = heat - reheat
    by_fan_w = fan_w if spares_heat and reheats else 0.0
    reheat = np.maximum(reheat - by_fan_w, 0.0)
    heat_w = winter.heat_w[index] + (demand.allowance_w if demand.room.heated else 0.0)
    over, under = air - summer.asked.high_c[index], summer.asked.low_c[index] - air
    return ServedRoom(
        flow_kg_s=flow[index],
        winter_flow_kg_s=winter_flow[index],
        reheat_w=reheat.astype(np.float32),
        emitter_w=emitted.astype(np.float32),
        heat_w=heat_w,
        winter_reheat_w=np.maximum(heat_w - by_fan_w, 0.0)
        if reheats and not demand.has_emitter
        else np.zeros_like(heat_w),
        fan_w=fan_w,
        air_c=air,
        winter_air_c=winter.air_c[index],
        cooling_w=taken.astype(np.float32),
        winter_warmth_w=winter.rate_w_k[index] * (winter_path.room_supply_c(index) - winter.air_c[index]),
        over_k=max(0.0, float(over.max())),
        under_k=max(0.0, float(under.max())),
        chilled_w=np.maximum(-given, 0.0).astype(np.float32),
    )
