<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import Choice from "@/parts/Choice.vue";
import FileButton from "@/parts/FileButton.vue";
import { client, Refusal, unwrap } from "@/api/client";
import { setField, useDocument } from "@/document/store";
import type { PatternPart, Schedule } from "@/document/types";
import type { Usage } from "@/document/usage";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import { toCells, valueAt, type Steps } from "@/parts/pattern";
import { choicesOf } from "@/parts/saving";
import { useShared } from "@/parts/shared";
import SharedPage from "@/parts/SharedPage.vue";
import UsedIn from "@/parts/UsedIn.vue";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, shallowRef } from "vue";
import DesignDays from "./DesignDays.vue";
import { KINDS } from "./kinds";
import { meaningOf } from "./meaning";
import PatternEditor from "./PatternEditor.vue";
import YearPlan from "./YearPlan.vue";

const props = defineProps<{ schedule: Schedule }>();
const emit = defineEmits<{ open: [id: string] }>();
const doc = useDocument();
const view = useView();
const shared = useShared("schedule", () => props.schedule.id);
const field = fieldsFor("schedule", () => props.schedule);
/** Patterns that have a tab; a year that was read from a file may have hundreds. */
const TABS = 6;
const patternId = ref("");
const fault = ref("");
const kind = computed(() => KINDS[props.schedule.kind]);
const patternModel = computed({ get: () => pattern.value.id, set: (id) => (patternId.value = id) });
const tabs = computed(() =>
  props.schedule.patterns.slice(0, TABS).map((p) => ({ value: p.id, label: p.name })),
);
const pattern = computed(
  () => props.schedule.patterns.find((p) => p.id === patternId.value) ?? props.schedule.patterns[0]!,
);
const files = computed(() => `/api/projects/${doc.projectId}/schedules/${props.schedule.id}`);
/** Patterns to lay over: the schedule's own first, then those of the others of its kind. */
const others = computed(() =>
  [props.schedule, ...doc.rows("schedule").filter((row) => row.id !== props.schedule.id)]
    .filter((row) => row.kind === props.schedule.kind)
    .flatMap((row) =>
      row.patterns
        .filter((p) => row.id !== props.schedule.id || p.id !== pattern.value.id)
        .map((p) => ({ id: `${row.id}/${p.id}`, name: p.name, group: row.name, steps: p.steps as Steps })),
    ),
);
const stretch = shallowRef({ start: 0, end: 60, steps: [] as Steps });
/** What the chosen hours come to: their value, or their mean where it differs among them. */
const told = computed(() => {
  const { start, end, steps } = stretch.value;
  if (!steps.length) return null;
  const minutes = toCells(steps, 1).slice(start, end);
  const mean = minutes.reduce((sum, value) => sum + value, 0) / minutes.length;
  const even = minutes.every((value) => value === minutes[0]);
  return { value: even ? valueAt(steps, start) : mean, even, from: clock(start), to: clock(end) };
});

