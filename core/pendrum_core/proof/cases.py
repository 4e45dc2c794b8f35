"""Reading of the independent reference cases in `data/`; PENDRUM_CASES names another folder of the same form."""

import json
import os
from pathlib import Path
from typing import Any

import numpy as np

from pendrum_core.fabric.layers import Layer, Layers
from pendrum_core.model.climate import Climate, Site, SummerMonth
from pendrum_core.model.rooms import Boundary, Element, Gain, Room
from pendrum_core.room.harmonics import to_harmonics
from pendrum_core.room.outdoors import Outdoors, outdoors
from pendrum_core.room.solve import Solved, solve
from pendrum_core.room.sources import SunCourses
from pendrum_core.room.stack import Signals
from pendrum_core.schedule.pattern import DayPattern

CASES = Path(os.environ.get("PENDRUM_CASES", Path(__file__).parent / "data"))


def load_case(name: str) -> dict[str, Any]:
    """Read one case; a missing file is an error, never a silent pass."""
    case: dict[str, Any] = json.loads((CASES / f"{name}.json").read_text())
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


def climate_of(case: dict[str, Any], winter_c: float = -10.0) -> Climate:
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


def room_of(case: dict[str, Any], cooled: bool = True) -> Room:
    """The case's room; its sun and gains are fed as finished data by `solve_with_data`."""
    inputs = case["inputs"]
    room = inputs["rooms"][0]
    elements = []
    for index, row in enumerate(inputs["elements"]):
        out = row["outside"]
        if out["kind"] == "exterior":
            tilt = 0.0 if "roof" in row["name"] else 90.0
            boundary = Boundary("outdoors", tilt, float(index), out["solar_absorptance"])
        else:
            boundary = Boundary(out["kind"])
        category = "windows" if "window" in row["name"] else "walls"
        elements.append(
            Element(
                row["name"],
                row["name"],
                category,
                row["area_m2"],
                layers_of(row["layers"]),
                row["h_ci_W_m2K"],
                boundary,
            )
        )
    gains = tuple(
        Gain(
            gain["name"] if gain["name"] in ("people", "lights") else "equipment",
            1.0,
            0.0,
            gain["radiant_share"],
            pattern_of(gain["sensible_W"]),
        )
        for gain in inputs["gains"]
    )
    per_m3_s = room["infiltration_density_kg_m3"] * room["infiltration_specific_heat_J_kgK"]
    return Room(
        id="room",
        number="1",
        name="room",
        floor_area_m2=room["floor_area_m2"],
        volume_m3=room["volume_m3"],
        elements=tuple(elements),
        windows=(),
        gains=gains,
        infiltration_m3_s=room["infiltration_conductance_W_K"] / per_m3_s,
        direct_outdoor_air_m3_s=0.0,
        heating_setpoint_c=21.0,
        cooling_setpoint_c=24.0 if cooled else 0.0,
        heated=True,
        cooled=cooled,
        capacity_j_k=room["air_and_furniture_capacity_J_K"],
    )


def solve_with_data(case: dict[str, Any], cooled: bool = True) -> Solved:
    """Solve the room with the case's finished boundary data in place of our own sun and air."""
    room = room_of(case, cooled)
    boundary = case["inputs"]["boundary"]
    conductance = case["inputs"]["rooms"][0]["infiltration_conductance_W_K"]
    ours: Outdoors = outdoors(climate_of(case))
    outside = Outdoors(
        climate=ours.climate,
        pressure_pa=ours.pressure_pa,
        air_heat_j_m3k=conductance / room.infiltration_m3_s,
        dry_bulb_c=np.array([boundary["T_out_C"]]),
        humidity_ratio=ours.humidity_ratio,
        sun=ours.sun,
        sky=ours.sky,
    )
    solved = solve([room], outside, merge=False)
    names = [element.name for element in room.elements]
    rows, of, level = [np.zeros((1, 73), dtype=complex)], np.zeros(len(names), dtype=np.int64), np.zeros(len(names))
    for name, course in boundary.get("sol_air_C", {}).items():
        rows.append(to_harmonics(np.array([course])))
        of[names.index(name)], level[names.index(name)] = len(rows) - 1, -room.cooling_setpoint_c
    sun = sum((np.array(w["heat_W"]) for w in case["inputs"]["window_solar"]), np.zeros(144))
    first, onto_faces = np.zeros(1, dtype=np.int64), 0.9 * sun[None]
    return Solved(
        stack=solved.stack,
        row=solved.row,
        transfers=solved.transfers,
        signals=Signals(tuple(rows), of, level, solved.signals.winter_k, solved.signals.sky_k),
        sun=SunCourses(1, first, first, np.ones(1), (onto_faces,), (0.1 * sun[None],), (to_harmonics(onto_faces),)),
        gains=solved.gains,
        outside=outside,
        floating=solved.floating,
        transfer=solved.transfer,
    )
