"""What in the air balance of rooms deserves a second look."""

from collections.abc import Iterator

from pendrum_core.air.balance import LEAKS, RETURN
from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.systems import MAKE_UP
from pendrum_core.results.balance import room_balances
from pendrum_core.results.building import BuildingResults

_LEAST_M3_S, _LEAST_SHARE = 0.005, 0.02
_CHANGES_PER_H, _COLD_C = 2.0, 5.0


def balance_snags(results: BuildingResults) -> Iterator[Snag]:
    """Extracts without make-up, returns below nought, rooms that do not balance, transfers that cannot be."""
    names = {room.id: f"{room.number} {room.name}" for room in results.building.rooms}
    for transfer in results.building.transfers:
        fault = results.balance.faults.get(transfer.id)
        if fault:
            yield Snag(
                DOUBTFUL,
                "transfer_faulty",
                kind="transfer",
                id=transfer.id,
                stage="air",
                sentence=f"Air from {names[transfer.source]} into {names[transfer.target]}: {fault}.",
                way_out="give it a flow, or turn it round",
            )
    volumes = {room.id: room.volume_m3 for room in results.building.rooms}
    winter_c = results.building.climate.winter_dry_bulb_c
    for balance in room_balances(results):
        if balance.room not in results.rooms:
            continue
        name = names[balance.room]
        if balance.free == LEAKS and balance.drawn_m3_s > _LEAST_M3_S:
            changes = balance.drawn_m3_s * 3600.0 / volumes[balance.room]
            cold = winter_c < _COLD_C and results.rooms[balance.room].room.heated
            yield Snag(
                DOUBTFUL if cold and changes > _CHANGES_PER_H else NOTE,
                "extract_without_make_up",
                kind="room",
                id=balance.room,
                stage="air",
                sentence=f"{name}: {balance.drawn_m3_s * 1000.0:.0f} L/s are drawn in from outdoors through leaks, {changes:.1f} air changes "
                "per hour; nothing makes them up.",
                way_out="a make-up unit, air from another room, or a smaller extract",
            )
        elif balance.free == RETURN and balance.surplus_m3_s < -_LEAST_M3_S:
            yield Snag(
                DOUBTFUL,
                "return_below_nought",
                kind="room",
                id=balance.room,
                stage="air",
                sentence=f"{name}: its extracts take {-balance.surplus_m3_s * 1000.0:.0f} L/s more than its system brings; they come in from "
                "outdoors through leaks.",
                way_out="more supply air, make-up air, or a smaller extract",
            )
        else:
            most = max(balance.supply_m3_s, balance.transfer_in_m3_s, balance.transfer_out_m3_s)
            if abs(balance.surplus_m3_s) > max(_LEAST_M3_S, _LEAST_SHARE * most):
                over = "more than leaves" if balance.surplus_m3_s > 0.0 else "less than leaves"
                yield Snag(
                    NOTE,
                    "room_off_balance",
                    kind="room",
                    id=balance.room,
                    stage="air",
                    sentence=f"{name}: {abs(balance.surplus_m3_s) * 1000.0:.0f} L/s {over} come in, and none of its flows is free to balance it.",
                    way_out="a transfer that balances, or other flows",
                )
    yield from _useless_make_up(results)


def _useless_make_up(results: BuildingResults) -> Iterator[Snag]:
    """Make-up units with rooms from which nothing is taken."""
    for system in results.building.systems:
        if system.kind != MAKE_UP:
            continue
        for terminal in system.terminals:
            balance = results.balance.rooms.get(terminal.room)
            if balance is not None and balance.make_up_m3_s <= 0.0:
                room = next(room for room in results.building.rooms if room.id == terminal.room)
                yield Snag(
                    NOTE,
                    "nothing_to_make_up",
                    kind="room",
                    id=room.id,
                    stage="air",
                    sentence=f"{room.number} {room.name} is on {system.name}, which makes up for extracts, but nothing is taken from the room.",
                    way_out="give it an extract, or take it off the unit",
                )
