<script setup lang="ts">
/** Fittings of a duct or pipe section: kind, how many, and the coefficient that is published or the engineer's own. */
import table from "@/document/fittings.json";
import { setField, useDocument } from "@/document/store";
import type { DuctSection, PipeSection } from "@/document/types";
import { useResults } from "@/results/store";
import { counted, format } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";
import Choice from "./Choice.vue";
import DialogBox from "./DialogBox.vue";
import Field from "./Field.vue";

type Part = DuctSection["fittings"][number];
type Key = keyof typeof table;

const props = defineProps<{ kind: "duct_section" | "pipe_section"; section: DuctSection | PipeSection }>();
const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const parts = computed<Part[]>(() => props.section.fittings);
const found = computed(() => results.get(props.kind, props.section.id));
const of = computed(() => (props.kind === "duct_section" ? "duct" : "pipe"));
const OWN = "";
const choices = computed(() => [
  { value: OWN, label: "Own coefficient" },
  ...Object.entries(table)
    .filter(([, fitting]) => fitting.of === of.value)
    .map(([value, fitting]) => ({ value, label: fitting.title })),
]);
const titleOf = (part: Part) =>
  choices.value.find((choice) => choice.value === part.kind)?.label ?? part.kind;
/** Where the figure of a fitting is from. */
function sourceOf(part: Part): string {
  if (part.coefficient !== null) return "own figure";
  const fitting = table[part.kind as Key];
  return fitting.multiple ? `${fitting.multiple} f, ${fitting.source}` : fitting.source;
}
const ratio = (value: number | undefined) => (value === undefined ? "" : format(value, "ratio", view.system));
/** Of all fittings and what is entered as a sum; not told while a fitting's figure is not known. */
const total = computed(() =>
  found.value?.coefficients.length !== parts.value.length
    ? undefined
    : parts.value.reduce(
        (sum, part, at) => sum + part.count * (found.value?.coefficients[at] ?? 0),
        props.section.loss_coefficient,
      ),
);

function save(fittings: Part[], what: string): Promise<void> {
  return doc.commit(
    `${props.section.name}: ${what}`,
    setField(props.kind, props.section.id, "fittings", fittings),
  );
}
function put(at: number, part: Partial<Part>): Promise<void> {
  return save(
    parts.value.map((old, index) => (index === at ? { ...old, ...part } : old)),
    "fittings",
  );
}
/** Another kind takes the table's figure; one without a table keeps the figure it has. */
async function choose(at: number, kind: string): Promise<void> {
  const coefficient = kind === OWN ? (found.value?.coefficients[at] ?? 1) : null;
  await doc.attempt(
    `${props.section.name}: fittings`,
    setField(
      props.kind,
      props.section.id,
      "fittings",
      parts.value.map((old, index) =>
        index === at ? { ...old, kind: kind as Part["kind"], coefficient } : old,
      ),
    ),
  );
}
async function add(): Promise<void> {
  const first = (of.value === "duct" ? "round_bend_90_r1" : "pipe_elbow_90") as Part["kind"];
  await save([...parts.value, { kind: first, count: 1, coefficient: null }], "fitting added");
}
async function remove(at: number): Promise<void> {
  await save(
    parts.value.filter((_, index) => index !== at),
    "fitting removed",
  );
}
</script>

<template>
  <DialogBox :title="`Fittings of ${section.name}`" :width="880" @close="emit('close')">
    <v-table v-if="parts.length" class="plain" density="compact" aria-label="Fittings">
      <thead>
        <tr>
          <th scope="col">Fitting</th>
          <th scope="col" class="num">Count</th>
          <th scope="col" class="num">{{ of === "duct" ? "C" : "ζ" }} of each</th>
          <th scope="col">From</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(part, at) in parts" :key="at">
          <td class="kind">
            <Choice
              :label="`Fitting ${at + 1}`"
              :choices="choices"
              :model-value="part.kind"
              @update:model-value="choose(at, $event)"
            />
          </td>
          <td class="num">
            <Field
              bare
              :label="`Count of ${titleOf(part)}`"
              :value="part.count"
              :editor="{ type: 'number', quantity: 'count' }"
              :save="(value) => put(at, { count: value as number })"
            />
          </td>
          <td class="num">
            <Field
              bare
              :label="`Coefficient of ${titleOf(part)}`"
              :value="part.coefficient"
              :inherited="found?.coefficients[at]"
              :editor="{ type: 'number', quantity: 'ratio', clearable: part.kind !== OWN }"
              :save="(value) => put(at, { coefficient: value as number | null })"
            />
          </td>
          <td class="soft">{{ sourceOf(part) }}</td>
          <td><TextAct :aria-label="`Remove ${titleOf(part)}`" @click="remove(at)">Remove</TextAct></td>
        </tr>
      </tbody>
    </v-table>
    <p v-else class="soft">
      No fittings by kind yet. Add them here, or enter their sum in the section's ΣC, ζ; both count.
    </p>
    <p class="sum">
      {{
        counted(
          parts.reduce((sum, part) => sum + part.count, 0),
          "fitting",
        )
      }}<template v-if="section.loss_coefficient">
        and {{ ratio(section.loss_coefficient) }} entered as a sum</template
      >:
      <strong>{{ of === "duct" ? "ΣC" : "Σζ" }} {{ ratio(total) || "follows with the results" }}</strong>
      <template v-if="of === 'pipe'">, of flow and return together</template>
    </p>
    <template #actions>
      <Act @click="add">Add fitting</Act>
      <v-spacer />
      <Act @click="emit('close')">Close</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.kind {
  min-width: 320px;
}
.sum {
  margin: 10px 0 0;
}
</style>
