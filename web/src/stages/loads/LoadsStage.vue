<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import Choice from "@/parts/Choice.vue";
import { useBaseLoads } from "@/document/baseLoads";
import { useOptions } from "@/document/options";
import { useDocument } from "@/document/store";
import ActionMenu from "@/parts/ActionMenu.vue";
import DataGrid from "@/parts/DataGrid.vue";
import DetailsButton from "@/parts/DetailsButton.vue";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import { saveFile } from "@/parts/saveFile";
import SourceStrip from "@/parts/SourceStrip.vue";
import { useResults } from "@/results/store";
import { clock, format, MONTHS, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, toRef } from "vue";
import { useRouter } from "vue-router";
import BreakdownBars from "./BreakdownBars.vue";
import LoadsPaper from "./LoadsPaper.vue";
import YardstickList from "./YardstickList.vue";
import { loadRows, type LoadRow } from "./rows";

const doc = useDocument();
const results = useResults();
const view = useView();
const router = useRouter();
const base = useBaseLoads();
const options = useOptions();
const mode = toRef(view, "season");
const MODES = { cooling: "Cooling", heating: "Heating" };
const ROWS = {
  most: "all but uses",
  room: "rooms",
  level: "levels",
  zone: "zones",
  use: "uses",
  air_system: "air systems",
};
type RowsOf = keyof typeof ROWS;
const rowChoices = Object.entries(ROWS).map(([value, label]) => ({ value: value as RowsOf, label }));
const shows = ref<keyof typeof ROWS>("most");
const all = computed(() => loadRows());
const rows = computed(() =>
  all.value.filter(
    (row) =>
      row.kind === "building" || (shows.value === "most" ? row.kind !== "use" : row.kind === shows.value),
  ),
);
const chosen = computed(() => all.value.find((row) => row.id === view.subject.id));

function when(row: LoadRow): string {
  if (!row.peak) return row.floating ? `${MONTHS[row.floating.month - 1]} ${clock(row.floating.step)}` : "–";
  return `${MONTHS[row.peak.month - 1]} ${clock(row.peak.step)}`;
}
/** Of rooms and of groups alike. */
const both = (what: string) => (row: LoadRow) => ({
  quantity: `${row.isRoom ? "room" : "group"}_${what}`,
  subject: row.id,
});
/** What an option makes of the base's loads; what is the same is left out. */
const NOTICED_W = 0.5;
function since(key: string, value: (row: LoadRow) => number | null): Column<LoadRow> {
  const text = (row: LoadRow) => {
    const change = value(row);
    if (change === null || Math.abs(change) < NOTICED_W) return "–";
    return `${change > 0 ? "+" : "−"}${format(Math.abs(change), "load", view.system)}`;
  };
  return { key, title: "to base", quantity: "load", width: 74, value, text };
}
const toBase = computed(() =>
  base.loads
    ? [
        since("cooling_since", (r) => signed(r.peak?.sensible_w, base.of(r.id)?.cooling_w)),
        since("heating_since", (r) => signed(r.heating_w, base.of(r.id)?.heating_w)),
      ]
    : [],
);
function signed(now: number | undefined | null, before: number | undefined | null): number | null {
  return now == null || before == null ? null : now - before;
}
/** Go on in an option: what the loads are now stays in the base, beside what they become. */
async function goOn(): Promise<void> {
  const taken = new Set(options.options.map((option) => option.name));
  let number = options.options.length + 1;
  while (taken.has(`Option ${number}`)) number += 1;
  try {
    const made = await options.create(`Option ${number}`);
    await router.push(`/${made.id}/loads`);
  } catch (error) {
    doc.message = error instanceof Error ? error.message : String(error);
  }
}

const columns = computed<Column<LoadRow>[]>(() => [
  { key: "number", title: "No.", width: 44, value: (r) => r.number },
  { key: "name", title: "Room", width: 100, value: (r) => r.name },
  { key: "cooling", title: "cooling", quantity: "load", width: 76, value: (r) => r.peak?.sensible_w, prior: (r) => r.prior?.cooling_w,
    text: undefined, explain: (r) => (r.peak ? both("cooling")(r) : null) },
  ...toBase.value.slice(0, 1),
  { key: "when", title: "when", width: 84, value: when, text: when },
  { key: "per_area", title: "by area", quantity: "power_per_area", width: 62, value: (r) => (r.peak && r.area_m2 ? r.peak.sensible_w / r.area_m2 : null),
    explain: (r) => (r.peak ? both("cooling_per_area")(r) : null) },
  { key: "latent", title: "latent", quantity: "load", width: 60, value: (r) => r.peak?.latent_w, explain: (r) => (r.peak ? both("latent")(r) : null) },
  { key: "air", title: "outdoor", quantity: "load", width: 66, value: (r) => r.outdoor_air_w, explain: (r) => (r.outdoor_air_w === null ? null : both("outdoor_air")(r)) },
  { key: "heating", title: "heating", quantity: "load", width: 72, value: (r) => r.heating_w, prior: (r) => r.prior?.heating_w, explain: both("heating") },
  ...toBase.value.slice(1),
  { key: "supply", title: "supply", quantity: "airflow", width: 64, value: (r) => r.flow_m3_s, prior: (r) => r.prior?.flow_m3_s, explain: (r) => (r.flow_m3_s ? both("airflow")(r) : null) },
  { key: "sources", title: "sources", width: 80, value: () => null },
]); // prettier-ignore

