// What screens make of figures before they are drawn: comparisons, sweeps, stacks, trees, courses.
import { expect, test } from "vitest";
import { inOrder } from "../src/parts/sections";
import { change, distance, type FigureRow } from "../src/stages/compare/compare";
import { spread, SWEEPABLE } from "../src/stages/compare/sweeps";
import { isLoose, toneOf } from "../src/stages/year/uses";
import { quantityOf } from "../src/stages/year/courses";
import { stack, temperatures } from "../src/app/rail/rail";
import { declaredField } from "../src/document/fields";
import { colourOf, source } from "../src/parts/sources";
import type { DuctSection } from "../src/document/types";

const row = (...values: (number | null)[]) => ({ values }) as FigureRow;

test("how far columns are from the base", () => {
  expect(distance(row(100, 100))).toBe(0);
  expect(distance(row(100, 75))).toBeCloseTo(0.25);
  expect(distance(row(100, 75, 200))).toBeCloseTo(0.5);
  expect(distance(row(null, 5))).toBe(1);
  expect(distance(row(null, null))).toBe(0);
  expect(distance(row(0, 0))).toBe(0);
});

test("a change is a signed share, or says what there was", () => {
  expect(change(200, 250)).toBe("+25 %");
  expect(change(200, 193)).toBe("−3.5 %");
  expect(change(200, 200.01)).toBe("=");
  expect(change(null, 3)).toBe("new");
  expect(change(3, null)).toBe("gone");
  expect(change(null, null)).toBe("");
  expect(change(0, 3)).toBe("new");
});

test("values of a sweep stand evenly, both ends included", () => {
  expect(spread(18, 22, 5)).toEqual([18, 19, 20, 21, 22]);
  expect(spread(0.1, 0.3, 3)).toEqual([0.1, 0.2, 0.3]);
  expect(spread(5, 5, 4)).toEqual([5]);
  expect(spread(1, 9, 1)).toEqual([1]);
});

test("what can be swept is declared, with a range inside its own", () => {
  for (const one of SWEEPABLE) {
    const it = declaredField(one.kind, one.field)!;
    expect(it, `${one.kind}.${one.field}`).toBeTruthy();
    expect(one.from).toBeGreaterThanOrEqual(it.low ?? -Infinity);
    expect(one.to).toBeLessThanOrEqual(it.high ?? Infinity);
    expect(one.from).toBeLessThan(one.to);
  }
});

test("gains are stacked above nought, losses below it", () => {
  const pile = stack({ sun: [10, 0], walls: [-4, 5], lights: [3, 2], storage: [-1, -6] });
  expect(pile.total).toEqual([8, 1]);
  const band = (name: string) => pile.bands.find((one) => one.name === name)!;
  expect(band("lights")).toEqual({ name: "lights", low: [10, 5], high: [13, 7] });
  expect(band("storage")).toEqual({ name: "storage", low: [-4, 0], high: [-5, -6] });
  expect(stack({})).toEqual({ bands: [], total: [] });
});

test("temperatures of a day: held, floating, under a thermostat", () => {
  const day = { outdoor_c: [20, 30], outdoor_humidity_ratio: [], parts: {}, latent_w: [] };
  const names = (courses: object, total: number[]) => temperatures({ ...day, ...courses } as never, total);
  const held = names({ reference_c: 24, unit: "W", control: null }, [500, 900]);
  expect(held.map((line) => line.name)).toEqual(["outdoors", "air"]);
  expect(held[1]!.values).toEqual([24, 24]);
  const floating = names({ reference_c: 24, unit: "K", control: null }, [1, 3]);
  expect(floating[1]!.values).toEqual([25, 27]);
  const control = {
    air_c: [21, 22],
    operative_c: [21, 23],
    low_c: [20, null],
    high_c: [null, null],
    plant_w: [0, 0],
    capacity_w: null,
  };
  const steered = names({ reference_c: 24, unit: "W", control }, [0, 0]);
  expect(steered.map((line) => line.name)).toEqual(["outdoors", "heating set-point", "operative", "air"]);
  expect(names({ reference_c: null, unit: "W", control: null }, [0, 0])).toHaveLength(1);
});

test("sections stand as one walks them; loose ones at the end", () => {
  const of = (id: string, parent: string | null, position: number) =>
    ({ id, parent, position }) as DuctSection;
  const rows = [
    of("b", "root", 2),
    of("lost", "gone", 0),
    of("a", "root", 1),
    of("root", null, 5),
    of("a1", "a", 0),
  ];
  expect(inOrder(rows).map(({ row, depth }) => `${row.id}${depth}`)).toEqual([
    "root0",
    "a1",
    "a12",
    "b1",
    "lost0",
  ]);
  // A ring has no root: nothing of it is dropped.
  expect(inOrder([of("x", "y", 0), of("y", "x", 1)])).toHaveLength(2);
});

test("courses of the year have their quantity, uses and sources their colour", () => {
  expect(quantityOf("room/r/air_c")).toBe("temperature");
  expect(quantityOf("air_system/s/flow_kg_s")).toBe("mass_flow");
  expect(quantityOf("energy/heating/electricity")).toBe("load");
  expect(isLoose("heat without a plant")).toBe(true);
  expect(isLoose("natural gas")).toBe(false);
  expect(toneOf("pumps")).not.toBe(toneOf("fans"));
  expect(toneOf("steam")).toBe("neighbours");
  expect(source("outdoor air")).toEqual({ name: "Untreated outdoor air", colour: "var(--outdoor-air)" });
  expect(colourOf("People")).toBe("var(--people)");
});
