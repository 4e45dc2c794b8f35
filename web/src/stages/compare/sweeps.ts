import type { Kind } from "@/document/types";

/** A field that can be swept, with a range that makes sense, as stored. */
export interface Sweepable {
  kind: Kind;
  field: string;
  label: string;
  quantity: string;
  from: number;
  to: number;
}

export const SWEEPABLE: Sweepable[] = [
  { kind: "layer", field: "thickness_m", label: "Layer: thickness", quantity: "thickness", from: 0.05, to: 0.3 },
  { kind: "glazing", field: "u_value", label: "Glazing: U-value", quantity: "u_value", from: 0.6, to: 2.8 },
  { kind: "glazing", field: "g_value", label: "Glazing: g-value", quantity: "ratio", from: 0.2, to: 0.7 },
  { kind: "opening", field: "width_m", label: "Opening: width", quantity: "length", from: 0.5, to: 3 },
  { kind: "use", field: "heating_setpoint_c", label: "Use: heating set-point", quantity: "temperature", from: 18, to: 22 },
  { kind: "use", field: "heating_setback_c", label: "Use: night set-back", quantity: "temperature", from: 12, to: 20 },
  { kind: "use", field: "cooling_setpoint_c", label: "Use: cooling set-point", quantity: "temperature", from: 23, to: 27 },
  { kind: "use", field: "lights_value", label: "Use: lights", quantity: "connected_density", from: 4, to: 20 },
  { kind: "room", field: "floor_area_m2", label: "Room: floor area", quantity: "area", from: 10, to: 100 },
  { kind: "air_system", field: "supply_c", label: "Air system: supply temperature", quantity: "temperature", from: 12, to: 18 },
  { kind: "project", field: "infiltration_ach", label: "Project: infiltration", quantity: "air_changes", from: 0.05, to: 0.6 },
]; // prettier-ignore

/** Evenly spread values from one to another, both included. */
export function spread(from: number, to: number, count: number): number[] {
  if (count < 2 || from === to) return [from];
  return Array.from({ length: count }, (_, i) =>
    Number((from + ((to - from) * i) / (count - 1)).toPrecision(8)),
  );
}
