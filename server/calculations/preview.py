"""A change set tried out."""

from typing import Any

from calculations.service import tried
from pendrum_core.results.building import BuildingLoads
from projects.rows import Document


def _peaks(results: BuildingLoads) -> dict[str, Any]:
    building = results.groups.get("building")
    return {
        "cooling_w": building.cooling.sensible_w if building else None,
        "heating_w": building.heating.load_w if building else None,
        "rooms": len(results.rooms),
    }


def compared(before: Document, after: Document, touched: int) -> dict[str, Any]:
    """Peaks of the building as it is, and as it would be."""
    old, new = tried(before, after)
    return {"before": _peaks(old), "after": _peaks(new), "touched": touched, "rooms_calculated": new.rooms_calculated}
