"""Air through a unit and its rooms, at every step: return, economizer, recovery, mixing, coils, humidifier, fans, ducts.

Every array has the shape of the steps, whatever it is (13 design days of 144, one winter day, a year of hours); arrays of rooms
have the rooms in front. Nothing here knows a calendar. Each step is steady and stands alone; what couples the parts of
one, the moisture that rooms and unit give each other, is found by secant steps at every step on its own.

Outdoor air -> recovery -> mixing with return air -> the unit's parts in their order (parts.py) -> ducts -> terminals; rooms ->
plenum -> return fan -> recovery or relief. What a unit does not have is left out of it.
"""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.coil import CoilState, coil_to_temperature, mix
from pendrum_core.air.duct_gain import apart_from_mean_k, kept_shares, led_c, mean_kept
from pendrum_core.air.economizer import outdoor_share, runs
from pendrum_core.air.humidifier import water_j_kg
from pendrum_core.air.parts import PartState, Setting, pass_through, wanted_in_front
from pendrum_core.air.path import NOTHING_YET, TO_PLENUM, Array, Path, Rooms, Unit
from pendrum_core.air.recovery import recover
from pendrum_core.air.rooms_summed import summed
from pendrum_core.model.unit_parts import COOLING_COIL, FAN, HEATING_COIL
from pendrum_core.moist_air import dry_bulb_from_enthalpy_c, enthalpy_j_kg, specific_heat_j_kgk, specific_volume_m3_kg
from pendrum_core.quantities.constants import CP_DRY_AIR, CP_WATER

_ROUNDS, _AT_REST, _AT_REST_K = 80, 1e-9, 1e-6


_NO_FLOW = 1e-12  # kg/s, W/K
# kg/kg: what a smaller step changes may come of the temperatures beside it, in the first rounds; later any step tells.
_TELLING, _ANY, _AT_FIRST = 1e-6, 1e-13, 6
_BY_COIL = 3  # rounds in which the coil tells the slope: it becomes wet or dry on the way, where secants mislead
_USUAL_M3_KG = 0.84
_MORE = 1e-9  # of outdoor air's share, above the least


def walk(
    unit: Unit,
    rooms: Rooms,
    outdoor_c: Array,
    outdoor_w: Array,
    start: Path | None = None,
    apart_k: Array | None = None,
    roughly: float = 1.0,
) -> Path:
    """Find all states; `start` is a path of nearly the same flows, from which few rounds are left.

    `apart_k` is how far each room's supply air is from the mean, where that is not to follow the rooms' flows any more. `roughly`
    times what is left counts as rest, for a path that others follow.

    Raises:
        ValueError: a leak share outside 0 to 0.9, or what the economizer or the exchanger refuses.
    """
    if not 0.0 <= unit.ducts.leak_share < 0.9:
        raise ValueError(f"leak_share {unit.ducts.leak_share:g} lies between 0 and 0.9")
    shape = rooms.supply_kg_s.shape[1:]
    outdoor_c, outdoor_w = (np.broadcast_to(np.asarray(v, dtype=float), shape) for v in (outdoor_c, outdoor_w))
    fixed = _Fixed.of(unit, rooms, outdoor_w)
    found = _found(unit, fixed, outdoor_c, outdoor_w, start, roughly)
    return found if apart_k is None else replace(found, apart_k=apart_k)


def _found(unit: Unit, fixed: "_Fixed", outdoor_c: Array, outdoor_w: Array, start: Path | None, roughly: float) -> Path:
    off = np.zeros(fixed.flow.shape, dtype=np.bool_)
    if unit.economizer.kind == "none" or unit.outdoor_only:
        return _walk(unit, fixed, outdoor_c, outdoor_w, off, start, roughly)
    if start is not None:
        return _walk(unit, fixed, outdoor_c, outdoor_w, start.economizing, start, roughly)
    least = _walk(unit, fixed, outdoor_c, outdoor_w, off, None, roughly)
    on = runs(unit.economizer, outdoor_c, outdoor_w, least.plenum_c, least.plenum_w)
    return _walk(unit, fixed, outdoor_c, outdoor_w, on, least, roughly) if on.any() else least


def _over(above: Array, below: Array) -> Array:
    return np.divide(above, below, out=np.zeros(np.broadcast(above, below).shape), where=np.asarray(below) > _NO_FLOW)


