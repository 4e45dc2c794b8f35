"""Some rooms at a time: solved, checked, and made into results."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, CONDUCTION_CATEGORIES, GAIN_CATEGORIES, Room
from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.balance.harmonics import to_harmonics, to_steps
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.room.balance.solve import Solved, solve
from pendrum_core.room.balance.sources import gain_courses
from pendrum_core.room.balance.verify import forward_day
from pendrum_core.room.days.summer import RoomCourses, courses
from pendrum_core.room.days.terms import Ensemble, Terms
from pendrum_core.room.days.winter import WinterParts, winter
from pendrum_core.room.outcome.felt import with_inside
from pendrum_core.room.outcome.loads import Heating, Peak, RoomLoads, RoomResponse, Unsound, whole_split
from pendrum_core.room.thermostat.answers import air_answers
from pendrum_core.room.thermostat.control import Command, controlled
from pendrum_core.room.thermostat.controlled import Control

Array = NDArray[np.float64]
Ints = NDArray[np.int64]
Complex = NDArray[np.complex128]
# Rooms solved together: few enough to bound the memory, enough to make the loop over them cheap.
LEAST_AT_ONCE, MOST_AT_ONCE = 24, 128


TOLERANCE = 1e-6


def _heating(solved: Solved, parts: WinterParts) -> list[Heating]:
    """Winter loads of all rooms of a stack with their split."""
    stack, first = solved.stack, CATEGORIES.index(CONDUCTION_CATEGORIES[0])
    split = np.zeros((len(stack.rooms), len(CATEGORIES)))
    np.add.at(split, (stack.room_of, first + stack.category_of), parts.term_w + parts.emitter_w)
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
class _Checked:
    """Errors of a chunk's check, relative, and the months of the rooms' peaks; (R,) each."""

    month: Ints
    step: Ints
    split: Array
    balance: Array

    def sound(self, total: Array, left: Array) -> list[bool]:
        """Whether each room's check holds and all its figures are numbers; `left` is what its parts leave open."""
        within = np.maximum(np.maximum(self.split, self.balance), left) <= TOLERANCE
        found: list[bool] = (within & np.isfinite(total).all(axis=(1, 2))).tolist()
        return found

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
    beyond: Mapping[str, InsideCourse] | None = None,
) -> list[RoomLoads | Unsound]:
    """Calculate some rooms and check each: parts must add up and the balance must close within 1e-6.

    All of them have a thermostat, or none. `commands` are of those that follow another room's sensor,
    `beyond` is what it is like in the rooms that are another one's neighbour.
    """
    solved = solve(rooms, outside, beyond=beyond)
    found = courses(solved)
    total = found.total
    cold = winter(solved)
    heating = _heating(solved, cold)
    month, step = _peaks(total)
    check = forward_day(solved, month)
    throughput = np.maximum(check.throughput_w, 1.0)
    # A floating room's result is a temperature: its error is weighed in kelvin, at 1 K.
    scale = np.where(solved.floating, 1.0, throughput)
    off = np.abs(check.result - total[np.arange(len(rooms)), month]).max(axis=1) / scale
    checked = _Checked(month, step, off, np.abs(check.closure_w).max(axis=1) / throughput)
    if any(room.thermostat is not None for room in rooms):
        controls = controlled(solved, total, cold, commands)
        ruled = _with_thermostats(
            solved, found, controls=controls, heating=heating, cold=cold, checked=checked, beyond=beyond
        )
        return with_inside(ruled, solved, cold, beyond)
    parts = _Parts(found.terms, found.held, found.gains, found.day_of, total, found.latent_w)
    answers = air_answers(solved)
    responses = [RoomResponse(*pair) for pair in zip(solved.transfers.radiant, check.lost, strict=True)]
    results: list[RoomLoads | Unsound] = []
    for index, (room, course) in enumerate(zip(rooms, _results(rooms, parts, checked), strict=True)):
        air_c = float(cold.air_c[index])
        if isinstance(course, Unsound) or not (np.isfinite(heating[index].load_w) and np.isfinite(air_c)):
            results.append(Unsound(room, checked.reason(index, room)))
            continue
        results.append(
            RoomLoads(
                room=room,
                heating=heating[index],
                winter_air_c=air_c,
                response=None if solved.floating[index] else responses[index],
                answers=answers[index],
                beyond=_felt(room, beyond),
                **course,
            )
        )
    return with_inside(results, solved, cold, beyond)


