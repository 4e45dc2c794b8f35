"""Proof of a room's year: ideal plant, no plant, limited plant, against finite volumes marched through the year."""

import re
from collections.abc import Iterator
from dataclasses import replace
from datetime import date, timedelta
from functools import lru_cache
from pathlib import Path

import numpy as np

from pendrum_core.fabric.glazing import AngularCurve, Glazing
from pendrum_core.model.climate import Climate, Site, SummerMonth
from pendrum_core.model.rooms import Boundary, Element, Room, SunWindow
from pendrum_core.model.year import YearCourse, YearGain, YearRoom, always
from pendrum_core.proof.cases import Case, Unknown, layers_of
from pendrum_core.proof.entry import Entry
from pendrum_core.schedule.pattern import DayPattern
from pendrum_core.weather.tmy3 import read_tmy3_text
from pendrum_core.weather.year import WeatherYear
from pendrum_core.year.rooms import RoomYear
from pendrum_core.year.sky import YearSky
from pendrum_core.year.together import rooms_year

_CHAPTER = "The year"
_MARCH = "finite volumes marched through the year, apart from the program"
_ALIKE = 1e-3
_FIRST = date(2023, 1, 1)
_DAYS = 365


@lru_cache(maxsize=4)
def packaged_year(name: str) -> WeatherYear:
    """A weather year that the solar library ships in its package data.

    Raises:
        ValueError: it is not there, or not readable.
    """
    import pvlib

    path = Path(pvlib.__file__).parent / "data" / name
    reading = read_tmy3_text(path.read_text())
    if reading.year is None:
        raise ValueError(f"{name}: {reading.faults[0].message if reading.faults else 'not readable'}")
    return reading.year


def _day(pieces: list[tuple[float, float, float]], otherwise: float) -> DayPattern:
    steps: list[tuple[int, float]] = []
    at = 0
    for start, end, value in pieces:
        if round(60 * start) > at:
            steps.append((round(60 * start), otherwise))
        steps.append((round(60 * end), value))
        at = round(60 * end)
    if at < 1440:
        steps.append((1440, otherwise))
    return DayPattern(tuple(steps))


def week_course(row: Case) -> YearCourse:
    """Weekday and weekend pieces [from, to, value] over the dates of 2023."""
    patterns = tuple(_day([tuple(p) for p in row[days]], row["otherwise_W"]) for days in ("weekdays", "weekends"))
    days = tuple(int((_FIRST + timedelta(d)).weekday() >= 5) for d in range(_DAYS))
    return YearCourse(patterns, days)


def _boundary(out: Case, rooms: list[str], row: Case) -> Boundary:
    if out["kind"] == "adiabatic":
        return Boundary("adiabatic")
    if out["kind"] == "exterior":
        return Boundary("outdoors", out["tilt_deg"], out["azimuth_deg"] % 360.0, out["solar_absorptance"])
    if out["kind"] == "room":
        return Boundary("room", neighbour=out["room"], far_convection_w_m2k=out.get("h_ci_W_m2K", 2.5))
    raise Unknown(f"{row['name']}: outside {out['kind']!r} is not read")


def year_rooms(case: Case, plant: str) -> list[YearRoom]:
    """Rooms of a case with plant "ideal", "none" or "limited".

    Raises:
        Unknown: something in it that this does not read.
    """
    i = case["inputs"]["building"]
    names = [row["name"] for row in i["rooms"]]
    rooms = []
    weather = packaged_year(case["inputs"]["weather"]["file"])
    heat = YearSky.of(weather, _climate(case)).air_heat_j_m3k
    told = case["inputs"].get("angular_curve")
    curve = (
        AngularCurve(tuple(told["angles_deg"]), tuple(told["factor"]), told["hemispherical_factor"]) if told else None
    )
    for row in i["rooms"]:
        name, elements = row["name"], []
        for e in i["elements"]:
            out, layers = e["outside"], layers_of(e["layers"])
            if e["room"] == name:
                elements.append(
                    Element(
                        e["name"],
                        e["name"],
                        category="walls",
                        area_m2=e["area_m2"],
                        layers=layers,
                        convection_w_m2k=e["h_ci_W_m2K"],
                        boundary=_boundary(out, names, e),
                    )
                )
            elif out.get("room") == name:
                back = Boundary("room", neighbour=e["room"], far_convection_w_m2k=e["h_ci_W_m2K"])
                elements.append(
                    Element(
                        e["name"],
                        e["name"],
                        category="neighbours",
                        area_m2=e["area_m2"],
                        layers=layers[::-1],
                        convection_w_m2k=out.get("h_ci_W_m2K", 2.5),
                        boundary=back,
                    )
                )
        windows = tuple(
            SunWindow(
                w["name"],
                w["name"],
                Glazing(w["name"], 1.3, w["g_normal"], w["frame_share"], 2, curve),
                w["area_m2"],
                w["tilt_deg"],
                w["azimuth_deg"],
            )
            for w in i["windows"]
            if w["room"] == name
        )
        points, most = case["inputs"]["set_points"].get(name, {}), case["inputs"].get("limited", {}).get(name, {})
        heating, cooling = _points(points.get("heating_C", 20.0)), _points(points.get("cooling_C", 25.0))
        low, high = float(heating.hours().max()), float(cooling.hours().min())
        room = Room(
            name,
            name,
            name=name,
            floor_area_m2=row["floor_area_m2"],
            volume_m3=row["volume_m3"],
            elements=tuple(elements),
            windows=windows,
            gains=(),
            infiltration_m3_s=row["infiltration_conductance_W_K"] / heat,
            direct_outdoor_air_m3_s=0.0,
            heating_setpoint_c=low,
            cooling_setpoint_c=high,
            heated=True,
            cooled=True,
            capacity_j_k=row["air_and_furniture_capacity_J_K"],
        )
        held = plant != "none"
        rooms.append(
            YearRoom(
                room,
                tuple(
                    YearGain("equipment", 1.0, g["radiant_share"], week_course(g))
                    for g in i["gains"]
                    if g["room"] == name
                ),
                heating if held else None,
                cooling if held else None,
                most.get("heating_W") if plant == "limited" else None,
                most.get("cooling_W") if plant == "limited" else None,
            )
        )
    return rooms


