<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import TextBox from "@/parts/TextBox.vue";
import { MONTH_CHOICES } from "@/parts/months";
import { choicesOf } from "@/parts/saving";
import { setField, useDocument } from "@/document/store";
import type { Schedule } from "@/document/types";
import type { Usage } from "@/document/usage";
import { valueAt, type Steps } from "@/parts/pattern";
import { useResults } from "@/results/store";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { dayOfYear, monthAndDay } from "./dates";
import { KINDS, toneOf } from "./kinds";
import { meaningOf } from "./meaning";
import YearCarpet from "./YearCarpet.vue";
import YearRules from "./YearRules.vue";
import YearStrip from "./YearStrip.vue";

const props = defineProps<{ schedule: Schedule; usages: Usage[] }>();
const emit = defineEmits<{
  /** Pattern of the day that is looked at. */
  pattern: [id: string];
}>();
const doc = useDocument();
const view = useView();
const result = computed(() => useResults().get("schedule", props.schedule.id));
const kind = computed(() => KINDS[props.schedule.kind]);
/** Patterns that have a brush of their own; the rest are in a list. */
const BRUSHES = 6;
const brush = ref("");
const year = computed(() => doc.project?.year ?? 2027);
const holidays = computed(() => (doc.project?.holidays ?? []).map((item) => item.date));
const chosen = ref(72);
const time = ref("16:00");
const date = computed(() => monthAndDay(chosen.value, year.value));

function paint(range: { start: string; end: string; days: string }): void {
  const rules = [...props.schedule.rules!, { ...range, pattern: brush.value }];
  void doc.attempt("Year plan painted", setField("schedule", props.schedule.id, "rules", rules));
}
function look(day: number): void {
  chosen.value = day;
  const pattern = props.schedule.patterns[result.value?.days[day] ?? 0];
  if (pattern) emit("pattern", pattern.id);
}
function lookAt(month: number, day: number): void {
  const found = dayOfYear(month, day, year.value);
  if (found !== null) look(found);
}
/** Minute of the day that is asked for; null where the time cannot be read. */
const minute = computed(() => {
  const match = time.value.match(/^\s*(\d{1,2})(?:[:.](\d{2}))?\s*$/);
  const found = match ? Number(match[1]) * 60 + Number(match[2] ?? 0) : NaN;
  return found >= 0 && found < 1440 ? found : null;
});
/** What it is at the chosen date and time, and what it stands for. */
const found = computed(() => {
  const pattern = props.schedule.patterns[result.value?.days[chosen.value] ?? 0];
  if (minute.value === null) return null;
  const value = valueAt((pattern?.steps ?? []) as Steps, minute.value);
  const meanings = props.usages.map((usage) => [usage.name, meaningOf(usage, value, view.system)]);
  const first = meanings.find(([, meaning]) => meaning);
  return { pattern, value, meaning: first ? `${first[0]}: ${first[1]}` : "" };
});
</script>

<template>
  <section v-if="result" class="year">
    <div class="brushes" role="group" aria-label="Pattern to paint with">
      <h2>Year plan {{ year }}</h2>
      <Act :class="{ on: brush === '' }" @click="brush = ''">look</Act>
      <Act
        v-for="(pattern, i) in schedule.patterns.slice(0, BRUSHES)"
        :key="pattern.id"
        :class="{ on: brush === pattern.id }"
        @click="brush = pattern.id"
      >
        <i :style="{ background: toneOf(i) }" />{{ pattern.name }}
      </Act>
      <Choice
        v-if="schedule.patterns.length > BRUSHES"
        v-model="brush"
        label="Pattern to paint with, more"
        :choices="[{ value: '', label: 'more …' }, ...choicesOf(schedule.patterns.slice(BRUSHES))]"
      />
      <span class="soft">{{
        brush ? "sweep over weeks and weekdays to paint" : "choose a pattern to paint with, or look at a day"
      }}</span>
    </div>
    <YearStrip
      :days="result.days"
      :patterns="schedule.patterns"
      :year="year"
      :brush="brush"
      :holidays="holidays"
      :chosen="chosen"
      @paint="paint"
      @look="look"
    />
    <p class="look">
      On
      <TextBox
        type="number"
        class="short"
        :min="1"
        :max="31"
        label="Day looked at"
        :model-value="date.day"
        @change="lookAt(date.month, Number(($event.target as HTMLInputElement).value))"
      />
      <Choice
        label="Month looked at"
        :model-value="date.month"
        :choices="MONTH_CHOICES"
        @update:model-value="lookAt($event, date.day)"
      />
      at
      <TextBox v-model="time" class="short" label="Time looked at" />
      <template v-if="found">
        it is
        <b data-test="look-up"
          >{{ format(found.value, kind.quantity, view.system) }} {{ unitOf(kind.quantity, view.system) }}</b
        >
        <span class="soft">
          ({{ date.weekday }}, {{ found.pattern?.name
          }}<template v-if="found.meaning">; {{ found.meaning }}</template
          >)</span
        >
      </template>
      <span v-else class="fault" role="alert">“{{ time }}” is no time from 00:00 to 23:59.</span>
    </p>
    <YearCarpet :days="result.days" :patterns="schedule.patterns" :kind="kind" :year="year" />
    <YearRules :schedule="schedule" />
  </section>
</template>

<style scoped>
.year {
  border-top: 1px solid var(--line);
  margin-top: 8px;
  padding-top: 8px;
}
.brushes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-bottom: 6px;
}
.brushes h2 {
  margin: 0 6px 0 0;
}
.brushes i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 5px;
}
.look {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin: 5px 0;
}
.look > * {
  flex: none;
}
.short {
  width: 54px;
}
</style>
