"""Records of the second half of a calculation: what serves the rooms, what that makes of them, the envelope, snags, the kit."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from calculations.fields_of_snags import field_of
from calculations.kit import kit_record
from calculations.mends import mend_of
from calculations.records.definitions import EnvelopeMaker
from calculations.records.payload import Payload, Record
from calculations.snapshot import Snapshot
from pendrum_core.air.coil_size import CoilSize
from pendrum_core.air.moisture import RoomMoisture
from pendrum_core.air.result import AirSystemResult, ServedRoom
from pendrum_core.air.unit import curve_of
from pendrum_core.checks.results import result_snags
from pendrum_core.checks.snag import Snag
from pendrum_core.duct.network import valve_kv_m3_h
from pendrum_core.model.climate import day_number
from pendrum_core.model.systems import Circuit
from pendrum_core.plant.rejection import WATER_KG_M3
from pendrum_core.plant.seasonal import season_of
from pendrum_core.plant.source import PlantResult
from pendrum_core.results.balance import room_balances
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.results.outdoor_air import outdoor_air_part, serving
from pendrum_core.results.vessels import vessel_of
from pendrum_core.results.yardsticks import group_basis, room_basis, yardsticks
from pendrum_core.room.outcome.loads import GroupLoads, Peak, RoomLoads
from pendrum_core.water.hot_water import HotWaterResult
from pendrum_core.water.network import CircuitResult
from pendrum_core.water.pump import PumpResult, curve_head, held_head, other_pump, part_loads
from pendrum_core.water.valves import authorities
from projects.rows import Document

_CURVE_TO, _CURVE_POINTS = 4 / 3, 25


def _outdoor_air(
    results: BuildingResults, system_of: dict[str, str], rooms: tuple[str, ...], peak: Peak | None
) -> Record | None:
    """What outdoor air brings to the coils of the rooms at their peak."""
    if peak is None:
        return None
    air = outdoor_air_part(results, system_of, rooms, peak.month, peak.step)
    return None if air is None else {"sensible_w": air.sensible_w, "latent_w": air.latent_w}


def _warmest_c(loads: RoomLoads, results: BuildingResults) -> float | None:
    """Hottest air of a room without cooling under the air that systems bring [°C]; None of others."""
    if loads.floating_peak_c is None:
        return None
    served_c = results.served_air_c(loads.room.id)
    return None if served_c is None else float(served_c.max())


def _room_air(
    loads: RoomLoads,
    results: BuildingResults,
    months: tuple[int, ...],
    system_of: dict[str, str],
    warmest_c: float | None,
) -> Record:
    identity = loads.room.id
    return {
        "warmest_c": warmest_c,
        "heating_duty_w": results.heating_duty_w[identity],
        "outdoor_air": _outdoor_air(results, system_of, (identity,), loads.cooling),
        "yardsticks": dict(vars(yardsticks(room_basis(results, system_of, loads)))),
        "moisture": _moisture(results.moisture[identity], months) if identity in results.moisture else None,
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


def _group_air(group: GroupLoads, results: BuildingResults, system_of: dict[str, str]) -> Record:
    return {
        "outdoor_air": _outdoor_air(results, system_of, group.room_ids, group.cooling),
        "yardsticks": dict(vars(yardsticks(group_basis(results, system_of, group)))),
    }


def _systems(
    results: BuildingResults, months: tuple[int, ...]
) -> tuple[dict[str, Record], dict[str, Record], dict[str, Record]]:
    """Records of systems, of rooms' airflows, and of duct sections."""
    systems, airflows, sections = {}, {}, {}
    drawn = {system.id: system for system in results.building.systems}
    ranks = {(system.id, t.room): t.rank for system in results.building.systems for t in system.terminals}
    for system_id, r in results.systems.items():
        month, step = r.peak
        reheat = r.reheat_w
        systems[system_id] = {
            "flow_m3_s": r.flow_m3_s,
            "mass_kg_s": r.mass_kg_s,
            "outdoor_air": dict(vars(r.outdoor_air)),
            "outdoor_share": r.outdoor_share,
            "coil_total_w": float(r.coil_total_w[month, step]),
            "coil_sensible_w": float(r.coil_sensible_w[month, step]),
            "condensate_kg_s": float(r.condensate_kg_s[month, step]),
            "coil_month": months[month],
            "coil_step": step,
            "winter": _winter(r),
            "balance": r.balance,
            "reheat_w": float(reheat.max()),
            "terminal_fans_w": r.terminal_fans_w,
            "fan": dict(vars(r.fan)),
            "fan_points": [dict(vars(point)) for point in curve_of(drawn[system_id], r.fan).points()],
            "return_fan_w": float(max(r.summer.return_fan_w.max(), r.winter.return_fan_w.max())),
            "coils": [_coil(place, coil) for place, coil in results.coils.get(system_id, {}).items()],
            "duct_leak_share": r.ducts.leak_share if r.ducts else 0.0,
            "duct_gain_k": r.duct_gain_k,
            "return_gain_k": r.return_gain_k,
            "outdoor_gain_k": r.outdoor_gain_k,
            "networks": {
                name: {
                    "index_end": ducts.paths.index,
                    "index_path": list(ducts.tree.path(ducts.paths.index)),
                    "loss_pa": ducts.paths.index_loss_pa,
                    "leak_share": ducts.leak_share,
                }
                for name, ducts in r.networks.items()
            },
        }
        for row, (room, flow) in enumerate(r.airflows.items()):
            airflows[room if ranks[system_id, room] == 1 else f"{room}/2"] = {
                "system": system_id,
                "cooling_m3_s": flow.cooling_m3_s,
                "ventilation_m3_s": flow.ventilation_m3_s,
                "air_changes_m3_s": flow.air_changes_m3_s,
                "design_m3_s": flow.design_m3_s,
                "governing": flow.governing,
                **_served(r.served[room]),
                "supply_c": float(r.summer.room_supply_c(row)[month, step]),
            }
        for ducts in r.networks.values():
            for section_id, s in ducts.sections.items():
                sections[section_id] = _section(s) | {
                    "size": s.shape.size,
                    "sheet_m2": s.sheet_m2,
                    "balancing_pa": ducts.paths.balancing_pa.get(section_id),
                    "path_pa": ducts.paths.loss_pa.get(section_id),
                }
    return systems, airflows, sections


