<script setup lang="ts">
import { useResults } from "@/results/store";
import { clock, MONTHS } from "@/units/units";
import { computed } from "vue";
import Figure from "./Figure.vue";

/** What the building needs at its peaks: the effect of whatever is edited beside it. */
const results = useResults();
const now = computed(() => results.get("group", "building"));
const before = computed(() => results.prior("group", "building"));
function when(group: typeof now.value): string {
  return group ? `${MONTHS[group.cooling.month - 1]} ${clock(group.cooling.step)}` : "";
}
</script>

<template>
  <span v-if="now" class="peaks" aria-label="Peaks of the building">
    building: cooling
    <Figure
      :value="now.cooling.sensible_w"
      :prior="before?.cooling.sensible_w"
      quantity="load"
      :explain="{ quantity: 'group_cooling', subject: 'building' }"
    />
    <small
      ><s v-if="before && when(before) !== when(now)">{{ when(before) }}</s> {{ when(now) }}</small
    >, heating
    <Figure
      :value="now.heating_w"
      :prior="before?.heating_w"
      quantity="load"
      :explain="{ quantity: 'group_heating', subject: 'building' }"
    />
  </span>
  <span v-else class="peaks soft">no loads yet: they come with the first rooms</span>
</template>

<style scoped>
.peaks {
  color: var(--soft);
  font-size: 13px;
}
.peaks :deep(.figure) {
  color: var(--ink);
}
</style>
