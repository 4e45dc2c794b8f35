"""What a calculation leaves for the next one."""

from pendrum_core.air.coil_size import CoilSize, Inside
from pendrum_core.air.result import AirSystemResult
from pendrum_core.model.building import Group
from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import Room, TransferAir
from pendrum_core.room.outcome.loads import GroupLoads, RoomLoads


class Memory:
    """Results kept from one calculation to the next: what has not changed is not calculated again."""

    def __init__(self) -> None:
        self.climate: Climate | None = None
        self.rooms: dict[str, RoomLoads] = {}
        # Rooms with the air of their balance: as they came, that air, and with it.
        self.aired: dict[str, tuple[Room, tuple[float, tuple[TransferAir, ...]], Room]] = {}
        # Followers by id: as with a sensor of their own, their leader, and as led.
        self.led: dict[str, tuple[RoomLoads, RoomLoads, RoomLoads]] = {}
        self.groups: dict[str, tuple[Group, tuple[RoomLoads, ...], GroupLoads]] = {}
        # By id: what a result rests on, beside the loads; those; the result.
        self.systems: dict[str, tuple[object, tuple[RoomLoads, ...], AirSystemResult]] = {}
        # By id of the system: it and what flows in its coils, and those by place among its parts.
        self.coils: dict[str, tuple[AirSystemResult, dict[str, Inside], dict[int, CoilSize]]] = {}

    def copy(self) -> "Memory":
        """A second memory that knows the same and goes its own way: for trying a change out."""
        other = Memory()
        other.climate, other.rooms, other.led = self.climate, dict(self.rooms), dict(self.led)
        other.aired = dict(self.aired)
        other.groups, other.systems, other.coils = dict(self.groups), dict(self.systems), dict(self.coils)
        return other

    def prepare(self, climate: Climate) -> None:
        """Forget everything where the climate is another one."""
        if self.climate != climate:
            self.__init__()  # type: ignore[misc]
            self.climate = climate

    def as_led(self, room: str) -> RoomLoads | None:
        """A room's results: under its leader's command where it has one."""
        led = self.led.get(room)
        return led[2] if led is not None else self.rooms.get(room)

    def knows(self, room: Room) -> bool:
        """Whether the room's results stand."""
        kept = self.rooms.get(room.id)
        return kept is not None and (kept.room is room or kept.room == room)


def same_members(now: tuple[RoomLoads, ...], before: tuple[RoomLoads, ...]) -> bool:
    """Whether the same results stand in both."""
    return len(now) == len(before) and all(a is b for a, b in zip(now, before, strict=True))
