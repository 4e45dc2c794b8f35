"""Rooms as gbXML: spaces, storeys, surfaces and openings."""

import math
from collections import Counter, defaultdict
from functools import cache
from pathlib import Path
from typing import Any

from lxml import etree

from exchange.rooms.incoming import Incoming, IncomingRoom, IncomingSurface
from projects.errors import Refused

NAMESPACE = "http://www.gbxml.org/schema"
TAG_SPACE = f"{{{NAMESPACE}}}"


_LENGTHS = {
    "Meters": 1.0,
    "Millimeters": 0.001,
    "Centimeters": 0.01,
    "Feet": 0.3048,
    "Inches": 0.0254,
    "Kilometers": 1000.0,
}


_AREAS = {
    "SquareMeters": 1.0,
    "SquareMillimeters": 1e-6,
    "SquareCentimeters": 1e-4,
    "SquareFeet": 0.3048**2,
    "SquareInches": 0.0254**2,
}


VERSION = "6.01"  # of the schema that is written
_SHOWN_FAULTS = 4


# Surface type: role and boundary.
_TYPES = {
    "ExteriorWall": ("outer_wall", "outdoors"),
    "Roof": ("roof", "outdoors"),
    "InteriorWall": ("inner_wall", "adiabatic"),
    "InteriorFloor": ("inner_floor", "adiabatic"),
    "Ceiling": ("inner_floor", "adiabatic"),
    "UndergroundCeiling": ("inner_floor", "adiabatic"),
    "UndergroundWall": ("outer_wall", "ground"),
    "SlabOnGrade": ("ground_floor", "ground"),
    "UndergroundSlab": ("ground_floor", "ground"),
    "RaisedFloor": ("ground_floor", "outdoors"),
    "ExposedFloor": ("ground_floor", "outdoors"),
}


def _parsed(data: bytes) -> etree._Element:
    parser = etree.XMLParser(
        resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False, remove_comments=True
    )
    try:
        root = etree.fromstring(data, parser)
    except etree.XMLSyntaxError as error:
        raise Refused("invalid", f"This is no XML that can be read: {error.msg}.") from error
    if root.getroottree().docinfo.doctype:
        raise Refused("invalid", "The file declares a document type; such files are not read.")
    if etree.QName(root).localname != "gbXML":
        raise Refused("invalid", f"The file holds {etree.QName(root).localname!r}, not gbXML.")
    return root


_SCHEMAS = Path(__file__).parent / "gbxml_schemas"


@cache
def _schema(version: str) -> etree.XMLSchema | None:
    """The open schema of a version; None where there is none here."""
    path = _SCHEMAS / f"GreenBuildingXML_Ver{version}.xsd"
    return etree.XMLSchema(etree.parse(str(path))) if path.is_file() else None


def schema_notes(root: etree._Element) -> list[str]:
    """What the open schema of the file's version says of it, in sentences."""
    version = root.get("version", "")
    schema = _schema(version) if version.replace(".", "").isdigit() else None
    if schema is None:
        return [
            f"The file names version {version or 'none'} of gbXML, of which there is no schema here; it was not checked."
        ]
    if schema.validate(root):
        return [f"The file is valid by the gbXML schema {version}."]
    faults = [f"line {fault.line}: {fault.message.replace(TAG_SPACE, '')}" for fault in schema.error_log]
    more = f" and {len(faults) - _SHOWN_FAULTS} more" if len(faults) > _SHOWN_FAULTS else ""
    return [
        f"The file does not keep to the gbXML schema {version}; what could be read of it is below.",
        *faults[: _SHOWN_FAULTS - 1],
        faults[min(len(faults), _SHOWN_FAULTS) - 1] + more,
    ]


def _text(node: etree._Element, name: str) -> str:
    found = node.find(f"{TAG_SPACE}{name}")
    return (found.text or "").strip() if found is not None else ""


