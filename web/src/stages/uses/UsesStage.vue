<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import UsePage from "./UsePage.vue";

const doc = useDocument();
const results = useResults();
const route = useRoute();
const id = ref("");
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

async function add(copy: boolean): Promise<void> {
  const made = newId();
  const always = doc.rows("schedule")[0]?.id ?? null;
  const from = use.value;
  const schedules = { people_schedule: always, lights_schedule: always, equipment_schedule: always };
  const fields: Record<string, unknown> =
    copy && from ? { ...from, name: `${from.name}, copy` } : { name: "New use", ...schedules };
  delete fields["id"];
  if (await doc.attempt("New use", [{ op: "create", kind: "use", id: made, fields }])) id.value = made;
}

async function remove(): Promise<void> {
  const row = use.value;
  if (row && (await doc.attempt("Use deleted", [{ op: "delete", kind: "use", id: row.id }]))) id.value = "";
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Uses">
      <button
        v-for="row in uses"
        :key="row.id"
        class="item"
        :class="{ on: row.id === use?.id }"
        @click="id = row.id"
      >
        {{ row.name }}<span class="soft">{{ counted(counts.get(row.id) ?? 0, "room") }}</span>
      </button>
      <p class="add">
        <button class="link" @click="add(false)">+ use</button
        ><button v-if="use" class="link" @click="add(true)">+ copy of this</button>
      </p>
    </nav>
    <UsePage
      v-if="use"
      :key="use.id"
      :use="use"
      :result="results.get('group', use.id)"
      :before="results.prior('group', use.id)"
      @remove="remove"
    />
    <div v-else class="page">
      <div class="head"><h1>Uses</h1></div>
      <p class="empty">
        A use says how a kind of room is used: people, lights, equipment, air, set-points. Rooms take it over
        and may differ. Add the first at the left.
      </p>
    </div>
  </div>
</template>

<style scoped src="../list.css"></style>
