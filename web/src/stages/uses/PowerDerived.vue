<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import type { UseResult } from "@/results/types";

/** Lights or equipment, said in every way in which they may be entered. */
defineProps<{ what: "lights" | "equipment"; worked: UseResult }>();
</script>

<template>
  <p class="derived">
    that is <Figure :value="worked[`${what}_w_m2`]" quantity="power_per_area" /><template
      v-if="worked.area_m2"
      >, <Figure :value="worked[`${what}_w`]" quantity="load" /> in
      <Figure :value="worked.area_m2" quantity="area" /></template
    ><template v-if="worked[`${what}_w_per_person`] !== null"
      >, <Figure :value="worked[`${what}_w_per_person`]" quantity="power" /> for each person</template
    >
  </p>
</template>
