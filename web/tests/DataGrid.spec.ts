import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { Refusal } from "../src/api/client";
import DataGrid from "../src/parts/DataGrid.vue";
import type { Column, Edit } from "../src/parts/grid";

interface Line {
  id: string;
  name: string;
  warm: number | null;
  on: boolean;
}
const LINES: Line[] = [
  { id: "a", name: "Foyer", warm: 20, on: true },
  { id: "b", name: "Loft", warm: null, on: false },
  { id: "c", name: "Store", warm: 16, on: true },
];
const COLUMNS: Column<Line>[] = [
  { key: "name", title: "Room", width: 100, value: (row) => row.name, editor: { type: "text" } },
  { key: "warm", title: "Heated to", width: 80, quantity: "temperature", value: (row) => row.warm ?? 18, origin: (row) => (row.warm === null ? "use" : "own"),
    editor: { type: "number", quantity: "temperature", clearable: true } },
  { key: "on", title: "On", width: 60, value: (row) => row.on, editor: { type: "yesno" } },
  { key: "load", title: "Load", width: 80, quantity: "load", value: (row) => (row.warm ?? 18) * 100 },
]; // prettier-ignore
type Save = (edits: Edit<Line>[]) => Promise<void>;

async function grid(save: Save = async () => {}, more: Record<string, unknown> = {}) {
  const made = mount(DataGrid as never, {
    props: { label: "Rooms", columns: COLUMNS, rows: LINES, save, ranges: true, ...more },
    attachTo: document.body,
  });
  await nextTick();
  await nextTick();
  return made;
}
type Made = Awaited<ReturnType<typeof grid>>;
const cell = (made: Made, row: number, column: string) =>
  made.findAll("[role=rowgroup] [role=row]")[row]!.find(`[data-column=${column}]`);
async function press(made: Made, key: string, more: Record<string, unknown> = {}): Promise<void> {
  await (document.activeElement === document.body ? made : made).find(".cell[tabindex='0']").trigger("keydown", { key, ...more }); // prettier-ignore
  await nextTick();
}
async function choose(made: Made, row: number, column: string, more: Record<string, unknown> = {}): Promise<void> {
  await cell(made, row, column).trigger("pointerdown", { button: 0, ...more });
  await nextTick();
  await nextTick();
} // prettier-ignore
async function type(made: Made, text: string, key = "Enter"): Promise<void> {
  await press(made, text[0]!);
  const input = made.find(".editor input");
  await input.setValue(text);
  await input.trigger("keydown", { key });
  await nextTick();
  await nextTick();
}

test("figures stand in their unit, what is inherited in italics", async () => {
  const made = await grid();
  expect(cell(made, 0, "warm").text()).toBe("20.0");
  expect(cell(made, 1, "warm").classes()).toContain("inherited");
  expect(cell(made, 0, "on").text()).toBe("yes");
  expect(made.find("[data-key=warm]").text()).toContain("°C");
  expect(cell(made, 0, "load").classes()).not.toContain("open");
});

test("typing into a cell saves one edit in stored units and goes down", async () => {
  const save = vi.fn<Save>(async () => {});
  const made = await grid(save);
  await choose(made, 0, "warm");
  await type(made, "21.5");
  expect(save).toHaveBeenCalledOnce();
  const [[edits]] = save.mock.calls as [[Edit<Line>[]]];
  expect(edits.map((edit) => [edit.row.id, edit.column.key, edit.value])).toEqual([["a", "warm", 21.5]]);
  expect(cell(made, 1, "warm").classes()).toContain("at");
});

test("what cannot be read stays as typed, with the reason", async () => {
  const save = vi.fn<Save>(async () => {});
  const made = await grid(save);
  await choose(made, 0, "warm");
  await type(made, "mild");
  expect(save).not.toHaveBeenCalled();
  expect(cell(made, 0, "warm").text()).toContain("mild");
  expect(cell(made, 0, "warm").attributes("title")).toBe("“mild” is not a number.");
});

test("what the server refuses stays as typed, with the allowed range", async () => {
  const save: Save = async () => {
    throw new Refusal({ code: "invalid", title: "no", faults: [{ path: "/changes/0/fields/warm", field: "Heated to", value: 99, message: "", allowed: "at least -30 and at most 40", now: null }] } as never); // prettier-ignore
  };
  const made = await grid(save);
  await choose(made, 0, "warm");
  await type(made, "99");
  expect(cell(made, 0, "warm").classes()).toContain("bad");
  expect(cell(made, 0, "warm").attributes("title")).toContain("allowed is at least −30".replace("−", "-"));
});

