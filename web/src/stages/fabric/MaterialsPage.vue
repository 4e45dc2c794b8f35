<script setup lang="ts">
import { freeName } from "@/document/copies";
import { newId, useDocument } from "@/document/store";

import type { Material } from "@/document/types";
import { countUsages } from "@/document/usage";
import BuildingPeaks from "@/parts/BuildingPeaks.vue";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column, Edit } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import type { ShelfItem } from "@/parts/shelf";
import { useShared } from "@/parts/shared";
import SharedQuestion from "@/parts/SharedQuestion.vue";
import UsedIn from "@/parts/UsedIn.vue";
import ShelfPanel from "@/parts/ShelfPanel.vue";
import { computed, nextTick, ref } from "vue";

const doc = useDocument();
const chosen = ref("");
const shelf = ref(false);
const shared = useShared("material", chosen);
// Enter moves on to the next row: the question stays with the material that was edited, or is to be deleted.
const asked = ref("");
const question = useShared("material", asked);
const counts = computed(() => countUsages("material"));
const rows = computed(() => doc.rows("material").sort((a, b) => a.name.localeCompare(b.name)));

const columns: Column<Material>[] = [
  column("material", "name", 200),
  column("material", "conductivity_w_mk", 98, { title: "Conductivity" }),
  column("material", "density_kg_m3", 98, { title: "Density" }),
  column("material", "specific_heat_j_kgk", 98, { title: "Specific heat" }),
  column("material", "resistance_m2k_w", 98, { title: "or resistance" }),
  { ...column("material", "vapour_factor", 98, { title: "Vapour μ" }), width: 76 },
  { key: "air_gap", title: "Air gap", width: 60, value: (row) => row.air_gap },
  {
    key: "used",
    title: "Used in",
    width: 76,
    value: (row) => counts.value.get(row.id) ?? 0,
    quantity: "count",
  },
  {
    key: "source",
    title: "Source",
    width: 260,
    value: (row) => row.source,
    text: (row) => row.source || "own",
  },
];
const saveGrid = gridSaver<Material>("material", "Material");

/** Ask about a material from here on; what it was before is held before anything changes. */
async function askAbout(id: string): Promise<void> {
  if (asked.value === id) return;
  asked.value = id;
  await nextTick();
}
async function save(edits: Edit<Material>[]): Promise<void> {
  await askAbout(edits[0]?.row.id ?? "");
  await saveGrid(edits);
}
async function remove(): Promise<void> {
  await askAbout(chosen.value);
  await question.remove();
}

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
async function take(item: ShelfItem): Promise<void> {
  const id = newId();
  const fields = { ...item.fields, name: freeName(String(item.fields["name"]), doc.rows("material")) };
  if (await doc.attempt(`Material: ${fields.name}`, [{ op: "create", kind: "material", id, fields }]))
    chosen.value = id;
}
async function addGap(): Promise<void> {
  const id = newId();
  const fields = { name: freeName("Air gap, by thickness", doc.rows("material")), air_gap: true };
  if (await doc.attempt("New air gap", [{ op: "create", kind: "material", id, fields }])) chosen.value = id;
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Materials</h1>
      <BuildingPeaks />
      <span class="grow" />
      <Act @click="shelf = true">From the catalogue …</Act>
      <Act @click="add">Add own</Act>
      <Act @click="addGap">Add air gap</Act>
      <Act :disabled="!doc.get('material', chosen)" @click="remove">Delete</Act>
    </div>
    <div class="beside">
      <DataGrid
        label="Materials"
        :columns="columns"
        :rows="rows"
        :selected="chosen"
        :save="save"
        @select="chosen = $event.id"
      />
      <section class="side">
        <template v-if="doc.get('material', chosen)">
          <h2>{{ doc.get("material", chosen)?.name }}</h2>
          <UsedIn :shared="shared" @open="chosen = $event" />
        </template>
        <p v-else class="soft">Choose a material to see where it is used.</p>
        <p class="soft foot">Starter values: EN ISO 10456:2007; air gaps: ISO 6946:2017.</p>
      </section>
    </div>
    <SharedQuestion
      :shared="question"
      :name="doc.get('material', asked)?.name ?? ''"
      @open="chosen = $event"
    />
    <ShelfPanel
      v-if="shelf"
      what="materials"
      title="Catalogue of materials"
      note="Published values with their source; what is taken becomes the project's own."
      @take="take"
      @close="shelf = false"
    />
  </div>
</template>

<style scoped>
.beside {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
}
.side {
  border-left: 1px solid var(--line);
  padding: 12px 14px;
  overflow: auto;
}
.foot {
  font-size: 12px;
  margin-top: 14px;
}
</style>
