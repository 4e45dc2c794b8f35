"""A building's year: energy by use and carrier, hour by hour."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.systems import AirSystem
from pendrum_core.model.year import YearCircuit, YearCourse, YearRoom
from pendrum_core.results.building import BuildingResults
from pendrum_core.room.between.follow import capacities_w
from pendrum_core.year.circuits import circuits_year, running_of
from pendrum_core.year.hot_water import HotWaterYear, hot_water_year
from pendrum_core.year.meter import ELECTRICITY, NO_COLD, Meter
from pendrum_core.year.rooms import RoomYear, Stream
from pendrum_core.year.sky import YearSky
from pendrum_core.year.systems import Planned, SystemYear, plan, system_year
from pendrum_core.year.together import rooms_year

Array = NDArray[np.float64]
Single = NDArray[np.float32]
STEAM_J_KG = 2_675_600.0  # saturated steam, for which electricity is taken
HUMIDIFIER = "humidifier"
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
        pumps_w: by circuit, its pumps, and another one of the same duty where it is asked about.
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
    pumps_w: Mapping[str, tuple[Single, Single | None]]
    water_kg_s: Mapping[tuple[str, str], Single]
    stores: Mapping[str, HotWaterYear]
    faults: tuple[str, ...]


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
    meter, faults = Meter(hours), list(_left_out(results))
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
                reheated=_reheated(results, drawn[identity]),
                leaks_m3_s=leaks,
                lights_w=np.sum(first, axis=0) if first else np.zeros(hours),
                least_relative=moist,
                sky=sky,
            )
        except ValueError as error:
            faults.append(f"{drawn[identity].name}: {error}")
    progress(0.96, "plant")
    heat = {room: found.heating_w.astype(float) for room, found in rooms.items()}
    for of_system in systems.values():
        for room, watts in of_system.fan_heat_w.items():
            heat[room] = heat[room] - watts
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
    runnings = {c.id: running_of(c, (circuits or {}).get(c.id, YearCircuit()), sky) for c in results.building.circuits}
    outputs, carried, unmet = circuits_year(
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
        pumps_w=meter.pumps,
        water_kg_s=meter.water,
        stores=stores,
        faults=tuple(faults),
    )


def _reheated(results: BuildingResults, system: AirSystem) -> set[str]:
    """Rooms that a system's terminals heat: those that no emitter heats."""
    if system.reheat == "none":
        return set()
    warm = (circuit for circuit in results.building.circuits if circuit.kind == "heating")
    emitters = {section.end for circuit in warm for section in circuit.sections}
    return {terminal.room for terminal in system.terminals if terminal.reheats} - emitters


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
