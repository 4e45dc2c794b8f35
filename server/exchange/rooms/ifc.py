"""Rooms as IFC4: spaces with their storeys, areas, heights and outlines. The library is only loaded when a file is."""

import math
from typing import Any

import numpy as np

from exchange.rooms.gbxml import number_and_name
from exchange.rooms.incoming import Incoming, IncomingRoom, Outline, effective_height_m
from projects.errors import Refused
from projects.rows import Document, Row

_AREAS = ("NetFloorArea", "GrossFloorArea")
_HEIGHTS = ("Height", "FinishCeilingHeight", "NetHeight")
_MOST_CORNERS = 200
_DEEPEST = 100  # placements on each other
_TURNED_DEG = 0.05
_ROUND = 24  # corners of a circle


def read_ifc(data: bytes) -> Incoming:
    """Spaces of an IFC file.

    Raises:
        Refused: it is no IFC that can be read.
    """
    import ifcopenshell
    import ifcopenshell.util.element
    import ifcopenshell.util.unit

    if not data.lstrip()[:13].upper().startswith(b"ISO-10303-21"):
        raise Refused("invalid", "This is no IFC file: it does not begin with ISO-10303-21.")
    try:
        model = ifcopenshell.file.from_string(data.decode("utf-8", errors="replace"))
        spaces = model.by_type("IfcSpace")
        scale = float(ifcopenshell.util.unit.calculate_unit_scale(model))
        area_scale = float(ifcopenshell.util.unit.calculate_unit_scale(model, "AREAUNIT"))
    except Exception as error:  # the library raises whatever its parser raises
        raise Refused("invalid", f"This IFC file cannot be read ({type(error).__name__}).") from error
    levels: dict[str, tuple[float, float | None]] = {}
    rooms: list[IncomingRoom] = []
    outside, shapeless = 0, 0
    for index, space in enumerate(spaces, start=1):
        try:
            if _is_outside(space):
                outside += 1
                continue
            number, name = _label(space, index)
            room = IncomingRoom(number, name, f"space {index}")
            _measured(room, space, scale, area_scale, levels)
        except Exception as error:  # one space that is broken holds no other one back
            room = IncomingRoom(f"space {index}", "", f"space {index}")
            room.fault = f"it cannot be read ({type(error).__name__}: {error})."[:200]
        shapeless += room.outline is None and not room.fault
        rooms.append(room)
    return Incoming(rooms, levels, _notes(model, len(rooms), outside, shapeless))


def _is_outside(space: Any) -> bool:
    kind = getattr(space, "PredefinedType", None) or getattr(space, "InteriorOrExteriorSpace", None)
    return str(kind or "").upper() == "EXTERNAL"


def _measured(
    room: IncomingRoom, space: Any, scale: float, area_scale: float, levels: dict[str, tuple[float, float | None]]
) -> None:
    """Area, height, level and outline of a space into its room."""
    import ifcopenshell.util.element

    quantities = _quantities(ifcopenshell.util.element.get_psets(space, qtos_only=True))
    area = next((quantities[key] for key in _AREAS if key in quantities), None)
    height = next((quantities[key] for key in _HEIGHTS if key in quantities), None)
    outline, depth = _outline(space, scale)
    if area:
        room.fields["floor_area_m2"] = area * area_scale
    if height or depth:
        room.fields["height_m"] = height * scale if height else depth
    storey = ifcopenshell.util.element.get_container(space) or ifcopenshell.util.element.get_aggregate(space)
    if storey is not None and storey.is_a("IfcBuildingStorey"):
        label = str(storey.Name or storey.GlobalId)[:120]
        levels[label] = (_elevation(storey) * scale, None)
        room.fields["level"] = label
    room.outline = outline


def _elevation(storey: Any) -> float:
    """Elevation of a storey, or the height of its placement where it states none, in the file's unit."""
    if storey.Elevation is not None:
        return float(storey.Elevation)
    matrix = _placement(storey.ObjectPlacement)
    return float(matrix[2][3]) if matrix is not None else 0.0


def _placement(placement: Any) -> Any:
    """Matrix of a placement; None where there is none, or where it stands on itself."""
    import ifcopenshell.util.placement

    seen: set[int] = set()
    step = placement
    while step is not None:
        if step.id() in seen or len(seen) > _DEEPEST:
            return None
        seen.add(step.id())
        step = getattr(step, "PlacementRelTo", None)
    return None if placement is None else ifcopenshell.util.placement.get_local_placement(placement)


