"""An air system: its flows, what its rooms get, the path of its air in summer and winter, ducts and fan.

Rooms come as they are without systems (asked). From their loads come the terminals' flows and the temperature of the supply
air; with these the rooms are served (room/supply/served.py), and the air is walked from the louvre to the terminal and back (walk.py)
at every step of every design day and of the winter day. Served rooms and path are brought together in rounds: the moisture
of the supply air is in its heat capacity.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.airflow import RoomAirflow, size_airflow
from pendrum_core.air.economizer import Economizer
from pendrum_core.air.fan import FanCurve, FanResult, size_fan
from pendrum_core.air.humidifier import Humidifier
from pendrum_core.air.outdoor_air import SIMPLIFIED_LEAST, SystemOutdoorAir, system_outdoor_air, zone_outdoor_air_m3_s
from pendrum_core.air.recovery import Recovery
from pendrum_core.air.season import NOTHING, RoomAir, Season, served_by, settled
from pendrum_core.air.walk import Ducts, Path, Unit
from pendrum_core.duct.methods import DuctRules
from pendrum_core.duct.network import DuctResult, air, size_tree
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import CENTRAL, MAKE_UP, ROOM_UNIT, AirSystem, Terminal
from pendrum_core.moist_air import (
    dew_point_c,
    enthalpy_j_kg,
    humidity_ratio_from_relative,
    saturation_humidity_ratio,
    specific_volume_m3_kg,
)
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.supply.served import Asked, Served
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Single = NDArray[np.float32]
COLDEST_COIL_C = -10.0  # air off a cooling coil in the validity of this path
_UNHEATED_C = -100.0  # asked of a unit that has no heating coil of its own
_PEOPLE_THERE = 0.2  # of a room's largest moisture gain: while it is above, somebody is there
_M3_KG = 0.84  # of outdoor air, for telling whether it is enough
_LEAK_C = 20.0  # volume of leaking air is taken at this temperature


@dataclass(frozen=True)
class RoomDemand:
    """What the system needs to know of a room.

    Attributes:
        sensible_w: signed sensible load, (months, 144) [W].
        latent_w: moisture from people and equipment, (months, 144) [W].
        summer, winter: the room as it is without systems, (1, months, 144) and (1, 1, 144).
        allowance_w: heating-up allowance that is no part of what is asked on the winter day [W].
        has_emitter: whether an emitter heats it; then its terminal only makes up for supply air that is too cold.
        air, winter_air: what flows through it beside the system's air.
    """

    room: Room
    sensible_w: Array
    latent_w: Array
    summer: Asked
    winter: Asked
    allowance_w: float = 0.0
    has_emitter: bool = False
    air: RoomAir = NOTHING
    winter_air: RoomAir = NOTHING

    @property
    def left_w(self) -> Array:
        """Its sensible load less what systems that come first bring at its set-point, (months, 144) [W]."""
        if self.air.first is None:
            return self.sensible_w
        first = self.air.first
        return np.asarray(self.sensible_w - first.rate_w_k * (self.room.cooling_setpoint_c - first.supply_c))


@dataclass(frozen=True)
class ServedRoom:
    """A room under its supply air: summer (months, 144), winter (1, 144).

    Attributes:
        flow_kg_s, winter_flow_kg_s: of dry air.
        reheat_w, emitter_w: of its terminal and of its emitter in summer; `heat_w` what it needs on the winter day.
        air_c, winter_air_c: its air [°C].
        cooling_w: what the supply air takes out of it, signed; `winter_warmth_w` what it brings on the winter day.
        over_k, under_k: how far it gets above its cooling set-point and below its heating set-point in summer [K].
    """

    flow_kg_s: Array
    winter_flow_kg_s: Array
    reheat_w: Single
    emitter_w: Single
    heat_w: Array
    air_c: Array
    winter_air_c: Array
    cooling_w: Single
    winter_warmth_w: Array
    over_k: float
    under_k: float


@dataclass(frozen=True)
class AirSystemResult:
    """A sized air system.

    Attributes:
        airflows: design flows by room; `served` what each room gets.
        mass_kg_s, flow_m3_s: dry air and actual flow of the supply fan's design, the largest coincident sum.
        least_outdoor_kg_s: outdoor air that it never takes less of while all of it runs; `outdoor_share` that over the flow.
        ducts: None where no tree is drawn yet; then only the unit's own drops count.
        summer, winter: path of the air, (months, 144) and (1, 144).
        asked_supply_c: supply temperature wanted at the terminals, (months, 144) [°C].
        short_w: cooling that the airflow cannot carry, (months, 144) [W].
        peak: (month index, step) of the coil's largest total.
        balance: what heat balances of unit and rooms leave open at any step, relative to their throughput [-].
    """

    id: str
    airflows: Mapping[str, RoomAirflow]
    served: Mapping[str, ServedRoom]
    mass_kg_s: float
    flow_m3_s: float
    outdoor_air: SystemOutdoorAir
    outdoor_share: float
    least_outdoor_kg_s: float
    ducts: DuctResult | None
    fan: FanResult
    summer: Path
    winter: Path
    asked_supply_c: Array
    short_w: Array
    peak: tuple[int, int]
    balance: float
    converged: bool
    pressure_pa: float

    @property
    def coil_total_w(self) -> Array:
        """On the cooling coil, net of condensate, (months, 144) [W]."""
        return self.summer.cooling_w

    @property
    def coil_sensible_w(self) -> Array:
        """Sensible part of it, (months, 144) [W]."""
        return np.asarray(self.summer.flow_kg_s * self.summer.coil.sensible_j_kg)

    @property
    def condensate_kg_s(self) -> Array:
        """Water off the cooling coil, (months, 144) [kg/s]."""
        return np.asarray(self.summer.flow_kg_s * self.summer.coil.condensate_kg_kg)

    @cached_property
    def reheat_w(self) -> Array:
        """Of all terminals together, (months, 144) [W]."""
        return np.asarray(sum(room.reheat_w for room in self.served.values()))

    @property
    def heating_coil_w(self) -> float:
        """Largest duty of the heating coils in the unit together, on the winter day or in any summer month [W]."""
        summer = self.summer.heating_w + self.summer.reheat_w
        return max(float(self.winter.heating_w.max()), float(summer.max()))

    @cached_property
    def outdoor_air_j_kg(self) -> tuple[Array, Array]:
        """What outdoor air brings to the coil above the return air, per kg of supply air: sensible, latent (months, 144)."""
        p = self.summer
        dry = enthalpy_j_kg(p.fresh_c, p.plenum_w)
        sensible = p.outdoor_share * (dry - enthalpy_j_kg(p.plenum_c, p.plenum_w))
        return sensible, p.outdoor_share * (enthalpy_j_kg(p.fresh_c, p.fresh_w) - dry)

    @cached_property
    def below_dew_point(self) -> tuple[float, int, int]:
        """How far the supply air is at most below the dew point of the return air [K], month index and step."""
        p = self.summer
        # Where that air is moistest against air saturated at the supply temperature, its dew point is furthest above it.
        moist = p.return_w / saturation_humidity_ratio(p.supply_c, self.pressure_pa)
        month, step = (int(i) for i in np.unravel_index(int(moist.argmax()), moist.shape))
        below = float(dew_point_c(p.return_w[month, step], self.pressure_pa)) - float(p.supply_c[month, step])
        return below, month, step


def _supply_course(
    system: AirSystem, demands: Sequence[RoomDemand], flows: Mapping[str, RoomAirflow], outdoor_c: Array
) -> tuple[Array, Array]:
    """Supply temperature at the terminals and cooling that falls short, each (months, 144), by the system's rule.

    With constant flow "rooms" follows the room that asks for the coldest air, never below the design value and, where none asks
    for any, not above what it is in winter; with variable flow it is the design value.
    """
    shape = demands[0].sensible_w.shape
    coldest = np.full(shape, min(demand.room.cooling_setpoint_c for demand in demands))
    asked: list[tuple[float, float, Array]] = []
    for demand in demands:
        flow = flows[demand.room.id]
        rate = flow.mass_kg_s * flow.supply.specific_heat_j_kgk
        if demand.room.cooled and rate > 0.0:
            asked.append((rate, demand.room.cooling_setpoint_c, demand.left_w))
            np.minimum(coldest, demand.room.cooling_setpoint_c - demand.left_w / rate, out=coldest)
    supply = np.clip(coldest, system.supply_c, max(system.supply_c, system.winter_supply_c))
    if system.kind == ROOM_UNIT:
        supply = np.maximum(coldest, system.supply_c)
    elif system.supply_rule == "outdoors":
        ends = (system.reset_cold_c, system.reset_warm_c), (system.winter_supply_c, system.supply_c)
        supply = np.interp(outdoor_c, *ends)
    elif system.supply_rule == "fixed" or system.volume == "variable":
        supply = np.full(shape, system.supply_c)
    short = np.zeros(shape)
    if (coldest < supply - 1e-9).any():
        for rate, room_c, sensible in asked:
            short += np.maximum(0.0, sensible - rate * (room_c - supply))
    return supply, short


def size_system(system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors) -> AirSystemResult:
    """Size a system from its rooms to its coils and fan; `demands` in the order of the terminals.

    Raises:
        ValueError: no room has any airflow, the supply is not colder than a room, or a parameter is out of its range.
        TreeError: the duct sections are not a tree.
    """
    pressure = outside.pressure_pa
    flows, breathing = _flows(system, demands, outside)
    supply = {room: flow.design_m3_s for room, flow in flows.items()}
    if sum(supply.values()) <= 0.0:
        raise ValueError(f"system {system.name}: none of its rooms needs any air")
    variable = system.volume == "variable" and system.kind != MAKE_UP
    zone = {room: flow.ventilation_m3_s for room, flow in flows.items()}
    least = {room: least_flow_m3_s(system, flow) for room, flow in flows.items()}
    intake = system_outdoor_air(
        breathing, zone, supply, system.ventilation, system.takes_outdoor_air_alone, least if variable else None
    )
    target, short = _supply_course(system, demands, flows, outside.dry_bulb_c)
    most_kg, least_kg = (
        np.array([flows[d.room.id].mass_kg_s * (of[d.room.id] / max(supply[d.room.id], 1e-12)) for d in demands])
        for of in (supply, least)
    )
    reheats = system.reheat != "none"
    volume = float(specific_volume_m3_kg(_LEAK_C, 0.0, pressure))
    on = _running(system, outside)
    summer = Season(
        _joined([d.summer for d in demands]),
        [d.air for d in demands],
        outdoor_c=outside.dry_bulb_c,
        outdoor_w=outside.humidity_ratio,
        supply_c=target,
        least_kg_s=_made_up(least_kg[:, None, None] * on, [d.air for d in demands]),
        most_kg_s=_made_up(most_kg[:, None, None] * on, [d.air for d in demands]),
        heat_most_w=_heat_most(demands, reheats, on),
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
    ducts, fan = _ducts_and_fan(system, flows, mass, pressure)
    alone = system.takes_outdoor_air_alone
    least_outdoor = mass if alone else min(mass, mass * intake.intake_m3_s / total_flow)
    unit = unit_of(system, fan, least_outdoor, pressure, ducts)
    summer_served, path, summer_flow, summer_open = settled(summer, replace(unit, target_c=target), served)
    winter = _winter_season(
        system, demands, outside=outside, least_kg=least_kg, most_kg=most_kg, volume=volume, cp=summer.cp_j_kgk
    )
    winter_unit = replace(
        unit, target_c=winter.supply_c, cools=False, least_return_w=_least_humidity(system, demands, pressure)
    )
    cold = served_by(winter, winter.supply_c)
    winter_served, winter_path, winter_flow, winter_open = settled(winter, winter_unit, cold)
    coil = path.cooling_w
    month, step = np.unravel_index(int(np.argmax(coil)), coil.shape)
    rooms = {
        d.room.id: _served_room(
            i, d, reheats, summer, (summer_served, path, summer_flow), (winter_served, winter_path, winter_flow)
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
        outdoor_share=least_outdoor / mass,
        least_outdoor_kg_s=least_outdoor,
        ducts=ducts,
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
    )


def _lights_w(system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors) -> Array:
    """Heat of lights into its return air on the design days, (months, steps) [W]; of rooms that it serves first."""
    first = {terminal.room for terminal in system.terminals if terminal.rank == 1}
    total = np.zeros(outside.dry_bulb_c.shape)
    for demand in demands:
        for gain in demand.room.return_gains if demand.room.id in first else ():
            total += gain.sensible_w * np.stack([step_averages(gain.on(m.month)) for m in outside.climate.months])
    return total


def least_flow_m3_s(system: AirSystem, flow: RoomAirflow) -> float:
    """Flow that a terminal never goes below while its unit runs.

    A variable one keeps so much of its room's outdoor air as 62.1, 6.2.5.3 asks, so that no room's fraction makes the whole unit
    take outdoor air alone.
    """
    if system.volume != "variable" or system.kind != CENTRAL:
        return flow.design_m3_s
    return min(
        flow.design_m3_s,
        max(system.least_share * flow.design_m3_s, SIMPLIFIED_LEAST * flow.ventilation_m3_s, flow.air_changes_m3_s),
    )


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


def _heat_most(demands: Sequence[RoomDemand], reheats: bool, on: Array) -> Array:
    """Most that heats each room: its emitter at any time, its terminal while the unit runs, (R, D, 144)."""
    limits = np.zeros((len(demands), *on.shape))
    for limit, demand in zip(limits, demands, strict=True):
        if demand.room.heated and demand.has_emitter:
            limit[:] = np.inf
        elif demand.room.heated and reheats:
            limit[on > 0.0] = np.inf
    return limits


def _cp(flows: Mapping[str, RoomAirflow]) -> float:
    return next(iter(flows.values())).supply.specific_heat_j_kgk


def _flows(
    system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors
) -> tuple[dict[str, RoomAirflow], dict[str, float]]:
    """Design flows of the terminals, and the breathing zones' outdoor air [m3/s]."""
    over_need = SIMPLIFIED_LEAST if system.ventilation == "62.1 simplified" else 1.0
    flows: dict[str, RoomAirflow] = {}
    breathing: dict[str, float] = {}
    for terminal, demand in zip(system.terminals, demands, strict=True):
        # Where a unit of outdoor air alone stands beside another one, that one cools.
        cools = demand.room.cooled and not (terminal.shared and terminal.rank == 1 and system.outdoor_only)
        peak = max(0.0, float(demand.left_w.max())) if cools else 0.0
        flow = size_airflow(
            _asking(system, terminal, demand),
            demand.room,
            peak_sensible_w=peak,
            supply_c=system.supply_c,
            pressure_pa=outside.pressure_pa,
            least_over_need=over_need,
            owed_kg_s=_owed_kg_s(demand),
        )
        flows[demand.room.id] = flow
        breathing[demand.room.id] = flow.ventilation_m3_s * terminal.effectiveness
    return flows, breathing


