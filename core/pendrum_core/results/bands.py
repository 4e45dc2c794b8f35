"""Of what a room asks, the part that one of its emitters gives."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray


@dataclass(frozen=True)
class Band:
    """What lies above `low_w`, up to `high_w` [W]."""

    low_w: float
    high_w: float


def within(watts: ArrayLike, band: Band | None) -> NDArray[np.float64]:
    """The part of what a room asks that lies in a band; all of it without one [W]. Source: see run/sharing.py."""
    asked = np.asarray(watts, dtype=float)
    return asked if band is None else np.asarray(np.maximum(np.minimum(asked, band.high_w) - band.low_w, 0.0))
