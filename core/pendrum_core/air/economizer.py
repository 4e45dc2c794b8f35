"""Economizer: when outdoor air above the least cools for nothing.

Decided at the state of the return air just before mixing (after plenum and return fan). Where the return state would
depend on the decision, as its enthalpy does through the rooms' moisture, it is that of operation at the least outdoor air.

Source: mass balance of dry air at the mixing box; limits after ASHRAE Guideline 16-2018.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import enthalpy_j_kg, specific_heat_j_kgk

Array = NDArray[np.float64]
KINDS = ("none", "dry-bulb differential", "dry-bulb fixed", "enthalpy differential", "enthalpy fixed")


@dataclass(frozen=True)
class Economizer:
    """Kind, one of KINDS; the limit of the fixed ones: dry-bulb [°C], or enthalpy [J/kg dry air]."""

    kind: str = "none"
    limit: float = 0.0


def runs(rule: Economizer, outdoor_c: Array, outdoor_w: Array, return_c: Array, return_w: Array) -> NDArray[np.bool_]:
    """Whether it runs at each step [yes or no].

    Raises:
        ValueError: unknown kind.
    """
    if rule.kind == "none":
        return np.zeros(np.broadcast(outdoor_c, return_c).shape, dtype=np.bool_)
    if rule.kind == "dry-bulb differential":
        return np.asarray(outdoor_c < return_c)
    if rule.kind == "dry-bulb fixed":
        return np.asarray(np.broadcast_to(outdoor_c < rule.limit, np.broadcast(outdoor_c, return_c).shape))
    if rule.kind == "enthalpy differential":
        return np.asarray(enthalpy_j_kg(outdoor_c, outdoor_w) < enthalpy_j_kg(return_c, return_w))
    if rule.kind == "enthalpy fixed":
        return np.asarray(
            np.broadcast_to(enthalpy_j_kg(outdoor_c, outdoor_w) < rule.limit, np.broadcast(outdoor_c, return_c).shape)
        )
    raise ValueError(f"economizer {rule.kind!r} is none of {', '.join(KINDS)}")


def outdoor_share(
    on: NDArray[np.bool_],
    least: Array,
    target_c: Array,
    outdoor_c: Array,
    outdoor_w: Array,
    return_c: Array,
    return_w: Array,
) -> Array:
    """Share of outdoor air in the mixture [-]: all of it where outdoors is not colder than the target, else what mixes to it,
    never under the least; the least where the economizer does not run. Streams mix straight in enthalpy and humidity.
    """
    # What a kilogram of each stream is above the target, at its own heat capacity: in the mixture they add up to nothing.
    outdoor = (outdoor_c - target_c) * specific_heat_j_kgk(outdoor_w)
    returned = (return_c - target_c) * specific_heat_j_kgk(return_w)
    apart = returned - outdoor
    mixing = np.clip(returned / np.where(np.abs(apart) < 1e-9, 1e-9, apart), 0.0, 1.0)
    wanted = np.where(outdoor_c >= target_c, 1.0, mixing)
    return np.asarray(np.where(on, np.maximum(wanted, least), least))
