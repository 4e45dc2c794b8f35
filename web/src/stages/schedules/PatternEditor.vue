<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import Choice from "@/parts/Choice.vue";
import { Refusal } from "@/api/client";
import {
  fromLine,
  fromRow,
  moved,
  paint,
  shifted,
  slid,
  taken,
  toCells,
  toLine,
  type Steps,
} from "@/parts/pattern";
import { toShown } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import HourRibbon from "./HourRibbon.vue";
import { writingOf, type ScheduleKind } from "./kinds";
import SkylineView from "./SkylineView.vue";

const props = defineProps<{
  steps: Steps;
  kind: ScheduleKind;
  /** Patterns to lay over or to take from: of this schedule, and of others of its kind. */
  others: { id: string; name: string; group: string; steps: Steps }[];
  /** Saves the pattern; throws when it is refused. */
  save: (steps: Steps) => Promise<void>;
}>();
const emit = defineEmits<{
  /** The selected stretch, minutes of the day, with the pattern as it is shown. */
  stretch: [start: number, end: number, steps: Steps];
}>();
const view = useView();
const WIDTHS = [60, 30, 15, 1] as const;
const width = ref<(typeof WIDTHS)[number]>(60);
/** The pattern while it is edited: skyline, ribbon and line show it alike. */
const draft = ref<Steps>(props.steps);
const line = ref("");
const fault = ref("");
const from = ref(0);
const to = ref(0);
const overlay = ref("");
const writing = computed(() => writingOf(props.kind, view.system));
const cells = computed(() => toCells(draft.value, width.value));
const over = computed(() => {
  const item = props.others.find((other) => other.id === overlay.value);
  return item ? { name: `${item.group}, ${item.name}`, steps: item.steps } : null;
});
const overlays = computed(() => [
  { value: "", label: "lay over …" },
  ...props.others.map((item) => ({ value: item.id, label: `${item.group}, ${item.name}` })),
]);
const start = computed(() => Math.min(from.value, to.value) * width.value);
const end = computed(() => (Math.max(from.value, to.value) + 1) * width.value);
const several = computed(() => from.value !== to.value);
/** One step of the kind, as it is shown. */
const step = computed(() => {
  const quantity = props.kind.quantity === "temperature" ? "temperature_difference" : props.kind.quantity;
  return Number(toShown(props.kind.step, quantity, view.system).toFixed(2));
});

watch(
  () => [props.steps, writing.value],
  () => {
    draft.value = props.steps;
    line.value = toLine(props.steps, writing.value);
  },
  { immediate: true },
);
watch([start, end, draft], () => emit("stretch", start.value, end.value, draft.value), { immediate: true });
watch(width, () => select(0, 0));

function select(a: number, b: number): void {
  from.value = a;
  to.value = b;
}

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

function set(value: number): void {
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
  select(from.value + sign, to.value + sign);
}

/** Take the selection, or the day where one cell is chosen, from the pattern laid over. */
function mirror(): void {
  const other = over.value?.steps;
  if (other) void keep(several.value ? taken(draft.value, other, start.value, end.value) : other);
}

/** Every value of the selection, or of the day where one cell is chosen, changed by a rule. */
function change(rule: (value: number) => number): void {
  const { low, high } = props.kind;
  const changed = moved(draft.value, rule, low, high);
  void keep(several.value ? taken(draft.value, changed, start.value, end.value) : changed);
}

/** Save what text says, or tell why it cannot be read. */
async function read(parse: () => Steps): Promise<void> {
  try {
    await keep(parse());
  } catch (error) {
    fault.value = error instanceof Error ? error.message : String(error);
  }
}
const paste = (text: string) => read(() => fromRow(text, writing.value));
const readLine = () => read(() => fromLine(line.value, writing.value));
</script>

<template>
  <div>
    <SkylineView
      :steps="draft"
      :kind="kind"
      :width="width"
      :start="start"
      :end="end"
      :over="over"
      @paint="draft = $event"
      @done="keep(draft)"
    />
    <HourRibbon
      :cells="cells"
      :kind="kind"
      :from="from"
      :to="to"
      @select="select"
      @set="set"
      @later="later"
      @mirror="mirror"
      @paste="paste"
      @fault="fault = $event"
    />
    <v-text-field
      v-model="line"
      class="line"
      label="Pattern as one line"
      :hint="`From–to and value, from 00 to 24, as in 00–07 ${writing.show(kind.low)}, 07:30–18 ${writing.show(kind.high)}`"
      @keydown.enter="readLine"
      @change="readLine"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }} The pattern as it was is kept.</p>
    <p class="tools">
      <Segments
        v-model="width"
        label="Step width"
        :choices="WIDTHS.map((value) => ({ value, label: String(value) }))"
      />
      <span class="soft">min</span>
      <Act title="The selection, or the whole day; Alt+←" @click="later(-1)">earlier</Act>
      <Act title="The selection, or the whole day; Alt+→" @click="later(1)">later</Act>
      <Act @click="change((v) => v - kind.step)">− {{ step }}</Act>
      <Act @click="change((v) => v + kind.step)">+ {{ step }}</Act>
      <template v-if="kind.quantity === 'percent' || kind.quantity === 'power'">
        <Act @click="change((v) => v * 0.9)">× 0.9</Act>
        <Act @click="change((v) => v * 1.1)">× 1.1</Act>
      </template>
    </p>
    <p class="tools">
      <Choice v-if="others.length" v-model="overlay" label="Lay another pattern over" :choices="overlays" />
      <Act v-if="over" title="Mirror from it; M in the ribbon" @click="mirror">
        take {{ several ? "hours" : "day" }} from it
      </Act>
      <span class="soft small hint"
        >Sweep over the skyline or write the line. In the ribbon: arrows, Shift extends, figures, ↑ ↓, Alt+← →
        moves, Ctrl+V pastes.</span
      >
    </p>
  </div>
</template>

<style scoped>
.line {
  font-family: var(--narrow);
  margin: 8px 0 5px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.small {
  font-size: 12px;
}
.hint {
  flex: 1;
  line-height: 1.25;
}
</style>
