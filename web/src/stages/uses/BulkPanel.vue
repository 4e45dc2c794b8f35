<script setup lang="ts">
import { client, Refusal, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import type { Change, Use } from "@/document/types";
import Figure from "@/parts/Figure.vue";
import { fromShown, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const view = useView();
const FIELDS = [
  { key: "heating_setpoint_c", title: "heating set-points", quantity: "temperature", difference: "temperature_difference" },
  { key: "cooling_setpoint_c", title: "cooling set-points", quantity: "temperature", difference: "temperature_difference" },
  { key: "lights_value", title: "lights", quantity: "ratio", difference: "ratio" },
  { key: "equipment_value", title: "equipment", quantity: "ratio", difference: "ratio" },
  { key: "people_value", title: "people", quantity: "ratio", difference: "ratio" },
  { key: "infiltration_ach", title: "infiltration", quantity: "air_changes", difference: "air_changes" },
  { key: "air_per_person_m3_s", title: "outdoor air per person", quantity: "airflow_per_person", difference: "airflow_per_person" },
] as const; // prettier-ignore
const field = ref<(typeof FIELDS)[number]>(FIELDS[0]);
const way = ref<"add" | "times">("add");
const typed = ref("-1");
const chosen = ref<string[]>(doc.rows("use").map((use) => use.id));
const answer = ref<{
  before: { cooling_w: number | null; heating_w: number | null };
  after: { cooling_w: number | null; heating_w: number | null };
} | null>(null);
const fault = ref("");
const uses = computed(() => doc.rows("use").sort((a, b) => a.name.localeCompare(b.name)));

const changes = computed<Change[]>(() => {
  const figure = Number(typed.value.replace(",", ".").replace("−", "-"));
  if (!Number.isFinite(figure)) return [];
  return uses.value
    .filter((use) => chosen.value.includes(use.id))
    .flatMap((use) => {
      const now = use[field.value.key as keyof Use] as number | null;
      // What a use leaves to the building is moved there, not here.
      if (now === null) return [];
      const shown = toShown(now, field.value.quantity, view.system);
      const wanted = way.value === "add" ? shown + figure : shown * figure;
      const value = fromShown(wanted, field.value.quantity, view.system);
      return value === now ? [] : [{ op: "set" as const, kind: "use" as const, id: use.id, fields: { [field.value.key]: value } }];
    });
}); // prettier-ignore

let turn = 0;
watch(
  changes,
  async (list) => {
    const mine = ++turn;
    fault.value = "";
    if (!list.length) {
      answer.value = null;
      return;
    }
    try {
      const found = unwrap(
        await client.POST("/api/projects/{project_id}/preview", {
          params: { path: { project_id: doc.projectId } },
          body: { base_version: doc.version, label: "preview", changes: list.map((c) => ({ ...c, fields: c.fields ?? {} })) },
        }),
      );
      if (mine === turn) answer.value = found;
    } catch (error) {
      if (mine !== turn) return;
      answer.value = null;
      fault.value = error instanceof Refusal ? error.message : String(error);
    }
  },
  { immediate: true },
); // prettier-ignore

async function keep(): Promise<void> {
  const sign = way.value === "add" ? "moved by" : "times";
  if (await doc.attempt(`${field.value.title} ${sign} ${typed.value}, ${changes.value.length} uses`, changes.value)) emit("close");
} // prettier-ignore
</script>

<template>
  <div class="veil" @click.self="emit('close')" @keydown.esc="emit('close')">
    <div class="box" role="dialog" aria-label="Change several uses">
      <h2>Change several uses together</h2>
      <p class="row">
        <select v-model="field" aria-label="What to change">
          <option v-for="item in FIELDS" :key="item.key" :value="item">{{ item.title }}</option>
        </select>
        <select v-model="way" aria-label="How">
          <option value="add">moved by</option>
          <option value="times">times</option>
        </select>
        <input v-model="typed" aria-label="By how much" size="6" />
        <span v-if="way === 'add'" class="soft">{{ unitOf(field.difference, view.system) }}</span>
      </p>
      <div class="uses">
        <label v-for="use in uses" :key="use.id"
          ><input v-model="chosen" type="checkbox" :value="use.id" /> {{ use.name }}</label
        >
      </div>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <table v-if="answer" class="plain" aria-label="Effect on the building">
        <thead>
          <tr>
            <th>Building</th>
            <th class="num">now</th>
            <th class="num">then</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>cooling peak</td>
            <td class="num"><Figure :value="answer.before.cooling_w" quantity="load" /></td>
            <td class="num" data-test="then-cooling">
              <Figure :value="answer.after.cooling_w" quantity="load" />
            </td>
          </tr>
          <tr>
            <td>heating</td>
            <td class="num"><Figure :value="answer.before.heating_w" quantity="load" /></td>
            <td class="num" data-test="then-heating">
              <Figure :value="answer.after.heating_w" quantity="load" />
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft">Nothing is kept yet: {{ changes.length }} uses would change.</p>
      <p class="row">
        <button class="act" :disabled="!answer" @click="keep">Keep it</button>
        <button class="act" @click="emit('close')">Leave as it was</button>
      </p>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
select,
.row input {
  border: 1px solid var(--line);
  background: var(--field);
  height: 27px;
  padding: 0 5px;
}
.uses {
  max-height: 230px;
  overflow: auto;
  columns: 2;
  font-family: var(--narrow);
  margin: 8px 0;
}
.uses label {
  display: block;
}
</style>
