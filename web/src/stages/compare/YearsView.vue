<script setup lang="ts">
/** Years of options, weather and values of a field against each other, each a task that the workers share. */
import { client, Refusal, unwrap, type Schemas } from "@/api/client";
import { useOptions } from "@/document/options";
import { useDocument } from "@/document/store";
import ChartBox from "@/parts/ChartBox.vue";
import Choice from "@/parts/Choice.vue";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import MultiChoice from "@/parts/MultiChoice.vue";
import Segments from "@/parts/Segments.vue";
import { toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, onMounted, ref } from "vue";
import SweptFieldLine from "./SweptFieldLine.vue";
import { SWEEPABLE } from "./sweeps";
import { useSweptField } from "./sweptField";
import { drawn, FIGURES, isOpen, useYears, type YearPoint } from "./years";

const TYPICAL = "";
const BASE = "Base";
const TONES = ["ember", "tide", "sun", "drawn-air", "windows", "infiltration", "storage", "people"];
const COUNTS = [3, 4, 5, 6, 8].map((value) => ({ value, label: `${value} values` }));
const doc = useDocument();
const options = useOptions();
const view = useView();
const { years, load, ask, stop } = useYears(() => doc.projectId);
const files = ref<Schemas["WeatherFileOut"][]>([]);
const base = computed(() => options.base?.id ?? doc.projectId);
const columns = computed(() => [
  { value: base.value, label: BASE },
  ...options.options.map((option) => ({ value: option.id, label: option.name })),
]);
const weathers = computed(() => [
  ...files.value.map((file) => ({ value: file.id, label: file.name })),
  { value: TYPICAL, label: "twelve typical days" },
]);
const pickedOptions = ref<string[]>([]);
const pickedWeathers = ref<string[]>([]);
const trying = ref(false);
const count = ref(4);
const swept = useSweptField(SWEEPABLE.findIndex((one) => one.field === "heating_setpoint_c"));
const fault = ref("");
const shown = ref("delivered");
const NAMES = Object.fromEntries(Object.entries(FIGURES).map(([key, one]) => [key, one.name]));

