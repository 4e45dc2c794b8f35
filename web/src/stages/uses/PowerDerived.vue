<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import type { UseResult } from "@/results/types";

/** Lights or equipment, said in every way in which they may be entered. */
defineProps<{ what: "lights" | "equipment"; worked: UseResult }>();
</script>

<template>
  <p class="derived">
    that is <Figure :value="worked[`${what}_w_m2`]" quantity="connected_density" /><template
      v-if="worked.area_m2"
      >, <Figure :value="worked[`${what}_w`]" quantity="connected_power" /> in
      <Figure :value="worked.area_m2" quantity="area" /></template
    ><template v-if="worked[`${what}_w_per_person`] !== null"
      >, <Figure :value="worked[`${what}_w_per_person`]" quantity="connected_power" /> for each
      person</template
    >
  </p>
</template>
