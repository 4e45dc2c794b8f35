// Rooms: their faces and openings, values that are passed on, things that several places use, rooms from a file.
import { mount } from "@vue/test-utils";
import { expect, test, vi } from "vitest";
import { defineComponent, h, nextTick } from "vue";
import { useDocument } from "../src/document/store";
import { useShared } from "../src/parts/shared";
import RoomFaces from "../src/stages/rooms/RoomFaces.vue";
import SharedValues from "../src/stages/rooms/SharedValues.vue";
import { useRoomImport } from "../src/stages/rooms/importing";
import { grid, type Sent } from "./grids";
import { brought, texts } from "./brought";
import { settled } from "./server";

const route = { query: {} as Record<string, string> };
vi.mock("vue-router", () => ({ useRoute: () => route, useRouter: () => ({}) }));

type Sent = [
  label: string,
  changes: { op: string; kind: string; id: string; fields: Record<string, unknown> }[],
];

const ROOM = { id: "r", number: "1.01", name: "Studio", floor_area_m2: 24, plan_area_m2: null };
const wall = (id: string, more: object = {}) => ({
  id, room: "r", name: "Wall", role: "outer_wall", boundary: "outdoors", area_m2: 12, tilt_deg: 90, azimuth_deg: 180, assembly: null,
  neighbour: null, cooling_difference_k: 3, heating_difference_k: 5, fixed_temperature_c: null, temperature_schedule: null, exposed_perimeter_m: null, ...more,
}); // prettier-ignore
const window = (id: string, more: object = {}) => ({
  id, surface: "w", name: "Window", kind: "window", count: 2, width_m: 1.5, height_m: 1, glazing: null, assembly: null, shading: null, ...more,
}); // prettier-ignore

async function faces(surfaces: object[], openings: object[] = [], more: Record<string, object[]> = {}) {
  const doc = await brought({ room: [ROOM], surface: surfaces, opening: openings, ...more } as never);
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const stubs = { CompassRose: true };
  const made = mount(RoomFaces, { props: { room: ROOM as never }, attachTo: document.body, global: { stubs } });
  await settled();
  const sent = () => attempt.mock.calls.at(-1) as unknown as Sent;
  const saved = () => commit.mock.calls.at(-1) as unknown as Sent;
  const press = async (text: string) => {
    await made.findAll("button").find((one) => one.text() === text)!.trigger("click");
    await settled();
  };
  return { made, doc, sent, saved, press, attempt };
} // prettier-ignore

test("a new face lies as its role lies, and is as large as one would begin with", async () => {
  const { made, sent } = await faces([]);
  const menu = made.findComponent({ name: "ActionMenu" });
  const added = async (role: string) => {
    menu.vm.$emit("choose", role);
    await settled();
    const { tilt_deg, boundary, area_m2, name, azimuth_deg } = sent()[1][0]!.fields;
    return [name, tilt_deg, azimuth_deg, boundary, area_m2];
  };
  expect(await added("outer_wall")).toEqual(["Outer wall", 90, 180, "outdoors", 10]);
  expect(await added("roof")).toEqual(["Roof", 0, 0, "outdoors", 24]);
  expect(await added("ground_floor")).toEqual(["Ground floor", 180, 0, "ground", 24]);
  expect(await added("inner_wall")).toEqual(["Inner wall", 90, 180, "adiabatic", 10]);
  expect(await added("inner_floor")).toEqual(["Inner floor, ceiling", 180, 0, "adiabatic", 24]);
});

test("what a wall has left beside its openings, and what share of it they are", async () => {
  const { made } = await faces([wall("w")], [window("o"), window("p", { count: 1, width_m: 1 })]);
  expect(grid(made, "Surfaces").shown("w", "net")).toBeCloseTo(12 - 3 - 1, 12);
  const openings = grid(made, "Openings");
  expect(openings.shown("o", "area")).toBe(3);
  expect(openings.shown("o", "share")).toBe(0.25);
});

test("a share of the wall becomes the opening's width; other fields are saved as they are", async () => {
  const { made, saved } = await faces([wall("w")], [window("o")]);
  const openings = grid(made, "Openings");
  await openings.edit("o", "share", 0.5);
  // 6 m² of two windows that are 1 m high.
  expect(saved()[1]).toMatchObject([{ op: "set", kind: "opening", id: "o", fields: { width_m: 3 } }]);
  await openings.edit("o", "count", 3);
  expect(saved()[1]).toMatchObject([{ op: "set", kind: "opening", id: "o", fields: { count: 3 } }]);
});

test("fields that mean nothing for a face cannot be typed into", async () => {
  const rows = [wall("w"), wall("top", { tilt_deg: 0, role: "roof" }), wall("in", { boundary: "room", neighbour: "x" }), wall("g", { boundary: "ground", tilt_deg: 180 })];
  const { made } = await faces(rows, [], { room: [ROOM, { ...ROOM, id: "x", number: "1.02", name: "Store" }] });
  const { column, rows: all } = grid(made, "Surfaces");
  const may = (key: string) => all().filter((row) => (column(key).editable as (row: unknown) => boolean)(row)).map((row) => row.id);
  expect(may("azimuth_deg")).toEqual(["w", "in"]);
  expect(may("neighbour")).toEqual(["in"]);
  expect(may("exposed_perimeter_m")).toEqual(["g"]);
  expect(may("cooling_difference_k")).toEqual([]);
  expect(column("neighbour").text!(all()[2])).toBe("1.02 Store");
  expect(all().map((row) => column("azimuth_deg").text!(row))).toEqual(["S 180", "up", "S 180", "down"]);
}); // prettier-ignore

