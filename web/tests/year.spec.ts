// The year's stage: what a summary of the server becomes on the page, and what an edit there sends.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { useDocument } from "../src/document/store";
import { useYear, type YearSummary } from "../src/document/year";
import { coursesOf, quantityOf, waterName } from "../src/stages/year/courses";
import { dayText, hourText, monthStarts } from "../src/stages/year/hours";
import BillsView from "../src/stages/year/BillsView.vue";
import ConnectedView from "../src/stages/year/ConnectedView.vue";
import EnergyTables from "../src/stages/year/EnergyTables.vue";
import RoomsView from "../src/stages/year/RoomsView.vue";
import YearStage from "../src/stages/year/YearStage.vue";
import { isLoose, toneOf } from "../src/stages/year/uses";
import { asked, plug, settled } from "./server";

vi.mock("@/view/address", () => ({ addressed: () => undefined }));

const months = (value: number) => new Array<number>(12).fill(value);
const roomYear = (more: Record<string, unknown> = {}) => ({
  heating_kwh: 1200,
  cooling_kwh: 300,
  heating_month_kwh: months(100),
  cooling_month_kwh: months(25),
  heating_peak_w: 2500,
  heating_peak_hour: 30,
  cooling_peak_w: 0,
  cooling_peak_hour: 0,
  served_heating_kwh: 900,
  coldest_c: 17.5,
  warmest_c: 31.5,
  warmest_hour: 4839,
  too_warm_h: 77,
  occupied_h: 2600,
  unmet_heating_h: 5,
  unmet_cooling_h: 0,
  missed_heating_kh: 4,
  missed_cooling_kh: 0,
  balance_kwh: {},
  sources_month_kwh: {
    sun: months(40),
    heating: months(100),
    "walls, windows and stored heat": months(-140),
  },
  fit_error: 1e-4,
  adaptive_h: { I: [210, 31], II: [123, 12], III: [45, 0] },
  ...more,
});
const SUMMARY = {
  version: 3,
  weather: "Mill Hill.csv",
  weather_key: "w1",
  hours: 8760,
  year: 2027,
  floor_area_m2: 200,
  energy: [
    { use: "heating", carrier: "natural gas", kwh: 6000, month_kwh: months(500), peak_w: 9000 },
    { use: "lights", carrier: "electricity", kwh: 2000, month_kwh: months(166.7), peak_w: 1500 },
    { use: "cooling", carrier: "cold without a plant", kwh: 900, month_kwh: months(75), peak_w: 4000 },
  ],
  carriers: {},
  rooms: { r1: roomYear(), r2: roomYear({ too_warm_h: 3, adaptive_h: undefined }) },
  systems: {
    s1: { cooling_kwh: 800, heating_kwh: 400, fans_kwh: 300, short_h: 2, balance: 1e-9 },
    "s2~r2": { cooling_kwh: 80, heating_kwh: 40, fans_kwh: 30, short_h: 0, balance: 1e-9 },
  },
  stores: {},
  units: { u1: { circuit: "c1", output_kwh: 5000, peak_w: 10_000, on_h: 1500 } },
  water: {
    "tower/c1": { m3: 42.5, month_m3: months(3.5), peak_m3_s: 0.0002 },
    "humidifier/s2~r2": { m3: 1.25, month_m3: months(0.1), peak_m3_s: 0.00001 },
  },
  circuits: {
    c1: { carried_kwh: 4000, peak_w: 9500, on_h: 1200, unmet_kwh: 25, unmet_h: 40, unmet_peak_w: 1250 },
  },
  faults: [],
} as unknown as YearSummary;

