<script setup lang="ts">
import { setField, useDocument } from "@/document/store";
import type { RulePart, Schedule } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import { computed } from "vue";

/** Rules of a year plan as a table: the pattern of every day, and what overrides it; later rules win. */
const props = defineProps<{ schedule: Schedule }>();
const doc = useDocument();
const field = fieldsFor("schedule", () => props.schedule);
const MOST = 40;
const DAYS = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su", "holidays"];
const rules = computed(() => props.schedule.rules ?? []);
const patterns = computed(() => props.schedule.patterns.map((p) => ({ value: p.id, label: p.name })));

function commit(changed: RulePart[], label: string): Promise<void> {
  return doc.commit(label, setField("schedule", props.schedule.id, "rules", changed));
}
function attempt(changed: RulePart[], label: string): void {
  void doc.attempt(label, setField("schedule", props.schedule.id, "rules", changed));
}
function saver(index: number, key: keyof RulePart) {
  return (value: unknown): Promise<void> =>
    commit(
      rules.value.map((rule, i) => (i === index ? { ...rule, [key]: value } : rule)),
      "Rule of the year plan",
    );
}
function flip(index: number, at: number): void {
  const days = rules.value[index]!.days!;
  const flipped = days.slice(0, at) + (days[at] === "1" ? "0" : "1") + days.slice(at + 1);
  attempt(
    rules.value.map((rule, i) => (i === index ? { ...rule, days: flipped } : rule)),
    "Days of a rule",
  );
}
function earlier(index: number): void {
  const moved = [...rules.value];
  const [rule] = moved.splice(index, 1);
  if (rule) moved.splice(index - 1, 0, rule);
  attempt(moved, "Rule moved");
}
function drop(index: number): void {
  attempt(
    rules.value.filter((_, i) => i !== index),
    "Rule removed",
  );
}
function add(): void {
  const rule = { start: "07-01", end: "08-31", days: "11111111", pattern: props.schedule.base };
  attempt([...rules.value, rule], "New rule");
}
</script>

<template>
  <div>
    <v-table class="plain" aria-label="Rules of the year">
      <thead>
        <tr>
          <th>rule</th>
          <th>from</th>
          <th>to</th>
          <th>days</th>
          <th>pattern</th>
          <td />
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>every</td>
          <td>1 Jan</td>
          <td>31 Dec</td>
          <td>all</td>
          <td>
            <Field bare v-bind="field('base', { choices: patterns })" />
          </td>
          <td />
        </tr>
        <tr v-for="(rule, i) in rules.slice(0, MOST)" :key="i">
          <td>but {{ i + 1 }}</td>
          <td class="day">
            <Field
              bare
              :label="`Rule ${i + 1} from`"
              :value="rule.start"
              :editor="{ type: 'month_day' }"
              :save="saver(i, 'start')"
            />
          </td>
          <td class="day">
            <Field
              bare
              :label="`Rule ${i + 1} to`"
              :value="rule.end"
              :editor="{ type: 'month_day' }"
              :save="saver(i, 'end')"
            />
          </td>
          <td class="days">
            <v-btn
              variant="text"
              v-for="(name, d) in DAYS"
              :key="name"
              :aria-pressed="rule.days![d] === '1'"
              @click="flip(i, d)"
            >
              {{ name }}
            </v-btn>
          </td>
          <td>
            <Field
              bare
              :label="`Rule ${i + 1} pattern`"
              :value="rule.pattern"
              :editor="{ type: 'choice', choices: patterns }"
              :save="saver(i, 'pattern')"
            />
          </td>
          <td class="ends">
            <TextAct :disabled="!i" :aria-label="`Rule ${i + 1} earlier`" @click="earlier(i)"> ↑ </TextAct>
            <TextAct :aria-label="`Remove rule ${i + 1}`" @click="drop(i)">remove</TextAct>
          </td>
        </tr>
      </tbody>
    </v-table>
    <p v-if="rules.length > MOST" class="soft">and {{ rules.length - MOST }} more rules</p>
    <TextAct @click="add">+ rule</TextAct> <span class="soft">later rules win</span>
  </div>
</template>

<style scoped>
.day {
  width: 66px;
}
.days {
  white-space: nowrap;
}
.days button {
  border: 1px solid var(--line);
  padding: 0 3px;
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
  margin-right: 6px;
}
</style>
