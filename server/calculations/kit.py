"""The kit list of a project: pieces with what the project notes of them, as records and as lines of text."""

from collections.abc import Iterator, Mapping
from typing import Any

from calculations.records.payload import Record
from pendrum_core.results.kit_item import KitItem, Line
from pendrum_core.results.units import QUANTITIES, shown
from projects.rows import Document

KitRow = tuple[str, ...]


def kit_record(item: KitItem) -> Record:
    """A piece as the browser gets it: its first two figures, and the account of all."""
    first, *others = item.duties
    second = others[0] if others else None
    return {
        "order": item.order,
        "owner": item.owner,
        "tag": item.tag,
        "item": item.item,
        "serves": item.serves,
        "duty": first.wanted,
        "duty_quantity": first.quantity,
        "second": second.wanted if second else 0.0,
        "second_quantity": second.quantity if second else "",
        "account": [_line(line) for line in item.account()],
        "size": item.size,
        "why": item.why,
        "count": item.count,
        "power_w": item.power_w,
        "weight_kg": item.weight_kg,
        "state": item.state,
    }


def _line(line: Line) -> Record:
    return {"role": line.role, "what": line.what, "value": line.value, "quantity": line.quantity, "note": line.note}


def notes_of(document: Document) -> Mapping[str, Mapping[str, Any]]:
    """Own tags and remarks, by the key of the piece."""
    return {row["piece"]: row for row in document.of("kit_note").values()}


def noted(document: Document, kit: Mapping[str, Record]) -> list[Record]:
    """All pieces with their own tag where they have one, and a remark, in the order of the list."""
    notes = notes_of(document)
    found = []
    for key, item in kit.items():
        note = notes.get(key)
        found.append(
            item | {"key": key, "tag": (note and note["tag"]) or item["tag"], "remark": note["remark"] if note else ""}
        )
    return sorted(found, key=lambda item: item["order"])


def figure(value: float, quantity: str, system: str) -> tuple[str, str]:
    """A figure as on screen, and its unit; both empty without a quantity."""
    if not quantity:
        return "", ""
    number, unit = shown(value, quantity, system)
    q = QUANTITIES[quantity]
    decimals = q.ip_decimals if system == "IP" else q.si_decimals
    return f"{number:.{decimals}f}", unit


def kit_rows(document: Document, kit: Mapping[str, Record], system: str) -> Iterator[KitRow]:
    """A row for each line of each piece's account, figures as shown on screen; what is of the piece stands in its first."""
    for item in noted(document, kit):
        power = f"{item['power_w']:.0f}" if item["power_w"] else ""
        weight = f"{item['weight_kg']:.1f}" if item["weight_kg"] is not None else ""
        of_piece = (item["size"], item["why"], str(item["count"]), power, weight, item["state"], item["remark"])
        for at, line in enumerate(item["account"]):
            told = (line["role"], line["what"], *figure(line["value"], line["quantity"], system), line["note"])
            rest = of_piece if at == 0 else ("",) * len(of_piece)
            yield (item["tag"], item["item"], item["serves"], *told, *rest)
