"""Courses over a design day: of a room, of rooms together, of all rooms at an hour, of an air system."""

from typing import Any

import numpy as np

from pendrum_core.model.climate import day_number
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.model.thermostats import Thermostat
from pendrum_core.moist_air import saturation_humidity_ratio
from pendrum_core.results.building import BuildingLoads, BuildingResults
from pendrum_core.results.courses import group_day_w, humidity_lines
from pendrum_core.room.thermostat.controlled import Day


def day_courses(results: BuildingLoads, kind: str, identity: str, month: int) -> dict[str, Any]:
    """Split of a room's or group's load over a summer day (month 1..12) or the winter day (0), for the day rail.

    Raises:
        KeyError: no such room or group, or no such month.
    """
    if month == 0:
        return _winter_courses(results, kind, identity)
    months = [day_number(m) for m in results.building.climate.months]
    if month not in months:
        raise KeyError(f"month {month}")
    index = months.index(month)
    outside = results.outdoors
    common = {
        "outdoor_c": outside.dry_bulb_c[index].round(3).tolist(),
        "outdoor_humidity_ratio": outside.humidity_ratio[index].tolist(),
    }
    if kind == "room":
        loads = results.rooms[identity]
        unit = "K" if loads.room.floats else "W"
        parts = loads.parts_on(index)
        extra: dict[str, Any] = {"reference_c": loads.room.cooling_setpoint_c, "unit": unit, "control": None}
        if loads.control is not None:
            extra["control"] = _control_course(loads.control.summer, index, loads.room.thermostat, "cooling")
        latent = loads.latent_w
    else:
        group = results.groups[identity]
        parts = group_day_w([results.rooms[room] for room in group.room_ids], index)
        extra, latent = {"reference_c": None, "unit": "W", "control": None}, group.latent_w
    used = [i for i in range(len(CATEGORIES)) if np.abs(parts[i]).max() > 1e-6]
    return (
        common
        | extra
        | {
            "parts": {CATEGORIES[i]: parts[i].round(3).tolist() for i in used},
            "latent_w": latent[index].round(2).tolist(),
        }
    )


def rooms_at(results: BuildingLoads, month: int, step: int) -> dict[str, dict[str, float]]:
    """Load [W] and air temperature [°C] of every room at a step of a summer day (month 1..13) or the winter day (0).

    Raises:
        KeyError: no such month or step.
    """
    months = [day_number(m) for m in results.building.climate.months]
    if not 0 <= step < results.outdoors.dry_bulb_c.shape[1] or (month and month not in months):
        raise KeyError(f"month {month}, step {step}")
    index = months.index(month) if month else 0
    found = {}
    for identity, loads in results.rooms.items():
        control, room = loads.control, loads.room
        if month == 0:
            load = float(control.winter.plant_w[0, step]) if control else loads.heating.load_w
            air = float(control.winter.air_c[0, step]) if control else loads.winter_air_c
        else:
            load = float(loads.total[index, step]) if loads.cooling is not None else 0.0
            floating = room.cooling_setpoint_c + (float(loads.total[index, step]) if room.floats else 0.0)
            air = float(control.summer.air_c[index, step]) if control else floating
        found[identity] = {"load_w": round(load, 2), "air_c": round(air, 3)}
    return found


def _control_course(day: Day, index: int, thermostat: Thermostat | None, season: str) -> dict[str, Any]:
    """Temperatures and set-points of a room with a thermostat; a set-point is null where there is none."""
    most = getattr(thermostat, f"{season}_capacity_w", None)
    return {
        "air_c": day.air_c[index].round(3).tolist(),
        "operative_c": day.operative_c[index].round(3).tolist(),
        "low_c": _finite(day.low_c[index]),
        "high_c": _finite(day.high_c[index]),
        "plant_w": day.plant_w[index].round(2).tolist(),
        "capacity_w": most,
    }


def _finite(values: Any) -> list[float | None]:
    return [round(float(value), 3) if np.isfinite(value) else None for value in values]


def _winter_courses(results: BuildingLoads, kind: str, identity: str) -> dict[str, Any]:
    """The winter day: losses by source, positive where heat must be added; flat but for what a thermostat makes of it."""
    subject = results.rooms[identity] if kind == "room" else results.groups[identity]
    steps = results.outdoors.dry_bulb_c.shape[1]
    parts = dict(zip(CATEGORIES, subject.heating.parts_w, strict=True))
    courses = {name: [part] * steps for name, part in parts.items() if part}
    control = results.rooms[identity].control if kind == "room" else None
    extra: dict[str, Any] = {"control": None}
    if control is not None:
        held = sum(parts.values()) - parts["storage"]
        courses["storage"] = (control.winter.plant_w[0] - held).round(3).tolist()
        extra = {"control": _control_course(control.winter, 0, results.rooms[identity].room.thermostat, "heating")}
    return extra | {
        "parts": courses,
        "latent_w": [0.0] * steps,
        "outdoor_c": [results.building.climate.winter_dry_bulb_c] * steps,
        "outdoor_humidity_ratio": [],
        "reference_c": results.rooms[identity].winter_air_c if kind == "room" else None,
        "unit": "W",
    }


