import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Refusal } from "../src/api/client";
import { setField, useDocument } from "../src/document/store";
import { useResults } from "../src/results/store";
import { asked, plug, refused, settled, type Asked } from "./server";

const ROOM = { id: "r1", number: "1.01", name: "Studio", floor_area_m2: 20 };
const STEPS = { undo: null, redo: null };
const results = (version: number) => ({
  version, milliseconds: 5, rooms_calculated: 1, changed: {}, gone: {}, categories: ["sun"], all: false,
}); // prettier-ignore
const applied = (version: number, changed: Record<string, unknown[]> = {}, more: object = {}) => ({
  version, objects: { changed, gone: {} }, results: results(version), calculation_fault: null, steps: STEPS, ...more,
}); // prettier-ignore

/** A project of one room, open at version 3. */
async function opened() {
  plug({
    "GET /api/projects/p/document": { version: 3, objects: { room: [ROOM] }, steps: STEPS },
    "GET /api/projects/p/results": { ...results(3), all: true },
    "GET /api/projects/p/results/plant": (one: Asked) => results(Number(one.query["base_version"]) + 1),
  });
  const doc = useDocument();
  await doc.load("p");
  asked.length = 0;
  return doc;
}
const changesSent = () => asked.filter((one) => one.path.endsWith("/changes"));
const area = (value: number) => setField("room", "r1", "floor_area_m2", value);

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
});
afterEach(() => {
  vi.useRealTimers();
});

test("a document is there with its results before it is shown", async () => {
  const doc = await opened();
  expect([doc.projectId, doc.version]).toEqual(["p", 3]);
  expect(doc.get("room", "r1")).toEqual(ROOM);
  expect(doc.rows("zone")).toEqual([]);
  expect(useResults().version).toBe(3);
});

test("an edit says what it was made on, and takes what is answered", async () => {
  const doc = await opened();
  plug({ "POST /api/projects/p/changes": applied(4, { room: [{ ...ROOM, floor_area_m2: 25 }] }) });
  await doc.commit("Area", area(25));
  const body = changesSent()[0]!.body;
  expect([body.base_version, body.results_version, body.label]).toEqual([3, 3, "Area"]);
  expect(body.key).toMatch(/^[0-9a-f]{12}$/);
  expect(body.changes).toEqual([{ op: "set", kind: "room", id: "r1", fields: { floor_area_m2: 25 } }]);
  expect(doc.get("room", "r1")!.floor_area_m2).toBe(25);
  expect(doc.version).toBe(4);
});

test("edits go one after the other, each on the version that the one before it left", async () => {
  const doc = await opened();
  let version = 3;
  plug({ "POST /api/projects/p/changes": () => applied((version += 1)) });
  await Promise.all([doc.commit("a", area(1)), doc.commit("b", area(2)), doc.commit("c", area(3))]);
  expect(changesSent().map((one) => one.body.base_version)).toEqual([3, 4, 5]);
  expect(doc.waiting).toBe(0);
});

test("a refused edit changes nothing and does not hold up the next", async () => {
  const doc = await opened();
  plug({ "POST /api/projects/p/changes": refused(422, "Floor area -5: at least 0.1 m².") });
  await expect(doc.commit("Area", area(-5))).rejects.toThrow("at least 0.1");
  expect(await doc.attempt("Area", area(-5))).toBe(false);
  expect(doc.message).toBe("Floor area -5: at least 0.1 m².");
  expect([doc.version, doc.get("room", "r1")!.floor_area_m2]).toEqual([3, 20]);
  plug({ "POST /api/projects/p/changes": applied(4) });
  expect(await doc.attempt("Area", area(5))).toBe(true);
  expect(doc.message).toBe("");
});

test("the same field changed elsewhere is shown with both values, on what is there now", async () => {
  const doc = await opened();
  const fault = {
    path: "room/r1/floor_area_m2",
    field: "floor_area_m2",
    value: 30,
    now: 28,
    message: "changed",
  };
  plug({
    "POST /api/projects/p/changes": refused(409, "Changed meanwhile", "conflict", [fault]),
    "GET /api/projects/p/since": applied(5, { room: [{ ...ROOM, floor_area_m2: 28 }] }),
  });
  await expect(doc.commit("Area", area(30))).rejects.toBeInstanceOf(Refusal);
  expect(doc.conflict!.faults[0]).toMatchObject({ value: 30, now: 28 });
  expect(doc.conflict!.changes).toEqual(area(30));
  expect([doc.version, doc.get("room", "r1")!.floor_area_m2]).toEqual([5, 28]);
});

test("where the connection is lost an edit is kept and sent again with the same key", async () => {
  const doc = await opened();
  let tries = 0;
  plug({
    "POST /api/projects/p/changes": () => {
      tries += 1;
      if (tries < 3) throw new TypeError("network");
      return applied(4);
    },
  });
  const saving = doc.commit("Area", area(25));
  await settled();
  expect([doc.offline, doc.waiting]).toEqual([true, 1]);
  await vi.advanceTimersByTimeAsync(500);
  await settled();
  await vi.advanceTimersByTimeAsync(1000);
  await settled();
  await saving;
  expect([doc.offline, doc.waiting, doc.version]).toEqual([false, 0, 4]);
  const sent = changesSent();
  expect(sent.length).toBe(3);
  expect(new Set(sent.map((one) => one.body.key)).size).toBe(1);
  // What was changed by others in between must be seen: the base stays that of the first try.
  expect(new Set(sent.map((one) => one.body.base_version))).toEqual(new Set([3]));
});

