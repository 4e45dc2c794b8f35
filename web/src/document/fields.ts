import labels from "./labels.json";
import references from "./references.json";
import type { Kind } from "./types";

const LABELS: Record<string, Record<string, string>> = labels;
const REFERENCES: Record<string, { references: Record<string, string | undefined> }> = references;

/** Ends of fields that say their unit, and the quantity that is shown for it; the first that fits counts. */
const QUANTITIES: [string, string][] = [
  ["_m3_s_m2", "airflow_per_area"],
  ["_m3_s", "airflow"],
  ["_w_m2k", "u_value"],
  ["_w_m2", "power_per_area"],
  ["_w_mk", "conductivity"],
  ["_m2k_w", "resistance"],
  ["_kg_m3", "density"],
  ["_j_kgk", "specific_heat"],
  ["_per_m2", "people_density"],
  ["_pa_m", "friction_rate"],
  ["wind_m_s", "wind"],
  ["_m_s", "velocity"],
  ["_m2", "area"],
  ["_pa", "pressure"],
  ["_ach", "air_changes"],
  ["_deg", "angle"],
  ["_w", "power"],
  ["_m", "length"],
  ["_c", "temperature"],
  ["_k", "temperature_difference"],
  ["_h", "time"],
  ["_share", "percent"],
  ["_margin", "percent"],
  ["u_value", "u_value"],
];

/** The label of a field, as the server tells it too. */
export function labelOf(kind: string, field: string): string {
  return LABELS[kind]?.[field] ?? field.replaceAll("_", " ");
}

/** The quantity of a field that holds a figure. */
export function quantityOf(field: string): string {
  return QUANTITIES.find(([end]) => field.endsWith(end))?.[1] ?? "ratio";
}

/** The kind of thing that a field points at; nothing where it holds a value. */
export function targetOf(kind: string, field: string): Kind | undefined {
  return REFERENCES[kind]?.references[field] as Kind | undefined;
}
