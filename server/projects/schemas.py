"""What each kind of thing may hold. One class per kind; the change door validates every edit against it.

A class is always validated whole: an edit of one field is checked together with the fields beside it.
"""

from typing import Annotated, Literal, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, model_validator

from projects.fields import (
    Area,
    Azimuth,
    Difference,
    Efficiency,
    FileName,
    Id,
    Length,
    Month,
    MonthDay,
    Name,
    NotNegative,
    Position,
    Share,
    Steps,
    Temperature,
    Thickness,
    Tilt,
    plain,
)

Ref = Id | None
AirChanges = Annotated[float, Field(ge=0, le=30)]
LeastAirChanges = Annotated[float, Field(ge=0, le=100)]
HeatedTo = Annotated[float, Field(ge=-30, le=40)]
CooledTo = Annotated[float, Field(ge=-30, le=50)]
WarmUp = Annotated[float, Field(ge=0, le=12)]


class Kind(BaseModel):
    """Base: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")


class Holiday(Kind):
    date: MonthDay
    name: Annotated[str, Field(max_length=80), AfterValidator(plain)] = ""


class MarginFields(Kind):
    """What a room or an air system adds to loads in place of the project's margins."""

    heating_margin: Share | None = None
    cooling_margin: Share | None = None


class SharedFields(Kind):
    """What the building, a level, a use and a zone may each say for the rooms below them; the nearest that says it counts."""

    infiltration_ach: AirChanges | None = None
    minimum_air_changes: LeastAirChanges | None = None
    heating_setpoint_c: HeatedTo | None = None
    cooling_setpoint_c: CooledTo | None = None
    heating_setback_c: HeatedTo | None = None
    cooling_setup_c: CooledTo | None = None
    warm_up_h: WarmUp | None = None
    pull_down_h: WarmUp | None = None

    @model_validator(mode="after")
    def setpoints(self) -> Self:
        low, high = self.heating_setpoint_c, self.cooling_setpoint_c
        if low is not None and high is not None and low > high:
            raise ValueError(f"heating_setpoint_c {low} is above cooling_setpoint_c {high}")
        return self


class ProjectFields(SharedFields):
    name: Name
    height_m: Annotated[float, Field(ge=0.5, le=100)] = 3.0
    infiltration_ach: AirChanges = 0.3
    minimum_air_changes: LeastAirChanges = 0.0
    heating_setpoint_c: HeatedTo = 20.0
    cooling_setpoint_c: CooledTo = 26.0
    heating_setback_c: HeatedTo = 16.0
    cooling_setup_c: CooledTo = 30.0
    warm_up_h: WarmUp = 2.0
    pull_down_h: WarmUp = 1.0
    profile: Literal["handbook", "sinusoid"] = "handbook"
    kit: Ref = None
    ventilation: Literal["62.1 full", "62.1 simplified", "sum"] = "62.1 full"
    heating_procedure: Literal["balance", "u_values"] = "balance"
    heating_margin: Share = 0.0
    winter_gains_share: Share = 0.0
    cooling_margin: Share = 0.0
    units: Literal["SI", "IP"] = "SI"
    year: Annotated[int, Field(ge=1950, le=2150)] = 2027
    holidays: Annotated[list[Holiday], Field(max_length=100)] = []

    @model_validator(mode="after")
    def once(self) -> Self:
        dates = [holiday.date for holiday in self.holidays]
        for date in dates:
            if dates.count(date) > 1:
                raise ValueError(f"holidays: {date} is there twice")
        return self


class SkylinePart(Kind):
    """Something that hides the sky in a range of directions, clockwise."""

    from_deg: Azimuth
    to_deg: Azimuth
    height_m: Annotated[float, Field(ge=0, le=9000, allow_inf_nan=False)]
    distance_m: Annotated[float, Field(ge=1, le=100_000, allow_inf_nan=False)]


