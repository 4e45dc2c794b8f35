<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import { newId, useDocument } from "@/document/store";
import type { Opening, Room, Surface } from "@/document/types";
import ActionMenu from "@/parts/ActionMenu.vue";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column, Edit } from "@/parts/grid";
import { choicesOf, gridSaver } from "@/parts/saving";
import { compass } from "@/units/units";
import { computed, ref, watch } from "vue";
import CompassRose from "./CompassRose.vue";
import { copiedFaces, withoutFaces } from "./faces";

const props = defineProps<{ room: Room }>();
const doc = useDocument();
const chosen = ref("");
const chosenOpening = ref("");
const ROLES = {
  outer_wall: "outer wall",
  roof: "roof",
  ground_floor: "ground floor",
  inner_wall: "inner wall",
  inner_floor: "inner floor, ceiling",
};

const roles = Object.entries(ROLES).map(([value, title]) => ({ value, title }));

const surfaces = computed(() => doc.rows("surface").filter((row) => row.room === props.room.id));
const openings = computed(() => {
  const own = new Set(surfaces.value.map((row) => row.id));
  return doc.rows("opening").filter((row) => own.has(row.surface));
});
const surface = computed(() => surfaces.value.find((row) => row.id === chosen.value));

function openingArea(surfaceId: string): number {
  return openings.value
    .filter((row) => row.surface === surfaceId)
    .reduce((sum, row) => sum + row.count * row.width_m * row.height_m, 0);
}

const surfaceColumns = computed<Column<Surface>[]>(() => [
  column("surface", "name", 118),
  column("surface", "role", 104),
  column("surface", "boundary", 116),
  column("surface", "area_m2", 76),
  { key: "net", title: "net", quantity: "area", width: 70, value: (r) => r.area_m2 - openingArea(r.id) },
  column("surface", "azimuth_deg", 84, { title: "Faces", editable: (r) => r.tilt_deg > 0 && r.tilt_deg < 180,
    text: (r) => (r.tilt_deg === 0 ? "up" : r.tilt_deg === 180 ? "down" : `${compass(r.azimuth_deg)} ${r.azimuth_deg}`) }),
  column("surface", "tilt_deg", 62),
  { key: "assembly", title: "Assembly", width: 150, value: (r) => r.assembly, origin: (r) => (r.assembly ? "own" : "kit"),
    text: (r) => doc.get("assembly", r.assembly)?.name ?? `kit: ${doc.get("assembly", doc.get("kit", doc.project?.kit)?.[r.role])?.name ?? "missing"}`,
    editor: { type: "choice", clearable: true, choices: choicesOf(doc.rows("assembly")) } },
  { key: "neighbour", title: "Room beyond", width: 130, value: (r) => r.neighbour, editable: (r) => r.boundary === "room",
    text: (r) => { const beyond = doc.get("room", r.neighbour); return beyond ? `${beyond.number} ${beyond.name}` : "–"; },
    editor: { type: "choice", clearable: true, choices: others.value.map((row) => ({ value: row.id, label: `${row.number} ${row.name}` })) } },
  column("surface", "cooling_difference_k", 84, { value: (r) => (r.boundary === "difference" ? r.cooling_difference_k : null), editable: (r) => r.boundary === "difference" }),
  column("surface", "heating_difference_k", 84, { value: (r) => (r.boundary === "difference" ? r.heating_difference_k : null), editable: (r) => r.boundary === "difference" }),
  column("surface", "fixed_temperature_c", 84, { title: "fixed at" }),
  column("surface", "temperature_schedule", 120, { title: "by schedule", choices: choicesOf(doc.rows("schedule").filter((s) => s.kind === "temperature")) }),
  column("surface", "exposed_perimeter_m", 92, { title: "outer edge", editable: (r) => r.boundary === "ground" }),
]); // prettier-ignore

const openingColumns = computed<Column<Opening>[]>(() => [
  column("opening", "name", 118),
  { key: "surface", title: "In", width: 130, value: (r) => r.surface, text: (r) => where(r.surface), editor: { type: "choice", choices: surfaces.value.map((s) => ({ value: s.id, label: where(s.id) })) } },
  column("opening", "kind", 72),
  column("opening", "count", 62),
  column("opening", "width_m", 80),
  column("opening", "height_m", 80),
  { key: "area", title: "Area", quantity: "area", width: 74, value: (r) => r.count * r.width_m * r.height_m },
  { key: "share", title: "of wall", quantity: "percent", width: 74, value: (r) => (r.count * r.width_m * r.height_m) / (doc.get("surface", r.surface)?.area_m2 ?? NaN), editor: { type: "number", quantity: "percent" } },
  { key: "glazing", title: "Glazing", width: 150, value: (r) => r.glazing, origin: (r) => (r.glazing ? "own" : "kit"), editable: (r) => r.kind === "window",
    text: (r) => (r.kind === "door" ? "–" : (doc.get("glazing", r.glazing)?.name ?? `kit: ${doc.get("glazing", doc.get("kit", doc.project?.kit)?.window)?.name ?? "missing"}`)),
    editor: { type: "choice", clearable: true, choices: choicesOf(doc.rows("glazing")) } },
  { key: "assembly", title: "Door", width: 130, value: (r) => r.assembly, origin: (r) => (r.assembly ? "own" : "kit"), editable: (r) => r.kind === "door",
    text: (r) => (r.kind === "window" ? "–" : (doc.get("assembly", r.assembly)?.name ?? `kit: ${doc.get("assembly", doc.get("kit", doc.project?.kit)?.door)?.name ?? "missing"}`)),
    editor: { type: "choice", clearable: true, choices: choicesOf(doc.rows("assembly")) } },
  column("opening", "shading", 130, { empty: "none" }),
]); // prettier-ignore

