"""Kit of water: plant, vessels, pumps, pipes, hot water."""

from collections import Counter, defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from pendrum_core.model.catalogue import PUMP
from pendrum_core.model.plant import GROUND_PUMP, TOWER
from pendrum_core.model.systems import DIRECT, MIXED, Circuit
from pendrum_core.plant.motors import next_motor_w
from pendrum_core.plant.rejection import WATER_KG_M3, Cooler
from pendrum_core.plant.source import PlantResult
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.extraction import extraction_of
from pendrum_core.results.kit_item import NEXT_MOTOR, Buying, Choice, Duty, KitItem, fitting_lines, motor, when
from pendrum_core.results.vessels import vessel_of
from pendrum_core.water.feeds import Feed
from pendrum_core.water.pipes import series_of
from pendrum_core.water.pump import PumpResult

_SERIES = "The next of the series above what is needed."


@dataclass(frozen=True)
class _Of:
    """What lines belong to: id of a circuit or store, and its name."""

    id: str
    name: str

    def piece(
        self,
        code: str,
        item: str,
        *duties: Duty,
        choice: Choice | None = None,
        tag: str | None = None,
        state: str = "sized",
        power_w: float = 0.0,
        owner: str | None = None,
        count: int = 1,
    ) -> KitItem:
        """A line of it; tagged by its name and code where no other tag is told."""
        found = choice or Choice("")
        return KitItem(
            1,
            owner or self.id,
            code=code,
            tag=f"{self.name} {code}" if tag is None else tag,
            item=item,
            serves=self.name,
            duties=duties,
            size=found.size,
            why=found.why,
            power_w=power_w,
            count=count,
            weight_kg=found.weight_kg(count),
            state=state,
        )


def _pumps(buying: Buying, circuit: Circuit, pump: PumpResult) -> Iterator[KitItem]:
    """The pumps of a circuit, one line each."""
    flow_m3_s, shaft_w = pump.flow_m3_s / pump.count, pump.shaft_w / pump.count
    choice = buying.choose(PUMP, motor(pump.motor_w), why=NEXT_MOTOR, flow_m3_s=flow_m3_s, pressure_pa=pump.head_pa)
    row = choice.row
    chosen_w = next_motor_w(shaft_w, circuit.motor_margin, circuit.sizes.motors_w)
    duties = (
        Duty(
            "Flow",
            flow_m3_s,
            "water_flow",
            "The largest that its ends take at one time" if pump.diversity < 1.0 else "All ends at their largest",
            chosen=row.flow_m3_s if row else None,
        ),
        Duty(
            "Head",
            pump.network_head_pa,
            "head",
            "Index run and source at that flow",
            circuit.pump_margin,
            pinned=circuit.pinned_head_pa,
            chosen=row.pressure_pa if row else None,
        ),
        Duty(
            "Shaft power",
            shaft_w,
            "electric_power",
            "At the flow and head that are ordered",
            circuit.motor_margin,
            chosen=None if row else chosen_w,
        ),
    )
    for number in range(1, pump.count + pump.standby + 1):
        waits = number > pump.count
        yield _Of(circuit.id, circuit.name).piece(
            f"P{number}",
            "Pump on standby, flow and head" if waits else "Pump, flow and head",
            *duties,
            choice=choice,
            tag=f"{circuit.name} P" + ("" if pump.count + pump.standby == 1 else f"{number}"),
            power_w=0.0 if waits else pump.electrical_w / pump.count,
            state="pinned" if circuit.pinned_head_pa is not None else "sized",
        )


def _hot_water(results: BuildingResults) -> Iterator[KitItem]:
    """Stores, their circulation pumps, collectors and preheating tanks."""
    for store in results.building.stores:
        found = results.stores.get(store.id)
        if found is None:
            continue
        of = _Of(store.id, store.name)
        pinned = None if store.volume_l is None else store.volume_l / 1000.0
        volume = Duty(
            "Volume",
            found.needed_l / 1000.0,
            "water_volume",
            "Busiest day of drawing",
            pinned=pinned,
            chosen=None if pinned is not None else found.volume_l / 1000.0,
        )
        yield of.piece(
            "ST",
            "Hot water store, volume needed and charging power",
            volume,
            Duty("Charging power", found.charge_w, "load", "Busiest day of drawing, with what is lost"),
            choice=Choice(f"{found.volume_l:g} L", why="" if pinned else _SERIES),
            tag=store.name,
            power_w=0.0 if store.circuit else found.charge_w,
            state="pinned" if pinned else "sized",
        )
        if store.loop_pump_w:
            yield of.piece(
                "CP",
                "Circulation pump of hot water",
                Duty("Length of the loop", store.loop_m, "length", "As entered"),
                Duty("Lost on it", found.loop_w, "load", "All day"),
                power_w=store.loop_pump_w,
                state="pinned",
            )
        if store.collector is not None:
            yield of.piece(
                "SC",
                "Solar collectors and preheating tank",
                Duty("Aperture", store.collector.area_m2, "area", "As entered"),
                Duty("Tank", store.collector.tank_l / 1000.0, "water_volume", "As entered"),
                choice=Choice(f"{store.collector.tank_l:g} L"),
                state="pinned",
            )


