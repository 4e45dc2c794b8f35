import assert from "node:assert/strict";
import { test } from "vitest";
import { Refusal } from "../src/api/client";
import { stack } from "../src/app/rail/rail";
import { asText, type WorkingTree } from "../src/app/working";
import { faultText, fromText, toText, type Editor } from "../src/parts/edit";
import { parseBlock, type Column } from "../src/parts/grid";
import { canEdit, editorOf, priorText, shownText } from "../src/parts/gridCells";
import { inOrder } from "../src/parts/sections";
import { freeName } from "../src/document/copies";
import { dayOfYear, monthAndDay } from "../src/stages/schedules/dates";
import { parseMonthDay, showMonthDay } from "../src/units/monthDay";

const area: Editor = { type: "number", quantity: "area" };
const choice: Editor = { type: "choice", clearable: true, choices: [{ value: "a1", label: "North wall" }] };

test("reading of numbers, choices and yes or no", () => {
  assert.deepEqual(fromText("12.5", area, "SI"), { value: 12.5, fault: "" });
  assert.match(fromText("twelve", area, "SI").fault, /not a number/);
  assert.match(fromText("", area, "SI").fault, /needed/);
  assert.deepEqual(fromText("", { ...area, clearable: true }, "SI"), { value: null, fault: "" });
  assert.deepEqual(fromText("north wall", choice, "SI"), { value: "a1", fault: "" });
  assert.match(fromText("South wall", choice, "SI").fault, /no “South wall”/);
  assert.deepEqual(fromText("Yes", { type: "yesno" }, "SI"), { value: true, fault: "" });
  assert.match(fromText("perhaps", { type: "yesno" }, "SI").fault, /neither/);
  assert.match(fromText("  ", { type: "text" }, "SI").fault, /empty/);
});

test("a number is typed in the shown units", () => {
  const read = fromText("100", area, "IP");
  assert.ok(Math.abs(Number(read.value) - 9.290304) < 1e-6);
  assert.equal(toText(9.290304, area, "IP"), "100");
});

test("a refusal tells the range in the shown units", () => {
  const fault = {
    path: "",
    field: "winter_dry_bulb_c",
    value: 90,
    message: "",
    allowed: "at least -60 and at most 30",
  };
  const refusal = new Refusal({ status: 422, code: "invalid", title: "no", faults: [fault] });
  const editor: Editor = { type: "number", quantity: "temperature" };
  assert.match(faultText(refusal, editor, "SI"), /at least -60 and at most 30 °C/);
  assert.match(faultText(refusal, editor, "IP"), /at least -76 and at most 86 °F/);
  const conflict = new Refusal({
    status: 409,
    code: "conflict",
    title: "changed meanwhile",
    faults: [fault],
  });
  assert.equal(faultText(conflict, editor, "SI"), "changed meanwhile");
});

test("blocks from a spreadsheet program", () => {
  assert.deepEqual(parseBlock("1\t2\r\n3\t4\r\n"), [
    ["1", "2"],
    ["3", "4"],
  ]);
  assert.deepEqual(parseBlock("x"), [["x"]]);
  assert.deepEqual(parseBlock("a\t\tb"), [["a", "", "b"]]);
});

test("cells show values, old values and whether they may be edited", () => {
  type Row = { id: string; size: number | null; old: number };
  const column: Column<Row> = {
    key: "size", title: "Size", quantity: "area", width: 50, value: (row) => row.size, prior: (row) => row.old,
    editor: area, editable: (row) => row.size !== null,
  }; // prettier-ignore
  const row = { id: "r", size: 20, old: 18 };
  assert.equal(shownText(row, column, "SI"), "20.0");
  assert.equal(priorText(row, column, "SI"), "18.0");
  assert.equal(priorText({ ...row, old: 20.001 }, column, "SI"), "");
  assert.equal(shownText({ ...row, size: null }, column, "SI"), "–");
  assert.equal(canEdit(row, column), true);
  assert.equal(canEdit({ ...row, size: null }, column), false);
});

test("stacked courses add up and keep signs apart", () => {
  const { bands, total } = stack({ sun: [3, 0], walls: [-1, -2], people: [2, 1] });
  assert.deepEqual(total, [4, -1]);
  assert.deepEqual(
    bands.find((band) => band.name === "people"),
    { name: "people", low: [3, 0], high: [5, 1] },
  );
  assert.deepEqual(bands.find((band) => band.name === "walls")?.high, [-1, -2]);
  assert.deepEqual(stack({}), { bands: [], total: [] });
});

