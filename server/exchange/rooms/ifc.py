"""Rooms as IFC4: spaces with their storeys, areas, heights and outlines. The library is only loaded when a file is."""

from typing import Any

from exchange.rooms.gbxml import number_and_name
from exchange.rooms.incoming import Incoming, IncomingRoom, Outline, effective_height_m
from projects.document import Document, Row
from projects.errors import Refused

_AREAS = ("NetFloorArea", "GrossFloorArea")
_HEIGHTS = ("Height", "FinishCeilingHeight", "NetHeight")
_MOST_CORNERS = 200


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
    rooms = []
    for index, space in enumerate(spaces, start=1):
        number, name = _label(space, index)
        room = IncomingRoom(number, name, f"space {index}")
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
            label = storey.Name or storey.GlobalId
            levels[label] = (float(storey.Elevation or 0.0) * scale, None)
            room.fields["level"] = label
        room.outline = outline
        rooms.append(room)
    return Incoming(rooms, levels)


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
    if not 3 <= len(points) <= _MOST_CORNERS:
        return None, None
    matrix = ifcopenshell.util.placement.get_local_placement(space.ObjectPlacement)
    if solid.Position is not None:
        matrix = matrix @ ifcopenshell.util.placement.get_axis2placement(solid.Position)
    placed = [matrix @ [x, y, 0.0, 1.0] for x, y in points]
    return [[round(float(p[0]) * scale, 3), round(float(p[1]) * scale, 3)] for p in placed], float(solid.Depth) * scale


def _profile(area: Any) -> list[tuple[float, float]]:
    if area.is_a("IfcRectangleProfileDef"):
        x, y = area.XDim / 2.0, area.YDim / 2.0
        return [(-x, -y), (x, -y), (x, y), (-x, y)]
    if not area.is_a("IfcArbitraryClosedProfileDef"):
        return []
    curve = area.OuterCurve
    if curve.is_a("IfcPolyline"):
        points = [tuple(point.Coordinates[:2]) for point in curve.Points]
    elif curve.is_a("IfcIndexedPolyCurve"):
        points = [tuple(point[:2]) for point in curve.Points.CoordList]
    else:
        return []
    return points[:-1] if points and points[0] == points[-1] else points


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
    known = {key: float(value) for key, value in sizes.items() if value}
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
