"""Faces of rooms from their outlines: outer walls, walls between rooms, roofs, floors.

Outlines are counter-clockwise in plan metres; plan north is +y, turned `rotation_deg` clockwise from true north. A face
has a key by which it is known again after the outline has changed.

Source: plane geometry by definition.
"""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon
from shapely.ops import split as cut
from shapely.ops import unary_union

from pendrum_core.geometry.outlines import Edge, Facing, Point, area_m2, edges, facing

LEAST_LENGTH_M = 0.05
LEAST_AREA_M2 = 0.05
_CELL_M = 5.0


@dataclass(frozen=True)
class PlanRoom:
    """A room on the plan: outline in plan metres and height of its walls [m]."""

    id: str
    number: str
    outline: tuple[Point, ...]
    height_m: float


@dataclass(frozen=True)
class PlanLevel:
    """Rooms of a storey; levels lie above each other in the order of their floors' elevations."""

    floor_m: float
    rooms: tuple[PlanRoom, ...]


@dataclass(frozen=True)
class Face:
    """A face found on the plan.

    Attributes:
        key: unique within the room, and the same after small changes of the outline.
        kind: "outer_wall", "inner_wall", "roof", "ground_floor", "overhang", "ceiling" or "floor".
        neighbour: id of the room beyond it.
        exposed_m: length of outer walls along a ground floor.
        azimuth_deg: that it faces, clockwise from true north.
    """

    room: str
    key: str
    kind: str
    area_m2: float
    tilt_deg: float
    azimuth_deg: float
    neighbour: str | None = None
    exposed_m: float = 0.0


def checked_outline(points: Sequence[Point]) -> tuple[Point, ...]:
    """An outline counter-clockwise, to the millimetre, without doubled points or points on straight sides.

    Raises:
        ValueError: fewer than three corners, sides that cross, or no area.
    """
    rounded = [(round(x, 3), round(y, 3)) for x, y in points]
    kept = [p for i, p in enumerate(rounded) if p != rounded[i - 1]]
    if len(kept) < 3:
        raise ValueError("an outline needs three different corners")
    polygon = Polygon(kept)
    if not polygon.is_valid:
        raise ValueError("the outline crosses itself")
    if polygon.area < LEAST_AREA_M2:
        raise ValueError(f"the outline encloses {polygon.area:.3f} m², less than {LEAST_AREA_M2} m²")
    corners = kept if area_m2(kept) > 0.0 else kept[::-1]
    return tuple(p for i, p in enumerate(corners) if not _straight(corners[i - 1], p, corners[(i + 1) % len(corners)]))


def _straight(a: Point, b: Point, c: Point) -> bool:
    cross = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
    return abs(cross) < 1e-6


def overlaps(level: PlanLevel) -> list[tuple[str, str, float]]:
    """Pairs of rooms of a level that lie on each other, with the area [m2]."""
    polygons = [Polygon(room.outline) for room in level.rooms]
    tree = shapely.STRtree(polygons)
    found = []
    for i, polygon in enumerate(polygons):
        for j in tree.query(polygon):
            if j > i:
                area = polygon.intersection(polygons[j]).area
                if area > LEAST_AREA_M2:
                    found.append((level.rooms[i].id, level.rooms[j].id, float(area)))
    return found


def faces(levels: Sequence[PlanLevel], rotation_deg: float, gap_m: float = 0.02) -> list[Face]:
    """Every face of every room; sides of two rooms at most `gap_m` apart are one wall between them."""
    ordered = sorted(levels, key=lambda level: level.floor_m)
    found: list[Face] = []
    for index, level in enumerate(ordered):
        walls, exposed = _walls(level, rotation_deg, gap_m)
        found += walls
        above = ordered[index + 1].rooms if index + 1 < len(ordered) else ()
        below = ordered[index - 1].rooms if index else ()
        found += _flat(level.rooms, above, "ceiling", "roof", 0.0)
        floors = _flat(level.rooms, below, "floor", "overhang" if index else "ground_floor", 180.0)
        found += [
            replace(face, exposed_m=round(exposed.get(face.room, 0.0), 3)) if face.kind == "ground_floor" else face
            for face in floors
        ]
    return found


