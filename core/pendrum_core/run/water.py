"""Circuits, what stands at their ends, and the plants that feed them, for loads and systems that are known."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.result import AirSystemResult, ServedRoom
from pendrum_core.model.building import Building
from pendrum_core.model.catalogue import RADIATOR, rows_of
from pendrum_core.model.plant import HEAT_PUMP
from pendrum_core.model.systems import PANELS, UNDERFLOOR, WATER_REHEAT, Circuit
from pendrum_core.moist_air import wet_bulb_c
from pendrum_core.plant.ground import middle_of, warmth
from pendrum_core.plant.running import Running, on_design_days
from pendrum_core.plant.source import AirOutside, Busy, Course, PlantResult, size_plant, whole_course
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.bands import Band, within
from pendrum_core.results.building import BuildingLoads, Failure
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.run.sharing import bands
from pendrum_core.water.ceiling import CeilingResult, size_ceiling
from pendrum_core.water.emitters import RATINGS_W, EmitterResult, rated_of, size_panel, size_radiator
from pendrum_core.water.feeds import Feed, fed_first, feed_of, mixed_return_c
from pendrum_core.water.floor import FloorResult, size_floor
from pendrum_core.water.hot_water import HotWaterResult
from pendrum_core.water.losses import given_back_w, pumps_heat_w, shares_of_rooms, stated_w
from pendrum_core.water.network import CircuitResult, size_circuit

Array = NDArray[np.float64]


def _duties(
    building: Building,
    circuit: Circuit,
    room_duties: Mapping[str, tuple[float, float]],
    units: Mapping[str, list[AirSystemResult]],
    bands: Mapping[tuple[str, str], Band],
) -> dict[str, float]:
    """Largest duty of each end, by which its pipes are sized [W]."""
    duties: dict[str, float] = {}
    for section in circuit.sections:
        if section.end is None:
            continue
        margins = building.margins_of(section.end)
        warm = 1.0 + margins.heating
        if section.end in units:
            # One set per room: what all of them ask at one time.
            cold = max(0.0, float(np.sum([unit.coil_total_w for unit in units[section.end]], axis=0).max()))
            hot = sum(
                unit.heating_coil_w + max(float(unit.reheat_w.max()), float(_reheat_winter_w(unit).max()))
                if _reheats_by_water(building, unit)
                else unit.heating_coil_w
                for unit in units[section.end]
            )
            duties[section.end] = hot * warm if circuit.kind == "heating" else cold * (1.0 + margins.cooling)
        elif section.end in room_duties:
            hot_w, cold_w = room_duties[section.end]
            asked = hot_w * warm if circuit.kind == "heating" else cold_w * (1.0 + margins.cooling)
            duties[section.end] = float(within(asked, bands.get((circuit.id, section.end))))
    return duties


def cooling_course_w(room: RoomLoads) -> Array:
    """What a room asks of a chilled ceiling where no air serves it, (months, 144) [W]; nothing where it is not cooled.

    Source: the room's own balance.
    """
    if room.cooling is None:
        return np.zeros_like(room.total)
    return np.asarray(np.maximum(room.cooling_course_w, 0.0))


def _reheats_by_water(building: Building, unit: AirSystemResult) -> bool:
    """Whether the circuit of a unit's heating coil feeds its terminals too."""
    return any(system.id == unit.id and system.reheat == WATER_REHEAT for system in building.systems)


def _reheat_winter_w(unit: AirSystemResult) -> Array:
    """What its terminals give on the winter day: all the heat of rooms that have no emitter [W]."""
    return np.asarray(np.sum([served.winter_reheat_w for served in unit.served.values()], axis=0, dtype=np.float64))


def _room_asks(circuit: Circuit, room: RoomLoads, served: ServedRoom | None, band: Band | None) -> tuple[Array, Array]:
    """What a room asks of an emitter on summer's days and on the winter day [W]."""
    still = np.zeros_like(room.total)
    cold = np.zeros((1, still.shape[1]))
    if circuit.kind == "chilled":
        return within(cooling_course_w(room) if served is None else served.chilled_w, band), cold
    if served is not None:
        return within(served.emitter_w, band), within(served.heat_w, band) + cold
    warmed = still if room.control is None else np.maximum(room.control.summer.plant_w, 0.0)
    return within(warmed, band), within(room.heating.load_w, band) + cold


