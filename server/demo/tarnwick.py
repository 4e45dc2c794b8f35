"""The Tarnwick Craft Hall as a document: an invented community workshop building with 28 rooms."""

import json
from pathlib import Path
from typing import Any

from django.contrib.auth.models import AbstractBaseUser

from calculations.plan import WALL_GAP_M, surface_fields
from demo.draft import Draft, assembly, lay_ducts, lay_louvre, lay_pipes
from pendrum_core.geometry.outlines import area_m2
from pendrum_core.geometry.plan import Face, PlanLevel, PlanRoom, checked_outline, faces
from projects.changes import apply_changes
from projects.document import load_document
from projects.models import Project
from projects.starter import create_project, weekly

NAME = "Tarnwick Craft Hall"
_SOURCE = Path(__file__).parent / "tarnwick.json"

_PATTERNS: dict[str, tuple[list[tuple[float, float]], list[tuple[float, float]]]] = {
    # name: weekday, weekend as (until hour, fraction)
    "Workshop day": ([(8, 0), (9, 0.3), (12, 0.9), (13, 0.4), (17.5, 1), (21, 0.35), (24, 0)],
                     [(9, 0), (16, 0.6), (24, 0)]),
    "Workshop lights": ([(7.5, 0), (21, 1), (24, 0)], [(9, 0), (16, 1), (24, 0)]),
    "Machines": ([(8.5, 0.05), (12, 0.7), (13, 0.1), (17, 0.7), (24, 0.05)], [(10, 0.05), (15, 0.4), (24, 0.05)]),
    "Kiln firing": ([(6, 1), (11, 0.7), (16, 0.2), (20, 0.1), (24, 0.8)], [(8, 1), (24, 0.1)]),
    "Gallery visitors": ([(10, 0), (12, 0.3), (15, 0.7), (18, 1), (24, 0)], [(10, 0), (18, 1), (24, 0)]),
    "Gallery spots": ([(9.5, 0.1), (18.5, 1), (24, 0.1)], [(9.5, 0.1), (18.5, 1), (24, 0.1)]),
    "Shop hours": ([(9, 0), (13, 0.6), (18, 1), (24, 0)], [(9, 0), (17, 1), (24, 0)]),
    "Meeting afternoons": ([(9, 0), (13, 0.3), (17.5, 1), (21, 0.5), (24, 0)], [(24, 0)]),
    "Passing": ([(8, 0.05), (21, 0.5), (24, 0.05)], [(9, 0.05), (17, 0.5), (24, 0.05)]),
    "Always": ([(24, 1)], [(24, 1)]),
}  # fmt: skip

