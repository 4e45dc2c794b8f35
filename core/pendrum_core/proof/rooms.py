"""Proof of room loads: against a separate finite-volume march, and what must hold of every room."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.climate import Coefficients
from pendrum_core.model.rooms import CATEGORIES, Room
from pendrum_core.proof.cases import climate_of, load_case, room_of, solve_with_data
from pendrum_core.proof.entry import Entry
from pendrum_core.room.chunk import calculate_chunk
from pendrum_core.room.loads import RoomLoads, Unsound
from pendrum_core.room.outdoors import outdoors
from pendrum_core.room.solve import solve
from pendrum_core.room.summer import courses
from pendrum_core.room.winter import winter

Array = NDArray[np.float64]
_MARCH = "finite volumes marched in time, written and run apart from the program"
_HELD, _FLOATING, _WINTER, _ALWAYS = "Cooled room", "Room left to itself", "Heated room", "What always holds"


def away_from_jumps(case: dict[str, Any]) -> NDArray[np.bool_]:
    """Steps that are not among the two after a jump of a schedule."""
    keep = np.ones(144, dtype=bool)
    for gain in case["inputs"]["gains"]:
        values = np.array(gain["sensible_W"])
        for step in np.flatnonzero(np.abs(values - np.roll(values, 1)) > 1e-9):
            keep[[step % 144, (step + 1) % 144]] = False
    return keep


def held_entries(name: str, title: str) -> Iterator[Entry]:
    """A room held at its set-point: peak, its time, the day's heat, and the largest difference at any step."""
    case = load_case(name)
    expected = case["expected"]
    load = courses(solve_with_data(case)).total[0, 0]
    want, peak = np.array(expected["cooling_load_W"]), expected["peak_W"]
    off = float(np.abs(load - want)[away_from_jumps(case)].max())
    day_wh = expected["daily_energy_Wh"]
    yield Entry(_HELD, f"{title}, peak", peak, float(load.max()), "load", 0.01 * peak, _MARCH)
    yield Entry(
        _HELD,
        f"{title}, hour of the peak",
        expected["peak_step_index"] / 6,
        float(load.argmax()) / 6,
        "time",
        0.17,
        _MARCH,
    )
    yield Entry(
        _HELD, f"{title}, mean over the day", day_wh / 24, float(load.mean()), "load", 0.01 * day_wh / 24, _MARCH
    )
    yield Entry(_HELD, f"{title}, largest difference at any step", 0.0, off, "power", 0.02 * peak, _MARCH)


def floating_entries() -> Iterator[Entry]:
    """A room without plant."""
    case = load_case("room_light_free_floating")
    expected = case["expected"]
    air = courses(solve_with_data(case, cooled=False)).total[0, 0]
    off = float(np.abs(air - np.array(expected["air_temperature_C"]))[away_from_jumps(case)].max())
    warmest = expected["peak_air_temperature_C"]
    yield Entry(_FLOATING, "Warmest air", warmest, float(air.max()), "temperature", 0.15, _MARCH)
    yield Entry(_FLOATING, "Largest difference at any step", 0.0, off, "temperature_difference", 0.2, _MARCH)


def winter_entries() -> Iterator[Entry]:
    """Steady heating, without and with the pull of the sky."""
    case = load_case("room_winter_steady")
    for variant, depression in (("no_sky_depression", 0.0), ("sky_depression_11_K", 11.0)):
        outside = outdoors(replace(climate_of(case), coefficients=Coefficients(sky_depression_k=depression)))
        infiltration = case["inputs"]["rooms"][0]["infiltration_conductance_W_K"] / outside.air_heat_j_m3k
        found = float(winter(solve([replace(room_of(case), infiltration_m3_s=infiltration)], outside)).load_w[0])
        want = case["expected"][variant]["heating_load_W"]
        title = f"Heating, sky {depression:.0f} K colder than the air"
        yield Entry(_WINTER, title, want, found, "load", 0.002 * want, "steady network solved apart from the program")


def _sound(rooms: list[Room], case: dict[str, Any]) -> list[RoomLoads]:
    found = calculate_chunk(rooms, outdoors(climate_of(case)))
    return [loads for loads in found if not isinstance(loads, Unsound)]


def always_entries() -> Iterator[Entry]:
    """Invariants, on the case's room with the program's own sun and air."""
    case = load_case("room_light_south_window")
    plain = room_of(case)
    none = replace(plain, id="none", gains=())
    double = replace(plain, id="double", gains=tuple(replace(g, sensible_w=2 * g.sensible_w) for g in plain.gains))
    twice = replace(
        plain, id="twice", volume_m3=2 * plain.volume_m3, capacity_j_k=2 * plain.capacity_j_k,
        infiltration_m3_s=2 * plain.infiltration_m3_s,
        elements=tuple(replace(e, area_m2=2 * e.area_m2) for e in plain.elements),
        gains=tuple(replace(g, sensible_w=2 * g.sensible_w) for g in plain.gains),
    )  # fmt: skip
    colder = replace(plain, id="colder", cooling_setpoint_c=plain.cooling_setpoint_c - 1.0)
    loads = {found.room.id: found for found in _sound([plain, none, double, twice, colder], case)}
    one, peak = loads[plain.id], float(loads[plain.id].total.max())
    tiny = 1e-6 * peak

    def entry(name: str, value: Array, rule: str) -> Entry:
        return Entry(_ALWAYS, name, 0.0, float(np.abs(value).max()), "power", tiny, rule)

    yield entry("Parts add up to the load at every step", one.parts.sum(axis=0) - one.total, "addition")
    yield Entry(_ALWAYS, "The heat balance closes", 0.0, one.balance_error, "ratio", 1e-6, "conservation of energy")
    gains = loads["double"].total - 2 * one.total + loads["none"].total
    yield entry("Twice the gains, twice what they add", gains, "superposition: the balance is linear")
    yield entry("Twice every size, twice the load", loads["twice"].total - 2 * one.total, "similarity")
    less = float(np.minimum(loads["colder"].total - one.total, 0.0).min())
    yield Entry(
        _ALWAYS, "A lower set-point never lowers the load", 0.0, less, "power", tiny, "second law of thermodynamics"
    )
    alone = loads["none"].total + one.parts[[CATEGORIES.index(c) for c in ("people", "lights", "equipment")]].sum(
        axis=0
    )
    yield entry("A source has the same part alone and together", alone - one.total, "superposition")


def room_entries() -> Iterator[Entry]:
    """All of the chapter."""
    yield from held_entries("room_light_south_window", "Light room with a south window")
    yield from held_entries("room_light_no_window", "Light room without windows")
    yield from floating_entries()
    yield from winter_entries()
    yield from always_entries()
