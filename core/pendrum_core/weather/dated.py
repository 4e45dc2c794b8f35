"""Lines of a file put in the order of their dates."""

import re
from calendar import isleap
from datetime import date

from pendrum_core.weather.fault import Fault

Line = tuple[int, list[str]]
_ISO = re.compile(r"(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})")
_TURNED = re.compile(r"(\d{1,2})[-/.](\d{1,2})[-/.](\d{2,4})")
_CLOCK = re.compile(r"(\d{1,2}):(\d{2})")
_MOST = 20


def hour_of(cell: str) -> int | None:
    """The hour that a cell tells, 0 to 24; None where it tells none."""
    clock = _CLOCK.search(cell)
    if clock:
        return int(clock.group(1))
    plain = re.fullmatch(r"\s*(\d{1,2})(?:\.0*)?\s*", cell)
    return int(plain.group(1)) if plain else None


def in_order(
    body: list[Line], day_column: int, time_column: int | None, ending: bool
) -> tuple[list[Line], list[Fault]]:
    """Lines by date and hour, January first, and what is missing or double.

    Years are passed over: a typical year's months come from several. `ending` says that a line's time is that of the hour that
    ended: 24:00, or 00:00 of the next day.
    """
    cells = [(line, row, row[day_column] if day_column < len(row) else "") for line, row in body]
    first_is_day = _first_is_day([cell for _, _, cell in cells])
    found: dict[tuple[int, int, int], Line] = {}
    faults: list[Fault] = []
    for line, row, cell in cells:
        day = _day(cell, first_is_day)
        hour = hour_of(row[time_column]) if time_column is not None and time_column < len(row) else hour_of(cell)
        if day is None or hour is None or hour > 24:
            return body, [Fault(line, f"{cell!r} is no date with an hour")]
        month, number = day
        if ending:
            hour -= 1
            if hour < 0:
                month, number, hour = *_day_before(month, number), 23
        key = (month, number, hour % 24)
        if key in found:
            faults.append(Fault(line, f"{number}.{month}. {key[2]:02d}:00 stands in line {found[key][0]} already"))
        found[key] = (line, row)
    faults += _missing(set(found))
    return [found[key] for key in sorted(found)], faults[:_MOST]


def _first_is_day(cells: list[str]) -> bool:
    """Whether 3/4 is the third of April: a year has days beyond the twelfth."""
    for cell in cells:
        turned = None if _ISO.search(cell) else _TURNED.search(cell)
        if turned and int(turned.group(1)) > 12:
            return True
        if turned and int(turned.group(2)) > 12:
            return False
    return True


def _day(cell: str, first_is_day: bool) -> tuple[int, int] | None:
    iso, turned = _ISO.search(cell), _TURNED.search(cell)
    if iso:
        month, day = int(iso.group(2)), int(iso.group(3))
    elif turned:
        one, two = int(turned.group(1)), int(turned.group(2))
        day, month = (one, two) if first_is_day else (two, one)
    else:
        return None
    try:
        date(2024, month, day)
    except ValueError:
        return None
    return month, day


def _day_before(month: int, day: int) -> tuple[int, int]:
    if day > 1:
        return month, day - 1
    before = (month - 2) % 12 + 1
    return before, [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][before - 1]


def _missing(found: set[tuple[int, int, int]]) -> list[Fault]:
    year = 2024 if any(key[:2] == (2, 29) for key in found) else 2023
    assert isleap(year) == (year == 2024)
    faults = []
    for ordinal in range(date(year, 1, 1).toordinal(), date(year, 12, 31).toordinal() + 1):
        day = date.fromordinal(ordinal)
        gone = [hour for hour in range(24) if (day.month, day.day, hour) not in found]
        if gone:
            hours = ", ".join(f"{hour:02d}:00" for hour in gone[:4]) + (" …" if len(gone) > 4 else "")
            faults.append(Fault(0, f"{day.day}.{day.month}. lacks {hours}"))
        if len(faults) >= _MOST:
            break
    return faults
