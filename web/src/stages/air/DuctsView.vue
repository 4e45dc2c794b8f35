<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import type { Change, DuctSection } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import RunDrawing from "@/parts/RunDrawing.vue";
import { gridSaver } from "@/parts/saving";
import { sectionColumns } from "@/parts/sectionColumns";
import { inOrder } from "@/parts/sections";
import { useResults } from "@/results/store";
import type { SectionResult } from "@/results/types";
import { computed, ref } from "vue";

const props = defineProps<{ id: string }>();
const doc = useDocument();
const results = useResults();
const chosen = ref("");
const ordered = computed(() =>
  inOrder(doc.rows("duct_section").filter((row) => row.air_system === props.id)),
);
const rows = computed(() => ordered.value.map((item) => item.row));
const depths = computed(() => new Map(ordered.value.map((item) => [item.row.id, item.depth])));
const rooms = computed(() => doc.rows("room").filter((room) => room.air_system === props.id));
const missing = computed(() => rooms.value.filter((room) => !rows.value.some((row) => row.room === room.id)));
const found = computed(
  () =>
    new Map(
      rows.value.flatMap((row): [string, SectionResult][] => {
        const r = results.get("duct_section", row.id);
        return r ? [[row.id, r]] : [];
      }),
    ),
);
const drawing = computed(() =>
  ordered.value.map(({ row, depth }) => ({
    id: row.id,
    name: row.name,
    parent: row.parent,
    depth,
    end: doc.get("room", row.room)?.number ?? "",
  })),
);
const system = computed(() => results.get("air_system", props.id));

const columns = computed(() =>
  sectionColumns<DuctSection>(
    {
      depth: (row) => depths.value.get(row.id) ?? 0,
      result: (row) => results.get("duct_section", row.id),
      prior: (row) => results.prior("duct_section", row.id),
      siblings: () => rows.value,
      quantities: { flow: "airflow", rate: "friction_rate", velocity: "velocity", loss: "pressure" },
      explain: (row) => (results.get("duct_section", row.id) ? { quantity: "duct_section", subject: row.id } : null),
    },
    [
      { key: "room", title: "room", width: 54, value: (row) => row.room, text: (row) => doc.get("room", row.room)?.number ?? "–",
        editor: { type: "choice", clearable: true, choices: rooms.value.map((room) => ({ value: room.id, label: `${room.number} ${room.name}` })) } },
    ],
  ),
); // prettier-ignore
const save = gridSaver<DuctSection>("duct_section", "Duct");

/** A main where there is none yet, and a branch to every room without one. */
async function addBranches(): Promise<void> {
  const changes: Change[] = [];
  let parent = rows.value.find((row) => !row.parent)?.id;
  let position = Math.max(0, ...rows.value.map((row) => row.position)) + 1;
  if (!parent) {
    parent = newId();
    changes.push({
      op: "create",
      kind: "duct_section",
      id: parent,
      fields: { air_system: props.id, name: "Main", position: 0, length_m: 10, loss_coefficient: 0.4 },
    });
  }
  for (const room of missing.value) {
    const fields = {
      air_system: props.id,
      parent,
      position: position++,
      name: `Branch ${room.number}`,
      room: room.id,
      length_m: 5,
      loss_coefficient: 1,
      end_drop_pa: 30,
    };
    changes.push({ op: "create", kind: "duct_section", id: newId(), fields });
  }
  if (changes.length) await doc.attempt("Branches added", changes);
}

async function add(): Promise<void> {
  const id = newId();
  const parent = chosen.value || rows.value.find((row) => !row.parent)?.id || null;
  const position = Math.max(0, ...rows.value.map((row) => row.position)) + 1;
  const fields = {
    air_system: props.id,
    parent,
    position,
    name: `Section ${rows.value.length + 1}`,
    length_m: 5,
    loss_coefficient: 0.3,
  };
  if (await doc.attempt("New duct section", [{ op: "create", kind: "duct_section", id, fields }]))
    chosen.value = id;
}

async function remove(): Promise<void> {
  await doc.attempt("Duct section removed", [{ op: "delete", kind: "duct_section", id: chosen.value }]);
}
</script>

<template>
  <div class="ducts">
    <div class="bar">
      <button class="act" @click="add">Add section after the chosen one</button>
      <button class="act" :disabled="!missing.length" @click="addBranches">
        Add branches for {{ missing.length }} rooms without one
      </button>
      <button class="act" :disabled="!doc.get('duct_section', chosen)" @click="remove">Remove</button>
      <span class="soft">round, EN 1506; the index run is drawn thick</span>
    </div>
    <template v-if="rows.length">
      <div class="drawing">
        <RunDrawing
          :sections="drawing"
          :results="found"
          :index="system?.index_path ?? []"
          :chosen="chosen"
          @choose="chosen = $event"
        />
      </div>
      <div class="grid">
        <DataGrid
          label="Duct sections"
          :columns="columns"
          :rows="rows"
          :selected="chosen"
          :strong="(row) => row.id === system?.index_end"
          :save="save"
          @select="chosen = $event.id"
        />
      </div>
    </template>
    <p v-else class="empty">
      No ducts yet. Add branches draws a main and one branch to each room with stated lengths and coefficients
      that you then change to your own.
    </p>
  </div>
</template>

<style scoped>
.ducts {
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
