import { mount } from "@vue/test-utils";
import { afterEach, expect, test, vi } from "vitest";
import { defineComponent, h, ref } from "vue";
import { createMemoryHistory, createRouter, type Router } from "vue-router";
import JumpBox from "../src/app/JumpBox.vue";
import { useKeys } from "../src/app/keys";
import { usePlaces } from "../src/app/places";
import { useDocument } from "../src/document/store";
import { addressed, followRouter } from "../src/view/address";
import { BALANCE, useView } from "../src/view/store";
import { settled } from "./server";

const answer = (changed: Record<string, unknown[]>, results: Record<string, unknown> = {}) =>
  ({
    version: 2, objects: { changed, gone: {} }, calculation_fault: null, steps: { undo: null, redo: null },
    results: { version: 2, milliseconds: 1, rooms_calculated: 0, changed: results, gone: {}, categories: [], all: false },
  }) as never; // prettier-ignore
function routed(): Router {
  const page = { template: "<p/>" };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: ["loads", "rooms", "air", "fabric"].map((name) => ({
      path: `/:project/${name}`,
      name,
      component: page,
    })),
  });
  followRouter(router);
  return router;
}
/** A component that does nothing but run what is given. */
function within<T>(router: Router, work: () => T): { made: T; unmount: () => void } {
  let made!: T;
  const mounted = mount(
    defineComponent({
      setup() {
        made = work();
        return () => h("p");
      },
    }),
    { global: { plugins: [router] } },
  );
  return { made, unmount: () => mounted.unmount() };
}
const press = (key: string, more: KeyboardEventInit = {}, on: EventTarget = document.body) =>
  on.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true, ...more }));

afterEach(() => vi.restoreAllMocks());

test("keys go to stages, open panels, move the hour, and stay out of fields", async () => {
  const doc = useDocument();
  const view = useView();
  const [undo, redo] = [vi.spyOn(doc, "undo"), vi.spyOn(doc, "redo")].map((spy) =>
    spy.mockResolvedValue(undefined),
  );
  const panels: string[] = [];
  const stages: string[] = [];
  const { unmount } = within(routed(), () =>
    useKeys({ openPanel: (name) => panels.push(name), goTo: (stage) => stages.push(stage) }),
  );
  for (const key of ["g", "a", "g", "q", "a"]) press(key);
  expect(stages).toEqual(["air"]);
  for (const key of ["/", "?", "s"]) press(key);
  press("k", { ctrlKey: true });
  expect(panels).toEqual(["jump", "keys", "snags", "jump"]);
  press("]");
  press("}", { shiftKey: true });
  press("[");
  expect(view.step).toBe(96);
  press("z", { ctrlKey: true });
  press("Z", { metaKey: true, shiftKey: true });
  expect([undo!.mock.calls.length, redo!.mock.calls.length]).toEqual([1, 1]);
  press("w");
  press("l");
  expect([view.workingOpen, view.rollOpen]).toEqual([false, false]);
  const field = document.body.appendChild(document.createElement("input"));
  for (const key of ["s", "/", "w", "]"]) press(key, {}, field);
  press("z", { ctrlKey: true }, field);
  expect([panels.length, view.step, undo!.mock.calls.length]).toEqual([4, 96, 1]);
  press("k", { ctrlKey: true }, field);
  expect(panels.length).toBe(5);
  unmount();
  press("s");
  expect(panels.length).toBe(5);
});

test("P goes to the peak of what is chosen", async () => {
  const doc = useDocument();
  const view = useView();
  await doc.applied(async () =>
    answer(
      {},
      {
        room: { r: { cooling: { month: 9, step: 75 } }, s: { cooling: null } },
        group: { building: { cooling: { month: 8, step: 84 } } },
      },
    ),
  );
  const { unmount } = within(routed(), () => useKeys({ openPanel: () => {}, goTo: () => {} }));
  press("p");
  expect([view.month, view.step]).toEqual([8, 84]);
  view.selectRoom("r");
  press("p");
  expect([view.month, view.step]).toEqual([9, 75]);
  view.selectRoom("s");
  press("p");
  expect([view.month, view.step]).toEqual([9, 75]);
  unmount();
});

