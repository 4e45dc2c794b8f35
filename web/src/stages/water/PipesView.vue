<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import type { Change, Circuit, PipeSection } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import RunDrawing from "@/parts/RunDrawing.vue";
import { gridSaver } from "@/parts/saving";
import { sectionColumns } from "@/parts/sectionColumns";
import { inOrder } from "@/parts/sections";
import { useResults } from "@/results/store";
import type { SectionResult } from "@/results/types";
import { computed, ref } from "vue";

const props = defineProps<{ circuit: Circuit }>();
const doc = useDocument();
const results = useResults();
const chosen = ref("");
const ordered = computed(() =>
  inOrder(doc.rows("pipe_section").filter((row) => row.circuit === props.circuit.id)),
);
const rows = computed(() => ordered.value.map((item) => item.row));
const depths = computed(() => new Map(ordered.value.map((item) => [item.row.id, item.depth])));
const found = computed(
  () =>
    new Map(
      rows.value.flatMap((row): [string, SectionResult][] => {
        const r = results.get("pipe_section", row.id);
        return r ? [[row.id, r]] : [];
      }),
    ),
);
const endName = (row: PipeSection) =>
  doc.get("room", row.room)?.number ?? doc.get("air_system", row.air_system)?.name ?? "";
const drawing = computed(() =>
  ordered.value.map(({ row, depth }) => ({
    id: row.id,
    name: row.name,
    parent: row.parent,
    depth,
    end: endName(row),
  })),
);
const result = computed(() => results.get("circuit", props.circuit.id));

/** Rooms that need heat and coils, that no pipe reaches yet. */
const missing = computed(() => {
  const reached = new Set(rows.value.flatMap((row) => [row.room, row.air_system]));
  const coils = doc
    .rows("air_system")
    .filter((row) => !reached.has(row.id))
    .map((row) => ({ id: row.id, name: row.name, column: "air_system" }));
  if (props.circuit.kind === "chilled") return coils;
  const rooms = doc
    .rows("room")
    .filter((room) => !reached.has(room.id) && (results.get("room", room.id)?.heating_duty_w ?? 0) > 0);
  return [...coils, ...rooms.map((room) => ({ id: room.id, name: room.number, column: "room" }))];
});

const columns = computed(() =>
  sectionColumns<PipeSection>(
    {
      depth: (row) => depths.value.get(row.id) ?? 0,
      result: (row) => results.get("pipe_section", row.id),
      prior: (row) => results.prior("pipe_section", row.id),
      siblings: () => rows.value,
      quantities: { flow: "water_flow", rate: "pipe_friction_rate", velocity: "water_velocity", loss: "head" },
    },
    [
      { key: "room", title: "room", width: 48, value: (row) => row.room, text: (row) => doc.get("room", row.room)?.number ?? "–",
        editor: { type: "choice", clearable: true, choices: doc.rows("room").map((room) => ({ value: room.id, label: `${room.number} ${room.name}` })) } },
      { key: "air_system", title: "coil of", width: 62, value: (row) => row.air_system, text: (row) => doc.get("air_system", row.air_system)?.name ?? "–",
        editor: { type: "choice", clearable: true, choices: doc.rows("air_system").map((row) => ({ value: row.id, label: row.name })) } },
    ],
  ),
); // prettier-ignore
const save = gridSaver<PipeSection>("pipe_section", "Pipe");

async function addBranches(): Promise<void> {
  const changes: Change[] = [];
  let parent = rows.value.find((row) => !row.parent)?.id;
  let position = Math.max(0, ...rows.value.map((row) => row.position)) + 1;
  if (!parent) {
    parent = newId();
    changes.push({
      op: "create",
      kind: "pipe_section",
      id: parent,
      fields: { circuit: props.circuit.id, name: "Main", position: 0, length_m: 10, loss_coefficient: 4 },
    });
  }
  for (const end of missing.value) {
    const end_drop_pa = end.column === "room" ? 3000 : 12000;
    const fields = {
      circuit: props.circuit.id,
      parent,
      position: position++,
      name: `To ${end.name}`,
      [end.column]: end.id,
      length_m: 10,
      loss_coefficient: 4,
      end_drop_pa,
    };
    changes.push({ op: "create", kind: "pipe_section", id: newId(), fields });
  }
  if (changes.length) await doc.attempt("Pipes added", changes);
}

async function add(): Promise<void> {
  const id = newId();
  const parent = chosen.value || rows.value.find((row) => !row.parent)?.id || null;
  const position = Math.max(0, ...rows.value.map((row) => row.position)) + 1;
  const fields = {
    circuit: props.circuit.id,
    parent,
    position,
    name: `Section ${rows.value.length + 1}`,
    length_m: 5,
    loss_coefficient: 1,
  };
  if (await doc.attempt("New pipe section", [{ op: "create", kind: "pipe_section", id, fields }]))
    chosen.value = id;
}

async function remove(): Promise<void> {
  await doc.attempt("Pipe section removed", [{ op: "delete", kind: "pipe_section", id: chosen.value }]);
}
</script>

<template>
  <div class="pipes">
    <div class="bar">
      <button class="act" @click="add">Add section after the chosen one</button>
      <button class="act" :disabled="!missing.length" @click="addBranches">
        Add pipes for {{ missing.length }} ends without one
      </button>
      <button class="act" :disabled="!doc.get('pipe_section', chosen)" @click="remove">Remove</button>
    </div>
    <template v-if="rows.length">
      <div class="drawing">
        <RunDrawing
          :sections="drawing"
          :results="found"
          :index="result?.index_path ?? []"
          :chosen="chosen"
          @choose="chosen = $event"
        />
      </div>
      <div class="grid">
        <DataGrid
          label="Pipe sections"
          :columns="columns"
          :rows="rows"
          :selected="chosen"
          :strong="(row) => row.id === result?.index_end"
          :save="save"
          @select="chosen = $event.id"
        />
      </div>
    </template>
    <p v-else class="empty">
      No pipes yet. Add pipes draws a main and one pair of pipes to each end with stated lengths and
      coefficients that you then change to your own.
    </p>
  </div>
</template>

<style scoped>
.pipes {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.bar {
  display: flex;
  gap: 8px;
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
