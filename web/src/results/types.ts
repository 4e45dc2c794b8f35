// Result records as the server sends them; SI units stand in the field names.
import type { Schemas } from "@/api/client";
import type { BalanceResult, SystemResult, AirflowResult, SectionResult } from "./air";
import type {
  CircuitResult,
  EmitterResult,
  FloorResult,
  CeilingResult,
  FeedResult,
  PlantResult,
  HotWaterResult,
} from "./water";

export type * from "./air";
export type * from "./water";

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
  /** Every duty, its margin on a line of its own, the pin, what is chosen and what is left over. */
  account: KitLine[];
  size: string;
  /** Why this size. */
  why: string;
  count: number;
  power_w: number;
  weight_kg: number | null;
  state: string;
}

/** A line of a piece's account; SI value with its quantity. */
export interface KitLine {
  role: "asked" | "margin" | "pinned" | "chosen" | "left over";
  what: string;
  value: number;
  quantity: string;
  note: string;
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
  floor: FloorResult;
  plant: PlantResult;
  feed: FeedResult;
  ceiling: CeilingResult;
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
