"""What ducts warm the air by on its way to each terminal."""

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import specific_heat_j_kgk

Array = NDArray[np.float64]
_USUAL_W = 0.008  # kg/kg of supply air, for its heat capacity in ducts
_NO_FLOW = 1e-12


def kept_shares(ua_w_k: Array, supply_kg_s: Array) -> Array:
    """Of the difference between the unit's outlet and the air around the ducts, what is left at each terminal, (rooms, steps) [-].

    exp(-UA/(m cp)), `ua_w_k` of the way to each room [W/K]; 1 where nothing flows.

    Source: heat balance of a duct with air around it that keeps its temperature.
    """
    rate = supply_kg_s * float(specific_heat_j_kgk(_USUAL_W))
    ways = ua_w_k.reshape((-1,) + (1,) * (supply_kg_s.ndim - 1))
    return np.asarray(np.exp(-np.divide(ways, rate, out=np.zeros(rate.shape), where=rate > _NO_FLOW)))


def mean_kept(kept: Array, supply_kg_s: Array) -> Array:
    """The same of all air together, (steps) [-]. Source: mixing by mass."""
    whole = supply_kg_s.sum(axis=0)
    mixed = (kept * supply_kg_s).sum(axis=0)
    return np.asarray(np.divide(mixed, whole, out=np.ones(whole.shape), where=whole > _NO_FLOW))


def apart_from_mean_k(kept: Array, mean: Array, supply_c: Array, around_c: float) -> Array:
    """How far each room's supply air is from the mean `supply_c` of all, (rooms, steps) [K]. Source: both balances."""
    return np.asarray((supply_c - around_c) * (kept / np.maximum(mean, 1e-12) - 1.0))


def led_c(ua_w_k: Array, flow_kg_s: Array, air_c: Array, around_c: float) -> Array:
    """Air of each room at the end of its way, (rooms, steps) [°C]. Source: as kept_shares."""
    return np.asarray(around_c + (air_c - around_c) * kept_shares(ua_w_k, flow_kg_s))
