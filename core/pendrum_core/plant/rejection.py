"""Heat of water-cooled chillers into the air: cooling towers and dry coolers at every step, with the chillers that they cool.

A tower is an exchanger of moist air: effectiveness by number of transfer units, the air taken as saturated with an effective
specific heat, its transfer units by the ratio of water to air. A dry cooler is an exchanger of dry air. Both are sized at one
design point and then give what they can at any wet-bulb, load and fan speed; the fan slows down to hold the coldest
water that the chillers may have. Chillers and cooler are solved together at every step: colder water means less power,
less power less heat.

Sources: Braun, Klein and Mitchell 1989 (towers, ASHRAE Transactions 95(2)); Kays and London 1984 (effectiveness by NTU, fluids
in counterflow); fan power by the cube of speed (affinity laws).
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.plant import TOWER, Rejection
from pendrum_core.moist_air import (
    enthalpy_j_kg,
    humidity_ratio_from_wet_bulb,
    saturation_humidity_ratio,
    saturation_pressure_pa,
)
from pendrum_core.quantities.constants import CP_WATER, GRAVITY_M_S2

Array = NDArray[np.float64]
WATER_KG_M3 = 996.0  # at 28 °C
WATER_OVER_AIR = 1.2  # kg of water to a kg of dry air in a tower, at design
_TOWER_EXPONENT = 0.4  # of the ratio of water to air, on the transfer units; Braun's n of -0.6
_DRY_EXPONENT = 0.6  # of the air flow, on the conductance of a dry cooler
_WARMEST_K, _HALVINGS = 80.0, 44  # search of the water's temperature above the air's
_ROUNDS, _AT_REST_K = 25, 1e-4
_NO_HEAT_W = 1e-3
_MOST_EFFECT, _MOST_UNITS = 0.999, 8.0  # beyond eight transfer units no cooler is built


@dataclass(frozen=True)
class Cooler:
    """A sized tower or dry cooler.

    Attributes:
        inputs: what the engineer set.
        heat_w: rejected at design; air_c the air's wet-bulb (of a tower) or dry-bulb then [°C].
        cold_c, hot_c: water to and from the chillers at design [°C].
        water_kg_s: through it, whatever it rejects.
        units: transfer units at design [-].
        pressure_pa: of the air.
    """

    inputs: Rejection
    heat_w: float
    air_c: float
    cold_c: float
    hot_c: float
    water_kg_s: float
    units: float
    pressure_pa: float

    @property
    def fan_w(self) -> float:
        """Its fans at full speed [W]."""
        return self.inputs.fan_w_w * self.heat_w

    @property
    def pump_w(self) -> float:
        """The condenser water's pump [W]: V Δp / η."""
        return self.water_kg_s / WATER_KG_M3 * self.inputs.drop_pa / self.inputs.pump_efficiency

    @property
    def suction_head_m(self) -> float:
        """Net positive suction head that the condenser water's pump has [m]: the air on the basin, less vapour, above the pump, less losses.

        Source: its definition (EN ISO 17769-1): (p air − p vapour − losses)/(ρ g) + height.
        """
        vapour = float(saturation_pressure_pa(self.cold_c))
        head = (self.pressure_pa - vapour - self.inputs.suction_pa) / (WATER_KG_M3 * GRAVITY_M_S2)
        return head + self.inputs.above_pump_m

    def made_up_kg_s(self, heat_w: Array, speed: Array, dry_bulb_c: Array, wet_bulb_c: Array) -> Array:
        """Water that a tower loses by evaporation and blow-down [kg/s]; none of a dry cooler.

        The air leaves saturated with all the heat in it; blow-down is evaporation/(cycles − 1).

        Source: heat and moisture balance of the air; ASHRAE Handbook HVAC Systems and Equipment, ch. 40 (blow-down).
        """
        if self.inputs.kind != TOWER:
            return np.zeros_like(heat_w)
        heat, share, dry, wet = np.broadcast_arrays(heat_w, speed, dry_bulb_c, wet_bulb_c)
        air_kg_s = np.maximum(share, 1e-9) * self.water_kg_s / WATER_OVER_AIR
        entering = humidity_ratio_from_wet_bulb(dry, wet, self.pressure_pa)
        leaving_j_kg = enthalpy_j_kg(dry, entering) + heat / air_kg_s
        low, high = np.array(wet), wet + _WARMEST_K
        for _ in range(_HALVINGS):
            middle = 0.5 * (low + high)
            below = _saturated_j_kg(middle, self.pressure_pa) < leaving_j_kg
            low, high = np.where(below, middle, low), np.where(below, high, middle)
        leaving = saturation_humidity_ratio(high, self.pressure_pa)
        evaporated = np.where(heat > _NO_HEAT_W, np.maximum(air_kg_s * (leaving - entering), 0.0), 0.0)
        return np.asarray(evaporated * self.inputs.cycles / (self.inputs.cycles - 1.0))

    def water_c(self, heat_w: Array, air_c: Array, speed: Array | float = 1.0) -> Array:
        """Water that goes to the chillers while it rejects a heat at a fan speed [°C], arrays of one shape.

        Source: heat balance of water and air at the effectiveness that the flows have.
        """
        heat, air, share = np.broadcast_arrays(
            np.asarray(heat_w, dtype=float), np.asarray(air_c, dtype=float), np.asarray(speed, dtype=float)
        )
        rate = self.water_kg_s * CP_WATER
        low, high = np.array(air), air + _WARMEST_K
        gives = self._tower_w if self.inputs.kind == TOWER else self._dry_w
        for _ in range(_HALVINGS):
            middle = 0.5 * (low + high)
            enough = gives(middle, middle + heat / rate, air, share) >= heat
            low, high = np.where(enough, low, middle), np.where(enough, middle, high)
        return np.asarray(0.5 * (low + high))

    def speed_for(self, heat_w: Array, air_c: Array, water_c: float) -> Array:
        """Fan speed at which the water is no colder than `water_c`, 0 to 1 [-].

        Source: the same balance, solved for the air flow.
        """
        low, high = np.zeros_like(heat_w), np.ones_like(heat_w)
        for _ in range(_HALVINGS):
            middle = 0.5 * (low + high)
            warm = self.water_c(heat_w, air_c, middle) > water_c
            low, high = np.where(warm, middle, low), np.where(warm, high, middle)
        return high

    def _tower_w(self, cold_c: Array, hot_c: Array, wet_bulb_c: Array, speed: Array) -> Array:
        """Heat that the air takes from water of two temperatures."""
        air_kg_s = np.maximum(speed, 1e-9) * self.water_kg_s / WATER_OVER_AIR
        hot, cold, entering = (_saturated_j_kg(t, self.pressure_pa) for t in (hot_c, cold_c, wet_bulb_c))
        per_k = np.where(hot_c - cold_c > 1e-6, (hot - cold) / np.maximum(hot_c - cold_c, 1e-6), CP_WATER)
        ratio = air_kg_s * per_k / (self.water_kg_s * CP_WATER)
        units = self.units * np.maximum(speed, 1e-9) ** -_TOWER_EXPONENT
        return np.asarray(_effect(units, ratio) * air_kg_s * (hot - entering))

    def _dry_w(self, cold_c: Array, hot_c: Array, dry_bulb_c: Array, speed: Array) -> Array:
        rate = self.water_kg_s * CP_WATER
        share = np.maximum(speed, 1e-9)
        # The air's rate is the water's at design: the smaller one at any lower speed.
        effect = _effect(self.units * share**_DRY_EXPONENT / share, share)
        return np.asarray(effect * share * rate * (hot_c - dry_bulb_c))


