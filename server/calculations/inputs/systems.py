"""Air systems and water circuits."""

from collections import defaultdict
from collections.abc import Callable, Iterable

from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.model.building import Margins
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import AirSystem, Circuit, Section, Terminal
from projects.document import Document, Row
from projects.resolver import MARGINS, Effective

_DUCT = ("shape", "height_limit_m", "pinned_width_m", "pinned_height_m")
_LIMITS = ("economizer_limit_c", "economizer_limit_j_kg")
MakeSection = Callable[[Row, str | None], Section]


def section(row: Row, end: str | None) -> Section:
    """A duct or pipe section."""
    return Section(
        id=row["id"], name=row["name"], parent=row["parent"], length_m=row["length_m"],
        loss_coefficient=row["loss_coefficient"], end=end, end_drop_pa=row["end_drop_pa"],
        pinned_diameter_m=row["pinned_diameter_m"], **{name: row[name] for name in _DUCT if name in row},
    )  # fmt: skip


def air_systems(
    look: Lookups, rooms: dict[str, Room], effective: dict[str, dict[str, Effective]], make: MakeSection
) -> Iterable[AirSystem]:
    """Every air system with its rooms."""
    document = look.document
    sections: dict[str, list[Row]] = defaultdict(list)
    for row in document.of("duct_section").values():
        sections[row["air_system"]].append(row)
    members: dict[str, list[Room]] = defaultdict(list)
    for room in rooms.values():
        members[document.of("room")[room.id]["air_system"] or ""].append(room)
    for row in document.of("air_system").values():
        terminals = []
        for room in members[row["id"]]:
            use = document.of("use")[document.of("room")[room.id]["use"]]
            values = effective[room.id]
            there = document.of("room")[room.id]["occupied"]
            terminals.append(
                Terminal(
                    room.id, values["people_per_m2"].value * room.floor_area_m2 if there else 0.0,
                    use["air_per_person_m3_s"], use["air_per_area_m3_s_m2"] if there else 0.0,
                    use["air_effectiveness"], values["minimum_air_changes"].value,
                    document.of("room")[room.id]["pinned_flow_m3_s"],
                    use["outdoor_air_changes"] if there else 0.0,
                )
            )  # fmt: skip
        inputs = {column: row[column] for column in row if column not in (*MARGINS, *_LIMITS, "running")}
        hours = design_patterns(look, row["running"], "highest") if row["running"] else None
        kind = row["economizer"]
        yield AirSystem(
            running=hours.by_month if hours else (),
            running_winter=hours.winter if hours else None,
            economizer_limit=row["economizer_limit_j_kg" if kind.startswith("enthalpy") else "economizer_limit_c"],
            terminals=tuple(terminals),
            ventilation=document.one("project")["ventilation"],
            sections=tuple(make(s, s["room"]) for s in sorted(sections[row["id"]], key=lambda s: s["position"])),
            **inputs,
        )


def margins_of_room(values: dict[str, Effective]) -> Margins:
    """What is added to a room's loads."""
    return Margins(*(values[field].value for field in MARGINS))


def margins_of_system(project: Row, row: Row) -> Margins:
    """What is added to a system's coils: its own, else the project's."""
    return Margins(*(project[field] if row[field] is None else row[field] for field in MARGINS))


def circuits(document: Document, make: MakeSection) -> Iterable[Circuit]:
    """Every circuit with its sections."""
    sections: dict[str, list[Row]] = defaultdict(list)
    for row in document.of("pipe_section").values():
        sections[row["circuit"]].append(row)
    for row in document.of("circuit").values():
        yield Circuit(
            sections=tuple(
                make(s, s["room"] or s["air_system"]) for s in sorted(sections[row["id"]], key=lambda s: s["position"])
            ),
            **row,
        )
