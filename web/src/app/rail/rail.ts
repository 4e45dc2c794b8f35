import type { DayCourses } from "@/results/types";

/** A line of the temperature view; NaN where there is none. */
export interface Line {
  name: string;
  colour: string;
  values: number[];
  dash?: string;
}

/** Temperatures of a room's day, as far as they are known. */
export function temperatures(courses: DayCourses, total: number[]): Line[] {
  const lines: Line[] = [{ name: "outdoors", colour: "var(--faint)", values: courses.outdoor_c, dash: "1 3" }];
  const { control, reference_c } = courses;
  if (control) {
    const known = (values: (number | null)[]) => values.map((value) => value ?? NaN);
    lines.push({ name: "heating set-point", colour: "var(--ember)", values: known(control.low_c), dash: "5 3" });
    lines.push({ name: "cooling set-point", colour: "var(--tide)", values: known(control.high_c), dash: "5 3" });
    lines.push({ name: "operative", colour: "var(--people)", values: control.operative_c });
    lines.push({ name: "air", colour: "var(--ink)", values: control.air_c });
  } else if (reference_c !== null) {
    const air = courses.outdoor_c.map((_, i) => reference_c + (courses.unit === "K" ? (total[i] ?? 0) : 0));
    lines.push({ name: "air", colour: "var(--ink)", values: air });
  }
  return lines.filter((line) => line.values.some((value) => !Number.isNaN(value)));
} // prettier-ignore

export interface Band {
  name: string;
  low: number[];
  high: number[];
}

export interface Pile {
  bands: Band[];
  total: number[];
}

/** Stack signed courses: gains above zero, losses below it; and their sum. */
export function stack(parts: Record<string, number[]>): Pile {
  const length = Object.values(parts)[0]?.length ?? 0;
  const above = new Array<number>(length).fill(0);
  const below = new Array<number>(length).fill(0);
  const total = new Array<number>(length).fill(0);
  const bands = Object.entries(parts).map(([name, values]) => {
    const band: Band = { name, low: [], high: [] };
    values.forEach((value, i) => {
      const base = value >= 0 ? above : below;
      const from = base[i] ?? 0;
      base[i] = from + value;
      total[i] = (total[i] ?? 0) + value;
      band.low.push(from);
      band.high.push(from + value);
    });
    return band;
  });
  return { bands, total };
}
