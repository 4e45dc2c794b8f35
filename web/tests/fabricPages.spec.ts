// Fabric: an assembly's layers and what they come to, and the kit that gives each role its assembly.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import AssemblyPage from "../src/stages/fabric/AssemblyPage.vue";
import KitPage from "../src/stages/fabric/KitPage.vue";
import { brought, said, texts } from "./brought";
import { grid, pressed, type Sent } from "./grids";
import { settled } from "./server";

const MATERIALS = [
  { id: "brick", name: "Brick", conductivity_w_mk: 0.8, resistance_m2k_w: null },
  { id: "wool", name: "Wool", conductivity_w_mk: 0.035, resistance_m2k_w: null },
  { id: "gap", name: "Air gap", conductivity_w_mk: null, resistance_m2k_w: 0.18 },
];
const layer = (id: string, material: string, position: number, more: object = {}) => ({
  id, assembly: "a", material, position, thickness_m: 0.1, bridge_material: null, bridge_share: 0.1, ...more,
}); // prettier-ignore
const LAYERS = [
  layer("l3", "gap", 7),
  layer("l1", "brick", 1),
  layer("l2", "wool", 4, { bridge_material: "brick" }),
];
const WALL = {
  id: "a", name: "Outer wall", element: "wall", declared_u_value: null, mass_class: "medium", mass_place: "inside", extra_u_value: 0, glass_share: 0,
  glass_g_value: 0.5, solar_absorptance: 0.6,
}; // prettier-ignore
const VALUES = {
  u_value: 0.25, u_without_films: 0.26, resistance_m2k_w: 3.8, mass_kg_m2: 220, capacity_j_m2k: 180_000, inner_capacity_j_m2k: 60_000,
  decrement_factor: 0.2, time_lag_h: 9.5, problem: "", bridged: null, line: { wet: [] }, layers_m2k_w: [0.125, 2.857, 0.18],
}; // prettier-ignore