_VENTILATION = "ANSI/ASHRAE 62.1-2019, table 6-1"
# People per m2, sensible and latent W each, lights and equipment W/m2, L/s per person, L/s per m2, set-points.
_USES: dict[str, dict[str, Any]] = {
    "Foyer": {"people": 0.1, "lights": 9, "air": (2.5, 0.3), "set": (19, 26), "cooled": False, "when": "Passing"},
    "Shop": {"people": 0.15, "lights": 14, "equip": 5, "air": (3.8, 0.6), "set": (20, 24), "when": "Shop hours"},
    "Wet workshop": {"people": 0.08, "sens": 85, "lat": 90, "lights": 11, "equip": 18, "latent": 0.1,
                     "air": (5.0, 0.9), "set": (19, 25), "when": "Workshop day", "machines": "Machines"},
    "Dry workshop": {"people": 0.1, "sens": 95, "lat": 95, "lights": 12, "equip": 22, "vented": 0.2,
                     "air": (5.0, 0.9), "set": (18, 25), "when": "Workshop day", "machines": "Machines"},
    "Kiln room": {"people": 0.02, "lights": 8, "equip": 846, "vented": 0.7, "air": (5.0, 0.9), "set": (16, 30),
                  "cooled": False, "when": "Workshop day", "machines": "Kiln firing", "ach": 1.0},
    "Circulation": {"people": 0.02, "lights": 5, "air": (0.0, 0.3), "set": (18, 27), "cooled": False, "when": "Passing"},
    "Plant": {"lights": 3, "equip": 12, "set": (8, 35), "cooled": False, "machines": "Always", "when": "Passing"},
    "Store": {"lights": 3, "set": (8, 30), "heated": False, "cooled": False, "when": "Passing"},
    "Dye room": {"people": 0.05, "sens": 85, "lat": 100, "lights": 11, "equip": 159, "latent": 0.4, "vented": 0.4,
                 "air": (5.0, 0.9), "set": (19, 26), "when": "Workshop day", "machines": "Machines"},
    "Washrooms": {"people": 0.05, "lights": 8, "air": (0.0, 1.0), "set": (20, 28), "cooled": False, "when": "Passing"},
    "Cold store": {"yard": (10, 90), "lights": 3, "set": (2, 4), "heated": False, "when": "Passing", "ach": 0.05},
    "Gallery": {"people": 0.3571, "lights": 16, "air": (3.8, 0.3), "set": (21, 23), "when": "Gallery visitors",
                "light_when": "Gallery spots"},
    "Steady store": {"yard": (3, 40), "lights": 4, "air": (0.0, 0.3), "set": (20, 22), "when": "Passing", "ach": 0.1},
    "Meeting": {"people": 0.2857, "lights": 9, "equip": 8, "air": (2.5, 0.3), "set": (20.5, 24),
                "when": "Meeting afternoons"},
    "Staff room": {"people": 0.12, "lights": 9, "equip": 10, "air": (2.5, 0.3), "set": (20.5, 26), "cooled": False,
                   "when": "Workshop day"},
    "Drying loft": {"lights": 6, "equip": 60, "latent": 0.66, "set": (18, 30), "cooled": False, "when": "Passing",
                    "machines": "Always", "ach": 2.0},
}  # fmt: skip

# System: supply temperature [°C] and rooms.
_ON = {
    "AHU-1 workshops": (14.0, ("0.02", "0.03", "0.05", "0.06", "0.10", "0.11", "1.03", "1.04", "1.08", "1.11")),
    "AHU-2 gallery": (15.0, ("1.01", "1.02", "1.06")),
    "MAU-1 make-up": (20.0, ("0.04",)),
    "Cold store unit": (-3.0, ("0.13",)),
}
# Rooms that have make-up air beside the air of their own system.
_MADE_UP = ("0.05", "0.06", "0.11")
# Room: name, L/s, schedule, whether it runs only above a temperature [°C].
_EXTRACTS: dict[str, tuple[str, float, str | None, float | None]] = {
    "0.04": ("Kiln hood", 450, None, None), "0.05": ("Spray booth", 300, "Open hours", None),
    "0.06": ("Dust extract", 600, "Machine hours", None), "0.11": ("Vat hood", 350, "Open hours", None),
    "0.12": ("Washroom extract", 75, None, None), "1.10": ("Washroom extract", 75, None, None),
    "1.09": ("Roof extract", 400, None, 29.0),
}  # fmt: skip
_OFFSETS_M3_S = {"0.04": -0.04, "0.11": -0.03}
_TRANSFERS = {"0.12": "0.07", "1.10": "1.05"}  # into washrooms, from passages: what balances
_ZONES = {
    "Clay and dye": ("0.03", "0.05", "0.11"),
    "Wood and print": ("0.06", "0.10", "1.03", "1.08", "1.11"),
    "Steady air": ("1.01", "1.02", "1.06"),
}
_COLD = {"0.13": 4.0}  # held at this temperature by its own unit
_AROUND_COLD_C = 20.0
_COOL_NEIGHBOURS = {"0.08", "0.09"}  # their temperature is found by balance with the rooms around them
# Share of the outer wall that is glazed where a room differs from its use's ordinary one.
_GLASS_SHARE = {"0.01": 0.66, "1.13": 0.9, "0.08": 0.0, "0.09": 0.0, "0.13": 0.0, "1.02": 0.0, "1.06": 0.0, "0.04": 0.05,
                "0.12": 0.1, "1.10": 0.1}  # fmt: skip
