"""What fills a circuit: water, or water with glycol.

Source: as properties.py and glycol.py say of each.
"""

from dataclasses import dataclass

from pendrum_core.network.friction import Fluid
from pendrum_core.water.glycol import (
    freezing_c,
    mixture_density_kg_m3,
    mixture_specific_heat_j_kgk,
    mixture_viscosity_pa_s,
)
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk, water

WATER = "none"


@dataclass(frozen=True)
class Liquid:
    """A circuit's liquid.

    Attributes:
        glycol: "none", "ethylene" or "propylene".
        share: of glycol, by mass [-]; of no meaning without one.
    """

    glycol: str = WATER
    share: float = 0.0

    def density_kg_m3(self, temperature_c: float) -> float:
        """Density [kg/m³]."""
        if self.glycol == WATER:
            return density_kg_m3(temperature_c)
        return mixture_density_kg_m3(self.glycol, self.share, temperature_c)

    def specific_heat_j_kgk(self, temperature_c: float) -> float:
        """Specific heat [J/(kg K)]."""
        if self.glycol == WATER:
            return specific_heat_j_kgk(temperature_c)
        return mixture_specific_heat_j_kgk(self.glycol, self.share, temperature_c)

    def fluid(self, temperature_c: float) -> Fluid:
        """Density and viscosity for friction."""
        if self.glycol == WATER:
            return water(temperature_c)
        return Fluid(
            mixture_density_kg_m3(self.glycol, self.share, temperature_c),
            mixture_viscosity_pa_s(self.glycol, self.share, temperature_c),
        )

    def freezing_c(self) -> float:
        """Temperature at which the first ice forms [°C]."""
        return 0.0 if self.glycol == WATER else freezing_c(self.glycol, self.share)


PLAIN_WATER = Liquid()
