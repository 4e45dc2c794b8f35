import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { useBaseLoads } from "../src/document/baseLoads";
import { useOptions } from "../src/document/options";
import { useSession } from "../src/document/session";
import { useDocument } from "../src/document/store";
import { useTasks } from "../src/document/tasks";
import { useYear } from "../src/document/year";
import { useView } from "../src/view/store";
import { asked, plug, refused, settled } from "./server";

const OPTION = { id: "o", name: "Thicker", version: 2, changes: 3, conflicts: [] };
const task = (state: string, more: object = {}) => ({
  id: "t", kind: "year", state, title: "Year", doing: "", progress: 0.5, created: "2026-01-01T00:00:00Z", error: null, ...more,
}); // prettier-ignore
const paths = () => asked.map((one) => `${one.method} ${one.path}`);

beforeEach(() => {
  useDocument().projectId = "p";
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
});
afterEach(() => {
  vi.useRealTimers();
});

test("who is signed in has projects, and a role in the one that is open or in its base", async () => {
  plug({
    "GET /api/session": {
      user: "Edda",
      staff: true,
      projects: [{ id: "p", name: "Hall", version: 1, role: "reader" }],
    },
    "POST /api/sign-in": { user: "Edda" },
  });
  const session = useSession();
  await session.signIn("Edda", "a long phrase");
  expect([session.user, session.staff, session.role]).toEqual(["Edda", true, "reader"]);
  expect(asked[0]!.body).toEqual({ name: "Edda", password: "a long phrase" });
  useDocument().projectId = "other";
  expect(session.role).toBeUndefined();
  useOptions().base = { id: "p", name: "Hall" };
  expect(session.role).toBe("reader");
});

test("signing in that is refused leaves nobody signed in", async () => {
  plug({ "POST /api/sign-in": refused(401, "Name or password is wrong.", "sign_in") });
  await expect(useSession().signIn("Edda", "x")).rejects.toThrow("wrong");
  expect(useSession().user).toBe("");
});

test("options of a project: which is worked in, and which projects belong together", async () => {
  plug({ "GET /api/projects/p/options": { base: { id: "p", name: "Hall" }, options: [OPTION] } });
  const options = useOptions();
  await options.load();
  expect(options.current).toBeUndefined();
  expect([options.isRelated("p"), options.isRelated("o"), options.isRelated("x")]).toEqual([
    true,
    true,
    false,
  ]);
  useDocument().projectId = "o";
  expect(options.current!.name).toBe("Thicker");
});

test("an option is made, named, put away; each time the list is read anew", async () => {
  plug({
    "GET /api/projects/p/options": { base: { id: "p", name: "Hall" }, options: [OPTION] },
    "POST /api/projects/p/options": OPTION,
    "PATCH /api/projects/o/option": OPTION,
    "PUT /api/projects/o/state": { id: "o" },
  });
  const options = useOptions();
  expect((await options.create("Thicker", "x")).id).toBe("o");
  expect(asked[0]!.body).toEqual({ name: "Thicker", like: "x" });
  await options.set("o", { name: "Thickest" } as never);
  await options.remove("o");
  expect(asked.find((one) => one.method === "PUT")!.body).toEqual({ state: "deleted" });
  expect(paths().filter((path) => path === "GET /api/projects/p/options").length).toBe(3);
});

test("taking an option over is a step of the base, on the version that it has now", async () => {
  plug({
    "GET /api/projects/p/options": { base: { id: "p", name: "Hall" }, options: [OPTION] },
    "GET /api/projects/p/document": { version: 41, objects: {}, steps: {} },
    "POST /api/projects/o/take-over": { version: 42 },
    "GET /api/projects/p/since": { version: 41, objects: { changed: {}, gone: {} }, results: null, calculation_fault: null, steps: {} },
  }); // prettier-ignore
  const options = useOptions();
  await options.load();
  await options.takeOver("o");
  expect(asked.find((one) => one.path.endsWith("take-over"))!.body).toEqual({ base_version: 41 });
});

test("a field of an option that is not open is put back on the option's own version", async () => {
  plug({
    "GET /api/projects/p/options": { base: { id: "p", name: "Hall" }, options: [OPTION] },
    "GET /api/projects/o/differences": {
      version: 7,
      differences: [{ kind: "room", id: "r", field: "height_m" }],
    },
    "POST /api/projects/o/changes": { version: 8 },
    "POST /api/projects/o/agree": { version: 8 },
  });
  const options = useOptions();
  const [difference] = await options.differences("o");
  await options.put("o", difference!, 3);
  const sent = asked.find((one) => one.path.endsWith("/changes"))!.body;
  expect(sent.base_version).toBe(7);
  expect(sent.changes[0]).toEqual({ op: "set", kind: "room", id: "r", fields: { height_m: 3 } });
  await options.agree("o", difference!);
  expect(asked.find((one) => one.path.endsWith("/agree"))!.body).toEqual({
    kind: "room",
    id: "r",
    field: "height_m",
  });
});

