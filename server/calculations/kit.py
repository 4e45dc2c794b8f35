"""Kit list rows as text."""

from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import kit_list
from pendrum_core.results.units import QUANTITIES, shown

KitRow = tuple[str, ...]


def _figure(value: float, quantity: str, system: str) -> tuple[str, str]:
    if not quantity:
        return "", ""
    number, unit = shown(value, quantity, system)
    q = QUANTITIES[quantity]
    decimals = q.ip_decimals if system == "IP" else q.si_decimals
    return f"{number:.{decimals}f}", unit


def kit_rows(results: BuildingResults, system: str) -> list[KitRow]:
    """Rows in the order of the kit list; figures as shown on screen."""
    rows: list[KitRow] = []
    for item in kit_list(results):
        duty, unit = _figure(item.duty, item.duty_quantity, system)
        second, second_unit = _figure(item.second, item.second_quantity, system)
        power = f"{item.power_w:.0f}" if item.power_w else ""
        rows.append((item.tag, item.item, item.serves, duty, unit, second, second_unit, item.size, power, item.state))
    return rows