_GALLERY_GLASS_M2, _GALLERY_ROOFLIGHT_M2 = 46.0, 12.0
_ROOM_HEIGHT_M = 4.0  # for the proportions of windows


_SWING_K, _DEW_MONTH = 10.8, 8
_HOLIDAYS = (("01-01", "New year"), ("05-03", "Founders' day"), ("08-16", "Weavers' fair"), ("12-27", "Winter rest"))


def _steps(pattern: list[tuple[float, float]]) -> list[list[float]]:
    return [[round(hour * 60), value] for hour, value in pattern]


def load_tarnwick(owner: AbstractBaseUser) -> Project:
    """Create the demo project, through the same door as every edit."""
    data = json.loads(_SOURCE.read_text())
    project = create_project(owner, NAME)
    draft = Draft()
    for level in load_document(project).of("level"):
        draft.changes.append({"op": "delete", "kind": "level", "id": level, "fields": {}})
    _place(draft, project, data)
    kit = _fabric(draft, project)
    uses, open_hours = _uses(draft, project)
    rooms = _rooms(draft, data, uses, kit)
    _air(draft, rooms, open_hours)
    _systems(draft, data, rooms)
    _tariffs(draft)
    apply_changes(
        project.id,
        owner,
        changes=draft.changes,
        label="Tarnwick Craft Hall",
        base_version=project.version,
        way="redo",
        of_version=0,
    )
    project.refresh_from_db()
    return project


def _place(draft: Draft, project: Project, data: dict[str, Any]) -> None:
    document = load_document(project)
    site = data["site"]
    draft.set(
        "site", document.one("site")["id"], name=site["name"], latitude=site["latitude"], longitude=site["longitude"],
        utc_offset_h=site["utc_offset_h"], elevation_m=site["elevation_m"],
        ground_reflectance=site["ground_reflectance"], ground_temperature_c=site["ground_annual_mean_c"],
        winter_dry_bulb_c=data["winter"]["dry_bulb_c"], winter_wind_m_s=data["winter"]["wind_m_s"],
        terrain=site["terrain"], rotation_deg=data["rotation_deg"], cold_water_c=site["cold_water_c"], air_mean_c=site["ground_annual_mean_c"],
        air_amplitude_k=_SWING_K, saving_from="03-28", saving_to="10-31",
        dehumidification_month=_DEW_MONTH, dehumidification_dew_point_c=data["dehumidification"]["dew_point_c"],
        dehumidification_dry_bulb_c=data["dehumidification"]["coincident_dry_bulb_c"],
    )  # fmt: skip
    draft.set(
        "project",
        project.id,
        year=2027,
        infiltration_ach=0.25,
        holidays=[{"date": date, "name": name} for date, name in _HOLIDAYS],
    )
    for row, month in zip(
        sorted(document.of("design_month").values(), key=lambda r: r["month"]), data["summer"], strict=True
    ):
        draft.set("design_month", row["id"], dry_bulb_c=month["dry_bulb_c"], wet_bulb_c=month["coincident_wet_bulb_c"],
                  range_k=month["daily_range_k"], tau_b=month["tau_b"], tau_d=month["tau_d"])  # fmt: skip


