<script setup lang="ts">
/** What takes electricity and belongs to no room: lifts, outdoor lighting, anything else. */
import { newId, useDocument } from "@/document/store";
import type { ConnectedLoad } from "@/document/types";
import { useYear } from "@/document/year";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { choicesOf, gridSaver } from "@/parts/saving";
import { computed, ref } from "vue";

const emit = defineEmits<{ show: [course: string] }>();
const doc = useDocument();
const year = useYear();
const chosen = ref("");
const rows = computed(() => doc.rows("connected_load").sort((a, b) => a.name.localeCompare(b.name)));
const selected = computed(() => rows.value.find((row) => row.id === chosen.value) ?? rows.value[0]);
const hours = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind !== "temperature")));
const columns = computed<Column<ConnectedLoad>[]>(() => [
  column("connected_load", "name", 240),
  column("connected_load", "use", 150),
  column("connected_load", "power_w", 190),
  column("connected_load", "schedule", 220, {
    text: (row) => doc.get("schedule", row.schedule)?.name ?? "always",
    editor: { type: "choice", clearable: true, choices: hours.value },
  }),
]);
const save = gridSaver<ConnectedLoad>("connected_load", "Load outside the rooms");
const taken = computed(() => [
  ...new Set(
    rows.value.map((row) => row.use).filter((use) => year.summary?.energy.some((row) => row.use === use)),
  ),
]);

async function add(): Promise<void> {
  const id = newId();
  const fields = { name: "Lift", use: "lifts", power_w: 4000 };
  if (await doc.attempt("New load outside the rooms", [{ op: "create", kind: "connected_load", id, fields }]))
    chosen.value = id;
}
async function remove(): Promise<void> {
  if (selected.value)
    await doc.attempt("Load outside the rooms removed", [
      { op: "delete", kind: "connected_load", id: selected.value.id },
    ]);
}
</script>

<template>
  <div class="loads">
    <div class="tools">
      <b>Loads outside the rooms</b>
      <Act @click="add">Add</Act>
      <Act :disabled="!selected" @click="remove">Remove</Act>
      <TextAct v-for="use in taken" :key="use" @click="emit('show', `energy/${use}/electricity`)"
        >hours of {{ use }}</TextAct
      >
      <span class="soft">electricity that counts in the year and heats no room</span>
    </div>
    <div class="grid">
      <DataGrid
        v-if="rows.length"
        label="Loads outside the rooms"
        :columns="columns"
        :rows="rows"
        :selected="selected?.id"
        :save="save"
        @select="chosen = $event.id"
      />
      <p v-else class="empty">
        None yet: add a lift, outdoor lighting, or whatever else the meter sees and no room feels.
      </p>
    </div>
  </div>
</template>

<style scoped>
.loads {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  padding: 6px 12px;
  border-bottom: 1px solid var(--line);
}
.grid {
  flex: 1;
  min-height: 0;
}
</style>