def _rejection(of: _Of, cooler: Cooler, made_up_kg_s: float, margin: float, at: str) -> Iterator[KitItem]:
    """Tower or dry cooler of chillers cooled by water, and the pump of their water."""
    wet = cooler.inputs.kind == TOWER
    flow = cooler.water_kg_s / WATER_KG_M3
    size = f"{cooler.hot_c:.1f} to {cooler.cold_c:.1f} °C at {cooler.air_c:.1f} °C {'wet-bulb' if wet else 'dry-bulb'}"
    yield of.piece(
        "CT" if wet else "DC",
        "Cooling tower, heat rejected and water" if wet else "Dry cooler, heat rejected and water",
        Duty("Heat rejected", cooler.heat_w / (1.0 + margin), "load", at, margin),
        Duty("Water", flow, "water_flow", "All the time"),
        choice=Choice(size),
        power_w=cooler.fan_w,
    )
    if wet:
        yield of.piece(
            "MW",
            "Make-up water of the tower, at most",
            Duty("Evaporation and blow-down", made_up_kg_s / WATER_KG_M3, "water_flow", "Largest of the design days"),
            choice=Choice(f"{cooler.inputs.cycles:g} cycles of concentration"),
            count=0,
        )
    yield of.piece(
        "CP",
        "Condenser water pump, flow and head",
        Duty("Flow", flow, "water_flow", "All the time"),
        Duty("Head", cooler.inputs.drop_pa, "head", "As entered"),
        power_w=cooler.pump_w,
        state="pinned",
    )


def _sources(of: _Of, circuit: Circuit, plant: PlantResult) -> Iterator[KitItem]:
    """Boreholes or wells of heat pumps, by what they are to give."""
    for row, place in enumerate(plant.working):
        unit = circuit.units[place]
        drawn = extraction_of(unit, plant.extracted_w(row))
        if drawn is not None:
            ground = unit.kind == GROUND_PUMP
            code = "GR" if ground else "WE"
            yield of.piece(
                code,
                f"{'Ground loops' if ground else 'Well'}, heat drawn and {'brine' if ground else 'water'}",
                Duty("Heat drawn", drawn.heat_w, "load", "Largest of all design days"),
                Duty("Flow", drawn.flow_m3_s, "water_flow", "That heat, cooled by 3 K"),
                choice=Choice(f"{unit.source_cold_c:.1f} °C at its coldest"),
                tag=f"{circuit.name} {unit.name} {code}",
                owner=unit.id,
            )


def _joint(of: _Of, feed: Feed) -> Iterator[KitItem]:
    """What joins a circuit to the one that feeds it."""
    if feed.connection == DIRECT:
        return
    flow = Duty("Flow of the source", feed.source_flow_m3_s, "water_flow", "Largest duty")
    if feed.connection == MIXED:
        yield of.piece("MV", "Mixing valve, flow from the source", flow, choice=Choice(f"{feed.share:.0%} of its flow"))
    else:
        yield of.piece(
            "HX",
            "Heat exchanger, duty and flow of the source",
            Duty("Duty", feed.duty_w, "load", "Largest, with what is lost behind it"),
            flow,
            choice=Choice(f"{feed.ua_w_k:.0f} W/K at {feed.mean_k:.1f} K"),
        )


def _units(
    results: BuildingResults, of: _Of, circuit: Circuit, plant: PlantResult, buying: Buying
) -> Iterator[KitItem]:
    """Boilers, machines, connections, standby units too."""
    names = {unit.id: f"{other.name} {unit.name}" for other in results.building.circuits for unit in other.units}
    peak_w, month, step = plant.course.peak
    at, margin = when(results, month, step), plant.design_w / peak_w - 1.0
    for unit, capacity_w, then_w in zip(circuit.units, plant.capacity_w, plant.then_w, strict=True):
        what = f"{unit.kind.capitalize()}, capacity and design load" + (", standby" if unit.standby else "")
        if unit.reverses in names:
            what = f"The same machine as {names[unit.reverses]}, cooling: capacity and design load"
        choice = buying.choose(unit.kind, unit.fuel, output_w=capacity_w)
        gives = then_w / capacity_w if capacity_w > 0.0 else 1.0
        yield of.piece(
            "",
            what,
            Duty(
                f"{unit.share:.0%} of the load" + (f", of which it gives {gives:.0%} then" if gives < 1.0 else ""),
                unit.share * peak_w / gives,
                "load",
                at,
                margin,
                pinned=unit.capacity_w,
                chosen=choice.row.output_w if choice.row else None,
            ),
            Duty("Load of the circuit", peak_w, "load", at, margin),
            choice=choice,
            tag=f"{circuit.name} {unit.name}",
            state="pinned" if unit.capacity_w is not None else "sized",
            owner=unit.id,
        )