test("what a face has of the kit is told with the kit's name, and what is missing too", async () => {
  const { made } = await faces([wall("w"), wall("v", { assembly: "a" }), wall("u", { role: "roof" })], [], {
    project: [{ id: "p", kit: "k" }],
    kit: [{ id: "k", outer_wall: "b", roof: null, window: null, door: null }],
    assembly: [{ id: "a", name: "Brick" }, { id: "b", name: "Timber frame" }],
  });
  const { column, rows } = grid(made, "Surfaces");
  expect(rows().map((row) => column("assembly").text!(row))).toEqual(["kit: Timber frame", "Brick", "kit: missing"]);
  expect(rows().map((row) => column("assembly").origin!(row))).toEqual(["kit", "own", "kit"]);
}); // prettier-ignore

test("an opening goes into the chosen face, else into the first outer one", async () => {
  const { made, sent, press } = await faces([wall("in", { boundary: "adiabatic" }), wall("w"), wall("v")]);
  await press("Add opening");
  expect(sent()[1][0]!.fields["surface"]).toBe("w");
  grid(made, "Surfaces").found.vm.$emit("select", { id: "v" });
  await settled();
  await press("Add opening");
  expect(sent()[1][0]!.fields["surface"]).toBe("v");
  await press("Remove surface");
  expect(sent()[1]).toEqual([{ op: "delete", kind: "surface", id: "v" }]);
});

test("faces of another room take the place of one's own, with their openings", async () => {
  const other = { ...ROOM, id: "x", number: "1.02", name: "Store" };
  const { made, sent, press } = await faces(
    [wall("w"), wall("y", { room: "x", area_m2: 20 })],
    [window("o"), window("q", { surface: "y", width_m: 2 })],
    { room: [ROOM, other] },
  );
  made.findAllComponents({ name: "Choice" }).find((one) => one.props("label") === "Take surfaces over from")!.vm.$emit("update:modelValue", "x");
  await settled();
  await press("Take over");
  const [label, changes] = sent();
  expect(label).toBe("Surfaces as in 1.02");
  expect(changes.filter((change) => change.op === "delete").map((change) => change.id)).toContain("w");
  const made_ = changes.filter((change) => change.op === "create");
  const face = made_.find((change) => change.kind === "surface")!;
  expect(face.fields).toMatchObject({ room: "r", area_m2: 20 });
  expect(made_.find((change) => change.kind === "opening")!.fields).toMatchObject({ surface: face.id, width_m: 2 });
}); // prettier-ignore

const LEVELS = [
  { id: "l2", name: "Upper", floor_m: 3.5, height_m: null, minimum_air_changes: 9 },
  { id: "l1", name: "Ground", floor_m: 0, height_m: 4, minimum_air_changes: null },
];

async function shared() {
  const doc = await brought({
    project: [{ id: "p", name: "Mill", height_m: 3, minimum_air_changes: 12 }],
    level: LEVELS,
    use: [{ id: "u", name: "Workshop", minimum_air_changes: null }],
    zone: [{ id: "z", name: "North", minimum_air_changes: null, sensor_room: "r" }],
    room: [{ ...ROOM, level: "l1", zone: "z", use: "u" }],
  });
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const commit = vi.spyOn(doc, "commit").mockResolvedValue(undefined as never);
  const made = mount(SharedValues, { attachTo: document.body });
  await settled();
  return { made, attempt, commit, ...grid(made, "Shared values") };
}

test("who passes values on stands from the building down, levels from the ground up", async () => {
  const { rows, shown } = await shared();
  expect(rows().map((row) => row.id)).toEqual(["p", "l1", "l2", "u", "z"]);
  expect(rows().map((row) => shown(row.id, "rooms"))).toEqual([1, 1, 0, 1, 1]);
});

test("what is left to the building shows the building's value as such; a zone shows nothing", async () => {
  const { rows, shown, column } = await shared();
  const origin = (id: string) => column("minimum_air_changes").origin!(rows().find((row) => row.id === id));
  expect(["p", "l1", "l2", "u", "z"].map((id) => shown(id, "minimum_air_changes"))).toEqual([
    12,
    12,
    9,
    12,
    null,
  ]);
  expect(["p", "l1", "l2", "u", "z"].map(origin)).toEqual(["own", "building", "own", "building", "own"]);
  // A height is a level's or the building's alone.
  expect(["p", "l1", "l2", "u", "z"].map((id) => shown(id, "height_m"))).toEqual([3, 4, 3, null, null]);
  expect(column("sensor_room").text!(rows()[4])).toBe("1.01");
  expect(column("sensor_room").text!(rows()[1])).toBe("–");
});

