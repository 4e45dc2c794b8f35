// Schedules: a day's pattern in its ribbon and line, the rules of a year, and what a value stands for.
import { mount } from "@vue/test-utils";
import { beforeEach, expect, test, vi } from "vitest";
import { Refusal } from "../src/api/client";
import { useView } from "../src/view/store";
import type { Steps } from "../src/parts/pattern";
import HourRibbon from "../src/stages/schedules/HourRibbon.vue";
import PatternEditor from "../src/stages/schedules/PatternEditor.vue";
import YearPlan from "../src/stages/schedules/YearPlan.vue";
import YearRules from "../src/stages/schedules/YearRules.vue";
import { KINDS } from "../src/stages/schedules/kinds";
import { meaningOf } from "../src/stages/schedules/meaning";
import { brought, said, texts } from "./brought";
import { settled } from "./server";

const DAY: Steps = [
  [480, 0],
  [1080, 1],
  [1440, 0],
];
const SHARE = Object.values(KINDS).find((kind) => kind.quantity === "percent")!;
const DEGREES = Object.values(KINDS).find((kind) => kind.quantity === "temperature")!;

function ribbon(more: Record<string, unknown> = {}) {
  const cells = Array.from({ length: 24 }, (_, hour) => (hour >= 8 && hour < 18 ? 1 : 0));
  return mount(HourRibbon, {
    props: { cells, kind: SHARE, from: 8, to: 10, ...more },
    attachTo: document.body,
  });
}
const keys = async (made: ReturnType<typeof ribbon>, ...all: (string | [string, object])[]) => {
  for (const key of all) {
    const [name, more] = typeof key === "string" ? [key, {}] : key;
    await made.find(".ribbon").trigger("keydown", { key: name, ...more });
  }
};

test("arrows walk through the ribbon, Shift holds where it began, and its ends hold", async () => {
  const made = ribbon();
  await keys(made, "ArrowRight", ["ArrowLeft", { shiftKey: true }], "End", ["Home", { shiftKey: true }]);
  expect(made.emitted("select")).toEqual([[11, 11], [8, 9], [23, 23], [8, 0]]);
  await made.setProps({ from: 23, to: 23 });
  await keys(made, "ArrowRight");
  expect(made.emitted("select")!.at(-1)).toEqual([23, 23]);
}); // prettier-ignore

test("cells between the two ends are marked, whichever was chosen first", () => {
  const made = ribbon({ from: 10, to: 8 });
  const on = made.findAll(".ribbon span").flatMap((cell, i) => (cell.classes("on") ? [i] : []));
  expect(on).toEqual([8, 9, 10]);
});

test("figures are typed and set by Enter, a slip is taken back, what may not be says so", async () => {
  const made = ribbon();
  await keys(made, "4", "5", "x", "Backspace", "0");
  expect(said()).toContain("40 %, Enter sets it");
  await keys(made, "Enter");
  expect(made.emitted("set")!.at(-1)).toEqual([0.4]);
  await keys(made, "1", "2", ",", "5", "Enter");
  expect(made.emitted("set")!.at(-1)).toEqual([0.125]);
  await keys(made, "1", "4", "0", "Enter");
  expect(made.emitted("set")!.length).toBe(2);
  expect(made.emitted("fault")!.at(-1)).toEqual(["140 % is outside what a value may be."]);
  await keys(made, "7", "Escape", "Enter");
  expect(made.emitted("set")!.length).toBe(2);
});

test("up and down step a value within its limits; Alt moves the selection, M mirrors", async () => {
  const made = ribbon();
  await keys(
    made,
    "ArrowUp",
    "ArrowDown",
    ["ArrowLeft", { altKey: true }],
    ["ArrowRight", { altKey: true }],
    "m",
  );
  expect(made.emitted("set")).toEqual([[1], [Number((1 - SHARE.step).toPrecision(10))]]);
  expect(made.emitted("later")).toEqual([[-1], [1]]);
  expect(made.emitted("mirror")!.length).toBe(1);
  // Keys of the page stay the page's.
  await keys(made, ["z", { ctrlKey: true }], "q");
  expect(made.emitted("set")!.length).toBe(2);
});

test("temperatures are typed in the shown unit and kept in degrees Celsius", async () => {
  useView().system = "IP";
  const made = ribbon({ kind: DEGREES, cells: new Array(24).fill(20) });
  expect(made.findAll(".ribbon span")[0]!.text()).toBe("68");
  await keys(made, "7", "7", "Enter");
  expect(made.emitted("set")!.at(-1)![0]).toBeCloseTo(25, 9);
});

test("minutes are told in words, since so many cells would show nothing", () => {
  ribbon({ cells: new Array(1440).fill(0.5), from: 61, to: 61 });
  expect(texts(".ribbon span")).toEqual(["01:01 50 %"]);
});

