import assert from "node:assert/strict";
import { beforeEach, test } from "vitest";
import { createPinia, setActivePinia } from "pinia";
import { alike, broughtBack, copyOf, hold } from "../src/document/copies";
import { useDocument } from "../src/document/store";
import type { Change, Kind } from "../src/document/types";
import { countUsages, referring, roomsReached, usagesOf } from "../src/document/usage";

type Row = Record<string, unknown> & { id: string };

/** Rows of a small building: two rooms of one use, a wall assembly in the kit, a sun glass on one window. */
const ROWS: Record<string, Row[]> = {
  project: [{ id: "p", name: "Hall", kit: "k" }],
  kit: [{ id: "k", name: "Kit", outer_wall: "wall", roof: "wall", window: "clear" }],
  assembly: [{ id: "wall", name: "Wall", element: "wall" }],
  layer: [
    { id: "l1", assembly: "wall", material: "brick", bridge_material: null, position: 1 },
    { id: "l2", assembly: "wall", material: "wool", bridge_material: "timber", position: 2 },
  ],
  material: ["brick", "wool", "timber"].map((id) => ({ id, name: id })),
  glazing: [{ id: "clear", name: "Clear" }, { id: "sun", name: "Sun", blind_schedule: "hours" }],
  schedule: [{ id: "hours", name: "Hours" }, { id: "idle", name: "Idle" }],
  use: [{ id: "studio", name: "Studio", people_schedule: "hours", lights_schedule: "hours", setpoint_schedule: "hours" }],
  use_item: [{ id: "i", name: "Kiln", use: "studio", schedule: "hours" }],
  room: [
    { id: "r1", number: "1", name: "North", use: "studio" },
    { id: "r2", number: "2", name: "South", use: "studio" },
  ],
  surface: [
    { id: "s1", name: "Wall", room: "r1", role: "outer_wall", assembly: null },
    { id: "s2", name: "Wall", room: "r2", role: "outer_wall", assembly: "wall", temperature_schedule: "hours" },
  ],
  opening: [{ id: "o", name: "Window", surface: "s2", kind: "window", glazing: "sun", assembly: null, shading: null }],
}; // prettier-ignore

async function fill(rows: Record<string, Row[]>, gone: Record<string, string[]> = {}): Promise<void> {
  const results = { version: 1, milliseconds: 0, rooms_calculated: 0, changed: {}, gone: {}, categories: [], all: false };
  await useDocument().applied(async () => ({ version: 1, objects: { changed: rows, gone }, results, steps: { undo: null, redo: null } }));
} // prettier-ignore

/** Apply changes as the server would. */
async function apply(changes: Change[]): Promise<void> {
  const doc = useDocument();
  for (const change of changes) {
    const { kind, id } = change;
    if (change.op === "delete") await fill({}, { [kind]: [id] });
    else
      await fill({
        [kind]: [{ ...(change.op === "set" ? doc.get(kind, id) : {}), ...change.fields, id } as Row],
      });
  }
}

beforeEach(async () => {
  setActivePinia(createPinia());
  await fill(ROWS);
});

test("every place that refers to a schedule is found, whatever it is", () => {
  const found = usagesOf("schedule", "hours").map((usage) => `${usage.name}: ${usage.what}`);
  assert.deepEqual(found.sort(), [
    "2 South: temperature schedule beyond Wall",
    "Studio: Kiln",
    "Studio: hours of the set-points",
    "Studio: lights",
    "Studio: people",
    "Sun: blind",
  ]);
  assert.equal(countUsages("schedule").get("hours"), 6);
  assert.equal(countUsages("schedule").get("idle"), undefined);
  assert.deepEqual(usagesOf("schedule", "idle"), []);
});

test("what something is part of is not a use of it", () => {
  const kinds = (kind: Kind) => referring(kind).map(([from, field]) => `${from}.${field}`);
  assert.ok(!kinds("assembly").includes("layer.assembly"));
  assert.ok(!kinds("use").includes("use_item.use"));
  assert.deepEqual(kinds("use"), ["room.use"]);
  assert.deepEqual(kinds("material"), ["layer.material", "layer.bridge_material"]);
});

test("rooms are reached through kits, openings, layers and blinds, each once", () => {
  assert.deepEqual([...roomsReached(usagesOf("assembly", "wall"))].sort(), ["r1", "r2"]);
  assert.deepEqual([...roomsReached(usagesOf("glazing", "sun"))], ["r2"]);
  assert.deepEqual([...roomsReached(usagesOf("glazing", "clear"))], []);
  assert.deepEqual([...roomsReached(usagesOf("material", "timber"))].sort(), ["r1", "r2"]);
  assert.deepEqual([...roomsReached(usagesOf("schedule", "hours"))].sort(), ["r1", "r2"]);
});

test("a copy has parts of its own under a free name", async () => {
  const [made, changes] = copyOf(hold("assembly", "wall")!, "Wall");
  await apply(changes);
  const copy = hold("assembly", made)!;
  assert.equal((copy.row as unknown as Row)["name"], "Wall 2");
  assert.equal(copy.parts.length, 2);
  assert.ok(copy.parts.every((part) => !["l1", "l2"].includes(part.id)));
  assert.equal(hold("assembly", "wall")!.parts.length, 2);
});

test("a copy is called as its kind may be called, whatever the place is called", () => {
  const name = (kind: Kind, id: string, wanted: string) =>
    copyOf(hold(kind, id)!, wanted)[1][0]!.fields!["name"];
  assert.equal(name("schedule", "hours", 'Hours, Café/Bar: "late"'), "Hours, Café-Bar- -late-");
  assert.equal(name("assembly", "wall", "Wall, A/B"), "Wall, A/B");
  assert.ok(String(name("glazing", "sun", "x".repeat(300))).length <= 120);
});

test("whatever was done to a thing and its parts is brought back", async () => {
  const before = hold("assembly", "wall")!;
  await fill({
    assembly: [{ id: "wall", name: "Wall, thicker", element: "roof" }],
    layer: [
      { id: "l1", assembly: "wall", material: "wool", bridge_material: null, position: 5 },
      { id: "l3", assembly: "wall", material: "timber", bridge_material: null, position: 3 },
    ],
  });
  await fill({}, { layer: ["l2"] });
  const now = hold("assembly", "wall")!;
  assert.ok(!alike(before, now));
  await apply(broughtBack(before, now));
  assert.ok(alike(before, hold("assembly", "wall")!));
});

test("another name alone is no change, and things without parts are told apart as well", async () => {
  const before = hold("glazing", "sun")!;
  await fill({ glazing: [{ id: "sun", name: "Sun, south", blind_schedule: "hours" }] });
  assert.ok(alike(before, hold("glazing", "sun")!));
  await fill({ glazing: [{ id: "sun", name: "Sun, south", blind_schedule: "idle" }] });
  assert.ok(!alike(before, hold("glazing", "sun")!));
});
