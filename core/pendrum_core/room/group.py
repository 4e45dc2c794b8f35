"""Rooms to results, and results to groups."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, CONDUCTION_CATEGORIES, GAIN_CATEGORIES, Room
from pendrum_core.results.air import AirCourse
from pendrum_core.results.control import Control
from pendrum_core.results.loads import (
    GroupLoads,
    Heating,
    Peak,
    RoomLoads,
    RoomResponse,
    peak_of,
    peak_time,
    whole_split,
)
from pendrum_core.room.control import Command, controlled
from pendrum_core.room.harmonics import spread, step_response, to_harmonics, to_steps
from pendrum_core.room.loads import Solved, WinterParts, courses, solve, winter
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.room.sources import gain_courses
from pendrum_core.room.verify import forward_day

Array = NDArray[np.float64]
Ints = NDArray[np.int64]
Complex = NDArray[np.complex128]
# Rooms solved together: few enough to bound the memory, enough to make the loop over them cheap.
LEAST_AT_ONCE, MOST_AT_ONCE = 24, 256


TOLERANCE = 1e-6


def _heating(solved: Solved, parts: WinterParts) -> list[Heating]:
    """Winter loads of all rooms of a stack with their split."""
    stack, first = solved.stack, CATEGORIES.index(CONDUCTION_CATEGORIES[0])
    split = np.zeros((len(stack.rooms), len(CATEGORIES)))
    np.add.at(split, (stack.room_of, first + stack.category_of), parts.term_w)
    split[:, CATEGORIES.index("infiltration")] = parts.infiltration_w
    split[:, CATEGORIES.index("outdoor air")] = parts.outdoor_air_w
    split[:, CATEGORIES.index("neighbours")] -= solved.transfer.winter_w
    if parts.gains_w is not None:
        rooms, worst = np.arange(len(split)), parts.gains_w.sum(axis=1).argmin(axis=1)
        begin = CATEGORIES.index(GAIN_CATEGORIES[0])
        split[:, begin : begin + len(GAIN_CATEGORIES)] = -parts.gains_w[rooms, :, worst]
    rows = zip(parts.load_w.tolist(), split.tolist(), parts.simple_w.tolist(), strict=True)
    return [Heating(load, tuple(row), simple) for load, row, simple in rows]


@dataclass(frozen=True)
class Unsound:
    """A room whose calculation did not pass its own check; nothing of it is shown."""

    room: Room
    reason: str


@dataclass(frozen=True)
class _Checked:
    """Errors of a chunk's check, relative, and the months of the rooms' peaks; (R,) each."""

    month: Ints
    step: Ints
    split: Array
    balance: Array

    def sound(self, index: int, total: Array) -> bool:
        """Whether a room's check holds and all its figures are numbers."""
        return bool(max(self.split[index], self.balance[index]) <= TOLERANCE and np.isfinite(total).all())

    def at(self, index: int) -> tuple[float, float]:
        """Errors of one room."""
        return float(self.split[index]), float(self.balance[index])

    def reason(self, index: int, room: Room) -> str:
        """Why a room is not shown."""
        return (
            f"{room.number} {room.name} did not pass its check (parts off by {self.split[index]:.1g}, balance by "
            f"{self.balance[index]:.1g}); an input of it must be extreme."
        )


def _peaks(total: Array) -> tuple[Ints, Ints]:
    """Month index and step of the largest value of each room's course (R, months, 144)."""
    flat = total.reshape(len(total), -1).argmax(axis=1)
    return flat // total.shape[-1], flat % total.shape[-1]


def calculate_chunk(
    rooms: Sequence[Room],
    outside: Outdoors,
    commands: Mapping[str, Command] | None = None,
    beyond: Mapping[str, AirCourse] | None = None,
) -> list[RoomLoads | Unsound]:
    """Calculate some rooms and check each: parts must add up and the balance must close within 1e-6.

    All of them have a thermostat, or none. `commands` are of those that follow another room's sensor,
    `beyond` is the air of neighbouring rooms.
    """
    solved = solve(rooms, outside, beyond=beyond)
    split = courses(solved)
    total = split.fixed.sum(axis=1) + split.gains.sum(axis=1)[:, split.day_of]
    cold = winter(solved)
    heating = _heating(solved, cold)
    month, step = _peaks(total)
    check = forward_day(solved, month)
    throughput = np.maximum(check.throughput_w, 1.0)
    # A floating room's result is a temperature: its error is weighed in kelvin, at 1 K.
    scale = np.where(solved.floating, 1.0, throughput)
    off = np.abs(check.result - total[np.arange(len(rooms)), month]).max(axis=1) / scale
    checked = _Checked(month, step, off, np.abs(check.closure_w).max(axis=1) / throughput)
    own_sum = solved.stack.kind_area @ (solved.stack.kinds.face * solved.stack.kinds.own)
    thermostats = [room.thermostat for room in rooms if room.thermostat is not None]
    controls = controlled(solved, total, cold, commands) if thermostats else []
    results: list[RoomLoads | Unsound] = []
    for index, room in enumerate(rooms):
        parts = _Parts(split.fixed[index], split.gains[index], split.day_of, total[index], split.latent_w[index])
        air_c = float(cold.air_c[index])
        if not (checked.sound(index, total[index]) and np.isfinite(heating[index].load_w) and np.isfinite(air_c)):
            results.append(Unsound(room, checked.reason(index, room)))
            continue
        if not thermostats:
            response = None if solved.floating[index] else _response(solved, own_sum, index)
            found = _results(room, parts, checked, index) | {"beyond": _felt(room, beyond)}
            results.append(RoomLoads(room=room, heating=heating[index], winter_air_c=air_c, response=response, **found))
            continue
        control = controls[index]
        results.append(
            Unsound(
                room,
                f"{room.number} {room.name}: its thermostat's day does not settle; an input of it must be extreme.",
            )
            if control is None
            else replace(
                _with_thermostat(room, parts, control, heating[index], air_c, checked.at(index)),
                beyond=_felt(room, beyond),
            )
        )
    return results


