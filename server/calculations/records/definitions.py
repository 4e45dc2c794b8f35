"""What the definition pages show beside what is entered: assemblies, glazing, schedules, uses, the envelope."""

from math import isfinite
from typing import Any

import numpy as np

from calculations.inputs.fabric import ISO_13370_PARTS, assembly_layers, bridged_layers, ground_contact
from calculations.inputs.gains import gains_of, person_of
from calculations.inputs.hot_water import litres_day
from calculations.inputs.schedules import days_of_year, design_patterns, year_plan
from calculations.inputs.thermostat import set_points_of_use
from calculations.inputs.windows import centre_of, window_u
from calculations.lookups import Lookups
from pendrum_core.fabric.bridged import bridged_resistance
from pendrum_core.fabric.condensation import section_line
from pendrum_core.fabric.glazing import WINDOW_FILMS_M2K_W
from pendrum_core.fabric.ground import ground_u_value, virtual_temperatures_c
from pendrum_core.model.fabric import films_m2k_w
from pendrum_core.model.schedules import DayPattern, daily_sum
from pendrum_core.people.activity import REFERENCE_C
from pendrum_core.results.building import BuildingLoads
from pendrum_core.results.envelope import Envelope, Envelopes
from pendrum_core.results.fabric import assembly_values, glazing_curve
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.water.hot_water import daily_heat_j
from projects.resolver import Effective, people_per_m2, power_per_m2, value_of_use

Record = dict[str, Any]
OUTDOOR_WINTER_HUMIDITY = 0.9
INDOOR_WINTER_C = 20.0
OUTER = ("wall", "roof", "door")  # elements with the outdoor air beyond them; floors have the ground, partitions a room
STANDARD_WINDOW_M = (1.23, 1.48)  # EN 14351-1
TYPICAL_AREA_M2 = 100.0


def assembly_record(look: Lookups, identity: str) -> Record:
    """Values of an assembly, its section in winter, and its contact with the ground; `problem` where it has none."""
    record: Record = look.remembered("assembly record", identity, lambda: _assembly(look, identity))
    return record


def _assembly(look: Lookups, identity: str) -> Record:
    row = look.existing("assembly", identity)
    element = row["element"]
    try:
        layers = assembly_layers(look, row)
    except ValueError as error:
        return {"problem": f"No values: {error}."}
    films = films_m2k_w(element)
    record: Record = dict(vars(assembly_values(layers, element))) | {"problem": "", "films_m2k_w": list(films)}
    rows = look.many("layers of assembly", identity)
    if row["declared_u_value"] is None:
        plain = bridged_layers(look, row)
        if any(item.bridge for item in plain):
            record["bridged"] = dict(vars(bridged_resistance(plain, sum(films))))
        if element in OUTER and row["ground_procedure"] not in ISO_13370_PARTS:
            factors = [look.existing("material", r["material"])["vapour_factor"] or 0.0 for r in rows]
            outdoors = look.said("site", "winter_dry_bulb_c"), OUTDOOR_WINTER_HUMIDITY
            indoors = INDOOR_WINTER_C, look.said("site", "indoor_winter_humidity")
            line = section_line(layers, factors, films, outdoors, indoors)
            record["line"] = {key: list(values) for key, values in vars(line).items()}
        record["layers_m2k_w"] = [layer.resistance_m2k_w for layer in layers]
    if row["ground_procedure"] in ISO_13370_PARTS:
        record["ground"] = _ground(look, row, layers)
    return record


def _ground(look: Lookups, row: Record, layers: Any) -> Record:
    site = look.one("site")
    try:
        contact = ground_contact(look, row, layers)
        u_value = ground_u_value(contact)
    except ValueError as error:
        return {"problem": str(error)}
    months = virtual_temperatures_c(contact, site["air_mean_c"], site["air_amplitude_k"], site["coldest_month"])
    return {"problem": "", "u_value": u_value, "characteristic_m": contact.characteristic_m, "by_month_c": list(months)}


def glazing_record(look: Lookups, identity: str) -> Record:
    """U-values of a glazing in a window of the standard's size, and its angular curve."""
    row = look.existing("glazing", identity)
    angles, factors, hemispherical = glazing_curve(row["panes"])
    u_value, bare = window_u(row, *STANDARD_WINDOW_M), row["g_value"] * (1.0 - row["frame_share"])
    return {
        "angles_deg": angles,
        "factors": factors,
        "centre_u_value": centre_of(row) if row["basis"] != "whole" else None,
        "window_m": list(STANDARD_WINDOW_M),
        "window_u_value": u_value,
        "surface_m2k_w": 1.0 / u_value - WINDOW_FILMS_M2K_W,
        "g_glass": row["g_value"],
        "g_diffuse": row["g_value"] * hemispherical,
        "g_window": bare,
        "g_blind": bare * row["blind_factor"] if row["blind"] != "none" else None,
    }


def schedule_record(look: Lookups, identity: str) -> Record:
    """Which pattern each day of the year has, and which the design days take."""
    record: Record = look.remembered("schedule record", identity, lambda: _schedule(look, identity))
    return record


def _schedule(look: Lookups, identity: str) -> Record:
    row = look.existing("schedule", identity)
    plan, design = year_plan(row), design_patterns(look, identity)
    order = {name: index for index, (name, _) in enumerate(plan.patterns)}
    days = days_of_year(look, row)
    sums = {name: daily_sum(pattern) for name, pattern in plan.patterns}
    return {
        "days": [order[name] for name in days],
        "summer": list(design.chosen),
        "winter": design.winter_chosen,
        "hours_a_year": sum(sums[name] for name in days),
        "daily_sums": sums,
    }


