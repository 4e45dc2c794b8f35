"""Reading of reference cases: those in `data/`, or a folder of the same forms (proof/folder.py)."""

import json
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path
from typing import Any

from pendrum_core.fabric.layers import Layer, Layers
from pendrum_core.model.building import Building
from pendrum_core.model.climate import Climate, Coefficients, Site, SummerMonth
from pendrum_core.model.rooms import Boundary, Element, Gain, Room
from pendrum_core.model.thermostats import NO_COOLING, NO_HEATING, Thermostat
from pendrum_core.room.balance.outdoors import Outdoors, outdoors
from pendrum_core.schedule.pattern import DayPattern, constant

DATA = Path(__file__).parent / "data"
Case = dict[str, Any]


def load_case(name: str) -> Case:
    """Read one case that ships with the program; a missing file is an error, never a silent pass."""
    case: Case = json.loads((DATA / f"{name}.json").read_text())
    return case


def layers_of(rows: list[dict[str, Any]]) -> Layers:
    """Layers outside to inside."""
    return tuple(
        Layer(
            row["name"],
            row.get("thickness_m", 0.0) if "conductivity_W_mK" in row else 0.0,
            row.get("conductivity_W_mK", 0.0),
            row.get("density_kg_m3", 0.0),
            row.get("specific_heat_J_kgK", 0.0),
            row.get("R_m2K_W", 0.0),
        )
        for row in rows
    )


def pattern_of(values: list[float]) -> DayPattern:
    """144 values as a day pattern."""
    return DayPattern(tuple(((i + 1) * 10, float(value)) for i, value in enumerate(values)))


def climate_of(case: Case, winter_c: float = -10.0) -> Climate:
    """Climate from a case's generating parameters; its one month is used for all twelve."""
    day = case["inputs"]["design_day"]
    site = day["site"]
    month = SummerMonth(
        day.get("month", 7),
        day.get("dry_bulb_max_C", 30.0),
        15.0,
        day.get("daily_range_K", 10.0),
        day.get("tau_b", 0.4),
        day.get("tau_d", 2.2),
    )
    return Climate(
        Site(
            site["latitude_deg"],
            site["longitude_deg"],
            site["time_zone_h"],
            site["elevation_m"],
            day.get("ground_reflectance", 0.2),
        ),
        winter_c,
        (month,),
    )


def building_of(case: Case) -> Building:
    """A case's rooms as the program takes them, its boundary data fed as finished courses.

    Outdoors come as scheduled temperatures behind the outer film, sun and gains as gains; everything between them and the
    result is the program's own calculation.

    Raises:
        Unknown: the case asks for something that is not read.
    """
    inputs = case["inputs"]
    coefficients = Coefficients(radiation_inside=inputs["coefficients"]["h_ri_W_m2K"])
    climate = replace(climate_of(case), coefficients=coefficients)
    rooms = tuple(_room(case, row, outdoors(climate)) for row in inputs["rooms"])
    return Building(climate, rooms)


class Unknown(ValueError):
    """A case of a form that is not read."""


def _room(case: Case, row: Case, outside: Outdoors) -> Room:
    inputs, name = case["inputs"], row["name"]
    control = inputs.get("control") or {}
    rule = control.get(name, control)
    held = float(rule.get("air_C", 24.0))
    unread = set(rule) - {"plant", "air_C", "heating_C", "cooling_C", "radiant_weight", "capacity_W", "follows", "text"}
    if unread - {room["name"] for room in inputs["rooms"]}:
        raise Unknown(f"control {', '.join(sorted(unread))} is not read")
    floats = rule.get("plant") == "none"
    thermostat = _thermostat(rule) if "cooling_C" in rule or "heating_C" in rule else None
    return Room(
        id=name,
        number=name,
        name=name,
        floor_area_m2=row["floor_area_m2"],
        volume_m3=row["volume_m3"],
        elements=tuple(_elements(case, name, outside)),
        windows=(),
        gains=tuple(_gains(case, name)),
        infiltration_m3_s=row["infiltration_conductance_W_K"] / outside.air_heat_j_m3k,
        direct_outdoor_air_m3_s=0.0,
        heating_setpoint_c=21.0,
        cooling_setpoint_c=held,
        heated=not floats,
        cooled=not floats,
        capacity_j_k=row["air_and_furniture_capacity_J_K"],
        thermostat=thermostat,
    )


def _thermostat(rule: Case) -> Thermostat:
    low = pattern_of(rule["heating_C"]) if "heating_C" in rule else constant(NO_HEATING)
    high = pattern_of(rule["cooling_C"]) if "cooling_C" in rule else constant(NO_COOLING)
    most = rule.get("capacity_W")
    return Thermostat(
        (low,) * 12,
        (high,) * 12,
        low,
        radiant_weight=rule.get("radiant_weight", 0.0),
        heating_capacity_w=most,
        cooling_capacity_w=most,
        leader=rule.get("follows"),
    )


def _elements(case: Case, name: str, outside: Outdoors) -> Iterator[Element]:
    sol_air = case["inputs"]["boundary"].get("sol_air_C", {})
    for row in case["inputs"]["elements"]:
        out, layers = row["outside"], layers_of(row["layers"])
        mine, beyond = row["room"] == name, out.get("room")
        if not mine and beyond != name:
            continue
        own, far = row["h_ci_W_m2K"], out.get("h_ci_W_m2K", 2.5)
        if out["kind"] == "exterior":
            course = pattern_of(sol_air[row["name"]]) if row["name"] in sol_air else None
            film = 1.0 / (out["h_ce_W_m2K"] + out["h_re_W_m2K"])
            if course is None:
                boundary = Boundary("outdoors", 0.0 if "roof" in row["name"] else 90.0, 0.0, out["solar_absorptance"])
            else:
                boundary = Boundary("pattern", extra_resistance_m2k_w=film, patterns=(course,) * 12)
        elif out["kind"] == "room":
            other = beyond if mine else row["room"]
            boundary = Boundary("room", neighbour=other, far_convection_w_m2k=far if mine else own)
            own, layers = (own, layers) if mine else (far, layers[::-1])
        elif out["kind"] == "adiabatic":
            boundary = Boundary("adiabatic")
        else:
            raise Unknown(f"{row['name']}: outside {out['kind']!r} is not read")
        category = "windows" if "window" in row["name"] else "neighbours" if beyond else "walls"
        yield Element(
            row["name"],
            row["name"],
            category=category,
            area_m2=row["area_m2"],
            layers=layers,
            convection_w_m2k=own,
            boundary=boundary,
        )


def _gains(case: Case, name: str) -> Iterator[Gain]:
    share = 1.0 - case["inputs"]["coefficients"]["solar_share_to_air"]
    for gain in case["inputs"]["gains"]:
        if gain["room"] == name:
            category = gain["name"] if gain["name"] in ("people", "lights") else "equipment"
            yield Gain(category, 1.0, 0.0, gain["radiant_share"], pattern_of(gain["sensible_W"]), name=gain["name"])
    for window in case["inputs"]["window_solar"]:
        if window["room"] == name:
            yield Gain("equipment", 1.0, 0.0, share, pattern_of(window["heat_W"]), name="window sun")
