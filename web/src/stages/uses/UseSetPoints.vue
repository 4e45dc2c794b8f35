<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import { choicesOf } from "@/parts/saving";
import { computed } from "vue";

/** Set-points with what happens outside their hours, air drawn in by warmth, humidity limits. */
const props = defineProps<{ use: Use }>();
const doc = useDocument();
const field = fieldsFor("use", () => props.use);
const hours = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "on_off")));
const programmes = computed(() =>
  choicesOf(doc.rows("schedule").filter((row) => row.kind === "temperature")),
);
const leaves = computed(() => props.use.heating_away !== "hold" || props.use.cooling_away !== "hold");
</script>

<template>
  <div class="block">
    <h2>Set-points</h2>
    <p>
      <Field inline v-bind="field('heated')" />
      heated to
      <Field inline v-bind="field('heating_setpoint_c')" />
      and
      <Field inline v-bind="field('cooled')" />
      cooled to
      <Field inline v-bind="field('cooling_setpoint_c')" />,
      <Field inline v-bind="field('setpoint_schedule', { choices: hours, empty: 'day and night' })" />.
    </p>
    <p v-if="!use.cooled" class="derived">
      Not cooled: the air floats; the figure is only the reference that neighbours' temperature differences
      count from.
    </p>
    <p v-if="use.heated">
      Outside these hours heating is
      <Field inline v-bind="field('heating_away')" /><template v-if="use.heating_away === 'setback'">
        to
        <Field inline v-bind="field('heating_setback_c')" /></template
      ><template v-if="use.heating_away !== 'hold'"
        >; the warm-up is
        <Field inline v-bind="field('warm_up')" />
        of
        <Field v-if="use.warm_up === 'solved'" inline v-bind="field('warm_up_h')" /><Field
          v-else
          inline
          v-bind="field('reheat_w_m2')" /></template
      >.
      <Field inline v-bind="field('heating_radiant_share')" />
      of the heating is radiant.
    </p>
    <p v-if="use.cooled">
      Outside these hours cooling is
      <Field inline v-bind="field('cooling_away')" /><template v-if="use.cooling_away === 'setup'">
        to
        <Field inline v-bind="field('cooling_setup_c')" /></template
      ><template v-if="use.cooling_away !== 'hold'"
        >, pulled down again in the
        <Field inline v-bind="field('pull_down_h')" />
        before its hours<span v-if="(use.pull_down_h ?? doc.project?.pull_down_h) === 0" class="derived"
          >: not before, the first hour carries the jump</span
        ></template
      >.
    </p>
    <p v-if="leaves && !use.setpoint_schedule" class="fault">
      Choose which hours the set-points hold; an on-and-off schedule says it, also by season.
    </p>
    <p v-if="programmes.length || use.heating_programme || use.cooling_programme">
      A programme of temperatures instead: heating
      <Field inline v-bind="field('heating_programme', { choices: programmes, empty: 'none' })" />, cooling
      <Field inline v-bind="field('cooling_programme', { choices: programmes, empty: 'none' })" />.
    </p>
    <p>
      The sensor feels
      <Field inline v-bind="field('sensing')" /><template v-if="use.sensing === 'mixed'">
        with
        <Field inline v-bind="field('radiant_weight')" />
        for the surfaces</template
      >.
    </p>
  </div>
  <div class="block">
    <h2>Air drawn in by warmth, and humidity</h2>
    <p>
      Warmth opens
      <Field inline v-bind="field('drawn_air')" /><template v-if="use.drawn_air !== 'none'"
        >: from <Field inline v-bind="field('drawn_air_above_c')" />, and fully,
        <Field inline v-bind="field('drawn_air_ach')" />,
        <Field inline v-bind="field('drawn_air_band_k')" />
        above that,
        <Field
          inline
          v-bind="field('drawn_air_schedule', { choices: hours, empty: 'at any time' })" /></template
      >.
    </p>
    <p>
      Relative humidity not below
      <Field inline v-bind="field('humidity_low')" />
      and not above
      <Field inline v-bind="field('humidity_high')" /><template
        v-if="use.humidity_low !== null || use.humidity_high !== null"
        >,
        <Field
          inline
          v-bind="field('humidity_schedule', { choices: hours, empty: 'day and night' })" /></template
      >; empty is no limit.
    </p>
  </div>
</template>
