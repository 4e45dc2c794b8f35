<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import LineChart from "@/parts/LineChart.vue";
import { choicesOf, fieldSaver } from "@/parts/saving";
import type { GroupResult } from "@/results/types";
import { counted, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";
import { gainCourses } from "./gains";

const props = defineProps<{ use: Use; result: GroupResult | undefined; before: GroupResult | undefined }>();
const emit = defineEmits<{ remove: [] }>();
const doc = useDocument();
const view = useView();

type Key = keyof Use & string;
type Line = [Key, string, string];
const SENTENCES: { title: string; schedule?: Key; lines: Line[] }[] = [
  { title: "People", schedule: "people_schedule", lines: [
    ["people_per_m2", "People", "people_density"], ["person_sensible_w", "each gives, sensible", "power"],
    ["person_latent_w", "and latent", "power"], ["people_radiant_share", "radiant share of the sensible part", "percent"]] },
  { title: "Lights", schedule: "lights_schedule", lines: [
    ["lights_w_m2", "Lights", "power_per_area"], ["lights_radiant_share", "radiant share", "percent"]] },
  { title: "Equipment", schedule: "equipment_schedule", lines: [
    ["equipment_w_m2", "Equipment", "power_per_area"], ["equipment_radiant_share", "radiant share of the sensible part", "percent"],
    ["equipment_latent_share", "latent share", "percent"], ["equipment_vented_share", "share vented straight out", "percent"]] },
  { title: "Air", lines: [
    ["air_per_person_m3_s", "Outdoor air per person", "airflow_per_person"], ["air_per_area_m3_s_m2", "and per area", "airflow_per_area"],
    ["air_effectiveness", "distribution effectiveness Ez", "ratio"], ["minimum_air_changes", "at least, air changes", "air_changes"],
    ["infiltration_ach", "infiltration", "air_changes"]] },
]; // prettier-ignore
const schedules = computed(() => choicesOf(doc.rows("schedule")));
const rooms = computed(() => doc.rows("room").filter((room) => room.use === props.use.id));

function save(key: Key, label: string) {
  return fieldSaver("use", () => props.use.id, key, `${props.use.name}: ${label}`);
}

const courses = computed(() => {
  const found = gainCourses(props.use, (id) => doc.get("schedule", id)?.weekday);
  return (["people", "lights", "equipment"] as const).map((name) => ({
    name,
    colour: `var(--${name})`,
    values: found[name].map((value) => toShown(value, "power_per_area", view.system)),
  }));
});
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
      <span class="grow" /><button class="act" @click="emit('remove')">Delete</button>
    </div>
    <div class="body two">
      <section class="sentences">
        <Field label="Name" :value="use.name" :editor="{ type: 'text' }" :save="save('name', 'name')" />
        <div v-for="sentence in SENTENCES" :key="sentence.title" class="block">
          <h2>{{ sentence.title }}</h2>
          <Field
            v-for="[key, label, quantity] in sentence.lines"
            :key="key"
            :label="label"
            :value="use[key]"
            :editor="{ type: 'number', quantity }"
            :save="save(key, label)"
          />
          <Field
            v-if="sentence.schedule"
            label="present as"
            :value="use[sentence.schedule]"
            :editor="{ type: 'choice', choices: schedules, clearable: true }"
            :save="save(sentence.schedule, 'schedule')"
          />
          <p v-if="sentence.schedule && !use[sentence.schedule]" class="soft">
            Without a schedule they are there all day.
          </p>
        </div>
        <div class="block">
          <h2>Set-points, air temperature</h2>
          <Field
            label="Heated"
            :value="use.heated"
            :editor="{ type: 'yesno' }"
            :save="save('heated', 'heated')"
          />
          <Field
            label="Heated to"
            :value="use.heating_setpoint_c"
            :editor="{ type: 'number', quantity: 'temperature' }"
            :save="save('heating_setpoint_c', 'heating set-point')"
          />
          <Field
            label="Cooled"
            :value="use.cooled"
            :editor="{ type: 'yesno' }"
            :save="save('cooled', 'cooled')"
          />
          <Field
            label="Cooled to"
            :value="use.cooling_setpoint_c"
            :editor="{ type: 'number', quantity: 'temperature' }"
            :save="save('cooling_setpoint_c', 'cooling set-point')"
          />
          <p v-if="!use.cooled" class="soft">
            Not cooled: the air floats; the figure is only the reference that neighbours' temperature
            differences count from.
          </p>
        </div>
        <div class="block">
          <h2>Yardstick</h2>
          <Field
            label="Ordinary cooling, from"
            :value="use.yardstick_low_w_m2"
            :editor="{ type: 'number', quantity: 'power_per_area' }"
            :save="save('yardstick_low_w_m2', 'yardstick')"
          />
          <Field
            label="to"
            :value="use.yardstick_high_w_m2"
            :editor="{ type: 'number', quantity: 'power_per_area' }"
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
      <section>
        <div class="chart">
          <LineChart
            title="Sensible heat to the room on a weekday"
            :unit="unitOf('power_per_area', view.system)"
            :series="courses"
            zero
          />
        </div>
        <h2>Rooms of this use</h2>
        <p class="soft">{{ rooms.map((room) => `${room.number} ${room.name}`).join(" · ") || "none yet" }}</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr);
  gap: 32px;
}
.block {
  border-top: 1px solid var(--hair);
  padding: 7px 0;
}
.chart {
  height: 280px;
  margin-bottom: 16px;
}
</style>
