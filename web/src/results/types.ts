import type { Schemas } from "@/api/client";
/** Result records as the server sends them; SI units stand in the field names. */

export interface Peak {
  sensible_w: number;
  latent_w: number;
  total_w: number;
  month: number;
  step: number;
  parts_w: number[];
}

/** Figures to compare with those of other buildings; null where there is no such thing. */
export interface Yardsticks {
  cooling_w_m2: number | null;
  heating_w_m2: number;
  area_per_cooling_m2_w: number | null;
  supply_m3_s_m2: number | null;
  air_changes_per_h: number | null;
  supply_per_cooling_m3_s_w: number | null;
  outdoor_share: number | null;
  supply_difference_k: number | null;
}

export interface RoomResult {
  volume_m3: number;
  cooling: Peak | null;
  heating_w: number;
  heating_parts_w: number[];
  /** Losses at the set-point by U-values, for comparison. */
  heating_simple_w: number;
  /** With the room's margins; everything else is without. */
  cooling_with_margin_w: number | null;
  heating_with_margin_w: number;
  floating_peak_c: number | null;
  /** Hours of the worst design day above the limit of its use. */
  too_warm_h: number | null;
  floating_month: number;
  floating_step: number;
  winter_air_c: number;
  /** Of a room whose thermostat decides; null where the air is held at its set-points. */
  control: {
    air_c: number;
    operative_c: number;
    held_heating_w: number;
    /** What the plant gives above that. */
    warm_up_w: number;
    winter_coldest_c: number;
    too_warm: { kelvin: number; hours: number; month: number; step: number } | null;
    too_cold: { kelvin: number; hours: number; step: number } | null;
    cooling_flat_out_h: number;
    heating_flat_out_h: number;
  } | null;
}

/** What the air systems make of rooms together. */
export interface GroupAirResult {
  /** What outdoor air by air systems brings to their coils at the peak; null where none does. */
  outdoor_air: { sensible_w: number; latent_w: number } | null;
  yardsticks: Yardsticks;
}

/** What the air systems make of a room. */
export interface RoomAirResult extends GroupAirResult {
  /** Its hottest air under the air that systems bring; null where it is cooled, or none serves it. */
  warmest_c: number | null;
  /** What its emitter must give. */
  heating_duty_w: number;
  /** Where its use has humidity limits. */
  moisture: {
    highest: number;
    month: number;
    step: number;
    drying_w: number;
    winter_relative: number;
    humidifying_kg_s: number;
    humidifying_w: number;
  } | null;
}

export interface GroupResult {
  name: string;
  kind: "building" | "level" | "zone" | "use" | "air_system";
  room_ids: string[];
  floor_area_m2: number;
  cooling: Peak;
  heating_w: number;
  heating_parts_w: number[];
  heating_simple_w: number;
  sum_of_peaks_w: number;
  /** Every room with its margins; everything else is without. */
  cooling_with_margin_w: number;
  heating_with_margin_w: number;
  diversity: number;
}

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
  /** Of the fan's flow, by the ducts' class; 0 where it is not worked out. */
  duct_leak_share: number;
  /** What the ducts warm the air by at the largest load [K]. */
  duct_gain_k: number;
  index_end: string | null;
  index_path: string[];
}

export interface AirflowResult {
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
}

export interface CircuitResult {
  duty_w: number;
  pump: {
    flow_m3_s: number;
    network_head_pa: number;
    calculated_head_pa: number;
    head_pa: number;
    hydraulic_w: number;
    shaft_w: number;
    electrical_w: number;
    motor_w: number | null;
    efficiency: number;
    motor_efficiency: number;
    count: number;
    standby: number;
    /** Flow where the pump's curve meets the network's, over the design flow. */
    open_share: number;
    part_loads: {
      share: number;
      head_pa: number;
      efficiency: number;
      hydraulic_w: number;
      shaft_w: number;
      electrical_w: number;
    }[];
    curve: { flow_m3_s: number[]; pump_pa: number[]; held_pa: number[]; network_pa: number[] };
  };
  water_content_m3: number;
  /** What insulated pipes lose; null where losses are stated as a share. */
  pipes_lose_w: number | null;
  vessel: {
    volume_m3: number;
    chosen_m3: number | null;
    fill_at_least_pa: number;
    fill_at_most_pa: number;
  } | null;
  index_end: string;
  index_path: string[];
}

export interface EmitterResult {
  duty_w: number;
  /** Which mean excess temperature decides. */
  rule: "logarithmic" | "arithmetic";
  factor: number;
  rating_w: number;
  logarithmic_w: number;
  arithmetic_w: number;
  /** Next of the series; null above it. */
  chosen_w: number | null;
  chosen_return_c: number;
  chosen_flow_kg_s: number;
}

/** A plant at its circuit's largest load. */
export interface PlantResult {
  peak_w: number;
  design_w: number;
  /** 0 is the winter day. */
  month: number;
  step: number;
  working_w: number;
  without_largest_w: number;
  unmet_w: number;
  /** `seasonal`: SCOPon or SEERon of a machine that works against outdoor air. */
  units: Record<
    string,
    { capacity_w: number; output_w: number; taken_w: number; taken_gross_w: number; seasonal: number | null }
  >;
}

