"""The rooms of a unit summed: what comes back from them, and how it follows the moisture of the supply air.

Source: mass, moisture and heat balance of every room, which is mixed through.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.path import Rooms
from pendrum_core.quantities.compiled import block, compiled
from pendrum_core.quantities.constants import CP_DRY_AIR, CP_VAPOUR, H_VAPORISATION_0C

Array = NDArray[np.float64]
_NO_FLOW = 1e-12  # kg/s
_SUMS = 8


@dataclass(frozen=True)
class Summed:
    """Sums over rooms, (steps): flows to and from them [kg/s]; `mean_c` of their air [°C].

    The rooms' humidity ratios are `follows` w_supply + `own`, (rooms, steps); what comes back from them is `back_follows` w_supply +
    `back_own` of moisture and `heat_j_kg` + `heat_follows_j_kg` w_supply of enthalpy, per kilogram. `gain_k` is what return ducts warm
    what comes back by.
    """

    terminal_kg_s: Array
    returned_kg_s: Array
    follows: Array
    own: Array
    back_follows: Array
    back_own: Array
    heat_j_kg: Array
    heat_follows_j_kg: Array
    mean_c: Array
    gain_k: Array


@compiled
def _row(values, room, into):
    """Values of a room over all steps, also where one stands for all rooms or all steps."""
    of = values[room if values.shape[0] > 1 else 0]
    for s in range(into.size):
        into[s] = of[s if of.size > 1 else 0]


@compiled
def _sum(supply, exhaust, air, back_c, leak, other, other_w, latent, outdoor_w, follows, own, sums):
    """Arrays of rooms by steps; of exhaust and what stands behind `back_c` a single row or column may stand for all."""
    rooms, steps = supply.shape
    taken, leaks, others = np.empty(steps), np.empty(steps), np.empty(steps)
    moist, gained = np.empty(steps), np.empty(steps)
    for room in range(rooms):
        _row(exhaust, room, taken)
        _row(leak, room, leaks)
        _row(other, room, others)
        _row(other_w, room, moist)
        _row(latent, room, gained)
        given, t, t_back, share, w_own = supply[room], air[room], back_c[room], follows[room], own[room]
        # Without a branch in it the loop takes several steps at once.
        for s in range(steps):
            through = given[s] + leaks[s] + others[s]
            some = through > _NO_FLOW
            over = 1.0 / (through if some else 1.0)
            brought = (
                leaks[s] * outdoor_w[s] + others[s] * moist[s] + gained[s] / (H_VAPORISATION_0C + CP_VAPOUR * t[s])
            )
            share[s] = given[s] * over if some else 0.0
            w_own[s] = brought * over if some else outdoor_w[s]
        for s in range(steps):
            back = max(0.0, given[s] - taken[s])
            vapour = H_VAPORISATION_0C + CP_VAPOUR * t_back[s]
            sums[0, s] += given[s]
            sums[1, s] += back
            sums[2, s] += back * share[s]
            sums[3, s] += back * w_own[s]
            sums[4, s] += back * (CP_DRY_AIR * t_back[s] + vapour * w_own[s])
            sums[5, s] += back * share[s] * vapour
            sums[6, s] += t[s]
            sums[7, s] += back * (t_back[s] - t[s])


def _flat(values: Array | float, shape: tuple[int, ...]) -> Array:
    """Values of rooms by steps in one block, a single row or column where all are the same."""
    found = np.asarray(values, dtype=np.float64)
    if found.ndim == 0:
        return found.reshape(1, 1)
    if found.ndim != len(shape):
        found = np.broadcast_to(found, shape)
    rows = found[:1] if found.strides[0] == 0 else found
    alike = all(stride == 0 or size == 1 for size, stride in zip(rows.shape[1:], rows.strides[1:], strict=True))
    if alike:
        rows = rows[(slice(None), *(slice(0, 1),) * (rows.ndim - 1))]
    elif rows.shape[1:] != shape[1:]:
        rows = np.broadcast_to(rows, (rows.shape[0], *shape[1:]))
    flat = rows.reshape(rows.shape[0], -1)
    return flat if flat.flags.c_contiguous and flat.flags.writeable else np.array(flat, order="C")


def summed(rooms: Rooms, back_c: Array, outdoor_w: Array) -> Summed:
    """Sum rooms whose air comes back at `back_c` [°C]; `outdoor_w` is of what leaks in, (steps)."""
    shape = rooms.supply_kg_s.shape
    count, steps = shape[0], int(np.prod(shape[1:]))
    follows, own, sums = np.empty((count, steps)), np.empty((count, steps)), np.zeros((_SUMS, steps))

    def whole(values: Array) -> Array:
        return block(values, shape).reshape(count, steps)

    _sum(
        whole(rooms.supply_kg_s),
        _flat(rooms.exhaust_kg_s, shape),
        whole(rooms.air_c),
        whole(back_c),
        _flat(rooms.leak_kg_s, shape),
        _flat(rooms.other_kg_s, shape),
        _flat(rooms.other_w, shape),
        _flat(rooms.latent_w, shape),
        np.array(np.broadcast_to(outdoor_w, shape[1:]).reshape(steps)),
        follows,
        own,
        sums,
    )
    at = shape[1:]
    terminal, returned = sums[0], sums[1]

    def per_returned(values: Array) -> Array:
        return np.asarray(np.divide(values, returned, out=np.zeros(steps), where=returned > _NO_FLOW).reshape(at))

    return Summed(
        terminal.reshape(at),
        returned.reshape(at),
        follows=follows.reshape(shape),
        own=own.reshape(shape),
        back_follows=per_returned(sums[2]),
        back_own=per_returned(sums[3]),
        heat_j_kg=per_returned(sums[4]),
        heat_follows_j_kg=per_returned(sums[5]),
        mean_c=(sums[6] / max(count, 1)).reshape(at),
        gain_k=per_returned(sums[7]),
    )
