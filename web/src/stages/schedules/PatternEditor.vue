<script setup lang="ts">
import { Refusal } from "@/api/client";
import { computed, ref, watch } from "vue";
import { fromLine, paint, toCells, toLine, type Steps } from "./pattern";

const props = defineProps<{
  steps: Steps;
  /** Saves the pattern; throws when it is refused. */
  save: (steps: Steps) => Promise<void>;
}>();
const width = ref<60 | 30 | 15>(60);
const draft = ref<Steps>(props.steps);
const line = ref(toLine(props.steps));
const fault = ref("");
const from = ref(0);
const to = ref(0);
const typed = ref("");
const painting = ref(false);
const H = 190;
const W = 720;

watch(
  () => props.steps,
  (steps) => {
    draft.value = steps;
    line.value = toLine(steps);
  },
);
const cells = computed(() => toCells(draft.value, width.value));
const bars = computed(() => {
  let start = 0;
  return draft.value.map(([until, value]) => {
    const bar = { x: (start / 1440) * W, w: ((until - start) / 1440) * W, h: value * (H - 20) };
    start = until;
    return bar;
  });
});
const first = computed(() => Math.min(from.value, to.value));
const last = computed(() => Math.max(from.value, to.value));

watch(width, () => {
  from.value = 0;
  to.value = 0;
});

