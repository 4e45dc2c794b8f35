"""The unit of an air system: its ducts and fan, and the unit as the walk takes it."""

from collections.abc import Mapping

import numpy as np

from pendrum_core.air.airflow import RoomAirflow
from pendrum_core.air.coil import NO_LIMITS, CoilLimits
from pendrum_core.air.economizer import Economizer
from pendrum_core.air.fan import FanCurve, FanResult, size_fan
from pendrum_core.air.path import Array, Ducts, Unit
from pendrum_core.air.recovery import Recovery
from pendrum_core.duct.lanes import LaneFlows, in_front_pa, size_lanes
from pendrum_core.duct.methods import DuctRules
from pendrum_core.duct.network import DuctResult, air, size_tree
from pendrum_core.duct.shapes import ROUND_SIZES_M
from pendrum_core.model.systems import OUTDOOR, RETURN, SUPPLY, AirSystem
from pendrum_core.moist_air import specific_volume_m3_kg

COLDEST_COIL_C = -10.0  # air off a cooling coil in the validity of this path


def ducts_and_fan(
    system: AirSystem,
    flows: Mapping[str, RoomAirflow],
    courses_m3_s: Mapping[str, Array],
    mass_kg_s: float,
    lane_flows: LaneFlows,
    pressure_pa: float,
) -> tuple[DuctResult | None, dict[str, DuctResult], FanResult]:
    """The tree of supply ducts, the other networks, and the fan for what flows at one time [m3/s, Pa, W].

    `courses_m3_s` are the terminals' flows over the steps, at their design state.

    Raises:
        ValueError: the fan warms the air by more than any coil can make up for.
    """
    unit_drop = sum(part.drop_pa for part in system.fitted)
    fluid = air(system.supply_c, pressure_pa)
    ducts: DuctResult | None = None
    rules = DuctRules(
        system.duct_method,
        system.friction_limit_pa_m,
        velocity_limit_m_s=system.velocity_limit_m_s,
        branch_velocity_m_s=system.branch_velocity_m_s,
        runout_velocity_m_s=system.runout_velocity_m_s,
        roughness_m=system.roughness_m,
        leak_class=system.duct_leak_class,
        insulation_m=system.duct_insulation_m,
        around_c=system.duct_around_c,
        round_sizes_m=system.sizes.ducts_m or ROUND_SIZES_M,
    )
    lanes = size_lanes(system.sections, lane_flows, rules, pressure_pa)
    unit_drop += in_front_pa(lanes, system.draws_return)
    supplying = tuple(section for section in system.sections if section.network == SUPPLY)
    if any(section.end in flows for section in supplying):
        design = {room: flow.design_m3_s for room, flow in flows.items()}
        ducts = size_tree(supplying, design, fluid, rules, unit_drop, system.outlet_velocity_m_s, courses_m3_s)
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
        motors_w=system.sizes.motors_w,
    )
    if system.supply_c - fan.rise_k < COLDEST_COIL_C:
        raise ValueError(
            f"system {system.name}: its fan at {fan.total_pa:.0f} Pa warms the air by {fan.rise_k:.1f} K, so the coil would "
            f"have to leave air below {COLDEST_COIL_C:.0f} °C; lower the pressure or raise the supply temperature"
        )
    return ducts, lanes, fan


def _leak_share(system: AirSystem, ducts: DuctResult | None) -> float:
    """Of the fan's flow, lost on the way: by the ducts' class where they are drawn and have one, else as stated."""
    return ducts.leak_share if ducts is not None and system.duct_leak_class else system.duct_leak_share


def _ways_w_k(system: AirSystem, ducts: DuctResult | None) -> Array | None:
    """UA of the way to or from each of its rooms, nought where none is drawn; None where it is not worked out [W/K]."""
    if ducts is None or system.duct_insulation_m is None:
        return None
    return np.array([ducts.gains_w_k.get(terminal.room, 0.0) for terminal in system.terminals])


def curve_of(system: AirSystem, fan: FanResult, cleaner_pa: float = 0.0) -> FanCurve:
    """The supply fan over its flow; `cleaner_pa` is what filters take less than at design [Pa]. Source: see FanCurve."""
    total = max(fan.total_pa - cleaner_pa, 0.0)
    held = min(system.held_pa, total) if system.follows_load else 0.0
    return FanCurve(fan.flow_m3_s, total, held, system.fan_efficiency, system.motor_efficiency)


def unit_of(
    system: AirSystem,
    fan: FanResult,
    return_m3_s: float,
    least_outdoor_kg_s: float,
    pressure_pa: float,
    ducts: DuctResult | None,
    lanes: Mapping[str, DuctResult],
    cleaner_pa: float = 0.0,
    limits: CoilLimits = NO_LIMITS,
) -> Unit:
    """The unit of a sized system as the walk takes it; `return_m3_s` is its return fan's design flow.

    `cleaner_pa` is what its filters take less than at design; `limits` are those of its coils.
    """
    efficiencies = (system.fan_efficiency, system.motor_efficiency)
    back = None
    if system.return_fan_pa > 0.0 and return_m3_s > 0.0:
        back = FanCurve(return_m3_s, system.return_fan_pa, 0.0, *efficiencies)
    recovery = None
    if system.recovery_sensible > 0.0 or system.recovery_latent > 0.0:
        recovery = Recovery(system.recovery_sensible, system.recovery_latent, system.frost, system.frost_limit_c)
    return Unit(
        pressure_pa=pressure_pa,
        target_c=np.array(system.supply_c),
        at_terminals=True,
        least_outdoor_kg_s=least_outdoor_kg_s,
        bypass=system.bypass_factor,
        supply_fan=curve_of(system, fan, cleaner_pa),
        return_fan=back,
        parts=tuple(part.kind for part in system.fitted),
        outdoor_only=system.takes_outdoor_air_alone,
        economizer=Economizer(system.economizer, system.economizer_limit),
        recovery=recovery,
        dry_to_c=system.dries_to_c,
        limits=limits,
        ducts=Ducts(
            _leak_share(system, ducts),
            around_c=system.duct_around_c,
            ua_rooms_w_k=_ways_w_k(system, ducts),
            ua_return_w_k=_ways_w_k(system, lanes.get(RETURN)),
            # All its ways lie beside each other.
            ua_outdoor_w_k=sum(lanes[OUTDOOR].gains_w_k.values()) if OUTDOOR in lanes else 0.0,
        ),
    )
