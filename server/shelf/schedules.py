"""Ordinary schedules. The patterns are Pendrum's own round figures: a beginning, to be made the project's."""

from typing import Any

Hours = tuple[tuple[int, float], ...]
_WEEKEND = "00000111"


def _steps(hours: Hours) -> list[list[float]]:
    return [[until * 60, value] for until, value in hours]


def _plan(kind: str, base: tuple[str, Hours], *others: tuple[str, str, Hours]) -> dict[str, Any]:
    """A base pattern, and others with the days (Monday to Sunday, holidays) that they are for."""
    patterns = [{"id": "a", "name": base[0], "steps": _steps(base[1])}]
    rules = []
    for index, (name, days, hours) in enumerate(others):
        identity = "bcdef"[index]
        patterns.append({"id": identity, "name": name, "steps": _steps(hours)})
        rules.append({"start": "01-01", "end": "12-31", "days": days, "pattern": identity})
    return {"kind": kind, "patterns": patterns, "base": "a", "rules": rules}


_NONE: Hours = ((24, 0.0),)
_SCHEDULES: dict[str, dict[str, Any]] = {
    "Always full": _plan("fraction", ("Every day", ((24, 1.0),))),
    "Never": _plan("fraction", ("Every day", _NONE)),
    "Office, people": _plan(
        "fraction", ("Weekday", ((7, 0), (8, 0.2), (9, 0.8), (12, 1), (13, 0.6), (17, 1), (18, 0.5), (20, 0.1), (24, 0))),
        ("Weekend", _WEEKEND, _NONE)),
    "Office, lights": _plan(
        "fraction", ("Weekday", ((7, 0.05), (8, 0.4), (18, 0.9), (20, 0.4), (24, 0.05))), ("Weekend", _WEEKEND, ((24, 0.05),))),
    "Office, equipment": _plan(
        "fraction", ("Weekday", ((7, 0.2), (9, 0.6), (17, 0.9), (19, 0.5), (24, 0.2))), ("Weekend", _WEEKEND, ((24, 0.2),))),
    "Meeting room": _plan(
        "fraction", ("Weekday", ((9, 0), (12, 0.8), (13, 0.2), (16, 1), (17, 0.5), (24, 0))), ("Weekend", _WEEKEND, _NONE)),
    "School room": _plan(
        "fraction", ("School day", ((8, 0), (10, 1), (11, 0.9), (12, 1), (13, 0.3), (15, 1), (16, 0.3), (24, 0))),
        ("Weekend", _WEEKEND, _NONE)),
    "Lecture hall": _plan(
        "fraction", ("Weekday", ((8, 0), (10, 0.9), (12, 1), (14, 0.5), (17, 0.9), (19, 0.4), (24, 0))), ("Weekend", _WEEKEND, _NONE)),
    "Shop": _plan(
        "fraction", ("Weekday", ((8, 0), (10, 0.3), (16, 0.6), (18, 1), (20, 0.7), (24, 0))),
        ("Saturday", "00000100", ((9, 0), (11, 0.7), (17, 1), (18, 0.5), (24, 0))), ("Sunday", "00000011", _NONE)),
    "Restaurant": _plan(
        "fraction", ("Every day", ((10, 0), (12, 0.2), (14, 0.9), (17, 0.2), (19, 0.7), (22, 1), (23, 0.4), (24, 0)))),
    "Kitchen": _plan(
        "fraction", ("Every day", ((8, 0), (11, 0.5), (14, 1), (17, 0.4), (22, 1), (23, 0.3), (24, 0)))),
    "Workshop": _plan(
        "fraction", ("Weekday", ((7, 0), (9, 0.8), (12, 1), (13, 0.3), (16, 1), (17, 0.6), (24, 0))), ("Weekend", _WEEKEND, _NONE)),
    "Two shifts": _plan(
        "fraction", ("Weekday", ((6, 0), (14, 1), (22, 0.9), (24, 0))), ("Weekend", _WEEKEND, _NONE)),
    "Gallery": _plan(
        "fraction", ("Open", ((10, 0), (12, 0.4), (16, 1), (18, 0.6), (24, 0))), ("Monday closed", "10000000", _NONE)),
    "Evening hall": _plan(
        "fraction", ("Weekday", ((17, 0), (19, 0.6), (22, 1), (23, 0.3), (24, 0))),
        ("Weekend", _WEEKEND, ((10, 0), (13, 0.5), (18, 0.3), (23, 1), (24, 0)))),
    "Bedroom": _plan(
        "fraction", ("Every day", ((6, 1), (8, 0.6), (20, 0), (22, 0.5), (24, 1)))),
    "Living room": _plan(
        "fraction", ("Weekday", ((6, 0), (8, 0.6), (16, 0.2), (22, 1), (24, 0.3))),
        ("Weekend", _WEEKEND, ((8, 0), (10, 0.6), (22, 0.9), (24, 0.3)))),
    "Corridor lights": _plan("fraction", ("Every day", ((6, 0.2), (22, 0.8), (24, 0.2)))),
    "Fan on in working hours": _plan("on_off", ("Weekday", ((6, 0), (19, 1), (24, 0))), ("Weekend", _WEEKEND, _NONE)),
    "Cold store neighbour": _plan("temperature", ("Every day", ((24, 4.0),))),
    "Unheated attic, summer": _plan("temperature", ("Every day", ((8, 22), (12, 30), (18, 38), (22, 30), (24, 24)))),
    "Working hard in the morning": _plan("w_per_person", ("Every day", ((8, 75), (12, 110), (13, 75), (17, 90), (24, 75)))),
}  # fmt: skip


def schedules() -> list[dict[str, Any]]:
    """The shelf as fields of schedules."""
    return [{"fields": {"name": name, **fields}} for name, fields in _SCHEDULES.items()]
