<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Change, Level, Project, Use, Zone } from "@/document/types";
import { fieldsOf } from "@/document/fields";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column, Edit } from "@/parts/grid";
import { computed, ref } from "vue";
import { useRoute } from "vue-router";
import { addLevel, addZone } from "./levels";

/** Something that passes values on to rooms. */
type Giver =
  | { id: string; kind: "project"; row: Project }
  | { id: string; kind: "level"; row: Level }
  | { id: string; kind: "zone"; row: Zone }
  | { id: string; kind: "use"; row: Use };

const doc = useDocument();
const route = useRoute();
const BANDS = { project: "Building", level: "Levels", use: "Uses", zone: "Zones" };
const at = computed(() => String(route.query["at"] ?? "").split("/")[1]);

const rows = computed<Giver[]>(() => [
  ...(doc.project ? [{ id: doc.project.id, kind: "project" as const, row: doc.project }] : []),
  ...doc
    .rows("level")
    .sort((a, b) => a.floor_m! - b.floor_m!)
    .map((row) => ({ id: row.id, kind: "level" as const, row })),
  ...doc
    .rows("use")
    .sort((a, b) => a.name.localeCompare(b.name))
    .map((row) => ({ id: row.id, kind: "use" as const, row })),
  ...doc
    .rows("zone")
    .sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }))
    .map((row) => ({ id: row.id, kind: "zone" as const, row })),
]);
const chosen = ref<Giver | null>(null);
/** What is chosen and may go: zones, and levels without rooms. */
const removable = computed(() => {
  const it = chosen.value && rows.value.find((row) => row.id === chosen.value!.id);
  if (it?.kind === "zone") return it;
  return it?.kind === "level" && !counts.value.get(it.id) && doc.rows("level").length > 1 ? it : null;
});
async function remove(giver: Giver): Promise<void> {
  if (giver.kind === "project") return;
  await doc.attempt(`Remove ${giver.row.name}`, [{ op: "delete", kind: giver.kind, id: giver.id }]);
}

const counts = computed(() => {
  const found = new Map<string, number>();
  for (const room of doc.rows("room"))
    for (const id of [room.level, room.zone, room.use]) if (id) found.set(id, (found.get(id) ?? 0) + 1);
  return found;
});

type Key = Exclude<keyof Level & keyof Use & keyof Zone & keyof Project, "id" | "name">;
/** What zones pass on, uses and levels do too. */
const PASSED = fieldsOf("zone").filter(([, it]) => it.sheet).map(([key]) => key as Key); // prettier-ignore

/** A value that a level, a use or a zone may leave to the building; then the building's shows, in italics. */
function passed(key: Key | "height_m"): Column<Giver> {
  const own = (giver: Giver) => (giver.row as Record<string, unknown>)[key] as number | null | undefined;
  const has = (giver: Giver) => key !== "height_m" || giver.kind === "level" || giver.kind === "project";
  const { title, quantity, editor } = column("level", key, 0);
  return {
    key,
    title,
    ...(quantity ? { quantity } : {}),
    width: 78,
    // A zone that says nothing leaves it to each room's use: there is no one value to show.
    value: (giver) =>
      has(giver) ? (own(giver) ?? (giver.kind === "zone" ? null : doc.project?.[key])) : null,
    origin: (giver) => (!has(giver) ? "" : own(giver) == null && giver.kind !== "zone" ? "building" : "own"),
    editable: has,
    ...(editor ? { editor: { ...editor, clearable: true } } : {}),
  };
}

const rooms = computed(() =>
  doc.rows("room").map((room) => ({ value: room.id, label: `${room.number} ${room.name}` })),
);
const columns = computed<Column<Giver>[]>(() => [
  {
    key: "name",
    title: "Given by",
    width: 134,
    value: (giver) => giver.row.name,
    editable: (giver) => giver.kind === "level" || giver.kind === "zone",
    editor: { type: "text" },
  },
  {
    key: "rooms",
    title: "Rooms",
    width: 54,
    quantity: "count",
    value: (giver) =>
      giver.kind === "project" ? doc.rows("room").length : (counts.value.get(giver.id) ?? 0),
  },
  {
    key: "floor_m",
    title: "Floor at",
    width: 66,
    quantity: "length",
    value: (giver) => (giver.kind === "level" ? giver.row.floor_m : null),
    editable: (giver) => giver.kind === "level",
    editor: { type: "number", quantity: "length" },
  },
  passed("height_m"),
  ...PASSED.map((key) => passed(key)),
  {
    key: "sensor_room",
    title: "Sensor in",
    width: 98,
    value: (giver) => (giver.kind === "zone" ? giver.row.sensor_room : null),
    text: (giver) => {
      const room = giver.kind === "zone" ? doc.get("room", giver.row.sensor_room) : undefined;
      return room ? room.number : giver.kind === "zone" ? "each room" : "–";
    },
    editable: (giver) => giver.kind === "zone",
    editor: { type: "choice", clearable: true, empty: "each room", choices: rooms.value },
  },
]);

function save(edits: Edit<Giver>[]): Promise<void> {
  const changes: Change[] = edits.map(({ row, column, value }) => ({
    op: "set",
    kind: row.kind,
    id: row.id,
    fields: { [column.key]: value },
  }));
  const [first] = edits;
  const label =
    edits.length === 1 && first
      ? `${first.row.row.name}: ${first.column.title}`
      : `Shared values: ${edits.length}`;
  return doc.commit(label, changes);
}
</script>

<template>
  <div class="shared">
    <p class="soft bar">
      <span
        >A room takes each value from the nearest that says it: itself, its zone, its use, its level, the
        building. Italics are the building's; type over them, Delete steps back.</span
      >
      <span class="acts">
        <Act v-if="removable" @click="remove(removable)"> Remove {{ removable.row.name }} </Act>
        <Act @click="addZone()">Add zone</Act>
        <Act @click="addLevel()">Add level</Act>
      </span>
    </p>
    <DataGrid
      label="Shared values"
      class="cells"
      :columns="columns"
      :rows="rows"
      :selected="at"
      :save="save"
      :frozen="1"
      ranges
      :band="(giver) => BANDS[giver.kind]"
      @select="(giver) => (chosen = giver)"
    />
  </div>
</template>

<style scoped>
.shared {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.bar {
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
  margin: 0;
  padding: 4px 14px;
  font-family: var(--narrow);
  border-bottom: 1px solid var(--hair);
}
.acts {
  display: flex;
  gap: 6px;
  white-space: nowrap;
}
.cells {
  flex: 1;
  min-height: 0;
}
</style>
