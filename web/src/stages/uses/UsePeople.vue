<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { choicesOf } from "@/parts/saving";
import type { UseResult } from "@/results/types";
import { computed } from "vue";
import { ACTIVITIES, PEOPLE_BASES, quantityOf, useEditing } from "./useFields";

const props = defineProps<{ use: Use; worked: UseResult | undefined }>();
const doc = useDocument();
const { save, number, choice } = useEditing(() => props.use);
const fractions = computed(() =>
  choicesOf(doc.rows("schedule").filter((row) => row.kind === "fraction" || row.kind === "on_off")),
);
const watts = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "w_per_person")));
</script>

<template>
  <div class="block">
    <h2>People</h2>
    <p>
      <Field
        inline
        label="People"
        :value="use.people_value"
        :editor="number(quantityOf(PEOPLE_BASES, use.people_basis))"
        :save="save('people_value', 'people')"
      />
      <Field
        inline
        label="Entered as"
        :value="use.people_basis"
        :editor="choice(PEOPLE_BASES)"
        :save="save('people_basis', 'basis of people')"
      />,
      <Field
        inline
        label="present as"
        :value="use.people_schedule"
        :editor="choice(fractions, 'all the time')"
        :save="save('people_schedule', 'schedule of people')"
      />.
    </p>
    <p v-if="worked" class="derived">
      that is <Figure :value="worked.people_per_m2" quantity="people_density" />, or
      <Figure :value="worked.people_per_m2 ? 1 / worked.people_per_m2 : null" quantity="area_per_person" />
      each, or {{ worked.people.toFixed(1) }} in <Figure :value="worked.area_m2" quantity="area" />
    </p>
    <p>
      Each is
      <Field
        inline
        label="doing"
        :value="use.activity"
        :editor="choice(ACTIVITIES, 'of a heat entered here')"
        :save="save('activity', 'activity')"
      />
      <template v-if="!use.activity">
        and gives
        <Field
          inline
          label="each gives, sensible"
          :value="use.person_sensible_w"
          :editor="number('power')"
          :save="save('person_sensible_w', 'sensible heat of a person')"
        />
        sensible,
        <Field
          inline
          label="and latent"
          :value="use.person_latent_w"
          :editor="number('power')"
          :save="save('person_latent_w', 'latent heat of a person')"
        />
        latent;
      </template>
      <span v-else-if="worked"
        >and gives <Figure :value="worked.person_sensible_w" quantity="power" /> sensible and
        <Figure :value="worked.person_latent_w" quantity="power" /> latent at the room's temperature;</span
      >
      <Field
        inline
        label="radiant share of the sensible part"
        :value="use.people_radiant_share"
        :editor="number('percent')"
        :save="save('people_radiant_share', 'radiant share')"
      />
      of the sensible part is radiant.
    </p>
    <p v-if="watts.length || use.person_schedule">
      Sensible heat of one follows
      <Field
        inline
        label="sensible heat of one, by"
        :value="use.person_schedule"
        :editor="choice(watts, 'no schedule')"
        :save="save('person_schedule', 'watts of a person')"
      />.
    </p>
  </div>
</template>
