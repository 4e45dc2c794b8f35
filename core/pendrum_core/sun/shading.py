"""What overhangs, side fins and reveals leave of the sun on an opening.

Coordinates lie in the plane of the opening, seen from outside: x to the right, y up the plane, z outwards; the
opening is the rectangle 0..width, 0..height. A plate standing on the plane throws a parallelogram on it; on every
column of the opening the shadows of all plates are intervals, and their union is measured exactly. Columns end at
every corner of every shadow, so that only crossings of slanted edges are averaged within a narrow column.

Source: plane geometry; light of an even sky by the definition of the form factor (Lambert).
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
_COLUMNS = 12
_RINGS, _SECTORS = 12, 48


@dataclass(frozen=True)
class Shading:
    """Fixed shading of an opening [m].

    Attributes:
        overhang_m: depth of a plate above; `overhang_gap_m` above the head, `overhang_beyond_m` past each jamb.
        left_fin_m, right_fin_m: depth of side fins seen from outside; `fin_gap_m` beside the jambs,
            `fin_beyond_m` past head and sill.
        reveal_m: depth by which the pane stands back.
    """

    overhang_m: float = 0.0
    overhang_gap_m: float = 0.0
    overhang_beyond_m: float = 0.0
    left_fin_m: float = 0.0
    right_fin_m: float = 0.0
    fin_gap_m: float = 0.0
    fin_beyond_m: float = 0.0
    reveal_m: float = 0.0


@dataclass(frozen=True)
class Plate:
    """A plate standing on the plane: along x ("level") or along y ("upright"), at a place, between two ends [m]."""

    level: bool
    at_m: float
    start_m: float
    end_m: float
    depth_m: float


def plates(shading: Shading, width_m: float, height_m: float) -> tuple[Plate, ...]:
    """The plates of a shading around an opening of a size; reveals have a sill as well."""
    s, gap, beyond = shading, shading.fin_gap_m, shading.fin_beyond_m
    side = s.overhang_beyond_m
    found = (
        Plate(True, height_m + s.overhang_gap_m, -side, width_m + side, s.overhang_m),
        Plate(False, -gap, -beyond, height_m + beyond, s.left_fin_m),
        Plate(False, width_m + gap, -beyond, height_m + beyond, s.right_fin_m),
        Plate(True, height_m, 0.0, width_m, s.reveal_m),
        Plate(True, 0.0, 0.0, width_m, s.reveal_m),
        Plate(False, 0.0, 0.0, height_m, s.reveal_m),
        Plate(False, width_m, 0.0, height_m, s.reveal_m),
    )
    return tuple(plate for plate in found if plate.depth_m > 0.0)


def shadow_corners(
    shading: Shading, width_m: float, height_m: float, direction: Array
) -> list[list[tuple[float, float]]]:
    """Corners of every plate's shadow on the plane for one direction towards the sun; empty where it is behind."""
    sx, sy, sz = (float(value) for value in direction)
    if sz <= 1e-6:
        return []
    result = []
    for p in plates(shading, width_m, height_m):
        one, two = ((p.start_m, p.at_m), (p.end_m, p.at_m)) if p.level else ((p.at_m, p.start_m), (p.at_m, p.end_m))
        dx, dy = -p.depth_m * sx / sz, -p.depth_m * sy / sz
        result.append([one, two, (two[0] + dx, two[1] + dy), (one[0] + dx, one[1] + dy)])
    return result


def _interval(plate: Plate, x: Array, dx: Array, dy: Array) -> tuple[Array, Array]:
    """Shadow of a plate on columns x (n, columns): lower and upper y; an empty one has lower above upper."""
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        if not plate.level:
            t = (x - plate.at_m) / dx
            inside = (t >= 0.0) & (t <= 1.0)
            low, high = plate.start_m + t * dy, plate.end_m + t * dy
        else:
            one, two = (x - plate.start_m) / dx, (x - plate.end_m) / dx
            still = np.abs(dx) < 1e-12
            over = (x >= plate.start_m) & (x <= plate.end_m)
            first = np.where(still, np.where(over, 0.0, 2.0), np.minimum(one, two))
            last = np.where(still, np.where(over, 1.0, 2.0), np.maximum(one, two))
            first, last = np.maximum(first, 0.0), np.minimum(last, 1.0)
            inside = first < last
            ends = plate.at_m + first * dy, plate.at_m + last * dy
            low, high = np.minimum(*ends), np.maximum(*ends)
    return np.where(inside, low, np.inf), np.where(inside, high, -np.inf)


