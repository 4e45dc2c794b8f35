"""A building's year: energy by use and carrier, hour by hour."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.plant import GROSS_OVER_NET, KINDS, SOURCE, TOWER
from pendrum_core.model.systems import WATER_REHEAT, Circuit
from pendrum_core.model.year import YearCircuit, YearCourse, YearRoom
from pendrum_core.plant.ground import extracted_w, warmth
from pendrum_core.plant.running import Running, flow_temperature_c, part_flow, runs
from pendrum_core.plant.source import AirOutside, Water, members_of, return_c, with_losses_w
from pendrum_core.results.bands import within
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.room.between.follow import capacities_w
from pendrum_core.water.feeds import fed_first
from pendrum_core.water.losses import given_back_w, pumps_heat_w
from pendrum_core.water.network import CircuitResult
from pendrum_core.water.pump import electrical_w
from pendrum_core.year.hot_water import HotWaterYear, hot_water_year
from pendrum_core.year.rooms import RoomYear, Stream
from pendrum_core.year.sky import YearSky
from pendrum_core.year.systems import Planned, SystemYear, plan, system_year
from pendrum_core.year.together import rooms_year

Array = NDArray[np.float64]
Single = NDArray[np.float32]
STEAM_J_KG = 2_675_600.0  # saturated steam, for which electricity is taken
ELECTRICITY = "electricity"
HOT_WATER = "hot water"
HUMIDIFIER = "humidifier"
NO_HEAT, NO_COLD = "heat without a plant", "cold without a plant"
_ROOMS_SHARE = 0.75  # of the progress


@dataclass(frozen=True)
class BuildingYear:
    """A year of a building.

    Attributes:
        asked: rooms with ideal plant, free of systems; `rooms` under their supply air; `systems`; by id. What could not be
            worked out on the design days, and systems that could not be followed, are in `faults`.
        energy_w: by (use, carrier), hourly; fuels on gross value [W].
        output_w: by (circuit, unit), what plant units give, hourly [W]; extracted_w what heat pumps draw from ground or wells.
        carried_w: by circuit, what it gives to its ends, with its losses and hot water.
        unmet_w: by circuit: what its units cannot give, and what is asked while it does not run.
        water_kg_s: by (TOWER or HUMIDIFIER, circuit or system), what they take from the mains, hourly.
        stores: of hot water, by id.
    """

    hours: int
    asked: Mapping[str, RoomYear]
    rooms: Mapping[str, RoomYear]
    systems: Mapping[str, SystemYear]
    energy_w: Mapping[tuple[str, str], Single]
    output_w: Mapping[tuple[str, str], Single]
    extracted_w: Mapping[tuple[str, str], Single]
    carried_w: Mapping[str, Single]
    unmet_w: Mapping[str, Single]
    water_kg_s: Mapping[tuple[str, str], Single]
    stores: Mapping[str, HotWaterYear]
    faults: tuple[str, ...]


class _Meter:
    """Adds up energy by use and carrier; what plant takes of water stands in `water`, of ground in `extracted`."""

    def __init__(self, hours: int) -> None:
        self._hours = hours
        self.rows: dict[tuple[str, str], Array] = {}
        self.water: dict[tuple[str, str], Single] = {}
        self.extracted: dict[tuple[str, str], Single] = {}

    def add(self, use: str, carrier: str, watts: Array) -> None:
        """Count an hourly course."""
        key = (use, carrier)
        self.rows[key] = self.rows.get(key, np.zeros(self._hours)) + watts


def building_year(
    results: BuildingResults,
    years: list[YearRoom],
    sky: YearSky,
    running: Mapping[str, YearCourse | None],
    owed_kg_s: Mapping[str, Mapping[str, Array]],
    progress: Callable[[float, str], None] = lambda share, doing: None,
    profiles: Mapping[str, YearCourse] | None = None,
    connected: Sequence[tuple[str, Array]] = (),
    circuits: Mapping[str, YearCircuit] | None = None,
) -> BuildingYear:
    """Rooms, systems, circuits and plant over the hours of a weather year; sizes are those of the design days.

    `running` and `owed_kg_s` are by system: its hours, and what a make-up unit owes its rooms; `profiles` by store of hot water. `connected` are uses with their hourly
    courses that take electricity and belong to no room [W]. `circuits` have hours or flow temperatures by schedule.
    """
    hours = len(sky.dry_bulb_c)
    years = _with_plants(results, years)
    asked = rooms_year(years, sky, lambda share: progress(_ROOMS_SHARE * share / 2.0, "rooms"))
    meter, faults = _Meter(hours), list(_left_out(results))
    loads = {r: (found.cooling_w - found.heating_w).astype(float) for r, found in asked.items()}
    leaks = {year.room.id: year.room.infiltration_m3_s for year in years}
    drawn = {system.id: system for system in results.building.systems}
    planned: dict[str, Planned] = {}
    streams: dict[str, Stream] = {}
    last: dict[str, str] = {}  # the system that serves a room last carries what is left of its cooling
    for identity, sized in results.systems.items():
        one = plan(
            drawn[identity],
            sized,
            rooms=asked,
            loads_w=loads,
            sky=sky,
            running=running.get(drawn[identity].drawn),
            owed_kg_s=owed_kg_s.get(identity),
        )
        planned[identity] = one
        for room, stream in one.streams().items():
            streams[room] = streams[room] + stream if room in streams else stream
            loads[room] = loads[room] - stream.rate_w_k * (asked[room].air_c - stream.supply_c)
            last[room] = identity
    served = [year for year in years if year.room.id in streams]
    rooms = dict(asked)
    if served:
        again = rooms_year(
            years,
            sky,
            lambda share: progress(_ROOMS_SHARE * (1.0 + share) / 2.0, "rooms under supply air"),
            streams,
            asked,
        )
        rooms |= {year.room.id: again[year.room.id] for year in years}
    lights, lit = _return_lights(years, hours), set[str]()
    moist = _least_relative(years, hours)
    systems: dict[str, SystemYear] = {}
    ceilings = set(results.ceilings) & rooms.keys()
    for number, (identity, one) in enumerate(planned.items()):
        progress(_ROOMS_SHARE + 0.2 * number / len(planned), f"air system {drawn[identity].name}")
        try:
            takes = {room: last[room] == identity and room not in ceilings for room in one.names}
            first = [lights[room] for room in one.names if room in lights and room not in lit]
            lit.update(one.names)
            systems[identity] = system_year(
                drawn[identity],
                results.systems[identity],
                planned=one,
                rooms=rooms,
                takes=takes,
                leaks_m3_s=leaks,
                lights_w=np.sum(first, axis=0) if first else np.zeros(hours),
                least_relative=moist,
                sky=sky,
            )
        except ValueError as error:
            faults.append(f"{drawn[identity].name}: {error}")
    progress(0.96, "plant")
    heat = {room: found.heating_w.astype(float) for room, found in rooms.items()}
    for room, found in rooms.items():
        if room not in streams and room not in ceilings and float(found.cooling_w.max()) > 0.0:
            meter.add("cooling", NO_COLD, found.cooling_w.astype(float))
    for use, watts in connected:
        meter.add(use, ELECTRICITY, watts)
    for course in lights.values():
        meter.add("lights", ELECTRICITY, course)
    for of_room in rooms.values():
        meter.add("lights", ELECTRICITY, of_room.gains_w[1].astype(float))
        meter.add("equipment", ELECTRICITY, of_room.gains_w[2].astype(float))
    for identity, of_system in systems.items():
        meter.add("fans", ELECTRICITY, of_system.fans_w)
        if drawn[identity].humidifier == "steam":
            meter.add("humidifying", ELECTRICITY, of_system.water_kg_s * STEAM_J_KG)
        if drawn[identity].humidifier != "none":
            meter.water[HUMIDIFIER, identity] = of_system.water_kg_s.astype(np.float32)
    stores = {
        identity: hot_water_year(sized, (profiles or {}).get(identity), sky)
        for identity, sized in results.stores.items()
    }
    cold = {room: rooms[room].cooling_w.astype(float) for room in sorted(ceilings)}
    runnings = {c.id: _running(c, (circuits or {}).get(c.id, YearCircuit()), sky) for c in results.building.circuits}
    outputs, carried, unmet = _circuits(
        results, systems, heat=heat, cold=cold, stores=stores, sky=sky, meter=meter, runnings=runnings
    )
    singles = {key: row.astype(np.float32) for key, row in meter.rows.items() if row.any()}
    return BuildingYear(
        hours,
        asked,
        rooms=rooms,
        systems=systems,
        energy_w=singles,
        output_w=outputs,
        extracted_w=meter.extracted,
        carried_w=carried,
        unmet_w=unmet,
        water_kg_s=meter.water,
        stores=stores,
        faults=tuple(faults),
    )


def _left_out(results: BuildingResults) -> Iterator[str]:
    """What is not in the year, since the design days could not work it out, each in a sentence."""
    names = {system.drawn: f"{system.name}, " for system in results.building.systems}
    for failure in results.failures:
        yield f"Not in this year, since it could not be worked out on the design days: {names.get(failure.id, '')}{failure.reason}"


def _with_plants(results: BuildingResults, years: list[YearRoom]) -> list[YearRoom]:
    """Rooms that lead others' plants, or are led, know what their own can give: entered, or of the design days."""
    leader_of = {y.room.id: y.room.thermostat.leader for y in years if y.room.thermostat and y.room.thermostat.leader}
    concerned = {*leader_of, *leader_of.values()}
    return [
        replace(year, plant_w=capacities_w(results.rooms[year.room.id])) if year.room.id in concerned else year
        for year in years
    ]


