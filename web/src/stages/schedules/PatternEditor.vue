<script setup lang="ts">
import { Refusal } from "@/api/client";
import { format, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { writingOf, type ScheduleKind } from "./kinds";
import { fromLine, moved, paint, shifted, slid, taken, toCells, toLine, type Steps } from "@/parts/pattern";

const props = defineProps<{
  steps: Steps;
  kind: ScheduleKind;
  /** Patterns to lay over or to take from: of this schedule, and of others of its kind. */
  others: { id: string; name: string; group: string; steps: Steps }[];
  /** Saves the pattern; throws when it is refused. */
  save: (steps: Steps) => Promise<void>;
}>();
const emit = defineEmits<{
  /** The selected stretch, minutes of the day, as it is shown. */
  stretch: [start: number, end: number, steps: Steps];
}>();
const view = useView();
const width = ref<60 | 30 | 15 | 1>(60);
const draft = ref<Steps>(props.steps);
const writing = computed(() => writingOf(props.kind, view.system));
const line = ref("");
const fault = ref("");
const from = ref(0);
const to = ref(0);
const typed = ref("");
const painting = ref(false);
const overlay = ref("");
const H = 138;
const W = 720;

watch(
  () => [props.steps, writing.value],
  () => {
    draft.value = props.steps;
    line.value = toLine(props.steps, writing.value);
  },
  { immediate: true },
);
const cells = computed(() => toCells(draft.value, width.value));
const over = computed(() => props.others.find((item) => item.id === overlay.value));
const groups = computed(() => [...new Set(props.others.map((item) => item.group))]);

/** Lower and upper end of the skyline, stored values. */
const span = computed<[number, number]>(() => {
  if (props.kind.quantity !== "temperature" && props.kind.quantity !== "power") return [props.kind.low, props.kind.high];
  const values = [...props.steps, ...(over.value?.steps ?? [])].map(([, value]) => value);
  const least = props.kind.quantity === "power" ? 0 : Math.floor((Math.min(...values) - 4) / 5) * 5;
  const most = Math.ceil((Math.max(...values) + 4) / 5) * 5;
  return [least, Math.max(most, least + 20)];
}); // prettier-ignore
const high = (value: number) => ((value - span.value[0]) / (span.value[1] - span.value[0])) * (H - 20);
const ticks = computed(() =>
  [0, 0.25, 0.5, 0.75, 1].map((share) => {
    const value = span.value[0] + share * (span.value[1] - span.value[0]);
    return { share, text: Number(toShown(value, props.kind.quantity, view.system).toFixed(1)) };
  }),
);
const unit = computed(() => unitOf(props.kind.quantity, view.system));
const bars = computed(() => {
  let start = 0;
  return draft.value.map(([until, value]) => {
    const bar = { x: (start / 1440) * W, w: ((until - start) / 1440) * W, h: Math.max(0, high(value)) };
    start = until;
    return bar;
  });
});
const outline = computed(() => {
  let start = 0;
  return (over.value?.steps ?? [])
    .map(([until, value]) => {
      const y = H - 10 - high(value);
      const piece = `${start ? "L" : "M"}${(start / 1440) * W},${y}L${(until / 1440) * W},${y}`;
      start = until;
      return piece;
    })
    .join("");
});
const first = computed(() => Math.min(from.value, to.value));
const last = computed(() => Math.max(from.value, to.value));

const start = computed(() => first.value * width.value);
const end = computed(() => (last.value + 1) * width.value);
const several = computed(() => last.value > first.value);
watch([start, end, draft], () => emit("stretch", start.value, end.value, draft.value), { immediate: true });

watch(width, () => {
  from.value = 0;
  to.value = 0;
});

async function keep(steps: Steps): Promise<void> {
  draft.value = steps;
  line.value = toLine(steps, writing.value);
  fault.value = "";
  try {
    await props.save(steps);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}

function held(value: number): number {
  const step = props.kind.step;
  const near = Math.round(value / step) * step;
  return Number(Math.max(props.kind.low, Math.min(props.kind.high, near)).toPrecision(12));
}

function level(event: PointerEvent): { cell: number; value: number } {
  const box = (event.currentTarget as Element).getBoundingClientRect();
  const count = cells.value.length;
  const cell = Math.max(0, Math.min(count - 1, Math.floor(((event.clientX - box.left) / box.width) * count)));
  const share = 1 - ((event.clientY - box.top) / box.height - 10 / H) / ((H - 20) / H);
  const value = span.value[0] + Math.max(0, Math.min(1, share)) * (span.value[1] - span.value[0]);
  return { cell, value: held(value) };
}

function sweep(event: PointerEvent): void {
  if (event.type === "pointerdown") {
    painting.value = true;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  if (!painting.value) return;
  const { cell, value } = level(event);
  draft.value = paint(draft.value, cell * width.value, (cell + 1) * width.value, value);
}

function release(): void {
  if (!painting.value) return;
  painting.value = false;
  void keep(draft.value);
}

function setSelection(value: number): void {
  void keep(paint(draft.value, start.value, end.value, value));
}

/** The selection, or the day where one cell is chosen, earlier (-1) or later (1) by a cell. */
function later(sign: number): void {
  const by = sign * width.value;
  if (!several.value) {
    void keep(shifted(draft.value, by));
    return;
  }
  if (start.value + by < 0 || end.value + by > 1440) return;
  void keep(slid(draft.value, start.value, end.value, by));
  from.value += sign;
  to.value += sign;
}

/** Take the selection, or the day where one cell is chosen, from the pattern laid over. */
function mirror(): void {
  const other = over.value?.steps;
  if (other) void keep(several.value ? taken(draft.value, other, start.value, end.value) : other);
}

/** Every value of the selection (of the whole day where one cell is chosen) changed by a rule. */
function change(rule: (value: number) => number): void {
  if (first.value === last.value) {
    void keep(moved(draft.value, rule, props.kind.low, props.kind.high));
    return;
  }
  let steps = draft.value;
  for (let cell = first.value; cell <= last.value; cell++) {
    const [, value] = moved([[1440, rule(cells.value[cell] ?? 0)]], (v) => v, props.kind.low, props.kind.high)[0]!;
    steps = paint(steps, cell * width.value, (cell + 1) * width.value, value);
  }
  void keep(steps);
} // prettier-ignore

function onKey(event: KeyboardEvent): void {
  const count = cells.value.length;
  if (event.ctrlKey || event.metaKey) return;
  if (event.altKey && (event.key === "ArrowLeft" || event.key === "ArrowRight")) {
    later(event.key === "ArrowLeft" ? -1 : 1);
  } else if (event.key === "ArrowLeft" || event.key === "ArrowRight") {
    to.value = Math.max(0, Math.min(count - 1, to.value + (event.key === "ArrowLeft" ? -1 : 1)));
    if (!event.shiftKey) from.value = to.value;
    typed.value = "";
  } else if (event.key === "Home" || event.key === "End") {
    to.value = event.key === "Home" ? 0 : count - 1;
    if (!event.shiftKey) from.value = to.value;
  } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
    const by = event.key === "ArrowUp" ? props.kind.step : -props.kind.step;
    const now = cells.value[first.value] ?? 0;
    setSelection(Number(Math.max(props.kind.low, Math.min(props.kind.high, now + by)).toPrecision(10)));
  } else if (event.key.toLowerCase() === "m" && over.value) mirror();
  else if (/^[-\d.,]$/.test(event.key)) typed.value += event.key.replace(",", ".");
  else if (event.key === "Backspace") typed.value = typed.value.slice(0, -1);
  else if (event.key === "Escape") typed.value = "";
  else if (event.key === "Enter" && typed.value) {
    const value = writing.value.store(Number(typed.value));
    if (value >= props.kind.low && value <= props.kind.high) setSelection(value);
    else fault.value = `${typed.value} ${unit.value} is outside what a value may be.`;
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
  const { low, high: most } = props.kind;
  if (![24, 48, 96, 1440].includes(values.length) || values.some((value) => !(value >= low && value <= most))) {
    fault.value = `Paste a row of 24, 48, 96 or 1440 numbers between ${low} and ${most}.`;
    return;
  }
  const minutes = 1440 / values.length;
  let steps: Steps = [[1440, values[0] ?? 0]];
  values.forEach((value, i) => (steps = paint(steps, i * minutes, (i + 1) * minutes, value)));
  void keep(steps);
} // prettier-ignore

async function readLine(): Promise<void> {
  try {
    await keep(fromLine(line.value, writing.value));
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
      <g v-for="tick in ticks" :key="tick.share">
        <line
          x1="0"
          :x2="W"
          :y1="H - 10 - tick.share * (H - 20)"
          :y2="H - 10 - tick.share * (H - 20)"
          stroke="var(--hair)"
        />
      </g>
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
      <path
        v-if="over"
        :d="outline"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="5 3"
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
      <text v-if="over" :x="W - 4" y="8" text-anchor="end">laid over: {{ over.group }}, {{ over.name }}</text>
      <text v-for="tick in ticks" :key="`t${tick.share}`" x="3" :y="H - 13 - tick.share * (H - 20)">
        {{ tick.text }} {{ unit }}
      </text>
    </svg>
    <div
      class="ribbon"
      role="application"
      tabindex="0"
      aria-label="Ribbon of hours"
      @keydown="onKey"
      @paste="onPaste"
    >
      <template v-if="cells.length <= 96">
        <span
          v-for="(value, i) in cells"
          :key="i"
          :class="{ on: i >= first && i <= last }"
          @click="((to = i), $event.shiftKey || (from = i))"
          >{{ cells.length > 48 ? "" : Number(toShown(value, kind.quantity, view.system).toFixed(1)) }}</span
        >
      </template>
      <span v-else class="on">
        {{ String(Math.floor(first / 60)).padStart(2, "0") }}:{{ String(first % 60).padStart(2, "0") }}
        {{ format(cells[first], kind.quantity, view.system) }} {{ unit }}
      </span>
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
    <p class="tools">
      <span class="switch" role="group" aria-label="Step width"
        ><button
          v-for="w in [60, 30, 15, 1] as const"
          :key="w"
          :aria-pressed="width === w"
          @click="width = w"
        >
          {{ w }}
        </button></span
      >
      <span class="soft">min</span>
      <button class="act" title="The selection, or the whole day; Alt+←" @click="later(-1)">earlier</button>
      <button class="act" title="The selection, or the whole day; Alt+→" @click="later(1)">later</button>
      <button class="act" @click="change((v) => v - kind.step)">
        −
        {{
          Number(
            toShown(
              kind.step,
              kind.quantity === "temperature" ? "temperature_difference" : kind.quantity,
              view.system,
            ).toFixed(2),
          )
        }}
      </button>
      <button class="act" @click="change((v) => v + kind.step)">
        +
        {{
          Number(
            toShown(
              kind.step,
              kind.quantity === "temperature" ? "temperature_difference" : kind.quantity,
              view.system,
            ).toFixed(2),
          )
        }}
      </button>
      <template v-if="kind.quantity === 'percent' || kind.quantity === 'power'">
        <button class="act" @click="change((v) => v * 0.9)">× 0.9</button>
        <button class="act" @click="change((v) => v * 1.1)">× 1.1</button>
      </template>
      <b v-if="typed">{{ typed }} {{ unit }}, Enter sets it</b>
    </p>
    <p class="tools">
      <select v-if="others.length" v-model="overlay" aria-label="Lay another pattern over">
        <option value="">lay over …</option>
        <optgroup v-for="group in groups" :key="group" :label="group">
          <option
            v-for="item in others.filter((other) => other.group === group)"
            :key="item.id"
            :value="item.id"
          >
            {{ item.name }}
          </option>
        </optgroup>
      </select>
      <button v-if="over" class="act" title="Mirror from it; M in the ribbon" @click="mirror">
        take {{ several ? "hours" : "day" }} from it
      </button>
      <span class="soft small hint"
        >Sweep over the skyline or write the line. In the ribbon: arrows, Shift extends, figures, ↑ ↓, Alt+← →
        moves, Ctrl+V pastes.</span
      >
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
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  pointer-events: none;
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
  margin: 0 0 3px;
}
.line {
  width: 100%;
  border: 1px solid var(--ink);
  background: var(--field);
  padding: 3px 9px;
  font-family: var(--narrow);
  font-size: 15px;
  margin-bottom: 5px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.tools select {
  max-width: 104px;
  border: 1px solid var(--line);
  background: var(--field);
  height: 27px;
}
.small {
  font-size: 12px;
}
.hint {
  flex: 1;
  line-height: 1.25;
}
</style>