def _cells(edge: Edge, reach_m: float) -> set[tuple[int, int]]:
    """Squares of a coarse grid that an edge may touch."""
    low = [min(a, b) - reach_m for a, b in zip(edge.start, edge.end, strict=True)]
    high = [max(a, b) + reach_m for a, b in zip(edge.start, edge.end, strict=True)]
    return {
        (i, j)
        for i in range(int(low[0] // _CELL_M), int(high[0] // _CELL_M) + 1)
        for j in range(int(low[1] // _CELL_M), int(high[1] // _CELL_M) + 1)
    }


def _beside(
    edge: Edge, room: str, nearby: Mapping[tuple[int, int], list[tuple[str, Edge]]], gap_m: float
) -> dict[str, float]:
    """Length of a side along which each other room lies beyond it, the nearest first where several do [m]."""
    found: dict[int, tuple[str, Facing]] = {}
    for cell in _cells(edge, gap_m):
        for other, side in nearby.get(cell, ()):
            if other != room and id(side) not in found:
                stretch = facing(edge, side, gap_m)
                if stretch is not None:
                    found[id(side)] = (other, stretch)
    lengths: dict[str, float] = defaultdict(float)
    taken: list[tuple[float, float]] = []
    for other, stretch in sorted(found.values(), key=lambda item: item[1].distance_m):
        free = [(stretch.begin_m, stretch.end_m)]
        for begin, end in taken:
            free = [part for a, b in free for part in ((a, min(b, begin)), (max(a, end), b)) if part[1] > part[0]]
        taken += free
        lengths[other] += sum(b - a for a, b in free)
    return lengths


def _walls(level: PlanLevel, rotation_deg: float, gap_m: float) -> tuple[list[Face], dict[str, float]]:
    """Walls of a level's rooms, and the length of outer walls of each room."""
    sides = {room.id: edges(room.outline) for room in level.rooms}
    heights = {room.id: room.height_m for room in level.rooms}
    nearby: dict[tuple[int, int], list[tuple[str, Edge]]] = defaultdict(list)
    for room, own in sides.items():
        for edge in own:
            for cell in _cells(edge, gap_m):
                nearby[cell].append((room, edge))
    found: list[Face] = []
    exposed: dict[str, float] = defaultdict(float)
    for room, own in sides.items():
        areas: dict[tuple[str, float, str | None], float] = defaultdict(float)
        for edge in own:
            azimuth = round((edge.azimuth_deg + rotation_deg) % 360.0, 1) % 360.0
            beside = _beside(edge, room, nearby, gap_m)
            for other, length in beside.items():
                if length <= LEAST_LENGTH_M:
                    continue
                # Where the neighbour is lower, what rises above it is an outer wall.
                height = min(heights[room], heights[other])
                areas[("inner_wall", azimuth, other)] += length * height
                areas[("outer_wall", azimuth, None)] += length * (heights[room] - height)
            left = edge.length_m - sum(beside.values())
            if left > LEAST_LENGTH_M:
                areas[("outer_wall", azimuth, None)] += left * heights[room]
                exposed[room] += left
        for (kind, azimuth, neighbour), area in areas.items():
            if area > LEAST_AREA_M2:
                turned = round((azimuth - rotation_deg) % 360.0, 1) % 360.0
                key = f"{kind}/{neighbour or ''}/{turned:g}"
                found.append(
                    Face(
                        room,
                        key,
                        kind=kind,
                        area_m2=round(area, 3),
                        tilt_deg=90.0,
                        azimuth_deg=azimuth,
                        neighbour=neighbour,
                    )
                )
    return found, exposed


def _flat(
    rooms: Sequence[PlanRoom], others: Sequence[PlanRoom], between: str, alone: str, tilt_deg: float
) -> list[Face]:
    """Ceilings or floors: what lies on rooms of the next level, and the rest."""
    polygons = [Polygon(other.outline) for other in others]
    tree = shapely.STRtree(polygons) if polygons else None
    found = []
    for room in rooms:
        outline = Polygon(room.outline)
        left = outline.area
        for index in tree.query(outline) if tree is not None else ():
            area = outline.intersection(polygons[index]).area
            # What is too small for a face of its own is covered all the same: slivers do not add up to a roof.
            left -= area
            if area > LEAST_AREA_M2:
                other = others[index].id
                found.append(
                    Face(
                        room.id,
                        f"{between}/{other}",
                        kind=between,
                        area_m2=round(area, 3),
                        tilt_deg=tilt_deg,
                        azimuth_deg=0.0,
                        neighbour=other,
                    )
                )
        if left > LEAST_AREA_M2:
            found.append(Face(room.id, alone, alone, round(left, 3), tilt_deg, 0.0))
    return found


def split_outline(outline: Sequence[Point], start: Point, end: Point) -> tuple[tuple[Point, ...], tuple[Point, ...]]:
    """Two outlines from one, cut along a line that is drawn out to both sides.

    Raises:
        ValueError: the line does not cut the outline into exactly two.
    """
    dx, dy = end[0] - start[0], end[1] - start[1]
    if abs(dx) + abs(dy) < 1e-9:
        raise ValueError("the line has no length")
    reach = 1e5 / max(abs(dx), abs(dy))
    line = LineString([(start[0] - dx * reach, start[1] - dy * reach), (end[0] + dx * reach, end[1] + dy * reach)])
    parts = [part for part in cut(Polygon(outline), line).geoms if part.area > LEAST_AREA_M2]
    if len(parts) != 2:
        raise ValueError(f"the line cuts the room into {len(parts)}; it has to be two")
    first, second = sorted((_ring(part) for part in parts), key=lambda ring: -area_m2(ring))
    return first, second


def joined_outline(outlines: Sequence[Sequence[Point]]) -> tuple[Point, ...]:
    """One outline from rooms that touch.

    Raises:
        ValueError: they do not touch along a wall, or enclose a hole.
    """
    grown = [Polygon(outline).buffer(0.005, join_style="mitre") for outline in outlines]
    whole = unary_union(grown).buffer(-0.005, join_style="mitre")
    if isinstance(whole, MultiPolygon) or whole.is_empty:
        raise ValueError("the rooms do not touch along a wall")
    if len(whole.interiors) > 0:
        raise ValueError("together the rooms enclose a space that is none of them")
    return _ring(whole)


def _ring(polygon: Polygon) -> tuple[Point, ...]:
    return checked_outline([(float(x), float(y)) for x, y in list(polygon.exterior.coords)[:-1]])
