"""Units of results, for exports."""

from pendrum_core.quantities.registry import QUANTITIES, Quantity, shown

__all__ = ["QUANTITIES", "Quantity", "shown"]
