"""Uses of rooms, and single pieces of equipment in them."""

from typing import Annotated, ClassVar, Self

from pydantic import model_validator

from projects.fields import Id, Name
from projects.kinds.declare import About, Kind, Ref, called, link, number, options
from projects.kinds.fabric import Source
from projects.kinds.passed_on import (
    AirChanges,
    CooledTo,
    HeatedTo,
    LeastAirChanges,
    PullDown,
    SetBackTo,
    SetUpTo,
    SharedFields,
    WarmUp,
)

_POWER = {"w_m2": "per floor area", "w": "power in the room", "w_per_person": "for each person"}
ACTIVITIES = [
    "seated in an audience",
    "seated, very light work",
    "moderately active office work",
    "standing, light work, walking",
    "walking and standing",
    "sedentary work, eating",
    "light bench work",
    "moderate dancing",
    "light machine work",
    "heavy work",
    "heavy machine work, lifting",
    "athletics",
]


class UseFields(SharedFields):
    """A room use: gains, ventilation, set-points, ordinary yardstick range."""

    about: ClassVar[About] = About(unique="name")

    name: Annotated[Name, called("Name")]
    people_basis: Annotated[
        str,
        options(
            "People entered as",
            {"per_m2": "per floor area", "m2_per_person": "floor area of one", "count": "number in the room"},
        ),
    ] = "per_m2"
    people_value: Annotated[float, number("People", "", 0, 10_000)] = 0.0
    activity: Annotated[str, options("Doing", ACTIVITIES)] | None = None
    person_sensible_w: Annotated[float, number("Each gives, sensible", "power", 0, 600)] = 75.0
    person_latent_w: Annotated[float, number("Each gives, latent", "power", 0, 600)] = 55.0
    people_radiant_share: Annotated[float, number("Radiant share of the sensible part", "percent", 0, 1)] = 0.6
    people_schedule: Annotated[Ref, link("People present as", "schedule")] = None
    person_schedule: Annotated[Ref, link("Sensible heat of one, by", "schedule")] = None
    lights_basis: Annotated[str, options("Lights entered as", _POWER)] = "w_m2"
    lights_value: Annotated[float, number("Lights", "", 0, 1e6)] = 0.0
    task_lights_w_m2: Annotated[float, number("Task lights", "connected_density", 0, 500)] = 0.0
    task_lights_schedule: Annotated[Ref, link("Task lights lit as", "schedule")] = None
    lights_radiant_share: Annotated[float, number("Radiant share of the lights", "percent", 0, 1)] = 0.5
    lights_return_share: Annotated[
        float,
        number(
            "Lights' heat into the return air",
            "percent",
            0,
            0.9,
            hint="Where a unit with return air serves the room; task lights stay in the room.",
        ),
    ] = 0.0
    lights_schedule: Annotated[Ref, link("Lights lit as", "schedule")] = None
    equipment_basis: Annotated[str, options("Equipment entered as", _POWER)] = "w_m2"
    equipment_value: Annotated[float, number("Equipment", "", 0, 1e6)] = 0.0
    equipment_radiant_share: Annotated[float, number("Radiant share of the equipment", "percent", 0, 1)] = 0.3
    equipment_latent_share: Annotated[float, number("Latent share", "percent", 0, 1)] = 0.0
    equipment_vented_share: Annotated[float, number("Share vented straight out", "percent", 0, 1)] = 0.0
    equipment_schedule: Annotated[Ref, link("Equipment running as", "schedule")] = None
    infiltration_basis: Annotated[
        str,
        options(
            "Leaks entered as",
            {"air_changes": "air changes", "envelope": "per outer area", "leakage": "leakage area, wind, stack"},
        ),
    ] = "air_changes"
    infiltration_ach: AirChanges | None = 0.3
    infiltration_m3_s_m2: Annotated[
        float, number("Infiltration per area towards outdoors", "leak_per_area", 0, 0.05)
    ] = 0.0
    leakage_cm2_m2: Annotated[float, number("Leakage area at 4 Pa, per outer area", "leakage", 0, 100)] = 1.0
    hot_water_l_person_day: Annotated[float, number("Hot water, a person and day", "litres", 0, 500)] = 0.0
    hot_water_l_m2_day: Annotated[float, number("Hot water, an area and day", "litres_per_area", 0, 100)] = 0.0
    hot_water_l_room_day: Annotated[float, number("Hot water, a room and day", "litres", 0, 1e5)] = 0.0
    hot_water_c: Annotated[float, number("Hot water at", "temperature", 20, 95)] = 55.0
    air_per_person_m3_s: Annotated[float, number("Outdoor air per person", "airflow_per_person", 0, 0.1)] = 0.0
    air_per_area_m3_s_m2: Annotated[float, number("Outdoor air per area", "airflow_per_area", 0, 0.05)] = 0.0
    outdoor_air_changes: Annotated[float, number("Outdoor air, at least", "air_changes", 0, 100)] = 0.0
    air_effectiveness: Annotated[float, number("Distribution effectiveness Ez", "ratio", 0.3, 1.5)] = 1.0
    minimum_air_changes: LeastAirChanges | None = 0.0
    heated: Annotated[bool, called("Heated")] = True
    heating_setpoint_c: HeatedTo | None = 20.0
    cooled: Annotated[bool, called("Cooled")] = True
    cooling_setpoint_c: CooledTo | None = 24.0
    setpoint_schedule: Annotated[Ref, link("These hold", "schedule", hint="Hours of the set-points.")] = None
    heating_away: Annotated[
        str, options("Heating outside them", {"hold": "held all the same", "setback": "set back", "off": "off"})
    ] = "hold"
    heating_setback_c: SetBackTo | None = 16.0
    cooling_away: Annotated[
        str, options("Cooling outside them", {"hold": "held all the same", "setup": "set up", "off": "off"})
    ] = "hold"
    cooling_setup_c: SetUpTo | None = 28.0
    heating_programme: Annotated[Ref, link("Heating programme instead", "schedule")] = None
    cooling_programme: Annotated[Ref, link("Cooling programme instead", "schedule")] = None
    warm_up: Annotated[
        str, options("Warm-up capacity", {"solved": "calculated for a time", "allowance": "allowance, EN 12831-1"})
    ] = "solved"
    warm_up_h: WarmUp | None = 2.0
    pull_down_h: PullDown | None = 1.0
    reheat_w_m2: Annotated[float, number("Allowance per floor area", "power_per_area", 0, 200)] = 11.0
    heating_radiant_share: Annotated[float, number("Radiant share of its heating", "percent", 0, 0.9)] = 0.0
    sensing: Annotated[
        str,
        options(
            "The sensor feels", {"air": "the air", "operative": "air and surfaces, half each", "mixed": "a mix of both"}
        ),
    ] = "air"
    radiant_weight: Annotated[float, number("Share of the surfaces", "percent", 0, 1)] = 0.5
    drawn_air: Annotated[
        str,
        options(
            "Air drawn in by warmth, by",
            {"none": "nothing", "windows": "windows, while outdoors is cooler", "extract": "extract fan"},
        ),
    ] = "none"
    drawn_air_ach: Annotated[float, number("Fully open", "air_changes", 0, 100)] = 4.0
    drawn_air_above_c: Annotated[float, number("Begins above", "temperature", 0, 60)] = 23.0
    drawn_air_band_k: Annotated[float, number("Fully open above that by", "temperature_difference", 0.1, 20)] = 2.0
    drawn_air_schedule: Annotated[Ref, link("May open", "schedule")] = None
    humidity_low: Annotated[float, number("Humidity not below", "percent", 0, 0.95)] | None = None
    humidity_high: Annotated[float, number("Humidity not above", "percent", 0.05, 1)] | None = None
    humidity_schedule: Annotated[Ref, link("Humidity asked for", "schedule")] = None
    yardstick_low_w_m2: Annotated[float, number("Ordinary cooling, from", "power_per_area", 0, 1e6)] = 20.0
    yardstick_high_w_m2: Annotated[float, number("Ordinary cooling, to", "power_per_area", 0, 1e6)] = 150.0
    warm_limit_c: Annotated[float, number("Too warm above", "temperature", 15, 60)] = 28.0
    source: Source = ""

    @model_validator(mode="after")
    def consistent(self) -> Self:
        low, high, down, up = (
            self.heating_setpoint_c,
            self.cooling_setpoint_c,
            self.heating_setback_c,
            self.cooling_setup_c,
        )
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
    """A piece of equipment or process of a use, apart from its general equipment."""

    about: ClassVar[About] = About(owner="use")

    use: Annotated[Id, link("Use", "use")]
    position: Annotated[float, number("Place in the order", "", 0, 1e6)] = 0.0
    name: Annotated[Name, called("Item")]
    basis: Annotated[str, options("Entered as", _POWER)] = "w"
    value: Annotated[float, number("Each", "", 0, 1e6)] = 0.0
    count: Annotated[float, number("Count", "ratio", 0, 10_000)] = 1.0
    usage_factor: Annotated[float, number("Usage factor", "percent", 0, 1)] = 1.0
    radiant_share: Annotated[float, number("Radiant share", "percent", 0, 1)] = 0.3
    latent_share: Annotated[float, number("Latent share", "percent", 0, 1)] = 0.0
    vented_share: Annotated[float, number("Vented share", "percent", 0, 1)] = 0.0
    schedule: Annotated[Ref, link("Schedule", "schedule")] = None

    @model_validator(mode="after")
    def shares(self) -> Self:
        if self.latent_share + self.vented_share > 1:
            raise ValueError("latent_share and vented_share add up to more than 1")
        return self
