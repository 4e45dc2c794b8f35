<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import { choicesOf, fieldSaver } from "@/parts/saving";
import { computed } from "vue";
import { AWAY_COOLING, AWAY_HEATING, DRAWN_AIR, SENSING, WARM_UP, type UseKey } from "./useFields";

const props = defineProps<{ use: Use }>();
const doc = useDocument();
const hours = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "on_off")));
const programmes = computed(() =>
  choicesOf(doc.rows("schedule").filter((row) => row.kind === "temperature")),
);
const leaves = computed(() => props.use.heating_away !== "hold" || props.use.cooling_away !== "hold");

function save(key: UseKey, label: string) {
  return fieldSaver("use", () => props.use.id, key, `${props.use.name}: ${label}`);
}
function number(quantity: string, clearable = false) {
  return { type: "number" as const, quantity, clearable };
}
</script>

<template>
  <div class="block">
    <h2>Set-points</h2>
    <Field label="Heated" :value="use.heated" :editor="{ type: 'yesno' }" :save="save('heated', 'heated')" />
    <Field
      label="Heated to"
      :value="use.heating_setpoint_c"
      :inherited="doc.project?.heating_setpoint_c"
      :editor="number('temperature')"
      :save="save('heating_setpoint_c', 'heating set-point')"
    />
    <Field label="Cooled" :value="use.cooled" :editor="{ type: 'yesno' }" :save="save('cooled', 'cooled')" />
    <Field
      label="Cooled to"
      :value="use.cooling_setpoint_c"
      :inherited="doc.project?.cooling_setpoint_c"
      :editor="number('temperature')"
      :save="save('cooling_setpoint_c', 'cooling set-point')"
    />
    <p v-if="!use.cooled" class="soft">
      Not cooled: the air floats; the figure is only the reference that neighbours' temperature differences
      count from.
    </p>
    <Field
      label="These hold"
      :value="use.setpoint_schedule"
      :editor="{ type: 'choice', choices: hours, clearable: true, empty: 'day and night' }"
      :save="save('setpoint_schedule', 'hours of the set-points')"
    />
    <template v-if="use.heated">
      <Field
        label="heating outside them"
        :value="use.heating_away"
        :editor="{ type: 'choice', choices: AWAY_HEATING }"
        :save="save('heating_away', 'heating outside its hours')"
      />
      <Field
        v-if="use.heating_away === 'setback'"
        label="set back to"
        :value="use.heating_setback_c"
        :inherited="doc.project?.heating_setback_c"
        :editor="number('temperature')"
        :save="save('heating_setback_c', 'setback')"
      />
      <template v-if="use.heating_away !== 'hold'">
        <Field
          label="warm-up capacity"
          :value="use.warm_up"
          :editor="{ type: 'choice', choices: WARM_UP }"
          :save="save('warm_up', 'way of sizing the warm-up')"
        />
        <Field
          v-if="use.warm_up === 'solved'"
          label="time to warm up"
          :value="use.warm_up_h"
          :inherited="doc.project?.warm_up_h"
          :editor="number('time')"
          :save="save('warm_up_h', 'time to warm up')"
        />
        <Field
          v-else
          label="allowance per floor area"
          :value="use.reheat_w_m2"
          :editor="number('power_per_area')"
          :save="save('reheat_w_m2', 'warm-up allowance')"
        />
      </template>
    </template>
    <Field
      v-if="use.heated"
      label="radiant share of its heating"
      :value="use.heating_radiant_share"
      :editor="number('percent')"
      :save="save('heating_radiant_share', 'radiant share of its heating')"
    />
    <template v-if="use.cooled">
      <Field
        label="cooling outside them"
        :value="use.cooling_away"
        :editor="{ type: 'choice', choices: AWAY_COOLING }"
        :save="save('cooling_away', 'cooling outside its hours')"
      />
      <Field
        v-if="use.cooling_away === 'setup'"
        label="set up to"
        :value="use.cooling_setup_c"
        :inherited="doc.project?.cooling_setup_c"
        :editor="number('temperature')"
        :save="save('cooling_setup_c', 'set-up')"
      />
      <Field
        v-if="use.cooling_away !== 'hold'"
        label="time to pull down"
        :value="use.pull_down_h"
        :inherited="doc.project?.pull_down_h"
        :editor="number('time')"
        :save="save('pull_down_h', 'time to pull down')"
      />
    </template>
    <p v-if="leaves && !use.setpoint_schedule" class="soft">
      Choose which hours the set-points hold; an on-and-off schedule says it, also by season.
    </p>
    <template v-if="programmes.length || use.heating_programme || use.cooling_programme">
      <Field
        label="heating programme instead"
        :value="use.heating_programme"
        :editor="{ type: 'choice', choices: programmes, clearable: true }"
        :save="save('heating_programme', 'heating programme')"
      />
      <Field
        label="cooling programme instead"
        :value="use.cooling_programme"
        :editor="{ type: 'choice', choices: programmes, clearable: true }"
        :save="save('cooling_programme', 'cooling programme')"
      />
    </template>
    <Field
      label="The sensor feels"
      :value="use.sensing"
      :editor="{ type: 'choice', choices: SENSING }"
      :save="save('sensing', 'what the sensor feels')"
    />
    <Field
      v-if="use.sensing === 'mixed'"
      label="share of the surfaces"
      :value="use.radiant_weight"
      :editor="number('percent')"
      :save="save('radiant_weight', 'share of the surfaces')"
    />
  </div>
  <div class="block">
    <h2>Air drawn in by warmth</h2>
    <Field
      label="By"
      :value="use.drawn_air"
      :editor="{ type: 'choice', choices: DRAWN_AIR }"
      :save="save('drawn_air', 'air drawn in by warmth')"
    />
    <template v-if="use.drawn_air !== 'none'">
      <Field
        label="fully open"
        :value="use.drawn_air_ach"
        :editor="number('air_changes')"
        :save="save('drawn_air_ach', 'air drawn in')"
      />
      <Field
        label="begins above"
        :value="use.drawn_air_above_c"
        :editor="number('temperature')"
        :save="save('drawn_air_above_c', 'temperature at which air is drawn in')"
      />
      <Field
        label="fully open above that by"
        :value="use.drawn_air_band_k"
        :editor="number('temperature_difference')"
        :save="save('drawn_air_band_k', 'band')"
      />
      <Field
        label="may open"
        :value="use.drawn_air_schedule"
        :editor="{ type: 'choice', choices: hours, clearable: true, empty: 'at any time' }"
        :save="save('drawn_air_schedule', 'hours of drawn-in air')"
      />
    </template>
  </div>
  <div class="block">
    <h2>Humidity</h2>
    <Field
      label="not below"
      :value="use.humidity_low"
      :editor="number('percent', true)"
      :save="save('humidity_low', 'lower humidity limit')"
    />
    <Field
      label="not above"
      :value="use.humidity_high"
      :editor="number('percent', true)"
      :save="save('humidity_high', 'upper humidity limit')"
    />
    <Field
      v-if="use.humidity_low !== null || use.humidity_high !== null"
      label="asked for"
      :value="use.humidity_schedule"
      :editor="{ type: 'choice', choices: hours, clearable: true, empty: 'day and night' }"
      :save="save('humidity_schedule', 'hours of the humidity limits')"
    />
  </div>
</template>
