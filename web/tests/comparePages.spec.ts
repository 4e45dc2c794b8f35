// Compare: figures that differ, and what an option enters otherwise than its base.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { Refusal } from "../src/api/client";
import { useOptions } from "../src/document/options";
import { useView } from "../src/view/store";
import DifferencesView from "../src/stages/compare/DifferencesView.vue";
import SideBySide from "../src/stages/compare/SideBySide.vue";
import { brought, said, texts } from "./brought";
import { grid, pressed } from "./grids";
import { settled } from "./server";

const went: string[] = [];
vi.mock("vue-router", () => ({ useRoute: () => ({ query: {} }), useRouter: () => ({ push: (to: string) => went.push(to) }) })); // prettier-ignore

const COLUMNS = [
  { id: "p", name: "Base", capital: 0 },
  { id: "o", name: "Thicker walls", capital: 1000 },
];
const row = (kind: string, id: string, figure: string, values: (number | null)[], more: object = {}) => ({
  kind, id, figure, group: kind === "room" ? "Rooms" : "Plant", name: `${kind} ${id}`, quantity: "load", values, notes: null, ...more,
}); // prettier-ignore
const FOUND = {
  columns: COLUMNS,
  subject: { kind: "group", id: "building", name: "Building total" },
  categories: ["sun", "walls", "people"],
  parts: {
    p: { cooling: [4000, 2000, 0], heating: [0, 5000, 0], month: 7, step: 90 },
    o: { cooling: [4000, 1000, 0.2], heating: [0, 3000, 0], month: 8, step: 96 },
  },
  rows: [
    row("room", "a", "cooling peak", [1000, 900]),
    row("circuit", "c", "pump head", [40_000, 20_000], { quantity: "head", notes: ["", "pinned"] }),
    row("room", "b", "heating", [null, 500]),
  ],
  same: 12,
  years: {},
  snags: {},
  totals: {},
};

async function side(more: object = {}) {
  await brought({}, {});
  const stubs = { ChartBox: true, DayCurves: true, KeyFigures: true };
  const made = mount(SideBySide, { props: { found: { ...FOUND, ...more } as never }, attachTo: document.body, global: { stubs } }); // prettier-ignore
  await settled();
  return { made, ...grid(made, "Figures that differ") };
}

test("the largest change stands first, with both values in their unit and what is noted", async () => {
  const { rows, column } = await side();
  expect(rows().map((one) => one.figure)).toEqual(["heating", "pump head", "cooling peak"]);
  const told = (key: string) => rows().map((one) => column(key).text!(one).replace(/\u2009/g, " "));
  expect(told("v0")).toEqual(["–", "40.0 kPa", "1.00 kW"]);
  expect(told("v1")).toEqual(["0.50 kW", "20.0 kPa, pinned", "0.90 kW"]);
  expect(String(column("d1").value(rows()[1]))).toMatch(/−50/);
  expect(said()).toContain("3 figures differ, 12 are the same; largest change first");
});

test("figures of one part alone are shown where that is chosen", async () => {
  const { made, rows } = await side();
  const choice = made
    .findAllComponents({ name: "Choice" })
    .find((one) => one.props("label") === "Figures shown")!;
  expect((choice.props("choices") as { label: string }[]).map((one) => one.label)).toEqual(["all figures", "Rooms", "Plant"]); // prettier-ignore
  choice.vm.$emit("update:modelValue", "Plant");
  await settled();
  expect(rows().map((one) => one.figure)).toEqual(["pump head"]);
});

test("a row of a room chooses it, one of a circuit chooses nothing", async () => {
  const { found, rows } = await side();
  const view = useView();
  const before = view.subject;
  found.vm.$emit(
    "select",
    rows().find((one) => one.figure === "pump head"),
  );
  expect(view.subject).toEqual(before);
  found.vm.$emit(
    "select",
    rows().find((one) => one.figure === "cooling peak"),
  );
  expect(view.subject).toEqual({ kind: "room", id: "a" });
});

test("sources that nobody has are left out of the drawing; each column has its own time", async () => {
  const { made } = await side();
  const chart = made.findComponent({ name: "ChartBox" });
  const drawn = () => (chart.props("option") as (tone: (name: string) => string) => any)((name) => name);
  expect(drawn().series.map((one: { name: string; data: number[] }) => [one.name, one.data])).toEqual([
    ["Sun through windows", [4, 4]],
    ["Walls", [2, 1]],
  ]);
  expect(said()).toContain("Base: Jul 15:00, Thicker walls: Aug 16:00");
  await pressed(made, "Heating by source");
  await settled();
  expect(drawn().series.map((one: { data: number[] }) => one.data)).toEqual([[5, 3]]);
  expect(said()).not.toContain("Jul 15:00");
  await pressed(made, "Over the day");
  await settled();
  expect(made.findComponent({ name: "DayCurves" }).props("month")).toBe(7);
});

test("where nothing differs that is said", async () => {
  await brought({}, {});
  const stubs = { ChartBox: true, DayCurves: true, KeyFigures: true };
  mount(SideBySide, { props: { found: { ...FOUND, rows: [] } as never }, attachTo: document.body, global: { stubs } });
  await settled();
  expect(said()).toContain("Nothing differs yet: change something in an option.");
}); // prettier-ignore

