<script setup lang="ts">
/** A plant at its largest load, and its water at the rail's hour. */
import Figure from "@/parts/Figure.vue";
import type { PlantResult } from "@/results/types";
import { clock, MONTHS } from "@/units/units";
import { computed } from "vue";
import type { PlantDay } from "./plant";

const props = defineProps<{
  /** Of its circuit. */
  id: string;
  plant: PlantResult;
  before: PlantResult | undefined;
  day: PlantDay | null;
  step: number;
}>();
const when = computed(
  () => `${props.plant.month ? MONTHS[props.plant.month - 1] : "winter day"} ${clock(props.plant.step)}`,
);
</script>

<template>
  <dl>
    <div>
      <dt>largest load together</dt>
      <dd>
        <Figure :value="plant.peak_w" :prior="before?.peak_w" quantity="load" />
        <span class="soft">{{ when }}</span>
      </dd>
    </div>
    <div>
      <dt>design load</dt>
      <dd data-test="design-load">
        <Figure
          :value="plant.design_w"
          :prior="before?.design_w"
          quantity="load"
          :explain="{ quantity: 'plant_load', subject: id }"
        />
      </dd>
    </div>
    <div>
      <dt>all units</dt>
      <dd><Figure :value="plant.working_w" :prior="before?.working_w" quantity="load" /></dd>
    </div>
    <div>
      <dt>largest one out</dt>
      <dd>
        <Figure :value="plant.without_largest_w" quantity="load" />
        <span class="soft"
          >{{ Math.round((100 * plant.without_largest_w) / Math.max(plant.peak_w, 1)) }} %</span
        >
      </dd>
    </div>
    <div v-if="plant.buffer">
      <dt>buffer</dt>
      <dd data-test="buffer">
        <Figure
          :value="plant.buffer.volume_m3"
          :prior="before?.buffer?.volume_m3"
          quantity="water_volume"
          :explain="{ quantity: 'buffer_store', subject: id }"
        />
        <span class="soft">runs <Figure :value="plant.buffer.runs_h" quantity="minutes" /></span>
      </dd>
    </div>
    <div v-if="day">
      <dt>flow / return now</dt>
      <dd>
        <Figure :value="day.flow_c[step]" quantity="temperature" /> /
        <Figure :value="day.return_c[step]" quantity="temperature" />
      </dd>
    </div>
    <template v-if="plant.cooler">
      <div>
        <dt>{{ plant.cooler.kind }} rejects</dt>
        <dd data-test="heat-rejected">
          <Figure
            :value="plant.cooler.heat_w"
            :prior="before?.cooler?.heat_w"
            quantity="load"
            :explain="{ quantity: 'heat_rejection', subject: id }"
          />
          <span class="soft"
            >at <Figure :value="plant.cooler.air_c" quantity="temperature" />
            {{ plant.cooler.kind === "tower" ? "wet-bulb" : "dry-bulb" }}</span
          >
        </dd>
      </div>
      <div v-if="plant.cooler.made_up_m3_s > 0">
        <dt>water made up, at most</dt>
        <dd><Figure :value="plant.cooler.made_up_m3_s" quantity="water_flow" /></dd>
      </div>
      <div v-if="day?.cooler">
        <dt>to the chillers now</dt>
        <dd>
          <Figure :value="day.cooler.water_c[step]" quantity="temperature" />
          <span class="soft">fans {{ Math.round(100 * (day.cooler.speed[step] ?? 0)) }} %</span>
        </dd>
      </div>
    </template>
  </dl>
</template>

<style scoped src="./figures.css"></style>
<style scoped>
dd .soft {
  margin-left: 6px;
  font-size: 13px;
}
</style>