def _asking(system: AirSystem, terminal: Terminal, demand: RoomDemand) -> Terminal:
    """The terminal with the ventilation that this system owes its room.

    None where it moves room air alone, or where a system before it owes it. What a make-up unit brings while people are there
    counts as theirs.
    """
    first = demand.air.first
    if system.kind == ROOM_UNIT or (terminal.rank > 1 and first is not None):
        return replace(terminal, air_per_person_m3_s=0.0, air_per_area_m3_s_m2=0.0, outdoor_air_changes=0.0)
    if first is None:
        return terminal
    here = demand.latent_w > _PEOPLE_THERE * max(float(demand.latent_w.max()), 1e-9)
    brought = float(first.outdoor_kg_s[here].min(initial=np.inf)) if here.any() else 0.0
    need = zone_outdoor_air_m3_s(terminal, demand.room.floor_area_m2, demand.room.volume_m3)
    left = 1.0 - min(1.0, brought * _M3_KG / need) if need > 0.0 and np.isfinite(brought) else 1.0
    return replace(
        terminal,
        air_per_person_m3_s=left * terminal.air_per_person_m3_s,
        air_per_area_m3_s_m2=left * terminal.air_per_area_m3_s_m2,
        outdoor_air_changes=left * terminal.outdoor_air_changes,
    )


