"""How rooms answer to each other: the linear system that carries a change of one through all that feel it.

A room that another one feels through a wall is there as what its face feels, (hc Ta + hr X)/(hc + hr), with its air Ta and
what the face exchanges radiation with, X. Rooms with their set-points kept answer by X alone, floating ones by Ta too.
In frequency that is one sparse system of two unknowns a room per harmonic, (1 - M) δ = d: where rooms were calculated
with one state of the others and came out `d` away from it, all of them agree after a change by δ, exactly so where they
are linear. High frequencies hardly come through walls: there the series 1 + M + M² … ends soon.
"""

from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix, identity
from scipy.sparse.linalg import splu

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.course import InsideCourse, convected_share, held_course
from pendrum_core.room.balance.eliminate import room_row
from pendrum_core.room.balance.harmonics import HARMONICS, OMEGA_RAD_S, step_response
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.balance.stack import stack_rooms

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]
_AT_ONCE = 128  # rooms eliminated together, to bound the memory
_SERIES = 0.6  # norm up to which the series is summed
_ENDS = 1e-4  # of it, relative


@dataclass(frozen=True)
class Coupling:
    """Entries of M by room i that feels room j; the unknowns are air and radiant of each room in turn.

    Attributes:
        rooms: count N.
        of, to: rooms i and j of each entry, (E,).
        air_share: weight of j's air in what i feels, (E,); the rest is that of its X.
        surfaces, air: what a kelvin of it makes of i's mean surface temperature with its air kept, and of its air where
            that floats, (E, 73).
        surfaces_afloat: what it makes of the mean surface temperature when the air follows, (E, 73).
        winter_*: the same on the winter day, (E,).
    """

    rooms: int
    of: Ints
    to: Ints
    air_share: Array
    surfaces: Complex
    air: Complex
    surfaces_afloat: Complex
    winter_surfaces: Array
    winter_air: Array
    winter_surfaces_afloat: Array

    def summer(self, away: Complex, afloat: Array) -> Complex:
        """Changes (N, 2, M, 73) that bring rooms to rest on days on which they came out `away`, (N, 2, M, 73).

        `afloat` is for how much of these days the air of each room answers, (N,): 0 where it is held, 1 where it floats.
        """
        floats = afloat[self.of][:, None]
        on_air = floats * self.air
        on_surfaces = self.surfaces + floats * (self.surfaces_afloat - self.surfaces)
        size = 2 * self.rooms
        rows, columns, share = self._places()
        change = np.empty_like(away)
        for k in range(HARMONICS):
            values = np.concatenate([on_air[:, k], on_air[:, k], on_surfaces[:, k], on_surfaces[:, k]]) * share
            matrix = csr_matrix((values, (rows, columns)), shape=(size, size))
            right = np.ascontiguousarray(away[..., k]).reshape(size, -1)
            change[..., k] = _solved(matrix, right).reshape(away.shape[:-1])
        return change

    def winter(self, away: Array, afloat: Array) -> Array:
        """The same for the winter day, (N, 2)."""
        floats, size = afloat[self.of], 2 * self.rooms
        on_air = floats * self.winter_air
        on_surfaces = self.winter_surfaces + floats * (self.winter_surfaces_afloat - self.winter_surfaces)
        rows, columns, share = self._places()
        values = np.concatenate([on_air, on_air, on_surfaces, on_surfaces]) * share
        matrix = csr_matrix((values, (rows, columns)), shape=(size, size))
        return np.asarray(_solved(matrix, away.reshape(size, 1)).reshape(self.rooms, 2))

    def _places(self) -> tuple[Ints, Ints, Array]:
        rows = np.concatenate([2 * self.of, 2 * self.of, 2 * self.of + 1, 2 * self.of + 1])
        columns = np.concatenate([2 * self.to, 2 * self.to + 1, 2 * self.to, 2 * self.to + 1])
        return rows, columns, np.concatenate([self.air_share, 1.0 - self.air_share] * 2)


def _solved(matrix: csr_matrix, away: Complex | Array) -> Complex | Array:
    """(1 - M)^-1 d."""
    norm = float(abs(matrix).sum(axis=1).max()) if matrix.nnz else 0.0
    if norm < _SERIES:
        total, term, left = away.copy(), away, norm
        while left > _ENDS:
            term = matrix @ term
            total += term
            left *= norm
        return total
    return np.asarray(splu((identity(matrix.shape[0], dtype=matrix.dtype) - matrix).tocsc()).solve(away))


