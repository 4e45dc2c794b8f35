"""What an air system is sized from and what it comes to: rooms' demands, rooms as they are served, the sized system."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.airflow import RoomAirflow
from pendrum_core.air.coil import NO_LIMITS, CoilLimits
from pendrum_core.air.fan import FanResult
from pendrum_core.air.outdoor_air import Breathing, SystemOutdoorAir
from pendrum_core.air.path import Path
from pendrum_core.air.season import NOTHING, RoomAir
from pendrum_core.duct.lanes import DUCT_AIR_C
from pendrum_core.duct.network import DuctResult
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import SUPPLY
from pendrum_core.moist_air import dew_point_c, enthalpy_j_kg, saturation_humidity_ratio, specific_volume_m3_kg
from pendrum_core.room.supply.served import Asked

Array = NDArray[np.float64]


Single = NDArray[np.float32]


@dataclass(frozen=True)
class RoomDemand:
    """What the system needs to know of a room.

    Attributes:
        sensible_w: signed sensible load, (months, 144) [W].
        latent_w: moisture from people and equipment, (months, 144) [W].
        summer, winter: the room as it is without systems, (1, months, 144) and (1, 1, 144).
        allowance_w: heating-up allowance that is no part of what is asked on the winter day [W].
        has_ceiling: whether a chilled ceiling or beam cools it; then its supply air is for ventilation alone.
        has_emitter: whether an emitter heats it; then its terminal only makes up for supply air that is too cold.
        air, winter_air: what flows through it beside the system's air.
    """

    room: Room
    sensible_w: Array
    latent_w: Array
    summer: Asked
    winter: Asked
    allowance_w: float = 0.0
    has_emitter: bool = False
    has_ceiling: bool = False
    air: RoomAir = NOTHING
    winter_air: RoomAir = NOTHING

    @property
    def left_w(self) -> Array:
        """Its sensible load less what systems that come first bring at its set-point, (months, 144) [W]."""
        if self.air.first is None:
            return self.sensible_w
        first = self.air.first
        return np.asarray(self.sensible_w - first.rate_w_k * (self.room.cooling_setpoint_c - first.supply_c))


@dataclass(frozen=True)
class ServedRoom:
    """A room under its supply air: summer (months, 144), winter (1, 144).

    Attributes:
        flow_kg_s, winter_flow_kg_s: of dry air.
        reheat_w, emitter_w: of its terminal and of its emitter in summer; `heat_w` what it needs on the winter day, of which
            `winter_reheat_w` is its terminal's. `chilled_w`: what a chilled ceiling or beam takes out of it in summer.
        air_c, winter_air_c: its air [°C].
        cooling_w: what the supply air takes out of it, signed; `winter_warmth_w` what it brings on the winter day.
        fan_w: electricity of a fan in its terminal while that runs.
        over_k, under_k: how far it gets above its cooling set-point and below its heating set-point in summer [K].
    """

    flow_kg_s: Array
    winter_flow_kg_s: Array
    reheat_w: Single
    emitter_w: Single
    heat_w: Array
    winter_reheat_w: Array
    air_c: Array
    winter_air_c: Array
    cooling_w: Single
    winter_warmth_w: Array
    over_k: float
    under_k: float
    chilled_w: Single
    fan_w: float = 0.0


@dataclass(frozen=True)
class AirSystemResult:
    """A sized air system.

    Attributes:
        breathing: what each room's outdoor air is made of; people_w: heat of all its people [W].
        airflows: design flows by room; `served` what each room gets.
        mass_kg_s, flow_m3_s: dry air and actual flow of the supply fan's design, the largest coincident sum.
        least_outdoor_kg_s: outdoor air that it never takes less of while all of it runs; `outdoor_share` that over the flow.
        ducts: supply, None where no tree is drawn yet; then only the unit's own drops count. `lanes`: its other networks.
        return_m3_s: what comes back at one time at most, of air of 20 °C.
        summer, winter: path of the air, (months, 144) and (1, 144).
        asked_supply_c: supply temperature wanted at the terminals, (months, 144) [°C].
        short_w: cooling that the airflow cannot carry, (months, 144) [W].
        peak: (month index, step) of the coil's largest total.
        balance: what heat balances of unit and rooms leave open at any step, relative to their throughput [-].
        limits: of its coils by what flows in them.
    """

    id: str
    airflows: Mapping[str, RoomAirflow]
    served: Mapping[str, ServedRoom]
    mass_kg_s: float
    flow_m3_s: float
    outdoor_air: SystemOutdoorAir
    breathing: Mapping[str, Breathing]
    people_w: Mapping[str, float]
    outdoor_share: float
    least_outdoor_kg_s: float
    ducts: DuctResult | None
    lanes: Mapping[str, DuctResult]
    return_m3_s: float
    fan: FanResult
    summer: Path
    winter: Path
    asked_supply_c: Array
    short_w: Array
    peak: tuple[int, int]
    balance: float
    converged: bool
    pressure_pa: float
    limits: CoilLimits = NO_LIMITS

    @property
    def networks(self) -> dict[str, DuctResult]:
        """All networks of its ducts that are sized, supply first."""
        return ({} if self.ducts is None else {SUPPLY: self.ducts}) | dict(self.lanes)

    @property
    def volume_m3_kg(self) -> float:
        """Of the air of 20 °C that ducts beside the supply are sized for [m3/kg]."""
        return float(specific_volume_m3_kg(DUCT_AIR_C, 0.0, self.pressure_pa))

    @property
    def coil_total_w(self) -> Array:
        """On the cooling coil, net of condensate, (months, 144) [W]."""
        return self.summer.cooling_w

    @property
    def coil_sensible_w(self) -> Array:
        """Sensible part of it, (months, 144) [W]."""
        return np.asarray(self.summer.flow_kg_s * self.summer.coil.sensible_j_kg)

    @property
    def condensate_kg_s(self) -> Array:
        """Water off the cooling coil, (months, 144) [kg/s]."""
        return np.asarray(self.summer.flow_kg_s * self.summer.coil.condensate_kg_kg)

    @cached_property
    def reheat_w(self) -> Array:
        """Of all terminals together, (months, 144) [W]."""
        return np.asarray(sum(room.reheat_w for room in self.served.values()))

    @property
    def terminal_fans_w(self) -> float:
        """Electricity of the fans in its terminals, all together [W]."""
        return sum(room.fan_w for room in self.served.values())

    @property
    def heating_coil_w(self) -> float:
        """Largest duty of the heating coils in the unit together, on the winter day or in any summer month [W]."""
        summer = self.summer.heating_w + self.summer.reheat_w
        return max(float(self.winter.heating_w.max()), float(summer.max()))

    @property
    def duct_gain_k(self) -> float:
        """What supply ducts warm the air by at the coil's largest load [K]."""
        return float(self.summer.supply_c[self.peak] - self.summer.outlet_c[self.peak])

    @property
    def return_gain_k(self) -> float:
        """The same of return ducts; 0 where it is not worked out [K]."""
        return 0.0 if self.summer.return_gain_k is None else float(self.summer.return_gain_k[self.peak])

    @property
    def outdoor_gain_k(self) -> float:
        """The same of ducts of outdoor air; 0 where it is not worked out [K]."""
        return 0.0 if self.summer.outdoor_gain_k is None else float(self.summer.outdoor_gain_k[self.peak])

    @cached_property
    def outdoor_air_j_kg(self) -> tuple[Array, Array]:
        """What outdoor air brings to the coil above the return air, per kg of supply air: sensible, latent (months, 144)."""
        p = self.summer
        dry = enthalpy_j_kg(p.fresh_c, p.plenum_w)
        sensible = p.outdoor_share * (dry - enthalpy_j_kg(p.plenum_c, p.plenum_w))
        return sensible, p.outdoor_share * (enthalpy_j_kg(p.fresh_c, p.fresh_w) - dry)

    @cached_property
    def below_dew_point(self) -> tuple[float, int, int]:
        """How far the supply air is at most below the dew point of the return air [K], month index and step."""
        p = self.summer
        # Where that air is moistest against air saturated at the supply temperature, its dew point is furthest above it.
        moist = p.return_w / saturation_humidity_ratio(p.supply_c, self.pressure_pa)
        month, step = (int(i) for i in np.unravel_index(int(moist.argmax()), moist.shape))
        below = float(dew_point_c(p.return_w[month, step], self.pressure_pa)) - float(p.supply_c[month, step])
        return below, month, step