async function assembly(row: object = {}, values: object = {}, layers: object[] = LAYERS) {
  const doc = await brought(
    { assembly: [{ ...WALL, ...row }], layer: layers, material: MATERIALS, surface: [], opening: [], kit: [] },
    { assembly: { a: { ...VALUES, ...values } } },
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const stubs = { SectionDrawing: true, GroundFields: true, SharedPage: { template: "<div><slot /></div>" }, UsedIn: true };
  const made = mount(AssemblyPage, { props: { id: "a" }, attachTo: document.body, global: { stubs } });
  await settled();
  const sent = () => attempt.mock.calls.at(-1) as unknown as Sent;
  const positions = () => sent()[1].map((change) => [change.id, change.fields["position"]]);
  return { made, doc, sent, positions, attempt, commit };
} // prettier-ignore

test("layers stand from outside in, whatever their rows' order is, each with its own resistance", async () => {
  const { made } = await assembly();
  const { rows, shown, column } = grid(made, "Layers");
  expect(rows().map((row) => row.id)).toEqual(["l1", "l2", "l3"]);
  expect(rows().map((row) => shown(row.id, "resistance"))).toEqual([0.125, 2.857, 0.18]);
  expect(rows().map((row) => column("material").text!(row))).toEqual(["Brick", "Wool", "Air gap"]);
  // A gap of stated resistance has no thickness to type, an uncrossed layer no share.
  const may = (key: string) => rows().filter((row) => (column(key).editable as (row: unknown) => boolean)(row)).map((row) => row.id);
  expect(may("thickness_m")).toEqual(["l1", "l2"]);
  expect(may("bridge_share")).toEqual(["l2"]);
}); // prettier-ignore

test("a layer changes places with its neighbour, and not beyond the section's ends", async () => {
  const { made, positions, attempt } = await assembly();
  const layers = grid(made, "Layers");
  layers.found.vm.$emit("select", { id: "l2" });
  await settled();
  await pressed(made, "↑ outwards");
  expect(positions()).toEqual([["l2", 1], ["l1", 4]]);
  await made.find(".layers").trigger("keydown", { key: "ArrowDown", altKey: true });
  expect(positions()).toEqual([["l2", 7], ["l3", 4]]);
  layers.found.vm.$emit("select", { id: "l3" });
  await settled();
  const calls = attempt.mock.calls.length;
  await pressed(made, "↓ inwards");
  // Without Alt the arrows are the sheet's own.
  await made.find(".layers").trigger("keydown", { key: "ArrowUp" });
  expect(attempt.mock.calls.length).toBe(calls);
}); // prettier-ignore

test("a layer dragged in the drawing takes its place, the others close up", async () => {
  const { made, positions } = await assembly();
  const drawing = made.findComponent({ name: "SectionDrawing" });
  drawing.vm.$emit("move", "l3", "l1");
  await settled();
  expect(positions()).toEqual([["l3", 0], ["l1", 1], ["l2", 2]]);
  drawing.vm.$emit("move", "l1", null);
  await settled();
  expect(positions()).toEqual([["l2", 0], ["l3", 1], ["l1", 2]]);
}); // prettier-ignore

test("a new layer goes inside, of a material that conducts; the chosen one is removed", async () => {
  const { made, sent } = await assembly();
  await pressed(made, "Add layer");
  expect(sent()[1]).toMatchObject([{ op: "create", kind: "layer", fields: { assembly: "a", material: "brick", position: 8 } }]); // prettier-ignore
  grid(made, "Layers").found.vm.$emit("select", { id: "l2" });
  await settled();
  await pressed(made, "Remove layer");
  expect(sent()[1]).toEqual([{ op: "delete", kind: "layer", id: "l2" }]);
});

test("what it comes to is told, with limits of crossed layers and a dew point inside", async () => {
  await assembly({}, { bridged: { lower: 3.6, upper: 4.0 }, line: { wet: [{ x: 1 }] } });
  const rows = texts("table.plain tbody tr, .plain tbody tr");
  expect(rows[0]).toBe("U with films 0.250 W/m²K");
  expect(rows.at(-1)).toBe("Time lag, 24 h 9.5 h");
  expect(said()).toContain("Crossed layers: R between 3.600 m²K/W (lower limit) and 4.000 m²K/W (upper)");
  expect(said()).toContain("The dew point is reached inside the section on the winter day");
});

test("a section that cannot be worked out says why in place of figures", async () => {
  await assembly({}, { problem: "It has no layers yet." });
  expect(said()).toContain("It has no layers yet.");
  expect(texts(".plain tbody tr")).toEqual([]);
});

test("a stated U-value takes the place of layers, with a class of mass", async () => {
  const { made } = await assembly({ declared_u_value: 1.4 });
  expect(said()).toContain("Layers not known: a U-value and a class of mass stand for them");
  expect(made.findComponent({ name: "SectionDrawing" }).exists()).toBe(false);
  expect(made.findAllComponents({ name: "Field" }).map((one) => one.props("label"))).toContain(
    "Class of mass",
  );
});

test("a door asks for its glass, a partition for no sun", async () => {
  const labels = (made: Awaited<ReturnType<typeof assembly>>["made"]) =>
    made.findAllComponents({ name: "Field" }).map((one) => String(one.props("label")));
  const door = labels((await assembly({ element: "door", glass_share: 0.4 })).made);
  const wooden = labels((await assembly({ element: "door" })).made);
  const wall = labels((await assembly()).made);
  const inner = labels((await assembly({ element: "partition" })).made);
  expect(door.length - wooden.length).toBe(1);
  expect(wooden.length).toBeGreaterThan(wall.length);
  expect(wall.length - inner.length).toBe(1);
});

async function kit(more: Record<string, unknown[]> = {}, own: object = {}) {
  const doc = await brought(
    {
      project: [{ id: "p", kit: "k" }],
      kit: [{ id: "k", name: "Masonry", outer_wall: "a", roof: null, ground_floor: null, inner_wall: null, inner_floor: null, door: null, window: "g", ...own }],
      assembly: [{ id: "a", name: "Brick", element: "wall" }, { id: "r", name: "Slates", element: "roof" }, { id: "f", name: "Slab", element: "floor" }],
      glazing: [{ id: "g", name: "Double" }],
      surface: [{ id: "s1", role: "outer_wall", assembly: null }, { id: "s2", role: "outer_wall", assembly: "a" }, { id: "s3", role: "roof", assembly: null }],
      opening: [{ id: "o1", kind: "window", glazing: null }, { id: "o2", kind: "window", glazing: "g" }, { id: "o3", kind: "door", assembly: null, glazing: null }],
      room: [],
      ...more,
    },
    { assembly: { a: { u_value: 0.28 } }, glazing: { g: { window_u_value: 1.2 } } },
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const stubs = { BuildingPeaks: true, SharedQuestion: true };
  const made = mount(KitPage, { attachTo: document.body, global: { stubs } });
  await settled();
  const sent = () => attempt.mock.calls.at(-1) as unknown as Sent;
  return { made, sent };
} // prettier-ignore

test("the kit counts who relies on a role, and tells what is missing", async () => {
  await kit();
  const rows = texts("tbody tr");
  const of = (title: string) => rows.find((row) => row.startsWith(title))!;
  expect(of("Outer wall")).toMatch(/0\.280 W\/m²K 1 surfaces open$/);
  expect(of("Roof")).toMatch(/1 surfaces missing: rooms wait for it$/);
  expect(of("Door")).toMatch(/1 openings missing: rooms wait for it$/);
  expect(of("Window")).toMatch(/1\.200 W\/m²K 1 openings open$/);
  // Nobody waits for a role that nobody has.
  expect(of("Ground floor")).toMatch(/0 surfaces$/);
});

test("a role offers what may stand there", async () => {
  const { made } = await kit();
  const choices = (label: string) =>
    (made.findAllComponents({ name: "Field" }).find((one) => one.props("label") === label)!.props("editor") as { choices: { label: string }[] }).choices.map((one) => one.label);
  expect(choices("Outer wall")).toEqual(["Brick"]);
  expect(choices("Roof")).toEqual(["Slates"]);
  expect(choices("Inner floor and ceiling")).toEqual(["Slab"]);
  expect(choices("Window")).toEqual(["Double"]);
}); // prettier-ignore

test("a row leads to its assembly or glazing", async () => {
  const { made } = await kit();
  const open = made.findAll("button").filter((one) => one.text() === "open");
  await open[0]!.trigger("click");
  await open[1]!.trigger("click");
  expect(made.emitted("open")).toEqual([[{ kind: "assembly", id: "a" }], [{ kind: "glazing", id: "g" }]]);
});

test("a copy of a kit is taken into use with the same step; without a kit one is offered", async () => {
  const { made, sent } = await kit();
  await pressed(made, "Copy kit");
  await settled();
  const [label, changes] = sent();
  expect(label).toBe("Copy of a kit, in use");
  const copy = changes.find((change) => change.op === "create")!;
  expect(copy.fields).toMatchObject({ outer_wall: "a", window: "g" });
  expect(changes.at(-1)).toMatchObject({ kind: "project", fields: { kit: copy.id } });
  made.unmount();
  document.body.innerHTML = "";
  const doc = await brought({}, {});
  await doc.applied(async () => ({ version: 1e6, objects: { changed: { project: [{ id: "p", kit: null }] }, gone: { kit: ["k"] } }, results: null, calculation_fault: null, steps: { undo: null, redo: null } }) as never);
  const empty = mount(KitPage, { attachTo: document.body, global: { stubs: { BuildingPeaks: true, SharedQuestion: true } } });
  await settled();
  expect(said()).toContain("No kit yet. It says which assembly each role gets.");
  await pressed(empty, "Add one");
  expect(sent()[1][0]).toMatchObject({ op: "create", kind: "kit", fields: { name: "Fabric kit" } });
}); // prettier-ignore
