<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import { choicesOf } from "@/parts/saving";
import type { UseResult } from "@/results/types";
import { computed } from "vue";
import PowerDerived from "./PowerDerived.vue";
import { POWER_BASES, quantityOf, useEditing } from "./useFields";

/** Lights and equipment. */
const props = defineProps<{ use: Use; worked: UseResult | undefined }>();
const doc = useDocument();
const { save, number, choice } = useEditing(() => props.use);
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
      <Field
        inline
        label="Lights"
        :value="use.lights_value"
        :editor="number(quantityOf(POWER_BASES, use.lights_basis))"
        :save="save('lights_value', 'lights')"
      />
      <Field
        inline
        label="Lights entered as"
        :value="use.lights_basis"
        :editor="choice(POWER_BASES)"
        :save="save('lights_basis', 'basis of lights')"
      />, lit as
      <Field
        inline
        label="lit as"
        :value="use.lights_schedule"
        :editor="choice(fractions, 'all the time')"
        :save="save('lights_schedule', 'schedule of lights')"
      />
    </p>
    <PowerDerived v-if="worked" what="lights" :worked="worked" />
    <p>
      and task lights
      <Field
        inline
        label="Task lights"
        :value="use.task_lights_w_m2"
        :editor="number('connected_density')"
        :save="save('task_lights_w_m2', 'task lights')"
      /><template v-if="use.task_lights_w_m2"
        >, lit as
        <Field
          inline
          label="task lights lit as"
          :value="use.task_lights_schedule"
          :editor="choice(fractions, 'all the time')"
          :save="save('task_lights_schedule', 'schedule of task lights')" /></template
      >;
      <Field
        inline
        label="radiant share of the lights"
        :value="use.lights_radiant_share"
        :editor="number('percent')"
        :save="save('lights_radiant_share', 'radiant share')"
      />
      is radiant.
    </p>
  </div>
  <div class="block">
    <h2>Equipment</h2>
    <p>
      <Field
        inline
        label="Equipment"
        :value="use.equipment_value"
        :editor="number(quantityOf(POWER_BASES, use.equipment_basis))"
        :save="save('equipment_value', 'equipment')"
      />
      <Field
        inline
        label="Equipment entered as"
        :value="use.equipment_basis"
        :editor="choice(POWER_BASES)"
        :save="save('equipment_basis', 'basis of equipment')"
      />, running as
      <Field
        inline
        label="running as"
        :value="use.equipment_schedule"
        :editor="choice(fractions, 'all the time')"
        :save="save('equipment_schedule', 'schedule of equipment')"
      />.
    </p>
    <PowerDerived v-if="worked" what="equipment" :worked="worked" />
    <p>
      <Field
        inline
        label="latent share"
        :value="use.equipment_latent_share"
        :editor="number('percent')"
        :save="save('equipment_latent_share', 'latent share')"
      />
      of it is latent,
      <Field
        inline
        label="share vented straight out"
        :value="use.equipment_vented_share"
        :editor="number('percent')"
        :save="save('equipment_vented_share', 'vented share')"
      />
      is vented straight out, {{ left }} % stays as sensible heat, of which
      <Field
        inline
        label="radiant share of the equipment"
        :value="use.equipment_radiant_share"
        :editor="number('percent')"
        :save="save('equipment_radiant_share', 'radiant share')"
      />
      is radiant.
    </p>
  </div>
</template>