def _felt(room: Room, beyond: Mapping[str, AirCourse] | None) -> dict[str, AirCourse]:
    """The air beyond a room's walls that was known."""
    return {other: beyond[other] for other in room.neighbours if beyond and other in beyond}


def _with_thermostat(
    room: Room, parts: "_Parts", control: Control, held: Heating, held_air_c: float, errors: tuple[float, float]
) -> RoomLoads:
    """Results of a room whose thermostat decides; `held` is its winter load at the set-point."""
    total = 0.0 - control.summer.plant_w
    month, step = peak_time(total if room.cooled else control.summer.air_c.astype(np.float64))
    checked = _Checked(np.array([month]), np.array([step]), *(np.array([error]) for error in errors))
    return RoomLoads(
        room=room,
        heating=_warmed_up(room, held, control) if room.heated else Heating(0.0, held.parts_w, 0.0),
        winter_air_c=held_air_c if room.heated else float(control.winter.air_c.min()),
        response=None,
        control=control,
        **_results(room, replace(parts, total=total, control=control), checked, 0),
    )


def _warmed_up(room: Room, held: Heating, control: Control) -> Heating:
    """Winter load with the largest power of the day: what it is above the losses at the set-point is storage.

    Or with the allowance per floor area of EN 12831-1, where the thermostat has one.
    """
    assert room.thermostat is not None
    load = float(control.winter.plant_w.max())
    if room.thermostat.reheat_w_m2 is not None:
        load += room.thermostat.reheat_w_m2 * room.floor_area_m2
    storage = CATEGORIES.index("storage")
    lost = sum(held.parts_w)
    parts = (*held.parts_w[:storage], load - lost, *held.parts_w[storage + 1 :])
    return Heating(load, parts, held.simple_w)


@dataclass(frozen=True)
class _Parts:
    """The split of one room: fixed categories, gains by day, the day of each month, their sum, moisture by day."""

    fixed: Array
    gains: Array
    day_of: Ints
    total: Array
    latent: Array
    control: Control | None = None


def _response(solved: Solved, own_sum: Complex, index: int) -> RoomResponse:
    row = solved.row
    return RoomResponse(
        solved.transfers.radiant[index], row.face_sum[index], row.convected_sum[index], row.mean_gain[index],
        own_sum[index], float(solved.stack.total_area[index]),
    )  # fmt: skip


def _results(room: Room, parts: _Parts, checked: _Checked, index: int) -> dict[str, Any]:
    """What a room's courses give: the fields of RoomLoads that do not rest on its fabric alone."""
    month, step = int(checked.month[index]), int(checked.step[index])
    peak, day = float(parts.total[month, step]), parts.day_of[month]
    asked = (parts.total[month, step], parts.control.summer.drawn_w[month, step]) if parts.control else None
    split = whole_split(parts.fixed[:, month, step], parts.gains[:, day, step], asked)
    latent = float(parts.latent[day, step])
    return {
        "fixed": parts.fixed,
        "gains": parts.gains,
        "day_of": parts.day_of,
        "total": parts.total,
        "latent_days_w": parts.latent,
        "cooling": Peak(max(0.0, peak), latent, month, step, tuple(split.tolist())) if room.cooled else None,
        "floating_peak_c": None if room.cooled else _hottest_c(room, parts, month, step),
        "peak_month": month,
        "peak_step": step,
        "split_error": float(checked.split[index]),
        "balance_error": float(checked.balance[index]),
    }


def _hottest_c(room: Room, parts: _Parts, month: int, step: int) -> float:
    if parts.control:
        return float(parts.control.summer.air_c[month, step])
    return room.cooling_setpoint_c + float(parts.total[month, step])


