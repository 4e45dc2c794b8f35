"""Air systems and water circuits."""

from collections import defaultdict
from collections.abc import Callable, Iterable
from dataclasses import fields, replace

from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.model.building import Margins
from pendrum_core.model.catalogue import Sizes
from pendrum_core.model.plant import CeilingBuild, FloorBuild, PlantUnit, Rejection
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import ROOM_UNIT, AirSystem, Circuit, Extract, Fitted, Section, Terminal, Transfer
from pendrum_core.model.unit_parts import UnitPart
from projects.resolver import MARGINS, Effective
from projects.rows import Document, Row

_OF_ONE = (
    "network",
    "shape",
    "height_limit_m",
    "pinned_width_m",
    "pinned_height_m",
    "valve_kv_m3_h",
    "through",
    "end_share",
)
_LIMITS = ("economizer_limit_c", "economizer_limit_j_kg")
_TOLD_APART = ("running", "arrangement", "parts", "sets")
NO_ZONE = "none"
_SERVED_BY = ("air_system", "second_system")
MakeSection = Callable[[Row, str | None], Section]


def section(row: Row, end: str | None) -> Section:
    """A duct or pipe section."""
    return Section(
        id=row["id"],
        name=row["name"],
        parent=row["parent"],
        length_m=row["length_m"],
        loss_coefficient=row["loss_coefficient"],
        end=end,
        end_drop_pa=row["end_drop_pa"],
        pinned_diameter_m=row["pinned_diameter_m"],
        fittings=tuple(Fitted(**part) for part in row["fittings"]),
        **{name: row[name] for name in _OF_ONE if name in row},
    )


def air_systems(
    look: Lookups, rooms: dict[str, Room], effective: dict[str, dict[str, Effective]], make: MakeSection, sizes: Sizes
) -> Iterable[AirSystem]:
    """Every air system with its rooms."""
    document = look.document
    sections: dict[str, list[Row]] = defaultdict(list)
    for row in document.of("duct_section").values():
        sections[row["air_system"]].append(row)
    members: dict[str, list[tuple[Room, int]]] = defaultdict(list)
    for room in rooms.values():
        row = document.of("room")[room.id]
        for rank, field in enumerate((field for field in _SERVED_BY if row[field]), 1):
            members[row[field]].append((room, rank))
    for row in document.of("air_system").values():
        terminals = tuple(_terminal(document, effective, room, rank) for room, rank in members[row["id"]])
        inputs = {column: row[column] for column in row if column not in (*MARGINS, *_LIMITS, *_TOLD_APART)}
        hours = design_patterns(look, row["running"], "highest") if row["running"] else None
        kind = row["economizer"]
        system = AirSystem(
            running=hours.by_month if hours else (),
            running_winter=hours.winter if hours else None,
            economizer_limit=row["economizer_limit_j_kg" if kind.startswith("enthalpy") else "economizer_limit_c"],
            terminals=terminals,
            ventilation=document.one("project")["ventilation"],
            sections=tuple(make(s, s["room"]) for s in sorted(sections[row["id"]], key=lambda s: s["position"])),
            kind=row["arrangement"],
            parts=tuple(UnitPart(**part) for part in row["parts"]),
            sizes=sizes,
            **inputs,
        )
        yield from _sets(system, row["sets"], document, rooms)


def _sets(system: AirSystem, sets: str, document: Document, rooms: dict[str, Room]) -> Iterable[AirSystem]:
    """The system, or each set of its equipment where every room or zone has one of its own."""
    if system.kind != ROOM_UNIT and sets == "zone":
        yield from _sets_of_zones(system, document)
        return
    if system.kind != ROOM_UNIT:
        yield system
        return
    for terminal in system.terminals:
        yield replace(
            system,
            id=f"{system.id}~{terminal.room}",
            of=system.id,
            name=f"{system.name} {rooms[terminal.room].number}",
            terminals=(terminal,),
            sections=(),
        )


def _sets_of_zones(system: AirSystem, document: Document) -> Iterable[AirSystem]:
    """A set for every zone of its rooms, and one for rooms without a zone."""
    members: dict[str, list[Terminal]] = defaultdict(list)
    for terminal in system.terminals:
        members[document.of("room")[terminal.room]["zone"] or NO_ZONE].append(terminal)
    for zone, terminals in members.items():
        name = document.of("zone")[zone]["name"] if zone != NO_ZONE else "without a zone"
        yield replace(
            system,
            id=f"{system.id}~{zone}",
            of=system.id,
            name=f"{system.name} {name}",
            terminals=tuple(terminals),
            sections=_leading_to({terminal.room for terminal in terminals}, system.sections),
        )


def _leading_to(rooms: set[str], sections: tuple[Section, ...]) -> tuple[Section, ...]:
    """Sections that lead to these rooms and to no others; what stood before them is another set's too, and left out."""
    beyond: dict[str, set[str]] = defaultdict(set)
    parents = {section.id: section.parent for section in sections}
    for section in sections:
        at: str | None = section.id
        while section.end is not None and at is not None:
            beyond[at].add(section.end)
            at = parents[at]
    kept = {section.id for section in sections if beyond[section.id] and beyond[section.id] <= rooms}
    return tuple(
        section if section.parent in kept else replace(section, parent=None)
        for section in sections
        if section.id in kept
    )


