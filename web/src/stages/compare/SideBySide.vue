<script setup lang="ts">
/** Figures that differ between the base and its options, the largest change first; the building's peaks by source. */
import Segments from "@/parts/Segments.vue";
import ChartBox from "@/parts/ChartBox.vue";
import Choice from "@/parts/Choice.vue";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { source } from "@/parts/sources";
import { clock, format, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { change, distance, type Comparison, type FigureRow } from "./compare";
import DayCurves from "./DayCurves.vue";
import KeyFigures from "./KeyFigures.vue";

const props = defineProps<{ found: Comparison }>();
const emit = defineEmits<{ calculated: [] }>();
const view = useView();
const group = ref("");
const season = ref<"cooling" | "heating" | "day">("cooling");
const SHOWN = { cooling: "Cooling by source", heating: "Heating by source", day: "Over the day" } as const;

const groups = computed(() => [
  { value: "", label: "all figures" },
  ...[...new Set(props.found.rows.map((row) => row.group))].map((value) => ({ value, label: value })),
]);
type Row = FigureRow & { id: string; key: string };
const rows = computed<Row[]>(() =>
  props.found.rows
    .filter((row) => !group.value || row.group === group.value)
    .map((row) => ({ ...row, key: `${row.kind}/${row.id}/${row.figure}` }))
    .map((row) => ({ ...row, of: row.id, id: row.key }))
    .sort((a, b) => distance(b) - distance(a)),
);
function shown(row: FigureRow, at: number): string {
  const value = row.values[at];
  if (value === null || value === undefined) return "–";
  const note = row.notes?.[at];
  return `${format(value, row.quantity, view.system)} ${unitOf(row.quantity, view.system)}${note ? `, ${note}` : ""}`;
}
const columns = computed<Column<Row>[]>(() => [
  { key: "group", title: "Part", width: 120, value: (r) => r.group },
  { key: "name", title: "Of", width: 300, value: (r) => r.name },
  { key: "figure", title: "Figure", width: 140, value: (r) => r.figure },
  ...props.found.columns.flatMap((column, at): Column<Row>[] => [
    { key: `v${at}`, title: column.name, width: 124, value: (r) => r.values[at], text: (r) => shown(r, at) },
    ...(at ? [{ key: `d${at}`, title: "change", width: 74, value: (r: Row) => change(r.values[0], r.values[at]) }] : []),
  ]),
]); // prettier-ignore

/** A row of a room or group chooses whose loads are drawn by source. */
function choose(row: Row): void {
  const of = props.found.rows.find((one) => `${one.kind}/${one.id}/${one.figure}` === row.key);
  if (of && (of.kind === "room" || of.kind === "group")) view.subject = { kind: of.kind, id: of.id };
}
const option = computed(() => {
  const { columns: all, parts, categories } = props.found;
  const which = season.value === "heating" ? "heating" : "cooling";
  const unit = unitOf("load", view.system);
  const used = categories
    .map((name, at) => ({ name, values: all.map((column) => parts[column.id]?.[which][at] ?? 0) }))
    .filter((row) => row.values.some((value) => Math.abs(value) > 1));
  return (tone: (name: string) => string) => ({
    legend: {
      type: "scroll",
      top: 0,
      itemWidth: 12,
      itemHeight: 9,
      textStyle: { color: tone("ink"), fontSize: 12 },
    },
    grid: { left: 120, right: 20, top: 30, bottom: 24 },
    tooltip: { trigger: "item", confine: true, backgroundColor: tone("paper"), textStyle: { color: tone("ink") } },
    xAxis: { type: "value", name: unit, nameLocation: "end", splitLine: { lineStyle: { color: tone("hair") } } },
    yAxis: { type: "category", inverse: true, data: all.map((column) => column.name), axisLabel: { color: tone("ink"), width: 108, overflow: "truncate" } },
    series: used.map((row) => ({
      name: source(row.name).name,
      type: "bar",
      stack: "all",
      barMaxWidth: 26,
      itemStyle: { color: tone(row.name.replace(" ", "-")) },
      data: row.values.map((value) => Number(toShown(value, "load", view.system).toPrecision(4))),
    })),
  }); // prettier-ignore
});
const when = computed(() =>
  props.found.columns
    .map((column) => {
      const of = props.found.parts[column.id];
      return of ? `${column.name}: ${MONTHS[of.month - 1]} ${clock(of.step)}` : "";
    })
    .filter(Boolean)
    .join(", "),
);
</script>

<template>
  <div class="side">
    <div class="top">
      <KeyFigures :found="found" @calculated="emit('calculated')" />
      <section class="drawn">
        <div class="tools">
          <Segments v-model="season" label="Drawn" :choices="SHOWN" />
          <b v-if="season !== 'day'">{{ found.subject.name }}</b>
          <span v-if="season === 'cooling'" class="soft">{{ when }}</span>
        </div>
        <DayCurves
          v-if="season === 'day'"
          class="chart"
          :columns="found.columns"
          :month="view.month || 7"
          :of="found.subject"
        />
        <ChartBox
          v-else
          class="chart"
          :label="`${SHOWN[season]} of ${found.subject.name}`"
          :option="option"
        />
      </section>
    </div>
    <div class="tools line">
      <Choice v-model="group" label="Figures shown" :choices="groups" />
      <span class="soft"
        >{{ rows.length }} figures differ, {{ found.same }} are the same; largest change first</span
      >
    </div>
    <div class="grid">
      <DataGrid
        v-if="rows.length"
        label="Figures that differ"
        :columns="columns"
        :rows="rows"
        @select="choose($event)"
      />
      <p v-else class="empty">Nothing differs yet: change something in an option.</p>
    </div>
  </div>
</template>

<style scoped>
.side {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.top {
  flex: 5;
  min-height: 240px;
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
}
.drawn {
  border-left: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.chart {
  flex: 1;
  min-height: 0;
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 12px;
}
.line {
  border-top: 1px solid var(--ink);
}
.grid {
  flex: 4;
  min-height: 150px;
  overflow: hidden;
  border-top: 1px solid var(--line);
}
</style>
