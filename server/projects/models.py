"""The document: one table per kind of thing an engineer edits, and the journal of all edits.

Ids are short texts made by whoever creates a thing, so that one change set can create a room, its walls and their
windows together. Units stand in the field names.
"""

from django.conf import settings
from django.db import models
from django.db.models import Q


class Project(models.Model):
    """A building project and its project-wide choices."""

    id = models.CharField(primary_key=True, max_length=40)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="projects")
    name = models.CharField(max_length=120)
    version = models.PositiveIntegerField(default=0)
    profile = models.CharField(max_length=12, default="handbook")
    ventilation = models.CharField(max_length=20, default="62.1 full")
    heating_procedure = models.CharField(max_length=12, default="balance")
    heating_margin = models.FloatField(default=0.0)
    winter_gains_share = models.FloatField(default=0.0)
    cooling_margin = models.FloatField(default=0.0)
    units = models.CharField(max_length=2, default="SI")
    year = models.PositiveSmallIntegerField(default=2027)
    holidays = models.JSONField(default=list)
    # For all rooms that neither their own, their use nor their level says otherwise.
    height_m = models.FloatField(default=3.0)
    infiltration_ach = models.FloatField(default=0.3)
    minimum_air_changes = models.FloatField(default=0.0)
    heating_setpoint_c = models.FloatField(default=20.0)
    cooling_setpoint_c = models.FloatField(default=26.0)
    heating_setback_c = models.FloatField(default=16.0)
    cooling_setup_c = models.FloatField(default=30.0)
    warm_up_h = models.FloatField(default=2.0)
    pull_down_h = models.FloatField(default=1.0)
    kit = models.ForeignKey("Kit", null=True, on_delete=models.SET_NULL, related_name="+")
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
        return self.name

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


class Shared(models.Model):
    """What the building, a level, a use and a room may each say; the nearest to the room counts."""

    infiltration_ach = models.FloatField(null=True)
    minimum_air_changes = models.FloatField(null=True)
    heating_setpoint_c = models.FloatField(null=True)
    cooling_setpoint_c = models.FloatField(null=True)
    heating_setback_c = models.FloatField(null=True)
    cooling_setup_c = models.FloatField(null=True)
    warm_up_h = models.FloatField(null=True)
    pull_down_h = models.FloatField(null=True)

    class Meta:
        abstract = True


class Site(Part):
    """Where the building stands, with the winter design day and the ground."""

    name = models.CharField(max_length=120)
    latitude = models.FloatField()
    longitude = models.FloatField()
    utc_offset_h = models.FloatField()
    elevation_m = models.FloatField()
    ground_reflectance = models.FloatField()
    ground_temperature_c = models.FloatField()
    winter_dry_bulb_c = models.FloatField()
    rotation_deg = models.FloatField(default=0.0)
    indoor_winter_humidity = models.FloatField(default=0.45)
    winter_wind_m_s = models.FloatField(default=4.0)
    summer_wind_m_s = models.FloatField(default=3.0)
    terrain = models.CharField(max_length=20, default="suburb")
    shelter_class = models.PositiveSmallIntegerField(default=3)
    skyline = models.JSONField(default=list)
    soil = models.CharField(max_length=8, default="sand")
    ground_source = models.CharField(max_length=12, default="constant")
    ground_depth_m = models.FloatField(default=1.0)
    air_mean_c = models.FloatField(default=10.0)
    air_amplitude_k = models.FloatField(default=10.0)
    coldest_month = models.PositiveSmallIntegerField(default=1)
    cold_water_c = models.FloatField(default=10.0)
    saving_from = models.CharField(max_length=5, null=True)
    saving_to = models.CharField(max_length=5, null=True)
    dehumidification_month = models.PositiveSmallIntegerField(null=True)
    dehumidification_dew_point_c = models.FloatField(null=True)
    dehumidification_dry_bulb_c = models.FloatField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project"], name="one_site_per_project")]


