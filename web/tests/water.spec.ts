import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { Refusal } from "../src/api/client";
import type { Circuit, PipeSection } from "../src/document/types";
import FittingsDialog from "../src/parts/FittingsDialog.vue";
import NameDialog from "../src/parts/NameDialog.vue";
import RouteDialog from "../src/parts/RouteDialog.vue";
import CatalogueView from "../src/stages/kit/CatalogueView.vue";
import PumpView from "../src/stages/water/PumpView.vue";
import { brought } from "./brought";

const settled = async () => {
  for (let i = 0; i < 4; i += 1) await nextTick();
};

const section = (fittings: unknown[]): PipeSection =>
  ({ id: "s", name: "Riser", circuit: "c", parent: null, position: 0, room: null, air_system: null, length_m: 5, loss_coefficient: 1.5, fittings, level: null, course_m: [], end_drop_pa: 0, pinned_diameter_m: null, valve_kv_m3_h: null }) as never; // prettier-ignore
const ELBOWS = { kind: "pipe_elbow_90", count: 4, coefficient: null };
const OWN = { kind: "", count: 1, coefficient: 0.9 };

async function fittings(parts: unknown[], coefficients: number[]) {
  const row = section(parts);
  const doc = await brought(
    { pipe_section: [row] },
    { pipe_section: { s: { coefficients, size: "DN 40" } } },
  );
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const made = mount(FittingsDialog, {
    props: { kind: "pipe_section", section: row },
    attachTo: document.body,
  });
  await settled();
  const field = (label: string) => document.querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!;
  async function enter(label: string, text: string) {
    const input = field(label);
    input.value = text;
    input.dispatchEvent(new Event("input"));
    input.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
    await settled();
  }
  const kept = () =>
    (commit.mock.calls.at(-1) as unknown as [string, { fields: { fittings: unknown[] } }[]])[1][0]!.fields
      .fittings;
  return { made, commit, enter, field, kept };
}
const press = async (text: string) => {
  const found = [...document.querySelectorAll<HTMLElement>("button, a")].find(
    (one) => one.textContent?.trim() === text,
  );
  found!.click();
  await settled();
};

test("fittings tell their figure, where it is from, and their sum", async () => {
  const { field } = await fittings([ELBOWS, OWN], [0.63, 0.9]);
  const text = document.body.textContent!.replace(/\s+/g, " ");
  expect(text).toContain("5 fittings and 1.50 entered as a sum: Σζ 4.92, of flow and return together");
  expect(text).toContain("30 f, Crane TP-410");
  expect(text).toContain("own figure");
  expect(field("Coefficient of Elbow 90°, standard").value).toBe("0.63");
  expect(field("Coefficient of Own coefficient").value).toBe("0.9");
});

test("a count and a figure of one's own are saved with the rest as it was", async () => {
  const { enter, kept, commit } = await fittings([ELBOWS, OWN], [0.63, 0.9]);
  await enter("Count of Elbow 90°, standard", "6");
  expect(kept()).toEqual([{ ...ELBOWS, count: 6 }, OWN]);
  await enter("Coefficient of Elbow 90°, standard", "0.5");
  expect(kept()).toEqual([{ ...ELBOWS, coefficient: 0.5 }, OWN]);
  const calls = commit.mock.calls.length;
  await enter("Count of Own coefficient", "many");
  expect(commit.mock.calls.length).toBe(calls);
  expect(document.body.textContent).toContain("“many” is not a number.");
});

test("fittings are added and removed", async () => {
  const { kept } = await fittings([ELBOWS], [0.63]);
  await press("Add fitting");
  expect(kept()).toEqual([ELBOWS, { kind: "pipe_elbow_90", count: 1, coefficient: null }]);
  document.querySelector<HTMLElement>('[aria-label="Remove Elbow 90°, standard"]')!.click();
  await settled();
  expect(kept()).toEqual([]);
});

test("a route starts at the plant room, and names what is not on the plan", async () => {
  const square = [
    [0, 0],
    [4, 0],
    [4, 4],
    [0, 4],
  ];
  const room = (id: string, number: string, name: string, outline: unknown) => ({
    id,
    number,
    name,
    level: "g",
    outline_m: outline,
  });
  const doc = await brought({
    room: [
      room("a", "1", "Shop", square),
      room("b", "2", "Plant room", square),
      room("c", "3", "Loft", null),
    ],
  });
  mount(RouteDialog, {
    props: { kind: "duct_section", owner: "u", rooms: ["a", "c"], coils: [], drawn: 7 },
    attachTo: document.body,
  });
  await settled();
  const text = document.body.textContent!.replace(/\s+/g, " ");
  expect(text).toContain("2 Plant room");
  expect(text).toContain("Not on the plan, left out: 3");
  expect(text).toContain("7 sections");
  // There is no server here: the refusal stays in the dialog.
  await press("Lay the route");
  await vi.waitFor(() => expect(document.querySelector(".fault")?.textContent).toBeTruthy());
  expect(doc.version).toBe(1);
});