test("edits go to the kind of their row, and the history names them", async () => {
  const { edit, commit } = await shared();
  await edit("l1", "minimum_air_changes", 8);
  const [label, changes] = commit.mock.calls[0] as unknown as Sent;
  expect(label).toMatch(/^Ground: /);
  expect(changes).toEqual([{ op: "set", kind: "level", id: "l1", fields: { minimum_air_changes: 8 } }]);
});

test("zones may go, and levels without rooms; what holds rooms may not", async () => {
  const { found, attempt, made, rows } = await shared();
  const choose = async (id: string) => {
    found.vm.$emit("select", rows().find((row) => row.id === id));
    await settled();
    return texts("button").filter((text) => text.startsWith("Remove"));
  };
  expect(await choose("p")).toEqual([]);
  expect(await choose("l1")).toEqual([]);
  expect(await choose("u")).toEqual([]);
  expect(await choose("l2")).toEqual(["Remove Upper"]);
  expect(await choose("z")).toEqual(["Remove North"]);
  await made.findAll("button").find((one) => one.text() === "Remove North")!.trigger("click");
  expect((attempt.mock.calls[0] as unknown as Sent)[1]).toEqual([{ op: "delete", kind: "zone", id: "z" }]);
}); // prettier-ignore

/** Something of a page without the page. */
function within<T>(use: () => T): T {
  let found!: T;
  mount(defineComponent({ setup: () => ((found = use()), () => h("div")) }));
  return found;
}

async function glazing() {
  const doc = await brought({
    glazing: [{ id: "g", name: "Triple", u_value: 0.8 }, { id: "h", name: "Double", u_value: 1.3 }],
    room: [{ ...ROOM, level: null, zone: null, use: "u" }],
    surface: [wall("w")],
    opening: [window("o", { glazing: "g" }), window("p", { glazing: "g", name: "Skylight" })],
    kit: [], use: [], shading: [],
  }); // prettier-ignore
  const attempt = vi.spyOn(doc, "attempt").mockResolvedValue(true as never);
  const found = within(() => useShared("glazing", "g"));
  return { doc, attempt, found, sent: () => attempt.mock.calls.at(-1) as unknown as Sent };
}

test("a thing tells how many places and rooms feel it, and asks only when several do", async () => {
  const { found } = await glazing();
  expect(found.reach.value).toBe("2 places, 1 room");
  expect(found.changed.value).toBe(false);
  await brought({ glazing: [{ id: "g", name: "Triple", u_value: 0.7 }] });
  expect(found.changed.value).toBe(true);
  found.keep();
  await nextTick();
  expect(found.changed.value).toBe(false);
  expect(found.others.value.map((row) => row.id)).toEqual(["h"]);
});

test("a change for one place alone: it gets a copy, the thing is brought back", async () => {
  const { found, sent } = await glazing();
  await brought({ glazing: [{ id: "g", name: "Triple", u_value: 0.7 }] });
  const made = await found.onlyFor(found.usages.value[0]!);
  const [label, changes] = sent();
  expect(label).toContain("Triple: a copy for");
  expect(changes.find((change) => change.op === "create")).toMatchObject({ id: made, kind: "glazing", fields: { u_value: 0.7 } });
  expect(changes.find((change) => change.id === "g")!.fields).toMatchObject({ u_value: 0.8 });
  const place = found.usages.value[0]!;
  expect(changes.at(-1)).toEqual({ op: "set", kind: place.kind, id: place.id, fields: { [place.field]: made } });
}); // prettier-ignore

test("what is used is not deleted without a word; another takes its place everywhere", async () => {
  const { found, attempt, sent } = await glazing();
  expect(await found.remove()).toBe(false);
  expect(found.asking.value).toBe(true);
  expect(attempt).not.toHaveBeenCalled();
  await found.replace("h");
  expect(sent()[1]).toEqual([
    { op: "set", kind: "opening", id: "o", fields: { glazing: "h" } },
    { op: "set", kind: "opening", id: "p", fields: { glazing: "h" } },
    { op: "delete", kind: "glazing", id: "g" },
  ]);
});

test("rooms of a file are taken as far as they are chosen; what is missing stays unless it is asked for", async () => {
  await brought({ room: [] });
  const made = within(() => useRoomImport(() => undefined));
  const row = (key: string, state: string) => ({ key, state, number: key, lines: [] });
  made.rows.value = [row("1", "added"), row("2", "changed"), row("3", "missing"), row("4", "same")] as never;
  made.all("added", true);
  made.all("changed", true);
  expect([...made.taken.value]).toEqual(["1", "2"]);
  made.toggle({ key: "2" } as never);
  made.toggle({ key: "3" } as never);
  expect([...made.taken.value]).toEqual(["1", "3"]);
  made.all("missing", false);
  expect([...made.taken.value]).toEqual(["1"]);
  expect(made.unnumbered.value).toBe(false);
  made.rows.value = [{ ...row("", "refused"), number: "" }] as never;
  expect(made.unnumbered.value).toBe(true);
  expect(useDocument().rows("room")).toEqual([]);
});
