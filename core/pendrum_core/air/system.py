"""A constant-volume air system walked on every step of every summer month, and on the winter day.

Outdoor air mixes with return air, passes filter and cooling coil, and a draw-through fan warms it. The supply
temperature follows the room that asks for the coldest air, never below the design value; the other rooms reheat
electrically at their terminals. Room humidity is found so that coil, outdoor air, moisture gains and leaks agree.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.airflow import RoomAirflow, size_airflow
from pendrum_core.air.coil import CoilState, coil_to_temperature, mix
from pendrum_core.air.fan import FanResult, size_fan
from pendrum_core.air.outdoor_air import SIMPLIFIED_LEAST, SystemOutdoorAir, system_outdoor_air
from pendrum_core.duct.network import DuctResult, air, size_tree
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import AirSystem
from pendrum_core.moist_air import (
    dew_point_c,
    enthalpy_j_kg,
    saturation_humidity_ratio,
    specific_heat_j_kgk,
    specific_volume_m3_kg,
)
from pendrum_core.quantities.constants import CP_VAPOUR, H_VAPORISATION_0C
from pendrum_core.room.outdoors import Outdoors

Array = NDArray[np.float64]
_ITERATIONS = 60
COLDEST_COIL_C = -10.0  # air off a cooling coil in the validity of this path
_TOLERANCE = 1e-9


@dataclass(frozen=True)
class RoomDemand:
    """What the system needs to know of a room.

    Attributes:
        sensible_w: signed sensible load, (12, 144) [W].
        latent_w: moisture from people and equipment, (12, 144) [W].
        heating_w: winter load [W].
        winter_air_c: air temperature on the winter day [°C].
    """

    room: Room
    sensible_w: Array
    latent_w: Array
    heating_w: float
    winter_air_c: float


@dataclass(frozen=True)
class AirPath:
    """States along the path at every summer step, arrays (12, 144); T [°C], w [kg/kg dry air].

    `heating_w` is the heating coil where mixed air is colder than wanted, `reheat_w` the rooms' electric reheaters
    together, `short_w` cooling that the airflow cannot carry.
    """

    outdoor_c: Array
    outdoor_w: Array
    return_c: Array
    return_w: Array
    mixed_c: Array
    mixed_w: Array
    coil: CoilState
    supply_c: Array
    heating_w: Array
    reheat_w: Array
    short_w: Array


@dataclass(frozen=True)
class WinterCoil:
    """Heating coil on the winter day: states [°C] and duty [W]; supply deficit by room [W]."""

    return_c: float
    mixed_c: float
    leaving_c: float
    duty_w: float
    deficit_w: Mapping[str, float]


@dataclass(frozen=True)
class AirSystemResult:
    """A sized air system.

    Attributes:
        airflows: by room.
        mass_kg_s, flow_m3_s: dry air and actual supply flow of all rooms.
        outdoor_share: of the dry air [-].
        ducts: None where no tree is drawn yet; then only the unit's own drops count.
        coil_total_w: on the coil, net of condensate, (12, 144).
        peak: (month index, step) of the coil's largest total.
    """

    id: str
    airflows: Mapping[str, RoomAirflow]
    mass_kg_s: float
    flow_m3_s: float
    outdoor_air: SystemOutdoorAir
    outdoor_share: float
    ducts: DuctResult | None
    fan: FanResult
    path: AirPath
    coil_total_w: Array
    peak: tuple[int, int]
    winter: WinterCoil
    converged: bool
    pressure_pa: float

    @cached_property
    def outdoor_air_j_kg(self) -> tuple[Array, Array]:
        """What outdoor air brings to the coil above the return air, per kg of supply air: sensible, latent (12, 144)."""
        p = self.path
        dry = enthalpy_j_kg(p.outdoor_c, p.return_w)
        sensible = self.outdoor_share * (dry - enthalpy_j_kg(p.return_c, p.return_w))
        return sensible, self.outdoor_share * (enthalpy_j_kg(p.outdoor_c, p.outdoor_w) - dry)

    @cached_property
    def below_dew_point(self) -> tuple[float, int, int]:
        """How far the supply air is at most below the dew point of the return air [K], month index and step."""
        p = self.path
        # Where that air is moistest against air saturated at the supply temperature, its dew point is furthest above it.
        moist = p.return_w / saturation_humidity_ratio(p.supply_c, self.pressure_pa)
        month, step = (int(i) for i in np.unravel_index(int(moist.argmax()), moist.shape))
        below = float(dew_point_c(p.return_w[month, step], self.pressure_pa)) - float(p.supply_c[month, step])
        return below, month, step


def _supply_course(
    system: AirSystem, demands: Sequence[RoomDemand], flows: Mapping[str, RoomAirflow]
) -> tuple[Array, Array, Array]:
    """Supply temperature, electric reheat and cooling that falls short, each (12, 144)."""
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
    # What all rooms could take up at this supply temperature, less what they need, is reheated.
    carried, needed, short = np.zeros(shape), np.zeros(shape), np.zeros(shape)
    carried += sum(rate * room_c for rate, room_c, _ in asked) - sum(rate for rate, _, _ in asked) * supply
    for _, _, sensible in asked:
        needed += sensible
    if (coldest < system.supply_c - 1e-9).any():
        for rate, room_c, sensible in asked:
            short += np.maximum(0.0, sensible - rate * (room_c - supply))
    return supply, np.maximum(0.0, carried - needed + short), short


def _next_guess(before: tuple[Array, Array] | None, now: Array, following: Array) -> Array:
    """Secant step towards the fixed point at every step of the day on its own; plain iteration to begin with."""
    if before is None:
        return following
    step = now - before[0]
    slope = np.divide(following - before[1], step, out=np.zeros_like(step), where=np.abs(step) > 1e-12)
    slope = np.clip(slope, 0.0, 0.98)
    return np.maximum((following - slope * now) / (1.0 - slope), 0.0)


def _walk(
    system: AirSystem,
    demands: Sequence[RoomDemand],
    flows: Mapping[str, RoomAirflow],
    outside: Outdoors,
    share: float,
    rise_k: float,
) -> tuple[AirPath, bool]:
    """Find the humidity of the return air at every step by fixed-point iteration, and all states with it."""
    supply, reheat, short = _supply_course(system, demands, flows)
    total = sum(flow.mass_kg_s for flow in flows.values())
    return_c = sum(flows[d.room.id].mass_kg_s * d.room.cooling_setpoint_c for d in demands) / total
    w_out = outside.humidity_ratio
    kept, leaked, moisture = 0.0, 0.0, np.zeros_like(w_out)
    leak_volume = float(specific_volume_m3_kg(20.0, 0.0, outside.pressure_pa))
    for demand in demands:
        supplied = flows[demand.room.id].mass_kg_s
        if supplied <= 0.0:
            continue
        leak = demand.room.infiltration_m3_s / leak_volume
        weight = supplied / (supplied + leak) / total
        kept += weight * supplied
        leaked += weight * leak
        moisture += weight * demand.latent_w / (H_VAPORISATION_0C + CP_VAPOUR * demand.room.cooling_setpoint_c)
    added = leaked * w_out + moisture
    target = supply - rise_k
    # Start from the dry coil, whose balance is w_return = kept (x w_out + (1 - x) w_return) + added.
    w_return = (kept * share * w_out + added) / max(1e-9, 1.0 - kept * (1.0 - share))
    converged = False
    before: tuple[Array, Array] | None = None
    for _ in range(_ITERATIONS):
        mixed_c, mixed_w = mix(share, outside.dry_bulb_c, w_out, return_c, w_return)
        coil = coil_to_temperature(mixed_c, mixed_w, target, system.bypass_factor, outside.pressure_pa)
        following = kept * coil.leaving_w + added
        converged = bool(np.max(np.abs(following - w_return)) < _TOLERANCE)
        if converged:
            w_return = following
            break
        before, w_return = (w_return, following), _next_guess(before, w_return, following)
    path = AirPath(
        outdoor_c=outside.dry_bulb_c,
        outdoor_w=w_out,
        return_c=np.full_like(w_out, return_c),
        return_w=w_return,
        mixed_c=mixed_c,
        mixed_w=mixed_w,
        coil=coil,
        supply_c=supply,
        heating_w=total * specific_heat_j_kgk(coil.leaving_w) * np.maximum(0.0, target - coil.leaving_c),
        reheat_w=reheat,
        short_w=short,
    )
    return path, converged


def _winter(
    system: AirSystem,
    demands: Sequence[RoomDemand],
    flows: Mapping[str, RoomAirflow],
    outside: Outdoors,
    share: float,
    fan: FanResult,
) -> WinterCoil:
    """Heating coil: mixed air to the winter supply temperature less the fan's rise. Dry air, cp 1006 J/kg K."""
    total = sum(flow.mass_kg_s for flow in flows.values())
    cp = float(specific_heat_j_kgk(0.0))
    return_c = sum(flows[d.room.id].mass_kg_s * d.winter_air_c for d in demands) / total
    mixed = share * outside.climate.winter_dry_bulb_c + (1.0 - share) * return_c
    leaving = max(mixed, system.winter_supply_c - fan.rise_k)
    deficit = {
        d.room.id: flows[d.room.id].mass_kg_s * cp * max(0.0, d.room.heating_setpoint_c - leaving - fan.rise_k)
        for d in demands
        if d.room.heated
    }
    return WinterCoil(return_c, mixed, leaving, total * cp * (leaving - mixed), deficit)


