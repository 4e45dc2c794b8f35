<script setup lang="ts">
import { setField, useDocument } from "@/document/store";
import type { Schedule } from "@/document/types";
import type { Usage } from "@/document/usage";
import { valueAt, type Steps } from "@/parts/pattern";
import { useResults } from "@/results/store";
import { format, MONTHS, unitOf } from "@/units/units";
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
      <button class="act" :class="{ on: brush === '' }" @click="brush = ''">look</button>
      <button
        v-for="(pattern, i) in schedule.patterns.slice(0, BRUSHES)"
        :key="pattern.id"
        class="act"
        :class="{ on: brush === pattern.id }"
        @click="brush = pattern.id"
      >
        <i :style="{ background: toneOf(i) }" />{{ pattern.name }}
      </button>
      <select
        v-if="schedule.patterns.length > BRUSHES"
        v-model="brush"
        aria-label="Pattern to paint with, more"
      >
        <option value="">more …</option>
        <option v-for="pattern in schedule.patterns.slice(BRUSHES)" :key="pattern.id" :value="pattern.id">
          {{ pattern.name }}
        </option>
      </select>
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
      <input
        type="number"
        class="short"
        min="1"
        max="31"
        aria-label="Day looked at"
        :value="date.day"
        @change="lookAt(date.month, Number(($event.target as HTMLInputElement).value))"
      />
      <select
        aria-label="Month looked at"
        :value="date.month"
        @change="lookAt(Number(($event.target as HTMLSelectElement).value), date.day)"
      >
        <option v-for="m in 12" :key="m" :value="m">{{ MONTHS[m - 1] }}</option>
      </select>
      at <input v-model="time" class="short" aria-label="Time looked at" />
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
    <YearCarpet :days="result.days" :patterns="schedule.patterns" :kind="kind" />
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
  margin: 5px 0;
}
.brushes select,
.look input,
.look select {
  border: 1px solid var(--line);
  background: var(--field);
  height: 25px;
  padding: 1px 4px;
}
.short {
  width: 54px;
}
</style>
