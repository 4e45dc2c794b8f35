<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import { useDocument } from "@/document/store";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { useResults } from "@/results/store";
import type { KitItem } from "@/results/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import CatalogueView from "./CatalogueView.vue";
import PricesView from "./PricesView.vue";

type Row = KitItem & { id: string };
const doc = useDocument();
const results = useResults();
const view = useView();
const TABS = { list: "List", prices: "Prices", catalogue: "Catalogue" };
const tab = ref<"list" | "prices" | "catalogue">("list");
const rows = computed<Row[]>(() =>
  results
    .rows("kit")
    .sort(([a], [b]) => a.localeCompare(b, "en", { numeric: true }))
    .map(([id, item]) => ({ id, ...item })),
);

function figure(value: number, quantity: string): string {
  return quantity ? `${format(value, quantity, view.system)} ${unitOf(quantity, view.system)}` : "";
}
const columns: Column<Row>[] = [
  { key: "tag", title: "Tag", width: 210, value: (r) => r.tag },
  { key: "item", title: "Item", width: 320, value: (r) => r.item },
  { key: "serves", title: "Serves", width: 170, value: (r) => r.serves },
  { key: "duty", title: "Duty", width: 130, value: (r) => r.duty, text: (r) => figure(r.duty, r.duty_quantity) },
  { key: "second", title: "and", width: 130, value: (r) => r.second, text: (r) => figure(r.second, r.second_quantity) },
  { key: "size", title: "Size", width: 190, value: (r) => r.size, text: (r) => r.size },
  { key: "power", title: "Electrical", width: 100, quantity: "electric_power", value: (r) => r.power_w || null },
  { key: "state", title: "State", width: 84, value: (r) => r.state },
]; // prettier-ignore
const link = computed(() => `/api/projects/${doc.projectId}/kit.csv?system=${view.system}`);
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Kit</h1>
      <span class="soft">{{ rows.length }} lines; everything sized or pinned, for procurement</span
      ><span class="grow" />
      <Segments v-model="tab" label="View" :choices="TABS" />
      <a
        v-if="tab !== 'catalogue'"
        class="act"
        :href="link"
        download="kit.csv"
        style="text-decoration: none; color: inherit"
        >Export CSV</a
      >
    </div>
    <PricesView v-if="tab === 'prices'" />
    <CatalogueView v-else-if="tab === 'catalogue'" />
    <div v-else style="flex: 1; min-height: 0">
      <DataGrid v-if="rows.length" label="Kit list" :columns="columns" :rows="rows" />
      <p v-else class="empty">
        Nothing to buy yet: the kit list fills when an air system or a water circuit is calculated.
      </p>
    </div>
  </div>
</template>
