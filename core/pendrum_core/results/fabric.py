"""Values of assemblies and glazing that an engineer sees beside them.

Source: EN ISO 6946, EN ISO 13786; angular factors as in fabric/glazing.py.
"""

from dataclasses import dataclass

import numpy as np

from pendrum_core.fabric.glazing import angular_curve
from pendrum_core.fabric.layers import Layers, total_capacity_j_m2k, total_mass_kg_m2
from pendrum_core.fabric.periodic import dynamic_values
from pendrum_core.fabric.steady import films_m2k_w, steady_values


@dataclass(frozen=True)
class AssemblyValues:
    """Thermal values of an assembly.

    Attributes:
        u_value, u_without_films: with the standard's films, and of the layers alone [W/m2 K].
        resistance_m2k_w: of the layers [m2 K/W].
        mass_kg_m2, capacity_j_m2k: per area.
        inner_capacity_j_m2k: areal heat capacity seen from inside over a day, ISO 13786 [J/m2 K].
        decrement_factor, time_lag_h: ISO 13786, 24 h.
    """

    u_value: float
    u_without_films: float
    resistance_m2k_w: float
    mass_kg_m2: float
    capacity_j_m2k: float
    inner_capacity_j_m2k: float
    decrement_factor: float
    time_lag_h: float


def assembly_values(layers: Layers, element: str) -> AssemblyValues:
    """Values of layers in an element ("wall", "roof", "floor", "partition", "door")."""
    rsi, rse = films_m2k_w(element)
    steady = steady_values(layers, rsi, rse)
    dynamic = dynamic_values(layers, rsi, rse)
    return AssemblyValues(
        u_value=steady.u_value,
        u_without_films=1.0 / steady.resistance_m2k_w,
        resistance_m2k_w=steady.resistance_m2k_w,
        mass_kg_m2=total_mass_kg_m2(layers),
        capacity_j_m2k=total_capacity_j_m2k(layers),
        inner_capacity_j_m2k=dynamic.internal_areal_capacity,
        decrement_factor=dynamic.decrement_factor,
        time_lag_h=dynamic.time_lag_h,
    )


def glazing_curve(panes: int) -> tuple[list[float], list[float], float]:
    """Angles [deg], factors [-] and hemispherical factor [-] of a pane count, for drawing."""
    curve = angular_curve(panes)
    angles = np.arange(0.0, 91.0, 5.0)
    return angles.tolist(), curve.at(np.cos(np.radians(angles))).tolist(), curve.hemispherical