class DesignMonth(Part):
    """Summer design conditions of one month."""

    month = models.PositiveSmallIntegerField()
    dry_bulb_c = models.FloatField()
    wet_bulb_c = models.FloatField()
    range_k = models.FloatField()
    tau_b = models.FloatField()
    tau_d = models.FloatField()
    ground_reflectance = models.FloatField(null=True)
    ground_temperature_c = models.FloatField(null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "month"], name="one_row_per_month"),
            models.CheckConstraint(condition=Q(wet_bulb_c__lte=models.F("dry_bulb_c")), name="wet_bulb_below_dry"),
        ]


class Material(Part):
    """A material, or an air gap with a resistance in place of a conductivity."""

    name = models.CharField(max_length=120)
    conductivity_w_mk = models.FloatField(null=True)
    density_kg_m3 = models.FloatField(default=0.0)
    specific_heat_j_kgk = models.FloatField(default=0.0)
    resistance_m2k_w = models.FloatField(null=True)
    air_gap = models.BooleanField(default=False)
    vapour_factor = models.FloatField(null=True)
    source = models.CharField(max_length=200, default="")


class Assembly(Part):
    """A layered element."""

    name = models.CharField(max_length=120)
    element = models.CharField(max_length=12)
    solar_absorptance = models.FloatField()
    ground_u_value = models.FloatField(null=True)
    extra_u_value = models.FloatField(default=0.0)
    declared_u_value = models.FloatField(null=True)
    mass_class = models.CharField(max_length=12, default="medium")
    mass_place = models.CharField(max_length=12, default="spread")
    ground_procedure = models.CharField(max_length=16, default="declared")
    ground_area_m2 = models.FloatField(null=True)
    ground_perimeter_m = models.FloatField(null=True)
    ground_wall_m = models.FloatField(default=0.3)
    ground_depth_m = models.FloatField(default=0.0)
    edge_resistance_m2k_w = models.FloatField(default=0.0)
    edge_width_m = models.FloatField(default=0.0)
    edge_vertical = models.BooleanField(default=False)
    perimeter_factor_w_mk = models.FloatField(null=True)
    glass_share = models.FloatField(default=0.0)
    glass_g_value = models.FloatField(default=0.6)


class Layer(Part):
    """A layer of an assembly; position 0 is outermost."""

    assembly = models.ForeignKey(Assembly, on_delete=models.CASCADE, related_name="layers")
    position = models.FloatField()
    material = models.ForeignKey(Material, on_delete=models.PROTECT, related_name="+")
    thickness_m = models.FloatField(null=True)
    bridge_material = models.ForeignKey(Material, null=True, on_delete=models.PROTECT, related_name="+")
    bridge_share = models.FloatField(default=0.0)


class Shading(Part):
    """Fixed shading around an opening [m]."""

    name = models.CharField(max_length=120)
    overhang_m = models.FloatField(default=0.0)
    overhang_gap_m = models.FloatField(default=0.0)
    overhang_beyond_m = models.FloatField(default=0.0)
    left_fin_m = models.FloatField(default=0.0)
    right_fin_m = models.FloatField(default=0.0)
    fin_gap_m = models.FloatField(default=0.0)
    fin_beyond_m = models.FloatField(default=0.0)
    reveal_m = models.FloatField(default=0.0)


class Glazing(Part):
    """A window type, with its blind."""

    name = models.CharField(max_length=120)
    u_value = models.FloatField()
    g_value = models.FloatField()
    frame_share = models.FloatField()
    panes = models.PositiveSmallIntegerField()
    basis = models.CharField(max_length=12, default="whole")
    centre_u_value = models.FloatField(default=1.1)
    frame_u_value = models.FloatField(default=1.4)
    edge_psi_w_mk = models.FloatField(default=0.06)
    build_up = models.JSONField(default=list)
    blind = models.CharField(max_length=12, default="none")
    blind_factor = models.FloatField(default=0.5)
    blind_air_share = models.FloatField(default=0.4)
    blind_rule = models.CharField(max_length=12, default="irradiance")
    blind_threshold_w_m2 = models.FloatField(default=200.0)
    blind_schedule = models.ForeignKey("Schedule", null=True, on_delete=models.PROTECT, related_name="+")


