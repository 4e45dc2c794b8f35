"""An air system: its flows, what its rooms get, the path of its air in summer and winter, ducts and fan.

Rooms come as they are without systems (asked). From their loads come the terminals' flows and the temperature of the supply
air; with these the rooms are served (room/served.py), and the air is walked from the louvre to the terminal and back (walk.py)
at every step of every design day and of the winter day. Served rooms and path are brought together in rounds: the moisture
of the supply air is in its heat capacity.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.airflow import RoomAirflow, size_airflow
from pendrum_core.air.economizer import Economizer
from pendrum_core.air.fan import FanCurve, FanResult, size_fan
from pendrum_core.air.humidifier import Humidifier
from pendrum_core.air.outdoor_air import SIMPLIFIED_LEAST, SystemOutdoorAir, system_outdoor_air
from pendrum_core.air.recovery import Recovery
from pendrum_core.air.walk import Ducts, Path, Rooms, Unit, walk
from pendrum_core.duct.network import DuctResult, air, size_tree
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import AirSystem
from pendrum_core.moist_air import (
    dew_point_c,
    enthalpy_j_kg,
    humidity_ratio_from_relative,
    saturation_humidity_ratio,
    specific_heat_j_kgk,
    specific_volume_m3_kg,
)
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.room.served import Asked, Served, serve
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Single = NDArray[np.float32]
COLDEST_COIL_C = -10.0  # air off a cooling coil in the validity of this path
_ROUNDS, _AT_REST, _AT_REST_K = 8, 1e-9, 1e-7
_USUAL_W = 0.008
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
    """

    room: Room
    sensible_w: Array
    latent_w: Array
    summer: Asked
    winter: Asked
    allowance_w: float = 0.0
    has_emitter: bool = False


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
        """Largest duty of the heating coil, on the winter day or in any summer month [W]."""
        return max(float(self.winter.heating_w.max()), float(self.summer.heating_w.max()))

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
    system: AirSystem, demands: Sequence[RoomDemand], flows: Mapping[str, RoomAirflow]
) -> tuple[Array, Array]:
    """Supply temperature at the terminals and cooling that falls short, each (months, 144).

    With constant flow the temperature follows the room that asks for the coldest air, never below the design value; with
    variable flow it is the design value.
    """
    shape = demands[0].sensible_w.shape
    coldest = np.full(shape, min(demand.room.cooling_setpoint_c for demand in demands))
    asked: list[tuple[float, float, Array]] = []
    for demand in demands:
        flow = flows[demand.room.id]
        rate = flow.mass_kg_s * flow.supply.specific_heat_j_kgk
        if demand.room.cooled and rate > 0.0:
            asked.append((rate, demand.room.cooling_setpoint_c, demand.sensible_w))
            np.minimum(coldest, demand.room.cooling_setpoint_c - demand.sensible_w / rate, out=coldest)
    supply = np.maximum(coldest, system.supply_c)
    if system.volume == "variable":
        supply = np.full(shape, system.supply_c)
    short = np.zeros(shape)
    if (coldest < system.supply_c - 1e-9).any():
        for rate, room_c, sensible in asked:
            short += np.maximum(0.0, sensible - rate * (room_c - supply))
    return supply, short


def _joined(parts: Sequence[Asked]) -> Asked:
    """Rooms together."""
    return Asked(*(np.concatenate([getattr(part, name) for part in parts]) for name in Asked.__dataclass_fields__))


@dataclass(frozen=True)
class _Season:
    """What a season is worked out from: rooms, outdoors, supply temperature, flows' limits [kg/s], and who is heated."""

    asked: Asked
    outdoor_c: Array
    outdoor_w: Array
    supply_c: Array
    least_kg_s: Array
    most_kg_s: Array
    heat_most_w: Array
    latent_w: Array
    leak_kg_s: Array
    cp_j_kgk: float
    is_winter: bool = False


