"""Working of yardsticks: of a room, or of rooms together."""

from collections.abc import Callable
from functools import partial

from pendrum_core.results.building import BuildingResults
from pendrum_core.results.outdoor_air import serving
from pendrum_core.results.yardsticks import group_basis, room_basis, yardsticks
from pendrum_core.working.node import Node, figure

_AREA = ("Floor area", "area_m2", "area")
_COOLING = ("Cooling load, sensible", "cooling_w", "load")
_SUPPLY = ("Supply air", "supply_m3_s", "airflow")
# Field -> title, quantity, formula, and the two figures that it is made of with their quantities.
_MADE = {
    "cooling_w_m2": ("cooling by area", "power_per_area", "{} / {}", _COOLING, _AREA),
    "heating_w_m2": ("heating by area", "power_per_area", "{} / {}", ("Heating load", "heating_w", "load"), _AREA),
    "area_per_cooling_m2_w": ("area cooled", "area_per_power", "{} / {}", _AREA, _COOLING),
    "supply_m3_s_m2": ("supply by area", "airflow_per_area", "{} / {}", _SUPPLY, _AREA),
    "air_changes_per_h": (
        "air changes",
        "air_changes",
        "{} × 3600 s/h / {}",
        _SUPPLY,
        ("Volume", "volume_m3", "volume"),
    ),
    "supply_per_cooling_m3_s_w": ("supply by cooling", "airflow_per_power", "{} / {}", _SUPPLY, _COOLING),
    "outdoor_share": ("outdoor air", "percent", "{} / {}", ("Outdoor air", "outdoor_m3_s", "airflow"), _SUPPLY),
    "supply_difference_k": (
        "room above supply",
        "temperature_difference",
        "{} − {}",
        ("Cooling set-point", "setpoint_c", "temperature"),
        ("Coldest supply air", "supply_c", "temperature"),
    ),
}


def _yardstick(results: BuildingResults, subject: str, who: str, name: str) -> Node:
    """One yardstick.

    Raises:
        KeyError: the room or group has no such figure.
    """
    system_of = serving(results)
    if who == "room":
        loads = results.rooms[subject]
        of, basis = f"{loads.room.number} {loads.room.name}", room_basis(results, system_of, loads)
    else:
        group = results.groups[subject]
        of, basis = group.name, group_basis(results, system_of, group)
    value = getattr(yardsticks(basis), name)
    if value is None:
        raise KeyError(subject)
    title, quantity, formula, *parts = _MADE[name]
    inputs = [Node(what, getattr(basis, key), unit) for what, key, unit in parts]
    return Node(
        f"{of}: {title}",
        value,
        quantity,
        formula=formula.format(*(what.lower() for what, _, _ in parts)),
        numbers=formula.format(*(figure(getattr(basis, key), unit) for _, key, unit in parts)),
        note="" if who == "room" else "Sums over its rooms; the cooling load is the coincident one.",
        inputs=tuple(inputs),
    )


YARDSTICKS: dict[str, Callable[[BuildingResults, str], Node]] = {
    f"{who}_{name}": partial(_yardstick, who=who, name=name) for who in ("room", "group") for name in _MADE
}