def _number(node: etree._Element | None, name: str) -> float | None:
    text = _text(node, name) if node is not None else ""
    try:
        value = float(text)
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def _points(node: etree._Element, scale: float) -> list[tuple[float, float, float]]:
    loop = node.find(f"{TAG_SPACE}PlanarGeometry/{TAG_SPACE}PolyLoop")
    points = []
    for point in loop.findall(f"{TAG_SPACE}CartesianPoint") if loop is not None else ():
        try:
            x, y, z = (float(c.text or "") * scale for c in point.findall(f"{TAG_SPACE}Coordinate"))
        except ValueError:
            return []
        points.append((x, y, z))
    return points


def polygon_area_m2(points: list[tuple[float, float, float]]) -> float:
    """Area of a flat polygon in space (half the length of the sum of cross products)."""
    total = [0.0, 0.0, 0.0]
    for a, b in zip(points, [*points[1:], *points[:1]], strict=True):
        total[0] += a[1] * b[2] - a[2] * b[1]
        total[1] += a[2] * b[0] - a[0] * b[2]
        total[2] += a[0] * b[1] - a[1] * b[0]
    return math.sqrt(sum(part * part for part in total)) / 2.0


def direction_deg(points: list[tuple[float, float, float]]) -> tuple[float, float]:
    """Tilt and azimuth of the side from which a flat polygon's corners run counterclockwise; north is +y [deg]."""
    normal = [0.0, 0.0, 0.0]
    for a, b in zip(points, [*points[1:], *points[:1]], strict=True):
        normal[0] += (a[1] - b[1]) * (a[2] + b[2])
        normal[1] += (a[2] - b[2]) * (a[0] + b[0])
        normal[2] += (a[0] - b[0]) * (a[1] + b[1])
    flat = math.hypot(normal[0], normal[1])
    tilt = math.degrees(math.atan2(flat, normal[2]))
    azimuth = math.degrees(math.atan2(normal[0], normal[1])) % 360.0 if flat > 1e-9 * abs(normal[2]) else 0.0
    return round(tilt, 2), round(azimuth, 2) % 360.0


def extent_m(points: list[tuple[float, float, float]]) -> tuple[float, float]:
    """Width along the horizontal and height of the rectangle that has a flat polygon's width and area [m]."""
    tilt, azimuth = direction_deg(points)
    along = (math.cos(math.radians(azimuth)), -math.sin(math.radians(azimuth)))
    if tilt < 1.0 or tilt > 179.0:
        along = (1.0, 0.0)
    places = [p[0] * along[0] + p[1] * along[1] for p in points]
    width = max(places) - min(places)
    return width, polygon_area_m2(points) / width if width > 0.0 else 0.0


def number_and_name(text: str, fallback: str) -> tuple[str, str]:
    """A space's label as number and name: the first word is the number where it has a figure in it."""
    first, _, rest = text.strip().partition(" ")
    if any(c.isdigit() for c in first) and rest.strip():
        return first[:20], rest.strip()[:120]
    return (text.strip() or fallback)[:20], (text.strip() or fallback)[:120]


