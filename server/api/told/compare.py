"""Answers about options and sweeps."""

from typing import Any, Literal

from pydantic import Field

from api.told import Celsius, KilowattHours, Told, Watts


class OptionOut(Told):
    """An option: a layer over the base."""

    id: str
    name: str
    remarks: str
    capital: float = Field(description="What it costs more than the base, in the project's currency")
    differences: int = Field(description="In how many fields and things it differs")


class BaseOut(Told):
    """A project on which options stand."""

    id: str
    name: str


class OptionsOut(Told):
    """The base and its options."""

    base: BaseOut
    options: list[OptionOut]


class DifferenceOut(Told):
    """A field or thing in which an option differs from its base; values as they are stored, SI."""

    kind: str
    id: str
    op: Literal["set", "made", "gone"]
    field: str
    label: str
    name: str
    base: Any = Field(description="What the base has now")
    value: Any = Field(description="What the option has")
    was: Any = Field(description="What the base had when the option's value was entered")
    conflict: bool = Field(description="Whether the base has changed it since")


class DifferencesOut(Told):
    """All differences of a version of an option."""

    version: int
    differences: list[DifferenceOut]


class ColumnOut(Told):
    """A document that is compared."""

    id: str
    name: str
    capital: float = Field(description="What it costs more than the base, in the project's currency")


class FigureOut(Told):
    """A figure that not all columns share; the first value is the base's."""

    group: str
    kind: str
    id: str
    name: str
    figure: str
    quantity: str = Field(description="Key of the unit in which it is shown; values are SI")
    values: list[float | None]
    notes: list[str | None] | None = Field(description="Size, or when a peak is, by column")


class YearFigures(Told):
    """What a year came to."""

    stale: bool = Field(description="Whether the document has changed since the year was calculated")
    delivered_kwh: KilowattHours
    uses_kwh: dict[str, KilowattHours]
    loose_kwh: float = Field(description="kWh of heat and cold that no plant gives yet")
    carriers_kwh: dict[str, KilowattHours]
    cost: float = Field(description="All bills, in the project's currency")
    emissions_kg: float = Field(description="kg of CO₂ equivalent")
    billed: bool = Field(description="Whether there are tariffs")
    too_warm_h: float = Field(description="Hours of all rooms above their comfort limit")
    unmet_h: float = Field(description="Hours of all rooms outside their set-points")


class YearPoint(Told):
    """One year of many."""

    task: str
    option: str
    option_name: str
    weather: str = Field(description="Id of its file; empty for typical days")
    weather_name: str
    value: float | None = Field(description="Of the field that is tried, in SI; null where there is none")
    state: Literal["waiting", "running", "done", "failed", "cancelled"]
    progress: float = Field(description="share that is done, 0 to 1")
    fault: str = Field(description="Why it failed")
    stale: bool = Field(description="Whether its option has changed since")
    figures: YearFigures | None


class TriedField(Told):
    """What values are tried of."""

    kind: str
    id: str
    field: str


class YearsOut(Told):
    """The years that were asked for last."""

    field: TriedField | None
    points: list[YearPoint]


class TotalsOut(Told):
    """What is asked first of a building."""

    cooling_w: Watts | None
    heating_w: Watts | None
    supply_m3_s: float = Field(description="m³/s of all air systems")
    coils_w: Watts = Field(description="W of all cooling coils")
    fans_w: Watts = Field(description="W of electricity of all fans")
    pumps_w: Watts = Field(description="W of electricity of all pumps")
    plant_w: Watts
    kit_cost: float | None = Field(description="By the project's prices; null where it has none")


class SubjectOut(Told):
    """The room or group whose loads are told by source."""

    kind: str
    id: str
    name: str


class PartsOut(Told):
    """Loads by source, in the order of `categories`, and when the cooling peak is."""

    cooling: list[float] = Field(description="W")
    heating: list[float] = Field(description="W")
    month: int
    step: int


class ComparisonOut(Told):
    """The base and some of its options side by side, by column id."""

    columns: list[ColumnOut]
    years: dict[str, YearFigures | None]
    rows: list[FigureOut]
    totals: dict[str, TotalsOut]
    same: int = Field(description="Figures in which no column differs")
    categories: list[str]
    subject: SubjectOut
    parts: dict[str, PartsOut | None]
    snags: dict[str, int]


class PointOut(Told):
    """The building at one value, or pair of values, of a sweep."""

    value: float = Field(description="Of the swept field, as it is stored, SI")
    other: float | None
    cooling_w: Watts | None
    heating_w: Watts | None
    airflow_m3_s: float = Field(description="m³/s of all air systems")
    coils_w: Watts
    fans_w: Watts
    pumps_w: Watts
    warmest_c: Celsius | None = Field(description="°C of the warmest room without cooling; null where there is none")


class SweepOut(Told):
    """Points of a sweep."""

    points: list[PointOut]
