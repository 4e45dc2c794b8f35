/** Names of the states along an air path; "recovered" and "humidified" only where there is something of the kind. */
export type StateName =
  "outdoors" | "recovered" | "mixed" | "off_coil" | "humidified" | "supply" | "rooms" | "return";

/** States and duties of an air path over one day, per 10-minute step; SI. */
export interface AirDay {
  pressure_pa: number;
  points: Partial<Record<StateName, { temperature_c: number[]; humidity_ratio: number[] }>>;
  flow_kg_s: number[];
  outdoor_kg_s: number[];
  relief_kg_s: number[];
  return_kg_s: number[];
  /** Of the unit's own coil behind the fan. */
  unit_reheat_w: number[];
  economizing: boolean[];
  coil_total_w: number[];
  coil_sensible_w: number[];
  heating_w: number[];
  preheat_w: number[];
  recovered_w: number[];
  reheat_w: number[];
  fan_w: number[];
  fan_pa: number[];
  water_kg_s: number[];
  /** Saturation and lines of equal relative humidity for the chart, over `temperature_c`. */
  chart: { temperature_c: number[]; relative: Record<string, number[]> };
}