def _saturated_j_kg(temperature_c: Array, pressure_pa: float) -> Array:
    return enthalpy_j_kg(temperature_c, saturation_humidity_ratio(temperature_c, pressure_pa))


def _effect(units: Array, ratio: Array) -> Array:
    """Effectiveness in counterflow, ratio of the smaller rate to the larger (or of air's to water's)."""
    same = np.abs(ratio - 1.0) < 1e-6
    fall = np.exp(-units * (1.0 - ratio))
    apart = (1.0 - fall) / np.where(same, 1.0, 1.0 - ratio * fall)
    return np.asarray(np.where(same, units / (1.0 + units), apart))


def size_cooler(inputs: Rejection, heat_w: float, air_c: float, pressure_pa: float) -> Cooler:
    """A cooler that rejects a heat [W] at a wet-bulb or dry-bulb [°C] with the range and approach of `inputs`.

    Raises:
        ValueError: no heat, or an approach that the kind cannot reach at all.

    Source: the cooler's own balance at its design point, solved for the transfer units.
    """
    if heat_w <= 0.0:
        raise ValueError(f"a cooler of {heat_w:g} W rejects nothing; it is above 0")
    cold = air_c + inputs.approach_k
    hot = cold + inputs.range_k
    water = heat_w / (CP_WATER * inputs.range_k)
    if inputs.kind == TOWER:
        h_hot, h_cold, h_air = (float(_saturated_j_kg(np.array(t), pressure_pa)) for t in (hot, cold, air_c))
        effect = WATER_OVER_AIR * CP_WATER * inputs.range_k / (h_hot - h_air)
        ratio = (h_hot - h_cold) / inputs.range_k / (WATER_OVER_AIR * CP_WATER)
    else:
        effect, ratio = inputs.range_k / (inputs.range_k + inputs.approach_k), 1.0
    units = np.inf
    if effect < min(_MOST_EFFECT, 1.0 / max(ratio, 1e-9)):
        same = abs(ratio - 1.0) < 1e-6
        units = effect / (1.0 - effect) if same else -np.log((1.0 - effect) / (1.0 - effect * ratio)) / (1.0 - ratio)
    if units > _MOST_UNITS:
        raise ValueError(
            f"no {inputs.kind} cools water by {inputs.range_k:g} K to {inputs.approach_k:g} K above the air of {air_c:.1f} °C; "
            "give it a larger approach or a smaller range"
        )
    return Cooler(inputs, heat_w, air_c, cold, hot, water, float(units), pressure_pa)


