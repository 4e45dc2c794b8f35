<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import { choicesOf } from "@/parts/saving";
import { computed } from "vue";
import { AWAY_COOLING, AWAY_HEATING, DRAWN_AIR, SENSING, useEditing, WARM_UP } from "./useFields";

/** Set-points with what happens outside their hours, air drawn in by warmth, humidity limits. */
const props = defineProps<{ use: Use }>();
const doc = useDocument();
const { save, number, choice } = useEditing(() => props.use);
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
      <Field
        inline
        label="Heated"
        :value="use.heated"
        :editor="{ type: 'yesno' }"
        :save="save('heated', 'heated')"
      />
      heated to
      <Field
        inline
        label="Heated to"
        :value="use.heating_setpoint_c"
        :inherited="doc.project?.heating_setpoint_c"
        :editor="number('temperature')"
        :save="save('heating_setpoint_c', 'heating set-point')"
      />
      and
      <Field
        inline
        label="Cooled"
        :value="use.cooled"
        :editor="{ type: 'yesno' }"
        :save="save('cooled', 'cooled')"
      />
      cooled to
      <Field
        inline
        label="Cooled to"
        :value="use.cooling_setpoint_c"
        :inherited="doc.project?.cooling_setpoint_c"
        :editor="number('temperature')"
        :save="save('cooling_setpoint_c', 'cooling set-point')"
      />,
      <Field
        inline
        label="These hold"
        :value="use.setpoint_schedule"
        :editor="choice(hours, 'day and night')"
        :save="save('setpoint_schedule', 'hours of the set-points')"
      />.
    </p>
    <p v-if="!use.cooled" class="derived">
      Not cooled: the air floats; the figure is only the reference that neighbours' temperature differences
      count from.
    </p>
    <p v-if="use.heated">
      Outside these hours heating is
      <Field
        inline
        label="heating outside them"
        :value="use.heating_away"
        :editor="choice(AWAY_HEATING)"
        :save="save('heating_away', 'heating outside its hours')"
      /><template v-if="use.heating_away === 'setback'">
        to
        <Field
          inline
          label="set back to"
          :value="use.heating_setback_c"
          :inherited="doc.project?.heating_setback_c"
          :editor="number('temperature')"
          :save="save('heating_setback_c', 'setback')" /></template
      ><template v-if="use.heating_away !== 'hold'"
        >; the warm-up is
        <Field
          inline
          label="warm-up capacity"
          :value="use.warm_up"
          :editor="choice(WARM_UP)"
          :save="save('warm_up', 'way of sizing the warm-up')" />
        of
        <Field
          v-if="use.warm_up === 'solved'"
          inline
          label="time to warm up"
          :value="use.warm_up_h"
          :inherited="doc.project?.warm_up_h"
          :editor="number('time')"
          :save="save('warm_up_h', 'time to warm up')" /><Field
          v-else
          inline
          label="allowance per floor area"
          :value="use.reheat_w_m2"
          :editor="number('power_per_area')"
          :save="save('reheat_w_m2', 'warm-up allowance')" /></template
      >.
      <Field
        inline
        label="radiant share of its heating"
        :value="use.heating_radiant_share"
        :editor="number('percent')"
        :save="save('heating_radiant_share', 'radiant share of its heating')"
      />
      of the heating is radiant.
    </p>
    <p v-if="use.cooled">
      Outside these hours cooling is
      <Field
        inline
        label="cooling outside them"
        :value="use.cooling_away"
        :editor="choice(AWAY_COOLING)"
        :save="save('cooling_away', 'cooling outside its hours')"
      /><template v-if="use.cooling_away === 'setup'">
        to
        <Field
          inline
          label="set up to"
          :value="use.cooling_setup_c"
          :inherited="doc.project?.cooling_setup_c"
          :editor="number('temperature')"
          :save="save('cooling_setup_c', 'set-up')" /></template
      ><template v-if="use.cooling_away !== 'hold'"
        >, pulled down again in the
        <Field
          inline
          label="time to pull down"
          :value="use.pull_down_h"
          :inherited="doc.project?.pull_down_h"
          :editor="number('minutes')"
          :save="save('pull_down_h', 'time to pull down')"
        />
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
      <Field
        inline
        label="heating programme instead"
        :value="use.heating_programme"
        :editor="choice(programmes, 'none')"
        :save="save('heating_programme', 'heating programme')"
      />, cooling
      <Field
        inline
        label="cooling programme instead"
        :value="use.cooling_programme"
        :editor="choice(programmes, 'none')"
        :save="save('cooling_programme', 'cooling programme')"
      />.
    </p>
    <p>
      The sensor feels
      <Field
        inline
        label="The sensor feels"
        :value="use.sensing"
        :editor="choice(SENSING)"
        :save="save('sensing', 'what the sensor feels')"
      /><template v-if="use.sensing === 'mixed'">
        with
        <Field
          inline
          label="share of the surfaces"
          :value="use.radiant_weight"
          :editor="number('percent')"
          :save="save('radiant_weight', 'share of the surfaces')"
        />
        for the surfaces</template
      >.
    </p>
  </div>
  <div class="block">
    <h2>Air drawn in by warmth, and humidity</h2>
    <p>
      Warmth opens
      <Field
        inline
        label="By"
        :value="use.drawn_air"
        :editor="choice(DRAWN_AIR)"
        :save="save('drawn_air', 'air drawn in by warmth')"
      /><template v-if="use.drawn_air !== 'none'"
        >: from
        <Field
          inline
          label="begins above"
          :value="use.drawn_air_above_c"
          :editor="number('temperature')"
          :save="save('drawn_air_above_c', 'temperature at which air is drawn in')" />, and fully,
        <Field
          inline
          label="fully open"
          :value="use.drawn_air_ach"
          :editor="number('air_changes')"
          :save="save('drawn_air_ach', 'air drawn in')" />,
        <Field
          inline
          label="fully open above that by"
          :value="use.drawn_air_band_k"
          :editor="number('temperature_difference')"
          :save="save('drawn_air_band_k', 'band')" />
        above that,
        <Field
          inline
          label="may open"
          :value="use.drawn_air_schedule"
          :editor="choice(hours, 'at any time')"
          :save="save('drawn_air_schedule', 'hours of drawn-in air')" /></template
      >.
    </p>
    <p>
      Relative humidity not below
      <Field
        inline
        label="not below"
        :value="use.humidity_low"
        :editor="number('percent', true)"
        :save="save('humidity_low', 'lower humidity limit')"
      />
      and not above
      <Field
        inline
        label="not above"
        :value="use.humidity_high"
        :editor="number('percent', true)"
        :save="save('humidity_high', 'upper humidity limit')"
      /><template v-if="use.humidity_low !== null || use.humidity_high !== null"
        >,
        <Field
          inline
          label="asked for"
          :value="use.humidity_schedule"
          :editor="choice(hours, 'day and night')"
          :save="save('humidity_schedule', 'hours of the humidity limits')" /></template
      >; empty is no limit.
    </p>
  </div>
</template>
