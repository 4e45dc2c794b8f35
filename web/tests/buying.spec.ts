// What is bought: the kit list, prices of its lines, catalogues; and a store of hot water.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { useView } from "../src/view/store";
import CatalogueView from "../src/stages/kit/CatalogueView.vue";
import KitStage from "../src/stages/kit/KitStage.vue";
import { leftOver } from "../src/stages/kit/pieces";
import PricesView from "../src/stages/kit/PricesView.vue";
import HotWaterPage from "../src/stages/water/HotWaterPage.vue";
import { brought, said, texts } from "./brought";
import { grid, pressed, type Sent } from "./grids";
import { asked, plug, settled } from "./server";

const line = (tag: string, more: object = {}) => ({
  order: 0, owner: "s", tag, item: "Supply fan, flow and static pressure", serves: "AHU-1", duty: 1.5, duty_quantity: "airflow", second: 480,
  second_quantity: "pressure", size: "motor 2.2 kW", power_w: 1900, state: "sized", count: 1, weight_kg: null, why: "", account: [], ...more,
}); // prettier-ignore

test("the kit list stands in its order, each figure in the unit of its own quantity", async () => {
  await brought({}, {
    kit: {
      "1/Heating P": line("Heating P", { order: 1, item: "Pump, flow and head", duty: 0.002, duty_quantity: "water_flow", second: 45_000, second_quantity: "head", power_w: 150 }),
      "0/AHU-10 SF": line("AHU-10 SF"),
      "0/AHU-2 SF": line("AHU-2 SF", { power_w: 0, second_quantity: "" }),
    },
  });
  const made = mount(KitStage, { attachTo: document.body });
  await settled();
  const { rows, column, shown } = grid(made, "Kit list");
  expect(rows().map((row) => row.tag)).toEqual(["AHU-2 SF", "AHU-10 SF", "Heating P"]);
  const told = (key: string) => rows().map((row) => column(key).text!(row).replace(/\u2009/g, " "));
  expect(told("duty")).toEqual(["1500 L/s", "1500 L/s", "2.00 L/s"].map((text, i) => (i < 2 ? expect.stringMatching(/^1 ?500 L\/s$/) : text)));
  expect(told("second")).toEqual(["", "480 Pa", "45.0 kPa"]);
  // What takes no electricity shows none.
  expect(shown(rows()[0].id, "power")).toBeNull();
  expect(said()).toContain("3 lines; everything sized or pinned, for procurement");
  expect(made.find("a.act").attributes("href")).toBe("/api/projects/p/kit.csv?system=SI");
  useView().system = "IP";
  await settled();
  expect(made.find("a.act").attributes("href")).toContain("system=IP");
  expect(told("second")[1]).toMatch(/in\. ?w\.g\.|inH|in w/i);
}); // prettier-ignore

const ACCOUNT = [
  { role: "asked", what: "Flow", value: 0.002, quantity: "water_flow", note: "Winter day 07:10" },
  { role: "asked", what: "Head", value: 30_000, quantity: "head", note: "" },
  { role: "margin", what: "Margin 10%", value: 3000, quantity: "head", note: "" },
  { role: "pinned", what: "Pinned", value: 20_000, quantity: "head", note: "" },
  { role: "left over", what: "Left over", value: -13_000, quantity: "head", note: "" },
];

async function listed(kit: Record<string, object>, notes: object[] = []) {
  const doc = await brought({ kit_note: notes }, { kit });
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(KitStage, { attachTo: document.body });
  await settled();
  return { ...grid(made, "Kit list"), made, commit, attempt };
}

test("the account of a piece tells every duty, its margin, the pin and what it falls short by", async () => {
  const { made } = await listed({ "h/P": line("Heating P", { account: ACCOUNT, size: "Weir 50", why: "The smallest of 9 rows." }) });
  const lines = made.findAll("aside tr").map((row) => row.text().replace(/[\u2009\u202f]/g, " "));
  expect(lines[0]).toContain("Flow");
  expect(lines[0]).toContain("Winter day 07:10");
  expect(lines[2]).toContain("margin 10%");
  expect(lines.at(-1)).toMatch(/short by.*13\.0/);
  expect(made.find("aside").text()).toContain("The smallest of 9 rows.");
}); // prettier-ignore

test("what is left over is told of the first duty that has a size, with its margin", () => {
  const piece = (account: object[]) => ({ account }) as never;
  expect(leftOver(piece(ACCOUNT))).toBeCloseTo(-13 / 33);
  expect(leftOver(piece(ACCOUNT.slice(0, 3)))).toBeNull();
  const asked = { role: "asked", value: 2 };
  expect(leftOver(piece([asked, { role: "chosen", value: 3 }, { role: "left over", value: 1 }]))).toBe(0.5);
});