def _notes(model: Any, rooms: int, outside: int, shapeless: int) -> list[str]:
    """What was read, guessed and left out, and what the file says of north."""
    openings = sum(len(model.by_type(kind)) for kind in ("IfcWindow", "IfcDoor"))
    notes = [f"Read: {rooms} spaces, {rooms - shapeless} with an outline."]
    left = [f"{outside} spaces out of doors"] * bool(outside) + [f"{openings} windows and doors"] * bool(openings)
    if left:
        notes.append(f"Left out: {', '.join(left)}.")
    for context in model.by_type("IfcGeometricRepresentationContext", include_subtypes=False):
        north = getattr(context, "TrueNorth", None)
        if north is not None:
            x, y = north.DirectionRatios[:2]
            turned = math.degrees(math.atan2(x, y))
            if abs(turned) > _TURNED_DEG:
                notes.append(
                    f"True north of the file is turned by {turned:+.1f}° from its plan; the level's panel takes it."
                )
            break
    return notes


def _label(space: Any, index: int) -> tuple[str, str]:
    if space.Name and space.LongName:
        return str(space.Name)[:20], str(space.LongName)[:120]
    return number_and_name(str(space.Name or space.LongName or ""), f"space {index}")


def _quantities(sets: dict[str, dict[str, Any]]) -> dict[str, float]:
    return {
        key: float(v) for one in sets.values() for key, v in one.items() if isinstance(v, int | float) and key != "id"
    }


def _outline(space: Any, scale: float) -> tuple[Outline | None, float | None]:
    """Footprint of a space that is an upright prism, and its height [m]; nothing for other shapes."""
    import ifcopenshell.util.placement

    solids = [
        item
        for shape in (space.Representation.Representations if space.Representation else ())
        for item in shape.Items
        if item.is_a("IfcExtrudedAreaSolid")
    ]
    if len(solids) != 1:
        return None, None
    solid = solids[0]
    points = _profile(solid.SweptArea)
    matrix = _placement(space.ObjectPlacement) if space.ObjectPlacement is not None else np.eye(4)
    if not 3 <= len(points) <= _MOST_CORNERS or matrix is None:
        return None, None
    if solid.Position is not None:
        matrix = matrix @ ifcopenshell.util.placement.get_axis2placement(solid.Position)
    placed = [matrix @ [x, y, 0.0, 1.0] for x, y in points]
    if not all(math.isfinite(value) for point in placed for value in point) or not solid.Depth:
        return None, None
    return [[round(float(p[0]) * scale, 3), round(float(p[1]) * scale, 3)] for p in placed], float(solid.Depth) * scale


def _profile(area: Any) -> list[tuple[float, float]]:
    """Corners of a profile, where it stands; none of forms that are not read."""
    if area.is_a("IfcRectangleProfileDef"):
        x, y = area.XDim / 2.0, area.YDim / 2.0
        return _moved([(-x, -y), (x, -y), (x, y), (-x, y)], area.Position)
    if area.is_a("IfcCircleProfileDef"):
        angles = [2.0 * math.pi * i / _ROUND for i in range(_ROUND)]
        return _moved([(area.Radius * math.cos(a), area.Radius * math.sin(a)) for a in angles], area.Position)
    if not area.is_a("IfcArbitraryClosedProfileDef"):
        return []
    curve = area.OuterCurve
    if curve.is_a("IfcPolyline"):
        points = [tuple(point.Coordinates[:2]) for point in curve.Points]
    elif curve.is_a("IfcIndexedPolyCurve"):
        points = _indexed(curve)
    else:
        return []
    return points[:-1] if points and points[0] == points[-1] else points


def _moved(points: list[tuple[float, float]], position: Any) -> list[tuple[float, float]]:
    """Points by a placement in the plane; as they are without one."""
    if position is None:
        return points
    left, up = position.Location.Coordinates[:2]
    x, y = position.RefDirection.DirectionRatios[:2] if position.RefDirection is not None else (1.0, 0.0)
    length = math.hypot(x, y) or 1.0
    x, y = x / length, y / length
    return [(left + a * x - b * y, up + a * y + b * x) for a, b in points]


def _indexed(curve: Any) -> list[tuple[float, float]]:
    """Points of a curve of lines and arcs; an arc by as many chords as keep to a hundredth of its radius."""
    places = [tuple(point[:2]) for point in curve.Points.CoordList]
    if not curve.Segments:
        return places
    points: list[tuple[float, float]] = []
    for segment in curve.Segments:
        corners = [places[i - 1] for i in segment.wrappedValue]
        run = _arc(*corners) if segment.is_a("IfcArcIndex") and len(corners) == 3 else corners
        points += run[1:] if points and points[-1] == run[0] else run
    return points