def _return_lights(years: list[YearRoom], hours: int) -> dict[str, Array]:
    """What lights give into return air, hour by hour, of the rooms where they do [W]."""
    return {
        year.room.id: np.asarray(sum(gain.sensible_w * gain.course.hours()[:hours] for gain in year.return_gains))
        for year in years
        if year.return_gains
    }


def _least_relative(years: list[YearRoom], hours: int) -> dict[str, Array]:
    """Lower limits of relative humidity by room and hour, 0 at hours at which they need not be kept [-]."""
    limits = {}
    for year in years:
        humidity = year.room.humidity
        if humidity is not None and humidity.low is not None:
            kept = np.ones(hours) if year.humidity_kept is None else year.humidity_kept.hours()[:hours] > 0.5
            limits[year.room.id] = np.where(kept, humidity.low, 0.0)
    return limits


def _running(circuit: Circuit, told: YearCircuit, sky: YearSky) -> Running:
    """When a circuit runs over the year, and at what temperature it flows."""
    outdoor, hours = sky.dry_bulb_c, len(sky.dry_bulb_c)
    on, flow = (None if course is None else course.hours()[:hours] for course in (told.running, told.flow_c))
    return Running(runs(circuit, outdoor, on), flow_temperature_c(circuit, outdoor, flow))