def _owed_kg_s(demand: RoomDemand) -> float | None:
    """Most that a make-up unit owes a room, in either season."""
    owed = [float(air.make_up_kg_s.max()) for air in (demand.air, demand.winter_air) if air.make_up_kg_s is not None]
    return max(owed) if owed else None


def _ducts_and_fan(
    system: AirSystem, flows: Mapping[str, RoomAirflow], mass_kg_s: float, pressure_pa: float
) -> tuple[DuctResult | None, FanResult]:
    """The tree of ducts for the terminals' design flows, and the fan for what flows at one time.

    Raises:
        ValueError: the fan warms the air by more than any coil can make up for.
    """
    unit_drop = system.filter_drop_pa + system.coil_drop_pa + system.other_drop_pa
    fluid = air(system.supply_c, pressure_pa)
    ducts: DuctResult | None = None
    if any(section.end in flows for section in system.sections):
        rules = DuctRules(
            system.duct_method,
            system.friction_limit_pa_m,
            velocity_limit_m_s=system.velocity_limit_m_s,
            roughness_m=system.roughness_m,
            leak_class=system.duct_leak_class,
            insulation_m=system.duct_insulation_m,
            around_c=system.duct_around_c,
        )
        design = {room: flow.design_m3_s for room, flow in flows.items()}
        ducts = size_tree(system.sections, design, fluid, rules, unit_drop, system.outlet_velocity_m_s)
    outlet = fluid.density_kg_m3 * system.outlet_velocity_m_s**2 / 2.0
    total_pa = ducts.fan_total_pa if ducts else unit_drop
    one = next(iter(flows.values())).supply
    through = mass_kg_s / (1.0 - _leak_share(system, ducts))
    off_coil = float(specific_volume_m3_kg(system.supply_c, one.humidity_ratio, pressure_pa))
    fan = size_fan(
        through * off_coil,
        through * one.specific_heat_j_kgk,
        total_pa=total_pa,
        static_pa=total_pa - outlet,
        efficiency=system.fan_efficiency,
        motor_efficiency=system.motor_efficiency,
        motor_margin=system.motor_margin,
    )
    if system.supply_c - fan.rise_k < COLDEST_COIL_C:
        raise ValueError(
            f"system {system.name}: its fan at {fan.total_pa:.0f} Pa warms the air by {fan.rise_k:.1f} K, so the coil would "
            f"have to leave air below {COLDEST_COIL_C:.0f} °C; lower the pressure or raise the supply temperature"
        )
    return ducts, fan


