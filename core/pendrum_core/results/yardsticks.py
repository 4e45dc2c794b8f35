"""Figures by which results are compared with those of other buildings."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from pendrum_core.results.building import BuildingResults
from pendrum_core.room.outcome.loads import GroupLoads, RoomLoads


@dataclass(frozen=True)
class Yardsticks:
    """Of a room at its own peak, or of rooms together at their coincident one; None where there is no such thing.

    Attributes:
        cooling_w_m2, heating_w_m2: sensible cooling and heating load by floor area.
        area_per_cooling_m2_w: floor area that a watt of cooling serves.
        supply_m3_s_m2, air_changes_per_h: supply air by floor area and by volume.
        supply_per_cooling_m3_s_w: supply air for a watt of cooling.
        outdoor_share: of the supply air [-].
        supply_difference_k: room set-point less coldest supply air, of a room.
    """

    cooling_w_m2: float | None
    heating_w_m2: float
    area_per_cooling_m2_w: float | None
    supply_m3_s_m2: float | None
    air_changes_per_h: float | None
    supply_per_cooling_m3_s_w: float | None
    outdoor_share: float | None
    supply_difference_k: float | None


@dataclass(frozen=True)
class Basis:
    """What yardsticks are made of: of a room, or summed over rooms; temperatures of a room on an air system alone."""

    area_m2: float
    volume_m3: float
    cooling_w: float
    heating_w: float
    supply_m3_s: float
    outdoor_m3_s: float
    setpoint_c: float | None = None
    supply_c: float | None = None


def room_basis(results: BuildingResults, system_of: dict[str, str], loads: RoomLoads) -> Basis:
    """What a room's yardsticks are made of."""
    system = system_of.get(loads.room.id)
    air = None if system is None else results.systems[system].airflows[loads.room.id].supply.temperature_c
    cooling = loads.cooling.sensible_w if loads.cooling is not None else 0.0
    setpoint = None if air is None else loads.room.cooling_setpoint_c
    return replace(
        _summed(results, system_of, [loads], cooling, loads.heating.load_w), setpoint_c=setpoint, supply_c=air
    )


def group_basis(results: BuildingResults, system_of: dict[str, str], group: GroupLoads) -> Basis:
    """What the yardsticks of rooms together are made of."""
    members = [results.rooms[room] for room in group.room_ids]
    return _summed(results, system_of, members, group.cooling.sensible_w, group.heating.load_w)


def _summed(
    results: BuildingResults, system_of: dict[str, str], rooms: Iterable[RoomLoads], cooling_w: float, heating_w: float
) -> Basis:
    area = volume = supply = outdoors = 0.0
    for loads in rooms:
        area += loads.room.floor_area_m2
        volume += loads.room.volume_m3
        system = system_of.get(loads.room.id)
        if system is not None:
            found = results.systems[system]
            flow = found.airflows[loads.room.id].design_m3_s
            supply += flow
            outdoors += flow * found.outdoor_share
    return Basis(area, volume, cooling_w, heating_w, supply, outdoors)


def yardsticks(b: Basis) -> Yardsticks:
    """Yardsticks of what they are made of."""
    cooled, supplied = b.cooling_w > 0.0, b.supply_m3_s > 0.0
    difference = None if b.setpoint_c is None or b.supply_c is None else b.setpoint_c - b.supply_c
    return Yardsticks(
        cooling_w_m2=b.cooling_w / b.area_m2 if cooled else None,
        heating_w_m2=b.heating_w / b.area_m2,
        area_per_cooling_m2_w=b.area_m2 / b.cooling_w if cooled else None,
        supply_m3_s_m2=b.supply_m3_s / b.area_m2 if supplied else None,
        air_changes_per_h=b.supply_m3_s * 3600.0 / b.volume_m3 if supplied else None,
        supply_per_cooling_m3_s_w=b.supply_m3_s / b.cooling_w if supplied and cooled else None,
        outdoor_share=b.outdoor_m3_s / b.supply_m3_s if supplied else None,
        supply_difference_k=difference if supplied else None,
    )