def sunlit_share(shading: Shading, width_m: float, height_m: float, direction: Array) -> Array:
    """Share of an opening that a distant source sees, by its direction in the opening's coordinates (n, 3), (n,) [-].

    Zero where the source is behind the plane.
    """
    direction = np.asarray(direction, dtype=float)
    front = direction[:, 2] > 1e-6
    lit = np.zeros(len(direction))
    around = plates(shading, width_m, height_m)
    if not around:
        lit[front] = 1.0
        return lit
    sx, sy, sz = direction[front].T
    shift_x, shift_y = (-sx / sz)[:, None], (-sy / sz)[:, None]
    corners = [np.broadcast_to(np.linspace(0.0, width_m, _COLUMNS + 1), (len(sx), _COLUMNS + 1))]
    for plate in around:
        dx = plate.depth_m * shift_x
        ends = (plate.start_m, plate.end_m) if plate.level else (plate.at_m,)
        corners += [end + np.hstack([np.zeros_like(dx), dx]) for end in ends]
    edges = np.sort(np.clip(np.hstack(corners), 0.0, width_m), axis=1)
    x, widths = (edges[:, 1:] + edges[:, :-1]) / 2.0, np.diff(edges, axis=1)
    spans = [_interval(p, x, p.depth_m * shift_x, p.depth_m * shift_y) for p in around]
    low = np.clip(np.stack([span[0] for span in spans]), 0.0, height_m)
    high = np.clip(np.stack([span[1] for span in spans]), 0.0, height_m)
    order = np.argsort(low, axis=0)
    low, high = np.take_along_axis(low, order, axis=0), np.take_along_axis(high, order, axis=0)
    reached = np.zeros_like(x)
    dark = np.zeros_like(x)
    for lower, upper in zip(low, high, strict=True):
        dark += np.maximum(0.0, upper - np.maximum(lower, reached))
        reached = np.maximum(reached, upper)
    lit[front] = 1.0 - (dark * widths).sum(axis=1) / (width_m * height_m)
    return np.clip(lit, 0.0, 1.0)


def in_plane(elevation_deg: Array, azimuth_deg: Array, tilt_deg: float, facing_deg: float) -> Array:
    """Unit vectors [-] towards points of the sky in the coordinates of a plane, (..., 3): right, up the plane, outwards."""
    e, a = np.radians(elevation_deg), np.radians(azimuth_deg)
    east, north, up = np.cos(e) * np.sin(a), np.cos(e) * np.cos(a), np.sin(e)
    t, f = np.radians(tilt_deg), np.radians(facing_deg)
    normal = (np.sin(t) * np.sin(f), np.sin(t) * np.cos(f), np.cos(t))
    rise = (-np.cos(t) * np.sin(f), -np.cos(t) * np.cos(f), np.sin(t))
    right = (
        rise[1] * normal[2] - rise[2] * normal[1],
        rise[2] * normal[0] - rise[0] * normal[2],
        rise[0] * normal[1] - rise[1] * normal[0],
    )
    return np.stack([east * v[0] + north * v[1] + up * v[2] for v in (right, rise, normal)], axis=-1)


def hemisphere() -> tuple[Array, Array, Array]:
    """Elevation, azimuth [deg] and solid angle [sr] of the cells of the sky, flat arrays."""
    rings = (np.arange(_RINGS) + 0.5) * 90.0 / _RINGS
    sectors = (np.arange(_SECTORS) + 0.5) * 360.0 / _SECTORS
    elevation, azimuth = (grid.ravel() for grid in np.meshgrid(rings, sectors, indexing="ij"))
    half = np.radians(45.0 / _RINGS)
    e = np.radians(elevation)
    solid = (np.sin(e + half) - np.sin(e - half)) * np.radians(360.0 / _SECTORS)
    return elevation, azimuth, solid


@lru_cache(maxsize=1024)
def diffuse_shares(shading: Shading, width_m: float, height_m: float, tilt_deg: float) -> tuple[float, float]:
    """Shares of the light of an even sky, and of an even ground, that still reach the opening [-]."""
    elevation, azimuth, solid = hemisphere()
    shares = []
    for sign in (1.0, -1.0):
        direction = in_plane(sign * elevation, azimuth, tilt_deg, 0.0)
        weight = solid * np.maximum(0.0, direction[:, 2])
        seen = weight.sum()
        lit = sunlit_share(shading, width_m, height_m, direction)
        shares.append(float((lit * weight).sum() / seen) if seen > 1e-6 else 1.0)
    return shares[0], shares[1]