def _leak_share(system: AirSystem, ducts: DuctResult | None) -> float:
    """Of the fan's flow, lost on the way: by the ducts' class where they are drawn and have one, else as stated."""
    return ducts.leak_share if ducts is not None and system.duct_leak_class else system.duct_leak_share


def unit_of(
    system: AirSystem, fan: FanResult, least_outdoor_kg_s: float, pressure_pa: float, ducts: DuctResult | None
) -> Unit:
    """The unit of a sized system as the walk takes it."""
    efficiencies = (system.fan_efficiency, system.motor_efficiency)
    held = min(system.held_pa, fan.total_pa) if system.volume == "variable" else 0.0
    back = None
    if system.return_fan_pa > 0.0 and not system.takes_outdoor_air_alone:
        back = FanCurve(fan.flow_m3_s, system.return_fan_pa, 0.0, *efficiencies)
    recovery = None
    if system.recovery_sensible > 0.0 or system.recovery_latent > 0.0:
        recovery = Recovery(system.recovery_sensible, system.recovery_latent, system.frost, system.frost_limit_c)
    return Unit(
        pressure_pa=pressure_pa,
        target_c=np.array(system.supply_c),
        at_terminals=True,
        least_outdoor_kg_s=least_outdoor_kg_s,
        bypass=system.bypass_factor,
        supply_fan=FanCurve(fan.flow_m3_s, fan.total_pa, held, *efficiencies),
        return_fan=back,
        blow_through=system.blow_through,
        outdoor_only=system.takes_outdoor_air_alone,
        cools=system.cools,
        heats=system.kind != ROOM_UNIT,
        economizer=Economizer(system.economizer, system.economizer_limit),
        recovery=recovery,
        humidifier=Humidifier(system.humidifier),
        dry_to_c=system.dry_to_c,
        ducts=Ducts(_leak_share(system, ducts), ua_w_k=ducts.gain_w_k if ducts else 0.0, around_c=system.duct_around_c),
    )


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
    outside: Outdoors,
    least_kg: Array,
    most_kg: Array,
    volume: float,
    cp: float,
) -> Season:
    """The winter day: no sun, no people; supply air at the winter value, variable terminals at their least."""
    cold = outside.climate.winter_dry_bulb_c
    day = np.ones((1, outside.dry_bulb_c.shape[1]))
    flow = least_kg if system.volume == "variable" else most_kg
    on = day if system.running_winter is None else (step_averages(system.running_winter) > 0.5)[None] * day
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
        heat_most_w=_heat_most(demands, system.reheat != "none", on),
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
) -> ServedRoom:
    (served, path, flow), (winter, winter_path, winter_flow) = warm, cold
    heat, rate, air = served.heat_w[index], served.rate_w_k[index], served.air_c[index]
    taken = rate * (air - path.supply_c)
    # Where an emitter heats the room, the terminal makes up for what the air takes out of it, and no more.
    reheat = (
        (np.minimum(heat, np.maximum(taken, 0.0)) if demand.has_emitter else heat) if reheats else np.zeros_like(heat)
    )
    over, under = air - summer.asked.high_c[index], summer.asked.low_c[index] - air
    return ServedRoom(
        flow_kg_s=flow[index],
        winter_flow_kg_s=winter_flow[index],
        reheat_w=reheat.astype(np.float32),
        emitter_w=(heat - reheat).astype(np.float32),
        heat_w=winter.heat_w[index] + (demand.allowance_w if demand.room.heated else 0.0),
        air_c=air,
        winter_air_c=winter.air_c[index],
        cooling_w=taken.astype(np.float32),
        winter_warmth_w=winter.rate_w_k[index] * (winter_path.supply_c - winter.air_c[index]),
        over_k=max(0.0, float(over.max())),
        under_k=max(0.0, float(under.max())),
    )
