"""What the kit list costs by a project's prices."""

from collections.abc import Mapping
from typing import Any

from calculations.units import shown, unit
from projects.rows import Document


def priced(document: Document, kit: Mapping[str, Mapping[str, Any]]) -> dict[str, Any]:
    """Lines of the kit list by item and size with their price, the total, and how many lines have none.

    A line costs its price each times its pieces (once where it is bought by length or area), and its price per unit of duty (in SI units as shown: per kW, per m, per L/s) times its duty; a price of its own
    size counts before one without a size. `total` is None where the project has no price at all.
    """
    prices = {(row["item"], row["size"]): row for row in document.of("price").values()}
    lines: dict[tuple[str, str], dict[str, Any]] = {}
    for item in kit.values():
        key = (item["item"], item["size"])
        row = prices.get(key) or prices.get((item["item"], ""))
        duty = shown(item["duty"], item["duty_quantity"], "SI") if item["duty_quantity"] else 0.0
        line = lines.setdefault(
            key,
            {
                "item": key[0],
                "size": key[1],
                "count": 0,
                "duty": 0.0,
                "unit": unit(item["duty_quantity"], "SI") if item["duty_quantity"] else "",
                "price": row["id"] if row else None,
                "each": row["each"] if row else None,
                "per_unit": row["per_unit"] if row else None,
                "total": None,
            },
        )
        pieces = max(1, item["count"])
        line["count"] += pieces
        line["duty"] += duty
        if row is not None:
            line["total"] = (line["total"] or 0.0) + row["each"] * pieces + row["per_unit"] * duty
    found = sorted(lines.values(), key=lambda line: (line["item"], line["size"]))
    return {
        "lines": found,
        "total": sum(line["total"] or 0.0 for line in found) if prices else None,
        "unpriced": sum(line["total"] is None for line in found),
    }
