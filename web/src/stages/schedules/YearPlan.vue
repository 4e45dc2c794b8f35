<script setup lang="ts">
import { setField, useDocument } from "@/document/store";
import type { RulePart, Schedule } from "@/document/types";
import Field from "@/parts/Field.vue";
import { fieldSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { KINDS, toneOf } from "./kinds";
import { dayOf } from "./dates";
import { useAt, type UsePlace } from "./lookup";
import type { Steps } from "@/parts/pattern";
import YearCarpet from "./YearCarpet.vue";
import YearStrip from "./YearStrip.vue";

const props = defineProps<{ schedule: Schedule; places: UsePlace[] }>();
const doc = useDocument();
const view = useView();
const result = computed(() => useResults().get("schedule", props.schedule.id));
const kind = computed(() => KINDS[props.schedule.kind]);
const brush = ref("");
const year = computed(() => doc.project?.year ?? 2027);
const holidays = computed(() => (doc.project?.holidays ?? []).map((item) => item.date));
const chosen = ref(72);
const time = ref("16:00");
const DAYS = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su", "holidays"];

function save(rules: RulePart[], label: string): Promise<boolean> {
  return doc.attempt(label, setField("schedule", props.schedule.id, "rules", rules));
}
function paint(range: { start: string; end: string; days: string }): void {
  void save([...props.schedule.rules!, { ...range, pattern: brush.value }], "Year plan painted");
}
function change(index: number, part: Partial<RulePart>): void {
  const rules = props.schedule.rules!.map((rule, i) => (i === index ? { ...rule, ...part } : rule));
  void save(rules, "Rule of the year plan");
}
function move(index: number, by: number): void {
  const rules = [...props.schedule.rules!];
  const [rule] = rules.splice(index, 1);
  if (rule) rules.splice(index + by, 0, rule);
  void save(rules, "Rule moved");
}
function flip(days: string, at: number): string {
  return days.slice(0, at) + (days[at] === "1" ? "0" : "1") + days.slice(at + 1);
}
const date = computed({
  get: () => new Date(Date.UTC(year.value, 0, 1 + chosen.value)).toISOString().slice(0, 10),
  set: (text: string) => {
    const found = dayOf(text, year.value);
    if (found !== null) chosen.value = found;
  },
});
/** What it is at the chosen date and time, and what it stands for. */
const found = computed(() => {
  const pattern = props.schedule.patterns[result.value?.days[chosen.value] ?? 0];
  const [hours, minutes] = time.value.split(":").map(Number);
  const minute = (hours ?? 0) * 60 + (minutes ?? 0);
  const value = (pattern?.steps as Steps | undefined)?.find(([until]) => until > minute)?.[1] ?? 0;
  return { pattern, value, meaning: useAt(props.places, value, view.system) };
});
const patterns = computed(() => props.schedule.patterns.map((p) => ({ value: p.id, label: p.name })));
const summer = computed(() => {
  const names = new Set((result.value?.summer ?? []).map((id) => props.schedule.patterns.find((p) => p.id === id)?.name));
  return [...names].join(", ");
}); // prettier-ignore
</script>

<template>
  <section v-if="result">
    <div class="brushes" role="group" aria-label="Pattern to paint with">
      <button class="act" :class="{ on: brush === '' }" @click="brush = ''">look</button>
      <button
        v-for="(pattern, i) in schedule.patterns.slice(0, 12)"
        :key="pattern.id"
        class="act"
        :class="{ on: brush === pattern.id }"
        @click="brush = pattern.id"
      >
        <i :style="{ background: toneOf(i) }" />{{ pattern.name }}
      </button>
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
      @look="chosen = $event"
    />
    <p class="look">
      On <input v-model="date" type="date" aria-label="Date" /> at
      <input v-model="time" type="time" aria-label="Time" /> it is
      <b data-test="look-up"
        >{{ format(found.value, kind.quantity, view.system) }} {{ unitOf(kind.quantity, view.system) }}</b
      >
      <span class="soft">
        ({{ found.pattern?.name }}<template v-if="found.meaning">; {{ found.meaning }}</template
        >)</span
      >
    </p>
    <YearCarpet :days="result.days" :patterns="schedule.patterns" :kind="kind" />
    <div class="rules">
      <table class="plain">
        <thead>
          <tr>
            <th>Rules, later ones win</th>
            <th>from</th>
            <th>to</th>
            <th>days</th>
            <th>pattern</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>every day</td>
            <td />
            <td />
            <td />
            <td>
              <Field
                bare
                label="Pattern of every day"
                :value="schedule.base"
                :editor="{ type: 'choice', choices: patterns }"
                :save="fieldSaver('schedule', () => schedule.id, 'base', 'Pattern of every day')"
              />
            </td>
            <td />
          </tr>
          <tr v-for="(rule, i) in schedule.rules!.slice(0, 40)" :key="i">
            <td>but {{ i + 1 }}</td>
            <td>
              <input
                :value="rule.start"
                :aria-label="`Rule ${i + 1} from`"
                size="5"
                @change="change(i, { start: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td>
              <input
                :value="rule.end"
                :aria-label="`Rule ${i + 1} to`"
                size="5"
                @change="change(i, { end: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td class="days">
              <button
                v-for="(name, d) in DAYS"
                :key="name"
                :aria-pressed="rule.days![d] === '1'"
                @click="change(i, { days: flip(rule.days!, d) })"
              >
                {{ name }}
              </button>
            </td>
            <td>
              <select
                :value="rule.pattern"
                :aria-label="`Rule ${i + 1} pattern`"
                @change="change(i, { pattern: ($event.target as HTMLSelectElement).value })"
              >
                <option v-for="p in patterns" :key="p.value" :value="p.value">{{ p.label }}</option>
              </select>
            </td>
            <td class="ends">
              <button class="link" :disabled="!i" :aria-label="`Rule ${i + 1} earlier`" @click="move(i, -1)">
                ↑
              </button>
              <button
                class="link"
                :aria-label="`Remove rule ${i + 1}`"
                @click="
                  save(
                    schedule.rules!.filter((_, k) => k !== i),
                    'Rule removed',
                  )
                "
              >
                remove
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <button
        class="link"
        @click="
          save(
            [...schedule.rules!, { start: '07-01', end: '08-31', days: '11111111', pattern: schedule.base }],
            'New rule',
          )
        "
      >
        + rule
      </button>
    </div>
    <div class="design">
      <Field
        label="Summer design days"
        :value="schedule.summer"
        :editor="{ type: 'choice', clearable: true, choices: patterns }"
        :save="fieldSaver('schedule', () => schedule.id, 'summer', 'Summer design pattern')"
      />
      <Field
        label="busiest weekday of each month"
        :value="schedule.summer_by_month"
        :editor="{ type: 'yesno' }"
        :save="fieldSaver('schedule', () => schedule.id, 'summer_by_month', 'Busiest of each month')"
      />
      <Field
        label="Winter design day"
        :value="schedule.winter"
        :editor="{ type: 'choice', clearable: true, choices: patterns }"
        :save="fieldSaver('schedule', () => schedule.id, 'winter', 'Winter design pattern')"
      />
      <p class="soft small">
        Summer days take {{ summer }}<template v-if="!schedule.summer"> (the busiest weekday)</template>;
        winter takes {{ schedule.patterns.find((p) => p.id === result!.winter)?.name ?? "an empty day" }}.
        Full-load sum of {{ year }}: {{ result.hours_a_year.toFixed(0) }} h. Daylight saving (Place, Choices)
        moves it against the sun.
      </p>
    </div>
  </section>
</template>

<style scoped>
.brushes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-bottom: 6px;
}
.brushes i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 5px;
}
.look input,
.rules input,
.rules select {
  border: 1px solid var(--line);
  background: var(--field);
  height: 25px;
  padding: 1px 4px;
}
.look {
  margin: 6px 0;
}
.days button {
  border: 1px solid var(--line);
  padding: 0 4px;
  font-size: 11px;
  color: var(--soft);
}
.days button[aria-pressed="true"] {
  background: var(--ink);
  color: var(--paper);
}
.ends {
  white-space: nowrap;
}
.ends .link {
  margin-right: 8px;
}
.rules {
  margin: 8px 0;
}
.design {
  max-width: 420px;
}
.small {
  font-size: 12px;
}
</style>