test("loads of the base stand beside an option's, and not in the base itself", async () => {
  plug({
    "GET /api/projects/p/results": { version: 1, changed: {
      room: { r: { cooling: { sensible_w: 900, parts_w: [900] }, heating_w: 400, heating_parts_w: [400] },
              s: { cooling: null, heating_w: 50, heating_parts_w: [50] } }, group: {} } },
  }); // prettier-ignore
  const options = useOptions();
  options.base = { id: "p", name: "Hall" };
  options.options = [OPTION] as never;
  const base = useBaseLoads();
  await settled();
  expect(base.of("r")).toBeUndefined();
  useDocument().projectId = "o";
  await nextTick();
  await settled();
  expect(base.of("r")).toEqual({ cooling_w: 900, parts_w: [900], heating_w: 400, heating_parts_w: [400] });
  expect(base.of("s")!.cooling_w).toBe(null);
  useDocument().projectId = "p";
  await nextTick();
  await settled();
  expect(base.of("r")).toBeUndefined();
});

test("a task is followed to its end and its result fetched", async () => {
  const states = ["running", "running", "done"];
  plug({
    "GET /api/tasks/t": () => task(states.shift()!, { progress: 0.9 }),
    "GET /api/tasks/t/result": { rooms: 4 },
  });
  const tasks = useTasks();
  const over = tasks.run<{ rooms: number }>(Promise.resolve(task("waiting") as never));
  for (let i = 0; i < 4; i += 1) {
    await settled(4);
    await vi.advanceTimersByTimeAsync(700);
  }
  expect((await over).result).toEqual({ rooms: 4 });
  expect(tasks.open).toEqual([]);
  expect(tasks.tasks[0]!.state).toBe("done");
});

test("a task that failed or was cancelled says why", async () => {
  const tasks = useTasks();
  const failed = task("failed", { error: { code: "invalid", title: "Row 7: no such level.", faults: [] } });
  await expect(tasks.run(Promise.resolve(failed as never))).rejects.toThrow("Row 7");
  await expect(tasks.run(Promise.resolve(task("cancelled") as never))).rejects.toThrow("Nothing was changed");
});

test("a task goes on while the connection is gone, and is cancelled by its number", async () => {
  let tries = 0;
  plug({
    "GET /api/tasks/t": () => ((tries += 1) === 1 ? { status: 502, body: "" } : task("cancelled")),
    "POST /api/tasks/t/cancel": task("running"),
  });
  const tasks = useTasks();
  const over = tasks.run(Promise.resolve(task("running") as never)).catch((error: Error) => error.message);
  await settled();
  expect(tasks.open.length).toBe(1);
  await tasks.cancel("t");
  for (let i = 0; i < 3; i += 1) {
    await vi.advanceTimersByTimeAsync(700);
    await settled(4);
  }
  expect(await over).toContain("Cancelled");
  expect(tries).toBe(2);
});

test("tasks stand newest first, those of elsewhere too", async () => {
  plug({
    "GET /api/projects/p/tasks": [task("done", { id: "a", created: "2026-01-01T00:00:00Z" })],
  });
  const tasks = useTasks();
  await tasks.load();
  await tasks
    .run(Promise.resolve(task("cancelled", { id: "b", created: "2026-02-01T00:00:00Z" }) as never))
    .catch(() => {});
  expect(tasks.tasks.map((one) => one.id)).toEqual(["b", "a"]);
});

test("the year: what the last run found, whether it holds, and running it again", async () => {
  const found = { summary: { total: 1 }, bills: [], stale: true, task: null };
  plug({
    "GET /api/projects/p/year": () => found,
    "POST /api/projects/p/year": task("done"),
    "GET /api/tasks/t/result": {},
    "GET /api/projects/p/year/series": { values: [1, 2] },
  });
  const year = useYear();
  await year.load();
  expect([year.stale, year.run]).toEqual([true, 1]);
  found.stale = false;
  await year.calculate();
  expect([year.stale, year.run, year.task, year.failure]).toEqual([false, 2, null, ""]);
  expect(await year.series("room/r/air_c")).toEqual([1, 2]);
  expect(asked.at(-1)!.query).toEqual({ name: "room/r/air_c" });
});

test("a year that fails says why and keeps what was there", async () => {
  plug({
    "GET /api/projects/p/year": { summary: null, bills: [], stale: false, task: { state: "failed", error: { title: "No weather year." } } },
    "POST /api/projects/p/year": refused(422, "Place has no weather year."),
    "GET /api/projects/p/year/series": refused(404, "There is no year yet.", "not_found"),
  }); // prettier-ignore
  const year = useYear();
  await year.load();
  expect(year.failure).toBe("No weather year.");
  await year.calculate();
  expect([year.failure, year.run]).toEqual(["Place has no weather year.", 1]);
  expect(await year.series("x")).toEqual([]);
});

test("units, theme and folded panels are remembered in the browser; units of a project only where none were chosen", async () => {
  const view = useView();
  view.openIn("IP");
  expect(view.system).toBe("IP");
  await nextTick();
  view.openIn("SI");
  expect(view.system).toBe("IP");
  view.dark = true;
  view.detailsOpen = false;
  await nextTick();
  expect(["units", "theme", "details"].map((key) => localStorage.getItem(`pendrum.${key}`))).toEqual([
    "IP",
    "night",
    "closed",
  ]);
});

test("the hour goes round the day, and a figure that is explained opens Working", () => {
  const view = useView();
  view.step = 143;
  view.moveStep(2);
  expect(view.step).toBe(1);
  view.moveStep(-6);
  expect(view.step).toBe(139);
  view.workingOpen = false;
  view.explain("room_cooling", "r");
  expect([view.working, view.workingOpen]).toEqual([{ quantity: "room_cooling", subject: "r" }, true]);
  expect(view.selectedRoom).toBe("");
  view.selectRoom("r");
  expect(view.selectedRoom).toBe("r");
});
