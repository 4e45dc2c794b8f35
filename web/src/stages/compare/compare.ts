import { client } from "@/api/client";

export interface Column {
  id: string;
  name: string;
  capital: number;
}

/** A figure that not all columns share; the first value is the base's. */
export interface FigureRow {
  group: string;
  kind: string;
  id: string;
  name: string;
  figure: string;
  quantity: string;
  values: (number | null)[];
  /** Size, or when a peak is, by column. */
  notes: (string | null)[] | null;
}

export interface YearFigures {
  stale: boolean;
  delivered_kwh: number;
  uses_kwh: Record<string, number>;
  carriers_kwh: Record<string, number>;
  cost: number;
  emissions_kg: number;
  billed: boolean;
  too_warm_h: number;
  unmet_h: number;
}

/** What is asked first of a building. */
export interface Totals {
  cooling_w: number | null;
  heating_w: number | null;
  supply_m3_s: number;
  coils_w: number;
  fans_w: number;
  pumps_w: number;
  plant_w: number;
  /** By the project's prices; none where it has none. */
  kit_cost: number | null;
}

export interface Comparison {
  columns: Column[];
  years: Record<string, YearFigures | null>;
  rows: FigureRow[];
  totals: Record<string, Totals>;
  /** Figures in which no column differs. */
  same: number;
  categories: string[];
  /** The room or group whose loads are told by source. */
  subject: { kind: string; id: string; name: string };
  parts: Record<string, { cooling: number[]; heating: number[]; month: number; step: number } | null>;
  snags: Record<string, number>;
}

/** The base and some options side by side. */
export async function compared(
  project: string,
  options: string[],
  of: { kind: "room" | "group"; id: string },
): Promise<Comparison | null> {
  const answer = await client.GET("/api/projects/{project_id}/compare", {
    params: { path: { project_id: project }, query: { options, kind: of.kind, subject: of.id } },
  });
  return answer.response.ok ? (answer.data as unknown as Comparison) : null;
}

/** How far a row's columns are from the base, as the largest share; what only one has differs by all of it. */
export function distance(row: FigureRow): number {
  const [base, ...others] = row.values;
  return Math.max(
    0,
    ...others.map((value) => {
      if (value === null || base === null || base === undefined) return value === base ? 0 : 1;
      return Math.abs(value - base) / Math.max(Math.abs(base), Math.abs(value), 1e-12);
    }),
  );
}

/** A change as a signed share of the base, for reading. */
export function change(base: number | null | undefined, value: number | null | undefined): string {
  if (base === null || base === undefined) return value === null || value === undefined ? "" : "new";
  if (value === null || value === undefined) return "gone";
  if (Math.abs(base) < 1e-12) return value === base ? "" : "new";
  const share = (100 * (value - base)) / Math.abs(base);
  if (Math.abs(share) < 0.05) return "=";
  return `${share > 0 ? "+" : "−"}${Math.abs(share).toFixed(Math.abs(share) < 10 ? 1 : 0)} %`;
}
