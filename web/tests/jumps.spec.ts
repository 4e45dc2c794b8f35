import { expect, test } from "vitest";
import { find, type Jump } from "../src/app/jumps";

const go = () => undefined;
const JUMPS: Jump[] = [
  { name: "0.05 Weaving shed", what: "room", go },
  { name: "Shed roof", what: "assembly", go },
  { name: "Weaving shed", what: "use", go },
  { name: "Export loads as CSV", what: "command", go },
  { name: "Loads", what: "stage", key: "G L", go },
];
const names = (typed: string, most?: number) => find(JUMPS, typed, most).map((jump) => jump.name);

test("what begins with the words comes first, whatever holds them after", () => {
  expect(names("shed")).toEqual(["Shed roof", "0.05 Weaving shed", "Weaving shed"]);
  expect(names("weaving")).toEqual(["0.05 Weaving shed", "Weaving shed"]); // the room, before its use
  expect(names("loads")).toEqual(["Loads", "Export loads as CSV"]);
});
test("words may stand in any order and name what kind of thing is meant", () => {
  expect(names("csv export")).toEqual(["Export loads as CSV"]);
  expect(names("shed room")).toEqual(["0.05 Weaving shed"]);
});
test("nothing typed shows the first, nothing found nothing", () => {
  expect(names("", 2)).toEqual(["0.05 Weaving shed", "Shed roof"]);
  expect(names("kiln")).toEqual([]);
});
