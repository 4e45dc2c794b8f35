import { expect, test } from "vitest";
import { nextTick, reactive } from "vue";
import type { Column } from "../src/parts/grid";
import { compare, passes, useGridTable } from "../src/parts/gridTable";

interface Line {
  id: string;
  name: string;
  load: number | null;
  kind: string;
}
const LINES: Line[] = [
  { id: "a", name: "Room 10", load: 1500, kind: "x" },
  { id: "b", name: "Room 2", load: 900, kind: "y" },
  { id: "c", name: "Hall", load: null, kind: "x" },
  { id: "s", name: "Sum", load: 2400, kind: "z" },
];
const COLUMNS: Column<Line>[] = [
  { key: "name", title: "Name", width: 100, value: (row) => row.name },
  { key: "load", title: "Load", width: 80, quantity: "load", value: (row) => row.load },
  { key: "kind", title: "Kind", width: 60, value: (row) => row.kind },
];

function table(
  more: Partial<Parameters<typeof useGridTable<Line>>[0] extends () => infer G ? G : never> = {},
) {
  const given = reactive({ name: "Lines", columns: COLUMNS, rows: LINES, frozen: 1, strong: undefined, band: undefined, ...more }); // prettier-ignore
  return { given, grid: useGridTable<Line>(() => given as never, () => "SI") }; // prettier-ignore
}
const ids = (grid: ReturnType<typeof table>["grid"]) => grid.rows.value.map((row) => row.id).join("");
const keys = (grid: ReturnType<typeof table>["grid"]) => grid.columns.value.map((column) => column.key);

test("texts are ordered as people order them, what is empty comes last", () => {
  expect(["Room 10", "Room 2", null, "Hall"].sort(compare)).toEqual(["Hall", "Room 2", "Room 10", null]);
  expect([3, 20, 100].sort(compare)).toEqual([3, 20, 100]);
  expect(compare("–", "a")).toBeGreaterThan(0);
});

test("a filter is a part of the text, or a comparison of figures", () => {
  expect(passes("Meeting loft", "loft")).toBe(true);
  expect(passes("Meeting loft", "attic")).toBe(false);
  expect(passes("1\u20092\u200900", "> 1000")).toBe(true);
  expect(passes("950", "> 1000")).toBe(false);
  expect(passes("950", "<= 950")).toBe(true);
  expect(passes("950", ">= 950.5")).toBe(false);
  expect(passes("21.0", "20 to 22")).toBe(true);
  expect(passes("23.0", "20..22")).toBe(false);
  expect(passes("−1.5", "< 0")).toBe(true);
  expect(passes("5", "= 5")).toBe(true);
  expect(passes("–", "> 0")).toBe(false);
});

test("rows stand as given until an order is asked for", async () => {
  const { grid } = table();
  expect(ids(grid)).toBe("abcs");
  grid.orderBy("load", false);
  await nextTick();
  expect(ids(grid)).toBe("basc");
  grid.orderBy("name", true);
  await nextTick();
  expect(ids(grid)).toBe("sabc");
  grid.orderBy("name", null);
  await nextTick();
  expect(ids(grid)).toBe("abcs");
});

test("sums stay at the end, bands stay together", async () => {
  const { grid } = table({ strong: (row: Line) => row.id === "s" } as never);
  grid.orderBy("load", true);
  await nextTick();
  expect(ids(grid)).toBe("abcs");
  const banded = table({ name: "Bands", band: (row: Line) => row.kind } as never).grid;
  banded.orderBy("name", false);
  await nextTick();
  expect(ids(banded)).toBe("cabs");
});

test("an order does not jump while figures change", async () => {
  const { given, grid } = table({ name: "Still" } as never);
  grid.orderBy("load", false);
  await nextTick();
  given.rows = LINES.map((row) => (row.id === "b" ? { ...row, load: 9000 } : row));
  await nextTick();
  expect(ids(grid)).toBe("basc");
  expect(grid.rows.value[0]?.load).toBe(9000);
  given.rows = given.rows.filter((row) => row.id !== "a");
  await nextTick();
  expect(ids(grid)).toBe("sbc");
});

test("filters of several columns hold together and can be taken back", async () => {
  const { grid } = table({ name: "Filters" } as never);
  grid.filterBy("kind", "x");
  grid.filterBy("name", "room");
  await nextTick();
  expect(ids(grid)).toBe("a");
  grid.filterBy("name", "");
  await nextTick();
  expect(ids(grid)).toBe("ac");
});

test("columns are hidden, moved, pinned and drawn wider, and found so again", async () => {
  const { grid } = table({ name: "Kept" } as never);
  expect(keys(grid)).toEqual(["name", "load", "kind"]);
  expect(grid.columns.value.map((column) => column.left)).toEqual(["0px", undefined, undefined]);
  grid.show("load", false);
  grid.widen("kind", 140);
  grid.pin("kind");
  await nextTick();
  expect(keys(grid)).toEqual(["name", "kind"]);
  expect(grid.columns.value[1]).toMatchObject({ width: 140, left: "100px" });
  const again = table({ name: "Kept" } as never).grid;
  expect(keys(again)).toEqual(["name", "kind"]);
  expect(again.columns.value[1]?.width).toBe(140);
  again.reset();
  await nextTick();
  expect(keys(again)).toEqual(["name", "load", "kind"]);
  again.move("kind", -1);
  await nextTick();
  expect(keys(again)).toEqual(["name", "kind", "load"]);
  again.widen("load", 1);
  await nextTick();
  expect(again.columns.value.at(-1)!.width).toBeGreaterThan(20);
});

test("a layout that cannot be read is as if none had been kept", () => {
  localStorage.setItem("pendrum/columns/Broken", "{no");
  expect(keys(table({ name: "Broken" } as never).grid)).toEqual(["name", "load", "kind"]);
});