class Kit(Part):
    """Fabric kit: which assembly each role gets."""

    name = models.CharField(max_length=120)
    outer_wall = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    roof = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    ground_floor = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    inner_wall = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    inner_floor = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    door = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    window = models.ForeignKey(Glazing, null=True, on_delete=models.PROTECT, related_name="+")


class Schedule(Part):
    """A schedule: day patterns, and which day gets which."""

    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=12)
    patterns = models.JSONField(default=list)
    base = models.CharField(max_length=12, default="a")
    rules = models.JSONField(default=list)
    summer = models.CharField(max_length=12, null=True)
    summer_by_month = models.BooleanField(default=False)
    winter = models.CharField(max_length=12, null=True)


class Use(Part, Shared):
    """A room use: gains, ventilation, set-points, ordinary yardstick range."""

    name = models.CharField(max_length=120)
    people_basis = models.CharField(max_length=16, default="per_m2")
    people_value = models.FloatField()
    activity = models.CharField(max_length=40, null=True)
    person_sensible_w = models.FloatField()
    person_latent_w = models.FloatField()
    people_radiant_share = models.FloatField()
    people_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    person_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    lights_basis = models.CharField(max_length=16, default="w_m2")
    lights_value = models.FloatField()
    task_lights_w_m2 = models.FloatField(default=0.0)
    task_lights_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    lights_radiant_share = models.FloatField()
    lights_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    equipment_basis = models.CharField(max_length=16, default="w_m2")
    equipment_value = models.FloatField()
    equipment_radiant_share = models.FloatField()
    equipment_latent_share = models.FloatField()
    equipment_vented_share = models.FloatField()
    equipment_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    infiltration_basis = models.CharField(max_length=16, default="air_changes")
    infiltration_m3_s_m2 = models.FloatField(default=0.0)
    leakage_cm2_m2 = models.FloatField(default=1.0)
    hot_water_l_person_day = models.FloatField(default=0.0)
    hot_water_l_m2_day = models.FloatField(default=0.0)
    hot_water_c = models.FloatField(default=55.0)
    air_per_person_m3_s = models.FloatField()
    air_per_area_m3_s_m2 = models.FloatField()
    outdoor_air_changes = models.FloatField(default=0.0)
    air_effectiveness = models.FloatField()
    heated = models.BooleanField()
    cooled = models.BooleanField()
    setpoint_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    heating_away = models.CharField(max_length=8, default="hold")
    cooling_away = models.CharField(max_length=8, default="hold")
    heating_programme = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    cooling_programme = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    warm_up = models.CharField(max_length=10, default="solved")
    reheat_w_m2 = models.FloatField(default=11.0)
    heating_radiant_share = models.FloatField(default=0.0)
    sensing = models.CharField(max_length=10, default="air")
    radiant_weight = models.FloatField(default=0.5)
    drawn_air = models.CharField(max_length=8, default="none")
    drawn_air_ach = models.FloatField(default=4.0)
    drawn_air_above_c = models.FloatField(default=23.0)
    drawn_air_band_k = models.FloatField(default=2.0)
    drawn_air_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    humidity_low = models.FloatField(null=True)
    humidity_high = models.FloatField(null=True)
    humidity_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    yardstick_low_w_m2 = models.FloatField()
    yardstick_high_w_m2 = models.FloatField()
    warm_limit_c = models.FloatField(default=28.0)
    source = models.CharField(max_length=200)

    class Meta(Part.Meta):
        abstract = False
        constraints = [
            models.CheckConstraint(
                condition=Q(heating_setpoint_c__lte=models.F("cooling_setpoint_c")), name="use_setpoints_in_order"
            )
        ]