/** A store of hot water on its busiest day; courses at every 10 minutes. */
export interface HotWaterResult {
  heat_j_day: number;
  litres_day: number;
  peak_l_s: number;
  needed_l: number;
  volume_l: number;
  charge_w: number;
  standing_w: number;
  loop_w: number;
  losses_w: number;
  short_j: number;
  state: "sized" | "pinned";
  draw_w: number[];
  charge_course_w: number[];
  content_share: number[];
}

export interface AssemblyResult {
  /** Why there are no values; empty where there are. */
  problem: string;
  films_m2k_w: [number, number];
  bridged?: { upper: number; lower: number; total: number };
  line?: {
    temperature_c: number[];
    dew_point_c: number[];
    vapour_pa: number[];
    saturation_pa: number[];
    wet: number[];
  };
  layers_m2k_w?: number[];
  ground?: { problem: string; u_value: number; characteristic_m: number; by_month_c: number[] };
  u_value: number;
  u_without_films: number;
  resistance_m2k_w: number;
  mass_kg_m2: number;
  capacity_j_m2k: number;
  inner_capacity_j_m2k: number;
  decrement_factor: number;
  time_lag_h: number;
}

/** Which pattern each day of the year has (by its place in the schedule), and which the design days take. */
export interface ScheduleResult {
  days: number[];
  summer: string[];
  winter: string | null;
  hours_a_year: number;
  daily_sums: Record<string, number>;
}

export interface UseDay {
  people: number[];
  lights: number[];
  equipment: number[];
  latent: number[];
}

export interface UseResult {
  area_m2: number;
  people_per_m2: number;
  people: number;
  lights_w_m2: number;
  equipment_w_m2: number;
  /** In all rooms of the use, and for each person; null where there is nobody. */
  lights_w: number;
  equipment_w: number;
  lights_w_per_person: number | null;
  equipment_w_per_person: number | null;
  person_sensible_w: number;
  person_latent_w: number;
  days: UseDay[];
  day_of: number[];
  presence: number[][];
  /** [until minute, value] of January to December; null is off. */
  set_points: { heating: [number, number | null][][]; cooling: [number, number | null][][] };
  outdoor_air_m3_s_m2: number;
  hot_water_l_day: number;
  hot_water_j_day: number;
}

export interface EnvelopeLine {
  construction: string;
  category: string;
  towards: string;
  area_m2: number;
  conductance_w_k: number;
  u_value: number;
  /** Between two rooms of the building: nothing that it loses. */
  inside: boolean;
}

export interface EnvelopeResult {
  lines: EnvelopeLine[];
  transmission_w_k: number;
  air_w_k: number;
  capacity_j_k: number;
  time_constant_h: number;
}

export interface GlazingResult {
  centre_u_value: number | null;
  /** Width and height of the standard's window [m]; what follows is of it. */
  window_m: [number, number];
  window_u_value: number;
  surface_m2k_w: number;
  g_glass: number;
  g_diffuse: number;
  g_window: number;
  g_blind: number | null;
  angles_deg: number[];
  factors: number[];
}

export interface Snag {
  level: "stops" | "doubtful" | "note";
  code: string;
  kind: string;
  id: string;
  stage: string;
  sentence: string;
  way_out: string;
  /** The field that mends it, where there is a single one. */
  field: string | null;
  /** What can be done about it at once: a change set, in the words of the document. */
  mend: {
    label: string;
    changes: { op: "set" | "delete"; kind: string; id: string; fields: object }[];
  } | null;
}

export interface KitItem {
  order: number;
  owner: string;
  tag: string;
  item: string;
  serves: string;
  duty: number;
  duty_quantity: string;
  second: number;
  second_quantity: string;
  size: string;
  power_w: number;
  state: string;
}

/** A value with its origin. */
export type Effective = [number | boolean | string | null, string];

export interface ResultKinds {
  room: RoomResult;
  effective: Record<string, Effective>;
  group: GroupResult;
  room_air: RoomAirResult;
  group_air: GroupAirResult;
  air_system: SystemResult;
  airflow: AirflowResult;
  balance: BalanceResult;
  duct_section: SectionResult;
  circuit: CircuitResult;
  pipe_section: SectionResult;
  emitter: EmitterResult;
  plant: PlantResult;
  hot_water: HotWaterResult;
  assembly: AssemblyResult;
  glazing: GlazingResult;
  schedule: ScheduleResult;
  use: UseResult;
  envelope: EnvelopeResult;
  snag: Snag;
  kit: KitItem;
}

export type ResultKind = keyof ResultKinds;

/** Courses of a day as the server sends them. */
export type DayCourses = Schemas["DayOut"];

/** The day that the rail shows: of what, and its courses. */
export interface ShownDay {
  subject: string;
  month: number;
  courses: DayCourses;
}
