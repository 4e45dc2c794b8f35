<script setup lang="ts">
import type { Circuit } from "@/document/types";
import Field from "@/parts/Field.vue";
import type { Editor } from "@/parts/edit";
import { fieldSaver } from "@/parts/saving";
import { computed } from "vue";

const props = defineProps<{ circuit: Circuit }>();
type Key = keyof Circuit & string;
interface Entry {
  key: Key;
  label: string;
  editor: Editor;
}
const number = (key: Key, label: string, quantity: string): Entry => ({
  key,
  label,
  editor: { type: "number", quantity },
});
const choice = (key: Key, label: string, choices: Record<string, string>): Entry => ({
  key,
  label,
  editor: { type: "choice", choices: Object.entries(choices).map(([value, text]) => ({ value, label: text })) },
}); // prettier-ignore
const reset = (circuit: Circuit): Entry[] =>
  circuit.flow_rule === "outdoors"
    ? [
        number("reset_cold_c", "design flow at, outdoors", "temperature"),
        number("flow_mild_c", "Mild flow temperature", "temperature"),
        number("reset_mild_c", "at, outdoors", "temperature"),
      ]
    : [];
const GROUPS = computed<{ title: string; fields: Entry[] }[]>(() => [
  { title: "Water", fields: [
    number("flow_c", "Flow temperature", "temperature"), number("return_c", "Return temperature", "temperature"),
    choice("flow_rule", "Flow temperature goes", { fixed: "stays", outdoors: "by the outdoor air" }), ...reset(props.circuit),
    number("loss_share", "Lost on the way", "percent")] },
  { title: "Pipes", fields: [number("friction_limit_pa_m", "Friction at most", "pipe_friction_rate"), number("velocity_limit_m_s", "Velocity at most", "water_velocity")] },
  { title: "Pump", fields: [
    number("source_drop_pa", "Boiler or chiller drop", "head"), number("pump_margin", "Margin on the head", "percent"),
    number("pump_efficiency", "Pump efficiency", "percent"), number("motor_efficiency", "Motor and drive", "percent"), number("motor_margin", "Margin before the next motor", "percent")] },
  { title: "Expansion vessel", fields: [
    number("static_height_m", "Water above it", "length"), number("safety_valve_pa", "Safety valve", "gauge_pressure"), number("source_content_m3", "Water in the source", "water_volume")] },
]); // prettier-ignore
</script>

<template>
  <div class="body" style="max-width: 400px; overflow: auto">
    <Field
      label="Name"
      :value="circuit.name"
      :editor="{ type: 'text' }"
      :save="fieldSaver('circuit', () => props.circuit.id, 'name', 'Circuit name')"
    />
    <template v-for="group in GROUPS" :key="group.title">
      <h2>{{ group.title }}</h2>
      <Field
        v-for="entry in group.fields"
        :key="entry.key"
        :label="entry.label"
        :value="circuit[entry.key]"
        :editor="entry.editor"
        :save="fieldSaver('circuit', () => props.circuit.id, entry.key, entry.label)"
      />
    </template>
    <p class="soft">
      Steel pipes, EN 10255 medium series. The pump's head is calculated from the index run; a section stands
      for flow and return together. Pipes and pump are sized for the largest duties of their ends; units under
      Plant for what all ends ask together at one time.
    </p>
  </div>
</template>