class SiteFields(Kind):
    name: Name
    latitude: Annotated[float, Field(ge=-66, le=66)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    utc_offset_h: Annotated[float, Field(ge=-12, le=14)]
    elevation_m: Annotated[float, Field(ge=-400, le=5000)]
    ground_reflectance: Share = 0.2
    ground_temperature_c: Annotated[float, Field(ge=-20, le=40)]
    winter_dry_bulb_c: Annotated[float, Field(ge=-60, le=30)]
    rotation_deg: Annotated[float, Field(gt=-360, lt=360)] = 0.0
    indoor_winter_humidity: Share = 0.45
    winter_wind_m_s: Annotated[float, Field(ge=0, le=40)] = 4.0
    summer_wind_m_s: Annotated[float, Field(ge=0, le=40)] = 3.0
    terrain: Literal["city", "suburb", "open country", "open water"] = "suburb"
    shelter_class: Literal[1, 2, 3, 4, 5] = 3
    skyline: Annotated[list[SkylinePart], Field(max_length=36)] = []
    soil: Literal["clay", "sand", "rock"] = "sand"
    ground_source: Literal["constant", "months", "formula"] = "constant"
    ground_depth_m: Annotated[float, Field(ge=0, le=20)] = 1.0
    air_mean_c: Annotated[float, Field(ge=-30, le=40)] = 10.0
    air_amplitude_k: Annotated[float, Field(ge=0, le=40)] = 10.0
    coldest_month: Month = 1
    cold_water_c: Annotated[float, Field(ge=0, le=40)] = 10.0
    saving_from: MonthDay | None = None
    saving_to: MonthDay | None = None
    dehumidification_month: Month | None = None
    dehumidification_dew_point_c: Annotated[float, Field(ge=-30, le=40)] | None = None
    dehumidification_dry_bulb_c: Annotated[float, Field(ge=-30, le=60)] | None = None

    @model_validator(mode="after")
    def in_order(self) -> Self:
        dew, dry = self.dehumidification_dew_point_c, self.dehumidification_dry_bulb_c
        if dew is not None and dry is not None and dew > dry:
            raise ValueError(f"dehumidification_dew_point_c {dew} is above dehumidification_dry_bulb_c {dry}")
        return self


class DesignMonthFields(Kind):
    month: Annotated[int, Field(ge=1, le=12)]
    dry_bulb_c: Annotated[float, Field(ge=-50, le=60)]
    wet_bulb_c: Annotated[float, Field(ge=-50, le=40)]
    range_k: Annotated[float, Field(ge=0, le=30)]
    tau_b: Annotated[float, Field(ge=0.05, le=2)]
    tau_d: Annotated[float, Field(ge=0.5, le=4)]
    ground_reflectance: Share | None = None
    ground_temperature_c: Annotated[float, Field(ge=-20, le=40)] | None = None

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
    air_gap: bool = False
    vapour_factor: Annotated[float, Field(ge=1, le=1e7)] | None = None
    source: Annotated[str, Field(max_length=200), AfterValidator(plain)] = ""

    @model_validator(mode="after")
    def one_of_three(self) -> Self:
        given = (self.conductivity_w_mk is not None) + (self.resistance_m2k_w is not None) + self.air_gap
        if given != 1:
            raise ValueError("give one of conductivity_w_mk, resistance_m2k_w and air_gap, not more and not none")
        return self


class AssemblyFields(Kind):
    name: Name
    element: Literal["wall", "roof", "floor", "partition", "door"]
    solar_absorptance: Share = 0.6
    ground_u_value: Annotated[float, Field(ge=0.01, le=5)] | None = None
    extra_u_value: Annotated[float, Field(ge=0, le=1)] = 0.0
    declared_u_value: Annotated[float, Field(ge=0.05, le=5)] | None = None
    mass_class: Literal["very light", "light", "medium", "heavy", "very heavy"] = "medium"
    mass_place: Literal["inside", "outside", "both sides", "spread", "middle"] = "spread"
    ground_procedure: Literal["declared", "slab", "basement_floor", "basement_wall", "perimeter"] = "declared"
    ground_area_m2: Area | None = None
    ground_perimeter_m: Annotated[float, Field(ge=0.1, le=1e5)] | None = None
    ground_wall_m: Annotated[float, Field(ge=0, le=3)] = 0.3
    ground_depth_m: Annotated[float, Field(ge=0, le=50)] = 0.0
    edge_resistance_m2k_w: Annotated[float, Field(ge=0, le=20)] = 0.0
    edge_width_m: Annotated[float, Field(ge=0, le=10)] = 0.0
    edge_vertical: bool = False
    perimeter_factor_w_mk: Annotated[float, Field(ge=0.05, le=10)] | None = None
    glass_share: Annotated[float, Field(ge=0, lt=1)] = 0.0
    glass_g_value: Share = 0.6


class LayerFields(Kind):
    assembly: Id
    position: Position
    material: Id
    thickness_m: Thickness | None = None
    bridge_material: Ref = None
    bridge_share: Annotated[float, Field(ge=0, le=0.9)] = 0.0


class ShadingFields(Kind):
    name: Name
    overhang_m: Length = 0.0
    overhang_gap_m: Length = 0.0
    overhang_beyond_m: Length = 0.0
    left_fin_m: Length = 0.0
    right_fin_m: Length = 0.0
    fin_gap_m: Length = 0.0
    fin_beyond_m: Length = 0.0
    reveal_m: Length = 0.0


class PaneGap(Kind):
    """A gap between panes and the pane inside of it."""

    gap_mm: Annotated[float, Field(ge=4, le=60)]
    gas: Literal["air", "argon", "krypton"] = "argon"
    emissivity_1: Annotated[float, Field(ge=0.01, le=0.95)] = 0.837
    emissivity_2: Annotated[float, Field(ge=0.01, le=0.95)] = 0.837
    pane_mm: Annotated[float, Field(ge=2, le=40)] = 4.0


class GlazingFields(Kind):
    name: Name
    u_value: Annotated[float, Field(ge=0.1, le=5.8)]
    g_value: Share
    frame_share: Annotated[float, Field(ge=0, lt=1)] = 0.2
    panes: Literal[1, 2, 3] = 2
    basis: Literal["whole", "parts", "panes"] = "whole"
    centre_u_value: Annotated[float, Field(ge=0.1, le=5.8)] = 1.1
    frame_u_value: Annotated[float, Field(ge=0.3, le=10)] = 1.4
    edge_psi_w_mk: Annotated[float, Field(ge=0, le=0.5)] = 0.06
    build_up: Annotated[list[PaneGap], Field(max_length=3)] = []
    blind: Literal["none", "inside", "between", "outside"] = "none"
    blind_factor: Share = 0.5
    blind_air_share: Share = 0.4
    blind_rule: Literal["always", "irradiance", "schedule"] = "irradiance"
    blind_threshold_w_m2: Annotated[float, Field(ge=0, le=1500)] = 200.0
    blind_schedule: Ref = None


class KitFields(Kind):
    name: Name
    outer_wall: Ref = None
    roof: Ref = None
    ground_floor: Ref = None
    inner_wall: Ref = None
    inner_floor: Ref = None
    door: Ref = None
    window: Ref = None


class PatternPart(Kind):
    """A day pattern of a schedule."""

    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,12}$")]
    name: Annotated[str, Field(min_length=1, max_length=80), AfterValidator(plain)]
    steps: Steps


