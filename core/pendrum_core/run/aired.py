"""Rooms with the air that their balance gives them: transfers, and outdoor air that extracts and pressure draw in."""

from dataclasses import replace

from pendrum_core.air.balance import AirBalance, air_balance
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import Room, TransferAir
from pendrum_core.run.memory import Memory

Airs = tuple[float, tuple[TransferAir, ...]]


def with_air(building: Building, memory: Memory) -> tuple[Building, AirBalance]:
    """The building's rooms with their balance; a room that nothing changes stays the same object.

    What is drawn in counts as leaking in, all day: an extract that runs by a schedule draws its full flow in the loads where no
    make-up air balances it. A snag says so.
    """
    balance = air_balance(building)
    airs: dict[str, Airs] = {}
    for transfer in building.transfers:
        flow = balance.transfers_m3_s.get(transfer.id, 0.0)
        if flow > 0.0:
            drawn, given = airs.get(transfer.target, (0.0, ()))
            airs[transfer.target] = (drawn, (*given, TransferAir(transfer.source, flow)))
    for name, found in balance.rooms.items():
        if found.drawn_m3_s > 0.0:
            airs[name] = (found.drawn_m3_s, airs.get(name, (0.0, ()))[1])
    if not airs:
        memory.aired = {}
        return building, balance
    rooms: list[Room] = []
    kept: dict[str, tuple[Room, Airs, Room]] = {}
    for room in building.rooms:
        air = airs.get(room.id)
        if air is not None:
            before = memory.aired.get(room.id)
            if before is None or before[0] is not room or before[1] != air:
                before = (room, air, _aired(room, air))
            kept[room.id], room = before, before[2]
        rooms.append(room)
    memory.aired = kept
    return replace(building, rooms=tuple(rooms)), balance


def _aired(room: Room, air: Airs) -> Room:
    drawn, given = air
    least = drawn - room.direct_outdoor_air_m3_s
    winter = room.winter_infiltration_m3_s
    return replace(
        room,
        infiltration_m3_s=max(room.infiltration_m3_s, least),
        winter_infiltration_m3_s=None if winter is None else max(winter, least),
        transfers=(*room.transfers, *given),
    )
