"""The kinds of things in a document: what each may hold, its table, and how they hang together."""

from dataclasses import dataclass
from functools import cached_property
from typing import get_args

from django.apps import apps
from django.db.models import Model

from projects.kinds.air import AirSystemFields, DuctSectionFields
from projects.kinds.connected import ConnectedLoadFields
from projects.kinds.declare import About, Fact, Kind, facts_of
from projects.kinds.fabric import AssemblyFields, GlazingFields, KitFields, LayerFields, MaterialFields, ShadingFields
from projects.kinds.hot_water import HotWaterFields
from projects.kinds.money import CatalogueRowFields, KitNoteFields, PriceFields, TariffFields
from projects.kinds.place import DesignMonthFields, ProjectFields, SiteFields
from projects.kinds.plant import PlantUnitFields
from projects.kinds.rooms import (
    ExtractFields,
    LevelFields,
    OpeningFields,
    RoomFields,
    SurfaceFields,
    TransferFields,
    ZoneFields,
)
from projects.kinds.schedules import ScheduleFields
from projects.kinds.uses import UseFields, UseItemFields
from projects.kinds.water import CircuitFields, PipeSectionFields


@dataclass(frozen=True, eq=False)
class KindInfo:
    """A kind, as the door for edits, the files and the calculations read it."""

    schema: type[Kind]

    @cached_property
    def table(self) -> type[Model]:
        """Where it is stored: the model named as its fields are."""
        found: type[Model] = apps.get_model("projects", self.schema.__name__.removesuffix("Fields"))
        return found

    @cached_property
    def facts(self) -> dict[str, Fact]:
        """What is declared of each field."""
        return facts_of(self.schema)

    @cached_property
    def about(self) -> About:
        """How it hangs together with others."""
        return self.schema.about

    @cached_property
    def columns(self) -> list[str]:
        """Field names."""
        return list(self.facts)

    @cached_property
    def references(self) -> dict[str, str]:
        """Field -> kind of the things it points at."""
        return {name: fact.says.to for name, fact in self.facts.items() if fact.says.to}

    def column(self, name: str) -> str:
        """Database attribute of a field: references are stored by id."""
        return f"{name}_id" if name in self.references else name

    def clearable(self, name: str) -> bool:
        """Whether a reference may be emptied when its target goes."""
        return self.facts[name].says.empties

    @cached_property
    def part_labels(self) -> dict[str, str]:
        """Fields of the parts of its lists, and what they are called."""
        parts = (get_args(self.schema.model_fields[name].annotation) for name in self.columns)
        schemas = [part for found in parts for part in found if isinstance(part, type) and issubclass(part, Kind)]
        return {name: fact.says.label for schema in schemas for name, fact in facts_of(schema).items()}

    def label(self, name: str) -> str:
        """What a field is called; of a place inside a list the list, the number in it, and the part's field."""
        first, *place = name.split(" ")
        called = self.facts[first].says.label if first in self.facts else first.replace("_", " ")
        return " ".join([called, *(self.part_labels.get(step, step).lower() for step in place)])


# In an order in which everything comes after what it points at, but for rooms, which may stand for a sensor of their zone
# and of each other.
_SCHEMAS: dict[str, type[Kind]] = {
    "site": SiteFields,
    "design_month": DesignMonthFields,
    "material": MaterialFields,
    "assembly": AssemblyFields,
    "layer": LayerFields,
    "schedule": ScheduleFields,
    "shading": ShadingFields,
    "glazing": GlazingFields,
    "kit": KitFields,
    "project": ProjectFields,
    "use": UseFields,
    "use_item": UseItemFields,
    "level": LevelFields,
    "zone": ZoneFields,
    "air_system": AirSystemFields,
    "circuit": CircuitFields,
    "hot_water": HotWaterFields,
    "room": RoomFields,
    "extract": ExtractFields,
    "transfer": TransferFields,
    "surface": SurfaceFields,
    "opening": OpeningFields,
    "duct_section": DuctSectionFields,
    "tariff": TariffFields,
    "price": PriceFields,
    "kit_note": KitNoteFields,
    "connected_load": ConnectedLoadFields,
    "catalogue_row": CatalogueRowFields,
    "plant_unit": PlantUnitFields,
    "pipe_section": PipeSectionFields,
}
KINDS: dict[str, KindInfo] = {name: KindInfo(schema) for name, schema in _SCHEMAS.items()}