class RulePart(Kind):
    """Days that get a pattern; `days` has a 1 or 0 for Monday to Sunday and holidays."""

    start: MonthDay
    end: MonthDay
    days: Annotated[str, Field(pattern=r"^[01]{8}$")] = "11111111"
    pattern: str


# Kind of schedule -> what its values may be.
SCHEDULE_RANGES = {
    "fraction": (0.0, 1.0),
    "on_off": (0.0, 1.0),
    "temperature": (-60.0, 120.0),
    "w_per_person": (0.0, 600.0),
}


class ScheduleFields(Kind):
    name: FileName
    kind: Literal["fraction", "on_off", "temperature", "w_per_person"] = "fraction"
    patterns: Annotated[list[PatternPart], Field(min_length=1, max_length=400)]
    base: str
    rules: Annotated[list[RulePart], Field(max_length=400)] = []
    summer: str | None = None
    summer_by_month: bool = False
    winter: str | None = None

    @model_validator(mode="after")
    def consistent(self) -> Self:
        low, high = SCHEDULE_RANGES[self.kind]
        for pattern in self.patterns:
            for until, value in pattern.steps:
                if not low <= value <= high or (self.kind == "on_off" and value not in (0, 1)):
                    span = "0 or 1" if self.kind == "on_off" else f"{low:g} to {high:g}"
                    raise ValueError(f"{pattern.name}: {value:g} until minute {until} is outside {span}")
        known = [pattern.id for pattern in self.patterns]
        for identity in known:
            if known.count(identity) > 1:
                raise ValueError(f"pattern {identity!r} is there twice")
        named = [self.base, *(rule.pattern for rule in self.rules), self.summer, self.winter]
        for name in named:
            if name is not None and name not in known:
                raise ValueError(f"pattern {name!r} is not among the schedule's patterns")
        return self