test("sections walk from the root, loose ones come last", () => {
  const section = (id: string, parent: string | null, position: number) => ({
    id, parent, position, name: id, length_m: 1, loss_coefficient: 0, end_drop_pa: 0, pinned_diameter_m: null, room: null,
    air_system: "s",
  }); // prettier-ignore
  const rows = [
    section("b", "m", 2),
    section("m", null, 0),
    section("a", "m", 1),
    section("c", "b", 0),
    section("x", "gone", 0),
  ];
  assert.deepEqual(
    inOrder(rows).map((item) => `${item.row.id}${item.depth}`),
    ["m0", "a1", "b1", "c2", "x0"],
  );
});

test("a circle of sections is still shown, each once", () => {
  const loop = [
    { id: "a", parent: "b", position: 0 },
    { id: "b", parent: "a", position: 1 },
  ].map((row) => ({
    ...row,
    name: row.id,
    length_m: 1,
    loss_coefficient: 0,
    end_drop_pa: 0,
    pinned_diameter_m: null,
    room: null,
    air_system: "s",
  }));
  assert.equal(inOrder(loop).length, 2);
});

test("working as text has both unit systems and indents", () => {
  const leaf: WorkingTree = {
    name: "Area", value: 10, quantity: "area", symbol: "A", formula: "", numbers: "", source: "", note: "", origin: "own",
    stage: "", place: "", field: "", inputs: [],
  }; // prettier-ignore
  const text = asText({
    ...leaf,
    name: "Load",
    value: 2000,
    quantity: "load",
    origin: "",
    formula: "sum",
    source: "ISO",
    inputs: [leaf],
  });
  assert.deepEqual(text.split("\n"), [
    "Load: 2.00 kW (6.8 MBh)",
    "    sum",
    "    ISO",
    "  Area: 10.0 m² (108 ft²) [own]",
  ]);
});

test("a name that is taken gets a number", () => {
  const rows = [{ name: "Office" }, { name: "office 2" }];
  assert.equal(freeName("Store", rows), "Store");
  assert.equal(freeName("office", rows), "office 3");
});

test("days of the year by date", () => {
  for (const year of [2027, 2028]) {
    let day = 0;
    for (let month = 1; month <= 12; month++)
      for (let date = 1; date <= new Date(Date.UTC(year, month, 0)).getUTCDate(); date++, day++) {
        assert.equal(dayOfYear(month, date, year), day);
        const found = monthAndDay(day, year);
        assert.deepEqual([found.month, found.day], [month, date]);
      }
    assert.equal(day, year === 2028 ? 366 : 365);
  }
  assert.equal(dayOfYear(2, 29, 2027), null);
  assert.equal(dayOfYear(4, 31, 2027), null);
  assert.equal(monthAndDay(72, 2027).weekday, "Sunday"); // 14 March 2027
});

test("a day of any year is typed as people write it", () => {
  for (const text of ["28 Mar", "28 march", "March 28", "03-28", "3/28", " 28. Mar "]) assert.equal(parseMonthDay(text), "03-28", text);
  for (const text of ["31 Apr", "30 Feb", "13-01", "0 Jan", "Jan", "28 Ma", "", "1 2 3"]) assert.equal(parseMonthDay(text), null, text);
  assert.equal(parseMonthDay("29 Feb"), "02-29");
  for (let month = 1; month <= 12; month++)
    for (const day of [1, 28]) {
      const stored = `${String(month).padStart(2, "0")}-${String(day).padStart(2, "0")}`;
      assert.equal(parseMonthDay(showMonthDay(stored)), stored);
    }
  const editor: Editor = { type: "month_day", clearable: true };
  assert.deepEqual(fromText("31 Nov", editor, "SI"), { value: null, fault: "“31 Nov” is no day like 28 Mar." });
  assert.deepEqual(fromText("", editor, "SI"), { value: null, fault: "" });
  assert.equal(toText("10-31", editor, "SI"), "31 Oct");
}); // prettier-ignore

test("a number is shown and typed in the unit of its own row where rows differ", () => {
  const column: Column<{ value: number; basis: string }> = {
    key: "value", title: "each", width: 70, value: (row) => row.value, editor: { type: "number" },
    quantityOf: (row) => (row.basis === "area" ? "connected_density" : "connected_power"),
  };
  const [dense, single] = [{ value: 10.76391, basis: "area" }, { value: 40, basis: "one" }];
  assert.equal(shownText(dense, column, "IP"), "1.00");
  assert.equal(shownText(single, column, "IP"), "40");
  const read = fromText("1", editorOf(dense, column), "IP");
  assert.ok(Math.abs(Number(read.value) - 10.7639) < 1e-3);
  assert.deepEqual(fromText("40", editorOf(single, column), "IP"), { value: 40, fault: "" });
}); // prettier-ignore
