"""A published value keeps its citation only while it is the published one.

Things with a source say "changed from …" once one of the figures that the source stands for is set to another value, and
say the source again when the figures are those of the shelf again.
"""

from collections.abc import Sequence
from functools import cache
from math import isclose
from typing import Any

from projects.rows import Document, Row
from shelf.materials import materials
from shelf.uses import uses

Change = dict[str, Any]
CHANGED = "changed from "
_LONGEST = 200
_NOT_CITED = {"name", "source", "activity", "yardstick_low_w_m2", "yardstick_high_w_m2"}
# Figures that a source stands for, by kind.
_CITED = {
    "material": (
        "conductivity_w_mk",
        "density_kg_m3",
        "specific_heat_j_kgk",
        "resistance_m2k_w",
        "air_gap",
        "vapour_factor",
    ),
    "use": (
        "people_basis",
        "people_value",
        "lights_value",
        "equipment_value",
        "air_per_person_m3_s",
        "air_per_area_m3_s_m2",
    ),
}


@cache
def _published() -> dict[tuple[str, str], list[dict[str, Any]]]:
    """Figures of everything on the shelf, by kind and source."""
    found: dict[tuple[str, str], list[dict[str, Any]]] = {}
    for kind, items in (("material", materials()), ("use", uses())):
        for item in items:
            fields = item["fields"]
            figures = {name: value for name, value in fields.items() if name not in _NOT_CITED}
            found.setdefault((kind, fields["source"]), []).append(figures)
    return found


def _same(one: Any, other: Any) -> bool:
    if isinstance(one, float | int) and isinstance(other, float | int):
        return isclose(one, other, rel_tol=1e-9, abs_tol=1e-12)
    return bool(one == other)


def _source(kind: str, before: Row, after: Row) -> str:
    said = str(before["source"])
    base = said.removeprefix(CHANGED)
    published = _published().get((kind, base), [])
    if any(all(_same(after[name], value) for name, value in figures.items()) for figures in published):
        return base
    changed = any(not _same(before[name], after[name]) for name in _CITED[kind])
    return f"{CHANGED}{base}"[:_LONGEST] if changed else said


def with_citations(document: Document, changes: Sequence[Change]) -> list[Change]:
    """A change set in which sources follow the figures that it sets; a source that is set itself stands as it is set."""
    result = []
    for change in changes:
        kind, fields = change.get("kind"), change.get("fields") or {}
        row = document.of(kind).get(change.get("id", "")) if change.get("op") == "set" and kind in _CITED else None
        if row is not None and row["source"] and "source" not in fields and set(fields) & set(_CITED[str(kind)]):
            source = _source(str(kind), row, row | fields)
            if source != row["source"]:
                change = change | {"fields": fields | {"source": source}}
        result.append(change)
    return result