const OTHERS = [{ id: "o", group: "Office", name: "weekday", steps: [[720, 0.2], [1440, 0.6]] as Steps }]; // prettier-ignore

async function editor(save = vi.fn().mockResolvedValue(undefined), more: Record<string, unknown> = {}) {
  const props = { steps: DAY, kind: SHARE, others: OTHERS, save, ...more };
  const made = mount(PatternEditor, { props: props as never, attachTo: document.body, global: { stubs: { SkylineView: true } } });
  await settled();
  const press = async (text: string) => {
    await made.findAll("button").find((one) => one.text() === text)!.trigger("click");
    await settled();
  };
  const choose = async (from: number, to = from) => {
    made.findComponent(HourRibbon).vm.$emit("select", from, to);
    await settled();
  };
  const kept = () => save.mock.calls.at(-1)![0] as Steps;
  return { made, press, choose, kept, save };
} // prettier-ignore
const line = () => document.querySelector<HTMLInputElement>(".line input")!;

test("ribbon and line are one pattern: what one says the other shows", async () => {
  const { made, kept, choose } = await editor();
  expect(line().value).toBe("00–08 0 · 08–18 100 · 18–24 0");
  await choose(12, 13);
  made.findComponent(HourRibbon).vm.$emit("set", 0.5);
  await settled();
  expect(kept()).toEqual([[480, 0], [720, 1], [840, 0.5], [1080, 1], [1440, 0]]);
  expect(line().value).toBe("00–08 0 · 08–12 100 · 12–14 50 · 14–18 100 · 18–24 0");
}); // prettier-ignore

test("a line that cannot be read keeps the pattern and says why", async () => {
  const { made, save } = await editor();
  await made.find(".line input").setValue("00–08 0 · 09–24 100");
  await made.find(".line input").trigger("keydown", { key: "Enter" });
  await settled();
  expect(save).not.toHaveBeenCalled();
  expect(said()).toContain("The pattern as it was is kept.");
});

test("a refusal of the server is told where the pattern is edited", async () => {
  const save = vi
    .fn()
    .mockRejectedValue(new Refusal({ title: "Lights by hour: at most 100 %.", faults: [] } as never));
  const { press } = await editor(save);
  await press("× 0.9");
  expect(said()).toContain("Lights by hour: at most 100 %. The pattern as it was is kept.");
});

test("the day, or the stretch that is chosen, goes earlier and later", async () => {
  const { press, choose, kept, save } = await editor();
  await press("earlier");
  expect(kept()).toEqual([[420, 0], [1020, 1], [1440, 0]]);
  await choose(0, 1);
  const calls = save.mock.calls.length;
  // Before the day there is nothing.
  await press("earlier");
  expect(save.mock.calls.length).toBe(calls);
  await press("later");
  expect(save.mock.calls.length).toBe(calls + 1);
}); // prettier-ignore

test("factors and steps change the chosen stretch alone, or the whole day", async () => {
  const { press, choose, kept } = await editor();
  await press("× 0.9");
  expect(kept()).toEqual([[480, 0], [1080, 0.9], [1440, 0]]);
  await choose(8, 9);
  await press("× 0.9");
  expect(kept()).toEqual([[480, 0], [600, 0.81], [1080, 0.9], [1440, 0]]);
}); // prettier-ignore

test("another pattern is laid over and taken, for hours or for the day", async () => {
  const { made, press, choose, kept } = await editor();
  expect(made.findAll("button").some((one) => one.text().startsWith("take"))).toBe(false);
  made.findComponent({ name: "Choice" }).vm.$emit("update:modelValue", "o");
  await settled();
  await choose(6, 8);
  await press("take hours from it");
  expect(kept()).toEqual([[360, 0], [540, 0.2], [1080, 1], [1440, 0]]);
  await choose(6);
  await press("take day from it");
  expect(kept()).toEqual(OTHERS[0]!.steps);
}); // prettier-ignore

test("a row of figures from a spreadsheet becomes the day", async () => {
  const { made, kept } = await editor();
  made.findComponent(HourRibbon).vm.$emit("paste", new Array(24).fill(25).join("\t"));
  await settled();
  expect(kept()).toEqual([[1440, 0.25]]);
  made.findComponent(HourRibbon).vm.$emit("paste", "1\t2\t3");
  await settled();
  expect(said()).toContain("The pattern as it was is kept.");
});

const SCHEDULE = {
  id: "s", name: "Workshop", kind: "fraction", base: "p1",
  patterns: [{ id: "p1", name: "workday", steps: DAY }, { id: "p2", name: "closed", steps: [[1440, 0]] }],
  rules: [{ start: "01-01", end: "12-31", days: "00000110", pattern: "p2" }, { start: "12-24", end: "12-31", days: "11111111", pattern: "p2" }],
}; // prettier-ignore