def differs_in_gains_only(before: RoomLoads, room: Room, counts_winter_gains: bool = False) -> bool:
    """Whether a held room has other gains than when it was calculated, and nothing else that counts."""
    old = before.room
    return (
        before.response is not None
        and room.elements is old.elements
        and room.windows is old.windows
        and not counts_winter_gains
        and all(getattr(old, name) == getattr(room, name) for name in _SCALARS)
    )


_SCALARS = tuple(f.name for f in fields(Room) if f.name not in ("id", "number", "name", "elements", "windows", "gains"))


def recalculate_gains(kept: Sequence[RoomLoads], rooms: Sequence[Room], outside: Outdoors) -> list[RoomLoads | Unsound]:
    """Held rooms whose gains alone changed: everything else is taken over, the gains are worked out and checked anew.

    The check is again the other route: faces forward from the gains' radiant heat, and their balance.
    """
    responses = [loads.response for loads in kept if loads.response is not None]
    found = gain_courses(rooms, [month.month for month in outside.climate.months])
    transfer = np.stack([response.radiant for response in responses])
    gains = to_steps(to_harmonics(found.radiant) * transfer[:, None, None]) + found.convective
    # Summed again rather than corrected: any number of edits leaves no trace in the last digits.
    total = np.stack([loads.fixed.sum(axis=0) for loads in kept]) + gains.sum(axis=1)[:, found.day_of]
    month, step = _peaks(total)
    day, every = found.day_of[month], np.arange(len(rooms))
    radiant, convective = (course[every, :, day].sum(axis=1) for course in (found.radiant, found.convective))
    face, convected, mean_gain, own = (
        np.stack([getattr(r, name) for r in responses])
        for name in ("face_sum", "convected_sum", "mean_gain", "own_sum")
    )
    spreading = spread(to_harmonics(radiant)) / np.array([r.total_area_m2 for r in responses])[:, None]
    x = spreading * (1.0 + outside.climate.coefficients.radiation_inside * mean_gain * face)
    forward = to_steps(step_response(convected * x))
    lost = to_steps(step_response(own * x))
    throughput = np.maximum((radiant + convective).max(axis=1), 1.0)
    off = np.abs(forward + convective - gains[every, :, day].sum(axis=1)).max(axis=1) / throughput
    checked = _Checked(month, step, off, np.abs(radiant - lost - forward).max(axis=1) / throughput)
    latent = found.latent.sum(axis=1)
    results: list[RoomLoads | Unsound] = []
    for i, (loads, room) in enumerate(zip(kept, rooms, strict=True)):
        if checked.sound(i, total[i]):
            parts = _Parts(loads.fixed, gains[i], found.day_of, total[i], latent[i])
            results.append(replace(loads, room=room, **_results(room, parts, checked, i)))
        else:
            results.append(Unsound(room, checked.reason(i, room)))
    return results


def group_parts_w(rooms: Sequence[RoomLoads], month: int, steps: slice) -> Array:
    """Split of a group's coincident load over some steps of a month, (categories, steps) [W]."""
    total = np.zeros((len(CATEGORIES), len(range(*steps.indices(rooms[0].total.shape[1])))))
    for loads in rooms:
        counted = loads.total[month, steps] > 0.0
        if loads.cooling is not None and counted.any():
            total += loads.parts_at(month, steps) * counted
    return total


def group_loads(group_id: str, name: str, kind: str, rooms: Sequence[RoomLoads]) -> GroupLoads:
    """Add rooms to a group; at least one room."""
    course, latent = np.zeros_like(rooms[0].total), np.zeros_like(rooms[0].total)
    cooled = [loads for loads in rooms if loads.cooling is not None]
    # Rooms calculated together share their different days: their moisture is added before it is spread over the months.
    days: dict[int, tuple[Ints, Array]] = {}
    removed = np.empty_like(course)
    for loads in cooled:
        course += np.maximum(loads.total, 0.0, out=removed)
        known = days.get(id(loads.day_of))
        added = loads.latent_days_w if known is None else known[1] + loads.latent_days_w
        days[id(loads.day_of)] = (loads.day_of, added)
    for day_of, moisture in days.values():
        latent += moisture[day_of]
    peaks = sum(loads.cooling.sensible_w for loads in cooled if loads.cooling is not None)
    heated = [loads.heating for loads in rooms if loads.heating.load_w > 0.0]
    heating_parts = np.array([heating.parts_w for heating in heated]).reshape(-1, len(CATEGORIES)).sum(axis=0)
    month, step = peak_time(course)
    return GroupLoads(
        id=group_id,
        name=name,
        kind=kind,
        room_ids=tuple(loads.room.id for loads in rooms),
        floor_area_m2=sum(loads.room.floor_area_m2 for loads in rooms),
        course_w=course,
        latent_w=latent,
        cooling=peak_of(course, group_parts_w(rooms, month, slice(step, step + 1))[:, 0], latent),
        heating=Heating(
            sum(h.load_w for h in heated),
            tuple(float(value) for value in heating_parts),
            sum(loads.heating.simple_w for loads in rooms),
        ),
        sum_of_peaks_w=peaks,
    )
