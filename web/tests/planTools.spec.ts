import { mount } from "@vue/test-utils";
import { beforeEach, expect, test, vi } from "vitest";
import { computed, defineComponent, h, ref } from "vue";
import { useDocument } from "../src/document/store";
import { useOptions } from "../src/document/options";
import { useResults } from "../src/results/store";
import { useView } from "../src/view/store";
import { copiedFaces, withoutFaces } from "../src/stages/rooms/faces";
import { addLevel, addZone, usualUse } from "../src/stages/rooms/levels";
import { isChange, shade, shadeOf, useHeat, type Measure } from "../src/stages/rooms/plan/heat";
import { marksOf } from "../src/stages/rooms/plan/marks";
import type { Outline, Point } from "../src/stages/rooms/plan/outline";
import { usePaper } from "../src/stages/rooms/plan/paper";
import { usePlanTools } from "../src/stages/rooms/plan/tools";
import { asked, plug, refused, settled } from "./server";

const SQUARE: Outline = [[0, 0], [4, 0], [4, 4], [0, 4]]; // prettier-ignore
const BESIDE: Outline = [[4, 0], [8, 0], [8, 4], [4, 4]]; // prettier-ignore
const answer = (version: number, changed: Record<string, unknown[]>, results: Record<string, unknown> = {}) =>
  ({
    version, objects: { changed, gone: {} }, calculation_fault: null, steps: { undo: null, redo: null },
    results: { version, milliseconds: 1, rooms_calculated: 0, changed: results, gone: {}, categories: [], all: false },
  }) as never; // prettier-ignore

/** A plan of 400 by 300 px at 20 px a metre, its lower left corner at nought; 1 m is 20 px, up is up. */
async function plan() {
  const doc = useDocument();
  doc.projectId = "p";
  await doc.applied(async () =>
    answer(2, {
      level: [{ id: "l", name: "Ground", floor_m: 0, height_m: 3 }],
      use: [{ id: "u", name: "Office" }],
      room: [
        { id: "a", number: "1", name: "West", level: "l", use: "u", outline_m: SQUARE, floor_area_m2: 16 },
        { id: "b", number: "2", name: "East", level: "l", use: "u", outline_m: BESIDE, floor_area_m2: 16 },
      ],
    }),
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true);
  const view = useView();
  let tools!: ReturnType<typeof usePlanTools>;
  let paper!: ReturnType<typeof usePaper>;
  const grid = ref(0.1);
  mount(
    defineComponent({
      setup() {
        const box = ref<HTMLElement | null>(null);
        const outlines = computed(
          () =>
            new Map(
              doc.rows("room").flatMap((row) => (row.outline_m ? [[row.id, row.outline_m as Outline]] : [])),
            ),
        );
        const corners = computed(() => [...outlines.value.values()].flat() as Point[]);
        paper = usePaper(
          box,
          () => "l",
          () => corners.value,
        );
        tools = usePlanTools({
          box, paper, grid, corners, outlines: outlines as never, nextNumber: () => "3",
          level: computed(() => doc.get("level", "l")), room: computed(() => doc.get("room", view.selectedRoom)),
        }); // prettier-ignore
        return () => h("div", { ref: box, setPointerCapture: () => {} });
      },
    }),
    { attachTo: document.body },
  );
  HTMLElement.prototype.setPointerCapture = () => {};
  paper.height.value = 300;
  paper.scale.value = 20;
  paper.origin.value = [0, 0];
  paper.held.value = true;
  await settled(2);
  paper.origin.value = [0, 0];
  const at = (x: number, y: number, more: object = {}) =>
    ({
      clientX: x * 20,
      clientY: 300 - y * 20,
      button: 0,
      pointerId: 1,
      shiftKey: false,
      ...more,
    }) as PointerEvent;
  const key = (name: string, more: object = {}) =>
    tools.onKey({
      key: name,
      altKey: false,
      shiftKey: false,
      preventDefault() {},
      stopPropagation() {},
      ...more,
    } as never);
  const kept = () =>
    attempt.mock.calls.at(-1) as unknown as [
      string,
      { op: string; id: string; fields: Record<string, unknown> }[],
    ];
  return { doc, view, attempt, tools, paper, grid, at, key, kept };
}

