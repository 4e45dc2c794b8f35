"""Fabric as inputs: layers and glazing, for callers outside the core."""

from pendrum_core.fabric.glazing import Glazing
from pendrum_core.fabric.layers import Layer, Layers, total_resistance
from pendrum_core.fabric.steady import films_m2k_w

__all__ = ["Glazing", "Layer", "Layers", "films_m2k_w", "total_resistance"]
