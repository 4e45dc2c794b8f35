// Air: duties of a unit, its terminals, the balance of rooms drawn and in figures, and parts of the path.
import { mount, type VueWrapper } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { useView } from "../src/view/store";
import BalanceBars from "../src/stages/air/BalanceBars.vue";
import BalanceView from "../src/stages/air/BalanceView.vue";
import DutiesTable from "../src/stages/air/DutiesTable.vue";
import PartPanel from "../src/stages/air/PartPanel.vue";
import TerminalsView from "../src/stages/air/TerminalsView.vue";
import { grid, type Sent } from "./grids";
import { brought, said, texts } from "./brought";
import { settled } from "./server";

type Sent = [
  label: string,
  changes: { op: string; kind: string; id: string; fields: Record<string, unknown> }[],
];

const SYSTEM = {
  id: "s", name: "AHU-1", arrangement: "central", reheat: "electric", return_fan_pa: 250, recovery_sensible: 0, recovery_latent: 0,
  frost: "turned down", frost_limit_c: 1, economizer: "none", bypass_factor: 0.12, dry_to_c: null, fan_efficiency: 0.65, motor_efficiency: 0.85,
  motor_margin: 0.15, outlet_velocity_m_s: 8,
  parts: [
    { kind: "filter", drop_pa: 150, clean_pa: 60, rows: null, face_velocity_m_s: null },
    { kind: "heating coil", drop_pa: 40, clean_pa: null, rows: null, face_velocity_m_s: null },
    { kind: "cooling coil", drop_pa: 80, clean_pa: null, rows: null, face_velocity_m_s: null },
    { kind: "fan", drop_pa: 0, clean_pa: null, rows: null, face_velocity_m_s: null },
  ],
}; // prettier-ignore
const COIL = {
  kind: "cooling coil", place: 2, rows: 4, pinned: false, face_m2: 0.85, face_velocity_m_s: 2.5, capacity_w: 32_000, duty_w: 30_000, flow_c: 7, return_c: 12,
  rows_for_bypass: 4, bypass_factor: 0.11, refrigerant: false,
}; // prettier-ignore
const RESULT = {
  flow_m3_s: 2, mass_kg_s: 2.4, outdoor_share: 0.31, coil_total_w: 30_000, coil_sensible_w: 24_000, condensate_kg_s: 0.0021, coil_month: 7, coil_step: 90,
  winter: { duty_w: 12_000, recovered_w: 0, preheat_w: 0, water_kg_s: 0 }, balance: 3e-9, reheat_w: 1500, return_fan_w: 900,
  fan: { static_pa: 520, total_pa: 560, flow_m3_s: 2.1, electrical_w: 2100, rise_k: 0.8, specific_fan_power_w_m3_s: 1000, motor_w: 2200 },
  coils: [], networks: {}, outdoor_air: { rule: "62.1 full", intake_m3_s: 0.62, efficiency: 0.8125, critical_room: "r" },
}; // prettier-ignore

async function duties(result: object = {}, system: object = {}) {
  await brought({ room: [{ id: "r", number: "0.07", name: "Hall" }] });
  const props = {
    id: "s",
    system: { ...SYSTEM, ...system },
    result: { ...RESULT, ...result },
    before: undefined,
  };
  mount(DutiesTable, { props: props as never, attachTo: document.body });
  await settled();
  return texts("tbody tr");
}

test("every duty stands with when it comes about", async () => {
  const rows = await duties();
  expect(rows[0]).toBe("Cooling coil, total 30.00 kW Jul 15:00");
  expect(rows[1]).toBe("sensible 24.00 kW 0.80");
  expect(rows.find((row) => row.startsWith("Reheat"))).toBe("Reheat, electric 1.50 kW its peak");
  expect(rows.find((row) => row.startsWith("Return fan"))).toMatch(/^Return fan, total 250 Pa/);
  expect(rows.at(-1)).toMatch(/31 %$/);
  expect(said()).toContain("system efficiency 0.81, set by room 0.07.");
  expect(said()).toContain("close within 3e-9");
});

test("what a unit does not have or do has no line", async () => {
  const rows = await duties({ return_fan_w: 0 });
  for (const word of ["recovered", "preheater", "Humidifier", "Return fan", "rows, give"])
    expect(rows.some((row) => row.includes(word))).toBe(false);
});

