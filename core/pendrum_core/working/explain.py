"""The quantities that can be explained, by name."""

from collections.abc import Callable
from functools import partial

from pendrum_core.air.fan import PART_LOADS as FAN_PART_LOADS
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.pump import PART_LOADS
from pendrum_core.working.air import coil_total, room_airflow
from pendrum_core.working.beside import (
    group_outdoor_air,
    room_cooling_with_margin,
    room_heating_with_margin,
    room_outdoor_air,
)
from pendrum_core.working.ceiling import chilled_ceiling
from pendrum_core.working.coils import cooling_coil_size, heating_coil_size
from pendrum_core.working.ducts import duct_section, fan_power, fan_static, return_pressure
from pendrum_core.working.duties import (
    heating_coil,
    humidifier_water,
    recovered_heat,
    room_balance,
    room_reheat,
    system_outdoor_air,
    terminal_fans,
    terminals_reheat,
)
from pendrum_core.working.feeds import circuit_feed
from pendrum_core.working.floor import heated_floor
from pendrum_core.working.groups import (
    group_airflow,
    group_cooling,
    group_cooling_per_area,
    group_cooling_with_margin,
    group_heating,
    group_heating_simple,
    group_heating_with_margin,
    group_latent,
)
from pendrum_core.working.heating import room_heating, room_heating_simple
from pendrum_core.working.hot_water import hot_water_charge, hot_water_day, hot_water_volume
from pendrum_core.working.losses import pipes_give, pipes_lose
from pendrum_core.working.node import Node
from pendrum_core.working.plant import emitter_rating, plant_input, plant_load, unit_seasonal
from pendrum_core.working.rejection import heat_rejection
from pendrum_core.working.rooms import room_cooling, room_cooling_per_area, room_latent, room_temperature
from pendrum_core.working.running import circuit_stopped
from pendrum_core.working.vessels import buffer_store, expansion_vessel
from pendrum_core.working.water import pipe_section, pump_head, pump_open_flow, pump_part_load, pump_power, pump_saving
from pendrum_core.working.yardsticks import YARDSTICKS

EXPLAINED: dict[str, Callable[[BuildingResults, str], Node]] = {
    "room_cooling": room_cooling,
    "room_heating": room_heating,
    "room_heating_simple": room_heating_simple,
    "room_latent": room_latent,
    "room_temperature": room_temperature,
    "room_cooling_per_area": room_cooling_per_area,
    "room_outdoor_air": room_outdoor_air,
    "room_cooling_with_margin": room_cooling_with_margin,
    "room_heating_with_margin": room_heating_with_margin,
    "group_outdoor_air": group_outdoor_air,
    "group_cooling": group_cooling,
    "group_heating": group_heating,
    "group_latent": group_latent,
    "group_cooling_per_area": group_cooling_per_area,
    "group_heating_simple": group_heating_simple,
    "group_cooling_with_margin": group_cooling_with_margin,
    "group_heating_with_margin": group_heating_with_margin,
    "group_airflow": group_airflow,
    "room_airflow": room_airflow,
    "coil_total": coil_total,
    "fan_static": fan_static,
    "fan_power": fan_power,
    **{f"fan_power_{share * 100:.0f}": partial(fan_power, share=share) for share in FAN_PART_LOADS[:-1]},
    "return_pressure": return_pressure,
    "heating_coil": heating_coil,
    "cooling_coil_size": cooling_coil_size,
    "heating_coil_size": heating_coil_size,
    "recovered_heat": recovered_heat,
    "humidifier_water": humidifier_water,
    "terminals_reheat": terminals_reheat,
    "terminal_fans": terminal_fans,
    "system_outdoor_air": system_outdoor_air,
    "room_reheat": room_reheat,
    "room_balance": room_balance,
    "duct_section": duct_section,
    "pipe_section": pipe_section,
    "pump_head": pump_head,
    "pump_power": pump_power,
    "pump_open_flow": pump_open_flow,
    "pump_saving": pump_saving,
    **{f"pump_power_{share * 100:.0f}": partial(pump_part_load, share=share) for share in PART_LOADS[:-1]},
    "emitter_rating": emitter_rating,
    "heated_floor": heated_floor,
    "chilled_ceiling": chilled_ceiling,
    "plant_load": plant_load,
    "circuit_feed": circuit_feed,
    "circuit_stopped": circuit_stopped,
    "heat_rejection": heat_rejection,
    "plant_input": plant_input,
    "pipes_lose": pipes_lose,
    "pipes_give": pipes_give,
    "unit_seasonal": unit_seasonal,
    "buffer_store": buffer_store,
    "expansion_vessel": expansion_vessel,
    "hot_water_day": hot_water_day,
    "hot_water_volume": hot_water_volume,
    "hot_water_charge": hot_water_charge,
    **YARDSTICKS,
}


def explain(results: BuildingResults, quantity: str, subject: str) -> Node:
    """Working of a quantity of a room, system, section or circuit.

    Raises:
        KeyError: the quantity is not known, or the subject has no such result.
    """
    try:
        return EXPLAINED[quantity](results, subject)
    except StopIteration as error:
        raise KeyError(subject) from error
