<script setup lang="ts">
import { client, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { stack } from "./rail";
import RailDays from "./RailDays.vue";
import RailPlot from "./RailPlot.vue";
import RailReading from "./RailReading.vue";

const doc = useDocument();
const results = useResults();
const view = useView();
const courses = computed(() => results.day?.courses ?? null);
const shows = ref<"heat" | "air">("heat");

const record = computed(() =>
  view.subject.kind === "room" ? results.get("room", view.subject.id) : results.get("group", view.subject.id),
);
const name = computed(() => {
  if (view.subject.kind === "group") return results.get("group", view.subject.id)?.name ?? "";
  const room = doc.get("room", view.subject.id);
  return room ? `${room.number} ${room.name}` : "";
});

watch(
  [() => view.subject, () => view.month, () => results.version],
  async (_now, _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    if (!record.value) {
      results.day = null;
      return;
    }
    const query = { kind: view.subject.kind, subject: view.subject.id, month: view.month };
    const answer = await client.GET("/api/projects/{project_id}/day", {
      params: { path: { project_id: doc.projectId }, query },
    });
    if (stale) return;
    const { subject, month } = query;
    results.day = answer.response.ok ? { subject, month, courses: unwrap(answer) } : null;
  },
  { immediate: true },
);

const pile = computed(() => stack(courses.value?.parts ?? {}));
const quantity = computed(() => (courses.value?.unit === "K" ? "temperature_difference" : "load"));
const ownPeak = computed(() =>
  record.value?.cooling?.month === view.month ? record.value.cooling.step : null,
);
</script>

<template>
  <section class="rail" aria-label="Day rail">
    <RailDays :peak="record?.cooling?.month" />
    <RailPlot v-bind="{ courses, pile, quantity, shows, name, ownPeak }" />
    <RailReading v-model:shows="shows" v-bind="{ courses, quantity }" :total="pile.total" />
  </section>
</template>

<style scoped>
.rail {
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr) 316px;
  font-family: var(--narrow);
  min-height: 0;
  background: var(--paper);
}
@media (max-width: 1099px) {
  .rail {
    grid-template-columns: 170px minmax(0, 1fr);
  }
}
</style>
