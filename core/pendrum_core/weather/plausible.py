"""Whether a year of hours belongs to its place: by the sun, which is known beforehand.

Values may each be possible and the year wrong all the same: stamped in UTC, begun in July, of another hemisphere, an hour
lost in spring and doubled in autumn. The irradiance of every month and of every day is held against the sun's height.
"""

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.times import MONTHS
from pendrum_core.weather.fault import Fault
from pendrum_core.weather.sun_hours import sun_at_hours
from pendrum_core.weather.year import WeatherYear

Array = NDArray[np.float64]
_CLEARLY_H = 0.75
_NIGHT_DEG, _NIGHT_W_M2, _NIGHT_HOURS = -12.0, 20.0, 40
_SEASONS_FROM_DEG = 15.0  # nearer to the equator all months are alike


def sun_faults(year: WeatherYear) -> list[Fault]:
    """What of a year's sun cannot be at its place; empty where all fits."""
    count = len(year.global_w_m2)
    elevation, _ = sun_at_hours(year.year, count, year.latitude_deg, year.longitude_deg, year.utc_offset_h)
    up = np.maximum(np.sin(np.radians(elevation)), 0.0)
    seasons = _wrong_season(year, up)
    if seasons:
        return seasons
    shifts = _best_shifts(year, up)
    found = _shifted(year, shifts)
    night = int(((elevation < _NIGHT_DEG) & (year.global_w_m2 > _NIGHT_W_M2)).sum())
    if not found and night > _NIGHT_HOURS:
        found.append(Fault(0, f"the sun shines at night in {night} hours; check the column of sun and the place"))
    return found


def _best_shifts(year: WeatherYear, up: Array) -> list[int]:
    """By how many hours the middle of each month's days runs after the sun's, by the mean hour of the irradiance; 0 where
    that is less than what clouds of mornings or afternoons make of it.
    """
    turned = np.exp(2j * np.pi * (np.arange(len(up)) % 24) / 24.0)
    result = []
    for month in range(1, 13):
        now = year.month_of == month
        measured, known = (year.global_w_m2[now] * turned[now]).sum(), (up[now] * turned[now]).sum()
        if abs(measured) < 1.0 or abs(known) < 1.0:
            result.append(0)  # a polar night
            continue
        hours = float(np.angle(measured / known)) * 12.0 / np.pi
        result.append(round(hours) if abs(hours) > _CLEARLY_H else 0)
    return result


def _shifted(year: WeatherYear, shifts: list[int]) -> list[Fault]:
    late = [(month, shift) for month, shift in enumerate(shifts) if shift]
    if not late:
        return []
    if len(late) >= 10 and len({shift for _, shift in late}) <= 2:
        shift = round(float(np.median([shift for _, shift in late])))
        way = "after" if shift > 0 else "before"
        return [
            Fault(
                0,
                f"the file's sun runs {abs(shift)} h {way} that of latitude {year.latitude_deg:g}°, longitude "
                f"{year.longitude_deg:g}°, UTC{year.utc_offset_h:+g}: its times may be in UTC or of hours ending, or the file is "
                "of another place",
            )
        ]
    named = ", ".join(f"{MONTHS[month]} {shift:+d} h" for month, shift in late)
    return [
        Fault(
            0, f"the sun does not run evenly through the year ({named}): hours are missing or double, or clocks change"
        )
    ]


def _wrong_season(year: WeatherYear, up: Array) -> list[Fault]:
    """Days by their sun: half a year apart where the file begins in July or is of the other hemisphere."""
    if abs(year.latitude_deg) < _SEASONS_FROM_DEG:
        return []
    days = len(up) // 24
    measured = year.global_w_m2[: days * 24].reshape(days, 24).sum(axis=1)
    known = up[: days * 24].reshape(days, 24).sum(axis=1)
    if measured.std() < 1.0:
        return []
    here = float(np.corrcoef(measured, known)[0, 1])
    fits = {shift: float(np.corrcoef(measured, np.roll(known, -shift))[0, 1]) for shift in range(30, days - 29, 15)}
    best = max(fits, key=lambda shift: fits[shift])
    if fits[best] < here + 0.15:
        return []
    begins = MONTHS[int(round(best / days * 12)) % 12]
    return [
        Fault(
            0,
            f"the days are long when they should be short: the file seems to begin about {begins}, or is of the other hemisphere "
            f"than latitude {year.latitude_deg:g}°; map its date column, or set the place",
        )
    ]