beforeEach(() => {
  useOptions();
});

test("places on the screen and on the plan are one, and zooming keeps what is under the pointer", async () => {
  const { paper, at } = await plan();
  expect(paper.toPlan(at(3, 2))).toEqual([3, 2]);
  expect([paper.toX(3), paper.toY(2)]).toEqual([60, 260]);
  expect(paper.path([[0, 0], [1, 2]])).toBe("0,300 20,260"); // prettier-ignore
  const event = { ...at(3, 2), deltaY: -500 } as unknown as WheelEvent;
  paper.zoom(event);
  expect(paper.scale.value).toBeCloseTo(20 * Math.E);
  const [x, y] = paper.toPlan(event);
  expect([x, y].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([3, 2]);
  for (let i = 0; i < 20; i += 1) paper.zoom(event);
  expect(paper.scale.value).toBe(300);
});

test("a rectangle is drawn onto the grid and becomes a room of the level", async () => {
  const { tools, at, kept, view } = await plan();
  tools.tool.value = "rectangle";
  tools.press(at(10.03, 1.04));
  tools.move(at(13.02, 5.03));
  await tools.release();
  const [label, [change]] = kept();
  expect(label).toBe("Room drawn");
  expect(change!.fields).toMatchObject({ number: "3", level: "l", use: "u", name: "New room" });
  expect(change!.fields["outline_m"]).toEqual([[10, 1], [13, 1], [13, 5], [10, 5]]); // prettier-ignore
  expect(view.selectedRoom).toBe(change!.id);
});

test("a drag that goes nowhere makes no room", async () => {
  const { tools, at, attempt } = await plan();
  tools.tool.value = "rectangle";
  tools.press(at(10, 1));
  await tools.release();
  tools.press(at(10, 1));
  tools.move(at(10.02, 6));
  await tools.release();
  expect(attempt).not.toHaveBeenCalled();
});

test("a polygon closes with Enter, and is given up with Escape or with two corners", async () => {
  const { tools, at, key, kept, attempt } = await plan();
  tools.tool.value = "polygon";
  for (const [x, y] of [[10, 0], [14, 0], [14, 0], [14, 3]] as const) tools.press(at(x, y)); // prettier-ignore
  await key("Enter");
  expect(kept()[1][0]!.fields["outline_m"]).toEqual([[10, 0], [14, 0], [14, 3]]); // prettier-ignore
  tools.press(at(20, 0));
  await key("Escape");
  expect([tools.drawn.value, tools.tool.value]).toEqual([[], "choose"]);
  tools.tool.value = "polygon";
  tools.press(at(20, 0));
  tools.press(at(22, 0));
  await key("Enter");
  expect(attempt).toHaveBeenCalledOnce();
});

test("a wall between two rooms moves in both", async () => {
  const { tools, at, kept, view } = await plan();
  view.selectRoom("a");
  tools.pressWall(at(4, 2), [4, 0], [4, 4]);
  tools.move(at(5, 2));
  expect([...tools.drafts.value.keys()].sort()).toEqual(["a", "b"]);
  await tools.release();
  const [label, changes] = kept();
  expect(label).toBe("Wall moved");
  expect(changes.find((one) => one.id === "a")!.fields["outline_m"]).toEqual([[0, 0], [5, 0], [5, 4], [0, 4]]); // prettier-ignore
  expect(changes.find((one) => one.id === "b")!.fields["outline_m"]).toEqual([[5, 0], [8, 0], [8, 4], [5, 4]]); // prettier-ignore
  expect(tools.drafts.value.size).toBe(0);
});

test("a wall that ends where it began is no change", async () => {
  const { tools, at, attempt } = await plan();
  tools.pressWall(at(4, 2), [4, 0], [4, 4]);
  tools.move(at(5, 2));
  tools.move(at(4.01, 2));
  await tools.release();
  expect(attempt).not.toHaveBeenCalled();
});

test("a corner snaps to another room's corner, not to where it came from", async () => {
  const { tools, at, kept } = await plan();
  tools.pressCorner(at(8, 4), [8, 4]);
  tools.move(at(8.1, 4.1));
  await tools.release();
  expect(kept()[1][0]!.fields["outline_m"]).toContainEqual([8.1, 4.1]);
  tools.pressCorner(at(8, 4), [8, 4]);
  tools.move(at(4.2, 4.2));
  await tools.release();
  expect(kept()[1][0]!.fields["outline_m"]).toContainEqual([4, 4]);
});

test("with Alt the arrows move the chosen room by the grid, with Shift by a metre", async () => {
  const { key, kept, view, attempt } = await plan();
  await key("ArrowRight", { altKey: true });
  expect(attempt).not.toHaveBeenCalled();
  view.selectRoom("a");
  await key("ArrowRight", { altKey: true });
  expect((kept()[1][0]!.fields["outline_m"] as Outline)[0]).toEqual([0.1, 0]);
  await key("ArrowDown", { altKey: true, shiftKey: true });
  expect((kept()[1][0]!.fields["outline_m"] as Outline)[0]).toEqual([0, -1]);
});

test("rooms are chosen one by one or together, and the paper is moved by what is not a room", async () => {
  const { tools, at, view, paper } = await plan();
  tools.pressRoom(at(1, 1), "a");
  tools.pressRoom(at(5, 1, { shiftKey: true }), "b");
  expect([tools.chosen.value, view.selectedRoom]).toEqual([["a", "b"], "b"]);
  tools.pressRoom(at(1, 1, { shiftKey: true }), "a");
  expect(tools.chosen.value).toEqual(["b"]);
  tools.press(at(10, 5));
  tools.move(at(12, 6));
  expect(paper.origin.value.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([-2, -1]);
  await tools.release();
});

test("a room is split along a line, and rooms are joined; a refusal is told", async () => {
  const { tools, at, view, doc } = await plan();
  plug({
    "POST /api/projects/p/plan/split": refused(422, "The line does not cross the room."),
    "POST /api/projects/p/plan/join": answer(3, {}) as never,
  });
  view.selectRoom("a");
  tools.tool.value = "split";
  tools.press(at(2, -1));
  tools.move(at(2, 6));
  await tools.release();
  const sent = (way: string) => asked.find((one) => one.path.endsWith(way))!.body;
  expect(sent("split")).toEqual({ base_version: 2, room: "a", start: [2, -1], end: [2, 6] });
  expect(doc.message).toBe("The line does not cross the room.");
  tools.chosen.value = ["a", "b"];
  await tools.join();
  expect(sent("join")).toEqual({ base_version: 2, rooms: ["a", "b"] });
  expect([tools.chosen.value, doc.version]).toEqual([["a"], 3]);
});

test("two places of a known distance are picked for the scale of a drawing", async () => {
  const { tools, at } = await plan();
  tools.tool.value = "scale";
  tools.press(at(1, 1));
  expect(tools.tool.value).toBe("scale");
  tools.press(at(6, 1));
  expect([tools.picked.value, tools.tool.value]).toEqual([[[1, 1], [6, 1]], "choose"]); // prettier-ignore
});

test("colours of rooms: by area, against the base, and none where there is no figure", async () => {
  const { doc, view } = await plan();
  await doc.applied(async () =>
    answer(3, {}, {
      room: { a: { cooling: { sensible_w: 800 }, heating_w: 320 }, b: { cooling: null, heating_w: 160 } },
      effective: { a: { lights_w_m2: [8, "own"] }, b: { lights_w_m2: [null, ""] } },
      airflow: { a: { design_m3_s: 0.16 } },
    }),
  ); // prettier-ignore
  const measure = ref<Measure>("cooling");
  const heat = useHeat(
    measure,
    computed(() => doc.rows("room")),
  );
  expect([...heat.values.value]).toEqual([["a", 50]]);
  expect(heat.fill("b")).toBe("var(--field)");
  expect(heat.text("a")).toBe("50.0 W/m²");
  measure.value = "heating";
  expect(heat.values.value.get("b")).toBe(10);
  expect(heat.range.value).toEqual([0, 20]);
  measure.value = "supply";
  expect(heat.values.value.get("a")).toBeCloseTo(0.01);
  measure.value = "lights";
  expect([...heat.values.value]).toEqual([["a", 8]]);
  measure.value = "";
  expect([heat.values.value.size, heat.text("a"), heat.range.value]).toEqual([0, "", [0, 1]]);
  measure.value = "cooling_to_base";
  expect(heat.values.value.size).toBe(0);
  plug({ "GET /api/projects/p/hour": { a: { load_w: 160, air_c: 24 }, b: { load_w: -16, air_c: 26 } } });
  view.month = 8;
  measure.value = "air";
  await settled();
  expect(asked.at(-1)!.query).toEqual({ month: "8", step: "90" });
  expect(heat.range.value).toEqual([24, 26]);
  measure.value = "now";
  await settled();
  expect(heat.values.value.get("b")).toBe(-1);
  expect(heat.range.value).toEqual([-1, 10]);
});

test("less than the base is green, more is red, the same is paper", () => {
  expect([isChange("cooling"), isChange("heating_to_base")]).toEqual([false, true]);
  expect(shadeOf("cooling_to_base", 0)).toBe(shade("var(--accent)", 1));
  expect(shadeOf("cooling_to_base", 1)).toBe(shade("var(--ember)", 1));
  expect(shadeOf("cooling_to_base", 0.5)).toBe(shade("var(--ember)", 0));
  expect(shade("x", 7)).toBe(shade("x", 1));
});

test("windows are drawn along the longest side that faces their way", () => {
  const surface = { azimuth_deg: 180 } as never;
  const window = { count: 2, width_m: 1, kind: "window" } as never;
  const door = { count: 1, width_m: 9, kind: "door" } as never;
  const marks = marksOf(surface, [window, door], SQUARE, 0);
  expect(marks.map((mark) => mark.door)).toEqual([false, false, true]);
  // Each in the middle of its half; what is wider than the side fills it.
  expect(marks[0]!.ends.map(([x]) => x).sort()).toEqual([0.5, 1.5]);
  expect(marks[1]!.ends.map(([x]) => x).sort()).toEqual([2.5, 3.5]);
  expect(marks[2]!.ends.map(([x]) => x).sort()).toEqual([0, 4]);
  expect(marks[0]!.ends.every(([, y]) => y === 0)).toBe(true);
  // Turned by a quarter the same side faces west, and no side of a square faces a slanting way.
  expect(marksOf({ azimuth_deg: 270 } as never, [window], SQUARE, 90)[0]!.ends[0][1]).toBe(0);
  expect(marksOf({ azimuth_deg: 45 } as never, [window], SQUARE, 0)).toEqual([]);
});

test("surfaces of a room are copied with openings of their own, and do not follow the plan", async () => {
  const { doc } = await plan();
  await doc.applied(async () =>
    answer(4, {
      surface: [{ id: "s", room: "a", name: "South", plan_key: "wall/1", plan_area_m2: 9 }],
      opening: [{ id: "o", surface: "s", width_m: 1 }],
    }),
  );
  const [surface, opening] = copiedFaces("a", "b");
  expect(surface).toMatchObject({
    op: "create",
    kind: "surface",
    fields: { room: "b", name: "South", plan_key: null },
  });
  expect(opening!.fields).toEqual({ surface: surface!.id, width_m: 1 });
  expect(surface!.id).not.toBe("s");
  expect(withoutFaces("a")).toEqual([{ op: "delete", kind: "surface", id: "s" }]);
  expect(withoutFaces("b")).toEqual([]);
});

test("new levels stand on the top one, new zones have free names, new rooms the usual use", async () => {
  const { doc, kept } = await plan();
  await doc.applied(async () => answer(5, { zone: [{ id: "z", name: "Zone 2" }] }));
  await addLevel();
  expect(kept()[1][0]!.fields).toMatchObject({ name: "Level 1", floor_m: 3, height_m: 3 });
  await addZone();
  expect(kept()[1][0]!.fields).toEqual({ name: "Zone 3" });
  expect(usualUse(undefined)).toBe("u");
  await doc.applied(async () => answer(6, { use: [{ id: "v", name: "Shop" }] }));
  expect(usualUse(undefined)).toBe(null);
  expect(usualUse(doc.get("room", "a"))).toBe("u");
  expect(useResults().version).toBe(6);
});
