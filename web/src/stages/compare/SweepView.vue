<script setup lang="ts">
/** One field tried over a range, or two against each other: curves of what follows; a point can be kept as an option. */
import Segments from "@/parts/Segments.vue";
import { client, Refusal, unwrap, type Schemas } from "@/api/client";
import { useOptions } from "@/document/options";
import { newId, useDocument } from "@/document/store";
import ChartBox from "@/parts/ChartBox.vue";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import SweptFieldLine from "./SweptFieldLine.vue";
import { useSweptField } from "./sweptField";

type Point = Schemas["PointOut"];
const FIGURES = {
  heating_w: { name: "heating peak", quantity: "load", tone: "ember" },
  cooling_w: { name: "cooling peak", quantity: "load", tone: "tide" },
  coils_w: { name: "cooling coils", quantity: "load", tone: "windows" },
  airflow_m3_s: { name: "supply air", quantity: "airflow", tone: "drawn-air" },
  fans_w: { name: "fans", quantity: "electric_power", tone: "infiltration" },
  pumps_w: { name: "pumps", quantity: "electric_power", tone: "storage" },
  warmest_c: { name: "warmest without cooling", quantity: "temperature", tone: "sun" },
} as const;
const NAMES = Object.fromEntries(Object.entries(FIGURES).map(([key, figure]) => [key, figure.name]));
type FigureKey = keyof typeof FIGURES;
const COUNT = 7;
const MOST_LINES = 4;
const doc = useDocument();
const options = useOptions();
const router = useRouter();
const view = useView();
const points = ref<Point[]>([]);
const fault = ref("");
const busy = ref(false);
const row = ref("");
const shown = ref<FigureKey>("heating_w");

const main = useSweptField(0);
const other = useSweptField(2);
const two = ref(false);

async function sweep(): Promise<void> {
  busy.value = true;
  fault.value = "";
  try {
    const answer = unwrap(
      await client.POST("/api/projects/{project_id}/sweep", {
        params: { path: { project_id: doc.projectId } },
        body: {
          ...main.address.value,
          values: main.values(COUNT),
          other: two.value ? other.address.value : null,
          other_values: two.value ? other.values(MOST_LINES) : [],
        },
      }),
    );
    points.value = answer.points;
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
watch([main.thing, main.at, other.thing, other.at, two], () => (points.value = []));
const mixed = computed(() => new Set(points.value.map((point) => point.other)).size > 1);
const option = computed(() => {
  const figure = FIGURES[shown.value];
  const system = view.system;
  const quantity = main.field.value.quantity;
  const lines = [...new Set(points.value.map((point) => point.other))];
  const x = (value: number) => Number(toShown(value, quantity, system).toPrecision(4));
  const all = mixed.value ? [shown.value] : (Object.keys(FIGURES) as FigureKey[]).filter((key) => FIGURES[key].quantity === figure.quantity); // prettier-ignore
  const series = all.flatMap((key) =>
    lines.map((second, place) => ({
      name: mixed.value ? other.told(second) : FIGURES[key].name,
      tone: mixed.value ? ["ember", "sun", "drawn-air", "tide"][place % 4]! : FIGURES[key].tone,
      data: points.value
        .filter((point) => point.other === second && point[key] !== null)
        .map((point) => [
          x(point.value),
          Number(toShown(point[key]!, FIGURES[key].quantity, system).toPrecision(5)),
        ]),
    })),
  );
  return (tone: (name: string) => string) => ({
    legend: { top: 0, right: 8, textStyle: { color: tone("ink"), fontSize: 12 } },
    grid: { left: 62, right: 60, top: 34, bottom: 30 },
    xAxis: { type: "value", scale: true, name: unitOf(quantity, system) },
    yAxis: { type: "value", scale: true, name: unitOf(figure.quantity, system) },
    series: series.map((one) => ({
      name: one.name,
      type: "line",
      symbolSize: 7,
      data: one.data,
      lineStyle: { color: tone(one.tone), width: 1.8 },
      itemStyle: { color: tone(one.tone) },
    })),
  });
});
type Row = Point & { id: string };
const rows = computed<Row[]>(() => points.value.map((point, at) => ({ ...point, id: String(at) })));
const columns = computed<Column<Row>[]>(() => [
  { key: "value", title: main.field.value.label, width: 190, value: (r) => main.told(r.value) },
  ...(mixed.value ? [{ key: "other", title: other.field.value.label, width: 190, value: (r: Row) => other.told(r.other) }] : []),
  ...(Object.keys(FIGURES) as FigureKey[]).map((key) => ({
    key, title: FIGURES[key].name, quantity: FIGURES[key].quantity, width: 128, value: (r: Row) => r[key],
  })),
]); // prettier-ignore
const selected = computed(() => rows.value.find((one) => one.id === row.value));

/** Keep the chosen point: a new option with these values, opened. */
async function keep(): Promise<void> {
  const point = selected.value;
  if (!point) return;
  try {
    const name = `${main.field.value.label.split(": ")[1] ?? ""} ${main.told(point.value)}`.slice(0, 100);
    const taken = options.options.some((one) => one.name === name);
    const made = await options.create(taken ? `${name} (${newId().slice(0, 4)})` : name, options.current?.id);
    const change = (one: typeof main, value: number) => ({ op: "set" as const, kind: one.field.value.kind, id: one.thing.value, fields: { [one.field.value.field]: value } }); // prettier-ignore
    const { version } = unwrap(
      await client.GET("/api/projects/{option_id}/differences", { params: { path: { option_id: made.id } } }),
    );
    unwrap(
      await client.POST("/api/projects/{project_id}/changes", {
        params: { path: { project_id: made.id } },
        body: {
          base_version: version,
          label: "From a sweep",
          changes: [change(main, point.value), ...(point.other === null ? [] : [change(other, point.other)])],
        },
      }),
    );
    await router.push(`/${made.id}/compare`);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <div class="tried">
    <div class="tools">
      <SweptFieldLine :swept="main" />
      <v-checkbox v-model="two" class="against" label="against a second" />
      <Act :disabled="busy || !main.thing.value" @click="sweep">Sweep</Act>
      <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
    </div>
    <div v-if="two" class="tools">
      <SweptFieldLine :swept="other" second />
    </div>
    <template v-if="points.length">
      <div class="tools line">
        <Segments v-model="shown" label="Figure drawn" :choices="NAMES" />
      </div>
      <ChartBox class="chart" :label="`Sweep of ${main.field.value.label}`" :option="option" />
      <div class="tools line">
        <Act :disabled="!selected" @click="keep">Keep as an option</Act>
        <span class="soft">the chosen line; nothing of a sweep is kept otherwise</span>
      </div>
      <div class="grid">
        <DataGrid
          label="Points of the sweep"
          :columns="columns"
          :rows="rows"
          :selected="selected?.id"
          @select="row = $event.id"
        />
      </div>
    </template>
    <p v-else class="empty">
      Try one field over a range, or two against each other, and see what peaks and sizes become. The document
      stays as it is.
    </p>
  </div>
</template>

<style scoped src="./tried.css"></style>