def _arc(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> list[tuple[float, float]]:
    """Points from `a` over `b` to `c` along their circle."""
    d = 2.0 * (a[0] * (b[1] - c[1]) + b[0] * (c[1] - a[1]) + c[0] * (a[1] - b[1]))
    if abs(d) < 1e-12:
        return [a, b, c]
    squares = [x * x + y * y for x, y in (a, b, c)]
    x = (squares[0] * (b[1] - c[1]) + squares[1] * (c[1] - a[1]) + squares[2] * (a[1] - b[1])) / d
    y = (squares[0] * (c[0] - b[0]) + squares[1] * (a[0] - c[0]) + squares[2] * (b[0] - a[0])) / d
    radius = math.hypot(a[0] - x, a[1] - y)
    begin, middle, end = (math.atan2(p[1] - y, p[0] - x) for p in (a, b, c))
    left = (middle - begin) % (2.0 * math.pi) < (end - begin) % (2.0 * math.pi)
    swept = (end - begin) % (2.0 * math.pi) if left else -((begin - end) % (2.0 * math.pi))
    count = max(2, math.ceil(abs(swept) / (2.0 * math.acos(1.0 - 0.01))))
    turns = [begin + swept * i / count for i in range(1, count)]
    return [a, *((x + radius * math.cos(t), y + radius * math.sin(t)) for t in turns), c]


def rooms_ifc(document: Document) -> bytes:
    """All rooms as IFC4 spaces under their storeys; drawn rooms with their shape."""
    import ifcopenshell
    import ifcopenshell.api.aggregate
    import ifcopenshell.api.context
    import ifcopenshell.api.project
    import ifcopenshell.api.pset
    import ifcopenshell.api.root
    import ifcopenshell.api.unit

    model = ifcopenshell.api.project.create_file(version="IFC4")
    create = ifcopenshell.api.root.create_entity
    project = create(model, ifc_class="IfcProject", name=document.one("project")["name"])
    metre = ifcopenshell.api.unit.add_si_unit(model, unit_type="LENGTHUNIT")
    square = ifcopenshell.api.unit.add_si_unit(model, unit_type="AREAUNIT")
    ifcopenshell.api.unit.assign_unit(model, units=[metre, square])
    context = ifcopenshell.api.context.add_context(model, context_type="Model")
    body = ifcopenshell.api.context.add_context(
        model, context_type="Model", context_identifier="Body", target_view="MODEL_VIEW", parent=context
    )
    site = create(model, ifc_class="IfcSite", name=document.one("site")["name"])
    building = create(model, ifc_class="IfcBuilding", name=document.one("project")["name"])
    assign = ifcopenshell.api.aggregate.assign_object
    assign(model, products=[site], relating_object=project)
    assign(model, products=[building], relating_object=site)
    storeys: dict[str | None, Any] = {}
    for level in document.of("level").values():
        storey = create(model, ifc_class="IfcBuildingStorey", name=level["name"])
        storey.Elevation = float(level["floor_m"])
        assign(model, products=[storey], relating_object=building)
        storeys[level["id"]] = storey
    for room in sorted(document.of("room").values(), key=lambda row: row["number"]):
        space = create(model, ifc_class="IfcSpace", name=room["number"])
        space.LongName = room["name"]
        assign(model, products=[space], relating_object=storeys.get(room["level"], building))
        _sizes(model, document, room, space)
        if room["outline_m"]:
            _shape(model, document, room, space, body)
    return str(model.to_string()).encode()


def _sizes(model: Any, document: Document, room: Row, space: Any) -> None:
    import ifcopenshell.api.pset

    sizes = {"NetFloorArea": room["floor_area_m2"], "Height": effective_height_m(document, room) or None}
    known: dict[str, Any] = {key: float(value) for key, value in sizes.items() if value}
    if known:
        quantities = ifcopenshell.api.pset.add_qto(model, product=space, name="Qto_SpaceBaseQuantities")
        ifcopenshell.api.pset.edit_qto(model, qto=quantities, properties=known)


def _shape(model: Any, document: Document, room: Row, space: Any, body: Any) -> None:
    level = document.of("level").get(room["level"] or "")
    floor = float(level["floor_m"]) if level else 0.0

    def point(*coordinates: float) -> Any:
        return model.createIfcCartesianPoint(coordinates)

    place = model.createIfcAxis2Placement3D(point(0.0, 0.0, floor))
    space.ObjectPlacement = model.createIfcLocalPlacement(None, place)
    corners = [point(float(x), float(y)) for x, y in room["outline_m"]]
    profile = model.createIfcArbitraryClosedProfileDef("AREA", None, model.createIfcPolyline([*corners, corners[0]]))
    up = model.createIfcDirection((0.0, 0.0, 1.0))
    height = effective_height_m(document, room) or 3.0
    solid = model.createIfcExtrudedAreaSolid(profile, model.createIfcAxis2Placement3D(point(0.0, 0.0, 0.0)), up, height)
    shape = model.createIfcShapeRepresentation(body, "Body", "SweptSolid", [solid])
    space.Representation = model.createIfcProductDefinitionShape(None, None, [shape])
