import type { DuctSection, PipeSection } from "@/document/types";
import type { SectionResult } from "@/results/types";
import type { Column } from "./grid";

const countOf = (fittings: { count: number }[]) => fittings.reduce((sum, part) => sum + part.count, 0);

/** Length of a section's course over the plan [m]; none of one that is not laid on it. */
export function lengthOnPlan(row: { course_m?: number[][] | null }): number | undefined {
  const course = row.course_m ?? [];
  if (course.length < 2) return undefined;
  return course
    .slice(1)
    .reduce((sum, [x, y], at) => sum + Math.hypot(x! - course[at]![0]!, y! - course[at]![1]!), 0);
}

/** What a section ends at. */
const endOf = (row: DuctSection | PipeSection): string | null =>
  row.room ?? ("fed_circuit" in row ? (row.air_system ?? row.fed_circuit) : null) ?? null;

/** Sections beside which another one ends at the same room, unit or circuit: they share what it takes. */
export function sharing<T extends DuctSection | PipeSection>(rows: readonly T[]): Set<string> {
  const ways = new Map<string, string[]>();
  for (const row of rows) {
    const end = endOf(row);
    if (end) ways.set(end, [...(ways.get(end) ?? []), row.id]);
  }
  return new Set([...ways.values()].filter((ids) => ids.length > 1).flat());
}

interface Options<T> {
  depth: (row: T) => number;
  result: (row: T) => SectionResult | undefined;
  prior: (row: T) => SectionResult | undefined;
  siblings: () => T[];
  quantities: { flow: string; rate: string; velocity: string; loss: string };
  explain?: (row: T) => { quantity: string; subject: string } | null;
}

/** Columns that ducts and pipes share; what a section ends at is put between by the caller. */
export function sectionColumns<T extends DuctSection | PipeSection>(
  o: Options<T>,
  ends: Column<T>[],
): Column<T>[] {
  const { flow, rate, velocity, loss } = o.quantities;
  const water = flow === "water_flow";
  /** Of balancing valves; dampers are set by their pressure drop. */
  const setting: Column<T>[] = water
    ? [{ key: "setting", title: "set to Kv", quantity: "ratio", width: 62, value: (r) => o.result(r)?.balancing_kv }]
    : []; // prettier-ignore
  const several = sharing(o.siblings());
  const share: Column<T>[] = several.size
    ? [{ key: "end_share", title: "share", quantity: "percent", width: 46, value: (r) => r.end_share, editable: (r) => several.has(r.id), editor: { type: "number", quantity: "percent", clearable: true } }]
    : []; // prettier-ignore
  return [
    { key: "name", title: "Section", width: 104, value: (r) => r.name, text: (r) => "\u00a0".repeat(Math.min(5, o.depth(r))) + r.name, editor: { type: "text" } },
    { key: "parent", title: "after", width: 62, value: (r) => r.parent, text: (r) => o.siblings().find((s) => s.id === r.parent)?.name ?? "start",
      editor: { type: "choice", clearable: true, choices: o.siblings().map((s) => ({ value: s.id, label: s.name })) } },
    ...ends,
    ...share,
    { key: "length_m", title: "length", quantity: "length", width: 52, value: (r) => r.length_m, editor: { type: "number", quantity: "length" } },
    { key: "on_plan", title: "on plan", quantity: "length", width: 56, value: (r) => lengthOnPlan(r) },
    { key: "fittings", title: "fittings", width: 54, value: (r) => countOf(r.fittings) || null, text: (r) => (countOf(r.fittings) ? String(countOf(r.fittings)) : "–") },
    { key: "loss_coefficient", title: "ΣC, ζ", width: 44, quantity: "ratio", value: (r) => r.loss_coefficient, editor: { type: "number", quantity: "ratio" } },
    { key: "end_drop_pa", title: "end", quantity: loss, width: 44, value: (r) => r.end_drop_pa, editor: { type: "number", quantity: loss } },
    { key: "flow", title: "flow", quantity: flow, width: 66, value: (r) => o.result(r)?.flow_m3_s, prior: (r) => o.prior(r)?.flow_m3_s },
    { key: "size", title: "size", width: 76, value: (r) => o.result(r)?.size ?? "–", text: (r) => (o.result(r) ? `${o.result(r)?.size}${o.result(r)?.sized ? "" : " pin"}` : "–") },
    { key: "pinned_diameter_m", title: "pin", quantity: "diameter", width: 42, value: (r) => r.pinned_diameter_m, editable: (r) => !("shape" in r) || r.shape === "round", editor: { type: "number", quantity: "diameter", clearable: true } },
    { key: "velocity", title: "speed", quantity: velocity, width: 50, value: (r) => o.result(r)?.velocity_m_s },
    { key: "rate", title: "rate", quantity: rate, width: 50, value: (r) => o.result(r)?.rate_pa_m },
    { key: "loss", title: "loss", quantity: loss, width: 66, value: (r) => o.result(r)?.loss_pa, prior: (r) => o.prior(r)?.loss_pa, explain: o.explain },
    { key: "balancing", title: water ? "valve" : "damper", quantity: loss, width: 60, value: (r) => o.result(r)?.balancing_pa },
    ...setting,
  ]; // prettier-ignore
}