test("recovery, preheater, humidifier and the coil's rows are told where they are", async () => {
  const winter = { duty_w: 12_000, recovered_w: 9000, preheat_w: 700, water_kg_s: 0.002 };
  const rows = await duties({ winter, coils: [COIL] });
  const find = (word: string) => rows.find((row) => row.includes(word));
  expect(find("recovered")).toBe("recovered 9.00 kW winter");
  expect(find("preheater")).toBe("preheater 0.70 kW winter");
  expect(find("Humidifier")).toBeDefined();
  expect(find("rows, give")).toMatch(/^4 rows, give 32\.00 kW 0\.9 m²$/);
});

test("each rule of outdoor air is told in its own words", async () => {
  for (const [rule, words] of [
    ["one zone", "6.2.3: one zone"],
    ["outdoor air only", "6.2.4: the sum of what the zones need"],
    ["62.1 simplified", "simplified procedure"],
    ["sum", "EN 16798-1: people and floor area"],
  ]) {
    document.body.innerHTML = "";
    await duties({ outdoor_air: { ...RESULT.outdoor_air, rule } });
    expect(said()).toContain(words);
  }
});

const flows = (more: object = {}) => ({
  supply_m3_s: 0, make_up_m3_s: 0, transfer_in_m3_s: 0, leak_in_m3_s: 0, returned_m3_s: 0, extract_m3_s: 0, by_unit_m3_s: 0, transfer_out_m3_s: 0,
  leak_out_m3_s: 0, offset_m3_s: 0, surplus_m3_s: 0, free: "return", ...more,
}); // prettier-ignore
const KITCHEN = flows({ supply_m3_s: 0.41, make_up_m3_s: 0.41, leak_in_m3_s: 0.04, extract_m3_s: 0.45, offset_m3_s: -0.04, free: "supply" }); // prettier-ignore
const OFFICE = flows({ supply_m3_s: 0.2, returned_m3_s: 0.15, transfer_out_m3_s: 0.05 });

test("bars of what comes in and goes out meet at nought and are equally long", () => {
  const rows = [{ id: "k", name: "0.1 Kitchen", balance: KITCHEN }, { id: "o", name: "0.2 Office", balance: OFFICE }];
  const made = mount(BalanceBars, { props: { rows: rows as never, selected: "o" }, attachTo: document.body });
  const nought = Number(made.find("line.nought").attributes("x1"));
  for (const line of made.findAll("g.line")) {
    const bars = line.findAll("rect.bar").map((bar) => [Number(bar.attributes("x")), Number(bar.attributes("width"))] as const);
    const left = bars.filter(([x]) => x < nought - 1e-6);
    const right = bars.filter(([x]) => x >= nought - 1e-6);
    const length = (all: typeof bars) => all.reduce((sum, [, width]) => sum + width, 0);
    expect(length(left)).toBeCloseTo(length(right), 6);
    expect(Math.max(...left.map(([x, width]) => x + width))).toBeCloseTo(nought, 6);
  }
  // The largest room fills its side, the other by its share.
  const widths = made.findAll("g.line").map((line) => line.findAll("rect.bar").reduce((sum, bar) => sum + Number(bar.attributes("width")), 0) / 2);
  expect(widths[1]! / widths[0]!).toBeCloseTo(0.2 / 0.45, 6);
  expect(made.findAll("title").map((title) => title.text().replace(/\s/g, " "))).toContain("extracts 450 L/s");
  expect(texts("g.line")[0]).toContain("offset −40 L/s");
  expect(made.findAll("g.line")[1]!.classes("on")).toBe(true);
}); // prettier-ignore

const ROOMS = [
  { id: "o", number: "0.10", name: "Office", offset_m3_s: null, air_system: "s", second_system: null, pinned_flow_m3_s: null, second_pinned_flow_m3_s: null },
  { id: "k", number: "0.2", name: "Kitchen", offset_m3_s: -0.04, air_system: "m", second_system: "s", pinned_flow_m3_s: 0.4, second_pinned_flow_m3_s: 0.1 },
  { id: "x", number: "0.3", name: "Shed", offset_m3_s: null, air_system: null, second_system: null, pinned_flow_m3_s: null, second_pinned_flow_m3_s: null },
]; // prettier-ignore
const SYSTEMS = [SYSTEM, { ...SYSTEM, id: "m", name: "MAU-1", arrangement: "make-up" }];

