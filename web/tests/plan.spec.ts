import assert from "node:assert/strict";
import { test } from "vitest";
import { placed } from "../src/parts/gridRange";
import {
  centre,
  fitted,
  moveCorner,
  moveWall,
  type Outline,
  rectangle,
  snap,
  widthOf,
} from "../src/stages/rooms/plan/outline";

function area(outline: Outline): number {
  return outline.reduce((sum, [x, y], i) => {
    const [u, v] = outline[(i + 1) % outline.length]!;
    return sum + (x * v - u * y) / 2;
  }, 0);
}

const rooms = (): Map<string, Outline> =>
  new Map([
    ["a", rectangle([0, 0], [4, 3])],
    ["b", rectangle([4, 0], [9, 3])],
    ["c", rectangle([0, 3], [9, 5])],
    ["d", rectangle([20, 3], [22, 5])],
  ]);

test("a wall moved takes from one room what it gives to the other", () => {
  for (const by of [-1.5, -0.1, 0.4, 2]) {
    const changed = moveWall(rooms(), [4, 0], [4, 3], by);
    assert.deepEqual([...changed.keys()], ["a", "b"]);
    assert.ok(Math.abs(area(changed.get("a")!) - (12 + 3 * by)) < 1e-9);
    assert.ok(Math.abs(area(changed.get("a")!) + area(changed.get("b")!) - 27) < 1e-9);
  }
});

test("a wall moves with all that hangs together on its line, and with nothing else on it", () => {
  const changed = moveWall(rooms(), [4, 3], [0, 3], 1);
  assert.deepEqual([...changed.keys()].sort(), ["a", "b", "c"]);
  assert.equal(area(changed.get("c")!), 9);
  assert.equal(area(changed.get("b")!), 20);
});

test("a corner moves in every room that has it", () => {
  const changed = moveCorner(rooms(), [4, 3], [5, 2.5]);
  assert.deepEqual([...changed.keys()], ["a", "b"]);
  assert.ok(changed.get("a")!.some(([x, y]) => x === 5 && y === 2.5));
});

test("places snap to corners within reach, else to the grid", () => {
  assert.deepEqual(snap([4.2, 2.9], [[4, 3]], 0.5, 0.4), [4, 3]);
  assert.deepEqual(snap([4.2, 2.3], [[4, 3]], 0.5, 0.4), [4, 2.5]);
  assert.deepEqual(centre(rectangle([1, 1], [3, 5])), [2, 3]);
});

test("a pasted block lies from the corner of the range, and again where it fits in a whole number of times", () => {
  const block = [["1", "2"]];
  const once = placed(block, { top: 3, left: 1, bottom: 3, right: 1 });
  assert.deepEqual(once, [
    { row: 3, column: 1, text: "1" },
    { row: 3, column: 2, text: "2" },
  ]);
  assert.equal(placed(block, { top: 0, left: 0, bottom: 4, right: 3 }).length, 20);
  assert.equal(placed([["x"]], { top: 0, left: 0, bottom: 99, right: 0 }).length, 100);
  assert.equal(placed([["1"], ["2"], ["3"]], { top: 0, left: 0, bottom: 3, right: 0 }).length, 3);
});

test("a name of the plan is cut to its room, and to nothing where there is no room", () => {
  assert.equal(fitted("Foyer", 100), "Foyer");
  const long = "Wood shop with a long name ".repeat(5);
  for (const width of [20, 60, 120, 300]) assert.ok(fitted(long, width).length * 5.3 <= width);
  assert.ok(fitted(long, 120).endsWith("…"));
  assert.equal(fitted(long, 10), "");
  assert.equal(
    widthOf([
      [1, 0],
      [4, 0],
      [4, 9],
    ]),
    3,
  );
});
