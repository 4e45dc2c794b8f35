import type { Opening, Surface } from "@/document/types";
import { length, type Outline, type Point } from "./outline";

/** A window or door drawn along a side: its two ends. */
export interface Mark {
  ends: [Point, Point];
  door: boolean;
}

/** Azimuth that a side of an outline faces, with the drawing turned by a rotation [deg]. */
function facing([a, b]: [Point, Point], rotation: number): number {
  return (Math.atan2(b[1] - a[1], -(b[0] - a[0])) * 180) / Math.PI + rotation;
}

/** Openings of one width spread evenly along a side. */
function spread([a, b]: [Point, Point], count: number, size: number): [Point, Point][] {
  const whole = length(a, b);
  const share = Math.min(size / whole, 1 / count);
  const point = (t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
  return Array.from({ length: count }, (_, i) => {
    const middle = (i + 0.5) / count;
    return [point(middle - share / 2), point(middle + share / 2)];
  });
}

/** Openings of a surface as marks along the longest side of the room's outline that faces its way. */
export function marksOf(surface: Surface, openings: Opening[], outline: Outline, rotation: number): Mark[] {
  const side = outline
    .map((a, i): [Point, Point] => [a, outline[(i + 1) % outline.length]!])
    .filter((pair) => Math.abs(((facing(pair, rotation) - surface.azimuth_deg! + 540) % 360) - 180) < 0.6)
    .sort((p, q) => length(...q) - length(...p))[0];
  if (!side) return [];
  return openings.flatMap((opening) =>
    spread(side, opening.count!, opening.width_m).map((ends) => ({ ends, door: opening.kind === "door" })),
  );
}
