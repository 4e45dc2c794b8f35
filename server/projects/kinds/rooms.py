"""Levels, zones and rooms with their faces, openings, extracts and transfers of air."""

from typing import Annotated, ClassVar, Self

from pydantic import AfterValidator, Field, model_validator

from projects.fields import Coordinate, Id, Name, plain
from projects.kinds.declare import About, Kind, Ref, called, link, number, options, whole
from projects.kinds.passed_on import MarginFields, SharedFields


class LevelFields(SharedFields):
    """A storey."""

    name: Annotated[Name, called("Name")]
    position: Annotated[float, number("Place in the order", "", 0, 1e6)] = 0.0
    floor_m: Annotated[float, number("Floor at", "length", -200, 1000)] = 0.0
    height_m: Annotated[float, number("Height", "length", 0.5, 100)] | None = 3.0


class ZoneFields(SharedFields):
    """Rooms that go together, wherever they are: they may share set-points and a sensor, and their loads are added up."""

    about: ClassVar[About] = About(unique="name")

    name: Annotated[Name, called("Name")]
    sensor_room: Annotated[Ref, link("Sensor in", "room", empties=True)] = None


class RoomFields(SharedFields, MarginFields):
    """A room. What may be empty is inherited from its zone, use or level; a value here is the room's own."""

    about: ClassVar[About] = About(most=5_000)

    number: Annotated[str, Field(min_length=1, max_length=20), AfterValidator(plain), called("Number")]
    name: Annotated[Name, called("Name")]
    level: Annotated[Ref, link("Level", "level")] = None
    zone: Annotated[Ref, link("Zone", "zone", empties=True)] = None
    use: Annotated[Ref, link("Use", "use")] = None
    air_system: Annotated[Ref, link("Air system", "air_system", empties=True)] = None
    floor_area_m2: Annotated[float, number("Floor area", "area", 0.1, 100_000, short="Floor")] | None = None
    height_m: Annotated[float, number("Height", "length", 0.1, 100)] | None = None
    outline_m: (
        Annotated[list[tuple[Coordinate, Coordinate]], Field(min_length=3, max_length=200), called("Outline")] | None
    ) = None
    plan_area_m2: Annotated[float, number("Floor on the plan", "area", 0, 1e9)] | None = None
    occupied: Annotated[bool, called("Occupied")] = True
    people_per_m2: Annotated[float, number("People", "people_density", 0, 5)] | None = None
    lights_w_m2: Annotated[float, number("Lights", "connected_density", 0, 500)] | None = None
    equipment_w_m2: Annotated[float, number("Equipment", "connected_density", 0, 5000)] | None = None
    heated: Annotated[bool, called("Heated")] | None = None
    cooled: Annotated[bool, called("Cooled")] | None = None
    heating_capacity_w: Annotated[float, number("Heating capacity", "load", 0, 1e7, short="Heating at most")] | None = (
        None
    )
    cooling_capacity_w: Annotated[float, number("Cooling capacity", "load", 0, 1e7, short="Cooling at most")] | None = (
        None
    )
    sensor_room: Annotated[Ref, link("Sensor in", "room", empties=True)] = None
    pinned_flow_m3_s: Annotated[float, number("Pinned supply air", "airflow", 0.0001, 500, short="Pinned")] | None = (
        None
    )
    terminal_flow: Annotated[
        str,
        options(
            "Flow of its terminal",
            {"system": "as its system", "constant": "constant"},
            hint="Constant: it stays at its design flow where the others' follow the load.",
        ),
    ] = "system"
    terminal_least: (
        Annotated[
            float,
            number(
                "Least flow of its terminal", "percent", 0, 1, hint="Of its design flow. Empty: as its system says."
            ),
        ]
        | None
    ) = None
    terminal_reheats: Annotated[bool, called("Its terminal reheats", hint="Where its system reheats at terminals.")] = (
        True
    )
    outlets: Annotated[int, whole("Outlets", 1, 200)] = 1
    second_system: Annotated[
        Ref, link("Second air system", "air_system", empties=True, hint="It takes what the first one leaves.")
    ] = None
    second_pinned_flow_m3_s: (
        Annotated[float, number("Pinned supply air of the second system", "airflow", 0.0001, 500)] | None
    ) = None
    hot_water: Annotated[
        Ref, link("Hot water from", "hot_water", empties=True, hint="Where there is one store, all rooms have it.")
    ] = None
    offset_m3_s: (
        Annotated[
            float,
            number(
                "Pressure offset",
                "airflow",
                -100,
                100,
                short="Offset",
                hint="To outdoors by its pressure; below nought from there.",
            ),
        ]
        | None
    ) = None

    @model_validator(mode="after")
    def two_systems(self) -> Self:
        if self.second_system is not None and self.second_system == self.air_system:
            raise ValueError("air_system and second_system are the same")
        return self


