"""Rooms together: levels, zones, uses, systems, the building; their coincident loads and the parts of these.

Source: coincident sums, step by step; by definition.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.building import Group
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.room.days.products import add_loads
from pendrum_core.room.days.terms import Ensemble
from pendrum_core.room.outcome.loads import GroupLoads, Heating, Peak, RoomLoads, peak_of, peak_time, whole_split

Array = NDArray[np.float64]
Ints = NDArray[np.int64]


def group_day_w(rooms: Sequence[RoomLoads], month: int) -> Array:
    """Split of a group's coincident load over a month's day, (categories, 144) [W]."""
    fixed = Ensemble([loads.terms for loads in rooms]).days(np.full(len(rooms), month))
    return _coincident(rooms, month, slice(0, rooms[0].total.shape[1]), fixed)


@dataclass(frozen=True)
class Sums:
    """Rooms added up.

    Attributes:
        course_w: coincident sensible load of those that are cooled, (months, 144) [W].
        latent_w: their moisture, (months, 144) [W].
        cooling: the coincident peak with its split.
        heating_parts_w: parts of the heating loads, (categories,) [W].
    """

    course_w: Array
    latent_w: Array
    cooling: Peak
    heating_parts_w: tuple[float, ...]


class Together:
    """All rooms of a building, laid end to end once, from which its groups are added up."""

    def __init__(self, rooms: Mapping[str, RoomLoads]) -> None:
        self._rooms = list(rooms.values())
        self._place = {identity: index for index, identity in enumerate(rooms)}
        self._known: dict[bytes, Sums] = {}

    @cached_property
    def _terms(self) -> Ensemble:
        return Ensemble([loads.terms for loads in self._rooms])

    @cached_property
    def _loads(self) -> Array:
        return np.stack([loads.total for loads in self._rooms])

    @cached_property
    def _moisture(self) -> tuple[Array, Ints]:
        """Moisture by different days, as many for each room as the room with the most has, and the day of each month."""
        most = max(len(loads.latent_days_w) for loads in self._rooms)
        laid = np.zeros((len(self._rooms), most, self._rooms[0].total.shape[1]))
        for row, loads in zip(laid, self._rooms, strict=True):
            row[: len(loads.latent_days_w)] = loads.latent_days_w
        return laid, np.stack([loads.day_of for loads in self._rooms])

    @cached_property
    def _cooled(self) -> NDArray[np.bool_]:
        return np.array([loads.cooling is not None for loads in self._rooms])

    @cached_property
    def _heating(self) -> Array:
        """Parts of the heating load of each room that has one, (rooms, categories) [W]."""
        none = np.zeros(len(CATEGORIES))
        return np.array([h.parts_w if (h := loads.heating).load_w > 0.0 else none for loads in self._rooms])

    def sums_of(self, rooms: Sequence[RoomLoads]) -> Sums:
        """What some of them come to; groups of the same rooms (a level with a system of its own) are added up once."""
        places = np.sort(np.array([self._place[loads.room.id] for loads in rooms], dtype=np.int64))
        key = places.tobytes()
        if key not in self._known:
            self._known[key] = self._sums(places)
        return self._known[key]

    def _sums(self, places: Ints) -> Sums:
        moisture, day_of = self._moisture
        course, latent = np.zeros_like(self._loads[0]), np.zeros_like(self._loads[0])
        add_loads(places[self._cooled[places]], self._loads, moisture, day_of, course, latent)
        month, step = peak_time(course)
        fixed = self._terms.at(np.full(len(places), month), np.full(len(places), step), places)
        some = [self._rooms[place] for place in places.tolist()]
        parts = _coincident(some, month, slice(step, step + 1), fixed[:, :, None])[:, 0]
        heating = tuple(self._heating[places].sum(axis=0).tolist())
        return Sums(course, latent, peak_of(course, parts, latent), heating)


def _coincident(rooms: Sequence[RoomLoads], month: int, steps: slice, fixed: Array) -> Array:
    """Parts of the rooms that are cooled, at steps where they have a load, added up, (categories, steps) [W]."""
    total = np.array([loads.total[month, steps] for loads in rooms])
    counted = (total > 0.0) & np.array([loads.cooling is not None for loads in rooms])[:, None]
    gains = np.array([loads.gains[:, loads.day_of[month], steps] for loads in rooms])
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
    sums = together.sums_of(rooms)
    return GroupLoads(
        id=group.id,
        name=group.name,
        kind=group.kind,
        room_ids=tuple(loads.room.id for loads in rooms),
        floor_area_m2=sum(loads.room.floor_area_m2 for loads in rooms),
        course_w=sums.course_w,
        latent_w=sums.latent_w,
        cooling=sums.cooling,
        heating=Heating(
            sum(loads.heating.load_w for loads in rooms if loads.heating.load_w > 0.0),
            sums.heating_parts_w,
            sum(loads.heating.simple_w for loads in rooms),
        ),
        sum_of_peaks_w=sum(loads.cooling.sensible_w for loads in rooms if loads.cooling is not None),
    )