const DIFFERENCES = [
  { kind: "room", id: "a", field: "height_m", name: "1.01 Loft", label: "Height", op: "set", base: 3, value: 2.6, was: 3, conflict: false },
  { kind: "room", id: "a", field: "cooled", name: "1.01 Loft", label: "Cooled", op: "set", base: true, value: false, was: true, conflict: false },
  { kind: "opening", id: "w", field: "glazing", name: "Window", label: "Glazing", op: "set", base: "g", value: "h", was: "i", conflict: true },
  { kind: "use_item", id: "n", field: "", name: "Printer", label: "", op: "made", base: null, value: null, was: null, conflict: false },
  { kind: "pipe_section", id: "s", field: "", name: "", label: "", op: "gone", base: null, value: null, was: null, conflict: false },
]; // prettier-ignore

async function differences(found: object[] = DIFFERENCES) {
  const doc = await brought({
    glazing: [
      { id: "g", name: "Double" },
      { id: "h", name: "Triple" },
      { id: "i", name: "Single" },
    ],
  });
  vi.spyOn(doc, "refresh").mockResolvedValue(undefined as never);
  const options = useOptions();
  options.options = [
    { id: "o", name: "Thicker walls", remarks: "", differences: 5, capital: 0 },
    { id: "q", name: "Setback", remarks: "nights", differences: 0, capital: 0 },
  ] as never;
  const spies = {
    put: vi.spyOn(options, "put").mockResolvedValue(undefined as never),
    agree: vi.spyOn(options, "agree").mockResolvedValue(undefined as never),
    takeOver: vi.spyOn(options, "takeOver").mockResolvedValue(undefined as never),
    remove: vi.spyOn(options, "remove").mockResolvedValue(undefined as never),
    detach: vi.spyOn(options, "detach").mockResolvedValue("new" as never),
    differences: vi.spyOn(options, "differences").mockResolvedValue(found as never),
  };
  const made = mount(DifferencesView, { attachTo: document.body });
  await settled();
  const choose = async (id: string) => {
    grid(made, "Differences").found.vm.$emit("select", { id });
    await settled();
  };
  const disabled = (text: string) => (made.findAll("button").find((one) => one.text() === text)!.element as HTMLButtonElement).disabled; // prettier-ignore
  return { made, spies, choose, disabled };
}

test("what an option enters otherwise is told by label and in words, things by their names", async () => {
  const { made } = await differences();
  const { rows, column } = grid(made, "Differences");
  const told = rows().map((one) => ["kind", "label", "base", "mine"].map((key) => String(column(key).value(one)).replace(/\u2009/g, " "))); // prettier-ignore
  expect(told).toEqual([
    ["room", "Height", "3.00 m", "2.60 m"],
    ["room", "Cooled", "yes", "no"],
    ["opening", "Glazing", "Double", "Triple"],
    ["use item", "added", "–", "added"],
    ["pipe section", "removed", "–", "removed"],
  ]);
  expect(column("state").value(rows()[2])).toBe("the base had Single before: choose");
});

test("of two values one is taken: the base's, or in a conflict the option's", async () => {
  const { made, spies, choose, disabled } = await differences();
  expect([disabled("Take the base's value"), disabled("Keep the option's value")]).toEqual([true, true]);
  await choose("room/a/height_m");
  expect([disabled("Take the base's value"), disabled("Keep the option's value")]).toEqual([false, true]);
  await pressed(made, "Take the base's value");
  await settled();
  expect(spies.put.mock.calls[0]![0]).toBe("o");
  expect(spies.put.mock.calls[0]![1]).toMatchObject({ kind: "room", id: "a", field: "height_m" });
  expect(spies.put.mock.calls[0]![2]).toBe(3);
  await choose("opening/w/glazing");
  await pressed(made, "Keep the option's value");
  await settled();
  expect(spies.agree.mock.calls[0]![1]).toMatchObject({ kind: "opening", id: "w", field: "glazing" });
  // A thing that was made or is gone has no value to take.
  await choose("use_item/n/");
  expect(disabled("Take the base's value")).toBe(true);
  expect(made.emitted("changed")!.length).toBe(2);
});

test("an option is taken over, made a project of its own, or deleted when that is meant", async () => {
  const { made, spies } = await differences();
  await pressed(made, "Take over into base");
  await settled();
  expect(spies.takeOver).toHaveBeenCalledWith("o");
  await pressed(made, "Make a project of its own");
  await settled();
  expect(went.at(-1)).toBe("/new/loads");
  await pressed(made, "Delete");
  await settled();
  expect(spies.remove).not.toHaveBeenCalled();
  expect(said()).toContain("It goes from the lists; the base stays as it is.");
  [...document.querySelectorAll<HTMLElement>("button")].find((one) => one.textContent!.trim() === "Delete option")!.click(); // prettier-ignore
  await settled();
  expect(spies.remove).toHaveBeenCalledWith("o");
});

test("a refusal is told beside the buttons, and nothing is announced", async () => {
  const { made, spies, choose } = await differences();
  spies.put.mockRejectedValue(new Refusal({ title: "Height: at least 0.1 m.", faults: [] } as never));
  await choose("room/a/height_m");
  await pressed(made, "Take the base's value");
  await settled();
  expect(said()).toContain("Height: at least 0.1 m.");
  expect(made.emitted("changed")).toBeUndefined();
});

test("options stand in a list with how much they differ; one that does not says so", async () => {
  const { made } = await differences([]);
  expect(texts("nav .item")).toEqual(["Thicker walls 5", "Setback 0"]);
  expect(said()).toContain("Thicker walls is as the base.");
  await made.findAll("nav .item")[1]!.trigger("click");
  await settled();
  expect(said()).toContain("Setback is as the base.");
});
