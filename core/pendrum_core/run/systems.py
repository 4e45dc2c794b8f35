"""Air systems of a building, in the order in which they serve rooms.

Systems that share no room stand alone and are sized one by one. Where rooms are on two, the air that comes first counts
first: make-up units, then systems that serve a room before another one. The first ones take the room as the later ones keep it,
the later ones find the air of the first in it; a few rounds bring them together.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.balance import RETURN, SUPPLY, AirBalance, RoomBalance
from pendrum_core.air.coil import APPROACH_K, CoilLimits
from pendrum_core.air.path import Path
from pendrum_core.air.result import AirSystemResult, RoomDemand
from pendrum_core.air.season import NOTHING, After, RoomAir, Stream
from pendrum_core.air.system import size_system
from pendrum_core.model.building import Building
from pendrum_core.model.systems import CENTRAL, MAKE_UP, AirSystem, Extract
from pendrum_core.moist_air import specific_heat_j_kgk, specific_volume_m3_kg
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.building import BuildingLoads, Failure
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.room.supply.asked import asked_in_summer, asked_in_winter
from pendrum_core.run.memory import Memory, same_members
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
_ROUNDS, _AT_REST_K = 6, 0.01
_AIR_C = 20.0  # at which flows of the balance are told


@dataclass(frozen=True)
class _Member:
    """A room of a system, whether an emitter heats it and a ceiling or beam cools it, and the air of its balance with the extracts that make it."""

    loads: RoomLoads
    has_emitter: bool
    has_ceiling: bool
    balance: RoomBalance
    extracts: tuple[Extract, ...]


@dataclass(frozen=True)
class _Linked:
    """Systems that share rooms, in the order in which they serve them, each with its rooms."""

    systems: tuple[AirSystem, ...]
    members: tuple[tuple[_Member, ...], ...]
    limits: tuple[CoilLimits, ...]

    @property
    def key(self) -> object:
        """What a result rests on beside the loads."""
        return (
            self.systems,
            self.limits,
            tuple((m.has_emitter, m.has_ceiling, m.balance, m.extracts) for one in self.members for m in one),
        )

    @property
    def loads(self) -> tuple[RoomLoads, ...]:
        """Of all their rooms."""
        return tuple(member.loads for one in self.members for member in one)


def size_systems(loads: BuildingLoads, memory: Memory, failures: list[Failure]) -> dict[str, AirSystemResult]:
    """Results of all systems by id, those that serve rooms first before others; what cannot be sized goes to `failures`."""
    every = _linked(loads.building, loads.rooms, loads.balance)
    # One after another: arrays of a system are so small that two threads wait for the interpreter more than they win.
    for one in every:
        if _known(memory, one):
            continue
        found = _sized(one, loads.outdoors)
        for system in one.systems:
            memory.systems.pop(system.id, None)
            result = found.get(system.id)
            if isinstance(result, Failure):
                failures.append(result)
            elif result is not None:
                memory.systems[system.id] = (one.key, one.loads, result)
    ordered = sorted((system for one in every for system in one.systems), key=_order)
    return {system.id: memory.systems[system.id][2] for system in ordered if system.id in memory.systems}


def _order(system: AirSystem) -> tuple[bool, int]:
    return system.kind != MAKE_UP, max((t.rank for t in system.terminals if t.shared), default=1)


def _linked(building: Building, rooms: Mapping[str, RoomLoads], balance: AirBalance) -> list[_Linked]:
    # What a room's terminal need not give: rooms with an emitter are heated by it.
    heating, chilled = (
        {s.end for c in building.circuits if c.kind == kind and not c.by_refrigerant for s in c.sections}
        for kind in ("heating", "chilled")
    )
    extracts: dict[str, tuple[Extract, ...]] = {}
    for extract in building.extracts:
        if not extract.triggered:
            extracts[extract.room] = (*extracts.get(extract.room, ()), extract)
    sound: list[AirSystem] = []
    for drawn in building.systems:
        terminals = tuple(terminal for terminal in drawn.terminals if terminal.room in rooms)
        if terminals:
            sound.append(drawn if len(terminals) == len(drawn.terminals) else replace(drawn, terminals=terminals))
    return [
        _Linked(
            tuple(group),
            tuple(
                tuple(
                    _Member(
                        rooms[t.room],
                        t.room in heating,
                        t.room in chilled,
                        balance.rooms[t.room],
                        extracts.get(t.room, ()),
                    )
                    for t in system.terminals
                )
                for system in group
            ),
            tuple(_limits(building, system) for system in group),
        )
        for group in _groups(sound)
    ]


def _limits(building: Building, system: AirSystem) -> CoilLimits:
    """What the circuits that end at a unit let its coils do: by the coldest and by the hottest of them."""
    at = [circuit for circuit in building.circuits if any(section.end == system.drawn for section in circuit.sections)]
    cold = [circuit.flow_c + APPROACH_K for circuit in at if circuit.kind == "chilled"]
    hot = [circuit.flow_c - APPROACH_K for circuit in at if circuit.kind == "heating"]
    return CoilLimits(min(cold, default=None), max(hot, default=None))


def _groups(systems: Sequence[AirSystem]) -> list[list[AirSystem]]:
    """Systems that share rooms, together."""
    groups: list[tuple[set[str], list[AirSystem]]] = []
    for system in systems:
        rooms, members = {terminal.room for terminal in system.terminals if terminal.shared}, [system]
        apart = []
        for other_rooms, others in groups:
            if rooms & other_rooms:
                rooms, members = rooms | other_rooms, others + members
            else:
                apart.append((other_rooms, others))
        groups = [*apart, (rooms, members)]
    return [sorted(members, key=_order) for _, members in groups]


def _known(memory: Memory, one: _Linked) -> bool:
    """Whether the results of linked systems stand."""
    kept = [memory.systems.get(system.id) for system in one.systems]
    return all(k is not None and same_members(one.loads, k[1]) and k[0] == one.key for k in kept)


def _sized(linked: _Linked, outside: Outdoors) -> dict[str, AirSystemResult | Failure]:
    """Linked systems brought together; one that cannot be sized falls alone."""
    found: dict[str, AirSystemResult | Failure] = {}
    demands = [
        [_demand(system, member, outside) for member in members]
        for system, members in zip(linked.systems, linked.members, strict=True)
    ]
    before: dict[str, Array] = {}
    for _ in range(_ROUNDS):
        for number, system in enumerate(linked.systems):
            here = [_with_others(linked, number, demand, found) for demand in demands[number]]
            try:
                found[system.id] = size_system(system, here, outside, linked.limits[number])
            except Exception as error:
                found[system.id] = Failure("air_system", system.drawn, reason_of(error, f"System {system.name}"))
        if len(linked.systems) == 1:
            break
        now = {
            f"{identity}/{room}": served.air_c
            for identity, result in found.items()
            if isinstance(result, AirSystemResult)
            for room, served in result.served.items()
        }
        if before.keys() == now.keys() and all(np.abs(now[k] - before[k]).max() < _AT_REST_K for k in now):
            break
        before = now
    return found


def _demand(system: AirSystem, member: _Member, outside: Outdoors) -> RoomDemand:
    loads, room = member.loads, member.loads.room
    extra = room.thermostat.reheat_w_m2 if room.thermostat is not None and room.heated else None
    months = [month.month for month in outside.climate.months]
    summer, winter = (_room_air(system, member, outside, of) for of in (months, None))
    return RoomDemand(
        room,
        loads.cooling_course_w,
        latent_w=loads.latent_w,
        summer=asked_in_summer(loads),
        winter=asked_in_winter(loads),
        allowance_w=(extra or 0.0) * room.floor_area_m2,
        has_emitter=member.has_emitter,
        has_ceiling=member.has_ceiling and loads.room.cooled,
        air=summer,
        winter_air=winter,
    )


def _room_air(system: AirSystem, member: _Member, outside: Outdoors, months: Sequence[int] | None) -> RoomAir:
    """What flows through a room beside a system's air on days of some months, or on the winter day."""
    balance = member.balance
    if system.kind not in (CENTRAL, MAKE_UP):
        return NOTHING
    kg_m3 = 1.0 / float(specific_volume_m3_kg(_AIR_C, 0.0, outside.pressure_pa))
    own, by_unit = (_extracted(member.extracts, by_unit, months) for by_unit in (False, True))
    moved = balance.transfer_out_m3_s + balance.offset_m3_s - balance.transfer_in_m3_s
    if system.kind == MAKE_UP and balance.free == SUPPLY:
        supply = np.maximum(0.0, own + by_unit + moved)
        return RoomAir((supply - by_unit) * kg_m3, supply * kg_m3)
    if balance.free != RETURN or not (member.extracts or moved):
        return NOTHING
    return RoomAir((own + moved) * kg_m3)


