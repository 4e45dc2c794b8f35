// Loads: rows of the sheet, the breakdown of one of them, what its comfort says, the roll, and Working.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { useBaseLoads } from "../src/document/baseLoads";
import { useResults } from "../src/results/store";
import { useView } from "../src/view/store";
import RollPanel from "../src/app/RollPanel.vue";
import WorkingPanel from "../src/app/WorkingPanel.vue";
import BreakdownBars from "../src/stages/loads/BreakdownBars.vue";
import RoomComfort from "../src/stages/loads/RoomComfort.vue";
import { loadRows, type LoadRow } from "../src/stages/loads/rows";
import { brought, said, texts } from "./brought";
import { asked, plug, settled } from "./server";

const peak = (watts: number, parts: number[] = [], latent = 0) => ({
  sensible_w: watts, latent_w: latent, total_w: watts + latent, month: 7, step: 90, parts_w: parts,
}); // prettier-ignore
const room = (cooling: unknown, heating: number, more: Record<string, unknown> = {}) => ({
  volume_m3: 60,
  cooling,
  heating_w: heating,
  heating_parts_w: [0, heating * 0.6, heating * 0.4],
  heating_simple_w: 0,
  cooling_with_margin_w: null,
  heating_with_margin_w: heating,
  floating_peak_c: null,
  too_warm_h: null,
  floating_month: 7,
  floating_step: 96,
  winter_air_c: 20,
  control: null,
  ...more,
});
const group = (kind: string, name: string, watts: number) => ({
  kind, name, floor_area_m2: 100, cooling: peak(watts), heating_w: 900, heating_parts_w: [], heating_simple_w: 0,
  cooling_with_margin_w: watts * 1.1, heating_with_margin_w: 990, room_ids: [],
}); // prettier-ignore
const ROOMS = [
  {
    id: "a",
    number: "1.10",
    name: "Loft",
    floor_area_m2: 60,
    level: "l2",
    zone: null,
    use: "u",
    air_system: "s",
  },
  {
    id: "b",
    number: "1.2",
    name: "Store",
    floor_area_m2: 40,
    level: "l1",
    zone: null,
    use: "u",
    air_system: null,
  },
  {
    id: "c",
    number: "0.1",
    name: "Hall",
    floor_area_m2: 90,
    level: "l1",
    zone: null,
    use: "u",
    air_system: "s",
  },
];
const CATEGORIES = ["sun", "walls", "infiltration"];

async function building() {
  return brought(
    {
      room: ROOMS,
      level: [
        { id: "l1", name: "Ground", position: 1 },
        { id: "l2", name: "Upper", position: 2 },
      ],
      use: [{ id: "u", name: "Workshop" }],
      air_system: [{ id: "s", name: "AHU-1" }],
    },
    {
      room: {
        a: room(peak(1500, [1000, 600, -100], 250), 800, { cooling_with_margin_w: 1650 }),
        b: room(null, 400, { floating_peak_c: 29.5, too_warm_h: 2.5 }),
      },
      room_air: { a: { outdoor_air: { sensible_w: 300, latent_w: 120 } }, b: { outdoor_air: null, warmest_c: 27.25 } },
      airflow: { a: { design_m3_s: 0.125 } },
      group: {
        building: group("building", "Building total", 1400),
        u: group("use", "Workshop", 1400),
        s: group("air_system", "AHU-1", 0),
        l1: group("level", "Ground", 1400),
      },
      group_air: { s: { outdoor_air: { sensible_w: 1, latent_w: 2 } }, l1: { outdoor_air: { sensible_w: 50, latent_w: 20 } } },
      air_system: { s: { flow_m3_s: 0.4 } },
    },
    CATEGORIES,
  ); // prettier-ignore
}

test("rooms stand by their numbers as people count, then levels, uses, systems and the building", async () => {
  await building();
  const rows = loadRows();
  expect(rows.map((row) => row.number || row.kind)).toEqual([
    "1.2",
    "1.10",
    "level",
    "use",
    "air_system",
    "building",
  ]);
  const loft = rows.find((row) => row.id === "a")!;
  expect([loft.flow_m3_s, loft.outdoor_air_w, loft.with_margin.cooling_w]).toEqual([0.125, 420, 1650]);
  const store = rows.find((row) => row.id === "b")!;
  expect(store.peak).toBeNull();
  // Under the air of its systems it is cooler than it floats by itself: that is what is told.
  expect(store.floating?.text.replace(/\s/g, "")).toBe("27.3°C");
  // A system that cools nothing has no peak and brings no outdoor air to one.
  const system = rows.find((row) => row.id === "s")!;
  expect([system.peak, system.outdoor_air_w, system.flow_m3_s]).toEqual([null, null, 0.4]);
  expect(rows.find((row) => row.id === "l1")!.outdoor_air_w).toBe(70);
});

test("a room that was not calculated has no row", async () => {
  await building();
  expect(loadRows().some((row) => row.id === "c")).toBe(false);
});

