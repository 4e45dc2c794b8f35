<script setup lang="ts">
import { client, Refusal, unwrap } from "@/api/client";
import { newId, setField, useDocument } from "@/document/store";
import type { PatternPart, Schedule } from "@/document/types";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import ShelfPanel from "@/parts/ShelfPanel.vue";
import { fieldSaver } from "@/parts/saving";
import { freeName, type ShelfItem } from "@/parts/shelf";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import { KINDS } from "./kinds";
import { placesOf, type UsePlace } from "./lookup";
import PatternEditor from "./PatternEditor.vue";
import type { Steps } from "@/parts/pattern";
import YearPlan from "./YearPlan.vue";

const doc = useDocument();
const results = useResults();
const route = useRoute();
const id = ref("");
const side = ref<"day" | "year">("day");
const patternId = ref("");
const shelf = ref(false);
const fault = ref("");
const schedules = computed(() => doc.rows("schedule").sort((a, b) => a.name.localeCompare(b.name)));
const groups = computed(() =>
  (Object.keys(KINDS) as Schedule["kind"][]).map((key) => ({
    title: KINDS[key].title,
    rows: schedules.value.filter((row) => row.kind === key),
  })),
);
const schedule = computed(() => doc.get("schedule", id.value) ?? schedules.value[0]);
const kind = computed(() => KINDS[schedule.value?.kind ?? "fraction"]);
const pattern = computed(
  () => schedule.value?.patterns.find((p) => p.id === patternId.value) ?? schedule.value?.patterns[0],
);
const places = computed(() => (schedule.value ? placesOf(schedule.value.id) : []));
const rooms = computed(() => places.value.reduce((sum, place) => sum + place.rooms, 0));
const building = computed(() => results.get("group", "building"));
const before = computed(() => results.prior("group", "building"));
const files = computed(() => `/api/projects/${doc.projectId}/schedules/${schedule.value?.id}`);
const others = computed(() =>
  (schedule.value?.patterns ?? [])
    .filter((p) => p.id !== pattern.value?.id)
    .map((p) => ({ id: p.id, name: p.name, steps: p.steps as Steps })),
);

watch(
  () => route.query["at"],
  (place) => {
    const [what, wanted] = String(place ?? "").split("/");
    if (what === "schedule" && wanted) id.value = wanted;
  },
  { immediate: true },
);

function savePatterns(patterns: PatternPart[], label: string): Promise<void> {
  return doc.commit(label, setField("schedule", schedule.value!.id, "patterns", patterns));
}
function savePattern(steps: Steps): Promise<void> {
  const row = schedule.value!;
  const patterns = row.patterns.map((p) => (p.id === pattern.value?.id ? { ...p, steps } : p));
  return savePatterns(patterns, `${row.name}: ${pattern.value?.name}`);
}
function freeId(taken: string[]): string {
  for (let i = 0; ; i++) {
    const name = i < 26 ? String.fromCharCode(97 + i) : `p${i}`;
    if (!taken.includes(name)) return name;
  }
}
async function addPattern(): Promise<void> {
  const row = schedule.value!;
  const made = freeId(row.patterns.map((p) => p.id));
  const copy = { id: made, name: `${pattern.value?.name ?? "Day"}, copy`, steps: pattern.value!.steps };
  if (await doc.attempt("New pattern", setField("schedule", row.id, "patterns", [...row.patterns, copy])))
    patternId.value = made;
}
async function removePattern(): Promise<void> {
  const row = schedule.value!;
  const gone = pattern.value!.id;
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
  const patterns = schedule.value!.patterns.map((p) =>
    p.id === pattern.value?.id ? { ...p, name: String(name) } : p,
  );
  return savePatterns(patterns, "Pattern name");
}