def _terminal(document: Document, effective: dict[str, dict[str, Effective]], room: Room, rank: int) -> Terminal:
    row, values = document.of("room")[room.id], effective[room.id]
    use, there = document.of("use")[row["use"]], row["occupied"]
    own = rank == 1 and bool(row["air_system"])  # its fields tell of the terminal of its first system
    return Terminal(
        room.id,
        values["people_per_m2"].value * room.floor_area_m2 if there else 0.0,
        air_per_person_m3_s=use["air_per_person_m3_s"],
        air_per_area_m3_s_m2=use["air_per_area_m3_s_m2"] if there else 0.0,
        effectiveness=use["air_effectiveness"],
        minimum_air_changes=values["minimum_air_changes"].value,
        pinned_flow_m3_s=row["pinned_flow_m3_s" if own else "second_pinned_flow_m3_s"],
        outdoor_air_changes=use["outdoor_air_changes"] if there else 0.0,
        rank=rank,
        shared=all(row[field] for field in _SERVED_BY),
        constant=own and row["terminal_flow"] == "constant",
        least_share=row["terminal_least"] if own else None,
        reheats=row["terminal_reheats"] if own else True,
        outlets=row["outlets"] if own else 1,
    )


def extracts(look: Lookups, rooms: dict[str, Room]) -> Iterable[Extract]:
    """Every extract of a room that is calculated."""
    for row in look.document.of("extract").values():
        if row["room"] in rooms:
            hours = design_patterns(look, row["schedule"], "highest") if row["schedule"] else None
            yield Extract(
                row["id"],
                row["name"],
                room=row["room"],
                flow_m3_s=row["flow_m3_s"],
                by_unit=row["lane"] == "unit",
                by_month=hours.by_month if hours else (),
                winter=hours.winter if hours else None,
                fan_pa=row["fan_pa"],
                fan_efficiency=row["fan_efficiency"],
                triggered=row["above_c"] is not None,
            )


def transfers(document: Document, rooms: dict[str, Room]) -> Iterable[Transfer]:
    """Every transfer between rooms that are calculated."""
    for row in document.of("transfer").values():
        if row["room"] in rooms and row["source"] in rooms:
            yield Transfer(row["id"], row["source"], row["room"], row["flow_m3_s"])


def offsets(document: Document, rooms: dict[str, Room]) -> dict[str, float]:
    """What rooms give to outdoors by their pressure [m3/s]."""
    return {
        room: row["offset_m3_s"] for room, row in document.of("room").items() if room in rooms and row["offset_m3_s"]
    }


def margins_of_room(values: dict[str, Effective]) -> Margins:
    """What is added to a room's loads."""
    return Margins(*(values[field].value for field in MARGINS))


def margins_of_system(project: Row, row: Row) -> Margins:
    """What is added to a system's coils: its own, else the project's."""
    return Margins(*(project[field] if row[field] is None else row[field] for field in MARGINS))


def _unit(row: Row) -> PlantUnit:
    return PlantUnit(**{column: value for column, value in row.items() if column not in ("circuit", "position")})


def circuits(look: Lookups, make: MakeSection, sizes: Sizes) -> Iterable[Circuit]:
    """Every circuit with its sections."""
    document = look.document
    sections: dict[str, list[Row]] = defaultdict(list)
    for row in document.of("pipe_section").values():
        sections[row["circuit"]].append(row)
    units: dict[str, list[Row]] = defaultdict(list)
    for row in document.of("plant_unit").values():
        units[row["circuit"]].append(row)
    for row in document.of("circuit").values():
        hours = design_patterns(look, row["running"], "highest") if row["running"] else None
        coldest_or_hottest = "highest" if row["kind"] == "heating" else "lowest"
        flow = design_patterns(look, row["flow_schedule"], coldest_or_hottest) if row["flow_schedule"] else None
        yield Circuit(
            running=hours.by_month if hours else (),
            running_winter=hours.winter if hours else None,
            flow_by_month=flow.by_month if flow else (),
            flow_winter=flow.winter if flow else None,
            units=tuple(_unit(unit) for unit in sorted(units[row["id"]], key=lambda unit: unit["position"])),
            sections=tuple(
                make(s, s["room"] or s["air_system"] or s["fed_circuit"])
                for s in sorted(sections[row["id"]], key=lambda s: s["position"])
            ),
            sizes=sizes,
            rejection=Rejection(
                row["rejection"], **{f.name: row[f"rejection_{f.name}"] for f in fields(Rejection) if f.name != "kind"}
            ),
            floor=FloorBuild(**{f.name: row[f"floor_{f.name}"] for f in fields(FloorBuild)}),
            ceiling=CeilingBuild(**{f.name: row[f"ceiling_{f.name}"] for f in fields(CeilingBuild)}),
            **{
                column: value
                for column, value in row.items()
                if column not in ("running", "flow_schedule")
                and not column.startswith(("rejection", "floor_", "ceiling_"))
            },
        )
