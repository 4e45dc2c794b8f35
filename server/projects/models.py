"""The document: one table per kind of thing an engineer edits, and the journal of all edits.

The columns of a kind follow from the declaration of its fields (`kinds/`); constraints stand here. Ids are short texts made
by whoever creates a thing, so that one change set can create a room, its walls and their windows together.
"""

from django.conf import settings
from django.db import models
from django.db.models import Q

from projects.columns import declared
from projects.kinds.air import AirSystemFields, DuctSectionFields
from projects.kinds.connected import ConnectedLoadFields
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


@declared(ProjectFields)
class Project(models.Model):
    """A building project and its project-wide choices."""

    id = models.CharField(primary_key=True, max_length=40)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="projects")
    version = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    # "open", "archived" or "deleted": what is deleted can be brought back.
    state = models.CharField(max_length=8, default="open")
    # An option is a project whose content is a layer over another one's: what differs, by kind and id (projects/layers.py).
    base = models.ForeignKey("self", null=True, on_delete=models.CASCADE, related_name="options")
    base_version = models.PositiveIntegerField(default=0)  # of the base that the option has caught up with
    layer = models.JSONField(default=dict)
    remarks = models.TextField(default="", blank=True)
    capital = models.FloatField(default=0.0)  # what the option costs more than the base

    def __str__(self) -> str:
        return str(self.name)

    @property
    def home(self) -> "Project":
        """The project that files belong to: the base of an option, or itself."""
        return self.base or self


class Part(models.Model):
    """Base of everything that belongs to a project."""

    id = models.CharField(primary_key=True, max_length=40)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="+")

    class Meta:
        abstract = True

    def __str__(self) -> str:
        return str(getattr(self, "name", self.id))


@declared(SiteFields)
class Site(Part):
    """Where the building stands, with the winter design day and the ground."""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project"], name="one_site_per_project")]


@declared(DesignMonthFields)
class DesignMonth(Part):
    """Summer design conditions of one month."""

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "month"], name="one_row_per_month"),
            models.CheckConstraint(condition=Q(wet_bulb_c__lte=models.F("dry_bulb_c")), name="wet_bulb_below_dry"),
        ]


@declared(MaterialFields)
class Material(Part):
    """A material, or an air gap with a resistance in place of a conductivity."""


@declared(AssemblyFields)
class Assembly(Part):
    """A layered element."""


@declared(LayerFields)
class Layer(Part):
    """A layer of an assembly; position 0 is outermost."""


@declared(ShadingFields)
class Shading(Part):
    """Fixed shading around an opening [m]."""


@declared(GlazingFields)
class Glazing(Part):
    """A window type, with its blind."""


@declared(KitFields)
class Kit(Part):
    """Fabric kit: which assembly each role gets."""


@declared(ScheduleFields)
class Schedule(Part):
    """A schedule: day patterns, and which day gets which."""


@declared(UseFields)
class Use(Part):
    """A room use: gains, ventilation, set-points, ordinary yardstick range."""

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=Q(heating_setpoint_c__lte=models.F("cooling_setpoint_c")), name="use_setpoints_in_order"
            )
        ]


@declared(UseItemFields)
class UseItem(Part):
    """A piece of equipment or process of a use, apart from its general equipment."""


@declared(LevelFields)
class Level(Part):
    """A storey."""


@declared(ZoneFields)
class Zone(Part):
    """Rooms that go together, wherever they are: they may share set-points and a sensor, and their loads are added up."""


@declared(AirSystemFields)
class AirSystem(Part):
    """An air system: its unit, and how its terminals are fed."""


@declared(RoomFields)
class Room(Part):
    """A room."""


@declared(ExtractFields)
class Extract(Part):
    """Air that leaves a room to outdoors by a fan: a hood, a toilet, a process."""


@declared(TransferFields)
class Transfer(Part):
    """Air from one room into another; without a flow it is what balances."""


@declared(SurfaceFields)
class Surface(Part):
    """A face of a room; its openings' area is taken out of `area_m2`."""

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(area_m2__gt=0), name="surface_area_positive")]


@declared(OpeningFields)
class Opening(Part):
    """Windows or doors in a surface: `count` of one size."""


@declared(DuctSectionFields)
class DuctSection(Part):
    """A supply duct section; `room` is what it ends at."""


@declared(CircuitFields)
class Circuit(Part):
    """A two-pipe water circuit."""


