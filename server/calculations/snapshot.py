"""From a document to the core's frozen inputs; what is missing becomes a snag, never a silent default."""

from calendar import month_name
from collections.abc import Iterable
from dataclasses import fields
from functools import partial

from calculations.inputs.climate import climate
from calculations.inputs.hot_water import hot_water_stores
from calculations.inputs.room import room_or_snags, title_of
from calculations.inputs.systems import (
    air_systems,
    circuits,
    extracts,
    margins_of_room,
    margins_of_system,
    offsets,
    section,
    transfers,
)
from calculations.inputs.use_checks import use_snags
from calculations.lookups import Lookups
from pendrum_core.checks.snag import DOUBTFUL, STOPS, Snag
from pendrum_core.model.building import Building, Group, Margins
from pendrum_core.model.catalogue import CatalogueRow, sizes_of
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import Section
from projects.kinds import KINDS
from projects.resolver import Effective, kit_in_use
from projects.rows import Document, Row
from projects.starter import STARTER_FIELDS, STARTER_MONTHS, STARTING_FIGURES

CLOCK_H = 2.5  # between the sun's noon and the clock's; no country is further off
SEASONS_FROM_DEG = 20.0


class Snapshot:
    """Core inputs of one document version, with the snags found on the way."""

    def __init__(
        self,
        building: Building,
        snags: list[Snag],
        effective: dict[str, dict[str, Effective]],
        yardsticks_w_m2: dict[str, tuple[float, float]],
        look: Lookups,
    ) -> None:
        self.building = building
        self.snags = snags
        self.effective = effective
        self.yardsticks_w_m2 = yardsticks_w_m2
        self.look = look


class Snapshots:
    """Makes snapshots of one project; what rests on rows that did not change is taken from the last one."""

    def __init__(self) -> None:
        self._look: Lookups | None = None
        self._sections: dict[str, tuple[Row, Section]] = {}

    def copy(self) -> "Snapshots":
        """A second one that knows the same and goes its own way: for trying a change out."""
        other = Snapshots()
        other._look, other._sections = self._look, dict(self._sections)
        return other

    def take(self, document: Document) -> Snapshot:
        """Turn a document into core inputs."""
        look = Lookups(document, self._look)
        snags: list[Snag] = []
        rooms: dict[str, Room] = {}
        effective: dict[str, dict[str, Effective]] = {}
        for identity in document.of("room"):
            room, found, values = look.remembered("room", identity, partial(room_or_snags, look, identity))
            snags.extend(found)
            effective[identity] = values
            if room is not None:
                rooms[identity] = room
        self._look = look
        snags.extend(_duplicate_numbers(document))
        snags.extend(_site_snags(document))
        snags.extend(look.remembered("roles", "", lambda: _empty_roles(look)))
        for use in document.of("use"):
            snags.extend(look.remembered("use snags", use, partial(use_snags, look, use)))
        snags.extend(_starting_figures(document))
        snags.extend(_transfer_snags(document))
        snags.extend(_option_snags(document))
        project = document.one("project")
        usual = Margins(project["heating_margin"], project["cooling_margin"])
        catalogue = tuple(_bought(row) for row in document.of("catalogue_row").values())
        sizes = sizes_of(catalogue)
        building = Building(
            climate=look.remembered("climate", "", lambda: climate(look)),
            rooms=tuple(rooms.values()),
            groups=tuple(_groups(document, rooms)),
            systems=tuple(air_systems(look, rooms, effective, self._section, sizes)),
            circuits=tuple(circuits(look, self._section, sizes)),
            stores=tuple(hot_water_stores(look, rooms, effective)),
            catalogue=catalogue,
            margins=usual,
            extracts=tuple(extracts(look, rooms)),
            transfers=tuple(transfers(document, rooms)),
            offsets_m3_s=offsets(document, rooms),
            room_margins={r: m for r in rooms if (m := margins_of_room(effective[r])) != usual},
            system_margins={key: margins_of_system(project, row) for key, row in document.of("air_system").items()},
        )
        return Snapshot(building, snags, effective, _yardsticks(document, rooms), look)

    def _section(self, row: Row, end: str | None) -> Section:
        """A section as the core takes it; the same object while its row is the same."""
        kept = self._sections.get(row["id"])
        if kept is None or kept[0] is not row:
            kept = (row, section(row, end))
            self._sections[row["id"]] = kept
        return kept[1]


def _bought(row: Row) -> CatalogueRow:
    return CatalogueRow(**{field.name: row[field.name] for field in fields(CatalogueRow)})


def _empty_roles(look: Lookups) -> list[Snag]:
    """Roles of the kit that something in the building relies on and that are empty."""
    kit = kit_in_use(look)
    snags = []
    used: dict[str, int] = {}
    for surface in look.every("surface").values():
        if surface["assembly"] is None:
            used[surface["role"]] = used.get(surface["role"], 0) + 1
    for row in look.every("opening").values():
        if row["glazing" if row["kind"] == "window" else "assembly"] is None:
            used[row["kind"]] = used.get(row["kind"], 0) + 1
    for role, count in used.items():
        if kit is None or kit[role] is None:
            what = role.replace("_", " ")
            identity = kit["id"] if kit else ""
            snags.append(
                Snag(
                    STOPS,
                    f"kit_{role}",
                    kind="kit",
                    id=identity,
                    stage="fabric",
                    sentence=f"The fabric kit has nothing for {what}; {count} in the building rely on it.",
                    way_out=f"choose one for {what}",
                )
            )
    return snags