async function project(more: Record<string, unknown[]> = {}): Promise<ReturnType<typeof useDocument>> {
  const doc = useDocument();
  doc.projectId = "p";
  const changed = {
    room: [
      { id: "r1", number: "1.02", name: "Loft", floor_area_m2: 60 },
      { id: "r2", number: "1.01", name: "Store", floor_area_m2: 40 },
    ],
    air_system: [
      { id: "s1", name: "AHU north" },
      { id: "s2", name: "Room units" },
    ],
    circuit: [{ id: "c1", name: "Chilled" }],
    plant_unit: [{ id: "u1", name: "Chiller 1", circuit: "c1" }],
    ...more,
  };
  const results = {
    version: 1,
    milliseconds: 1,
    rooms_calculated: 0,
    changed: {},
    gone: {},
    categories: [],
    all: true,
  };
  await doc.applied(
    async () =>
      ({ version: 1, objects: { changed, gone: {} }, results, calculation_fault: null, steps: { undo: null, redo: null } }) as never,
  ); // prettier-ignore
  return doc;
}
const text = () => document.body.textContent!.replace(/\s+/g, " ");
const press = async (name: string) => {
  const found = [...document.querySelectorAll<HTMLElement>("button")].find((one) => one.textContent?.trim() === name);
  found!.click();
  await settled();
}; // prettier-ignore
/** Texts of a column's cells, top to bottom. */
const column = (key: string) =>
  [...document.querySelectorAll(`[role=rowgroup] [data-column="${key}"]`)].map((one) =>
    one.textContent!.replace(/[\s\u2009]+/g, ""),
  );

test("hours of a year have their day and time, in leap years too", () => {
  expect(hourText(2027, 0)).toBe("1 Jan 00:00");
  expect(hourText(2027, 4719)).toBe("16 Jul 15:00");
  expect(hourText(2028, 59 * 24)).toBe("29 Feb 00:00");
  expect(dayText(2027, 195)).toBe("Thu 15 Jul");
  expect(monthStarts(2027).slice(0, 3)).toEqual([0, 744, 1416]);
  expect(monthStarts(2028)[2]).toBe(1440);
});

test("courses have a name that a reader knows and the quantity of their values", async () => {
  const doc = await project();
  const courses = new Map(coursesOf(doc, SUMMARY).map((course) => [course.value, course.label]));
  expect(courses.get("energy/heating/natural gas")).toBe("Building: heating, natural gas");
  expect(courses.get("air_system/s1/fans_w")).toBe("AHU north: fans");
  expect(courses.get("air_system/s2~r2/cooling_w")).toBe("Room units, 1.01: cooling coil");
  expect(courses.get("unit/c1/u1")).toBe("Chilled: Chiller 1");
  expect(courses.get("water/tower/c1")).toBe("Cooling tower of Chilled: water");
  expect(courses.get("room/r2/operative_c")).toBe("1.01 Store: operative");
  // Rooms by their numbers, behind everything else.
  const rooms = [...courses.keys()].filter((name) => name.startsWith("room/"));
  expect(rooms.indexOf("room/r2/air_c")).toBeLessThan(rooms.indexOf("room/r1/air_c"));
  expect(waterName(doc, "humidifier/s2~r2")).toBe("Humidifier of Room units, 1.01");
  expect(waterName(doc, "tower/gone")).toBe("Cooling tower of gone");
  const quantities = ["room/r1/air_c", "air_system/s1/flow_kg_s", "water/tower/c1", "unit/c1/u1"].map(
    quantityOf,
  );
  expect(quantities).toEqual(["temperature", "mass_flow", "mass_flow", "load"]);
});

test("what no plant makes is told apart, and every use has its colour", () => {
  expect(isLoose("heat without a plant")).toBe(true);
  expect(isLoose("electricity")).toBe(false);
  expect(toneOf("lifts")).not.toBe(toneOf("lights"));
  expect(toneOf("something new")).toBe("neighbours");
});

test("energy stands by use, the largest first and what no plant makes last; a row leads to its hours", async () => {
  await project();
  const made = mount(EnergyTables, { props: { summary: SUMMARY, delivered: 8000 }, attachTo: document.body });
  await settled();
  expect(column("use")).toEqual(["heating", "lights", "cooling"]);
  expect(column("share")).toEqual(["75", "25", "–"]);
  const first = document.querySelector<HTMLElement>('[role=rowgroup] [data-column="use"]')!;
  first.dispatchEvent(new MouseEvent("pointerdown", { bubbles: true, button: 0 }));
  await settled();
  expect(made.emitted("show")?.at(-1)).toEqual(["energy/heating/natural gas"]);
});