test("an own tag and a remark are noted of the piece, and taken over by the list", async () => {
  const { found, rows, column, commit } = await listed(
    { "h/P": line("Heating P"), "a/SF": line("AHU-1 SF") },
    [{ id: "n1", piece: "h/P", tag: "U-7", remark: "" }],
  );
  expect(rows().map((row) => row.tag)).toEqual(["AHU-1 SF", "U-7"]);
  await (found.props("save") as (edits: object[]) => Promise<void>)([
    { row: rows()[1], column: column("remark"), value: "in the yard" },
    { row: rows()[0], column: column("tag"), value: "V-1" },
    { row: rows()[0], column: column("remark"), value: "quiet" },
  ]);
  const [, changes] = commit.mock.calls[0]! as unknown as [string, Sent[]];
  expect(changes[0]).toMatchObject({ op: "set", id: "n1", fields: { remark: "in the yard" } });
  expect(changes[1]).toMatchObject({ op: "create", fields: { piece: "a/SF", tag: "V-1" } });
  expect(changes[2]).toMatchObject({ op: "set", id: (changes[1] as { id: string }).id, fields: { remark: "quiet" } });
}); // prettier-ignore

test("equal pieces stand together with their sums, and cannot be noted there", async () => {
  const { rows, column, made } = await listed({
    "r1/R": line("R 1", { order: 2, item: "Radiator", size: "500 W", duty: 300, power_w: 0, weight_kg: 12, serves: "1 Hall" }),
    "r2/R": line("R 2", { order: 2, item: "Radiator", size: "500 W", duty: 400, power_w: 0, weight_kg: 13, serves: "2 Shop", remark: "" }),
    "r3/R": line("R 3", { order: 2, item: "Radiator", size: "800 W", duty: 700, power_w: 0, serves: "3 Loft" }),
    "d/D": line("D 160", { item: "Duct", size: "160", count: 0, power_w: 0, duty: 12, second: 6, account: [{ role: "asked", what: "Length", value: 12, quantity: "length", note: "" }] }),
    "e/D": line("E 160", { item: "Duct", size: "160", count: 0, power_w: 0, duty: 5, second: 2, account: [{ role: "asked", what: "Length", value: 5, quantity: "length", note: "" }] }),
  });
  expect(made.find('[data-test="kit-sums"]').text()).toMatch(/^3 pieces/);
  await pressed(made, "Equal together");
  const both = rows().find((row) => row.size === "500 W")!;
  expect(both).toMatchObject({ count: 2, duty: 400, weight_kg: 25, serves: "several", tag: "R 1 and 1 more" });
  expect(rows()).toHaveLength(3);
  // What is bought by length adds up.
  const duct = rows().find((row) => row.item === "Duct")!;
  expect(duct).toMatchObject({ count: 0, duty: 17, second: 8 });
  expect(duct.account[0].value).toBe(17);
  expect(column("tag").editable!(both)).toBe(false);
  expect(column("tag").editable!(rows().find((row) => row.size === "800 W")!)).toBe(true);
  await pressed(made, "By what it serves");
  expect(rows().map((row) => row.serves)).toEqual(["1 Hall", "2 Shop", "3 Loft", "AHU-1", "AHU-1"]);
}); // prettier-ignore

test("notes of pieces that are gone are told, and go when that is asked", async () => {
  const { made, attempt } = await listed({ "h/P": line("Heating P") }, [
    { id: "n1", piece: "x/P", tag: "U-9", remark: "" },
    { id: "n2", piece: "h/P", tag: "U-1", remark: "" },
  ]);
  expect(made.text()).toContain("1 note of pieces that are no longer there: U-9");
  await pressed(made, "Remove");
  expect(attempt.mock.calls[0]![1]).toEqual([{ op: "delete", kind: "kit_note", id: "n1" }]);
});

test("a kit that is empty says when it fills", async () => {
  await brought({}, {});
  mount(KitStage, { attachTo: document.body });
  await settled();
  expect(said()).toContain("the kit list fills when an air system or a water circuit is calculated");
});

const price = (item: string, size: string, more: object = {}) => ({
  item, size, count: 2, duty: 12.5, unit: "kW", each: null, per_unit: null, total: null, price: null, ...more,
}); // prettier-ignore

async function prices(lines: object[], rows: object[] = [], total: number | null = 1234.5) {
  const doc = await brought({ price: rows });
  plug({ "GET /api/projects/p/prices": { lines, total, unpriced: 3 } as never });
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(PricesView, { attachTo: document.body });
  await settled();
  return { made, sent: () => commit.mock.calls.at(-1) as unknown as Sent, attempt };
}