test("a name is trimmed; one that is refused stays to be mended", async () => {
  const make = vi.fn(async (name: string) => {
    if (name === "Mill")
      throw new Refusal({ status: 422, code: "invalid", title: "There is a Mill.", faults: [] });
  });
  const made = mount(NameDialog, {
    props: { title: "New project", label: "Project name", action: "Start", make },
    attachTo: document.body,
  });
  await settled();
  const input = document.querySelector<HTMLInputElement>("input")!;
  const submit = async (text: string) => {
    input.value = text;
    input.dispatchEvent(new Event("input"));
    await settled();
    document.querySelector("form")!.dispatchEvent(new Event("submit"));
    await settled();
  };
  await submit("Mill");
  expect(document.querySelector(".fault")!.textContent).toBe("There is a Mill.");
  expect(made.emitted("close")).toBeUndefined();
  await submit("  Barn ");
  expect(make).toHaveBeenLastCalledWith("Barn");
  expect(made.emitted("close")).toHaveLength(1);
});

const CIRCUIT = {
  id: "c",
  name: "Heating",
  pump_control: "proportional pressure",
  motor_class: "IE3",
} as unknown as Circuit;
const point = (share: number) => ({ share, head_pa: 2e4, efficiency: 0.5, hydraulic_w: 100 * share, shaft_w: 200 * share, electrical_w: 250 * share }); // prettier-ignore
const PUMP = {
  flow_m3_s: 0.004, head_pa: 4e4, calculated_head_pa: 3.7e4, network_head_pa: 3.4e4, open_share: 1.02, count: 2, standby: 1, motor_efficiency: 0.8,
  part_loads: [0.25, 0.5, 0.75, 1].map(point),
  curve: { flow_m3_s: [0, 0.004], pump_pa: [5e4, 4e4], held_pa: [2e4, 4e4], network_pa: [0, 3.4e4] },
}; // prettier-ignore

test("pumps tell their part load, and whose head a control holds", async () => {
  const made = mount(PumpView, {
    props: { circuit: CIRCUIT, result: { pump: PUMP } as never },
    attachTo: document.body,
  });
  await settled();
  const rows = made.findAll("tbody tr");
  expect(rows.map((row) => row.find("td").text().replace(/\s/g, ""))).toEqual(["25%", "50%", "75%", "100%"]);
  expect(rows[1]!.text()).toContain("125");
  const text = made.text().replace(/\s+/g, " ");
  expect(text).toContain("2 pumps together on duty, 1 on standby");
  expect(text).toContain("held by the control");
  // With a class the motor's own efficiency is no entry.
  expect(document.querySelector('[aria-label="Motor and drive"]')).toBeNull();
  await made.setProps({
    circuit: { ...CIRCUIT, pump_control: "constant speed", motor_class: "own" } as never,
  });
  expect(made.text()).not.toContain("held by the control");
  expect(document.querySelector('[aria-label="Motor and drive"]')).not.toBeNull();
  await made.setProps({ result: undefined });
  expect(made.text()).toContain("No flow yet");
});

test("a catalogue shows the figures of its item, and what each row is taken for", async () => {
  const row = (id: string, item: string, name: string, more: object) => ({
    id,
    item,
    name,
    flow_m3_s: 0,
    pressure_pa: 0,
    output_w: 0,
    ...more,
  });
  const doc = await brought(
    {
      catalogue_row: [
        row("1", "pump", "Weir", { flow_m3_s: 0.01, pressure_pa: 9e4 }),
        row("2", "pump", "Rill", { flow_m3_s: 0.002, pressure_pa: 3e4 }),
        row("3", "boiler", "Hob", { output_w: 9e4 }),
      ],
    },
    { kit: { k: { tag: "Heating P1", size: "Rill" } } },
  );
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const made = mount(CatalogueView, { attachTo: document.body });
  await settled();
  expect(made.text()).toContain("2 rows");
  expect(made.text()).toContain("Head");
  expect(made.text()).toContain("Heating P1");
  expect(made.text().indexOf("Rill")).toBeLessThan(made.text().indexOf("Weir"));
  await press("Boilers");
  expect(made.text()).toContain("1 row;");
  expect(made.text()).toContain("Hob");
  expect(made.text()).not.toContain("Weir");
  await press("Add row");
  const [, changes] = attempt.mock.calls[0] as unknown as [
    string,
    { kind: string; fields: Record<string, unknown> }[],
  ];
  expect(changes[0]!.kind).toBe("catalogue_row");
  expect(changes[0]!.fields).toMatchObject({ item: "boiler", output_w: 9e4 });
});
