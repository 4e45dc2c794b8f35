<script setup lang="ts">
import TextBox from "@/parts/TextBox.vue";
import { setField, useDocument } from "@/document/store";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { fieldSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { parseMonthDay, showMonthDay } from "@/units/monthDay";
import { useView } from "@/view/store";
import { computed, ref } from "vue";

const doc = useDocument();
const view = useView();
const results = useResults();
const project = computed(() => doc.project!);
const site = computed(() => doc.site!);
const building = computed(() => results.get("group", "building"));
const before = computed(() => results.prior("group", "building"));
const holidays = computed(() => project.value.holidays ?? []);
const date = ref("");
const name = ref("");
const VENTILATION = [
  { value: "62.1 full", label: "62.1-2019, full" },
  { value: "62.1 simplified", label: "62.1-2019, simplified" },
  { value: "sum", label: "EN 16798-1, sum" },
];
const HEATING = [
  { value: "balance", label: "room heat balance" },
  { value: "u_values", label: "by U-values" },
];
const UNITS = [
  { value: "SI", label: "SI" },
  { value: "IP", label: "inch-pound" },
];
function save(key: string, label: string) {
  return fieldSaver("project", () => project.value.id, key, label);
}
function saveSite(key: string, label: string) {
  return fieldSaver("site", () => site.value.id, key, label);
}
async function addHoliday(): Promise<void> {
  const found = parseMonthDay(date.value);
  if (!found) {
    doc.message = `Holiday “${date.value}” is no day like 1 May.`;
    return;
  }
  const rows = [...holidays.value, { date: found, name: name.value.trim() }];
  rows.sort((a, b) => a.date.localeCompare(b.date));
  if (await doc.attempt("Holiday", setField("project", project.value.id, "holidays", rows))) date.value = name.value = "";
} // prettier-ignore
async function dropHoliday(index: number): Promise<void> {
  const rows = holidays.value.filter((_, i) => i !== index);
  await doc.attempt("Holiday removed", setField("project", project.value.id, "holidays", rows));
}
async function saveUnits(value: unknown): Promise<void> {
  await save("units", "Units of the project")(value);
  view.system = value === "IP" ? "IP" : "SI";
}
</script>

<template>
  <div class="cols">
    <section>
      <h2>Procedures</h2>
      <Field
        label="Outdoor air of systems"
        :value="project.ventilation"
        :editor="{ type: 'choice', choices: VENTILATION }"
        :save="save('ventilation', 'Ventilation procedure')"
      />
      <Field
        label="Heating load"
        :value="project.heating_procedure"
        :editor="{ type: 'choice', choices: HEATING }"
        :save="save('heating_procedure', 'Heating procedure')"
      />
      <Field
        label="Gains counted in winter"
        :value="project.winter_gains_share"
        :editor="{ type: 'number', quantity: 'percent' }"
        :save="save('winter_gains_share', 'Gains counted in winter')"
      />
      <p class="soft small">
        ASHRAE 62.1 with the full system efficiency of its appendix A, or Ev 0.75 and 1.5 times the room's
        outdoor air as least supply; EN 16798-1 adds what the rooms need. Heating by the balance has its own
        inside coefficients and the pull of the sky; by U-values (EN 12831-1, simplified) it has the films of
        ISO 6946 and air temperatures alone.
      </p>
      <h2>Margins</h2>
      <Field
        label="on heating"
        :value="project.heating_margin"
        :editor="{ type: 'number', quantity: 'percent' }"
        :save="save('heating_margin', 'Heating margin')"
      />
      <Field
        label="on cooling"
        :value="project.cooling_margin"
        :editor="{ type: 'number', quantity: 'percent' }"
        :save="save('cooling_margin', 'Cooling margin')"
      />
      <p v-if="building" class="soft small">
        Building cooling
        <Figure :value="building.cooling.sensible_w" :prior="before?.cooling.sensible_w" quantity="load" />,
        with margin <Figure :value="building.cooling_with_margin_w" quantity="load" />; heating
        <Figure :value="building.heating_w" :prior="before?.heating_w" quantity="load" />, with margin
        <Figure :value="building.heating_with_margin_w" quantity="load" />. Emitters, coils' water and pumps
        are sized with them; loads and airflows stay without.
        <template v-if="!project.heating_margin && !project.cooling_margin">Practice is 10 to 25 %.</template>
      </p>
      <h2>Units</h2>
      <Field
        label="Project opens in"
        :value="project.units"
        :editor="{ type: 'choice', choices: UNITS }"
        :save="saveUnits"
      />
    </section>
    <section>
      <h2>Calendar</h2>
      <Field
        label="Year of the calendar"
        :value="project.year"
        :editor="{ type: 'number', quantity: 'count' }"
        :save="save('year', 'Year')"
      />
      <Field
        label="Daylight saving from"
        :value="site.saving_from"
        :editor="{ type: 'month_day', clearable: true }"
        :save="saveSite('saving_from', 'Daylight saving from')"
      />
      <Field
        label="to"
        :value="site.saving_to"
        :editor="{ type: 'month_day', clearable: true }"
        :save="saveSite('saving_to', 'Daylight saving to')"
      />
      <p class="soft small">
        Between the two, schedules run an hour earlier against the sun; the sun itself keeps standard time.
      </p>
      <h2>Holidays</h2>
      <p v-if="!holidays.length" class="soft small">None. Rules of year plans may treat holidays apart.</p>
      <ul>
        <li v-for="(item, i) in holidays" :key="item.date">
          <b>{{ showMonthDay(item.date) }}</b> {{ item.name }}
          <TextAct :aria-label="`Remove ${showMonthDay(item.date)}`" @click="dropHoliday(i)">
            remove
          </TextAct>
        </li>
      </ul>
      <p class="row">
        <TextBox
          v-model="date"
          class="date"
          label="Holiday, day and month"
          placeholder="1 May"
          @keydown.enter="addHoliday"
        />
        <TextBox v-model="name" label="Name of the holiday" placeholder="name" @keydown.enter="addHoliday" />
        <Act :disabled="!date" @click="addHoliday">Add holiday</Act>
      </p>
    </section>
  </div>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: 400px 400px;
  gap: 40px;
}
h2 {
  margin-top: 8px;
}
.small {
  font-size: 12px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 6px;
}
.row {
  display: flex;
  gap: 6px;
}
</style>