PowerBasis = Literal["w_m2", "w", "w_per_person"]
Activity = Literal[
    "seated in an audience", "seated, very light work", "moderately active office work",
    "standing, light work, walking", "walking and standing", "sedentary work, eating", "light bench work",
    "moderate dancing", "light machine work", "heavy work", "heavy machine work, lifting", "athletics",
]  # fmt: skip


class UseFields(SharedFields):
    name: Name
    people_basis: Literal["per_m2", "m2_per_person", "count"] = "per_m2"
    people_value: Annotated[float, Field(ge=0, le=10_000)] = 0.0
    activity: Activity | None = None
    person_sensible_w: Annotated[float, Field(ge=0, le=600)] = 75.0
    person_latent_w: Annotated[float, Field(ge=0, le=600)] = 55.0
    people_radiant_share: Share = 0.6
    people_schedule: Ref = None
    person_schedule: Ref = None
    lights_basis: PowerBasis = "w_m2"
    lights_value: Annotated[float, Field(ge=0, le=1e6)] = 0.0
    task_lights_w_m2: Annotated[float, Field(ge=0, le=500)] = 0.0
    task_lights_schedule: Ref = None
    lights_radiant_share: Share = 0.5
    lights_schedule: Ref = None
    equipment_basis: PowerBasis = "w_m2"
    equipment_value: Annotated[float, Field(ge=0, le=1e6)] = 0.0
    equipment_radiant_share: Share = 0.3
    equipment_latent_share: Share = 0.0
    equipment_vented_share: Share = 0.0
    equipment_schedule: Ref = None
    infiltration_basis: Literal["air_changes", "envelope", "leakage"] = "air_changes"
    infiltration_ach: AirChanges | None = 0.3
    infiltration_m3_s_m2: Annotated[float, Field(ge=0, le=0.05)] = 0.0
    leakage_cm2_m2: Annotated[float, Field(ge=0, le=100)] = 1.0
    hot_water_l_person_day: Annotated[float, Field(ge=0, le=500)] = 0.0
    hot_water_l_m2_day: Annotated[float, Field(ge=0, le=100)] = 0.0
    hot_water_c: Annotated[float, Field(ge=20, le=95)] = 55.0
    air_per_person_m3_s: Annotated[float, Field(ge=0, le=0.1)] = 0.0
    air_per_area_m3_s_m2: Annotated[float, Field(ge=0, le=0.05)] = 0.0
    outdoor_air_changes: LeastAirChanges = 0.0
    air_effectiveness: Annotated[float, Field(ge=0.3, le=1.5)] = 1.0
    minimum_air_changes: LeastAirChanges | None = 0.0
    heated: bool = True
    heating_setpoint_c: HeatedTo | None = 20.0
    cooled: bool = True
    cooling_setpoint_c: CooledTo | None = 24.0
    setpoint_schedule: Ref = None
    heating_away: Literal["hold", "setback", "off"] = "hold"
    heating_setback_c: HeatedTo | None = 16.0
    cooling_away: Literal["hold", "setup", "off"] = "hold"
    cooling_setup_c: CooledTo | None = 28.0
    heating_programme: Ref = None
    cooling_programme: Ref = None
    warm_up: Literal["solved", "allowance"] = "solved"
    warm_up_h: WarmUp | None = 2.0
    pull_down_h: WarmUp | None = 1.0
    reheat_w_m2: Annotated[float, Field(ge=0, le=200)] = 11.0
    heating_radiant_share: Annotated[float, Field(ge=0, le=0.9)] = 0.0
    sensing: Literal["air", "operative", "mixed"] = "air"
    radiant_weight: Share = 0.5
    drawn_air: Literal["none", "windows", "extract"] = "none"
    drawn_air_ach: Annotated[float, Field(ge=0, le=100)] = 4.0
    drawn_air_above_c: Annotated[float, Field(ge=0, le=60)] = 23.0
    drawn_air_band_k: Annotated[float, Field(ge=0.1, le=20)] = 2.0
    drawn_air_schedule: Ref = None
    humidity_low: Annotated[float, Field(ge=0, le=0.95)] | None = None
    humidity_high: Annotated[float, Field(ge=0.05, le=1)] | None = None
    humidity_schedule: Ref = None
    yardstick_low_w_m2: NotNegative = 20.0
    yardstick_high_w_m2: NotNegative = 150.0
    warm_limit_c: Annotated[float, Field(ge=15, le=60)] = 28.0
    source: Annotated[str, Field(max_length=200), AfterValidator(plain)] = ""

    @model_validator(mode="after")
    def consistent(self) -> Self:
        low, high, down, up = (
            self.heating_setpoint_c, self.cooling_setpoint_c, self.heating_setback_c, self.cooling_setup_c
        )  # fmt: skip
        if self.heating_away == "setback" and low is not None and down is not None and down > low:
            raise ValueError(f"heating_setback_c {down} is above heating_setpoint_c {low}")
        if self.cooling_away == "setup" and high is not None and up is not None and up < high:
            raise ValueError(f"cooling_setup_c {up} is below cooling_setpoint_c {high}")
        dry, damp = self.humidity_low, self.humidity_high
        if dry is not None and damp is not None and dry > damp:
            raise ValueError(f"humidity_low {dry} is above humidity_high {damp}")
        for what, basis, value, most in (
            ("people_value", self.people_basis == "per_m2", self.people_value, 5.0),
            ("lights_value", self.lights_basis == "w_m2", self.lights_value, 500.0),
            ("equipment_value", self.equipment_basis == "w_m2", self.equipment_value, 5000.0),
        ):
            if basis and value > most:
                raise ValueError(f"{what} {value:g} per floor area is more than {most:g}")
        if self.equipment_latent_share + self.equipment_vented_share > 1:
            raise ValueError("equipment_latent_share and equipment_vented_share add up to more than 1")
        if self.yardstick_low_w_m2 > self.yardstick_high_w_m2:
            raise ValueError("yardstick_low_w_m2 is above yardstick_high_w_m2")
        return self