def _secant(
    before: tuple[Array, Array] | None, now: Array, following: Array, slope: Array, telling: float
) -> tuple[Array, Array]:
    """Step towards the fixed point at every step of its own, and the slope that it took; to begin with by a slope that is known
    from a walk before, or nought. Steps below `telling` leave the slope as it is.
    """
    if before is not None:
        step = now - before[0]
        slope = np.divide(following - before[1], step, out=np.array(slope), where=np.abs(step) > telling)
        slope = np.clip(slope, -20.0, 0.98)
    return np.maximum((following - slope * now) / (1.0 - slope), 0.0), slope


def _slope(unit: Unit, f: "_Fixed", p: Path) -> Array:
    """By how much the supply's moisture follows what it was, with the coil dry or wet as it is: what comes back, past the coil."""
    back = (1.0 - p.outdoor_share) * np.where(f.returned > _NO_FLOW, f.back_follows, 1.0)
    return np.asarray(back * np.where(p.coil.condensate_kg_kg > 0.0, unit.bypass, 1.0))


@dataclass(frozen=True)
class _Fixed:
    """What stays through the rounds of a walk, (steps): rooms summed once.

    The rooms' humidity ratios are `follows` w_supply + `own`, (rooms, steps); what comes back from them is
    `back_follows` w_supply + `back_own` of moisture and `heat` + `heat_follows` w_supply of enthalpy, per kilogram. `kept` is of
    the temperature behind the unit, by room (duct_gain.py); None where ducts change nothing, or the same for all. `back_gain_k` is what
    return ducts warm what comes back by.
    """

    flow: Array
    terminal: Array
    leak: Array
    returned: Array
    follows: Array
    own: Array
    back_follows: Array
    back_own: Array
    heat: Array
    heat_follows: Array
    mean_c: Array
    lights_w: Array
    kept: Array | None
    kept_mean: Array
    back_gain_k: Array | None

    @staticmethod
    def of(unit: Unit, rooms: Rooms, outdoor_w: Array) -> "_Fixed":
        """Sum the rooms."""
        supply = rooms.supply_kg_s
        ways, way_back = unit.ducts.ua_rooms_w_k, unit.ducts.ua_return_w_k
        kept = None if ways is None else kept_shares(ways, supply)
        back_c = rooms.air_c
        if way_back is not None:
            back = np.maximum(supply - rooms.exhaust_kg_s, 0.0)
            back_c = led_c(way_back, back, rooms.air_c, unit.ducts.around_c)
        sums = summed(rooms, back_c, outdoor_w)
        flow = sums.terminal_kg_s / (1.0 - unit.ducts.leak_share)
        return _Fixed(
            flow,
            sums.terminal_kg_s,
            leak=flow - sums.terminal_kg_s,
            returned=sums.returned_kg_s,
            follows=sums.follows,
            own=sums.own,
            back_follows=sums.back_follows,
            back_own=sums.back_own,
            heat=sums.heat_j_kg,
            heat_follows=sums.heat_follows_j_kg,
            mean_c=sums.mean_c,
            lights_w=rooms.lights_w,
            kept=kept,
            kept_mean=np.ones_like(flow) if kept is None else mean_kept(kept, supply),
            back_gain_k=None if way_back is None else sums.gain_k,
        )


def _walk(
    unit: Unit,
    fixed: _Fixed,
    outdoor_c: Array,
    outdoor_w: Array,
    on: NDArray[np.bool_],
    start: Path | None,
    roughly: float,
) -> Path:
    flow = fixed.flow
    rise, outlet_c = _usual_rise(unit, flow), np.broadcast_to(np.asarray(unit.target_c, dtype=float), flow.shape).copy()
    w_s = np.array(outdoor_w)
    drop = np.zeros_like(flow)
    if start is not None:
        w_s, rise, outlet_c, drop = start.supply_w, start.fan_rise_k, start.outlet_c, start.supply_c - start.outlet_c
    slope = np.zeros_like(flow) if start is None or start.slope is None else start.slope
    before: tuple[Array, Array] | None = None
    found: Path | None = None
    for number in range(_ROUNDS):
        found = _round(unit, fixed, outdoor_c, outdoor_w, on, _State(w_s, rise, drop, outlet_c))
        apart_w = float(np.abs(found.supply_w - w_s).max(initial=0.0))
        apart_k = float(np.abs(found.fan_rise_k - rise).max(initial=0.0))
        rise, drop = found.fan_rise_k, found.supply_c - found.outlet_c
        apart_k += float(np.abs(found.outlet_c - outlet_c).max(initial=0.0))
        outlet_c = found.outlet_c
        if apart_w < roughly * _AT_REST and apart_k < roughly * _AT_REST_K:
            found = replace(found, settled=True)
            break
        if start is None and number < _BY_COIL and unit.humidifier.kind == "none":
            before, slope = None, _slope(unit, fixed, found)
        following, slope = _secant(before, w_s, found.supply_w, slope, _TELLING if number < _AT_FIRST else _ANY)
        before, w_s = (w_s, found.supply_w), following
    assert found is not None
    room_w = fixed.follows * found.supply_w + fixed.own
    apart = None
    if fixed.kept is not None:
        apart = apart_from_mean_k(fixed.kept, fixed.kept_mean, found.supply_c, unit.ducts.around_c)
    return replace(
        found,
        room_w=room_w,
        apart_k=apart,
        return_gain_k=fixed.back_gain_k,
        slope=slope,
        balance=_open(unit, fixed, outdoor_c, outdoor_w, found),
    )


