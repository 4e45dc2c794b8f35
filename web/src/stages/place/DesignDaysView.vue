<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { DesignMonth } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import { column, fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import type { Column } from "@/parts/grid";
import LineChart from "@/parts/LineChart.vue";
import { gridSaver } from "@/parts/saving";
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";
import { usePlaceDay } from "./day";

const doc = useDocument();
const view = useView();
const { day, month } = usePlaceDay();
const site = computed(() => doc.site!);
const project = computed(() => doc.project!);
const field = fieldsFor("site", () => site.value);
const projectField = fieldsFor("project", () => project.value);
const months = computed(() => doc.rows("design_month").sort((a, b) => a.month - b.month));
const chosen = computed(() => months.value.find((row) => row.month === month.value)?.id);

/** A value of the month's own, or the site's in italics. */
const ownOr = (key: "ground_reflectance" | "ground_temperature_c", title: string): Column<DesignMonth> =>
  column("design_month", key, 92, {
    title,
    value: (row) => row[key] ?? site.value[key],
    origin: (row) => (row[key] === null ? "site" : "own"),
  });
const columns: Column<DesignMonth>[] = [
  { key: "month", title: "Month", width: 56, value: (row) => row.month, text: (row) => MONTHS[row.month - 1] ?? "" },
  column("design_month", "dry_bulb_c", 92),
  column("design_month", "wet_bulb_c", 92),
  column("design_month", "range_k", 92),
  column("design_month", "tau_b", 72, { title: "τb beam", text: (row) => row.tau_b.toFixed(3) }),
  column("design_month", "tau_d", 76, { title: "τd diffuse", text: (row) => row.tau_d.toFixed(3) }),
  ownOr("ground_reflectance", "Reflectance"),
  ownOr("ground_temperature_c", "Ground"),
]; // prettier-ignore

const FACES: [string, string][] = [
  ["N", "#7c8894"], ["NE", "#9aa58f"], ["E", "#2c66a0"], ["SE", "#6f9bc0"], ["S", "#c99012"], ["SW", "#b8482b"],
  ["W", "#a8704a"], ["NW", "#94806a"], ["Roof", "#22262b"],
]; // prettier-ignore
const sun = computed(() =>
  FACES.map(([name, colour]) => ({
    name,
    colour: name === "Roof" ? "var(--ink)" : colour,
    values: (day.value?.irradiance_w_m2[name] ?? []).map((value) => toShown(value, "irradiance", view.system)),
    dashed: name === "Roof",
  })),
); // prettier-ignore
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
  <div class="cols">
    <section class="facts">
      <h2>Winter design day</h2>
      <Field v-bind="field('winter_dry_bulb_c')" />
      <Field v-bind="field('indoor_winter_humidity')" />
      <p class="soft small">Flat and without sun. The humidity is for the dew point in sections (Fabric).</p>
      <h2>Dehumidification day</h2>
      <Field v-bind="field('dehumidification_month')" />
      <Field v-bind="field('dehumidification_dew_point_c')" />
      <Field v-bind="field('dehumidification_dry_bulb_c')" />
      <p class="soft small">
        With all three it is a thirteenth design day for rooms and coils; sun and daily range are its month's.
        <TextAct v-if="site.dehumidification_month" @click="view.month = 13">show it</TextAct>
      </p>
      <h2>Summer</h2>
      <Field v-bind="projectField('profile')" />
    </section>
    <section class="table">
      <h2>Summer design days, one for each month</h2>
      <DataGrid
        label="Design conditions by month"
        ordered
        :columns="columns"
        :rows="months"
        :selected="chosen"
        :save="saveMonths"
        @select="view.month = $event.month"
      />
    </section>
    <section class="charts">
      <div class="chart">
        <LineChart
          :title="`${MONTHS[month - 1]}, dry-bulb`"
          :unit="unitOf('temperature', view.system)"
          :series="temperature"
        />
      </div>
      <div class="chart">
        <LineChart :title="`${MONTHS[month - 1]}, relative humidity`" unit="%" :series="humidity" />
      </div>
      <div class="chart wide">
        <LineChart
          :title="`${MONTHS[month - 1]}, sun on`"
          :unit="unitOf('irradiance', view.system)"
          :series="sun"
          zero
        />
      </div>
    </section>
  </div>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template: minmax(420px, auto) 210px / 300px minmax(0, 1fr);
  gap: 10px 24px;
}
.table {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.charts {
  grid-column: 1 / 3;
  display: grid;
  grid-template-columns: 1fr 1fr 1.6fr;
  gap: 18px;
}
.chart {
  min-height: 0;
  min-width: 0;
}
h2 {
  margin-top: 8px;
}
.small {
  font-size: 12px;
}
@media (max-width: 1099px) {
  .cols,
  .charts {
    display: block;
  }
  .table,
  .chart {
    height: 380px;
  }
}
</style>
