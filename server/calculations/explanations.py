"""Working trees with the origin of every input added."""

from dataclasses import asdict
from typing import Any

from pendrum_core.results.building import BuildingResults
from pendrum_core.working.explain import explain
from projects.resolver import effective_values
from projects.rows import Document

_STAGE = {
    "site": "place", "project": "place", "surface": "rooms", "opening": "rooms", "room": "rooms", "air_system": "air",
    "duct_section": "air", "extract": "air", "transfer": "air", "circuit": "water", "plant_unit": "water", "hot_water": "water", "pipe_section": "water",
}  # fmt: skip
_BY_USE = {
    "people": "people_per_m2", "lights": "lights_w_m2", "equipment": "equipment_w_m2",
    "infiltration": "infiltration_ach", "outdoor_air": "",
}  # fmt: skip


def working(results: BuildingResults, document: Document, quantity: str, subject: str) -> dict[str, Any]:
    """Explain a figure.

    Raises:
        KeyError: unknown quantity, or no such result.
    """
    tree = asdict(explain(results, quantity, subject))
    _add_origins(tree, document)
    return tree


def _add_origins(node: dict[str, Any], document: Document) -> None:
    reference = node.pop("ref")
    node["origin"], node["stage"], node["place"] = _origin(reference, document) if reference else ("", "", "")
    for child in node["inputs"]:
        _add_origins(child, document)


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