async function rules() {
  const doc = await brought({ schedule: [SCHEDULE] });
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(YearRules, { props: { schedule: SCHEDULE as never }, attachTo: document.body });
  await settled();
  const kept = () =>
    (attempt.mock.calls.at(-1) as unknown as [string, { fields: { rules: unknown[] } }[]])[1][0]!.fields
      .rules;
  return { made, attempt, kept };
}

test("rules of a year: days are flipped, rules moved, added and removed, the rest as it was", async () => {
  const { made, kept } = await rules();
  expect(texts("tbody tr").map((row) => row.split(" ").slice(0, 2).join(" "))).toEqual(["every 1", "but 1", "but 2"]);
  const [first, second] = SCHEDULE.rules;
  await made.findAll(".days")[0]!.findAll("button")[0]!.trigger("click");
  expect(kept()).toEqual([{ ...first, days: "10000110" }, second]);
  await made.find("[aria-label='Rule 2 earlier']").trigger("click");
  expect(kept()).toEqual([second, first]);
  await made.find("[aria-label='Remove rule 1']").trigger("click");
  expect(kept()).toEqual([second]);
  await made.findAll("button").find((one) => one.text() === "+ rule")!.trigger("click");
  expect(kept()).toEqual([first, second, { start: "07-01", end: "08-31", days: "11111111", pattern: "p1" }]);
  expect((made.find("[aria-label='Rule 1 earlier']").element as HTMLButtonElement).disabled).toBe(true);
}); // prettier-ignore

test("the year plan is painted with a pattern, or looked at day by day", async () => {
  const doc = await brought(
    { schedule: [SCHEDULE], project: [{ id: "p", year: 2027, holidays: [] }] },
    { schedule: { s: { days: new Array(365).fill(0).map((_, day) => (day > 356 ? 1 : 0)) } } },
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const stubs = { YearStrip: true, YearCarpet: true, YearRules: true };
  const made = mount(YearPlan, { props: { schedule: SCHEDULE as never, usages: [] }, attachTo: document.body, global: { stubs } });
  await settled();
  expect(said()).toContain("choose a pattern to paint with, or look at a day");
  const strip = made.findComponent({ name: "YearStrip" });
  strip.vm.$emit("look", 360);
  await settled();
  expect(made.emitted("pattern")).toEqual([["p2"]]);
  await made.findAll("button").find((one) => one.text() === "closed")!.trigger("click");
  expect(said()).toContain("sweep over weeks and weekdays to paint");
  strip.vm.$emit("paint", { start: "03-01", end: "03-07", days: "11111001" });
  await settled();
  const [label, changes] = attempt.mock.calls[0] as unknown as [string, { fields: { rules: unknown[] } }[]];
  expect(label).toBe("Year plan painted");
  expect(changes[0]!.fields.rules.at(-1)).toEqual({ start: "03-01", end: "03-07", days: "11111001", pattern: "p2" });
}); // prettier-ignore

beforeEach(() => brought({ use: [], use_item: [] }));

test("a value of a schedule stands for people and watts of its rooms", async () => {
  await brought(
    {
      use: [{ id: "u", name: "Workshop", task_lights_w_m2: 3 }],
      use_item: [{ id: "i", use: "u", basis: "w", value: 400, count: 2, usage_factor: 0.5 }, { id: "j", use: "u", basis: "w_m2", value: 5, count: 1, usage_factor: 1 }],
    },
    { use: { u: { area_m2: 100, people: 8, person_sensible_w: 75, person_latent_w: 55, lights_w: 1200, equipment_w: 2000 } } },
  );
  const of = (field: string, more: object = {}) => ({ kind: "use", id: "u", field, name: "Workshop", rooms: ["a", "b"], ...more }) as never;
  const told = (usage: never, value: number) => meaningOf(usage, value, "SI").replace(/\u2009/g, " ");
  expect(told(of("people_schedule"), 0.5)).toBe("4.0 of 8.0 people, 0.52 kW");
  expect(told(of("lights_schedule"), 0.25)).toBe("0.30 kW of 1.20 kW");
  expect(told(of("task_lights_schedule"), 1)).toBe("0.30 kW of 0.30 kW");
  expect(told(of("equipment_schedule"), 0)).toBe("0.00 kW of 2.00 kW");
  expect(told(of("setpoint_schedule"), 1)).toBe("set-points hold");
  expect(told(of("setpoint_schedule"), 0)).toBe("set back, set up or off");
  expect(told(of("infiltration_schedule"), 1)).toBe("");
  // Without a room it multiplies nothing; an item counts in every room.
  expect(told(of("lights_schedule", { rooms: [] }), 1)).toBe("");
  expect(told({ kind: "use_item", id: "i", rooms: ["a", "b"] } as never, 0.5)).toBe("0.40 kW");
  expect(told({ kind: "use_item", id: "j", rooms: ["a"] } as never, 1)).toBe("");
}); // prettier-ignore