def _usual_rise(unit: Unit, flow: Array) -> Array:
    """What the supply fan warms air of usual density by, to begin with [K]."""
    if FAN not in unit.parts:
        return np.zeros_like(flow)
    power = unit.fan_w if unit.supply_fan is None else unit.supply_fan.electrical_w(flow * _USUAL_M3_KG)
    return _over(np.broadcast_to(power, flow.shape), flow * CP_DRY_AIR)


@dataclass(frozen=True)
class _State:
    """What a round starts from, (steps)."""

    supply_w: Array
    rise: Array
    drop: Array
    outlet_c: Array


def _return(unit: Unit, f: _Fixed, s: _State) -> tuple[Array, Array, Array, Array, Array, Array]:
    """Mixed air from the rooms, the same before mixing with outdoor air, its flow, and the return fan's power."""
    some = f.returned > 1e-12
    return_w = np.where(some, f.back_follows * s.supply_w + f.back_own, s.supply_w)
    return_h = f.heat + f.heat_follows * s.supply_w
    return_c = np.where(some, dry_bulb_from_enthalpy_c(return_h, return_w), f.mean_c)
    joined = f.leak if unit.ducts.leak_to == TO_PLENUM else np.zeros_like(f.leak)
    whole = f.returned + joined
    outlet_h = enthalpy_j_kg(s.outlet_c, s.supply_w)
    plenum_w = np.where(whole > 1e-12, _over(f.returned * return_w + joined * s.supply_w, whole), return_w)
    heat = f.returned * return_h + joined * outlet_h + np.where(some, f.lights_w, 0.0)
    plenum_h = _over(heat, whole)
    plenum_c = np.where(whole > 1e-12, dry_bulb_from_enthalpy_c(plenum_h, plenum_w), return_c)
    power = np.zeros_like(whole)
    if unit.return_fan is not None:
        power = unit.return_fan.electrical_w(whole * specific_volume_m3_kg(plenum_c, plenum_w, unit.pressure_pa))
        plenum_c = plenum_c + _over(power, whole * specific_heat_j_kgk(plenum_w))
    return return_c, return_w, plenum_c, plenum_w, whole, power


