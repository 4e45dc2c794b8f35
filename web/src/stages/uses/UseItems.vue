<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import type { Use, UseItem } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { column, editorOf } from "@/parts/declared";
import { quantityOfBasis } from "./useFields";

const props = defineProps<{ use: Use }>();
const doc = useDocument();
const view = useView();
const chosen = ref("");
const items = computed(() =>
  doc
    .rows("use_item")
    .filter((row) => row.use === props.use.id)
    .sort((a, b) => (a.position ?? 0) - (b.position ?? 0)),
);
const share = (key: "radiant_share" | "latent_share" | "vented_share" | "usage_factor", title: string) => column("use_item", key, 70, { title }); // prettier-ignore
const columns = computed<Column<UseItem>[]>(() => [
  column("use_item", "name", 130),
  column("use_item", "count", 58),
  column("use_item", "value", 74, { title: "each", quantityOf: (r) => quantityOfBasis(r.basis ?? "w") }),
  { key: "basis", title: "in", width: 116, value: (r) => r.basis, text: (r) => unitOfBasis(r.basis ?? "w"),
    editor: { type: "choice", choices: editorOf("use_item", "basis").choices!.map(({ value }) => ({ value, label: unitOfBasis(value) })) } },
  share("usage_factor", "used"),
  share("radiant_share", "radiant"),
  share("latent_share", "latent"),
  share("vented_share", "vented"),
  column("use_item", "schedule", 150, { empty: "all day" }),
]); // prettier-ignore
/** What the figures of a basis are in, in the units shown. */
function unitOfBasis(basis: string): string {
  const unit = unitOf(quantityOfBasis(basis), view.system);
  return basis === "w_per_person" ? `${unit} a person` : unit;
}
const save = gridSaver<UseItem>("use_item", "Item");

async function add(): Promise<void> {
  const id = newId();
  const position = (items.value.at(-1)?.position ?? 0) + 1;
  const fields = { use: props.use.id, position, name: "New item", value: 500, schedule: props.use.equipment_schedule };
  if (await doc.attempt("New item", [{ op: "create", kind: "use_item", id, fields }])) chosen.value = id;
} // prettier-ignore
async function remove(): Promise<void> {
  if (chosen.value) await doc.attempt("Item removed", [{ op: "delete", kind: "use_item", id: chosen.value }]);
}
</script>

<template>
  <section>
    <p class="tools">
      <b>Single items and processes</b>
      <Act @click="add">Add item</Act>
      <Act :disabled="!doc.get('use_item', chosen)" @click="remove">Remove item</Act>
    </p>
    <div v-if="items.length" class="grid">
      <DataGrid
        label="Items"
        :columns="columns"
        :rows="items"
        :selected="chosen"
        :save="save"
        @select="chosen = $event.id"
      />
    </div>
    <p v-else class="soft">None; general equipment alone.</p>
  </section>
</template>

<style scoped>
.grid {
  height: 150px;
}
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
