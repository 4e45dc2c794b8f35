import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "vitest";

const SOURCES = [
  "sun", "people", "lights", "equipment", "walls", "roofs", "floors", "windows", "doors", "neighbours", "infiltration", "outdoor-air",
  "drawn-air", "storage",
]; // prettier-ignore

/** What is left of colours (linear RGB) to eyes of four kinds; Machado, Oliveira and Fernandes (2009), full severity. */
const EYES: Record<string, number[][]> = {
  ordinary: [[1, 0, 0], [0, 1, 0], [0, 0, 1]],
  deuteranopia: [[0.367322, 0.860646, -0.227968], [0.280085, 0.672501, 0.047413], [-0.01182, 0.04294, 0.968881]],
  protanopia: [[0.152286, 1.052583, -0.204868], [0.114503, 0.786281, 0.099216], [-0.003882, -0.048116, 1.051998]],
  tritanopia: [[1.255528, -0.076749, -0.178779], [-0.078411, 0.930809, 0.147602], [0.004733, 0.691367, 0.3039]],
}; // prettier-ignore

const times = (m: number[][], v: number[]) => m.map((row) => row.reduce((sum, x, i) => sum + x * v[i]!, 0));

function linear(hex: string): number[] {
  return [1, 3, 5].map((at) => {
    const c = parseInt(hex.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
}

/** CIE L*a*b* of linear RGB. */
function lab(rgb: number[]): number[] {
  const xyz = times(
    [[0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.072175], [0.0193339, 0.119192, 0.9503041]], // prettier-ignore
    rgb.map((c) => Math.min(1, Math.max(0, c))),
  );
  const f = xyz.map((v, i) => {
    const t = v / [0.95047, 1, 1.08883][i]!;
    return t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116;
  });
  return [116 * f[1]! - 16, 500 * (f[0]! - f[1]!), 200 * (f[1]! - f[2]!)];
}

test("sources are told apart by day and by night, by colour-blind eyes too", () => {
  const css = readFileSync("src/app/tokens.css", "utf8");
  const drawings = css.split("--paper:").slice(1, 3);
  assert.equal(drawings.length, 2);
  for (const drawing of drawings) {
    const colours = SOURCES.map((name) => drawing.match(new RegExp(`--${name}: (#[0-9a-f]{6})`))?.[1]);
    assert.ok(colours.every(Boolean));
    for (const [eye, matrix] of Object.entries(EYES)) {
      const seen = colours.map((hex) => lab(times(matrix, linear(hex!))));
      for (let i = 0; i < seen.length; i += 1) {
        for (let j = 0; j < i; j += 1) {
          const apart = Math.hypot(...seen[i]!.map((v, k) => v - seen[j]![k]!));
          assert.ok(apart > 7.4, `${SOURCES[i]} and ${SOURCES[j]} to ${eye}: ${apart.toFixed(1)}`);
        }
      }
    }
  }
});
