"""The one entry of the core: a building in, results out; in two halves, loads and plant."""

from pendrum_core.model.building import Building
from pendrum_core.results.building import BuildingResults
from pendrum_core.run.loads import calculate_loads
from pendrum_core.run.memory import Memory
from pendrum_core.run.plant import calculate_plant

__all__ = ["Memory", "calculate", "calculate_loads", "calculate_plant"]


def calculate(building: Building, memory: Memory | None = None) -> BuildingResults:
    """Calculate a building; with a `memory`, only what changed since its last use."""
    memory = memory if memory is not None else Memory()
    return calculate_plant(calculate_loads(building, memory), memory)
