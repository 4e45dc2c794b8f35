// Results of air systems, terminals, the air balance and ducts.

export interface Fan {
  flow_m3_s: number;
  total_pa: number;
  static_pa: number;
  shaft_w: number;
  electrical_w: number;
  motor_w: number | null;
  rise_k: number;
  specific_fan_power_w_m3_s: number;
}

/** Air of a room while all its extracts run, of 20 °C. */
export interface BalanceResult {
  free: "return" | "make-up supply" | "transfer" | "leaks";
  supply_m3_s: number;
  make_up_m3_s: number;
  returned_m3_s: number;
  extract_m3_s: number;
  by_unit_m3_s: number;
  transfer_in_m3_s: number;
  transfer_out_m3_s: number;
  offset_m3_s: number;
  leak_in_m3_s: number;
  leak_out_m3_s: number;
  drawn_m3_s: number;
  surplus_m3_s: number;
}

export interface SystemResult {
  flow_m3_s: number;
  mass_kg_s: number;
  outdoor_air: {
    rule: string;
    intake_m3_s: number;
    uncorrected_m3_s: number;
    zones_m3_s: number;
    efficiency: number;
    critical_room: string;
  };
  outdoor_share: number;
  coil_total_w: number;
  coil_sensible_w: number;
  condensate_kg_s: number;
  coil_month: number;
  coil_step: number;
  winter: {
    return_c: number;
    mixed_c: number;
    leaving_c: number;
    supply_c: number;
    duty_w: number;
    preheat_w: number;
    recovered_w: number;
    water_kg_s: number;
  };
  /** What its heat balances leave open, relative. */
  balance: number;
  reheat_w: number;
  fan: Fan;
  /** Its coils that something feeds. */
  coils: CoilSize[];
  /** Electricity of the return fan at its largest; 0 without one. */
  return_fan_w: number;
  /** What the return ducts warm the air by at the largest load [K]. */
  return_gain_k: number;
  outdoor_gain_k: number;
  terminal_fans_w: number;
  fan_points: { share: number; flow_m3_s: number; total_pa: number; electrical_w: number }[];
  /** Of the fan's flow, by the ducts' class; 0 where it is not worked out. */
  duct_leak_share: number;
  /** What the ducts warm the air by at the largest load [K]. */
  duct_gain_k: number;
  /** Networks of its ducts that are sized, by name: their index runs [Pa]. */
  networks: Partial<
    Record<DuctNetwork, { index_end: string; index_path: string[]; loss_pa: number; leak_share: number }>
  >;
}

/** A coil as it is bought, by its place among the parts that count. */
export interface CoilSize {
  place: number;
  kind: "heating coil" | "cooling coil";
  duty_w: number;
  capacity_w: number;
  face_m2: number;
  face_velocity_m_s: number;
  rows: number;
  pinned: boolean;
  rows_for_duty: number | null;
  rows_for_bypass: number | null;
  bypass_factor: number;
  water_kg_s: number;
  flow_c: number;
  return_c: number;
  refrigerant: boolean;
}

export type DuctNetwork = "supply" | "return" | "outdoor" | "exhaust";

export interface AirflowResult {
  /** Its supply air at the system's largest load. */
  supply_c: number;
  system: string;
  cooling_m3_s: number;
  ventilation_m3_s: number;
  air_changes_m3_s: number;
  design_m3_s: number;
  governing: string;
  largest_kg_s: number;
  least_kg_s: number;
  reheat_w: number;
  served_cooling_w: number;
  served_heating_w: number;
  winter_warmth_w: number;
  over_k: number;
  under_k: number;
  coldest_c: number;
  winter_c: number;
}

export interface SectionResult {
  flow_m3_s: number;
  diameter_m: number;
  size: string;
  sized: boolean;
  within_limits: boolean;
  velocity_m_s: number;
  rate_pa_m: number;
  friction_loss_pa: number;
  fitting_loss_pa: number;
  /** C of each of its fittings, one of each entry. */
  coefficients: number[];
  loss_pa: number;
  balancing_pa: number | null;
  path_pa: number | null;
  /** Of a pipe: of its return, and of the way back from the end of a main with reverse return. */
  return_size?: string;
  /** Of the control valve at its end, where it has a Kv. */
  authority?: number | null;
  /** Kv at which the balancing valve of an end takes what it has to. */
  balancing_kv?: number | null;
}
