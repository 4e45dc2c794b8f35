"""The thermostat's day: what the plant does at every step so that set-points and its own limits are kept.

With the room's answer to a watt (room/kernel.py) the day is a small problem: temperature = what it would be without
plant + answer to everything that the plant and drawn-in air bring. Step after step the plant gives what the set-point
asks, within its limits; the day repeats, so the march goes round until nothing changes any more. Effects within a
block of steps are followed as they arise, those on the rest of the day are added for the whole block at once.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.kernel import Kernel, convolved
from pendrum_core.room.mixing import Mixing

Array = NDArray[np.float64]
Ints = NDArray[np.int64]
_BLOCK = 12
_ROUNDS = 200
_SETTLED = 1e-6
_KEPT_K = 1e-4


@dataclass(frozen=True)
class Windows:
    """Warm-ups (sign +1) or pull-downs (sign -1) of the same hours: constant power from step `begin` for `length` steps,
    so that the end of the last one meets `target_k`; (P,) rooms, days and targets.
    """

    begin: int
    length: int
    sign: float
    rooms: Ints
    days: Ints
    target_k: Array

    @property
    def steps(self) -> Ints:
        """The steps of the day that are taken up."""
        return (self.begin + np.arange(self.length)) % STEPS_PER_DAY


@dataclass(frozen=True)
class Drawn:
    """Drawn-in outdoor air: conductance when fully open (R, M, 144) [W/K], limits (R,), outdoor temperature (M, 144).

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
    """

    kernel: Kernel
    free_w: Array
    free_surfaces_k: Array
    low_k: Array
    high_k: Array
    most_heating_w: Array
    most_cooling_w: Array
    radiant_weight: Array
    windows: Sequence[Windows] = ()
    drawn: Drawn | None = None
    given_w: Array | None = None


@dataclass(frozen=True)
class Marched:
    """Courses (R, M, 144): plant power into the air (heating positive) and heat of drawn-in air [W], temperatures [K]."""

    plant_w: Array
    drawn_w: Array
    air_k: Array
    sensed_k: Array
    settled: NDArray[np.bool_]


def opened(air_k: Array, drawn: Drawn, step: int) -> Array:
    """Heat that drawn-in air brings at an air temperature, (R, M) [W]."""
    open_share = np.clip((air_k - drawn.above_k[:, None]) / drawn.band_k[:, None], 0.0, 1.0)
    out = drawn.outdoor_k[:, :, step]
    share = np.where(drawn.only_cooler[:, None] & (out >= air_k), 0.0, open_share)
    return np.asarray(drawn.conductance[:, :, step] * share * (out - air_k))


def balanced(base_k: Array, answer: Array, drawn: Drawn, step: int) -> Array:
    """Heat of drawn-in air at the temperature that it brings about itself, (R, M) [W].

    Between closed and fully open the flow grows with the temperature, so that a quadratic gives the balance.
    """
    above, band = drawn.above_k[:, None], drawn.band_k[:, None]
    out, g = drawn.outdoor_k[:, :, step], drawn.conductance[:, :, step] * answer
    whole = (base_k + g * out) / (1.0 + g)
    a, b = g / band, 1.0 - g * (above + out) / band
    c = g * above * out / band - base_k
    root = np.sqrt(np.maximum(b * b - 4.0 * a * c, 0.0))
    partly = np.where(a > 1e-12, (root - b) / np.maximum(2.0 * a, 1e-12), base_k)
    air = np.where(whole >= above + band, whole, partly)
    shut = (base_k <= above) | (drawn.only_cooler[:, None] & (out >= base_k))
    return np.asarray(np.where(shut, 0.0, (air - base_k) / answer))


class _March:
    """One march over some rooms; the day's steps are the first axis of its arrays: (144, R, M)."""

    def __init__(self, task: Task) -> None:
        self.task = task
        self.z, self.z_end = task.kernel.air, task.kernel.end
        self.free_air_k = convolved(self.z, task.free_w)
        self.free_end_k = convolved(self.z_end, task.free_w)
        if task.radiant_weight.any():
            self.free_end_k += task.radiant_weight[:, None, None] * task.free_surfaces_k
        self.low, self.high = _steps_first(task.low_k), _steps_first(task.high_k)
        self.most, self.least = task.most_heating_w[:, None], -task.most_cooling_w[:, None]
        self.limited = bool(np.isfinite(self.most).any() or np.isfinite(self.least).any())
        shape = self.low.shape
        # Where the thermostat does not decide: windows of constant power, and plants that are told.
        self.fixed = np.full(shape, np.nan) if task.given_w is None else _steps_first(task.given_w)
        self.begins: dict[int, list[Windows]] = {}
        for some in task.windows:
            self.begins.setdefault(some.begin, []).append(some)
            self.fixed[some.steps[:, None], some.rooms, some.days] = 0.0
        self.is_fixed: NDArray[np.bool_] = np.asarray(~np.isnan(self.fixed).all(axis=(1, 2)))
        # Answers to a block's steps over a day that begins with the block.
        at = (np.arange(STEPS_PER_DAY)[None, :] - np.arange(_BLOCK)[:, None]) % STEPS_PER_DAY
        self.block_end = self.z_end[:, at]
        self.block = self.z[:, at] if task.drawn is not None else self.block_end
        # The same within the block, laid out for every day: operands of one shape are what makes the steps quick.
        self.near_end = _for_every_day(self.z_end, shape)
        self.near = _for_every_day(self.z, shape) if task.drawn is not None else self.near_end
        # To begin with what would keep the set-points if they lasted for ever.
        end = _steps_first(self.free_end_k)
        lasting = (np.clip(end, self.low, self.high) - end) / self.z_end.sum(axis=1)[:, None]
        self.x = np.clip(lasting, self.least, self.most)
        self.plant, self.drawn_w = np.zeros(shape), np.zeros(shape)

    def run(self) -> Marched:
        """Go round until every room has settled."""
        memory = Mixing()
        settled = np.zeros(self.x.shape[1], dtype=bool)
        for _ in range(_ROUNDS):
            before = [values.copy() for values in (self.x, self.plant, self.drawn_w)]
            self._round()
            # A room that has settled stays as it is, whatever its neighbours in the task still do.
            for values, old in zip((self.x, self.plant, self.drawn_w), before, strict=True):
                values[:, settled] = old[:, settled]
            change = np.abs(self.x - before[0]).max(axis=(0, 2))
            settled |= change <= _SETTLED * np.maximum(np.abs(self.x).max(axis=(0, 2)), 1.0)
            if settled.all():
                break
            mixed = memory.mixed(before[0], self.x)
            self.x = np.where(settled[:, None], self.x, mixed)
        x = np.moveaxis(self.x, 0, -1)
        # Once more as a whole: no rounding of many rounds is left in the temperatures.
        air = self.free_air_k + convolved(self.z, x)
        end = self.free_end_k + convolved(self.z_end, x)
        plant, drawn_w = (np.ascontiguousarray(np.moveaxis(values, 0, -1)) for values in (self.plant, self.drawn_w))
        return Marched(plant, drawn_w, air, end, settled & self._kept(end, plant))

    def _kept(self, sensed: Array, plant: Array) -> NDArray[np.bool_]:
        """Whether set-points are kept wherever the plant is free to keep them, (R,)."""
        task = self.task
        free = np.isnan(np.moveaxis(self.fixed, 0, -1))
        below, above = task.low_k - sensed, sensed - task.high_k
        missed = (plant < self.most[:, None]) & (below > _KEPT_K) | (plant > self.least[:, None]) & (above > _KEPT_K)
        needless = (plant > 0.0) & (below < -_KEPT_K) | (plant < 0.0) & (above < -_KEPT_K)
        return np.asarray(~(free & (missed | needless)).any(axis=(1, 2)))

    def _round(self) -> None:
        """One day: every step decided with the effect of all others as they stand."""
        with_air = self.task.drawn is not None
        # What everything does to the temperatures now; within the day it is kept up block by block.
        now = np.moveaxis(self.x, 0, -1)
        end = self.free_end_k + convolved(self.z_end, now)
        air = self.free_air_k + convolved(self.z, now) if with_air else end
        own, own_end = self.near[0], self.near_end[0]
        for start in range(0, STEPS_PER_DAY, _BLOCK):
            block = slice(start, start + _BLOCK)
            near_end = _steps_first(end[:, :, block])
            near = _steps_first(air[:, :, block]) if with_air else near_end
            deltas = np.empty_like(near_end)
            for j in range(_BLOCK):
                step = start + j
                for some in self.begins.get(step, ()):
                    power = self._window_power(some, end, deltas[:j], start)
                    self.fixed[some.steps[:, None], some.rooms, some.days] = power
                before = self.x[step]
                base_end = near_end[j] - own_end * before
                if with_air:
                    x = self._decide_with_drawn(step, near[j] - own * before, base_end, own, own_end)
                else:
                    x = self._decide(step, base_end, own_end)
                delta = deltas[j] = x - before
                self.x[step] = x
                for later in range(j + 1, _BLOCK):
                    near_end[later] += delta * self.near_end[later - j]
                    if with_air:
                        near[later] += delta * self.near[later - j]
            moved = np.ascontiguousarray(np.moveaxis(deltas, 0, -1))
            # Only what is still to come this day: the next round begins with everything worked out anew.
            ahead, reach = slice(start + _BLOCK, None), slice(_BLOCK, STEPS_PER_DAY - start)
            end[:, :, ahead] += moved @ self.block_end[:, :, reach]
            if with_air:
                air[:, :, ahead] += moved @ self.block[:, :, reach]

    def _window_power(self, some: Windows, end: Array, deltas: Array, start: int) -> Array:
        """Power of warm-ups that begin now, so that they end at their targets, (P,).

        `end` has the effect of everything but the `deltas` since step `start`.
        """
        rooms, days = some.rooms, some.days
        last = some.begin + some.length - 1
        base = end[rooms, days, last % STEPS_PER_DAY].copy()
        for j, delta in enumerate(deltas):
            base += delta[rooms, days] * self.z_end[rooms, (last - start - j) % STEPS_PER_DAY]
        reach = self.z_end[rooms, : some.length][:, ::-1]
        base -= np.einsum("pk,kp->p", reach, self.x[some.steps[:, None], rooms, days])
        most = (self.task.most_heating_w if some.sign > 0 else self.task.most_cooling_w)[rooms]
        return np.asarray(some.sign * np.clip(some.sign * (some.target_k - base) / reach.sum(axis=1), 0.0, most))

    def _decide(self, step: int, base: Array, answer: Array) -> Array:
        """Heat brought to the air at one step, (R, M), where nothing is drawn in."""
        x = (np.clip(base, self.low[step], self.high[step]) - base) / answer
        if self.limited:
            x = np.clip(x, self.least, self.most)
        if self.is_fixed[step]:
            fixed = self.fixed[step]
            x = np.where(np.isnan(fixed), x, fixed)
        self.plant[step] = x
        return np.asarray(x)

    def _decide_with_drawn(self, step: int, base: Array, base_end: Array, answer: Array, end_answer: Array) -> Array:
        """The same with outdoor air drawn in by the room's own temperature."""
        drawn, low, high = self.task.drawn, self.low[step], self.high[step]
        assert drawn is not None
        floating = balanced(base, answer, drawn, step)
        sensed = base_end + end_answer * floating
        held = (sensed < low) | (sensed > high)
        x = np.where(held, (np.clip(sensed, low, high) - base_end) / end_answer, floating)
        drawn_w = np.where(held, opened(base + answer * x, drawn, step), floating)
        plant = np.where(held, x - drawn_w, 0.0)
        bounded = np.clip(plant, self.least, self.most)
        fixed = self.fixed[step]
        bounded = np.where(np.isnan(fixed), bounded, fixed)
        bound = bounded != plant
        if bound.any():
            drawn_w = np.where(bound, balanced(base + answer * bounded, answer, drawn, step), drawn_w)
            x = np.where(bound, bounded + drawn_w, x)
        self.plant[step], self.drawn_w[step] = bounded, drawn_w
        return np.asarray(x)


def _for_every_day(answer: Array, shape: tuple[int, ...]) -> Array:
    """The first answers of rooms (R, 144) as (block, R, M)."""
    return np.ascontiguousarray(np.broadcast_to(answer[:, :_BLOCK].T[:, :, None], (_BLOCK, *shape[1:])))


def _steps_first(values: Array) -> Array:
    return np.ascontiguousarray(np.moveaxis(values, -1, 0))


def march(task: Task) -> Marched:
    """Find the plant's day for every room and day of a task."""
    return _March(task).run()