def _serve(season: _Season, supply_c: Array, cp_j_kgk: Array | float | None = None) -> Served:
    """Rooms under their supply air; its heat capacity at the humidity that flows are sized with, where it is not given."""
    cp = season.cp_j_kgk if cp_j_kgk is None else cp_j_kgk
    least, most = (flow * cp for flow in (season.least_kg_s, season.most_kg_s))
    return serve(season.asked, np.broadcast_to(supply_c, season.asked.air_c.shape), least, most, season.heat_most_w)


def _settled(season: _Season, unit: Unit, served: Served) -> tuple[Served, Path, Array, float]:
    """Served rooms and the path of the air brought together, the rooms' flows, and what their balances leave open, relative.

    In summer a terminal gives the heat capacity rate that it was sized for: how much dry air that is follows from the moisture of
    the supply air, within half a per cent. The rooms are served anew where the air comes at another temperature than was
    wanted, as return air that is warm enough in winter; and on the winter day, whose air is drier than that of sizing.
    """
    shape = season.asked.air_c.shape
    wanted = np.broadcast_to(np.asarray(unit.target_c), shape[1:])
    supply_w = np.full(shape[1:], _USUAL_W)
    path: Path | None = None
    leak = np.broadcast_to(season.leak_kg_s[:, None, None], shape)
    for _ in range(_ROUNDS):
        flow = served.rate_w_k / specific_heat_j_kgk(supply_w)[None]
        rooms = Rooms(flow, np.zeros((1, *shape[1:])), served.air_c, season.latent_w, leak, np.zeros(shape[1:]))
        path = walk(unit, rooms, season.outdoor_c, season.outdoor_w, path)
        moving = path.flow_kg_s > 0.0
        off_k = float(np.abs(np.where(moving, path.supply_c - wanted, 0.0)).max())
        apart = float(np.abs(np.where(moving, path.supply_w - supply_w, 0.0)).max())
        supply_w = path.supply_w
        if off_k > _AT_REST_K or (season.is_winter and apart > _AT_REST):
            wanted = np.where(moving, path.supply_c, wanted)
            served = _serve(season, wanted, specific_heat_j_kgk(supply_w)[None] if season.is_winter else None)
        elif apart < _AT_REST:
            break
    assert path is not None
    brought = flow * (enthalpy_j_kg(path.supply_c, path.supply_w) - enthalpy_j_kg(served.air_c, path.supply_w))
    counted = served.rate_w_k * (path.supply_c - served.air_c)
    scale = np.maximum(np.abs(brought).sum(axis=0), 1.0)
    return served, path, flow, float((np.abs(brought - counted).sum(axis=0) / scale).max())


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
    variable = system.volume == "variable"
    zone = {room: flow.ventilation_m3_s for room, flow in flows.items()}
    # So much of a room's outdoor air a variable terminal never goes below: what 62.1, 6.2.5.3 asks, so that no room's fraction
    # makes the whole unit take outdoor air alone.
    least = {
        room: min(
            flow.design_m3_s,
            max(system.least_share * flow.design_m3_s, SIMPLIFIED_LEAST * flow.ventilation_m3_s, flow.air_changes_m3_s),
        )
        if variable
        else flow.design_m3_s
        for room, flow in flows.items()
    }
    intake = system_outdoor_air(
        breathing, zone, supply, system.ventilation, system.outdoor_only, least if variable else None
    )
    target, short = _supply_course(system, demands, flows)
    most_kg, least_kg = (
        np.array([flows[d.room.id].mass_kg_s * (of[d.room.id] / max(supply[d.room.id], 1e-12)) for d in demands])
        for of in (supply, least)
    )
    reheats = system.reheat != "none"
    volume = float(specific_volume_m3_kg(_LEAK_C, 0.0, pressure))
    on = _running(system, outside)
    summer = _Season(
        _joined([d.summer for d in demands]), outside.dry_bulb_c, outside.humidity_ratio, target,
        least_kg[:, None, None] * on, most_kg[:, None, None] * on,
        _heat_most(demands, reheats, on),
        np.stack([d.latent_w for d in demands]), np.array([d.room.infiltration_m3_s / volume for d in demands]), _cp(flows),
    )  # fmt: skip
    # The largest sum of what rooms take at one time: what fan and unit carry.
    served = _serve(summer, target)
    mass = float(served.rate_w_k.sum(axis=0).max()) / summer.cp_j_kgk
    total_flow = sum(supply.values()) * mass / max(float(most_kg.sum()), 1e-12)
    ducts, fan = _ducts_and_fan(system, flows, mass, pressure)
    least_outdoor = min(mass, mass * intake.intake_m3_s / total_flow)
    unit = _unit(system, fan, least_outdoor, pressure)
    summer_served, path, summer_flow, summer_open = _settled(summer, _with(unit, target), served)
    winter = _winter_season(system, demands, outside, least_kg, most_kg, volume, summer.cp_j_kgk)
    winter_unit = _with(unit, winter.supply_c, cools=False, least_return_w=_least_humidity(system, demands, pressure))
    cold = _serve(winter, winter.supply_c)
    winter_served, winter_path, winter_flow, winter_open = _settled(winter, winter_unit, cold)
    coil = path.cooling_w
    month, step = np.unravel_index(int(np.argmax(coil)), coil.shape)
    rooms = {
        d.room.id: _served_room(
            i, d, reheats, summer, (summer_served, path, summer_flow), (winter_served, winter_path, winter_flow)
        )
        for i, d in enumerate(demands)
    }
    return AirSystemResult(
        id=system.id, airflows=flows, served=rooms, mass_kg_s=mass, flow_m3_s=total_flow, outdoor_air=intake,
        outdoor_share=least_outdoor / mass, least_outdoor_kg_s=least_outdoor, ducts=ducts, fan=fan, summer=path,
        winter=winter_path, asked_supply_c=target, short_w=short, peak=(int(month), int(step)),
        balance=max(path.balance, winter_path.balance, summer_open, winter_open),
        converged=bool(
            path.settled and winter_path.settled and summer_served.settled.all() and winter_served.settled.all()
        ),
        pressure_pa=pressure,
    )  # fmt: skip


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
        peak = max(0.0, float(demand.sensible_w.max())) if demand.room.cooled else 0.0
        flow = size_airflow(terminal, demand.room, peak, system.supply_c, outside.pressure_pa, over_need)
        flows[demand.room.id] = flow
        breathing[demand.room.id] = flow.ventilation_m3_s * terminal.effectiveness
    return flows, breathing


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
        ducts = size_tree(
            system.sections, {room: flow.design_m3_s for room, flow in flows.items()}, fluid, system.friction_limit_pa_m,
            system.velocity_limit_m_s, system.roughness_m, unit_drop, system.outlet_velocity_m_s,
        )  # fmt: skip
    outlet = fluid.density_kg_m3 * system.outlet_velocity_m_s**2 / 2.0
    total_pa = ducts.fan_total_pa if ducts else unit_drop
    one = next(iter(flows.values())).supply
    through = mass_kg_s / (1.0 - system.duct_leak_share)
    off_coil = float(specific_volume_m3_kg(system.supply_c, one.humidity_ratio, pressure_pa))
    fan = size_fan(
        through * off_coil, through * one.specific_heat_j_kgk, total_pa, total_pa - outlet,
        system.fan_efficiency, system.motor_efficiency, system.motor_margin,
    )  # fmt: skip
    if system.supply_c - fan.rise_k < COLDEST_COIL_C:
        raise ValueError(
            f"system {system.name}: its fan at {fan.total_pa:.0f} Pa warms the air by {fan.rise_k:.1f} K, so the coil would "
            f"have to leave air below {COLDEST_COIL_C:.0f} °C; lower the pressure or raise the supply temperature"
        )
    return ducts, fan


