<script setup lang="ts">
import { client, Refusal, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import type { Change, Use } from "@/document/types";
import Choice from "@/parts/Choice.vue";
import DialogBox from "@/parts/DialogBox.vue";
import Figure from "@/parts/Figure.vue";
import TextBox from "@/parts/TextBox.vue";
import { counted, fromShown, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const view = useView();
/** What can be moved, where it counts in a use, and what stands beside it that is moved along. */
interface Movable {
  value: keyof Use & string;
  label: string;
  quantity: string;
  difference: string;
  counts?: (use: Use) => boolean;
  programme?: "heating_programme" | "cooling_programme";
  along?: keyof Use & string;
}
const degrees = { quantity: "temperature", difference: "temperature_difference" };
const ratio = { quantity: "ratio", difference: "ratio" };
const isSetBack = (use: Use) => use.heating_away === "setback";
const isSetUp = (use: Use) => use.cooling_away === "setup";
const FIELDS: Movable[] = [
  { value: "heating_setpoint_c", label: "heating set-points", ...degrees, programme: "heating_programme", along: "heating_setback_c" },
  { value: "cooling_setpoint_c", label: "cooling set-points", ...degrees, programme: "cooling_programme", along: "cooling_setup_c" },
  { value: "heating_setback_c", label: "heating setbacks", ...degrees, counts: isSetBack, programme: "heating_programme" },
  { value: "cooling_setup_c", label: "cooling set-ups", ...degrees, counts: isSetUp, programme: "cooling_programme" },
  { value: "lights_value", label: "lights", ...ratio },
  { value: "equipment_value", label: "equipment", ...ratio },
  { value: "people_value", label: "people", ...ratio },
  { value: "infiltration_ach", label: "infiltration", quantity: "air_changes", difference: "air_changes", counts: (use) => use.infiltration_basis === "air_changes" },
  { value: "air_per_person_m3_s", label: "outdoor air per person", quantity: "airflow_per_person", difference: "airflow_per_person" },
]; // prettier-ignore
const WAYS = [
  { value: "add", label: "moved by" },
  { value: "times", label: "times" },
] as const;
const key = ref(FIELDS[0]!.value);
const field = computed(() => FIELDS.find((item) => item.value === key.value)!);
const way = ref<"add" | "times">("add");
const typed = ref("-1");
/** Whether setbacks keep their distance from set-points that are moved. */
const along = ref(true);
const uses = computed(() => doc.rows("use").sort((a, b) => a.name.localeCompare(b.name)));
const chosen = ref<string[]>(doc.rows("use").map((use) => use.id));
const answer = ref<{
  before: { cooling_w: number | null; heating_w: number | null };
  after: { cooling_w: number | null; heating_w: number | null };
} | null>(null);
const fault = ref("");

/** Why a use that is chosen is not changed; empty where it is. */
function whyNot(use: Use): string {
  const { value, programme, counts } = field.value;
  if (programme && use[programme]) {
    return `follows the programme ${doc.get("schedule", use[programme])?.name ?? ""}, which is changed under Schedules`;
  }
  if (counts && !counts(use)) return "has none";
  // What a use leaves to the building is moved there, not here.
  return use[value] === null ? "takes the building's" : "";
}
const taken = computed(() => uses.value.filter((use) => chosen.value.includes(use.id) && !whyNot(use)));
const leftOut = computed(() =>
  uses.value
    .filter((use) => chosen.value.includes(use.id) && whyNot(use))
    .map((use) => `${use.name} ${whyNot(use)}`),
);

function moved(now: number, figure: number): number {
  const shown = toShown(now, field.value.quantity, view.system);
  const wanted = way.value === "add" ? shown + figure : shown * figure;
  return fromShown(wanted, field.value.quantity, view.system);
}

const changes = computed<Change[]>(() => {
  const figure = Number(typed.value.replace(",", ".").replace("−", "-"));
  if (!Number.isFinite(figure)) return [];
  return taken.value.flatMap((use) => {
    const { value, along: beside } = field.value;
    const now = use[value] as number;
    const fields: Record<string, number> = { [value]: moved(now, figure) };
    const other = beside ? (use[beside] as number | null) : null;
    const isBeside = beside === "heating_setback_c" ? isSetBack(use) : isSetUp(use);
    if (beside && isBeside && other !== null && along.value && way.value === "add") fields[beside] = moved(other, figure);
    return fields[value] === now ? [] : [{ op: "set" as const, kind: "use" as const, id: use.id, fields }];
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
  if (await doc.attempt(`${field.value.label} ${sign} ${typed.value}, ${changes.value.length} uses`, changes.value)) emit("close");
} // prettier-ignore
</script>

<template>
  <DialogBox title="Change several uses together" @close="emit('close')">
    <div class="row">
      <Choice v-model="key" fit label="What to change" :choices="FIELDS" />
      <Choice v-model="way" label="How" :choices="[...WAYS]" />
      <TextBox v-model="typed" class="by" label="By how much" />
      <span v-if="way === 'add'" class="soft">{{ unitOf(field.difference, view.system) }}</span>
    </div>
    <v-checkbox v-if="field.along && way === 'add'" v-model="along" label="Setbacks move along" />
    <div class="uses">
      <v-checkbox v-for="use in uses" :key="use.id" v-model="chosen" :value="use.id" :label="use.name" />
    </div>
    <v-alert v-if="fault" type="error" :text="fault" />
    <v-table v-if="answer" class="plain" aria-label="Effect on the building">
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
    </v-table>
    <p class="soft">
      Nothing is changed yet: {{ counted(changes.length, "use") }} would change.
      <template v-if="leftOut.length">Left out: {{ leftOut.join("; ") }}.</template>
    </p>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Cancel</Act>
      <Act class="on" :disabled="!answer" @click="keep">Change them</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.by {
  flex: 0 0 80px;
}
.uses {
  max-height: 230px;
  overflow: auto;
  columns: 2;
  font-family: var(--narrow);
  margin: 8px 0;
}
.uses :deep(.v-selection-control) {
  min-height: 24px;
}
</style>
