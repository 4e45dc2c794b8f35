<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import LineChart from "@/parts/LineChart.vue";
import { toCells, type Steps } from "@/parts/pattern";
import { choicesOf, fieldSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import type { GroupResult } from "@/results/types";
import { clock, counted, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { ACTIVITIES, LEAKS, PEOPLE_BASES, POWER_BASES, quantityOf, type UseKey } from "./useFields";
import UseItems from "./UseItems.vue";
import UseSetPoints from "./UseSetPoints.vue";

const props = defineProps<{ use: Use; result: GroupResult | undefined; before: GroupResult | undefined }>();
const emit = defineEmits<{ remove: []; copy: []; replace: [other: string] }>();
const doc = useDocument();
const view = useView();
const worked = computed(() => useResults().get("use", props.use.id));
const hour = ref(12);
const fractions = computed(() =>
  choicesOf(doc.rows("schedule").filter((row) => row.kind === "fraction" || row.kind === "on_off")),
);
const watts = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "w_per_person")));
const rooms = computed(() => doc.rows("room").filter((room) => room.use === props.use.id));
const others = computed(() => doc.rows("use").filter((row) => row.id !== props.use.id));
const month = computed(() => Math.min(12, view.month || 7));
const day = computed(() => worked.value?.days[worked.value.day_of[month.value - 1] ?? 0]);
const courses = computed(() =>
  (["people", "lights", "equipment", "latent"] as const).map((name) => ({
    name,
    colour: name === "latent" ? "var(--tide)" : `var(--${name})`,
    dashed: name === "latent",
    values: (day.value?.[name] ?? []).map((value) => toShown(value, "power_per_area", view.system)),
  })),
);
/** Set-points of the chosen day; where there is none the line is left out. */
const setPoints = computed(() =>
  (["heating", "cooling"] as const).flatMap((name) => {
    const steps = worked.value?.set_points[name][month.value - 1] ?? [];
    if (!steps.some(([, value]) => value !== null)) return [];
    const cells = toCells(steps.map(([until, value]) => [until, value ?? NaN]) as Steps, 10);
    const colour = name === "heating" ? "var(--ember)" : "var(--tide)";
    return [{ name: `${name} set-point`, colour, values: cells.map((c) => toShown(c, "temperature", view.system)) }];
  }),
); // prettier-ignore
const there = computed(() => {
  const share = worked.value?.presence[month.value - 1]?.[hour.value * 6] ?? 0;
  return { share, people: share * (worked.value?.people ?? 0) };
});
const sum = computed(() => props.use.equipment_latent_share! + props.use.equipment_vented_share!);