class UseItem(Part):
    """A piece of equipment or process of a use, apart from its general equipment."""

    use = models.ForeignKey(Use, on_delete=models.CASCADE, related_name="items")
    position = models.FloatField(default=0.0)
    name = models.CharField(max_length=120)
    basis = models.CharField(max_length=16)
    value = models.FloatField()
    count = models.FloatField(default=1.0)
    usage_factor = models.FloatField(default=1.0)
    radiant_share = models.FloatField(default=0.3)
    latent_share = models.FloatField(default=0.0)
    vented_share = models.FloatField(default=0.0)
    schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")


class Level(Part, Shared):
    """A storey."""

    name = models.CharField(max_length=120)
    position = models.FloatField()
    floor_m = models.FloatField()
    height_m = models.FloatField(null=True)


class Zone(Part, Shared):
    """Rooms that go together, wherever they are: they may share set-points and a sensor, and their loads are added up."""

    name = models.CharField(max_length=120)
    sensor_room = models.ForeignKey("Room", null=True, on_delete=models.SET_NULL, related_name="+")


class Margins(models.Model):
    """What is added to loads; the nearest of room, air system and project counts."""

    heating_margin = models.FloatField(null=True)
    cooling_margin = models.FloatField(null=True)

    class Meta:
        abstract = True


class AirSystem(Part, Margins):
    """An air system: its unit, and how its terminals are fed."""

    name = models.CharField(max_length=120)
    supply_c = models.FloatField()
    winter_supply_c = models.FloatField()
    bypass_factor = models.FloatField()
    fan_efficiency = models.FloatField()
    motor_efficiency = models.FloatField()
    motor_margin = models.FloatField()
    filter_drop_pa = models.FloatField()
    coil_drop_pa = models.FloatField()
    other_drop_pa = models.FloatField()
    outlet_velocity_m_s = models.FloatField()
    friction_limit_pa_m = models.FloatField()
    velocity_limit_m_s = models.FloatField()
    volume = models.CharField(max_length=8, default="constant")
    least_share = models.FloatField(default=0.3)
    reheat = models.CharField(max_length=8, default="electric")
    outdoor_only = models.BooleanField(default=False)
    economizer = models.CharField(max_length=24, default="none")
    economizer_limit_c = models.FloatField(default=18.0)
    economizer_limit_j_kg = models.FloatField(default=50_000.0)
    recovery_sensible = models.FloatField(default=0.0)
    recovery_latent = models.FloatField(default=0.0)
    frost = models.CharField(max_length=12, default="turned down")
    frost_limit_c = models.FloatField(default=1.0)
    humidifier = models.CharField(max_length=10, default="none")
    blow_through = models.BooleanField(default=False)
    return_fan_pa = models.FloatField(default=0.0)
    held_pa = models.FloatField(default=150.0)
    duct_leak_share = models.FloatField(default=0.0)
    running = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    arrangement = models.CharField(max_length=12, default="central")
    cools = models.BooleanField(default=True)
    dry_to_c = models.FloatField(null=True)
    supply_rule = models.CharField(max_length=10, default="rooms")
    reset_cold_c = models.FloatField(default=5.0)
    reset_warm_c = models.FloatField(default=20.0)


class Room(Part, Shared, Margins):
    """A room. Nullable values are inherited from its zone, use or level; a value here is the room's own."""

    number = models.CharField(max_length=20)
    name = models.CharField(max_length=120)
    level = models.ForeignKey(Level, null=True, on_delete=models.PROTECT, related_name="+")
    zone = models.ForeignKey(Zone, null=True, on_delete=models.SET_NULL, related_name="+")
    use = models.ForeignKey(Use, null=True, on_delete=models.PROTECT, related_name="+")
    air_system = models.ForeignKey(AirSystem, null=True, on_delete=models.SET_NULL, related_name="+")
    floor_area_m2 = models.FloatField(null=True)
    height_m = models.FloatField(null=True)
    outline_m = models.JSONField(null=True)
    plan_area_m2 = models.FloatField(null=True)
    occupied = models.BooleanField(default=True)
    people_per_m2 = models.FloatField(null=True)
    lights_w_m2 = models.FloatField(null=True)
    equipment_w_m2 = models.FloatField(null=True)
    heated = models.BooleanField(null=True)
    cooled = models.BooleanField(null=True)
    heating_capacity_w = models.FloatField(null=True)
    cooling_capacity_w = models.FloatField(null=True)
    # Takes what the first system leaves.
    second_system = models.ForeignKey(AirSystem, null=True, on_delete=models.SET_NULL, related_name="+")
    second_pinned_flow_m3_s = models.FloatField(null=True)
    # To outdoors by its pressure; below nought from there.
    offset_m3_s = models.FloatField(null=True)
    sensor_room = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="+")
    pinned_flow_m3_s = models.FloatField(null=True)


