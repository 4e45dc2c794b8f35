"""Project files of earlier versions, brought forward one version at a time."""

from collections.abc import Callable
from typing import Any

Objects = dict[str, list[dict[str, Any]]]


def _transfers(objects: Objects) -> Objects:
    """From 1 to 2: air from another room is a thing of its own."""
    rooms: list[dict[str, Any]] = []
    transfers: list[dict[str, Any]] = []
    for row in objects.get("room", []):
        source, flow = row.get("air_from"), row.get("air_from_m3_s")
        rooms.append({key: value for key, value in row.items() if key not in ("air_from", "air_from_m3_s")})
        if source and flow and source != row["id"]:
            transfers.append({"id": f"air-{len(transfers)}", "room": row["id"], "source": source, "flow_m3_s": flow})
    return {**objects, "room": rooms, **({"transfer": transfers} if transfers else {})}


# What brings a file of each version to the next.
_STEPS: dict[int, Callable[[Objects], Objects]] = {1: _transfers}


def brought_forward(objects: Objects, version: int) -> Objects:
    """Objects of a file of an earlier version as today's has them."""
    for step in range(version, max(_STEPS) + 1):
        objects = _STEPS[step](objects)
    return objects