@dataclass(frozen=True)
class Rejected:
    """A cooler over steps.

    Attributes:
        water_c: to the chillers [°C]; heat_w rejected [W]; speed of the fans [-].
        fan_w, pump_w: electricity [W].
    """

    water_c: Array
    heat_w: Array
    speed: Array
    fan_w: Array
    pump_w: Array


def settle_with(cooler: Cooler, heat_of: Callable[[Array], Array], air_c: Array) -> Rejected:
    """Chillers and cooler together: `heat_of` tells what the chillers reject with water of a temperature [W].

    Source: fixed point of both balances; it contracts, for a kelvin of water moves the heat by well below a hundredth.
    """
    least = cooler.inputs.least_c
    water = np.maximum(air_c + cooler.inputs.approach_k, least)
    heat = heat_of(water)
    for _ in range(_ROUNDS):
        found = np.where(heat > _NO_HEAT_W, np.maximum(cooler.water_c(heat, air_c), least), np.maximum(air_c, least))
        apart = float(np.abs(found - water).max(initial=0.0))
        water = found
        heat = heat_of(water)
        if apart < _AT_REST_K:
            break
    runs = heat > _NO_HEAT_W
    held = runs & (water <= least + _AT_REST_K)
    speed = np.where(runs, 1.0, 0.0)
    if held.any():
        speed[held] = cooler.speed_for(heat[held], np.broadcast_to(air_c, heat.shape)[held], least)
    return Rejected(water, heat, speed, cooler.fan_w * speed**3, np.where(runs, cooler.pump_w, 0.0))
