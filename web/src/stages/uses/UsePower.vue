<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import { choicesOf } from "@/parts/saving";
import type { UseResult } from "@/results/types";
import { computed } from "vue";
import PowerDerived from "./PowerDerived.vue";
import { quantityOfBasis } from "./useFields";

/** Lights and equipment. */
const props = defineProps<{ use: Use; worked: UseResult | undefined }>();
const doc = useDocument();
const field = fieldsFor("use", () => props.use);
const fractions = computed(() =>
  choicesOf(doc.rows("schedule").filter((row) => row.kind === "fraction" || row.kind === "on_off")),
);
const left = computed(() =>
  Math.round((1 - props.use.equipment_latent_share! - props.use.equipment_vented_share!) * 100),
);
</script>

<template>
  <div class="block">
    <h2>Lights</h2>
    <p>
      <Field inline v-bind="field('lights_value', { quantity: quantityOfBasis(use.lights_basis) })" />
      <Field inline v-bind="field('lights_basis')" />, lit as
      <Field inline v-bind="field('lights_schedule', { choices: fractions, empty: 'all the time' })" />
    </p>
    <PowerDerived v-if="worked" what="lights" :worked="worked" />
    <p>
      and task lights
      <Field inline v-bind="field('task_lights_w_m2')" /><template v-if="use.task_lights_w_m2"
        >, lit as
        <Field
          inline
          v-bind="field('task_lights_schedule', { choices: fractions, empty: 'all the time' })" /></template
      >;
      <Field inline v-bind="field('lights_radiant_share')" />
      is radiant; of the lights' heat
      <Field inline v-bind="field('lights_return_share')" />
      goes into the return air of a unit that has one.
    </p>
  </div>
  <div class="block">
    <h2>Equipment</h2>
    <p>
      <Field inline v-bind="field('equipment_value', { quantity: quantityOfBasis(use.equipment_basis) })" />
      <Field inline v-bind="field('equipment_basis')" />, running as
      <Field inline v-bind="field('equipment_schedule', { choices: fractions, empty: 'all the time' })" />.
    </p>
    <PowerDerived v-if="worked" what="equipment" :worked="worked" />
    <p>
      <Field inline v-bind="field('equipment_latent_share')" />
      of it is latent,
      <Field inline v-bind="field('equipment_vented_share')" />
      is vented straight out, {{ left }} % stays as sensible heat, of which
      <Field inline v-bind="field('equipment_radiant_share')" />
      is radiant.
    </p>
  </div>
</template>
