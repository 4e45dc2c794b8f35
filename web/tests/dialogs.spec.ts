import { mount } from "@vue/test-utils";
import { beforeEach, expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { createMemoryHistory, createRouter } from "vue-router";
import ConflictDialog from "../src/app/ConflictDialog.vue";
import FirstSteps from "../src/app/FirstSteps.vue";
import HistoryDialog from "../src/app/HistoryDialog.vue";
import MessageBar from "../src/app/MessageBar.vue";
import ProjectsPanel from "../src/app/ProjectsPanel.vue";
import SnagPanel from "../src/app/SnagPanel.vue";
import TaskTray from "../src/app/TaskTray.vue";
import { useDocument } from "../src/document/store";
import { useTasks } from "../src/document/tasks";
import { useResults } from "../src/results/store";
import { useView } from "../src/view/store";
import { asked, plug, refused, settled } from "./server";

const button = (text: string) =>
  [...document.querySelectorAll<HTMLElement>("button, a, [role=radio], .v-list-item")].find(
    (one) => one.textContent!.trim() === text,
  )!;
async function press(text: string): Promise<void> {
  button(text).click();
  await settled();
}
const said = () => document.body.textContent!;
const answer = (version: number, changed: Record<string, unknown[]>, results: Record<string, unknown> = {}) =>
  ({
    version, objects: { changed, gone: {} }, calculation_fault: null, steps: { undo: null, redo: null },
    results: { version, milliseconds: 1, rooms_calculated: 0, changed: results, gone: {}, categories: [], all: false },
  }) as never; // prettier-ignore
const router = () => {
  const made = createRouter({ history: createMemoryHistory(), routes: [{ path: "/:rest(.*)*", component: { template: "" } }] });
  return { made, plugins: [made] };
}; // prettier-ignore

beforeEach(async () => {
  const doc = useDocument();
  doc.projectId = "p";
  await doc.applied(async () =>
    answer(3, {
      room: [{ id: "r", number: "1.01", name: "Studio", floor_area_m2: 28, heated: true, level: "l" }],
      level: [{ id: "l", name: "Ground" }],
    }),
  );
});

const CONFLICT = {
  label: "Several edits",
  changes: [
    { op: "set", kind: "room", id: "r", fields: { floor_area_m2: 30, heated: false, name: "Atelier" } },
    { op: "delete", kind: "level", id: "l" },
  ],
  faults: [
    { path: "room/r/floor_area_m2", field: "floor_area_m2", value: 30, now: 28, message: "" },
    { path: "room/r/heated", field: "heated", value: false, now: true, message: "" },
    { path: "level/l", field: "", value: null, now: null, message: "Rasmus put a room on it" },
  ],
};

test("a conflict shows both values in words and units; theirs stand unless chosen", async () => {
  const doc = useDocument();
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true);
  mount(ConflictDialog, { attachTo: document.body });
  doc.conflict = CONFLICT as never;
  await settled();
  expect(said()).toContain("“Several edits” was not saved");
  for (const words of [
    "1.01 Studio",
    "30.0 m²",
    "28.0 m²",
    "no",
    "yes",
    "delete it",
    "Rasmus put a room on it",
  ])
    expect(said()).toContain(words);
  await press("Save this choice");
  // What nobody else changed is saved; the rest stays as the others have it.
  expect(attempt).toHaveBeenCalledWith("Several edits", [
    { op: "set", kind: "room", id: "r", fields: { name: "Atelier" } },
  ]);
  expect(doc.conflict).toBe(null);
});

test("all mine sends the whole edit again", async () => {
  const doc = useDocument();
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true);
  mount(ConflictDialog, { attachTo: document.body });
  doc.conflict = CONFLICT as never;
  await settled();
  await press("All mine");
  await press("Save this choice");
  expect(attempt).toHaveBeenCalledWith("Several edits", CONFLICT.changes);
});

test("where nothing of the edit is left nothing is sent", async () => {
  const doc = useDocument();
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true);
  mount(ConflictDialog, { attachTo: document.body });
  doc.conflict = { ...CONFLICT, changes: [CONFLICT.changes[1]!], faults: [CONFLICT.faults[2]!] } as never;
  await settled();
  await press("Save this choice");
  expect(attempt).not.toHaveBeenCalled();
  expect(doc.conflict).toBe(null);
});