def _coil(place: int, coil: CoilSize) -> Record:
    """A coil by its place among the parts that count."""
    return {"place": place} | {name: value for name, value in vars(coil).items() if name != "entering"}


def _balances(results: BuildingResults) -> dict[str, Record]:
    """Every room's air, with what its systems bring."""
    return {balance.room: dict(vars(balance)) for balance in room_balances(results) if balance.room in results.rooms}


def _winter(r: AirSystemResult) -> Record:
    """The winter day, steady."""
    path = r.winter
    step = int(path.heating_w[0].argmax())
    recovered = path.recovered
    return {
        "return_c": float(path.return_c[0, step]),
        "mixed_c": float(path.mixed_c[0, step]),
        "leaving_c": float(path.heated_c[0, step]),
        "supply_c": float(path.supply_c[0, step]),
        "duty_w": r.heating_coil_w,
        "preheat_w": float(path.preheat_w.max()),
        "recovered_w": float((path.outdoor_kg_s * recovered.recovered_j_kg).max()) if recovered is not None else 0.0,
        "water_kg_s": float((path.flow_kg_s * path.humidified_kg_kg).max()),
    }


def _served(room: ServedRoom) -> Record:
    """What a room gets: largest and least flow, reheat, and how far it misses its set-points."""
    return {
        "largest_kg_s": float(room.flow_kg_s.max()),
        "least_kg_s": float(room.flow_kg_s.min()),
        "reheat_w": float(room.reheat_w.max()),
        "served_cooling_w": max(0.0, float(room.cooling_w.max())),
        "served_heating_w": float(room.heat_w.max()),
        "winter_warmth_w": float(room.winter_warmth_w.max()),
        "over_k": room.over_k,
        "under_k": room.under_k,
        "coldest_c": float(room.air_c.min()),
        "winter_c": float(room.winter_air_c.min()),
    }


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
        "coefficients": section.coefficients,
        "loss_pa": section.loss_pa,
    }


