<script setup lang="ts">
import { useElementSize } from "@/parts/size";
import { source } from "@/parts/sources";
import { useResults } from "@/results/store";
import type { DayCourses } from "@/results/types";
import { clock, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { computed, ref } from "vue";
import { temperatures, type Pile } from "./rail";

/** @property ownPeak - the step of the day at which what is selected peaks, where this is its day */
const props = defineProps<{
  courses: DayCourses | null;
  pile: Pile;
  quantity: string;
  shows: "heat" | "air";
  name: string;
  ownPeak: number | null;
}>();
const results = useResults();
const view = useView();
const box = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(box);
const x = computed(() => scaleLinear([0, 144], [4, Math.max(10, width.value - 6)]));
const lines = computed(() => (props.courses ? temperatures(props.courses, props.pile.total) : []));
const warmth = computed(() => {
  const all = lines.value.flatMap((item) => item.values).filter((value) => !Number.isNaN(value));
  return scaleLinear([Math.min(...all), Math.max(...all)], [height.value - 20, 20]).nice(3);
});
const drawn = computed(() =>
  lines.value.map((item) => ({
    ...item,
    d:
      line<number>(
        (_, i) => x.value(i + 0.5),
        (value) => warmth.value(value),
      ).defined((value) => !Number.isNaN(value))(item.values) ?? "",
  })),
);
/** What the plant can give at most, where that was entered. */
const capacity = computed(() => props.courses?.control?.capacity_w ?? null);
const y = computed(() => {
  const all = props.pile.bands.flatMap((band) => [...band.low, ...band.high]);
  if (capacity.value) all.push(capacity.value);
  return scaleLinear([Math.min(0, ...all), Math.max(1, ...all)], [height.value - 17, 18]);
});
const bands = computed(() =>
  props.pile.bands.map((band) => ({
    ...source(band.name),
    fill: band.name === "storage" ? "url(#kept)" : source(band.name).colour,
    d:
      area<number>(
        (_, i) => x.value(i + 0.5),
        (_, i) => y.value(band.low[i] ?? 0),
        (value) => y.value(value),
      )(band.high) ?? "",
  })),
);
const total = computed(
  () =>
    line<number>(
      (_, i) => x.value(i + 0.5),
      (value) => y.value(value),
    )(props.pile.total) ?? "",
);
const buildingPeak = computed(() => {
  const peak = results.get("group", "building")?.cooling;
  return peak?.month === view.month &&
    view.subject.id !== "building" &&
    Math.abs(peak.step - (props.ownPeak ?? -99)) > 8
    ? peak.step
    : null;
});
function place(event: PointerEvent): void {
  if (event.buttons !== 1 || !box.value) return;
  const at = x.value.invert(event.clientX - box.value.getBoundingClientRect().left);
  view.step = Math.max(0, Math.min(143, Math.floor(at)));
}

function onKey(event: KeyboardEvent): void {
  const by = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
  if (!by) return;
  view.moveStep(event.shiftKey ? by * 6 : by);
  event.preventDefault();
}
</script>

<template>
  <div
    ref="box"
    class="plot"
    role="slider"
    tabindex="0"
    aria-label="Hour of the day"
    :aria-valuemin="0"
    :aria-valuemax="143"
    :aria-valuenow="view.step"
    :aria-valuetext="clock(view.step)"
    @pointerdown="place"
    @pointermove="place"
    @keydown="onKey"
  >
    <svg :width="width" :height="height" aria-hidden="true">
      <defs>
        <pattern id="kept" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="var(--paper)" />
          <line y2="5" stroke="var(--storage)" stroke-width="5" />
        </pattern>
      </defs>
      <template v-if="shows === 'heat'">
        <path v-for="band in bands" :key="band.name" :d="band.d" :fill="band.fill" opacity="0.85" />
        <path :d="total" fill="none" stroke="var(--ink)" stroke-width="1.4" />
        <line :x1="0" :x2="width" :y1="y(0)" :y2="y(0)" stroke="var(--ink)" />
        <g v-if="capacity">
          <line
            :x1="0"
            :x2="width"
            :y1="y(capacity)"
            :y2="y(capacity)"
            stroke="var(--ink)"
            stroke-dasharray="7 3"
          />
          <text :x="width - 6" :y="y(capacity) - 3" text-anchor="end">capacity</text>
        </g>
      </template>
      <template v-else>
        <g v-for="tick in warmth.ticks(3)" :key="tick">
          <line x1="0" :x2="width" :y1="warmth(tick)" :y2="warmth(tick)" stroke="var(--hair)" />
          <text :x="width - 4" :y="warmth(tick) - 2" text-anchor="end">
            {{ toShown(tick, "temperature", view.system).toFixed(0) }}
          </text>
        </g>
        <path
          v-for="item in drawn"
          :key="item.name"
          :d="item.d"
          fill="none"
          :stroke="item.colour"
          stroke-width="1.6"
          :stroke-dasharray="item.dash"
        />
      </template>
      <text
        v-for="hour in [0, 3, 6, 9, 12, 15, 18, 21, 24]"
        :key="hour"
        :x="x(hour * 6)"
        :y="height - 4"
        text-anchor="middle"
      >
        {{ hour }}
      </text>
      <g v-if="buildingPeak !== null">
        <line
          :x1="x(buildingPeak + 0.5)"
          :x2="x(buildingPeak + 0.5)"
          y1="16"
          :y2="height - 17"
          stroke="var(--ink)"
          stroke-dasharray="2 3"
        />
        <text :x="x(buildingPeak + 0.5) + 4" y="30">building {{ clock(buildingPeak) }}</text>
      </g>
      <text v-if="ownPeak !== null" :x="x(ownPeak + 0.5) - 5" y="28" text-anchor="start" class="own">
        ▼ own peak
      </text>
      <line
        :x1="x(view.step + 0.5)"
        :x2="x(view.step + 0.5)"
        y1="0"
        :y2="height - 17"
        stroke="var(--accent)"
        stroke-width="2"
      />
      <rect :x="x(view.step + 0.5) - 20" y="0" width="40" height="16" fill="var(--accent)" />
      <text :x="x(view.step + 0.5)" y="12" text-anchor="middle" class="at">{{ clock(view.step) }}</text>
      <text v-if="shows === 'air'" x="4" y="12">
        {{ unitOf("temperature", view.system) }}
        <tspan v-for="item in drawn" :key="item.name" :fill="item.colour" dx="8">━ {{ item.name }}</tspan>
      </text>
      <text v-else x="4" y="12">
        {{
          courses?.unit === "K"
            ? `${unitOf(quantity, view.system)} above ${toShown(courses.reference_c ?? 0, "temperature", view.system).toFixed(0)} in ${name}, not cooled`
            : `${unitOf(quantity, view.system)} ${view.month ? "into" : "lost from"} the air of ${name}`
        }}
      </text>
    </svg>
    <p v-if="!courses" class="soft none">Nothing calculated for this selection.</p>
  </div>
</template>

<style scoped>
.plot {
  position: relative;
  cursor: ew-resize;
  touch-action: none;
  min-width: 0;
  overflow: hidden;
  user-select: none;
}
.plot svg {
  display: block;
}
text {
  font-size: 11px;
  fill: var(--soft);
}
text.at {
  fill: #fff;
  font-weight: 600;
}
text.own {
  fill: var(--ink);
}
.none {
  position: absolute;
  inset: 34px 20px;
}
</style>
