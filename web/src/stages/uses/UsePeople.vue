<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { choicesOf } from "@/parts/saving";
import type { UseResult } from "@/results/types";
import { computed } from "vue";
import { quantityOfBasis } from "./useFields";

const props = defineProps<{ use: Use; worked: UseResult | undefined }>();
const doc = useDocument();
const field = fieldsFor("use", () => props.use);
const fractions = computed(() =>
  choicesOf(doc.rows("schedule").filter((row) => row.kind === "fraction" || row.kind === "on_off")),
);
const watts = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "w_per_person")));
</script>

<template>
  <div class="block">
    <h2>People</h2>
    <p>
      <Field inline v-bind="field('people_value', { quantity: quantityOfBasis(use.people_basis) })" />
      <Field inline v-bind="field('people_basis')" />,
      <Field inline v-bind="field('people_schedule', { choices: fractions, empty: 'all the time' })" />.
    </p>
    <p v-if="worked" class="derived">
      that is <Figure :value="worked.people_per_m2" quantity="people_density" />, or
      <Figure :value="worked.people_per_m2 ? 1 / worked.people_per_m2 : null" quantity="area_per_person" />
      each, or {{ worked.people.toFixed(1) }} in <Figure :value="worked.area_m2" quantity="area" />
    </p>
    <p>
      Each is
      <Field inline v-bind="field('activity', { empty: 'of a heat entered here' })" />
      <template v-if="!use.activity">
        and gives
        <Field inline v-bind="field('person_sensible_w')" />
        sensible,
        <Field inline v-bind="field('person_latent_w')" />
        latent;
      </template>
      <span v-else-if="worked"
        >and gives <Figure :value="worked.person_sensible_w" quantity="power" /> sensible and
        <Figure :value="worked.person_latent_w" quantity="power" /> latent at the room's temperature;</span
      >
      <Field inline v-bind="field('people_radiant_share')" />
      of the sensible part is radiant.
    </p>
    <p v-if="watts.length || use.person_schedule">
      Sensible heat of one follows
      <Field inline v-bind="field('person_schedule', { choices: watts, empty: 'no schedule' })" />.
    </p>
  </div>
</template>