function plain(row: Schedule): Record<string, unknown> {
  return Object.fromEntries(Object.entries(row).filter(([key]) => key !== "id"));
}
async function create(fields: Record<string, unknown>): Promise<string | null> {
  const made = newId();
  const name = freeName(String(fields["name"]), schedules.value);
  const done = await doc.attempt(`New schedule: ${name}`, [
    { op: "create", kind: "schedule", id: made, fields: { ...fields, name } },
  ]);
  if (done) id.value = made;
  return done ? made : null;
}
function add(): void {
  const steps = [[480, 0], [1080, 1], [1440, 0]]; // prettier-ignore
  void create({ name: "New schedule", patterns: [{ id: "a", name: "Every day", steps }], base: "a" });
}
function take(item: ShelfItem): void {
  void create(item.fields);
}

/** Give one place a copy of its own, so that the others keep this one. */
async function copyFor(place: UsePlace): Promise<void> {
  const row = schedule.value!;
  const made = newId();
  const name = freeName(`${row.name}, ${place.name}`, schedules.value);
  const done = await doc.attempt("Schedule copied for one place", [
    { op: "create", kind: "schedule", id: made, fields: { ...plain(row), name } },
    { op: "set", kind: place.kind, id: place.id, fields: { [place.field]: made } },
  ]);
  if (done) id.value = made;
}
/** Everything that uses this one gets another; this one goes. */
async function replaceBy(other: string): Promise<void> {
  const row = schedule.value!;
  const done = await doc.attempt(`${row.name} replaced and deleted`, [
    ...places.value.map((place) => ({ op: "set" as const, kind: place.kind, id: place.id, fields: { [place.field]: other } })),
    { op: "delete", kind: "schedule", id: row.id },
  ]); // prettier-ignore
  if (done) id.value = other;
}
async function remove(): Promise<void> {
  const row = schedule.value;
  if (row && (await doc.attempt("Schedule deleted", [{ op: "delete", kind: "schedule", id: row.id }])))
    id.value = "";
}

