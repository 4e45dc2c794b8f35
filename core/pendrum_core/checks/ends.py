"""Snags of several ways to one end."""

from collections.abc import Iterator

from pendrum_core.checks.snag import DOUBTFUL, Snag
from pendrum_core.network.ends import missing_shares
from pendrum_core.results.building import BuildingResults


def end_snags(results: BuildingResults) -> Iterator[Snag]:
    """Shares of ways to one end that do not make up the whole."""
    names = {room.id: f"{room.number} {room.name}" for room in results.building.rooms}
    names |= {system.drawn: system.name for system in results.building.systems}
    names |= {circuit.id: circuit.name for circuit in results.building.circuits}
    trees = [("circuit", circuit.id, "water", circuit.name, circuit.sections) for circuit in results.building.circuits]
    for system in results.building.systems:
        for network in dict.fromkeys(section.network for section in system.sections):
            sections = tuple(section for section in system.sections if section.network == network)
            trees.append(("air_system", system.drawn, "air", f"{system.name}, {network}", sections))
    told: set[tuple[str, str]] = set()
    for kind, identity, stage, name, sections in trees:
        for end, whole in missing_shares(sections).items():
            if (name, end) in told:
                continue
            told.add((name, end))
            yield Snag(
                DOUBTFUL,
                "end_shares",
                kind=kind,
                id=identity,
                stage=stage,
                sentence=f"{name}: the shares of the ways to {names.get(end, end)} make {whole:.0%}; they count in proportion.",
                way_out="shares that make 100 %, or one of them left empty",
            )
