"""The kinds of things in a document: their table, their schema and how they hang together."""

from dataclasses import dataclass, field

from django.db.models import Model

from projects import models, schemas


@dataclass(frozen=True)
class KindInfo:
    """A kind.

    Attributes:
        table, schema: where it is stored and what it may hold.
        owner: field naming the thing it is part of; it goes when that goes.
        references: field -> kind of the things it points at.
        rehang: field that, when its target goes, takes the target's own value (trees).
        unique: field that no two things of the kind may share.
        single: one per project, made with it, never created or deleted by edits.
        most: how many a project may have.
    """

    table: type[Model]
    schema: type[schemas.Kind]
    owner: str | None = None
    references: dict[str, str] = field(default_factory=dict)
    rehang: str | None = None
    single: bool = False
    unique: str | None = None
    most: int = 2_000

    @property
    def columns(self) -> list[str]:
        """Field names of the schema."""
        return list(self.schema.model_fields)

    def column(self, name: str) -> str:
        """Database attribute of a field: references are stored by id."""
        return f"{name}_id" if name in self.references else name

    def clearable(self, name: str) -> bool:
        """Whether a reference may be emptied when its target goes."""
        return self.table._meta.get_field(name).remote_field.on_delete.__name__ == "SET_NULL"


_USE_SCHEDULES = (
    "people_schedule", "person_schedule", "lights_schedule", "task_lights_schedule", "equipment_schedule",
    "setpoint_schedule", "heating_programme", "cooling_programme", "drawn_air_schedule", "humidity_schedule",
)  # fmt: skip
_KIT_ROLES = ("outer_wall", "roof", "ground_floor", "inner_wall", "inner_floor", "door")

# In an order in which everything comes after what it points at, but for rooms, which may stand for a sensor of their zone
# and of each other.
KINDS: dict[str, KindInfo] = {
    "site": KindInfo(models.Site, schemas.SiteFields, single=True),
    "design_month": KindInfo(models.DesignMonth, schemas.DesignMonthFields, single=True),
    "material": KindInfo(models.Material, schemas.MaterialFields),
    "assembly": KindInfo(models.Assembly, schemas.AssemblyFields),
    "layer": KindInfo(
        models.Layer,
        schemas.LayerFields,
        "assembly",
        {"assembly": "assembly", "material": "material", "bridge_material": "material"},
        most=20_000,
    ),
    "schedule": KindInfo(models.Schedule, schemas.ScheduleFields, unique="name"),
    "shading": KindInfo(models.Shading, schemas.ShadingFields),
    "glazing": KindInfo(models.Glazing, schemas.GlazingFields, references={"blind_schedule": "schedule"}),
    "kit": KindInfo(
        models.Kit, schemas.KitFields, references={**dict.fromkeys(_KIT_ROLES, "assembly"), "window": "glazing"}
    ),
    "project": KindInfo(models.Project, schemas.ProjectFields, references={"kit": "kit"}, single=True),
    "use": KindInfo(models.Use, schemas.UseFields, references=dict.fromkeys(_USE_SCHEDULES, "schedule"), unique="name"),
    "use_item": KindInfo(models.UseItem, schemas.UseItemFields, "use", {"use": "use", "schedule": "schedule"}),
    "level": KindInfo(models.Level, schemas.LevelFields),
    "zone": KindInfo(models.Zone, schemas.ZoneFields, references={"sensor_room": "room"}, unique="name"),
    "air_system": KindInfo(models.AirSystem, schemas.AirSystemFields, references={"running": "schedule"}),
    "room": KindInfo(
        models.Room,
        schemas.RoomFields,
        references={
            "level": "level",
            "zone": "zone",
            "use": "use",
            "air_system": "air_system",
            "second_system": "air_system",
            "sensor_room": "room",
        },
        most=5_000,
    ),
    "extract": KindInfo(
        models.Extract, schemas.ExtractFields, "room", {"room": "room", "schedule": "schedule"}, most=20_000
    ),
    "transfer": KindInfo(
        models.Transfer, schemas.TransferFields, "room", {"room": "room", "source": "room"}, most=20_000
    ),
    "surface": KindInfo(
        models.Surface,
        schemas.SurfaceFields,
        "room",
        {"room": "room", "assembly": "assembly", "temperature_schedule": "schedule", "neighbour": "room"},
        most=60_000,
    ),
    "opening": KindInfo(
        models.Opening,
        schemas.OpeningFields,
        "surface",
        {"surface": "surface", "glazing": "glazing", "assembly": "assembly", "shading": "shading"},
        most=60_000,
    ),
    "duct_section": KindInfo(
        models.DuctSection,
        schemas.DuctSectionFields,
        "air_system",
        {"air_system": "air_system", "parent": "duct_section", "room": "room"},
        rehang="parent",
        most=20_000,
    ),
    "circuit": KindInfo(models.Circuit, schemas.CircuitFields),
    "tariff": KindInfo(models.Tariff, schemas.TariffFields, most=100),
    "price": KindInfo(models.Price, schemas.PriceFields),
    "plant_unit": KindInfo(models.PlantUnit, schemas.PlantUnitFields, "circuit", {"circuit": "circuit"}),
    "pipe_section": KindInfo(
        models.PipeSection,
        schemas.PipeSectionFields,
        "circuit",
        {"circuit": "circuit", "parent": "pipe_section", "room": "room", "air_system": "air_system"},
        rehang="parent",
        most=20_000,
    ),
}
