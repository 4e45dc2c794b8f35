"""Project files of earlier versions, brought forward one version at a time."""

import re
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


# What settings were of an air system before its parts stood in a list, with their defaults.
UNIT_SETTINGS: dict[str, Any] = {
    "filter_drop_pa": 150.0,
    "coil_drop_pa": 120.0,
    "other_drop_pa": 80.0,
    "humidifier": "none",
    "blow_through": False,
    "cools": True,
}


def parts_of(settings: dict[str, Any]) -> list[dict[str, Any]]:
    """The parts of a unit in order, from the settings that said what it has; `dry_to_c` among them meant a coil behind the fan."""
    said = UNIT_SETTINGS | settings
    cools, humidifier = said["cools"], said["humidifier"]
    fan: list[tuple[str, float]] = [("fan", 0.0)]
    parts: list[tuple[str, float]] = [("filter", said["filter_drop_pa"])] if said["filter_drop_pa"] else []
    parts += [("heating coil", 0.0 if cools else said["coil_drop_pa"])]
    parts += fan if said["blow_through"] else []
    parts += [("cooling coil", said["coil_drop_pa"])] if cools else []
    parts += [] if humidifier == "none" else [(f"{humidifier} humidifier", 0.0)]
    parts += [] if said["blow_through"] else fan
    parts += [("heating coil", 0.0)] if cools and said.get("dry_to_c") is not None else []
    parts += [("other", said["other_drop_pa"])] if said["other_drop_pa"] else []
    return [{"kind": kind, "drop_pa": drop} for kind, drop in parts]


def _parts(objects: Objects) -> Objects:
    """From 2 to 3: what a unit has stands in order."""
    systems = [
        {key: value for key, value in row.items() if key not in UNIT_SETTINGS} | {"parts": parts_of(row)}
        for row in objects.get("air_system", [])
    ]
    return {**objects, "air_system": systems} if systems else objects


def without_weight(size: str) -> str:
    """A size of ducts on the kit list without its weight, which was a part of it until weights had a column of their own."""
    return re.sub(r", \d+ kg$", "", size)


def _prices(objects: Objects) -> Objects:
    """From 3 to 4: prices of ducts by their size alone."""
    prices = [row | {"size": without_weight(row["size"])} if "size" in row else row for row in objects.get("price", [])]
    return {**objects, "price": prices} if prices else objects


# What brings a file of each version to the next.
_STEPS: dict[int, Callable[[Objects], Objects]] = {1: _transfers, 2: _parts, 3: _prices}


def brought_forward(objects: Objects, version: int) -> Objects:
    """Objects of a file of an earlier version as today's has them."""
    for step in range(version, max(_STEPS) + 1):
        objects = _STEPS[step](objects)
    return objects