test("water of towers and humidifiers is told by month, and that of nothing in words", async () => {
  await project();
  const made = mount(EnergyTables, { props: { summary: SUMMARY, delivered: 8000 }, attachTo: document.body });
  await settled();
  await press("Water");
  expect(column("name")).toEqual(["CoolingtowerofChilled", "HumidifierofRoomunits,1.01"]);
  expect(column("m3")[0]).toBe("42500.0");
  await made.setProps({ summary: { ...SUMMARY, water: {} } });
  await settled();
  expect(text()).toContain("Neither a cooling tower nor a humidifier takes water.");
  await press("Plant units");
  expect(column("name")).toEqual(["Chilled:Chiller1"]);
  expect(column("full")).toEqual(["500"]);
  // What a circuit did not give is shown first, where there is any of it.
  await press("Circuits");
  expect([column("name"), column("unmet"), column("unmet_h")]).toEqual([["Chilled"], ["25"], ["40"]]);
  document
    .querySelector<HTMLElement>('[role=rowgroup] [data-column="name"]')!
    .dispatchEvent(new MouseEvent("pointerdown", { bubbles: true, button: 0 }));
  await settled();
  expect(made.emitted("show")?.at(-1)).toEqual(["circuit/c1/unmet_w"]);
  await made.setProps({ summary: { ...SUMMARY, circuits: undefined } as unknown as YearSummary });
  await settled();
  expect(text()).toContain("No circuit carries anything.");
  await press("Air systems");
  expect(column("name")).toEqual(["AHUnorth", "Roomunits,1.01"]);
  await press("Hot water");
  expect(text()).toContain("No store of hot water is drawn from");
});

test("hours of comfort count by the use's limit or by the adaptive ones", async () => {
  await project();
  mount(RoomsView, {
    props: { summary: SUMMARY },
    attachTo: document.body,
    global: { stubs: { ChartBox: true } },
  });
  await settled();
  expect(column("number")).toEqual(["1.01", "1.02"]);
  expect(column("warm_h")).toEqual(["3", "77"]);
  await press("Adaptive II");
  expect(column("warm_h")).toEqual([]);
  // Years of earlier versions do not tell them: nothing is made up.
  expect(column("above")).toEqual(["–", "123"]);
  expect(column("below")).toEqual(["–", "12"]);
  await press("Adaptive III");
  expect(column("above")).toEqual(["–", "45"]);
  expect(text()).toContain("EN 16798-1's limits for rooms that are not cooled");
  await press("Limit of the use");
  expect(column("warm_h")).toEqual(["3", "77"]);
});

const LIFT = { id: "l1", name: "Goods lift", use: "lifts", power_w: 4000, schedule: null };

test("loads outside the rooms are added, and lead to their hours where the year has them", async () => {
  const doc = await project();
  const commit = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(ConnectedView, { attachTo: document.body });
  await settled();
  expect(text()).toContain("None yet: add a lift, outdoor lighting");
  await press("Add");
  const [label, changes] = commit.mock.calls[0] as unknown as [string, { kind: string; fields: object }[]];
  expect(label).toBe("New load outside the rooms");
  expect(changes).toMatchObject([
    { op: "create", kind: "connected_load", fields: { use: "lifts", power_w: 4000 } },
  ]);
  await project({ connected_load: [LIFT, { ...LIFT, id: "l2", name: "Yard", use: "outdoor lighting" }] });
  const lifts = { use: "lifts", carrier: "electricity", kwh: 10, month_kwh: months(1), peak_w: 4000 };
  useYear().summary = { ...SUMMARY, energy: [...SUMMARY.energy, lifts] } as never;
  await settled();
  expect(column("name")).toEqual(["Goodslift", "Yard"]);
  expect(column("schedule")).toEqual(["always", "always"]);
  // Outdoor lighting has no hours yet: the year was calculated before it.
  const links = [...document.querySelectorAll("button")].filter((one) =>
    one.textContent?.includes("hours of"),
  );
  expect(links.map((one) => one.textContent?.trim())).toEqual(["hours of lifts"]);
  await press("hours of lifts");
  expect(made.emitted("show")).toEqual([["energy/lifts/electricity"]]);
  await press("Remove");
  expect((commit.mock.calls.at(-1) as unknown as [string, object[]])[1]).toEqual([
    { op: "delete", kind: "connected_load", id: "l1" },
  ]);
});

const TARIFF = { id: "t1", name: "Works", carrier: "electricity", price_kwh: 0.2, peak_price_kwh: 0.3, peak_from_h: 8, peak_to_h: 20, demand_price_kw_month: 5, demand_in_peak: false, ratchet_share: 0.5, standing_day: 1, levy_kwh: 0.01, tax_share: 0.1, emission_kg_kwh: 0.3 }; // prettier-ignore
const bill = (month: number) => ({ month, kwh: { "peak hours": 100, "other hours": 50 }, peak_kw: 10, billed_kw: 20, energy: 40, demand: 100, standing: 31, levy: 1.5, tax: 17.25, total: 189.75 }); // prettier-ignore

