"""From a document to the core's frozen inputs; what is missing becomes a snag, never a silent default."""

from collections import defaultdict
from collections.abc import Callable, Iterable
from typing import Any

from pendrum_core.checks.snag import DOUBTFUL, NOTE, STOPS, Snag
from pendrum_core.model.building import Building, Group
from pendrum_core.model.climate import Climate, Site, SummerMonth
from pendrum_core.model.fabric import Glazing, Layer, Layers, total_resistance
from pendrum_core.model.rooms import Boundary, Element, Gain, Room, SunWindow, inside_convection
from pendrum_core.model.schedules import CONSTANT_ONE, DayPattern
from pendrum_core.model.systems import AirSystem, Circuit, Section, Terminal
from projects.document import Document, Row
from projects.resolver import Effective, effective_values, opening_construction, surface_assembly
from projects.starter import STARTER_SITE

AIR_J_M3K = 1200.0  # heat capacity of room air per volume, at 20 °C near sea level
FURNITURE_J_M2K = 10_000.0  # per floor area, in the air node
INNER_FILM_M2K_W = 0.13
GROUND_FILM_M2K_W = 0.17
_CATEGORY = {"outer_wall": "walls", "roof": "roofs", "ground_floor": "floors"}


class Missing(Exception):
    """Something without which a room cannot be calculated."""

    def __init__(self, code: str, kind: str, identity: str, stage: str, sentence: str, way_out: str) -> None:
        super().__init__(sentence)
        self.snag = Snag(STOPS, code, kind, identity, stage, sentence, way_out)


class Snapshot:
    """Core inputs of one document version, with the snags found on the way."""

    def __init__(
        self,
        building: Building,
        snags: list[Snag],
        effective: dict[str, dict[str, Effective]],
        yardsticks_w_m2: dict[str, tuple[float, float]],
    ) -> None:
        self.building = building
        self.snags = snags
        self.effective = effective
        self.yardsticks_w_m2 = yardsticks_w_m2


class Snapshots:
    """Makes snapshots of one project; rooms whose rows did not change are taken from the last one."""

    def __init__(self) -> None:
        self._rooms: dict[
            str, tuple[tuple[int, ...], tuple[Row, ...], Room | None, list[Snag], dict[str, Effective]]
        ] = {}
        self._sections: dict[str, tuple[Row, Section]] = {}

    def take(self, document: Document) -> Snapshot:
        """Turn a document into core inputs."""
        snags: list[Snag] = []
        surfaces, openings, layers = _index(document)
        shared = _shared_rows(document)
        rooms: dict[str, Room] = {}
        effective: dict[str, dict[str, Effective]] = {}
        kept = {}
        for room in document.of("room").values():
            own = surfaces.get(room["id"], [])
            inside = [opening for surface in own for opening in openings.get(surface["id"], [])]
            rows = (room, *own, *inside, *shared)
            key = tuple(map(id, rows))
            entry = self._rooms.get(room["id"])
            if entry is None or entry[0] != key:
                built, found, values = _room(document, room, own, openings, layers)
                # The rows are held so that their identities cannot be given to other rows.
                entry = (key, rows, built, found, values)
            kept[room["id"]] = entry
            snags.extend(entry[3])
            effective[room["id"]] = entry[4]
            if entry[2] is not None:
                rooms[room["id"]] = entry[2]
        self._rooms = kept
        snags.extend(_duplicate_numbers(document))
        snags.extend(_starter_site(document))
        building = Building(
            climate=climate_of(document),
            rooms=tuple(rooms.values()),
            groups=tuple(_groups(document, rooms)),
            systems=tuple(_systems(document, rooms, effective, self._section)),
            circuits=tuple(_circuits(document, self._section)),
        )
        return Snapshot(building, snags, effective, _yardsticks(document, rooms))

    def _section(self, row: Row, end: str | None) -> Section:
        """A section as the core takes it; the same object while its row is the same."""
        kept = self._sections.get(row["id"])
        if kept is None or kept[0] is not row:
            kept = (row, _section(row, end))
            self._sections[row["id"]] = kept
        return kept[1]