class Extract(Part):
    """Air that leaves a room to outdoors by a fan: a hood, a toilet, a process."""

    room = models.ForeignKey(Room, on_delete=models.CASCADE, related_name="extracts")
    name = models.CharField(max_length=120)
    flow_m3_s = models.FloatField()
    lane = models.CharField(max_length=8, default="fan")
    schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    above_c = models.FloatField(null=True)
    fan_pa = models.FloatField(default=150.0)
    fan_efficiency = models.FloatField(default=0.5)


class Transfer(Part):
    """Air from one room into another; without a flow it is what balances."""

    room = models.ForeignKey(Room, on_delete=models.CASCADE, related_name="transfers")
    source = models.ForeignKey(Room, null=True, on_delete=models.SET_NULL, related_name="+")
    flow_m3_s = models.FloatField(null=True)


class Surface(Part):
    """A face of a room; its openings' area is taken out of `area_m2`."""

    room = models.ForeignKey(Room, on_delete=models.CASCADE, related_name="surfaces")
    name = models.CharField(max_length=120)
    role = models.CharField(max_length=12)
    boundary = models.CharField(max_length=12)
    area_m2 = models.FloatField()
    tilt_deg = models.FloatField()
    azimuth_deg = models.FloatField()
    assembly = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    cooling_difference_k = models.FloatField(default=0.0)
    heating_difference_k = models.FloatField(default=0.0)
    fixed_temperature_c = models.FloatField(null=True)
    neighbour = models.ForeignKey(Room, null=True, on_delete=models.SET_NULL, related_name="+")
    temperature_schedule = models.ForeignKey(Schedule, null=True, on_delete=models.PROTECT, related_name="+")
    exposed_perimeter_m = models.FloatField(null=True)
    plan_key = models.CharField(max_length=80, null=True)
    plan_area_m2 = models.FloatField(null=True)

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(area_m2__gt=0), name="surface_area_positive")]


class Opening(Part):
    """Windows or doors in a surface: `count` of one size."""

    surface = models.ForeignKey(Surface, on_delete=models.CASCADE, related_name="openings")
    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=8)
    count = models.PositiveSmallIntegerField()
    width_m = models.FloatField()
    height_m = models.FloatField()
    glazing = models.ForeignKey(Glazing, null=True, on_delete=models.PROTECT, related_name="+")
    assembly = models.ForeignKey(Assembly, null=True, on_delete=models.PROTECT, related_name="+")
    shading = models.ForeignKey(Shading, null=True, on_delete=models.PROTECT, related_name="+")


class Section(Part):
    """What duct and pipe sections share."""

    name = models.CharField(max_length=120)
    position = models.FloatField()
    length_m = models.FloatField()
    loss_coefficient = models.FloatField()
    end_drop_pa = models.FloatField()
    pinned_diameter_m = models.FloatField(null=True)

    class Meta:
        abstract = True


class DuctSection(Section):
    """A supply duct section; `room` is what it ends at. Width and height are pinned together."""

    shape = models.CharField(max_length=12, default="round")
    height_limit_m = models.FloatField(null=True)
    pinned_width_m = models.FloatField(null=True)
    pinned_height_m = models.FloatField(null=True)

    air_system = models.ForeignKey(AirSystem, on_delete=models.CASCADE, related_name="sections")
    parent = models.ForeignKey("self", null=True, on_delete=models.PROTECT, related_name="+")
    room = models.ForeignKey(Room, null=True, on_delete=models.SET_NULL, related_name="+")


