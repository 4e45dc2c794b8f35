<script setup lang="ts">
import type { Use } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import type { UseResult } from "@/results/types";

/** Outdoor air, least air changes, leaks and hot water. */
const props = defineProps<{ use: Use; worked: UseResult | undefined }>();
const field = fieldsFor("use", () => props.use);
</script>

<template>
  <div class="block">
    <h2>Air</h2>
    <p>
      Outdoor air
      <Field inline v-bind="field('air_per_person_m3_s')" />
      and
      <Field inline v-bind="field('air_per_area_m3_s_m2')" />, divided by the distribution effectiveness Ez
      <Field inline v-bind="field('air_effectiveness')" /><span v-if="worked" class="derived"
        >: <Figure :value="worked.outdoor_air_m3_s_m2" quantity="airflow_per_area" /> in all</span
      >; not below
      <Field inline v-bind="field('outdoor_air_changes')" />
      of outdoor air.
    </p>
    <p>
      Supply air not below
      <Field inline v-bind="field('minimum_air_changes')" />. Leaks by
      <Field inline v-bind="field('infiltration_basis')" />:
      <Field v-if="use.infiltration_basis === 'air_changes'" inline v-bind="field('infiltration_ach')" />
      <Field
        v-else-if="use.infiltration_basis === 'envelope'"
        inline
        v-bind="field('infiltration_m3_s_m2')"
      />
      <template v-else>
        <Field inline v-bind="field('leakage_cm2_m2')" />
        of outer area, at 4 Pa</template
      >.
    </p>
  </div>
  <div class="block">
    <h2>Hot water</h2>
    <p>
      <Field inline v-bind="field('hot_water_l_person_day')" />
      a person and day,
      <Field inline v-bind="field('hot_water_l_m2_day')" />
      a day, and
      <Field inline v-bind="field('hot_water_l_room_day')" />
      a room and day, at
      <Field inline v-bind="field('hot_water_c')" />.
      <span v-if="worked?.hot_water_l_day" class="derived">
        <Figure :value="worked.hot_water_l_day" quantity="litres" /> and
        <Figure :value="worked.hot_water_j_day" quantity="energy" /> a day, from the cold main
      </span>
    </p>
  </div>
</template>
