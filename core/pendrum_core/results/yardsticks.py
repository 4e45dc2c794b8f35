"""Figures by which results are compared with those of other buildings."""

from collections.abc import Iterable
from dataclasses import dataclass

from pendrum_core.results.building import BuildingResults
from pendrum_core.results.loads import GroupLoads, RoomLoads


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


def room_yardsticks(results: BuildingResults, system_of: dict[str, str], loads: RoomLoads) -> Yardsticks:
    """Yardsticks of a room."""
    system = system_of.get(loads.room.id)
    difference = None if system is None else results.systems[system].airflows[loads.room.id].difference_k
    cooling = loads.cooling.sensible_w if loads.cooling is not None else 0.0
    return _yardsticks(results, system_of, [loads], cooling, loads.heating.load_w, difference)


def group_yardsticks(results: BuildingResults, system_of: dict[str, str], group: GroupLoads) -> Yardsticks:
    """Yardsticks of rooms together."""
    members = [results.rooms[room] for room in group.room_ids]
    return _yardsticks(results, system_of, members, group.cooling.sensible_w, group.heating.load_w, None)


def _yardsticks(
    results: BuildingResults, system_of: dict[str, str], rooms: Iterable[RoomLoads], cooling_w: float, heating_w: float,
    difference_k: float | None,
) -> Yardsticks:  # fmt: skip
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
    cooled, supplied = cooling_w > 0.0, supply > 0.0
    return Yardsticks(
        cooling_w_m2=cooling_w / area if cooled else None,
        heating_w_m2=heating_w / area,
        area_per_cooling_m2_w=area / cooling_w if cooled else None,
        supply_m3_s_m2=supply / area if supplied else None,
        air_changes_per_h=supply * 3600.0 / volume if supplied else None,
        supply_per_cooling_m3_s_w=supply / cooling_w if supplied and cooled else None,
        outdoor_share=outdoors / supply if supplied else None,
        supply_difference_k=difference_k if supplied else None,
    )
