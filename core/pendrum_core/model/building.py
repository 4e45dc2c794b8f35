"""A whole building as the core takes it."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from pendrum_core.model.catalogue import CatalogueRow
from pendrum_core.model.climate import Climate
from pendrum_core.model.hot_water import HotWaterStore
from pendrum_core.model.rooms import Room
from pendrum_core.model.systems import AirSystem, Circuit, Extract, Transfer


@dataclass(frozen=True)
class Group:
    """A named set of rooms whose loads are added up."""

    id: str
    name: str
    kind: str
    room_ids: tuple[str, ...]


@dataclass(frozen=True)
class Margins:
    """What is added to heating and to cooling loads, shares of them [-]."""

    heating: float = 0.0
    cooling: float = 0.0


@dataclass(frozen=True)
class Building:
    """Everything that is calculated together.

    Rooms that cannot be calculated are left out by the caller and stand among its snags. Margins are added to what
    emitters and coils must give, loads themselves stay without; rooms and systems that name none have the building's.
    `offsets_m3_s` is what of their air rooms give to outdoors by their pressure, below nought what they take from there.
    """

    climate: Climate
    rooms: tuple[Room, ...]
    groups: tuple[Group, ...] = ()
    systems: tuple[AirSystem, ...] = ()
    circuits: tuple[Circuit, ...] = ()
    stores: tuple[HotWaterStore, ...] = ()
    margins: Margins = Margins()
    extracts: tuple[Extract, ...] = ()
    transfers: tuple[Transfer, ...] = ()
    offsets_m3_s: Mapping[str, float] = field(default_factory=dict)
    room_margins: Mapping[str, Margins] = field(default_factory=dict)
    system_margins: Mapping[str, Margins] = field(default_factory=dict)
    catalogue: tuple[CatalogueRow, ...] = ()

    def margins_of(self, identity: str) -> Margins:
        """Margins of a room or a system."""
        return self.room_margins.get(identity) or self.system_margins.get(identity) or self.margins
