<script setup lang="ts">
import type { SectionResult } from "@/results/types";
import { computed } from "vue";

const props = defineProps<{
  /** Sections in walking order with their depth. */
  sections: { id: string; name: string; parent: string | null; depth: number; end: string }[];
  results: Map<string, SectionResult>;
  /** Ids on the index run. */
  index: string[];
  chosen: string;
}>();
const emit = defineEmits<{ choose: [id: string] }>();
const ROW = 15;
const COLUMN = 54;

/** Each section a step to the right; branches one below the other. */
const drawn = computed(() => {
  const place = new Map<string, { x: number; y: number }>();
  let y = 12;
  const last = new Map<string, number>();
  return props.sections.map((section) => {
    const from = section.parent ? place.get(section.parent) : { x: 10, y: 12 };
    const start = from ?? { x: 10, y };
    const nth = last.get(section.parent ?? "") ?? 0;
    if (nth > 0) y += ROW;
    last.set(section.parent ?? "", nth + 1);
    const end = { x: start.x + COLUMN, y };
    place.set(section.id, end);
    const width = 1 + 9 * Math.min(1, (props.results.get(section.id)?.diameter_m ?? 0) / 0.6);
    return { ...section, start, end, width, on: props.index.includes(section.id) };
  });
});
const size = computed(() => ({
  w: Math.max(200, ...drawn.value.map((d) => d.end.x + 90)),
  h: Math.max(60, ...drawn.value.map((d) => d.end.y + 16)),
}));
</script>

<template>
  <div class="box" tabindex="0" role="region" aria-label="Drawing of the runs">
    <svg
      :width="size.w"
      :height="size.h"
      role="img"
      aria-label="Runs, the index run in the accent colour and thick"
    >
      <g
        v-for="d in drawn"
        :key="d.id"
        class="section"
        :class="{ on: d.on, chosen: d.id === chosen }"
        @click="emit('choose', d.id)"
      >
        <polyline
          :points="`${d.start.x},${d.start.y} ${d.start.x + 8},${d.end.y} ${d.end.x},${d.end.y}`"
          fill="none"
          :stroke-width="Math.max(d.width, d.on ? 4 : 1.5)"
        />
        <text v-if="d.end" :x="d.end.x + 4" :y="d.end.y + 4">
          {{ d.end ? sections.find((s) => s.id === d.id)?.end : "" }}
        </text>
        <title>{{ d.name }}</title>
      </g>
      <rect x="2" y="4" width="16" height="16" fill="var(--field)" stroke="var(--ink)" />
    </svg>
  </div>
</template>

<style scoped>
.box {
  overflow: auto;
  height: 100%;
  padding: 6px;
}
.section {
  cursor: pointer;
}
polyline {
  stroke: var(--infiltration);
  stroke-linejoin: round;
}
.on polyline {
  stroke: var(--accent);
}
.chosen polyline {
  stroke: var(--ink);
}
text {
  font-size: 11px;
  fill: var(--soft);
}
</style>
