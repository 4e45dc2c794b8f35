"""Parts that stand in any order in a unit's supply lane, behind the mixing: what each must be given, and what it does.

Every kind has two rules. Backwards, from the outlet: at what temperature air must enter it so that it leaves as wanted.
Forwards: how it leaves, and what that takes. A new kind is a class here with its name in RULES; the walk knows none of them.

The parts wait for two temperatures at every joint: `plain` is what coils and economizer aim at; `wanted` is higher where an
adiabatic humidifier further on cools the air, and what a heating coil aims at.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.coil import NO_LIMITS, CoilLimits, CoilState, coil_to_temperature
from pendrum_core.air.fan import FanCurve
from pendrum_core.air.humidifier import Humidifier, after_it, before_it
from pendrum_core.model.unit_parts import ADIABATIC, ATTENUATOR, COOLING_COIL, FAN, FILTER, HEATING_COIL, OTHER, STEAM
from pendrum_core.moist_air import enthalpy_j_kg, saturation_humidity_ratio, specific_heat_j_kgk, specific_volume_m3_kg

Array = NDArray[np.float64]

HUMIDIFIERS = {STEAM: Humidifier("steam"), ADIABATIC: Humidifier("adiabatic")}
DRAW_THROUGH = (HEATING_COIL, COOLING_COIL, FAN)
BLOW_THROUGH = (HEATING_COIL, FAN, COOLING_COIL)
_NEVER_C = 200.0  # asked of a coil that may not cool
# Over which drying sets in: at a bare threshold, air that is dried is not humid any more, and no state would stand.
_BAND_KG_KG = 5e-4


@dataclass(frozen=True)
class Setting:
    """What a round of the walk tells the parts, (steps).

    Attributes:
        flow_kg_s: dry air through them.
        rise_k: the fan's, as the round before found it [K].
        mixed_w: humidity ratio in front of the first part; `added_w` what the humidifier is to add [kg/kg].
        bypass, dry_to_c, cools: of the cooling coil, see air/path.py.
        fan, fan_w: the supply fan, or its power where it has no curve.
        limits: of the coils by what flows in them.
    """

    flow_kg_s: Array
    rise_k: Array
    mixed_w: Array
    added_w: Array
    pressure_pa: float
    bypass: float
    dry_to_c: float | None
    cools: bool
    fan: FanCurve | None
    fan_w: float
    limits: CoilLimits = NO_LIMITS


@dataclass(frozen=True)
class PartState:
    """A part at every step: how the air leaves it, and what that takes.

    Attributes:
        heat_w: given to the air by a heating coil [W].
        coil: of a cooling coil.
        added_w: moisture that a humidifier gives [kg/kg].
        fan_m3_s, fan_pa, fan_w, rise_k: of a fan.
    """

    kind: str
    leaving_c: Array
    leaving_w: Array
    heat_w: Array | None = None
    coil: CoilState | None = None
    added_w: Array | None = None
    fan_m3_s: Array | None = None
    fan_pa: Array | None = None
    fan_w: Array | None = None
    rise_k: Array | None = None


class Rule(Protocol):
    """The two rules of a kind."""

    def before(self, kind: str, s: Setting, leaving_c: Array, plain: bool) -> Array:
        """Temperature at which air must enter it [°C]; `plain` leaves humidifiers out."""

    def through(
        self, kind: str, s: Setting, c: Array, w: Array, plain_c: Array, wanted_c: Array, condensing: Array | None
    ) -> PartState:
        """How air of `c`, `w` leaves it; the two temperatures are those wanted behind it.

        `condensing` is the moisture that a cooling coil before it takes out [kg/kg]; None where none is.
        """


class _Passes:
    """Changes the pressure alone."""

    def before(self, kind: str, s: Setting, leaving_c: Array, plain: bool) -> Array:
        """As it leaves."""
        return leaving_c

    def through(
        self, kind: str, s: Setting, c: Array, w: Array, plain_c: Array, wanted_c: Array, condensing: Array | None
    ) -> PartState:
        """As it came."""
        return PartState(kind, c, w)


class _Heats(_Passes):
    """Lifts the air to what is wanted behind it, never higher, and never above what its water can."""

    def through(
        self, kind: str, s: Setting, c: Array, w: Array, plain_c: Array, wanted_c: Array, condensing: Array | None
    ) -> PartState:
        """Warmer, where it is colder than wanted."""
        aim = wanted_c if s.limits.hottest_c is None else np.minimum(wanted_c, s.limits.hottest_c)
        warm = np.where(s.flow_kg_s > 0.0, np.maximum(c, aim), c)
        return PartState(kind, warm, w, heat_w=s.flow_kg_s * (enthalpy_j_kg(warm, w) - enthalpy_j_kg(c, w)))


class _Cools(_Passes):
    """Cools the air to what is wanted behind it; to `dry_to_c` while it holds half a gram more than is saturated there, in between by the line."""

    def through(
        self, kind: str, s: Setting, c: Array, w: Array, plain_c: Array, wanted_c: Array, condensing: Array | None
    ) -> PartState:
        """Colder, where it is warmer than wanted; drier where the coil is wet."""
        aim = plain_c if s.cools else np.full_like(s.flow_kg_s, _NEVER_C)
        if s.dry_to_c is not None and s.cools:
            above = w - saturation_humidity_ratio(s.dry_to_c, s.pressure_pa)
            share = np.clip(above / _BAND_KG_KG, 0.0, 1.0)
            aim = aim + share * (np.minimum(aim, s.dry_to_c) - aim)
        coil = coil_to_temperature(c, w, aim, s.bypass, s.pressure_pa, s.limits.coldest_c)
        return PartState(kind, coil.leaving_c, coil.leaving_w, coil=coil)


class _Humidifies(_Passes):
    """Adds what the rooms lack, not behind a coil that is wet."""

    def before(self, kind: str, s: Setting, leaving_c: Array, plain: bool) -> Array:
        """Warmer by what evaporation takes; colder by what steam brings."""
        return leaving_c if plain else before_it(HUMIDIFIERS[kind], leaving_c, s.mixed_w, s.added_w)

    def through(
        self, kind: str, s: Setting, c: Array, w: Array, plain_c: Array, wanted_c: Array, condensing: Array | None
    ) -> PartState:
        """Moister by what is asked."""
        added = s.added_w if condensing is None else np.where(condensing > 0.0, 0.0, s.added_w)
        off = after_it(HUMIDIFIERS[kind], c, w, added) if added.any() else c
        return PartState(kind, off, w + added, added_w=added)


class _Blows(_Passes):
    """Warms the air by all its electricity."""

    def before(self, kind: str, s: Setting, leaving_c: Array, plain: bool) -> Array:
        """Colder by its rise."""
        return leaving_c - s.rise_k

    def through(
        self, kind: str, s: Setting, c: Array, w: Array, plain_c: Array, wanted_c: Array, condensing: Array | None
    ) -> PartState:
        """Warmer by its electricity."""
        flow = s.flow_kg_s * specific_volume_m3_kg(c, w, s.pressure_pa)
        if s.fan is None:
            pressure, power = np.zeros_like(flow), np.where(s.flow_kg_s > 0.0, s.fan_w, 0.0)
        else:
            pressure, power = s.fan.pressure_pa(flow), s.fan.electrical_w(flow)
        heat = s.flow_kg_s * specific_heat_j_kgk(w)
        rise = np.divide(power, heat, out=np.zeros_like(flow), where=heat > 1e-12)
        return PartState(kind, c + rise, w, fan_m3_s=flow, fan_pa=pressure, fan_w=power, rise_k=rise)


RULES: Mapping[str, Rule] = {
    HEATING_COIL: _Heats(),
    COOLING_COIL: _Cools(),
    STEAM: _Humidifies(),
    ADIABATIC: _Humidifies(),
    FAN: _Blows(),
    FILTER: _Passes(),
    ATTENUATOR: _Passes(),
    OTHER: _Passes(),
}


def wanted_in_front(parts: tuple[str, ...], s: Setting, outlet_c: Array) -> tuple[list[Array], list[Array]]:
    """`plain` and `wanted` temperatures behind each part, and last in front of the first, from what is wanted at the outlet [°C].

    Source: each part's own heat balance, backwards.
    """
    plain, wanted = [outlet_c], [outlet_c]
    for kind in reversed(parts):
        plain.append(RULES[kind].before(kind, s, plain[-1], plain=True))
        wanted.append(RULES[kind].before(kind, s, wanted[-1], plain=False))
    return [*plain[-2::-1], plain[-1]], [*wanted[-2::-1], wanted[-1]]


def pass_through(
    parts: tuple[str, ...], s: Setting, c: Array, w: Array, plain: list[Array], wanted: list[Array]
) -> tuple[PartState, ...]:
    """The air through all parts, one after the other."""
    states: list[PartState] = []
    condensing: Array | None = None
    for i, kind in enumerate(parts):
        state = RULES[kind].through(kind, s, c, w, plain[i], wanted[i], condensing)
        condensing = state.coil.condensate_kg_kg if state.coil is not None else condensing
        c, w = state.leaving_c, state.leaving_w
        states.append(state)
    return tuple(states)
