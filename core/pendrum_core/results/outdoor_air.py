"""Outdoor air that a system brings for its rooms: the part of the coil's load that is theirs at a time."""

from collections.abc import Iterable
from dataclasses import dataclass

from pendrum_core.results.building import BuildingResults


@dataclass(frozen=True)
class OutdoorAirPart:
    """Heat and moisture that outdoor air brings to the coil above the return air; negative where it helps [W]."""

    sensible_w: float
    latent_w: float

    @property
    def total_w(self) -> float:
        """Both."""
        return self.sensible_w + self.latent_w


def serving(results: BuildingResults) -> dict[str, str]:
    """The system of every room that is on one; of two the one that serves it first."""
    return {
        terminal.room: system.id
        for system in results.building.systems
        if system.id in results.systems
        for terminal in system.terminals
        if terminal.rank == 1 and terminal.room in results.systems[system.id].airflows
    }


def outdoor_air_part(
    results: BuildingResults, system_of: dict[str, str], rooms: Iterable[str], month: int, step: int
) -> OutdoorAirPart | None:
    """What outdoor air brings for rooms at a step of a month index; None where none of them is on a system.

    Every room counts with its share of the supply air, so that the rooms of a system add up to
    m share (h outdoors - h return) of its coil; sensible is what is left of that with the return air's moisture.
    """
    mass: dict[str, float] = {}
    for room in rooms:
        system = system_of.get(room)
        if system is not None:
            supplied = float(results.systems[system].served[room].flow_kg_s[month, step])
            mass[system] = mass.get(system, 0.0) + supplied
    if not mass:
        return None
    sensible = latent = 0.0
    for system, supplied in mass.items():
        dry, moist = results.systems[system].outdoor_air_j_kg
        sensible += supplied * float(dry[month, step])
        latent += supplied * float(moist[month, step])
    return OutdoorAirPart(sensible, latent)
