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
_LEAST_SHARE = 0.3


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
        nominal_w: largest output, of machines at the temperature that it is told at.
        output_c, output_share: two temperatures, and of `nominal_w` what it can give at them; None: all of it at any.
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
    output_c: tuple[float, float] | None = None
    output_share: tuple[float, float] = (1.0, 1.0)

    def most_w(self, temperature_c: Array) -> Array:
        """What it can give at a temperature [W]: by the line through both shares, never below three tenths.

        Source: EN 14825 (declared capacities between the points by straight lines).
        """
        if self.output_c is None:
            return np.full(np.shape(temperature_c), self.nominal_w)
        (cool, warm), (at_cool, at_warm) = self.output_c, self.output_share
        share = at_cool + (temperature_c - cool) / (warm - cool) * (at_warm - at_cool)
        return np.asarray(self.nominal_w * np.maximum(share, _LEAST_SHARE))

    def taken(
        self,
        output_w: Array,
        temperature_c: Array,
        kept_warm: ArrayLike,
        better: Array | float = 1.0,
        free: Array | float = 1.0,
    ) -> tuple[Array, Array]:
        """Fuel or power that goes in for an output, and electricity of auxiliaries [W].

        `better` multiplies its efficiency; `free` is the share of the time that it has for this [-].
        """
        most = self.most_w(temperature_c) * free
        least = self.least_part * most
        runs = output_w > 0.0
        # Share of the time for which it fires.
        x = np.where(output_w < least, output_w / np.maximum(least, 1e-9), 1.0)
        part = np.maximum(output_w, least) / np.maximum(most, 1e-9)
        idle = self.idle_share * self.nominal_w
        fuel = np.where(
            runs,
            output_w / (self.table.at(part, temperature_c) * better) + (1.0 - x) * idle,
            np.where(kept_warm, idle, 0.0),
        )
        firing = self.running_w + self.running_w_w * np.maximum(output_w, least)
        return fuel, np.where(runs, x * firing + (1.0 - x) * self.resting_w, self.resting_w)


@dataclass(frozen=True)
class Staged:
    """A plant at every step: outputs, fuel or power and auxiliaries by unit (units, steps), and what it cannot give (steps) [W].

    `used` is the share of what each could give at that step, (units, steps) [-].
    """

    output_w: Array
    fuel_w: Array
    auxiliary_w: Array
    unmet_w: Array
    used: Array


def stage(
    units: Sequence[Unit],
    load_w: ArrayLike,
    temperature_c: ArrayLike,
    rule: str = IN_TURN,
    kept_warm: ArrayLike = False,
    better: ArrayLike = 1.0,
    free: ArrayLike = 1.0,
) -> Staged:
    """Share a load [W] of any shape among units, in their order; `temperature_c` is one for all, or each unit's own (units, steps),
    as are `better`, which multiplies their efficiencies, and `free`, the share of the time that a unit has for this load;
    `kept_warm` is one for all steps, or of each.

    "in turn": each to what it can give, then the next; "equal": all by what they can give; "fewest": the smallest number that covers
    the load, so shared; "best": of all sets that cover it the one that takes least, so shared.

    Raises:
        ValueError: no unit, too many, or no such rule.
    """
    if not 1 <= len(units) <= MOST_UNITS:
        raise ValueError(f"a plant has 1 to {MOST_UNITS} units, not {len(units)}")
    if rule not in STAGINGS:
        raise ValueError(f"staging {rule!r} is none of {', '.join(STAGINGS)}")
    load = np.maximum(np.asarray(load_w, dtype=float), 0.0)
    whole = (len(units), *load.shape)
    temperature, factor, left = (
        np.broadcast_to(np.asarray(v, dtype=float), whole) for v in (temperature_c, better, free)
    )
    whole_w = np.stack([unit.most_w(t) for unit, t in zip(units, temperature, strict=True)])
    most = whole_w * left
    met = np.minimum(load, most.sum(axis=0))
    if rule == IN_TURN:
        before = np.cumsum(most, axis=0) - most
        output = np.clip(met - before, 0.0, most)
    elif rule == EQUAL:
        output = _shared(most, np.ones(len(units)), met)
    elif rule == FEWEST:
        count = (np.cumsum(most, axis=0) < met * (1.0 - 1e-12)).sum(axis=0) + 1
        output = np.zeros(whole)
        for k in range(1, len(units) + 1):
            output = np.where(count == k, _shared(most, np.arange(len(units)) < k, met), output)
    else:
        output = _best(units, most, met, temperature, kept_warm, factor, left)
    output = np.where(load > 0.0, output, 0.0)
    taken = [
        unit.taken(row, t, kept_warm, f, of_time)
        for unit, row, t, f, of_time in zip(units, output, temperature, factor, left, strict=True)
    ]
    fuel, auxiliary = (np.stack(rows) for rows in zip(*taken, strict=True))
    return Staged(output, fuel, auxiliary, load - met, np.minimum(output / np.maximum(whole_w, 1e-9), 1.0))


def _shared(most: Array, among: ArrayLike, met: Array) -> Array:
    """By what they can give among some of the units."""
    part = most * np.asarray(among, dtype=float).reshape(-1, *([1] * met.ndim))
    return np.asarray(part / np.maximum(part.sum(axis=0), 1e-9) * met)


def _best(
    units: Sequence[Unit], most: Array, met: Array, temperature: Array, kept_warm: ArrayLike, factor: Array, free: Array
) -> Array:
    best = _shared(most, np.ones(len(units)), met)
    least = np.full(met.shape, np.inf)
    for size in range(1, len(units) + 1):
        for chosen in combinations(range(len(units)), size):
            among = np.isin(np.arange(len(units)), chosen)
            output = _shared(most, among, met)
            fuel = sum(
                unit.taken(row, t, kept_warm, f, of_time)[0]
                for unit, row, t, f, of_time in zip(units, output, temperature, factor, free, strict=True)
            )
            better = (most[list(chosen)].sum(axis=0) >= met * (1.0 - 1e-12)) & (fuel < least * (1.0 - 1e-12))
            least = np.where(better, fuel, least)
            best = np.where(better, output, best)
    return best
