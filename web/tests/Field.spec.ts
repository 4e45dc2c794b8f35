import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { nextTick } from "vue";
import { Refusal } from "../src/api/client";
import Field from "../src/parts/Field.vue";
import { useView } from "../src/view/store";

const temperature = { type: "number", quantity: "temperature" } as const;
const field = (props: Record<string, unknown>) =>
  mount(Field, { props: { label: "Heated to", value: 20, editor: temperature, save: async () => {}, ...props } as never, attachTo: document.body }); // prettier-ignore

async function enter(made: ReturnType<typeof field>, text: string): Promise<void> {
  const input = made.find("input");
  await input.setValue(text);
  await input.trigger("keydown", { key: "Enter" });
  await nextTick();
  await nextTick();
}

test("a figure stands and is saved in the units shown", async () => {
  const save = vi.fn(async () => {});
  const made = field({ save });
  expect((made.find("input").element as HTMLInputElement).value).toBe("20");
  expect(made.find(".unit").text()).toBe("°C");
  useView().system = "IP";
  await nextTick();
  expect((made.find("input").element as HTMLInputElement).value).toBe("68");
  await enter(made, "70");
  expect(save).toHaveBeenCalledOnce();
  expect(Number((save.mock.calls as unknown as [[number]])[0][0])).toBeCloseTo((70 - 32) / 1.8, 9);
});

test("what is not a figure is said and not saved", async () => {
  const save = vi.fn(async () => {});
  const made = field({ save });
  await enter(made, "warm");
  expect(save).not.toHaveBeenCalled();
  expect(made.find(".fault").text()).toBe("“warm” is not a number.");
  expect((made.find("input").element as HTMLInputElement).value).toBe("warm");
  await made.find("input").trigger("keydown", { key: "Escape" });
  expect((made.find("input").element as HTMLInputElement).value).toBe("20");
});

test("a refusal tells the allowed range in the units shown", async () => {
  useView().system = "IP";
  const refused = new Refusal({ code: "invalid", title: "no", faults: [{ path: "", field: "Heated to", value: 99, message: "", allowed: "at least -30 and at most 40", now: null }] } as never); // prettier-ignore
  const made = field({ save: () => Promise.reject(refused) });
  await enter(made, "200");
  expect(made.find(".fault").text()).toBe("Heated to: allowed is at least -22 and at most 104 °F.");
});

test("an inherited value stands in italics, and an empty field steps back to it", async () => {
  const save = vi.fn(async () => {});
  const made = field({ value: null, inherited: 18, save });
  expect((made.find("input").element as HTMLInputElement).value).toBe("18");
  expect(made.find(".inherited").exists()).toBe(true);
  await made.setProps({ value: 21 } as never);
  expect(made.find(".inherited").exists()).toBe(false);
  await enter(made, "");
  expect(save).toHaveBeenCalledWith(null);
});

test("the same figure again saves nothing", async () => {
  const save = vi.fn(async () => {});
  await enter(field({ save }), "20");
  expect(save).not.toHaveBeenCalled();
});

test("yes or no", async () => {
  const save = vi.fn(async () => {});
  const made = field({ value: false, editor: { type: "yesno" }, save });
  await made.find("input").setValue(true);
  expect(save).toHaveBeenCalledWith(true);
});
