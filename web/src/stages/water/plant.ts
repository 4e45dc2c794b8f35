import type { Schemas } from "@/api/client";
import type { PlantUnit } from "@/document/types";

/** What the units of a circuit give over a day, by step. */
export type PlantDay = Schemas["PlantDay"];

export type UnitKind = NonNullable<PlantUnit["kind"]>;

/** Kinds of units a circuit may have, with what a new one is like. */
export const KINDS_OF: Record<"heating" | "chilled", UnitKind[]> = {
  heating: ["boiler", "heat pump", "ground heat pump", "well heat pump", "district"],
  chilled: ["chiller", "water-cooled chiller"],
};

export const NEW_UNIT: Record<UnitKind, Partial<PlantUnit>> = {
  boiler: { fuel: "natural gas", full_cool: 1.04, full_warm: 0.97, part_cool: 1.08, part_warm: 0.98, least_part: 0.2, idle_share: 0.005 },
  "heat pump": { fuel: "electricity", full_cool: 2.4, full_warm: 3.6, part_cool: 2.7, part_warm: 4.2, other_share: 0.75, told_flow_c: 35, flow_share_k: 0.02, least_part: 0.25, idle_share: 0 },
  "ground heat pump": { fuel: "electricity", full_cool: 3.7, full_warm: 4.8, part_cool: 4.0, part_warm: 5.2, other_share: 0.78, told_flow_c: 35, flow_share_k: 0.02, least_part: 0.25, idle_share: 0, source_cold_c: 0, source_warm_c: 10 },
  "well heat pump": { fuel: "electricity", full_cool: 5.3, full_warm: 5.9, part_cool: 5.6, part_warm: 6.3, other_share: 0.88, told_flow_c: 35, flow_share_k: 0.02, least_part: 0.25, idle_share: 0, source_cold_c: 9, source_warm_c: 12 },
  district: { fuel: "district heat", full_cool: 0.99, full_warm: 0.99, part_cool: 0.99, part_warm: 0.99, least_part: 0, idle_share: 0 },
  "water-cooled chiller": { fuel: "electricity", full_cool: 6.2, full_warm: 4.9, part_cool: 7.6, part_warm: 5.8, other_share: 1.05, told_flow_c: 7, flow_share_k: 0.02, least_part: 0.15, idle_share: 0 },
  chiller: { fuel: "electricity", full_cool: 4.3, full_warm: 2.9, part_cool: 5.6, part_warm: 3.6, other_share: 1.1, told_flow_c: 7, flow_share_k: 0.02, least_part: 0.25, idle_share: 0 },
}; // prettier-ignore

/** Kinds that draw from ground or a well. */
export const FROM_GROUND: ReadonlySet<UnitKind> = new Set(["ground heat pump", "well heat pump"]);

/** What the two temperatures are at which efficiencies are told. */
export const TEMPERATURES: Record<UnitKind, [string, number, number]> = {
  boiler: ["return temperature", 30, 60],
  district: ["return temperature", 30, 60],
  "heat pump": ["outdoor air", -7, 7],
  "ground heat pump": ["brine", -5, 5],
  "well heat pump": ["well water", 10, 15],
  chiller: ["outdoor air", 20, 35],
  "water-cooled chiller": ["condenser water", 20, 30],
};
