"""Working of what is asked of a circuit while it does not run."""

from pendrum_core.model.climate import day_number
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.working.node import Node

_DEHUMIDIFICATION = "the dehumidification day"


def circuit_stopped(results: BuildingResults, circuit_id: str) -> Node:
    """Largest load that is asked of a circuit while its hours or the outdoor air stop it.

    Raises:
        KeyError: it carries nothing at all.
    """
    found = results.courses[circuit_id].stopped
    circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    outdoor_c, day = results.building.climate.winter_dry_bulb_c, "the winter day"
    if found.month is not None:
        outdoor_c = float(results.outdoors.dry_bulb_c[found.month, found.step])
        number = day_number(results.building.climate.months[found.month])
        day = f"{MONTHS[number - 1]}'s design day" if number <= len(MONTHS) else _DEHUMIDIFICATION
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
