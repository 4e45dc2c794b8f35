"""What rooms are like inside, for those beyond their walls."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.room.balance.course import InsideCourse
from pendrum_core.room.balance.harmonics import step_response, to_harmonics, to_steps
from pendrum_core.room.balance.solve import Solved
from pendrum_core.room.days.summer import mean_surface_k, radiant_w
from pendrum_core.room.days.winter import WinterParts, radiant_shares
from pendrum_core.room.outcome.loads import RoomLoads, Unsound

Array = NDArray[np.float64]


def with_inside(
    results: Sequence[RoomLoads | Unsound], solved: Solved, cold: WinterParts, felt: Mapping[str, InsideCourse] | None
) -> list[RoomLoads | Unsound]:
    """Results of a stack of rooms with what it is like in each that another one feels, by the keys of `felt`."""
    if not felt or not any(room.id in felt for room in solved.stack.rooms):
        return list(results)
    radiant = radiant_w(solved)
    # What falls onto the faces counts like so many kelvin of what they exchange radiation with.
    per_kelvin = solved.stack.total_area * solved.outside.climate.coefficients.radiation_inside
    falling = radiant / per_kelvin[:, None, None]
    summer, emitting = _surfaces_c(solved, results, radiant), radiant_shares(solved) / per_kelvin
    done: list[RoomLoads | Unsound] = []
    for index, found in enumerate(results):
        if isinstance(found, Unsound) or found.room.id not in felt:
            done.append(found)
            continue
        winter_air, winter_felt = found.winter_air_c, float(cold.felt_c[index])
        if found.control is not None:
            winter = found.control.winter
            winter_air = float(winter.air_c.mean())
            winter_felt = float(winter.surfaces_c.mean() + emitting[index] * winter.plant_w.mean())
        inside = InsideCourse(found.air_c, summer[index] + falling[index], winter_air, winter_felt)
        done.append(replace(found, inside=inside))
    return done


def _surfaces_c(solved: Solved, results: Sequence[RoomLoads | Unsound], radiant: Array) -> list[Array]:
    """Mean surface temperature of every room on the summer days, (months, 144) each [°C]."""
    nothing = np.zeros(1)
    controlled = [
        found.control.summer.surfaces_c.astype(np.float64)
        if isinstance(found, RoomLoads) and found.control is not None
        else None
        for found in results
    ]
    if all(course is not None or isinstance(found, Unsound) for course, found in zip(controlled, results, strict=True)):
        return [nothing if course is None else course for course in controlled]
    rooms = solved.stack.rooms
    reference = np.array([room.cooling_setpoint_c for room in rooms])[:, None, None]
    air = np.stack(
        [
            found.air_c if isinstance(found, RoomLoads) else np.full(radiant.shape[1:], room.cooling_setpoint_c)
            for found, room in zip(results, rooms, strict=True)
        ]
    )
    follow = step_response(solved.row.mean_gain * solved.row.convected_sum)
    free = reference + mean_surface_k(solved, radiant) + to_steps(to_harmonics(air - reference) * follow[:, None])
    return [free[index] if course is None else course for index, course in enumerate(controlled)]
