"""The kit list: every piece of equipment with its duty, for procurement."""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from pendrum_core.duct.shapes import Shape
from pendrum_core.model.catalogue import FAN, PUMP, RADIATOR, CatalogueRow, choose, rows_of
from pendrum_core.model.systems import Circuit, Section
from pendrum_core.network.fittings import FITTINGS
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.vessels import vessel_of
from pendrum_core.water.pipes import PIPES
from pendrum_core.water.pump import PumpResult


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
        state: "sized", "pinned" or "counted".
    """

    order: int
    owner: str
    tag: str
    item: str
    serves: str
    duty: float
    duty_quantity: str
    second: float = 0.0
    second_quantity: str = ""
    size: str = ""
    power_w: float = 0.0
    state: str = "sized"


NONE_COVERS = "none of the catalogue covers it"


class _Buying:
    """What lines are ordered as, where there is a catalogue of their item; each item's rows are put in order once."""

    def __init__(self, catalogue: Sequence[CatalogueRow]) -> None:
        self._rows = {item: rows_of(catalogue, item) for item in {row.item for row in catalogue}}

    def named(self, item: str, otherwise: str, **duty: float) -> str:
        """The smallest row that covers a duty."""
        if item not in self._rows:
            return otherwise
        row = choose(self._rows[item], **duty)
        return row.name if row is not None else NONE_COVERS


def _motor(motor_w: float | None) -> str:
    return f"motor {motor_w / 1000:g} kW" if motor_w else "above the standard motors"


def _pumps(buying: _Buying, circuit: Circuit, pump: PumpResult) -> Iterator[KitItem]:
    """The pumps of a circuit, one line each."""
    state = "pinned" if circuit.pinned_head_pa is not None else "sized"
    size = buying.named(PUMP, _motor(pump.motor_w), flow_m3_s=pump.flow_m3_s / pump.count, pressure_pa=pump.head_pa)
    for number in range(1, pump.count + pump.standby + 1):
        waits = number > pump.count
        tag = f"{circuit.name} P" if pump.count + pump.standby == 1 else f"{circuit.name} P{number}"
        item = "Pump on standby, flow and head" if waits else "Pump, flow and head"
        yield KitItem(
            1,
            circuit.id,
            tag=tag,
            item=item,
            serves=circuit.name,
            duty=pump.flow_m3_s / pump.count,
            duty_quantity="water_flow",
            second=pump.head_pa,
            second_quantity="head",
            size=size,
            power_w=0.0 if waits else pump.electrical_w / pump.count,
            state=state,
        )


def _fittings(
    order: int, owner: str, name: str, sections: Iterable[Section], sizes: Mapping[str, str]
) -> Iterator[KitItem]:
    """Fittings of a tree that are entered by kind, counted by kind and size."""
    counts: dict[tuple[str, str], int] = defaultdict(int)
    for section in sections:
        for fitted in section.fittings:
            title = FITTINGS[fitted.kind].title if fitted.kind else "Fitting with a coefficient of its own"
            counts[(title, sizes[section.id])] += fitted.count
    for (title, size), count in sorted(counts.items()):
        yield KitItem(
            order,
            owner,
            tag=f"{name} {size} {title}",
            item=title,
            serves=name,
            duty=float(count),
            duty_quantity="count",
            size=size,
            state="counted",
        )


def _hot_water(results: BuildingResults) -> Iterator[KitItem]:
    """Stores, their circulation pumps, collectors and preheating tanks."""
    for store in results.building.stores:
        found = results.stores.get(store.id)
        if found is None:
            continue
        state = "pinned" if store.volume_l is not None else "sized"
        yield KitItem(
            1,
            store.id,
            tag=store.name,
            item="Hot water store, volume needed and charging power",
            serves=store.name,
            duty=found.needed_l / 1000.0,
            duty_quantity="water_volume",
            second=found.charge_w,
            second_quantity="load",
            size=f"{found.volume_l:g} L",
            power_w=0.0 if store.circuit else found.charge_w,
            state=state,
        )
        if store.loop_pump_w:
            yield KitItem(
                1,
                store.id,
                tag=f"{store.name} CP",
                item="Circulation pump of hot water",
                serves=store.name,
                duty=store.loop_m,
                duty_quantity="length",
                second=found.loop_w,
                second_quantity="load",
                power_w=store.loop_pump_w,
                state="pinned",
            )
        if store.collector is not None:
            yield KitItem(
                1,
                store.id,
                tag=f"{store.name} SC",
                item="Solar collectors and preheating tank",
                serves=store.name,
                duty=store.collector.area_m2,
                duty_quantity="area",
                second=store.collector.tank_l / 1000.0,
                second_quantity="water_volume",
                size=f"{store.collector.tank_l:g} L",
                state="pinned",
            )


