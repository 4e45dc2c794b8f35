<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import type { Layer } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import { choicesOf, fieldSaver, gridSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { computed, ref } from "vue";
import SectionDrawing from "./SectionDrawing.vue";

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ gone: [] }>();
const doc = useDocument();
const results = useResults();
const chosen = ref("");
const assembly = computed(() => doc.get("assembly", props.id)!);
const layers = computed(() =>
  doc
    .rows("layer")
    .filter((row) => row.assembly === props.id)
    .sort((a, b) => a.position - b.position),
);
const values = computed(() => results.get("assembly", props.id));
const before = computed(() => results.prior("assembly", props.id));
const users = computed(() => {
  const roles = doc.rows("kit").flatMap((kit) =>
    Object.entries(kit)
      .filter(([, value]) => value === props.id)
      .map(([role]) => `kit: ${role.replace("_", " ")}`),
  );
  const surfaces = doc.rows("surface").filter((row) => row.assembly === props.id).length;
  return [...roles, ...(surfaces ? [`${surfaces} surfaces of their own`] : [])];
});

const columns = computed<Column<Layer>[]>(() => [
  { key: "material", title: "Layer, outside first", width: 230, value: (row) => row.material,
    text: (row) => doc.get("material", row.material)?.name ?? "",
    editor: { type: "choice", choices: choicesOf(doc.rows("material")) } },
  { key: "thickness_m", title: "Thickness", quantity: "thickness", width: 110, value: (row) => row.thickness_m,
    editor: { type: "number", quantity: "thickness" },
    editable: (row) => doc.get("material", row.material)?.conductivity_w_mk !== null },
  { key: "conductivity", title: "λ", quantity: "conductivity", width: 100, value: (row) => doc.get("material", row.material)?.conductivity_w_mk },
  { key: "resistance", title: "R", quantity: "resistance", width: 110, value: (row) => {
    const m = doc.get("material", row.material);
    return m?.conductivity_w_mk ? (row.thickness_m ?? 0) / m.conductivity_w_mk : m?.resistance_m2k_w;
  } },
]); // prettier-ignore
const save = gridSaver<Layer>("layer", "Layer");

async function add(): Promise<void> {
  const material = doc.rows("material").find((row) => row.conductivity_w_mk !== null);
  if (!material) return;
  const position = (layers.value.at(-1)?.position ?? 0) + 1;
  const fields = { assembly: props.id, material: material.id, position, thickness_m: 0.1 };
  await doc.attempt("New layer", [{ op: "create", kind: "layer", id: newId(), fields }]);
}

async function move(by: number): Promise<void> {
  const index = layers.value.findIndex((row) => row.id === chosen.value);
  const one = layers.value[index];
  const other = layers.value[index + by];
  if (!one || !other) return;
  await doc.attempt("Layer moved", [
    { op: "set", kind: "layer", id: one.id, fields: { position: other.position } },
    { op: "set", kind: "layer", id: other.id, fields: { position: one.position } },
  ]);
}

async function removeLayer(): Promise<void> {
  if (chosen.value) await doc.attempt("Layer removed", [{ op: "delete", kind: "layer", id: chosen.value }]);
}

async function remove(): Promise<void> {
  if (await doc.attempt("Assembly deleted", [{ op: "delete", kind: "assembly", id: props.id }])) emit("gone");
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>{{ assembly.name }}</h1>
      <span class="soft">{{ users.length ? `used in ${users.join(", ")}` : "not used yet" }}</span>
      <span class="grow" />
      <button class="act" @click="remove">Delete</button>
    </div>
    <div class="body two">
      <section>
        <SectionDrawing :layers="layers" />
        <div class="tools">
          <button class="act" @click="add">Add layer</button>
          <button class="act" :disabled="!chosen" title="Towards the outside" @click="move(-1)">
            ↑ outwards
          </button>
          <button class="act" :disabled="!chosen" @click="move(1)">↓ inwards</button>
          <button class="act" :disabled="!chosen" @click="removeLayer">Remove layer</button>
        </div>
        <div class="layers">
          <DataGrid
            label="Layers"
            :columns="columns"
            :rows="layers"
            :selected="chosen"
            :save="save"
            @select="chosen = $event.id"
          />
        </div>
      </section>
      <section class="side">
        <Field
          label="Name"
          :value="assembly.name"
          :editor="{ type: 'text' }"
          :save="fieldSaver('assembly', () => id, 'name', 'Assembly name')"
        />
        <Field
          label="Element"
          :value="assembly.element"
          :editor="{
            type: 'choice',
            choices: ['wall', 'roof', 'floor', 'partition', 'door'].map((v) => ({ value: v, label: v })),
          }"
          :save="fieldSaver('assembly', () => id, 'element', 'Element')"
        />
        <Field
          v-if="assembly.element !== 'partition'"
          label="Solar absorptance"
          :value="assembly.solar_absorptance"
          :editor="{ type: 'number', quantity: 'ratio' }"
          :save="fieldSaver('assembly', () => id, 'solar_absorptance', 'Solar absorptance')"
        />
        <Field
          v-if="assembly.element === 'floor'"
          label="U to the ground, soil included"
          :value="assembly.ground_u_value"
          :editor="{ type: 'number', quantity: 'u_value', clearable: true }"
          :save="fieldSaver('assembly', () => id, 'ground_u_value', 'U to the ground')"
        />
        <table v-if="values" class="plain">
          <tbody>
            <tr>
              <td>U with films</td>
              <td class="num">
                <Figure :value="values.u_value" :prior="before?.u_value" quantity="u_value" />
              </td>
            </tr>
            <tr>
              <td>U without films</td>
              <td class="num"><Figure :value="values.u_without_films" quantity="u_value" /></td>
            </tr>
            <tr>
              <td>R of the layers</td>
              <td class="num"><Figure :value="values.resistance_m2k_w" quantity="resistance" /></td>
            </tr>
            <tr>
              <td>Mass</td>
              <td class="num"><Figure :value="values.mass_kg_m2" quantity="surface_mass" /></td>
            </tr>
            <tr>
              <td>Heat capacity, all of it</td>
              <td class="num"><Figure :value="values.capacity_j_m2k" quantity="heat_capacity" /></td>
            </tr>
            <tr>
              <td>Heat capacity seen from inside, 24 h</td>
              <td class="num"><Figure :value="values.inner_capacity_j_m2k" quantity="heat_capacity" /></td>
            </tr>
            <tr>
              <td>Decrement factor, 24 h</td>
              <td class="num"><Figure :value="values.decrement_factor" quantity="ratio" /></td>
            </tr>
            <tr>
              <td>Time lag, 24 h</td>
              <td class="num"><Figure :value="values.time_lag_h" quantity="time" /></td>
            </tr>
          </tbody>
        </table>
        <p v-else class="fault">No values: every layer needs a thickness.</p>
        <p class="soft small">
          ISO 6946:2017 (U, with its standard films) and ISO 13786:2017 (24 h). The room balance uses the
          films of ISO 52016-1 instead.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(300px, 1fr);
  gap: 24px;
}
.layers {
  height: 240px;
}
.tools {
  display: flex;
  gap: 6px;
  margin: 10px 0;
}
.side table {
  margin: 14px 0;
}
.small {
  font-size: 12px;
}
</style>
