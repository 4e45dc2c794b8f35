"""Loads with what is added to them: a line beside the loads, never part of them.

Source: shares by definition, as the engineer enters them.
"""

from pendrum_core.results.building import BuildingLoads
from pendrum_core.room.outcome.loads import GroupLoads, RoomLoads


def room_with_margin(results: BuildingLoads, loads: RoomLoads) -> tuple[float | None, float]:
    """Cooling (None where the room is not cooled) and heating load of a room with its margins [W]."""
    margins = results.building.margins_of(loads.room.id)
    cooling = None if loads.cooling is None else loads.cooling.sensible_w * (1.0 + margins.cooling)
    return cooling, loads.heating.load_w * (1.0 + margins.heating)


def group_with_margin(results: BuildingLoads, group: GroupLoads) -> tuple[float, float]:
    """Coincident cooling and heating load of a group, every room with its own margins [W]."""
    building = results.building
    if building.room_margins.keys().isdisjoint(group.room_ids):
        margins = building.margins
        return group.cooling.sensible_w * (1.0 + margins.cooling), group.heating.load_w * (1.0 + margins.heating)
    month, step = group.cooling.month, group.cooling.step
    cooling = heating = 0.0
    for loads in (results.rooms[room] for room in group.room_ids):
        margins = building.margins_of(loads.room.id)
        if loads.cooling is not None:
            cooling += max(0.0, float(loads.total[month, step])) * (1.0 + margins.cooling)
        heating += loads.heating.load_w * (1.0 + margins.heating)
    return cooling, heating