class UseItemFields(Kind):
    use: Id
    position: Position = 0.0
    name: Name
    basis: PowerBasis = "w"
    value: Annotated[float, Field(ge=0, le=1e6)] = 0.0
    count: Annotated[float, Field(ge=0, le=10_000)] = 1.0
    usage_factor: Share = 1.0
    radiant_share: Share = 0.3
    latent_share: Share = 0.0
    vented_share: Share = 0.0
    schedule: Ref = None

    @model_validator(mode="after")
    def shares(self) -> Self:
        if self.latent_share + self.vented_share > 1:
            raise ValueError("latent_share and vented_share add up to more than 1")
        return self


class LevelFields(SharedFields):
    name: Name
    position: Position = 0.0
    floor_m: Annotated[float, Field(ge=-200, le=1000)] = 0.0
    height_m: Annotated[float, Field(ge=0.5, le=100)] | None = 3.0


class ZoneFields(SharedFields):
    name: Name
    sensor_room: Ref = None


Coordinate = Annotated[float, Field(ge=-100_000, le=100_000)]


class RoomFields(SharedFields, MarginFields):
    number: Annotated[str, Field(min_length=1, max_length=20), AfterValidator(plain)]
    name: Name
    level: Ref = None
    zone: Ref = None
    use: Ref = None
    air_system: Ref = None
    floor_area_m2: Annotated[float, Field(ge=0.1, le=100_000)] | None = None
    height_m: Annotated[float, Field(ge=0.1, le=100)] | None = None
    outline_m: Annotated[list[tuple[Coordinate, Coordinate]], Field(min_length=3, max_length=200)] | None = None
    plan_area_m2: Annotated[float, Field(ge=0, le=1e9)] | None = None
    occupied: bool = True
    people_per_m2: Annotated[float, Field(ge=0, le=5)] | None = None
    lights_w_m2: Annotated[float, Field(ge=0, le=500)] | None = None
    equipment_w_m2: Annotated[float, Field(ge=0, le=5000)] | None = None
    heated: bool | None = None
    cooled: bool | None = None
    heating_capacity_w: Annotated[float, Field(ge=0, le=1e7)] | None = None
    cooling_capacity_w: Annotated[float, Field(ge=0, le=1e7)] | None = None
    sensor_room: Ref = None
    pinned_flow_m3_s: Annotated[float, Field(ge=0.0001, le=500)] | None = None
    second_system: Ref = None
    second_pinned_flow_m3_s: Annotated[float, Field(ge=0.0001, le=500)] | None = None
    offset_m3_s: Annotated[float, Field(ge=-100, le=100)] | None = None

    @model_validator(mode="after")
    def two_systems(self) -> Self:
        if self.second_system is not None and self.second_system == self.air_system:
            raise ValueError("air_system and second_system are the same")
        return self


