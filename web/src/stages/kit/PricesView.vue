<script setup lang="ts">
/** What items of the kit list cost: prices by item and size, and what they come to. */
import { client, unwrap, type Schemas } from "@/api/client";
import { newId, useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import { editorOf } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import Figure from "@/parts/Figure.vue";
import type { Column, Edit } from "@/parts/grid";
import { useResults } from "@/results/store";
import { computed, ref, watch } from "vue";

type Row = Schemas["PriceLine"] & { id: string };
const doc = useDocument();
const results = useResults();
const found = ref<Schemas["PricesOut"] | null>(null);
const chosen = ref("");

watch(
  [() => doc.version, () => results.version],
  async () => {
    const answer = await client.GET("/api/projects/{project_id}/prices", {
      params: { path: { project_id: doc.projectId } },
    });
    if (answer.response.ok) found.value = unwrap(answer);
  },
  { immediate: true },
);
const rows = computed<Row[]>(() =>
  (found.value?.lines ?? []).map((line) => ({ ...line, id: `${line.item}/${line.size}` })),
);
/** A figure of a price, edited in the line that it prices. */
const priced = (key: "each" | "per_unit", title: string, width: number): Column<Row> => ({
  key, title, width, quantity: "money", value: (r) => r[key], editor: editorOf("price", key),
}); // prettier-ignore
const columns: Column<Row>[] = [
  { key: "item", title: "Item", width: 330, value: (r) => r.item },
  { key: "size", title: "Size", width: 170, value: (r) => r.size || "–" },
  { key: "count", title: "count", quantity: "count", width: 70, value: (r) => r.count },
  { key: "duty", title: "duty in all", width: 120, value: (r) => r.duty, text: (r) => (r.unit ? `${r.duty.toFixed(1)} ${r.unit}` : "–") },
  priced("each", "each", 100),
  priced("per_unit", "per unit of duty", 120),
  { key: "total", title: "in all", quantity: "money", width: 120, value: (r) => r.total },
]; // prettier-ignore

/** A price of its size, made where there is none yet. */
function save(edits: Edit<Row>[]): Promise<void> {
  const made = new Map<string, string>();
  const changes = edits.map(({ row, column, value }): Change => {
    const own = doc.rows("price").find((price) => price.item === row.item && price.size === row.size);
    const id = own?.id ?? made.get(row.id);
    if (id) return { op: "set", kind: "price", id, fields: { [column.key]: value } };
    const fresh = newId();
    made.set(row.id, fresh);
    const fields = { item: row.item, size: row.size, [column.key]: value };
    return { op: "create", kind: "price", id: fresh, fields };
  });
  return doc.commit("Prices", changes);
}
async function remove(): Promise<void> {
  const row = rows.value.find((one) => one.id === chosen.value);
  if (row?.price) await doc.attempt("Price removed", [{ op: "delete", kind: "price", id: row.price }]);
}
</script>

<template>
  <div class="prices">
    <div class="tools">
      <span v-if="found?.total !== null && found?.total !== undefined" data-test="kit-cost">
        in all <Figure :value="found.total" quantity="money" />
      </span>
      <span v-if="found?.unpriced" class="soft">{{ found.unpriced }} lines have no price</span>
      <span class="soft">prices are yours; per unit of duty in SI: per kW, per m, per L/s</span>
      <span class="grow" />
      <Act :disabled="!rows.find((one) => one.id === chosen)?.price" @click="remove">Remove price</Act>
    </div>
    <div class="rows">
      <DataGrid
        v-if="rows.length"
        label="Prices"
        :columns="columns"
        :rows="rows"
        :selected="chosen"
        :save="save"
        @select="chosen = $event.id"
      />
      <p v-else class="empty">Prices stand beside the items of the kit list, which is empty yet.</p>
    </div>
  </div>
</template>

<style scoped>
.prices {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 5px 12px;
  border-bottom: 1px solid var(--line);
}
.grow {
  flex: 1;
}
.rows {
  flex: 1;
  min-height: 0;
}
</style>
