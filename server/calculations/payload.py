"""Core results as plain records for the browser, keyed so that only what changed need be sent."""

from collections.abc import Mapping
from typing import Any

from calculations.definitions import EnvelopeMaker, definition_records
from calculations.mends import mend_of
from calculations.snapshot import Snapshot
from pendrum_core.air.moisture import RoomMoisture
from pendrum_core.checks.results import result_snags
from pendrum_core.checks.snag import Snag
from pendrum_core.model.climate import day_number
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.control import flat_out_h
from pendrum_core.results.kit import kit_list
from pendrum_core.results.loads import GroupLoads, Peak, RoomLoads
from pendrum_core.results.margins import group_with_margin, room_with_margin
from pendrum_core.results.outdoor_air import OutdoorAirPart, outdoor_air_part, serving
from pendrum_core.results.yardsticks import group_basis, room_basis, yardsticks
from projects.document import Document
from projects.resolver import Effective

Record = dict[str, Any]
Payload = dict[str, dict[str, Record]]


def _peak(peak: Peak | None, months: tuple[int, ...], air: OutdoorAirPart | None) -> Record | None:
    if peak is None:
        return None
    return {
        "sensible_w": peak.sensible_w,
        "latent_w": peak.latent_w,
        "total_w": peak.total_w,
        "month": months[peak.month],
        "step": peak.step,
        "parts_w": list(peak.parts_w),
        "outdoor_air": air and {"sensible_w": air.sensible_w, "latent_w": air.latent_w},
    }


