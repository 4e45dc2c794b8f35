<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import FileButton from "@/parts/FileButton.vue";
import { client, Refusal, unwrap } from "@/api/client";
import { sendFile } from "@/api/files";
import { useDocument } from "@/document/store";
import { useTasks, type Task } from "@/document/tasks";
import type { Change } from "@/document/types";
import { format, MONTHS, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, onMounted, ref, watch } from "vue";
import { type DerivedMonth, type Layout, type Weather, type WeatherLook } from "./weather";
import WeatherFiles from "./WeatherFiles.vue";
import WeatherMapping from "./WeatherMapping.vue";
import WeatherPlots from "./WeatherPlots.vue";

const doc = useDocument();
const view = useView();
const tasks = useTasks();
const weather = ref<Weather | null>(null);
/** Counts what may have changed the kept files. */
const revision = ref(0);
const look = ref<WeatherLook | null>(null);
const file = ref<File | null>(null);
const mapped = ref<{ layout: Layout; name: string } | null>(null);
const busy = ref("");
const fault = ref<{ title: string; faults: { field: string; message: string }[] } | null>(null);
const percent = ref(0.4);
const site = computed(() => doc.site!);
const months = computed(() => doc.rows("design_month").sort((a, b) => a.month - b.month));
const base = computed(() => `/api/projects/${doc.projectId}/weather`);

async function load(): Promise<void> {
  const answer = await client.GET("/api/projects/{project_id}/weather", {
    params: { path: { project_id: doc.projectId }, query: { percent: percent.value } },
  });
  const found = unwrap(answer) as unknown as Weather;
  weather.value = found.derived ? found : null;
  revision.value += 1;
}
onMounted(load);
watch(percent, load);

async function attempt(what: string, work: () => Promise<void>): Promise<void> {
  busy.value = what;
  fault.value = null;
  try {
    await work();
  } catch (error) {
    const problem = error instanceof Refusal ? error.problem : null;
    fault.value = { title: problem?.title ?? String(error), faults: problem?.faults ?? [] };
  } finally {
    busy.value = "";
  }
}
/** Change which files are kept, or which of them counts. */
function change(what: string, work: () => Promise<void>): void {
  void attempt(what, async () => {
    await work();
    await load();
  });
}
const SHARES = [
  { value: 0.4, label: "0.4 % of the hours warmer" },
  { value: 1, label: "1 % of the hours warmer" },
  { value: 2, label: "2 % of the hours warmer" },
];
function choose(chosen: File): void {
  file.value = chosen;
  look.value = null;
  void attempt("looking at the file", async () => {
    look.value = await sendFile<WeatherLook>(`${base.value}/look`, file.value!);
    if (look.value.kind === "tmy3") await read(null, "");
  });
}
async function read(layout: Layout | null, name: string): Promise<void> {
  if (layout) mapped.value = { layout, name };
  await attempt("reading the year and deriving design conditions", async () => {
    const fields: Record<string, string> = layout ? { mapping: JSON.stringify(layout), remember: name } : {};
    await tasks.run(sendFile<Task>(base.value, file.value!, fields));
    look.value = null;
    await load();
  });
}
const KEYS = ["dry_bulb_c", "wet_bulb_c", "range_k", "tau_b", "tau_d"] as const;
const QUANTITY = { dry_bulb_c: "temperature", wet_bulb_c: "temperature", range_k: "temperature_difference", tau_b: "", tau_d: "" }; // prettier-ignore
function shown(value: number | null | undefined, key: (typeof KEYS)[number]): string {
  if (value === null || value === undefined) return "–";
  return QUANTITY[key] ? format(value, QUANTITY[key], view.system) : value.toFixed(3);
}
function round(value: number): number {
  return Number(value.toFixed(3));
}
function monthChange(found: DerivedMonth): Change[] {
  const row = months.value.find((item) => item.month === found.month);
  if (!row) return [];
  const fields: Record<string, number> = {};
  for (const key of KEYS) if (found[key] !== null) fields[key] = round(found[key] as number);
  fields["wet_bulb_c"] = Math.min(fields["wet_bulb_c"]!, fields["dry_bulb_c"]!);
  return [{ op: "set", kind: "design_month", id: row.id, fields }];
}
const others = computed(() => {
  const d = weather.value!.derived;
  const own = site.value;
  return [
    { title: "Winter dry-bulb, 99.6 %", fields: { winter_dry_bulb_c: round(d.heating_c[0]) }, then: [d.heating_c[0]], now: [own.winter_dry_bulb_c], quantity: "temperature" },
    { title: "Winter dry-bulb, 99 %", fields: { winter_dry_bulb_c: round(d.heating_c[1]) }, then: [d.heating_c[1]], now: [own.winter_dry_bulb_c], quantity: "temperature" },
    { title: "Winter wind", fields: { winter_wind_m_s: round(d.winter_wind_m_s) }, then: [d.winter_wind_m_s], now: [own.winter_wind_m_s], quantity: "wind" },
    { title: `Dew point and dry-bulb, ${MONTHS[d.dew_month - 1]}`, fields: { dehumidification_month: d.dew_month, dehumidification_dew_point_c: round(d.dew_point_c), dehumidification_dry_bulb_c: round(d.dew_dry_bulb_c) }, then: [d.dew_point_c, d.dew_dry_bulb_c], now: [own.dehumidification_dew_point_c, own.dehumidification_dry_bulb_c], quantity: "temperature" },
    { title: "Mean air of the year", fields: { air_mean_c: round(d.mean_c) }, then: [d.mean_c], now: [own.air_mean_c], quantity: "temperature" },
    { title: `Half the swing, coldest ${MONTHS[d.coldest_month - 1]}`, fields: { air_amplitude_k: round(d.amplitude_k), coldest_month: d.coldest_month }, then: [d.amplitude_k], now: [own.air_amplitude_k], quantity: "temperature_difference" },
  ];
}); // prettier-ignore
function take(label: string, fields: Record<string, number | undefined>): void {
  void doc.attempt(label, [{ op: "set", kind: "site", id: site.value.id, fields }]);
}
function takeMonths(): void {
  void doc.attempt("Design months from the weather file", weather.value!.derived.months.flatMap(monthChange));
}
</script>