const ENTRY = {
  version: 3,
  at: "2026-01-02T10:20:30Z",
  author: "Edda",
  label: "Area",
  way: "",
  changes: 1,
  kinds: ["room"],
};

test("history: who did what, what it changed, and the ways back", async () => {
  const older = { ...ENTRY, version: 2, label: "Undone one", way: "undo", changes: 2, author: "Rasmus" };
  plug({
    "GET /api/projects/p/history": [ENTRY, older],
    "GET /api/projects/p/history/2": [
      { kind: "duct_section", id: "d", name: "Main", field: "Length", what: "set", before: 12 },
      { kind: "room", id: "x", name: "", field: "", what: "made", before: null },
    ],
    "POST /api/projects/p/history/2/bring-back": refused(409, "A later change stands on it.", "conflict"),
    "POST /api/projects/p/history/2/take-back": answer(4, {}) as never,
  });
  mount(HistoryDialog, { attachTo: document.body });
  await settled();
  expect(said()).toContain("2026-01-02 10:20, Edda, 1 thing");
  expect(said()).toContain("Rasmus, 2 things, undone");
  document.querySelectorAll<HTMLElement>(".entries .v-list-item")[1]!.click();
  await settled();
  const cells = [...document.querySelectorAll("td")].map((cell) => cell.textContent);
  expect(cells).toEqual(["duct section", "Main", "Length", "12", "room", "–", "made", ""]);
  await press("Bring back the state after it");
  expect(said()).toContain("A later change stands on it.");
  await press("Take back this change");
  expect(asked.findLast((one) => one.method === "POST")!.body).toEqual({ base_version: 3 });
  expect(useDocument().version).toBe(4);
});

test("earlier changes are fetched a page at a time", async () => {
  const page = (from: number) =>
    Array.from({ length: 100 }, (_, i) => ({ ...ENTRY, version: from - i, label: `Edit ${from - i}` }));
  plug({ "GET /api/projects/p/history": (one) => (one.query["before"] ? page(100).slice(0, 5) : page(200)) });
  mount(HistoryDialog, { attachTo: document.body });
  await settled();
  await press("Earlier …");
  expect(asked.at(-1)!.query["before"]).toBe("101");
  expect(said()).toContain("Edit 96");
  expect(button("Earlier …")).toBeUndefined();
});

test("a refusal stays until it is dismissed; what is easily regretted has a way back", async () => {
  const doc = useDocument();
  const undo = vi.spyOn(doc, "undo").mockResolvedValue(undefined);
  mount(MessageBar, { attachTo: document.body });
  doc.message = "Floor area -5: at least 0.1 m².";
  await settled();
  expect(said()).toContain("at least 0.1");
  await press("Dismiss");
  expect(doc.message).toBe("");
  doc.done = { label: "Room deleted", version: 3 };
  await settled();
  expect(said()).toContain("Room deleted");
  await press("Undo");
  expect(undo).toHaveBeenCalledOnce();
  // A later edit stands on it: the way back is History.
  doc.done = { label: "Zone deleted", version: 2 };
  await settled();
  expect(button("Undo")).toBeUndefined();
});

test("projects by state, copied, put away and brought back", async () => {
  const rows = [
    { id: "p", name: "Hall", version: 1, state: "open" },
    { id: "q", name: "Barn", version: 1, state: "open" },
    { id: "z", name: "Shed", version: 1, state: "deleted" },
  ];
  plug({
    "GET /api/projects": () => rows,
    "PUT /api/projects/z/state": () => ((rows[2]!.state = "open"), {}),
    "POST /api/projects/q/copy": refused(422, "There are 500 projects already."),
  });
  const panel = mount(ProjectsPanel, { attachTo: document.body });
  await settled();
  const heads = [...document.querySelectorAll(".v-list-subheader")].map((one) => one.textContent);
  expect(heads).toEqual(["Open", "Deleted"]);
  expect(said()).toContain("Hall open now");
  const deletes = [...document.querySelectorAll<HTMLButtonElement>("button")].filter(
    (one) => one.textContent!.trim() === "Delete",
  );
  expect(deletes.map((one) => one.disabled)).toEqual([true, false]);
  [...document.querySelectorAll<HTMLElement>("button")]
    .filter((one) => one.textContent!.trim() === "Copy")[1]!
    .click();
  await settled();
  expect(asked.at(-1)!.body).toEqual({ name: "Barn, copy" });
  expect(said()).toContain("There are 500 projects already.");
  await press("Bring back");
  expect(panel.emitted("changed")).toHaveLength(1);
  expect([...document.querySelectorAll(".v-list-subheader")].map((one) => one.textContent)).toEqual(["Open"]);
});

