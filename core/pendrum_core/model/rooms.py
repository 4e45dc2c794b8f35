"""Rooms, their elements, windows and gains, as the heat balance takes them."""

from dataclasses import dataclass
from functools import cached_property

from pendrum_core.fabric.glazing import Glazing
from pendrum_core.fabric.layers import Layers
from pendrum_core.model.thermostats import Thermostat
from pendrum_core.schedule.pattern import CONSTANT_ONE, DayPattern
from pendrum_core.sun.shading import Shading

CONDUCTION_CATEGORIES = ("walls", "roofs", "floors", "windows", "doors", "neighbours")
GAIN_CATEGORIES = ("people", "lights", "equipment")
# What a thermostat adds: air drawn in while the room is warm, and heat kept and given back as the air's temperature moves.
CONTROL_CATEGORIES = ("drawn air", "storage")
CATEGORIES = ("sun", *CONDUCTION_CATEGORIES, *GAIN_CATEGORIES, "infiltration", "outdoor air", *CONTROL_CATEGORIES)


@dataclass(frozen=True)
class Boundary:
    """What is on the other side of an element.

    Attributes:
        kind: "outdoors", "temperature" (ground or a fixed neighbour), "pattern", "difference", "room" or
            "adiabatic".
        tilt_deg, azimuth_deg, solar_absorptance: for "outdoors".
        eye_m: height above ground from which the skyline is seen, for "outdoors" [m].
        temperature_c: for "temperature" [°C]; `by_month_c` (January to December) takes its place where given.
        winter_c: for "temperature", where it is another one on the winter day [°C].
        patterns, winter_pattern: courses of the day for "pattern", January to December, and the winter day's [°C].
        extra_resistance_m2k_w: between the layers and that temperature (ground, other side's film) [m2 K/W]; between
            two rooms it follows from the far face.
        far_convection_w_m2k: inside convection of the face in the other room, for "room" [W/m2 K].
        cooling_difference_k: neighbour above this room's set-point in the cooling calculation [K].
        heating_difference_k: neighbour below this room's set-point in the heating calculation [K].
        neighbour: id of the room beyond, for "room".
    """

    kind: str
    tilt_deg: float = 90.0
    azimuth_deg: float = 0.0
    solar_absorptance: float = 0.0
    temperature_c: float = 0.0
    extra_resistance_m2k_w: float = 0.0
    cooling_difference_k: float = 0.0
    heating_difference_k: float = 0.0
    eye_m: float = 0.0
    by_month_c: tuple[float, ...] = ()
    winter_c: float | None = None
    patterns: tuple[DayPattern, ...] = ()
    winter_pattern: DayPattern = CONSTANT_ONE
    neighbour: str = ""
    far_convection_w_m2k: float = 2.5


@dataclass(frozen=True)
class Element:
    """One face of the room: a wall with its openings taken out, or an opening. `category` is its load source,
    `construction` the id of its assembly or glazing.
    """

    id: str
    name: str
    category: str
    area_m2: float
    layers: Layers
    convection_w_m2k: float
    boundary: Boundary
    construction: str = ""


@dataclass(frozen=True)
class Blind:
    """A blind or curtain and when it is drawn.

    Attributes:
        solar_factor: on the sun's heat while drawn [-].
        air_share: of what still enters while drawn, straight to the room air [-].
        rule: "always", "irradiance" (drawn while more than `threshold_w_m2` falls on the window) or "schedule".
        patterns: share drawn over the days of January to December, for "schedule".
    """

    solar_factor: float
    air_share: float
    rule: str = "irradiance"
    threshold_w_m2: float = 200.0
    patterns: tuple[DayPattern, ...] = (CONSTANT_ONE,) * 12


@dataclass(frozen=True)
class SunWindow:
    """Sun through one kind of opening of an element: `area_m2` includes the frame, of all that are alike.

    `width_m` and `height_m` are of one of them, for its shading; `eye_m` as in Boundary.
    """

    id: str
    name: str
    glazing: Glazing
    area_m2: float
    tilt_deg: float
    azimuth_deg: float
    eye_m: float = 0.0
    width_m: float = 1.0
    height_m: float = 1.0
    shading: Shading | None = None
    blind: Blind | None = None

    @property
    def sun_area_m2(self) -> float:
        """A (1 - frame) g: what the sun on the plane is multiplied by [m2]."""
        return self.area_m2 * (1.0 - self.glazing.frame_share) * self.glazing.g_value

    @property
    def sun_key(self) -> tuple[object, ...]:
        """What the sun on it depends on, but for its size."""
        size = (self.width_m, self.height_m, self.shading) if self.shading else None
        return (self.tilt_deg, self.azimuth_deg, self.glazing.angular, self.eye_m, size, self.blind)


