<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import { newId, useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import ActionMenu from "@/parts/ActionMenu.vue";
import DetailsButton from "@/parts/DetailsButton.vue";
import { saveFile } from "@/parts/saveFile";
import { useView } from "@/view/store";
import { addressed } from "@/view/address";
import { computed, ref, watch, type Ref } from "vue";
import { useRoute } from "vue-router";
import { roomColumns, SETS, type ColumnSet } from "./columns";
import { copiedFaces } from "./faces";
import ImportPanel from "./ImportPanel.vue";
import { usualUse } from "./levels";
import RoomFaces from "./RoomFaces.vue";
import PlanView from "./plan/PlanView.vue";
import RoomSheet from "./RoomSheet.vue";
import SharedValues from "./SharedValues.vue";

const doc = useDocument();
const view = useView();
const set = ref<ColumnSet>("geometry");
const importing = ref(false);
type View = "sheet" | "plan" | "shared";
/** What gives a shared value is shown where it is asked for by its address. */
const route = useRoute();
const asked = () => /^(level|project)\//.test(String(route.query["at"] ?? ""));
const onPlan = () => String(route.query["at"] ?? "").startsWith("plan/");
const SHOWN = { sheet: "Sheet", plan: "Plan", shared: "Shared values" };
const shows = ref<View>(asked() ? "shared" : onPlan() ? "plan" : "sheet");
watch(
  () => route.query["at"],
  () => {
    if (asked()) shows.value = "shared";
  },
);
addressed("page", shows as Ref<string>, true, (text) => ["sheet", "plan", "shared"].includes(text));
/** The columns that hold a field of a room that is wanted. */
watch(
  () => view.wanted,
  (wanted) => {
    if (wanted?.kind !== "room") return;
    const has = (key: ColumnSet) => roomColumns(key).some((column) => column.key === wanted.field);
    const holds = (Object.keys(SETS) as ColumnSet[]).find(has);
    if (!holds) return;
    shows.value = "sheet";
    if (!has(set.value)) set.value = holds;
  },
  { immediate: true },
);
const rows = computed(() =>
  doc.rows("room").sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true })),
);
const room = computed(() => doc.get("room", view.selectedRoom));
// Whoever opens the sheet with no room in mind sees the first; on the plan that would be in the way of drawing new ones.
const first = shows.value === "sheet" && !room.value ? rows.value[0]?.id : undefined;
if (first) view.selectRoom(first);
watch(shows, (now) => {
  if (now === "plan" && view.selectedRoom === first) view.subject = { kind: "group", id: "building" };
});

/** All rooms as a file, in the units shown. */
const FORMS = { xlsx: "XLSX", csv: "CSV", gbxml: "gbXML", ifc: "IFC" };
const forms = Object.entries(FORMS).map(([value, title]) => ({ value, title }));
const save = (form: string) => saveFile(`/api/projects/${doc.projectId}/rooms.${form}?units=${view.system}`);

function nextNumber(): string {
  const last = rows.value.at(-1)?.number ?? "0.00";
  const match = last.match(/^(.*?)(\d+)$/);
  return match ? `${match[1]}${String(Number(match[2]) + 1).padStart(match[2]!.length, "0")}` : `${last}1`;
}

const usual = computed(() => usualUse(room.value));
const uses = computed(() =>
  doc
    .rows("use")
    .map((row) => ({ value: row.id, title: row.name }))
    .sort((a, b) => a.title.localeCompare(b.title)),
);

async function add(copy: boolean, use: string | null = usual.value): Promise<void> {
  const id = newId();
  const from = room.value;
  const level = from?.level ?? doc.rows("level")[0]?.id ?? null;
  const plain: Record<string, unknown> = { level, use, name: "New room" };
  const fields: Record<string, unknown> =
    copy && from ? { ...from, name: `${from.name}, copy`, outline_m: null, plan_area_m2: null } : plain;
  delete fields["id"];
  const changes: Change[] = [{ op: "create", kind: "room", id, fields: { ...fields, number: nextNumber() } }];
  if (copy && from) changes.push(...copiedFaces(from.id, id));
  const named = [doc.get("level", level ?? "")?.name, doc.get("use", use ?? "")?.name]
    .filter(Boolean)
    .join(", ");
  const label = copy ? "Room copied" : `New room: ${named}`;
  if (await doc.attempt(label, changes)) view.selectRoom(id);
}

/** What was told from elsewhere is done once. */
watch(
  () => view.ordered,
  (what) => {
    view.ordered = "";
    if (what === "add room") void add(false);
    else if (what === "import rooms") importing.value = true;
  },
  { immediate: true },
);

async function remove(): Promise<void> {
  const gone = room.value;
  if (!gone) return;
  const at = rows.value.findIndex((row) => row.id === gone.id);
  const next = rows.value[at + 1] ?? rows.value[at - 1];
  if (
    !(await doc.attempt(`Deleted ${gone.number} ${gone.name}`, [{ op: "delete", kind: "room", id: gone.id }]))
  )
    return;
  if (next) view.selectRoom(next.id);
  else view.subject = { kind: "group", id: "building" };
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Rooms</h1>
      <Segments v-model="shows" label="View" :choices="SHOWN" />
      <span class="grow" />
      <DetailsButton v-if="shows !== 'shared'" />
      <Act @click="importing = true">Import …</Act>
      <ActionMenu label="Export rooms" text="Export …" :items="forms" @choose="save" />
      <ActionMenu
        v-if="!usual && uses.length"
        label="Add room"
        text="Add room …"
        :items="uses"
        @choose="add(false, $event)"
      />
      <Act v-else @click="add(false)">Add room</Act>
      <Act :disabled="!room" @click="add(true)">Copy room</Act>
      <Act :disabled="!room" @click="remove">Delete</Act>
    </div>
    <div v-if="shows === 'plan'" class="plan"><PlanView :next-number="nextNumber()" /></div>
    <div v-else-if="shows === 'shared'" class="sheet"><SharedValues /></div>
    <div v-else class="sheet">
      <RoomSheet v-if="rows.length" :set="set">
        <Segments v-model="set" label="Columns" :choices="SETS" />
      </RoomSheet>
      <p v-else class="empty">
        No rooms yet. Add room makes the first; type its area, height and use in the sheet, then its walls and
        windows below.
      </p>
    </div>
    <ImportPanel v-if="importing" @close="importing = false" />
    <template v-if="shows === 'shared' || !view.detailsOpen" />
    <RoomFaces v-else-if="room" :key="room.id" :room="room" class="faces" />
    <p v-else class="empty faces">
      Choose a room to see its surfaces and openings. Values in italics are inherited from its use, its level
      or the building; type over them to give the room its own, Delete steps back.
    </p>
  </div>
</template>

<style scoped>
.head {
  gap: 8px;
}
.head .act {
  padding: 3px 6px;
}
.plan {
  flex: 1 1 70%;
  min-height: 240px;
  border-bottom: 2px solid var(--ink);
  overflow: hidden;
}
.plan + .faces {
  flex: 1 1 32%;
}
.plan + .empty {
  flex: 0 0 auto;
}
.sheet {
  flex: 1 1 46%;
  min-height: 150px;
  border-bottom: 2px solid var(--ink);
  overflow: hidden;
}
.faces {
  flex: 1 1 54%;
  min-height: 0;
}
</style>