test("Escape leaves a cell as it was", async () => {
  const save = vi.fn<Save>(async () => {});
  const made = await grid(save);
  await choose(made, 0, "name");
  await press(made, "F2");
  const input = made.find(".editor input");
  expect((input.element as HTMLInputElement).value).toBe("Foyer");
  await input.setValue("Other");
  await input.trigger("keydown", { key: "Escape" });
  await nextTick();
  expect(save).not.toHaveBeenCalled();
  expect(cell(made, 0, "name").text()).toBe("Foyer");
});

test("a range is emptied where it may be, filled from its first line, and copied", async () => {
  const save = vi.fn<Save>(async () => {});
  const made = await grid(save);
  await choose(made, 0, "warm");
  await choose(made, 2, "warm", { shiftKey: true });
  expect(made.find("[role=note]").text()).toContain("3 × 1 cells");
  await press(made, "Delete");
  expect(save.mock.calls.at(-1)![0].map((edit) => edit.value)).toEqual([null, null, null]);
  await press(made, "d", { ctrlKey: true });
  expect(save.mock.calls.at(-1)![0].map((edit) => [edit.row.id, edit.value])).toEqual([["b", 20], ["c", 20]]); // prettier-ignore
  const clipboardData = { setData: vi.fn(), getData: () => "" };
  await made.find("[role=grid]").trigger("copy", { clipboardData });
  expect(clipboardData.setData).toHaveBeenCalledWith("text/plain", "20\n18\n16");
});

test("rows that scroll past a pressed pointer are not swept, those that it goes to are", async () => {
  const made = await grid();
  const swept = () => made.findAll(".cell.swept").length;
  await cell(made, 0, "name").trigger("pointerdown", { button: 0, clientX: 40, clientY: 60 });
  await nextTick();
  await cell(made, 2, "name").trigger("pointerenter", { buttons: 1, clientX: 40, clientY: 61 });
  expect(made.find(".cell[tabindex='0']").attributes("data-cell")).toBe("0/0");
  await cell(made, 2, "warm").trigger("pointerenter", { buttons: 1, clientX: 140, clientY: 110 });
  expect(made.find(".cell[tabindex='0']").attributes("data-cell")).toBe("2/1");
  expect(swept()).toBe(6);
});

test("a pasted block is laid from the cursor; what finds no place is told", async () => {
  const save = vi.fn<Save>(async () => {});
  const made = await grid(save);
  await choose(made, 1, "name");
  const clipboardData = { getData: () => "Attic\t19\nCellar\t12\nYard\t5" };
  await made.find("[role=grid]").trigger("paste", { clipboardData });
  await nextTick();
  const edits = save.mock.calls.at(-1)![0];
  expect(edits.map((edit) => [edit.row.id, edit.column.key, edit.value])).toEqual([
    ["b", "name", "Attic"], ["b", "warm", 19], ["c", "name", "Cellar"], ["c", "warm", 12],
  ]); // prettier-ignore
  expect(made.find("[role=alert]").text()).toContain("2 cells beyond the last row");
});

test("a yes or no turns with one key", async () => {
  const save = vi.fn<Save>(async () => {});
  const made = await grid(save);
  await choose(made, 0, "on");
  await press(made, "Enter");
  expect(save.mock.calls.at(-1)![0].map((edit) => edit.value)).toEqual([false]);
});

test("heads order rows, unless the order means something", async () => {
  const made = await grid();
  await made.find("[data-key=name] .order").trigger("click");
  await made.find("[data-key=name] .order").trigger("click");
  await nextTick();
  expect(made.find("[data-key=name]").attributes("aria-sort")).toBe("descending");
  expect(cell(made, 0, "name").text()).toBe("Store");
  const still = await grid(async () => {}, { ordered: true });
  expect(still.find(".order").exists()).toBe(false);
});

test("the cursor tells which row is chosen", async () => {
  const made = await grid();
  await choose(made, 2, "load");
  expect(made.emitted("select")!.at(-1)).toEqual([LINES[2], true]);
  await press(made, "ArrowUp");
  expect(made.emitted("select")!.at(-1)).toEqual([LINES[1], false]);
});
