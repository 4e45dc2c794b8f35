<script setup lang="ts">
import { useDocument } from "@/document/store";
import Field from "@/parts/Field.vue";
import LineChart from "@/parts/LineChart.vue";
import { fieldSaver } from "@/parts/saving";
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";
import { usePlaceDay } from "./day";

const doc = useDocument();
const view = useView();
const { day } = usePlaceDay();
const site = computed(() => doc.site!);
const SOURCES = [
  { value: "constant", label: "one temperature" },
  { value: "months", label: "entered by month" },
  { value: "formula", label: "from the air's swing" },
];
const SOILS = [
  { value: "clay", label: "clay or silt" },
  { value: "sand", label: "sand or gravel" },
  { value: "rock", label: "rock" },
];
const MONTH_CHOICES = MONTHS.slice(0, 12).map((label, i) => ({ value: String(i + 1), label }));
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
function save(key: string, label: string) {
  return fieldSaver("site", () => site.value.id, key, label);
}
</script>

<template>
  <div class="cols">
    <section>
      <h2>Ground temperature</h2>
      <Field
        label="Below floors it is"
        :value="site.ground_source"
        :editor="{ type: 'choice', choices: SOURCES }"
        :save="save('ground_source', 'Ground temperature')"
      />
      <Field
        v-if="site.ground_source !== 'formula'"
        label="Ground, all year"
        :value="site.ground_temperature_c"
        :editor="{ type: 'number', quantity: 'temperature' }"
        :save="save('ground_temperature_c', 'Ground temperature')"
      />
      <p v-if="site.ground_source === 'months'" class="soft small">
        Months of their own: column Ground of the design days.
      </p>
      <Field
        v-if="site.ground_source === 'formula'"
        label="at a depth of"
        :value="site.ground_depth_m"
        :editor="{ type: 'number', quantity: 'length' }"
        :save="save('ground_depth_m', 'Depth')"
      />
      <h2>Soil and the year's air</h2>
      <Field
        label="Soil"
        :value="site.soil"
        :editor="{ type: 'choice', choices: SOILS }"
        :save="save('soil', 'Soil')"
      />
      <Field
        label="Mean air of the year"
        :value="site.air_mean_c"
        :editor="{ type: 'number', quantity: 'temperature' }"
        :save="save('air_mean_c', 'Mean air')"
      />
      <Field
        label="Half the swing of monthly means"
        :value="site.air_amplitude_k"
        :editor="{ type: 'number', quantity: 'temperature_difference' }"
        :save="save('air_amplitude_k', 'Swing')"
      />
      <Field
        label="Coldest month"
        :value="String(site.coldest_month)"
        :editor="{ type: 'choice', choices: MONTH_CHOICES }"
        :save="(value) => save('coldest_month', 'Coldest month')(Number(value))"
      />
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