def _fabric(draft: Draft, project: Project) -> dict[str, str]:
    document = load_document(project)
    m = {row["name"]: row["id"] for row in document.of("material").values()}
    kit = document.one("project")["kit"]
    roles = {
        "outer_wall": assembly(draft, "Brick, insulated cavity", "wall", [
            (m["Brick, outer leaf"], 0.102), (m["Mineral wool"], 0.14), (m["Concrete block, medium"], 0.14),
            (m["Plaster"], 0.013)], solar_absorptance=0.65),
        "roof": assembly(draft, "Warm deck on concrete", "roof", [
            (m["Bitumen sheet"], 0.006), (m["Rigid polyurethane"], 0.14), (m["Concrete, reinforced"], 0.18),
            (m["Plaster"], 0.01)], solar_absorptance=0.75),
        "ground_floor": assembly(draft, "Slab on ground", "floor", [
            (m["Expanded polystyrene"], 0.10), (m["Concrete, reinforced"], 0.15), (m["Cement screed"], 0.065)],
            ground_u_value=0.21),
        "inner_wall": assembly(draft, "Block wall, to its middle", "partition", [
            (m["Concrete block, medium"], 0.07), (m["Plaster"], 0.013)]),
        "inner_floor": assembly(draft, "Concrete floor, to its middle", "partition", [
            (m["Concrete, reinforced"], 0.10), (m["Cement screed"], 0.03)]),
        "door": assembly(draft, "Insulated door", "door", [
            (m["Steel sheet"], 0.002), (m["Rigid polyurethane"], 0.04), (m["Steel sheet"], 0.002)]),
        "window": draft.add("glazing", name="Double, low-e", u_value=1.35, g_value=0.52, frame_share=0.18, panes=2),
    }  # fmt: skip
    roles["gallery glass"] = draft.add(
        "glazing", name="Double, sun control", u_value=1.2, g_value=0.36, frame_share=0.12, panes=2,
        blind="inside", blind_factor=0.6, blind_air_share=0.45, blind_rule="irradiance", blind_threshold_w_m2=180,
    )  # fmt: skip
    roles["reveal"] = draft.add("shading", name="Brick reveal", reveal_m=0.18)
    roles["cold wall"] = assembly(draft, "Cold store panel", "partition", [
        (m["Steel sheet"], 0.001), (m["Rigid polyurethane"], 0.12), (m["Steel sheet"], 0.001)])  # fmt: skip
    roles["cool wall"] = assembly(draft, "Block wall, whole", "partition", [
        (m["Plaster"], 0.013), (m["Concrete block, medium"], 0.14), (m["Plaster"], 0.013)])  # fmt: skip
    draft.set("kit", kit, name="Craft Hall kit",
              **{role: roles[role] for role in (
                  "outer_wall", "roof", "ground_floor", "inner_wall", "inner_floor", "door", "window")})  # fmt: skip
    return roles


def _uses(draft: Draft, project: Project) -> tuple[dict[str, str], str]:
    """Uses by name, and the hours at which the building is open."""
    schedules = {row["name"]: row["id"] for row in load_document(project).of("schedule").values()}
    for name, (weekday, weekend) in _PATTERNS.items():
        if name not in schedules:
            schedules[name] = draft.add("schedule", name=name, **weekly(_steps(weekday), _steps(weekend)))
    uses = {}
    for name, u in _USES.items():
        per_person, per_area = u.get("air", (0.0, 0.0))
        uses[name] = draft.add(
            "use", name=name, people_value=u.get("people", 0.0), person_sensible_w=u.get("sens", 75),
            person_latent_w=u.get("lat", 55), people_schedule=schedules[u["when"]], lights_value=u.get("lights", 0),
            lights_schedule=schedules[u.get("light_when", "Workshop lights")], equipment_value=u.get("equip", 0),
            equipment_latent_share=u.get("latent", 0.0), equipment_vented_share=u.get("vented", 0.0),
            equipment_schedule=schedules[u.get("machines", u["when"])], infiltration_ach=u.get("ach"),
            air_per_person_m3_s=per_person / 1000, air_per_area_m3_s_m2=per_area / 1000,
            heated=u.get("heated", True), heating_setpoint_c=u["set"][0],
            cooled=u.get("cooled", True), cooling_setpoint_c=u["set"][1], source=_VENTILATION,
            yardstick_low_w_m2=u.get("yard", (20, 150))[0], yardstick_high_w_m2=u.get("yard", (20, 150))[1],
        )  # fmt: skip
    return uses, _thermostats(draft, uses)


