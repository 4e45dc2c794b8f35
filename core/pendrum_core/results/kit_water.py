"""Kit of water: plant, vessels, pumps, pipes, hot water."""

from collections import defaultdict
from collections.abc import Iterator

from pendrum_core.model.catalogue import PUMP
from pendrum_core.model.plant import GROUND_PUMP, TOWER
from pendrum_core.model.systems import DIRECT, MIXED, Circuit
from pendrum_core.plant.rejection import WATER_KG_M3, Cooler
from pendrum_core.plant.source import PlantResult
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.extraction import extraction_of
from pendrum_core.results.kit_item import Buying, KitItem, fitting_lines, motor
from pendrum_core.results.vessels import vessel_of
from pendrum_core.water.feeds import Feed
from pendrum_core.water.pipes import series_of
from pendrum_core.water.pump import PumpResult


def _pumps(buying: Buying, circuit: Circuit, pump: PumpResult) -> Iterator[KitItem]:
    """The pumps of a circuit, one line each."""
    state = "pinned" if circuit.pinned_head_pa is not None else "sized"
    size = buying.named(PUMP, motor(pump.motor_w), flow_m3_s=pump.flow_m3_s / pump.count, pressure_pa=pump.head_pa)
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


def _rejection(circuit: Circuit, cooler: Cooler, made_up_kg_s: float) -> Iterator[KitItem]:
    """Tower or dry cooler of chillers cooled by water, and the pump of their water."""
    wet = cooler.inputs.kind == TOWER
    flow = cooler.water_kg_s / WATER_KG_M3
    yield KitItem(
        1,
        circuit.id,
        tag=f"{circuit.name} {'CT' if wet else 'DC'}",
        item="Cooling tower, heat rejected and water" if wet else "Dry cooler, heat rejected and water",
        serves=circuit.name,
        duty=cooler.heat_w,
        duty_quantity="load",
        second=flow,
        second_quantity="water_flow",
        size=f"{cooler.hot_c:.1f} to {cooler.cold_c:.1f} °C at {cooler.air_c:.1f} °C {'wet-bulb' if wet else 'dry-bulb'}",
        power_w=cooler.fan_w,
    )
    if wet:
        yield KitItem(
            1,
            circuit.id,
            tag=f"{circuit.name} MW",
            item="Make-up water of the tower, at most",
            serves=circuit.name,
            duty=made_up_kg_s / WATER_KG_M3,
            duty_quantity="water_flow",
            size=f"{cooler.inputs.cycles:g} cycles of concentration",
        )
    yield KitItem(
        1,
        circuit.id,
        tag=f"{circuit.name} CP",
        item="Condenser water pump, flow and head",
        serves=circuit.name,
        duty=flow,
        duty_quantity="water_flow",
        second=cooler.inputs.drop_pa,
        second_quantity="head",
        power_w=cooler.pump_w,
        state="pinned",
    )


def _sources(circuit: Circuit, plant: PlantResult) -> Iterator[KitItem]:
    """Boreholes or wells of heat pumps, by what they are to give."""
    for row, place in enumerate(plant.working):
        unit = circuit.units[place]
        drawn = extraction_of(unit, plant.extracted_w(row))
        if drawn is not None:
            ground = unit.kind == GROUND_PUMP
            yield KitItem(
                1,
                circuit.id,
                tag=f"{circuit.name} {unit.name} {'GR' if ground else 'WE'}",
                item=f"{'Ground loops' if ground else 'Well'}, heat drawn and {'brine' if ground else 'water'}",
                serves=circuit.name,
                duty=drawn.heat_w,
                duty_quantity="load",
                second=drawn.flow_m3_s,
                second_quantity="water_flow",
                size=f"{unit.source_cold_c:.1f} °C at its coldest",
            )


def _joint(circuit: Circuit, feed: Feed) -> Iterator[KitItem]:
    """What joins a circuit to the one that feeds it."""
    if feed.connection == DIRECT:
        return
    mixed = feed.connection == MIXED
    yield KitItem(
        1,
        circuit.id,
        tag=f"{circuit.name} {'MV' if mixed else 'HX'}",
        item="Mixing valve, flow from the source" if mixed else "Heat exchanger, duty and flow of the source",
        serves=circuit.name,
        duty=feed.source_flow_m3_s if mixed else feed.duty_w,
        duty_quantity="water_flow" if mixed else "load",
        second=0.0 if mixed else feed.source_flow_m3_s,
        second_quantity="" if mixed else "water_flow",
        size=f"{feed.share:.0%} of its flow" if mixed else f"{feed.ua_w_k:.0f} W/K at {feed.mean_k:.1f} K",
    )


def water_kit(results: BuildingResults, buying: Buying) -> Iterator[KitItem]:
    """All of stores, circuits and their plant."""
    yield from _hot_water(results)
    names = {unit.id: f"{of.name} {unit.name}" for of in results.building.circuits for unit in of.units}
    for circuit in results.building.circuits:
        plant = results.plants.get(circuit.id)
        if plant is not None and plant.cooler is not None:
            made_up = 0.0 if plant.made_up_kg_s is None else float(plant.made_up_kg_s.max())
            yield from _rejection(circuit, plant.cooler, made_up)
        for unit, capacity in zip(circuit.units, plant.capacity_w if plant else (), strict=bool(plant)):
            state = "pinned" if unit.capacity_w is not None else "sized"
            what = f"{unit.kind.capitalize()}, capacity and design load" + (", standby" if unit.standby else "")
            if unit.reverses in names:
                what = f"The same machine as {names[unit.reverses]}, cooling: capacity and design load"
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
        if plant is not None:
            yield from _sources(circuit, plant)
        if circuit.id in results.feeds:
            yield from _joint(circuit, results.feeds[circuit.id])
        if circuit.id not in results.circuits:
            continue
        c = results.circuits[circuit.id]
        yield from _pumps(buying, circuit, c.pump)
        if (buffer := buffer_of(results, circuit)) is not None and buffer.volume_m3 > 0.0:
            yield KitItem(
                1,
                circuit.id,
                tag=f"{circuit.name} BS",
                item="Buffer store, volume needed",
                serves=circuit.name,
                duty=buffer.needed_m3,
                duty_quantity="water_volume",
                size=f"{buffer.volume_m3 * 1000.0:.0f} L",
                state="pinned" if circuit.pinned_buffer_m3 is not None else "sized",
            )
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
            for run in pipe.runs:
                pipes[(run.diameter_m, run.size)] += run.length_m
        made_of = series_of(circuit).title.capitalize()
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
                    tag=f"{circuit.name} {size} insulation",
                    item=f"Pipe insulation, {circuit.pipe_insulation_m * 1000:g} mm",
                    serves=circuit.name,
                    duty=length,
                    duty_quantity="length",
                    size=f"around {size}",
                )
        sizes = {section.id: c.sections[section.id].size for section in circuit.sections}
        yield from fitting_lines(1, circuit.id, circuit.name, circuit.sections, sizes)
