"""Air balances of all rooms with what their systems bring."""

from collections.abc import Iterator

from pendrum_core.air.balance import RETURN, RoomBalance
from pendrum_core.model.systems import ROOM_UNIT
from pendrum_core.moist_air import specific_volume_m3_kg
from pendrum_core.results.building import BuildingResults

_AIR_C = 20.0  # at which flows of a balance are told


def room_balances(results: BuildingResults) -> Iterator[RoomBalance]:
    """Each room's flows while all its extracts run and its systems give their design flows."""
    supply: dict[str, float] = {}
    volume = float(specific_volume_m3_kg(_AIR_C, 0.0, results.outdoors.pressure_pa))
    for system in results.building.systems:
        found = results.systems.get(system.id)
        # The air of a room's own unit comes from the room and goes there.
        if found is not None and system.kind != ROOM_UNIT:
            for room, flow in found.airflows.items():
                supply[room] = supply.get(room, 0.0) + flow.mass_kg_s * volume
    for balance in results.balance.rooms.values():
        brought = supply.get(balance.room, 0.0)
        yield balance.with_supply(brought) if balance.free == RETURN or brought > 0.0 else balance