def _with_thermostats(
    solved: Solved,
    found: RoomCourses,
    controls: Sequence[Control | None],
    heating: Sequence[Heating],
    cold: WinterParts,
    checked: _Checked,
    beyond: Mapping[str, InsideCourse] | None,
) -> list[RoomLoads | Unsound]:
    """Results of rooms whose thermostats decide; `heating` is their winter load at the set-point."""
    rooms = solved.stack.rooms
    held, answers = found.total, air_answers(solved)
    total = np.stack([0.0 - c.summer.plant_w if c else held[i] for i, c in enumerate(controls)])
    air = np.stack([c.summer.air_c if c else held[i] for i, c in enumerate(controls)])
    cooled = np.array([room.cooled for room in rooms])
    month, step = _peaks(np.where(cooled[:, None, None], total, air))
    parts = _Parts(
        found.terms,
        found.held,
        gains=found.gains,
        day_of=found.day_of,
        total=total,
        latent=found.latent_w,
        controls=controls,
    )
    results: list[RoomLoads | Unsound] = []
    for index, course in enumerate(_results(rooms, parts, replace(checked, month=month, step=step))):
        room, control, air_c = rooms[index], controls[index], float(cold.air_c[index])
        if control is None:
            sentence = (
                f"{room.number} {room.name}: its thermostat's day does not settle; an input of it must be extreme."
            )
            results.append(Unsound(room, sentence))
        elif isinstance(course, Unsound) or not (np.isfinite(heating[index].load_w) and np.isfinite(air_c)):
            results.append(Unsound(room, checked.reason(index, room)))
        else:
            own = heating[index]
            results.append(
                RoomLoads(
                    room=room,
                    heating=_warmed_up(room, own, control) if room.heated else Heating(0.0, own.parts_w, 0.0),
                    winter_air_c=air_c if room.heated else float(control.winter.air_c.min()),
                    response=None,
                    answers=answers[index],
                    control=control,
                    beyond=_felt(room, beyond),
                    **course,
                )
            )
    return results


def _felt(room: Room, beyond: Mapping[str, InsideCourse] | None) -> dict[str, InsideCourse]:
    """The air beyond a room's walls that was known."""
    return {other: beyond[other] for other in room.neighbours if beyond and other in beyond}


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
    """What rooms' loads are made of: terms and their sum, gains by day, the day of each month, the load, moisture by day."""

    terms: Sequence[Terms]
    held: Array
    gains: Array
    day_of: Ints
    total: Array
    latent: Array
    controls: Sequence[Control | None] = ()

    def at_peak(self, month: Ints, step: Ints) -> tuple[Array, Array]:
        """Split of every room at its own peak, (R, categories), and what its terms leave open there, relative (R,)."""
        every, day = np.arange(len(month)), self.day_of[month]
        asked = None
        if self.controls:
            drawn = [c.summer.drawn_w[m, s] if c else 0.0 for c, m, s in zip(self.controls, month, step, strict=True)]
            asked = (self.total[every, month, step], np.array(drawn))
        fixed = Ensemble(self.terms).at(month, step)
        left = np.abs(fixed.sum(axis=1) - self.held[every, month, step]) / np.maximum(np.abs(fixed).sum(axis=1), 1.0)
        return whole_split(fixed.T, self.gains[every, :, day, step].T, asked).T, left


def _results(rooms: Sequence[Room], parts: _Parts, checked: _Checked) -> list[dict[str, Any] | Unsound]:
    """What rooms' courses give: the fields of RoomLoads that do not rest on their fabric alone."""
    months, steps = checked.month.tolist(), checked.step.tolist()
    # The parts come by another sum than the whole: what they leave open belongs to the check.
    split, left = parts.at_peak(checked.month, checked.step)
    every = np.arange(len(rooms))
    latent = parts.latent[every, parts.day_of[checked.month], checked.step].tolist()
    peaks = parts.total[every, checked.month, checked.step]
    sound = checked.sound(parts.total, left)
    results: list[dict[str, Any] | Unsound] = []
    for index, room in enumerate(rooms):
        if not sound[index]:
            results.append(Unsound(room, checked.reason(index, room)))
            continue
        peak, month, step = float(peaks[index]), months[index], steps[index]
        cooling = Peak(max(0.0, peak), latent[index], month, step, tuple(split[index].tolist()))
        control = parts.controls[index] if parts.controls else None
        results.append(
            {
                "terms": parts.terms[index],
                "held": parts.held[index],
                "gains": parts.gains[index],
                "day_of": parts.day_of,
                "total": parts.total[index],
                "latent_days_w": parts.latent[index],
                "cooling": cooling if room.cooled else None,
                "floating_peak_c": None if room.cooled else _hottest_c(room, control, peak, month, step),
                "peak_month": month,
                "peak_step": step,
                "split_error": max(float(checked.split[index]), float(left[index])),
                "balance_error": float(checked.balance[index]),
            }
        )
    return results


def _hottest_c(room: Room, control: Control | None, peak: float, month: int, step: int) -> float:
    if control:
        return float(control.summer.air_c[month, step])
    return room.cooling_setpoint_c + peak


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
    held = np.stack([loads.held for loads in kept])
    # Summed again rather than corrected: any number of edits leaves no trace in the last digits.
    total = held + gains.sum(axis=1)[:, found.day_of]
    month, step = _peaks(total)
    day, every = found.day_of[month], np.arange(len(rooms))
    radiant, convective = (course[every, :, day].sum(axis=1) for course in (found.radiant, found.convective))
    harmonics = to_harmonics(radiant)
    load = to_steps(harmonics * transfer)
    lost = to_steps(harmonics * np.stack([response.lost for response in responses]))
    throughput = np.maximum((radiant + convective).max(axis=1), 1.0)
    off = np.abs(load + convective - gains[every, :, day].sum(axis=1)).max(axis=1) / throughput
    checked = _Checked(month, step, off, np.abs(radiant - lost - load).max(axis=1) / throughput)
    parts = _Parts([loads.terms for loads in kept], held, gains, found.day_of, total, found.latent.sum(axis=1))
    results: list[RoomLoads | Unsound] = []
    for loads, room, course in zip(kept, rooms, _results(rooms, parts, checked), strict=True):
        if isinstance(course, Unsound):
            results.append(course)
        else:
            results.append(replace(loads, room=room, **(course | {"held": loads.held})))
    return results