const snag = (code: string, level: string, sentence: string, more: object = {}) => ({
  code, level, sentence, kind: "room", id: "r", stage: "rooms", field: "", way_out: "mend it", mend: null, ...more,
}); // prettier-ignore

test("snags: the gravest first, many of a kind under their first, mended at a stroke or gone to", async () => {
  const changes = [{ op: "set", kind: "room", id: "r", fields: { heated: false } }];
  const snags = {
    a: snag("cold", "note", "Note one"),
    b: snag("draught", "doubtful", "Doubt one"),
    c: snag("draught", "doubtful", "Doubt two"),
    d: snag("draught", "doubtful", "Doubt three"),
    e: snag("broken", "stops", "Stops", { field: "height_m", mend: { label: "Do not heat it", changes } }),
  };
  await useDocument().applied(async () => answer(4, {}, { snag: snags }));
  const { made, plugins } = router();
  const attempt = vi.spyOn(useDocument(), "attempt").mockResolvedValue(true);
  const panel = mount(SnagPanel, { attachTo: document.body, global: { plugins } });
  const sentences = () => [...document.querySelectorAll(".snag p")].map((one) => one.textContent);
  expect(sentences()).toEqual(["Stops", "Doubt one", "Note one"]);
  await press("2 more like this");
  expect(sentences()).toEqual(["Stops", "Doubt one", "Doubt two", "Doubt three", "Note one"]);
  await press("Only the first of these 3");
  expect(sentences().length).toBe(3);
  await press("Do not heat it");
  expect(attempt).toHaveBeenCalledWith("Do not heat it", changes);
  await press("Go there: mend it");
  expect(made.currentRoute.value.fullPath).toBe("/p/rooms?at=room/r");
  expect(useView().wanted).toEqual({ kind: "room", id: "r", field: "height_m" });
  expect(useView().selectedRoom).toBe("r");
  expect(panel.emitted("close")).toHaveLength(1);
});

test("no snag is said as such", () => {
  mount(SnagPanel, { attachTo: document.body, global: { plugins: router().plugins } });
  expect(said()).toContain("The checks found nothing.");
});

test("long work is in the tray while it lasts, and is cancelled there", async () => {
  plug({
    "POST /api/tasks/t/cancel": {
      id: "t",
      state: "cancelled",
      title: "Year",
      doing: "",
      progress: 0.4,
      created: "2026",
      error: null,
    },
  });
  const tasks = useTasks();
  mount(TaskTray, { attachTo: document.body });
  expect(document.querySelector(".tray")).toBe(null);
  tasks.tasks = [
    { id: "t", state: "running", title: "Year", doing: "rooms", progress: 0.4, created: "2026", error: null },
  ] as never;
  await nextTick();
  document.querySelector<HTMLElement>(".tray")!.click();
  await settled();
  expect(said()).toContain("rooms");
  await press("Cancel");
  expect(tasks.open).toEqual([]);
});

test("first steps stand until a room has its load, and say which is next", async () => {
  const doc = useDocument();
  await doc.applied(async () =>
    answer(5, {
      site: [{ id: "s", name: "Starter site" }],
      kit: [{ id: "k", outer_wall: null, roof: null }],
      use: [],
    }),
  );
  const steps = mount(FirstSteps, { attachTo: document.body, global: { plugins: router().plugins } });
  expect(steps.find(".next").text()).toContain("Place");
  await doc.applied(async () =>
    answer(6, { site: [{ id: "s", name: "Tarnwick" }], kit: [{ id: "k", outer_wall: "w", roof: null }] }),
  );
  await nextTick();
  expect(steps.find(".next").text()).toContain("Uses");
  expect(steps.findAll(".done").map((one) => one.text().slice(1).trim().split(" ")[0])).toEqual([
    "Place",
    "Fabric",
    "Rooms",
  ]);
  await doc.applied(async () => answer(7, {}, { room: { r: { heating_w: 5 } } }));
  await nextTick();
  expect(steps.find("nav").exists()).toBe(false);
  expect(useResults().get("room", "r")).toBeDefined();
});
