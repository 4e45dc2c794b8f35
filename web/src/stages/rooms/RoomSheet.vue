<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import TextBox from "@/parts/TextBox.vue";
import { useDocument } from "@/document/store";
import type { AirSystem, Change, Level, Project, Room, Use, Zone } from "@/document/types";
import { fieldsOf } from "@/document/fields";
import DataGrid from "@/parts/DataGrid.vue";
import type { Edit } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { useView } from "@/view/store";
import { computed, onBeforeUnmount, ref } from "vue";
import { roomColumns, type ColumnSet } from "./columns";

const props = defineProps<{ set: ColumnSet }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const filter = ref("");
const band = ref<"" | "level" | "zone" | "use" | "air_system">("");
const BANDS = [
  { value: "", label: "number" },
  { value: "level", label: "level" },
  { value: "zone", label: "zone" },
  { value: "use", label: "use" },
  { value: "air_system", label: "air system" },
] as const;
const grid = ref<{ clear: () => Promise<void>; fillDown: () => Promise<void>; wide: number } | null>(null);
/** Something that passes values on to rooms. */
type Giver =
  | { kind: "zone"; row: Zone }
  | { kind: "use"; row: Use }
  | { kind: "level"; row: Level }
  | { kind: "air_system"; row: AirSystem }
  | { kind: "project"; row: Project };
/** An edit that made a room differ from what gave the value, while the others could have it as well. */
const offer = ref<{
  room: Room;
  column: string;
  field: string;
  value: unknown;
  giver: Giver;
  rooms: number;
} | null>(null);

const columns = computed(() => roomColumns(props.set));
const names = (room: Room) => [
  room.number,
  room.name,
  doc.get("level", room.level)?.name,
  doc.get("zone", room.zone)?.name,
  doc.get("use", room.use)?.name,
  doc.get("air_system", room.air_system)?.name,
];
const bandName = (room: Room): string =>
  (band.value && doc.get(band.value, room[band.value])?.name) || "none";

/** All rooms, by number. */
const rooms = computed(() =>
  doc.rows("room").sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true })),
);
const rows = computed(() => {
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean);
  const found = rooms.value.filter((room) =>
    words.every((word) => names(room).some((name) => name?.toLowerCase().includes(word))),
  );
  if (!band.value) return found;
  return found.sort((a, b) => bandName(a).localeCompare(bandName(b), "en", { numeric: true }));
});

/** The roll, the room's surfaces and the rail follow when the cursor rests: moving on is never held up by them. */
const RESTS_MS = 90;
let resting: ReturnType<typeof setTimeout> | undefined;
function rest(room: Room, atOnce: boolean): void {
  clearTimeout(resting);
  if (atOnce) view.selectRoom(room.id);
  else resting = setTimeout(() => view.selectRoom(room.id), RESTS_MS);
}
onBeforeUnmount(() => clearTimeout(resting));

const saveRooms = gridSaver<Room>("room", "Room");
/** Fields that a zone, a use, a level or a system, and the building have by the same name. */
const SHARED = new Set([...fieldsOf("zone"), ...fieldsOf("air_system")].filter(([key, it]) => it.sheet || key === "sensor_room").map(([key]) => key)); // prettier-ignore

/** The field of what gives a value that stands for a column of the sheet. */
function fieldOf(giver: Giver, key: string): string | null {
  if (SHARED.has(key)) return key;
  if (giver.kind !== "use") return key === "height_m" ? key : null;
  const use = giver.row;
  if (key === "heated" || key === "cooled") return key;
  if (key === "people_per_m2" && use.people_basis === "per_m2") return "people_value";
  if (key === "lights_w_m2" && use.lights_basis === "w_m2") return "lights_value";
  if (key === "equipment_w_m2" && use.equipment_basis === "w_m2") return "equipment_value";
  return null;
}

function giverOf(room: Room, origin: unknown): Giver | null {
  for (const kind of ["zone", "use", "level", "air_system"] as const) {
    const row = origin === kind ? doc.get(kind, room[kind]) : undefined;
    if (row) return { kind, row } as Giver;
  }
  return origin === "project" && doc.project ? { kind: "project", row: doc.project } : null;
}
const named = (giver: Giver) => (giver.kind === "project" ? "the building" : giver.row.name);

async function save(edits: Edit<Room>[]): Promise<void> {
  offer.value = null;
  const [edit] = edits;
  const origin = edit && results.get("effective", edit.row.id)?.[edit.column.key]?.[1];
  await saveRooms(edits);
  const giver = edit && giverOf(edit.row, origin);
  if (!giver || edits.length > 1 || edit.value === null) return;
  const field = fieldOf(giver, edit.column.key);
  const rooms = doc
    .rows("room")
    .filter((room) => giver.kind === "project" || room[giver.kind] === giver.row.id).length;
  if (field && rooms > 1)
    offer.value = { room: edit.row, column: edit.column.key, field, value: edit.value, giver, rooms };
}

/** What was typed into one room becomes that of what gave it, for all that take it from there. */
async function giveAll(): Promise<void> {
  const it = offer.value;
  if (!it) return;
  const changes: Change[] = [
    { op: "set", kind: "room", id: it.room.id, fields: { [it.column]: null } },
    { op: "set", kind: it.giver.kind, id: it.giver.row.id, fields: { [it.field]: it.value } },
  ];
  const label = `${named(it.giver)}: ${title.value}, all ${it.rooms} rooms`;
  if (await doc.attempt(label, changes)) offer.value = null;
}
const title = computed(() => columns.value.find((column) => column.key === offer.value?.column)?.title ?? "");
</script>

<template>
  <div class="sheet">
    <div class="bar">
      <slot />
      <TextBox v-model="filter" type="search" placeholder="filter" label="Filter the sheet" />
      <span class="soft">by</span>
      <Choice v-model="band" label="Rooms in bands" :choices="[...BANDS]" />
      <span class="soft">{{
        rows.length === rooms.length
          ? counted(rooms.length, "room")
          : `${rows.length} of ${counted(rooms.length, "room")}`
      }}</span>
      <template v-if="(grid?.wide ?? 0) > 1">
        <Act title="Ctrl+D" @click="grid?.fillDown()">Fill down</Act>
        <Act title="Delete" @click="grid?.clear()">Inherit again</Act>
        <span class="soft">{{ grid?.wide }} cells may change</span>
      </template>
      <span v-if="offer" class="offer" role="status">
        Only {{ offer.room.number }} has this {{ title.toLowerCase() }} now.
        <TextAct @click="giveAll">
          Give it to all {{ offer.rooms }} rooms of {{ named(offer.giver) }}
        </TextAct>
        <TextAct @click="offer = null">leave it</TextAct>
      </span>
    </div>
    <DataGrid
      ref="grid"
      label="Rooms"
      class="cells"
      :columns="columns"
      :rows="rows"
      :selected="view.selectedRoom"
      :save="save"
      :frozen="2"
      ranges
      :band="band ? bandName : undefined"
      @select="rest"
    />
  </div>
</template>

<style scoped>
.sheet {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  padding: 3px 14px;
  min-height: 30px;
  border-bottom: 1px solid var(--hair);
  font-family: var(--narrow);
}
.bar .act {
  padding: 1px 8px;
}
.offer {
  margin-left: auto;
}
.offer .link {
  margin-left: 6px;
}
.cells {
  flex: 1;
  min-height: 0;
}
</style>
