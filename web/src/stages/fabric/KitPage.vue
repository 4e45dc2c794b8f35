<script setup lang="ts">
import { freeName } from "@/document/copies";
import { newId, setField, useDocument } from "@/document/store";
import Field from "@/parts/Field.vue";
import BuildingPeaks from "@/parts/BuildingPeaks.vue";
import Figure from "@/parts/Figure.vue";
import { choicesOf, fieldSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { computed } from "vue";

async function add(copy: boolean): Promise<void> {
  const made = newId();
  const from = kit.value;
  const fields: Record<string, unknown> = copy && from ? { ...from } : {};
  delete fields["id"];
  fields["name"] = freeName(copy && from ? `${from.name}, copy` : "Fabric kit", doc.rows("kit"));
  await doc.attempt("New kit, taken", [
    { op: "create", kind: "kit", id: made, fields },
    { op: "set", kind: "project", id: doc.project!.id, fields: { kit: made } },
  ]);
}
async function remove(): Promise<void> {
  const other = doc.rows("kit").find((row) => row.id !== kit.value?.id);
  if (!other || !kit.value) return;
  await doc.attempt("Kit deleted", [
    { op: "set", kind: "project", id: doc.project!.id, fields: { kit: other.id } },
    { op: "delete", kind: "kit", id: kit.value.id },
  ]);
}
const emit = defineEmits<{ open: [{ kind: "assembly" | "glazing"; id: string }] }>();
const doc = useDocument();
function choose(event: Event): void {
  const kit = (event.target as HTMLSelectElement).value;
  void doc.attempt("Kit in use", setField("project", doc.project!.id, "kit", kit));
}
const results = useResults();
const kit = computed(() => doc.get("kit", doc.project?.kit) ?? doc.rows("kit")[0]);
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
      <select v-if="doc.project" aria-label="Kit in use" :value="doc.project.kit ?? ''" @change="choose">
        <option v-for="row in doc.rows('kit')" :key="row.id" :value="row.id">{{ row.name }}</option>
      </select>
      <button class="act" @click="add(true)">Copy kit</button>
      <button class="act" :disabled="doc.rows('kit').length < 2" @click="remove">Delete kit</button>
    </div>
    <div v-if="kit" class="body">
      <div class="name">
        <Field
          label="Name"
          :value="kit.name"
          :editor="{ type: 'text' }"
          :save="fieldSaver('kit', () => kit!.id, 'name', 'Kit name')"
        />
      </div>
      <table class="plain">
        <thead>
          <tr>
            <th>Role</th>
            <th style="width: 260px">Assembly</th>
            <th class="num">U</th>
            <th class="num">taken by</th>
            <th />
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
              <Field
                bare
                :label="title"
                :value="kit[role]"
                :editor="{ type: 'choice', clearable: true, choices: choices(role, elements) }"
                :save="fieldSaver('kit', () => kit!.id, role, `Kit: ${title}`)"
              />
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
              <button
                v-else-if="kit[role]"
                class="link"
                @click="emit('open', { kind: role === 'window' ? 'glazing' : 'assembly', id: kit[role]! })"
              >
                open
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!doc.rows('assembly').length" class="soft" style="margin-top: 12px">
        An empty project has no assemblies yet: add them at the left, then choose them here by role.
      </p>
    </div>
  </div>
</template>

<style scoped>
.missing {
  background: color-mix(in srgb, var(--ember) 9%, transparent);
}
select {
  border: 1px solid var(--line);
  background: var(--field);
  height: 27px;
}
.name {
  max-width: 380px;
  margin-bottom: 8px;
}
table {
  max-width: 860px;
}
</style>
