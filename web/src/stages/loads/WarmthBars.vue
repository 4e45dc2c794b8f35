<script setup lang="ts">
/** What each source makes of the hottest air of a room that is not cooled, as bars above and below the reference. */
import { client, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import { colourOf } from "@/parts/sources";
import { useResults } from "@/results/store";
import { computed, ref, watch } from "vue";

interface Part {
  name: string;
  value: number;
}
const props = defineProps<{ id: string }>();
const doc = useDocument();
const results = useResults();
const parts = ref<Part[]>([]);
const reference = ref<number | null>(null);

watch(
  () => [props.id, results.version] as const,
  async ([id], _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    const answer = await client.GET("/api/projects/{project_id}/working", {
      params: { path: { project_id: doc.projectId }, query: { quantity: "room_temperature", subject: id } },
    });
    if (stale) return;
    const inputs = answer.response.ok ? unwrap(answer).inputs : [];
    reference.value = inputs[0]?.value ?? null;
    parts.value = inputs.slice(1).map((input) => ({ name: input.name, value: input.value ?? 0 }));
  },
  { immediate: true },
);
const most = computed(() => Math.max(0.01, ...parts.value.map((part) => Math.abs(part.value))));
const low = computed(() => Math.max(0, ...parts.value.map((part) => -part.value)) / most.value);
const scale = computed(() => 100 / (1 + low.value));
const zero = computed(() => low.value * scale.value);
function bar(part: Part) {
  const width = (Math.abs(part.value) / most.value) * scale.value;
  const left = part.value >= 0 ? zero.value : zero.value - width;
  return { background: colourOf(part.name), left: `${left}%`, width: `${width}%` };
}
</script>

<template>
  <div v-if="parts.length" aria-label="Warmth by source" role="group">
    <p class="soft">
      Above the reference of <Figure :value="reference" quantity="temperature" /> at the hottest time:
    </p>
    <div v-for="part in parts" :key="part.name" class="line" data-test="warmth">
      <span>{{ part.name }}</span>
      <span class="track"><i :style="bar(part)" /></span>
      <span class="num"><Figure :value="part.value" quantity="temperature_difference" /></span>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 150px minmax(60px, 1fr) 128px;
  height: 21px;
  align-items: center;
  gap: 8px;
}
.track {
  position: relative;
  height: 11px;
}
.track i {
  position: absolute;
  height: 11px;
}
</style>
