<script setup lang="ts">
/** What a circuit's units give over the day, stacked, with the load and what is there with the largest unit out. */
import { useElementSize } from "@/parts/size";
import { toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { computed, ref } from "vue";
import type { PlantDay } from "./plant";

const props = defineProps<{
  day: PlantDay;
  /** Names by id, in order. */
  units: { id: string; name: string }[];
  withoutLargest: number;
  capacity: number;
  step: number;
}>();
const view = useView();
const box = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(box);
const pad = { left: 44, right: 10, top: 20, bottom: 18 };
const TONES = [
  "var(--tide)",
  "var(--outdoor-air)",
  "var(--sun)",
  "var(--storage)",
  "var(--equipment)",
  "var(--walls)",
  "var(--people)",
  "var(--doors)",
];
const shown = (value: number) => toShown(value, "load", view.system);
const most = computed(() => Math.max(1, ...props.day.load_w, props.capacity) * 1.04);
const x = computed(() => scaleLinear([0, 24], [pad.left, Math.max(pad.left + 1, width.value - pad.right)]));
const y = computed(() => scaleLinear([0, shown(most.value)], [height.value - pad.bottom, pad.top]).nice(4));
const hour = (index: number) => ((index + 0.5) * 24) / props.day.load_w.length;
const layers = computed(() => {
  const base = new Array<number>(props.day.load_w.length).fill(0);
  return props.units
    .filter((unit) => props.day.units[unit.id])
    .map((unit, place) => {
      const low = [...base];
      props.day.units[unit.id]?.output_w.forEach((value, i) => (base[i] = (base[i] ?? 0) + value));
      const high = [...base];
      const d = area<number>()
        .x((_, i) => x.value(hour(i)))
        .y0((_, i) => y.value(shown(low[i] ?? 0)))
        .y1((value) => y.value(shown(value)))(high);
      return { ...unit, d: d ?? "", tone: TONES[place % TONES.length] };
    });
});
const loadLine = computed(
  () => line<number>().x((_, i) => x.value(hour(i))).y((value) => y.value(shown(value)))(props.day.load_w) ?? "",
); // prettier-ignore
const levels = computed(() => [
  { name: "all units", value: props.capacity, dash: "" },
  { name: "largest out", value: props.withoutLargest, dash: "5 4" },
]);
</script>

<template>
  <figure ref="box" class="chart">
    <svg :width="width" :height="height" role="img" aria-label="Load by unit over the day">
      <text x="4" y="12" class="soft">
        {{ unitOf("load", view.system) }} given by the units; line: what is asked
      </text>
      <g v-for="tick in y.ticks(4)" :key="tick">
        <line :x1="pad.left" :x2="width - pad.right" :y1="y(tick)" :y2="y(tick)" class="hair" />
        <text :x="pad.left - 5" :y="y(tick) + 4" text-anchor="end" class="soft">{{ tick }}</text>
      </g>
      <text
        v-for="h in [0, 3, 6, 9, 12, 15, 18, 21, 24]"
        :key="h"
        :x="x(h)"
        :y="height - 4"
        text-anchor="middle"
        class="soft"
      >
        {{ h }}
      </text>
      <path v-for="layer in layers" :key="layer.id" :d="layer.d" :fill="layer.tone" opacity="0.85" />
      <path :d="loadLine" fill="none" class="load" />
      <g v-for="level in levels" :key="level.name">
        <line
          :x1="pad.left"
          :x2="width - pad.right"
          :y1="y(shown(level.value))"
          :y2="y(shown(level.value))"
          class="level"
          :stroke-dasharray="level.dash"
        />
        <text :x="width - pad.right - 4" :y="y(shown(level.value)) - 3" text-anchor="end" class="soft">
          {{ level.name }}
        </text>
      </g>
      <line :x1="x(hour(step))" :x2="x(hour(step))" :y1="pad.top" :y2="height - pad.bottom" class="marker" />
    </svg>
    <figcaption>
      <span v-for="layer in layers" :key="layer.id"
        ><i :style="{ background: layer.tone }" />{{ layer.name }}</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
svg {
  flex: 1;
  min-height: 0;
  display: block;
}
text {
  font: 12px var(--narrow);
  fill: var(--soft);
}
.hair {
  stroke: var(--hair);
}
.load {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.level {
  stroke: var(--ember);
}
.marker {
  stroke: var(--accent);
  stroke-width: 1.5;
}
figcaption {
  display: flex;
  gap: 12px;
  padding: 2px 12px;
  font: 12px var(--narrow);
}
figcaption i {
  display: inline-block;
  width: 14px;
  height: 9px;
  margin-right: 4px;
}
</style>
