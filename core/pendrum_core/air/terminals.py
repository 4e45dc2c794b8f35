"""What a terminal gives to a room of known load and temperature: flow between its limits, then reheat.

A room's supply is m = Q / (h(T_room, w_s) - h_s) with the supply's state at the terminal. At the least flow what is too much
is reheated, and a negative load is heat that the room needs; at the most the room is short of cooling.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import enthalpy_j_kg

Array = NDArray[np.float64]
FOLLOWS, AT_LEAST, AT_MOST = 0, 1, 2


@dataclass(frozen=True)
class Given:
    """Arrays of one shape: dry air [kg/s], reheat and cooling that falls short [W], and which limit holds."""

    flow_kg_s: Array
    reheat_w: Array
    short_w: Array
    mode: NDArray[np.int64]


def terminal_flow(
    load_w: Array, room_c: Array, supply_c: Array, supply_w: Array, least_kg_s: Array, most_kg_s: Array
) -> Given:
    """Flow and reheat at every step."""
    carried = enthalpy_j_kg(room_c, supply_w) - enthalpy_j_kg(supply_c, supply_w)
    wanted = np.divide(load_w, carried, out=np.full(np.shape(load_w), np.inf), where=carried > 1e-6)
    wanted = np.where(load_w <= 0.0, 0.0, wanted)
    flow = np.clip(wanted, least_kg_s, most_kg_s)
    mode = np.where(wanted < least_kg_s, AT_LEAST, np.where(wanted > most_kg_s, AT_MOST, FOLLOWS))
    left = flow * carried - load_w
    return Given(
        flow,
        np.where(mode == AT_LEAST, np.maximum(left, 0.0), 0.0),
        np.where(mode == AT_MOST, np.maximum(-left, 0.0), 0.0),
        mode,
    )