def _round(unit: Unit, f: _Fixed, outdoor_c: Array, outdoor_w: Array, on: NDArray[np.bool_], s: _State) -> Path:
    p, flow = unit.pressure_pa, f.flow
    return_c, return_w, plenum_c, plenum_w, whole, return_fan_w = _return(unit, f, s)
    outlet = _outlet_wanted(unit, s, flow)
    still = np.zeros_like(flow)
    setting = Setting(
        flow, s.rise, mixed_w=still, added_w=still, pressure_pa=p, bypass=unit.bypass, dry_to_c=unit.dry_to_c,
        cools=unit.cools, fan=unit.supply_fan, fan_w=unit.fan_w, limits=unit.limits,
    )  # fmt: skip
    # What the air should have before the first part, a humidifier left out of it: what the economizer mixes to.
    mixing = wanted_in_front(unit.parts, setting, outlet)[0][-1]
    least = np.clip(_over(np.broadcast_to(unit.least_outdoor_kg_s, flow.shape), flow), 0.0, 1.0)
    # What no return air is there for comes from outdoors.
    least = np.maximum(least, np.clip(1.0 - _over(whole, flow), 0.0, 1.0))
    taken_c, share = _taken_in(unit, least * flow, outdoor_c), np.ones_like(flow)
    if not unit.outdoor_only:
        share = outdoor_share(
            on, least, target_c=mixing, outdoor_c=taken_c, outdoor_w=outdoor_w, return_c=plenum_c, return_w=plenum_w
        )
        taken_c = _taken_in(unit, share * flow, outdoor_c)
    cools_free = on & (share > least + _MORE)
    outdoor = share * flow
    relief = np.maximum(whole - (flow - outdoor), 0.0)
    fresh_c, fresh_w, preheat, recovered = taken_c, outdoor_w, np.zeros_like(flow), None
    if unit.recovery is not None:
        # Not more than mixes to the target; nothing while the economizer cools. At the least, on a cold day, what the exhaust holds
        # is wanted.
        most = np.where(share > 1e-9, (mixing - (1.0 - share) * plenum_c) / np.maximum(share, 1e-9), np.inf)
        recovered = recover(
            unit.recovery,
            outdoor,
            exhaust_kg_s=np.where(cools_free, 0.0, relief),
            t=taken_c,
            w=outdoor_w,
            exhaust_c=plenum_c,
            exhaust_w=plenum_w,
            pressure_pa=p,
            most_c=np.maximum(most, taken_c),
        )
        fresh_c, fresh_w, preheat = recovered.leaving_c, recovered.leaving_w, outdoor * recovered.preheat_j_kg
    mixed_c, mixed_w = mix(share, fresh_c, fresh_w, plenum_c, plenum_w)
    added = _humidified(unit, f, s, return_w, mixed_w)
    setting = replace(setting, mixed_w=mixed_w, added_w=added)
    plain, wanted = wanted_in_front(unit.parts, setting, outlet)
    parts = pass_through(unit.parts, setting, mixed_c, mixed_w, plain, wanted)
    outlet_c, outlet_w = (parts[-1].leaving_c, parts[-1].leaving_w) if parts else (mixed_c, mixed_w)
    heaters = [i for i, kind in enumerate(unit.parts) if kind == HEATING_COIL]
    heated_c, heated_w = (parts[heaters[0]].leaving_c, parts[heaters[0]].leaving_w) if heaters else (mixed_c, mixed_w)
    heat = [np.asarray(parts[i].heat_w) for i in heaters]
    entering_c, entering_w, coil = _cooling(unit, parts, mixed_c, mixed_w)
    fan = next((part for part in parts if part.kind == FAN), None)
    fan_m3_s, fan_pa, fan_w, rise = (
        (still,) * 4
        if fan is None
        else (np.asarray(fan.fan_m3_s), np.asarray(fan.fan_pa), np.asarray(fan.fan_w), np.asarray(fan.rise_k))
    )
    rate = f.terminal * specific_heat_j_kgk(outlet_w)
    supply_c = outlet_c + _over(np.full_like(flow, unit.ducts.gain_w), rate)
    if f.kept is not None:
        supply_c = unit.ducts.around_c + (supply_c - unit.ducts.around_c) * f.kept_mean
    elif unit.ducts.ua_w_k:
        around = unit.ducts.around_c
        supply_c = around + (supply_c - around) * np.exp(-_over(np.full_like(flow, unit.ducts.ua_w_k), rate))
    return Path(
        flow_kg_s=flow,
        terminal_kg_s=f.terminal,
        room_w=NOTHING_YET,
        return_c=return_c,
        return_w=return_w,
        return_kg_s=f.returned,
        plenum_c=plenum_c,
        plenum_w=plenum_w,
        outdoor_kg_s=outdoor,
        outdoor_share=share,
        economizing=on,
        cools_free=cools_free,
        recovered=recovered,
        relief_kg_s=relief,
        fresh_c=np.asarray(fresh_c),
        fresh_w=np.asarray(fresh_w),
        mixed_c=mixed_c,
        mixed_w=mixed_w,
        parts=parts,
        heated_c=heated_c,
        heated_w=heated_w,
        entering_c=entering_c,
        entering_w=entering_w,
        coil=coil,
        humidified_kg_kg=sum((np.asarray(part.added_w) for part in parts if part.added_w is not None), start=still),
        fan_m3_s=fan_m3_s,
        fan_pa=fan_pa,
        fan_w=fan_w,
        fan_rise_k=rise,
        return_fan_w=return_fan_w,
        outlet_c=outlet_c,
        supply_c=supply_c,
        supply_w=outlet_w,
        leak_kg_s=f.leak,
        preheat_w=preheat,
        heating_w=heat[0] if heat else still,
        cooling_w=flow * (coil.total_j_kg - coil.condensate_j_kg),
        reheat_w=heat[1] if len(heat) > 1 else still,
        condensate_w=flow * coil.condensate_j_kg,
        outdoor_gain_k=taken_c - outdoor_c if unit.ducts.ua_outdoor_w_k else None,
        balance=0.0,
        settled=False,
    )


