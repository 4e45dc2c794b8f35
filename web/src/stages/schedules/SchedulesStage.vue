<script setup lang="ts">
import { newId, setField, useDocument } from "@/document/store";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { fieldSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import PatternEditor from "./PatternEditor.vue";
import type { Steps } from "./pattern";

const doc = useDocument();
const results = useResults();
const route = useRoute();
const id = ref("");
const day = ref<"weekday" | "weekend">("weekday");
const schedules = computed(() => doc.rows("schedule").sort((a, b) => a.name.localeCompare(b.name)));
const schedule = computed(() => doc.get("schedule", id.value) ?? schedules.value[0]);
const COLUMNS = {
  people_schedule: "people",
  lights_schedule: "lights",
  equipment_schedule: "equipment",
} as const;

const uses = computed(() =>
  doc.rows("use").flatMap((use) =>
    (Object.keys(COLUMNS) as (keyof typeof COLUMNS)[])
      .filter((column) => use[column] === schedule.value?.id)
      .map((column) => ({
        use,
        what: COLUMNS[column],
        rooms: doc.rows("room").filter((room) => room.use === use.id),
      })),
  ),
);
const rooms = computed(() => new Set(uses.value.flatMap((item) => item.rooms.map((room) => room.id))).size);
const building = computed(() => results.get("group", "building"));
const before = computed(() => results.prior("group", "building"));

watch(
  () => route.query["at"],
  (place) => {
    const [kind, wanted] = String(place ?? "").split("/");
    if (kind === "schedule" && wanted) id.value = wanted;
  },
  { immediate: true },
);

function usedBy(scheduleId: string): number {
  return doc
    .rows("use")
    .filter((use) => Object.keys(COLUMNS).some((c) => use[c as keyof typeof COLUMNS] === scheduleId)).length;
}

function save(steps: Steps): Promise<void> {
  const row = schedule.value!;
  return doc.commit(`${row.name}: ${day.value}`, setField("schedule", row.id, day.value, steps));
}

async function add(copy: boolean): Promise<void> {
  const made = newId();
  const from = schedule.value;
  const fields =
    copy && from
      ? { name: `${from.name}, copy`, weekday: from.weekday, weekend: from.weekend }
      : {
          name: "New schedule",
          weekday: [
            [480, 0],
            [1080, 1],
            [1440, 0],
          ],
          weekend: [[1440, 0]],
        };
  if (await doc.attempt("New schedule", [{ op: "create", kind: "schedule", id: made, fields }]))
    id.value = made;
}

/** Give one use a copy of its own, so that the others keep this one. */
async function copyFor(useId: string, what: string): Promise<void> {
  const row = schedule.value!;
  const made = newId();
  const name = `${row.name}, ${doc.get("use", useId)?.name ?? ""}`;
  const done = await doc.attempt("Schedule copied for one use", [
    {
      op: "create",
      kind: "schedule",
      id: made,
      fields: { name, weekday: row.weekday, weekend: row.weekend },
    },
    { op: "set", kind: "use", id: useId, fields: { [`${what}_schedule`]: made } },
  ]);
  if (done) id.value = made;
}

async function remove(): Promise<void> {
  const row = schedule.value;
  if (row && (await doc.attempt("Schedule deleted", [{ op: "delete", kind: "schedule", id: row.id }])))
    id.value = "";
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Schedules">
      <p class="soft group">Fractions, 0 to 1</p>
      <button
        v-for="row in schedules"
        :key="row.id"
        class="item"
        :class="{ on: row.id === schedule?.id }"
        @click="id = row.id"
      >
        {{ row.name }}<span class="soft">{{ counted(usedBy(row.id), "use") }}</span>
      </button>
      <p class="add"><button class="link" @click="add(false)">+ schedule</button></p>
    </nav>
    <div v-if="schedule" class="page">
      <div class="head">
        <h1>{{ schedule.name }}</h1>
        <span class="soft"
          >referred to {{ counted(uses.length, "time") }} by uses, {{ counted(rooms, "room") }}</span
        >
        <span class="grow" />
        <button class="act" @click="add(true)">Copy</button>
        <button class="act" @click="remove">Delete</button>
      </div>
      <div class="body two">
        <section>
          <div class="tabs">
            <span class="switch" role="group" aria-label="Pattern">
              <button :aria-pressed="day === 'weekday'" @click="day = 'weekday'">Weekday</button>
              <button :aria-pressed="day === 'weekend'" @click="day = 'weekend'">Weekend</button>
            </span>
            <span class="soft">{{
              day === "weekday"
                ? "the pattern of all summer design days"
                : "no design day uses it; it waits for the year plan"
            }}</span>
          </div>
          <PatternEditor :key="schedule.id + day" :steps="schedule[day]" :save="save" />
        </section>
        <section class="side">
          <Field
            label="Name"
            :value="schedule.name"
            :editor="{ type: 'text' }"
            :save="fieldSaver('schedule', () => schedule!.id, 'name', 'Schedule name')"
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
          <div v-for="item in uses" :key="item.use.id + item.what" class="place">
            <b>{{ item.use.name }}</b>
            <span class="soft">{{ item.what }}, {{ counted(item.rooms.length, "room") }}</span>
            <button v-if="uses.length > 1" class="link" @click="copyFor(item.use.id, item.what)">
              give it a copy of its own
            </button>
          </div>
          <p v-if="uses.length > 1" class="soft">
            This schedule is shared. A change is for all of them; take a copy first for one alone. Ctrl+Z
            takes it back.
          </p>
          <p v-if="!uses.length" class="soft">No use refers to it yet.</p>
        </section>
      </div>
    </div>
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
  margin-top: 16px;
}
.place {
  border-bottom: 1px solid var(--hair);
  padding: 5px 0;
  font-family: var(--narrow);
}
.place .link {
  display: block;
}
</style>