def _room(loads: RoomLoads, results: BuildingResults, months: tuple[int, ...], system_of: dict[str, str]) -> Record:
    cooling, heating = room_with_margin(results, loads)
    at = (loads.peak_month, loads.peak_step)
    air = outdoor_air_part(results, system_of, (loads.room.id,), *at) if loads.cooling else None
    return {
        "volume_m3": loads.room.volume_m3,
        "cooling": _peak(loads.cooling, months, air),
        "heating_w": loads.heating.load_w,
        "heating_parts_w": list(loads.heating.parts_w),
        "heating_simple_w": loads.heating.simple_w,
        "heating_duty_w": results.heating_duty_w[loads.room.id],
        "cooling_with_margin_w": cooling,
        "heating_with_margin_w": heating,
        "yardsticks": dict(vars(yardsticks(room_basis(results, system_of, loads)))),
        "floating_peak_c": loads.floating_peak_c,
        "floating_month": months[loads.peak_month],
        "floating_step": loads.peak_step,
        "winter_air_c": loads.winter_air_c,
        "control": _control(loads, months) if loads.control else None,
        "moisture": _moisture(results.moisture[loads.room.id], months) if loads.room.id in results.moisture else None,
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


def _moisture(moisture: RoomMoisture, months: tuple[int, ...]) -> Record:
    return {
        "highest": moisture.highest,
        "month": months[moisture.month],
        "step": moisture.step,
        "drying_w": moisture.drying_w,
        "winter_relative": moisture.winter_relative,
        "humidifying_kg_s": moisture.humidifying_kg_s,
        "humidifying_w": moisture.humidifying_w,
    }


def _group(group: GroupLoads, results: BuildingResults, months: tuple[int, ...], system_of: dict[str, str]) -> Record:
    cooling, heating = group_with_margin(results, group)
    air = outdoor_air_part(results, system_of, group.room_ids, group.cooling.month, group.cooling.step)
    return {
        "name": group.name,
        "kind": group.kind,
        "room_ids": list(group.room_ids),
        "floor_area_m2": group.floor_area_m2,
        "cooling": _peak(group.cooling, months, air),
        "heating_w": group.heating.load_w,
        "heating_parts_w": list(group.heating.parts_w),
        "heating_simple_w": group.heating.simple_w,
        "sum_of_peaks_w": group.sum_of_peaks_w,
        "diversity": group.diversity,
        "yardsticks": dict(vars(yardsticks(group_basis(results, system_of, group)))),
        "cooling_with_margin_w": cooling,
        "heating_with_margin_w": heating,
    }


def _systems(
    results: BuildingResults, months: tuple[int, ...]
) -> tuple[dict[str, Record], dict[str, Record], dict[str, Record]]:
    """Records of systems, of rooms' airflows, and of duct sections."""
    systems, airflows, sections = {}, {}, {}
    for system_id, r in results.systems.items():
        month, step = r.peak
        reheat = r.path.reheat_w
        systems[system_id] = {
            "flow_m3_s": r.flow_m3_s,
            "mass_kg_s": r.mass_kg_s,
            "outdoor_air": dict(vars(r.outdoor_air)),
            "outdoor_share": r.outdoor_share,
            "coil_total_w": float(r.coil_total_w[month, step]),
            "coil_sensible_w": r.mass_kg_s * float(r.path.coil.sensible_j_kg[month, step]),
            "condensate_kg_s": r.mass_kg_s * float(r.path.coil.condensate_kg_kg[month, step]),
            "coil_month": months[month],
            "coil_step": step,
            "winter": {key: value for key, value in vars(r.winter).items() if key != "deficit_w"},
            "reheat_w": float(reheat.max()),
            "fan": dict(vars(r.fan)),
            "index_end": r.ducts.paths.index if r.ducts else None,
            "index_path": list(r.ducts.tree.path(r.ducts.paths.index)) if r.ducts else [],
        }
        for room, flow in r.airflows.items():
            airflows[room] = {
                "system": system_id,
                "cooling_m3_s": flow.cooling_m3_s,
                "ventilation_m3_s": flow.ventilation_m3_s,
                "air_changes_m3_s": flow.air_changes_m3_s,
                "design_m3_s": flow.design_m3_s,
                "governing": flow.governing,
            }
        if r.ducts:
            for section_id, s in r.ducts.sections.items():
                sections[section_id] = _section(s) | {
                    "size": f"{s.diameter_m * 1000:.0f}",
                    "balancing_pa": r.ducts.paths.balancing_pa.get(section_id),
                    "path_pa": r.ducts.paths.loss_pa.get(section_id),
                }
    return systems, airflows, sections


def _section(section: Any) -> Record:
    return {
        "flow_m3_s": section.flow_m3_s,
        "diameter_m": section.diameter_m,
        "sized": section.sized,
        "within_limits": section.within_limits,
        "velocity_m_s": section.friction.velocity_m_s,
        "rate_pa_m": section.friction.rate_pa_m,
        "friction_loss_pa": section.friction_loss_pa,
        "fitting_loss_pa": section.fitting_loss_pa,
        "loss_pa": section.loss_pa,
    }


def _circuits(results: BuildingResults) -> tuple[dict[str, Record], dict[str, Record]]:
    circuits, sections = {}, {}
    for circuit_id, c in results.circuits.items():
        circuits[circuit_id] = {
            "duty_w": sum(c.duty_w.values()),
            "pump": dict(vars(c.pump)),
            "water_content_m3": c.water_content_m3,
            "index_end": c.paths.index,
            "index_path": list(c.tree.path(c.paths.index)),
        }
        for section_id, s in c.sections.items():
            sections[section_id] = _section(s) | {
                "size": s.size,
                "balancing_pa": c.paths.balancing_pa.get(section_id),
                "path_pa": c.paths.loss_pa.get(section_id),
            }
    return circuits, sections


def _snag(snag: Snag, document: Document) -> Record:
    mend = mend_of(snag, document)
    return vars(snag) | {"mend": mend and {"label": mend.label, "changes": list(mend.changes)}}


class PayloadMaker:
    """Makes payloads of one project; records of rooms that did not change are the same objects as before."""

    def __init__(self) -> None:
        self._envelope = EnvelopeMaker()
        self._rooms: dict[str, tuple[Any, ...]] = {}
        self._effective: dict[str, tuple[dict[str, Effective], Record]] = {}

    def make(self, snapshot: Snapshot, results: BuildingResults) -> Payload:
        """All records by kind and id."""
        months = tuple(day_number(month) for month in results.building.climate.months)
        system_of = serving(results)
        systems, airflows, duct_sections = _systems(results, months)
        circuits, pipe_sections = _circuits(results)
        snags = [*snapshot.snags, *result_snags(results, snapshot.yardsticks_w_m2)]
        return {
            "room": {
                room: self._room_record(loads, results, months, system_of) for room, loads in results.rooms.items()
            },
            "effective": {room: self._effective_record(room, values) for room, values in snapshot.effective.items()},
            "group": {
                identity: _group(group, results, months, system_of) for identity, group in results.groups.items()
            },
            "air_system": systems,
            "airflow": airflows,
            "duct_section": duct_sections,
            "circuit": circuits,
            "pipe_section": pipe_sections,
            "emitter": {room: dict(vars(emitter)) for room, emitter in results.emitters.items()},
            "snag": {f"{snag.code}/{snag.id}": _snag(snag, snapshot.look.document) for snag in snags},
            "kit": {f"{item.order}/{item.tag}/{item.owner}": dict(vars(item)) for item in kit_list(results)},
            **definition_records(snapshot.look, self._envelope.make(results)),
        }

    def _effective_record(self, room: str, values: dict[str, Effective]) -> Record:
        kept = self._effective.get(room)
        if kept is None or kept[0] is not values:
            kept = (values, {field: list(value) for field, value in values.items()})
            self._effective[room] = kept
        return kept[1]

    def _room_record(
        self, loads: RoomLoads, results: BuildingResults, months: tuple[int, ...], system_of: dict[str, str]
    ) -> Record:
        identity = loads.room.id
        kept = self._rooms.get(identity)
        system = results.systems.get(system_of.get(identity, ""))
        rests_on = (results.heating_duty_w[identity], results.building.margins_of(identity), system and id(system))
        moisture = results.moisture.get(loads.room.id)
        if kept is None or kept[0] is not loads or kept[1] != rests_on or kept[2] is not moisture:
            kept = (loads, rests_on, moisture, _room(loads, results, months, system_of), system)
            self._rooms[loads.room.id] = kept
        return kept[3]


def difference(before: Payload, after: Payload) -> Mapping[str, Any]:
    """Records that are new or different, and the ids of those that are gone."""
    changed: Payload = {}
    gone: dict[str, list[str]] = {}
    for kind, records in after.items():
        old = before.get(kind, {})
        fresh = {i: r for i, r in records.items() if old.get(i) is not r and old.get(i) != r}
        if fresh:
            changed[kind] = fresh
        lost = [identity for identity in old if identity not in records]
        if lost:
            gone[kind] = lost
    return {"changed": changed, "gone": gone}


def category_names() -> list[str]:
    """Names of the load sources, in the order of every parts_w list."""
    return list(CATEGORIES)
