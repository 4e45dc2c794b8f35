"""Proof of room loads: against a separate finite-volume march, and what must hold of every room.

Source: the method of finite volumes, independent of the responses that it proves.
"""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, Room
from pendrum_core.proof.cases import Case, building_of, climate_of, load_case
from pendrum_core.proof.entry import Entry
from pendrum_core.results.building import BuildingLoads
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.room.outcome.chunk import calculate_chunk
from pendrum_core.room.outcome.loads import RoomLoads, Unsound
from pendrum_core.run import Memory, calculate_loads

Array = NDArray[np.float64]
_MARCH = "finite volumes marched in time, written and run apart from the program"
_HELD, _FLOATING, _WINTER, _ALWAYS = "Cooled room", "Room left to itself", "Heated room", "What always holds"


def away_from_jumps(case: Case) -> NDArray[np.bool_]:
    """Steps that are not among the two after a jump of a schedule [yes or no]."""
    keep, control = np.ones(144, dtype=bool), case["inputs"].get("control") or {}
    for gain in case["inputs"]["gains"]:
        values = np.array(gain["sensible_W"])
        for step in np.flatnonzero(np.abs(values - np.roll(values, 1)) > 1e-9):
            keep[[step % 144, (step + 1) % 144]] = False
    for rule in (control, *(value for value in control.values() if isinstance(value, dict))):
        for name in ("heating_C", "cooling_C"):
            values = np.array(rule.get(name, [0.0]))
            for step in np.flatnonzero(np.abs(values - np.roll(values, 1)) > 1e-9):
                keep[[step % 144, (step + 1) % 144]] = False
    return keep


def _calculated(case: Case) -> BuildingLoads:
    """The case by the program's own calculation.

    Raises:
        ValueError: it does not come to a result.
    """
    found = calculate_loads(building_of(case), Memory())
    if found.failures:
        raise ValueError(found.failures[0].reason)
    return found


def _only(case: Case) -> RoomLoads:
    return next(iter(_calculated(case).rooms.values()))


def held_entries(case: Case) -> Iterator[Entry]:
    """A room held at its set-point: peak, its time, the day's heat, and the largest difference at any step."""
    yield from _cooling(case, case["title"], _only(case), case["expected"])


def _cooling(case: Case, title: str, found: RoomLoads, expected: Case) -> Iterator[Entry]:
    load = found.total[0]
    want, peak = np.array(expected["cooling_load_W"]), expected["peak_W"]
    off = float(np.abs(load - want)[away_from_jumps(case)].max())
    mean = expected["daily_energy_Wh"] / 24.0
    hour = float(load.argmax()) / 6
    yield Entry(
        _HELD,
        f"{title}: peak",
        expected=peak,
        found=float(load.max()),
        quantity="load",
        within=0.01 * peak,
        source=_MARCH,
    )
    yield Entry(
        _HELD,
        f"{title}: hour of the peak",
        expected=expected["peak_step_index"] / 6,
        found=hour,
        quantity="time",
        within=0.17,
        source=_MARCH,
    )
    yield Entry(
        _HELD,
        f"{title}: mean over the day",
        expected=mean,
        found=float(load.mean()),
        quantity="load",
        within=0.01 * mean,
        source=_MARCH,
    )
    yield Entry(
        _HELD,
        f"{title}: largest difference at any step",
        expected=0.0,
        found=off,
        quantity="power",
        within=0.02 * peak,
        source=_MARCH,
    )


def floating_entries(case: Case) -> Iterator[Entry]:
    """A room without plant."""
    expected, air, title = case["expected"], _only(case).air_c[0], case["title"]
    off = float(np.abs(air - np.array(expected["air_temperature_C"]))[away_from_jumps(case)].max())
    warmest = expected["peak_air_temperature_C"]
    yield Entry(
        _FLOATING,
        f"{title}: warmest air",
        expected=warmest,
        found=float(air.max()),
        quantity="temperature",
        within=0.15,
        source=_MARCH,
    )
    yield Entry(
        _FLOATING,
        f"{title}: largest difference at any step",
        expected=0.0,
        found=off,
        quantity="temperature_difference",
        within=0.2,
        source=_MARCH,
    )


