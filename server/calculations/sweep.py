"""One field, or two against each other, tried with several values; nothing of it is kept."""

from collections.abc import Sequence
from itertools import product
from typing import Any

from calculations.service import tried_whole
from pendrum_core.results.building import BuildingResults
from projects.errors import Refused
from projects.plan import Change, plan_changes
from projects.rows import Document

MOST = 25
Field = tuple[str, str, str]


def swept(
    document: Document, field: Field, values: Sequence[float], other: Field | None, others: Sequence[float]
) -> dict[str, Any]:
    """Figures of the building at every value.

    Raises:
        Refused: a value that the field does not take, named; or too many points.
    """
    pairs = list(product(values, others if other is not None else [None]))
    if not pairs or len(pairs) > MOST * 2:
        raise Refused("invalid", f"values: {len(pairs)} points were asked for; 1 to {MOST * 2} are calculated.")
    points = []
    for value, second in pairs:
        changes = [setting(field, value)] + (
            [setting(other, second)] if other is not None and second is not None else []
        )
        _, results = tried(document, changes)
        building = results.groups.get("building")
        points.append(
            {
                "value": value,
                "other": second,
                "cooling_w": building.cooling.sensible_w if building else None,
                "heating_w": building.heating.load_w if building else None,
                "airflow_m3_s": sum(system.fan.flow_m3_s for system in results.systems.values()),
                "coils_w": sum(float(system.coil_total_w[system.peak]) for system in results.systems.values()),
                "fans_w": sum(system.fan.electrical_w for system in results.systems.values()),
                "pumps_w": sum(circuit.pump.electrical_w for circuit in results.circuits.values()),
                "warmest_c": max(
                    (room.floating_peak_c for room in results.rooms.values() if room.floating_peak_c is not None),
                    default=None,
                ),
            }
        )
    return {"points": points}


def tried(document: Document, changes: list[Change]) -> tuple[Document, BuildingResults]:
    """What a document becomes with changes, and its results; nothing of it is kept.

    Raises:
        Refused: a value that a field does not take, named.
    """
    rows, _, _ = plan_changes(document, changes)
    after = Document(document.project, -1, rows, document.base)
    return after, tried_whole(document, after)


def setting(field: Field, value: float) -> Change:
    """The change that gives a field a value."""
    kind, identity, name = field
    return {"op": "set", "kind": kind, "id": identity, "fields": {name: value}}
