"""Seasonal figures of machines that work against outdoor air, ground or wells: what they give over what they take in a reference season.

A machine stands for itself: the season's design load is its capacity, straight down to nought at 16 °C outdoors. Hours in which
nothing is asked, and stand-by, are left out ("on").

Source: EN 14825:2022, reference heating season "average" and reference cooling season.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.plant import CHILLER, GROUND_PUMP, HEAT_PUMPS, WELL_PUMP, PlantUnit
from pendrum_core.plant.source import staged_unit

Array = NDArray[np.float64]
NOTHING_AT_C = 16.0
HEATING_DESIGN_C, COOLING_DESIGN_C = -10.0, 35.0
# What comes to heat pumps that do not draw from the air, in every bin [°C]. Source: EN 14825:2022 (brine 0 °C, water 10 °C).
_SOURCE_C = {GROUND_PUMP: 0.0, WELL_PUMP: 10.0}

# Hours at each whole degree outdoors. Source: EN 14825:2022, annex B, "average" heating season from -10 °C, and cooling season from 17 °C.
_HEATING_H = (
    1, 25, 23, 24, 27, 68, 91, 89, 165, 173, 240, 280, 320, 357, 356, 303, 330, 326, 348, 335, 315, 215, 169, 151, 105, 74,
)  # fmt: skip
_COOLING_H = (
    205, 227, 225, 225, 216, 215, 218, 197, 178, 158, 137, 109, 88, 63, 39, 31, 24, 17, 13, 9, 4, 3, 1,
)  # fmt: skip


@dataclass(frozen=True)
class Season:
    """A machine over its reference season, (bins).

    Attributes:
        outdoor_c, hours: of each bin.
        load_w: asked; `output_w` given, at most the capacity; `taken_w` with auxiliaries.
    """

    outdoor_c: Array
    hours: Array
    load_w: Array
    output_w: Array
    taken_w: Array

    @property
    def figure(self) -> float:
        """SCOPon of a heat pump, SEERon of a chiller [-]. Source: EN 14825:2022, sums of energy over the bins."""
        return float((self.hours * self.output_w).sum() / (self.hours * self.taken_w).sum())


def season_of(unit: PlantUnit, capacity_w: float) -> Season | None:
    """A machine of a capacity over its season; None of what is no machine, and of chillers cooled by water.

    Its efficiency is that of its four points, cycling below its least part load (plant/staging.py); a heat pump's flow temperature is
    the one that its points were told at.

    Raises:
        ValueError: a capacity of nought or less.

    Source: EN 14825:2022, bins; part load straight with the outdoor temperature.
    """
    if unit.kind not in (*HEAT_PUMPS, CHILLER):
        return None
    if capacity_w <= 0.0:
        raise ValueError(f"a capacity of {capacity_w:g} W has no season; it is above 0")
    heats = unit.kind in HEAT_PUMPS
    hours = np.array(_HEATING_H if heats else _COOLING_H, dtype=np.float64)
    first, design = (HEATING_DESIGN_C, HEATING_DESIGN_C) if heats else (17.0, COOLING_DESIGN_C)
    outdoor: Array = first + np.arange(len(hours), dtype=np.float64)
    machine = staged_unit(unit, capacity_w)
    source = np.full_like(outdoor, _SOURCE_C[unit.kind]) if unit.kind in _SOURCE_C else outdoor
    design_source = np.array(_SOURCE_C.get(unit.kind, design))
    load: Array = machine.most_w(design_source) * (outdoor - NOTHING_AT_C) / (design - NOTHING_AT_C)
    output = np.minimum(load, machine.most_w(source))
    fuel, auxiliary = machine.taken(output, source, kept_warm=False)
    return Season(outdoor, hours, load, output, fuel + auxiliary)
