"""What the walk is told and what it finds: ducts, unit, rooms, and the path of the air."""

from collections.abc import Container
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.coil import NO_LIMITS, CoilLimits, CoilState
from pendrum_core.air.economizer import Economizer
from pendrum_core.air.fan import FanCurve
from pendrum_core.air.humidifier import Humidifier
from pendrum_core.air.parts import DRAW_THROUGH, HUMIDIFIERS, PartState
from pendrum_core.air.recovery import Recovered, Recovery

Array = NDArray[np.float64]


NOTHING_YET: Array = np.zeros(0)


TO_PLENUM, TO_OUTDOORS = "return plenum", "outdoors"


@dataclass(frozen=True)
class Ducts:
    """Between unit and terminals.

    Attributes:
        leak_share: of the fan's flow, lost at the unit's outlet state before the ducts' gain [-].
        leak_to: TO_PLENUM or TO_OUTDOORS.
        gain_w: heat from around, or
        ua_w_k, around_c: by T = Ta + (Tin - Ta) exp(-UA/(m cp)), or
        ua_rooms_w_k: the same for the way to each room, (rooms,); see duct_gain.py;
        ua_return_w_k: for the way back from each room, (rooms,); None where ducts change nothing;
        ua_outdoor_w_k: for the way of outdoor air to the unit.
    """

    leak_share: float = 0.0
    leak_to: str = TO_PLENUM
    gain_w: float = 0.0
    ua_w_k: float = 0.0
    around_c: float = 24.0
    ua_rooms_w_k: Array | None = None
    ua_return_w_k: Array | None = None
    ua_outdoor_w_k: float = 0.0


@dataclass(frozen=True)
class Unit:
    """An air-handling unit as the walk takes it.

    Attributes:
        target_c: temperature off the cooling coil, or at the terminals where `at_terminals`, (steps) [°C].
        least_outdoor_kg_s: outdoor air that it never takes less of, at most its flow, (steps) or a number.
        bypass: of the cooling coil [-].
        supply_fan: None where `fan_w` is its power whatever flows.
        least_return_w: humidity ratio of the mixed air from the rooms that the humidifier holds, (steps) [kg/kg].
        parts: kinds of air/parts.py behind the mixing, in order.
        cools: whether its cooling coil may cool.
        dry_to_c: off the cooling coil while the air that enters it holds more than is saturated there; a heating coil behind
            it brings it back to the target. None: it is cooled for the target alone.
        limits: of its coils by what flows in them; where they bind, air leaves otherwise than wanted.
    """

    pressure_pa: float
    target_c: Array
    least_outdoor_kg_s: Array | float
    bypass: float
    supply_fan: FanCurve | None = None
    return_fan: FanCurve | None = None
    fan_w: float = 0.0
    at_terminals: bool = False
    parts: tuple[str, ...] = DRAW_THROUGH
    cools: bool = True
    outdoor_only: bool = False
    economizer: Economizer = field(default_factory=Economizer)
    recovery: Recovery | None = None
    least_return_w: Array | float = 0.0
    dry_to_c: float | None = None
    limits: CoilLimits = NO_LIMITS
    ducts: Ducts = field(default_factory=Ducts)

    @property
    def humidifier(self) -> Humidifier:
        """Its humidifier, or one that adds nothing."""
        return next((HUMIDIFIERS[kind] for kind in self.parts if kind in HUMIDIFIERS), Humidifier())


@dataclass(frozen=True)
class Rooms:
    """Rooms on a unit, (rooms, steps): supply and exhaust dry air [kg/s], temperature, moisture gains [W], air that leaks
    in and out again [kg/s]; the lights' heat into the return air, (steps) [W]; and air from elsewhere with its humidity ratio.

    Exhaust is what the return lacks of the supply; below nought where the return is the larger.
    """

    supply_kg_s: Array
    exhaust_kg_s: Array
    air_c: Array
    latent_w: Array
    leak_kg_s: Array
    lights_w: Array
    other_kg_s: Array | float = 0.0
    other_w: Array | float = 0.0