_BETWEEN_HOURS = re.compile(r"(\d{1,2})(?::00)?(?: *h)? *(?:-|–|to|until) *(\d{1,2})(?::00)?")
_ELSE = re.compile(
    r"(?:otherwise|else|outside|other hours|other times|set ?back(?: to)?)[^-\d]*(-?\d+(?:\.\d+)?)|(-?\d+(?:\.\d+)?)(?: °?C)? (?:otherwise|else|at other)"
)


def _points(told: object) -> YearCourse:
    """Set-points: a number, a number for "all hours", pieces of weekdays and weekends as gains have them, or "20.0 weekdays 6 to 18, else 16.0".

    Raises:
        Unknown: it is none of these.
    """
    if isinstance(told, int | float):
        return always(float(told))
    if isinstance(told, dict):
        rest = next(
            (float(value) for key, value in told.items() if key.startswith(("otherwise", "else", "setback"))), None
        )
        if rest is None or "weekdays" not in told:
            raise Unknown(f"set-point {told!r} is not read")
        return week_course({"weekdays": told["weekdays"], "weekends": told.get("weekends", []), "otherwise_W": rest})
    text = str(told)
    first, hours, other = re.match(r"-?\d+(?:\.\d+)?", text), _BETWEEN_HOURS.search(text), _ELSE.search(text)
    if first is None:
        raise Unknown(f"set-point {told!r} is not read")
    if "all hours" in text or text == first[0]:
        return always(float(first[0]))
    if hours is None or other is None:
        raise Unknown(f"set-point {told!r} is not read")
    piece = [[int(hours[1]), int(hours[2]), float(first[0])]]
    only = re.search(r"weekday|Mon", text) is not None
    return week_course(
        {"weekdays": piece, "weekends": [] if only else piece, "otherwise_W": float(other[1] or other[2])}
    )


def _climate(case: Case) -> Climate:
    w = case["inputs"]["weather"]
    site = Site(
        w["latitude_deg"],
        w["longitude_deg"],
        w["time_zone_h"],
        w["elevation_m"],
        case["inputs"]["building"]["ground_reflectance"],
    )
    return Climate(site, 0.0, tuple(SummerMonth(m, 20.0, 15.0, 8.0, 0.4, 2.2) for m in range(1, 13)))


def _months(values: np.ndarray) -> np.ndarray:
    ends = np.cumsum([31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]) * 24
    return np.array([part.sum(dtype=np.float64) for part in np.split(values, ends[:-1])]) / 1e3


def year_entries(case: Case) -> Iterator[Entry]:
    """Everything that the case judges."""
    sky = YearSky.of(packaged_year(case["inputs"]["weather"]["file"]), _climate(case))
    e = case["expected"]
    for name, want in e["checks_of_inputs"].get("plane_totals_kWh_m2", {}).items():
        words = name.split(" ")
        plane = sky.plane(float(words[1]), float(words[3]) % 360.0)
        yield _near(f"{name}, sum of the year, kWh/m²", want, float(plane.total.sum()) / 1e3, "ratio", 0.007)
    ideal = rooms_year(year_rooms(case, "ideal"), sky)
    for name, want in e["ideal"].items():
        yield from _ideal(name, want, ideal[name], e["checks_of_inputs"])
    if "free_floating" in e:
        free = rooms_year(year_rooms(case, "none"), sky)
        for name, want in e["free_floating"].items():
            yield from _free(name, want, free[name])
    if "limited" in e:
        limited = rooms_year(year_rooms(case, "limited"), sky)
        yield from _limited(e["limited"], limited)
    for plant in ("ideal",):
        for room in rooms_year([replace(r) for r in year_rooms(case, plant)], sky).values():
            whole = sum(abs(value) for value in room.balance_kwh.values())
            yield Entry(
                _CHAPTER,
                f"{room.id}: the year's balance closes",
                expected=0.0,
                found=room.open_kwh / whole,
                quantity="ratio",
                within=2e-3,
                source="conservation of energy",
            )


