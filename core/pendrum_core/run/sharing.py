"""Rooms with several emitters: which part of what a room asks each of them gives.

Those that have a most come first (heated floors, chilled ceilings), then those that are sized for what is left, in the order of
the circuits. An emitter gives what lies within its band: of 900 W with a floor of 600 W the floor gives 600 W, the radiator 300 W;
of 500 W the floor gives all.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from math import inf

from pendrum_core.model.building import Building
from pendrum_core.model.plant import CEILINGS
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import UNDERFLOOR, Circuit
from pendrum_core.results.bands import Band
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.water.ceiling import size_ceiling
from pendrum_core.water.floor import size_floor

_ANY_W = 1.0  # what a floor or ceiling gives at most does not hang on its duty


@dataclass(frozen=True)
class _Emitter:
    """A room at the end of a circuit, and the most that it can give there [W]."""

    circuit: str
    room: str
    most_w: float


def bands(building: Building, rooms: Mapping[str, RoomLoads]) -> dict[tuple[str, str], Band]:
    """Bands by circuit and room, of rooms at the ends of several circuits of one kind [W].

    Source: rule above; what floors and ceilings give by EN 1264-2 and EN 14240.
    """
    found: dict[tuple[str, str], Band] = {}
    for kind in ("heating", "chilled"):
        of_room: dict[str, list[_Emitter]] = {}
        for emitter in _emitters(building, rooms, kind):
            of_room.setdefault(emitter.room, []).append(emitter)
        for room, emitters in of_room.items():
            low = 0.0
            for emitter in sorted(emitters, key=lambda one: one.most_w == inf) if len(emitters) > 1 else ():
                found[emitter.circuit, room] = Band(low, low + emitter.most_w)
                low += emitter.most_w
    return found


def _emitters(building: Building, rooms: Mapping[str, RoomLoads], kind: str) -> Iterator[_Emitter]:
    for circuit in building.circuits:
        if circuit.kind == kind and not circuit.by_refrigerant:
            for end in dict.fromkeys(section.end for section in circuit.sections if section.end in rooms):
                room = str(end)
                yield _Emitter(circuit.id, room, _most_w(circuit, rooms[room].room))


def _most_w(circuit: Circuit, room: Room) -> float:
    """What an emitter can give at most; nothing where the temperatures do not allow any."""
    temperatures = (circuit.flow_c, circuit.return_c)
    try:
        if circuit.kind == "heating" and circuit.emitters == UNDERFLOOR:
            area = room.floor_area_m2
            return size_floor(_ANY_W, area, room.heating_setpoint_c, *temperatures, circuit.floor).gives_w
        if circuit.kind == "chilled" and circuit.ceiling.kind == CEILINGS:
            ceiling = size_ceiling(_ANY_W, room.floor_area_m2, room.cooling_setpoint_c, *temperatures, circuit.ceiling)
            return ceiling.most * ceiling.capacity
    except ValueError:
        return 0.0  # the circuit's own failure tells why
    return inf
