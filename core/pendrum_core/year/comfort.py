"""Adaptive limits of comfort in buildings without mechanical cooling.

Source: EN 16798-1:2019, annex B.2.2, formulas B.1 and B.2: with the running mean outdoor temperature
rm = (1 - 0.8)(day before + 0.8 two days before + 0.8² ...) the middle of comfort is 0.33 rm + 18.8 °C of operative temperature,
and limits stand around it by category. They hold for a running mean of 10 to 30 °C.
"""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
ALPHA = 0.8
LEAST_RUNNING_C, MOST_RUNNING_C = 10.0, 30.0
# By category: how far the operative temperature may be above the middle, and below [K].
CATEGORIES: Mapping[str, tuple[float, float]] = {"I": (2.0, 3.0), "II": (3.0, 4.0), "III": (4.0, 5.0)}


def running_mean_c(dry_bulb_c: Array) -> Array:
    """Running mean outdoor temperature of every day [°C] from hourly values of whole days; the year repeats, so January follows December.

    Source: EN 16798-1:2019, formula B.1.
    """
    days = np.asarray(dry_bulb_c).reshape(-1, 24).mean(axis=1)
    # A first-order lag of a course that repeats, by its harmonics: y[n] = (1 - a) x[n-1] + a y[n-1].
    shift = np.exp(-2j * np.pi * np.fft.rfftfreq(days.size))
    lag = (1.0 - ALPHA) * shift / (1.0 - ALPHA * shift)
    return np.asarray(np.fft.irfft(np.fft.rfft(days) * lag, days.size))


def adaptive_hours(operative_c: Array, running_c: Array, there: NDArray[np.bool_]) -> dict[str, tuple[int, int]]:
    """Occupied hours above the upper and below the lower limit, by category [h].

    `running_c` is by day; above 30 °C and below 10 °C it counts as these. Below 10 °C, where buildings are heated, no lower limit
    holds.

    Source: EN 16798-1:2019, formula B.2 and figure B.1.
    """
    running = np.repeat(running_c, 24)[: operative_c.size]
    middle = 0.33 * np.clip(running, LEAST_RUNNING_C, MOST_RUNNING_C) + 18.8
    free = running >= LEAST_RUNNING_C
    return {
        name: (
            int((there & (operative_c > middle + above)).sum()),
            int((there & free & (operative_c < middle - below)).sum()),
        )
        for name, (above, below) in CATEGORIES.items()
    }