def _circuits(results: BuildingResults) -> tuple[dict[str, Record], dict[str, Record]]:
    circuits, sections = {}, {}
    drawn = {circuit.id: circuit for circuit in results.building.circuits}
    for circuit_id, c in results.circuits.items():
        valves = authorities(drawn[circuit_id], c)
        circuits[circuit_id] = {
            "duty_w": sum(c.duty_w.values()),
            "pump": _pump(drawn[circuit_id], c.pump),
            "water_content_m3": c.water_content_m3,
            "pipes_lose_w": None if drawn[circuit_id].loses_a_share else c.pipes_lose_w,
            "given_back_w": {room: watts for (of, room), watts in results.given_back_w.items() if of == circuit_id},
            "stopped_w": results.courses[circuit_id].stopped.peak_w,
            "vessel": _vessel(results, circuit_id),
            "index_end": c.paths.index,
            "index_path": list(c.tree.path(c.paths.index)),
        }
        for section_id, s in c.sections.items():
            sections[section_id] = _section(s) | {
                "size": s.size,
                "balancing_pa": c.paths.balancing_pa.get(section_id),
                "balancing_kv": _setting(c, section_id),
                "path_pa": c.paths.loss_pa.get(section_id),
                "return_size": ", ".join(run.size for run in s.runs[1:]) or s.size,
                "authority": valves[section_id].authority if section_id in valves else None,
            }
    return circuits, sections


def _setting(found: CircuitResult, section_id: str) -> float | None:
    """Kv at which the balancing valve of an end takes what it has to [m3/h at 1 bar]; None of the index run, which needs none."""
    drop, flow = found.paths.balancing_pa.get(section_id, 0.0), found.sections[section_id].flow_m3_s
    return valve_kv_m3_h(flow, drop, found.fluid.density_kg_m3) if drop > 0.0 and flow > 0.0 else None


def _pump(circuit: Circuit, pump: PumpResult) -> Record:
    """The pumps, their part load, and the curves of pump and network from no flow to a third above the design's; what another pump
    takes at the same part loads, where one is asked about."""
    shares = np.linspace(0.0, _CURVE_TO, _CURVE_POINTS)
    other = other_pump(circuit, pump)
    return dict(vars(pump)) | {
        "part_loads": [dict(vars(point)) for point in part_loads(pump)],
        "other_w": None if other is None else [point.electrical_w for point in part_loads(other)],
        "curve": {
            "flow_m3_s": (pump.flow_m3_s * shares).tolist(),
            "pump_pa": (pump.head_pa * curve_head(shares)).tolist(),
            "held_pa": (pump.head_pa * held_head(pump.control, shares)).tolist(),
            "network_pa": (pump.network_head_pa * shares**2).tolist(),
        },
    }


def _vessel(results: BuildingResults, circuit_id: str) -> Record | None:
    """The expansion vessel; None where it cannot be, which a snag says."""
    circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    try:
        return dict(vars(vessel_of(results, circuit)))
    except ValueError:
        return None


def _plant(results: BuildingResults, circuit_id: str, months: tuple[int, ...]) -> Record:
    """A plant at its largest load."""
    plant = results.plants[circuit_id]
    circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    peak, month, step = plant.course.peak
    staged, day = (plant.winter, 0) if month is None else (plant.summer, month)
    buffer = buffer_of(results, circuit)
    units = {}
    for place, (unit, capacity) in enumerate(zip(circuit.units, plant.capacity_w, strict=True)):
        row = plant.working.index(place) if place in plant.working else None
        units[unit.id] = {
            "capacity_w": capacity,
            "output_w": float(staged.output_w[row, day, step]) if row is not None else 0.0,
            "taken_w": float(staged.fuel_w[row, day, step]) if row is not None else 0.0,
            "taken_gross_w": float(staged.fuel_w[row, day, step]) * plant.gross_over_net[row]
            if row is not None
            else 0.0,
            "seasonal": season.figure if capacity > 0.0 and (season := season_of(unit, capacity)) else None,
        }
    return {
        "peak_w": peak,
        "design_w": plant.design_w,
        "month": 0 if month is None else months[month],
        "step": step,
        "working_w": plant.working_w,
        "without_largest_w": plant.without_largest_w,
        "unmet_w": max(float(plant.summer.unmet_w.max()), float(plant.winter.unmet_w.max())),
        "units": units,
        "cooler": _cooler(plant),
        "buffer": None
        if buffer is None
        else {"needed_m3": buffer.needed_m3, "volume_m3": buffer.volume_m3, "runs_h": buffer.runs_h},
    }


