<script setup lang="ts">
import { counted, format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { useRoomImport, type Line, type Row } from "./importing";

const emit = defineEmits<{ close: [] }>();
const view = useView();
const {
  file, rows, taken, fault, busy, progress, notes, numbered, unnumbered, separator, decimal,
  choose, read, stop, take, toggle, all,
} = useRoomImport(() => emit("close")); // prettier-ignore
const shows = ref<string | null>(null);
const STATES = {
  added: "added",
  changed: "changed",
  unchanged: "unchanged",
  missing: "not in the file",
  refused: "refused",
};

const counts = computed(() => {
  const found: Record<string, number> = {};
  for (const row of rows.value) found[row.state] = (found[row.state] ?? 0) + 1;
  return found;
});
const listed = computed(() =>
  rows.value.filter((row) => (shows.value ? row.state === shows.value : row.state !== "unchanged")),
);
const free = (row: Row) => row.state === "added" || row.state === "changed" || row.state === "missing";

const isText = computed(() => /\.(csv|txt)$/i.test(file.value?.name ?? ""));
const SEPARATORS = [
  { value: "", title: "as it seems" },
  { value: "comma", title: "comma" },
  { value: "semicolon", title: "semicolon" },
  { value: "tab", title: "tab" },
];
const DECIMALS = [
  { value: "", title: "as it seems" },
  { value: "point", title: "point: 1.5" },
  { value: "comma", title: "comma: 1,5" },
];
const HEADS = [
  { key: "take", title: "Take", width: 64, sortable: false },
  { key: "number", title: "No.", width: 90 },
  { key: "name", title: "Room", width: 220 },
  { key: "state", title: "State", width: 130 },
  { key: "changes", title: "What changes", sortable: false },
];

function shown(line: Line, value: unknown): string {
  if (value === null || value === undefined) return "none of its own";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number" && line.quantity)
    return `${format(value, line.quantity, view.system)} ${unitOf(line.quantity, view.system)}`;
  return String(value);
}
</script>

<template>
  <v-dialog
    :model-value="true"
    max-width="980"
    scrollable
    aria-label="Rooms from a file"
    @update:model-value="emit('close')"
  >
    <v-card title="Rooms from a file">
      <v-card-text>
        <p class="soft">
          XLSX or CSV tables, gbXML and IFC models. Rooms are known by their number; nothing changes before
          you take it.
        </p>
        <div class="how">
          <v-file-input
            label="File with rooms"
            accept=".xlsx,.csv,.txt,.xml,.gbxml,.ifc"
            class="file-choice"
            :model-value="file ?? undefined"
            @update:model-value="choose"
          />
          <template v-if="isText">
            <v-select
              v-model="separator"
              label="Columns separated by"
              :items="SEPARATORS"
              @update:model-value="read"
            />
            <v-select
              v-model="decimal"
              label="Decimals marked by"
              :items="DECIMALS"
              @update:model-value="read"
            />
          </template>
        </div>
        <div v-if="busy" class="soft busy" role="status">
          {{ busy }}
          <v-progress-linear :model-value="progress" color="primary" aria-label="Reading" />
          <Act @click="stop">Stop</Act>
        </div>
        <p v-for="note in notes" :key="note" class="soft">{{ note }}</p>
        <v-alert v-if="fault" type="error" :text="fault" />
        <v-checkbox
          v-if="unnumbered || numbered"
          v-model="numbered"
          label="Give the next free numbers to rooms without one"
          @update:model-value="read"
        />
        <template v-if="rows.length">
          <div class="tabs">
            <v-btn-toggle v-model="shows" aria-label="Rows shown">
              <template v-for="(label, state) in STATES" :key="state">
                <v-btn v-if="counts[state]" :value="state">{{ counts[state] }} {{ label }}</v-btn>
              </template>
            </v-btn-toggle>
            <v-spacer />
            <template v-if="shows && shows !== 'refused' && shows !== 'unchanged'">
              <v-btn variant="text" @click="all(shows, true)">choose all</v-btn>
              <v-btn variant="text" @click="all(shows, false)">choose none</v-btn>
            </template>
          </div>
          <v-data-table-virtual
            :headers="HEADS"
            :items="listed"
            item-value="key"
            height="min(420px, 44vh)"
            fixed-header
            density="compact"
            no-data-text="Every room of the file is as it is here."
            :row-props="({ item }) => ({ class: item.state })"
          >
            <template #[`item.take`]="{ item }">
              <v-checkbox-btn
                v-if="free(item)"
                :model-value="taken.has(item.key)"
                :aria-label="`Take ${item.number} ${item.name}`"
                @update:model-value="toggle(item)"
              />
            </template>
            <template #[`item.state`]="{ item }">
              {{ item.state === "missing" ? "not in the file: delete" : item.state }}
            </template>
            <template #[`item.changes`]="{ item }">
              <span v-if="item.state === 'refused'">{{ item.reason }}</span>
              <span v-for="line in item.changes" v-else :key="line.title" class="line"
                >{{ line.title }}
                <template v-if="item.state === 'changed' && line.title !== 'Surfaces'"
                  ><s>{{ shown(line, line.old) }}</s> →
                </template>
                <b>{{ shown(line, line.new) }}</b></span
              >
            </template>
          </v-data-table-virtual>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="emit('close')">Close</v-btn>
        <v-btn
          v-if="rows.length"
          variant="flat"
          color="primary"
          :disabled="!taken.size || !!busy"
          @click="take"
        >
          Take {{ counted(taken.size, "room") }}
        </v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.how {
  display: flex;
  gap: 10px;
  margin: 8px 0;
}
.file-choice {
  flex: 2;
}
.busy {
  display: flex;
  align-items: center;
  gap: 10px;
}
.tabs {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 8px 0;
}
.line {
  margin-right: 14px;
  white-space: nowrap;
}
:deep(.refused) td {
  color: var(--ember);
}
</style>