def _air_outside(loads: BuildingLoads) -> AirOutside:
    """Outdoor air of the design days."""
    outdoors = loads.outdoors
    wet = wet_bulb_c(outdoors.dry_bulb_c, outdoors.humidity_ratio, outdoors.pressure_pa)
    climate = loads.building.climate
    days = np.array([[middle_of(month.month)] for month in climate.months])
    return AirOutside(outdoors.dry_bulb_c, wet, outdoors.pressure_pa, warmth(days, climate.site.latitude_deg < 0.0))


def _winter_air(loads: BuildingLoads, shape: tuple[int, ...]) -> AirOutside:
    """Saturated air of the winter day; ground and wells at their coldest."""
    cold = np.full(shape, loads.building.climate.winter_dry_bulb_c)
    return AirOutside(cold, cold, loads.outdoors.pressure_pa)


class Water:
    """Circuits, what stands at their ends, and their plants, found one after the other: fed ones before those that feed them."""

    def __init__(
        self,
        loads: BuildingLoads,
        duties_w: Mapping[str, tuple[float, float]],
        systems: Mapping[str, AirSystemResult],
        stores: Mapping[str, HotWaterResult],
        failures: list[Failure],
    ) -> None:
        self._loads, self._duties_w, self._stores = loads, duties_w, stores
        # The system that serves a room last leaves it its heating.
        self._serving = {room: served for system in systems.values() for room, served in system.served.items()}
        self.circuits: dict[str, CircuitResult] = {}
        self.emitters: dict[str, EmitterResult] = {}
        self.floors: dict[str, FloorResult] = {}
        self.ceilings: dict[str, CeilingResult] = {}
        self.plants: dict[str, PlantResult] = {}
        self.feeds: dict[str, Feed] = {}
        self.courses: dict[str, Course] = {}
        self.loss_shares: dict[str, Mapping[str, float]] = {}
        self.given_back_w: dict[tuple[str, str], float] = {}
        self._areas_m2 = {identity: found.room.floor_area_m2 for identity, found in loads.rooms.items()}
        self._units: dict[str, list[AirSystemResult]] = {}
        building = loads.building
        for drawn in building.systems:
            if drawn.id in systems:
                self._units.setdefault(drawn.drawn, []).append(systems[drawn.id])
        self.bands = bands(building, loads.rooms)
        self._by_id = {circuit.id: circuit for circuit in building.circuits}
        self._ratings_w = tuple(row.output_w for row in rows_of(building.catalogue, RADIATOR)) or RATINGS_W
        ordered, circle = fed_first(building.circuits)
        failures += [
            Failure("circuit", circuit.id, f"Circuit {circuit.name} is fed by circuits that it feeds itself.")
            for circuit in circle
        ]
        for circuit in ordered:
            try:
                self._add(circuit)
            except Exception as error:
                failures.append(Failure("circuit", circuit.id, reason_of(error, f"Circuit {circuit.name}")))

    def _add(self, circuit: Circuit) -> None:
        building, rooms = self._loads.building, self._loads.rooms
        duties = _duties(building, circuit, self._duties_w, self._units, self.bands)
        if circuit.by_refrigerant and (on := [end for end in duties if end in rooms]):
            raise ValueError(
                f"circuit {circuit.name} carries refrigerant: coils of units may end at it, no room ({rooms[on[0]].room.number})"
            )
        fed = {identity: feed for identity, feed in self.feeds.items() if feed.source == circuit.id}
        piped = {section.end for section in circuit.sections}
        duties |= {identity: feed.duty_w for identity, feed in fed.items() if identity in piped}
        returns = {identity: feed.return_c for identity, feed in fed.items()}
        asks = any(duty > 0.0 for duty in duties.values())
        ends = self._ends(circuit, fed)
        if asks and not circuit.by_refrigerant:
            courses = {end: np.concatenate([day.ravel() for day in days]) for end, days in ends.items()}
            sized = size_circuit(circuit, duties, returns, courses)
            self.circuits[circuit.id] = replace(sized, stated_lost_w=stated_w(circuit, self._areas_m2))
            self._emit(circuit, {end: duty for end, duty in duties.items() if end in rooms})
        charges = any(found.store.circuit == circuit.id for found in self._stores.values())
        if not (asks or charges or fed):
            return
        outdoor_c = self._loads.outdoors.dry_bulb_c
        cold_c = np.full((1, outdoor_c.shape[1]), building.climate.winter_dry_bulb_c)
        running = on_design_days(circuit, building.climate, outdoor_c, cold_c)
        beside_header = [self.courses[identity] for identity in fed if identity not in piped]
        hot_w = sum((self.courses[identity].hot_w for identity in fed), np.zeros(outdoor_c.shape[1]))
        course = self._course(circuit, ends, beside_header, hot_w, running)
        self.courses[circuit.id] = course
        found = self.circuits.get(circuit.id)
        lost_w = 0.0 if found is None else found.pipes_lose_w + pumps_heat_w(circuit, found)
        source = self._by_id.get(circuit.source or "")
        if source is not None:
            if circuit.units:
                raise ValueError(
                    f"circuit {circuit.name} is fed by {source.name} and has units of its own ({circuit.units[0].name}): one of both"
                )
            beside = sum(feed.duty_w for identity, feed in fed.items() if identity not in piped)
            design = max(course.peak[0], (sum(duties.values()) + beside) * (1.0 + circuit.lost_share) + lost_w)
            self.feeds[circuit.id] = feed_of(circuit, source, design)
        elif circuit.units and course.peak[0] > 0.0:
            own = [(duty, returns.get(end, circuit.return_c)) for end, duty in duties.items()]
            others = [(f.duty_w, f.return_c) for identity, f in fed.items() if identity not in piped]
            back = mixed_return_c(circuit, [*own, *others]) if fed else circuit.return_c
            margin = building.margins.heating if circuit.kind == "heating" else building.margins.cooling
            self.plants[circuit.id] = size_plant(
                replace(circuit, return_c=back),
                circuit.units,
                course,
                margin,
                summer=_air_outside(self._loads),
                winter=_winter_air(self._loads, course.winter_w.shape),
                running=running,
                busy=self._busy(circuit),
            )

    def _busy(self, circuit: Circuit) -> tuple[Busy, Busy]:
        """Share of the time, on summer's days and on the winter day, in which machines that cool this circuit heat another one.

        Raises:
            ValueError: the other side of one is no heat pump of a heating circuit, or has two chillers.
        """
        days: tuple[dict[str, Array], dict[str, Array]] = ({}, {})
        owners = {unit.id: (of, place) for of in self._by_id.values() for place, unit in enumerate(of.units)}
        taken = [unit.reverses for of in self._by_id.values() for unit in of.units if unit.reverses]
        for unit in circuit.units:
            if unit.reverses is None:
                continue
            of, place = owners.get(unit.reverses, (circuit, 0))
            if circuit.kind != "chilled" or of.kind != "heating" or of.units[place].kind != HEAT_PUMP:
                raise ValueError(
                    f"circuit {circuit.name}: {unit.name} must be the other side of an air-source heat pump of a heating circuit"
                )
            if taken.count(unit.reverses) > 1:
                raise ValueError(f"circuit {circuit.name}: {of.units[place].name} is the other side of two chillers")
            plant = self.plants.get(of.id)
            if plant is not None and place in plant.working:
                row = plant.working.index(place)
                for day, staged in zip(days, (plant.summer, plant.winter), strict=True):
                    day[unit.id] = staged.used[row]
        return days

    def _ends(self, circuit: Circuit, fed: Iterable[str]) -> dict[str, tuple[Array, Array]]:
        """What each end of a circuit asks at every step, without margins: summer's design days and the winter day [W]."""
        found: dict[str, tuple[Array, Array]] = {}
        # In the order of the sections: a sum of other order has another last digit, and every process is to tell the same.
        for end in dict.fromkeys(section.end for section in circuit.sections if section.end is not None):
            if end in self._units:
                found[end] = self._coils_ask(circuit, self._units[end])
            elif (room := self._loads.rooms.get(end)) is not None:
                found[end] = _room_asks(circuit, room, self._serving.get(end), self.bands.get((circuit.id, end)))
            elif end in fed:
                found[end] = (self.courses[end].summer_w, self.courses[end].winter_w)
        return found

    def _coils_ask(self, circuit: Circuit, units: Sequence[AirSystemResult]) -> tuple[Array, Array]:
        """The same of the coils of a system's sets, with their terminals where those are warmed by water."""
        shape = self._loads.outdoors.dry_bulb_c.shape
        summer, winter = np.zeros(shape), np.zeros((1, shape[1]))
        for unit in units:
            if circuit.kind == "chilled":
                summer += unit.coil_total_w
                continue
            path, cold = unit.summer, unit.winter
            summer += path.heating_w + path.reheat_w + path.preheat_w
            winter += cold.heating_w + cold.reheat_w + cold.preheat_w
            if _reheats_by_water(self._loads.building, unit):
                summer += unit.reheat_w
                winter += _reheat_winter_w(unit)
        return summer, winter

    def _course(
        self,
        circuit: Circuit,
        ends: Mapping[str, tuple[Array, Array]],
        others: Sequence[Course],
        fed_hot_w: Array,
        running: tuple[Running, Running],
    ) -> Course:
        """What ends, `others` that hang beside its pipes and stores ask at every step together, without margins: summer's design days
        and the winter day [W].

        While it does not run it carries the hot water of circuits that it feeds alone.
        """
        loads, steps = self._loads, self._loads.outdoors.dry_bulb_c.shape[1]
        summer, winter = np.zeros_like(loads.outdoors.dry_bulb_c), np.zeros((1, steps))
        for one in others:
            summer += one.summer_w
            winter += one.winter_w
        for summer_w, winter_w in ends.values():
            summer += summer_w
            winter += winter_w
        rooms_w = tuple({end: days[at] for end, days in ends.items() if end in loads.rooms} for at in (0, 1))
        piped, lost_w, back = self.circuits.get(circuit.id), 0.0, [np.zeros(steps), np.zeros(steps)]
        pumps_w = 0.0
        if piped is not None:
            lost_w, pumps_w = piped.pipes_lose_w, pumps_heat_w(circuit, piped)
            self.loss_shares[circuit.id] = shares_of_rooms(circuit, self._areas_m2, piped.lost_w)
            for day, (at, of_rooms, whole) in enumerate(zip(running, rooms_w, (summer, winter), strict=True)):
                for room_id, given in given_back_w(
                    circuit, of_rooms, whole, lost_w, self.loss_shares[circuit.id]
                ).items():
                    watts = np.where(at.on, given, 0.0)
                    back[day] = back[day] + watts
                    key = circuit.id, room_id
                    self.given_back_w[key] = max(self.given_back_w.get(key, 0.0), float(watts.max()))
        own = [found for found in self._stores.values() if found.store.circuit == circuit.id]
        first, beside = (
            np.sum([f.charge_course_w for f in own if f.store.priority is waits], axis=0) + np.zeros(steps)
            for waits in (True, False)
        )
        warm_w, cold_w = (np.where(at.on, w, fed_hot_w) for at, w in zip(running, (summer, winter), strict=True))
        carried = whole_course(circuit, warm_w, cold_w, first, beside, lost_w + pumps_w, (back[0], back[1]))
        return replace(carried, stopped_summer_w=summer - warm_w, stopped_winter_w=winter - cold_w)

    def _emit(self, circuit: Circuit, duties_w: Mapping[str, float]) -> None:
        """What heats or cools the rooms at a circuit's ends."""
        for identity, duty in duties_w.items():
            room = self._loads.rooms[identity].room
            temperatures = (circuit.flow_c, circuit.return_c)
            if circuit.kind == "chilled":
                if room.cooled:
                    self.ceilings[identity] = size_ceiling(
                        duty, room.floor_area_m2, room.cooling_setpoint_c, *temperatures, circuit.ceiling
                    )
            elif circuit.emitters == UNDERFLOOR:
                self.floors[identity] = size_floor(
                    duty, room.floor_area_m2, room.heating_setpoint_c, *temperatures, circuit.floor
                )
            elif circuit.emitters == PANELS:
                self.emitters[identity] = size_panel(
                    duty, *temperatures, room.heating_setpoint_c, rated_of(circuit), circuit.panel_w_m
                )
            else:
                self.emitters[identity] = size_radiator(
                    duty, *temperatures, room.heating_setpoint_c, rated_of(circuit), self._ratings_w
                )
