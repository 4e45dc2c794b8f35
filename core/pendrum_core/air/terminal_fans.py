"""Fans in terminals.

In series: the fan stands in the way of the supply air and runs while the unit does, mixing in air of the room up to the terminal's
design flow; all its power warms the room at all times. In parallel: it brings air of the room to the reheater while that
heats, and its power is part of that heat. Air of the room that only goes round changes nothing else.

Source: heat balance of the room; all electricity of a fan that stands in it warms it.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from pendrum_core.air.airflow import RoomAirflow
from pendrum_core.air.path import Array
from pendrum_core.air.result import RoomDemand
from pendrum_core.model.systems import CENTRAL, PARALLEL, SERIES, AirSystem


def fans_in(system: AirSystem) -> str:
    """SERIES or PARALLEL, where its terminals have fans; else empty."""
    return system.terminal_fan if system.kind == CENTRAL and system.terminal_fan in (SERIES, PARALLEL) else ""


def powers_w(system: AirSystem, flows: Mapping[str, RoomAirflow]) -> dict[str, float]:
    """Electricity of each room's fan while it runs [W]; empty without fans. Source: inputs."""
    kind = fans_in(system)
    if not kind:
        return {}
    share = 1.0 if kind == SERIES else system.terminal_fan_share
    return {room: system.terminal_fan_w_m3_s * share * flow.design_m3_s for room, flow in flows.items()}


def warmed(
    system: AirSystem, demands: Sequence[RoomDemand], powers: Mapping[str, float], on: Array, winter_on: Array
) -> list[RoomDemand]:
    """Rooms with the heat of fans in series while the unit runs, on summer's days and on the winter day [W]. Source: module."""
    if fans_in(system) != SERIES:
        return list(demands)
    found = []
    for demand in demands:
        power = powers.get(demand.room.id, 0.0)
        found.append(
            replace(
                demand,
                sensible_w=np.asarray(demand.sensible_w + power * on),
                summer=replace(demand.summer, heat_w=demand.summer.heat_w - power * on),
                winter=replace(demand.winter, heat_w=demand.winter.heat_w - power * winter_on),
            )
        )
    return found
