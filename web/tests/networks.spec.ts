import { lengthOnPlan } from "../src/parts/sectionColumns";
import { mount } from "@vue/test-utils";
import { beforeEach, expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { useDocument } from "../src/document/store";
import type { Circuit } from "../src/document/types";
import DuctsView from "../src/stages/air/DuctsView.vue";
import PlantFigures from "../src/stages/water/PlantFigures.vue";
import CircuitSettings from "../src/stages/water/CircuitSettings.vue";
import EmittersView from "../src/stages/water/EmittersView.vue";
import PipesView from "../src/stages/water/PipesView.vue";
import PlantView from "../src/stages/water/PlantView.vue";
import { KINDS_OF, NEW_UNIT, TEMPERATURES } from "../src/stages/water/plant";
import { useView } from "../src/view/store";
import { brought } from "./brought";
import { plug, settled } from "./server";

type Doc = ReturnType<typeof useDocument>;

const SYSTEM = { id: "s", name: "AHU-1", duct_method: "equal friction", duct_leak_class: "", duct_insulation_m: null, return_fan_pa: 40, parts: [] }; // prettier-ignore
const duct = (id: string, network: string, parent: string | null, room: string | null) => ({ id, name: id, air_system: "s", network, parent, room, position: 0, length_m: 4, loss_coefficient: 1, fittings: [], shape: "round", end_drop_pa: 0, pinned_diameter_m: null, level: null, course_m: [] }); // prettier-ignore
const sized = (flow_m3_s: number) => ({ flow_m3_s, diameter_m: 0.2, size: "200", sized: true, within_limits: true, velocity_m_s: 4, rate_pa_m: 0.8, friction_loss_pa: 4, fitting_loss_pa: 9, loss_pa: 13, coefficients: [], balancing_pa: 0, path_pa: 13 }); // prettier-ignore
const ROOM = { id: "r", number: "1.01", name: "Studio", air_system: "s", second_system: null, zone: null };

async function ducts(): Promise<{ doc: Doc; made: ReturnType<typeof mount> }> {
  const doc = await brought(
    {
      air_system: [SYSTEM],
      room: [ROOM],
      duct_section: [duct("main", "supply", null, null), duct("end", "supply", "main", "r"), duct("back", "return", null, "r")],
    },
    {
      air_system: { s: { networks: { supply: { index_end: "end", index_path: ["main", "end"], loss_pa: 26 }, return: { index_end: "back", index_path: ["back"], loss_pa: 55 } }, duct_leak_share: 0, duct_gain_k: 0 } },
      duct_section: { main: sized(0.2), end: sized(0.2), back: sized(0.18) },
    },
  ); // prettier-ignore
  const made = mount(DuctsView as never, { props: { id: "s", resultId: "s" }, attachTo: document.body });
  await settled();
  return { doc, made };
}
const press = async (made: ReturnType<typeof mount>, name: string) => {
  await made.findAll("button").find((one) => one.text() === name)!.trigger("click");
  await settled();
}; // prettier-ignore

test("each network shows its own sections, and the return what its fan has to overcome", async () => {
  const { made } = await ducts();
  expect(made.text()).toContain("equal friction");
  const names = () => made.findAll("[role=gridcell][data-column=name]").map((one) => one.text().trim());
  expect(names()).toEqual(["main", "end"]);
  await press(made, "Return");
  expect(names()).toEqual(["back"]);
  expect(made.text()).toMatch(/index run\s*55/);
  expect(made.text()).toMatch(/of the return fan's\s*40/);
  expect(made.findAll("button").some((one) => one.text().startsWith("From the plan"))).toBe(true);
  await press(made, "Outdoor air");
  expect(names()).toEqual([]);
  // Nothing leads outdoors along the plan: the louvre's duct is drawn by hand.
  expect(made.findAll("button").some((one) => one.text().startsWith("From the plan"))).toBe(false);
});

test("what is added stands in the network that is shown", async () => {
  const { doc, made } = await ducts();
  const sent = vi.spyOn(doc, "attempt").mockResolvedValue(true);
  await press(made, "Exhaust air");
  await press(made, "Add a louvre duct for 1 end without one");
  const changes = sent.mock.calls[0]![1] as { fields: Record<string, unknown> }[];
  expect(changes.every((one) => one.fields["network"] === "exhaust" && one.fields["air_system"] === "s")).toBe(true);
  expect(changes.map((one) => one.fields["name"])).toEqual(["Main", "Exhaust air louvre"]);
}); // prettier-ignore

test("a section that is wanted brings its network up", async () => {
  const { made } = await ducts();
  useView().wanted = { kind: "duct_section", id: "back", field: "length_m" };
  await settled();
  expect(made.find("[aria-pressed=true]").text()).toBe("Return");
});

const circuit = (more: Record<string, unknown>): Circuit =>
  ({ id: "c", name: "Heating", kind: "heating", flow_c: 40, return_c: 33, glycol: "none", flow_rule: "fixed", emitters: "radiators", piping: "two pipes", pipe: "steel", pipe_insulation_m: null, staging: "in turn", kept_warm: false, rejection: "tower", ...more }) as never; // prettier-ignore
const PIPE = {
  id: "p",
  name: "To 1.01",
  circuit: "c",
  parent: null,
  room: "r",
  air_system: null,
  position: 0,
};

test("heated floors have columns of their own in place of radiators", async () => {
  const floor = { duty_w: 900, gives_w: 1200, area_m2: 17, k_w_m2k: 3.6, excess_k: 16, flux_w_m2: 70.6, limit_w_m2: 100, surface_c: 25.1, needed_flow_c: 36.5, pipe_m: 113.3, loops: 2 }; // prettier-ignore
  const row = circuit({ emitters: "underfloor" });
  await brought({ circuit: [row], room: [ROOM], pipe_section: [PIPE] }, { floor: { r: floor } });
  const made = mount(EmittersView, { props: { circuit: row }, attachTo: document.body });
  await settled();
  expect(made.text()).toContain("EN 1264-2");
  for (const [column, text] of [["gives", "1.20"], ["surface", "25.1"], ["flow", "36.5"], ["loops", "2"]] as const)
    expect(made.get(`[data-column=${column}][role=gridcell]`).text()).toContain(text);
  expect(made.find("[data-column=rating]").exists()).toBe(false);
}); // prettier-ignore

test("a circuit asks for what its rooms and its chillers need, and for nothing else", async () => {
  const labels = (made: ReturnType<typeof mount>) => made.text();
  const radiators = circuit({});
  await brought({ circuit: [radiators], plant_unit: [] }, {});
  let made = mount(CircuitSettings, { props: { circuit: radiators } });
  expect(labels(made)).toContain("Heats its rooms by");
  expect(labels(made)).not.toContain("Pipes apart");
  made = mount(CircuitSettings, { props: { circuit: circuit({ emitters: "underfloor" }) } });
  expect(labels(made)).toContain("Pipes apart");
  const cold = circuit({ kind: "chilled", flow_c: 7, return_c: 13 });
  made = mount(CircuitSettings, { props: { circuit: cold } });
  expect(labels(made)).not.toContain("Approach at design");
  const unit = { id: "u", circuit: "c", kind: "water-cooled chiller", name: "Chiller", position: 0 };
  await brought({ circuit: [cold], plant_unit: [unit] }, {});
  made = mount(CircuitSettings, { props: { circuit: cold } });
  await nextTick();
  expect(labels(made)).toContain("Approach at design");
});

test("where rooms get what pipes lose, it is told by room, and pipes say which room they run through", async () => {
  const row = circuit({ loss_to: "run", emitters: "radiators" });
  const back = { circuit: { c: { stopped_w: 0, pipes_lose_w: null, given_back_w: { r: 120 } } } };
  await brought(
    { circuit: [row], room: [ROOM], pipe_section: [{ ...PIPE, through: "r", fittings: [] }] },
    back,
  );
  let made = mount(EmittersView, { props: { circuit: row }, attachTo: document.body });
  await settled();
  expect(made.get("[data-column=pipes][role=gridcell]").text()).toContain("0.12");
  made.unmount();
  made = mount(EmittersView, {
    props: { circuit: circuit({ loss_to: "nowhere" }) },
    attachTo: document.body,
  });
  await settled();
  expect(made.find("[data-column=pipes]").exists()).toBe(false);
});

test("a buffer is told with its run, and its difference is asked for where there is one", async () => {
  const row = circuit({ buffer_h: 1 / 3 });
  await brought({ circuit: [row], plant_unit: [] }, {});
  let made = mount(CircuitSettings, { props: { circuit: row } });
  expect(made.text()).toContain("Buffer's difference");
  made = mount(CircuitSettings, { props: { circuit: circuit({ buffer_h: null }) } });
  expect(made.text()).toContain("Least run with a buffer");
  expect(made.text()).not.toContain("Buffer's difference");
  const plant = { peak_w: 1e4, design_w: 1.1e4, month: 0, step: 0, working_w: 1.2e4, without_largest_w: 6e3, cooler: null, buffer: { needed_m3: 0.18, volume_m3: 0.2, runs_h: 0.3667 } }; // prettier-ignore
  const figures = mount(PlantFigures, { props: { id: "c", plant: plant as never, before: undefined, day: null, step: 0 } }); // prettier-ignore
  expect(figures.get("[data-test=buffer]").text().replace(/\s+/g, " ")).toMatch(/200\.0 ?L ?runs 22 ?min/);
});

test("a circuit that stands still while something is asked says how much, and asks for its schedule of flow", async () => {
  const row = circuit({ flow_rule: "schedule", stops_c: 15, starts_c: null, running: null });
  await brought(
    { circuit: [row], plant_unit: [] },
    { circuit: { c: { stopped_w: 2340, pipes_lose_w: null } } },
  );
  const made = mount(CircuitSettings, { props: { circuit: row } });
  await nextTick();
  const text = made.text().replace(/\s+/g, " ");
  expect(text).toContain("Flows at");
  expect(text).toContain("Up to 2.34kW are asked of it while it does not run.");
  await brought({ circuit: [row], plant_unit: [] }, { circuit: { c: { stopped_w: 0, pipes_lose_w: null } } });
  await nextTick();
  expect(made.text()).not.toContain("while it does not run");
});

test("every kind of unit has what a new one is like and at which temperatures it is told", () => {
  for (const kind of [...KINDS_OF.heating, ...KINDS_OF.chilled]) {
    expect(NEW_UNIT[kind]).toBeDefined();
    const [, cool, warm] = TEMPERATURES[kind];
    expect(cool).toBeLessThan(warm);
  }
  // A machine's efficiency falls where its own temperature makes it harder: heat pumps in the cold, chillers in the warm.
  expect(NEW_UNIT["heat pump"].full_cool!).toBeLessThan(NEW_UNIT["heat pump"].full_warm!);
  for (const kind of KINDS_OF.chilled) expect(NEW_UNIT[kind].full_cool!).toBeGreaterThan(NEW_UNIT[kind].full_warm!);
}); // prettier-ignore

beforeEach(() => {
  const course = (value: number) => Array.from({ length: 144 }, () => value);
  plug({
    "GET /api/projects/p/plant/c": { load_w: course(9e4), ends_w: course(9e4), hot_w: course(0), unmet_w: course(0), flow_c: course(7), return_c: course(13), units: { u: { output_w: course(9e4), taken_w: course(1.8e4), auxiliary_w: course(0) } }, cooler: { water_c: course(24.6), heat_w: course(1.08e5), speed: course(0.75) } },
  }); // prettier-ignore
});

test("the plant tells what its tower rejects, and the water of the hour", async () => {
  const unit = { id: "u", circuit: "c", kind: "water-cooled chiller", name: "Chiller", position: 0, share: 1, standby: false, fuel: "electricity", gross: false }; // prettier-ignore
  const row = circuit({ kind: "chilled", flow_c: 7, return_c: 13 });
  const plant = { peak_w: 1e5, design_w: 1e5, month: 7, step: 90, working_w: 1e5, without_largest_w: 0, unmet_w: 0, units: { u: { capacity_w: 1e5, output_w: 1e5, taken_w: 2e4, taken_gross_w: 2e4, seasonal: null } }, cooler: { kind: "tower", heat_w: 1.2e5, air_c: 21, cold_c: 25, hot_c: 30, flow_m3_s: 0.0057, fan_w: 1800, pump_w: 1100 } }; // prettier-ignore
  await brought({ circuit: [row], plant_unit: [unit] }, { plant: { c: plant } });
  const view = useView();
  view.month = 7;
  view.step = 90;
  const made = mount(PlantView, { props: { circuit: row }, attachTo: document.body });
  await settled();
  const told = made.get("[data-test=heat-rejected]").text().replace(/\s+/g, " ");
  expect(told).toContain("120");
  expect(told).toContain("wet-bulb");
  expect(made.text()).toContain("24.6");
  expect(made.text()).toContain("fans 75 %");
  // Its efficiencies are told by the water that enters its condenser.
  expect(made.text()).toContain("by the condenser water");
  expect(made.text()).toContain("other output");
});

test("the length over the plan is that of the course, in pieces; none without one", () => {
  expect(lengthOnPlan({ course_m: [[0, 0], [3, 4], [3, 10]] })).toBeCloseTo(11); // prettier-ignore
  expect(lengthOnPlan({ course_m: [] })).toBeUndefined();
  expect(lengthOnPlan({ course_m: null })).toBeUndefined();
});

test("the authority of valves is told where any has a Kv, and has no column where none has", async () => {
  const valve = (id: string, kv: number | null) => ({ ...PIPE, name: id, parent: null, position: 0, length_m: 5, loss_coefficient: 1, fittings: [], level: null, course_m: [], end_drop_pa: 0, pinned_diameter_m: null, id, valve_kv_m3_h: kv, air_system: null, fed_circuit: null }); // prettier-ignore
  const circuit = { id: "c", name: "Heating", kind: "heating", piping: "two pipes" };
  const columns = async (rows: { id: string }[]) => {
    document.body.innerHTML = "";
    const found = Object.fromEntries(rows.map((row) => [row.id, { ...sized(0.0002), authority: 0.42 }]));
    const doc = await brought(
      { circuit: [circuit], room: [ROOM], pipe_section: rows },
      { pipe_section: found },
    );
    const made = mount(PipesView as never, {
      props: { circuit: doc.get("circuit", "c") },
      attachTo: document.body,
    });
    await settled();
    const heads = made.findAll("[role=columnheader]").map((one) => one.text());
    return { told: heads.some((head) => head.includes("authority")), text: made.text() };
  };
  const bare = await columns([valve("p", null)]);
  expect(bare.told).toBe(false);
  const steered = await columns([valve("p", 0.6)]);
  expect(steered.told).toBe(true);
  expect(steered.text).toContain("0.42");
});