async function breakdown(id: string, mode: "cooling" | "heating" = "cooling") {
  await building();
  const row = loadRows().find((one) => one.id === id) as LoadRow;
  const stubs = { WarmthBars: true };
  const made = mount(BreakdownBars, { props: { row, mode }, attachTo: document.body, global: { stubs } });
  await settled();
  return made;
}

test("the breakdown has the largest part first, shares, their sum, margin, moisture and outdoor air", async () => {
  const made = await breakdown("a");
  const lines = texts(".line");
  expect(lines[0]).toMatch(/^Sun through windows ?1\.00 kW ?67 %$/);
  expect(lines[1]).toMatch(/^Walls ?0\.60 kW ?40 %$/);
  expect(lines[2]).toMatch(/^Infiltration ?−0\.10 kW ?-7 %$/);
  expect(lines[3]).toMatch(/^Sum ?1\.50 kW$/);
  expect(lines[4]).toMatch(/^With the margin ?1\.65 kW$/);
  expect(made.find("[data-test=latent]").text()).toContain("0.25");
  expect(made.find("[data-test=outdoor-air]").text()).toContain("0.42");
  expect(said()).toContain("own peak, Jul 15:00");
});

test("bars to both sides of nought share one scale", async () => {
  const made = await breakdown("a");
  const bars = made.findAll(".track i").map((bar) => (bar.element as HTMLElement).style);
  // The largest is ten times the one below nought, which ends where the others begin.
  const [sun, walls, leaks] = bars.map((style) => [parseFloat(style.left), parseFloat(style.width)] as const);
  expect(sun![1] / leaks![1]).toBeCloseTo(10, 3);
  expect(sun![1] / walls![1]).toBeCloseTo(1000 / 600, 3);
  expect(leaks![0] + leaks![1]).toBeCloseTo(sun![0], 3);
  expect(sun![0] + sun![1]).toBeCloseTo(100, 3);
});

test("in an option every part stands beside the base's", async () => {
  const made = await breakdown("a");
  useBaseLoads().loads = { a: { cooling_w: 1400, heating_w: 800, parts_w: [1000, 450, -50], heating_parts_w: [] } } as never; // prettier-ignore
  await settled();
  const lines = texts(".line");
  expect(lines[0]).toContain("same");
  expect(lines[1]).toMatch(/\+ ?0\.15/);
  expect(lines[2]).toMatch(/− ?0\.05/);
  expect(made.find("[data-test=base]").text()).toContain("1.40");
  expect(made.findAll(".there").length).toBe(3);
});

test("at the rail's hour the parts are those of that hour", async () => {
  const made = await breakdown("a");
  expect(made.find(".at").exists()).toBe(false);
  const view = useView();
  useResults().day = {
    subject: "a", month: view.month, courses: { unit: "W", parts: { sun: new Array(144).fill(200), walls: new Array(144).fill(0) } },
  } as never; // prettier-ignore
  await settled();
  await made.find(".at").trigger("click");
  expect(texts(".line")[0]).toMatch(/^Sun through windows ?0\.20 kW ?100 %$/);
  expect(texts(".line").some((line) => line.startsWith("With the margin"))).toBe(false);
  expect(said()).toContain("Jul 15:00");
});

test("a room that is not cooled says so, and on the winter day what it loses", async () => {
  await breakdown("b");
  expect(said()).toContain("This room is not cooled.");
  document.body.innerHTML = "";
  await breakdown("b", "heating");
  expect(texts(".line").map((line) => line.split(" ")[0])).toEqual(["Walls", "Infiltration", "Sum"]);
});

async function comfort(
  result: Record<string, unknown>,
  mode: "cooling" | "heating" = "cooling",
  air: unknown = null,
) {
  await building();
  await brought({}, { room: { a: result }, room_air: { a: air ?? { outdoor_air: null } } });
  mount(RoomComfort, { props: { id: "a", mode }, attachTo: document.body });
  await settled();
  return said();
}

const CONTROL = {
  air_c: 25.5, operative_c: 26.75, held_heating_w: 700, warm_up_w: 300, winter_coldest_c: 15.5, cooling_flat_out_h: 3, heating_flat_out_h: 0,
  too_warm: { kelvin: 1.25, hours: 2, month: 8, step: 96 }, too_cold: { kelvin: 0.75, hours: 1.5, step: 48 },
}; // prettier-ignore

test("comfort tells how warm a room gets without the air of its systems, and with it", async () => {
  const text = await comfort(room(null, 0, { floating_peak_c: 30.25, too_warm_h: 4.25 }), "cooling", { outdoor_air: null, warmest_c: 26.5 }); // prettier-ignore
  expect(text).toContain("Without the air of its systems it reaches 30.3 °C; on the worst design day it is too warm for its use for 4.3 h; with it 26.5 °C.");
}); // prettier-ignore

test("comfort tells what a limit misses, in summer and in winter", async () => {
  expect(await comfort(room(peak(900), 500, { control: CONTROL }))).toContain("too warm, 2.0 h in Aug, worst at 16:00; flat out for 3.0 h.");
  document.body.innerHTML = "";
  const winter = await comfort(room(peak(900), 1000, { control: CONTROL }), "heating");
  expect(winter).toContain("hold the set-point and");
  expect(winter).toContain("too cold for 1.5 h, worst at 08:00.");
}); // prettier-ignore