function save(key: UseKey, label: string) {
  return fieldSaver("use", () => props.use.id, key, `${props.use.name}: ${label}`);
}
function number(quantity: string) {
  return { type: "number" as const, quantity };
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>{{ use.name }}</h1>
      <span class="soft"
        >{{ counted(rooms.length, "room")
        }}<template v-if="result"
          >, cooling together
          <Figure :value="result.cooling.sensible_w" :prior="before?.cooling.sensible_w" quantity="load" />,
          heating <Figure :value="result.heating_w" :prior="before?.heating_w" quantity="load" /></template
      ></span>
      <span class="grow" />
      <button class="act" @click="emit('copy')">Copy</button>
      <button class="act" @click="emit('remove')">Delete</button>
    </div>
    <div class="body two">
      <section class="sentences">
        <Field label="Name" :value="use.name" :editor="{ type: 'text' }" :save="save('name', 'name')" />
        <div class="block">
          <h2>People</h2>
          <Field
            label="Entered as"
            :value="use.people_basis"
            :editor="{ type: 'choice', choices: [...PEOPLE_BASES] }"
            :save="save('people_basis', 'basis of people')"
          />
          <Field
            label="People"
            :value="use.people_value"
            :editor="number(quantityOf(PEOPLE_BASES, use.people_basis))"
            :save="save('people_value', 'people')"
          />
          <p v-if="worked" class="derived">
            that is <Figure :value="worked.people_per_m2" quantity="people_density" />, or
            <Figure
              :value="worked.people_per_m2 ? 1 / worked.people_per_m2 : null"
              quantity="area_per_person"
            />
            each, or {{ worked.people.toFixed(1) }} in <Figure :value="worked.area_m2" quantity="area" />
          </p>
          <Field
            label="present as"
            :value="use.people_schedule"
            :editor="{ type: 'choice', choices: fractions, clearable: true }"
            :save="save('people_schedule', 'schedule of people')"
          />
          <Field
            label="doing"
            :value="use.activity"
            :editor="{ type: 'choice', choices: ACTIVITIES, clearable: true }"
            :save="save('activity', 'activity')"
          />
          <template v-if="!use.activity">
            <Field
              label="each gives, sensible"
              :value="use.person_sensible_w"
              :editor="number('power')"
              :save="save('person_sensible_w', 'sensible heat of a person')"
            />
            <Field
              label="and latent"
              :value="use.person_latent_w"
              :editor="number('power')"
              :save="save('person_latent_w', 'latent heat of a person')"
            />
          </template>
          <p v-else-if="worked" class="derived">
            each gives <Figure :value="worked.person_sensible_w" quantity="power" /> sensible and
            <Figure :value="worked.person_latent_w" quantity="power" /> latent at the room's temperature
          </p>
          <Field
            v-if="watts.length || use.person_schedule"
            label="sensible heat of one, by"
            :value="use.person_schedule"
            :editor="{ type: 'choice', choices: watts, clearable: true }"
            :save="save('person_schedule', 'watts of a person')"
          />
          <Field
            label="radiant share of the sensible part"
            :value="use.people_radiant_share"
            :editor="number('percent')"
            :save="save('people_radiant_share', 'radiant share')"
          />
        </div>
        <div class="block">
          <h2>Lights</h2>
          <Field
            label="Entered as"
            :value="use.lights_basis"
            :editor="{ type: 'choice', choices: [...POWER_BASES] }"
            :save="save('lights_basis', 'basis of lights')"
          />
          <Field
            label="Lights"
            :value="use.lights_value"
            :editor="number(quantityOf(POWER_BASES, use.lights_basis))"
            :save="save('lights_value', 'lights')"
          />
          <p v-if="worked && use.lights_basis !== 'w_m2'" class="derived">
            that is <Figure :value="worked.lights_w_m2" quantity="power_per_area" />
          </p>
          <Field
            label="lit as"
            :value="use.lights_schedule"
            :editor="{ type: 'choice', choices: fractions, clearable: true }"
            :save="save('lights_schedule', 'schedule of lights')"
          />
          <Field
            label="Task lights"
            :value="use.task_lights_w_m2"
            :editor="number('power_per_area')"
            :save="save('task_lights_w_m2', 'task lights')"
          />
          <Field
            v-if="use.task_lights_w_m2"
            label="task lights lit as"
            :value="use.task_lights_schedule"
            :editor="{ type: 'choice', choices: fractions, clearable: true }"
            :save="save('task_lights_schedule', 'schedule of task lights')"
          />
          <Field
            label="radiant share"
            :value="use.lights_radiant_share"
            :editor="number('percent')"
            :save="save('lights_radiant_share', 'radiant share')"
          />
        </div>
        <div class="block">
          <h2>Equipment</h2>
          <Field
            label="Entered as"
            :value="use.equipment_basis"
            :editor="{ type: 'choice', choices: [...POWER_BASES] }"
            :save="save('equipment_basis', 'basis of equipment')"
          />
          <Field
            label="Equipment"
            :value="use.equipment_value"
            :editor="number(quantityOf(POWER_BASES, use.equipment_basis))"
            :save="save('equipment_value', 'equipment')"
          />
          <p v-if="worked && use.equipment_basis !== 'w_m2'" class="derived">
            that is <Figure :value="worked.equipment_w_m2" quantity="power_per_area" />
          </p>
          <Field
            label="running as"
            :value="use.equipment_schedule"
            :editor="{ type: 'choice', choices: fractions, clearable: true }"
            :save="save('equipment_schedule', 'schedule of equipment')"
          />
          <Field
            label="latent share"
            :value="use.equipment_latent_share"
            :editor="number('percent')"
            :save="save('equipment_latent_share', 'latent share')"
          />
          <Field
            label="share vented straight out"
            :value="use.equipment_vented_share"
            :editor="number('percent')"
            :save="save('equipment_vented_share', 'vented share')"
          />
          <p class="derived">leaves {{ Math.round((1 - sum) * 100) }} % sensible in the room</p>
          <Field
            label="radiant share of the sensible part"
            :value="use.equipment_radiant_share"
            :editor="number('percent')"
            :save="save('equipment_radiant_share', 'radiant share')"
          />
        </div>
        <div class="block">
          <h2>Air</h2>
          <Field
            label="Outdoor air per person"
            :value="use.air_per_person_m3_s"
            :editor="number('airflow_per_person')"
            :save="save('air_per_person_m3_s', 'outdoor air per person')"
          />
          <Field
            label="and per area"
            :value="use.air_per_area_m3_s_m2"
            :editor="number('airflow_per_area')"
            :save="save('air_per_area_m3_s_m2', 'outdoor air per area')"
          />
          <Field
            label="distribution effectiveness Ez"
            :value="use.air_effectiveness"
            :editor="number('ratio')"
            :save="save('air_effectiveness', 'effectiveness')"
          />
          <p v-if="worked" class="derived">
            needs <Figure :value="worked.outdoor_air_m3_s_m2" quantity="airflow_per_area" /> in all
          </p>
          <Field
            label="at least, air changes"
            :value="use.minimum_air_changes"
            :inherited="doc.project?.minimum_air_changes"
            :editor="number('air_changes')"
            :save="save('minimum_air_changes', 'least air changes')"
          />
          <Field
            label="Leaks entered as"
            :value="use.infiltration_basis"
            :editor="{ type: 'choice', choices: LEAKS }"
            :save="save('infiltration_basis', 'basis of infiltration')"
          />
          <Field
            v-if="use.infiltration_basis === 'air_changes'"
            label="infiltration"
            :value="use.infiltration_ach"
            :inherited="doc.project?.infiltration_ach"
            :editor="number('air_changes')"
            :save="save('infiltration_ach', 'infiltration')"
          />
          <Field
            v-else-if="use.infiltration_basis === 'envelope'"
            label="per area towards outdoors"
            :value="use.infiltration_m3_s_m2"
            :editor="number('leak_per_area')"
            :save="save('infiltration_m3_s_m2', 'infiltration')"
          />
          <Field
            v-else
            label="leakage area at 4 Pa, per outer area"
            :value="use.leakage_cm2_m2"
            :editor="number('leakage')"
            :save="save('leakage_cm2_m2', 'leakage area')"
          />
        </div>
        <UseSetPoints :use="use" />
        <div class="block">
          <h2>Hot water</h2>
          <Field
            label="a person and day"
            :value="use.hot_water_l_person_day"
            :editor="number('litres')"
            :save="save('hot_water_l_person_day', 'hot water a person')"
          />
          <Field
            label="an area and day"
            :value="use.hot_water_l_m2_day"
            :editor="number('litres_per_area')"
            :save="save('hot_water_l_m2_day', 'hot water an area')"
          />
          <Field
            label="at"
            :value="use.hot_water_c"
            :editor="number('temperature')"
            :save="save('hot_water_c', 'hot water temperature')"
          />
          <p v-if="worked?.hot_water_l_day" class="derived">
            <Figure :value="worked.hot_water_l_day" quantity="litres" /> and
            <Figure :value="worked.hot_water_j_day" quantity="energy" /> a day, from the cold main
          </p>
        </div>
        <div class="block">
          <h2>Yardstick</h2>
          <Field
            label="Ordinary cooling, from"
            :value="use.yardstick_low_w_m2"
            :editor="number('power_per_area')"
            :save="save('yardstick_low_w_m2', 'yardstick')"
          />
          <Field
            label="to"
            :value="use.yardstick_high_w_m2"
            :editor="number('power_per_area')"
            :save="save('yardstick_high_w_m2', 'yardstick')"
          />
        </div>
        <Field
          label="Source of the values"
          :value="use.source"
          :editor="{ type: 'text', clearable: true }"
          :save="(value) => save('source', 'source')(value ?? '')"
        />
      </section>
      <section class="right">
        <div class="chart">
          <LineChart
            :title="`Heat to the room, design day of ${MONTHS[month - 1]}, standard time`"
            :unit="unitOf('power_per_area', view.system)"
            :series="courses"
            :marker="hour + 0.5"
            zero
          />
        </div>
        <div v-if="setPoints.length" class="chart small">
          <LineChart
            title="Set-points that day"
            :unit="unitOf('temperature', view.system)"
            :series="setPoints"
            :marker="hour + 0.5"
          />
        </div>
        <p>
          At
          <input v-model.number="hour" type="range" min="0" max="23" aria-label="Hour looked at" />
          {{ clock(hour * 6) }} there are <b data-test="people-at">{{ there.people.toFixed(1) }}</b> people
          <span class="soft"
            >({{ Math.round(there.share * 100) }} % of {{ (worked?.people ?? 0).toFixed(1) }})</span
          >
          <select v-model.number="view.month" aria-label="Design day">
            <option v-for="m in 12" :key="m" :value="m">{{ MONTHS[m - 1] }}</option>
          </select>
        </p>
        <UseItems :use="use" />
        <h2>Used in</h2>
        <p class="soft">
          {{ rooms.map((room) => `${room.number} ${room.name}`).join(" · ") || "no room yet" }}
        </p>
        <label v-if="rooms.length && others.length" class="soft">
          Give all of them another use and delete this one:
          <select
            aria-label="Replace the use by"
            @change="emit('replace', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">by …</option>
            <option v-for="row in others" :key="row.id" :value="row.id">{{ row.name }}</option>
          </select>
        </label>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr);
  gap: 28px;
  overflow: hidden;
}
.sentences,
.right {
  overflow: auto;
  min-height: 0;
  padding-right: 8px;
}
.block {
  border-top: 1px solid var(--hair);
  padding: 7px 0;
}
.derived {
  color: var(--soft);
  font-size: 12px;
  margin: 0 0 2px;
  font-style: italic;
}
.chart {
  height: 230px;
  margin-bottom: 10px;
}
.right select {
  border: 1px solid var(--line);
  background: var(--field);
}
h2 {
  margin-top: 10px;
}
</style>
