<script setup lang="ts">
import TextBox from "@/parts/TextBox.vue";
import { setField, useDocument } from "@/document/store";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { useResults } from "@/results/store";
import { parseMonthDay, showMonthDay } from "@/units/monthDay";
import { useView } from "@/view/store";
import { computed, ref } from "vue";

const doc = useDocument();
const view = useView();
const results = useResults();
const project = computed(() => doc.project!);
const site = computed(() => doc.site!);
const field = fieldsFor("project", () => project.value);
const siteField = fieldsFor("site", () => site.value);
const building = computed(() => results.get("group", "building"));
const before = computed(() => results.prior("group", "building"));
const holidays = computed(() => project.value.holidays ?? []);
const date = ref("");
const name = ref("");
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
/** The project's units, which the window takes at once. */
const units = computed(() => {
  const bound = field("units");
  const save = async (value: unknown): Promise<void> => {
    await bound.save(value);
    view.system = value === "IP" ? "IP" : "SI";
  };
  return { ...bound, save: Object.assign(save, { of: bound.save.of }) };
});
</script>

<template>
  <div class="cols">
    <section>
      <h2>Procedures</h2>
      <Field v-bind="field('ventilation')" />
      <Field v-bind="field('heating_procedure')" />
      <Field v-bind="field('winter_gains_share')" />
      <p class="soft small">
        ASHRAE 62.1 with the full system efficiency of its appendix A, or Ev 0.75 and 1.5 times the room's
        outdoor air as least supply; EN 16798-1 adds what the rooms need. Heating by the balance has its own
        inside coefficients and the pull of the sky; by U-values (EN 12831-1, simplified) it has the films of
        ISO 6946 and air temperatures alone.
      </p>
      <h2>Margins</h2>
      <Field v-bind="field('heating_margin')" />
      <Field v-bind="field('cooling_margin')" />
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
      <Field v-bind="units" />
    </section>
    <section>
      <h2>Calendar</h2>
      <Field v-bind="field('year')" />
      <Field v-bind="siteField('saving_from')" />
      <Field v-bind="siteField('saving_to')" />
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
