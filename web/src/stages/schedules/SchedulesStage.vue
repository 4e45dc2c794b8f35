<script setup lang="ts">
import { freeName } from "@/document/copies";
import { newId, useDocument } from "@/document/store";
import type { Schedule } from "@/document/types";
import { countUsages } from "@/document/usage";
import type { ShelfItem } from "@/parts/shelf";
import ShelfPanel from "@/parts/ShelfPanel.vue";
import { onListKey } from "@/parts/listKeys";
import { addressed } from "@/view/address";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import { KINDS } from "./kinds";
import SchedulePage from "./SchedulePage.vue";

const doc = useDocument();
const route = useRoute();
const id = ref("");
const shelf = ref(false);
const schedules = computed(() => doc.rows("schedule").sort((a, b) => a.name.localeCompare(b.name)));
const counts = computed(() => countUsages("schedule"));
const groups = computed(() =>
  (Object.keys(KINDS) as Schedule["kind"][]).map((key) => ({
    title: KINDS[key].title,
    rows: schedules.value.filter((row) => row.kind === key),
  })),
);
const schedule = computed(() => {
  const first = groups.value.flatMap((group) => group.rows)[0];
  return doc.get("schedule", id.value) ?? first;
});

watch(
  () => route.query["at"],
  (place) => {
    const [what, wanted] = String(place ?? "").split("/");
    if (what === "schedule" && wanted) id.value = wanted;
  },
  { immediate: true },
);

addressed("schedule", id, true, (text) => doc.get("schedule", text) !== undefined);

async function create(fields: Record<string, unknown>): Promise<void> {
  const made = newId();
  const name = freeName(String(fields["name"]), schedules.value);
  const changes = [
    { op: "create" as const, kind: "schedule" as const, id: made, fields: { ...fields, name } },
  ];
  if (await doc.attempt(`New schedule: ${name}`, changes)) id.value = made;
}
function add(): void {
  const steps = [[480, 0], [1080, 1], [1440, 0]]; // prettier-ignore
  void create({ name: "New schedule", patterns: [{ id: "a", name: "Every day", steps }], base: "a" });
}
function take(item: ShelfItem): void {
  void create(item.fields);
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Schedules" @keydown="onListKey">
      <template v-for="group in groups" :key="group.title">
        <p v-if="group.rows.length" class="soft group">{{ group.title }}</p>
        <v-list-item
          tag="button"
          v-for="row in group.rows"
          :key="row.id"
          class="item"
          :class="{ on: row.id === schedule?.id }"
          @click="id = row.id"
        >
          {{ row.name }}<span class="soft">{{ counts.get(row.id) ?? "not used" }}</span>
        </v-list-item>
      </template>
      <p class="add">
        <TextAct @click="add">+ schedule</TextAct>
        <TextAct @click="shelf = true">from the shelf …</TextAct>
      </p>
    </nav>
    <SchedulePage v-if="schedule" :key="schedule.id" :schedule="schedule" @open="id = $event" />
    <div v-else class="page">
      <div class="head"><h1>Schedules</h1></div>
      <p class="empty">
        A schedule says what a day looks like and which day of the year gets which pattern. Add the first at
        the left, or take an ordinary one from the shelf.
      </p>
    </div>
    <ShelfPanel
      v-if="shelf"
      what="schedules"
      title="Ordinary schedules"
      note="Round patterns of our own, to be made the project's."
      @take="take"
      @close="shelf = false"
    />
  </div>
</template>

<style scoped src="../list.css"></style>
