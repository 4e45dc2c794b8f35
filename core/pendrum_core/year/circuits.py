"""Circuits and their plants over the hours of a year."""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.plant import GROSS_OVER_NET, KINDS, SOURCE, TOWER
from pendrum_core.model.systems import WATER_REHEAT, Circuit
from pendrum_core.model.year import YearCircuit
from pendrum_core.plant.ground import extracted_w, warmth
from pendrum_core.plant.running import Running, flow_temperature_c, part_flow, runs
from pendrum_core.plant.source import AirOutside, Water, members_of, return_c, with_losses_w
from pendrum_core.results.bands import within
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.feeds import fed_first
from pendrum_core.water.losses import given_back_w, pumps_heat_w
from pendrum_core.water.network import CircuitResult
from pendrum_core.water.pump import electrical_w, other_pump
from pendrum_core.year.hot_water import HotWaterYear
from pendrum_core.year.meter import ELECTRICITY, HOT_WATER, NO_COLD, NO_HEAT, Meter
from pendrum_core.year.sky import YearSky
from pendrum_core.year.systems import SystemYear

Array = NDArray[np.float64]
Single = NDArray[np.float32]


def running_of(circuit: Circuit, told: YearCircuit, sky: YearSky) -> Running:
    """When a circuit runs over the year, and at what temperature it flows [°C]. Source: see plant/running.py."""
    outdoor, hours = sky.dry_bulb_c, len(sky.dry_bulb_c)
    on, flow = (None if course is None else course.hours()[:hours] for course in (told.running, told.flow_c))
    return Running(runs(circuit, outdoor, on), flow_temperature_c(circuit, outdoor, flow))


def circuits_year(
    results: BuildingResults,
    systems: Mapping[str, SystemYear],
    heat: Mapping[str, Array],
    cold: Mapping[str, Array],
    stores: Mapping[str, HotWaterYear],
    sky: YearSky,
    meter: Meter,
    runnings: Mapping[str, Running],
) -> tuple[dict[tuple[str, str], Single], dict[str, Single], dict[str, Single]]:
    """What circuits carry, and what their units take for it; whatever is on no circuit is counted as heat or cold without a plant.

    Returned are, hour by hour [W]: what units give, by (circuit, unit); what circuits carry; what they do not give, by circuit.

    Source: heat balances of circuits; units as on the design days, see plant/staging.py.
    """
    hours = len(sky.dry_bulb_c)
    of_drawn: dict[str, list[str]] = {}
    reheats: dict[str, str] = {}
    for system in results.building.systems:
        if system.id in systems:
            of_drawn.setdefault(system.drawn, []).append(system.id)
            reheats |= {t.room: system.reheat for t in system.terminals if t.reheats}
    of_water = {
        system.id: {t.room for t in system.terminals if t.room in heat and t.reheats}
        for system in results.building.systems
        if system.reheat == WATER_REHEAT
    }
    emitters = {
        section.end
        for circuit in results.building.circuits
        if circuit.kind == "heating"
        for section in circuit.sections
    }
    outputs: dict[tuple[str, str], Single] = {}
    carried: dict[str, Single] = {}
    unmet: dict[str, Single] = {}
    warmed: set[str] = set()
    chilled: set[str] = set()
    heated: set[str] = set()
    cooled: set[str] = set()
    fed: dict[str, tuple[Array, Array]] = {}
    ordered, circle = fed_first(results.building.circuits)
    busy: dict[str, Array] = {}  # by heat pump that works in the hour, share of what it could give
    for circuit in [*ordered, *circle]:
        of_rooms: dict[str, Array] = {}
        load, fed_hot = fed.pop(circuit.id, (np.zeros(hours), np.zeros(hours)))
        # In the order of the sections and of the rooms, so that every process adds up to the same last digit.
        for end in dict.fromkeys(section.end for section in circuit.sections if section.end is not None):
            for identity in of_drawn.get(end, ()):
                load += systems[identity].heating_w if circuit.kind == "heating" else systems[identity].cooling_w
                if circuit.kind == "heating":
                    for room in sorted(of_water.get(identity, set()) - heated - emitters):
                        load += heat[room]
                        heated.add(room)
                (warmed if circuit.kind == "heating" else chilled).add(identity)
            if circuit.kind == "chilled" and end in cold and end not in cooled:
                of_rooms[end] = within(cold[end], results.bands.get((circuit.id, end)))
                load += of_rooms[end]
                if (circuit.id, end) not in results.bands:
                    cooled.add(end)
            if circuit.kind == "heating" and end in heat:
                of_rooms[end] = within(heat[end], results.bands.get((circuit.id, end)))
                load += of_rooms[end]
                heated.add(end)
        stopped = ~runnings[circuit.id].on
        if stopped.any():
            unmet[circuit.id] = np.where(stopped, load, 0.0).astype(np.float32)
            load = np.where(stopped, 0.0, load)
        lost_w = results.circuits[circuit.id].pipes_lose_w if circuit.id in results.circuits else 0.0
        back = {}
        if shares := results.loss_shares.get(circuit.id):
            asked_of = {room: np.where(stopped, 0.0, watts) for room, watts in of_rooms.items()}
            back = given_back_w(circuit, asked_of, load, lost_w, shares)
        pumps_w = pumps_heat_w(circuit, results.circuits[circuit.id]) if circuit.id in results.circuits else 0.0
        load = with_losses_w(circuit, load, lost_w + pumps_w) - sum(back.values())
        use = "heating" if circuit.kind == "heating" else "cooling"
        hot = np.array(fed_hot)
        for identity, found_store in stores.items():
            if results.stores[identity].store.circuit == circuit.id:
                hot += found_store.charged_w
        buffer = buffer_of(results, circuit)
        stands = np.where(stopped, 0.0, 0.0 if buffer is None else buffer.standing_w)
        if circuit.id in results.courses:
            carried[circuit.id] = (load + hot + stands).astype(np.float32)
            unmet.setdefault(circuit.id, np.zeros(hours, dtype=np.float32))
        if circuit.id in results.circuits:
            piped = results.circuits[circuit.id]
            flow = np.where(load > 0.0, _pumps_flow(circuit, piped, load, runnings[circuit.id].flow_c), 0.0)
            pumps, other = (
                None if pump is None else np.where(load > 0.0, electrical_w(pump, flow), 0.0)
                for pump in (piped.pump, other_pump(circuit, piped.pump))
            )
            assert pumps is not None
            meter.add("pumps", ELECTRICITY, pumps)
            meter.pumps[circuit.id] = (pumps.astype(np.float32), None if other is None else other.astype(np.float32))
        if circuit.id in results.feeds:
            beyond = fed.get(str(circuit.source), (np.zeros(hours), np.zeros(hours)))
            fed[str(circuit.source)] = (beyond[0] + load, beyond[1] + hot)
        elif circuit.id in results.plants:
            short = _plant(
                results,
                circuit,
                runnings[circuit.id],
                load=load + stands,
                hot=hot,
                sky=sky,
                meter=meter,
                use=use,
                outputs=outputs,
                busy=busy,
            )
            unmet[circuit.id] = unmet[circuit.id] + short
        else:
            meter.add(use, NO_HEAT if circuit.kind == "heating" else NO_COLD, load)
            meter.add(HOT_WATER, NO_HEAT, hot)
    for identity, found in systems.items():
        if identity not in warmed:
            meter.add("heating", NO_HEAT, found.heating_w)
        if identity not in chilled:
            meter.add("cooling", NO_COLD, found.cooling_w)
    circuits = {circuit.id for circuit in results.building.circuits}
    for identity, found_store in stores.items():
        sized = results.stores[identity]
        if sized.store.circuit not in circuits:
            meter.add(HOT_WATER, ELECTRICITY, found_store.charged_w)
        if sized.store.loop_pump_w:
            meter.add("pumps", ELECTRICITY, np.full(hours, sized.store.loop_pump_w))
    for room, watts in heat.items():
        if room not in heated:
            meter.add("heating", ELECTRICITY if reheats.get(room) == "electric" else NO_HEAT, watts)
    return outputs, carried, unmet


