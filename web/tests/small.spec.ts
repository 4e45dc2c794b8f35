// Small parts: what a range adds up to, which system serves a room, lists walked by keys, saving, following others.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { defineComponent, h } from "vue";
import { useFollowing } from "../src/app/following";
import { airflowKey, isServedBy, rankIn } from "../src/document/served";
import { useDocument } from "../src/document/store";
import { leftBy, summaryOf } from "../src/parts/gridSums";
import { onListKey } from "../src/parts/listKeys";
import { choicesOf, fieldSaver, gridSaver } from "../src/parts/saving";
import { drawnAt } from "../src/stages/place/pointer";

const COLUMNS = [
  { key: "name", title: "Name", width: 10, value: (row: number[]) => String(row[0]) },
  { key: "area", title: "Area", width: 10, quantity: "area", value: (row: number[]) => row[0] },
  { key: "air", title: "Air", width: 10, quantity: "temperature", value: (row: number[]) => row[1] },
];
const sums = (left: number, right: number, rows: (number | null)[][] = [[10, 20], [30, 26], [20, 23]]) =>
  summaryOf(rows as number[][], COLUMNS as never, { top: 0, bottom: rows.length - 1, left, right } as never, "SI").replace(/\u2009/g, " "); // prettier-ignore

test("a range of areas has a sum, one of temperatures only its mean and ends", () => {
  expect(sums(1, 1)).toBe("3 × 1 cells · sum 60.0 m² · mean 20.0 m²");
  expect(sums(2, 2)).toBe("3 × 1 cells · mean 23.0 °C · 20.0 °C to 26.0 °C");
});

test("several columns, words, and cells without a figure add up to nothing", () => {
  expect(sums(1, 2)).toBe("3 × 2 cells");
  expect(sums(0, 0)).toBe("3 × 1 cells");
  expect(sums(1, 1, [[null], [null]])).toBe("2 × 1 cells");
  expect(sums(1, 1, [[null], [8]])).toContain("sum 8.0 m²");
});

test("what a filter leaves is told, and nothing where it leaves all", () => {
  expect(leftBy(3, 3)).toBe("");
  expect(leftBy(1, 30)).toBe("1 of 30 rows");
});

test("a system serves a room first, second, or not at all; a second one alone comes first", () => {
  const room = (air_system: string | null, second_system: string | null) => ({ id: "r", air_system, second_system }) as never; // prettier-ignore
  expect(rankIn(room("s", "t"), "s")).toBe(1);
  expect(rankIn(room("s", "t"), "t")).toBe(2);
  expect(rankIn(room(null, "t"), "t")).toBe(1);
  expect(isServedBy(room("s", null), "t")).toBe(false);
  expect([airflowKey(room("s", "t"), "s"), airflowKey(room("s", "t"), "t")]).toEqual(["r", "r/2"]);
});

test("arrows walk through a list of things and show what they reach; at its ends they stay", () => {
  document.body.innerHTML = "<nav><button class=item>a</button><button class=item>b</button><i></i></nav>";
  const nav = document.querySelector("nav")!;
  const [first, second] = [...nav.querySelectorAll<HTMLElement>(".item")] as [HTMLElement, HTMLElement];
  const shown: string[] = [];
  for (const item of [first, second]) item.addEventListener("click", () => shown.push(item.textContent!));
  nav.addEventListener("keydown", onListKey);
  const press = (key: string) => nav.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
  press("ArrowDown");
  expect(shown).toEqual([]);
  first.focus();
  press("ArrowDown");
  press("ArrowDown");
  press("x");
  expect([shown, document.activeElement]).toEqual([["b"], second]);
  press("ArrowUp");
  expect(shown).toEqual(["b", "a"]);
});

test("edits of a sheet are one change set, named by the column or by how many they are", async () => {
  const commit = vi.spyOn(useDocument(), "commit").mockResolvedValue(undefined as never);
  const save = gridSaver<{ id: string }>("room", "Room");
  const edit = (id: string, key: string, value: unknown) => ({ row: { id }, column: { key, title: key }, value }) as never; // prettier-ignore
  await save([edit("a", "height_m", 3)]);
  await save([edit("a", "height_m", 3), edit("b", "name", "Hall")]);
  expect(commit.mock.calls.map(([label]) => label)).toEqual(["Room: height_m", "Room: 2 values"]);
  const one = fieldSaver("room", () => "c", "name", "Name");
  await one("Loft");
  expect(one.of()).toEqual({ kind: "room", id: "c", field: "name" });
  expect(commit.mock.calls.at(-1)![1]).toEqual([
    { op: "set", kind: "room", id: "c", fields: { name: "Loft" } },
  ]);
  expect(choicesOf([{ id: "c", name: "Loft" }])).toEqual([{ value: "c", label: "Loft" }]);
});

test("others' edits are asked for again and again while the page is there, and leaving waits for one's own", async () => {
  vi.useFakeTimers({ toFake: ["setInterval", "clearInterval"] });
  try {
    const doc = useDocument();
    const refresh = vi.spyOn(doc, "refresh").mockResolvedValue(undefined as never);
    const made = mount(defineComponent({ setup: () => (useFollowing(), () => h("div")) }));
    await vi.advanceTimersByTimeAsync(4600);
    expect(refresh.mock.calls.length).toBe(3);
    window.dispatchEvent(new Event("online"));
    expect(refresh.mock.calls.length).toBe(4);
    const leaving = () => {
      const event = new Event("beforeunload", { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(leaving()).toBe(false);
    made.unmount();
    await vi.advanceTimersByTimeAsync(4600);
    expect(refresh.mock.calls.length).toBe(4);
  } finally {
    vi.useRealTimers();
  }
});

test("a pointer that only passes over a drawing is nowhere", () => {
  const event = (type: string, buttons: number) =>
    ({
      type,
      buttons,
      pointerId: 1,
      currentTarget: { getScreenCTM: () => null, setPointerCapture: vi.fn() },
    }) as never;
  expect(drawnAt(event("pointermove", 0))).toBeNull();
  expect(drawnAt(event("pointerdown", 1))).toBeNull();
});
