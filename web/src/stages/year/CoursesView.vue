<script setup lang="ts">
/** Any course of the year: day by hour as a carpet, sorted as a duration curve, and a week to move through. */
import { useDocument } from "@/document/store";
import { useYear, type YearSummary } from "@/document/year";
import CarpetAxes from "@/parts/CarpetAxes.vue";
import ChartBox from "@/parts/ChartBox.vue";
import Choice from "@/parts/Choice.vue";
import Figure from "@/parts/Figure.vue";
import { saveFile } from "@/parts/saveFile";
import { tone } from "@/parts/tones";
import { format, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { coursesOf, quantityOf } from "./courses";
import { dayText, hourText } from "./hours";

const props = defineProps<{ summary: YearSummary }>();
const course = defineModel<string>({ required: true });
const doc = useDocument();
const year = useYear();
const view = useView();
const values = ref<number[]>([]);
const week = ref(0);
const canvas = ref<HTMLCanvasElement | null>(null);
const interval = ref<"hour" | "day" | "month" | "year">("hour");
const energy = ref("");
const courses = computed(() => coursesOf(doc, props.summary));
const name = computed(() => courses.value.find((one) => one.value === course.value)?.label ?? "");
const quantity = computed(() => quantityOf(course.value));
const days = computed(() => Math.floor(values.value.length / 24));
const WEEK = 168;
const weeks = computed(() => Math.max(0, Math.ceil(values.value.length / WEEK) - 1));

watch(
  [course, () => year.run, courses],
  async ([wanted]) => {
    if (!courses.value.some((one) => one.value === wanted)) {
      course.value = courses.value[0]?.value ?? "";
      return;
    }
    const found = await year.series(wanted);
    if (course.value !== wanted) return;
    const fresh = name.value !== shownFor;
    shownFor = name.value;
    values.value = found;
    if (fresh) week.value = Math.min(weeks.value, Math.floor(found.indexOf(Math.max(...found)) / WEEK));
    await nextTick();
    draw();
  },
  { immediate: true },
);
let shownFor = "";
watch(
  () => view.dark,
  () => requestAnimationFrame(draw),
);

const low = computed(() => Math.min(...values.value, quantity.value === "temperature" ? Infinity : 0));
const high = computed(() => Math.max(...values.value, low.value + 1e-9));
/** Days across, hours upwards: from the ground to the full colour. */
function draw(): void {
  const target = canvas.value?.getContext("2d");
  if (!target || !days.value) return;
  const cold = quantity.value === "temperature" ? rgb(tone("tide")) : rgb(tone("paper"));
  const warm = course.value.includes("cooling") ? rgb(tone("tide")) : rgb(tone("ember"));
  const middle = quantity.value === "temperature" ? rgb(tone("paper")) : null;
  const image = target.createImageData(days.value, 24);
  values.value.forEach((value, hour) => {
    const share = (value - low.value) / (high.value - low.value);
    const colour = middle
      ? share < 0.5
        ? mix(cold, middle, share * 2)
        : mix(middle, warm, share * 2 - 1)
      : mix(cold, warm, share);
    image.data.set([...colour, 255], ((23 - (hour % 24)) * days.value + Math.floor(hour / 24)) * 4);
  });
  target.putImageData(image, 0, 0);
}
function rgb(hex: string): number[] {
  return [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));
}
function mix(from: number[], to: number[], share: number): number[] {
  return from.map((value, i) => value + ((to[i] ?? 0) - value) * share);
}
onMounted(draw);

const told = (value: number) =>
  `${format(value, quantity.value, view.system)} ${unitOf(quantity.value, view.system)}`;
const hovered = ref("");
function over(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const day = Math.min(days.value - 1, Math.floor(((event.clientX - box.left) / box.width) * days.value));
  const hour = 23 - Math.min(23, Math.max(0, Math.floor(((event.clientY - box.top) / box.height) * 24)));
  const value = values.value[day * 24 + hour];
  hovered.value =
    value === undefined ? "" : `${hourText(props.summary.year, day * 24 + hour)}: ${told(value)}`;
}
function toWeek(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  week.value = Math.min(weeks.value, Math.floor((((event.clientX - box.left) / box.width) * days.value) / 7));
}
function move(by: number): void {
  week.value = Math.max(0, Math.min(weeks.value, week.value + by));
}
function onKey(event: KeyboardEvent): void {
  if (!event.altKey || (event.key !== "ArrowLeft" && event.key !== "ArrowRight")) return;
  event.preventDefault();
  move(event.key === "ArrowLeft" ? -1 : 1);
}
onMounted(() => window.addEventListener("keydown", onKey));
onBeforeUnmount(() => window.removeEventListener("keydown", onKey));

const shownValues = (all: number[]) =>
  all.map((value) => Number(toShown(value, quantity.value, view.system).toPrecision(5)));
