<script setup lang="ts">
import { useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import type { Yardsticks } from "@/results/types";
import { useResults } from "@/results/store";
import { computed } from "vue";
import type { LoadRow } from "./rows";

const props = defineProps<{ row: LoadRow }>();
const doc = useDocument();
const results = useResults();
const found = computed<Yardsticks | undefined>(
  () => results.get(props.row.isRoom ? "room_air" : "group_air", props.row.id)?.yardsticks,
);
const LINES: [keyof Yardsticks, string, string][] = [
  ["cooling_w_m2", "Cooling by area", "power_per_area"],
  ["heating_w_m2", "Heating by area", "power_per_area"],
  ["area_per_cooling_m2_w", "Area cooled", "area_per_power"],
  ["supply_m3_s_m2", "Supply by area", "airflow_per_area"],
  ["air_changes_per_h", "Air changes", "air_changes"],
  ["supply_per_cooling_m3_s_w", "Supply by cooling", "airflow_per_power"],
  ["outdoor_share", "Outdoor air", "percent"],
  ["supply_difference_k", "Room above supply", "temperature_difference"],
];
const explained = (key: string) => ({
  quantity: `${props.row.isRoom ? "room" : "group"}_${key}`,
  subject: props.row.id,
});
const lines = computed(() =>
  LINES.flatMap(([key, title, quantity]) => {
    const value = found.value?.[key];
    return value == null ? [] : [{ key, title, quantity, value }];
  }),
);
/** The ordinary range of cooling by area of a room's use, or of a use's rooms together. */
const ordinary = computed(() => {
  const id = props.row.isRoom ? doc.get("room", props.row.id)?.use : props.row.id;
  const use = doc.get("use", id);
  return use && { name: use.name, low: use.yardstick_low_w_m2!, high: use.yardstick_high_w_m2! };
});
const outside = computed(() => {
  const value = found.value?.cooling_w_m2;
  if (!ordinary.value || value == null) return "";
  return value < ordinary.value.low ? "below" : value > ordinary.value.high ? "above" : "within";
});
</script>

<template>
  <div v-if="lines.length" class="yardsticks" data-test="yardsticks">
    <h2>Yardsticks of {{ row.number }} {{ row.name }}</h2>
    <dl>
      <template v-for="line in lines" :key="line.key">
        <dt>{{ line.title }}</dt>
        <dd><Figure :value="line.value" :quantity="line.quantity" :explain="explained(line.key)" /></dd>
      </template>
    </dl>
    <p v-if="ordinary && outside" class="soft">
      {{ outside[0]!.toUpperCase() + outside.slice(1) }} the ordinary
      <Figure bare :value="ordinary.low" quantity="power_per_area" /> to
      <Figure :value="ordinary.high" quantity="power_per_area" /> of cooling for {{ ordinary.name }}.
    </p>
  </div>
</template>

<style scoped>
.yardsticks {
  margin-top: 10px;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  margin: 4px 0;
  font-family: var(--narrow);
}
p {
  margin: 0;
  font-size: 12px;
  font-family: var(--narrow);
}
dt,
dd {
  margin: 0;
  height: 21px;
}
dd {
  text-align: right;
}
</style>
