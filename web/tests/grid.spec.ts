import assert from "node:assert/strict";
import { test } from "vitest";
import { fromText } from "../src/parts/edit";
import { parseBlock } from "../src/parts/grid";
import { leftOut, moved, placed, useRange } from "../src/parts/gridRange";
import { cellsOf } from "../src/stages/place/weather";
import { KINDS, toneOf, writingOf } from "../src/stages/schedules/kinds";
import { quantityOfBasis } from "../src/stages/uses/useFields";

const key = (name: string, far = false) => ({ key: name, ctrlKey: far, metaKey: false }) as KeyboardEvent;

test("keys move the cursor and stop at the edges", () => {
  const at = { row: 5, column: 2 };
  const cases: [KeyboardEvent, { row: number; column: number }][] = [
    [key("ArrowUp"), { row: 4, column: 2 }],
    [key("ArrowDown"), { row: 6, column: 2 }],
    [key("ArrowLeft"), { row: 5, column: 1 }],
    [key("ArrowRight"), { row: 5, column: 3 }],
    [key("ArrowUp", true), { row: 0, column: 2 }],
    [key("ArrowDown", true), { row: 99, column: 2 }],
    [key("ArrowRight", true), { row: 5, column: 3 }],
    [key("PageUp"), { row: 0, column: 2 }],
    [key("PageDown"), { row: 25, column: 2 }],
    [key("Home"), { row: 5, column: 0 }],
    [key("Home", true), { row: 0, column: 0 }],
    [key("End"), { row: 5, column: 3 }],
    [key("End", true), { row: 99, column: 3 }],
  ];
  for (const [event, want] of cases) assert.deepEqual(moved(event, at, 100, 4), want, event.key);
  assert.deepEqual(moved(key("ArrowUp"), { row: 0, column: 0 }, 100, 4), { row: 0, column: 0 });
  assert.equal(moved(key("x"), at, 100, 4), null);
});

test("a range lies between where a sweep began and the cursor, whichever way it went", () => {
  const range = useRange();
  range.moveTo({ row: 6, column: 3 }, false);
  assert.equal(range.isMany.value, false);
  assert.equal(range.holds(6, 3), false);
  range.moveTo({ row: 4, column: 1 }, true);
  assert.deepEqual(range.range.value, { top: 4, left: 1, bottom: 6, right: 3 });
  assert.ok(range.holds(5, 2));
  assert.ok(!range.holds(7, 2));
  assert.ok(!range.holds(5, 0));
  range.moveTo({ row: 0, column: 0 }, false);
  assert.equal(range.isMany.value, false);
});

test("a pasted block lies from the top left, and fills a range that it fits a whole number of times", () => {
  const one = placed([["7"]], { top: 2, left: 1, bottom: 4, right: 2 });
  assert.equal(one.length, 6);
  assert.ok(one.every((cell) => cell.text === "7"));
  const line = placed([["a", "b"]], { top: 0, left: 0, bottom: 2, right: 1 });
  assert.deepEqual(
    line.map((cell) => `${cell.row}${cell.column}${cell.text}`),
    ["00a", "01b", "10a", "11b", "20a", "21b"],
  );
  const block = placed([["1"], ["2"], ["3"]], { top: 1, left: 1, bottom: 2, right: 1 });
  assert.deepEqual(block.map((cell) => [cell.row, cell.text]), [[1, "1"], [2, "2"], [3, "3"]]); // prettier-ignore
  const ragged = placed([["1", "2"], ["3"]], { top: 0, left: 0, bottom: 0, right: 0 });
  assert.equal(ragged.length, 3);
});

test("lines of a weather file as cells", () => {
  assert.deepEqual(cellsOf('2019-01-01;"3,5"; 81 ', ";"), ["2019-01-01", "3,5", "81"]);
  assert.deepEqual(cellsOf("  1   2\t3 ", "space"), ["1", "2", "3"]);
  assert.deepEqual(cellsOf("a,,c", ","), ["a", "", "c"]);
});

test("values of schedules are written in the shown units and read back the same", () => {
  for (const kind of Object.values(KINDS)) {
    for (const system of ["SI", "IP"] as const) {
      const writing = writingOf(kind, system);
      for (const value of [kind.low, kind.high, (kind.low + kind.high) / 2])
        assert.ok(Math.abs(writing.store(writing.show(value)) - value) < 1e-9, `${kind.title} ${system}`);
    }
  }
  assert.equal(Math.round(writingOf(KINDS.temperature, "IP").show(20)), 68);
  assert.equal(writingOf(KINDS.fraction, "SI").show(0.5), 50);
  assert.notEqual(toneOf(0), toneOf(1));
  assert.equal(toneOf(0), toneOf(8));
});

test("the quantity of a basis", () => {
  assert.equal(quantityOfBasis("w_m2"), "connected_density");
  assert.equal(quantityOfBasis("w_per_person"), "connected_power");
  assert.equal(quantityOfBasis(undefined), "ratio");
});

test("a copied block keeps cells that hold breaks, tabs and quotes", () => {
  assert.deepEqual(parseBlock("1\t2\r\n3\t4\r\n"), [["1", "2"], ["3", "4"]]); // prettier-ignore
  assert.deepEqual(parseBlock('a\t"two\nlines"\t"a ""b"""\nc\t"x\ty"\t'), [["a", "two lines", 'a "b"'], ["c", "x\ty", ""]]); // prettier-ignore
  assert.deepEqual(parseBlock('1\n\n5" pipe'), [["1"], [""], ['5" pipe']]);
  assert.deepEqual(parseBlock(""), [[""]]);
});

test("what a paste leaves out is said", () => {
  assert.equal(leftOut(0, 0), "");
  assert.equal(leftOut(1, 0), "Not pasted: 1 cell beyond the last row or column.");
  assert.match(leftOut(3, 2), /3 cells beyond .*, and 2 cells that cannot be edited/);
});

test("marks in figures are read where they have one meaning, and asked about where they have two", () => {
  const read = (text: string) => fromText(text, { type: "number", quantity: "ratio" }, "SI");
  const known: [string, number][] = [
    ["1,5", 1.5], ["1.5", 1.5], ["0,125", 0.125], ["1,200.5", 1200.5], ["1.200,5", 1200.5], ["1,234,567", 1234567],
    ["1.234.567", 1234567], ["1 200", 1200], ["1200,125", 1200.125], ["−3,5", -3.5], ["1.200", 1.2],
  ]; // prettier-ignore
  for (const [text, value] of known) assert.equal(read(text).value, value, text);
  for (const text of ["1,200", "12,345", "-1,200"])
    assert.match(read(text).fault, /may be -?\d+ or -?\d+\.\d+/, text);
  for (const text of ["1,2,3", "1..2", "1,23,456", "x"]) assert.match(read(text).fault, /not a number/, text);
});
