<script setup lang="ts" generic="T extends DuctSection | PipeSection">
import { newId, useDocument } from "@/document/store";
import type { Change, DuctSection, PipeSection } from "@/document/types";
import { useResults } from "@/results/store";
import type { SectionResult } from "@/results/types";
import { counted } from "@/units/units";
import { computed, ref } from "vue";
import DataGrid from "./DataGrid.vue";
import FittingsDialog from "./FittingsDialog.vue";
import type { Column } from "./grid";
import RouteDialog from "./RouteDialog.vue";
import RunDrawing from "./RunDrawing.vue";
import { gridSaver } from "./saving";
import { sectionColumns } from "./sectionColumns";
import { inOrder } from "./sections";

const props = defineProps<{
  kind: "duct_section" | "pipe_section";
  /** Sections of one system or circuit. */
  rows: T[];
  /** Field and id of what the sections belong to. */
  owner: Record<string, string>;
  /** Columns of what a section ends at. */
  ends: Column<T>[];
  endName: (row: T) => string;
  /** Ends that no section reaches yet, with the fields of a first section to each. */
  missing: { name: string; fields: Record<string, unknown> }[];
  /** What a first main is like. */
  main: { length_m: number; loss_coefficient: number };
  index: { path: string[]; end: string | null };
  quantities: { flow: string; rate: string; velocity: string; loss: string };
  explain?: (row: T) => { quantity: string; subject: string } | null;
  /** Whether a route can be proposed from the plan; of ducts for which network. */
  routed: boolean;
  network?: "supply" | "return";
  /** Noun of the buttons: "branch" or "pipe". */
  noun: string;
}>();
const doc = useDocument();
const results = useResults();
const chosen = ref("");
const chosenRow = computed(() => props.rows.find((row) => row.id === chosen.value));
/** Rooms and coils that are reached, or that no section reaches yet. */
const reached = computed(() => {
  const rooms = new Set<string>();
  const coils = new Set<string>();
  for (const end of [...props.rows, ...props.missing.map((one) => one.fields)]) {
    const { room, air_system: coil } = end as { room?: string | null; air_system?: string | null };
    if (room) rooms.add(room);
    else if (coil && props.kind === "pipe_section") coils.add(coil);
  }
  return { rooms: [...rooms], coils: [...coils] };
});
const routing = ref(false);
/** Whether the chosen section's fittings are open. */
const fitting = ref(false);
const ordered = computed(() => inOrder(props.rows));
const sorted = computed(() => ordered.value.map((item) => item.row));
const depths = computed(() => new Map(ordered.value.map((item) => [item.row.id, item.depth])));
const found = computed(
  () =>
    new Map(
      sorted.value.flatMap((row): [string, SectionResult][] => {
        const result = results.get(props.kind, row.id);
        return result ? [[row.id, result]] : [];
      }),
    ),
);
const drawing = computed(() =>
  ordered.value.map(({ row, depth }) => ({
    id: row.id,
    name: row.name,
    parent: row.parent,
    depth,
    end: props.endName(row),
  })),
);
const columns = computed(() =>
  sectionColumns<T>(
    {
      depth: (row) => depths.value.get(row.id) ?? 0,
      result: (row) => results.get(props.kind, row.id),
      prior: (row) => results.prior(props.kind, row.id),
      siblings: () => sorted.value,
      quantities: props.quantities,
      explain: props.explain,
    },
    props.ends,
  ),
);
const save = gridSaver<T>(props.kind, props.kind === "duct_section" ? "Duct" : "Pipe");
const nextPosition = () => Math.max(0, ...props.rows.map((row) => row.position)) + 1;

/** A main where there is none yet, and a section to every end without one. */
async function addMissing(): Promise<void> {
  const changes: Change[] = [];
  let parent = sorted.value.find((row) => !row.parent)?.id;
  let position = nextPosition();
  const create = (id: string, fields: Record<string, unknown>) =>
    changes.push({ op: "create", kind: props.kind, id, fields: { ...props.owner, ...fields } });
  if (!parent) {
    parent = newId();
    create(parent, { name: "Main", position: 0, ...props.main });
  }
  for (const end of props.missing) create(newId(), { parent, position: position++, ...end.fields });
  await doc.attempt("Sections added", changes);
}

async function add(): Promise<void> {
  const id = newId();
  const parent = chosen.value || sorted.value.find((row) => !row.parent)?.id || null;
  const name = `Section ${props.rows.length + 1}`;
  const fields = {
    ...props.owner,
    parent,
    position: nextPosition(),
    name,
    length_m: 5,
    loss_coefficient: 0.5,
  };
  if (await doc.attempt("New section", [{ op: "create", kind: props.kind, id, fields }])) chosen.value = id;
}

async function remove(): Promise<void> {
  await doc.attempt("Section removed", [{ op: "delete", kind: props.kind, id: chosen.value }]);
}
</script>

<template>
  <div class="sections">
    <div class="bar">
      <slot name="lead" />
      <Act @click="add">Add section after the chosen one</Act>
      <Act :disabled="!missing.length" @click="addMissing">
        Add a {{ noun }} for {{ counted(missing.length, "end") }} without one
      </Act>
      <Act v-if="routed" :disabled="!reached.rooms.length && !reached.coils.length" @click="routing = true"
        >From the plan …</Act
      >
      <Act :disabled="!chosenRow" @click="remove">Remove</Act>
      <Act :disabled="!chosenRow" @click="fitting = true">Fittings …</Act>
      <span class="soft"><slot name="told" /></span>
    </div>
    <template v-if="rows.length">
      <div class="drawing">
        <RunDrawing
          :sections="drawing"
          :results="found"
          :index="index.path"
          :chosen="chosen"
          @choose="chosen = $event"
        />
      </div>
      <div class="grid">
        <DataGrid
          ordered
          label="Sections"
          :columns="columns"
          :rows="sorted"
          :selected="chosen"
          :strong="(row) => row.id === index.end"
          :save="save"
          @select="chosen = $event.id"
        />
      </div>
    </template>
    <FittingsDialog v-if="fitting && chosenRow" :kind="kind" :section="chosenRow" @close="fitting = false" />
    <RouteDialog
      v-if="routing"
      :kind="kind"
      :owner="Object.values(owner)[0] ?? ''"
      :rooms="reached.rooms"
      :coils="reached.coils"
      :network="network"
      :drawn="rows.length"
      @close="routing = false"
    />
    <p v-if="!rows.length" class="empty">
      Nothing drawn yet.
      <template v-if="routed">“From the plan …” lays a route along the plan; </template>“Add a {{ noun }} …”
      draws a main and one section to each end, with stated lengths and coefficients that you then change to
      your own.
    </p>
  </div>
</template>

<style scoped>
.sections {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.bar {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 6px 12px;
  flex-wrap: wrap;
}
.drawing {
  flex: 2;
  min-height: 90px;
  border-top: 1px solid var(--line);
  overflow: hidden;
}
.grid {
  flex: 3;
  min-height: 100px;
  border-top: 1px solid var(--ink);
  overflow: hidden;
}
</style>
