"""Ways out of snags that can be taken at once: a change set each, which can be undone like any other."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pendrum_core.checks.snag import Snag
from projects.resolver import effective_values
from projects.rows import Document, Row

Change = dict[str, Any]


@dataclass(frozen=True)
class Mend:
    """What is done, in words, and the changes that do it."""

    label: str
    changes: tuple[Change, ...]


def _set(kind: str, identity: str, **fields: Any) -> Change:
    return {"op": "set", "kind": kind, "id": identity, "fields": fields}


def _delete(kind: str, identity: str) -> Change:
    return {"op": "delete", "kind": kind, "id": identity, "fields": {}}


def _free_number(document: Document, snag: Snag) -> Mend:
    taken = {room["number"] for room in document.of("room").values()}
    number = document.of("room")[snag.id]["number"]
    free = next(f"{number}{letter}" for letter in "abcdefghijklmnopqrstuvwxyz" if f"{number}{letter}" not in taken)
    return Mend(f"Number it {free}", (_set("room", snag.id, number=free),))


def _own_sensor(document: Document, snag: Snag) -> Mend:
    # A room that names itself has a sensor of its own, whatever its zone says.
    return Mend("Give it a sensor of its own", (_set("room", snag.id, sensor_room=snag.id),))


def _sized_plant(document: Document, snag: Snag) -> Mend | None:
    room = document.of("room")[snag.id]
    if effective_values(document, room)["sensor_room"].value not in (None, snag.id):
        return _own_sensor(document, snag)
    limit = f"{snag.code.removesuffix('_short')}_capacity_w"
    if room[limit] is None:
        return None
    return Mend("Let its plant be sized", (_set("room", snag.id, **{limit: None}),))


def _sized_airflows(document: Document, snag: Snag) -> Mend | None:
    pinned = [r["id"] for r in document.of("room").values() if r["air_system"] == snag.id and r["pinned_flow_m3_s"]]
    if not pinned:
        return None
    return Mend("Let the airflows be sized", tuple(_set("room", room, pinned_flow_m3_s=None) for room in pinned))


def _sized_section(document: Document, snag: Snag) -> Mend | None:
    row: Row = document.of(snag.kind)[snag.id]
    pins = [name for name in ("pinned_diameter_m", "pinned_width_m", "pinned_height_m") if row.get(name) is not None]
    if not pins:
        return None
    return Mend("Let it be sized", (_set(snag.kind, snag.id, **dict.fromkeys(pins)),))


def _no_pipe(document: Document, snag: Snag) -> Mend:
    ends = [row["id"] for row in document.of("pipe_section").values() if row["room"] == snag.id]
    return Mend("Remove its pipe section", tuple(_delete("pipe_section", end) for end in ends))


def _inherited_set_points(document: Document, snag: Snag) -> Mend | None:
    room = document.of("room")[snag.id]
    own = [field for field in ("heating_setpoint_c", "cooling_setpoint_c") if room[field] is not None]
    if not own:
        return None
    return Mend("Step back to the inherited set-points", (_set("room", snag.id, **dict.fromkeys(own)),))


def _no_extract(document: Document, snag: Snag) -> Mend:
    triggered = [row["id"] for row in document.of("extract").values() if row["room"] == snag.id and row["above_c"]]
    if triggered:
        return Mend("Take the extract away", tuple(_delete("extract", row) for row in triggered))
    use = document.of("use")[document.of("room")[snag.id]["use"]]
    return Mend(f"Switch the extract off in {use['name']}", (_set("use", use["id"], drawn_air="none"),))


def _held(document: Document, snag: Snag) -> Mend:
    what = snag.code.removesuffix("_never_away")
    return Mend(f"Hold the {what} set-point", (_set("use", snag.id, **{f"{what}_away": "hold"}),))


_MENDS: dict[str, Callable[[Document, Snag], Mend | None]] = {
    "duplicate_number": _free_number,
    "cooled_without_system": lambda _, snag: Mend("Say that it is not cooled", (_set("room", snag.id, cooled=False),)),
    "floats_on_system": lambda _, snag: Mend(
        "Take it off the system", (_set("room", snag.id, air_system=None, second_system=None),)
    ),
    "transfer_incomplete": lambda _, snag: Mend("Take it away", (_delete("transfer", snag.id),)),
    "cooling_short": _sized_plant,
    "heating_short": _sized_plant,
    "leader_missing": _own_sensor,
    "extract_with_cooling": _no_extract,
    "setpoints_crossed": _inherited_set_points,
    "no_neighbour": lambda _, snag: Mend(
        "Say that it loses nothing", (_set("surface", snag.id, boundary="adiabatic"),)
    ),
    "airflow_short": _sized_airflows,
    "ventilation_below_need": lambda _, snag: Mend(
        "Let its airflow be sized", (_set("room", snag.id, pinned_flow_m3_s=None),)
    ),
    "people_without_air": lambda _, snag: Mend("Say that nobody is in it", (_set("room", snag.id, occupied=False),)),
    "heating_never_away": _held,
    "cooling_never_away": _held,
    "duct_beyond_limits": _sized_section,
    "pipe_beyond_limits": _sized_section,
    "emitter_without_duty": _no_pipe,
}


def mend_of(snag: Snag, document: Document) -> Mend | None:
    """What can be done about a snag at once; None where it takes a decision."""
    make = _MENDS.get(snag.code)
    return make(document, snag) if make and snag.id in document.of(snag.kind) else None
