<script setup lang="ts">
import { paint, type Steps } from "@/parts/pattern";
import { toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import type { ScheduleKind } from "./kinds";

/** A day pattern as bars; sweeping over them paints levels. */
const props = defineProps<{
  steps: Steps;
  kind: ScheduleKind;
  /** Width of a painted cell [min]. */
  width: number;
  /** The selected stretch [min]. */
  start: number;
  end: number;
  /** A pattern laid over, with its name. */
  over: { name: string; steps: Steps } | null;
}>();
const emit = defineEmits<{
  /** The pattern while it is painted, and when the pointer lets go. */
  paint: [steps: Steps];
  done: [];
}>();
const view = useView();
const painting = ref(false);
const H = 138;
const W = 720;
const DAY = 1440;

/** Lower and upper end of the skyline, stored values. */
const span = computed<[number, number]>(() => {
  if (props.kind.quantity !== "temperature" && props.kind.quantity !== "power") return [props.kind.low, props.kind.high];
  const values = [...props.steps, ...(props.over?.steps ?? [])].map(([, value]) => value);
  const least = props.kind.quantity === "power" ? 0 : Math.floor((Math.min(...values) - 4) / 5) * 5;
  const most = Math.ceil((Math.max(...values) + 4) / 5) * 5;
  return [least, Math.max(most, least + 20)];
}); // prettier-ignore
const high = (value: number) => ((value - span.value[0]) / (span.value[1] - span.value[0])) * (H - 20);
const across = (minute: number) => (minute / DAY) * W;
const unit = computed(() => unitOf(props.kind.quantity, view.system));
const ticks = computed(() =>
  [0, 0.25, 0.5, 0.75, 1].map((share) => {
    const value = span.value[0] + share * (span.value[1] - span.value[0]);
    const text = Number(toShown(value, props.kind.quantity, view.system).toFixed(1));
    return { share, y: H - 10 - share * (H - 20), text };
  }),
);
/** Stretches of a pattern with where they begin. */
function stretches(steps: Steps): { from: number; until: number; value: number }[] {
  return steps.map(([until, value], i) => ({ from: steps[i - 1]?.[0] ?? 0, until, value }));
}
const bars = computed(() =>
  stretches(props.steps).map(({ from, until, value }) => ({
    x: across(from),
    w: across(until - from),
    h: Math.max(0, high(value)),
  })),
);
const outline = computed(() =>
  stretches(props.over?.steps ?? [])
    .map(({ from, until, value }) => {
      const y = H - 10 - high(value);
      return `${from ? "L" : "M"}${across(from)},${y}L${across(until)},${y}`;
    })
    .join(""),
);

function held(value: number): number {
  const step = props.kind.step;
  const near = Math.round(value / step) * step;
  return Number(Math.max(props.kind.low, Math.min(props.kind.high, near)).toPrecision(12));
}

/** Start of the cell under the pointer, and the level it is at. */
function level(event: PointerEvent): { from: number; value: number } {
  const box = (event.currentTarget as Element).getBoundingClientRect();
  const count = DAY / props.width;
  const cell = Math.max(0, Math.min(count - 1, Math.floor(((event.clientX - box.left) / box.width) * count)));
  const share = 1 - ((event.clientY - box.top) / box.height - 10 / H) / ((H - 20) / H);
  const value = span.value[0] + Math.max(0, Math.min(1, share)) * (span.value[1] - span.value[0]);
  return { from: cell * props.width, value: held(value) };
}

function sweep(event: PointerEvent): void {
  if (event.type === "pointerdown") {
    painting.value = true;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  if (!painting.value) return;
  const { from, value } = level(event);
  emit("paint", paint(props.steps, from, from + props.width, value));
}

function release(): void {
  if (!painting.value) return;
  painting.value = false;
  emit("done");
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="skyline"
    role="img"
    aria-label="Skyline: sweep to paint"
    @pointerdown="sweep"
    @pointermove="sweep"
    @pointerup="release"
  >
    <line
      v-for="tick in ticks"
      :key="tick.share"
      x1="0"
      :x2="W"
      :y1="tick.y"
      :y2="tick.y"
      stroke="var(--hair)"
    />
    <rect
      v-for="(bar, i) in bars"
      :key="i"
      :x="bar.x"
      :width="bar.w"
      :y="H - 10 - bar.h"
      :height="bar.h"
      :fill="kind.colour"
      opacity="0.75"
      stroke="var(--paper)"
    />
    <path v-if="over" :d="outline" fill="none" stroke="var(--ink)" stroke-width="2" stroke-dasharray="5 3" />
    <rect
      :x="across(start)"
      :width="across(end - start)"
      y="10"
      :height="H - 20"
      fill="var(--accent)"
      opacity="0.12"
      pointer-events="none"
    />
    <text v-if="over" :x="W - 4" y="8" text-anchor="end">laid over: {{ over.name }}</text>
    <text v-for="tick in ticks" :key="`t${tick.share}`" x="3" :y="tick.y - 3">
      {{ tick.text }} {{ unit }}
    </text>
  </svg>
</template>

<style scoped>
.skyline {
  width: 100%;
  touch-action: none;
  cursor: crosshair;
  border-bottom: 2px solid var(--ink);
  display: block;
}
text {
  font-size: 10px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  pointer-events: none;
}
</style>