test("prices stand beside the lines of the kit, with their sum and what has none", async () => {
  const { made } = await prices([price("Boiler", "25 kW"), price("Pump", "")]);
  expect(said()).toContain("in all 1 234.50");
  expect(said()).toContain("3 lines have no price");
  const { rows, column } = grid(made, "Prices");
  expect(rows().map((row) => column("size").value(row))).toEqual(["25 kW", "–"]);
  expect(column("duty").text!(rows()[0])).toBe("12.5 kW");
});

test("a first price makes a row of its size, a further one changes it", async () => {
  const { made, sent } = await prices([price("Boiler", "25 kW"), price("Boiler", "35 kW")], [{ id: "own", item: "Boiler", size: "35 kW" }]); // prettier-ignore
  const sheet = grid(made, "Prices");
  await sheet.edit("Boiler/25 kW", "each", 4000);
  expect(sent()[1]).toMatchObject([{ op: "create", kind: "price", fields: { item: "Boiler", size: "25 kW", each: 4000 } }]); // prettier-ignore
  await sheet.edit("Boiler/35 kW", "per_unit", 90);
  expect(sent()[1]).toEqual([{ op: "set", kind: "price", id: "own", fields: { per_unit: 90 } }]);
});

test("both figures of a new price go into one row", async () => {
  const { made, sent } = await prices([price("Boiler", "25 kW")]);
  const { found, rows, column } = grid(made, "Prices");
  const save = found.props("save") as (edits: unknown[]) => Promise<void>;
  await save([
    { row: rows()[0], column: column("each"), value: 10 },
    { row: rows()[0], column: column("per_unit"), value: 2 },
  ]);
  const [create, set] = sent()[1];
  expect([create!.op, set!.op]).toEqual(["create", "set"]);
  expect(set!.id).toBe(create!.id);
});

test("a price is removed where there is one", async () => {
  const { made, attempt } = await prices([price("Boiler", "25 kW", { price: "own", each: 5 }), price("Pump", "")]);
  const sheet = grid(made, "Prices");
  const button = () => made.findAll("button").find((one) => one.text() === "Remove price")!.element as HTMLButtonElement;
  sheet.found.vm.$emit("select", { id: "Pump/" });
  await settled();
  expect(button().disabled).toBe(true);
  sheet.found.vm.$emit("select", { id: "Boiler/25 kW" });
  await settled();
  await pressed(made, "Remove price");
  expect((attempt.mock.calls[0] as unknown as Sent)[1]).toEqual([{ op: "delete", kind: "price", id: "own" }]);
}); // prettier-ignore

const product = (id: string, item: string, more: object = {}) => ({
  id, item, name: id, flow_m3_s: 0, pressure_pa: 0, output_w: 0, diameter_m: 0, outer_m: 0, ...more,
}); // prettier-ignore

async function catalogue(rows: object[], kit: Record<string, unknown> = {}) {
  const doc = await brought({ catalogue_row: rows }, { kit });
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(CatalogueView, { attachTo: document.body });
  await settled();
  return { made, doc, sent: () => attempt.mock.calls.at(-1) as unknown as Sent };
}

test("rows of an item stand small to large, and tell which lines of the kit took them", async () => {
  const rows = [product("Big", "pump", { flow_m3_s: 0.01, pressure_pa: 90_000 }), product("Small", "pump", { flow_m3_s: 0.001, pressure_pa: 30_000 }), product("Wide", "pipe", { diameter_m: 0.05, outer_m: 0.06 }), product("Thin", "pipe", { diameter_m: 0.02, outer_m: 0.025 })];
  const { made } = await catalogue(rows, { "1/a": line("Heating P", { size: "Small" }), "1/b": line("Chilled P", { size: "Small" }) });
  const sheet = () => grid(made, "Catalogue");
  expect(sheet().rows().map((row) => row.name)).toEqual(["Small", "Big"]);
  expect(sheet().rows().map((row) => sheet().column("taken").value(row))).toEqual(["Heating P, Chilled P", "–"]);
  await pressed(made, "Pipes");
  expect(sheet().rows().map((row) => row.name)).toEqual(["Thin", "Wide"]);
  expect(sheet().column("outer_m")).toBeDefined();
  expect(said()).toContain("2 rows; circuits built of the catalogue's pipes take the smallest within their limits");
  await pressed(made, "Round ducts");
  expect(said()).toContain("Nothing here yet: standard sizes stand.");
}); // prettier-ignore

test("a new row begins with figures that its item needs", async () => {
  const { made, sent } = await catalogue([product("Old", "duct", { diameter_m: 0.315 })]);
  const added = async (item: string) => {
    await pressed(made, item);
    await pressed(made, "Add row");
    await settled();
    return sent()[1][0]!.fields;
  };
  expect(await added("Fans")).toMatchObject({ item: "fan", flow_m3_s: 0.001, pressure_pa: 30_000 });
  expect(await added("Motors")).toMatchObject({ item: "motor", output_w: 1000 });
  expect(await added("Pipes")).toMatchObject({ item: "pipe", diameter_m: 0.02, outer_m: 0.02 });
  // Like the largest there is, where there are some.
  expect(await added("Round ducts")).toMatchObject({ item: "duct", diameter_m: 0.315 });
});

