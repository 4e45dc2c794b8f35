"""The thermostat's day: what the plant does at every step so that set-points and its own limits are kept.

With the room's answer to a watt (room/kernel.py) the day is a small problem: temperature = what it would be without
plant + answer to everything that the plant and drawn-in air bring. Step after step the plant gives what the set-point
asks, within its limits; the day repeats, so the march goes round until nothing changes any more (room/sweep.py).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.kernel import Kernel, convolved
from pendrum_core.room.sweep import settle_days

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
        free_w: heat that all sources bring to the air held at the reference, (R, M, 144).
        free_surfaces_k: mean surface temperature then, (R, M, 144).
        low_k, high_k: set-points, (R, M, 144); infinite where there is no heating or cooling.
        most_heating_w, most_cooling_w: limits of the plant, (R,); infinite where it is sized.
        radiant_weight: (R,).
        given_w: power of plants that are told what to give, NaN where a thermostat decides, (R, M, 144).
        plant_kernel: where a plant's watt is not one into the air.
    """

    kernel: Kernel
    free_w: Array
    free_surfaces_k: Array
    low_k: Array
    high_k: Array
    most_heating_w: Array
    most_cooling_w: Array
    radiant_weight: Array
    windows: Windows | None = None
    drawn: Drawn | None = None
    given_w: Array | None = None
    plant_kernel: Kernel | None = None


@dataclass(frozen=True)
class Marched:
    """Courses (R, M, 144): plant power into the air (heating positive) and heat of drawn-in air [W], temperatures [K]."""

    plant_w: Array
    drawn_w: Array
    air_k: Array
    sensed_k: Array
    settled: NDArray[np.bool_]


def march(task: Task) -> Marched:
    """Find the plant's day for every room and day of a task."""
    rooms, days, _ = shape = task.free_w.shape
    free_air = convolved(task.kernel.air, task.free_w)
    free_end = convolved(task.kernel.end, task.free_w)
    answer = task.plant_kernel or task.kernel
    z, z_end = answer.air, answer.end
    if task.radiant_weight.any():
        free_end += task.radiant_weight[:, None, None] * task.free_surfaces_k
    # Where the thermostat does not decide: windows of constant power, and plants that are told.
    fixed = np.full(shape, np.nan) if task.given_w is None else task.given_w.copy()
    first, windows, targets = _by_day(task.windows, rooms, days)
    conductance, limits, outdoor = _drawn(task.drawn, rooms)
    x, plant, drawn_w = np.zeros(shape), np.zeros(shape), np.zeros(shape)
    settled = np.zeros((rooms, days), dtype=np.bool_)
    most, least = task.most_heating_w, -task.most_cooling_w
    settle_days(
        free_air, free_end, z, z_end, task.low_k, task.high_k, most, least, fixed, first, windows, targets, conductance,
        limits, outdoor, x, plant, drawn_w, settled,
    )  # fmt: skip
    # Once more as a whole: no rounding of many rounds is left in the temperatures.
    air = free_air + convolved(z, x)
    end = free_end + convolved(z_end, x)
    if task.drawn is None:
        drawn_w = np.broadcast_to(0.0, shape)  # nothing is stored for what is not there
    return Marched(plant, drawn_w, air, end, settled.all(axis=1) & _kept(task, fixed, end, plant))


def _kept(task: Task, fixed: Array, sensed: Array, plant: Array) -> NDArray[np.bool_]:
    """Whether set-points are kept wherever the plant is free to keep them, (R,)."""
    most, least = task.most_heating_w[:, None, None], -task.most_cooling_w[:, None, None]
    below, above = task.low_k - sensed, sensed - task.high_k
    missed = (plant < most) & (below > _KEPT_K) | (plant > least) & (above > _KEPT_K)
    needless = (plant > 0.0) & (below < -_KEPT_K) | (plant < 0.0) & (above < -_KEPT_K)
    return np.asarray(~(np.isnan(fixed) & (missed | needless)).any(axis=(1, 2)))


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
