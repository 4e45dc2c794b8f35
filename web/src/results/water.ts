// Results of circuits, pipes, emitters, plant and hot water.

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
    /** Of its flow over the sum of what its ends take, each at its largest. */
    diversity: number;
    /** What another pump of the same duty takes at the part loads [W]; none where none is asked about. */
    other_w: number[] | null;
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
  /** Most that rooms get back of what its pipes lose, by room. */
  given_back_w: Record<string, number>;
  /** Largest of what its ends ask while it does not run. */
  stopped_w: number;
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
  /** Of radiant panels, which are bought by length [m]. */
  length_m: number | null;
}

/** A room's heated floor. */
export interface FloorResult {
  duty_w: number;
  gives_w: number;
  area_m2: number;
  k_w_m2k: number;
  excess_k: number;
  flux_w_m2: number;
  limit_w_m2: number;
  surface_c: number;
  needed_flow_c: number;
  pipe_m: number;
  loops: number;
}

/** A room's chilled ceiling [m²] or beams [m]. */
export interface CeilingResult {
  kind: "ceilings" | "beams";
  duty_w: number;
  difference_k: number;
  /** Of an area [W/m²] or a length [W/m] at that difference. */
  capacity: number;
  needed: number;
  /** What the room has place for; null of beams. */
  most: number | null;
  gives_w: number;
}

/** What a circuit takes of the one that feeds it, at design. */
export interface FeedResult {
  source: string;
  connection: "mixed" | "exchanger" | "direct";
  duty_w: number;
  flow_c: number;
  return_c: number;
  source_flow_m3_s: number;
  own_flow_m3_s: number;
  /** Of its flow, from the source; the rest is its own return. */
  share: number;
  ua_w_k: number;
  mean_k: number;
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
  /** Tower or dry cooler of chillers cooled by water, at design. */
  cooler: {
    kind: "tower" | "dry cooler";
    heat_w: number;
    air_c: number;
    cold_c: number;
    hot_c: number;
    flow_m3_s: number;
    fan_w: number;
    pump_w: number;
    /** Of a tower: water that it loses, at most. */
    made_up_m3_s: number;
  } | null;
  /** Lets the smallest unit run for so long at its least output. */
  buffer: { needed_m3: number; volume_m3: number; runs_h: number } | null;
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