test("made-up products are asked of the server at the version that is seen", async () => {
  const { made, doc } = await catalogue([]);
  const told = {
    version: doc.version + 1,
    objects: { changed: { catalogue_row: [product("Fellbeck", "pump", { flow_m3_s: 0.001, pressure_pa: 30_000 })] }, gone: {} },
    results: null, calculation_fault: null, steps: { undo: null, redo: null },
  }; // prettier-ignore
  plug({ "POST /api/projects/p/catalogue/made-up": told as never });
  const version = doc.version;
  await pressed(made, "Made-up products");
  await settled();
  expect(asked.at(-1)).toMatchObject({ path: "/api/projects/p/catalogue/made-up", query: { base_version: String(version) } }); // prettier-ignore
  expect(grid(made, "Catalogue").rows().map((row) => row.name)).toEqual(["Fellbeck"]); // prettier-ignore
});

const STORE = {
  id: "h", name: "Hot water", circuit: "c", profile: null, priority: true, collector_m2: 0, store_c: 60, around_c: 18, usable_share: 0.9, reheat_h: 2,
  volume_l: null, charge_w: null, loop_m: 40, loop_w_m: 8, loop_pump_w: 30,
}; // prettier-ignore
const FOUND = {
  heat_j_day: 90e6, litres_day: 1500, volume_l: 400, needed_l: 372, charge_w: 15_000, losses_w: 420, short_j: 0,
  draw_w: new Array(144).fill(1000), charge_course_w: new Array(144).fill(900), content_share: new Array(144).fill(0.5),
}; // prettier-ignore

async function store(row: object = {}, found: object | null = {}, more: Record<string, unknown[]> = {}) {
  const doc = await brought(
    {
      hot_water: [{ ...STORE, ...row }],
      use: [{ id: "w", hot_water_l_person_day: 5, hot_water_l_m2_day: 0, hot_water_l_room_day: 0 }, { id: "d", hot_water_l_person_day: 0, hot_water_l_m2_day: 0, hot_water_l_room_day: 0 }],
      room: [{ id: "a", use: "w", hot_water: null }, { id: "b", use: "w", hot_water: "h" }, { id: "c", use: "d", hot_water: null }],
      circuit: [{ id: "c", name: "Heating", kind: "heating" }, { id: "k", name: "Chilled", kind: "chilled" }],
      schedule: [],
      ...more,
    },
    found ? { hot_water: { h: { ...FOUND, ...found } } } : {},
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(HotWaterPage, { props: { store: { ...STORE, ...row } as never }, attachTo: document.body, global: { stubs: { LineChart: true } } });
  await settled();
  const labels = () => made.findAllComponents({ name: "Field" }).map((one) => String(one.props("label")));
  return { made, labels, sent: () => attempt.mock.calls.at(-1) as unknown as Sent };
} // prettier-ignore

test("a store alone serves every room that draws; beside another one those that name it", async () => {
  await store();
  expect(said()).toContain("hot water, 2 rooms draw from it");
  document.body.innerHTML = "";
  await store({}, {}, { hot_water: [STORE, { ...STORE, id: "h2", name: "Wing" }] });
  expect(said()).toContain("hot water, 1 room draws from it");
});

test("a store tells what it holds and what is missing; heating waits or goes on", async () => {
  const figures = () => texts("dl.figures > div");
  await store();
  expect(figures().map((text) => text.split(" ").slice(0, 2).join(" "))).toEqual(["Busiest day", "Store 400.0", "Charging power", "Lost, all"]); // prettier-ignore
  expect(said()).toContain("heating waits: the plant gives the larger of the two");
  document.body.innerHTML = "";
  await store({ priority: false }, { short_j: 3.6e6 });
  expect(figures().at(-1)).toMatch(/^Missing that day/);
  expect(said()).toContain("goes on: the plant gives both");
});

test("the sun asks for its collectors only where there are some, priority only on a circuit", async () => {
  const plain = (await store()).labels();
  const sunny = (await store({ collector_m2: 12 })).labels();
  const electric = (await store({ circuit: null })).labels();
  expect(sunny.length - plain.length).toBe(8);
  expect(plain.length - electric.length).toBe(1);
});

test("a store without draws says where they are told; one is deleted by its name", async () => {
  const { made, sent } = await store({}, null);
  await brought({}, {});
  expect(said()).toContain("Say under Uses how much hot water a person, an area or a room takes a day.");
  await pressed(made, "Delete");
  expect(sent()).toEqual(["Deleted Hot water", [{ op: "delete", kind: "hot_water", id: "h" }]]);
});