MakeSection = Callable[[Row, str | None], Section]


def _index(document: Document) -> tuple[dict[str, list[Row]], dict[str, list[Row]], dict[str, list[Row]]]:
    surfaces: dict[str, list[Row]] = defaultdict(list)
    openings: dict[str, list[Row]] = defaultdict(list)
    layers: dict[str, list[Row]] = defaultdict(list)
    for row in document.of("surface").values():
        surfaces[row["room"]].append(row)
    for row in document.of("opening").values():
        openings[row["surface"]].append(row)
    for row in document.of("layer").values():
        layers[row["assembly"]].append(row)
    for rows in layers.values():
        rows.sort(key=lambda row: row["position"])
    return surfaces, openings, layers


def _shared_rows(document: Document) -> tuple[Any, ...]:
    """Tables that any room may draw on: a change in one of them rebuilds the rooms' inputs."""
    kinds = ("material", "assembly", "layer", "glazing", "kit", "project", "schedule", "use", "level", "site")
    return tuple(document.of(kind) for kind in kinds)


def climate_of(document: Document) -> Climate:
    """Site and design conditions."""
    site, project = document.one("site"), document.one("project")
    months = sorted(document.of("design_month").values(), key=lambda row: row["month"])
    return Climate(
        site=Site(
            site["latitude"], site["longitude"], site["utc_offset_h"], site["elevation_m"], site["ground_reflectance"]
        ),
        winter_dry_bulb_c=site["winter_dry_bulb_c"],
        months=tuple(
            SummerMonth(m["month"], m["dry_bulb_c"], m["wet_bulb_c"], m["range_k"], m["tau_b"], m["tau_d"])
            for m in months
        ),
        profile=project["profile"],
    )


def layers_of(document: Document, rows: Iterable[Row]) -> Layers:
    """Layer rows in order to core layers."""
    result = []
    for row in rows:
        material = document.of("material")[row["material"]]
        if material["conductivity_w_mk"] is not None:
            result.append(
                Layer(
                    material["name"], row["thickness_m"] or 0.0, material["conductivity_w_mk"],
                    material["density_kg_m3"], material["specific_heat_j_kgk"],
                )
            )  # fmt: skip
        else:
            result.append(Layer(material["name"], plain_resistance_m2k_w=material["resistance_m2k_w"]))
    return tuple(result)


def _pattern(document: Document, schedule: str | None) -> DayPattern:
    row = document.of("schedule").get(schedule or "")
    return DayPattern(tuple((until, value) for until, value in row["weekday"])) if row else CONSTANT_ONE


def _room(
    document: Document, room: Row, surfaces: list[Row], openings: dict[str, list[Row]], layers: dict[str, list[Row]]
) -> tuple[Room | None, list[Snag], dict[str, Effective]]:
    values = effective_values(document, room)
    snags: list[Snag] = []
    try:
        built = _build_room(document, room, surfaces, openings, layers, values, snags)
    except Missing as missing:
        return None, [*snags, missing.snag], values
    return built, snags, values


