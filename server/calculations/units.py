"""Units for callers outside the core."""

from typing import Any

from pendrum_core.results.units import QUANTITIES, Quantity


def unit_table() -> dict[str, Quantity]:
    """All quantities by name, of which the browser's table is generated."""
    return QUANTITIES


def shown(value: float, quantity: str, system: str) -> float:
    """A stored SI value as the figure of "SI" or "IP"."""
    q = QUANTITIES[quantity]
    return value * q.ip_factor + q.ip_offset if system == "IP" else value * q.si_factor


def of_series(name: str, values: Any, system: str) -> tuple[str, str, Any]:
    """A course of the year by its name: what it is called, its unit, and it in the units of "SI" or "IP"."""
    flows = name.endswith("_kg_s") or name.startswith("water/")
    quantity = "temperature" if name.endswith("_c") else "mass_flow" if flows else "load"
    q = QUANTITIES[quantity]
    return (
        name.split("/")[1 if name.startswith("water/") else -1]
        .removesuffix("_c")
        .removesuffix("_kg_s")
        .removesuffix("_w")
        .replace("_", " "),
        unit(quantity, system),
        values * q.ip_factor + q.ip_offset if system == "IP" else values * q.si_factor,
    )


def stored(figure: float, quantity: str, system: str) -> float:
    """A figure of "SI" or "IP" as it is stored."""
    q = QUANTITIES[quantity]
    return (figure - q.ip_offset) / q.ip_factor if system == "IP" else figure / q.si_factor


def unit(quantity: str, system: str) -> str:
    """Unit of a quantity."""
    q = QUANTITIES[quantity]
    return q.ip if system == "IP" else q.si


def decimals(quantity: str, system: str) -> int:
    """With how many decimals figures of a quantity are shown."""
    q = QUANTITIES[quantity]
    return q.ip_decimals if system == "IP" else q.si_decimals
