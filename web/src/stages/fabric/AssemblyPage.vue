<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import type { Layer } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import { column, fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import { choicesOf, gridSaver } from "@/parts/saving";
import { useShared } from "@/parts/shared";
import SharedPage from "@/parts/SharedPage.vue";
import UsedIn from "@/parts/UsedIn.vue";
import { useResults } from "@/results/store";
import { computed, ref } from "vue";
import GroundFields from "./GroundFields.vue";
import SectionDrawing from "./SectionDrawing.vue";

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ open: [id: string] }>();
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
const shared = useShared("assembly", () => props.id);
const field = fieldsFor("assembly", () => assembly.value);

const columns = computed<Column<Layer>[]>(() => [
  { key: "material", title: "Layer, outside first", width: 186, value: (row) => row.material,
    text: (row) => doc.get("material", row.material)?.name ?? "",
    editor: { type: "choice", choices: choicesOf(doc.rows("material")) } },
  { key: "thickness_m", title: "Thickness", quantity: "thickness", width: 82, value: (row) => row.thickness_m,
    editor: { type: "number", quantity: "thickness" },
    editable: (row) => doc.get("material", row.material)?.resistance_m2k_w === null },
  { key: "conductivity", title: "λ", quantity: "conductivity", width: 72, value: (row) => doc.get("material", row.material)?.conductivity_w_mk },
  { key: "resistance", title: "R", quantity: "resistance", width: 72, value: (row) => values.value?.layers_m2k_w?.[layers.value.indexOf(row)] },
  { key: "bridge_material", title: "crossed by", width: 116, value: (row) => row.bridge_material, text: (row) => doc.get("material", row.bridge_material)?.name ?? "–",
    editor: { type: "choice", clearable: true, choices: choicesOf(doc.rows("material").filter((m) => m.conductivity_w_mk !== null)) } },
  column("layer", "bridge_share", 58, { title: "over", editable: (row) => row.bridge_material !== null,
 }),
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

/** Put a layer before another one, or at the inside. */
async function put(id: string, before: string | null): Promise<void> {
  const left = layers.value.filter((row) => row.id !== id);
  const at = before ? left.findIndex((row) => row.id === before) : left.length;
  const one = layers.value.find((row) => row.id === id);
  if (!one) return;
  left.splice(at, 0, one);
  await doc.attempt(
    "Layer moved",
    left.map((row, position) => ({ op: "set", kind: "layer", id: row.id, fields: { position } })),
  );
}

function onKey(event: KeyboardEvent): void {
  if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
  event.preventDefault();
  event.stopPropagation();
  void move(event.key === "ArrowUp" ? -1 : 1);
}

async function removeLayer(): Promise<void> {
  if (chosen.value) await doc.attempt("Layer removed", [{ op: "delete", kind: "layer", id: chosen.value }]);
}
</script>

<template>
  <SharedPage :shared="shared" :name="assembly.name" @open="emit('open', $event)">
    <div class="body two">
      <section>
        <SectionDrawing
          v-if="assembly.declared_u_value === null"
          :layers="layers"
          :chosen="chosen"
          :line="values?.line"
          @move="put"
          @choose="chosen = $event"
        />
        <p v-if="values?.line?.wet.length" class="wet" role="status">
          The dew point is reached inside the section on the winter day (dots): vapour may condense there. Put
          a tighter layer inside of it or a more open one outside. ISO 13788, one steady state.
        </p>
        <p v-if="assembly.declared_u_value !== null" class="soft">
          Layers not known: a U-value and a class of mass stand for them (ISO 52016-1:2017, table B.14).
        </p>
        <div v-if="assembly.declared_u_value === null" class="tools">
          <Act @click="add">Add layer</Act>
          <Act :disabled="!chosen" title="Towards the outside, Alt+↑" @click="move(-1)"> ↑ outwards </Act>
          <Act :disabled="!chosen" @click="move(1)">↓ inwards</Act>
          <Act :disabled="!chosen" @click="removeLayer">Remove layer</Act>
        </div>
        <div v-if="assembly.declared_u_value === null" class="layers" @keydown="onKey">
          <DataGrid
            label="Layers"
            ordered
            :columns="columns"
            :rows="layers"
            :selected="chosen"
            :save="save"
            @select="chosen = $event.id"
          />
        </div>
      </section>
      <section class="side">
        <Field v-bind="field('name')" />
        <Field v-bind="field('element')" />
        <Field v-if="assembly.element !== 'partition'" v-bind="field('solar_absorptance')" />
        <Field v-bind="field('declared_u_value')" />
        <template v-if="assembly.declared_u_value !== null">
          <Field v-bind="field('mass_class')" />
          <Field v-bind="field('mass_place')" />
        </template>
        <Field v-else v-bind="field('extra_u_value')" />
        <template v-if="assembly.element === 'door'">
          <Field v-bind="field('glass_share')" />
          <Field v-if="assembly.glass_share" v-bind="field('glass_g_value')" />
        </template>
        <GroundFields
          v-if="assembly.element === 'floor' || assembly.element === 'wall'"
          :assembly="assembly"
          :values="values"
        />
        <v-table v-if="values && !values.problem" class="plain">
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
        </v-table>
        <p v-else class="fault">{{ values?.problem }}</p>
        <p v-if="values?.bridged" class="soft small">
          Crossed layers: R between <Figure :value="values.bridged.lower" quantity="resistance" /> (lower
          limit) and <Figure :value="values.bridged.upper" quantity="resistance" /> (upper); their mean
          counts, ISO 6946:2017, 6.7.2.
        </p>
        <p class="soft small">
          ISO 6946:2017 (U, with its standard films) and ISO 13786:2017 (24 h). The room balance uses the
          films of ISO 52016-1 instead.
        </p>
        <UsedIn :shared="shared" @open="emit('open', $event)" />
      </section>
    </div>
  </SharedPage>
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
.side .plain {
  margin: 14px 0;
}
.wet {
  color: var(--tide);
}
.small {
  font-size: 12px;
}
</style>