def _unit(system: AirSystem, fan: FanResult, least_outdoor_kg_s: float, pressure_pa: float) -> Unit:
    efficiencies = (system.fan_efficiency, system.motor_efficiency)
    held = min(system.held_pa, fan.total_pa) if system.volume == "variable" else 0.0
    back = None
    if system.return_fan_pa > 0.0 and not system.outdoor_only:
        back = FanCurve(fan.flow_m3_s, system.return_fan_pa, 0.0, *efficiencies)
    recovery = None
    if system.recovery_sensible > 0.0 or system.recovery_latent > 0.0:
        recovery = Recovery(system.recovery_sensible, system.recovery_latent, system.frost, system.frost_limit_c)
    return Unit(
        pressure_pa=pressure_pa, target_c=np.array(system.supply_c), at_terminals=True,
        least_outdoor_kg_s=least_outdoor_kg_s, bypass=system.bypass_factor,
        supply_fan=FanCurve(fan.flow_m3_s, fan.total_pa, held, *efficiencies), return_fan=back,
        blow_through=system.blow_through, outdoor_only=system.outdoor_only,
        economizer=Economizer(system.economizer, system.economizer_limit), recovery=recovery,
        humidifier=Humidifier(system.humidifier), ducts=Ducts(system.duct_leak_share),
    )  # fmt: skip


