/** Courses of a day as the server sends them. */
export interface DayCourses {
  parts: Record<string, number[]>;
  latent_w: number[];
  outdoor_c: number[];
  outdoor_humidity_ratio: number[];
  reference_c: number | null;
  unit: "W" | "K";
}

export interface Band {
  name: string;
  low: number[];
  high: number[];
}

/** Stack signed courses: gains above zero, losses below it; and their sum. */
export function stack(parts: Record<string, number[]>): { bands: Band[]; total: number[] } {
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