def _near(name: str, want: float, found: float, quantity: str, share: float, least: float = 1e-9) -> Entry:
    return Entry(
        _CHAPTER,
        name,
        expected=want,
        found=float(found),
        quantity=quantity,
        within=max(share * abs(want), least),
        source=_MARCH,
    )


def _ideal(name: str, want: Case, found: RoomYear, checks: Case) -> Iterator[Entry]:
    for what, key, hours in (("heating", "heating", found.heating_w), ("cooling", "cooling", found.cooling_w)):
        whole = want[f"{key}_kWh"]
        yield _near(f"{name}, {what} of the year, kWh", whole, float(hours.sum(dtype=np.float64)) / 1e3, "ratio", 0.015)
        for month, (a, b) in enumerate(zip(want[f"{key}_monthly_kWh"], _months(hours), strict=True), 1):
            yield _near(f"{name}, {what}, month {month}, kWh", a, b, "ratio", 0.02, 0.01 * whole)
        yield _near(f"{name}, largest hour of {what}", want[f"{key}_peak_hour_W"], float(hours.max()), "load", 0.02)
        # Two hours may be as large as each other: the one told must be.
        at = want[f"{key}_peak_at"]["hour_of_year_0_based"]
        near = float(hours[max(at - 1, 0) : at + 2].max())
        yield _near(f"{name}, {what} at the hour told", want[f"{key}_peak_hour_W"], near, "load", 0.02)
    sun = checks.get("window_sun_monthly_kWh", {}).get(name)
    if sun:
        yield _near(
            f"{name}, sun through its windows, kWh",
            sum(sun),
            float(found.sun_w.sum(dtype=np.float64)) / 1e3,
            "ratio",
            0.01,
        )


def _free(name: str, want: Case, found: RoomYear) -> Iterator[Entry]:
    for key, value in (
        ("air_min_C", found.air_c.min()),
        ("air_max_C", found.air_c.max()),
        ("air_mean_C", found.air_c.mean(dtype=np.float64)),
    ):
        yield Entry(
            _CHAPTER,
            f"{name} left to itself, {key[:-2].replace('_', ' ')}",
            expected=want[key],
            found=float(value),
            quantity="temperature",
            within=0.2,
            source=_MARCH,
        )
    for limit, told in want["hours_above"].items():
        for what, course in (("air", found.air_c), ("operative", found.operative_c)):
            if what in told:
                bound = max(10.0, 0.05 * told[what]) + 0.5 * told.get(f"{what}_within_0_05_K", 0)
                hours = float((course > float(limit)).sum())
                yield Entry(
                    _CHAPTER,
                    f"{name} left to itself, hours of {what} above {limit} °C",
                    expected=told[what],
                    found=hours,
                    quantity="count",
                    within=bound,
                    source=_MARCH,
                )


def _limited(want: Case, found: dict[str, RoomYear]) -> Iterator[Entry]:
    for name, told in want["unmet"].items():
        room = found[name]
        for key, hours in (
            ("heating_hours_more_than_0.5_K_below", room.unmet_heating_h),
            ("cooling_hours_more_than_0.5_K_above", room.unmet_cooling_h),
        ):
            yield Entry(
                _CHAPTER,
                f"{name} with limits, {key.replace('_', ' ')}",
                expected=told[key],
                found=float(hours),
                quantity="count",
                within=max(8.0, 0.05 * told[key]),
                source=_MARCH,
            )
        for key, missed in (("heating", room.missed_heating_kh), ("cooling", room.missed_cooling_kh)):
            yield _near(
                f"{name} with limits, {key} missed, Kh", told[f"{key}_degree_hours_missed_Kh"], missed, "ratio", 0.05
            )
    for key, watts in (
        ("heating_kWh", [r.heating_w for r in found.values()]),
        ("cooling_kWh", [r.cooling_w for r in found.values()]),
    ):
        if key in want:
            yield _near(
                f"With limits, {key[:7]}, kWh",
                want[key],
                float(sum(w.sum(dtype=np.float64) for w in watts)) / 1e3,
                "ratio",
                0.015,
            )