test("a thing is gone to through what shows it, with the cursor in its field", async () => {
  const doc = useDocument();
  const view = useView();
  doc.projectId = "p";
  await doc.applied(async () =>
    answer({
      surface: [{ id: "s", room: "r" }],
      opening: [{ id: "o", surface: "s" }],
      duct_section: [{ id: "d", air_system: "ahu" }],
      pipe_section: [{ id: "q", circuit: "c" }],
    }),
  );
  const router = routed();
  const { made: places } = within(router, usePlaces);
  places.toThing("opening", "o", "rooms", "width_m");
  await settled();
  expect([view.selectedRoom, router.currentRoute.value.fullPath]).toEqual(["r", "/p/rooms?at=opening/o"]);
  expect(view.wanted).toEqual({ kind: "opening", id: "o", field: "width_m" });
  places.toThing("duct_section", "d", "air");
  expect([view.airSystem, view.wanted]).toEqual(["ahu", null]);
  places.toThing("pipe_section", "q", "water");
  expect(view.circuit).toBe("c");
  places.toThing("transfer", "t", "air");
  expect(view.airSystem).toBe(BALANCE);
  view.airSystem = "ahu";
  const snag = { kind: "room", id: "r", stage: "air", code: "extract_without_make_up", field: "" };
  places.toSnag(snag as never);
  expect(view.airSystem).toBe(BALANCE);
  places.toStage("fabric", "kit/");
  await settled();
  expect(router.currentRoute.value.fullPath).toBe("/p/fabric?page=kit/");
});

test("what is looked at stands in the address, and comes back from it", async () => {
  const router = routed();
  await router.push("/p/loads?of=room/r");
  const of = ref("group/building");
  const hour = ref("7-90");
  within(router, () => {
    addressed("of", of, true, (text) => /^(room|group)\//.test(text));
    addressed("hour", hour, false);
  });
  expect(of.value).toBe("room/r");
  await settled();
  expect(router.currentRoute.value.query).toEqual({ of: "room/r", hour: "7-90" });
  of.value = "room/s";
  hour.value = "8-12";
  await settled();
  await new Promise((later) => setTimeout(later, 5));
  await settled();
  expect(router.currentRoute.value.query).toEqual({ of: "room/s", hour: "8-12" });
  router.back();
  await settled();
  expect(of.value).toBe("room/r");
  // An address that makes no sense changes nothing.
  await router.push("/p/loads?of=nonsense");
  await settled();
  expect(of.value).toBe("room/r");
});

test("the jump box finds as one types, goes with Enter, and says where nothing is", async () => {
  const doc = useDocument();
  const view = useView();
  doc.projectId = "p";
  await doc.applied(async () =>
    answer(
      { room: [{ id: "r", number: "1.01", name: "Studio" }], schedule: [{ id: "h", name: "Studio hours" }] },
      {
        snag: {
          n: {
            code: "x",
            level: "note",
            sentence: "Studio is cold",
            kind: "room",
            id: "r",
            stage: "rooms",
            way_out: "heat it",
          },
        },
      },
    ),
  );
  const router = routed();
  await router.push("/p/loads");
  const box = mount(JumpBox, { attachTo: document.body, global: { plugins: [router] } });
  await settled();
  const field = document.querySelector<HTMLInputElement>(".box input")!;
  const names = () => [...document.querySelectorAll(".box .v-list-item-title")].map((one) => one.textContent);
  async function type(text: string): Promise<void> {
    field.value = text;
    field.dispatchEvent(new Event("input"));
    await settled(3);
  }
  expect(names()[0]).toBe("Place");
  await type("studio");
  expect(names()).toEqual(["1.01 Studio", "Studio hours", "Studio is cold"]);
  press("ArrowDown", {}, field);
  press("ArrowDown", {}, field);
  press("ArrowDown", {}, field);
  press("ArrowUp", {}, field);
  press("ArrowUp", {}, field);
  press("Enter", {}, field);
  await settled();
  // On a stage with a list of rooms the room is shown where one looks.
  expect([view.selectedRoom, router.currentRoute.value.path]).toEqual(["r", "/p/loads"]);
  expect(box.emitted("close")).toHaveLength(1);
  await type("nothing like it");
  expect(names()).toEqual([]);
  expect(document.body.textContent).toContain("Nothing has that name.");
  await type("all snags");
  press("Enter", {}, field);
  await settled();
  expect(box.emitted("open")).toEqual([["snags"]]);
});