test("a bill's month tells how it comes about, line by line", async () => {
  const doc = await project({ tariff: [TARIFF] });
  const year = useYear();
  year.summary = SUMMARY;
  year.bills = [{ tariff: "t1", name: "Works", carrier: "electricity", kwh: 1800, total: 2277, emissions_kg: 540, months: Array.from({ length: 12 }, (_, i) => bill(i + 1)) }] as never; // prettier-ignore
  const made = mount(BillsView, { attachTo: document.body });
  await settled();
  const lines = [...document.querySelectorAll("[aria-label='Arithmetic of the bill'] tr")].map((row) =>
    [...row.querySelectorAll("td")].map((cell) => cell.textContent!.replace(/\u2009/g, " ").trim()),
  );
  expect(lines.map(([name]) => name)).toEqual([
    "Energy, Mon to Fri 8 to 20 h",
    "Energy, other hours",
    "Demand, at least 50 % of the other months' highest",
    "Standing charge",
    "Levy",
    "Tax",
    "Total",
  ]);
  expect(lines[0]![2]).toBe("30.00");
  expect(lines[1]![2]).toBe("10.00");
  expect(lines[3]![1]).toContain("31 days");
  // The lines add up to the total.
  const figures = lines.map((line) => Number(line[2]!.replace(/[^0-9.]/g, "")));
  expect(figures.slice(0, -1).reduce((sum, value) => sum + value, 0)).toBeCloseTo(figures.at(-1)!, 2);
  await press("hours of lights");
  expect(made.emitted("show")).toEqual([["energy/lights/electricity"]]);
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  await press("Remove");
  expect((attempt.mock.calls[0] as unknown as [string, object[]])[1]).toEqual([{ op: "delete", kind: "tariff", id: "t1" }]); // prettier-ignore
});

test("made-up tariffs are offered where there are none, and a carrier that nothing takes says so", async () => {
  const doc = await project();
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  mount(BillsView, { attachTo: document.body });
  await settled();
  expect(text()).toContain("No tariff yet");
  await press("Add made-up examples");
  const [, changes] = attempt.mock.calls[0] as unknown as [string, { fields: { name: string } }[]];
  expect(changes.every((change) => change.fields.name.includes("made up"))).toBe(true);
  await project({ tariff: [{ ...TARIFF, carrier: "wood pellets" }] });
  useYear().summary = SUMMARY;
  await settled();
  expect(text()).toContain("Nothing takes wood pellets in the year that was calculated.");
});

/** The stage before a server that has this year. */
async function stage(summary: YearSummary | null, stale = false) {
  await project();
  plug({ "GET /api/projects/p/year": { summary, stale, bills: [], task: null } as never });
  const stubs = {
    EnergyView: true,
    RoomsView: true,
    CoursesView: true,
    BillsView: true,
    ConnectedView: true,
  };
  const made = mount(YearStage, { attachTo: document.body, global: { stubs } });
  await settled();
  return made;
}

test("a year that is not there yet says how it comes, with and without a weather file", async () => {
  await stage(null);
  expect(text()).toContain("The year is not calculated yet: “Calculate the year” or Ctrl+Enter.");
  expect(text()).toContain("twelve typical days made from the design data");
});

test("typical days are marked, a file of hours is named", async () => {
  const made = await stage({
    ...SUMMARY,
    weather: "twelve typical days made from the design data",
    weather_key: "",
  });
  expect(text()).toContain("No weather file");
  made.unmount();
  await stage(SUMMARY);
  expect(text()).toContain("Mill Hill.csv, 8760 h of 2027");
  expect(text()).not.toContain("No weather file");
});

test("a small building's stale year is calculated anew by itself, a current one is not", async () => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
  try {
    const made = await stage(SUMMARY);
    await vi.advanceTimersByTimeAsync(2000);
    expect(asked.filter((one) => one.method === "POST")).toEqual([]);
    made.unmount();
    await stage({ ...SUMMARY, stale: true } as YearSummary, true);
    expect(text()).toContain("Inputs have changed since");
    await vi.advanceTimersByTimeAsync(2000);
    expect(asked.some((one) => one.method === "POST" && one.path === "/api/projects/p/year")).toBe(true);
  } finally {
    vi.useRealTimers();
  }
});
