<script setup lang="ts">
import type { Circuit } from "@/document/types";
import Field from "@/parts/Field.vue";
import { fieldSaver } from "@/parts/saving";

const props = defineProps<{ circuit: Circuit }>();
type Key = keyof Circuit & string;
const FIELDS: [Key, string, string][] = [
  ["flow_c", "Flow temperature", "temperature"], ["return_c", "Return temperature", "temperature"],
  ["friction_limit_pa_m", "Friction at most", "pipe_friction_rate"], ["velocity_limit_m_s", "Velocity at most", "water_velocity"],
  ["source_drop_pa", "Boiler or chiller drop", "head"], ["pump_margin", "Margin on the head", "percent"],
  ["pump_efficiency", "Pump efficiency", "percent"], ["motor_efficiency", "Motor and drive", "percent"], ["motor_margin", "Margin before the next motor", "percent"],
]; // prettier-ignore
</script>

<template>
  <div class="body" style="max-width: 400px">
    <Field
      label="Name"
      :value="circuit.name"
      :editor="{ type: 'text' }"
      :save="fieldSaver('circuit', () => props.circuit.id, 'name', 'Circuit name')"
    />
    <Field
      v-for="[key, label, quantity] in FIELDS"
      :key="key"
      :label="label"
      :value="circuit[key]"
      :editor="{ type: 'number', quantity }"
      :save="fieldSaver('circuit', () => props.circuit.id, key, label)"
    />
    <p class="soft">
      Steel pipes, EN 10255 medium series. The pump's head is calculated from the index run; a section stands
      for flow and return together. The duties of all ends are added without diversity.
    </p>
  </div>
</template>
