import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { useDocument } from "../src/document/store";
import { useOptions } from "../src/document/options";
import KeyFigures from "../src/stages/compare/KeyFigures.vue";
import type { Comparison } from "../src/stages/compare/compare";
import { asked, plug, refused, settled } from "./server";

const year = (cost: number, more: object = {}) => ({
  delivered_kwh: 20_000, cost, emissions_kg: 4000, too_warm_h: 12, billed: true, stale: false, ...more,
}); // prettier-ignore
const totals = (cooling_w: number, kit_cost: number | null) => ({
  cooling_w, heating_w: 5000, supply_m3_s: 0, coils_w: 0, plant_w: 0, fans_w: 0, pumps_w: 0, kit_cost,
}); // prettier-ignore
const COLUMNS = [
  { id: "p", name: "Base", capital: 0 },
  { id: "o", name: "Thicker walls", capital: 1000 },
  { id: "q", name: "Setback", capital: 0 },
];
const found = (years: Record<string, unknown>): Comparison =>
  ({
    columns: COLUMNS, years, snags: { p: 1, o: 2, q: 0 },
    totals: { p: totals(10_000, 50_000), o: totals(8000, 49_000), q: totals(10_000, 50_000) },
  }) as never; // prettier-ignore
const said = () => document.body.textContent!.replace(/[\s\u2009\u202f]+/g, " ");
const rowOf = (name: string) =>
  [...document.querySelectorAll("tr")]
    .map((row) =>
      [...row.querySelectorAll("td")].map((cell) => cell.textContent!.replace(/\s+/g, " ").trim()),
    )
    .find((cells) => cells[0] === name);
async function press(text: string): Promise<void> {
  [...document.querySelectorAll<HTMLElement>("button")]
    .find((one) => one.textContent!.trim() === text)!
    .click();
  await settled();
}

test("figures stand beside the base with their change; what is nought everywhere is left out", () => {
  mount(KeyFigures, {
    props: { found: found({ p: year(4000), o: year(3500), q: year(4000) }) },
    attachTo: document.body,
  });
  expect(rowOf("Cooling peak")![2]).toContain("−20 %");
  expect(rowOf("Cooling peak")![3]).toContain("=");
  expect(rowOf("Supply air")).toBeUndefined();
  expect(rowOf("Snags")).toEqual(["Snags", "1", "2", "0"]);
  expect(said()).not.toContain("Calculate");
});

test("what it costs more over what it saves a year; nothing saved pays nothing back", () => {
  mount(KeyFigures, {
    props: { found: found({ p: year(4000), o: year(3500), q: year(4200) }) },
    attachTo: document.body,
  });
  // Kit 1,000 less and 1,000 typed: nothing more is paid.
  expect(rowOf("Pays back in")![2]).toBe("at once");
  expect(rowOf("Pays back in")![3]).toBe("saves nothing");
  document.body.innerHTML = "";
  const dearer = found({ p: year(4000), o: year(3500), q: year(4000, { billed: false }) });
  (dearer.columns[1] as { capital: number }).capital = 3000;
  mount(KeyFigures, { props: { found: dearer }, attachTo: document.body });
  expect(rowOf("Pays back in")![2]).toBe("4.0 years");
  expect(rowOf("Pays back in")![3]).toBe("");
});

test("a typed cost is kept with the option", async () => {
  const set = vi.spyOn(useOptions(), "set").mockResolvedValue(undefined);
  mount(KeyFigures, { props: { found: found({ p: year(1) }) }, attachTo: document.body });
  const field = document.querySelector<HTMLInputElement>('[aria-label="Extra cost of Setback"]')!;
  field.value = "250";
  field.dispatchEvent(new Event("input"));
  field.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
  field.dispatchEvent(new Event("change"));
  await settled();
  expect(set).toHaveBeenCalledWith("q", { capital: 250 });
});

test("missing and old years are calculated at a stroke, each as a task of its own", async () => {
  useDocument().projectId = "p";
  const task = (id: string, state: string, more: object = {}) => ({
    id, kind: "year", state, title: "The year", doing: "", progress: 1, created: "2026-01-01T00:00:00Z", error: null, ...more,
  }); // prettier-ignore
  plug({
    "POST /api/projects/o/year": task("t1", "done"),
    "GET /api/tasks/t1/result": {},
    "POST /api/projects/q/year": refused(422, "Place has no weather year."),
  });
  const made = mount(KeyFigures, {
    props: { found: found({ p: year(4000), q: year(4000, { stale: true }) }) },
    attachTo: document.body,
  });
  expect(said()).toContain("No year yet of Thicker walls.");
  expect(said()).toContain("older than the inputs: Setback.");
  await press("Calculate these years");
  expect(asked.filter((one) => one.method === "POST").map((one) => one.path)).toEqual([
    "/api/projects/o/year",
    "/api/projects/q/year",
  ]);
  expect(made.emitted("calculated")).toHaveLength(1);
  expect(said()).toContain("Setback: Place has no weather year.");
  await made.setProps({ found: found({ p: year(4000), o: year(3500), q: year(4000, { stale: true }) }) });
  expect(said()).toContain("Calculate this year");
});
