"""Underfloor heating: pipes in the screed (type A).

Source: EN 1264-2:2021, 6 (heat flux of pipes in the screed: q = K ΔH, K = B aB aT^mT au^mu aD^mD; tables A.1 to A.3) and EN 1264-3 (limits of
the surface).
"""

from dataclasses import dataclass
from math import ceil, log, pi

import numpy as np

from pendrum_core.model.plant import FloorBuild

B_W_M2K = 6.7  # pipe of 0.35 W/mK with a wall of 2 mm
ALPHA_W_M2K = 10.8  # inside, with the floor's usual 0.0926 m2K/W
SCREED_W_MK, LEAST_COVER_M, PLAIN_COVER_M = 1.2, 0.015, 0.045
WARMEST_ABOVE_K = 9.0  # of the surface above the room, where people stay
LOOP_M = 100.0  # longest loop of usual pipes
WALL_M = 0.002

COVERINGS_M2K_W = (0.0, 0.05, 0.10, 0.15)
SPACINGS_M = (0.05, 0.075, 0.10, 0.15, 0.20, 0.225, 0.30, 0.375)
_SPACING = (1.23, 1.188, 1.156, 1.134)  # aT
_COVER = (  # au
    (1.069, 1.056, 1.043, 1.037), (1.066, 1.053, 1.041, 1.035), (1.063, 1.05, 1.039, 1.0335), (1.057, 1.046, 1.035, 1.0305),
    (1.051, 1.041, 1.0315, 1.0275), (1.048, 1.038, 1.0295, 1.026), (1.0395, 1.031, 1.024, 1.021), (1.03, 1.0221, 1.0181, 1.015),
)  # fmt: skip
_DIAMETER = (  # aD
    (1.013, 1.013, 1.012, 1.011), (1.021, 1.019, 1.016, 1.014), (1.029, 1.025, 1.022, 1.018), (1.040, 1.034, 1.029, 1.024),
    (1.046, 1.040, 1.035, 1.030), (1.049, 1.043, 1.038, 1.033), (1.053, 1.049, 1.044, 1.039), (1.056, 1.051, 1.046, 1.042),
)  # fmt: skip


@dataclass(frozen=True)
class FloorResult:
    """A room's heated floor.

    Attributes:
        duty_w: asked; gives_w: what it gives at the circuit's temperatures, at most by its surface's limit.
        area_m2: heated; k_w_m2k: heat flux over the water's mean excess.
        excess_k: mean excess of the water, logarithmic; flux_w_m2 at it; limit_w_m2 with the surface at its warmest.
        surface_c: mean of the surface while it gives the duty, or all it can.
        needed_flow_c: flow temperature that would give the duty with the circuit's difference of flow and return [°C].
        pipe_m, loops: pipe in the floor, and into how many loops it is laid.
    """

    duty_w: float
    gives_w: float
    area_m2: float
    k_w_m2k: float
    excess_k: float
    flux_w_m2: float
    limit_w_m2: float
    surface_c: float
    needed_flow_c: float
    pipe_m: float
    loops: int

    @property
    def short_w(self) -> float:
        """Of its duty, what it cannot give [W]."""
        return max(0.0, self.duty_w - self.gives_w)


def _at(table: tuple[tuple[float, ...], ...], spacing_m: float, covering_m2k_w: float) -> float:
    by_covering = [np.interp(covering_m2k_w, COVERINGS_M2K_W, row) for row in table]
    return float(np.interp(spacing_m, SPACINGS_M, by_covering))


def flux_per_k(build: FloorBuild) -> float:
    """Heat flux of a floor over the mean excess of its water, K_H [W/(m² K)].

    Raises:
        ValueError: a spacing, cover or covering outside the tables.
    """
    for name, value, low, high in (
        ("spacing", build.spacing_m, SPACINGS_M[0], SPACINGS_M[-1]),
        ("covering", build.covering_m2k_w, COVERINGS_M2K_W[0], COVERINGS_M2K_W[-1]),
        ("cover", build.cover_m, LEAST_COVER_M, 0.2),
    ):
        if not low - 1e-9 <= value <= high + 1e-9:
            raise ValueError(f"{name} {value:g} lies between {low:g} and {high:g}")
    plain = 1.0 / ALPHA_W_M2K + PLAIN_COVER_M / 1.0
    covering = plain / (1.0 / ALPHA_W_M2K + PLAIN_COVER_M / SCREED_W_MK + build.covering_m2k_w)
    spacing = float(np.interp(build.covering_m2k_w, COVERINGS_M2K_W, _SPACING)) ** (1.0 - build.spacing_m / 0.075)
    cover = _at(_COVER, build.spacing_m, build.covering_m2k_w) ** (100.0 * (PLAIN_COVER_M - build.cover_m))
    diameter = _at(_DIAMETER, build.spacing_m, build.covering_m2k_w) ** (250.0 * (build.pipe_m - 0.020))
    return float(B_W_M2K * covering * spacing * cover * diameter)


def surface_flux_w_m2(above_k: float) -> float:
    """Heat flux of a floor whose surface is so much warmer than the room, the basic curve [W/m2]: 8.92 ΔT^1.1."""
    return float(8.92 * above_k**1.1)


def excess_k(flow_c: float, return_c: float, room_c: float) -> float:
    """Mean excess of the water over the room, logarithmic [K].

    Raises:
        ValueError: flow, return and room do not fall in this order.
    """
    if not flow_c > return_c > room_c:
        raise ValueError(f"flow {flow_c:g}, return {return_c:g} and room {room_c:g} °C must fall in this order")
    return (flow_c - return_c) / log((flow_c - room_c) / (return_c - room_c))


def size_floor(
    duty_w: float, floor_area_m2: float, room_c: float, flow_c: float, return_c: float, build: FloorBuild
) -> FloorResult:
    """What a room's heated floor gives for its duty.

    Raises:
        ValueError: what the floor's build or the temperatures refuse.
    """
    k, area = flux_per_k(build), floor_area_m2 * build.area_share
    excess = excess_k(flow_c, return_c, room_c)
    limit = surface_flux_w_m2(WARMEST_ABOVE_K)
    flux = k * excess
    gives = min(flux, limit) * area
    works = min(duty_w, gives) / area if area > 0.0 else 0.0
    needed = duty_w / max(area * k, 1e-9)
    # Flow for a logarithmic mean with the same difference: ln((f - i)/(f - d - i)) = d/mean.
    difference = flow_c - return_c
    # (Beyond fifty times, the return is at the room's temperature to the last digit.)
    ratio = np.exp(min(difference / max(needed, 1e-6), 50.0))
    flow_needed = room_c + difference * ratio / (ratio - 1.0)
    pipe = area / build.spacing_m
    return FloorResult(
        duty_w=duty_w,
        gives_w=gives,
        area_m2=area,
        k_w_m2k=k,
        excess_k=excess,
        flux_w_m2=flux,
        limit_w_m2=limit,
        surface_c=room_c + (works / 8.92) ** (1.0 / 1.1),
        needed_flow_c=float(flow_needed),
        pipe_m=pipe,
        loops=max(1, ceil(pipe / LOOP_M - 1e-9)) if area > 0.0 else 0,
    )


def content_m3(found: FloorResult, build: FloorBuild) -> float:
    """Water in its pipes [m3]. Source: their inner diameter with walls of 2 mm."""
    return found.pipe_m * pi * (build.pipe_m - 2.0 * WALL_M) ** 2 / 4.0
