"""Several documents side by side: what is entered differently, and what it makes of peaks, sizes, energy and money."""

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from calculations.prices import priced
from calculations.service import SOURCES, records_of
from projects.kinds import KINDS
from projects.rows import Document, Row

Record = Mapping[str, Any]
Read = Callable[[Record], float | None]


def _at(*path: str) -> Read:
    def read(record: Record) -> float | None:
        value: Any = record
        for part in path:
            if value is None:
                return None
            value = value[part]
        return None if value is None else float(value)

    return read


_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec", "Dew day")
# Record kind, group of the comparison, figure, unit registry key, where it stands in the record.
_FIGURES: tuple[tuple[str, str, str, str, Read], ...] = (
    ("group", "Building and groups", "cooling", "load", _at("cooling", "sensible_w")),
    ("group", "Building and groups", "cooling with moisture", "load", _at("cooling", "total_w")),
    ("group", "Building and groups", "heating", "load", _at("heating_w")),
    ("room", "Rooms", "cooling", "load", _at("cooling", "sensible_w")),
    ("room", "Rooms", "heating", "load", _at("heating_w")),
    ("room", "Rooms", "warmest without cooling", "temperature", _at("floating_peak_c")),
    ("airflow", "Airflows", "supply air", "airflow", _at("design_m3_s")),
    ("air_system", "Air systems", "supply air", "airflow", _at("flow_m3_s")),
    ("air_system", "Air systems", "outdoor air", "airflow", _at("outdoor_air", "intake_m3_s")),
    ("air_system", "Air systems", "cooling coil", "load", _at("coil_total_w")),
    ("air_system", "Air systems", "heating coil", "load", _at("winter", "duty_w")),
    ("air_system", "Air systems", "reheat", "load", _at("reheat_w")),
    ("air_system", "Air systems", "fan pressure", "air_pressure", _at("fan", "total_pa")),
    ("air_system", "Air systems", "fan power", "electric_power", _at("fan", "electrical_w")),
    ("circuit", "Water circuits", "duty", "load", _at("duty_w")),
    ("circuit", "Water circuits", "pump flow", "water_flow", _at("pump", "flow_m3_s")),
    ("circuit", "Water circuits", "pump head", "head", _at("pump", "head_pa")),
    ("emitter", "Emitters", "rating", "load", _at("rating_w")),
    ("plant", "Plant", "design load", "load", _at("design_w")),
    ("duct_section", "Ducts and pipes", "diameter", "diameter", _at("diameter_m")),
    ("pipe_section", "Ducts and pipes", "diameter", "diameter", _at("diameter_m")),
    ("kit", "Kit", "duty", "", _at("duty")),
)


def side_by_side(documents: Mapping[str, Document], subject: tuple[str, str] = ("group", "building")) -> dict[str, Any]:
    """Figures of several documents by column; the first is what the others are compared with. `subject` is a room or group whose loads are
    told by source.

    Every row is a figure that not all columns share; `same` counts the others.
    """
    records = {column: records_of(document) for column, document in documents.items()}
    rows, same = figures_beside(records, documents.values())
    return {
        "rows": rows,
        "totals": {
            column: _totals(found) | {"kit_cost": priced(documents[column], found.get("kit", {}))["total"]}
            for column, found in records.items()
        },
        "same": same,
        "categories": list(SOURCES),
        "subject": {"kind": subject[0], "id": subject[1], "name": _subject(subject, records, documents.values())},
        "parts": {column: _parts(found.get(subject[0], {}).get(subject[1])) for column, found in records.items()},
        "snags": {
            column: sum(snag["level"] != "note" for snag in found.get("snag", {}).values())
            for column, found in records.items()
        },
    }


def _parts(record: Record | None) -> dict[str, Any] | None:
    if record is None:
        return None
    cooling = record["cooling"] or {"parts_w": [], "month": 1, "step": 0}
    return {
        "cooling": cooling["parts_w"],
        "heating": record["heating_parts_w"],
        "month": cooling["month"],
        "step": cooling["step"],
    }


def _subject(subject: tuple[str, str], records: Mapping[str, Mapping[str, Any]], documents: Iterable[Document]) -> str:
    record = next(
        (found[subject[0]][subject[1]] for found in records.values() if subject[1] in found.get(subject[0], {})), None
    )
    return "" if record is None else _name(subject[0], subject[1], record, documents)