class ExtractFields(Kind):
    room: Id
    name: Name
    flow_m3_s: Annotated[float, Field(ge=0.001, le=100)]
    lane: Literal["fan", "unit"] = "fan"
    schedule: Ref = None
    above_c: Annotated[float, Field(ge=0, le=60)] | None = None
    fan_pa: Annotated[float, Field(ge=0, le=5000)] = 150.0
    fan_efficiency: Efficiency = 0.5


class TransferFields(Kind):
    room: Id
    source: Ref = None
    flow_m3_s: Annotated[float, Field(ge=0.0001, le=100)] | None = None

    @model_validator(mode="after")
    def two_rooms(self) -> Self:
        if self.source == self.room:
            raise ValueError("source: air cannot come from the room that it flows into")
        return self


class SurfaceFields(Kind):
    room: Id
    name: Name
    role: Literal["outer_wall", "roof", "ground_floor", "inner_wall", "inner_floor"]
    boundary: Literal["outdoors", "ground", "adiabatic", "difference", "fixed", "scheduled", "room"]
    area_m2: Area
    tilt_deg: Tilt = 90.0
    azimuth_deg: Azimuth = 0.0
    assembly: Ref = None
    cooling_difference_k: Difference = 0.0
    heating_difference_k: Difference = 0.0
    fixed_temperature_c: Temperature | None = None
    temperature_schedule: Ref = None
    neighbour: Ref = None
    exposed_perimeter_m: Annotated[float, Field(ge=0, le=10_000)] | None = None
    plan_key: Annotated[str, Field(max_length=80), AfterValidator(plain)] | None = None
    plan_area_m2: Annotated[float, Field(ge=0, le=1e9)] | None = None

    @model_validator(mode="after")
    def fixed(self) -> Self:
        if self.boundary == "fixed" and self.fixed_temperature_c is None:
            raise ValueError("fixed_temperature_c is needed where the boundary is 'fixed'")
        if self.boundary == "scheduled" and self.temperature_schedule is None:
            raise ValueError("temperature_schedule is needed where the boundary is 'scheduled'")
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
    shading: Ref = None


