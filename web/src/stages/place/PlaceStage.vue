<script setup lang="ts">
import { client, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import type { DesignMonth } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import Field from "@/parts/Field.vue";
import type { Column } from "@/parts/grid";
import LineChart from "@/parts/LineChart.vue";
import { fieldSaver, gridSaver } from "@/parts/saving";
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import SunPath from "./SunPath.vue";

interface PlaceDay {
  dry_bulb_c: number[];
  relative_humidity: number[];
  irradiance_w_m2: Record<string, number[]>;
  sun_elevation_deg: number[];
  sun_azimuth_deg: number[];
  pressure_pa: number;
}

const doc = useDocument();
const view = useView();
const day = ref<PlaceDay | null>(null);
// The winter day has no sun to draw: July stands in while it is chosen on the rail.
const month = computed(() => view.month || 7);
const site = computed(() => doc.site);
const project = computed(() => doc.project);
const months = computed(() => doc.rows("design_month").sort((a, b) => a.month - b.month));
const chosen = computed(() => months.value.find((row) => row.month === month.value)?.id);

const fields: [keyof NonNullable<typeof site.value> & string, string, string][] = [
  ["latitude", "Latitude, north +", "ratio"],
  ["longitude", "Longitude, east +", "ratio"],
  ["utc_offset_h", "Time zone, from UTC", "time"],
  ["elevation_m", "Elevation", "elevation"],
  ["ground_reflectance", "Ground reflectance", "ratio"],
  ["ground_temperature_c", "Ground below floors", "temperature"],
  ["winter_dry_bulb_c", "Winter dry-bulb", "temperature"],
];

function column(key: keyof DesignMonth & string, title: string, quantity: string): Column<DesignMonth> {
  return { key, title, quantity, width: 104, value: (row) => row[key], editor: { type: "number", quantity } };
}
const columns: Column<DesignMonth>[] = [
  {
    key: "month",
    title: "Month",
    width: 62,
    value: (row) => row.month,
    text: (row) => MONTHS[row.month - 1] ?? "",
  },
  column("dry_bulb_c", "Dry-bulb", "temperature"),
  column("wet_bulb_c", "Wet-bulb", "temperature"),
  column("range_k", "Daily range", "temperature_difference"),
  { ...column("tau_b", "τb beam", "ratio"), text: (row) => row.tau_b.toFixed(3), width: 78 },
  { ...column("tau_d", "τd diffuse", "ratio"), text: (row) => row.tau_d.toFixed(3), width: 84 },
];

watch(
  [month, () => doc.version],
  async (_now, _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    const answer = await client.GET("/api/projects/{project_id}/place", {
      params: { path: { project_id: doc.projectId }, query: { month: month.value } },
    });
    if (!stale && answer.response.ok) day.value = unwrap(answer) as unknown as PlaceDay;
  },
  { immediate: true },
);

const FACES: [string, string][] = [
  ["N", "#7c8894"], ["NE", "#9aa58f"], ["E", "#2c66a0"], ["SE", "#6f9bc0"], ["S", "#c99012"], ["SW", "#b8482b"],
  ["W", "#a8704a"], ["NW", "#94806a"], ["Roof", "#22262b"],
]; // prettier-ignore
const sun = computed(() =>
  FACES.map(([name, colour]) => ({
    name,
    colour: name === "Roof" ? "var(--ink)" : colour,
    values: (day.value?.irradiance_w_m2[name] ?? []).map((value) =>
      toShown(value, "irradiance", view.system),
    ),
    dashed: name === "Roof",
  })),
);
const temperature = computed(() => [
  {
    name: "dry-bulb",
    colour: "var(--ember)",
    values: (day.value?.dry_bulb_c ?? []).map((value) => toShown(value, "temperature", view.system)),
  },
]);
const humidity = computed(() => [
  {
    name: "relative humidity",
    colour: "var(--tide)",
    values: (day.value?.relative_humidity ?? []).map((v) => v * 100),
  },
]);
const saveMonths = gridSaver<DesignMonth>("design_month", "Design month");
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Place</h1>
      <span class="soft">site and design conditions; every edit is worked through at once</span>
    </div>
    <div v-if="site && project" class="body cols">
      <section class="facts">
        <h2>Site</h2>
        <Field
          label="Name"
          :value="site.name"
          :editor="{ type: 'text' }"
          :save="fieldSaver('site', () => site!.id, 'name', 'Site name')"
        />
        <Field
          v-for="[key, label, quantity] in fields"
          :key="key"
          :label="label"
          :value="site[key]"
          :editor="{ type: 'number', quantity }"
          :save="fieldSaver('site', () => site!.id, key, label)"
        />
        <Field
          label="Course of the day"
          :value="project.profile"
          :editor="{
            type: 'choice',
            choices: [
              { value: 'handbook', label: 'handbook profile' },
              { value: 'sinusoid', label: 'sinusoid, peak 15:00' },
            ],
          }"
          :save="fieldSaver('project', () => project!.id, 'profile', 'Course of the day')"
        />
        <p v-if="day" class="soft small">
          Pressure of the standard atmosphere at this elevation:
          {{ toShown(day.pressure_pa, "air_pressure", view.system).toFixed(2) }}
          {{ unitOf("air_pressure", view.system) }}. The winter day is flat and without sun.
        </p>
        <p v-if="site.name === 'Starter site'" class="fault">
          These are starter values. Enter your own site and conditions.
        </p>
      </section>
      <section class="table">
        <h2>Summer design days, one for each month</h2>
        <DataGrid
          label="Design conditions by month"
          :columns="columns"
          :rows="months"
          :selected="chosen"
          :save="saveMonths"
          @select="view.month = $event.month"
        />
      </section>
      <section class="path">
        <SunPath
          v-if="day"
          :elevation="day.sun_elevation_deg"
          :azimuth="day.sun_azimuth_deg"
          :step="view.step"
          :month="MONTHS[month - 1] ?? ''"
        />
      </section>
      <section class="chart">
        <LineChart
          :title="`${MONTHS[month - 1]}, dry-bulb`"
          :unit="unitOf('temperature', view.system)"
          :series="temperature"
        />
      </section>
      <section class="chart">
        <LineChart :title="`${MONTHS[month - 1]}, relative humidity`" unit="%" :series="humidity" />
      </section>
      <section class="chart wide">
        <LineChart
          :title="`${MONTHS[month - 1]}, sun on`"
          :unit="unitOf('irradiance', view.system)"
          :series="sun"
          zero
        />
      </section>
    </div>
  </div>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template: minmax(372px, 1.5fr) minmax(190px, 1fr) / 318px minmax(0, 1fr) minmax(0, 1fr) 300px;
  gap: 12px 22px;
}
.facts {
  grid-row: 1;
}
.table {
  grid-column: 2 / 4;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.path {
  grid-column: 4;
}
.chart {
  min-height: 0;
  min-width: 0;
}
.chart.wide {
  grid-column: 3 / 5;
}
.small {
  font-size: 12px;
  margin-top: 8px;
}
@media (max-width: 1099px) {
  .cols {
    display: block;
  }
  .cols section {
    height: 320px;
    margin-bottom: 18px;
  }
  .cols .facts {
    height: auto;
  }
}
</style>