async function balance(more: Record<string, unknown[]> = {}) {
  const doc = await brought(
    { room: ROOMS, air_system: SYSTEMS, extract: [], transfer: [], schedule: [], ...more },
    { balance: { k: KITCHEN, o: OFFICE } },
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const made = mount(BalanceView, { attachTo: document.body });
  await settled();
  const press = async (text: string) => {
    await made.findAll("button").find((one) => one.text() === text)!.trigger("click");
    await settled();
  };
  const sent = () => attempt.mock.calls.at(-1) as unknown as Sent;
  return { made, press, sent, attempt, commit };
} // prettier-ignore

test("the balance of every room in figures; nought is no figure", async () => {
  const { made } = await balance();
  const { shown, rows } = grid(made, "Air balance");
  expect(rows().map((row) => row.number)).toEqual(["0.2", "0.3", "0.10"]);
  expect(["supply_m3_s", "make_up_m3_s", "leak_in_m3_s", "extract_m3_s", "returned_m3_s"].map((key) => shown("k", key))).toEqual([0.41, 0.41, 0.04, 0.45, null]);
  expect([shown("k", "free"), shown("x", "free"), shown("x", "supply_m3_s")]).toEqual(["supply", "–", null]);
}); // prettier-ignore

test("a pressure offset is the room's; an extract is added where one looks", async () => {
  const { made, press, sent, commit } = await balance();
  await grid(made, "Air balance").edit("o", "offset", 0.02);
  expect((commit.mock.calls[0] as unknown as Sent)[1]).toEqual([{ op: "set", kind: "room", id: "o", fields: { offset_m3_s: 0.02 } }]);
  await press("Extracts and air between rooms");
  expect(said()).toContain("Hoods, toilets and processes that take air out of a room by a fan.");
  useView().selectRoom("x");
  await settled();
  await press("Add to 0.3 Shed");
  expect(sent()[1]).toMatchObject([{ op: "create", kind: "extract", fields: { room: "x", flow_m3_s: 0.1 } }]);
}); // prettier-ignore

test("extracts by their rooms; a fan of their own only where they have one; a transfer may balance", async () => {
  const extract = (id: string, room: string, lane: string) => ({ id, room, name: "Hood", flow_m3_s: 0.1, schedule: null, above_c: null, lane, fan_pa: 200, fan_efficiency: 0.5 });
  const { made, press, sent } = await balance({
    extract: [extract("e1", "o", "unit"), extract("e2", "k", "own fan")],
    transfer: [{ id: "t", source: "o", room: "k", flow_m3_s: null }],
  });
  await press("Extracts and air between rooms");
  const extracts = grid(made, "Extracts");
  expect(extracts.rows().map((row) => row.id)).toEqual(["e2", "e1"]);
  const may = extracts.column("fan_pa").editable as (row: unknown) => boolean;
  expect(extracts.rows().map(may)).toEqual([true, false]);
  const transfers = grid(made, "Transfers");
  expect(transfers.column("flow_m3_s").text!(transfers.rows()[0])).toBe("balances");
  transfers.found.vm.$emit("select", { id: "t" });
  await settled();
  await made.findAll("button").filter((one) => one.text() === "Remove")[1]!.trigger("click");
  await settled();
  expect(sent()[1]).toEqual([{ op: "delete", kind: "transfer", id: "t" }]);
}); // prettier-ignore

async function terminals(id: string) {
  const doc = await brought(
    { room: ROOMS, air_system: SYSTEMS },
    { airflow: { o: { design_m3_s: 0.2, governing: "cooling", supply_c: 14 }, "k/s": { design_m3_s: 0.1 } }, room: { o: { cooling: { sensible_w: 900 }, heating_w: 500 } } },
  );
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const made = mount(TerminalsView, { props: { id }, attachTo: document.body });
  await settled();
  const fields = () => (commit.mock.calls.at(-1) as unknown as Sent)[1][0]!.fields;
  return { ...grid(made, "Terminals"), fields };
} // prettier-ignore

test("a terminal's pin is that of the system that is looked at", async () => {
  const first = await terminals("m");
  expect(first.shown("k", "pinned_flow_m3_s")).toBe(0.4);
  await first.edit("k", "pinned_flow_m3_s", 0.5);
  expect(first.fields()).toEqual({ pinned_flow_m3_s: 0.5 });
  document.body.innerHTML = "";
  const second = await terminals("s");
  expect(second.shown("k", "pinned_flow_m3_s")).toBe(0.1);
  await second.edit("k", "pinned_flow_m3_s", null);
  expect(second.fields()).toEqual({ second_pinned_flow_m3_s: null });
  // Kind, least flow and reheat are told of a room's first system alone.
  const may = second.column("terminal_flow").editable as (row: unknown) => boolean;
  expect(second.rows().map((row) => [row.id, may(row)])).toEqual([["k", false], ["x", false], ["o", true]]);
  expect(second.shown("k", "other")).toBe("MAU-1");
}); // prettier-ignore

test("a room goes onto a system first, second, or off it, and never twice", async () => {
  const { edit, fields } = await terminals("s");
  await edit("x", "served", true);
  expect(fields()).toEqual({ air_system: "s", second_system: null });
  await edit("k", "served", true);
  expect(fields()).toEqual({ air_system: "s", second_system: null });
  await edit("o", "second", true);
  expect(fields()).toEqual({ air_system: null, second_system: "s" });
  await edit("k", "second", false);
  expect(fields()).toEqual({ air_system: "m", second_system: null });
});

async function panel(chosen: number | string | null, system: object = {}, coils: object[] = [COIL]) {
  const row = { ...SYSTEM, ...system };
  const doc = await brought({ air_system: [row] });
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const props = { system: row, coils, resultId: "s", modelValue: chosen };
  const made = mount(PartPanel, { props: props as never, attachTo: document.body });
  await settled();
  const kinds = () => ((attempt.mock.calls.at(-1) as unknown as Sent)[1][0]!.fields["parts"] as { kind: string }[]).map((part) => part.kind);
  const sent = () => attempt.mock.calls.at(-1) as unknown as Sent;
  const press = async (text: string) => {
    await made.findAll("button").find((one) => one.text() === text)!.trigger("click");
    await settled();
  };
  return { made, kinds, sent, press, attempt, commit };
} // prettier-ignore

test("a part is moved, removed and added behind the one that is chosen", async () => {
  const { made, kinds, press } = await panel(1);
  await press("Later");
  expect(kinds()).toEqual(["filter", "cooling coil", "heating coil", "fan"]);
  expect(made.emitted("update:modelValue")!.at(-1)).toEqual([2]);
  // It stays chosen where it went: what stands there goes.
  await press("Remove");
  expect(kinds()).toEqual(["filter", "heating coil", "fan"]);
  document.body.innerHTML = "";
  const other = await panel(0);
  other.made.findComponent({ name: "ActionMenu" }).vm.$emit("choose", "steam humidifier");
  await settled();
  expect(other.kinds()).toEqual(["filter", "steam humidifier", "heating coil", "cooling coil", "fan"]);
});

test("the first part goes no further forward, and a fan is not removed", async () => {
  const first = await panel(0);
  const button = (made: VueWrapper, text: string) =>
    made.findAll("button").find((one) => one.text() === text);
  expect((button(first.made, "Earlier")!.element as HTMLButtonElement).disabled).toBe(true);
  document.body.innerHTML = "";
  const fan = await panel(3);
  expect(button(fan.made, "Remove")).toBeUndefined();
  expect((button(fan.made, "Later")!.element as HTMLButtonElement).disabled).toBe(true);
});

test("a coil tells its rows, what they give and of how much, with water or refrigerant", async () => {
  const { made } = await panel(2);
  expect(made.find("[data-test=coil-size]").text().replace(/\s+/g, " ")).toContain("4 rows sized, face");
  expect(said()).toContain("with water of 7.0 °C / 12.0 °C; they let 11 % of the air pass.");
  document.body.innerHTML = "";
  await panel(2, {}, [{ ...COIL, pinned: true, refrigerant: true, rows_for_bypass: null }]);
  expect(said()).toContain("4 rows pinned");
  expect(said()).toContain("with refrigerant at 7.0 °C.");
  document.body.innerHTML = "";
  await panel(2, {}, []);
  expect(said()).toContain("Nothing feeds it yet, or it has no duty");
});

test("heat recovery is added once, set where it is chosen, and taken away whole", async () => {
  const { made, sent } = await panel(null);
  expect(said()).toContain("Choose a part to set, drag it to move it.");
  made.findComponent({ name: "ActionMenu" }).vm.$emit("choose", "recovery");
  await settled();
  expect(sent()[1][0]!.fields).toEqual({ recovery_sensible: 0.7 });
  document.body.innerHTML = "";
  const there = await panel("recovery", { recovery_sensible: 0.7 });
  const offered = there.made.findComponent({ name: "ActionMenu" }).props("items") as { value: string }[];
  expect(offered.map((item) => item.value)).not.toContain("recovery");
  await there.press("Remove");
  expect(there.sent()[1][0]!.fields).toEqual({ recovery_sensible: 0, recovery_latent: 0 });
  expect(there.made.emitted("update:modelValue")!.at(-1)).toEqual([null]);
});

test("mixing asks for the limit that its economizer has", async () => {
  await panel("mixing");
  expect(texts("label").join(" ")).not.toContain("up to");
  document.body.innerHTML = "";
  await panel("mixing", { economizer: "dry-bulb fixed", economizer_limit_c: 18 });
  expect(texts(".panel label")).toHaveLength(2);
});