class AirSystemFields(MarginFields):
    name: Name
    supply_c: Annotated[float, Field(ge=-8, le=30)] = 14.0
    winter_supply_c: Annotated[float, Field(ge=0, le=50)] = 20.0
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
    volume: Literal["constant", "variable"] = "constant"
    least_share: Share = 0.3
    reheat: Literal["electric", "none"] = "electric"
    outdoor_only: bool = False
    economizer: Literal[
        "none", "dry-bulb differential", "dry-bulb fixed", "enthalpy differential", "enthalpy fixed"
    ] = "none"
    economizer_limit_c: Annotated[float, Field(ge=-20, le=40)] = 18.0
    economizer_limit_j_kg: Annotated[float, Field(ge=0, le=120_000)] = 50_000.0
    recovery_sensible: Annotated[float, Field(ge=0, le=0.95)] = 0.0
    recovery_latent: Annotated[float, Field(ge=0, le=0.95)] = 0.0
    frost: Literal["none", "turned down", "preheat"] = "turned down"
    frost_limit_c: Annotated[float, Field(ge=-20, le=10)] = 1.0
    humidifier: Literal["none", "steam", "adiabatic"] = "none"
    blow_through: bool = False
    return_fan_pa: Annotated[float, Field(ge=0, le=2000)] = 0.0
    held_pa: Annotated[float, Field(ge=0, le=2000)] = 150.0
    duct_leak_share: Annotated[float, Field(ge=0, le=0.3)] = 0.0
    running: Ref = None
    arrangement: Literal["central", "make-up", "room units"] = "central"
    cools: bool = True
    dry_to_c: Annotated[float, Field(ge=2, le=25)] | None = None
    supply_rule: Literal["rooms", "fixed", "outdoors"] = "rooms"
    reset_cold_c: Annotated[float, Field(ge=-40, le=40)] = 5.0
    reset_warm_c: Annotated[float, Field(ge=-40, le=50)] = 20.0

    @model_validator(mode="after")
    def reset_in_order(self) -> Self:
        if self.reset_cold_c >= self.reset_warm_c:
            raise ValueError(f"reset_cold_c {self.reset_cold_c:g} must be below reset_warm_c {self.reset_warm_c:g}")
        return self


class SectionFields(Kind):
    name: Name
    position: Position = 0.0
    parent: Ref = None
    room: Ref = None
    length_m: Annotated[float, Field(ge=0, le=2000)]
    loss_coefficient: Annotated[float, Field(ge=0, le=1000)] = 0.0
    end_drop_pa: Annotated[float, Field(ge=0, le=500_000)] = 0.0
    pinned_diameter_m: Annotated[float, Field(gt=0.005, le=5)] | None = None


DuctSide = Annotated[float, Field(ge=0.05, le=5)]


