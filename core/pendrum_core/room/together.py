"""Rooms together: levels, zones, uses, systems, the building; their coincident loads and the parts of these."""

from collections.abc import Mapping, Sequence
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.building import Group
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.results.loads import GroupLoads, Heating, RoomLoads, peak_of, peak_time, whole_split
from pendrum_core.room.terms import Ensemble

Array = NDArray[np.float64]
Ints = NDArray[np.int64]


def group_day_w(rooms: Sequence[RoomLoads], month: int) -> Array:
    """Split of a group's coincident load over a month's day, (categories, 144) [W]."""
    fixed = Ensemble([loads.terms for loads in rooms]).days(np.full(len(rooms), month))
    return _coincident(rooms, month, slice(0, rooms[0].total.shape[1]), fixed)


class Together:
    """All rooms of a building, from which the parts of its groups are told; the terms are laid end to end once."""

    def __init__(self, rooms: Mapping[str, RoomLoads]) -> None:
        self._rooms = rooms
        self._place = {identity: index for index, identity in enumerate(rooms)}

    @cached_property
    def _terms(self) -> Ensemble:
        return Ensemble([loads.terms for loads in self._rooms.values()])

    def parts_w(self, rooms: Sequence[RoomLoads], month: int, step: int) -> Array:
        """Split of the coincident load of some of them at a step, (categories,) [W]."""
        place = np.array([self._place[loads.room.id] for loads in rooms])
        order = np.argsort(place)
        some = [rooms[index] for index in order.tolist()]
        fixed = self._terms.at(np.full(len(some), month), np.full(len(some), step), place[order])
        return _coincident(some, month, slice(step, step + 1), fixed[:, :, None])[:, 0]


def _coincident(rooms: Sequence[RoomLoads], month: int, steps: slice, fixed: Array) -> Array:
    """Parts of the rooms that are cooled, at steps where they have a load, added up, (categories, steps) [W]."""
    total = np.stack([loads.total[month, steps] for loads in rooms])
    counted = (total > 0.0) & np.array([loads.cooling is not None for loads in rooms])[:, None]
    gains = np.stack([loads.gains[:, loads.day_of[month], steps] for loads in rooms])
    split = whole_split((fixed * counted[:, None]).sum(axis=0), (gains * counted[:, None]).sum(axis=0))
    driven = [i for i, loads in enumerate(rooms) if loads.control is not None]
    if driven:
        drawn = np.stack([rooms[i].control.summer.drawn_w[month, steps] for i in driven])  # type: ignore[union-attr]
        with_control = counted[driven]
        held = fixed[driven].sum(axis=1) + gains[driven].sum(axis=1)
        split[CATEGORIES.index("drawn air")] = (drawn * with_control).sum(axis=0)
        split[CATEGORIES.index("storage")] = ((total[driven] - held - drawn) * with_control).sum(axis=0)
    return split


def group_loads(group: Group, rooms: Sequence[RoomLoads], together: Together) -> GroupLoads:
    """Add rooms to a group; at least one room."""
    course, latent = np.zeros_like(rooms[0].total), np.zeros_like(rooms[0].total)
    cooled = [loads for loads in rooms if loads.cooling is not None]
    # Rooms calculated together share their different days: their moisture is added before it is spread over the months.
    days: dict[int, tuple[Ints, Array]] = {}
    removed = np.empty_like(course)
    for loads in cooled:
        course += np.maximum(loads.total, 0.0, out=removed)
        known = days.get(id(loads.day_of))
        added = loads.latent_days_w if known is None else known[1] + loads.latent_days_w
        days[id(loads.day_of)] = (loads.day_of, added)
    for day_of, moisture in days.values():
        latent += moisture[day_of]
    peaks = sum(loads.cooling.sensible_w for loads in cooled if loads.cooling is not None)
    heated = [loads.heating for loads in rooms if loads.heating.load_w > 0.0]
    heating_parts = np.array([heating.parts_w for heating in heated]).reshape(-1, len(CATEGORIES)).sum(axis=0)
    month, step = peak_time(course)
    return GroupLoads(
        id=group.id,
        name=group.name,
        kind=group.kind,
        room_ids=tuple(loads.room.id for loads in rooms),
        floor_area_m2=sum(loads.room.floor_area_m2 for loads in rooms),
        course_w=course,
        latent_w=latent,
        cooling=peak_of(course, together.parts_w(rooms, month, step), latent),
        heating=Heating(
            sum(h.load_w for h in heated),
            tuple(float(value) for value in heating_parts),
            sum(loads.heating.simple_w for loads in rooms),
        ),
        sum_of_peaks_w=peaks,
    )
