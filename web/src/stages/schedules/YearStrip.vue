<script setup lang="ts">
import type { PatternPart } from "@/document/types";
import { MONTHS } from "@/units/units";
import { computed, ref } from "vue";
import { toneOf } from "./kinds";

const props = defineProps<{
  /** Pattern of each day by its place in `patterns`. */
  days: number[];
  patterns: PatternPart[];
  year: number;
  /** Pattern that painting gives. */
  brush: string;
  holidays: string[];
  /** Day of the year that is looked at, from 0. */
  chosen: number;
}>();
const emit = defineEmits<{
  /** Days painted: from and to as month-day, weekdays as in a rule. */
  paint: [range: { start: string; end: string; days: string }];
  look: [day: number];
}>();
const CELL = 13;
const lead = computed(() => (new Date(Date.UTC(props.year, 0, 1)).getUTCDay() + 6) % 7);
const start = ref<number | null>(null);
const end = ref<number | null>(null);

function dateOf(day: number): Date {
  return new Date(Date.UTC(props.year, 0, 1 + day));
}
function text(day: number): string {
  const date = dateOf(day);
  return `${String(date.getUTCMonth() + 1).padStart(2, "0")}-${String(date.getUTCDate()).padStart(2, "0")}`;
}
const cells = computed(() =>
  props.days.map((pattern, day) => {
    const place = day + lead.value;
    return { day, pattern, x: Math.floor(place / 7) * CELL, y: (place % 7) * CELL };
  }),
);
const heads = computed(() =>
  MONTHS.slice(0, 12).map((name, month) => {
    const day = Math.round((Date.UTC(props.year, month, 1) - Date.UTC(props.year, 0, 1)) / 864e5);
    return { name, x: Math.floor((day + lead.value + 6) / 7) * CELL };
  }),
);
/** The swept block: weeks between the two corners, weekdays between their rows. */
const block = computed(() => {
  if (start.value === null || end.value === null) return null;
  const [a, b] = [start.value + lead.value, end.value + lead.value];
  const weeks = [Math.floor(a / 7), Math.floor(b / 7)].sort((p, q) => p - q) as [number, number];
  const rows = [a % 7, b % 7].sort((p, q) => p - q) as [number, number];
  return { weeks, rows };
});

function at(event: PointerEvent): number {
  const box = (event.currentTarget as Element).getBoundingClientRect();
  const x = ((event.clientX - box.left) / box.width) * (54 * CELL + 30) - 30;
  const y = ((event.clientY - box.top) / box.height) * (7 * CELL + 16) - 14;
  const week = Math.max(0, Math.min(53, Math.floor(x / CELL)));
  const row = Math.max(0, Math.min(6, Math.floor(y / CELL)));
  return Math.max(0, Math.min(props.days.length - 1, week * 7 + row - lead.value));
}
function down(event: PointerEvent): void {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  start.value = end.value = at(event);
}
function move(event: PointerEvent): void {
  if (start.value !== null) end.value = at(event);
}
function up(): void {
  const found = block.value;
  const single = start.value === end.value;
  if (found && start.value !== null) {
    emit("look", end.value ?? start.value);
    if (props.brush) {
      const [w1, w2] = found.weeks;
      const first = Math.max(0, w1 * 7 - lead.value + (single ? found.rows[0] : 0));
      const last = Math.min(props.days.length - 1, single ? first : w2 * 7 + 6 - lead.value);
      // A single day counts whatever it is; a block that holds a weekday row leaves holidays as they are.
      const days = single
        ? "11111111"
        : Array.from({ length: 7 }, (_, i) => (i >= found.rows[0] && i <= found.rows[1] ? "1" : "0")).join(
            "",
          ) + (found.rows[0] === 0 && found.rows[1] === 6 ? "1" : "0");
      emit("paint", { start: text(first), end: text(last), days });
    }
  }
  start.value = end.value = null;
}
function onKey(event: KeyboardEvent): void {
  const by = { ArrowLeft: -7, ArrowRight: 7, ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (by !== undefined) emit("look", Math.max(0, Math.min(props.days.length - 1, props.chosen + by)));
  else if (event.key === "Enter" && props.brush)
    emit("paint", { start: text(props.chosen), end: text(props.chosen), days: "11111111" });
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <svg
    :viewBox="`-30 -14 ${54 * CELL + 30} ${7 * CELL + 16}`"
    class="strip"
    tabindex="0"
    role="application"
    aria-label="Calendar of the year"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @keydown="onKey"
  >
    <text v-for="head in heads" :key="head.name" :x="head.x" y="-4">{{ head.name }}</text>
    <text
      v-for="(name, row) in ['Mo', '', 'We', '', 'Fr', '', 'Su']"
      :key="row"
      x="-4"
      :y="row * CELL + 10"
      text-anchor="end"
    >
      {{ name }}
    </text>
    <g v-for="cell in cells" :key="cell.day">
      <rect
        :x="cell.x"
        :y="cell.y"
        :width="CELL - 1.5"
        :height="CELL - 1.5"
        :fill="toneOf(cell.pattern)"
        :opacity="cell.pattern === 0 ? 0.3 : 0.75"
        :stroke="cell.day === chosen ? 'var(--ink)' : 'none'"
        :stroke-width="cell.day === chosen ? 2 : 0"
      >
        <title>{{ text(cell.day) }} {{ patterns[cell.pattern]?.name }}</title>
      </rect>
      <circle
        v-if="holidays.includes(text(cell.day))"
        :cx="cell.x + 6"
        :cy="cell.y + 6"
        r="2"
        fill="var(--ink)"
      />
    </g>
    <rect
      v-if="block"
      :x="block.weeks[0] * CELL - 1"
      :y="block.rows[0] * CELL - 1"
      :width="(block.weeks[1] - block.weeks[0] + 1) * CELL"
      :height="(block.rows[1] - block.rows[0] + 1) * CELL"
      fill="none"
      stroke="var(--ink)"
      stroke-width="1.5"
      pointer-events="none"
    />
  </svg>
</template>

<style scoped>
.strip {
  width: 100%;
  touch-action: none;
  cursor: crosshair;
  display: block;
}
text {
  font-size: 9px;
  fill: var(--soft);
}
</style>
