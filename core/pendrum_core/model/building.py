"""A whole building as the core takes it."""

from dataclasses import dataclass

from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import AirSystem, Circuit


@dataclass(frozen=True)
class Group:
    """A named set of rooms whose loads are added up."""

    id: str
    name: str
    kind: str
    room_ids: tuple[str, ...]


@dataclass(frozen=True)
class Building:
    """Everything that is calculated together.

    Rooms that cannot be calculated are left out by the caller and stand among its snags. The margins [-] are added to
    what emitters and coils must give; loads themselves stay without.
    """

    climate: Climate
    rooms: tuple[Room, ...]
    groups: tuple[Group, ...] = ()
    systems: tuple[AirSystem, ...] = ()
    circuits: tuple[Circuit, ...] = ()
    heating_margin: float = 0.0
    cooling_margin: float = 0.0
