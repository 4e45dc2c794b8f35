"""What fields are called where people read of them: never by the names of columns."""

import re
from collections.abc import Iterable

# Ends that say a unit; the longest that fits goes.
_UNITS = (
    "_m3_s_m2", "_m3_s", "_cm2_m2", "_j_kgk", "_w_m2k", "_w_mk", "_m2k_w", "_kg_m3", "_w_m2", "_per_m2", "_l_person_day",
    "_l_m2_day", "_pa_m", "_m_s", "_m2", "_pa", "_kg", "_deg", "_ach", "_mm", "_w", "_m", "_c", "_k", "_h",
)  # fmt: skip
_NAMED = {
    "people_value": "People", "lights_value": "Lights", "equipment_value": "Equipment", "u_value": "U-value",
    "g_value": "Solar factor", "utc_offset_h": "UTC offset", "tau_b": "Beam optical depth", "tau_d": "Diffuse optical depth",
    "heating_setpoint_c": "Heating set-point", "cooling_setpoint_c": "Cooling set-point", "cooling_setup_c": "Cooling set-up",
    "air_effectiveness": "Zone air distribution effectiveness", "infiltration_ach": "Infiltration", "people_per_m2": "People by area",
    "minimum_air_changes": "Least air changes", "warm_limit_c": "Too warm above", "yardstick_low_w_m2": "Ordinary cooling, from",
    "yardstick_high_w_m2": "Ordinary cooling, to", "pinned_flow_m3_s": "Pinned supply air", "outline_m": "Outline", "neighbour": "Room beyond", "boundary": "What is beyond",
    "floor_m": "Floor level", "declared_u_value": "Declared U-value", "centre_u_value": "U-value of the centre",
    "frame_u_value": "U-value of the frame", "ground_u_value": "U-value to the ground", "extra_u_value": "Allowance for bridges",
    "least_share": "Least flow", "running": "Hours of running", "economizer_limit_c": "Economizer up to", "economizer_limit_j_kg": "Economizer up to (enthalpy)",
    "recovery_sensible": "Heat recovered", "recovery_latent": "Moisture recovered", "frost_limit_c": "Exhaust air not below",
    "return_fan_pa": "Return fan, total pressure", "held_pa": "Pressure held at part flow", "duct_leak_share": "Duct leakage",
    "height_limit_m": "Height at most", "pinned_width_m": "Pinned width", "pinned_height_m": "Pinned height",
    "second_system": "Second air system", "second_pinned_flow_m3_s": "Pinned supply air of the second system",
    "offset_m3_s": "Pressure offset", "lane": "Leaves by", "above_c": "Runs above", "source": "Comes from",
    "arrangement": "Arrangement", "cools": "Cooling coil", "dry_to_c": "Dried to, off the coil", "supply_rule": "Supply temperature",
    "reset_cold_c": "Reset, cold outdoors", "reset_warm_c": "Reset, warm outdoors", "fan_pa": "Fan pressure",
    "flow_rule": "Flow temperature goes", "flow_mild_c": "Flow temperature, mild", "reset_mild_c": "Mild end of the reset, outdoors",
    "loss_share": "Lost on the way", "kept_warm": "Kept warm while off", "safety_valve_pa": "Safety valve",
    "source_content_m3": "Water in the source", "valve_kv_m3_h": "Valve's Kv", "capacity_w": "Pinned capacity", "share": "Share of the load",
    "full_cool": "Efficiency, full load, cool", "full_warm": "Efficiency, full load, warm", "part_cool": "Efficiency, 30 % load, cool",
    "part_warm": "Efficiency, 30 % load, warm", "least_part": "Least part load", "idle_share": "Standstill loss",
    "running_w": "Auxiliaries while running", "resting_w": "Auxiliaries at rest", "gross": "On gross value",
    "each": "Price each", "per_unit": "Price per unit of duty",
    "price_kwh": "Price", "peak_price_kwh": "Price in peak hours", "peak_from_h": "Peak hours from", "peak_to_h": "Peak hours to",
    "demand_price_kw_month": "Demand charge", "demand_in_peak": "Demand in peak hours only", "ratchet_share": "Ratchet",
    "standing_day": "Standing charge", "levy_kwh": "Levy", "tax_share": "Tax", "emission_kg_kwh": "Emissions",
    "edge_psi_w_mk": "Edge ψ", "range_k": "Daily range",
}  # fmt: skip


def label_of(field: str) -> str:
    """The label of a field; a place inside a list keeps its numbers behind it."""
    name, *place = field.split(" ")
    text = _NAMED.get(name)
    if text is None:
        end = next((end for end in sorted(_UNITS, key=len, reverse=True) if name.endswith(end) and name != end), "")
        text = name.removesuffix(end).replace("_", " ").strip()
        text = text[:1].upper() + text[1:]
    return " ".join([text, *place])


def in_words(message: str, fields: Iterable[str]) -> str:
    """A message with the names of fields in it replaced by their labels."""
    for field in sorted(fields, key=len, reverse=True):
        if "_" in field:
            message = re.sub(rf"\b{re.escape(field)}\b", f"“{label_of(field)}”", message)
    return message
