"""Rooms, their elements, windows and gains, as the heat balance takes them."""

from dataclasses import dataclass

from pendrum_core.fabric.glazing import Glazing
from pendrum_core.fabric.layers import Layers
from pendrum_core.schedule.pattern import CONSTANT_ONE, DayPattern

CONDUCTION_CATEGORIES = ("walls", "roofs", "floors", "windows", "doors", "neighbours")
GAIN_CATEGORIES = ("people", "lights", "equipment")
CATEGORIES = ("sun", *CONDUCTION_CATEGORIES, *GAIN_CATEGORIES, "infiltration", "outdoor air")


@dataclass(frozen=True)
class Boundary:
    """What is on the other side of an element.

    Attributes:
        kind: "outdoors", "temperature" (ground or a fixed neighbour), "difference" or "adiabatic".
        tilt_deg, azimuth_deg, solar_absorptance: for "outdoors".
        temperature_c: for "temperature" [°C].
        extra_resistance_m2k_w: between the layers and that temperature (ground, other side's film) [m2 K/W].
        cooling_difference_k: neighbour above this room's set-point in the cooling calculation [K].
        heating_difference_k: neighbour below this room's set-point in the heating calculation [K].
    """

    kind: str
    tilt_deg: float = 90.0
    azimuth_deg: float = 0.0
    solar_absorptance: float = 0.0
    temperature_c: float = 0.0
    extra_resistance_m2k_w: float = 0.0
    cooling_difference_k: float = 0.0
    heating_difference_k: float = 0.0


@dataclass(frozen=True)
class Element:
    """One face of the room: a wall with its openings taken out, or an opening. `category` is its load source."""

    id: str
    name: str
    category: str
    area_m2: float
    layers: Layers
    convection_w_m2k: float
    boundary: Boundary


@dataclass(frozen=True)
class SunWindow:
    """Sun through an opening: `area_m2` includes the frame."""

    id: str
    name: str
    glazing: Glazing
    area_m2: float
    tilt_deg: float
    azimuth_deg: float


@dataclass(frozen=True)
class Gain:
    """An internal gain at full schedule [W], its radiant share of the sensible part [-] and its day pattern."""

    category: str
    sensible_w: float
    latent_w: float
    radiant_share: float
    pattern: DayPattern = CONSTANT_ONE


@dataclass(frozen=True)
class Room:
    """One room as the heat balance takes it.

    Attributes:
        infiltration_m3_s: outdoor air through leaks [m3/s].
        direct_outdoor_air_m3_s: untreated outdoor air for ventilation, where no air system serves the room [m3/s].
        heating_setpoint_c, cooling_setpoint_c: air temperature held [°C].
        heated, cooled: False leaves the air to float.
        capacity_j_k: air and furniture, one node [J/K].
    """

    id: str
    number: str
    name: str
    floor_area_m2: float
    volume_m3: float
    elements: tuple[Element, ...]
    windows: tuple[SunWindow, ...]
    gains: tuple[Gain, ...]
    infiltration_m3_s: float
    direct_outdoor_air_m3_s: float
    heating_setpoint_c: float
    cooling_setpoint_c: float
    heated: bool
    cooled: bool
    capacity_j_k: float


def inside_convection(tilt_deg: float, wall: float, ceiling: float, floor: float) -> float:
    """Convection coefficient by position: ceiling below 60°, floor above 120°, wall between [W/m2 K]."""
    if tilt_deg < 60.0:
        return ceiling
    return floor if tilt_deg > 120.0 else wall
