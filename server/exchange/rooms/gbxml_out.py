"""Rooms written as gbXML."""

import math
from typing import Any

from lxml import etree

from calculations.inputs.u_values import assembly_u_value
from exchange.rooms.gbxml import NAMESPACE, TAG_SPACE, VERSION, WRITTEN
from exchange.rooms.incoming import effective_height_m
from projects.resolver import kit_in_use, surface_assembly
from projects.rows import Document, Row
from projects.shared_walls import is_shared, other_side


def _add(parent: etree._Element, name: str, text: Any = None, **attributes: str) -> etree._Element:
    node = etree.SubElement(parent, f"{TAG_SPACE}{name}", attributes)
    if text is not None:
        node.text = f"{text:.6g}" if isinstance(text, float) else str(text)
    return node


def _loop(parent: etree._Element, points: list[tuple[float, float, float]]) -> None:
    loop = _add(_add(parent, "PlanarGeometry"), "PolyLoop")
    for point in points:
        place = _add(loop, "CartesianPoint")
        for coordinate in point:
            _add(place, "Coordinate", round(float(coordinate), 4) + 0.0)


def rooms_gbxml(document: Document) -> bytes:
    """All rooms with their surfaces and openings."""
    site, project = document.one("site"), document.one("project")
    root = etree.Element(
        f"{TAG_SPACE}gbXML",
        nsmap={None: NAMESPACE},
        attrib={
            "temperatureUnit": "C",
            "lengthUnit": "Meters",
            "areaUnit": "SquareMeters",
            "volumeUnit": "CubicMeters",
            "useSIUnitsForResults": "true",
            "version": VERSION,
        },
    )
    campus = _add(root, "Campus", id="campus")
    location = _add(campus, "Location")
    _add(location, "ZipcodeOrPostalCode", "not given")
    _add(location, "Longitude", float(site["longitude"]))
    _add(location, "Latitude", float(site["latitude"]))
    # Directions are written true: the model's north is north.
    _add(location, "CADModelAzimuth", 0.0)
    _add(location, "Name", site["name"])
    building = _add(campus, "Building", id="building", buildingType="Unknown")
    _add(building, "Name", project["name"])
    rooms = sorted(document.of("room").values(), key=lambda row: row["number"])
    _add(building, "Area", float(sum(room["floor_area_m2"] or 0.0 for room in rooms)))
    for room in rooms:
        _space(document, building, room)
    for level in document.of("level").values():
        storey = _add(building, "BuildingStorey", id=f"level-{level['id']}")
        _add(storey, "Name", level["name"])
        _add(storey, "Level", float(level["floor_m"]))
    used: dict[str, tuple[str, float | None]] = {}
    written: set[str] = set()
    for surface in document.of("surface").values():
        if surface["id"] not in written:
            _surface(document, campus, surface, used, written)
    for identity, (name, u_value) in used.items():
        construction = _add(root, "Construction", id=identity)
        if u_value is not None:
            _add(construction, "U-value", u_value, unit="WPerSquareMeterK")
        _add(construction, "Name", name)
    return bytes(etree.tostring(root, xml_declaration=True, encoding="UTF-8", pretty_print=True))


def _space(document: Document, building: etree._Element, room: Row) -> None:
    attributes = {"id": f"space-{room['id']}"}
    if room["level"]:
        attributes["buildingStoreyIdRef"] = f"level-{room['level']}"
    space = _add(building, "Space", **attributes)
    _add(space, "Name", f"{room['number']} {room['name']}")
    area, height = room["floor_area_m2"] or 0.0, effective_height_m(document, room)
    _add(space, "Area", float(area))
    _add(space, "Volume", float(area * height))
    level = document.of("level").get(room["level"] or "")
    if room["outline_m"]:
        _loop(space, [(x, y, level["floor_m"] if level else 0.0) for x, y in room["outline_m"]])


def _surface(
    document: Document, campus: etree._Element, row: Row, used: dict[str, tuple[str, float | None]], written: set[str]
) -> None:
    """A surface as a rectangle of its area that faces where it faces; where it stands is not known.

    Its assembly joins `used`. A wall between two rooms is one surface that names both; its other side joins `written`.
    """
    flat = row["tilt_deg"] < 60.0 or row["tilt_deg"] > 120.0
    kind = WRITTEN.get((row["role"], row["boundary"]), "InteriorFloor" if flat else "InteriorWall")
    assembly = surface_assembly(document, row, kit_in_use(document)).value
    construction = f"assembly-{assembly['id']}" if assembly else "assembly-none"
    used[construction] = (assembly["name"], assembly_u_value(document, assembly)) if assembly else ("No assembly", None)
    node = _add(campus, "Surface", id=f"surface-{row['id']}", surfaceType=kind, constructionIdRef=construction)
    _add(node, "Name", row["name"])
    _add(node, "AdjacentSpaceId", spaceIdRef=f"space-{row['room']}")
    twin = None
    if is_shared(row):
        beyond = [s for s in document.of("surface").values() if s["room"] == row["neighbour"] and is_shared(s)]
        twin = other_side(row, beyond)
    if twin is not None:
        _add(node, "AdjacentSpaceId", spaceIdRef=f"space-{row['neighbour']}")
        written.add(twin["id"])
    room = document.of("room")[row["room"]]
    height = math.sqrt(row["area_m2"]) if flat else (effective_height_m(document, room) or 3.0)
    width = row["area_m2"] / height
    _rectangle(node, row, width, height)
    _loop(node, _facing(row["tilt_deg"], row["azimuth_deg"], width, height))
    for opening in document.of("opening").values():
        if opening["surface"] != row["id"]:
            continue
        for index in range(opening["count"]):
            kind = "NonSlidingDoor" if opening["kind"] == "door" else "FixedWindow"
            hole = _add(node, "Opening", id=f"opening-{opening['id']}-{index}", openingType=kind)
            _add(hole, "Name", opening["name"])
            _rectangle(hole, row, opening["width_m"], opening["height_m"])


def _facing(tilt_deg: float, azimuth_deg: float, width: float, height: float) -> list[tuple[float, float, float]]:
    """A rectangle from the origin whose corners run counterclockwise as seen from where it faces."""
    tilt, azimuth = math.radians(tilt_deg), math.radians(azimuth_deg)
    along = (-math.cos(azimuth), math.sin(azimuth), 0.0)
    up = (-math.sin(azimuth) * math.cos(tilt), -math.cos(azimuth) * math.cos(tilt), math.sin(tilt))
    corners = ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    return [(a * along[0] + b * up[0], a * along[1] + b * up[1], a * along[2] + b * up[2]) for a, b in corners]


def _rectangle(parent: etree._Element, surface: Row, width: float, height: float) -> None:
    shape = _add(parent, "RectangularGeometry")
    _add(shape, "Azimuth", float(surface["azimuth_deg"]))
    place = _add(shape, "CartesianPoint")
    for _ in range(3):
        _add(place, "Coordinate", 0.0)
    _add(shape, "Tilt", float(surface["tilt_deg"]))
    _add(shape, "Width", float(width))
    _add(shape, "Height", float(height))