def read_gbxml(data: bytes) -> Incoming:
    """Spaces with their surfaces and openings.

    Raises:
        Refused: no gbXML, or units that are not known.
    """
    root = _parsed(data)
    length, area = root.get("lengthUnit", "Meters"), root.get("areaUnit", "SquareMeters")
    if length not in _LENGTHS or area not in _AREAS:
        raise Refused("invalid", f"Lengths in {length!r} and areas in {area!r} are not known.")
    m, m2 = _LENGTHS[length], _AREAS[area]
    storeys: dict[str, tuple[str, float]] = {}
    for storey in root.iter(f"{TAG_SPACE}BuildingStorey"):
        name = _text(storey, "Name") or storey.get("id", "")
        storeys[storey.get("id", "")] = (name, (_number(storey, "Level") or 0.0) * m)
    labels = {
        s.get("id", ""): number_and_name(_text(s, "Name"), s.get("id", "")) for s in root.iter(f"{TAG_SPACE}Space")
    }
    assemblies = {node.get("id", ""): _text(node, "Name") for node in root.iter(f"{TAG_SPACE}Construction")}
    tally = _Tally()
    surfaces = _surfaces(root, m, assemblies, {identity: label[0] for identity, label in labels.items()}, tally)
    rooms = []
    for index, space in enumerate(root.iter(f"{TAG_SPACE}Space"), start=1):
        number, name = labels[space.get("id", "")]
        room = IncomingRoom(number, name, f"space {index}")
        floor, volume = _number(space, "Area"), _number(space, "Volume")
        if floor:
            room.fields["floor_area_m2"] = floor * m2
        if floor and volume and root.get("volumeUnit", "CubicMeters") == "CubicMeters":
            room.fields["height_m"] = volume / (floor * m2)
        elif floor and volume and root.get("volumeUnit") == "CubicFeet":
            room.fields["height_m"] = volume * 0.3048**3 / (floor * m2)
        storey_name = storeys.get(space.get("buildingStoreyIdRef", ""), ("", 0.0))[0]
        if storey_name:
            room.fields["level"] = storey_name
        points = _points(space, m)
        if len(points) >= 3:
            room.outline = [[round(x, 3), round(y, 3)] for x, y, _ in points]
        if surfaces.get(space.get("id", "")):
            room.surfaces = surfaces[space.get("id", "")]
        rooms.append(room)
    notes = [*schema_notes(root), *_place_notes(root), *tally.told(len(rooms))]
    return Incoming(rooms, {name: (floor_m, None) for name, floor_m in storeys.values()}, notes)


def _place_notes(root: etree._Element) -> list[str]:
    """What the file says of the site: offered, not taken."""
    location = root.find(f".//{TAG_SPACE}Location")
    notes = []
    latitude, longitude = _number(location, "Latitude"), _number(location, "Longitude")
    if latitude is not None and longitude is not None:
        notes.append(f"The file's site lies at latitude {latitude:g}°, longitude {longitude:g}°; Place keeps its own.")
    turned = _number(location, "CADModelAzimuth")
    if turned:
        notes.append(f"The file's model is turned by {turned:g}° from true north; its directions were turned back.")
    return notes


class _Tally:
    """What became of the surfaces and openings of a file."""

    def __init__(self) -> None:
        self.read = 0
        self.openings = 0
        self.guessed: Counter[str] = Counter()
        self.left_out: Counter[str] = Counter()

    def told(self, rooms: int) -> list[str]:
        """In sentences."""
        notes = [f"Read: {rooms} spaces, {self.read} surfaces, {self.openings} openings."]
        for title, counts in (("Guessed", self.guessed), ("Left out", self.left_out)):
            if counts:
                notes.append(f"{title}: " + ", ".join(f"{count} {what}" for what, count in counts.items()) + ".")
        return notes


def _direction(
    node: etree._Element, role: str, points: list[tuple[float, float, float]], turned_deg: float, tally: _Tally
) -> tuple[float, float]:
    """Tilt and azimuth of a surface: as the file says, else from its polygon, else by its role."""
    shape = node.find(f"{TAG_SPACE}RectangularGeometry")
    tilt, azimuth = _number(shape, "Tilt"), _number(shape, "Azimuth")
    drawn = direction_deg(points) if len(points) >= 3 else None
    if tilt is None or azimuth is None:
        if drawn is None:
            tally.guessed["surfaces without a direction, by their type"] += 1
            drawn = ({"roof": 0.0, "ground_floor": 180.0}.get(role, 90.0), 0.0)
        elif (role == "roof" and drawn[0] > 90.0) or (role == "ground_floor" and drawn[0] < 90.0):
            # Corners that run the wrong way round: a roof faces up, a floor down.
            tally.guessed["surfaces turned over, as their corners run the other way"] += 1
            drawn = (180.0 - drawn[0], (drawn[1] + 180.0) % 360.0)
        tilt = drawn[0] if tilt is None else tilt
        azimuth = drawn[1] if azimuth is None else azimuth
    return min(180.0, max(0.0, tilt)), (azimuth + turned_deg) % 360.0


