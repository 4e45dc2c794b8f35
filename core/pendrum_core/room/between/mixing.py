"""Anderson mixing: rounds of a fixed-point search put together, so that a few do the work of many.

Source: D. G. Anderson, Iterative procedures for nonlinear integral equations, J. ACM 12 (1965).
"""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
_DEPTH = 8  # rounds that are remembered


class Mixing:
    """Mixing of the last rounds of a vector."""

    def __init__(self) -> None:
        self.results: list[Array] = []
        self.residuals: list[Array] = []

    def mixed(self, before: Array, after: Array) -> Array:
        """A better guess than `after`, which a round made of `before`."""
        self.results.append(after.copy())
        self.residuals.append(after - before)
        if len(self.results) > _DEPTH + 1:
            self.results.pop(0)
            self.residuals.pop(0)
        if len(self.results) < 2:
            return after
        last = self.residuals[-1]
        steps = np.stack([last - earlier for earlier in self.residuals[:-1]])
        moves = np.stack([after - earlier for earlier in self.results[:-1]])
        normal = steps @ steps.T
        normal += (1e-12 * np.trace(normal) + 1e-30) * np.eye(len(steps))
        return np.asarray(after - np.linalg.solve(normal, steps @ last) @ moves)
