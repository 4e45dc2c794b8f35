"""What a year came to, in a few figures, for those who put it beside others."""

from collections.abc import Mapping, Sequence
from typing import Any

_LOOSE = "without a plant"


def year_figures(summary: Mapping[str, Any], bills: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    """Delivered energy by carrier and use, bills, emissions and comfort of a kept year; `stale` where inputs changed since."""
    metered = [row for row in summary["energy"] if not row["carrier"].endswith(_LOOSE)]
    uses: dict[str, float] = {}
    for row in metered:
        uses[row["use"]] = uses.get(row["use"], 0.0) + row["kwh"]
    return {
        "stale": summary["stale"],
        "delivered_kwh": sum(uses.values()),
        "uses_kwh": uses,
        "loose_kwh": sum(row["kwh"] for row in summary["energy"]) - sum(uses.values()),
        "carriers_kwh": {
            name: found["kwh"] for name, found in summary["carriers"].items() if not name.endswith(_LOOSE)
        },
        "cost": sum(bill["total"] for bill in bills),
        "emissions_kg": sum(bill["emissions_kg"] for bill in bills),
        "billed": bool(bills),
        "too_warm_h": sum(room["too_warm_h"] for room in summary["rooms"].values()),
        "unmet_h": sum(room["unmet_heating_h"] + room["unmet_cooling_h"] for room in summary["rooms"].values()),
    }
