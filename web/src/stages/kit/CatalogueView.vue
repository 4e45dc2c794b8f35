<script setup lang="ts">
/** What can be bought: the kit list takes the smallest row that covers a duty. */
import Segments from "@/parts/Segments.vue";
import { sendFile } from "@/api/files";
import { newId, useDocument, type Applied } from "@/document/store";
import type { CatalogueRow } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import { column } from "@/parts/declared";
import FileButton from "@/parts/FileButton.vue";
import type { Column } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { computed, ref } from "vue";

type Item = CatalogueRow["item"];
const ITEMS: { value: Item; label: string }[] = [
  { value: "pump", label: "Pumps" },
  { value: "fan", label: "Fans" },
  { value: "radiator", label: "Radiators" },
  { value: "boiler", label: "Boilers" },
  { value: "heat pump", label: "Heat pumps" },
  { value: "chiller", label: "Chillers" },
];
const doc = useDocument();
const results = useResults();
const item = ref<Item>("pump");
const chosen = ref("");
const rows = computed(() =>
  doc
    .rows("catalogue_row")
    .filter((row) => row.item === item.value)
    .sort((a, b) => a.output_w - b.output_w || a.flow_m3_s * a.pressure_pa - b.flow_m3_s * b.pressure_pa),
);
/** Tags of the kit list's lines that a row was chosen for. */
const taken = computed(() => {
  const tags = new Map<string, string[]>();
  for (const [, line] of results.rows("kit")) tags.set(line.size, [...(tags.get(line.size) ?? []), line.tag]);
  return tags;
});
const moves = computed(() => item.value === "pump" || item.value === "fan");
const columns = computed<Column<CatalogueRow>[]>(() => [
  column("catalogue_row", "name", 320),
  ...(moves.value
    ? [
        column("catalogue_row", "flow_m3_s", 130, {
          quantity: item.value === "fan" ? "airflow" : "water_flow",
        }),
        column("catalogue_row", "pressure_pa", 150, {
          title: item.value === "fan" ? "Static pressure" : "Head",
          quantity: item.value === "fan" ? "pressure" : "head",
        }),
      ]
    : [
        column("catalogue_row", "output_w", 150, {
          title: item.value === "radiator" ? "Output at 75/65/20" : "Output",
        }),
      ]),
  {
    key: "taken",
    title: "Taken for",
    width: 420,
    value: (row) => taken.value.get(row.name)?.join(", ") ?? "–",
  },
]);
const save = gridSaver<CatalogueRow>("catalogue_row", "Catalogue");

/** A row like the chosen one, or with figures to change. */
async function add(): Promise<void> {
  const id = newId();
  const like = doc.get("catalogue_row", chosen.value) ?? rows.value.at(-1);
  const start = {
    flow_m3_s: like?.flow_m3_s ?? 0,
    pressure_pa: like?.pressure_pa ?? 0,
    output_w: like?.output_w ?? 0,
  };
  const figures = moves.value
    ? { flow_m3_s: start.flow_m3_s || 0.001, pressure_pa: start.pressure_pa || 30_000 }
    : { output_w: start.output_w || 1000 };
  const fields = { item: item.value, ...figures, name: `Size ${rows.value.length + 1}` };
  if (await doc.attempt("New row of the catalogue", [{ op: "create", kind: "catalogue_row", id, fields }]))
    chosen.value = id;
}
async function remove(): Promise<void> {
  await doc.attempt("Row of the catalogue deleted", [
    { op: "delete", kind: "catalogue_row", id: chosen.value },
  ]);
}
/** A file's rows take the place of those of the same items. */
async function read(file: File): Promise<void> {
  try {
    await doc.applied(async () => {
      const told = await sendFile<Applied>(`/api/projects/${doc.projectId}/catalogue`, file, {
        base_version: String(doc.version),
      });
      // What the file brought is shown, also where it is of another item.
      const first = told.objects.changed["catalogue_row"]?.[0] as unknown as CatalogueRow | undefined;
      if (first) item.value = first.item;
      return told;
    });
  } catch (error) {
    doc.message = error instanceof Error ? error.message : String(error);
  }
}
</script>

<template>
  <div class="catalogue">
    <div class="tools">
      <Segments v-model="item" label="Items" :choices="ITEMS" />
      <span class="soft">{{ counted(rows.length, "row") }}; the smallest that covers a duty is chosen</span>
      <span class="grow" />
      <Act @click="add">Add row</Act>
      <Act :disabled="!rows.some((row) => row.id === chosen)" @click="remove">Delete</Act>
      <FileButton label="Catalogue" text="Read CSV …" accept=".csv,.txt" @file="read" />
      <a
        class="act"
        :href="`/api/projects/${doc.projectId}/catalogue.csv`"
        download="catalogue.csv"
        style="text-decoration: none; color: inherit"
        >Export CSV</a
      >
    </div>
    <div class="grid">
      <DataGrid
        v-if="rows.length"
        :key="item"
        label="Catalogue"
        :columns="columns"
        :rows="rows"
        :selected="chosen"
        :save="save"
        @select="chosen = $event.id"
      />
      <p v-else class="empty">
        Nothing here yet: the kit list names standard sizes. Add rows, or read a CSV with the columns item,
        name, flow L/s, pressure kPa, output kW.
      </p>
    </div>
  </div>
</template>

<style scoped>
.catalogue {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding: 5px 12px;
  border-bottom: 1px solid var(--line);
}
.grow {
  flex: 1;
}
.grid {
  flex: 1;
  min-height: 0;
}
</style>
