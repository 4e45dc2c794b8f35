<script setup lang="ts">
/** What can be bought: the kit list takes the smallest row that covers a duty. */
import Segments from "@/parts/Segments.vue";
import { client, unwrap } from "@/api/client";
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
  { value: "motor", label: "Motors" },
  { value: "duct", label: "Round ducts" },
  { value: "pipe", label: "Pipes" },
];
const doc = useDocument();
const results = useResults();
const item = ref<Item>("pump");
const chosen = ref("");
/** What rows of one item are sorted by: small to large. */
const measure = (row: CatalogueRow) => row.output_w || row.diameter_m || row.flow_m3_s * row.pressure_pa;
const rows = computed(() =>
  doc
    .rows("catalogue_row")
    .filter((row) => row.item === item.value)
    .sort((a, b) => measure(a) - measure(b)),
);
/** Tags of the kit list's lines that a row was chosen for. */
const taken = computed(() => {
  const tags = new Map<string, string[]>();
  for (const [, line] of results.rows("kit")) tags.set(line.size, [...(tags.get(line.size) ?? []), line.tag]);
  return tags;
});
const moves = computed(() => item.value === "pump" || item.value === "fan");
const bores = computed(() => item.value === "duct" || item.value === "pipe");
/** What rows of the item shown are chosen by. */
const rule = computed(() => {
  if (item.value === "pipe")
    return "circuits built of the catalogue's pipes take the smallest within their limits";
  if (item.value === "duct") return "round ducts take the smallest within their limits";
  if (item.value === "motor")
    return "fans and pumps take the smallest above their shaft power with its margin";
  return "the smallest that covers a duty is chosen";
});
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
    : bores.value
      ? [
          column("catalogue_row", "diameter_m", 130),
          ...(item.value === "pipe" ? [column("catalogue_row", "outer_m", 130)] : []),
        ]
      : [
          column("catalogue_row", "output_w", 150, {
            title: item.value === "radiator" ? "Output at 75/65/20" : "Output",
          }),
        ]),
  column("catalogue_row", "weight_kg", 90),
  ...(item.value === "motor" || item.value === "duct"
    ? []
    : [
        {
          key: "taken",
          title: "Taken for",
          width: 420,
          value: (row: CatalogueRow) => taken.value.get(row.name)?.join(", ") ?? "–",
        },
      ]),
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
    diameter_m: like?.diameter_m || 0.02,
  };
  const figures = moves.value
    ? { flow_m3_s: start.flow_m3_s || 0.001, pressure_pa: start.pressure_pa || 30_000 }
    : bores.value
      ? { diameter_m: start.diameter_m, outer_m: like?.outer_m || start.diameter_m }
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
/** Rows of a file, or of what ships, take the place of those of the same items. */
async function taking(ask: () => Promise<Applied>): Promise<Applied | undefined> {
  let told: Applied | undefined;
  try {
    await doc.applied(async () => (told = await ask()));
  } catch (error) {
    doc.message = error instanceof Error ? error.message : String(error);
  }
  return told;
}
async function read(file: File): Promise<void> {
  const told = await taking(() =>
    sendFile<Applied>(`/api/projects/${doc.projectId}/catalogue`, file, {
      base_version: String(doc.version),
    }),
  );
  // What the file brought is shown, also where it is of another item.
  const first = told?.objects.changed["catalogue_row"]?.[0] as unknown as CatalogueRow | undefined;
  if (first) item.value = first.item;
}
const takeMadeUp = () =>
  taking(
    async () =>
      unwrap(
        await client.POST("/api/projects/{project_id}/catalogue/made-up", {
          params: { path: { project_id: doc.projectId }, query: { base_version: doc.version } },
        }),
      ) as never,
  );
</script>

<template>
  <div class="catalogue">
    <div class="tools">
      <Segments v-model="item" label="Items" :choices="ITEMS" />
      <span class="grow" />
      <Act @click="add">Add row</Act>
      <Act :disabled="!rows.some((row) => row.id === chosen)" @click="remove">Delete</Act>
      <Act @click="takeMadeUp">Made-up products</Act>
      <FileButton label="Catalogue" text="Read CSV …" accept=".csv,.txt" @file="read" />
      <a
        class="act"
        :href="`/api/projects/${doc.projectId}/catalogue.csv`"
        download="catalogue.csv"
        style="text-decoration: none; color: inherit"
        >Export CSV</a
      >
    </div>
    <p class="soft told">{{ counted(rows.length, "row") }}; {{ rule }}</p>
    <div class="rows">
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
        Nothing here yet: standard sizes stand. Add rows, take the made-up products that come with Pendrum to
        try it, or read a CSV with the columns item, name, flow L/s, pressure kPa, output kW, inner mm, outer
        mm, weight kg; what an item does not need stays empty.
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
.told {
  margin: 0;
  padding: 2px 12px;
}
.rows {
  flex: 1;
  min-height: 0;
}
</style>