def several_entries(case: Case) -> Iterator[Entry]:
    """Rooms that feel each other, under thermostats or without: each as if it were alone."""
    found = _calculated(case).rooms
    for name, expected in case["expected"]["rooms"].items():
        title = f"{case['title']}: {name}"
        if "cooling_load_W" in expected:
            yield from _cooling(case, title, found[name], expected)
        if "air_temperature_C" in expected:
            want = np.array(expected["air_temperature_C"])
            off = float(np.abs(found[name].air_c[0] - want)[away_from_jumps(case)].max())
            yield Entry(
                _FLOATING,
                f"{title}: air, largest difference",
                expected=0.0,
                found=off,
                quantity="temperature_difference",
                within=0.2,
                source=_MARCH,
            )


def winter_entries(case: Case) -> Iterator[Entry]:
    """Steady heating, without and with the pull of the sky."""
    for variant, depression in (("no_sky_depression", 0.0), ("sky_depression_11_K", 11.0)):
        building = building_of(case)
        coefficients = replace(building.climate.coefficients, sky_depression_k=depression)
        cold = replace(building.climate, coefficients=coefficients)
        found = calculate_loads(replace(building, climate=cold), Memory()).rooms
        load = next(iter(found.values())).heating.load_w
        want = case["expected"][variant]["heating_load_W"]
        title = f"{case['title']}: sky {depression:.0f} K colder than the air"
        yield Entry(
            _WINTER,
            title,
            expected=want,
            found=load,
            quantity="load",
            within=0.002 * want,
            source="steady network solved apart from the program",
        )


def _sound(rooms: list[Room], case: Case) -> list[RoomLoads]:
    found = calculate_chunk(rooms, outdoors(climate_of(case)))
    return [loads for loads in found if not isinstance(loads, Unsound)]


def always_entries() -> Iterator[Entry]:
    """Invariants, on the case's room with the program's own sun and air."""
    case = load_case("room_light_south_window")
    plain = building_of(case).rooms[0]
    none = replace(plain, id="none", gains=())
    double = replace(plain, id="double", gains=tuple(replace(g, sensible_w=2 * g.sensible_w) for g in plain.gains))
    twice = replace(
        plain,
        id="twice",
        volume_m3=2 * plain.volume_m3,
        capacity_j_k=2 * plain.capacity_j_k,
        infiltration_m3_s=2 * plain.infiltration_m3_s,
        elements=tuple(replace(e, area_m2=2 * e.area_m2) for e in plain.elements),
        gains=tuple(replace(g, sensible_w=2 * g.sensible_w) for g in plain.gains),
    )
    colder = replace(plain, id="colder", cooling_setpoint_c=plain.cooling_setpoint_c - 1.0)
    loads = {found.room.id: found for found in _sound([plain, none, double, twice, colder], case)}
    one, peak = loads[plain.id], float(loads[plain.id].total.max())
    tiny = 1e-6 * peak

    def entry(name: str, value: Array, rule: str) -> Entry:
        return Entry(
            _ALWAYS, name, expected=0.0, found=float(np.abs(value).max()), quantity="power", within=tiny, source=rule
        )

    yield entry("Parts add up to the load at every step", one.parts.sum(axis=0) - one.total, "addition")
    yield Entry(
        _ALWAYS,
        "The heat balance closes",
        expected=0.0,
        found=one.balance_error,
        quantity="ratio",
        within=1e-6,
        source="conservation of energy",
    )
    gains = loads["double"].total - 2 * one.total + loads["none"].total
    yield entry("Twice the gains, twice what they add", gains, "superposition: the balance is linear")
    yield entry("Twice every size, twice the load", loads["twice"].total - 2 * one.total, "similarity")
    less = float(np.minimum(loads["colder"].total - one.total, 0.0).min())
    yield Entry(
        _ALWAYS,
        "A lower set-point never lowers the load",
        expected=0.0,
        found=less,
        quantity="power",
        within=tiny,
        source="second law of thermodynamics",
    )
    alone = loads["none"].total + one.parts[[CATEGORIES.index(c) for c in ("people", "lights", "equipment")]].sum(
        axis=0
    )
    yield entry("A source has the same part alone and together", alone - one.total, "superposition")


ROOM_CASES = {
    "room_light_south_window": held_entries,
    "room_light_no_window": held_entries,
    "room_light_free_floating": floating_entries,
    "room_winter_steady": winter_entries,
    "room_pull_down_operative": several_entries,
    "rooms_partition_and_follower": several_entries,
}


def room_entries() -> Iterator[Entry]:
    """All of the chapter."""
    for name, entries in ROOM_CASES.items():
        yield from entries(load_case(name))
    yield from always_entries()
