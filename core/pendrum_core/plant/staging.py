"""Units that share a load: boilers, chillers and heat pumps at every step, whatever steps these are.

A unit's efficiency is a table over part load and a temperature (of the return for boilers, outdoors for machines that reject heat to
or take it from the air), bilinear and held at its edges. Below its least part load a unit cycles there for a share of the time.
Sources: EN 15316-4-1 (part load and standstill of boilers, structure), EN 14825 (cycling). Efficiencies of boilers are on the net
calorific value.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]
IN_TURN, EQUAL, FEWEST, BEST = "in turn", "equal", "fewest", "best"
STAGINGS = (IN_TURN, EQUAL, FEWEST, BEST)
MOST_UNITS = 8  # of one plant; "best" tries every set of them


@dataclass(frozen=True)
class EfficiencyTable:
    """Output over what goes in, by part load (rows) and temperature (columns), both ascending.

    Raises:
        ValueError: sizes that do not fit, or an axis that does not rise.
    """

    part_load: tuple[float, ...]
    temperature_c: tuple[float, ...]
    efficiency: tuple[tuple[float, ...], ...]

    def __post_init__(self) -> None:
        if len(self.efficiency) != len(self.part_load) or any(
            len(r) != len(self.temperature_c) for r in self.efficiency
        ):
            raise ValueError("the efficiency table has another size than its axes")
        for axis in (self.part_load, self.temperature_c):
            if any(b <= a for a, b in zip(axis, axis[1:], strict=False)):
                raise ValueError("part loads and temperatures of an efficiency table must rise")

    def at(self, part_load: ArrayLike, temperature_c: ArrayLike) -> Array:
        """Bilinear, held at the edges [-]."""
        table = np.array(self.efficiency)
        p, t = np.broadcast_arrays(np.asarray(part_load, dtype=float), np.asarray(temperature_c, dtype=float))
        (i, x), (j, y) = _place(self.part_load, p), _place(self.temperature_c, t)
        i1, j1 = np.minimum(i + 1, len(self.part_load) - 1), np.minimum(j + 1, len(self.temperature_c) - 1)
        low = table[i, j] + y * (table[i, j1] - table[i, j])
        return np.asarray(low + x * (table[i1, j] + y * (table[i1, j1] - table[i1, j]) - low))


def _place(axis: tuple[float, ...], value: Array) -> tuple[NDArray[np.int64], Array]:
    """Index of the point at or below a value, and the share of the way to the next."""
    points = np.array(axis)
    held = np.clip(value, points[0], points[-1])
    index = np.clip(np.searchsorted(points, held, side="right") - 1, 0, max(len(points) - 2, 0))
    if len(points) == 1:
        return index, np.zeros_like(held)
    return index, (held - points[index]) / (points[index + 1] - points[index])


@dataclass(frozen=True)
class Unit:
    """A unit of a plant.

    Attributes:
        nominal_w: largest output.
        least_part: part load below which it cycles [-].
        idle_share: of its nominal output, lost as fuel while it stands by [-].
        running_w, running_w_w: auxiliaries while it runs [W], and by output [W/W]; `resting_w` while it does not.
    """

    name: str
    nominal_w: float
    table: EfficiencyTable
    least_part: float = 0.0
    idle_share: float = 0.0
    running_w: float = 0.0
    running_w_w: float = 0.0
    resting_w: float = 0.0

    def taken(self, output_w: Array, temperature_c: Array, kept_warm: bool) -> tuple[Array, Array]:
        """Fuel or power that goes in for an output, and electricity of auxiliaries [W]."""
        least = self.least_part * self.nominal_w
        runs = output_w > 0.0
        # Share of the time for which it fires.
        x = np.where(output_w < least, output_w / max(least, 1e-9), 1.0)
        part = np.maximum(output_w, least) / max(self.nominal_w, 1e-9)
        idle = self.idle_share * self.nominal_w
        fuel = np.where(
            runs, output_w / self.table.at(part, temperature_c) + (1.0 - x) * idle, idle if kept_warm else 0.0
        )
        firing = self.running_w + self.running_w_w * np.maximum(output_w, least)
        return fuel, np.where(runs, x * firing + (1.0 - x) * self.resting_w, self.resting_w)


@dataclass(frozen=True)
class Staged:
    """A plant at every step: outputs, fuel or power and auxiliaries by unit (units, steps), and what it cannot give (steps) [W]."""

    output_w: Array
    fuel_w: Array
    auxiliary_w: Array
    unmet_w: Array


def stage(
    units: Sequence[Unit], load_w: ArrayLike, temperature_c: ArrayLike, rule: str = IN_TURN, kept_warm: bool = False
) -> Staged:
    """Share a load [W] of any shape among units, in their order; `temperature_c` is one for all, or each unit's own (units, steps).

    "in turn": each to its nominal output, then the next; "equal": all by nominal output; "fewest": the smallest number that covers
    the load, by nominal output; "best": of all sets that cover it the one that takes least, by nominal output.

    Raises:
        ValueError: no unit, too many, or no such rule.
    """
    if not 1 <= len(units) <= MOST_UNITS:
        raise ValueError(f"a plant has 1 to {MOST_UNITS} units, not {len(units)}")
    if rule not in STAGINGS:
        raise ValueError(f"staging {rule!r} is none of {', '.join(STAGINGS)}")
    load = np.maximum(np.asarray(load_w, dtype=float), 0.0)
    temperature = np.broadcast_to(np.asarray(temperature_c, dtype=float), (len(units), *load.shape))
    nominal = np.array([unit.nominal_w for unit in units])
    met = np.minimum(load, nominal.sum())
    if rule == IN_TURN:
        before = np.concatenate([[0.0], np.cumsum(nominal)[:-1]])
        output = np.clip(met - _up(before, load), 0.0, _up(nominal, load))
    elif rule == EQUAL:
        output = _shared(nominal, np.ones(len(units)), met)
    elif rule == FEWEST:
        count = np.searchsorted(np.cumsum(nominal), met * (1.0 - 1e-12)) + 1
        output = np.zeros((len(units), *load.shape))
        for k in range(1, len(units) + 1):
            output = np.where(count == k, _shared(nominal, np.arange(len(units)) < k, met), output)
    else:
        output = _best(units, nominal, met, temperature, kept_warm)
    output = np.where(load > 0.0, output, 0.0)
    taken = [unit.taken(row, t, kept_warm) for unit, row, t in zip(units, output, temperature, strict=True)]
    return Staged(output, np.stack([fuel for fuel, _ in taken]), np.stack([power for _, power in taken]), load - met)


def _up(values: Array, load: Array) -> Array:
    return values.reshape(-1, *([1] * load.ndim))


def _shared(nominal: Array, among: ArrayLike, met: Array) -> Array:
    """By nominal output among some of the units."""
    part = nominal * np.asarray(among, dtype=float)
    return _up(part / max(float(part.sum()), 1e-9), met) * met


def _best(units: Sequence[Unit], nominal: Array, met: Array, temperature: Array, kept_warm: bool) -> Array:
    best = _shared(nominal, np.ones(len(units)), met)
    least = np.full(met.shape, np.inf)
    for size in range(1, len(units) + 1):
        for chosen in combinations(range(len(units)), size):
            among = np.isin(np.arange(len(units)), chosen)
            output = _shared(nominal, among, met)
            fuel = sum(
                unit.taken(row, t, kept_warm)[0] for unit, row, t in zip(units, output, temperature, strict=True)
            )
            better = (nominal[list(chosen)].sum() >= met * (1.0 - 1e-12)) & (fuel < least * (1.0 - 1e-12))
            least = np.where(better, fuel, least)
            best = np.where(better, output, best)
    return best
