import { mount } from "@vue/test-utils";
import { beforeEach, expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { useDocument } from "../src/document/store";
import type { AirSystem } from "../src/document/types";
import AirPath from "../src/stages/air/AirPath.vue";
import type { CoilSize } from "../src/results/air";
import { addable, fitted, moved, withNew, type UnitPart } from "../src/stages/air/parts";
import PsychroChart from "../src/stages/air/PsychroChart.vue";

const p = (kind: string, drop_pa = 0): UnitPart => ({ kind, drop_pa, clean_pa: null }) as UnitPart;
const USUAL = [p("filter", 150), p("heating coil"), p("cooling coil", 120), p("fan"), p("other", 80)];
const COIL: CoilSize = { place: 2, kind: "cooling coil", duty_w: 22_000, capacity_w: 23_500, face_m2: 0.6, face_velocity_m_s: 2.5, rows: 6, pinned: false, rows_for_duty: 4, rows_for_bypass: 6, bypass_factor: 0.11, water_kg_s: 0.9, flow_c: 7, return_c: 13, refrigerant: false }; // prettier-ignore
const kinds = (parts: UnitPart[]) => parts.map((part) => part.kind);
const system = (more: Record<string, unknown> = {}): AirSystem =>
  ({ id: "ahu", name: "AHU-1", arrangement: "central", outdoor_only: false, economizer: "none", recovery_sensible: 0, recovery_latent: 0, frost: "none", parts: USUAL, ...more }) as never; // prettier-ignore
const course = (value: number) => Array.from({ length: 144 }, () => value);
const state = (t: number, w: number) => ({ temperature_c: course(t), humidity_ratio: course(w) });

/** A day on which the coil cools from 28 °C to 13 °C. */
function dayOf(row: AirSystem) {
  const off: Record<string, [number, number]> = { filter: [28, 0.012], "heating coil": [28, 0.012], "cooling coil": [13, 0.009], fan: [14, 0.009], other: [14, 0.009] }; // prettier-ignore
  return {
    chart: { temperature_c: [0, 10, 20, 30, 40], relative: { "1.0": [0.004, 0.008, 0.015, 0.027, 0.05] } },
    pressure_pa: 100_000,
    points: { outdoors: state(34, 0.014), mixed: state(28, 0.012), supply: state(14.5, 0.009), rooms: state(24, 0.01), return: state(24.5, 0.01) }, // prettier-ignore
    parts: fitted(row).map(({ part }) => ({
      kind: part.kind,
      ...state(...(off[part.kind] ?? ([14, 0.009] as [number, number]))),
    })),
    flow_kg_s: course(1.5),
    outdoor_kg_s: course(0.4),
    relief_kg_s: course(0.4),
    return_kg_s: course(1.5),
    unit_reheat_w: course(0),
    economizing: Array.from({ length: 144 }, () => false),
    coil_total_w: course(22_000),
    coil_sensible_w: course(16_000),
    heating_w: course(0),
    preheat_w: course(0),
    recovered_w: course(0),
    reheat_w: course(0),
    fan_w: course(1500),
    fan_pa: course(600),
    water_kg_s: course(0),
  } as never;
}

test("a part moves to the place between others, and the rest keeps its order", () => {
  expect(kinds(moved(USUAL, 3, 2))).toEqual(["filter", "heating coil", "fan", "cooling coil", "other"]);
  expect(kinds(moved(USUAL, 0, 5))).toEqual(["heating coil", "cooling coil", "fan", "other", "filter"]);
  expect(kinds(moved(USUAL, 1, 1))).toEqual(kinds(USUAL));
  expect(kinds(moved(USUAL, 1, 2))).toEqual(kinds(USUAL));
});

test("what can be added follows from what is there", () => {
  expect(addable(USUAL)).not.toContain("cooling coil");
  expect(addable(USUAL)).not.toContain("fan");
  expect(addable(USUAL)).toContain("heating coil");
  expect(addable([...USUAL, p("heating coil")])).not.toContain("heating coil");
  expect(addable(USUAL.filter((one) => one.kind !== "cooling coil"))).not.toContain("heating coil");
  const humid = addable([...USUAL, p("steam humidifier")]);
  expect(humid.some((kind) => kind.endsWith("humidifier"))).toBe(false);
});

test("a second heating coil stands on the other side of the cooling coil; others stand behind the chosen part", () => {
  expect(kinds(withNew(USUAL, "heating coil", 0).parts).at(-1)).toBe("heating coil");
  const late = [p("cooling coil"), p("heating coil"), p("fan")];
  expect(kinds(withNew(late, "heating coil", 2).parts)[0]).toBe("heating coil");
  expect(withNew(USUAL, "filter", 0).at).toBe(1);
  expect(kinds(withNew(USUAL, "filter", 0).parts).slice(0, 2)).toEqual(["filter", "filter"]);
  expect(kinds(withNew(USUAL, "steam humidifier", null).parts).at(-1)).toBe("steam humidifier");
});

test("units in rooms show no heating coil, and keep places in the whole list", () => {
  const shown = fitted(system({ arrangement: "room units" }));
  expect(shown.map(({ part }) => part.kind)).toEqual(["filter", "cooling coil", "fan", "other"]);
  expect(shown.map(({ at }) => at)).toEqual([0, 2, 3, 4]);
});

let sent: { label: string; parts: UnitPart[] }[] = [];
beforeEach(() => {
  sent = [];
});
async function path(row: AirSystem) {
  const doc = useDocument();
  vi.spyOn(doc, "attempt").mockImplementation(async (label, changes) => {
    const [one] = changes as { fields: { parts: UnitPart[] } }[];
    sent.push({ label, parts: one!.fields.parts });
    return true;
  });
  const made = mount(AirPath, {
    props: { system: row, day: dayOf(row), step: 80, resultId: "ahu", coils: [COIL] },
    attachTo: document.body,
  });
  await nextTick();
  return made;
}
const settled = async () => {
  for (let i = 0; i < 6; i += 1) await nextTick();
};

test("the path tells what every part does and the air behind it", async () => {
  const made = await path(system());
  const names = made.findAll("[role=button][data-part]").map((one) => one.attributes("aria-label"));
  expect(names).toEqual(["mixing, 1 of 6", "filter, 2 of 6", "heating coil, 3 of 6", "cooling coil, 4 of 6", "fan, 5 of 6", "anything else, 6 of 6"]); // prettier-ignore
  expect(made.get('[data-part="2"]').text()).toContain("cools");
  expect(made.get('[data-part="1"]').text()).toContain("idle");
  const states = made.get(".states").text();
  for (const words of ["outdoors", "mixed", "off cooling", "13.0", "off fan", "supply", "14.5", "return"])
    expect(states).toContain(words);
});

test("Alt and an arrow move a part, Delete removes it; the ends hold", async () => {
  const made = await path(system());
  await made.get('[data-part="3"]').trigger("keydown", { key: "ArrowLeft", altKey: true });
  await settled();
  expect(kinds(sent[0]!.parts)).toEqual(["filter", "heating coil", "fan", "cooling coil", "other"]);
  expect(sent[0]!.label).toBe("AHU-1: fan moved");
  await made.get('[data-part="0"]').trigger("keydown", { key: "ArrowLeft", altKey: true });
  await settled();
  expect(sent).toHaveLength(1);
  await made.get('[data-part="4"]').trigger("keydown", { key: "Delete" });
  await settled();
  expect(kinds(sent[1]!.parts)).toEqual(["filter", "heating coil", "cooling coil", "fan"]);
});

test("recovery stands before the mixing and is set in one line; a room unit has neither", async () => {
  const made = await path(system({ recovery_sensible: 0.7, frost: "turned down", frost_limit_c: 1 }));
  await made.get('[data-part="recovery"]').trigger("pointerdown", { button: 0 });
  await settled();
  const panel = made.get('[role=group][aria-label="Part of the path"]').text();
  for (const words of ["heat recovery", "heat recovered", "against frost", "exhaust air not below"])
    expect(panel).toContain(words);
  expect(panel).not.toContain("Earlier");
  const unit = await path(system({ arrangement: "room units" }));
  expect(unit.find('[data-part="recovery"]').exists()).toBe(false);
  expect(unit.find('[data-part="mixing"]').exists()).toBe(false);
  expect(unit.get(".states").text().startsWith("room")).toBe(true);
});

test("a filter is set dirty and new; what else stands on the path has one drop", async () => {
  const doc = useDocument();
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const made = await path(system());
  await made.get('[data-part="0"]').trigger("pointerdown", { button: 0 });
  await settled();
  const field = made.get('input[aria-label="Drop when new"]');
  await field.setValue("60");
  await field.trigger("keydown", { key: "Enter" });
  await field.trigger("change");
  await field.trigger("blur");
  await settled();
  const [label, changes] = commit.mock.calls.at(-1)! as [string, { fields: { parts: UnitPart[] } }[]];
  expect(label).toBe("AHU-1: filter");
  expect(changes[0]!.fields.parts[0]).toEqual({ kind: "filter", drop_pa: 150, clean_pa: 60 });
  await made.get('[data-part="4"]').trigger("pointerdown", { button: 0 });
  await settled();
  expect(made.find('input[aria-label="Drop when new"]').exists()).toBe(false);
});

test("a coil tells its rows and what they give; pinned rows are sent, emptied ones let go", async () => {
  const doc = useDocument();
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const made = await path(system());
  await made.get('[data-part="2"]').trigger("pointerdown", { button: 0 });
  await settled();
  const told = made.get('[data-test="coil-size"]').text().replace(/\s+/g, " ");
  for (const words of ["6 rows sized", "23.50", "22.00", "with water of", "let 11"])
    expect(told).toContain(words);
  const rows = made.get<HTMLInputElement>('input[aria-label="Rows"]');
  expect(rows.element.value).toBe("6");
  await rows.setValue("8");
  await rows.trigger("change");
  await settled();
  let parts = (commit.mock.calls.at(-1)![1] as { fields: { parts: UnitPart[] } }[])[0]!.fields.parts;
  expect(parts[2]).toMatchObject({ kind: "cooling coil", rows: 8 });
  expect(parts[1]).not.toHaveProperty("rows");
  await rows.setValue("");
  await rows.trigger("change");
  await settled();
  parts = (commit.mock.calls.at(-1)![1] as { fields: { parts: UnitPart[] } }[])[0]!.fields.parts;
  expect(parts[2]!.rows).toBeNull();
  await made.get('[data-part="1"]').trigger("pointerdown", { button: 0 });
  await settled();
  expect(made.find('[data-test="coil-size"]').exists()).toBe(false);
  expect(made.get('[role=group][aria-label="Part of the path"]').text()).toContain("Nothing feeds it yet");
});

test("the chart draws the way of the air; a part at rest has no point of its own", () => {
  const row = system();
  const made = mount(PsychroChart, { props: { day: dayOf(row), step: 80, month: 7 } });
  const names = made.findAll("text.name").map((one) => one.text());
  expect(names).toEqual(["outdoors", "mixed", "off cooling", "off fan", "supply", "rooms"]);
  // outdoors → mixed → heated → cooled → fan → supply, rooms → mixed, supply → rooms
  expect(made.findAll("line[stroke-width='2.4']")).toHaveLength(7);
});
