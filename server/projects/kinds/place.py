"""The project as a whole, its site, and its summer design days."""

from calendar import month_name
from typing import Annotated, ClassVar, Self

from pydantic import AfterValidator, Field, model_validator

from projects.fields import MonthDay, Name, plain
from projects.kinds.declare import About, Kind, Ref, called, link, number, options, whole
from projects.kinds.passed_on import BuildingFields

MONTHS = list(month_name)[1:]
Month = Annotated[int, options("Month", {i + 1: name for i, name in enumerate(MONTHS)})]
GroundShare = Annotated[float, number("Ground reflectance", "ratio", 0, 1)]
GroundC = Annotated[float, number("Ground temperature", "temperature", -20, 40)]


class Holiday(Kind):
    """A day of the calendar on which people stay away."""

    date: Annotated[MonthDay, called("Date")]
    name: Annotated[str, Field(max_length=80), AfterValidator(plain), called("Name")] = ""


class ProjectFields(BuildingFields):
    """Choices of the whole building, and what its rooms inherit where nothing nearer says otherwise."""

    about: ClassVar[About] = About(single=True)

    name: Annotated[Name, called("Name")]
    height_m: Annotated[float, number("Height", "length", 0.5, 100)] = 3.0
    profile: Annotated[
        str, options("Course of the day", {"handbook": "handbook profile", "sinusoid": "sinusoid, peak 15:00"})
    ] = "handbook"
    kit: Annotated[Ref, link("Fabric kit", "kit", empties=True)] = None
    ventilation: Annotated[
        str,
        options(
            "Outdoor air of systems",
            {"62.1 full": "62.1-2019, full", "62.1 simplified": "62.1-2019, simplified", "sum": "EN 16798-1, sum"},
        ),
    ] = "62.1 full"
    heating_procedure: Annotated[
        str, options("Heating load", {"balance": "room heat balance", "u_values": "by U-values"})
    ] = "balance"
    heating_margin: Annotated[float, number("Heating margin", "percent", 0, 1, short="on heating")] = 0.0
    winter_gains_share: Annotated[float, number("Gains counted in winter", "percent", 0, 1)] = 0.0
    cooling_margin: Annotated[float, number("Cooling margin", "percent", 0, 1, short="on cooling")] = 0.0
    units: Annotated[str, options("Project opens in", {"SI": "SI", "IP": "inch-pound"})] = "SI"
    year: Annotated[int, whole("Year of the calendar", 1950, 2150)] = 2027
    holidays: Annotated[list[Holiday], Field(max_length=100), called("Holidays")] = []

    @model_validator(mode="after")
    def once(self) -> Self:
        dates = [holiday.date for holiday in self.holidays]
        for date in dates:
            if dates.count(date) > 1:
                raise ValueError(f"holidays: {date} is there twice")
        return self


class SkylinePart(Kind):
    """Something that hides the sky in a range of directions, clockwise."""

    from_deg: Annotated[float, number("From", "angle", 0, 360, open_high=True)]
    to_deg: Annotated[float, number("To", "angle", 0, 360, open_high=True)]
    height_m: Annotated[float, number("Height", "length", 0, 9000)]
    distance_m: Annotated[float, number("Distance", "length", 1, 100_000)]


