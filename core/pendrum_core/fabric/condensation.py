"""Temperature and dew point through a section, steady. Source: ISO 13788:2012 (Glaser), one winter state."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from pendrum_core.fabric.layers import Layers
from pendrum_core.moist_air import saturation_pressure_pa

GAP_DIFFUSION_M = 0.01  # equivalent air layer of gaps and thin films whose own is not given


@dataclass(frozen=True)
class SectionLine:
    """At every interface from outdoors to indoors: outer face, between the layers, inner face.

    Attributes:
        temperature_c, dew_point_c: [°C].
        vapour_pa, saturation_pa: partial pressure, and the most that the place can hold [Pa].
        wet: interfaces where the vapour pressure reaches saturation.
    """

    temperature_c: tuple[float, ...]
    dew_point_c: tuple[float, ...]
    vapour_pa: tuple[float, ...]
    saturation_pa: tuple[float, ...]
    wet: tuple[int, ...]


def dew_point_of_pressure_c(vapour_pa: float) -> float:
    """Dew point of a vapour pressure [°C], Magnus formula of ISO 13788:2012, annex E, inverted; its limit for dry air."""
    if vapour_pa <= 0.0:
        return -265.5
    ratio = np.log(vapour_pa / 610.5)
    if vapour_pa >= 610.5:
        return float(237.3 * ratio / (17.269 - ratio))
    return float(265.5 * ratio / (21.875 - ratio))


def section_line(
    layers: Layers,
    vapour_factors: Sequence[float],
    films_m2k_w: tuple[float, float],
    outdoor: tuple[float, float],
    indoor: tuple[float, float],
) -> SectionLine:
    """Lines through layers given outside to inside.

    Args:
        vapour_factors: mu per layer [-]; 0 where not known or a gap.
        films_m2k_w: inside and outside.
        outdoor, indoor: temperature [°C] and relative humidity [-].
    """
    rsi, rse = films_m2k_w
    resistances = [rse, *(layer.resistance_m2k_w for layer in layers), rsi]
    flux = (indoor[0] - outdoor[0]) / sum(resistances)
    temperature = outdoor[0] + flux * np.cumsum(resistances[:-1])
    depths = [
        layer.thickness_m * mu if mu > 0.0 and layer.thickness_m > 0.0 else GAP_DIFFUSION_M
        for layer, mu in zip(layers, vapour_factors, strict=True)
    ]
    low = float(saturation_pressure_pa(outdoor[0])) * outdoor[1]
    high = float(saturation_pressure_pa(indoor[0])) * indoor[1]
    share = np.concatenate([[0.0], np.cumsum(depths)]) / sum(depths)
    vapour = low + (high - low) * share
    saturation = np.array([float(saturation_pressure_pa(t)) for t in temperature])
    return SectionLine(
        temperature_c=tuple(map(float, temperature)),
        dew_point_c=tuple(dew_point_of_pressure_c(float(p)) for p in vapour),
        vapour_pa=tuple(map(float, vapour)),
        saturation_pa=tuple(map(float, saturation)),
        wet=tuple(int(i) for i in np.flatnonzero(vapour > saturation)),
    )