def _thermostats(draft: Draft, uses: dict[str, str]) -> str:
    """Set-points by the hour where the building is left at night, and what is special to some uses; the hours."""
    open_hours = draft.add("schedule", name="Open hours", kind="on_off",
                           **weekly(_steps([(8, 0), (21, 1), (24, 0)]), _steps([(10, 0), (17, 1), (24, 0)])))  # fmt: skip
    for name in ("Wet workshop", "Dry workshop", "Meeting"):
        draft.set("use", uses[name], setpoint_schedule=open_hours, heating_away="setback", heating_setback_c=16.0,
                  cooling_away="off", warm_up_h=3.0, pull_down_h=2.0, heating_radiant_share=0.3)  # fmt: skip
    draft.set("use", uses["Gallery"], humidity_low=0.4, humidity_high=0.6, sensing="operative")
    return open_hours


def _unit(*more: str, filter_pa: float = 150.0) -> list[dict[str, Any]]:
    """Filter, coils, what comes behind them, and the fan."""
    coils = [
        {"kind": "filter", "drop_pa": filter_pa},
        {"kind": "heating coil", "drop_pa": 40.0},
        {"kind": "cooling coil", "drop_pa": 80.0},
    ]
    return [*coils, *({"kind": kind} for kind in more), {"kind": "fan"}, {"kind": "attenuator", "drop_pa": 80.0}]


# What the units have beside their usual parts.
_UNITS: dict[str, dict[str, Any]] = {
    "AHU-1 workshops": {"volume": "variable", "least_share": 0.3, "economizer": "dry-bulb differential", "return_fan_pa": 250.0},
    "AHU-2 gallery": {
        "winter_supply_c": 24.0, "parts": _unit("steam humidifier"), "recovery_sensible": 0.7, "frost": "turned down", "frost_limit_c": 1.0,
    },
    "MAU-1 make-up": {"arrangement": "make-up", "winter_supply_c": 18.0, "parts": _unit(filter_pa=120.0)},
    "Cold store unit": {
        "arrangement": "room units", "winter_supply_c": 4.0, "reheat": "none", "outlet_velocity_m_s": 4.0,
        "parts": [{"kind": "cooling coil", "drop_pa": 60.0}, {"kind": "fan"}, {"kind": "other", "drop_pa": 20.0}],
    },
}  # fmt: skip


def _rooms(draft: Draft, data: dict[str, Any], uses: dict[str, str], fabric: dict[str, str]) -> dict[str, str]:
    of_room: dict[str, str] = {}
    systems = {
        name: draft.add("air_system", name=name, supply_c=supply_c, **_UNITS[name])
        for name, (supply_c, _) in _ON.items()
    }
    for name, (_, numbers) in _ON.items():
        of_room |= dict.fromkeys(numbers, systems[name])
    ids: dict[str, str] = {}
    zones = {name: draft.add("zone", name=name) for name in _ZONES}
    zone_of = {number: zones[name] for name, numbers in _ZONES.items() for number in numbers}
    levels = []
    for position, level in enumerate(data["levels"]):
        level_id = draft.add("level", name=level["name"] + " level", position=position, floor_m=level["floor_m"],
                             height_m=level["height_m"])  # fmt: skip
        drawn = []
        for room in level["rooms"]:
            number = room["number"]
            outline = checked_outline([tuple(p) for p in room["outline_m"]])
            area = round(area_m2(outline), 3)
            ids[number] = draft.add(
                "room", number=number, name=room["name"], level=level_id, zone=zone_of.get(number), use=uses[room["use"]], floor_area_m2=area,
                plan_area_m2=area, outline_m=outline, air_system=of_room.get(number),
                second_system=systems["MAU-1 make-up"] if number in _MADE_UP else None,
                offset_m3_s=_OFFSETS_M3_S.get(number),
                occupied=room["use"] not in ("Store", "Cold store", "Plant"),
            )  # fmt: skip
            drawn.append(PlanRoom(ids[number], number, outline, level["height_m"]))
        levels.append(PlanLevel(level["floor_m"], tuple(drawn)))
    number_of = {identity: number for number, identity in ids.items()}
    for face in faces(levels, data["rotation_deg"], WALL_GAP_M):
        _surface(draft, face, number_of, fabric)
    return ids


