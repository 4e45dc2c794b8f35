"""Heat recovery between supply and exhaust: plate, wheel or run-around coil, by effectivenesses.

T_s2 = T_s1 + eps phi (m_min/m_s)(T_e1 - T_s1), w alike: the effectivenesses belong to the smaller dry-air flow. The exhaust's
outlet follows from the balances of heat and moisture; past saturation the surplus drips off. Frost protection keeps the
exhaust's outlet at or above a limit, by turning the recovery down or by warming the outdoor air before it.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.moist_air import (
    dry_bulb_from_enthalpy_c,
    enthalpy_j_kg,
    saturation_humidity_ratio,
    specific_heat_j_kgk,
)
from pendrum_core.quantities.constants import CP_WATER

Array = NDArray[np.float64]
FROST = ("none", "turned down", "preheat")
_HALVINGS = 48
_MOST_PREHEAT_K = 60.0


@dataclass(frozen=True)
class Recovery:
    """Sensible and latent effectiveness [-], and what is done against frost: one of FROST, exhaust not below [°C]."""

    sensible: float
    latent: float = 0.0
    frost: str = "none"
    exhaust_least_c: float = 1.0


@dataclass(frozen=True)
class Recovered:
    """Air through the exchanger; arrays of one shape.

    Attributes:
        entering_c: outdoor air after the preheater of the frost protection [°C].
        leaving_c, leaving_w: supply air off the exchanger.
        exhaust_c, exhaust_w: exhaust air off it.
        share: phi, how far it is turned down [-].
        preheat_j_kg: of the preheater, and recovered_j_kg, per kg of supply air.
        dripped_kg_kg: water that drips off the exhaust, per kg of it.
    """

    entering_c: Array
    leaving_c: Array
    leaving_w: Array
    exhaust_c: Array
    exhaust_w: Array
    share: Array
    preheat_j_kg: Array
    recovered_j_kg: Array
    dripped_kg_kg: Array


def recover(
    unit: Recovery,
    supply_kg_s: Array,
    exhaust_kg_s: Array,
    t: Array,
    w: Array,
    exhaust_c: Array,
    exhaust_w: Array,
    pressure_pa: float,
    most_c: Array | float = np.inf,
) -> Recovered:
    """Exchange between outdoor air at (t, w) and exhaust air; `most_c`: supply air is not warmed above it.

    Raises:
        ValueError: an effectiveness outside 0 to 1, or an unknown frost protection.
    """
    if not (0.0 <= unit.sensible <= 1.0 and 0.0 <= unit.latent <= 1.0) or unit.frost not in FROST:
        raise ValueError(
            f"effectivenesses {unit.sensible:g} and {unit.latent:g} lie between 0 and 1, frost protection {unit.frost!r} is one of "
            f"{', '.join(FROST)}"
        )
    t, w, exhaust_c, exhaust_w, m_s, m_e = np.broadcast_arrays(
        *(np.asarray(value, dtype=float) for value in (t, w, exhaust_c, exhaust_w, supply_kg_s, exhaust_kg_s))
    )
    least = np.minimum(m_s, m_e)
    by_supply = np.divide(least, m_s, out=np.zeros_like(least), where=m_s > 0.0)
    ratio = np.divide(m_s, m_e, out=np.zeros_like(least), where=m_e > 0.0)

    def through(phi: Array, entering: Array) -> tuple[Array, Array, Array, Array, Array]:
        t2 = entering + unit.sensible * phi * by_supply * (exhaust_c - entering)
        w2 = w + unit.latent * phi * by_supply * (exhaust_w - w)
        gained = enthalpy_j_kg(t2, w2) - enthalpy_j_kg(entering, w)
        h_e = enthalpy_j_kg(exhaust_c, exhaust_w) - ratio * gained
        w_e = exhaust_w - ratio * (w2 - w)
        t_e, kept, dripped = _not_past_saturation(h_e, w_e, pressure_pa)
        return t2, w2, t_e, kept, dripped

    # Not warmer than is wanted: in summer, and where the supply asks for less than the exchanger would give.
    warms = exhaust_c > t
    full = t + unit.sensible * by_supply * (exhaust_c - t)
    span = np.where(np.abs(full - t) > 1e-9, full - t, 1.0)
    phi = np.where(warms & (full > most_c), np.clip((most_c - t) / span, 0.0, 1.0), 1.0)
    phi = np.where(m_e > 0.0, phi, 0.0)
    entering = np.array(t)
    if unit.frost != "none":
        frozen = (through(phi, entering)[2] < unit.exhaust_least_c) & (exhaust_c > unit.exhaust_least_c)
        if frozen.any() and unit.frost == "turned down":
            low, high = np.zeros_like(phi), np.array(phi)
            for _ in range(_HALVINGS):
                middle = 0.5 * (low + high)
                cold = through(middle, entering)[2] < unit.exhaust_least_c
                low, high = np.where(cold, low, middle), np.where(cold, middle, high)
            phi = np.where(frozen, 0.5 * (low + high), phi)
        elif frozen.any():
            low, high = np.array(t), t + _MOST_PREHEAT_K
            for _ in range(_HALVINGS):
                middle = 0.5 * (low + high)
                cold = through(phi, middle)[2] < unit.exhaust_least_c
                low, high = np.where(cold, middle, low), np.where(cold, high, middle)
            entering = np.where(frozen, 0.5 * (low + high), t)
    t2, w2, t_e, w_e, dripped = through(phi, entering)
    return Recovered(
        entering_c=entering,
        leaving_c=t2,
        leaving_w=w2,
        exhaust_c=t_e,
        exhaust_w=w_e,
        share=phi,
        preheat_j_kg=specific_heat_j_kgk(w) * (entering - t),
        recovered_j_kg=enthalpy_j_kg(t2, w2) - enthalpy_j_kg(entering, w),
        dripped_kg_kg=dripped,
    )


def _not_past_saturation(h: Array, w: Array, pressure_pa: float) -> tuple[Array, Array, Array]:
    """Temperature, humidity ratio and dripped water of air that may hold more than it can: h = h_sat(T) + (w - w_sat) h_water."""
    t = dry_bulb_from_enthalpy_c(h, w)
    wet = w > saturation_humidity_ratio(t, pressure_pa)
    if not wet.any():
        return t, w, np.zeros_like(w)
    low, high = t - 1.0, t + 40.0
    for _ in range(_HALVINGS):
        middle = 0.5 * (low + high)
        most = saturation_humidity_ratio(middle, pressure_pa)
        held = enthalpy_j_kg(middle, most) + (w - most) * CP_WATER * middle
        low, high = np.where(held < h, middle, low), np.where(held < h, high, middle)
    t = np.where(wet, 0.5 * (low + high), t)
    kept = np.where(wet, np.minimum(w, saturation_humidity_ratio(t, pressure_pa)), w)
    return t, kept, w - kept
