"""Rooms and the unit that serves them brought together over a season: summer's design days, or the winter day.

The rooms are served (room/supply/served.py) with air of a wanted temperature; with what they then are, the air is walked through the
unit (walk.py); round by round until both agree.

Source: heat and moisture balance of rooms and unit, to convergence.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.path import Path, Rooms, Unit
from pendrum_core.air.walk import walk
from pendrum_core.moist_air import enthalpy_j_kg, specific_heat_j_kgk
from pendrum_core.quantities.constants import CP_VAPOUR, H_VAPORISATION_0C
from pendrum_core.room.supply.served import Asked, Served, serve

Array = NDArray[np.float64]
# Temperatures as close as the walk itself brings them (walk.py): rooms are not served anew for what is left there.
_ROUNDS, _AT_REST, _AT_REST_K = 45, 1e-9, 2e-6
_FIRST = 1e3
_USUAL_W = 0.008
_HELD_FROM, _SMALLEST, _STILL_K = 6, 0.05, 1e-9


@dataclass(frozen=True)
class Stream:
    """Air of another system that reaches a room before this one's, (days, 144).

    Attributes:
        rate_w_k: heat capacity rate; `supply_c` its temperature at the terminal [°C].
        flow_kg_s, supply_w: dry air [kg/s] and humidity ratio [kg/kg].
        outdoor_kg_s: outdoor air in it.
    """

    rate_w_k: Array
    supply_c: Array
    flow_kg_s: Array
    supply_w: Array
    outdoor_kg_s: Array

    def __add__(self, other: "Stream") -> "Stream":
        """Both together, mixed."""
        rate, flow = self.rate_w_k + other.rate_w_k, self.flow_kg_s + other.flow_kg_s
        return Stream(
            rate,
            _mean(self.rate_w_k, self.supply_c, other.rate_w_k, other.supply_c),
            flow,
            _mean(self.flow_kg_s, self.supply_w, other.flow_kg_s, other.supply_w),
            self.outdoor_kg_s + other.outdoor_kg_s,
        )


def _mean(a: Array, of_a: Array, b: Array, of_b: Array) -> Array:
    whole = a + b
    return np.asarray(np.divide(a * of_a + b * of_b, whole, out=np.array(of_a, dtype=float), where=whole > 0.0))


@dataclass(frozen=True)
class After:
    """What a later system makes of a room, (days, 144): its air [°C], and the moisture that it takes out [kg/s]."""

    air_c: Array
    dried_kg_s: Array


@dataclass(frozen=True)
class RoomAir:
    """What flows through a room beside this system's air, over a season's days, (days, 144); dry air [kg/s].

    Attributes:
        taken_kg_s: what its return lacks of its supply: extracts, transfers, offset; below nought where it is the larger.
        make_up_kg_s: supply that a make-up unit owes it; None under any other system.
        first: air of systems that serve it before; `after` what those make of it that serve it later.
    """

    taken_kg_s: Array | float = 0.0
    make_up_kg_s: Array | None = None
    first: Stream | None = None
    after: After | None = None


NOTHING = RoomAir()


@dataclass(frozen=True)
class Season:
    """What a season is worked out from: rooms and their other air, outdoors, supply temperature, flows' limits [kg/s], and who
    is heated; `lights_w` goes into the return air. `by_mass`: flows are masses, whatever their moisture; else heat capacity rates as they were sized.
    """

    asked: Asked
    airs: Sequence[RoomAir]
    outdoor_c: Array
    outdoor_w: Array
    supply_c: Array
    least_kg_s: Array
    most_kg_s: Array
    heat_most_w: Array
    cool_most_w: Array | float
    latent_w: Array
    leak_kg_s: Array
    cp_j_kgk: float
    by_mass: bool = False
    lights_w: Array | float = 0.0


def served_by(
    season: Season, supply_c: Array, cp_j_kgk: Array | float | None = None, start: Served | None = None
) -> Served:
    """Rooms under their supply air; its heat capacity at the humidity that flows are sized with, where it is not given. `start`
    is how they were served before."""
    cp = season.cp_j_kgk if cp_j_kgk is None else cp_j_kgk
    least, most = (flow * cp for flow in (season.least_kg_s, season.most_kg_s))
    shape = season.asked.air_c.shape
    first_w_k: Array | float = 0.0
    first_c: Array | float = 0.0
    if any(air.first is not None for air in season.airs):
        first_w_k, first_c = np.zeros(shape), np.zeros(shape)
        for row, air in enumerate(season.airs):
            if air.first is not None:
                first_w_k[row], first_c[row] = air.first.rate_w_k, air.first.supply_c
    found = serve(
        season.asked,
        np.broadcast_to(supply_c, shape),
        least_w_k=least,
        most_w_k=most,
        heat_most_w=season.heat_most_w,
        cool_most_w=season.cool_most_w,
        first_w_k=first_w_k,
        first_c=first_c,
        start=start,
    )
    held = [(row, air.after) for row, air in enumerate(season.airs) if air.after is not None]
    if not held:
        return found
    rate, heat, air_c = np.array(found.rate_w_k), np.array(found.heat_w), np.array(found.air_c)
    for row, after in held:
        rate[row], heat[row], air_c[row] = np.broadcast_to(most, shape)[row], 0.0, after.air_c
    return replace(found, rate_w_k=rate, heat_w=heat, air_c=air_c)


def _other_air(season: Season) -> tuple[Array | float, Array | float, Array | float, Array]:
    """What the walk is told of other air: taken from the return, flow and humidity from other systems, and the moisture
    gains less what later systems take out, each of the rooms' shape.
    """
    shape, latent = season.asked.air_c.shape, season.latent_w
    if all(air is NOTHING for air in season.airs):
        return 0.0, 0.0, 0.0, latent
    taken, other, other_w, latent = np.zeros(shape), np.zeros(shape), np.zeros(shape), np.array(latent)
    moving = np.broadcast_to(season.most_kg_s, shape) > 0.0
    for row, air in enumerate(season.airs):
        taken[row] = np.where(moving[row], air.taken_kg_s, 0.0)
        if air.first is not None:
            other[row], other_w[row] = air.first.flow_kg_s, air.first.supply_w
        if air.after is not None:
            latent[row] -= air.after.dried_kg_s * (H_VAPORISATION_0C + CP_VAPOUR * air.after.air_c)
    return taken, other, other_w, latent


def _towards(before: tuple[Array, Array] | None, given: Array, off: Array) -> Array | float:
    """Of the way to where the supply air comes, what is gone: by how much less far it was off from where it was given before."""
    if before is None:
        return 1.0
    moved, closer = given - before[0], before[1] - off
    share = np.divide(moved, closer, out=np.ones(off.shape), where=(np.abs(moved) > _STILL_K) & (closer != 0.0))
    return np.clip(share, _SMALLEST, 1.0)


def settled(season: Season, unit: Unit, served: Served) -> tuple[Served, Path, Array, float]:
    """Served rooms and the path of the air brought together, the rooms' flows, and what their balances leave open [-].

    In summer a terminal gives the heat capacity rate that it was sized for: how much dry air that is follows from the moisture of
    the supply air, within half a per cent. The rooms are served anew where the air comes at another temperature than was
    wanted, as return air that is warm enough in winter; and on the winter day, whose air is drier than that of sizing.
    """
    shape = season.asked.air_c.shape
    given = np.asarray(unit.target_c)
    supply_w = np.full(shape[1:], _USUAL_W)
    path: Path | None = None
    before: tuple[Array, Array] | None = None
    leak = np.broadcast_to(season.leak_kg_s[:, None, None], shape)
    taken, other, other_w, latent = _other_air(season)
    exhaust = np.broadcast_to(taken, (1, *shape[1:]) if np.ndim(taken) == 0 else shape)
    for number in range(_ROUNDS):
        flow = served.rate_w_k / specific_heat_j_kgk(supply_w)[None]
        rooms = Rooms(
            flow,
            exhaust,
            air_c=served.air_c,
            latent_w=latent,
            leak_kg_s=leak,
            lights_w=np.broadcast_to(np.asarray(season.lights_w, dtype=float), shape[1:]),
            other_kg_s=other,
            other_w=other_w,
        )
        # Where a warmer way changes the flow that warms it, the ways of a round hold for all that follow.
        held = path.apart_k if path is not None and number >= _HELD_FROM else None
        # The first path only tells what air the rooms get: they are served anew with it, and a finer one follows.
        first = path is None
        path = walk(unit, rooms, season.outdoor_c, season.outdoor_w, path, held, _FIRST if first else 1.0)
        moving = path.flow_kg_s > 0.0
        comes = path.rooms_supply_c
        off_k = float(np.abs(np.where(moving, comes - given, 0.0)).max())
        apart = float(np.abs(np.where(moving, path.supply_w - supply_w, 0.0)).max())
        supply_w = path.supply_w
        if off_k > _AT_REST_K or (season.by_mass and apart > _AT_REST):
            step = _towards(before, given, comes - given) if number >= _HELD_FROM else 1.0
            before = (given, comes - given)
            given = np.where(moving, given + step * (comes - given), given)
            cp = specific_heat_j_kgk(supply_w)[None] if season.by_mass else None
            served = served_by(season, given, cp, served)
        elif apart < _AT_REST and not first:
            break
    assert path is not None
    brought = flow * (enthalpy_j_kg(path.rooms_supply_c, path.supply_w) - enthalpy_j_kg(served.air_c, path.supply_w))
    counted = served.rate_w_k * (path.rooms_supply_c - served.air_c)
    scale = np.maximum(np.abs(brought).sum(axis=0), 1.0)
    return served, path, flow, float((np.abs(brought - counted).sum(axis=0) / scale).max())
