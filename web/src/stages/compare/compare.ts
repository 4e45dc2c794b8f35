import { client, unwrap, type Schemas } from "@/api/client";

export type Column = Schemas["ColumnOut"];

/** A figure that not all columns share; the first value is the base's. */
export type FigureRow = Schemas["FigureOut"];

export type YearFigures = Schemas["YearFigures"];

/** What is asked first of a building. */
export type Totals = Schemas["TotalsOut"];

export type Comparison = Schemas["ComparisonOut"];

/** The base and some options side by side. */
export async function compared(
  project: string,
  options: string[],
  of: { kind: "room" | "group"; id: string },
): Promise<Comparison | null> {
  const answer = await client.GET("/api/projects/{project_id}/compare", {
    params: { path: { project_id: project }, query: { options, kind: of.kind, subject: of.id } },
  });
  return answer.response.ok ? unwrap(answer) : null;
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