class DuctSectionFields(SectionFields):
    air_system: Id
    shape: Literal["round", "rectangular", "flat oval"] = "round"
    height_limit_m: Annotated[float, Field(ge=0.1, le=5)] | None = None
    pinned_width_m: DuctSide | None = None
    pinned_height_m: DuctSide | None = None


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
    flow_rule: Literal["fixed", "outdoors"] = "fixed"
    flow_mild_c: Annotated[float, Field(ge=1, le=95)] = 35.0
    reset_cold_c: Annotated[float, Field(ge=-40, le=40)] = -10.0
    reset_mild_c: Annotated[float, Field(ge=-40, le=50)] = 15.0
    loss_share: Annotated[float, Field(ge=0, le=0.5)] = 0.0
    staging: Literal["in turn", "equal", "fewest", "best"] = "in turn"
    kept_warm: bool = False
    static_height_m: Annotated[float, Field(ge=0, le=200)] = 8.0
    safety_valve_pa: Annotated[float, Field(ge=1e5, le=2.5e6)] = 3e5
    source_content_m3: Annotated[float, Field(ge=0, le=100)] = 0.05

    @model_validator(mode="after")
    def order(self) -> Self:
        if self.reset_cold_c >= self.reset_mild_c:
            raise ValueError(f"reset_cold_c {self.reset_cold_c:g} must be below reset_mild_c {self.reset_mild_c:g}")
        if self.kind == "heating" and self.flow_c <= self.return_c:
            raise ValueError(f"flow_c {self.flow_c} must be above return_c {self.return_c} in a heating circuit")
        if self.kind == "chilled" and self.flow_c >= self.return_c:
            raise ValueError(f"flow_c {self.flow_c} must be below return_c {self.return_c} in a chilled circuit")
        return self


UnitEfficiency = Annotated[float, Field(ge=0.1, le=30)]


class PlantUnitFields(Kind):
    circuit: Id
    name: Name
    position: Position = 0.0
    kind: Literal["boiler", "district", "heat pump", "chiller"] = "boiler"
    capacity_w: Annotated[float, Field(ge=100, le=1e8)] | None = None
    share: Annotated[float, Field(ge=0, le=2)] = 1.0
    standby: bool = False
    fuel: Literal["natural gas", "liquid gas", "heating oil", "wood pellets", "electricity", "district heat"] = (
        "natural gas"
    )
    gross: bool = False
    full_cool: UnitEfficiency = 1.04
    full_warm: UnitEfficiency = 0.97
    part_cool: UnitEfficiency = 1.08
    part_warm: UnitEfficiency = 0.98
    least_part: Share = 0.2
    idle_share: Annotated[float, Field(ge=0, le=0.1)] = 0.005
    running_w: Annotated[float, Field(ge=0, le=1e6)] = 0.0
    resting_w: Annotated[float, Field(ge=0, le=1e5)] = 0.0


class TariffFields(Kind):
    name: Name
    carrier: Literal["natural gas", "liquid gas", "heating oil", "wood pellets", "electricity", "district heat"] = (
        "electricity"
    )
    price_kwh: Annotated[float, Field(ge=0, le=100)] = 0.2
    peak_price_kwh: Annotated[float, Field(ge=0, le=100)] | None = None
    peak_from_h: Annotated[int, Field(ge=0, le=23)] = 8
    peak_to_h: Annotated[int, Field(ge=1, le=24)] = 20
    demand_price_kw_month: Annotated[float, Field(ge=0, le=10_000)] = 0.0
    demand_in_peak: bool = True
    ratchet_share: Share = 0.0
    standing_day: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    levy_kwh: Annotated[float, Field(ge=0, le=100)] = 0.0
    tax_share: Annotated[float, Field(ge=0, le=2)] = 0.0
    emission_kg_kwh: Annotated[float, Field(ge=0, le=5)] = 0.0

    @model_validator(mode="after")
    def peak_in_order(self) -> Self:
        if self.peak_from_h >= self.peak_to_h:
            raise ValueError(f"peak_from_h {self.peak_from_h} must be before peak_to_h {self.peak_to_h}")
        return self


class PriceFields(Kind):
    item: Name
    size: Annotated[str, Field(max_length=80)] = ""
    each: Annotated[float, Field(ge=0, le=1e9)] = 0.0
    per_unit: Annotated[float, Field(ge=0, le=1e9)] = 0.0


class PipeSectionFields(SectionFields):
    circuit: Id
    valve_kv_m3_h: Annotated[float, Field(ge=0.01, le=5000)] | None = None
    air_system: Ref = None

    @model_validator(mode="after")
    def one_end(self) -> Self:
        if self.room is not None and self.air_system is not None:
            raise ValueError("a section ends at a room or at an air_system, not at both")
        return self
