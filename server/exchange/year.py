"""A course of the year as CSV."""

import csv
import io
from datetime import datetime, timedelta
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from calculations.units import of_series
from calculations.year import interval_starts
from projects.errors import Refused

Interval = Literal["hour", "day", "month", "year"]
EnergyUnit = Literal["kWh", "MJ", "kBtu", "therm"]
_PER_WH: dict[str, float] = {"kWh": 1e-3, "MJ": 3.6e-3, "kBtu": 3.6 / 1055.05585262, "therm": 3.6e-2 / 1055.05585262}


def course_csv(
    name: str, values: NDArray[np.float64], year: int, interval: Interval, system: str, energy: EnergyUnit | None
) -> str:
    """Means over each interval with its beginning; of powers their energy where a unit of energy is asked for.

    Args:
        name: of the course, such as "room/…/air_c".
        values: hourly means, SI.
        system: "SI" or "IP", where no unit of energy is given.

    Raises:
        Refused: energy of what is no power.
    """
    label, unit, shown = of_series(name, values, system)
    if energy is not None and not name.endswith("_w") and name.split("/")[0] not in ("energy", "unit"):
        raise Refused("invalid", f"Energy in {energy} can be had of powers only; {label} is in {unit}.")
    if energy is not None:
        unit, shown = energy, values * _PER_WH[energy]
    starts = interval_starts(year, len(values), interval)
    whole = np.add.reduceat(shown, starts)
    if energy is None:
        whole = whole / np.diff([*starts, len(values)])
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["from", f"{label} [{unit}]"])
    first = datetime(year, 1, 1)
    for start, value in zip(starts.tolist(), whole.tolist(), strict=True):
        writer.writerow([(first + timedelta(hours=start)).strftime("%Y-%m-%d %H:%M"), f"{value:.4f}"])
    return out.getvalue()