@dataclass(frozen=True)
class Path:
    """States and duties at every step; temperatures [°C], w [kg/kg], flows of dry air [kg/s], heat [W].

    Attributes:
        flow_kg_s: through the supply fan; `terminal_kg_s` what reaches the terminals.
        room_w: humidity ratios of the rooms, (rooms, steps).
        return_c, return_w: mixed air from the rooms, at the end of their ducts; plenum_c, plenum_w just before mixing.
        outdoor_kg_s, outdoor_share: taken in; `economizing` where the economizer's limit lets it run; `cools_free`
            where it takes more than the least: at the least there is nothing for it to cool.
        recovered: None without an exchanger.
        mixed_c, mixed_w: in front of the parts; `parts` each part with the air off it.
        heated_c, heated_w: off the first heating coil; `entering_c`, `entering_w` what the cooling coil gets.
        coil: cooling coil, per kg.
        humidified_kg_kg: water that the humidifier adds, per kg of air.
        outlet_c: at the unit's outlet; supply_c, supply_w: at the terminals, in the mean of all air; `apart_k` how far each room's
            is from it, (rooms, steps); None where it is the same for all.
        return_gain_k: what return ducts warm the air by, (steps); None where that is not worked out. outdoor_gain_k: the same of
            the ducts of outdoor air.
        preheat_w, heating_w, cooling_w: duties; cooling is the coil's total less the condensate's heat. `reheat_w` is of a
            second heating coil, behind the cooling coil.
        balance: what the unit's heat balance leaves open, relative to its throughput, the largest of all steps.
        settled: whether every step came to rest; slope: of the moisture's round, for a walk that starts from this one [-].
    """

    flow_kg_s: Array
    terminal_kg_s: Array
    room_w: Array
    return_c: Array
    return_w: Array
    return_kg_s: Array
    plenum_c: Array
    plenum_w: Array
    outdoor_kg_s: Array
    outdoor_share: Array
    economizing: NDArray[np.bool_]
    cools_free: NDArray[np.bool_]
    recovered: Recovered | None
    relief_kg_s: Array
    fresh_c: Array
    fresh_w: Array
    mixed_c: Array
    mixed_w: Array
    parts: tuple[PartState, ...]
    heated_c: Array
    heated_w: Array
    entering_c: Array
    entering_w: Array
    coil: CoilState
    humidified_kg_kg: Array
    fan_m3_s: Array
    fan_pa: Array
    fan_w: Array
    fan_rise_k: Array
    return_fan_w: Array
    outlet_c: Array
    supply_c: Array
    supply_w: Array
    leak_kg_s: Array
    preheat_w: Array
    heating_w: Array
    cooling_w: Array
    reheat_w: Array
    condensate_w: Array
    balance: float
    settled: bool
    apart_k: Array | None = None
    return_gain_k: Array | None = None
    outdoor_gain_k: Array | None = None
    slope: Array | None = None

    @property
    def rooms_supply_c(self) -> Array:
        """Supply air of the rooms, (rooms, steps), or (steps) where it is the same for all [°C]."""
        return self.supply_c if self.apart_k is None else self.supply_c + self.apart_k

    def room_supply_c(self, row: int) -> Array:
        """Supply air of a room by its place among the system's, (steps) [°C]."""
        return self.supply_c if self.apart_k is None else np.asarray(self.supply_c + self.apart_k[row])

    def around(self, kinds: Container[str]) -> tuple[tuple[Array, Array], tuple[Array, Array]] | None:
        """State in front of the first part of a kind and behind it, each temperature and humidity ratio; None without one."""
        before = (self.mixed_c, self.mixed_w)
        for part in self.parts:
            behind = (part.leaving_c, part.leaving_w)
            if part.kind in kinds:
                return before, behind
            before = behind
        return None
