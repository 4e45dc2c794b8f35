"""Air balance of rooms: what comes in and what goes out, before and after their supply air is known.

Every flow is of air at 20 °C and site pressure, so that flows add like masses [m3/s]. For each room
supply + transfer in + leak in = return + extract + transfer out + leak out, where an offset of +x leaves to outdoors at the
room's state and -x comes in from there. A room has at most one free flow: the return to its system, a make-up unit's supply,
or a transfer that balances; it is found. Where there is none, air comes in through leaks and windows, or leaves by them.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from pendrum_core.model.building import Building
from pendrum_core.model.systems import CENTRAL, MAKE_UP, Extract, Transfer

_LEAST_M3_S = 1e-9
RETURN, SUPPLY, TRANSFER, LEAKS = "return", "make-up supply", "transfer", "leaks"


@dataclass(frozen=True)
class RoomBalance:
    """A room's flows with all its extracts running, at 20 °C [m3/s].

    Attributes:
        free: which of its flows is found: RETURN, SUPPLY, TRANSFER or LEAKS.
        supply_m3_s: by systems; `make_up_m3_s` the part of it that a make-up unit brings, `returned_m3_s` what goes back to its
            system by the return.
        extract_m3_s: by fans of their own; `by_unit_m3_s` by the lane of its system.
        leak_in_m3_s: outdoor air through leaks and openings, ventilation without a fan among it; at least `drawn_m3_s`, which
            extracts and pressure draw in.
        leak_out_m3_s: to outdoors at the room's state.
        surplus_m3_s: in less out less offset where nothing is free to balance it.
    """

    room: str
    free: str
    extract_m3_s: float
    by_unit_m3_s: float
    transfer_in_m3_s: float
    transfer_out_m3_s: float
    offset_m3_s: float
    leak_in_m3_s: float
    drawn_m3_s: float
    make_up_m3_s: float = 0.0
    supply_m3_s: float = 0.0
    returned_m3_s: float = 0.0
    leak_out_m3_s: float = 0.0
    surplus_m3_s: float = 0.0

    @property
    def taken_m3_s(self) -> float:
        """What its return lacks of its supply [m3/s]; below nought where the return is the larger."""
        return self.extract_m3_s + self.transfer_out_m3_s + self.offset_m3_s - self.transfer_in_m3_s

    def with_supply(self, supply_m3_s: float) -> "RoomBalance":
        """The same with what its systems bring, and everything that follows from it."""
        if self.free == RETURN:
            back = supply_m3_s - self.taken_m3_s
            leak_out = self.leak_in_m3_s + self.offset_m3_s
            # What the return would have to give comes in through leaks.
            more = max(0.0, -back)
            return replace(
                self,
                supply_m3_s=supply_m3_s,
                returned_m3_s=max(0.0, back),
                leak_in_m3_s=self.leak_in_m3_s + more,
                leak_out_m3_s=leak_out,
                surplus_m3_s=min(0.0, back),
            )
        # Beside a make-up unit the room's other system takes back what it brings.
        back = supply_m3_s - self.make_up_m3_s
        inwards = self.make_up_m3_s + self.transfer_in_m3_s + self.leak_in_m3_s
        out = self.extract_m3_s + self.by_unit_m3_s + self.transfer_out_m3_s
        return replace(
            self,
            supply_m3_s=supply_m3_s,
            returned_m3_s=back,
            leak_out_m3_s=max(0.0, inwards - out),
            surplus_m3_s=inwards - out - self.leak_in_m3_s - self.offset_m3_s,
        )


@dataclass(frozen=True)
class AirBalance:
    """Balances by room, flows of transfers by id, and what is wrong with a transfer, by id."""

    rooms: Mapping[str, RoomBalance]
    transfers_m3_s: Mapping[str, float]
    faults: Mapping[str, str]


def air_balance(building: Building) -> AirBalance:
    """The balance of every room of a building as far as it does not rest on loads."""
    free = _free_flows(building)
    extracts: dict[str, list[Extract]] = {}
    for extract in building.extracts:
        if extract.room in free and not extract.triggered:
            extracts.setdefault(extract.room, []).append(extract)
    known = {room: sum(e.flow_m3_s for e in extracts.get(room, ())) for room in free}
    offsets = {room: building.offsets_m3_s.get(room, 0.0) for room in free}
    flows, closed, faults = _transfers(building.transfers, free, known, offsets)
    came, left = dict.fromkeys(free, 0.0), dict.fromkeys(free, 0.0)
    for transfer in building.transfers:
        if transfer.id in flows:
            came[transfer.target] += flows[transfer.id]
            left[transfer.source] += flows[transfer.id]
    balances = {}
    for room in building.rooms:
        by_unit = sum(e.flow_m3_s for e in extracts.get(room.id, ()) if e.by_unit)
        how = TRANSFER if room.id in closed else free[room.id]
        offset, wanted = offsets[room.id], known[room.id] + left[room.id] - came[room.id]
        leaks = room.infiltration_m3_s + room.direct_outdoor_air_m3_s
        short = max(0.0, wanted) if how == LEAKS else max(0.0, -offset)
        make_up = max(0.0, wanted + offset) if how == SUPPLY else 0.0
        balance = RoomBalance(
            room.id,
            how,
            extract_m3_s=known[room.id] - by_unit,
            by_unit_m3_s=by_unit,
            transfer_in_m3_s=came[room.id],
            transfer_out_m3_s=left[room.id],
            offset_m3_s=offset,
            leak_in_m3_s=max(leaks, short),
            drawn_m3_s=short,
            make_up_m3_s=make_up,
        )
        balances[room.id] = balance if how == RETURN else balance.with_supply(make_up)
    return AirBalance(balances, flows, faults)


def _free_flows(building: Building) -> dict[str, str]:
    """Which flow of each room is free by what serves it."""
    free = {room.id: LEAKS for room in building.rooms}
    for kind, how in ((CENTRAL, RETURN), (MAKE_UP, SUPPLY)):
        for system in building.systems:
            if system.kind == kind:
                free |= {terminal.room: how for terminal in system.terminals if terminal.room in free}
    return free


def _transfers(
    transfers: Sequence[Transfer], free: Mapping[str, str], known: Mapping[str, float], offsets: Mapping[str, float]
) -> tuple[dict[str, float], set[str], dict[str, str]]:
    """Flows of all transfers, rooms that one of them balances, and faults: one linear system for those that balance."""
    flows: dict[str, float] = {}
    faults: dict[str, str] = {}
    closing: dict[str, Transfer] = {}
    for transfer in transfers:
        if transfer.source not in free or transfer.target not in free:
            continue
        if transfer.flow_m3_s is not None:
            flows[transfer.id] = transfer.flow_m3_s
            continue
        room = next((r for r in (transfer.target, transfer.source) if free[r] == LEAKS and r not in closing), None)
        if room is None:
            faults[transfer.id] = "both its rooms have another flow that balances them; give it a flow"
        else:
            closing[room] = transfer
    if closing:
        _solve(closing, transfers, flows, known, offsets, faults)
    return flows, {room for room, transfer in closing.items() if transfer.id in flows}, faults


def _solve(
    closing: Mapping[str, Transfer],
    transfers: Iterable[Transfer],
    flows: dict[str, float],
    known: Mapping[str, float],
    offsets: Mapping[str, float],
    faults: dict[str, str],
) -> None:
    """Flows that balance: for each closed room in - out = extract + offset."""
    rooms = list(closing)
    column = {transfer.id: number for number, transfer in enumerate(closing.values())}
    matrix, right = np.zeros((len(rooms), len(rooms))), np.zeros(len(rooms))
    row = {room: number for number, room in enumerate(rooms)}
    for room in rooms:
        right[row[room]] = known[room] + offsets[room]
    for transfer in transfers:
        for room, sign in ((transfer.target, 1.0), (transfer.source, -1.0)):
            if room not in row:
                continue
            if transfer.id in column:
                matrix[row[room], column[transfer.id]] += sign
            elif transfer.id in flows:
                right[row[room]] -= sign * flows[transfer.id]
    if abs(np.linalg.det(matrix)) < 0.5:  # entries are -1, 0 and 1: a whole number
        for transfer in closing.values():
            faults[transfer.id] = "flows that balance go round in a ring; give one of them a flow"
        return
    found = np.linalg.solve(matrix, right)
    for transfer in closing.values():
        flow = float(found[column[transfer.id]])
        if flow < -_LEAST_M3_S:
            faults[transfer.id] = f"it would have to flow the other way, {-1000.0 * flow:.0f} L/s"
        flows[transfer.id] = max(0.0, flow)
