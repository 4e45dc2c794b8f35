"""Columns of a table of rooms."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Column:
    """A column: field of the room, title, and quantity of the unit registry for numbers.

    `kind` is "text", "number", "yesno" or the kind of thing that is named.
    """

    field: str
    title: str
    kind: str
    quantity: str = ""


_ALL = (
    Column("number", "Number", "text"),
    Column("name", "Name", "text"),
    Column("level", "Level", "level"),
    Column("use", "Use", "use"),
    Column("air_system", "Air system", "air_system"),
    Column("zone", "Zone", "zone"),
    Column("occupied", "Occupied", "yesno"),
    Column("floor_area_m2", "Floor area", "number", "area"),
    Column("height_m", "Height", "number", "length"),
    Column("people_per_m2", "People", "number", "people_density"),
    Column("lights_w_m2", "Lights", "number", "connected_density"),
    Column("equipment_w_m2", "Equipment", "number", "connected_density"),
    Column("infiltration_ach", "Infiltration", "number", "air_changes"),
    Column("minimum_air_changes", "Least air changes", "number", "air_changes"),
    Column("heated", "Heated", "yesno"),
    Column("heating_setpoint_c", "Heated to", "number", "temperature"),
    Column("cooled", "Cooled", "yesno"),
    Column("cooling_setpoint_c", "Cooled to", "number", "temperature"),
    Column("heating_setback_c", "Set back to", "number", "temperature"),
    Column("cooling_setup_c", "Set up to", "number", "temperature"),
    Column("warm_up_h", "Warm-up", "number", "time"),
    Column("pull_down_h", "Pull-down", "number", "minutes"),
    Column("heating_margin", "Heating margin", "number", "percent"),
    Column("cooling_margin", "Cooling margin", "number", "percent"),
    Column("heating_capacity_w", "Heating at most", "number", "load"),
    Column("cooling_capacity_w", "Cooling at most", "number", "load"),
    Column("pinned_flow_m3_s", "Pinned supply", "number", "airflow"),
    Column("offset_m3_s", "Pressure offset", "number", "airflow"),
)
COLUMNS = {column.field: column for column in _ALL}
REFERENCES = ("level", "zone", "use", "air_system")
