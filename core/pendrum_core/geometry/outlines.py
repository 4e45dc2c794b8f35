"""Walls from room outlines: counter-clockwise polygons, plan north is +y.

Source: Gauss's area formula for polygons, by definition.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, degrees, hypot

Point = tuple[float, float]
_PARALLEL_DEG = 0.5
_SLACK_M = 0.01


@dataclass(frozen=True)
class Edge:
    """One side of an outline: its ends and the plan azimuth it faces, clockwise from +y [deg]."""

    start: Point
    end: Point
    azimuth_deg: float

    @property
    def length_m(self) -> float:
        """Length [m]."""
        return hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])


def area_m2(outline: Sequence[Point]) -> float:
    """Area of a polygon [m2], positive when counter-clockwise."""
    pairs = zip(outline, [*outline[1:], outline[0]], strict=True)
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs) / 2.0


def edges(outline: Sequence[Point]) -> list[Edge]:
    """Sides of a counter-clockwise outline with the direction each faces (outwards)."""
    sides = []
    for a, b in zip(outline, [*outline[1:], outline[0]], strict=True):
        # The outward normal of a counter-clockwise side (dx, dy) is (dy, -dx).
        sides.append(Edge(a, b, degrees(atan2(b[1] - a[1], -(b[0] - a[0]))) % 360.0))
    return sides


@dataclass(frozen=True)
class Facing:
    """Stretch of a side along which another one faces it, from its start [m], and how far away that is [m]."""

    begin_m: float
    end_m: float
    distance_m: float


def facing(one: Edge, other: Edge, gap_m: float) -> Facing | None:
    """Where a side of another room lies opposite this one, at most `gap_m` away; None where it does not."""
    turned = abs((one.azimuth_deg - other.azimuth_deg) % 360.0 - 180.0)
    if turned > _PARALLEL_DEG:
        return None
    length = one.length_m
    ux, uy = (one.end[0] - one.start[0]) / length, (one.end[1] - one.start[1]) / length
    along, across = [], []
    for x, y in (other.start, other.end):
        px, py = x - one.start[0], y - one.start[1]
        along.append(px * ux + py * uy)
        # Outwards is to the right of a counter-clockwise side.
        across.append(px * uy - py * ux)
    if max(across) > gap_m or min(across) < -_SLACK_M:
        return None
    begin, end = max(0.0, min(along)), min(length, max(along))
    return Facing(begin, end, max(0.0, sum(across) / 2.0)) if end > begin else None
