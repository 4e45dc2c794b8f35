import assert from "node:assert/strict";
import { test } from "vitest";
import { KINDS, writingOf } from "../src/stages/schedules/kinds";
import {
  fromLine,
  fromRow,
  moved,
  paint,
  shifted,
  slid,
  taken,
  tidy,
  toCells,
  toLine,
  valueAt,
  type Steps,
} from "../src/parts/pattern";

/** A small generator of the same numbers every time. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

function anyPattern(next: () => number): Steps {
  const cuts = new Set<number>([1440]);
  const count = Math.floor(next() * 8);
  for (let i = 0; i < count; i++) cuts.add(1 + Math.floor(next() * 1439));
  return tidy([...cuts].sort((a, b) => a - b).map((until) => [until, Math.round(next() * 100) / 100]));
}

test("line and pattern are one thing: any pattern survives the round trip", () => {
  const next = numbers(7);
  for (let i = 0; i < 300; i++) {
    const steps = anyPattern(next);
    assert.deepEqual(fromLine(toLine(steps)), steps);
  }
});

test("painting changes the stretch and nothing else, and leaves a whole day", () => {
  const next = numbers(11);
  for (let i = 0; i < 300; i++) {
    const steps = anyPattern(next);
    const start = Math.floor(next() * 1400);
    const end = start + 1 + Math.floor(next() * (1440 - start - 1));
    const painted = paint(steps, start, end, 0.37);
    assert.equal(painted.at(-1)?.[0], 1440);
    painted.forEach(([until], k) => assert.ok(until > (painted[k - 1]?.[0] ?? 0)));
    for (let minute = 0; minute < 1440; minute += 7) {
      const want = minute >= start && minute < end ? 0.37 : valueAt(steps, minute);
      assert.equal(valueAt(painted, minute), want, `${JSON.stringify(steps)} ${start}-${end} at ${minute}`);
    }
  }
});

test("cells are averages, so that the day's sum is kept", () => {
  const next = numbers(13);
  for (let i = 0; i < 100; i++) {
    const steps = anyPattern(next);
    let from = 0;
    let total = 0;
    for (const [until, value] of steps) {
      total += (until - from) * value;
      from = until;
    }
    for (const width of [60, 30, 15]) {
      const sum = toCells(steps, width).reduce((a, b) => a + b * width, 0);
      assert.ok(Math.abs(sum - total) < 1e-6, `${width}`);
    }
  }
});

test("what a line may not be", () => {
  const faults: [string, RegExp][] = [
    ["00–12 50", /must run to 24/],
    ["00–12 50 · 13–24 0", /no gaps/],
    ["00–12 50 · 11–24 0", /no gaps and no overlaps/],
    ["00–25 50", /outside 00:00 to 24:00/],
    ["00–24 120", /outside 0 to 100/],
    ["00–24 x", /outside 0 to 100/],
    ["00–07:75 0 · 07:75–24 0", /outside 00:00/],
    ["all day", /should read like/],
    ["", /must run to 24/],
  ];
  for (const [line, reason] of faults) assert.throws(() => fromLine(line), reason, line);
});

test("how a line reads", () => {
  assert.equal(
    toLine([
      [420, 0],
      [450, 0.5],
      [1440, 1],
    ]),
    "00–07 0 · 07–07:30 50 · 07:30–24 100",
  );
  assert.deepEqual(fromLine("0-7 0; 7-24 100"), [
    [420, 0],
    [1440, 1],
  ]);
  assert.deepEqual(fromLine("00–07 50 · 07–24 50"), [[1440, 0.5]]);
});

test("shifting turns the day round", () => {
  const next = numbers(17);
  for (let i = 0; i < 200; i++) {
    const steps = anyPattern(next);
    const by = Math.floor(next() * 2880) - 1440;
    const turned = shifted(steps, by);
    assert.equal(turned.at(-1)?.[0], 1440);
    for (let minute = 0; minute < 1440; minute += 11) {
      const source = (((minute - by) % 1440) + 1440) % 1440;
      assert.equal(
        valueAt(turned, minute),
        valueAt(steps, source),
        `${JSON.stringify(steps)} by ${by} at ${minute}`,
      );
    }
  }
});

test("moves stay within what a value may be", () => {
  assert.deepEqual(moved([[720, 0.2], [1440, 0.98]], (v) => v + 0.05, 0, 1), [[720, 0.25], [1440, 1]]); // prettier-ignore
  assert.deepEqual(moved([[720, 0.02], [1440, 0.04]], (v) => v - 0.05, 0, 1), [[1440, 0]]); // prettier-ignore
});

test("every kind in both unit systems survives its line", () => {
  const next = numbers(23);
  for (const kind of Object.values(KINDS)) {
    for (const system of ["SI", "IP"] as const) {
      const writing = writingOf(kind, system);
      for (let i = 0; i < 60; i++) {
        // What is typed is a round figure in the shown units.
        const figures = anyPattern(next).map(([until]) => [until, Math.round(writing.show(kind.low) + next() * (writing.show(kind.high) - writing.show(kind.low)))] as const); // prettier-ignore
        const steps: Steps = tidy(figures.map(([until, figure]) => [until, Math.max(kind.low, Math.min(kind.high, Number(writing.store(figure).toPrecision(12))))])); // prettier-ignore
        assert.deepEqual(fromLine(toLine(steps, writing), writing), steps, toLine(steps, writing));
      }
    }
  }
  assert.throws(() => fromLine("00–24 130", writingOf(KINDS.temperature, "SI")), /outside -60 to 120/);
});

test("a stretch that slides keeps its values; what it leaves takes the value beside it; the rest stays", () => {
  const next = numbers(29);
  for (let i = 0; i < 300; i++) {
    const steps = anyPattern(next);
    const start = Math.floor(next() * 1380);
    const end = start + 1 + Math.floor(next() * (1440 - start - 1));
    const by = Math.max(-start, Math.min(1440 - end, Math.round((next() - 0.5) * 600)));
    const found = slid(steps, start, end, by);
    const beside = valueAt(steps, by > 0 ? (start || 1440) - 1 : end % 1440);
    for (let minute = 0; minute < 1440; minute += 3) {
      const moved = minute >= start + by && minute < end + by;
      const left = minute >= start && minute < end;
      const want = moved ? valueAt(steps, minute - by) : left ? beside : valueAt(steps, minute);
      assert.equal(
        valueAt(found, minute),
        want,
        `${JSON.stringify(steps)} ${start}-${end} by ${by} at ${minute}`,
      );
    }
  }
});

test("hours taken from another pattern are that pattern's, the others stay", () => {
  const next = numbers(31);
  for (let i = 0; i < 200; i++) {
    const [steps, other] = [anyPattern(next), anyPattern(next)];
    const start = Math.floor(next() * 1400);
    const end = start + 1 + Math.floor(next() * (1440 - start - 1));
    const found = taken(steps, other, start, end);
    for (let minute = 0; minute < 1440; minute += 7)
      assert.equal(valueAt(found, minute), valueAt(minute >= start && minute < end ? other : steps, minute));
  }
});

test("a pasted row is read as it is shown: percent or fractions, and temperatures in the units of the screen", () => {
  const day = (figures: number[]) => fromRow(figures.join("\t"));
  const hours = (value: number) => Array.from({ length: 24 }, (_, i) => (i < 12 ? 0 : value));
  assert.deepEqual(day(hours(50)), [[720, 0], [1440, 0.5]]);
  assert.deepEqual(day(hours(0.5)), [[720, 0], [1440, 0.5]]);
  assert.deepEqual(fromRow(Array(96).fill("0,25").join(";")), [[1440, 0.25]]);
  const warm = writingOf(KINDS.temperature, "IP");
  const [step] = fromRow(Array(48).fill("68").join(" "), warm);
  assert.equal(step?.[0], 1440);
  assert.ok(Math.abs(step![1] - 20) < 1e-9);
  assert.deepEqual(fromRow(Array(24).fill(68).join(" "), writingOf(KINDS.temperature, "SI")), [[1440, 68]]);
  assert.throws(() => day([1, 2, 3]), /24, 48, 96 or 1440 numbers between 0 and 100/);
  assert.throws(() => day(hours(101)), /between 0 and 100/);
  assert.throws(() => fromRow(Array(24).fill("many").join(" ")), /Paste a row/);
  assert.throws(() => fromRow(Array(24).fill(300).join(" "), warm), /between -76 and 248/);
}); // prettier-ignore
