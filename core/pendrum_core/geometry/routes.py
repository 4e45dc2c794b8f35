"""A route for ducts or pipes proposed from the plan: a riser where the unit stands, on every level a main, branches to its ends.

On a level the main runs straight along the longer way that the ends are spread: through the longest corridor that goes this way, and
through the middle of the ends where there is none; branches leave it at right angles. What stands in the way is not looked at: it is a first draft with lengths that can be
measured on the plan.
Source: lengths along the axes of the plan, by definition.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median
from typing import Literal

Point = tuple[float, float]
TOGETHER_M = 0.5  # nearer ends leave the main at one place
LEAST_BRANCH_M = 1.0
CORRIDOR_SHAPE = 3.0  # length over width from which on a room is one
CORRIDOR_REACH = 0.5  # of the ends' spread that it must be long at least
CONNECTION_M = 2.0  # from the unit to the riser


@dataclass(frozen=True)
class RouteEnd:
    """What a route leads to: its level and place on the plan [m]."""

    id: str
    level: str
    place: Point


@dataclass(frozen=True)
class Leg:
    """A piece of a route.

    Attributes:
        kind: "start" at the unit, "riser", "main", or "branch" to an end.
        level: it lies on, or leads to.
        parent: place of the leg before it in the list; None for the start.
        length_m: along the plan, or up.
        course: where it lies on the plan, from its beginning to its end; one point where it goes up.
        passes: whether what flows in it goes straight on past a branch, rather than through a turn.
        end: id of the end it leads to.
    """

    kind: Literal["start", "riser", "main", "branch"]
    level: str
    parent: int | None
    length_m: float
    course: tuple[Point, ...]
    passes: bool = False
    end: str | None = None


def centre(outline: Sequence[Point]) -> Point:
    """Centre of area of a polygon [m]. Source: Gauss's formula."""
    pairs = list(zip(outline, [*outline[1:], outline[0]], strict=True))
    crossed = [a[0] * b[1] - b[0] * a[1] for a, b in pairs]
    twice = sum(crossed)
    if abs(twice) < 1e-9:
        return sum(p[0] for p in outline) / len(outline), sum(p[1] for p in outline) / len(outline)
    x = sum((a[0] + b[0]) * c for (a, b), c in zip(pairs, crossed, strict=True)) / (3.0 * twice)
    y = sum((a[1] + b[1]) * c for (a, b), c in zip(pairs, crossed, strict=True)) / (3.0 * twice)
    return x, y


def propose(
    ends: Sequence[RouteEnd],
    start_level: str,
    start: Point,
    floor_m: Mapping[str, float],
    outlines: Mapping[str, Sequence[Sequence[Point]]] | None = None,
) -> list[Leg]:
    """Legs of a route from a place on a level to all ends, the start first and every leg behind its parent.

    `floor_m` is the height of every level's floor; `outlines` of its rooms, among which corridors are looked for.
    """
    legs = [Leg("start", start_level, None, CONNECTION_M, (start,))]
    at_level = {start_level: 0}
    levels = {end.level for end in ends} - {start_level}
    here = floor_m[start_level]
    for way in (
        sorted((level for level in levels if floor_m[level] >= here), key=lambda level: floor_m[level]),
        sorted((level for level in levels if floor_m[level] < here), key=lambda level: -floor_m[level]),
    ):
        before, height = 0, here
        for level in way:
            legs.append(Leg("riser", level, before, abs(floor_m[level] - height), (start,), passes=before != 0))
            before, height = len(legs) - 1, floor_m[level]
            at_level[level] = before
    for level, riser in at_level.items():
        here_ends = [end for end in ends if end.level == level]
        _lay_level(legs, here_ends, level, riser, start, (outlines or {}).get(level, ()))
    return legs


def _corridor(outlines: Sequence[Sequence[Point]], along: int, spread_m: float) -> float | None:
    """Where across the plan the longest corridor lies that goes along it; None where there is none."""
    best: tuple[float, float] | None = None
    for outline in outlines:
        long, wide = (max(p[i] for p in outline) - min(p[i] for p in outline) for i in (along, 1 - along))
        if (
            wide > 0.0
            and long >= CORRIDOR_SHAPE * wide
            and long >= CORRIDOR_REACH * spread_m
            and (best is None or long > best[0])
        ):
            best = long, centre(outline)[1 - along]
    return None if best is None else best[1]


def _lay_level(
    legs: list[Leg], ends: list[RouteEnd], level: str, riser: int, start: Point, outlines: Sequence[Sequence[Point]]
) -> None:
    """Mains to both sides of the riser and branches on one level."""
    if not ends:
        return
    spread = [max(end.place[i] for end in ends) - min(end.place[i] for end in ends) for i in (0, 1)]
    along = 0 if spread[0] >= spread[1] else 1
    corridor = _corridor(outlines, along, spread[along])
    middle = median(end.place[1 - along] for end in ends) if corridor is None else corridor
    offset = abs(middle - start[1 - along])
    root = riser
    if offset > TOGETHER_M:
        legs.append(Leg("main", level, riser, offset, (start, _at(along, start[along], middle))))
        root = len(legs) - 1
    for side in (1.0, -1.0):
        mine = sorted(
            (end for end in ends if (_beside(end, along, start) >= 0.0) == (side > 0.0)),
            key=lambda end: _beside(end, along, start) * side,
        )
        before, reached, first = root, 0.0, True
        for end in mine:
            way = _beside(end, along, start) * side
            if way - reached > TOGETHER_M:
                legs.append(
                    Leg(
                        "main",
                        level,
                        before,
                        way - reached,
                        tuple(_at(along, start[along] + side * u, middle) for u in (reached, way)),
                        passes=not first,
                    )
                )
                before, reached, first = len(legs) - 1, way, False
            length = max(LEAST_BRANCH_M, abs(end.place[1 - along] - middle))
            legs.append(
                Leg(
                    "branch",
                    level,
                    before,
                    length,
                    (_at(along, start[along] + side * reached, middle), end.place),
                    end=end.id,
                )
            )


def _at(along: int, main: float, across: float) -> Point:
    return (main, across) if along == 0 else (across, main)


def _beside(end: RouteEnd, along: int, start: Point) -> float:
    return end.place[along] - start[along]