def size_system(system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors) -> AirSystemResult:
    """Size a system from its rooms to its coils and fan; `demands` in the order of the terminals.

    Raises:
        ValueError: no room has any airflow, or the supply is not colder than a room.
        TreeError: the duct sections are not a tree.
    """
    least = SIMPLIFIED_LEAST if system.ventilation == "62.1 simplified" else 1.0
    flows: dict[str, RoomAirflow] = {}
    breathing: dict[str, float] = {}
    for terminal, demand in zip(system.terminals, demands, strict=True):
        peak = max(0.0, float(demand.sensible_w.max())) if demand.room.cooled else 0.0
        flow = size_airflow(terminal, demand.room, peak, system.supply_c, outside.pressure_pa, least)
        flows[demand.room.id] = flow
        breathing[demand.room.id] = flow.ventilation_m3_s * terminal.effectiveness
    supply = {room: flow.design_m3_s for room, flow in flows.items()}
    total_flow, mass = sum(supply.values()), sum(flow.mass_kg_s for flow in flows.values())
    if total_flow <= 0.0:
        raise ValueError(f"system {system.name}: none of its rooms needs any air")
    intake = system_outdoor_air(
        breathing, {room: f.ventilation_m3_s for room, f in flows.items()}, supply, system.ventilation
    )
    share = intake.intake_m3_s / total_flow

    unit_drop = system.filter_drop_pa + system.coil_drop_pa + system.other_drop_pa
    fluid = air(system.supply_c, outside.pressure_pa)
    ducts: DuctResult | None = None
    if any(section.end in flows for section in system.sections):
        ducts = size_tree(
            system.sections, supply, fluid, system.friction_limit_pa_m, system.velocity_limit_m_s,
            system.roughness_m, unit_drop, system.outlet_velocity_m_s,
        )  # fmt: skip
    outlet = fluid.density_kg_m3 * system.outlet_velocity_m_s**2 / 2.0
    total_pa = ducts.fan_total_pa if ducts else unit_drop
    one = next(iter(flows.values())).supply
    off_coil = float(specific_volume_m3_kg(system.supply_c, one.humidity_ratio, outside.pressure_pa))
    fan = size_fan(
        mass * off_coil, mass * one.specific_heat_j_kgk, total_pa, total_pa - outlet,
        system.fan_efficiency, system.motor_efficiency, system.motor_margin,
    )  # fmt: skip
    if system.supply_c - fan.rise_k < COLDEST_COIL_C:
        raise ValueError(
            f"system {system.name}: its fan at {fan.total_pa:.0f} Pa warms the air by {fan.rise_k:.1f} K, so the coil would "
            f"have to leave air below {COLDEST_COIL_C:.0f} °C; lower the pressure or raise the supply temperature"
        )
    path, converged = _walk(system, demands, flows, outside, share, fan.rise_k)
    coil_total = mass * (path.coil.total_j_kg - path.coil.condensate_j_kg)
    month, step = np.unravel_index(int(np.argmax(coil_total)), coil_total.shape)
    return AirSystemResult(
        id=system.id,
        airflows=flows,
        mass_kg_s=mass,
        flow_m3_s=total_flow,
        outdoor_air=intake,
        outdoor_share=share,
        ducts=ducts,
        fan=fan,
        path=path,
        coil_total_w=coil_total,
        peak=(int(month), int(step)),
        winter=_winter(system, demands, flows, outside, share, fan),
        converged=converged,
        pressure_pa=outside.pressure_pa,
    )
