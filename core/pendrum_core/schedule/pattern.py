"""A day pattern: piecewise constant from 00:00 to 24:00.

Source: means by definition.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.constants import STEPS_PER_DAY

Array = NDArray[np.float64]
MINUTES_PER_DAY = 1440


@dataclass(frozen=True)
class DayPattern:
    """A pattern as (until_minute, value) pairs, until_minute rising and ending at 1440.

    Raises:
        ValueError: the minutes do not rise to 1440.
    """

    steps: tuple[tuple[int, float], ...]

    def __post_init__(self) -> None:
        previous = 0
        for until, _ in self.steps:
            if not previous < until <= MINUTES_PER_DAY:
                raise ValueError(f"until_minute {until} must lie after {previous} and not after 1440")
            previous = until
        if previous != MINUTES_PER_DAY:
            raise ValueError(f"the pattern ends at minute {previous}; it must end at 1440 (24:00)")


def constant(value: float) -> DayPattern:
    """The same value all day."""
    return DayPattern(((MINUTES_PER_DAY, value),))


CONSTANT_ONE = constant(1.0)


@lru_cache(maxsize=4096)
def _averages(pattern: DayPattern, steps: int) -> Array:
    width = MINUTES_PER_DAY // steps
    minutes = np.empty(MINUTES_PER_DAY)
    start = 0
    for until, value in pattern.steps:
        minutes[start:until] = value
        start = until
    averages = minutes.reshape(steps, width).mean(axis=1)
    averages.setflags(write=False)
    return np.asarray(averages)


def step_averages(pattern: DayPattern, steps: int = STEPS_PER_DAY) -> Array:
    """Average of the pattern over each step of the day [as given], shape (steps,), read-only."""
    return _averages(pattern, steps)


def where_on(on: DayPattern, inside: DayPattern, outside: float) -> DayPattern:
    """`inside` while `on` is more than a half, `outside` else."""
    ends = sorted({until for until, _ in on.steps} | {until for until, _ in inside.steps})
    return DayPattern(tuple((t, _before(inside, t) if _before(on, t) > 0.5 else outside) for t in ends))


def crossings(low: DayPattern, high: DayPattern) -> tuple[tuple[int, int], ...]:
    """Minutes of the day, from and until, in which one pattern is above another."""
    ends = sorted({until for until, _ in low.steps} | {until for until, _ in high.steps})
    found: list[tuple[int, int]] = []
    for start, end in zip([0, *ends[:-1]], ends, strict=True):
        if _before(low, end) > _before(high, end):
            if found and found[-1][1] == start:
                start = found.pop()[0]
            found.append((start, end))
    return tuple(found)


def multiplied(one: DayPattern, other: DayPattern, factor: float = 1.0) -> DayPattern:
    """Product of two patterns, times a factor."""
    ends = sorted({until for until, _ in one.steps} | {until for until, _ in other.steps})
    return DayPattern(tuple((until, _before(one, until) * _before(other, until) * factor) for until in ends))


def _before(pattern: DayPattern, minute: int) -> float:
    """Value just before a minute."""
    return next(value for until, value in pattern.steps if until >= minute)
