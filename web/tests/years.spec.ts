// Years against each other: what is asked for, how it is followed, and how it is drawn.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import YearsView from "../src/stages/compare/YearsView.vue";
import { drawn, isOpen, lineOf, type YearPoint } from "../src/stages/compare/years";
import { brought, said } from "./brought";
import { grid, pressed } from "./grids";
import { asked, plug, refused, settled } from "./server";

vi.mock("vue-router", () => ({
  useRoute: () => ({ query: {} }),
  useRouter: () => ({ push: () => undefined }),
}));

const figures = (delivered: number) => ({
  stale: false, delivered_kwh: delivered, uses_kwh: { heating: delivered / 2 }, carriers_kwh: {}, loose_kwh: 5, cost: 0, emissions_kg: 0,
  billed: false, too_warm_h: 3, unmet_h: 0,
}); // prettier-ignore
const point = (task: string, more: object = {}) =>
  ({
    task, option: "p", option_name: "Hall", weather: "w", weather_name: "Mill Hill.csv", value: null, state: "done", progress: 1, fault: "",
    stale: false, figures: figures(1000), ...more,
  }) as unknown as YearPoint; // prettier-ignore
const running = (task: string) => point(task, { state: "running", progress: 0.5, figures: null });

const ROUTES = {
  "GET /api/projects/p/options": {
    base: { id: "p", name: "Hall" },
    options: [{ id: "o", name: "Tighter", remarks: "", capital: 0, differences: 1 }],
  },
  "GET /api/projects/p/weather/files": [
    { id: "v", name: "Old.csv", year: 2019, chosen: false, own: true },
    { id: "w", name: "Mill Hill.csv", year: 2021, chosen: true, own: true },
  ],
};

test("points are lines over a value, and columns without one", () => {
  const warm = (value: number, weather: string, delivered: number) =>
    point("x", { value, weather, weather_name: weather, figures: figures(delivered) });
  const all = [warm(18, "a", 100), warm(20, "a", 120), warm(18, "b", 90), point("y", { figures: null })];
  expect(drawn(all, "delivered", (value) => value * 10)).toEqual([
    {
      name: "Hall, a",
      data: [
        [18, 1000],
        [20, 1200],
      ],
    },
    { name: "Hall, b", data: [[18, 900]] },
  ]);
  expect(drawn([point("x")], "delivered", (value) => value)).toEqual([
    { name: "Mill Hill.csv", data: [["Hall", 1000]] },
  ]);
  // Without tariffs there are no bills to draw.
  expect(drawn([point("x")], "cost", (value) => value)).toEqual([]);
  expect([isOpen(running("x")), isOpen(point("x")), lineOf(point("x"), 1)]).toEqual([true, false, "Hall"]);
});

test("what is chosen is asked for, followed until it is done, and what is old says so", async () => {
  let times = 0;
  await brought({ use: [{ id: "u", name: "Office" }] }, {});
  plug({
    ...ROUTES,
    "GET /api/projects/p/years": () =>
      times ? { field: null, points: [point("1"), point("2", { option: "o", option_name: "Tighter", stale: true })] } : { field: null, points: [] },
    "POST /api/projects/p/years": () => {
      times += 1;
      return { field: null, points: [running("1"), running("2")] };
    },
  }); // prettier-ignore
  const made = mount(YearsView, { attachTo: document.body, global: { stubs: { ChartBox: true } } });
  await settled();
  expect(said()).toContain("Choose options and weather");
  await pressed(made, "Calculate 2 years");
  await settled();
  const body = { options: ["p", "o"], weathers: ["w"], field: null, values: [] };
  expect(asked.find((one) => one.method === "POST")).toMatchObject({ body });
  expect(said()).toContain("0 of 2 done");
  await vi.waitFor(() => expect(said()).toContain("1 year is older than what was entered since"), 40_000);
  const { rows, column } = grid(made, "Years");
  expect(rows().map((row) => column("option").value(row))).toEqual(["Base", "Tighter"]);
  expect(rows().map((row) => column("state").value(row))).toEqual(["done", "done, old"]);
  expect(column("heating").value(rows()[0])).toBe(500);
  made.unmount();
});

test("a refusal is told in its words, and nothing else changes", async () => {
  await brought({ use: [{ id: "u", name: "Office" }] }, {});
  plug({
    ...ROUTES,
    "GET /api/projects/p/years": { field: null, points: [] },
    "POST /api/projects/p/years": refused(409, "The years that were asked for before are still under way."),
  });
  const made = mount(YearsView, { attachTo: document.body, global: { stubs: { ChartBox: true } } });
  await settled();
  await pressed(made, "Calculate 2 years");
  await settled();
  expect(said()).toContain("still under way");
  made.unmount();
});