test("comfort is silent where there is nothing to tell", async () => {
  expect(await comfort(room(peak(900), 500))).toBe("");
});

const roll = async () => {
  await building();
  const made = mount(RollPanel, { attachTo: document.body });
  await settled();
  return made;
};

test("the roll groups rooms by what is chosen, in the order of levels and numbers", async () => {
  const made = await roll();
  expect(texts("[role=option]")).toEqual(["Ground", "0.1 Hall", "1.2 Store", "Upper", "1.10 Loft"]);
  useView().grouping = "system";
  await settled();
  expect(texts("[role=option]")).toEqual(["AHU-1", "0.1 Hall", "1.10 Loft", "on no system", "1.2 Store"]);
  useView().grouping = "zone";
  await settled();
  expect(texts("[role=option]")[0]).toBe("in no zone");
  made.unmount();
});

test("the roll is filtered by number and name, and says where nothing matches", async () => {
  const made = await roll();
  const filter = made.find("input[aria-label='Filter rooms']");
  await filter.setValue("STO");
  await settled();
  expect(texts("[role=option]")).toEqual(["Ground", "1.2 Store"]);
  await filter.setValue("cellar");
  await settled();
  expect(said()).toContain("No room matches.");
});

test("keys walk through the rooms, a click chooses a room or a group", async () => {
  const made = await roll();
  const view = useView();
  const list = made.find("[role=listbox]");
  await list.trigger("keydown", { key: "ArrowDown" });
  expect(view.selectedRoom).toBe("c");
  await list.trigger("keydown", { key: "ArrowDown" });
  await list.trigger("keydown", { key: "ArrowDown" });
  await list.trigger("keydown", { key: "ArrowDown" });
  expect(view.selectedRoom).toBe("a");
  await list.trigger("keydown", { key: "ArrowUp" });
  expect(view.selectedRoom).toBe("b");
  await made.findAll("[role=option]")[0]!.trigger("click");
  expect(view.subject).toEqual({ kind: "group", id: "l1" });
  // A group without a result of its own is a heading and no more.
  await made.findAll("[role=option]")[3]!.trigger("click");
  expect(view.subject).toEqual({ kind: "group", id: "l1" });
});

const TREE = {
  name: "1.10 Loft: cooling load", value: 1500, quantity: "load", symbol: "Qs", formula: "sum of its parts", numbers: "1.00 + 0.60 − 0.10",
  source: "heat balance", note: "", ref: "", inputs: [{ name: "Sun through windows", value: 1000, quantity: "load", symbol: "", formula: "", numbers: "", source: "", note: "", ref: "", inputs: [] }],
}; // prettier-ignore

async function working() {
  await building();
  plug({ "GET /api/projects/p/working": TREE });
  const made = mount(WorkingPanel, { attachTo: document.body, global: { stubs: { WorkingNode: true } } });
  await settled();
  return made;
}
const wanted = () => asked.filter((one) => one.path.endsWith("/working")).map((one) => one.query);

test("Working asks for the chosen room's peak of the season, or for the figure that was chosen", async () => {
  const made = await working();
  expect(said()).toContain("Choose a room, or any figure that is underlined");
  const view = useView();
  view.selectRoom("a");
  await settled();
  expect(made.find("[data-test=working-value]").text()).toBe("1.50");
  view.season = "heating";
  await settled();
  view.season = "cooling";
  view.selectRoom("b");
  await settled();
  view.explain("fan_static", "s");
  await settled();
  expect(wanted()).toEqual([
    { quantity: "room_cooling", subject: "a" },
    { quantity: "room_heating", subject: "a" },
    { quantity: "room_temperature", subject: "b" },
    { quantity: "fan_static", subject: "s" },
  ]);
});

test("a figure of one room gives way when another is chosen, one of a system stays", async () => {
  await working();
  const view = useView();
  view.selectRoom("a");
  view.explain("room_heating", "a");
  await settled();
  view.selectRoom("b");
  await settled();
  expect(view.working).toBeNull();
  view.explain("fan_static", "s");
  view.selectRoom("a");
  await settled();
  expect(view.working).toEqual({ quantity: "fan_static", subject: "s" });
});

test("Working is copied as text, and follows new results", async () => {
  const made = await working();
  useView().selectRoom("a");
  await settled();
  const write = vi.fn().mockResolvedValue(undefined);
  Object.defineProperty(navigator, "clipboard", { configurable: true, value: { writeText: write } });
  await made.findAll("button").find((one) => one.text() === "Copy as text")!.trigger("click");
  await settled();
  expect(write.mock.calls[0]![0]).toContain("1.10 Loft: cooling load");
  expect(write.mock.calls[0]![0]).toContain("Sun through windows");
  expect(said()).toContain("Copied");
  const before = wanted().length;
  await brought({}, { room: { a: room(peak(1600), 800) } });
  await settled();
  expect(wanted().length).toBe(before + 1);
}); // prettier-ignore
