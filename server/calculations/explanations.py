"""Working trees with the origin of every input added."""

from dataclasses import asdict
from typing import Any

from pendrum_core.results.building import BuildingResults
from pendrum_core.working.elements import CATEGORY_NAMES
from pendrum_core.working.explain import explain
from projects.kinds import KINDS
from projects.resolver import effective_values
from projects.rows import Document

# What sources of loads are called, in Working and in reports alike.
SOURCE_NAMES = CATEGORY_NAMES
_STAGE = {
    "site": "place",
    "project": "place",
    "surface": "rooms",
    "opening": "rooms",
    "room": "rooms",
    "air_system": "air",
    "duct_section": "air",
    "extract": "air",
    "transfer": "air",
    "circuit": "water",
    "plant_unit": "water",
    "hot_water": "water",
    "pipe_section": "water",
}
_BY_USE = {
    "people": "people_per_m2",
    "lights": "lights_w_m2",
    "equipment": "equipment_w_m2",
    "infiltration": "infiltration_ach",
    "outdoor_air": "",
}


def working(results: BuildingResults, document: Document, quantity: str, subject: str) -> dict[str, Any]:
    """Explain a figure.

    Raises:
        KeyError: unknown quantity, or no such result.
    """
    tree = asdict(explain(results, quantity, subject))
    _add_origins(tree, document)
    return tree


# Where a use has a name of its own for what the core calls otherwise.
_OF_USE = {
    "people": "people_value",
    "lights": "lights_value",
    "equipment": "equipment_value",
    "outdoor_air": "air_per_person_m3_s",
    "people_radiant": "people_radiant_share",
    "lights_radiant": "lights_radiant_share",
    "equipment_radiant": "equipment_radiant_share",
}


def _add_origins(node: dict[str, Any], document: Document) -> None:
    reference = node.pop("ref")
    node["origin"], node["stage"], node["place"] = _origin(reference, document) if reference else ("", "", "")
    node["field"] = _field(node["place"], reference.rsplit("/", 1)[-1])
    for child in node["inputs"]:
        _add_origins(child, document)


def _field(place: str, name: str) -> str:
    """The field that is entered, of the thing that holds it; empty where it holds no such field."""
    kind = place.partition("/")[0]
    field = _OF_USE.get(name, name) if kind == "use" else _BY_USE.get(name, name) if kind == "room" else name
    return field if kind in KINDS and field in KINDS[kind].columns else ""


def _origin(reference: str, document: Document) -> tuple[str, str, str]:
    """Origin tag, stage and "kind/id" of an input."""
    kind, identity, field = reference.split("/", 2)
    stage = _STAGE[kind]
    if kind == "room":
        room = document.of("room")[identity]
        use = document.of("use").get(room["use"] or "")
        name = _BY_USE.get(field, field)
        values = effective_values(document, room)
        origin = values[name].origin if name in values else "own" if name in room else "use"
        if origin == "own":
            return "own", stage, f"room/{identity}"
        if origin in ("zone", "air_system"):
            title = "Zone" if origin == "zone" else "Air system"
            row = document.of(origin)[room[origin]]
            return f"{title} › {row['name']}", "rooms" if origin == "zone" else "air", f"{origin}/{row['id']}"
        if origin == "level":
            return f"Level › {document.of('level')[room['level']]['name']}", stage, f"level/{room['level']}"
        if origin == "project":
            return "Building", stage, f"project/{document.one('project')['id']}"
        return (f"Use › {use['name']}", "uses", f"use/{use['id']}") if use else ("", stage, f"room/{identity}")
    if field in ("assembly", "glazing"):
        row = document.of(kind).get(identity, {})
        own = row.get("assembly") or row.get("glazing")
        return ("own" if own else "Fabric kit"), "fabric" if not own else stage, f"{kind}/{identity}"
    named = {"site": "Site", "project": "Building"}
    return named.get(kind, "own"), stage, f"{kind}/{identity}"