def _build_room(
    document: Document, room: Row, surfaces: list[Row], openings: dict[str, list[Row]],
    layers: dict[str, list[Row]], values: dict[str, Effective], snags: list[Snag],
) -> Room:  # fmt: skip
    title, identity = f"{room['number']} {room['name']}", room["id"]
    use = document.of("use").get(room["use"] or "")
    if use is None:
        raise Missing("no_use", "room", identity, "rooms", f"{title} has no use.", "choose a use for it")
    area, height = room["floor_area_m2"], values["height_m"].value
    if not area or not height:
        what = "floor area" if not area else "height"
        raise Missing(
            "no_volume", "room", identity, "rooms", f"{title} has no {what}, so no volume.", f"enter its {what}"
        )
    if not surfaces:
        raise Missing(
            "no_surfaces", "room", identity, "rooms", f"{title} has no surfaces.", "add its walls, floor and roof"
        )
    low, high = values["heating_setpoint_c"].value, values["cooling_setpoint_c"].value
    if low > high:
        raise Missing("setpoints_crossed", "room", identity, "rooms",
                      f"{title}: heating set-point {low} °C ({values['heating_setpoint_c'].origin}) is above cooling "
                      f"set-point {high} °C ({values['cooling_setpoint_c'].origin}).", "change one of the two")  # fmt: skip
    elements: list[Element] = []
    windows: list[SunWindow] = []
    for surface in surfaces:
        inside = openings.get(surface["id"], [])
        elements.append(_element(document, title, surface, inside, layers, snags))
        for opening in inside:
            element, window = _opening(document, title, surface, opening, layers)
            elements.append(element)
            if window is not None:
                windows.append(window)
    volume = area * height
    on_system = room["air_system"] is not None
    people = values["people_per_m2"].value * area
    need = use["air_per_person_m3_s"] * people + use["air_per_area_m3_s_m2"] * area
    return Room(
        id=identity,
        number=room["number"],
        name=room["name"],
        floor_area_m2=area,
        volume_m3=volume,
        elements=tuple(elements),
        windows=tuple(windows),
        gains=_gains(document, use, values, area),
        infiltration_m3_s=values["infiltration_ach"].value * volume / 3600.0,
        direct_outdoor_air_m3_s=0.0 if on_system else need / use["air_effectiveness"],
        heating_setpoint_c=low,
        cooling_setpoint_c=high,
        heated=values["heated"].value,
        cooled=values["cooled"].value,
        capacity_j_k=AIR_J_M3K * volume + FURNITURE_J_M2K * area,
    )


def _gains(document: Document, use: Row, values: dict[str, Effective], area: float) -> tuple[Gain, ...]:
    people = values["people_per_m2"].value * area
    lights = values["lights_w_m2"].value * area
    kept = values["equipment_w_m2"].value * area * (1.0 - use["equipment_vented_share"])
    latent = values["equipment_w_m2"].value * area * use["equipment_latent_share"]
    gains = (
        Gain("people", people * use["person_sensible_w"], people * use["person_latent_w"],
             use["people_radiant_share"], _pattern(document, use["people_schedule"])),
        Gain("lights", lights, 0.0, use["lights_radiant_share"], _pattern(document, use["lights_schedule"])),
        Gain("equipment", kept - latent, latent, use["equipment_radiant_share"],
             _pattern(document, use["equipment_schedule"])),
    )  # fmt: skip
    return tuple(gain for gain in gains if gain.sensible_w or gain.latent_w)


def _opening_area(opening: Row) -> float:
    return float(opening["count"] * opening["width_m"] * opening["height_m"])


def _element(
    document: Document, title: str, surface: Row, inside: list[Row], layers: dict[str, list[Row]], snags: list[Snag]
) -> Element:
    name, identity = surface["name"], surface["id"]
    taken = sum(_opening_area(opening) for opening in inside)
    net = surface["area_m2"] - taken
    if net < 0.0:
        names = ", ".join(opening["name"] for opening in inside)
        raise Missing("openings_larger", "surface", identity, "rooms",
                      f"{title}, {name}: its openings ({names}) have {taken:.2f} m², the wall only "
                      f"{surface['area_m2']:.2f} m².", "make the openings smaller or the wall larger")  # fmt: skip
    found = surface_assembly(document, surface)
    if found.value is None:
        raise Missing("no_assembly", "surface", identity, "fabric",
                      f"{title}, {name} has no assembly, and the fabric kit has none for {surface['role'].replace('_', ' ')}.",
                      "fill the kit's role, or choose an assembly for the surface")  # fmt: skip
    built = _layers(document, title, found.value, layers)
    tilt = surface["tilt_deg"]
    # A wall wholly taken up by its openings keeps a sliver: elements of no area have no place in the balance.
    return Element(
        id=identity,
        name=name,
        category=_CATEGORY[surface["role"]] if surface["boundary"] in ("outdoors", "ground") and surface["role"] in _CATEGORY else "neighbours",
        area_m2=max(net, 1e-6),
        layers=built,
        convection_w_m2k=inside_convection(tilt, 2.5, 5.0, 0.7),
        boundary=_boundary(document, title, surface, found.value, built, snags),
    )  # fmt: skip