def _cooler(plant: PlantResult) -> Record | None:
    """The tower or dry cooler of chillers cooled by water, at its design point."""
    if plant.cooler is None:
        return None
    found = plant.cooler
    return {
        "kind": found.inputs.kind,
        "heat_w": found.heat_w,
        "air_c": found.air_c,
        "cold_c": found.cold_c,
        "hot_c": found.hot_c,
        "flow_m3_s": found.water_kg_s / WATER_KG_M3,
        "fan_w": found.fan_w,
        "pump_w": found.pump_w,
        "made_up_m3_s": 0.0 if plant.made_up_kg_s is None else float(plant.made_up_kg_s.max()) / WATER_KG_M3,
    }


def _store(found: HotWaterResult) -> Record:
    """A store of hot water on its busiest day."""
    plain = {name: value for name, value in vars(found).items() if isinstance(value, int | float | str)}
    return plain | {
        "losses_w": found.losses_w,
        "draw_w": found.draw_w.round(1).tolist(),
        "charge_course_w": found.charge_course_w.round(1).tolist(),
        "content_share": (found.content_j / max(found.stored_j, 1.0)).round(4).tolist(),
    }


def _snag(snag: Snag, document: Document) -> Record:
    mend = mend_of(snag, document)
    return vars(snag) | {"field": field_of(snag), "mend": mend and {"label": mend.label, "changes": list(mend.changes)}}


@dataclass(frozen=True)
class _RoomKey:
    """What a room's record follows from."""

    loads: RoomLoads
    system: AirSystemResult | None
    moisture: RoomMoisture | None
    duty_w: float
    warmest_c: float | None

    def same(self, other: "_RoomKey") -> bool:
        """Objects are told apart by identity: they are kept while nothing in them changes."""
        return (
            self.loads is other.loads
            and self.system is other.system
            and self.moisture is other.moisture
            and (self.duty_w, self.warmest_c) == (other.duty_w, other.warmest_c)
        )


class PlantMaker:
    """Makes records of one project; those of rooms that did not change are the same objects as before."""

    def __init__(self) -> None:
        self._envelope = EnvelopeMaker()
        self._rooms: dict[str, tuple[_RoomKey, Record]] = {}

    def make(self, snapshot: Snapshot, results: BuildingResults) -> Payload:
        """All records by kind and id."""
        months = tuple(day_number(month) for month in results.building.climate.months)
        system_of = serving(results)
        systems, airflows, duct_sections = _systems(results, months)
        circuits, pipe_sections = _circuits(results)
        snags = [*snapshot.snags, *result_snags(results, snapshot.yardsticks_w_m2)]
        return {
            "room_air": {
                room: self._room_record(loads, results, months, system_of) for room, loads in results.rooms.items()
            },
            "group_air": {i: _group_air(group, results, system_of) for i, group in results.groups.items()},
            "air_system": systems,
            "airflow": airflows,
            "balance": _balances(results),
            "duct_section": duct_sections,
            "circuit": circuits,
            "pipe_section": pipe_sections,
            "feed": {circuit: dict(vars(feed)) for circuit, feed in results.feeds.items()},
            "plant": {circuit: _plant(results, circuit, months) for circuit in results.plants},
            "hot_water": {store: _store(found) for store, found in results.stores.items()},
            "ceiling": {
                room: dict(vars(found)) | {"most": found.most if np.isfinite(found.most) else None}
                for room, found in results.ceilings.items()
            },
            "floor": {room: dict(vars(floor)) for room, floor in results.floors.items()},
            "emitter": {room: dict(vars(emitter)) for room, emitter in results.emitters.items()},
            "snag": {f"{snag.code}/{snag.id}": _snag(snag, snapshot.look.document) for snag in snags},
            # Nobody's peak waits for it.
            "envelope": {"building": self._envelope.make(results)},
            "kit": {item.key: kit_record(item) for item in kit_list(results)},
        }

    def _room_record(
        self, loads: RoomLoads, results: BuildingResults, months: tuple[int, ...], system_of: dict[str, str]
    ) -> Record:
        identity = loads.room.id
        system = results.systems.get(system_of.get(identity, ""))
        warmest_c = _warmest_c(loads, results)
        key = _RoomKey(loads, system, results.moisture.get(identity), results.heating_duty_w[identity], warmest_c)
        kept = self._rooms.get(identity)
        if kept is None or not kept[0].same(key):
            kept = (key, _room_air(loads, results, months, system_of, warmest_c))
            self._rooms[identity] = kept
        return kept[1]