@declared(PlantUnitFields)
class PlantUnit(Part):
    """A boiler, district connection, heat pump or chiller of a circuit."""


@declared(TariffFields)
class Tariff(Part):
    """What a carrier costs and emits."""


@declared(ConnectedLoadFields)
class ConnectedLoad(Part):
    """What takes electricity and belongs to no room."""


@declared(PriceFields)
class Price(Part):
    """What an item of the kit list costs."""


@declared(KitNoteFields)
class KitNote(Part):
    """What is noted of a piece on the kit list."""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "piece"], name="one_note_per_piece")]


@declared(CatalogueRowFields)
class CatalogueRow(Part):
    """Something that can be bought, for the kit list to choose from."""


@declared(HotWaterFields)
class HotWater(Part):
    """A store of hot water."""


@declared(PipeSectionFields)
class PipeSection(Part):
    """A two-pipe section, flow and return together; it ends at a room's emitter or a system's coil."""


class JournalEntry(models.Model):
    """One change set: what was done and how to take it back."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="journal")
    version = models.PositiveIntegerField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    label = models.CharField(max_length=160)
    changes = models.JSONField()
    inverse = models.JSONField()
    # "edit", "undo" or "redo"; an undo or redo names the version of the edit it takes back or repeats.
    way = models.CharField(max_length=4, default="edit")
    of_version = models.PositiveIntegerField(null=True)
    # Made by the sender, so that what is sent twice is applied once.
    key = models.CharField(max_length=40, null=True)

    class Meta:
        ordering = ["version"]
        constraints = [
            models.UniqueConstraint(fields=["project", "version"], name="one_entry_per_version"),
            models.UniqueConstraint(fields=["project", "key"], name="one_entry_per_key"),
        ]

    def __str__(self) -> str:
        return f"{self.version}: {self.label}"


class Issue(models.Model):
    """A report that was issued: frozen with its inputs, results and files; never changed afterwards."""

    id = models.CharField(primary_key=True, max_length=40)
    # The base project that numbers are counted in, and what was issued: itself, or an option by its name.
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="issues")
    option = models.CharField(max_length=120, default="", blank=True)
    number = models.PositiveIntegerField()
    at = models.DateTimeField(auto_now_add=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    purpose = models.CharField(max_length=120)
    remarks = models.TextField(default="", blank=True)
    version = models.PositiveIntegerField()
    asked = models.JSONField()  # parts, units, page
    files = models.JSONField()  # by name: SHA-256 and bytes

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_issue_per_number")]

    def __str__(self) -> str:
        return f"Issue {self.number}: {self.purpose}"


class WeatherFile(models.Model):
    """An imported year of hours: plain arrays as the core's reader made them, and how they were read."""

    id = models.CharField(primary_key=True, max_length=40)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="weather_files")
    name = models.CharField(max_length=120)
    # The one that the project's year goes by; none of them: typical days, or what an option's base goes by.
    chosen = models.BooleanField(default=True)
    imported = models.DateTimeField(auto_now_add=True)
    about = models.JSONField()
    hours = models.BinaryField()

    class Meta:
        constraints = [
            models.UniqueConstraint("project", condition=models.Q(chosen=True), name="one_weather_file_is_chosen")
        ]

    def __str__(self) -> str:
        return self.name


class LevelDrawing(models.Model):
    """A picture or lines that lie under the plan of a level, with their place: metres per unit, and the lower left corner."""

    # It stays where its level goes: undo brings the level back, under the same id, and the drawing lies under it again.
    level = models.OneToOneField(
        Level, primary_key=True, on_delete=models.DO_NOTHING, db_constraint=False, related_name="drawing"
    )
    name = models.CharField(max_length=120)
    media_type = models.CharField(max_length=40)
    data = models.BinaryField()
    width = models.FloatField()
    height = models.FloatField()
    m_per_unit = models.FloatField()
    x_m = models.FloatField(default=0.0)
    y_m = models.FloatField(default=0.0)
    # Of lines: names of all layers, and of those that are not shown.
    layers = models.JSONField(default=list)
    hidden_layers = models.JSONField(default=list)

    def __str__(self) -> str:
        return self.name


class WeatherMapping(models.Model):
    """A remembered layout of delimited weather files."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    name = models.CharField(max_length=120)
    mapping = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["owner", "name"], name="one_mapping_per_name")]

    def __str__(self) -> str:
        return self.name
