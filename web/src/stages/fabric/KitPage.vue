<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import { copyOf, freeName, hold } from "@/document/copies";
import { newId, setField, useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import BuildingPeaks from "@/parts/BuildingPeaks.vue";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { choicesOf } from "@/parts/saving";
import { useShared } from "@/parts/shared";
import SharedQuestion from "@/parts/SharedQuestion.vue";
import { useResults } from "@/results/store";
import { computed } from "vue";

const emit = defineEmits<{ open: [{ kind: "assembly" | "glazing"; id: string }] }>();
const doc = useDocument();
const results = useResults();
const kit = computed(() => doc.get("kit", doc.project?.kit) ?? doc.rows("kit")[0]);
const shared = useShared("kit", () => kit.value?.id ?? "");
const field = fieldsFor("kit", () => kit.value!);

function taken(id: string): Change[] {
  return setField("project", doc.project!.id, "kit", id);
}
async function copy(): Promise<void> {
  const held = hold("kit", kit.value?.id ?? "");
  if (!held || !kit.value) return;
  const [made, changes] = copyOf(held, `${kit.value.name}, copy`);
  await doc.attempt("Copy of a kit, in use", [...changes, ...taken(made)]);
}
async function add(): Promise<void> {
  const id = newId();
  const fields = { name: freeName("Fabric kit", doc.rows("kit")) };
  await doc.attempt("New kit, in use", [{ op: "create", kind: "kit", id, fields }, ...taken(id)]);
}
function choose(id: string): void {
  void doc.attempt("Kit in use", taken(id));
}

type Role = "outer_wall" | "roof" | "ground_floor" | "inner_wall" | "inner_floor" | "door" | "window";
const ROLES: [Role, string, string[]][] = [
  ["outer_wall", "Outer wall", ["wall"]],
  ["roof", "Roof", ["roof"]],
  ["ground_floor", "Ground floor", ["floor"]],
  ["inner_wall", "Inner wall", ["partition"]],
  ["inner_floor", "Inner floor and ceiling", ["partition", "floor"]],
  ["door", "Door", ["door"]],
  ["window", "Window", []],
];

function choices(role: Role, elements: string[]) {
  if (role === "window") return choicesOf(doc.rows("glazing"));
  return choicesOf(doc.rows("assembly").filter((row) => elements.includes(row.element)));
}

/** How many surfaces or openings take this role from the kit. */
const used = computed(() => {
  const counts = new Map<string, number>();
  for (const row of doc.rows("surface"))
    if (!row.assembly) counts.set(row.role, (counts.get(row.role) ?? 0) + 1);
  for (const row of doc.rows("opening")) {
    if (!(row.kind === "window" ? row.glazing : row.assembly))
      counts.set(row.kind, (counts.get(row.kind) ?? 0) + 1);
  }
  return counts;
});
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Fabric kit</h1>
      <BuildingPeaks />
      <span class="grow" />
      <Choice
        v-if="doc.project"
        label="Kit in use"
        :model-value="doc.project.kit"
        :choices="choicesOf(doc.rows('kit'))"
        @update:model-value="choose"
      />
      <Act @click="copy">Copy kit</Act>
      <Act :disabled="!kit" @click="shared.remove()">Delete kit</Act>
    </div>
    <div v-if="kit" class="body">
      <div class="name">
        <Field v-bind="field('name')" />
      </div>
      <v-table class="plain">
        <thead>
          <tr>
            <th>Role</th>
            <th style="width: 260px">Assembly</th>
            <th class="num">U</th>
            <th class="num">used by</th>
            <td />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="[role, title, elements] in ROLES"
            :key="role"
            :class="{ missing: !kit[role] && used.get(role) }"
          >
            <td>{{ title }}</td>
            <td>
              <Field bare v-bind="field(role, { label: title, choices: choices(role, elements) })" />
            </td>
            <td class="num">
              <Figure
                :value="
                  role === 'window'
                    ? results.get('glazing', kit.window)?.window_u_value
                    : results.get('assembly', kit[role])?.u_value
                "
                quantity="u_value"
              />
            </td>
            <td class="num">
              {{ used.get(role) ?? 0 }}
              <span class="unit">{{ role === "window" || role === "door" ? "openings" : "surfaces" }}</span>
            </td>
            <td>
              <span v-if="!kit[role] && used.get(role)" class="fault">missing: rooms wait for it</span>
              <TextAct
                v-else-if="kit[role]"
                @click="emit('open', { kind: role === 'window' ? 'glazing' : 'assembly', id: kit[role]! })"
              >
                open
              </TextAct>
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-if="!doc.rows('assembly').length" class="soft" style="margin-top: 12px">
        An empty project has no assemblies yet: add them at the left, then choose them here by role.
      </p>
    </div>
    <div v-else class="body">
      <p class="empty">
        No kit yet. It says which assembly each role gets. <TextAct @click="add">Add one</TextAct>
      </p>
    </div>
    <SharedQuestion :shared="shared" :name="kit?.name ?? ''" />
  </div>
</template>

<style scoped>
.missing {
  background: color-mix(in srgb, var(--ember) 9%, transparent);
}
.name {
  max-width: 380px;
  margin-bottom: 8px;
}
.plain.v-table {
  max-width: 860px;
}
</style>