onMounted(async () => {
  await options.load();
  const answer = await client.GET("/api/projects/{project_id}/weather/files", {
    params: { path: { project_id: base.value } },
  });
  if (answer.response.ok) files.value = unwrap(answer);
  pickedOptions.value = columns.value.map((one) => one.value);
  pickedWeathers.value = [files.value.find((file) => file.chosen)?.id ?? TYPICAL];
  await load();
});
const many = computed(
  () => pickedOptions.value.length * pickedWeathers.value.length * (trying.value ? count.value : 1),
);
async function calculate(): Promise<void> {
  fault.value = "";
  try {
    await ask({
      options: pickedOptions.value,
      weathers: pickedWeathers.value,
      field: trying.value ? swept.address.value : null,
      values: trying.value ? swept.values(count.value) : [],
    });
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
const points = computed(() =>
  years.value.points.map((one) => (one.option === base.value ? { ...one, option_name: BASE } : one)),
);
const open = computed(() => points.value.filter(isOpen));
const done = computed(
  () => points.value.reduce((sum, one) => sum + (isOpen(one) ? one.progress : 1), 0) / points.value.length,
);
const stale = computed(() => points.value.filter((point) => point.stale).length);
/** What was tried in the years that are shown. */
const tried = computed(() => {
  const of = years.value.field;
  return SWEEPABLE.find((one) => one.kind === of?.kind && one.field === of.field);
});
const chart = computed(() => {
  const figure = FIGURES[shown.value]!;
  const series = drawn(points.value, shown.value, (value) =>
    Number(toShown(value, figure.quantity, view.system).toPrecision(5)),
  );
  const by = tried.value;
  const x = (value: number | string) =>
    by && typeof value === "number" ? Number(toShown(value, by.quantity, view.system).toPrecision(4)) : value;
  return (tone: (name: string) => string) => ({
    legend: { top: 0, right: 8, textStyle: { color: tone("ink"), fontSize: 12 } },
    grid: { left: 70, right: 70, top: 34, bottom: 30 },
    xAxis: by
      ? { type: "value", scale: true, name: unitOf(by.quantity, view.system) }
      : { type: "category", data: [...new Set(points.value.map((point) => point.option_name))] },
    yAxis: { type: "value", scale: by !== undefined, name: unitOf(figure.quantity, view.system) },
    series: series.map((one, place) => ({
      name: one.name,
      type: by ? "line" : "bar",
      barMaxWidth: 46,
      symbolSize: 7,
      data: one.data.map(([at, value]) => [x(at), value]),
      lineStyle: { color: tone(TONES[place % TONES.length]!), width: 1.8 },
      itemStyle: { color: tone(TONES[place % TONES.length]!) },
    })),
  });
});
type Row = YearPoint & { id: string };
const rows = computed<Row[]>(() => points.value.map((point) => ({ ...point, id: point.task })));
const state = (row: Row) => {
  if (row.state === "running") return `${Math.round(row.progress * 100)} %`;
  if (row.fault) return row.fault;
  return row.stale ? "done, old" : row.state;
};
const grid = computed<Column<Row>[]>(() => [
  { key: "option", title: "Option", width: 170, value: (r) => r.option_name },
  { key: "weather", title: "weather", width: 190, value: (r) => r.weather_name },
  ...(tried.value
    ? [{ key: "value", title: tried.value.label, quantity: tried.value.quantity, width: 150, value: (r: Row) => r.value }]
    : []),
  { key: "state", title: "", width: 90, value: state },
  ...Object.entries(FIGURES).map(([key, one]) => ({
    key, title: one.name, quantity: one.quantity, width: 104, value: (r: Row) => (r.figures ? one.of(r.figures) : null),
  })),
]); // prettier-ignore
</script>

<template>
  <div class="tried">
    <div class="tools">
      <MultiChoice
        v-model="pickedOptions"
        class="pick"
        label="Options"
        :choices="columns"
        empty="no option"
      />
      <span class="soft">in</span>
      <MultiChoice
        v-model="pickedWeathers"
        class="pick"
        label="Weather"
        :choices="weathers"
        empty="no weather"
      />
      <v-checkbox v-model="trying" class="against" label="with values of a field" />
      <span class="grow" />
      <Act v-if="open.length" @click="stop">Stop</Act>
      <Act v-else :disabled="!many" @click="calculate"
        >Calculate {{ many === 1 ? "1 year" : `${many} years` }}</Act
      >
    </div>
    <div v-if="trying" class="tools">
      <SweptFieldLine :swept="swept" />
      <Choice v-model="count" label="How many values" :choices="COUNTS" />
    </div>
    <p v-if="fault" class="tools fault" role="alert">{{ fault }}</p>
    <v-progress-linear v-if="open.length" :model-value="done * 100" height="3" aria-label="Years" />
    <template v-if="points.length">
      <div class="tools line">
        <Segments v-model="shown" label="Figure drawn" :choices="NAMES" />
        <span v-if="open.length" class="soft" role="note"
          >{{ points.length - open.length }} of {{ points.length }} done</span
        >
        <span v-else-if="stale" class="soft" role="note"
          >{{ stale === 1 ? "1 year is" : `${stale} years are` }} older than what was entered since; calculate
          again</span
        >
      </div>
      <ChartBox class="chart" :label="`Years by ${FIGURES[shown]!.name}`" :option="chart" />
      <div class="grid">
        <DataGrid label="Years" :columns="grid" :rows="rows" />
      </div>
    </template>
    <p v-else class="empty">
      Choose options and weather, and values of a field where you like: the year of every combination is
      worked out, by as many workers as the server has. The document stays as it is; the years asked for last
      are kept. Weather files are kept side by side under Place, Weather.
    </p>
  </div>
</template>

<style scoped src="./tried.css"></style>
<style scoped>
.pick {
  flex: 0 1 260px;
}
</style>
