/** States along the air path over one day, per 10-minute step; SI. */
export interface AirDay {
  pressure_pa: number;
  points: Record<
    "outdoors" | "mixed" | "off_coil" | "supply" | "return",
    { temperature_c: number[]; humidity_ratio: number[] }
  >;
  coil_total_w: number[];
  coil_sensible_w: number[];
  heating_w: number[];
  reheat_w: number[];
  /** Saturation and lines of equal relative humidity for the chart, over `temperature_c`. */
  chart: { temperature_c: number[]; relative: Record<string, number[]> };
}