function toPlan(): void {
  void router.push({ path: `/${doc.projectId}/rooms`, query: { at: "plan/now" } });
}
const print = () => window.print();
const FORMS = [
  { value: "xlsx", title: "XLSX" },
  { value: "csv", title: "CSV" },
];
/** All rows with figures and sources as a file, in the units shown. */
const save = (form: string) => saveFile(`/api/projects/${doc.projectId}/loads.${form}?units=${view.system}`);

function select(row: LoadRow): void {
  view.subject = { kind: row.isRoom ? "room" : "group", id: row.id };
}

/** Peaks that the selection is part of, own and coincident. */
const peaks = computed(() => {
  const id = view.selectedRoom;
  const room = doc.get("room", id);
  const ids = room
    ? [room.id, room.level, room.zone, room.use, room.air_system, "building"]
    : [
        "building",
        ...results
          .rows("group")
          .filter(([, g]) => g.kind !== "use" && g.kind !== "building")
          .map(([key]) => key),
      ];
  return ids.flatMap((key) => all.value.filter((row) => row.id === key));
});
const building = computed(() => results.get("group", "building"));
</script>

<template>
  <LoadsPaper :rows="rows" :when="when" />
  <div class="page">
    <div class="head">
      <h1>Loads</h1>
      <Segments v-model="mode" label="Breakdown of" :choices="MODES" />
      <span class="grow" />
      <Choice v-model="shows" class="rows" label="Rows" :choices="rowChoices" />
      <Act
        v-if="!options.current"
        title="Change things in an option, and see its loads beside the base's"
        @click="goOn"
      >
        New option
      </Act>
      <Act title="Rooms on the plan, coloured by their load at the rail's hour" @click="toPlan"> Plan </Act>
      <DetailsButton />
      <ActionMenu label="Export loads" text="Export …" :items="FORMS" @choose="save" />
      <Act title="The loads as a list on paper" @click="print">Print</Act>
    </div>
    <p v-if="!all.length" class="empty">
      No room can be calculated yet. Rooms need a use, a floor area, a height and surfaces with assemblies;
      Snags (S) lists what is missing.
    </p>
    <template v-else>
      <div class="grid">
        <DataGrid
          label="Loads"
          :columns="columns"
          :rows="rows"
          :selected="view.subject.id"
          :strong="(row) => !row.isRoom"
          ranges
          @select="select"
        >
          <template #cell-sources="{ row }">
            <SourceStrip v-if="row.peak" :parts="row.peak.parts_w" :categories="results.categories" />
            <span v-else class="soft">{{ row.floating ? `air ${row.floating.text}` : "" }}</span>
          </template>
        </DataGrid>
      </div>
      <div v-if="view.detailsOpen" class="under">
        <BreakdownBars v-if="chosen" :row="chosen" :mode="mode" />
        <section class="peaks" aria-label="Peaks" tabindex="0">
          <h2>
            Peaks it belongs to <span class="unit">{{ unitOf("load", view.system) }}</span>
          </h2>
          <v-table class="plain">
            <thead>
              <tr>
                <th>of</th>
                <th class="num">cooling</th>
                <th>when</th>
                <th class="num">heating</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in peaks" :key="row.id">
                <td>
                  {{ row.name
                  }}<small v-if="row.kind === 'use' || row.kind === 'zone'" class="soft">
                    {{ row.kind }}</small
                  >
                </td>
                <td class="num"><Figure bare :value="row.peak?.sensible_w" quantity="load" /></td>
                <td>{{ when(row) }}</td>
                <td class="num"><Figure bare :value="row.heating_w" quantity="load" /></td>
              </tr>
            </tbody>
          </v-table>
          <p v-if="building" class="soft">
            Rooms' own peaks add to <Figure :value="building.sum_of_peaks_w" quantity="load" />; together they
            reach <Figure :value="building.cooling.sensible_w" quantity="load" />: diversity
            {{ building.diversity.toFixed(2) }}. Loads are without margin<template
              v-if="
                building.cooling_with_margin_w > building.cooling.sensible_w ||
                building.heating_with_margin_w > building.heating_w
              "
              >; with them, cooling
              <Figure :value="building.cooling_with_margin_w" quantity="load" />
              and heating
              <Figure :value="building.heating_with_margin_w" quantity="load" /></template
            >.
          </p>
          <YardstickList v-if="chosen" :row="chosen" />
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.head {
  flex-wrap: nowrap;
  gap: 7px;
}
.head .rows {
  flex: 0 0 126px;
}
.head .soft {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 899px) {
  .head {
    flex-wrap: wrap;
  }
}
.grid {
  flex: 1.25;
  min-height: 120px;
  border-bottom: 2px solid var(--ink);
  overflow: hidden;
}
.under {
  flex: 1;
  min-height: 190px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 296px;
}
.peaks {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: auto;
}
.peaks td,
.peaks th {
  height: 24px;
  padding: 1px 4px;
  white-space: nowrap;
}
.peaks td:first-child {
  max-width: 106px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.peaks small {
  margin-left: 4px;
}
.peaks p.soft {
  margin-top: 8px;
  font-size: 12px;
  font-family: var(--narrow);
}
</style>