def _surface(draft: Draft, face: Face, numbers: dict[str, str], fabric: dict[str, str]) -> None:
    """A surface from the plan, with what is beyond it and its openings."""
    fields, number, beyond = surface_fields(face, numbers), numbers[face.room], numbers.get(face.neighbour or "", "")
    if face.kind == "inner_wall" and beyond in _COLD:
        fields |= {"boundary": "fixed", "fixed_temperature_c": _COLD[beyond], "assembly": fabric["cold wall"]}
    elif face.kind == "inner_wall" and number in _COLD:
        fields |= {"boundary": "fixed", "fixed_temperature_c": _AROUND_COLD_C, "assembly": fabric["cold wall"]}
    elif face.kind == "inner_wall" and (number in _COOL_NEIGHBOURS) != (beyond in _COOL_NEIGHBOURS):
        fields |= {"boundary": "room", "assembly": fabric["cool wall"]}
    surface = draft.add("surface", **fields)
    if face.kind == "roof" and number == "1.01":
        draft.add("opening", surface=surface, name="Roof lights", count=6, width_m=1.0,
                  height_m=round(_GALLERY_ROOFLIGHT_M2 / 6, 3), glazing=fabric["gallery glass"])  # fmt: skip
    if face.kind == "outer_wall":
        _windows(draft, surface, face, number, fabric)


def _windows(draft: Draft, wall: str, face: Face, number: str, fabric: dict[str, str]) -> None:
    south_west = 90.0 < face.azimuth_deg < 320.0
    if number == "1.01":
        if south_west:
            width = round(_GALLERY_GLASS_M2 / 2 / 2.6 / 4, 3)
            draft.add("opening", surface=wall, name="Gallery windows", count=4, width_m=width, height_m=2.6,
                      glazing=fabric["gallery glass"])  # fmt: skip
        return
    share, height = _GLASS_SHARE.get(number, 0.28), _ROOM_HEIGHT_M
    if share == 0.0:
        return
    pane_height = min(height - 0.3, 2.4 if share < 0.5 else height - 0.3)
    total, length = share * face.area_m2, face.area_m2 / height
    count = max(1, round(length / 3.0))
    draft.add("opening", surface=wall, name="Windows", count=count, width_m=round(total / pane_height / count, 3),
              height_m=round(pane_height, 2), shading=fabric["reveal"] if share < 0.5 else None)  # fmt: skip
    if number in ("0.01", "0.15") and total + 5.0 < face.area_m2:
        draft.add("opening", surface=wall, name="Doors to outdoors", kind="door", count=2, width_m=1.0, height_m=2.2)


def _air(draft: Draft, rooms: dict[str, str], open_hours: str) -> None:
    """Hoods and other extracts, and air between rooms."""
    machines = draft.add("schedule", name="Machine hours", kind="on_off",
                         **weekly(_steps([(8.5, 0), (12, 1), (13, 0), (17, 1), (24, 0)]), _steps([(10, 0), (15, 1), (24, 0)])))  # fmt: skip
    hours = {"Open hours": open_hours, "Machine hours": machines, None: None}
    for number, (name, flow_l_s, schedule, above_c) in _EXTRACTS.items():
        draft.add(
            "extract",
            room=rooms[number],
            name=name,
            flow_m3_s=flow_l_s / 1000.0,
            schedule=hours[schedule],
            above_c=above_c,
        )
    for number, source in _TRANSFERS.items():
        draft.add("transfer", room=rooms[number], source=rooms[source])