def _option_snags(document: Document) -> list[Snag]:
    """Fields that an option and its base both changed."""
    snags = []
    for one in document.conflicts:
        row = document.row(one.kind, one.id) or {}
        name = " ".join(str(row[field]) for field in ("number", "name") if row.get(field)) or one.kind.replace("_", " ")
        what = f"{KINDS[one.kind].label(one.field)} of {name}"
        if not row:
            sentence = f"{what}: the base has removed what this option sets to {one.value}."
        else:
            sentence = f"{what}: this option says {one.value}; the base has changed it from {one.was} to {one.base}."
        snags.append(
            Snag(
                DOUBTFUL,
                f"option_{one.field}",
                kind=one.kind,
                id=one.id,
                stage="compare",
                sentence=sentence,
                way_out="keep the option's value or take the base's, under Compare, Differences",
            )
        )
    return snags


def _duplicate_numbers(document: Document) -> list[Snag]:
    seen: dict[str, Row] = {}
    snags = []
    for room in document.of("room").values():
        first = seen.setdefault(room["number"], room)
        if first is not room:
            snags.append(
                Snag(
                    DOUBTFUL,
                    "duplicate_number",
                    kind="room",
                    id=room["id"],
                    stage="rooms",
                    sentence=f"{room['name']} and {first['name']} both have the number {room['number']}.",
                    way_out="give one of them another number",
                )
            )
    return snags


def _site_snags(document: Document) -> list[Snag]:
    """The starter climate, whatever the site is called, and a site that does not fit its clock or its seasons."""
    site = document.one("site")
    months = sorted(document.of("design_month").values(), key=lambda row: row["month"])
    found = []
    if [tuple(month[field] for field in STARTER_FIELDS) for month in months] == list(STARTER_MONTHS):
        sentence = "The design conditions are still the starter values of a new project, for no place in particular."
        found.append(
            Snag(
                DOUBTFUL,
                "starter_site",
                kind="site",
                id=site["id"],
                stage="place",
                sentence=sentence,
                way_out="enter those of your site",
            )
        )
    noon = site["longitude"] / 15.0
    if abs((site["utc_offset_h"] - noon + 12.0) % 24.0 - 12.0) > CLOCK_H:
        sentence = (
            f"The site's clock is UTC{site['utc_offset_h']:+g} h, but the sun of longitude {site['longitude']:.2f}° runs about "
            f"{noon:+.1f} h from UTC."
        )
        found.append(
            Snag(
                DOUBTFUL,
                "clock_off",
                kind="site",
                id=site["id"],
                stage="place",
                sentence=sentence,
                way_out="check longitude and UTC offset",
            )
        )
    hottest = max(months, key=lambda row: row["dry_bulb_c"])["month"]
    southern = hottest in (11, 12, 1, 2, 3)
    if abs(site["latitude"]) > SEASONS_FROM_DEG and southern == (site["latitude"] > 0.0) and hottest not in (4, 10):
        sentence = f"The hottest design month is {month_name[hottest]}, though the site lies at latitude {site['latitude']:.2f}°."
        found.append(
            Snag(
                DOUBTFUL,
                "season_off",
                kind="site",
                id=site["id"],
                stage="place",
                sentence=sentence,
                way_out="check the latitude and the months",
            )
        )
    return found


def _transfer_snags(document: Document) -> list[Snag]:
    """Transfers without the room that they come from."""
    rooms = document.of("room")
    return [
        Snag(
            DOUBTFUL,
            "transfer_incomplete",
            kind="transfer",
            id=row["id"],
            stage="air",
            sentence=f"Air into {title_of(rooms[row['room']])}: no room is named that it comes from; none is counted.",
            way_out="name the room, or take it away",
        )
        for row in document.of("transfer").values()
        if row["source"] is None
    ]


def _starting_figures(document: Document) -> list[Snag]:
    """Uses and glazings that are relied on and have nothing but the figures that every new one starts with."""
    found = []
    for kind, stage, users in (
        ("use", "uses", (("room", "use"),)),
        ("glazing", "fabric", (("opening", "glazing"), ("kit", "window"))),
    ):
        start = STARTING_FIGURES[kind]
        for row in document.of(kind).values():
            if any(row[field] != value for field, value in start.items()):
                continue
            if any(other[field] == row["id"] for name, field in users for other in document.of(name).values()):
                sentence = f"{row['name']} still has the figures that every new {kind} starts with; nobody chose them."
                found.append(
                    Snag(
                        DOUBTFUL,
                        f"starting_{kind}",
                        kind=kind,
                        id=row["id"],
                        stage=stage,
                        sentence=sentence,
                        way_out="enter its own, or take one from the shelf" if kind == "use" else "enter its own",
                    )
                )
    return found


def _yardsticks(document: Document, rooms: dict[str, Room]) -> dict[str, tuple[float, float]]:
    """Ordinary range of cooling by room, from its use [W/m2]."""
    uses = document.of("use")
    found = ((room, uses[document.of("room")[room]["use"]]) for room in rooms)
    return {room: (use["yardstick_low_w_m2"], use["yardstick_high_w_m2"]) for room, use in found}


def _groups(document: Document, rooms: dict[str, Room]) -> Iterable[Group]:
    everything = tuple(rooms)
    if everything:
        yield Group("building", "Building total", "building", everything)
    kinds = ("level",), ("zone",), ("use",), ("air_system", "second_system")
    for columns in kinds:
        kind = columns[0]
        members: dict[str, list[str]] = {}
        for room in rooms:
            for column in columns:
                members.setdefault(document.of("room")[room][column], []).append(room)
        for row in document.of(kind).values():
            if row["id"] in members:
                yield Group(row["id"], row["name"], kind, tuple(members[row["id"]]))
