"""Rooms to results, and results to groups."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import CATEGORIES, CONDUCTION_CATEGORIES, Room
from pendrum_core.results.loads import GroupLoads, Heating, RoomLoads, peak_of, peak_time
from pendrum_core.room.loads import Solved, WinterParts, courses, solve, winter
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.room.verify import forward_day

Array = NDArray[np.float64]
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
    return [Heating(load, tuple(row)) for load, row in zip(parts.load_w.tolist(), split.tolist(), strict=True)]


@dataclass(frozen=True)
class Unsound:
    """A room whose calculation did not pass its own check; nothing of it is shown."""

    room: Room
    reason: str


def calculate_chunk(rooms: Sequence[Room], outside: Outdoors) -> list[RoomLoads | Unsound]:
    """Calculate some rooms and check each: parts must add up and the balance must close within 1e-6."""
    solved = solve(rooms, outside)
    split = courses(solved)
    total = split.parts.sum(axis=1)
    cold = winter(solved)
    heating = _heating(solved, cold)
    months = len(outside.climate.months)
    flat = total.reshape(len(rooms), -1).argmax(axis=1)
    month_of, step_of = flat // total.shape[-1], flat % total.shape[-1]
    check = forward_day(solved, month_of)
    day = total[np.arange(len(rooms)), month_of]
    # A floating room's result is a temperature: its error is weighed in kelvin, at 1 K.
    scale = np.where(solved.floating, 1.0, np.maximum(check.throughput_w, 1.0))
    split_error = np.abs(check.result - day).max(axis=1) / scale
    balance_error = np.abs(check.closure_w).max(axis=1) / np.maximum(check.throughput_w, 1.0)
    results: list[RoomLoads | Unsound] = []
    for index, room in enumerate(rooms):
        sound = max(split_error[index], balance_error[index]) <= TOLERANCE and np.isfinite(total[index]).all()
        if not (sound and np.isfinite(cold.load_w[index]) and np.isfinite(cold.air_c[index])):
            reason = (
                f"{room.number} {room.name} did not pass its check (parts off by {split_error[index]:.1g}, balance by "
                f"{balance_error[index]:.1g}); an input of it must be extreme."
            )
            results.append(Unsound(room, reason))
            continue
        own = split.parts[index].copy()
        month, step = int(month_of[index]), int(step_of[index])
        results.append(
            RoomLoads(
                room=room,
                parts=own,
                total=total[index].copy(),
                removed_w=np.maximum(total[index], 0.0),
                latent_w=split.latent_w[index].copy(),
                cooling=peak_of(total[index], own[:, month, step], split.latent_w[index]) if room.cooled else None,
                heating=heating[index],
                floating_peak_c=None if room.cooled else room.cooling_setpoint_c + float(total[index, month, step]),
                peak_month=month % months,
                peak_step=step,
                winter_air_c=float(cold.air_c[index]),
                mean_surface_c=room.cooling_setpoint_c + check.mean_surface_k[index],
                split_error=float(split_error[index]),
                balance_error=float(balance_error[index]),
            )
        )
    return results


def group_parts_w(rooms: Sequence[RoomLoads], month: int, steps: slice) -> Array:
    """Split of a group's coincident load over some steps of a month, (categories, steps) [W]."""
    cooled = [loads for loads in rooms if loads.cooling is not None]
    if not cooled:
        return np.zeros((len(CATEGORIES), len(range(*steps.indices(rooms[0].total.shape[1])))))
    counted = np.stack([loads.total[month, steps] for loads in cooled]) > 0.0
    return np.asarray((np.stack([loads.parts[:, month, steps] for loads in cooled]) * counted[:, None]).sum(axis=0))


def group_loads(group_id: str, name: str, kind: str, rooms: Sequence[RoomLoads]) -> GroupLoads:
    """Add rooms to a group; at least one room."""
    course, latent = np.zeros_like(rooms[0].total), np.zeros_like(rooms[0].total)
    cooled = [loads for loads in rooms if loads.cooling is not None]
    for loads in cooled:
        course += loads.removed_w
        latent += loads.latent_w
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
        heating=Heating(sum(h.load_w for h in heated), tuple(float(value) for value in heating_parts)),
        sum_of_peaks_w=peaks,
    )