function clock(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;
}
function meaning(usage: Usage): string {
  return told.value ? meaningOf(usage, told.value.value, view.system) : "";
}
function savePatterns(patterns: PatternPart[], label: string): Promise<void> {
  return doc.commit(label, setField("schedule", props.schedule.id, "patterns", patterns));
}
function savePattern(steps: Steps): Promise<void> {
  const patterns = props.schedule.patterns.map((p) => (p.id === pattern.value.id ? { ...p, steps } : p));
  return savePatterns(patterns, `${props.schedule.name}: ${pattern.value.name}`);
}
function freeId(taken: string[]): string {
  for (let i = 0; ; i++) {
    const name = i < 26 ? String.fromCharCode(97 + i) : `p${i}`;
    if (!taken.includes(name)) return name;
  }
}
async function addPattern(): Promise<void> {
  const row = props.schedule;
  const made = freeId(row.patterns.map((p) => p.id));
  const copy = { id: made, name: `${pattern.value.name}, copy`, steps: pattern.value.steps };
  if (await doc.attempt("New pattern", setField("schedule", row.id, "patterns", [...row.patterns, copy])))
    patternId.value = made;
}
async function removePattern(): Promise<void> {
  const row = props.schedule;
  const gone = pattern.value.id;
  const left = row.patterns.filter((p) => p.id !== gone);
  const fields = {
    patterns: left,
    base: row.base === gone ? left[0]!.id : row.base,
    rules: row.rules!.filter((rule) => rule.pattern !== gone),
    summer: row.summer === gone ? null : row.summer,
    winter: row.winter === gone ? null : row.winter,
  };
  await doc.attempt("Pattern removed", [{ op: "set", kind: "schedule", id: row.id, fields }]);
}
function rename(name: unknown): Promise<void> {
  const patterns = props.schedule.patterns.map((p) =>
    p.id === pattern.value.id ? { ...p, name: String(name) } : p,
  );
  return savePatterns(patterns, "Pattern name");
}
async function readFile(file: File): Promise<void> {
  fault.value = "";
  try {
    const fields = unwrap(
      await client.POST("/api/projects/{project_id}/schedules/read", {
        params: { path: { project_id: doc.projectId } },
        body: { text: await file.text() },
      }),
    );
    const row = props.schedule;
    await doc.commit(`${row.name}: values of ${file.name}`, [
      { op: "set", kind: "schedule", id: row.id, fields: { ...fields, summer: null, winter: null } },
    ]);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <SharedPage :shared="shared" :name="schedule.name" @open="emit('open', $event)">
    <div class="body two">
      <section>
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <div class="tabs">
          <h2>Day patterns</h2>
          <Segments v-model="patternModel" label="Pattern" :choices="tabs" />
          <Choice
            v-if="schedule.patterns.length > TABS"
            label="More patterns"
            :model-value="pattern.id"
            :choices="choicesOf(schedule.patterns)"
            @update:model-value="patternId = $event"
          />
          <TextAct @click="addPattern">+ pattern</TextAct>
          <TextAct v-if="schedule.patterns.length > 1" @click="removePattern">remove it</TextAct>
        </div>
        <PatternEditor
          :key="pattern.id"
          :steps="pattern.steps as Steps"
          :kind="kind"
          :others="others"
          :save="savePattern"
          @stretch="(start, end, steps) => (stretch = { start, end, steps })"
        />
        <YearPlan :schedule="schedule" :usages="shared.usages.value" @pattern="patternId = $event" />
      </section>
      <section class="side">
        <Field v-bind="field('name')" />
        <Field v-bind="field('kind')" />
        <Field label="Pattern name" :value="pattern.name" :editor="{ type: 'text' }" :save="rename" />
        <h2>What it does</h2>
        <p v-if="told" class="told" data-test="told">
          {{ told.from }} to {{ told.to }}, {{ pattern.name }}:
          <b
            >{{ told.even ? "" : "on average " }}{{ format(told.value, kind.quantity, view.system) }}
            {{ unitOf(kind.quantity, view.system) }}</b
          >
        </p>
        <UsedIn :shared="shared" :meaning="meaning" @open="emit('open', $event)" />
        <DesignDays :schedule="schedule" />
        <h2>Values as files</h2>
        <p class="files">
          <a class="link" :href="`${files}/${pattern.id}.csv?values=24`">CSV, 24</a>
          <a class="link" :href="`${files}/${pattern.id}.csv?values=96`">96</a>
          <a class="link" :href="`${files}/year.csv`">8760 h</a>
          <FileButton label="Read values" text="Read values …" accept=".csv,.txt" @file="readFile" />
        </p>
      </section>
    </div>
  </SharedPage>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 286px;
  gap: 22px;
}
.tabs {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 6px;
}
.tabs h2 {
  margin: 0;
}
.side h2 {
  margin-top: 12px;
}
.told {
  border-left: 3px solid var(--accent);
  padding-left: 8px;
}
.files {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
