"""What energy and equipment cost; all prices are the user's own."""

from typing import Annotated, ClassVar, Self

from pydantic import Field, model_validator

from pendrum_core.model.catalogue import BORES, ITEMS, MOVES, PIPE
from projects.fields import Name
from projects.kinds.declare import About, Kind, called, number, options, whole
from projects.kinds.plant import CARRIERS


class TariffFields(Kind):
    """What a carrier costs and emits."""

    about: ClassVar[About] = About(most=100)

    name: Annotated[Name, called("Tariff")]
    carrier: Annotated[str, options("Of", ["electricity", *(one for one in CARRIERS if one != "electricity")])] = (
        "electricity"
    )
    price_kwh: Annotated[float, number("Price", "price_per_kwh", 0, 100)] = 0.2
    peak_price_kwh: Annotated[float, number("Price in peak hours", "price_per_kwh", 0, 100)] | None = None
    peak_from_h: Annotated[int, whole("Peak hours from", 0, 23, "hours")] = 8
    peak_to_h: Annotated[int, whole("Peak hours to", 1, 24, "hours")] = 20
    demand_price_kw_month: Annotated[float, number("Demand charge", "price_per_kw", 0, 10_000)] = 0.0
    demand_in_peak: Annotated[bool, called("Demand in peak hours only")] = True
    ratchet_share: Annotated[float, number("Ratchet", "percent", 0, 1)] = 0.0
    standing_day: Annotated[float, number("Standing charge a day", "money", 0, 100_000)] = 0.0
    levy_kwh: Annotated[float, number("Levy", "price_per_kwh", 0, 100)] = 0.0
    tax_share: Annotated[float, number("Tax", "percent", 0, 2)] = 0.0
    emission_kg_kwh: Annotated[float, number("Emissions", "emission_factor", 0, 5)] = 0.0

    @model_validator(mode="after")
    def peak_in_order(self) -> Self:
        if self.peak_from_h >= self.peak_to_h:
            raise ValueError(f"peak_from_h {self.peak_from_h} must be before peak_to_h {self.peak_to_h}")
        return self


class PriceFields(Kind):
    """What an item of the kit list costs. Without a size it stands for all sizes that have none of their own."""

    item: Annotated[Name, called("Item")]
    size: Annotated[str, Field(max_length=80), called("Size")] = ""
    each: Annotated[float, number("Price each", "money", 0, 1e9)] = 0.0
    per_unit: Annotated[float, number("Price per unit of duty", "money", 0, 1e9)] = 0.0


class KitNoteFields(Kind):
    """What the engineer notes of a piece on the kit list: a tag of its own, a remark."""

    about: ClassVar[About] = About(most=20_000)

    piece: Annotated[str, Field(min_length=1, max_length=200), called("Piece")]
    tag: Annotated[str, Field(max_length=80), called("Own tag")] = ""
    remark: Annotated[str, Field(max_length=1000), called("Remark")] = ""


class CatalogueRowFields(Kind):
    """Something that can be bought, for the kit list to choose from: what covers a duty with the least."""

    about: ClassVar[About] = About(most=20_000)

    item: Annotated[str, options("Item", list(ITEMS))]
    name: Annotated[Name, called("Ordered as")]
    flow_m3_s: Annotated[float, number("Flow", "water_flow", 0, 1000)] = 0.0
    pressure_pa: Annotated[float, number("Head or pressure", "head", 0, 5_000_000)] = 0.0
    output_w: Annotated[float, number("Output", "load", 0, 1e9)] = 0.0
    diameter_m: Annotated[float, number("Inner diameter", "diameter", 0, 5)] = 0.0
    outer_m: Annotated[float, number("Outer diameter", "diameter", 0, 5, hint="Of pipes.")] = 0.0
    weight_kg: Annotated[float, number("Weight", "weight", 0, 1e6)] = 0.0

    @model_validator(mode="after")
    def has_a_rating(self) -> Self:
        if self.item in MOVES and not (self.flow_m3_s > 0.0 and self.pressure_pa > 0.0):
            raise ValueError(f"a {self.item} of a catalogue needs flow_m3_s and pressure_pa above 0")
        if self.item in BORES and self.diameter_m <= 0.0:
            raise ValueError(f"a {self.item} of a catalogue needs diameter_m above 0")
        if self.item == PIPE and self.outer_m < self.diameter_m:
            raise ValueError(f"outer_m {self.outer_m:g} must be at least diameter_m {self.diameter_m:g}")
        if self.item not in (*MOVES, *BORES) and self.output_w <= 0.0:
            raise ValueError(f"a {self.item} of a catalogue needs output_w above 0")
        return self
