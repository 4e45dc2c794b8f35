"""The field in which each finding is mended, so that the interface can put the cursor there."""

from pendrum_core.checks.snag import Snag

_FIELDS = {
    "airflow_short": "pinned_flow_m3_s",
    "area_off_plan": "floor_area_m2",
    "clock_off": "utc_offset_h",
    "season_off": "latitude",
    "starter_site": "name",
    "cooled_without_system": "air_system",
    "floats_on_system": "air_system",
    "buffer_short": "pinned_buffer_m3",
    "circuit_stopped": "stops_c",
    "flow_beyond": "flow_schedule",
    "flow_short": "flow_schedule",
    "people_without_air": "air_system",
    "duplicate_number": "number",
    "duct_beyond_limits": "pinned_diameter_m",
    "pipe_beyond_limits": "pinned_diameter_m",
    "ground_u_too_high": "ground_u_value",
    "no_ground_u": "ground_u_value",
    "dried_not_reheated": "parts",
    "told_far": "told_flow_c",
    "people_share_low": "people_share",
    "return_fan_short": "return_fan_pa",
    "liquid_freezes": "glycol_share",
    "pump_short": "pinned_head_pa",
    "valve_authority": "valve_kv_m3_h",
    "pump_oversized": "pinned_head_pa",
    "end_shares": "end_share",
    "store_short": "volume_l",
    "store_too_cool": "store_c",
    "store_legionella": "store_c",
    "store_above_flow": "store_c",
    "store_on_cold_water": "circuit",
    "leader_missing": "sensor_room",
    "heating_short": "heating_capacity_w",
    "cooling_short": "cooling_capacity_w",
    "heating_never_away": "heating_setback_c",
    "cooling_never_away": "cooling_setup_c",
    "heating_away_wrong_way": "heating_setback_c",
    "cooling_away_wrong_way": "cooling_setup_c",
    "setpoints_crossed": "cooling_setpoint_c",
    "no_set_point_hours": "setpoint_schedule",
    "no_neighbour": "neighbour",
    "one_sided_wall": "neighbour",
    "shared_wall_areas": "area_m2",
    "perimeter_too_high": "area_m2",
    "starting_glazing": "u_value",
    "starting_use": "people_value",
    "transfer_incomplete": "source",
    "transfer_faulty": "flow_m3_s",
    "ventilation_below_need": "pinned_flow_m3_s",
}


def field_of(snag: Snag) -> str | None:
    """The field that mends a finding; None where there is no single one."""
    if snag.kind == "kit":
        return snag.code.removeprefix("kit_")
    return _FIELDS.get(snag.code)
