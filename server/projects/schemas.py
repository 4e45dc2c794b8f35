"""What each kind of thing may hold. One class per kind; the change door validates every edit against it.

A class is always validated whole: an edit of one field is checked together with the fields beside it.
"""

from typing import Annotated, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from projects.fields import (
    Area,
    Azimuth,
    Difference,
    Efficiency,
    Id,
    Name,
    NotNegative,
    Pattern,
    Position,
    Share,
    Temperature,
    Thickness,
    Tilt,
)

Ref = Id | None


class Kind(BaseModel):
    """Base: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")


class ProjectFields(Kind):
    name: Name
    profile: Literal["handbook", "sinusoid"] = "handbook"
    kit: Ref = None


class SiteFields(Kind):
    name: Name
    latitude: Annotated[float, Field(ge=-66, le=66)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    utc_offset_h: Annotated[float, Field(ge=-12, le=14)]
    elevation_m: Annotated[float, Field(ge=-400, le=5000)]
    ground_reflectance: Share = 0.2
    ground_temperature_c: Annotated[float, Field(ge=-20, le=40)]
    winter_dry_bulb_c: Annotated[float, Field(ge=-60, le=30)]


class DesignMonthFields(Kind):
    month: Annotated[int, Field(ge=1, le=12)]
    dry_bulb_c: Annotated[float, Field(ge=-50, le=60)]
    wet_bulb_c: Annotated[float, Field(ge=-50, le=40)]
    range_k: Annotated[float, Field(ge=0, le=30)]
    tau_b: Annotated[float, Field(ge=0.05, le=2)]
    tau_d: Annotated[float, Field(ge=0.5, le=4)]

    @model_validator(mode="after")
    def wet_below_dry(self) -> Self:
        if self.wet_bulb_c > self.dry_bulb_c:
            raise ValueError(f"wet_bulb_c {self.wet_bulb_c} is above dry_bulb_c {self.dry_bulb_c}")
        return self


class MaterialFields(Kind):
    name: Name
    conductivity_w_mk: Annotated[float, Field(ge=0.001, le=500)] | None = None
    density_kg_m3: Annotated[float, Field(ge=0, le=12000)] = 0.0
    specific_heat_j_kgk: Annotated[float, Field(ge=0, le=5000)] = 0.0
    resistance_m2k_w: Annotated[float, Field(ge=0.001, le=20)] | None = None

    @model_validator(mode="after")
    def one_of_two(self) -> Self:
        if (self.conductivity_w_mk is None) == (self.resistance_m2k_w is None):
            raise ValueError("give either conductivity_w_mk or resistance_m2k_w, not both and not neither")
        return self


class AssemblyFields(Kind):
    name: Name
    element: Literal["wall", "roof", "floor", "partition", "door"]
    solar_absorptance: Share = 0.6
    ground_u_value: Annotated[float, Field(ge=0.01, le=5)] | None = None


class LayerFields(Kind):
    assembly: Id
    position: Position
    material: Id
    thickness_m: Thickness | None = None


class GlazingFields(Kind):
    name: Name
    u_value: Annotated[float, Field(ge=0.1, le=5.8)]
    g_value: Share
    frame_share: Annotated[float, Field(ge=0, lt=1)] = 0.2
    panes: Literal[1, 2, 3] = 2


class KitFields(Kind):
    name: Name
    outer_wall: Ref = None
    roof: Ref = None
    ground_floor: Ref = None
    inner_wall: Ref = None
    inner_floor: Ref = None
    door: Ref = None
    window: Ref = None


class ScheduleFields(Kind):
    name: Name
    kind: Literal["fraction"] = "fraction"
    weekday: Pattern
    weekend: Pattern

    @model_validator(mode="after")
    def fractions(self) -> Self:
        for field in ("weekday", "weekend"):
            for until, value in getattr(self, field):
                if not 0 <= value <= 1:
                    raise ValueError(f"{field}: {value} until minute {until} is outside 0 to 1")
        return self


class UseFields(Kind):
    name: Name
    people_per_m2: Annotated[float, Field(ge=0, le=5)] = 0.0
    person_sensible_w: Annotated[float, Field(ge=0, le=600)] = 75.0
    person_latent_w: Annotated[float, Field(ge=0, le=600)] = 55.0
    people_radiant_share: Share = 0.6
    people_schedule: Ref = None
    lights_w_m2: Annotated[float, Field(ge=0, le=500)] = 0.0
    lights_radiant_share: Share = 0.5
    lights_schedule: Ref = None
    equipment_w_m2: Annotated[float, Field(ge=0, le=5000)] = 0.0
    equipment_radiant_share: Share = 0.3
    equipment_latent_share: Share = 0.0
    equipment_vented_share: Share = 0.0
    equipment_schedule: Ref = None
    infiltration_ach: Annotated[float, Field(ge=0, le=30)] = 0.3
    air_per_person_m3_s: Annotated[float, Field(ge=0, le=0.1)] = 0.0
    air_per_area_m3_s_m2: Annotated[float, Field(ge=0, le=0.05)] = 0.0
    air_effectiveness: Annotated[float, Field(ge=0.3, le=1.5)] = 1.0
    minimum_air_changes: Annotated[float, Field(ge=0, le=100)] = 0.0
    heated: bool = True
    heating_setpoint_c: Annotated[float, Field(ge=-30, le=40)] = 20.0
    cooled: bool = True
    cooling_setpoint_c: Annotated[float, Field(ge=-30, le=50)] = 24.0
    yardstick_low_w_m2: NotNegative = 20.0
    yardstick_high_w_m2: NotNegative = 150.0
    source: Annotated[str, Field(max_length=200)] = ""

    @model_validator(mode="after")
    def consistent(self) -> Self:
        if self.heating_setpoint_c > self.cooling_setpoint_c:
            raise ValueError(
                f"heating_setpoint_c {self.heating_setpoint_c} is above cooling_setpoint_c {self.cooling_setpoint_c}"
            )
        if self.equipment_latent_share + self.equipment_vented_share > 1:
            raise ValueError("equipment_latent_share and equipment_vented_share add up to more than 1")
        if self.yardstick_low_w_m2 > self.yardstick_high_w_m2:
            raise ValueError("yardstick_low_w_m2 is above yardstick_high_w_m2")
        return self


class LevelFields(Kind):
    name: Name
    position: Position = 0.0
    floor_m: Annotated[float, Field(ge=-200, le=1000)] = 0.0
    height_m: Annotated[float, Field(ge=0.5, le=100)] = 3.0


class RoomFields(Kind):
    number: Annotated[str, Field(min_length=1, max_length=20)]
    name: Name
    level: Ref = None
    use: Ref = None
    air_system: Ref = None
    floor_area_m2: Annotated[float, Field(ge=0.1, le=100_000)] | None = None
    height_m: Annotated[float, Field(ge=0.1, le=100)] | None = None
    outline_m: Annotated[list[tuple[float, float]], Field(min_length=3, max_length=200)] | None = None
    people_per_m2: Annotated[float, Field(ge=0, le=5)] | None = None
    lights_w_m2: Annotated[float, Field(ge=0, le=500)] | None = None
    equipment_w_m2: Annotated[float, Field(ge=0, le=5000)] | None = None
    infiltration_ach: Annotated[float, Field(ge=0, le=30)] | None = None
    minimum_air_changes: Annotated[float, Field(ge=0, le=100)] | None = None
    heated: bool | None = None
    heating_setpoint_c: Annotated[float, Field(ge=-30, le=40)] | None = None
    cooled: bool | None = None
    cooling_setpoint_c: Annotated[float, Field(ge=-30, le=50)] | None = None
    pinned_flow_m3_s: Annotated[float, Field(ge=0.0001, le=500)] | None = None

    @model_validator(mode="after")
    def setpoints(self) -> Self:
        low, high = self.heating_setpoint_c, self.cooling_setpoint_c
        if low is not None and high is not None and low > high:
            raise ValueError(f"heating_setpoint_c {low} is above cooling_setpoint_c {high}")
        return self


class SurfaceFields(Kind):
    room: Id
    name: Name
    role: Literal["outer_wall", "roof", "ground_floor", "inner_wall", "inner_floor"]
    boundary: Literal["outdoors", "ground", "adiabatic", "difference", "fixed"]
    area_m2: Area
    tilt_deg: Tilt = 90.0
    azimuth_deg: Azimuth = 0.0
    assembly: Ref = None
    cooling_difference_k: Difference = 0.0
    heating_difference_k: Difference = 0.0
    fixed_temperature_c: Temperature | None = None

    @model_validator(mode="after")
    def fixed(self) -> Self:
        if self.boundary == "fixed" and self.fixed_temperature_c is None:
            raise ValueError("fixed_temperature_c is needed where the boundary is 'fixed'")
        return self


class OpeningFields(Kind):
    surface: Id
    name: Name
    kind: Literal["window", "door"] = "window"
    count: Annotated[int, Field(ge=1, le=1000)] = 1
    width_m: Annotated[float, Field(ge=0.01, le=100)]
    height_m: Annotated[float, Field(ge=0.01, le=100)]
    glazing: Ref = None
    assembly: Ref = None


class AirSystemFields(Kind):
    name: Name
    supply_c: Annotated[float, Field(ge=5, le=30)] = 14.0
    winter_supply_c: Annotated[float, Field(ge=10, le=50)] = 20.0
    bypass_factor: Annotated[float, Field(ge=0, le=0.5)] = 0.12
    fan_efficiency: Efficiency = 0.65
    motor_efficiency: Efficiency = 0.85
    motor_margin: Share = 0.15
    filter_drop_pa: Annotated[float, Field(ge=0, le=2000)] = 150.0
    coil_drop_pa: Annotated[float, Field(ge=0, le=2000)] = 120.0
    other_drop_pa: Annotated[float, Field(ge=0, le=2000)] = 80.0
    outlet_velocity_m_s: Annotated[float, Field(ge=0, le=30)] = 8.0
    friction_limit_pa_m: Annotated[float, Field(ge=0.01, le=20)] = 0.8
    velocity_limit_m_s: Annotated[float, Field(ge=0.1, le=30)] = 7.0


class SectionFields(Kind):
    name: Name
    position: Position = 0.0
    parent: Ref = None
    room: Ref = None
    length_m: Annotated[float, Field(ge=0, le=2000)]
    loss_coefficient: Annotated[float, Field(ge=0, le=1000)] = 0.0
    end_drop_pa: Annotated[float, Field(ge=0, le=500_000)] = 0.0
    pinned_diameter_m: Annotated[float, Field(gt=0.005, le=5)] | None = None


class DuctSectionFields(SectionFields):
    air_system: Id


class CircuitFields(Kind):
    name: Name
    kind: Literal["heating", "chilled"]
    flow_c: Annotated[float, Field(ge=1, le=95)]
    return_c: Annotated[float, Field(ge=1, le=95)]
    friction_limit_pa_m: Annotated[float, Field(ge=1, le=2000)] = 150.0
    velocity_limit_m_s: Annotated[float, Field(ge=0.05, le=10)] = 1.5
    source_drop_pa: Annotated[float, Field(ge=0, le=500_000)] = 15_000.0
    pump_margin: Share = 0.1
    pump_efficiency: Efficiency = 0.55
    motor_efficiency: Efficiency = 0.85
    motor_margin: Share = 0.15

    @model_validator(mode="after")
    def order(self) -> Self:
        if self.kind == "heating" and self.flow_c <= self.return_c:
            raise ValueError(f"flow_c {self.flow_c} must be above return_c {self.return_c} in a heating circuit")
        if self.kind == "chilled" and self.flow_c >= self.return_c:
            raise ValueError(f"flow_c {self.flow_c} must be below return_c {self.return_c} in a chilled circuit")
        return self


class PipeSectionFields(SectionFields):
    circuit: Id
    air_system: Ref = None

    @model_validator(mode="after")
    def one_end(self) -> Self:
        if self.room is not None and self.air_system is not None:
            raise ValueError("a section ends at a room or at an air_system, not at both")
        return self
