"""What a year counts of energy, water and the ground's heat."""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Single = NDArray[np.float32]
ELECTRICITY = "electricity"
HOT_WATER = "hot water"
NO_HEAT, NO_COLD = "heat without a plant", "cold without a plant"


class Meter:
    """Adds up energy by use and carrier; what plant takes of water stands in `water`, of ground in `extracted`.

    `pumps` holds the pumps of each circuit, and another pump that is asked about [W].
    """

    def __init__(self, hours: int) -> None:
        self._hours = hours
        self.rows: dict[tuple[str, str], Array] = {}
        self.water: dict[tuple[str, str], Single] = {}
        self.extracted: dict[tuple[str, str], Single] = {}
        self.pumps: dict[str, tuple[Single, Single | None]] = {}

    def add(self, use: str, carrier: str, watts: Array) -> None:
        """Count an hourly course."""
        key = (use, carrier)
        self.rows[key] = self.rows.get(key, np.zeros(self._hours)) + watts