class Circuit(Part):
    """A two-pipe water circuit."""

    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=8)
    flow_c = models.FloatField()
    return_c = models.FloatField()
    friction_limit_pa_m = models.FloatField()
    velocity_limit_m_s = models.FloatField()
    source_drop_pa = models.FloatField()
    pump_margin = models.FloatField()
    pump_efficiency = models.FloatField()
    motor_efficiency = models.FloatField()
    motor_margin = models.FloatField()
    flow_rule = models.CharField(max_length=10, default="fixed")
    flow_mild_c = models.FloatField(default=35.0)
    reset_cold_c = models.FloatField(default=-10.0)
    reset_mild_c = models.FloatField(default=15.0)
    loss_share = models.FloatField(default=0.0)
    staging = models.CharField(max_length=10, default="in turn")
    kept_warm = models.BooleanField(default=False)
    static_height_m = models.FloatField(default=8.0)
    safety_valve_pa = models.FloatField(default=3e5)
    source_content_m3 = models.FloatField(default=0.05)


class PlantUnit(Part):
    """A boiler, district connection, heat pump or chiller of a circuit."""

    circuit = models.ForeignKey(Circuit, on_delete=models.CASCADE, related_name="units")
    position = models.FloatField(default=0.0)
    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=10)
    capacity_w = models.FloatField(null=True)
    share = models.FloatField(default=1.0)
    standby = models.BooleanField(default=False)
    fuel = models.CharField(max_length=16)
    gross = models.BooleanField(default=False)
    full_cool = models.FloatField()
    full_warm = models.FloatField()
    part_cool = models.FloatField()
    part_warm = models.FloatField()
    least_part = models.FloatField(default=0.2)
    idle_share = models.FloatField(default=0.0)
    running_w = models.FloatField(default=0.0)
    resting_w = models.FloatField(default=0.0)


class Tariff(Part):
    """What a carrier costs and emits; prices are the user's own."""

    name = models.CharField(max_length=120)
    carrier = models.CharField(max_length=16)
    price_kwh = models.FloatField()
    peak_price_kwh = models.FloatField(null=True)
    peak_from_h = models.PositiveSmallIntegerField(default=8)
    peak_to_h = models.PositiveSmallIntegerField(default=20)
    demand_price_kw_month = models.FloatField(default=0.0)
    demand_in_peak = models.BooleanField(default=True)
    ratchet_share = models.FloatField(default=0.0)
    standing_day = models.FloatField(default=0.0)
    levy_kwh = models.FloatField(default=0.0)
    tax_share = models.FloatField(default=0.0)
    emission_kg_kwh = models.FloatField(default=0.0)


class Price(Part):
    """What an item of the kit list costs; prices are the user's own. Without a size it stands for all sizes that have none of their own."""

    item = models.CharField(max_length=120)
    size = models.CharField(max_length=80, default="", blank=True)
    each = models.FloatField(default=0.0)
    per_unit = models.FloatField(default=0.0)


class PipeSection(Section):
    """A two-pipe section, flow and return together; it ends at a room's emitter or a system's coil."""

    valve_kv_m3_h = models.FloatField(null=True)

    circuit = models.ForeignKey(Circuit, on_delete=models.CASCADE, related_name="sections")
    parent = models.ForeignKey("self", null=True, on_delete=models.PROTECT, related_name="+")
    room = models.ForeignKey(Room, null=True, on_delete=models.SET_NULL, related_name="+")
    air_system = models.ForeignKey(AirSystem, null=True, on_delete=models.SET_NULL, related_name="+")


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
    project = models.OneToOneField(Project, on_delete=models.CASCADE, related_name="weather")
    name = models.CharField(max_length=120)
    imported = models.DateTimeField(auto_now_add=True)
    about = models.JSONField()
    hours = models.BinaryField()

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
