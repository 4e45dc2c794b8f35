"""What heat pumps need of ground or well: the heat that they draw at most, and the flow that brings it."""

from dataclasses import dataclass

from pendrum_core.model.plant import GROUND_PUMP, KINDS, SOURCE, PlantUnit
from pendrum_core.water.liquid import Liquid

COOLED_K = 3.0  # of what comes from ground or well (EN 14511-2: 0/-3 °C, 10/7 °C)
BRINE = Liquid("ethylene", 0.25)  # freezes at about -12 °C


@dataclass(frozen=True)
class Extraction:
    """What a heat pump draws from its ground or well at most: heat [W], and the flow that brings it, cooled by 3 K [m3/s]."""

    heat_w: float
    flow_m3_s: float


def extraction_of(unit: PlantUnit, largest_w: float) -> Extraction | None:
    """The source that a heat pump needs for the most that it draws [W]; None of one that has none.

    Source: heat balance; EN 14511-2:2022 (3 K).
    """
    if KINDS[unit.kind].of != SOURCE:
        return None
    liquid = BRINE if unit.kind == GROUND_PUMP else Liquid()
    at = max(unit.source_cold_c - COOLED_K / 2.0, -10.0 if unit.kind == GROUND_PUMP else 1.0)
    heat = liquid.density_kg_m3(at) * liquid.specific_heat_j_kgk(at)
    return Extraction(largest_w, largest_w / (heat * COOLED_K))