def _surfaces(
    root: etree._Element, m: float, assemblies: dict[str, str], numbers: dict[str, str], tally: _Tally
) -> dict[str, list[IncomingSurface]]:
    found: dict[str, list[IncomingSurface]] = defaultdict(list)
    turned_deg = _number(root.find(f".//{TAG_SPACE}Location"), "CADModelAzimuth") or 0.0
    for index, node in enumerate(root.iter(f"{TAG_SPACE}Surface"), start=1):
        of = node.get("surfaceType", "")
        kind = _TYPES.get(of)
        spaces = [a.get("spaceIdRef", "") for a in node.findall(f"{TAG_SPACE}AdjacentSpaceId")]
        if kind is None or not spaces:
            reasons = {"Shade": "shading surfaces", "Air": "openings of air alone"}
            tally.left_out[reasons.get(of, "surfaces of no space or of a type that is not known")] += 1
            continue
        shape = node.find(f"{TAG_SPACE}RectangularGeometry")
        points = _points(node, m)
        width, height = _number(shape, "Width"), _number(shape, "Height")
        area = polygon_area_m2(points) if len(points) >= 3 else (width or 0.0) * (height or 0.0) * m * m
        if area < 0.01:
            tally.left_out["surfaces without an area"] += 1
            continue
        tilt, azimuth = _direction(node, kind[0], points, turned_deg, tally)
        openings = [o for o in (_opening(opening, m, tally) for opening in node.findall(f"{TAG_SPACE}Opening")) if o]
        tally.read, tally.openings = tally.read + 1, tally.openings + len(openings)
        for side, space in enumerate(spaces[:2]):
            other = numbers.get(spaces[1 - side], "") if len(spaces) > 1 else ""
            turned = tilt if side == 0 else 180.0 - tilt
            name = _text(node, "Name") or node.get("id", f"Surface {index}")
            found[space].append(
                IncomingSurface(
                    name[:120],
                    kind[0],
                    boundary=kind[1],
                    area_m2=round(area, 4),
                    tilt_deg=turned,
                    azimuth_deg=(azimuth + 180.0 * side) % 360.0,
                    beyond=other,
                    openings=list(openings) if kind[1] == "outdoors" else [],
                    assembly=assemblies.get(node.get("constructionIdRef", ""), ""),
                )
            )
    return found


def _opening(node: etree._Element, m: float, tally: _Tally) -> dict[str, Any] | None:
    if node.get("openingType") == "Air":
        tally.left_out["openings of air alone"] += 1
        return None
    shape = node.find(f"{TAG_SPACE}RectangularGeometry")
    width, height = _number(shape, "Width"), _number(shape, "Height")
    if not width or not height:
        points = _points(node, 1.0)
        width, height = extent_m(points) if len(points) >= 3 else (0.0, 0.0)
    if not width or not height or width * m < 0.01 or height * m < 0.01:
        tally.left_out["openings without a size"] += 1
        return None
    kind = "door" if "Door" in node.get("openingType", "") else "window"
    name = _text(node, "Name") or kind.capitalize()
    return {"name": name[:120], "kind": kind, "count": 1, "width_m": width * m, "height_m": height * m}


# Writing

WRITTEN = {
    ("outer_wall", "outdoors"): "ExteriorWall",
    ("outer_wall", "ground"): "UndergroundWall",
    ("roof", "outdoors"): "Roof",
    ("ground_floor", "ground"): "SlabOnGrade",
    ("ground_floor", "outdoors"): "RaisedFloor",
}
