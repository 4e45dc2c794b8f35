"""Bills of a year of hours: energy by bands of time or by monthly blocks, demand with a ratchet, standing charge, levy, tax; emissions.

Prices are invented or the user's own; the arithmetic is the usual one. Gas and other fuels are billed on the gross value.

Source: arithmetic of tariffs by definition.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]
REST = "other hours"


@dataclass(frozen=True)
class Band:
    """Hours of a price: months (1..12), weekdays (0 is Monday) and hours of the day from and to; of two bands the first counts.

    Raises:
        ValueError: hours that do not rise within the day.
    """

    name: str
    months: frozenset[int]
    weekdays: frozenset[int]
    start_h: int
    end_h: int
    price_kwh: float

    def __post_init__(self) -> None:
        if not 0 <= self.start_h < self.end_h <= 24:
            raise ValueError(
                f"band {self.name!r}: hours {self.start_h} to {self.end_h} do not lie in this order within a day"
            )


@dataclass(frozen=True)
class Tariff:
    """What a carrier costs.

    Attributes:
        bands: prices by time; `price_kwh` in all other hours. Where `blocks` are given they take the place of both: (up to so many kWh
            of a month, price), the last without an end.
        demand_price_kw_month: on the highest hourly mean of a month within `demand_bands` (empty: at any time); billed at least
            `ratchet_share` of the highest of the other eleven months.
        standing_day, levy_kwh, tax_share: per day, per kWh, on everything.
        emission_kg_kwh: of what is billed.
    """

    bands: tuple[Band, ...] = ()
    price_kwh: float = 0.0
    blocks: tuple[tuple[float | None, float], ...] = ()
    demand_price_kw_month: float = 0.0
    demand_bands: tuple[str, ...] = ()
    ratchet_share: float = 0.0
    standing_day: float = 0.0
    levy_kwh: float = 0.0
    tax_share: float = 0.0
    emission_kg_kwh: float = 0.0


@dataclass(frozen=True)
class MonthBill:
    """A month's bill: kWh by band, and money by part before tax; `peak_kw` within the demand's hours, `billed_kw` what counts of it."""

    month: int
    kwh: Mapping[str, float]
    peak_kw: float
    billed_kw: float
    energy: float
    demand: float
    standing: float
    levy: float
    tax: float

    @property
    def total(self) -> float:
        """With tax."""
        return self.energy + self.demand + self.standing + self.levy + self.tax


def hour_calendar(year: int, count: int) -> tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.int64]]:
    """Month 1..12, weekday (0 is Monday) and hour of the day [h] of every hour from 1 January."""
    first = date(year, 1, 1)
    days = [first + timedelta(d) for d in range(-(-count // 24))]
    month, weekday = np.array([day.month for day in days]), np.array([day.weekday() for day in days])
    return np.repeat(month, 24)[:count], np.repeat(weekday, 24)[:count], np.arange(count) % 24


def bands_of(tariff: Tariff, year: int, count: int) -> NDArray[np.int64]:
    """Place of each hour's band; the number of bands for other hours."""
    month, weekday, hour = hour_calendar(year, count)
    found = np.full(count, len(tariff.bands))
    for place in reversed(range(len(tariff.bands))):
        band = tariff.bands[place]
        inside = np.isin(month, list(band.months)) & np.isin(weekday, list(band.weekdays))
        found[inside & (hour >= band.start_h) & (hour < band.end_h)] = place
    return found


def bills(tariff: Tariff, kw: ArrayLike, year: int) -> list[MonthBill]:
    """Bills of January to December for hourly means [kW].

    Raises:
        ValueError: a demand band that the tariff does not have.
    """
    load = np.asarray(kw, dtype=float)
    names = [band.name for band in tariff.bands]
    if unknown := set(tariff.demand_bands) - {*names, REST}:
        raise ValueError(f"the demand is measured in {', '.join(sorted(unknown))}, which is none of the tariff's bands")
    month, _, _ = hour_calendar(year, len(load))
    band = bands_of(tariff, year, len(load))
    measured = np.ones(len(load), dtype=bool)
    if tariff.demand_bands:
        measured = np.isin(band, [place for place, name in enumerate([*names, REST]) if name in tariff.demand_bands])
    peaks = [float(load[(month == m) & measured].max(initial=0.0)) for m in range(1, 13)]
    return [_month(tariff, m, load[month == m], band[month == m], [*names, REST], peaks) for m in range(1, 13)]


def _month(
    tariff: Tariff, month: int, load: Array, band: NDArray[np.int64], names: Sequence[str], peaks: Sequence[float]
) -> MonthBill:
    whole, kwh = float(load.sum()), dict.fromkeys(names, 0.0)
    energy = 0.0
    for place, name in enumerate(names):
        used = float(load[band == place].sum())
        kwh[name] += used
        energy += used * (tariff.bands[place].price_kwh if place < len(tariff.bands) else tariff.price_kwh)
    if tariff.blocks:
        energy = in_blocks(tariff.blocks, whole)
    others = max((peak for m, peak in enumerate(peaks, 1) if m != month), default=0.0)
    billed = max(peaks[month - 1], tariff.ratchet_share * others)
    demand, standing, levy = (
        billed * tariff.demand_price_kw_month,
        len(load) / 24 * tariff.standing_day,
        whole * tariff.levy_kwh,
    )
    tax = tariff.tax_share * (energy + demand + standing + levy)
    return MonthBill(
        month,
        kwh,
        peak_kw=peaks[month - 1],
        billed_kw=billed,
        energy=energy,
        demand=demand,
        standing=standing,
        levy=levy,
        tax=tax,
    )


def in_blocks(blocks: Sequence[tuple[float | None, float]], kwh: float) -> float:
    """Price of a month's energy in blocks."""
    cost, from_kwh = 0.0, 0.0
    for limit, price in blocks:
        end = np.inf if limit is None else limit
        cost += max(0.0, min(kwh, end) - from_kwh) * price
        from_kwh = end
    return cost


def emissions_kg(tariff: Tariff, kw: ArrayLike, factor_kg_kwh: ArrayLike | None = None) -> float:
    """Of a year, by one factor or by one for every hour [kg]."""
    factor = tariff.emission_kg_kwh if factor_kg_kwh is None else np.asarray(factor_kg_kwh)
    return float((np.asarray(kw) * factor).sum())