const colour = computed(() => (course.value.includes("cooling") ? "tide" : "ember"));
const weekOption = computed(() => {
  const from = week.value * WEEK;
  const data = shownValues(values.value.slice(from, from + WEEK));
  const names = data.map((_, hour) => hourText(props.summary.year, from + hour));
  return (paint: (name: string) => string) => ({
    xAxis: {
      type: "category",
      data: names,
      axisLabel: {
        color: paint("soft"),
        interval: (index: number) => index % 24 === 0,
        formatter: (_: string, index: number) => dayText(props.summary.year, Math.floor((from + index) / 24)),
      },
    },
    yAxis: { type: "value", scale: quantity.value === "temperature", name: unitOf(quantity.value, view.system) },
    series: [{ name: name.value, type: "line", step: "middle", showSymbol: false, data, lineStyle: { width: 1.6, color: paint(colour.value) }, itemStyle: { color: paint(colour.value) } }],
  }); // prettier-ignore
});
const durationOption = computed(() => {
  const sorted = shownValues([...values.value].sort((a, b) => b - a));
  const data = sorted.flatMap((value, hour) =>
    hour % 12 === 0 || hour === sorted.length - 1 ? [[hour, value]] : [],
  );
  return (paint: (name: string) => string) => ({
    grid: { left: 48, right: 30, top: 28, bottom: 24 },
    xAxis: { type: "value", max: values.value.length, interval: 2000, axisLabel: { color: paint("soft"), showMaxLabel: false, formatter: (h: number) => `${h} h` } },
    yAxis: { type: "value", scale: quantity.value === "temperature", name: unitOf(quantity.value, view.system) },
    series: [{ name: name.value, type: "line", showSymbol: false, data, areaStyle: { opacity: 0.12 }, lineStyle: { width: 1.6, color: paint(colour.value) }, itemStyle: { color: paint(colour.value) } }],
  }); // prettier-ignore
});
const isPower = computed(() => quantity.value === "load");
const total = computed(() => values.value.reduce((sum, value) => sum + value, 0) / 1000);
const mean = computed(
  () => values.value.reduce((sum, value) => sum + value, 0) / Math.max(values.value.length, 1),
);
const INTERVALS = [
  { value: "hour", label: "each hour" },
  { value: "day", label: "each day" },
  { value: "month", label: "each month" },
  { value: "year", label: "the year" },
];
const UNITS = computed(() => [
  { value: "", label: `mean ${unitOf(quantity.value, view.system)}` },
  ...(isPower.value ? ["kWh", "MJ", "kBtu", "therm"].map((unit) => ({ value: unit, label: unit })) : []),
]);
watch(isPower, (power) => {
  if (!power) energy.value = "";
});
function save(): void {
  const query = new URLSearchParams({ name: course.value, interval: interval.value, system: view.system });
  if (energy.value) query.set("energy", energy.value);
  saveFile(`/api/projects/${doc.projectId}/year/series.csv?${query}`);
}
</script>

<template>
  <div class="courses">
    <div class="tools">
      <Choice v-model="course" class="what" label="Course" :choices="courses" />
      <span class="soft"
        >lowest <Figure :value="Math.min(...values)" :quantity="quantity" />, mean
        <Figure :value="mean" :quantity="quantity" />, highest <Figure :value="high" :quantity="quantity" />
        <template v-if="isPower">, in all <Figure :value="total" quantity="yearly_energy" /></template>
      </span>
      <span class="grow" />
      <Choice v-model="interval" label="Interval of the CSV" :choices="INTERVALS" />
      <Choice v-model="energy" label="Unit of the CSV" :choices="UNITS" />
      <Act @click="save">Export CSV</Act>
    </div>
    <div class="carpet">
      <CarpetAxes :year="summary.year" :days="days || 365">
        <canvas
          ref="canvas"
          :width="days || 1"
          height="24"
          role="img"
          :aria-label="`Carpet of ${name}: days across, hours upwards`"
          @pointermove="over"
          @pointerleave="hovered = ''"
          @click="toWeek"
        />
      </CarpetAxes>
      <p class="soft said">{{ hovered || "days across, hours upwards; a click goes to the week" }}</p>
    </div>
    <div class="week">
      <div class="tools">
        <Act aria-label="Week before" @click="move(-1)">‹</Act>
        <b>Week from {{ dayText(summary.year, week * 7) }}</b>
        <Act aria-label="Week after" @click="move(1)">›</Act>
        <v-slider v-model="week" class="slide" :min="0" :max="weeks" :step="1" aria-label="Week" />
      </div>
      <ChartBox class="drawn" :label="`Week of ${name}`" :option="weekOption" />
    </div>
    <div class="duration">
      <div class="tools"><b>Hours, sorted</b><span class="soft">how long it is at least so much</span></div>
      <ChartBox class="drawn" :label="`Duration curve of ${name}`" :option="durationOption" />
    </div>
  </div>
</template>

<style scoped>
.courses {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template:
    "tools tools" auto "carpet carpet" auto "week duration" minmax(0, 1fr) / minmax(0, 5fr)
    minmax(0, 3fr);
}
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 12px;
  flex-wrap: wrap;
}
.courses > .tools {
  grid-area: tools;
}
.grow {
  flex: 1;
}
.what {
  flex: 0 0 300px;
}
.carpet {
  grid-area: carpet;
  padding: 0 12px;
  border-bottom: 1px solid var(--line);
}
canvas {
  width: 100%;
  height: 150px;
  image-rendering: pixelated;
  border: 1px solid var(--line);
  display: block;
}
.said {
  margin: 0;
  padding-left: 22px;
  font-size: 12px;
  min-height: 18px;
}
.week {
  grid-area: week;
}
.duration {
  grid-area: duration;
  border-left: 1px solid var(--line);
}
.week,
.duration {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.drawn {
  flex: 1;
}
.slide {
  flex: 1 1 120px;
}
</style>
