"""Answers about the year and its weather."""

from pydantic import Field

from api.told import Celsius, KilowattHours, Months, Told, Watts

_HOUR = "Hour of the year, from 0"


class RoomYear(Told):
    """What a room did over the year."""

    heating_kwh: KilowattHours
    cooling_kwh: KilowattHours
    heating_month_kwh: Months
    cooling_month_kwh: Months
    heating_peak_w: Watts
    heating_peak_hour: int = Field(description=_HOUR)
    cooling_peak_w: Watts
    cooling_peak_hour: int = Field(description=_HOUR)
    served_heating_kwh: KilowattHours
    coldest_c: Celsius
    warmest_c: Celsius
    warmest_hour: int = Field(description=_HOUR)
    too_warm_h: float = Field(description="Occupied hours above the comfort limit")
    occupied_h: float
    unmet_heating_h: float
    unmet_cooling_h: float
    missed_heating_kh: float = Field(description="Kelvin-hours below the heating set-point")
    missed_cooling_kh: float = Field(description="Kelvin-hours above the cooling set-point")
    balance_kwh: dict[str, KilowattHours]
    sources_month_kwh: dict[str, Months]
    fit_error: float = Field(description="Largest error of the reduced responses, as a share")
    adaptive_h: dict[str, list[int]] = Field(
        {}, description="Occupied hours above and below the adaptive limits of EN 16798-1, by category"
    )


class EnergyRow(Told):
    """Energy of one use from one carrier."""

    use: str
    carrier: str
    kwh: KilowattHours
    month_kwh: Months
    peak_w: Watts


class CarrierYear(Told):
    """All energy of one carrier."""

    kwh: KilowattHours
    peak_w: Watts
    peak_hour: int = Field(description=_HOUR)
    month_kwh: Months


class SystemYear(Told):
    """An air system over the year."""

    cooling_kwh: KilowattHours
    heating_kwh: KilowattHours
    fans_kwh: KilowattHours
    short_h: float = Field(description="Hours in which it could not give what was asked")
    balance: float = Field(description="What its heat balance leaves over, as a share of throughput")


class StoreYear(Told):
    """A store of hot water over the year."""

    drawn_kwh: KilowattHours
    charged_kwh: KilowattHours
    solar_kwh: KilowattHours
    lost_kwh: KilowattHours
    missing_kwh: KilowattHours
    coolest_c: Celsius


class CircuitYear(Told):
    """What a circuit carried over the year, with losses and hot water, and what was asked of it and not given."""

    carried_kwh: KilowattHours
    peak_w: Watts
    on_h: int = Field(description="h")
    unmet_kwh: KilowattHours
    unmet_h: int = Field(description="h")
    unmet_peak_w: Watts
    pumps_kwh: KilowattHours | None
    pumps_saved_kwh: KilowattHours | None = Field(
        description="kWh: what another pump of the same duty saves; null where none is asked about"
    )


class UnitYear(Told):
    """A plant unit over the year."""

    circuit: str
    output_kwh: KilowattHours
    peak_w: Watts
    on_h: float
    extracted_kwh: KilowattHours | None = Field(None, description="what it draws from ground or a well, kWh")


class WaterYear(Told):
    """Water that a tower or a humidifier takes over the year."""

    m3: float = Field(description="m³")
    month_m3: list[float] = Field(description="m³ of each month", min_length=12, max_length=12)
    peak_m3_s: float


class YearSummary(Told):
    """The year of a version of the project."""

    version: int
    weather: str
    weather_key: str | None = Field(None, description="Of the file of hours; empty where typical days took its place")
    hours: int
    year: int
    floor_area_m2: float
    energy: list[EnergyRow]
    carriers: dict[str, CarrierYear]
    rooms: dict[str, RoomYear]
    systems: dict[str, SystemYear]
    stores: dict[str, StoreYear] = Field({}, description="None in years that were calculated before there were any")
    units: dict[str, UnitYear]
    water: dict[str, WaterYear] = Field({}, description="By tower/circuit and humidifier/system")
    circuits: dict[str, CircuitYear] = Field({}, description="None in years that an earlier version calculated")
    faults: list[str]


class MonthBill(Told):
    """A bill's month; money in the project's currency."""

    month: int
    kwh: dict[str, KilowattHours]
    peak_kw: float
    billed_kw: float
    energy: float
    demand: float
    standing: float
    levy: float
    tax: float
    total: float


class Bill(Told):
    """What a carrier costs by a tariff; money in the project's currency."""

    tariff: str
    name: str
    carrier: str
    kwh: KilowattHours
    total: float
    emissions_kg: float = Field(description="kg of CO₂ equivalent")
    months: list[MonthBill]


class SeriesOut(Told):
    """One course of the year."""

    name: str
    values: list[float] = Field(description="One value for each hour, SI by the name's ending")


class WeatherAbout(Told):
    """Where a year of hours is from."""

    notes: list[str]
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    year: int
    utc_offset_h: float = Field(description="Hours ahead of UTC")


class MonthRange(Told):
    """Temperatures of a month."""

    month: int
    low_c: Celsius
    mean_c: Celsius
    high_c: Celsius


class Scatter(Told):
    """How often temperature and humidity come together: counts between the edges."""

    temperature_c: list[float] = Field(description="°C, edges")
    humidity_g_kg: list[float] = Field(description="g/kg, edges")
    counts: list[list[int]]


class DerivedMonth(Told):
    """Design conditions of a month."""

    month: int
    dry_bulb_c: Celsius
    wet_bulb_c: Celsius
    range_k: float
    tau_b: float | None = Field(description="Clear-sky optical depth of the beam; null where the file has no sun")
    tau_d: float | None = Field(description="Clear-sky optical depth of the diffuse sun; null where the file has none")


class Derived(Told):
    """Design conditions of a year, at a percentile."""

    percent: float
    months: list[DerivedMonth]
    heating_c: tuple[float, float] = Field(description="°C that is exceeded 99.6 % and 99 % of the hours")
    winter_wind_m_s: float
    dew_point_c: Celsius
    dew_dry_bulb_c: Celsius
    dew_month: int
    mean_c: Celsius
    amplitude_k: float
    coldest_month: int


class WeatherYearOut(Told):
    """The imported year: plots and derived design conditions."""

    name: str
    about: WeatherAbout
    hours: int
    carpet_c: list[list[float]] = Field(description="°C by day and hour")
    ranges: list[MonthRange]
    scatter: Scatter
    derived: Derived


class WeatherFileOut(Told):
    """An imported year that is kept."""

    id: str
    name: str
    year: int
    chosen: bool = Field(description="Whether the project that keeps it goes by it")
    own: bool = Field(description="False: of the option's base")


class NoWeather(Told):
    """There is no imported year."""


class ColumnLayout(Told):
    """A column of a weather file."""

    index: int
    unit: str


class WeatherLayout(Told):
    """How a weather file is read."""

    delimiter: str
    decimal: str
    header_rows: int
    columns: dict[str, ColumnLayout]
    convention: str
    year: int
    missing: str
    time: int | None
    date: int | None = Field(None, description="Column by whose dates the lines are put in order")


class RememberedLayout(Told):
    """A layout under a name."""

    name: str
    mapping: WeatherLayout


class WeatherLook(Told):
    """First lines of a weather file, a guess at its layout, and what may be chosen."""

    kind: str
    delimiter: str
    decimal: str
    header_rows: int
    lines: list[str]
    units: dict[str, list[str]]
    conventions: list[str]
    remembered: list[RememberedLayout]
