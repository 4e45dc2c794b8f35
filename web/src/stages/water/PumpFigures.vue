<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import type { CircuitResult } from "@/results/types";

defineProps<{ id: string; result: CircuitResult; before: CircuitResult | undefined }>();
</script>

<template>
  <dl>
    <div>
      <dt>duty</dt>
      <dd><Figure :value="result.duty_w" :prior="before?.duty_w" quantity="load" /></dd>
    </div>
    <div>
      <dt>pump flow</dt>
      <dd><Figure :value="result.pump.flow_m3_s" :prior="before?.pump.flow_m3_s" quantity="water_flow" /></dd>
    </div>
    <div>
      <dt>pump head</dt>
      <dd data-test="pump-head">
        <Figure
          :value="result.pump.head_pa"
          :prior="before?.pump.head_pa"
          quantity="head"
          :explain="{ quantity: 'pump_head', subject: id }"
        />
      </dd>
    </div>
    <div>
      <dt>at the shaft</dt>
      <dd><Figure :value="result.pump.shaft_w" quantity="power" /></dd>
    </div>
    <div>
      <dt>motor, next size</dt>
      <dd><Figure :value="result.pump.motor_w" quantity="electric_power" /></dd>
    </div>
    <div>
      <dt>water in the pipes</dt>
      <dd><Figure :value="result.water_content_m3" quantity="water_volume" /></dd>
    </div>
    <div v-if="result.vessel">
      <dt>expansion vessel</dt>
      <dd>
        <Figure
          :value="result.vessel.chosen_m3 ?? result.vessel.volume_m3"
          :prior="before?.vessel?.chosen_m3"
          quantity="water_volume"
          :explain="{ quantity: 'expansion_vessel', subject: id }"
        />
      </dd>
    </div>
  </dl>
</template>

<style scoped src="./figures.css"></style>
<style scoped>
dl {
  padding: 8px 14px;
  border-bottom: 1px solid var(--line);
}
</style>
