"""Many rooms laid end to end as flat arrays, so that one numpy operation serves them all."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.fabric.layers import Layers, transfer_matrix
from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import Boundary, Element, Room
from pendrum_core.room.harmonics import OMEGA_RAD_S

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class Admittance:
    """A wall between its environment and the inner face, at `OMEGA_RAD_S` [W/m2 K].

    q_inner = across * T_environment - own * T_inner. `across` is 0 for an adiabatic element.
    """

    across: Complex
    own: Complex


@lru_cache(maxsize=2048)
def admittance(layers: Layers, outer_resistance_m2k_w: float | None) -> Admittance:
    """Admittances of a layered wall; None for the outer resistance means an adiabatic outer face."""
    m = transfer_matrix(layers, OMEGA_RAD_S)
    if outer_resistance_m2k_w is None:
        # With no flux through the outer face: 0 = c T + d q.
        return Admittance(np.zeros(len(OMEGA_RAD_S), dtype=complex), m.c / m.d)
    a, b = m.a + outer_resistance_m2k_w * m.c, m.b + outer_resistance_m2k_w * m.d
    return Admittance(np.exp(-m.log_scale) / b, a / b)


def outer_resistance(boundary: Boundary, climate: Climate) -> float | None:
    """Resistance between the outer face and the environment temperature [m2 K/W]."""
    if boundary.kind == "adiabatic":
        return None
    if boundary.kind == "outdoors":
        return 1.0 / climate.coefficients.outside
    return boundary.extra_resistance_m2k_w


@dataclass(frozen=True)
class Stack:
    """Rooms as flat arrays; E elements, R rooms, 361 frequencies.

    Attributes:
        room_of: room index of each element, (E,).
        area, convection: (E,) [m2], [W/m2 K].
        across, own: admittances, (E, 361) [W/m2 K].
        by_room: sparse (R, E), ones where an element belongs to a room.
        total_area: (R,) [m2].
        capacity_j_k, exchange_w_k: air node's capacity, and its direct exchange with outdoor air, (R,).
    """

    rooms: tuple[Room, ...]
    elements: tuple[Element, ...]
    room_of: Ints
    area: Array
    convection: Array
    across: Complex
    own: Complex
    by_room: csr_matrix
    total_area: Array
    capacity_j_k: Array
    exchange_w_k: Array


def stack_rooms(rooms: Sequence[Room], climate: Climate, air_heat_j_m3k: float) -> Stack:
    """Lay rooms end to end. Every room must have at least one element."""
    elements = tuple(element for room in rooms for element in room.elements)
    room_of = np.repeat(np.arange(len(rooms)), [len(room.elements) for room in rooms])
    area = np.array([element.area_m2 for element in elements])
    kinds: dict[tuple[Layers, float | None], int] = {}
    kind_of = [kinds.setdefault((e.layers, outer_resistance(e.boundary, climate)), len(kinds)) for e in elements]
    walls = [admittance(layers, resistance) for layers, resistance in kinds]
    shape = (len(rooms), len(elements))
    by_room = csr_matrix((np.ones(len(elements)), (room_of, np.arange(len(elements)))), shape=shape)
    return Stack(
        rooms=tuple(rooms),
        elements=elements,
        room_of=room_of,
        area=area,
        convection=np.array([element.convection_w_m2k for element in elements]),
        across=np.stack([wall.across for wall in walls])[kind_of],
        own=np.stack([wall.own for wall in walls])[kind_of],
        by_room=by_room,
        total_area=by_room @ area,
        capacity_j_k=np.array([room.capacity_j_k for room in rooms]),
        exchange_w_k=np.array(
            [(room.infiltration_m3_s + room.direct_outdoor_air_m3_s) * air_heat_j_m3k for room in rooms]
        ),
    )
