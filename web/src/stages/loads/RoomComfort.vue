<script setup lang="ts">
import { useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import { useResults } from "@/results/store";
import { clock, MONTHS } from "@/units/units";
import { computed } from "vue";

const props = defineProps<{ id: string; mode: "cooling" | "heating" }>();
const doc = useDocument();
const results = useResults();
const result = computed(() => results.get("room", props.id));
const moisture = computed(() => results.get("room_air", props.id)?.moisture);
const control = computed(() => result.value?.control ?? null);
const warmest = computed(() => result.value?.floating_peak_c ?? null);
const served = computed(() => results.get("room_air", props.id)?.warmest_c ?? null);
const leader = computed(() => {
  const room = results.get("effective", props.id)?.["sensor_room"]?.[0];
  return !room || room === props.id ? undefined : doc.get("room", String(room));
});
</script>

<template>
  <div v-if="control || moisture || warmest !== null" class="comfort">
    <p v-if="mode === 'cooling' && warmest !== null" data-test="warmest">
      {{ served === null ? "Its air reaches" : "Without the air of its systems it reaches" }}
      <Figure
        :value="warmest"
        quantity="temperature"
        :explain="{ quantity: 'room_temperature', subject: id }"
      /><template v-if="result?.too_warm_h"
        >; on the worst design day it is too warm for its use for
        {{ result.too_warm_h.toFixed(1) }} h</template
      ><template v-if="served !== null"
        >; with it <b><Figure :value="served" quantity="temperature" /></b></template
      >.
    </p>
    <p v-if="control && leader">Led by the sensor of {{ leader.number }} {{ leader.name }}.</p>
    <template v-if="control && mode === 'cooling'">
      <p v-if="result?.cooling">
        At the peak the air has <Figure :value="control.air_c" quantity="temperature" />, air and surfaces
        together <Figure :value="control.operative_c" quantity="temperature" />.
      </p>
      <p v-if="control.too_warm" class="missed" data-test="too-warm">
        Up to <Figure :value="control.too_warm.kelvin" quantity="temperature_difference" /> too warm,
        {{ control.too_warm.hours.toFixed(1) }} h in {{ MONTHS[control.too_warm.month - 1] }}, worst at
        {{ clock(control.too_warm.step)
        }}<template v-if="control.cooling_flat_out_h"
          >; flat out for {{ control.cooling_flat_out_h.toFixed(1) }} h</template
        >.
      </p>
    </template>
    <template v-else-if="control">
      <p v-if="result!.heating_w > 0" data-test="warm-up">
        Of it <Figure :value="control.held_heating_w" quantity="load" /> hold the set-point and
        <Figure :value="control.warm_up_w" quantity="load" /> are for the warm-up; the air goes down to
        <Figure :value="control.winter_coldest_c" quantity="temperature" />.
      </p>
      <p v-if="control.too_cold" class="missed">
        Up to <Figure :value="control.too_cold.kelvin" quantity="temperature_difference" /> too cold for
        {{ control.too_cold.hours.toFixed(1) }} h, worst at {{ clock(control.too_cold.step) }}.
      </p>
    </template>
    <p v-if="moisture && mode === 'cooling'">
      Relative humidity reaches <Figure :value="moisture.highest" quantity="percent" /> ({{
        MONTHS[moisture.month - 1]
      }}
      {{ clock(moisture.step) }})<template v-if="moisture.drying_w > 1"
        >; keeping the limit takes <Figure :value="moisture.drying_w" quantity="load" /> of drying</template
      >.
    </p>
    <p v-else-if="moisture">
      Relative humidity falls to
      <Figure :value="moisture.winter_relative" quantity="percent" /><template
        v-if="moisture.humidifying_w > 1"
        >; keeping the limit takes <Figure :value="moisture.humidifying_kg_s" quantity="condensate" />,
        <Figure :value="moisture.humidifying_w" quantity="load" /></template
      >.
    </p>
  </div>
</template>

<style scoped>
.comfort {
  margin-top: 6px;
  border-top: 1px solid var(--hair);
  padding-top: 4px;
}
.comfort p {
  margin: 0 0 3px;
}
.missed {
  font-weight: 600;
}
</style>
