"""The kit list: every piece of equipment with its duty, for procurement."""

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from pendrum_core.duct.shapes import Shape
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.vessels import vessel_of


@dataclass(frozen=True)
class KitItem:
    """One line of the kit list.

    Attributes:
        order: 0 air, 1 water, 2 emitters; lines are sorted by it and the tag.
        owner: id of the system, circuit or room it belongs to.
        tag, item, serves: what it is.
        duty, duty_quantity: main duty as an SI value with its quantity; a second one may follow.
        size: standard size chosen.
        power_w: electrical power; 0 where it has none.
        state: "sized" or "pinned".
    """

    order: int
    owner: str
    tag: str
    item: str
    serves: str
    duty: float
    duty_quantity: str
    second: float
    second_quantity: str
    size: str
    power_w: float
    state: str


def _motor(motor_w: float | None) -> str:
    return f"motor {motor_w / 1000:g} kW" if motor_w else "above the standard motors"


def kit_list(results: BuildingResults) -> Iterator[KitItem]:
    """All equipment of a building, systems first."""
    for system in results.building.systems:
        if system.id not in results.systems:
            continue
        r = results.systems[system.id]
        month, step = r.peak
        name = system.name
        yield KitItem(0, system.id, f"{name} SF", "Supply fan, flow and static pressure", name, r.fan.flow_m3_s, "airflow", r.fan.static_pa, "pressure",
                      _motor(r.fan.motor_w), r.fan.electrical_w, "sized")  # fmt: skip
        total = float(r.coil_total_w[month, step])
        sensible = float(r.coil_sensible_w[month, step])
        yield KitItem(
            0,
            system.id,
            f"{name} CC",
            "Cooling coil, total and sensible",
            name,
            total,
            "load",
            sensible,
            "load",
            "",
            0.0,
            "sized",
        )
        yield KitItem(0, system.id, f"{name} HC", "Heating coil, duty and leaving air", name, r.heating_coil_w, "load", float(r.winter.heated_c.max()), "temperature",
                      "", 0.0, "sized")  # fmt: skip
        reheat = float(r.reheat_w.max())
        if reheat > 1.0:
            yield KitItem(0, system.id, f"{name} RH", "Terminal reheat, electric, all rooms together", name, reheat, "load", 0.0, "",
                          "", reheat, "sized")  # fmt: skip
        pinned = [f for f in r.airflows.values() if f.governing == "pinned"]
        state = f"{len(pinned)} pinned" if pinned else "sized"
        yield KitItem(
            0,
            system.id,
            f"{name} T",
            f"Supply terminals, {len(r.airflows)}",
            name,
            r.flow_m3_s,
            "airflow",
            0.0,
            "",
            "",
            0.0,
            state,
        )
        if r.ducts:
            runs: dict[Shape, list[float]] = defaultdict(lambda: [0.0, 0.0, 0.0])
            for section in system.sections:
                found = r.ducts.sections[section.id]
                totals = runs[found.shape]
                for i, value in enumerate((section.length_m, found.sheet_m2, found.sheet_kg)):
                    totals[i] += value
            for shape, (length, sheet, mass) in sorted(runs.items(), key=lambda item: (item[0].kind, item[0].area_m2)):
                what = f"{shape.kind.capitalize()} duct, length and sheet"
                yield KitItem(0, system.id, f"{name} D{shape.size}", what, name, length, "length", sheet, "area",
                              f"{shape.size} mm, {shape.sheet_m * 1000:g} mm sheet, {mass:.0f} kg", 0.0, "sized")  # fmt: skip
    rooms = {room.id: room for room in results.building.rooms}
    for extract in results.building.extracts:
        if not extract.by_unit and extract.room in rooms:
            room = rooms[extract.room]
            power = extract.flow_m3_s * extract.fan_pa / extract.fan_efficiency
            yield KitItem(0, extract.room, f"{room.number} EF {extract.name}", "Extract fan, flow and total pressure",
                          f"{room.number} {room.name}", extract.flow_m3_s, "airflow", extract.fan_pa, "pressure", "", power, "sized")  # fmt: skip
    for circuit in results.building.circuits:
        if circuit.id not in results.circuits:
            continue
        c = results.circuits[circuit.id]
        yield KitItem(1, circuit.id, f"{circuit.name} P", "Pump, flow and head", circuit.name, c.pump.flow_m3_s, "water_flow", c.pump.head_pa, "head",
                      _motor(c.pump.motor_w), c.pump.electrical_w, "sized")  # fmt: skip
        plant = results.plants.get(circuit.id)
        for unit, capacity in zip(circuit.units, plant.capacity_w if plant else (), strict=bool(plant)):
            state = "pinned" if unit.capacity_w is not None else "sized"
            what = f"{unit.kind.capitalize()}, capacity and design load" + (", standby" if unit.standby else "")
            assert plant is not None
            yield KitItem(1, circuit.id, f"{circuit.name} {unit.name}", what, circuit.name, capacity, "load", plant.design_w, "load",
                          unit.fuel, 0.0, state)  # fmt: skip
        try:
            vessel = vessel_of(results, circuit)
        except ValueError:
            pass  # a snag says so
        else:
            size = f"{vessel.chosen_m3 * 1000.0:g} L" if vessel.chosen_m3 else "above the series"
            yield KitItem(1, circuit.id, f"{circuit.name} EV", "Expansion vessel, volume needed and final pressure", circuit.name,
                          vessel.volume_m3, "water_volume", vessel.final_pa, "gauge_pressure", size, 0.0, "sized")  # fmt: skip
        pipes: dict[str, float] = defaultdict(float)
        for section in circuit.sections:
            pipes[c.sections[section.id].size] += 2.0 * section.length_m
        for size, length in sorted(pipes.items(), key=lambda item: float(item[0].split()[-1].replace("mm", "0"))):
            yield KitItem(1, circuit.id, f"{circuit.name} {size}", "Steel pipe, flow and return", circuit.name, length, "length", 0.0, "",
                          size, 0.0, "sized")  # fmt: skip
    for room_id, emitter in results.emitters.items():
        if emitter.duty_w > 0.0:
            room = results.rooms[room_id].room
            yield KitItem(2, room_id, f"R {room.number}", "Radiator, duty and rating at 75/65/20", f"{room.number} {room.name}", emitter.duty_w, "load",
                          emitter.rating_w, "load", f"{emitter.chosen_w:g} W" if emitter.chosen_w else "above the series", 0.0, "sized")  # fmt: skip