def use_record(look: Lookups, identity: str, area_m2: float) -> Record:
    """Gains of a use per floor area by step of the design days, and what its other bases would be."""
    key = f"{identity}/{area_m2}"
    record: Record = look.remembered("use record", key, lambda: _use(look, identity, area_m2))
    return record


def _use(look: Lookups, identity: str, rooms_area: float) -> Record:
    use, site = look.existing("use", identity), look.one("site")
    area = rooms_area or TYPICAL_AREA_M2
    people = people_per_m2(use, area) or 0.0
    lights, equipment = (power_per_m2(use, what, area, people) or 0.0 for what in ("lights", "equipment"))
    held_c = value_of_use(look, use, "cooling_setpoint_c")
    values = {
        name: Effective(value, "use")
        for name, value in (
            ("people_per_m2", people),
            ("lights_w_m2", lights),
            ("equipment_w_m2", equipment),
            ("cooled", use["cooled"]),
            ("cooling_setpoint_c", held_c),
        )
    }
    gains = gains_of(look, use, values, area)
    days: dict[tuple[int, ...], int] = {}
    courses: list[Record] = []
    day_of = []
    for month in range(1, 13):
        signature = tuple(id(gain.on(month)) for gain in gains)
        if signature not in days:
            days[signature] = len(courses)
            day: dict[str, Any] = {name: np.zeros(144) for name in ("people", "lights", "equipment", "latent")}
            for gain in gains:
                course = step_averages(gain.on(month)) / area
                day[gain.category] = day[gain.category] + gain.sensible_w * course
                day["latent"] = day["latent"] + gain.latent_w * course
            courses.append({name: course.round(3).tolist() for name, course in day.items()})
        day_of.append(days[signature])
    presence = design_patterns(look, use["people_schedule"]).by_month
    room_c = held_c if use["cooled"] else REFERENCE_C
    person = person_of(use, room_c)
    litres = litres_day(use, people * area, area)
    return {
        "area_m2": area,
        "people_per_m2": people,
        "people": people * area,
        "lights_w_m2": lights,
        "equipment_w_m2": equipment,
        "lights_w": lights * area,
        "equipment_w": equipment * area,
        "lights_w_per_person": lights / people if people else None,
        "equipment_w_per_person": equipment / people if people else None,
        "person_sensible_w": person.sensible_w,
        "person_latent_w": person.latent_w,
        "days": courses,
        "day_of": day_of,
        "presence": [step_averages(pattern).round(4).tolist() for pattern in presence],
        "set_points": {
            what: _steps(days) for what, days in zip(("heating", "cooling"), set_points_of_use(look, use), strict=True)
        },
        "outdoor_air_m3_s_m2": (use["air_per_person_m3_s"] * people + use["air_per_area_m3_s_m2"])
        / use["air_effectiveness"],
        "hot_water_l_day": litres,
        "hot_water_j_day": daily_heat_j(litres, use["hot_water_c"], site["cold_water_c"]),
    }


def _steps(days: tuple[DayPattern, ...]) -> list[list[list[float | None]]]:
    """Day patterns as [until minute, value]; a set-point that is off has no value."""
    return [[[until, value if isfinite(value) else None] for until, value in day.steps] for day in days]


def _envelope_record(found: Envelope) -> Record:
    return {
        "lines": [dict(vars(line)) | {"u_value": line.u_value, "inside": line.inside} for line in found.lines],
        "transmission_w_k": found.transmission_w_k,
        "air_w_k": found.air_w_k,
        "capacity_j_k": found.capacity_j_k,
        "time_constant_h": found.time_constant_h,
    }


class EnvelopeMaker:
    """Makes the envelope anew only where a room's elements or leaks are others than before."""

    def __init__(self) -> None:
        self._key: list[tuple[Any, ...]] | None = None
        self._record: Record = {}
        self._envelopes = Envelopes()

    def make(self, results: BuildingLoads) -> Record:
        """The building's envelope by construction."""
        rooms = [loads.room for loads in results.rooms.values()]
        key = [(r.elements, r.infiltration_m3_s, r.direct_outdoor_air_m3_s, r.capacity_j_k) for r in rooms]
        same = (
            self._key is not None
            and len(key) == len(self._key)
            and all(a[0] is b[0] and a[1:] == b[1:] for a, b in zip(key, self._key, strict=True))
        )
        if not same:
            found = self._envelopes.of(rooms, results.outdoors.air_heat_j_m3k)
            self._key, self._record = key, _envelope_record(found)
        return self._record


def definition_records(look: Lookups) -> dict[str, dict[str, Record]]:
    """All of them by kind and id."""
    document = look.document
    areas: dict[str, float] = {}
    for room in document.of("room").values():
        if room["use"] and room["floor_area_m2"]:
            areas[room["use"]] = areas.get(room["use"], 0.0) + room["floor_area_m2"]
    return {
        "assembly": {identity: assembly_record(look, identity) for identity in document.of("assembly")},
        "glazing": {identity: glazing_record(look, identity) for identity in document.of("glazing")},
        "schedule": {identity: schedule_record(look, identity) for identity in document.of("schedule")},
        "use": {i: use_record(look, i, round(areas.get(i, 0.0), 6)) for i in document.of("use")},
    }