class ExtractFields(Kind):
    """Air that leaves a room to outdoors by a fan: a hood, a toilet, a process."""

    about: ClassVar[About] = About(owner="room", most=20_000)

    room: Annotated[Id, link("Room", "room")]
    name: Annotated[Name, called("Extract")]
    flow_m3_s: Annotated[float, number("Takes", "airflow", 0.001, 100)]
    lane: Annotated[str, options("Leaves by", {"fan": "its own fan", "unit": "the unit"})] = "fan"
    schedule: Annotated[Ref, link("Hours", "schedule")] = None
    above_c: Annotated[float, number("Runs above", "temperature", 0, 60)] | None = None
    fan_pa: Annotated[float, number("Fan pressure", "pressure", 0, 5000)] = 150.0
    fan_efficiency: Annotated[float, number("Fan efficiency", "percent", 0.05, 1)] = 0.5


class TransferFields(Kind):
    """Air from one room into another; without a flow it is what balances."""

    about: ClassVar[About] = About(owner="room", most=20_000)

    room: Annotated[Id, link("Into", "room")]
    source: Annotated[Ref, link("From", "room", empties=True)] = None
    flow_m3_s: Annotated[float, number("Flow", "airflow", 0.0001, 100)] | None = None

    @model_validator(mode="after")
    def two_rooms(self) -> Self:
        if self.source == self.room:
            raise ValueError("source: air cannot come from the room that it flows into")
        return self


class SurfaceFields(Kind):
    """A face of a room; its openings' area is taken out of its own."""

    about: ClassVar[About] = About(owner="room", most=60_000)

    room: Annotated[Id, link("Room", "room")]
    name: Annotated[Name, called("Surface")]
    role: Annotated[
        str,
        options(
            "Role",
            {
                "outer_wall": "outer wall",
                "roof": "roof",
                "ground_floor": "ground floor",
                "inner_wall": "inner wall",
                "inner_floor": "inner floor",
            },
        ),
    ]
    boundary: Annotated[
        str,
        options(
            "Beyond it",
            {
                "outdoors": "outdoors",
                "ground": "ground",
                "adiabatic": "same as here",
                "difference": "temperature difference",
                "fixed": "fixed temperature",
                "scheduled": "temperature by schedule",
                "room": "another room",
            },
        ),
    ]
    area_m2: Annotated[float, number("Area", "area", 0.01, 1e6)]
    tilt_deg: Annotated[float, number("Tilt", "angle", 0, 180)] = 90.0
    azimuth_deg: Annotated[float, number("Azimuth", "angle", 0, 360, open_high=True)] = 0.0
    assembly: Annotated[Ref, link("Assembly", "assembly")] = None
    cooling_difference_k: Annotated[float, number("ΔT cool", "temperature_difference", -40, 40)] = 0.0
    heating_difference_k: Annotated[float, number("ΔT heat", "temperature_difference", -40, 40)] = 0.0
    fixed_temperature_c: Annotated[float, number("Fixed at", "temperature", -60, 120)] | None = None
    temperature_schedule: Annotated[Ref, link("Temperature schedule", "schedule")] = None
    neighbour: Annotated[Ref, link("Room beyond", "room", empties=True)] = None
    exposed_perimeter_m: Annotated[float, number("Outer edge", "length", 0, 10_000)] | None = None
    plan_key: Annotated[str, Field(max_length=80), AfterValidator(plain), called("Edge of the plan")] | None = None
    plan_area_m2: Annotated[float, number("Area on the plan", "area", 0, 1e9)] | None = None

    @model_validator(mode="after")
    def fixed(self) -> Self:
        if self.boundary == "fixed" and self.fixed_temperature_c is None:
            raise ValueError("fixed_temperature_c is needed where the boundary is 'fixed'")
        if self.boundary == "scheduled" and self.temperature_schedule is None:
            raise ValueError("temperature_schedule is needed where the boundary is 'scheduled'")
        return self


class OpeningFields(Kind):
    """Windows or doors in a surface: so many of one size."""

    about: ClassVar[About] = About(owner="surface", most=60_000)

    surface: Annotated[Id, link("In", "surface")]
    name: Annotated[Name, called("Opening")]
    kind: Annotated[str, options("Kind", ["window", "door"])] = "window"
    count: Annotated[int, whole("Count", 1, 1000)] = 1
    width_m: Annotated[float, number("Width", "length", 0.01, 100)]
    height_m: Annotated[float, number("Height", "length", 0.01, 100)]
    glazing: Annotated[Ref, link("Glazing", "glazing")] = None
    assembly: Annotated[Ref, link("Door leaf", "assembly")] = None
    shading: Annotated[Ref, link("Shading", "shading")] = None