class SiteFields(Kind):
    """Where the building stands, with the winter design day and the ground."""

    about: ClassVar[About] = About(single=True)

    name: Annotated[Name, called("Name")]
    latitude: Annotated[float, number("Latitude, north +", "ratio", -66, 66)]
    longitude: Annotated[float, number("Longitude, east +", "ratio", -180, 180)]
    utc_offset_h: Annotated[float, number("Time zone, from UTC", "time", -12, 14)]
    elevation_m: Annotated[float, number("Elevation", "elevation", -400, 5000)]
    ground_reflectance: GroundShare = 0.2
    ground_temperature_c: Annotated[float, number("Ground, all year", "temperature", -20, 40)]
    winter_dry_bulb_c: Annotated[float, number("Winter dry-bulb", "temperature", -60, 30)]
    rotation_deg: Annotated[
        float, number("Plan north is turned by", "angle", -360, 360, open_low=True, open_high=True)
    ] = 0.0
    indoor_winter_humidity: Annotated[
        float, number("Indoor humidity then", "percent", 0, 1, hint="Of rooms on the winter design day.")
    ] = 0.45
    winter_wind_m_s: Annotated[float, number("Winter wind, open station", "wind", 0, 40)] = 4.0
    summer_wind_m_s: Annotated[float, number("Summer wind, open station", "wind", 0, 40)] = 3.0
    terrain: Annotated[str, options("Terrain", ["city", "suburb", "open country", "open water"])] = "suburb"
    shelter_class: Annotated[
        int,
        options("Shelter against wind", {1: "1 none", 2: "2 light", 3: "3 moderate", 4: "4 heavy", 5: "5 very heavy"}),
    ] = 3
    skyline: Annotated[list[SkylinePart], Field(max_length=36), called("Skyline")] = []
    soil: Annotated[str, options("Soil", {"clay": "clay or silt", "sand": "sand or gravel", "rock": "rock"})] = "sand"
    ground_source: Annotated[
        str,
        options(
            "Below floors it is",
            {"constant": "one temperature", "months": "entered by month", "formula": "from the air's swing"},
        ),
    ] = "constant"
    ground_depth_m: Annotated[float, number("At a depth of", "length", 0, 20)] = 1.0
    air_mean_c: Annotated[float, number("Mean air of the year", "temperature", -30, 40)] = 10.0
    air_amplitude_k: Annotated[float, number("Half the swing of monthly means", "temperature_difference", 0, 40)] = 10.0
    coldest_month: Annotated[int, options("Coldest month", {i + 1: name for i, name in enumerate(MONTHS)})] = 1
    cold_water_c: Annotated[float, number("Cold water main", "temperature", 0, 40)] = 10.0
    saving_from: Annotated[MonthDay, called("Daylight saving from")] | None = None
    saving_to: Annotated[MonthDay, called("Daylight saving to")] | None = None
    dehumidification_month: Month | None = None
    dehumidification_dew_point_c: Annotated[float, number("Dew point", "temperature", -30, 40)] | None = None
    dehumidification_dry_bulb_c: Annotated[float, number("Coincident dry-bulb", "temperature", -30, 60)] | None = None

    @model_validator(mode="after")
    def in_order(self) -> Self:
        dew, dry = self.dehumidification_dew_point_c, self.dehumidification_dry_bulb_c
        if dew is not None and dry is not None and dew > dry:
            raise ValueError(f"dehumidification_dew_point_c {dew} is above dehumidification_dry_bulb_c {dry}")
        return self


class DesignMonthFields(Kind):
    """Summer design conditions of one month."""

    about: ClassVar[About] = About(single=True)

    month: Annotated[int, options("Month", {i + 1: name for i, name in enumerate(MONTHS)})]
    dry_bulb_c: Annotated[float, number("Dry-bulb", "temperature", -50, 60)]
    wet_bulb_c: Annotated[float, number("Wet-bulb", "temperature", -50, 40)]
    range_k: Annotated[float, number("Daily range", "temperature_difference", 0, 30)]
    tau_b: Annotated[float, number("Beam optical depth", "ratio", 0.05, 2)]
    tau_d: Annotated[float, number("Diffuse optical depth", "ratio", 0.5, 4)]
    ground_reflectance: GroundShare | None = None
    ground_temperature_c: GroundC | None = None

    @model_validator(mode="after")
    def wet_below_dry(self) -> Self:
        if self.wet_bulb_c > self.dry_bulb_c:
            raise ValueError(f"wet_bulb_c {self.wet_bulb_c} is above dry_bulb_c {self.dry_bulb_c}")
        return self
