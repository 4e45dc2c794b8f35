"""Answers about one day: of a room, of all rooms at an hour, of an air system, a circuit, the place, a shading."""

from typing import Annotated, Literal

from pydantic import Field, RootModel

from api.told import Celsius, CelsiusCourse, Course, HumidityCourse, KgPerSecondCourse, Told, Watts, WattsCourse

_Unset = Annotated[list[float | None], Field(description="°C at each step; null where there is no set-point")]
_WattsM2Course = Annotated[list[float], Field(description="W/m² at each step of the day")]
_Degrees = Annotated[list[float], Field(description="Degrees at each step of the day")]


class ControlCourse(Told):
    """What a thermostat makes of a room over a day."""

    air_c: CelsiusCourse
    operative_c: CelsiusCourse
    low_c: _Unset
    high_c: _Unset
    plant_w: WattsCourse = Field(description="W that the plant gives, cooling and heating, at each step")
    capacity_w: Watts | None = Field(description="W that it can give at most; null where it has no limit")


class DayOut(Told):
    """The load of a room or group over a day, by source; `parts` are in `unit`."""

    outdoor_c: CelsiusCourse
    outdoor_humidity_ratio: HumidityCourse
    reference_c: Celsius | None = Field(description="°C of the room's air to which K are added; null for a group")
    unit: Literal["W", "K"] = Field(description="K above the reference where a room floats, else W")
    parts: dict[str, Course]
    latent_w: WattsCourse
    control: ControlCourse | None = Field(description="Of a room with a thermostat")


class RoomAt(Told):
    """A room at one step."""

    load_w: Watts
    air_c: Celsius


class HourOut(RootModel[dict[str, RoomAt]]):
    """Rooms by id."""


class AirState(Told):
    """A place on an air path."""

    temperature_c: CelsiusCourse
    humidity_ratio: HumidityCourse


class PartDay(AirState):
    """Air off a part of a unit."""

    kind: str


class HumidityLines(Told):
    """Lines of equal relative humidity for a chart: kg/kg over `temperature_c`."""

    temperature_c: list[float]
    relative: dict[str, list[float]]


class AirDay(Told):
    """States and duties along an air path over a day."""

    chart: HumidityLines
    pressure_pa: float = Field(description="Pa of the air at this height")
    points: dict[str, AirState]
    parts: list[PartDay] = Field(description="Behind the mixing, in order")
    flow_kg_s: KgPerSecondCourse
    outdoor_kg_s: KgPerSecondCourse
    relief_kg_s: KgPerSecondCourse
    return_kg_s: KgPerSecondCourse
    unit_reheat_w: WattsCourse = Field(description="W of the unit's second heating coil, at each step")
    economizing: list[bool]
    coil_total_w: WattsCourse
    coil_sensible_w: WattsCourse
    heating_w: WattsCourse
    preheat_w: WattsCourse
    recovered_w: WattsCourse
    reheat_w: WattsCourse
    fan_w: WattsCourse
    fan_pa: list[float] = Field(description="Pa of the fan's rise at each step")
    water_kg_s: KgPerSecondCourse = Field(description="kg/s of water that the humidifier gives, at each step")


class UnitDay(Told):
    """What a plant unit does over a day."""

    output_w: WattsCourse
    taken_w: WattsCourse = Field(description="W of its fuel or carrier at each step")
    auxiliary_w: WattsCourse


class CoolerDay(Told):
    """A cooling tower or dry cooler over a day."""

    water_c: CelsiusCourse = Field(description="°C of the water to the chillers at each step")
    heat_w: WattsCourse = Field(description="W rejected at each step")
    speed: Course = Field(description="of its fans, 0 to 1, at each step")


class PlantDay(Told):
    """A circuit's load, what its units give and the temperatures of its water, over a day."""

    load_w: WattsCourse
    ends_w: WattsCourse = Field(description="W of the ends alone, without losses and pump, at each step")
    hot_w: WattsCourse = Field(description="W for hot water at each step")
    unmet_w: WattsCourse
    flow_c: CelsiusCourse
    return_c: CelsiusCourse
    units: dict[str, UnitDay]
    cooler: CoolerDay | None = Field(description="Of chillers cooled by water, on days of summer")


class SurfaceDay(Told):
    """Sun on one surface."""

    incidence_deg: _Degrees
    beam_w_m2: _WattsM2Course
    sky_w_m2: _WattsM2Course
    ground_w_m2: _WattsM2Course


class PlaceDay(Told):
    """A design day of the place."""

    dry_bulb_c: CelsiusCourse
    humidity_ratio: HumidityCourse
    relative_humidity: list[float] = Field(description="Share, 0 to 1, at each step")
    irradiance_w_m2: dict[str, _WattsM2Course]
    sun_elevation_deg: _Degrees
    sun_azimuth_deg: _Degrees
    pressure_pa: float = Field(description="Pa of the air at this height")
    ground_c: list[float] = Field(description="°C of the ground by month")
    air_mean_by_month_c: list[float] = Field(description="°C of the air, mean of each month")
    surface: SurfaceDay
    horizon_deg: list[float] = Field(description="Degrees of the skyline, every five degrees from north")


class ShadingDay(Told):
    """What a shading leaves of the sun."""

    lit_share: list[float] = Field(description="Sunlit part of the opening, 0 to 1, at each step")
    sky_share: float = Field(description="Part of the sky that the opening still sees, 0 to 1")
    ground_share: float = Field(description="Part of the ground that the opening still sees, 0 to 1")
    shadows: list[list[list[tuple[float, float]]]] = Field(
        description="For each step the shadows as corners in m on the opening, from its lower left"
    )