@dataclass(frozen=True)
class Gain:
    """An internal gain at full schedule [W] and its radiant share of the sensible part [-].

    `by_month` holds the day patterns of January to December where they are not all `pattern`, `winter` that of the
    winter day, of which the project's share counts.
    """

    category: str
    sensible_w: float
    latent_w: float
    radiant_share: float
    pattern: DayPattern = CONSTANT_ONE
    by_month: tuple[DayPattern, ...] = ()
    name: str = ""
    winter: DayPattern = CONSTANT_ONE

    def on(self, month: int) -> DayPattern:
        """Day pattern of a month's design day (1..12)."""
        return self.by_month[month - 1] if self.by_month else self.pattern


@dataclass(frozen=True)
class HumidityLimits:
    """Relative humidity that the room's air should keep between [-]; `patterns` say when, January to December."""

    low: float | None
    high: float | None
    patterns: tuple[DayPattern, ...] = (CONSTANT_ONE,) * 12


@dataclass(frozen=True)
class TransferAir:
    """Air that comes in from another room, at that room's temperature [m3/s]."""

    room: str
    flow_m3_s: float

    def __post_init__(self) -> None:
        if not 0.0 <= self.flow_m3_s <= 1000.0:
            raise ValueError(f"flow_m3_s {self.flow_m3_s} is not within 0 to 1000")


@dataclass(frozen=True)
class Room:
    """One room as the heat balance takes it.

    Attributes:
        infiltration_m3_s: outdoor air through leaks [m3/s].
        winter_infiltration_m3_s: on the winter day, where it is another.
        direct_outdoor_air_m3_s: untreated outdoor air for ventilation, where no air system serves the room [m3/s].
        heating_setpoint_c, cooling_setpoint_c: air temperature held [°C].
        heated, cooled: False leaves the air to float.
        capacity_j_k: air and furniture, one node [J/K].
        thermostat: None where the air is held at its set-points day and night.
        humidity: None where nothing is asked of it.
        transfers: air from other rooms.
        heating_radiant_share: of the heat of its emitter, onto all faces by area [-].
        warm_limit_c: air above which a room without cooling counts as too warm [°C].
        return_gains: what its lights give straight into the return air of the system that serves it first.
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
    winter_infiltration_m3_s: float | None = None
    thermostat: Thermostat | None = None
    humidity: HumidityLimits | None = None
    transfers: tuple[TransferAir, ...] = ()
    heating_radiant_share: float = 0.0
    warm_limit_c: float = 28.0
    return_gains: tuple[Gain, ...] = ()

    @cached_property
    def neighbours(self) -> frozenset[str]:
        """Rooms whose air temperature it feels: those beyond its walls, and those that its air comes from."""
        beyond = frozenset(e.boundary.neighbour for e in self.elements if e.boundary.kind == "room")
        return beyond | {transfer.room for transfer in self.transfers}

    @property
    def transfer_m3_s(self) -> float:
        """Air from other rooms [m3/s]."""
        return sum(transfer.flow_m3_s for transfer in self.transfers)

    @property
    def floats(self) -> bool:
        """Whether its summer air is worked out as a temperature, split in kelvin by source."""
        return not self.cooled and self.thermostat is None

    @property
    def winter_leak_m3_s(self) -> float:
        """Outdoor air through leaks on the winter day [m3/s]."""
        winter = self.winter_infiltration_m3_s
        return self.infiltration_m3_s if winter is None else winter


def inside_convection(tilt_deg: float, wall: float = 2.5, ceiling: float = 5.0, floor: float = 0.7) -> float:
    """Convection coefficient by position: ceiling below 60°, floor above 120°, wall between [W/m2 K].

    The values themselves are those of ISO 52016-1, for heat that flows sideways, upwards and downwards.
    """
    if tilt_deg < 60.0:
        return ceiling
    return floor if tilt_deg > 120.0 else wall