def _pumps_flow(circuit: Circuit, found: CircuitResult, load_w: Array, flow_c: Array) -> Array:
    """Flow of a circuit's pumps that a load takes, of their design flow [-]."""
    design = sum(found.duty_w.values()) * found.pump.diversity * (1.0 + circuit.lost_share) + found.pipes_lose_w
    share = np.clip(load_w / design, 0.0, 1.0) if design else np.ones_like(load_w)
    flow, _ = part_flow(circuit, flow_c, share, abs(circuit.flow_c - circuit.return_c))
    return flow


def _plant(
    results: BuildingResults,
    circuit: Circuit,
    running: Running,
    load: Array,
    hot: Array,
    sky: YearSky,
    meter: Meter,
    use: str,
    outputs: dict[tuple[str, str], Single],
    busy: dict[str, Array],
) -> Single:
    """What the units take; of one hour's fuel heating and hot water have the shares that they have of its load. Returned is what they cannot give.

    `busy` holds how much of each hour the units that were worked out before work; these ones are added.
    """
    plant = results.plants[circuit.id]
    load = load + hot
    share = np.divide(hot, load, out=np.zeros_like(load), where=load > 0.0)
    members = [circuit.units[i] for i in plant.working]
    flow = running.flow_c
    back = return_c(circuit, flow, load / max(plant.course.peak[0], 1e-9), plant.difference_k)
    days = np.arange(len(load)) // 24 + 1.0
    air = AirOutside(
        sky.dry_bulb_c,
        sky.weather.wet_bulb_c,
        results.outdoors.pressure_pa,
        warmth(days, sky.weather.latitude_deg < 0.0),
    )
    units = members_of(circuit, plant.capacity_w, plant.working)
    other = {unit.id: busy[unit.reverses] for unit in members if unit.reverses in busy}
    staged, rejected = units.run(load, air, Water(flow, back, running.on), plant.cooler, other)
    busy |= units.busy(staged)
    if rejected is not None:
        meter.add("heat rejection", ELECTRICITY, rejected.fan_w + rejected.pump_w)
        if plant.cooler is not None and plant.cooler.inputs.kind == TOWER:
            lost = plant.cooler.made_up_kg_s(rejected.heat_w, rejected.speed, air.dry_bulb_c, air.wet_bulb_c)
            meter.water[TOWER, circuit.id] = lost.astype(np.float32)
    for row, unit in enumerate(members):
        fuel = staged.fuel_w[row] * GROSS_OVER_NET[unit.fuel]
        meter.add(use, unit.fuel, fuel * (1.0 - share))
        meter.add(HOT_WATER, unit.fuel, fuel * share)
        outputs[circuit.id, unit.id] = staged.output_w[row].astype(np.float32)
        if KINDS[unit.kind].of == SOURCE:
            meter.extracted[circuit.id, unit.id] = extracted_w(staged.output_w[row], staged.fuel_w[row]).astype(
                np.float32
            )
    meter.add("plant auxiliaries", ELECTRICITY, staged.auxiliary_w.sum(axis=0))
    return np.asarray(staged.unmet_w, dtype=np.float32)