def _stores(results: BuildingResults, of: _Of, circuit: Circuit) -> Iterator[KitItem]:
    """Buffer and expansion vessel of a circuit."""
    buffer = buffer_of(results, circuit)
    if buffer is not None and buffer.volume_m3 > 0.0:
        pinned = circuit.pinned_buffer_m3
        yield of.piece(
            "BS",
            "Buffer store, volume needed",
            Duty(
                "Volume",
                buffer.needed_m3,
                "water_volume",
                "Least run of the smallest unit",
                pinned=pinned,
                chosen=None if pinned is not None else buffer.volume_m3,
            ),
            choice=Choice(f"{buffer.volume_m3 * 1000.0:.0f} L", why=_SERIES if pinned is None else ""),
            state="pinned" if pinned is not None else "sized",
        )
    try:
        vessel = vessel_of(results, circuit)
    except ValueError:
        return  # a snag says so
    yield of.piece(
        "EV",
        "Expansion vessel, volume needed and final pressure",
        Duty("Volume", vessel.volume_m3, "water_volume", "Water at its warmest", chosen=vessel.chosen_m3),
        Duty("Final pressure", vessel.final_pa, "gauge_pressure", "Water at its warmest"),
        choice=Choice(f"{vessel.chosen_m3 * 1000.0:g} L", why=_SERIES)
        if vessel.chosen_m3
        else Choice("above the series"),
    )


def _pipes(results: BuildingResults, of: _Of, circuit: Circuit) -> Iterator[KitItem]:
    """Pipes by size with their insulation, and fittings."""
    found = results.circuits[circuit.id].sections
    pipes: dict[tuple[float, str], float] = defaultdict(float)
    for section in circuit.sections:
        for run in found[section.id].runs:
            pipes[(run.diameter_m, run.size)] += run.length_m
    made_of = series_of(circuit).title.capitalize()
    for (_, size), length in sorted(pipes.items()):
        both = Duty("Flow and return together", length, "length")
        yield of.piece(size, f"{made_of} pipe, flow and return", both, choice=Choice(size), count=0)
        if circuit.pipe_insulation_m:
            item = f"Pipe insulation, {circuit.pipe_insulation_m * 1000:g} mm"
            yield of.piece(f"{size} insulation", item, both, choice=Choice(f"around {size}"), count=0)
    sizes = {section.id: found[section.id].size for section in circuit.sections}
    yield from fitting_lines(1, circuit.id, circuit.name, circuit.sections, sizes)


def _valves(results: BuildingResults, of: _Of, circuit: Circuit) -> Iterator[KitItem]:
    """Control valves by their kv; balancing valves: one at every end but the index run's, by what they have to take."""
    kvs = Counter(section.valve_kv_m3_h for section in circuit.sections if section.valve_kv_m3_h is not None)
    for kv, count in sorted(kvs.items()):
        pieces = Duty("Valves", float(count), "count", "Every end that has one entered")
        yield of.piece(
            f"V{kv:g}", "Control valve", pieces, choice=Choice(f"kv {kv:g} m³/h"), state="counted", count=count
        )
    found = results.circuits[circuit.id]
    takes = {end: pa for end, pa in found.paths.balancing_pa.items() if end != found.paths.index}
    if takes:
        yield of.piece(
            "BV",
            "Balancing valves, the most that one takes",
            Duty("Pressure drop", max(takes.values()), "head", "Flow of design"),
            Duty("Valves", float(len(takes)), "count", "Every end but the index run's"),
            choice=Choice(f"{len(takes)} pieces"),
            count=len(takes),
        )


def water_kit(results: BuildingResults, buying: Buying) -> Iterator[KitItem]:
    """All of stores, circuits and their plant."""
    yield from _hot_water(results)
    for circuit in results.building.circuits:
        of, plant = _Of(circuit.id, circuit.name), results.plants.get(circuit.id)
        if plant is not None:
            if plant.cooler is not None and plant.rejected is not None:
                made_up = 0.0 if plant.made_up_kg_s is None else float(plant.made_up_kg_s.max())
                heat = plant.rejected.heat_w
                at = divmod(int(heat.argmax()), heat.shape[-1])
                margin = plant.design_w / plant.course.peak[0] - 1.0
                yield from _rejection(of, plant.cooler, made_up, margin, when(results, *at))
            yield from _units(results, of, circuit, plant, buying)
            yield from _sources(of, circuit, plant)
        if circuit.id in results.feeds:
            yield from _joint(of, results.feeds[circuit.id])
        if circuit.id in results.circuits:
            yield from _pumps(buying, circuit, results.circuits[circuit.id].pump)
            yield from _stores(results, of, circuit)
            yield from _valves(results, of, circuit)
            yield from _pipes(results, of, circuit)
