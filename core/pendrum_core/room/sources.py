"""Sources of a stack of rooms: environment temperatures, sun, gains, outdoor air."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.model.rooms import GAIN_CATEGORIES, Boundary, Gain, Room
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.harmonics import HARMONICS
from pendrum_core.room.outdoors import Outdoors
from pendrum_core.room.stack import Stack
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]


@dataclass(frozen=True)
class Signals:
    """Environment temperatures counted from the room's set-point: few different ones, many elements.

    Attributes:
        harmonics: (U, 12, 73) [K].
        of: row of `harmonics` for each element, (E,); a row of zeros serves adiabatic elements.
        level_k: constant to add, (E,) [K].
    """

    harmonics: Complex
    of: NDArray[np.int64]
    level_k: Array

    def at(self, elements: slice | NDArray[np.int64]) -> Complex:
        """Harmonics of some elements' temperatures, (n, 12, 73)."""
        values = self.harmonics[self.of[elements]].copy()
        values[..., 0] += STEPS_PER_DAY * self.level_k[elements][:, None]
        return np.asarray(values)


def winter_difference_k(boundary: Boundary, reference_c: float, outside: Outdoors) -> float:
    """Environment temperature minus the room's reference on the winter day [K]."""
    if boundary.kind == "outdoors":
        climate = outside.climate
        return climate.winter_dry_bulb_c - outside.sky_loss_k(boundary.tilt_deg) - reference_c
    if boundary.kind == "temperature":
        return boundary.temperature_c - reference_c
    return -boundary.heating_difference_k if boundary.kind == "difference" else 0.0


def summer_signals(stack: Stack, outside: Outdoors) -> Signals:
    """Environment temperatures of the twelve summer days, counted from the cooling set-point."""
    months = len(outside.climate.months)
    rows: list[Complex] = [np.zeros((months, HARMONICS), dtype=complex)]
    seen: dict[tuple[float, float, float], int] = {}
    of, level = np.zeros(len(stack.elements), dtype=np.int64), np.zeros(len(stack.elements))
    for index, element in enumerate(stack.elements):
        boundary, reference = element.boundary, stack.rooms[stack.room_of[index]].cooling_setpoint_c
        if boundary.kind == "outdoors":
            key = (boundary.tilt_deg, boundary.azimuth_deg, boundary.solar_absorptance)
            if key not in seen:
                seen[key] = len(rows)
                rows.append(outside.sol_air_harmonics(*key))
            of[index], level[index] = seen[key], -reference
        elif boundary.kind == "temperature":
            level[index] = boundary.temperature_c - reference
        elif boundary.kind == "difference":
            level[index] = boundary.cooling_difference_k
    return Signals(np.stack(rows), of, level)


def window_heat_w(rooms: tuple[Room, ...], outside: Outdoors) -> Array:
    """Sun through each room's windows [W], (R, 12, 144): area (1 - frame) g times the plane's factor."""
    rows: dict[tuple[float, float, int], int] = {}
    entries: list[tuple[int, int, float]] = []
    for index, room in enumerate(rooms):
        for window in room.windows:
            key = (window.tilt_deg, window.azimuth_deg, window.glazing.panes)
            scale = window.area_m2 * (1.0 - window.glazing.frame_share) * window.glazing.g_value
            entries.append((index, rows.setdefault(key, len(rows)), scale))
    months = len(outside.climate.months)
    if not entries:
        return np.zeros((len(rooms), months, STEPS_PER_DAY))
    factors = np.stack([outside.window_factor_w_m2(*key).ravel() for key in rows])
    at, to, scale_of = zip(*entries, strict=True)
    share = csr_matrix((scale_of, (at, to)), shape=(len(rooms), len(rows)))
    return np.asarray((share @ factors).reshape(len(rooms), months, STEPS_PER_DAY))


@dataclass(frozen=True)
class GainCourses:
    """Internal gains by category over the day, (R, 3, 144) [W]."""

    radiant: Array
    convective: Array
    latent: Array


def gain_courses(rooms: tuple[Room, ...]) -> GainCourses:
    """Gains by category; the same day pattern serves all months."""
    shape = (len(rooms), len(GAIN_CATEGORIES), STEPS_PER_DAY)
    radiant, convective, latent = np.zeros(shape), np.zeros(shape), np.zeros(shape)
    for index, room in enumerate(rooms):
        for gain in room.gains:
            row, course = GAIN_CATEGORIES.index(gain.category), step_averages(gain.pattern)
            radiant[index, row] += gain.sensible_w * gain.radiant_share * course
            convective[index, row] += gain.sensible_w * (1.0 - gain.radiant_share) * course
            latent[index, row] += gain.latent_w * course
    return GainCourses(radiant, convective, latent)


def gain_at(gain: Gain, step: int) -> float:
    """Fraction of a gain present at a step [-]."""
    return float(step_averages(gain.pattern)[step])