async function keep(steps: Steps): Promise<void> {
  draft.value = steps;
  line.value = toLine(steps);
  fault.value = "";
  try {
    await props.save(steps);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}

function level(event: PointerEvent): { cell: number; value: number } {
  const box = (event.currentTarget as Element).getBoundingClientRect();
  const cell = Math.max(
    0,
    Math.min(
      cells.value.length - 1,
      Math.floor(((event.clientX - box.left) / box.width) * cells.value.length),
    ),
  );
  const share = 1 - ((event.clientY - box.top) / box.height - 10 / H) / ((H - 20) / H);
  return { cell, value: Math.max(0, Math.min(1, Math.round(share * 20) / 20)) };
}

function sweep(event: PointerEvent): void {
  if (event.type === "pointerdown") {
    painting.value = true;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  if (!painting.value) return;
  const { cell, value } = level(event);
  draft.value = paint(draft.value, cell * width.value, (cell + 1) * width.value, value);
  line.value = toLine(draft.value);
}

function release(): void {
  if (!painting.value) return;
  painting.value = false;
  void keep(draft.value);
}

function setSelection(value: number): void {
  if (!(value >= 0 && value <= 1)) {
    fault.value = `${value * 100} is outside 0 to 100.`;
    return;
  }
  void keep(paint(draft.value, first.value * width.value, (last.value + 1) * width.value, value));
}

/** Move the selected stretch earlier or later; what it leaves takes the value beside it. */
function shift(by: number): void {
  const values = cells.value.slice(first.value, last.value + 1);
  if (first.value + by < 0 || last.value + by >= cells.value.length) return;
  const left =
    cells.value[by > 0 ? Math.max(0, first.value - 1) : Math.min(cells.value.length - 1, last.value + 1)] ??
    0;
  let steps = paint(draft.value, first.value * width.value, (last.value + 1) * width.value, left);
  values.forEach((value, i) => {
    const at = (first.value + i + by) * width.value;
    steps = paint(steps, at, at + width.value, value);
  });
  from.value += by;
  to.value += by;
  void keep(steps);
}

function onKey(event: KeyboardEvent): void {
  const count = cells.value.length;
  const by = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
  if (by && event.altKey) shift(by);
  else if (by) {
    to.value = Math.max(0, Math.min(count - 1, to.value + by));
    if (!event.shiftKey) from.value = to.value;
    typed.value = "";
  } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
    const change = event.key === "ArrowUp" ? 0.05 : -0.05;
    const now = cells.value[first.value] ?? 0;
    setSelection(Math.max(0, Math.min(1, Number((now + change).toFixed(4)))));
  } else if (/^[\d.,]$/.test(event.key)) typed.value += event.key.replace(",", ".");
  else if (event.key === "Backspace") typed.value = typed.value.slice(0, -1);
  else if (event.key === "Escape") typed.value = "";
  else if (event.key === "Enter" && typed.value) {
    setSelection(Number(typed.value) / 100);
    typed.value = "";
  } else return;
  event.preventDefault();
  event.stopPropagation();
}

function onPaste(event: ClipboardEvent): void {
  const values = (event.clipboardData?.getData("text/plain") ?? "")
    .trim()
    .split(/[\s;]+/)
    .map((v) => Number(v.replace(",", ".")));
  event.preventDefault();
  if (![24, 96].includes(values.length) || values.some((value) => !(value >= 0 && value <= 1))) {
    fault.value = "Paste a row of 24 or 96 numbers between 0 and 1.";
    return;
  }
  const minutes = 1440 / values.length;
  let steps: Steps = [[1440, values[0] ?? 0]];
  values.forEach((value, i) => (steps = paint(steps, i * minutes, (i + 1) * minutes, value)));
  void keep(steps);
}

async function readLine(): Promise<void> {
  try {
    await keep(fromLine(line.value));
  } catch (error) {
    fault.value = error instanceof Error ? error.message : String(error);
  }
}
</script>

<template>
  <div>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="skyline"
      role="img"
      aria-label="Skyline: sweep to paint"
      @pointerdown="sweep"
      @pointermove="sweep"
      @pointerup="release"
    >
      <g v-for="tick in [0, 0.25, 0.5, 0.75, 1]" :key="tick">
        <line
          x1="0"
          :x2="W"
          :y1="H - 10 - tick * (H - 20)"
          :y2="H - 10 - tick * (H - 20)"
          stroke="var(--hair)"
        />
        <text x="3" :y="H - 13 - tick * (H - 20)">{{ tick * 100 }} %</text>
      </g>
      <rect
        v-for="(bar, i) in bars"
        :key="i"
        :x="bar.x"
        :width="bar.w"
        :y="H - 10 - bar.h"
        :height="bar.h"
        fill="var(--people)"
        opacity="0.75"
        stroke="var(--paper)"
      />
      <rect
        :x="(first * width * W) / 1440"
        :width="((last - first + 1) * width * W) / 1440"
        y="10"
        :height="H - 20"
        fill="var(--accent)"
        opacity="0.12"
        pointer-events="none"
      />
    </svg>
    <div
      class="ribbon"
      role="application"
      tabindex="0"
      aria-label="Ribbon of hours"
      @keydown="onKey"
      @paste="onPaste"
    >
      <span
        v-for="(value, i) in cells"
        :key="i"
        :class="{ on: i >= first && i <= last }"
        @click="((from = i), (to = i))"
        >{{ cells.length > 48 ? "" : Number((value * 100).toFixed(0)) }}</span
      >
    </div>
    <div class="hours">
      <span v-for="hour in [0, 3, 6, 9, 12, 15, 18, 21, 24]" :key="hour">{{ hour }}</span>
    </div>
    <input
      v-model="line"
      class="line"
      aria-label="Pattern as one line"
      @keydown.enter="readLine"
      @change="readLine"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }} The pattern as it was is kept.</p>
    <p class="soft">
      Steps
      <span class="switch" role="group" aria-label="Step width"
        ><button v-for="w in [60, 30, 15] as const" :key="w" :aria-pressed="width === w" @click="width = w">
          {{ w }}
        </button></span
      >
      min.
      <template v-if="typed"
        >Typing <b>{{ typed }} %</b>, Enter sets it.</template
      >
    </p>
    <p class="soft">
      Sweep over the skyline to paint. In the ribbon: arrows move, Shift extends, digits and Enter set, ↑ ↓ by
      5 %, Alt+← → moves earlier and later, Ctrl+V takes 24 or 96 numbers. Or edit the line, in percent;
      minutes as 07:30. All three are the same pattern.
    </p>
  </div>
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
  fill: var(--soft);
}
.ribbon {
  display: flex;
  margin-top: 4px;
  user-select: none;
}
.ribbon span {
  flex: 1;
  border: 1px solid var(--line);
  height: 24px;
  font-size: 11px;
  text-align: center;
  line-height: 22px;
  min-width: 0;
  background: var(--field);
  overflow: hidden;
}
.ribbon .on {
  background: var(--wash);
  border-color: var(--accent);
  font-weight: 600;
}
.hours {
  display: flex;
  justify-content: space-between;
  font-size: 11px;
  color: var(--soft);
  margin: 2px 0 8px;
}
.line {
  width: 100%;
  border: 1px solid var(--ink);
  background: var(--field);
  padding: 6px 9px;
  font-family: var(--narrow);
  font-size: 15px;
  margin-bottom: 8px;
}
</style>
