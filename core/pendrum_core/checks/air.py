"""What in an air system deserves a second look: heating against cooling, rooms that do not get what they ask, frost, water."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.air.coil import APPROACH_K
from pendrum_core.air.result import AirSystemResult
from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.climate import day_number
from pendrum_core.model.systems import CENTRAL, ROOM_UNIT, WATER_REHEAT, AirSystem
from pendrum_core.model.unit_parts import COOLING_COIL
from pendrum_core.moist_air import enthalpy_j_kg
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults

REHEAT_SHARE = 0.20  # of the cooling coil's sensible peak
OUTDOOR_SHARE = 0.70  # that one room may force on its system
MISSED_K = 0.5
CLOSED = 1e-6
_HELD_K = 0.05  # by which supply air misses its temperature
# The return air that the decision was made on is not quite the one that comes back then.
_NOTICED_J_KG = 1500.0
_STEPS_AN_HOUR = 6
_GIVES = 0.995  # of a coil's duty, below which it is too small
_BYPASS_APART = 0.03
_AT_WORK = 0.02  # of a coil's largest duty


def air_snags(results: BuildingResults) -> Iterator[Snag]:
    """Findings of every system that was worked out."""
    for system in results.building.systems:
        found = results.systems.get(system.id)
        if found is None:
            continue
        for code, level, sentence, way_out in _findings(results, system, found):
            yield Snag(
                level,
                code,
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: {sentence}",
                way_out=way_out,
            )
        yield from _rooms(results, found)


def _findings(
    results: BuildingResults, system: AirSystem, found: AirSystemResult
) -> Iterator[tuple[str, str, str, str]]:
    path = found.summer
    sensible, reheat = float(found.coil_sensible_w.max()), float(found.reheat_w.max())
    if reheat > REHEAT_SHARE * max(sensible, 1.0) and reheat > 100.0:
        share = reheat / max(sensible, 1.0)
        yield (
            "reheat_large",
            DOUBTFUL,
            f"its terminals reheat up to {reheat / 1000:.1f} kW, {share:.0%} of the cooling coil's sensible peak.",
            "smaller least flows, a warmer supply, or units of their own for rooms that are unlike the others",
        )
    fed = {
        section.end
        for circuit in results.building.circuits
        if circuit.kind == "heating"
        for section in circuit.sections
    }
    terminals_w = max([reheat, *(float(served.heat_w.max()) for served in found.served.values())])
    if system.reheat == WATER_REHEAT and terminals_w > 1.0 and system.drawn not in fed:
        yield (
            "reheat_without_circuit",
            DOUBTFUL,
            "its terminals reheat with hot water, but no heating circuit ends at it.",
            "a pipe section that ends at it, or electric reheat",
        )
    both = np.minimum(
        path.heating_w / max(float(path.heating_w.max()), 1.0), path.cooling_w / max(float(path.cooling_w.max()), 1.0)
    )
    if float(both.max()) > _AT_WORK and float(path.heating_w.max()) > 100.0:
        month, step = (int(i) for i in np.unravel_index(int(both.argmax()), both.shape))
        yield (
            "heats_and_cools",
            DOUBTFUL,
            f"its heating coil and its cooling coil work at the same time ({_when(results, month, step)}).",
            "check the supply temperature and the outdoor air",
        )
    yield from _order(system)
    air = found.outdoor_air
    if air.rule == "62.1 full" and found.outdoor_share > OUTDOOR_SHARE and air.critical_room in results.rooms:
        room = results.rooms[air.critical_room].room
        yield (
            "critical_room",
            NOTE,
            f"{room.number} {room.name} forces {found.outdoor_share:.0%} of outdoor air on all its rooms.",
            "more supply air for that room, or a unit of its own",
        )
    coldest = float(found.winter.mixed_c.min())
    if coldest < 0.0:
        yield (
            "coil_frost",
            DOUBTFUL,
            f"air of {coldest:.1f} °C reaches its coils on the winter day; water in them would freeze.",
            "heat recovery, a preheater, or less outdoor air",
        )
    wasted = path.cools_free & (
        enthalpy_j_kg(results.outdoors.dry_bulb_c, results.outdoors.humidity_ratio)
        > enthalpy_j_kg(path.plenum_c, path.plenum_w) + _NOTICED_J_KG
    )
    wet = wasted & (path.cooling_w > _AT_WORK * max(float(path.cooling_w.max()), 1.0))
    if wet.sum() >= _STEPS_AN_HOUR:
        yield (
            "economizer_adds",
            NOTE,
            f"its economizer takes air with more enthalpy than the return air in {wet.sum() / _STEPS_AN_HOUR:.0f} h of the design days.",
            "an economizer by enthalpy",
        )
    yield from _water(results, system, found)
    yield from _coils(results, system)
    if found.balance > CLOSED:
        yield (
            "air_balance_open",
            DOUBTFUL,
            f"its heat balance is open by {found.balance:.1g} of its throughput.",
            "look for an extreme input; its duties are not to be relied on",
        )


def _order(system: AirSystem) -> Iterator[tuple[str, str, str, str]]:
    """Parts of the unit that do not do what they are there for."""
    kinds = [part.kind for part in system.fitted]
    cooling = kinds.index(COOLING_COIL) if COOLING_COIL in kinds else None
    if cooling is not None and system.dry_to_c is not None and system.dries_to_c is None and system.kind != ROOM_UNIT:
        yield (
            "dried_not_reheated",
            DOUBTFUL,
            f"it is to dry its air at {system.dry_to_c:.1f} °C and does not: no heating coil behind the cooling coil brings it back "
            "to its supply temperature.",
            "a heating coil behind the cooling coil",
        )
    if cooling is None and system.volume == "variable" and system.kind == CENTRAL:
        yield (
            "variable_without_coil",
            NOTE,
            "it has variable volume and no cooling coil: its terminals stay at their design flow.",
            "a cooling coil, or constant volume",
        )


def _water(results: BuildingResults, system: AirSystem, found: AirSystemResult) -> Iterator[tuple[str, str, str, str]]:
    """Coils that what flows in them holds back."""
    cold, hot = found.limits.coldest_c, found.limits.hottest_c
    path = found.summer
    over = np.where(path.cooling_w > 0.0, path.supply_c - found.asked_supply_c, 0.0)
    if cold is not None and float(over.max()) > _HELD_K:
        month, step = (int(i) for i in np.unravel_index(int(over.argmax()), over.shape))
        hours = np.count_nonzero(over > _HELD_K) / _STEPS_AN_HOUR
        yield (
            "coil_below_water",
            DOUBTFUL,
            f"its cooling coil would have to be colder than {cold:.1f} °C, {APPROACH_K:.0f} K above what flows in it: its supply air comes up to "
            f"{float(over.max()):.1f} K warmer than asked ({_when(results, month, step)}; {hours:.0f} h of the design days).",
            "a colder flow in its circuit, a warmer supply, or a coil with less bypass",
        )
    under = float((system.winter_supply_c - found.winter.supply_c).max())
    works = float(found.winter.heating_w.max()) > 1.0
    if hot is not None and works and under > _HELD_K and float(found.winter.heated_c.max()) > hot - _HELD_K:
        yield (
            "coil_above_water",
            DOUBTFUL,
            f"its heating coil heats air up to {hot:.1f} °C, {APPROACH_K:.0f} K below what flows in it: on the winter day its supply air "
            f"comes {under:.1f} K colder than its winter value.",
            "a hotter flow in its circuit or a lower supply temperature",
        )


def _coils(results: BuildingResults, system: AirSystem) -> Iterator[tuple[str, str, str, str]]:
    """Coils whose rows do not give what is asked, or not with their bypass factor."""
    for coil in results.coils.get(system.id, {}).values():
        if coil.capacity_w < _GIVES * coil.duty_w:
            rows = f"{coil.rows} rows" if coil.pinned else f"even {coil.rows} rows"
            yield (
                "coil_too_small",
                DOUBTFUL,
                f"{rows} of its {coil.kind} give {coil.capacity_w / 1000:.1f} kW of {coil.duty_w / 1000:.1f} kW with a flow of "
                f"{coil.flow_c:.0f} °C.",
                "more rows, a smaller face velocity, or a flow further from the air's temperature",
            )
        if coil.pinned and coil.bypass_factor > system.bypass_factor + _BYPASS_APART:
            yield (
                "rows_against_bypass",
                DOUBTFUL,
                f"{coil.rows} rows of its cooling coil let {coil.bypass_factor:.0%} of the air pass, and its bypass factor says "
                f"{system.bypass_factor:.0%}.",
                "the bypass factor of these rows, or more rows",
            )


def _rooms(results: BuildingResults, found: AirSystemResult) -> Iterator[Snag]:
    """Rooms that miss their set-points under their supply air."""
    for room_id, served in found.served.items():
        room = results.rooms[room_id].room
        if served.under_k > MISSED_K:
            yield Snag(
                DOUBTFUL,
                "overcooled",
                kind="room",
                id=room_id,
                stage="air",
                sentence=f"{room.number} {room.name}: its supply air cools it to {float(served.air_c.min()):.1f} °C, {served.under_k:.1f} K "
                "below its heating set-point.",
                way_out="reheat, a smaller least flow, or an emitter",
            )
        if served.over_k > MISSED_K:
            yield Snag(
                DOUBTFUL,
                "undercooled",
                kind="room",
                id=room_id,
                stage="air",
                sentence=f"{room.number} {room.name}: under its supply air it gets {served.over_k:.1f} K warmer than its cooling set-point.",
                way_out="more air, colder air, or a longer pull-down",
            )


def _when(results: BuildingResults, month: int, step: int) -> str:
    return f"{MONTHS[day_number(results.building.climate.months[month]) - 1]} {clock(step)}"