def _with(unit: Unit, target_c: Array, cools: bool = True, least_return_w: float = 0.0) -> Unit:
    fields = vars(unit) | {"target_c": target_c, "cools": cools, "least_return_w": least_return_w}
    return Unit(**fields)


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
) -> _Season:
    """The winter day: no sun, no people; supply air at the winter value, variable terminals at their least."""
    cold = outside.climate.winter_dry_bulb_c
    day = np.ones((1, outside.dry_bulb_c.shape[1]))
    flow = least_kg if system.volume == "variable" else most_kg
    on = day if system.running_winter is None else (step_averages(system.running_winter) > 0.5)[None] * day
    return _Season(
        _joined([d.winter for d in demands]), cold * day,
        float(saturation_humidity_ratio(cold, outside.pressure_pa)) * day, system.winter_supply_c * day,
        flow[:, None, None] * on, flow[:, None, None] * on, _heat_most(demands, system.reheat != "none", on),
        np.zeros((len(demands), *day.shape)), np.array([d.room.winter_leak_m3_s / volume for d in demands]), cp, True,
    )  # fmt: skip


def _served_room(
    index: int, demand: RoomDemand, reheats: bool, summer: _Season, warm: tuple[Served, Path, Array],
    cold: tuple[Served, Path, Array],
) -> ServedRoom:  # fmt: skip
    (served, path, flow), (winter, winter_path, winter_flow) = warm, cold
    heat, rate, air = served.heat_w[index], served.rate_w_k[index], served.air_c[index]
    taken = rate * (air - path.supply_c)
    # Where an emitter heats the room, the terminal makes up for what the air takes out of it, and no more.
    reheat = (
        (np.minimum(heat, np.maximum(taken, 0.0)) if demand.has_emitter else heat) if reheats else np.zeros_like(heat)
    )
    over, under = air - summer.asked.high_c[index], summer.asked.low_c[index] - air
    return ServedRoom(
        flow_kg_s=flow[index], winter_flow_kg_s=winter_flow[index], reheat_w=reheat.astype(np.float32),
        emitter_w=(heat - reheat).astype(np.float32),
        heat_w=winter.heat_w[index] + (demand.allowance_w if demand.room.heated else 0.0), air_c=air,
        winter_air_c=winter.air_c[index], cooling_w=taken.astype(np.float32),
        winter_warmth_w=winter.rate_w_k[index] * (winter_path.supply_c - winter.air_c[index]),
        over_k=max(0.0, float(over.max())), under_k=max(0.0, float(under.max())),
    )  # fmt: skip