def coupling(rooms: Sequence[Room], outside: Outdoors) -> Coupling:
    """How some rooms answer to each other; what other rooms do is taken as given."""
    index = {room.id: number for number, room in enumerate(rooms)}
    # That they are there is all that counts of them.
    known = {room.id: held_course(room, outside.dry_bulb_c.shape) for room in rooms}
    parts = [_part(rooms[at : at + _AT_ONCE], at, index, known, outside) for at in range(0, len(rooms), _AT_ONCE)]
    columns = [np.concatenate(column) for column in zip(*parts, strict=True)]
    return Coupling(len(rooms), *columns)


def _part(
    rooms: Sequence[Room], start: int, index: Mapping[str, int], known: Mapping[str, InsideCourse], outside: Outdoors
) -> tuple[Ints, Ints, Array, Complex, Complex, Complex, Array, Array, Array]:
    """Entries of some of the rooms."""
    stack, _ = stack_rooms(rooms, outside, merge=False, beyond=known)
    count = len(rooms)
    row = room_row(stack, outside.climate.coefficients.radiation_inside, np.zeros(count, dtype=np.bool_))
    elements = [(i, element) for i, room in enumerate(rooms) for element in room.elements]
    walls = [
        (term, i, index[element.boundary.neighbour], element.boundary.far_convection_w_m2k)
        for term, (i, element) in enumerate(elements)
        if element.boundary.kind == "room" and element.boundary.neighbour in index
    ]
    air = [
        (i, index[transfer.room], transfer.flow_m3_s)
        for i, room in enumerate(rooms)
        for transfer in room.transfers
        if transfer.room in index
    ]
    term = np.array([wall[0] for wall in walls], dtype=np.int64)
    of = np.array([i for _, i, _, _ in walls] + [i for i, *_ in air], dtype=np.int64)
    radiation = outside.climate.coefficients.radiation_inside
    share = np.array([convected_share(far, radiation) for *_, far in walls] + [1.0] * len(air))
    kinds, kind, room_of = stack.kinds, stack.kind_of[term], stack.room_of[term]
    crossing = (kinds.face * kinds.across)[kind] * stack.area[term][:, None]
    to_air = crossing * (kinds.convection[kind, None] + row.through_mean[room_of])
    to_surfaces = crossing * row.mean_gain[room_of]
    if air:
        moved = np.array([flow * outside.air_heat_j_m3k for *_, flow in air])
        to_air = np.concatenate([to_air, np.repeat(moved[:, None], len(OMEGA_RAD_S), axis=1)])
        to_surfaces = np.concatenate([to_surfaces, np.zeros((len(air), len(OMEGA_RAD_S)))])
    store = 1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[:, None]
    response = 1.0 / (store + stack.exchange_w_k[:, None] + row.own_air)
    follow = row.mean_gain * row.convected_sum
    afloat = response[of] * to_air
    leak = np.array([room.winter_leak_m3_s + room.direct_outdoor_air_m3_s + room.transfer_m3_s for room in rooms])
    cold = np.maximum(leak * outside.air_heat_j_m3k + row.own_air[:, 0].real, 1e-9)
    winter_air, winter_surfaces = to_air[:, 0].real / cold[of], to_surfaces[:, 0].real
    return (
        of + start,
        np.array([j for _, _, j, _ in walls] + [j for _, j, _ in air], dtype=np.int64),
        share,
        step_response(to_surfaces),
        step_response(afloat),
        step_response(to_surfaces + follow[of] * afloat),
        winter_surfaces,
        winter_air,
        winter_surfaces + follow[of, 0].real * winter_air,
    )


def groups_of(rooms: Sequence[Room], among: Set[str]) -> list[list[Room]]:
    """Rooms among some that feel each other, directly or through others, together."""
    parent = {room.id: room.id for room in rooms if room.id in among}

    def root(identity: str) -> str:
        while parent[identity] != identity:
            parent[identity] = parent[parent[identity]]
            identity = parent[identity]
        return identity

    for room in rooms:
        for other in room.neighbours:
            if room.id in parent and other in parent:
                parent[root(room.id)] = root(other)
    groups: dict[str, list[Room]] = {}
    for room in rooms:
        if room.id in parent:
            groups.setdefault(root(room.id), []).append(room)
    return list(groups.values())