def kit_list(results: BuildingResults) -> Iterator[KitItem]:
    """All equipment of a building, systems first."""
    buying = _Buying(results.building.catalogue)
    for system in results.building.systems:
        if system.id not in results.systems:
            continue
        r = results.systems[system.id]
        month, step = r.peak
        name = system.name
        yield KitItem(
            0,
            system.id,
            tag=f"{name} SF",
            item="Supply fan, flow and static pressure",
            serves=name,
            duty=r.fan.flow_m3_s,
            duty_quantity="airflow",
            second=r.fan.static_pa,
            second_quantity="pressure",
            size=buying.named(FAN, _motor(r.fan.motor_w), flow_m3_s=r.fan.flow_m3_s, pressure_pa=r.fan.static_pa),
            power_w=r.fan.electrical_w,
        )
        total = float(r.coil_total_w[month, step])
        sensible = float(r.coil_sensible_w[month, step])
        yield KitItem(
            0,
            system.id,
            tag=f"{name} CC",
            item="Cooling coil, total and sensible",
            serves=name,
            duty=total,
            duty_quantity="load",
            second=sensible,
            second_quantity="load",
        )
        yield KitItem(
            0,
            system.id,
            tag=f"{name} HC",
            item="Heating coil, duty and leaving air",
            serves=name,
            duty=r.heating_coil_w,
            duty_quantity="load",
            second=float(r.winter.heated_c.max()),
            second_quantity="temperature",
        )
        reheat = float(r.reheat_w.max())
        if reheat > 1.0:
            yield KitItem(
                0,
                system.id,
                tag=f"{name} RH",
                item=f"Terminal reheat, {system.reheat}, all rooms together",
                serves=name,
                duty=reheat,
                duty_quantity="load",
                power_w=reheat if system.reheat == "electric" else 0.0,
            )
        pinned = [f for f in r.airflows.values() if f.governing == "pinned"]
        state = f"{len(pinned)} pinned" if pinned else "sized"
        yield KitItem(
            0,
            system.id,
            tag=f"{name} T",
            item=f"Supply terminals, {len(r.airflows)}",
            serves=name,
            duty=r.flow_m3_s,
            duty_quantity="airflow",
            state=state,
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
                yield KitItem(
                    0,
                    system.id,
                    tag=f"{name} D{shape.size}",
                    item=what,
                    serves=name,
                    duty=length,
                    duty_quantity="length",
                    second=sheet,
                    second_quantity="area",
                    size=f"{shape.size} mm, {shape.sheet_m * 1000:g} mm sheet, {mass:.0f} kg",
                )
            sizes = {section.id: f"{r.ducts.sections[section.id].shape.size} mm" for section in system.sections}
            yield from _fittings(0, system.id, name, system.sections, sizes)
    rooms = {room.id: room for room in results.building.rooms}
    for extract in results.building.extracts:
        if not extract.by_unit and extract.room in rooms:
            room = rooms[extract.room]
            power = extract.flow_m3_s * extract.fan_pa / extract.fan_efficiency
            yield KitItem(
                0,
                extract.room,
                tag=f"{room.number} EF {extract.name}",
                item="Extract fan, flow and total pressure",
                serves=f"{room.number} {room.name}",
                duty=extract.flow_m3_s,
                duty_quantity="airflow",
                second=extract.fan_pa,
                second_quantity="pressure",
                power_w=power,
            )
    yield from _hot_water(results)
    for circuit in results.building.circuits:
        plant = results.plants.get(circuit.id)
        for unit, capacity in zip(circuit.units, plant.capacity_w if plant else (), strict=bool(plant)):
            state = "pinned" if unit.capacity_w is not None else "sized"
            what = f"{unit.kind.capitalize()}, capacity and design load" + (", standby" if unit.standby else "")
            assert plant is not None
            yield KitItem(
                1,
                circuit.id,
                tag=f"{circuit.name} {unit.name}",
                item=what,
                serves=circuit.name,
                duty=capacity,
                duty_quantity="load",
                second=plant.design_w,
                second_quantity="load",
                size=buying.named(unit.kind, unit.fuel, output_w=capacity),
                state=state,
            )
        if circuit.id not in results.circuits:
            continue
        c = results.circuits[circuit.id]
        yield from _pumps(buying, circuit, c.pump)
        try:
            vessel = vessel_of(results, circuit)
        except ValueError:
            pass  # a snag says so
        else:
            size = f"{vessel.chosen_m3 * 1000.0:g} L" if vessel.chosen_m3 else "above the series"
            yield KitItem(
                1,
                circuit.id,
                tag=f"{circuit.name} EV",
                item="Expansion vessel, volume needed and final pressure",
                serves=circuit.name,
                duty=vessel.volume_m3,
                duty_quantity="water_volume",
                second=vessel.final_pa,
                second_quantity="gauge_pressure",
                size=size,
            )
        pipes: dict[tuple[float, str], float] = defaultdict(float)
        for section in circuit.sections:
            pipe = c.sections[section.id]
            pipes[(pipe.diameter_m, pipe.size)] += 2.0 * section.length_m
        made_of = PIPES[circuit.pipe].title.capitalize()
        for (_, size), length in sorted(pipes.items()):
            yield KitItem(
                1,
                circuit.id,
                tag=f"{circuit.name} {size}",
                item=f"{made_of} pipe, flow and return",
                serves=circuit.name,
                duty=length,
                duty_quantity="length",
                size=size,
            )
            if circuit.pipe_insulation_m:
                yield KitItem(
                    1,
                    circuit.id,
                    tag=f"{circuit.name} {size}",
                    item=f"Pipe insulation, {circuit.pipe_insulation_m * 1000:g} mm",
                    serves=circuit.name,
                    duty=length,
                    duty_quantity="length",
                    size=f"around {size}",
                )
        sizes = {section.id: c.sections[section.id].size for section in circuit.sections}
        yield from _fittings(1, circuit.id, circuit.name, circuit.sections, sizes)
    for room_id, emitter in results.emitters.items():
        if emitter.duty_w > 0.0:
            room = results.rooms[room_id].room
            yield KitItem(
                2,
                room_id,
                tag=f"R {room.number}",
                item="Radiator, duty and rating at 75/65/20",
                serves=f"{room.number} {room.name}",
                duty=emitter.duty_w,
                duty_quantity="load",
                second=emitter.rating_w,
                second_quantity="load",
                size=buying.named(
                    RADIATOR,
                    f"{emitter.chosen_w:g} W" if emitter.chosen_w else "above the series",
                    output_w=emitter.rating_w,
                ),
            )