def system_day(results: BuildingResults, system: str, month: int) -> dict[str, Any]:
    """States along a system's air path over one summer day, or over the winter day for month 0.

    Raises:
        KeyError: no such system or month.
    """
    r = results.systems[system]
    months = [day_number(m) for m in results.building.climate.months]
    if month != 0 and month not in months:
        raise KeyError(f"month {month}")
    p, day = (r.winter, 0) if month == 0 else (r.summer, months.index(month))
    outdoors = results.outdoors
    climate = results.building.climate
    cold = np.full(p.flow_kg_s.shape, climate.winter_dry_bulb_c)
    dry_bulb, humidity = (
        (cold, saturation_humidity_ratio(cold, outdoors.pressure_pa))
        if month == 0
        else (outdoors.dry_bulb_c, outdoors.humidity_ratio)
    )
    points = {"outdoors": (dry_bulb, humidity)}
    if p.recovered is not None:
        points["recovered"] = (p.fresh_c, p.fresh_w)
    points |= {
        "mixed": (p.mixed_c, p.mixed_w),
        "supply": (p.supply_c, p.supply_w),
        "rooms": (p.return_c, p.return_w),
        "return": (p.plenum_c, p.plenum_w),
    }
    temperatures, lines = humidity_lines(outdoors.pressure_pa)

    def course(values: Any, digits: int = 2) -> list[float]:
        return [float(value) for value in np.broadcast_to(values, p.flow_kg_s.shape)[day].round(digits)]

    reheat = r.reheat_w if month else np.zeros(p.flow_kg_s.shape)
    return {
        "chart": {"temperature_c": temperatures, "relative": lines},
        "pressure_pa": outdoors.pressure_pa,
        "points": {
            name: {"temperature_c": course(t, 4), "humidity_ratio": course(w, 7)} for name, (t, w) in points.items()
        },
        "parts": [
            {"kind": part.kind, "temperature_c": course(part.leaving_c, 4), "humidity_ratio": course(part.leaving_w, 7)}
            for part in p.parts
        ],
        "flow_kg_s": course(p.flow_kg_s, 5),
        "outdoor_kg_s": course(p.outdoor_kg_s, 5),
        "relief_kg_s": course(p.relief_kg_s, 5),
        "return_kg_s": course(p.return_kg_s, 5),
        "unit_reheat_w": course(p.reheat_w),
        "economizing": p.cools_free[day].tolist(),
        "coil_total_w": course(p.cooling_w),
        "coil_sensible_w": course(p.flow_kg_s * p.coil.sensible_j_kg),
        "heating_w": course(p.heating_w),
        "preheat_w": course(p.preheat_w),
        "recovered_w": course(p.outdoor_kg_s * p.recovered.recovered_j_kg if p.recovered is not None else 0.0),
        "reheat_w": course(reheat),
        "fan_w": course(p.fan_w),
        "fan_pa": course(p.fan_pa, 1),
        "water_kg_s": course(p.flow_kg_s * p.humidified_kg_kg, 7),
    }


def plant_day(results: BuildingResults, circuit: str, month: int) -> dict[str, Any]:
    """What a circuit's units give at every step of a summer day, or of the winter day for month 0.

    Raises:
        KeyError: no such plant or month.
    """
    plant = results.plants[circuit]
    months = [day_number(m) for m in results.building.climate.months]
    if month != 0 and month not in months:
        raise KeyError(f"month {month}")
    day = 0 if month == 0 else months.index(month)
    staged = plant.winter if month == 0 else plant.summer
    load, ends = (
        (plant.course.winter_w, plant.course.winter_ends_w)
        if month == 0
        else (plant.course.summer_w, plant.course.summer_ends_w)
    )
    flow, back = (plant.winter_flow_c, plant.winter_return_c) if month == 0 else (plant.flow_c, plant.return_c)
    drawn = next(c for c in results.building.circuits if c.id == circuit)

    def course(values: Any, digits: int = 1) -> list[float]:
        return [float(value) for value in values.round(digits)]

    return {
        "load_w": course(load[day]),
        "ends_w": course(ends[day]),
        "hot_w": course(plant.course.hot_w),
        "unmet_w": course(staged.unmet_w[day]),
        "flow_c": course(flow[day], 2),
        "return_c": course(back[day], 2),
        "units": {
            drawn.units[place].id: {
                "output_w": course(staged.output_w[row, day]),
                "taken_w": course(staged.fuel_w[row, day]),
                "auxiliary_w": course(staged.auxiliary_w[row, day]),
            }
            for row, place in enumerate(plant.working)
        },
        "cooler": None
        if plant.rejected is None or month == 0
        else {
            "water_c": course(plant.rejected.water_c[day], 2),
            "heat_w": course(plant.rejected.heat_w[day]),
            "speed": course(plant.rejected.speed[day], 3),
        },
    }
