"""Units that make heat and cold."""

from typing import Annotated, ClassVar, Self

from pydantic import model_validator

from projects.fields import Id, Name
from projects.kinds.declare import About, Kind, Ref, called, link, number, options

CARRIERS = ["natural gas", "liquid gas", "heating oil", "wood pellets", "electricity", "district heat"]
_UNIT_KINDS = [
    "boiler",
    "district",
    "heat pump",
    "ground heat pump",
    "well heat pump",
    "chiller",
    "water-cooled chiller",
]


class PlantUnitFields(Kind):
    """A boiler, district connection, heat pump or chiller of a circuit."""

    about: ClassVar[About] = About(owner="circuit")

    circuit: Annotated[Id, link("Circuit", "circuit")]
    name: Annotated[Name, called("Unit")]
    position: Annotated[float, number("Place in the order", "", 0, 1e6)] = 0.0
    kind: Annotated[str, options("Kind", _UNIT_KINDS)] = "boiler"
    capacity_w: Annotated[float, number("Pinned capacity", "load", 100, 1e8)] | None = None
    share: Annotated[float, number("Share of the load", "percent", 0, 2)] = 1.0
    standby: Annotated[bool, called("Standby")] = False
    fuel: Annotated[str, options("From", CARRIERS)] = "natural gas"
    gross: Annotated[bool, called("On gross value")] = False
    full_cool: Annotated[float, number("Efficiency, full load, cool", "ratio", 0.1, 30)] = 1.04
    full_warm: Annotated[float, number("Efficiency, full load, warm", "ratio", 0.1, 30)] = 0.97
    part_cool: Annotated[float, number("Efficiency, 30 % load, cool", "ratio", 0.1, 30)] = 1.08
    part_warm: Annotated[float, number("Efficiency, 30 % load, warm", "ratio", 0.1, 30)] = 0.98
    other_share: Annotated[
        float,
        number(
            "Output at the other temperature",
            "percent",
            0.2,
            2,
            hint="Of its capacity. Heat pumps: capacity at 7 °C, this at −7 °C outdoors; from the ground 5 and −5 °C of brine, from a "
            "well 15 and 10 °C; chillers: capacity at 35 °C outdoors (30 °C of condenser water), this at 20 °C.",
        ),
    ] = 1.0
    told_flow_c: Annotated[float, number("Efficiencies told at water of", "temperature", -15, 90)] = 35.0
    flow_share_k: Annotated[
        float,
        number(
            "Efficiency lost, a kelvin",
            "percent",
            0,
            0.06,
            hint="Of a heat pump for hotter water than it is told at, of a chiller for colder; gained the other way.",
        ),
    ] = 0.0
    source_cold_c: Annotated[
        float,
        number("Source, coldest", "temperature", -15, 40, hint="Of a heat pump's brine or well, at the end of winter."),
    ] = 0.0
    source_warm_c: Annotated[
        float, number("Source, warmest", "temperature", -15, 40, hint="Half a year later; between both a wave.")
    ] = 10.0
    reverses: Annotated[
        Ref,
        link(
            "Other side of",
            "plant_unit",
            empties=True,
            hint="The heat pump of a heating circuit that this chiller is when it cools: heating goes first, cooling has the time that "
            "is left.",
        ),
    ] = None
    least_part: Annotated[float, number("Least part load", "percent", 0, 1)] = 0.2
    idle_share: Annotated[float, number("Standstill loss", "percent", 0, 0.1)] = 0.005
    running_w: Annotated[float, number("Auxiliaries while running", "electric_power", 0, 1e6)] = 0.0
    resting_w: Annotated[float, number("Auxiliaries at rest", "electric_power", 0, 1e5)] = 0.0

    @model_validator(mode="after")
    def source(self) -> Self:
        if self.source_warm_c < self.source_cold_c:
            raise ValueError(
                f"source_warm_c {self.source_warm_c:g} must not be below source_cold_c {self.source_cold_c:g}"
            )
        return self
