"""Design flows of a system's terminals, and the temperature of its supply air that they ask for."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from pendrum_core.air.airflow import RoomAirflow, size_airflow
from pendrum_core.air.outdoor_air import SIMPLIFIED_LEAST, Breathing, breathing_of, zone_outdoor_air_m3_s
from pendrum_core.air.path import Array
from pendrum_core.air.result import RoomDemand
from pendrum_core.air.terminal_fans import fans_in
from pendrum_core.model.systems import CENTRAL, OWN_PEAK, ROOM_UNIT, SERIES, AirSystem, Terminal
from pendrum_core.room.balance.outdoors import Outdoors

_PEOPLE_THERE = 0.2  # of a room's largest moisture gain: while it is above, somebody is there
_M3_KG = 0.84  # of outdoor air, for telling whether it is enough


def supply_course(
    system: AirSystem, demands: Sequence[RoomDemand], flows: Mapping[str, RoomAirflow], outdoor_c: Array
) -> tuple[Array, Array]:
    """Supply temperature at the terminals and cooling that falls short, each (months, 144), by the system's rule.

    With constant flow "rooms" follows the room that asks for the coldest air, never below the design value and, where none asks
    for any, not above what it is in winter; with variable flow it is the design value.

    Source: sensible heat balance of each room, m cp (T room - T supply) = load.
    """
    shape = demands[0].sensible_w.shape
    coldest = np.full(shape, min(demand.room.cooling_setpoint_c for demand in demands))
    asked: list[tuple[float, float, Array]] = []
    for demand in demands:
        flow = flows[demand.room.id]
        rate = flow.mass_kg_s * flow.supply.specific_heat_j_kgk
        if demand.room.cooled and rate > 0.0 and not demand.has_ceiling:
            asked.append((rate, demand.room.cooling_setpoint_c, demand.left_w))
            np.minimum(coldest, demand.room.cooling_setpoint_c - demand.left_w / rate, out=coldest)
    supply = np.clip(coldest, system.supply_c, max(system.supply_c, system.winter_supply_c))
    if system.kind == ROOM_UNIT:
        supply = np.maximum(coldest, system.supply_c)
    elif system.supply_rule == "outdoors":
        ends = (system.reset_cold_c, system.reset_warm_c), (system.winter_supply_c, system.supply_c)
        supply = np.interp(outdoor_c, *ends)
    elif system.supply_rule == "fixed" or system.follows_load:
        supply = np.full(shape, system.supply_c)
    short = np.zeros(shape)
    if (coldest < supply - 1e-9).any():
        for rate, room_c, sensible in asked:
            short += np.maximum(0.0, sensible - rate * (room_c - supply))
    return supply, short


def least_flow_m3_s(system: AirSystem, terminal: Terminal, flow: RoomAirflow) -> float:
    """Flow that a terminal never goes below while its unit runs.

    A variable one keeps so much of its room's outdoor air as 62.1, 6.2.5.3 asks, so that no room's fraction makes the whole unit
    take outdoor air alone.
    """
    if not system.follows_load or terminal.constant:
        return flow.design_m3_s
    share = system.least_share if terminal.least_share is None else terminal.least_share
    return min(
        flow.design_m3_s, max(share * flow.design_m3_s, SIMPLIFIED_LEAST * flow.ventilation_m3_s, flow.air_changes_m3_s)
    )


def design_flows(
    system: AirSystem, demands: Sequence[RoomDemand], outside: Outdoors
) -> tuple[dict[str, RoomAirflow], dict[str, Breathing]]:
    """Design flows of the terminals, and what the breathing zones need [m3/s].

    Source: sensible heat balance of each room at its own peak, or at that of all together, with ASHRAE 62.1's outdoor air as the least.
    """
    over_need = SIMPLIFIED_LEAST if system.ventilation == "62.1 simplified" else 1.0
    flows: dict[str, RoomAirflow] = {}
    breathing: dict[str, Breathing] = {}
    peaks = _peaks_w(system, demands)
    for terminal, demand, peak in zip(system.terminals, demands, peaks, strict=True):
        asking = _asking(system, terminal, demand)
        flow = size_airflow(
            asking,
            demand.room,
            peak_sensible_w=peak,
            supply_c=system.supply_c,
            pressure_pa=outside.pressure_pa,
            least_over_need=over_need,
            owed_kg_s=_owed_kg_s(demand),
            fan_w_m3_s=system.terminal_fan_w_m3_s if fans_in(system) == SERIES else 0.0,
        )
        flows[demand.room.id] = flow
        breathing[demand.room.id] = breathing_of(asking, demand.room.floor_area_m2, demand.room.volume_m3)
    return flows, breathing


def _peaks_w(system: AirSystem, demands: Sequence[RoomDemand]) -> list[float]:
    """Sensible load that each terminal's flow is sized for: its room's largest, or what it asks while all ask the most together."""
    loads = [
        np.maximum(demand.left_w, 0.0) if _cools(system, terminal, demand) else np.zeros_like(demand.left_w)
        for terminal, demand in zip(system.terminals, demands, strict=True)
    ]
    if system.sizing == OWN_PEAK or system.kind != CENTRAL:
        return [float(load.max()) for load in loads]
    together = int(np.argmax(np.sum(loads, axis=0)))
    return [float(load.ravel()[together]) for load in loads]


def _cools(system: AirSystem, terminal: Terminal, demand: RoomDemand) -> bool:
    """Whether its air is there to cool: where a unit of outdoor air alone stands beside another one, that one cools; a chilled
    ceiling cools by itself."""
    return (
        demand.room.cooled
        and not demand.has_ceiling
        and not (terminal.shared and terminal.rank == 1 and system.outdoor_only)
    )


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