<template>
  <div>
    <p class="row">
      <FileButton
        label="Weather file"
        text="Open an hourly file …"
        accept=".csv,.txt,.tsv,.dat"
        @file="choose"
      />
      <WeatherFiles :revision="revision" :name="weather?.name" @work="change" />
      <template v-if="weather">
        <span class="soft"
          >{{ weather.hours }} hours; {{ weather.about.latitude_deg }}° / {{ weather.about.longitude_deg }}°,
          {{ weather.about.elevation_m }} m; {{ weather.about.notes.join("; ") }}</span
        >
      </template>
      <span v-else class="soft">TMY3 is known; any other delimited text is mapped column by column.</span>
      <b v-if="busy" role="status">{{ busy }} …</b>
    </p>
    <div v-if="fault" class="faults" role="alert">
      <b>{{ fault.title }}</b>
      <ul>
        <li v-for="(item, i) in fault.faults.slice(0, 50)" :key="i">{{ item.field }}: {{ item.message }}</li>
      </ul>
    </div>
    <ol v-if="!weather && !look && !busy" class="steps">
      <li>
        Any delimited text of 8,760 or 8,784 hours will do: you say which column holds what, in which unit,
        how many rows stand above, and whether hours are counted from or to. A layout can be kept by name for
        the next file.
      </li>
      <li>
        Every hour is checked before anything is taken in: gaps, doubled hours and impossible values are
        listed by line. Where sun is given on the flat alone it is split into beam and diffuse (Erbs), and
        that is said.
      </li>
      <li>
        Design conditions for winter, for each summer month and for drying are derived and stand beside those
        that are entered. Nothing changes until you take a row.
      </li>
    </ol>
    <WeatherMapping
      v-if="look?.kind === 'delimited'"
      :key="file?.name"
      :look="look"
      :year="doc.project?.year ?? 2027"
      :before="mapped"
      @use="read"
    />
    <div v-if="weather" class="cols">
      <section>
        <p class="row">
          <b>Derived from it</b>
          <Choice v-model="percent" class="share" label="Share of hours that are warmer" :choices="SHARES" />
          <Act @click="takeMonths">Take all months</Act>
        </p>
        <v-table class="plain" aria-label="Derived design months">
          <thead>
            <tr>
              <th>Month</th>
              <th class="num">dry-bulb</th>
              <th class="num">wet-bulb</th>
              <th class="num">range</th>
              <th class="num">τb</th>
              <th class="num">τd</th>
              <td />
            </tr>
          </thead>
          <tbody>
            <tr v-for="(found, i) in weather.derived.months" :key="found.month">
              <td>{{ MONTHS[found.month - 1] }}</td>
              <td v-for="key in KEYS" :key="key" class="num">
                {{ shown(found[key], key) }}
                <span class="soft entered">{{ shown(months[i]?.[key], key) }}</span>
              </td>
              <td>
                <TextAct
                  :aria-label="`Take ${MONTHS[found.month - 1]}`"
                  @click="doc.attempt('Design month from the weather file', monthChange(found))"
                >
                  take
                </TextAct>
              </td>
            </tr>
          </tbody>
        </v-table>
        <v-table class="plain" aria-label="Other derived conditions">
          <tbody>
            <tr v-for="row in others" :key="row.title">
              <td>{{ row.title }}</td>
              <td class="num">
                {{ row.then.map((v) => format(v, row.quantity, view.system)).join(" / ") }}
                {{ unitOf(row.quantity, view.system) }}
                <span class="soft entered">{{
                  row.now.map((v) => format(v, row.quantity, view.system)).join(" / ")
                }}</span>
              </td>
              <td>
                <TextAct :aria-label="`Take ${row.title}`" @click="take(row.title, row.fields)">
                  take
                </TextAct>
              </td>
            </tr>
          </tbody>
        </v-table>
        <p class="soft small">
          Beside each, small: what is entered. One year stands for many here, so the rare hours rest on few.
          Wet-bulb: mean of the hours within half a kelvin; range: days that reach the 5 % dry-bulb; τ: fitted
          to the month's three sunniest days.
        </p>
      </section>
      <WeatherPlots :weather="weather" />
    </div>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.share {
  flex: 0 1 240px;
}
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 28px;
}
.plain :deep(td) {
  height: 22px;
  padding: 1px 6px;
}
.entered {
  font-size: 11px;
  display: inline-block;
  min-width: 34px;
}
.steps {
  max-width: 760px;
  color: var(--soft);
  line-height: 1.5;
}
.faults {
  border: 1px solid var(--ember);
  padding: 8px 12px;
  margin: 8px 0;
  max-height: 200px;
  overflow: auto;
}
.faults ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
.small {
  font-size: 12px;
}
@media (max-width: 1099px) {
  .cols {
    display: block;
  }
}
</style>
