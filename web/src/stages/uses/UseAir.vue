<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import type { UseResult } from "@/results/types";
import { LEAKS, useEditing } from "./useFields";

/** Outdoor air, least air changes, leaks and hot water. */
const props = defineProps<{ use: Use; worked: UseResult | undefined }>();
const doc = useDocument();
const { save, number, choice } = useEditing(() => props.use);
</script>

<template>
  <div class="block">
    <h2>Air</h2>
    <p>
      Outdoor air
      <Field
        inline
        label="Outdoor air per person"
        :value="use.air_per_person_m3_s"
        :editor="number('airflow_per_person')"
        :save="save('air_per_person_m3_s', 'outdoor air per person')"
      />
      and
      <Field
        inline
        label="and per area"
        :value="use.air_per_area_m3_s_m2"
        :editor="number('airflow_per_area')"
        :save="save('air_per_area_m3_s_m2', 'outdoor air per area')"
      />, divided by the distribution effectiveness Ez
      <Field
        inline
        label="distribution effectiveness Ez"
        :value="use.air_effectiveness"
        :editor="number('ratio')"
        :save="save('air_effectiveness', 'effectiveness')"
      /><span v-if="worked" class="derived"
        >: <Figure :value="worked.outdoor_air_m3_s_m2" quantity="airflow_per_area" /> in all</span
      >; not below
      <Field
        inline
        label="outdoor air, at least"
        :value="use.outdoor_air_changes"
        :editor="number('air_changes')"
        :save="save('outdoor_air_changes', 'least air changes of outdoor air')"
      />
      of outdoor air.
    </p>
    <p>
      Supply air not below
      <Field
        inline
        label="at least, air changes"
        :value="use.minimum_air_changes"
        :inherited="doc.project?.minimum_air_changes"
        :editor="number('air_changes')"
        :save="save('minimum_air_changes', 'least air changes')"
      />. Leaks by
      <Field
        inline
        label="Leaks entered as"
        :value="use.infiltration_basis"
        :editor="choice(LEAKS)"
        :save="save('infiltration_basis', 'basis of infiltration')"
      />:
      <Field
        v-if="use.infiltration_basis === 'air_changes'"
        inline
        label="infiltration"
        :value="use.infiltration_ach"
        :inherited="doc.project?.infiltration_ach"
        :editor="number('air_changes')"
        :save="save('infiltration_ach', 'infiltration')"
      />
      <Field
        v-else-if="use.infiltration_basis === 'envelope'"
        inline
        label="per area towards outdoors"
        :value="use.infiltration_m3_s_m2"
        :editor="number('leak_per_area')"
        :save="save('infiltration_m3_s_m2', 'infiltration')"
      />
      <template v-else>
        <Field
          inline
          label="leakage area at 4 Pa, per outer area"
          :value="use.leakage_cm2_m2"
          :editor="number('leakage')"
          :save="save('leakage_cm2_m2', 'leakage area')"
        />
        of outer area, at 4 Pa</template
      >.
    </p>
  </div>
  <div class="block">
    <h2>Hot water</h2>
    <p>
      <Field
        inline
        label="a person and day"
        :value="use.hot_water_l_person_day"
        :editor="number('litres')"
        :save="save('hot_water_l_person_day', 'hot water a person')"
      />
      a person and day, and
      <Field
        inline
        label="an area and day"
        :value="use.hot_water_l_m2_day"
        :editor="number('litres_per_area')"
        :save="save('hot_water_l_m2_day', 'hot water an area')"
      />
      a day, at
      <Field
        inline
        label="hot water at"
        :value="use.hot_water_c"
        :editor="number('temperature')"
        :save="save('hot_water_c', 'hot water temperature')"
      />.
      <span v-if="worked?.hot_water_l_day" class="derived">
        <Figure :value="worked.hot_water_l_day" quantity="litres" /> and
        <Figure :value="worked.hot_water_j_day" quantity="energy" /> a day, from the cold main
      </span>
    </p>
  </div>
</template>