def _when(record: Record | None) -> str | None:
    """Month and time of a cooling peak."""
    peak = record["cooling"] if record is not None else None
    if not peak or peak["sensible_w"] <= 0:
        return None
    minutes = peak["step"] * 10
    return f"{_MONTHS[peak['month'] - 1]} {minutes // 60:02d}:{minutes % 60:02d}"


def figures_beside(
    records: Mapping[str, Mapping[str, Any]], documents: Iterable[Document]
) -> tuple[list[dict[str, Any]], int]:
    """Figures that not all columns of records share, and how many are the same; `documents` have the names."""
    named = list(documents)
    rows: list[dict[str, Any]] = []
    same = 0
    for kind, group, figure, quantity, read in _FIGURES:
        of_kind = {column: found.get(kind, {}) for column, found in records.items()}
        for identity in dict.fromkeys(key for found in of_kind.values() for key in found):
            there = [found.get(identity) for found in of_kind.values()]
            values = [None if record is None else read(record) for record in there]
            if all(_alike(value, values[0]) for value in values):
                same += 1
                continue
            record = next(record for record in there if record is not None)
            rows.append(
                {
                    "group": group,
                    "kind": kind,
                    "id": identity,
                    "name": _name(kind, identity, record, named),
                    "figure": figure,
                    "quantity": quantity or record["duty_quantity"],
                    "values": values,
                    "notes": [None if r is None else r["size"] for r in there]
                    if kind in ("duct_section", "pipe_section", "kit")
                    else [_when(r) for r in there]
                    if kind in ("room", "group") and figure == "cooling"
                    else None,
                }
            )
    return rows, same


def inputs_between(before: Mapping[str, Iterable[Row]], document: Document) -> list[dict[str, str]]:
    """What is entered otherwise than in earlier objects, a line for each field, added thing and removed thing."""
    found = []
    for kind, info in KINDS.items():
        old = {row["id"]: row for row in before.get(kind, ())}
        now = document.of(kind)
        for identity in dict.fromkeys([*old, *now]):
            was, row = old.get(identity), now.get(identity)
            if was is None or row is None:
                thing = row or was or {}
                found.append(
                    {
                        "kind": kind,
                        "name": name_of(thing),
                        "field": "",
                        "op": "added" if was is None else "removed",
                        "before": "",
                        "after": "",
                    }
                )
                continue
            found += [
                {
                    "kind": kind,
                    "name": name_of(row),
                    "field": c,
                    "op": "set",
                    "before": _told(was.get(c)),
                    "after": _told(row[c]),
                }
                for c in info.columns
                if row[c] != was.get(c)
            ]
    return found


def _told(value: Any) -> str:
    text = "–" if value is None else f"{value:g}" if isinstance(value, float) else str(value)
    return text if len(text) <= 60 else f"{text[:60]} …"


def _totals(found: Mapping[str, Any]) -> dict[str, float | None]:
    """What is asked first of a building."""
    building = found.get("group", {}).get("building")
    systems, circuits = found.get("air_system", {}).values(), found.get("circuit", {}).values()
    return {
        "cooling_w": building["cooling"]["sensible_w"] if building else None,
        "heating_w": building["heating_w"] if building else None,
        "supply_m3_s": sum(system["flow_m3_s"] for system in systems),
        "coils_w": sum(system["coil_total_w"] for system in systems),
        "fans_w": sum(system["fan"]["electrical_w"] for system in systems),
        "pumps_w": sum(circuit["pump"]["electrical_w"] for circuit in circuits),
        "plant_w": sum(plant["design_w"] for plant in found.get("plant", {}).values()),
    }


def _alike(one: float | None, other: float | None) -> bool:
    if one is None or other is None:
        return one is other
    return abs(one - other) <= 1e-9 * max(1.0, abs(one), abs(other))


def name_of(row: Row) -> str:
    """What people call a thing."""
    return " ".join(str(row[field]) for field in ("number", "name") if row.get(field))


def _name(kind: str, identity: str, record: Record, documents: Iterable[Document]) -> str:
    if kind == "group":
        return str(record["name"])
    if kind == "kit":
        return f"{record['tag']} {record['item']}"
    subject = {"airflow": "room", "emitter": "room", "plant": "circuit"}.get(kind, kind)
    key, _, rest = identity.partition("~")
    for document in documents:
        row = document.row(subject, identity) or document.row(subject, key)
        if row is not None:
            room = document.row("room", rest) if rest else None
            return name_of(row) + (f", {room['number']}" if room else "")
    return identity