def _layers(document: Document, title: str, assembly: Row, layers: dict[str, list[Row]]) -> Layers:
    rows = layers.get(assembly["id"], [])
    if not rows:
        raise Missing("no_layers", "assembly", assembly["id"], "fabric",
                      f"Assembly {assembly['name']}, used in {title}, has no layers.", "add its layers")  # fmt: skip
    for row in rows:
        material = document.of("material")[row["material"]]
        if material["conductivity_w_mk"] is not None and not row["thickness_m"]:
            raise Missing("no_thickness", "assembly", assembly["id"], "fabric",
                          f"Assembly {assembly['name']}: layer {material['name']} has no thickness.",
                          "enter its thickness")  # fmt: skip
    return layers_of(document, rows)


def _boundary(
    document: Document, title: str, surface: Row, assembly: Row, layers: Layers, snags: list[Snag]
) -> Boundary:
    kind, tilt, azimuth = surface["boundary"], surface["tilt_deg"], surface["azimuth_deg"]
    if kind == "outdoors":
        return Boundary("outdoors", tilt, azimuth, assembly["solar_absorptance"])
    if kind == "ground":
        extra = 1e-3
        declared = assembly["ground_u_value"]
        if declared is None:
            snags.append(Snag(NOTE, "no_ground_u", "assembly", assembly["id"], "fabric",
                              f"{assembly['name']} lies on the ground in {title} but has no U-value to the ground; "
                              "its layers alone are taken.", "enter its U-value with the soil"))  # fmt: skip
        else:
            extra = 1.0 / declared - GROUND_FILM_M2K_W - total_resistance(layers)
            if extra <= 0.0:
                snags.append(Snag(DOUBTFUL, "ground_u_too_high", "assembly", assembly["id"], "fabric",
                                  f"{assembly['name']}: a U-value to the ground of {declared} W/m²K is above that of its "
                                  "layers alone; the layers alone are taken.", "lower it"))  # fmt: skip
                extra = 1e-3
        return Boundary("temperature", tilt, azimuth, temperature_c=document.one("site")["ground_temperature_c"],
                        extra_resistance_m2k_w=extra)  # fmt: skip
    if kind == "fixed":
        return Boundary("temperature", tilt, azimuth, temperature_c=surface["fixed_temperature_c"],
                        extra_resistance_m2k_w=INNER_FILM_M2K_W)  # fmt: skip
    if kind == "difference":
        return Boundary(
            "difference", tilt, azimuth, extra_resistance_m2k_w=INNER_FILM_M2K_W,
            cooling_difference_k=surface["cooling_difference_k"], heating_difference_k=surface["heating_difference_k"],
        )  # fmt: skip
    return Boundary("adiabatic")


