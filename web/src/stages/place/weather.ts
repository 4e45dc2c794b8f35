export interface WeatherLook {
  kind: "tmy3" | "delimited";
  delimiter: string;
  decimal: string;
  header_rows: number;
  /** First lines, as they are. */
  lines: string[];
  units: Record<string, string[]>;
  conventions: string[];
  remembered: { name: string; mapping: Layout }[];
}

/** A line as cells; a quotation mark is a sign like any other. */
export function cellsOf(line: string, delimiter: string): string[] {
  if (delimiter === "space") return line.split(/\s+/).filter(Boolean);
  return line.split(delimiter).map((cell) => cell.trim().replace(/^"|"$/g, ""));
}

/** Layout of a delimited file, as the server takes it. */
export interface Layout {
  delimiter: string;
  decimal: string;
  header_rows: number;
  columns: Record<string, { index: number; unit: string }>;
  convention: string;
  year: number;
  missing: string;
  time: number | null;
  /** Column by whose dates the lines are put in order. */
  date: number | null;
}

export interface DerivedMonth {
  month: number;
  dry_bulb_c: number;
  wet_bulb_c: number;
  range_k: number;
  tau_b: number | null;
  tau_d: number | null;
}

export interface Weather {
  name: string;
  about: { notes: string[]; latitude_deg: number; longitude_deg: number; elevation_m: number; year: number };
  hours: number;
  carpet_c: number[][];
  ranges: { month: number; low_c: number; mean_c: number; high_c: number }[];
  scatter: { temperature_c: number[]; humidity_g_kg: number[]; counts: number[][] };
  derived: {
    percent: number;
    months: DerivedMonth[];
    heating_c: [number, number];
    winter_wind_m_s: number;
    dew_point_c: number;
    dew_dry_bulb_c: number;
    dew_month: number;
    mean_c: number;
    amplitude_k: number;
    coldest_month: number;
  };
}
