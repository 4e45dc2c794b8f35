"""Dynamic characteristics of a wall for a daily period. Source: ISO 13786:2017."""

from dataclasses import dataclass

import numpy as np

from pendrum_core.fabric.layers import Layer, Layers, transfer_matrix
from pendrum_core.fabric.steady import steady_values
from pendrum_core.quantities.constants import DAY_S


@dataclass(frozen=True)
class DynamicValues:
    """Dynamic characteristics; side 1 is inside, side 2 outside.

    Attributes:
        z11, z12, z21, z22: elements of the matrix from inside to outside [-, m2K/W, W/m2K, -].
        periodic_transmittance: |1/Z12| [W/m2 K].
        decrement_factor: periodic transmittance over U [-].
        time_lag_h: hours by which the inside flux follows the outside temperature [h].
        internal_admittance, external_admittance: |Z11/Z12|, |Z22/Z12| [W/m2 K].
        internal_areal_capacity, external_areal_capacity: [J/m2 K].
    """

    z11: complex
    z12: complex
    z21: complex
    z22: complex
    periodic_transmittance: float
    decrement_factor: float
    time_lag_h: float
    internal_admittance: float
    external_admittance: float
    internal_areal_capacity: float
    external_areal_capacity: float


def dynamic_values(layers: Layers, rsi_m2k_w: float, rse_m2k_w: float, period_s: float = DAY_S) -> DynamicValues:
    """Characteristics with surface films (pass 0 for a film to leave it out)."""
    omega = 2 * np.pi / period_s
    inside_first: list[Layer] = list(reversed(layers))
    if rsi_m2k_w > 0.0:
        inside_first.insert(0, Layer("inside film", plain_resistance_m2k_w=rsi_m2k_w))
    if rse_m2k_w > 0.0:
        inside_first.append(Layer("outside film", plain_resistance_m2k_w=rse_m2k_w))
    # The standard's matrix maps side 1 to side 2 with flux positive from 1 to 2: the outward chain inverted.
    m = transfer_matrix(tuple(inside_first), np.array([omega]))
    scale = float(np.exp(m.log_scale[0]))
    z11, z12, z21, z22 = (complex(d[0]) * scale for d in (m.d, -m.b, -m.c, m.a))
    u = steady_values(layers, rsi_m2k_w, rse_m2k_w).u_value
    transmittance = abs(1 / z12)
    lag = float(-np.angle(-1 / z12) * period_s / (2 * np.pi) / 3600.0) % (period_s / 3600.0)
    return DynamicValues(
        z11=z11,
        z12=z12,
        z21=z21,
        z22=z22,
        periodic_transmittance=transmittance,
        decrement_factor=transmittance / u,
        time_lag_h=lag,
        internal_admittance=abs(z11 / z12),
        external_admittance=abs(z22 / z12),
        internal_areal_capacity=period_s / (2 * np.pi) * abs((z11 - 1) / z12),
        external_areal_capacity=period_s / (2 * np.pi) * abs((z22 - 1) / z12),
    )
