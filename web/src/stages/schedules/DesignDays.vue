<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Schedule } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import { useResults } from "@/results/store";
import { computed } from "vue";

/** Which patterns the design days take. */
const props = defineProps<{ schedule: Schedule }>();
const doc = useDocument();
const field = fieldsFor("schedule", () => props.schedule);
const result = computed(() => useResults().get("schedule", props.schedule.id));
const patterns = computed(() => props.schedule.patterns.map((p) => ({ value: p.id, label: p.name })));
function nameOf(id: string | null | undefined): string {
  return props.schedule.patterns.find((p) => p.id === id)?.name ?? "an empty day";
}
const summer = computed(() => [...new Set((result.value?.summer ?? []).map(nameOf))].join(", "));
/** What the year amounts to: hours at full value where values are shares, hours on where they are yes or no. */
const year = computed(() => {
  const hours = `${result.value?.hours_a_year.toFixed(0)} h`;
  if (props.schedule.kind === "fraction") return `Full-load hours in ${doc.project?.year}: ${hours}.`;
  return props.schedule.kind === "on_off" ? `On in ${doc.project?.year}: ${hours}.` : "";
});
</script>

<template>
  <div v-if="result">
    <h2>Design days</h2>
    <Field v-bind="field('summer', { choices: patterns, empty: 'the busiest weekday' })" />
    <Field v-if="!schedule.summer" v-bind="field('summer_by_month')" />
    <Field v-bind="field('winter', { choices: patterns, empty: 'an empty day' })" />
    <p class="soft small">
      Summer takes {{ summer }}, winter {{ nameOf(result.winter) }}. {{ year }} Daylight saving (Place,
      Choices) moves the hours against the sun.
    </p>
  </div>
</template>

<style scoped>
.small {
  font-size: 12px;
}
</style>
