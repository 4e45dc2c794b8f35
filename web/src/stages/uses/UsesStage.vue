<script setup lang="ts">
import { freeName } from "@/document/copies";
import { newId, useDocument } from "@/document/store";
import ShelfPanel from "@/parts/ShelfPanel.vue";
import { loadShelf, type ShelfItem } from "@/parts/shelf";
import type { Change } from "@/document/types";
import { counted } from "@/units/units";
import { onListKey } from "@/parts/listKeys";
import { addressed } from "@/view/address";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import BulkPanel from "./BulkPanel.vue";
import UsePage from "./UsePage.vue";

const doc = useDocument();
const route = useRoute();
const id = ref("");
const panel = ref<"" | "shelf" | "bulk">("");
const uses = computed(() => doc.rows("use").sort((a, b) => a.name.localeCompare(b.name)));
const use = computed(() => doc.get("use", id.value) ?? uses.value[0]);
const counts = computed(() => {
  const map = new Map<string, number>();
  for (const room of doc.rows("room")) if (room.use) map.set(room.use, (map.get(room.use) ?? 0) + 1);
  return map;
});

watch(
  () => route.query["at"],
  (place) => {
    const [kind, wanted] = String(place ?? "").split("/");
    if (kind === "use" && wanted) id.value = wanted;
  },
  { immediate: true },
);

addressed("use", id, true, (text) => doc.get("use", text) !== undefined);

async function create(fields: Record<string, unknown>): Promise<void> {
  const made = newId();
  const name = freeName(String(fields["name"]), uses.value);
  if (
    await doc.attempt(`New use: ${name}`, [
      { op: "create", kind: "use", id: made, fields: { ...fields, name } },
    ])
  )
    id.value = made;
}
function add(): void {
  const always = doc.rows("schedule")[0]?.id ?? null;
  void create({
    name: "New use",
    people_schedule: always,
    lights_schedule: always,
    equipment_schedule: always,
  });
}
/** A use from the shelf, with the schedules it refers to where the project has none of that name. */
async function take(item: ShelfItem): Promise<void> {
  const shelf = await loadShelf();
  const changes: Change[] = [];
  const found = new Map(doc.rows("schedule").map((row) => [row.name, row.id]));
  const fields: Record<string, unknown> = { ...item.fields };
  for (const [field, name] of Object.entries(item.schedules ?? {})) {
    if (!found.has(name)) {
      const made = newId();
      const pattern = shelf.schedules.find((row) => row.fields["name"] === name);
      if (!pattern) continue;
      changes.push({ op: "create", kind: "schedule", id: made, fields: pattern.fields });
      found.set(name, made);
    }
    fields[field] = found.get(name);
  }
  const made = newId();
  fields["name"] = freeName(String(fields["name"]), uses.value);
  changes.push({ op: "create", kind: "use", id: made, fields });
  if (await doc.attempt(`Use from the shelf: ${String(fields["name"])}`, changes)) id.value = made;
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Uses" @keydown="onListKey">
      <v-list-item
        tag="button"
        v-for="row in uses"
        :key="row.id"
        class="item"
        :class="{ on: row.id === use?.id }"
        @click="id = row.id"
      >
        {{ row.name }}<span class="soft">{{ counted(counts.get(row.id) ?? 0, "room") }}</span>
      </v-list-item>
      <p class="add">
        <TextAct @click="add">+ use</TextAct>
        <TextAct @click="panel = 'shelf'">from the shelf …</TextAct>
      </p>
      <p class="add">
        <TextAct v-if="uses.length" @click="panel = 'bulk'">change several …</TextAct>
      </p>
    </nav>
    <UsePage v-if="use" :key="use.id" :use="use" @open="id = $event" />
    <div v-else class="page">
      <div class="head"><h1>Uses</h1></div>
      <p class="empty">
        A use says how a kind of room is used: people, lights, equipment, air, set-points. Rooms take it over
        and may differ. Add the first at the left.
      </p>
    </div>
    <ShelfPanel
      v-if="panel === 'shelf'"
      what="uses"
      title="Ordinary uses"
      note="Ventilation and people by ANSI/ASHRAE 62.1-2019; schedules come along where they are not there yet."
      @take="take"
      @close="panel = ''"
    />
    <BulkPanel v-if="panel === 'bulk'" @close="panel = ''" />
  </div>
</template>

<style scoped src="../list.css"></style>
