"""All rooms over a year: those that feel each other in rounds, those under another one's sensor after it.

Source: the heat balance of room/, marched hour by hour; shares of capacity by definition.
"""

import os
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.year import YearRoom
from pendrum_core.year.rooms import Beyond, Felt, Led, RoomYear, Stream, room_year
from pendrum_core.year.sky import YearSky

Array = NDArray[np.float64]
ROUNDS = 3  # in which rooms that feel each other are brought together
_LEAST_W = 1e-6


def _asked(
    year: YearRoom,
    *,
    sky: YearSky,
    beyond: Beyond,
    brought: Mapping[str, Stream],
    before: Mapping[str, RoomYear],
    led: Mapping[str, Led],
) -> tuple[RoomYear, Felt]:
    identity = year.room.id
    return room_year(year, sky, beyond, brought.get(identity), before.get(identity), led.get(identity))


def _leader_of(year: YearRoom, there: Mapping[str, YearRoom]) -> str | None:
    """The room whose sensor tells this one's plant, where both know what their plants can give."""
    leader = year.room.thermostat.leader if year.room.thermostat else None
    known = leader in there and year.plant_w is not None and there[leader].plant_w is not None if leader else False
    return leader if known and leader != year.room.id else None


def _told_w(asked_w: Array, leader: YearRoom, follower: YearRoom) -> Array:
    """What a follower's plant gives: the share of its capacity that the leader's plant gives of its own [W]."""
    assert leader.plant_w is not None and follower.plant_w is not None
    heating, cooling = (own / max(of, _LEAST_W) for own, of in zip(follower.plant_w, leader.plant_w, strict=True))
    return np.where(asked_w > 0.0, asked_w * heating, asked_w * cooling)


def _depth(room: str, leader_of: Mapping[str, str]) -> int:
    """How many sensors away a room's own is; one in a ring keeps its own."""
    depth, at = 0, room
    while (leader := leader_of.get(at)) is not None:
        depth, at = depth + 1, leader
        if depth > len(leader_of):
            return 0
    return depth


def rooms_year(
    years: Sequence[YearRoom],
    sky: YearSky,
    progress: Callable[[float], None] = lambda share: None,
    streams: Mapping[str, Stream] | None = None,
    before: Mapping[str, RoomYear] | None = None,
) -> dict[str, RoomYear]:
    """All rooms; those that feel others in rounds, starting from set-points. `progress` is told the share done and may raise to end it.

    `streams` is supply air by room; `before` an earlier year of the same rooms without it.
    """
    hours = len(sky.dry_bulb_c)
    there = {year.room.id for year in years}
    felt = {other for year in years for other in year.room.neighbours & there}
    beyond: dict[str, tuple[Array, Array]] = {}
    for year in years:
        if year.room.id in felt:
            middle = np.full(hours, (year.room.heating_setpoint_c + year.room.cooling_setpoint_c) / 2.0)
            beyond[year.room.id] = (middle, middle)
    results: dict[str, RoomYear] = {}
    by_id = {year.room.id: year for year in years}
    leader_of = {year.room.id: leader for year in years if (leader := _leader_of(year, by_id)) is not None}
    leaders = set(leader_of.values())
    # A room under the sensor of one that is itself under another's goes by what that one is told.
    deep = {year.room.id: _depth(year.room.id, leader_of) for year in years}
    coupled = [year for year in years if year.room.neighbours & there]
    if coupled:
        moved = {year.room.id for year in coupled}
        coupled = [year for year in years if year.room.id in moved or leader_of.get(year.room.id) in moved]
    turns = [
        [year for year in turn if deep[year.room.id] == depth]
        for turn in [list(years)] + [coupled] * (ROUNDS - 1 if coupled else 0)
        for depth in range(max(deep.values(), default=0) + 1)
    ]
    asked_w: dict[str, Array] = {}
    whole, done = sum(len(turn) for turn in turns), 0
    # Set up planes and window sun once before threads ask for them.
    for year in years:
        for window in year.room.windows:
            sky.window_sun(window)
        for element in year.room.elements:
            b = element.boundary
            if b.kind == "outdoors":
                sky.sol_air_c(b.tilt_deg, b.azimuth_deg, b.solar_absorptance, b.eye_m)
    with ThreadPoolExecutor(max_workers=os.cpu_count()) as pool:
        for turn in turns:
            led = {
                year.room.id: Led(
                    year.room.id in leaders,
                    _told_w(asked_w[leader], by_id[leader], year)
                    if (leader := leader_of.get(year.room.id)) is not None and leader in asked_w
                    else None,
                )
                for year in turn
            }
            ask = partial(_asked, sky=sky, beyond=dict(beyond), brought=streams or {}, before=before or {}, led=led)
            for found, inside in pool.map(ask, turn):
                results[found.id] = found
                if found.id in felt:
                    beyond[found.id] = (inside.air_c, inside.radiant_c)
                if found.id in leaders:
                    asked_w[found.id] = inside.asked_w
                done += 1
                progress(done / whole)
    return results