def _taken_in(unit: Unit, outdoor_kg_s: Array, outdoor_c: Array) -> Array:
    """Outdoor air at the unit, at the end of its ducts [°C]."""
    if not unit.ducts.ua_outdoor_w_k:
        return outdoor_c
    ways = np.array([unit.ducts.ua_outdoor_w_k])
    return np.asarray(led_c(ways, outdoor_kg_s[None], outdoor_c[None], unit.ducts.around_c)[0])


def _outlet_wanted(unit: Unit, s: _State, flow: Array) -> Array:
    """Temperature wanted at the unit's outlet: at the terminals less what ducts add, or off the coil plus the fan behind it."""
    target = np.broadcast_to(np.asarray(unit.target_c, dtype=float), flow.shape)
    if unit.at_terminals:
        return target - s.drop
    coils = [i for i, kind in enumerate(unit.parts) if kind == COOLING_COIL] or [
        i for i, kind in enumerate(unit.parts) if kind == HEATING_COIL
    ]
    behind = unit.parts[coils[-1] :] if coils else unit.parts
    return target + s.rise if FAN in behind else target


def _cooling(
    unit: Unit, parts: tuple[PartState, ...], mixed_c: Array, mixed_w: Array
) -> tuple[Array, Array, CoilState]:
    """What enters the cooling coil and what it does; idle at the outlet where the unit has none."""
    before = (mixed_c, mixed_w)
    for part in parts:
        if part.coil is not None:
            return *before, part.coil
        before = (part.leaving_c, part.leaving_w)
    return *before, coil_to_temperature(*before, before[0], unit.bypass, unit.pressure_pa)


def _humidified(unit: Unit, f: _Fixed, s: _State, return_w: Array, mixed_w: Array) -> Array:
    """Water that brings the mixed air from the rooms to its least humidity ratio, per kg of supply air."""
    if unit.humidifier.kind == "none":
        return np.zeros_like(mixed_w)
    # By how much that air follows the supply's.
    follows = np.where(f.returned > 1e-12, f.back_follows, 1.0)
    wanted = s.supply_w + (np.asarray(unit.least_return_w) - return_w) / np.maximum(follows, 1e-3)
    return np.where(f.flow > 0.0, np.maximum(wanted - mixed_w, 0.0), 0.0)


def _open(unit: Unit, f: _Fixed, outdoor_c: Array, outdoor_w: Array, p: Path) -> float:
    """What the heat balance of the unit with its plenum leaves open, relative to its throughput."""
    outlet_h = enthalpy_j_kg(p.outlet_c, p.supply_w)
    relieved = enthalpy_j_kg(p.plenum_c, p.plenum_w)
    dripped = np.zeros_like(p.relief_kg_s)
    if p.recovered is not None:
        gone = np.where(p.recovered.share > 0.0, p.relief_kg_s, 0.0)
        relieved = np.where(gone > 0.0, enthalpy_j_kg(p.recovered.exhaust_c, p.recovered.exhaust_w), relieved)
        dripped = gone * p.recovered.dripped_kg_kg * CP_WATER * p.recovered.exhaust_c
    some = f.returned > 1e-12
    brought = (
        p.outdoor_kg_s
        * enthalpy_j_kg(outdoor_c if p.outdoor_gain_k is None else outdoor_c + p.outdoor_gain_k, outdoor_w)
        + f.returned * enthalpy_j_kg(p.return_c, p.return_w)
        + np.where(some, f.lights_w, 0.0)
        + p.return_fan_w
        + p.preheat_w
        + p.heating_w
        + p.reheat_w
        + p.fan_w
        + p.flow_kg_s * p.humidified_kg_kg * water_j_kg(unit.humidifier)
    )
    leaked = np.zeros_like(f.leak) if unit.ducts.leak_to == TO_PLENUM else f.leak * outlet_h
    taken = f.terminal * outlet_h + p.relief_kg_s * relieved + dripped + p.cooling_w + p.condensate_w + leaked
    scale = np.maximum(np.abs(brought) + np.abs(taken), 1.0)
    return float((np.abs(brought - taken) / scale).max(initial=0.0))
