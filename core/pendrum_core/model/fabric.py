"""Fabric as inputs: layers and glazing, for callers outside the core."""

from pendrum_core.fabric.glazing import Glazing
from pendrum_core.fabric.layers import Layer, Layers, total_resistance

__all__ = ["Glazing", "Layer", "Layers", "total_resistance"]
