<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import type { Material } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import { computed, ref } from "vue";

const doc = useDocument();
const chosen = ref("");
const rows = computed(() => doc.rows("material").sort((a, b) => a.name.localeCompare(b.name)));

function number(
  key: keyof Material & string,
  title: string,
  quantity: string,
  clearable = false,
): Column<Material> {
  return {
    key,
    title,
    quantity,
    width: 130,
    value: (row) => row[key],
    editor: { type: "number", quantity, clearable },
  };
}
const columns: Column<Material>[] = [
  { key: "name", title: "Material", width: 260, value: (row) => row.name, editor: { type: "text" } },
  number("conductivity_w_mk", "Conductivity", "conductivity"),
  number("density_kg_m3", "Density", "density"),
  number("specific_heat_j_kgk", "Specific heat", "specific_heat"),
  number("resistance_m2k_w", "or resistance", "resistance"),
];
const save = gridSaver<Material>("material", "Material");

async function add(): Promise<void> {
  const id = newId();
  const fields = {
    name: "New material",
    conductivity_w_mk: 1.0,
    density_kg_m3: 1000,
    specific_heat_j_kgk: 1000,
  };
  if (await doc.attempt("New material", [{ op: "create", kind: "material", id, fields }])) chosen.value = id;
}
async function remove(): Promise<void> {
  await doc.attempt("Material deleted", [{ op: "delete", kind: "material", id: chosen.value }]);
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Materials</h1>
      <span class="soft">starter values: EN ISO 10456:2007; air gaps: ISO 6946:2017</span
      ><span class="grow" />
      <button class="act" @click="add">Add material</button>
      <button class="act" :disabled="!doc.get('material', chosen)" @click="remove">Delete</button>
    </div>
    <DataGrid
      label="Materials"
      :columns="columns"
      :rows="rows"
      :selected="chosen"
      :save="save"
      @select="chosen = $event.id"
    />
  </div>
</template>
