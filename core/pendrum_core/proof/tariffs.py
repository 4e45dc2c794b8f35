"""Proof of bills: time of use, demand with a ratchet, blocks, levy, tax, emissions.

Source: the formulas stand in the public reference case.
"""

from collections.abc import Iterator

import numpy as np

from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry
from pendrum_core.year.tariff import Band, Tariff, bills, emissions_kg

_CHAPTER, _SOURCE = "Bills", "worked by hand rules, apart from the program"
_YEAR, _HOURS = 2023, 8760
_ALL = frozenset(range(7))
_WORK = frozenset(range(5))


def profile() -> tuple[np.ndarray, np.ndarray]:
    """Electricity and gas (net) of the case's formulas [kW]."""
    k = np.arange(_HOURS)
    day, hour = k // 24, k % 24
    weekday = (day + 6) % 7  # 1 January is a Sunday
    t = 12 - 11 * np.cos(2 * np.pi * (day + 1 - 20) / 365) + 5 * np.sin(2 * np.pi * (hour + 0.5 - 9) / 24)
    work = (weekday < 5) & (hour >= 7) & (hour < 19)
    saturday = (weekday == 5) & (hour >= 9) & (hour < 13)
    first = (weekday == 0) & (hour == 7)
    return 12 + 38 * work + 15 * saturday + 1.8 * np.maximum(t - 18, 0) + 6 * first, 2.4 * np.maximum(15 - t, 0)


def _tariffs(case: Case) -> tuple[Tariff, Tariff]:
    t = case["inputs"]["tariff"]
    prices, winter = t["energy"]["price"], frozenset(t["energy"]["winter_months"])
    seasons = (("winter", winter), ("summer", frozenset(range(1, 13)) - winter))
    bands = tuple(
        Band(name, months, days, start, end, prices[season][name])
        for season, months in seasons
        for name, days, start, end in (
            ("peak", _WORK, 16, 20), ("shoulder", _WORK, 7, 16), ("shoulder", _WORK, 20, 22), ("off_peak", _ALL, 0, 24),
        )
    )  # fmt: skip
    demand, gas = t["demand"], t["gas"]
    electricity = Tariff(
        bands, 0.0, blocks=(), demand_price_kw_month=demand["price_per_kW_month"], demand_bands=("peak", "shoulder"), ratchet_share=demand["ratchet_share"], standing_day=t["standing_per_day"],
        levy_kwh=t["levy_per_kWh"], tax_share=t["tax_share"], emission_kg_kwh=t["emission"]["electricity_kg_kWh"],
    )  # fmt: skip
    blocks = tuple((limit, price) for limit, price in gas["blocks_per_month_kWh_gross"])
    return electricity, Tariff(
        blocks=blocks, standing_day=gas["standing_per_day"], levy_kwh=gas["levy_per_kWh"], tax_share=t["tax_share"],
        emission_kg_kwh=t["emission"]["gas_kg_kWh_gross"],
    )  # fmt: skip


def _near(name: str, want: float, found: float) -> Entry:
    return Entry(
        _CHAPTER,
        name,
        expected=want,
        found=found,
        quantity="ratio",
        within=max(0.001 * abs(want), 1e-9),
        source=_SOURCE,
    )


def tariff_entries(case: Case) -> Iterator[Entry]:
    """Every month's bills, and the year."""
    power, gas_net = profile()
    electricity, gas = _tariffs(case)
    gross = case["inputs"]["tariff"]["gross_over_net"] * gas_net
    of_power, of_gas = bills(electricity, power, _YEAR), bills(gas, gross, _YEAR)
    for want, p, g in zip(case["expected"]["months"], of_power, of_gas, strict=True):
        month = want["month"]
        for band, kwh in want["electricity_kWh"].items():
            yield _near(f"{month}, electricity, {band.replace('_', ' ')}, kWh", kwh, p.kwh[band])
        yield _near(f"{month}, demand billed, kW", want["billed_demand_kW"], p.billed_kw)
        parts = want["electricity_cost_before_tax"]
        for part, found in (("energy", p.energy), ("demand", p.demand), ("standing", p.standing), ("levy", p.levy)):
            yield _near(f"{month}, electricity, {part}", parts[part], found)
        yield _near(f"{month}, electricity bill", want["electricity_bill"], p.total)
        yield _near(f"{month}, gas bill", want["gas_bill"], g.total)
    year = case["expected"]["year"]
    yield _near("Electricity bills of the year", year["electricity_bills"], sum(bill.total for bill in of_power))
    yield _near("Gas bills of the year", year["gas_bills"], sum(bill.total for bill in of_gas))
    flat = year["emissions_flat_kg"]
    yield _near("Emissions of electricity, one factor, kg", flat["electricity"], emissions_kg(electricity, power))
    yield _near("Emissions of gas, kg", flat["gas"], emissions_kg(gas, gross))
    k = np.arange(_HOURS)
    n, hour = k // 24 + 1, k % 24
    factor = 0.31 * (1 + 0.25 * np.cos(2 * np.pi * (hour + 0.5 - 19) / 24) - 0.20 * np.sin(np.pi * (n - 80) / 182.5))
    hourly = emissions_kg(electricity, power, factor)
    yield _near("Emissions of electricity by the hour, kg", year["emissions_hourly_electricity_kg"], hourly)