async function readFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (!file) return;
  fault.value = "";
  try {
    const fields = unwrap(
      await client.POST("/api/projects/{project_id}/schedules/read", {
        params: { path: { project_id: doc.projectId } },
        body: { text: await file.text() },
      }),
    );
    const row = schedule.value!;
    await doc.commit(`${row.name}: values of ${file.name}`, [
      { op: "set", kind: "schedule", id: row.id, fields: { ...fields, summer: null, winter: null } },
    ]);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Schedules">
      <template v-for="group in groups" :key="group.title">
        <p v-if="group.rows.length" class="soft group">{{ group.title }}</p>
        <button
          v-for="row in group.rows"
          :key="row.id"
          class="item"
          :class="{ on: row.id === schedule?.id }"
          @click="id = row.id"
        >
          {{ row.name }}<span class="soft">{{ placesOf(row.id).length || "" }}</span>
        </button>
      </template>
      <p class="add">
        <button class="link" @click="add">+ schedule</button>
        <button class="link" @click="shelf = true">from the shelf …</button>
      </p>
    </nav>
    <div v-if="schedule && pattern" class="page">
      <div class="head">
        <h1>{{ schedule.name }}</h1>
        <span class="switch" role="group" aria-label="Side of the schedule">
          <button :aria-pressed="side === 'day'" @click="side = 'day'">Day patterns</button>
          <button :aria-pressed="side === 'year'" @click="side = 'year'">Year plan</button>
        </span>
        <span class="grow" />
        <a v-if="side === 'year'" class="act" :href="`${files}/year.csv`">CSV, 8760 h</a>
        <template v-else>
          <a class="act" :href="`${files}/${pattern.id}.csv?values=24`">CSV, 24</a>
          <a class="act" :href="`${files}/${pattern.id}.csv?values=96`">96</a>
        </template>
        <label class="act file"
          >Read values …<input type="file" accept=".csv,.txt" aria-label="Read values" @change="readFile"
        /></label>
        <button class="act" @click="create({ ...plain(schedule), name: `${schedule.name}, copy` })">
          Copy
        </button>
        <button class="act" @click="remove">Delete</button>
      </div>
      <div class="body two">
        <section>
          <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
          <template v-if="side === 'day'">
            <div class="tabs">
              <span class="switch" role="group" aria-label="Pattern">
                <button
                  v-for="p in schedule.patterns.slice(0, 9)"
                  :key="p.id"
                  :aria-pressed="pattern.id === p.id"
                  @click="patternId = p.id"
                >
                  {{ p.name }}
                </button>
              </span>
              <button class="link" @click="addPattern">+ pattern</button>
              <button v-if="schedule.patterns.length > 1" class="link" @click="removePattern">
                remove it
              </button>
            </div>
            <PatternEditor
              :key="schedule.id + pattern.id"
              :steps="pattern.steps as Steps"
              :kind="kind"
              :others="others"
              :save="savePattern"
            />
          </template>
          <YearPlan v-else :schedule="schedule" :places="places" />
        </section>
        <section class="side">
          <Field
            label="Name"
            :value="schedule.name"
            :editor="{ type: 'text' }"
            :save="fieldSaver('schedule', () => schedule!.id, 'name', 'Schedule name')"
          />
          <Field
            label="Values are"
            :value="schedule.kind"
            :editor="{
              type: 'choice',
              choices: Object.entries(KINDS).map(([value, k]) => ({ value, label: k.title.toLowerCase() })),
            }"
            :save="fieldSaver('schedule', () => schedule!.id, 'kind', 'Kind of schedule')"
          />
          <Field
            v-if="side === 'day'"
            label="Pattern name"
            :value="pattern.name"
            :editor="{ type: 'text' }"
            :save="rename"
          />
          <h2>What it does</h2>
          <p v-if="building">
            Building cooling peak
            <Figure
              :value="building.cooling.sensible_w"
              :prior="before?.cooling.sensible_w"
              quantity="load"
            />
          </p>
          <p class="soft">used in {{ counted(places.length, "place") }}, {{ counted(rooms, "room") }}</p>
          <div v-for="place in places.slice(0, 30)" :key="place.id + place.field" class="place">
            <b>{{ place.name }}</b>
            <span class="soft">{{ place.what }}, {{ counted(place.rooms, "room") }}</span>
            <button v-if="places.length > 1" class="link" @click="copyFor(place)">
              give it a copy of its own
            </button>
          </div>
          <p v-if="places.length > 1" class="soft">
            This schedule is shared: a change is for all of them. For one alone, give it a copy first.
          </p>
          <label v-if="places.length" class="soft">
            Replace it everywhere and delete it:
            <select
              aria-label="Replace everywhere by"
              @change="replaceBy(($event.target as HTMLSelectElement).value)"
            >
              <option value="">by …</option>
              <option
                v-for="row in schedules.filter((r) => r.id !== schedule?.id && r.kind === schedule?.kind)"
                :key="row.id"
                :value="row.id"
              >
                {{ row.name }}
              </option>
            </select>
          </label>
          <p v-if="!places.length" class="soft">Nothing refers to it yet.</p>
        </section>
      </div>
    </div>
    <ShelfPanel
      v-if="shelf"
      what="schedules"
      title="Ordinary schedules"
      note="Round patterns of our own, to be made the project's."
      @take="take"
      @close="shelf = false"
    />
  </div>
</template>

<style scoped src="../list.css"></style>
<style scoped>
.place b {
  margin-right: 6px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 24px;
}
.tabs {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 8px;
}
.side h2 {
  margin-top: 14px;
}
.side select {
  border: 1px solid var(--line);
  background: var(--field);
  max-width: 100%;
}
.place {
  border-bottom: 1px solid var(--hair);
  padding: 5px 0;
  font-family: var(--narrow);
}
.place .link {
  display: block;
}
.file input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.file:focus-within {
  outline: 2px solid var(--accent);
}
a.act {
  color: inherit;
  text-decoration: none;
}
</style>
