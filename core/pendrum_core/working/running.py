"""Working of what is asked of a circuit while it does not run."""

from pendrum_core.model.climate import day_number
from pendrum_core.quantities.times import clock, design_day
from pendrum_core.results.building import BuildingResults
from pendrum_core.working.node import Node


def circuit_stopped(results: BuildingResults, circuit_id: str) -> Node:
    """Largest load that is asked of a circuit while its hours or the outdoor air stop it.

    Raises:
        KeyError: it carries nothing at all.
    """
    found = results.courses[circuit_id].stopped
    circuit = results.drawn(circuit_id)
    climate, month = results.building.climate, found.month
    outdoor_c = climate.winter_dry_bulb_c if month is None else float(results.outdoors.dry_bulb_c[month, found.step])
    day = design_day(None if month is None else day_number(climate.months[month]))
    limits = (("Starts at, outdoors", "starts_c", circuit.starts_c), ("Stops at, outdoors", "stops_c", circuit.stops_c))
    return Node(
        f"{circuit.name}: asked while it does not run",
        found.peak_w,
        "load",
        formula="largest of what ends and fed circuits ask at steps at which it stands still",
        note=f"On {day} at {clock(found.step)}. Nothing carries it: rooms and supply air are colder or warmer then than told. "
        "Between both limits it goes on as it was.",
        source="hours of the circuit; limit control with hysteresis (EN 12098-1); docs/methods/plant.md",
        inputs=(
            Node("Outdoors then", outdoor_c, "temperature"),
            *(
                Node(name, value, "temperature", ref=f"circuit/{circuit_id}/{field}")
                for name, field, value in limits
                if value is not None
            ),
            *((Node("Its hours", ref=f"circuit/{circuit_id}/running"),) if circuit.running else ()),
        ),
    )
