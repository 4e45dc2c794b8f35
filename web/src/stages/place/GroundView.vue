<script setup lang="ts">
import { useDocument } from "@/document/store";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import LineChart from "@/parts/LineChart.vue";
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";
import { usePlaceDay } from "./day";

const doc = useDocument();
const view = useView();
const { day } = usePlaceDay();
const site = computed(() => doc.site!);
const field = fieldsFor("site", () => site.value);
const series = computed(() => [
  {
    name: "ground",
    colour: "var(--floors)",
    values: (day.value?.ground_c ?? []).map((v) => toShown(v, "temperature", view.system)),
  },
  {
    name: "mean air",
    colour: "var(--ember)",
    dashed: true,
    values: (day.value?.air_mean_by_month_c ?? []).map((v) => toShown(v, "temperature", view.system)),
  },
]);
</script>

<template>
  <div class="cols">
    <section>
      <h2>Ground temperature</h2>
      <Field v-bind="field('ground_source')" />
      <Field v-if="site.ground_source !== 'formula'" v-bind="field('ground_temperature_c')" />
      <p v-if="site.ground_source === 'months'" class="soft small">
        Months of their own: column Ground of the design days.
      </p>
      <Field v-if="site.ground_source === 'formula'" v-bind="field('ground_depth_m')" />
      <h2>Soil and the year's air</h2>
      <Field v-bind="field('soil')" />
      <Field v-bind="field('air_mean_c')" />
      <Field v-bind="field('air_amplitude_k')" />
      <Field v-bind="field('coldest_month')" />
      <p class="soft small">
        The formula is Kusuda and Achenbach (1965) with the soil's diffusivity. Floors by ISO 13370 use the
        mean, the swing and the soil directly, whatever is chosen above. A weather file gives mean and swing.
      </p>
    </section>
    <section class="chart">
      <LineChart
        title="Ground by month"
        :unit="unitOf('temperature', view.system)"
        :series="series"
        :x="[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]"
        :x-ticks="[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]"
        :x-names="MONTHS.slice(0, 12)"
      />
    </section>
  </div>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr);
  gap: 28px;
}
.chart {
  height: 360px;
}
h2 {
  margin-top: 8px;
}
.small {
  font-size: 12px;
}
</style>
