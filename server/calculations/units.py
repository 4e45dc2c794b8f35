"""The unit table that the browser's is generated from."""

from pendrum_core.results.units import QUANTITIES, Quantity


def unit_table() -> dict[str, Quantity]:
    """All quantities by name."""
    return QUANTITIES