def _systems(draft: Draft, data: dict[str, Any], rooms: dict[str, str]) -> None:
    on = {
        c["fields"]["number"]: (c["fields"]["air_system"], c["fields"]["second_system"])
        for c in draft.changes
        if c["kind"] == "room"
    }
    names = {c["id"]: c["fields"]["name"] for c in draft.changes if c["kind"] == "air_system"}
    # A refrigerating unit of its own has neither ducts nor water.
    store = next(system for system, name in names.items() if name == "Cold store unit")
    names = {system: name for system, name in names.items() if system != store}
    for system in names:
        ends = [
            [(rooms[n], n, 5.0 + i % 3) for i, n in enumerate(r["number"] for r in level["rooms"]) if system in on[n]]
            for level in data["levels"]
        ]
        lay_ducts(draft, system, ends, 8.0)
        if names[system] == "AHU-1 workshops":
            # Its hoods have fans of their own: what they take does not come back.
            lay_ducts(draft, system, ends, 7.0, "return")
            lay_louvre(draft, system, "outdoor", 4.0)
            lay_louvre(draft, system, "exhaust", 6.0)
    heating = draft.add("circuit", name="Heating", kind="heating", flow_c=55, return_c=45, pump_standby=1, flow_rule="outdoors", flow_mild_c=38,
                        reset_cold_c=-8.4, reset_mild_c=15, loss_share=0.03, staging="fewest")  # fmt: skip
    for number in (1, 2):
        draft.add("plant_unit", circuit=heating, position=number, name=f"Boiler {number}", share=0.6, idle_share=0.005,
                  running_w=80, resting_w=8)  # fmt: skip
    unheated = {"Store", "Cold store"}
    levels = [
        [(rooms[r["number"]], r["number"]) for r in level["rooms"] if r["use"] not in unheated]
        for level in data["levels"]
    ]
    lay_pipes(draft, heating, levels, list(names.items()))
    chilled = draft.add("circuit", name="Chilled water", kind="chilled", flow_c=7, return_c=13, source_drop_pa=30_000.0)
    draft.add("plant_unit", circuit=chilled, name="Air-cooled chiller", kind="chiller", fuel="electricity", share=1.0,
              full_cool=4.3, full_warm=2.9, part_cool=5.6, part_warm=3.6, least_part=0.25, idle_share=0.0, running_w=150)  # fmt: skip
    lay_pipes(draft, chilled, [], list(names.items()))
    refrigerant = draft.add(
        "circuit", name="Cold store refrigerant", kind="chilled", medium="refrigerant", flow_c=-9, return_c=-5
    )
    draft.add("plant_unit", circuit=refrigerant, name="Condensing unit", kind="chiller", fuel="electricity", share=1.0,
              full_cool=3.1, full_warm=2.1, part_cool=3.0, part_warm=2.0, least_part=0.3, idle_share=0.0, told_flow_c=-10, running_w=20)  # fmt: skip
    draft.add("pipe_section", circuit=refrigerant, name="To the cold store", air_system=store, length_m=14.0)


def _tariffs(draft: Draft) -> None:
    draft.add("tariff", name="Electricity (made up)", carrier="electricity", price_kwh=0.21, peak_price_kwh=0.29,
              demand_price_kw_month=6.5, ratchet_share=0.5, standing_day=1.2, levy_kwh=0.02, tax_share=0.19, emission_kg_kwh=0.32)  # fmt: skip
    draft.add("tariff", name="Natural gas (made up)", carrier="natural gas", price_kwh=0.082, standing_day=0.6, levy_kwh=0.011,
              tax_share=0.19, emission_kg_kwh=0.201)  # fmt: skip
