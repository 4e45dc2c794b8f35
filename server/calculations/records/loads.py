"""Records of the first half of a calculation: loads of rooms and groups, and what the definition pages show."""

from calculations.records.definitions import definition_records
from calculations.records.payload import Payload, Record
from calculations.snapshot import Snapshot
from pendrum_core.model.building import Margins
from pendrum_core.model.climate import day_number
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.results.building import BuildingLoads
from pendrum_core.results.margins import group_with_margin, room_with_margin
from pendrum_core.room.outcome.loads import GroupLoads, Peak, RoomLoads
from pendrum_core.room.thermostat.controlled import flat_out_h
from projects.resolver import Effective


def _peak(peak: Peak | None, months: tuple[int, ...]) -> Record | None:
    if peak is None:
        return None
    return {
        "sensible_w": peak.sensible_w,
        "latent_w": peak.latent_w,
        "total_w": peak.total_w,
        "month": months[peak.month],
        "step": peak.step,
        "parts_w": list(peak.parts_w),
    }


def _room(loads: RoomLoads, results: BuildingLoads, months: tuple[int, ...]) -> Record:
    cooling, heating = room_with_margin(results, loads)
    return {
        "volume_m3": loads.room.volume_m3,
        "cooling": _peak(loads.cooling, months),
        "heating_w": loads.heating.load_w,
        "heating_parts_w": list(loads.heating.parts_w),
        "heating_simple_w": loads.heating.simple_w,
        "cooling_with_margin_w": cooling,
        "heating_with_margin_w": heating,
        "floating_peak_c": loads.floating_peak_c,
        "too_warm_h": loads.too_warm_h()[0] if loads.floating_peak_c is not None else None,
        "floating_month": months[loads.peak_month],
        "floating_step": loads.peak_step,
        "winter_air_c": loads.winter_air_c,
        "control": _control(loads, months) if loads.control else None,
    }


def _control(loads: RoomLoads, months: tuple[int, ...]) -> Record:
    """What a thermostat makes of the room, in figures."""
    control, thermostat = loads.control, loads.room.thermostat
    assert control is not None and thermostat is not None
    at = (loads.peak_month, loads.peak_step)
    warm, cold = control.summer.too_warm(), control.winter.too_cold()
    return {
        "air_c": float(control.summer.air_c[at]),
        "operative_c": float(control.summer.operative_c[at]),
        "held_heating_w": sum(loads.heating.parts_w) - loads.heating.parts_w[CATEGORIES.index("storage")],
        "warm_up_w": loads.heating.parts_w[CATEGORIES.index("storage")],
        "winter_coldest_c": float(control.winter.air_c.min()),
        "too_warm": warm and {"kelvin": warm.kelvin, "hours": warm.hours, "month": months[warm.day], "step": warm.step},
        "too_cold": cold and {"kelvin": cold.kelvin, "hours": cold.hours, "step": cold.step},
        "cooling_flat_out_h": max(flat_out_h(day, thermostat.cooling_capacity_w) for day in control.summer.plant_w),
        "heating_flat_out_h": flat_out_h(control.winter.plant_w[0], thermostat.heating_capacity_w),
    }


def _group(group: GroupLoads, results: BuildingLoads, months: tuple[int, ...]) -> Record:
    cooling, heating = group_with_margin(results, group)
    return {
        "name": group.name,
        "kind": group.kind,
        "room_ids": list(group.room_ids),
        "floor_area_m2": group.floor_area_m2,
        "cooling": _peak(group.cooling, months),
        "heating_w": group.heating.load_w,
        "heating_parts_w": list(group.heating.parts_w),
        "heating_simple_w": group.heating.simple_w,
        "sum_of_peaks_w": group.sum_of_peaks_w,
        "diversity": group.diversity,
        "cooling_with_margin_w": cooling,
        "heating_with_margin_w": heating,
    }


class LoadsMaker:
    """Makes records of one project; those of rooms that did not change are the same objects as before."""

    def __init__(self) -> None:
        self._rooms: dict[str, tuple[RoomLoads, Margins, Record]] = {}
        self._effective: dict[str, tuple[dict[str, Effective], Record]] = {}

    def make(self, snapshot: Snapshot, results: BuildingLoads) -> Payload:
        """All records by kind and id."""
        months = tuple(day_number(month) for month in results.building.climate.months)
        return {
            "room": {room: self._room_record(loads, results, months) for room, loads in results.rooms.items()},
            "effective": {room: self._effective_record(room, values) for room, values in snapshot.effective.items()},
            "group": {identity: _group(group, results, months) for identity, group in results.groups.items()},
            **definition_records(snapshot.look),
        }

    def _effective_record(self, room: str, values: dict[str, Effective]) -> Record:
        kept = self._effective.get(room)
        if kept is None or kept[0] is not values:
            kept = (values, {field: list(value) for field, value in values.items()})
            self._effective[room] = kept
        return kept[1]

    def _room_record(self, loads: RoomLoads, results: BuildingLoads, months: tuple[int, ...]) -> Record:
        kept, margins = self._rooms.get(loads.room.id), results.building.margins_of(loads.room.id)
        if kept is None or kept[0] is not loads or kept[1] != margins:
            kept = (loads, margins, _room(loads, results, months))
            self._rooms[loads.room.id] = kept
        return kept[2]