function where(id: string): string {
  const row = doc.get("surface", id);
  if (!row) return "";
  return row.tilt_deg > 0 && row.tilt_deg < 180 ? `${row.name} ${compass(row.azimuth_deg)}` : row.name;
}

async function addSurface(role: keyof typeof ROLES): Promise<void> {
  const id = newId();
  const flat = role === "roof" ? 0 : role === "ground_floor" || role === "inner_floor" ? 180 : 90;
  const boundary = role === "ground_floor" ? "ground" : role.startsWith("inner") ? "adiabatic" : "outdoors";
  const area_m2 = flat === 90 ? 10 : (props.room.floor_area_m2 ?? 10);
  const fields = {
    room: props.room.id,
    name: ROLES[role][0]!.toUpperCase() + ROLES[role].slice(1),
    role,
    boundary,
    area_m2,
    tilt_deg: flat,
    azimuth_deg: flat === 90 ? 180 : 0,
  };
  if (await doc.attempt("New surface", [{ op: "create", kind: "surface", id, fields }])) chosen.value = id;
}

async function addOpening(): Promise<void> {
  const target = surface.value ?? surfaces.value.find((row) => row.boundary === "outdoors");
  if (!target) return;
  const id = newId();
  const fields = { surface: target.id, name: "Window", count: 1, width_m: 1.2, height_m: 1.4 };
  if (await doc.attempt("New opening", [{ op: "create", kind: "opening", id, fields }]))
    chosenOpening.value = id;
}

async function remove(kind: "surface" | "opening", id: string): Promise<void> {
  await doc.attempt(`${kind} removed`, [{ op: "delete", kind, id }]);
}

const saveSurfaces = gridSaver<Surface>("surface", "Surface");
const saveFields = gridSaver<Opening>("opening", "Opening");

/** A share of the wall becomes a width: height and count stay. */
function saveOpenings(edits: Edit<Opening>[]): Promise<void> {
  return saveFields(
    edits.map((edit) => {
      if (edit.column.key !== "share") return edit;
      const { row } = edit;
      const area = (edit.value as number) * (doc.get("surface", row.surface)?.area_m2 ?? 0);
      return { ...edit, column: { ...edit.column, key: "width_m" }, value: area / row.count / row.height_m };
    }),
  );
}

const pattern = ref("");
watch(
  () => props.room.id,
  () => (pattern.value = ""),
);
/** Surfaces and openings as another room has them, in place of what is here. */
async function takeOver(): Promise<void> {
  const from = doc.get("room", pattern.value);
  pattern.value = "";
  if (!from) return;
  await doc.attempt(`Surfaces as in ${from.number}`, [
    ...withoutFaces(props.room.id),
    ...copiedFaces(from.id, props.room.id),
  ]);
}
const others = computed(() =>
  doc
    .rows("room")
    .filter((row) => row.id !== props.room.id)
    .sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true })),
);
</script>

<template>
  <section class="box" :aria-label="`Surfaces and openings of ${room.number} ${room.name}`">
    <div class="bar">
      <h2>{{ room.number }} {{ room.name }}</h2>
      <ActionMenu
        label="Add a surface"
        text="Add surface …"
        :items="roles"
        @choose="addSurface($event as keyof typeof ROLES)"
      />
      <span class="soft">take over from</span>
      <Choice
        v-model="pattern"
        label="Take surfaces over from"
        :disabled="room.plan_area_m2 !== null"
        :title="room.plan_area_m2 !== null ? 'Its surfaces follow the plan' : undefined"
        :choices="others.map((row) => ({ value: row.id, label: `${row.number} ${row.name}` }))"
      />
      <Act v-if="pattern" @click="takeOver">Take over</Act>
      <Act :disabled="!surface" @click="remove('surface', chosen)">Remove surface</Act>
      <Act :disabled="!surfaces.length" @click="addOpening">Add opening</Act>
      <Act
        :disabled="!openings.some((row) => row.id === chosenOpening)"
        @click="remove('opening', chosenOpening)"
      >
        Remove opening
      </Act>
    </div>
    <div class="cols">
      <div class="grids">
        <div class="one">
          <DataGrid
            label="Surfaces"
            :columns="surfaceColumns"
            :rows="surfaces"
            :selected="chosen"
            :save="saveSurfaces"
            ranges
            @select="chosen = $event.id"
          />
        </div>
        <div class="one small">
          <DataGrid
            label="Openings"
            :columns="openingColumns"
            :rows="openings"
            :selected="chosenOpening"
            :save="saveOpenings"
            ranges
            @select="chosenOpening = $event.id"
          />
        </div>
      </div>
      <CompassRose :surfaces="surfaces" :openings="openings" :chosen="chosen" @choose="chosen = $event" />
    </div>
  </section>
</template>

<style scoped>
.box {
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 14px;
  flex-wrap: wrap;
}
.bar h2 {
  margin: 0;
  flex: 1;
}
.cols {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  min-height: 0;
}
.grids {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.one {
  flex: 3;
  min-height: 60px;
  border-top: 1px solid var(--line);
  overflow: hidden;
}
.one.small {
  flex: 2;
}
@media (max-width: 1099px) {
  .cols {
    grid-template-columns: 1fr;
  }
}
</style>
