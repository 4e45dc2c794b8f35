"""A trial building of N rooms: for measuring, not for engineering."""

from django.contrib.auth.models import AbstractBaseUser

from demo.draft import Draft, assembly, lay_ducts, lay_pipes
from projects.changes import apply_changes
from projects.document import load_document
from projects.models import Project
from projects.starter import create_project

_PER_LEVEL = 50


def load_trial(owner: AbstractBaseUser, count: int, name: str | None = None) -> Project:
    """A building of `count` rooms, 50 a level, each with ten surfaces and two windows; one air system a level."""
    project = create_project(owner, name or f"Trial building, {count} rooms")
    document, draft = load_document(project), Draft()
    m = {row["name"]: row["id"] for row in document.of("material").values()}
    kit = document.one("project")["kit"]
    wall = assembly(draft, "Wall", "wall", [
        (m["Brick, outer leaf"], 0.1), (m["Mineral wool"], 0.12), (m["Gypsum board"], 0.0125)])  # fmt: skip
    roof = assembly(
        draft, "Roof", "roof", [(m["Bitumen sheet"], 0.005), (m["Mineral wool"], 0.16), (m["Gypsum board"], 0.0125)]
    )
    slab = assembly(draft, "Slab", "partition", [(m["Concrete, reinforced"], 0.1), (m["Cement screed"], 0.03)])
    board = assembly(draft, "Board wall", "partition", [(m["Gypsum board"], 0.0125), (m["Mineral wool"], 0.025)])
    glass = draft.add("glazing", name="Double", u_value=1.4, g_value=0.5, frame_share=0.2)
    draft.set("kit", kit, outer_wall=wall, roof=roof, inner_floor=slab, inner_wall=board, window=glass)
    always = next(row["id"] for row in document.of("schedule").values() if row["name"] == "Working hours")
    use = draft.add("use", name="Office", people_value=0.1, lights_value=8, equipment_value=12, people_schedule=always,
                    lights_schedule=always, equipment_schedule=always, air_per_person_m3_s=0.0025,
                    air_per_area_m3_s_m2=0.0003)  # fmt: skip
    heating = draft.add("circuit", name="Heating", kind="heating", flow_c=55, return_c=45)
    chilled = draft.add("circuit", name="Chilled water", kind="chilled", flow_c=7, return_c=13)
    draft.add("plant_unit", circuit=heating, position=1, name="Boiler", kind="boiler", share=1.0)
    draft.add("plant_unit", circuit=chilled, position=1, name="Chiller", kind="chiller", share=1.0, fuel="electricity",
              full_cool=4.3, full_warm=2.9, part_cool=5.6, part_warm=3.6)  # fmt: skip
    levels: list[list[tuple[str, str]]] = []
    coils: list[tuple[str, str]] = []
    for storey in range((count + _PER_LEVEL - 1) // _PER_LEVEL):
        level = draft.add("level", name=f"Level {storey}", position=storey, height_m=3.0)
        system = draft.add("air_system", name=f"AHU-{storey + 1}")
        coils.append((system, f"AHU-{storey + 1}"))
        here: list[tuple[str, str]] = []
        for index in range(min(_PER_LEVEL, count - storey * _PER_LEVEL)):
            number = f"{storey}.{index + 1:02d}"
            room = draft.add("room", number=number, name=f"Office {number}", level=level, use=use, air_system=system,
                             floor_area_m2=20.0 + index % 7)  # fmt: skip
            here.append((room, number))
            _surfaces(draft, room, 90.0 * (index % 4), storey * _PER_LEVEL + index + _PER_LEVEL >= count)
        levels.append(here)
        lay_ducts(draft, system, [[(room, number, 5.0) for room, number in here]], 10.0)
    lay_pipes(draft, heating, levels, coils)
    lay_pipes(draft, chilled, [], coils)
    apply_changes(
        project.id,
        owner,
        changes=draft.changes,
        label="Trial building",
        base_version=project.version,
        way="redo",
        of_version=0,
    )
    project.refresh_from_db()
    return project


def _surfaces(draft: Draft, room: str, azimuth: float, top: bool) -> None:
    for offset in (0.0, 90.0):
        wall = draft.add("surface", room=room, name="Outer wall", role="outer_wall", boundary="outdoors", area_m2=12.0,
                         azimuth_deg=(azimuth + offset) % 360.0)  # fmt: skip
        draft.add("opening", surface=wall, name="Window", width_m=1.5, height_m=1.4)
    for index in range(6):
        draft.add(
            "surface", room=room, name=f"Inner wall {index + 1}", role="inner_wall", boundary="adiabatic", area_m2=7.0
        )
    draft.add("surface", room=room, name="Floor", role="inner_floor", boundary="adiabatic", area_m2=22.0, tilt_deg=180)
    if top:
        draft.add("surface", room=room, name="Roof", role="roof", boundary="outdoors", area_m2=22.0, tilt_deg=0)
    else:
        draft.add(
            "surface", room=room, name="Ceiling", role="inner_floor", boundary="adiabatic", area_m2=22.0, tilt_deg=0
        )
