"""Control valves that steer too little of what flows through them."""

from collections.abc import Iterator

from pendrum_core.checks.snag import NOTE, Snag
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.valves import LEAST_AUTHORITY, authorities


def valve_snags(results: BuildingResults) -> Iterator[Snag]:
    """Valves below the authority from which on control is hardly more than open and shut."""
    for circuit in results.building.circuits:
        found = results.circuits.get(circuit.id)
        if found is None:
            continue
        names = {section.id: section.name for section in circuit.sections}
        for section, valve in authorities(circuit, found).items():
            if valve.authority < LEAST_AUTHORITY:
                yield Snag(
                    NOTE,
                    "valve_authority",
                    kind="pipe_section",
                    id=section,
                    stage="water",
                    sentence=f"{circuit.name}, {names[section]}: its valve takes {valve.drop_pa / 1000:.2f} kPa open and "
                    f"{valve.closed_pa / 1000:.2f} kPa shut, an authority of {valve.authority:.2f}; below {LEAST_AUTHORITY:g} it is "
                    "hardly more than open or shut.",
                    way_out=f"a valve with a Kv of about {valve.good_kv_m3_h:.2g} has half of it",
                )