def _circuits(
    results: BuildingResults,
    systems: Mapping[str, SystemYear],
    heat: Mapping[str, Array],
    cold: Mapping[str, Array],
    stores: Mapping[str, HotWaterYear],
    sky: YearSky,
    meter: _Meter,
    runnings: Mapping[str, Running],
) -> tuple[dict[tuple[str, str], Single], dict[str, Single], dict[str, Single]]:
    """What circuits carry, and what their units take for it; whatever is on no circuit is counted as heat or cold without a plant."""
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
            meter.add(
                "pumps", ELECTRICITY, _pumps_w(circuit, results.circuits[circuit.id], load, runnings[circuit.id].flow_c)
            )
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


def _pumps_w(circuit: Circuit, found: CircuitResult, load_w: Array, flow_c: Array) -> Array:
    """Electricity of a circuit's pumps: while anything is asked, at the flow that it takes [W]."""
    design = sum(found.duty_w.values()) * (1.0 + circuit.lost_share) + found.pipes_lose_w
    share = np.clip(load_w / design, 0.0, 1.0) if design else np.ones_like(load_w)
    flow, _ = part_flow(circuit, flow_c, share, abs(circuit.flow_c - circuit.return_c))
    return np.where(load_w > 0.0, electrical_w(found.pump, flow), 0.0)


def _plant(
    results: BuildingResults,
    circuit: Circuit,
    running: Running,
    load: Array,
    hot: Array,
    sky: YearSky,
    meter: _Meter,
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
