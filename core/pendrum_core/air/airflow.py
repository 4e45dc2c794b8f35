"""Supply airflow of a room."""

from dataclasses import dataclass
from functools import lru_cache

from pendrum_core.air.outdoor_air import zone_outdoor_air_m3_s
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import Terminal
from pendrum_core.moist_air import (
    humidity_ratio_from_relative,
    saturation_humidity_ratio,
    specific_heat_j_kgk,
    specific_volume_m3_kg,
)


@dataclass(frozen=True)
class SupplyAir:
    """Supply air for which flows are sized: temperature [°C], humidity [kg/kg], cp [J/kg K], volume [m3/kg]."""

    temperature_c: float
    humidity_ratio: float
    specific_heat_j_kgk: float
    specific_volume_m3_kg: float


@lru_cache(maxsize=1024)
def supply_air(temperature_c: float, room_c: float, pressure_pa: float) -> SupplyAir:
    """Supply air with the moisture of the room at 50 % relative humidity, at most saturated."""
    room_w = humidity_ratio_from_relative(room_c, 0.5, pressure_pa)
    w = float(min(room_w, saturation_humidity_ratio(temperature_c, pressure_pa)))
    return SupplyAir(
        temperature_c, w, float(specific_heat_j_kgk(w)), float(specific_volume_m3_kg(temperature_c, w, pressure_pa))
    )


@dataclass(frozen=True)
class RoomAirflow:
    """Supply flow of a room and why [m3/s, actual at supply state].

    Attributes:
        cooling_m3_s: Q/(cp dT) v; difference_k: of room and supply air, less `warmed_k` by a fan in the terminal.
        ventilation_m3_s: breathing-zone outdoor air over effectiveness; the supply is never below it.
        air_changes_m3_s: minimum air changes times volume.
        design_m3_s: the largest of them, or the pinned one.
        governing: "cooling", "ventilation", "air changes", "pinned" or "make-up".
        mass_kg_s: dry air.
    """

    room: str
    peak_sensible_w: float
    supply: SupplyAir
    difference_k: float
    cooling_m3_s: float
    ventilation_m3_s: float
    air_changes_m3_s: float
    design_m3_s: float
    governing: str
    mass_kg_s: float
    warmed_k: float = 0.0


def size_airflow(
    terminal: Terminal,
    room: Room,
    peak_sensible_w: float,
    supply_c: float,
    pressure_pa: float,
    least_over_need: float = 1.0,
    owed_kg_s: float | None = None,
    fan_w_m3_s: float = 0.0,
) -> RoomAirflow:
    """Supply flow of a room for its own sensible peak; never below its outdoor air times `least_over_need`.

    `owed_kg_s` is what a make-up unit has to bring, whatever else is asked; `fan_w_m3_s` what a fan in the terminal warms the room by,
    for each m3/s of the design flow.

    Raises:
        ValueError: the supply air is not colder than a room that it has to cool.
    """
    supply = supply_air(supply_c, room.cooling_setpoint_c, pressure_pa)
    warmed_k = fan_w_m3_s * supply.specific_volume_m3_kg / supply.specific_heat_j_kgk
    difference = room.cooling_setpoint_c - supply_c - warmed_k
    cooling = 0.0
    if peak_sensible_w > 0.0:
        if difference <= 0.0:
            raise ValueError(
                f"room {room.number}: supply air at {supply_c} °C is not below its set-point {room.cooling_setpoint_c} °C"
            )
        cooling = peak_sensible_w / (supply.specific_heat_j_kgk * difference) * supply.specific_volume_m3_kg
    zone = zone_outdoor_air_m3_s(terminal, room.floor_area_m2, room.volume_m3)
    needs = {
        "cooling": cooling,
        "ventilation": zone * least_over_need,
        "air changes": terminal.minimum_air_changes * room.volume_m3 / 3600.0,
    }
    governing = max(needs, key=lambda need: needs[need])
    design = needs[governing]
    if owed_kg_s is not None:
        governing, design = "make-up", owed_kg_s * supply.specific_volume_m3_kg
    elif terminal.pinned_flow_m3_s is not None:
        governing, design = "pinned", terminal.pinned_flow_m3_s
    return RoomAirflow(
        room=room.id,
        peak_sensible_w=peak_sensible_w,
        supply=supply,
        difference_k=difference,
        cooling_m3_s=needs["cooling"],
        ventilation_m3_s=zone,
        air_changes_m3_s=needs["air changes"],
        design_m3_s=design,
        governing=governing,
        mass_kg_s=design / supply.specific_volume_m3_kg,
        warmed_k=warmed_k,
    )