def _opening(
    document: Document, title: str, surface: Row, opening: Row, layers: dict[str, list[Row]]
) -> tuple[Element, SunWindow | None]:
    if surface["boundary"] == "ground":
        raise Missing(
            "opening_in_ground", "opening", opening["id"], "rooms",
            f"{title}: {opening['name']} is in {surface['name']}, which lies on the ground.",
            "move it to another surface, or change what is beyond the surface",
        )  # fmt: skip
    found = opening_construction(document, opening)
    what = "glazing" if opening["kind"] == "window" else "door assembly"
    if found.value is None:
        raise Missing("no_glazing", "opening", opening["id"], "fabric",
                      f"{title}, {opening['name']} has no {what}, and the fabric kit has none.",
                      f"fill the kit's {opening['kind']}, or choose one for the opening")  # fmt: skip
    tilt, azimuth = surface["tilt_deg"], surface["azimuth_deg"]
    outdoors = surface["boundary"] == "outdoors"
    window: SunWindow | None = None
    if opening["kind"] == "window":
        row = found.value
        glass = Glazing(row["name"], row["u_value"], row["g_value"], row["frame_share"], row["panes"])
        built: Layers = (Layer(row["name"], plain_resistance_m2k_w=glass.resistance_m2k_w),)
        absorptance = 0.0
        if outdoors:
            window = SunWindow(opening["id"], opening["name"], glass, _opening_area(opening), tilt, azimuth)
    else:
        built, absorptance = _layers(document, title, found.value, layers), found.value["solar_absorptance"]
    boundary = (
        Boundary("outdoors", tilt, azimuth, absorptance)
        if outdoors
        else _boundary(document, title, surface, found.value, built, [])
    )
    category = "windows" if opening["kind"] == "window" else "doors"
    element = Element(
        opening["id"], opening["name"], category, _opening_area(opening), built, inside_convection(tilt, 2.5, 5.0, 0.7),
        boundary,
    )  # fmt: skip
    return element, window


def _duplicate_numbers(document: Document) -> list[Snag]:
    seen: dict[str, Row] = {}
    snags = []
    for room in document.of("room").values():
        first = seen.setdefault(room["number"], room)
        if first is not room:
            snags.append(Snag(DOUBTFUL, "duplicate_number", "room", room["id"], "rooms",
                              f"{room['name']} and {first['name']} both have the number {room['number']}.",
                              "give one of them another number"))  # fmt: skip
    return snags


def _starter_site(document: Document) -> list[Snag]:
    site = document.one("site")
    if site["name"] != STARTER_SITE:
        return []
    sentence = "The site and its design conditions are still the starter values of a new project."
    return [Snag(DOUBTFUL, "starter_site", "site", site["id"], "place", sentence, "enter your own and name the site")]


def _yardsticks(document: Document, rooms: dict[str, Room]) -> dict[str, tuple[float, float]]:
    """Ordinary range of cooling by room, from its use [W/m2]."""
    uses = document.of("use")
    found = ((room, uses[document.of("room")[room]["use"]]) for room in rooms)
    return {room: (use["yardstick_low_w_m2"], use["yardstick_high_w_m2"]) for room, use in found}


def _groups(document: Document, rooms: dict[str, Room]) -> Iterable[Group]:
    everything = tuple(rooms)
    if everything:
        yield Group("building", "Building, together", "building", everything)
    for kind, column in (("level", "level"), ("use", "use"), ("air_system", "air_system")):
        for row in document.of(kind).values():
            members = tuple(r for r in rooms if document.of("room")[r][column] == row["id"])
            if members:
                yield Group(row["id"], row["name"], kind, members)


def _section(row: Row, end: str | None) -> Section:
    return Section(
        id=row["id"], name=row["name"], parent=row["parent"], length_m=row["length_m"],
        loss_coefficient=row["loss_coefficient"], end=end, end_drop_pa=row["end_drop_pa"],
        pinned_diameter_m=row["pinned_diameter_m"],
    )  # fmt: skip


def _systems(
    document: Document, rooms: dict[str, Room], effective: dict[str, dict[str, Effective]], make: MakeSection
) -> Iterable[AirSystem]:
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
            terminals.append(
                Terminal(
                    room.id, values["people_per_m2"].value * room.floor_area_m2, use["air_per_person_m3_s"],
                    use["air_per_area_m3_s_m2"], use["air_effectiveness"], values["minimum_air_changes"].value,
                    document.of("room")[room.id]["pinned_flow_m3_s"],
                )
            )  # fmt: skip
        inputs = {column: row[column] for column in row}
        yield AirSystem(
            terminals=tuple(terminals),
            sections=tuple(make(s, s["room"]) for s in sorted(sections[row["id"]], key=lambda s: s["position"])),
            **inputs,
        )


def _circuits(document: Document, make: MakeSection) -> Iterable[Circuit]:
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
