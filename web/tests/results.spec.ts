import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useResults, type ResultsAnswer } from "../src/results/store";
import { asked, plug, refused, settled, type Asked } from "./server";

const answer = (version: number, room: Record<string, unknown> = {}, more: Partial<ResultsAnswer> = {}): ResultsAnswer => ({
  version, milliseconds: 4, rooms_calculated: 1, changed: { room: room as never }, gone: {}, categories: ["sun"], all: false, ...more,
}); // prettier-ignore
const heating = (watts: number) => ({ heating_w: watts });

async function loaded() {
  plug({
    "GET /api/projects/p/results": { ...answer(1, { a: heating(100), b: heating(200) }), all: true } as never,
    "GET /api/projects/p/results/plant": (one: Asked) =>
      ({ ...answer(2), milliseconds: 7, base: one.query }) as never,
  });
  const results = useResults();
  await results.load("p");
  return results;
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
});
afterEach(() => {
  vi.useRealTimers();
});

test("what is loaded has no figure of before", async () => {
  const results = await loaded();
  expect(results.rows("room").map(([id]) => id)).toEqual(["a", "b"]);
  expect(results.prior("room", "a")).toBeUndefined();
  expect([results.settled, results.milliseconds]).toEqual([true, 4]);
  expect(results.get("room", null)).toBeUndefined();
});

test("a changed figure shows what it was before, for a while", async () => {
  const results = await loaded();
  results.take(answer(2, { a: heating(150) }));
  expect(results.get("room", "a")).toEqual(heating(150));
  expect(results.prior("room", "a")).toEqual(heating(100));
  expect(results.prior("room", "b")).toBeUndefined();
  await vi.advanceTimersByTimeAsync(5999);
  expect(results.prior("room", "a")).toBeDefined();
  await vi.advanceTimersByTimeAsync(1);
  expect(results.prior("room", "a")).toBeUndefined();
});

test("the figure of before is that before the last edit", async () => {
  const results = await loaded();
  results.take(answer(2, { a: heating(150) }));
  results.take(answer(3, { b: heating(1) }));
  expect(results.prior("room", "a")).toBeUndefined();
  expect(results.prior("room", "b")).toEqual(heating(200));
});

test("an overtaken answer is left aside", async () => {
  const results = await loaded();
  results.take(answer(5, { a: heating(500) }));
  results.take(answer(4, { a: heating(400) }));
  expect(results.get("room", "a")).toEqual(heating(500));
});

test("rooms that are gone leave; a whole answer leaves nothing else", async () => {
  const results = await loaded();
  results.take(answer(2, {}, { gone: { room: ["b"] } }));
  expect(results.rows("room").map(([id]) => id)).toEqual(["a"]);
  results.take(answer(3, { c: heating(3) }, { all: true }));
  expect(results.rows("room").map(([id]) => id)).toEqual(["c"]);
  expect(results.prior("room", "c")).toBeUndefined();
});

test("what serves the rooms follows the loads until both are of one version", async () => {
  const results = await loaded();
  asked.length = 0;
  let plant = 1;
  plug({
    "GET /api/projects/p/results/plant": () =>
      ({ ...answer((plant += 1)), changed: { circuit: { c: {} } } }) as never,
  });
  results.take(answer(3, { a: heating(1) }));
  expect(results.settled).toBe(false);
  await settled();
  expect(results.settled).toBe(true);
  expect(asked.map((one) => one.query["base_version"])).toEqual(["1", "2"]);
  expect(results.get("circuit", "c")).toEqual({});
  expect(results.milliseconds).toBe(12);
});

test("why what serves the rooms did not come is said; the next edit tries again", async () => {
  const results = await loaded();
  plug({
    "GET /api/projects/p/results/plant": refused(500, "A fault of the program, number 12ab.", "fault"),
  });
  results.take(answer(2, { a: heating(1) }));
  await settled();
  expect(results.fault).toContain("12ab");
  expect(results.settled).toBe(false);
  plug({ "GET /api/projects/p/results/plant": answer(3) as never });
  results.take(answer(3, { a: heating(2) }));
  await settled();
  expect([results.fault, results.settled]).toEqual(["", true]);
});

test("the answer of a project that was left meanwhile is not taken", async () => {
  const results = await loaded();
  let release: (() => void) | undefined;
  plug({
    "GET /api/projects/p/results/plant": async () => {
      await new Promise<void>((done) => (release = done));
      return { ...answer(9), changed: { circuit: { stranger: {} } } } as never;
    },
    "GET /api/projects/q/results": { ...answer(2, { z: heating(9) }), all: true } as never,
  });
  results.take(answer(2));
  await settled();
  await results.load("q");
  release!();
  await settled();
  expect(results.get("circuit", "stranger")).toBeUndefined();
  expect(results.rows("room").map(([id]) => id)).toEqual(["z"]);
});
