import type { Schemas } from "@/api/client";

export type WeatherLook = Schemas["WeatherLook"];

/** A line as cells; a quotation mark is a sign like any other. */
export function cellsOf(line: string, delimiter: string): string[] {
  if (delimiter === "space") return line.split(/\s+/).filter(Boolean);
  return line.split(delimiter).map((cell) => cell.trim().replace(/^"|"$/g, ""));
}

export type Layout = Schemas["WeatherLayout"];

export type DerivedMonth = Schemas["DerivedMonth"];

export type Weather = Schemas["WeatherYearOut"];