def _extracted(extracts: Sequence[Extract], by_unit: bool, months: Sequence[int] | None) -> Array:
    """What a room's extracts take, (months, 144), or (1, 144) on the winter day [m3/s]."""
    taken = np.zeros((1 if months is None else len(months), STEPS_PER_DAY))
    for extract in extracts:
        if extract.by_unit != by_unit:
            continue
        if months is None:
            taken += extract.flow_m3_s * (1.0 if extract.winter is None else step_averages(extract.winter))
        elif extract.by_month:
            taken += extract.flow_m3_s * np.stack([step_averages(extract.by_month[month - 1]) for month in months])
        else:
            taken += extract.flow_m3_s
    return taken


def _with_others(
    linked: _Linked, number: int, demand: RoomDemand, found: Mapping[str, AirSystemResult | Failure]
) -> RoomDemand:
    """A room with what its other systems do, as far as they are known."""
    room = demand.room.id
    serving = [
        i for i, system in enumerate(linked.systems) if any(terminal.room == room for terminal in system.terminals)
    ]
    if len(serving) == 1:
        return demand
    air, winter = demand.air, demand.winter_air
    for i in serving:
        other = found.get(linked.systems[i].id)
        if i < number and isinstance(other, AirSystemResult):
            summer_stream, winter_stream = _streams(other, room)
            air = replace(air, first=summer_stream if air.first is None else air.first + summer_stream)
            winter = replace(winter, first=winter_stream if winter.first is None else winter.first + winter_stream)
        elif i > number:
            summer_after, winter_after = _afters(demand, other if isinstance(other, AirSystemResult) else None)
            air, winter = replace(air, after=summer_after), replace(winter, after=winter_after)
    return replace(demand, air=air, winter_air=winter)


def _streams(other: AirSystemResult, room: str) -> tuple[Stream, Stream]:
    served, row = other.served[room], list(other.served).index(room)
    return (_stream(served.flow_kg_s, other.summer, row), _stream(served.winter_flow_kg_s, other.winter, row))


def _stream(flow_kg_s: Array, path: Path, row: int) -> Stream:
    rate = flow_kg_s * specific_heat_j_kgk(path.supply_w)
    return Stream(rate, path.room_supply_c(row), flow_kg_s, path.supply_w, flow_kg_s * path.outdoor_share)


def _afters(demand: RoomDemand, other: AirSystemResult | None) -> tuple[After, After]:
    """What a later system makes of a room; its set-points and nothing dried before that system is known."""
    if other is None:
        summer, winter = demand.summer.air_c[0], demand.winter.air_c[0]
        return After(summer, np.zeros_like(summer)), After(winter, np.zeros_like(winter))
    served, row = other.served[demand.room.id], list(other.served).index(demand.room.id)
    return (
        After(served.air_c, served.flow_kg_s * (other.summer.room_w[row] - other.summer.supply_w)),
        After(served.winter_air_c, served.winter_flow_kg_s * (other.winter.room_w[row] - other.winter.supply_w)),
    )
