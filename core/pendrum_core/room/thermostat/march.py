"""The thermostat's day: what the plant does at every step so that set-points and its own limits are kept.

With the room's answer to a watt (room/thermostat/kernel.py) the day is a small problem: temperature = what it would be without
plant + answer to everything that the plant and drawn-in air bring. Step after step the plant gives what the set-point
asks, within its limits; the day repeats, so the march goes round until nothing changes any more (room/thermostat/sweep.py).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.thermostat.kernel import Answer, Kernel, convolved
from pendrum_core.room.thermostat.sweep import settle_days

Array = NDArray[np.float64]
Ints = NDArray[np.int64]
_KEPT_K = 1e-4


@dataclass(frozen=True)
class Windows:
    """Warm-ups (sign +1) and pull-downs (sign -1): constant power from step `begin` for `length` steps, so that the end
    of the last one meets `target_k`. All (W,): room, day, begin, length, sign, target.
    """

    room: Ints
    day: Ints
    begin: Ints
    length: Ints
    sign: Ints
    target_k: Array


@dataclass(frozen=True)
class Drawn:
    """Drawn-in outdoor air: conductance when fully open (R, M, 144) [W/K], limits (R,), outdoor temperature.

    Temperatures are counted from the room's reference, (R, M, 144) for the outdoor one.
    """

    conductance: Array
    above_k: Array
    band_k: Array
    only_cooler: NDArray[np.bool_]
    outdoor_k: Array


@dataclass(frozen=True)
class Task:
    """What the march works on; temperatures are counted from each room's reference [K].

    Attributes:
        kernel: answers to the plant's heat; drawn-in air goes with plants that give all of it to the air.
        free_air_k, free_end_k: air over each step and sensed temperature at its end without plant, (R, M, 144).
        low_k, high_k: set-points, (R, M, 144); infinite where there is no heating or cooling.
        most_heating_w, most_cooling_w: limits of the plant, (R,); infinite where it is sized.
        given_w: power of plants that are told what to give, NaN where a thermostat decides, (R, M, 144).
    """

    kernel: Kernel
    free_air_k: Array
    free_end_k: Array
    low_k: Array
    high_k: Array
    most_heating_w: Array
    most_cooling_w: Array
    windows: Windows | None = None
    drawn: Drawn | None = None
    given_w: Array | None = None


@dataclass(frozen=True)
class Marched:
    """Courses (R, M, 144): plant power (heating positive) and heat of drawn-in air [W], temperatures [K].

    `held_w` and `thrust_w` are what the two of them give through the steps and at their beginnings.
    """

    plant_w: Array
    drawn_w: Array
    held_w: Array
    thrust_w: Array
    air_k: Array
    sensed_k: Array
    settled: NDArray[np.bool_]


def march(task: Task) -> Marched:
    """Find the plant's day for every room and day of a task."""
    rooms, days, _ = shape = task.free_air_k.shape
    held, thrust = task.kernel.held, task.kernel.thrust
    fixed = np.full(shape, np.nan) if task.given_w is None else task.given_w
    first, windows, targets = _by_day(task.windows, rooms, days)
    conductance, limits, outdoor = _drawn(task.drawn, rooms)
    given, plant, drawn_w = np.zeros((*shape[:2], 2 * STEPS_PER_DAY)), np.zeros(shape), np.zeros(shape)
    wish = np.zeros(shape)
    settled = np.zeros((rooms, days), dtype=np.bool_)
    most, least = task.most_heating_w, -task.most_cooling_w
    settle_days(
        task.free_air_k,
        task.free_end_k,
        held.air,
        held.end,
        thrust.air,
        thrust.end,
        task.kernel.at_once,
        task.low_k,
        task.high_k,
        most,
        least,
        fixed,
        first,
        windows,
        targets,
        conductance,
        limits,
        outdoor,
        given,
        wish,
        plant,
        drawn_w,
        settled,
    )
    x, y = given[..., :STEPS_PER_DAY], given[..., STEPS_PER_DAY:]
    # Once more as a whole: no rounding of many rounds is left in the temperatures.
    air = task.free_air_k + _answered(held, thrust, "air", x, y)
    end = task.free_end_k + _answered(held, thrust, "end", x, y)
    if task.drawn is None:
        drawn_w = np.broadcast_to(0.0, shape)  # nothing is stored for what is not there
    free = np.isnan(fixed) & (wish == 0.0)
    kept = _kept(task, free, end, plant, y)
    return Marched(plant, drawn_w, held_w=x, thrust_w=y, air_k=air, sensed_k=end, settled=settled.all(axis=1) & kept)


def _answered(held: Answer, thrust: Answer, what: str, x: Array, y: Array) -> Array:
    answer = convolved(getattr(held, what), x)
    if y.any():
        answer += convolved(getattr(thrust, what), y)
    return answer


def _kept(task: Task, free: NDArray[np.bool_], sensed: Array, plant: Array, thrust: Array) -> NDArray[np.bool_]:
    """Whether set-points are kept, and no more than that, wherever the plant is free to keep them, (R,)."""
    most, least = task.most_heating_w[:, None, None], -task.most_cooling_w[:, None, None]
    below, above = task.low_k - sensed, sensed - task.high_k
    missed = (plant < most) & (below > _KEPT_K) | (plant > least) & (above > _KEPT_K)
    needless = (plant > 0.0) & (below < -_KEPT_K) | (plant < 0.0) & (above < -_KEPT_K)
    return np.asarray(~(free & (missed | needless & (thrust == 0.0))).any(axis=(1, 2)))


def _by_day(windows: Windows | None, rooms: int, days: int) -> tuple[Ints, Ints, Array]:
    """Windows sorted by room and day, and where those of each begin."""
    if windows is None:
        return np.zeros(rooms * days + 1, dtype=np.int64), np.zeros((0, 3), dtype=np.int64), np.zeros(0)
    place = windows.room * days + windows.day
    order = np.argsort(place, kind="stable")
    first = np.searchsorted(place[order], np.arange(rooms * days + 1))
    columns = np.column_stack([windows.begin, windows.length, windows.sign])[order]
    return first, np.ascontiguousarray(columns), windows.target_k[order]


def _drawn(drawn: Drawn | None, rooms: int) -> tuple[Array, Array, Array]:
    if drawn is None:
        nothing = np.zeros((0, 0, STEPS_PER_DAY))
        return nothing, np.zeros((rooms, 3)), nothing
    limits = np.column_stack([drawn.above_k, drawn.band_k, drawn.only_cooler])
    return drawn.conductance, limits, drawn.outdoor_k