test("a proxy's error is a lost connection, the server's own is none", async () => {
  const doc = await opened();
  let tries = 0;
  plug({
    "POST /api/projects/p/changes": () =>
      (tries += 1) < 2 ? { status: 502, body: "bad gateway" } : applied(4),
  });
  const saving = doc.commit("Area", area(25));
  await settled();
  await vi.advanceTimersByTimeAsync(500);
  await saving;
  expect(tries).toBe(2);
  plug({ "POST /api/projects/p/changes": refused(500, "A fault of the program, number ab12.", "fault") });
  await expect(doc.commit("Area", area(26))).rejects.toThrow("ab12");
});

test("a busy server is asked again, but not for ever", async () => {
  const doc = await opened();
  plug({ "POST /api/projects/p/changes": refused(503, "Busy", "busy") });
  const saving = doc.commit("Area", area(25)).catch((error: unknown) => error);
  for (let i = 0; i < 12; i += 1) {
    await settled(4);
    await vi.advanceTimersByTimeAsync(5000);
  }
  expect(await saving).toBeInstanceOf(Refusal);
  expect(changesSent().length).toBe(9);
  expect(doc.offline).toBe(false);
});

test("what others change is taken, rows that are gone leave, an overtaken answer says nothing", async () => {
  const doc = await opened();
  plug({ "GET /api/projects/p/since": applied(6, { room: [{ ...ROOM, id: "r2" }] }, { objects: { changed: { room: [{ ...ROOM, id: "r2" }] }, gone: { room: ["r1"] } } }) }); // prettier-ignore
  await doc.refresh();
  expect(asked.find((one) => one.path.endsWith("/since"))!.query).toEqual({
    version: "3",
    results_version: "3",
  });
  expect(doc.rows("room").map((row) => row.id)).toEqual(["r2"]);
  await doc.applied(async () => applied(5, { room: [ROOM] }) as never);
  expect(doc.rows("room").map((row) => row.id)).toEqual(["r2"]);
  expect(doc.version).toBe(6);
});

test("without a connection a question changes nothing and says so", async () => {
  const doc = await opened();
  await doc.refresh();
  expect([doc.offline, doc.version]).toEqual([true, 3]);
  plug({ "GET /api/projects/p/since": { ...applied(3), results: null } });
  await doc.refresh();
  expect(doc.offline).toBe(false);
});

test("an edit is saved where its calculation fails, and that is said with its number", async () => {
  const doc = await opened();
  plug({ "POST /api/projects/p/changes": applied(4, {}, { results: null, calculation_fault: "ab12cd34" }) });
  await doc.commit("Area", area(25));
  expect(doc.version).toBe(4);
  expect(useResults().fault).toContain("ab12cd34");
});

test("results that were not ready with the edit are asked for", async () => {
  const doc = await opened();
  plug({
    "POST /api/projects/p/changes": applied(4, {}, { results: null }),
    "GET /api/projects/p/since": applied(4),
  });
  await doc.commit("Area", area(25));
  expect(useResults().version).toBe(3);
  await vi.advanceTimersByTimeAsync(400);
  await settled();
  expect(useResults().version).toBe(4);
});

test("undo and redo are steps of this person, each sent once", async () => {
  const doc = await opened();
  const steps = { undo: "Area", redo: null };
  plug({
    "POST /api/projects/p/undo": applied(4, {}, { steps }),
    "POST /api/projects/p/redo": refused(409, "There is nothing to do again.", "nothing"),
  });
  await doc.undo();
  expect(doc.steps).toEqual(steps);
  expect(asked[0]!.query).toMatchObject({ base_version: "3" });
  expect(asked[0]!.query["key"]).toMatch(/^[0-9a-f]{12}$/);
  await doc.redo();
  expect(doc.message).toBe("There is nothing to do again.");
});

test("what takes something away, or changes much, is told with a way back; small edits are not", async () => {
  const doc = await opened();
  let version = 3;
  plug({ "POST /api/projects/p/changes": () => applied((version += 1)) });
  await doc.commit("Area", area(1));
  expect(doc.done).toBe(null);
  await doc.commit("Room deleted", [{ op: "delete", kind: "room", id: "r1" }]);
  expect(doc.done).toEqual({ label: "Room deleted", version: 5 });
  const many = ["a", "b", "c", "d", "e"].flatMap((id) => setField("room", id, "floor_area_m2", 9));
  await doc.commit("Five rooms", many);
  expect(doc.done!.label).toBe("Five rooms");
  await doc.commit("Four rooms", many.slice(1));
  expect(doc.done).toBe(null);
});
