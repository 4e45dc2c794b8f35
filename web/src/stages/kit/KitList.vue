<script setup lang="ts">
/** The kit list: every piece with its duties, size and what is noted of it; the account of the one that is chosen beside it. */
import { newId, useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import { editorOf } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import Figure from "@/parts/Figure.vue";
import type { Column, Edit } from "@/parts/grid";
import Segments from "@/parts/Segments.vue";
import { useResults } from "@/results/store";
import { counted, format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import PieceAccount from "./PieceAccount.vue";
import { grouped, GROUPS, leftOver, piecesOf, sumsOf, type Group, type Piece } from "./pieces";

const doc = useDocument();
const results = useResults();
const view = useView();
const group = ref<Group>("none");
const chosen = ref("");
const grid = ref<{ shown: Piece[] } | null>(null);
const pieces = computed(() => piecesOf(results.rows("kit"), doc.rows("kit_note")));
const rows = computed(() => grouped(pieces.value, group.value));
const piece = computed(() => rows.value.find((row) => row.id === chosen.value) ?? rows.value[0]);
const sums = computed(() => sumsOf(grid.value?.shown ?? rows.value));
/** Notes of pieces that the building has no more. */
const left = computed(() =>
  results.rows("kit").length
    ? doc.rows("kit_note").filter((note) => !results.get("kit", note.piece) && (note.tag || note.remark))
    : [],
);

const figure = (value: number, quantity: string) =>
  quantity ? `${format(value, quantity, view.system)} ${unitOf(quantity, view.system)}` : "";
const single = (row: Piece) => row.together.length === 0;
const noted = (key: "tag" | "remark", title: string, width: number): Column<Piece> => ({
  key, title, width, value: (r) => r[key], editor: editorOf("kit_note", key), editable: single,
}); // prettier-ignore
const columns: Column<Piece>[] = [
  noted("tag", "Tag", 170),
  { key: "item", title: "Item", width: 200, value: (r) => r.item },
  { key: "serves", title: "Serves", width: 110, value: (r) => r.serves },
  { key: "duty", title: "Duty", width: 80, value: (r) => r.duty, text: (r) => figure(r.duty, r.duty_quantity) },
  { key: "second", title: "and", width: 80, value: (r) => r.second, text: (r) => figure(r.second, r.second_quantity) },
  { key: "size", title: "Size", width: 124, value: (r) => r.size, text: (r) => r.size },
  { key: "left", title: "left over", quantity: "percent", width: 66, value: leftOver, note: (r) => ((leftOver(r) ?? 0) < -1e-6 ? "The size is below what is asked" : "") },
  { key: "count", title: "pieces", quantity: "count", width: 58, value: (r) => r.count || null },
  { key: "power", title: "electrical", quantity: "electric_power", width: 76, value: (r) => r.power_w || null },
  { key: "weight", title: "weight", quantity: "weight", width: 70, value: (r) => r.weight_kg },
  { key: "state", title: "State", width: 70, value: (r) => r.state },
  noted("remark", "Remark", 260),
]; // prettier-ignore

/** Notes of a piece, made where there are none yet. */
function save(edits: Edit<Piece>[]): Promise<void> {
  const made = new Map<string, string>();
  const changes = edits.map(({ row, column, value }): Change => {
    const id = doc.rows("kit_note").find((note) => note.piece === row.id)?.id ?? made.get(row.id);
    const fields = { [column.key]: value ?? "" };
    if (id) return { op: "set", kind: "kit_note", id, fields };
    const fresh = newId();
    made.set(row.id, fresh);
    return { op: "create", kind: "kit_note", id: fresh, fields: { piece: row.id, ...fields } };
  });
  return doc.commit("Notes of the kit list", changes);
}
async function forget(): Promise<void> {
  await doc.attempt(
    "Notes of pieces that are gone removed",
    left.value.map(({ id }) => ({ op: "delete", kind: "kit_note", id })),
  );
}
</script>

<template>
  <div class="kit">
    <div class="tools">
      <Segments v-model="group" label="Group" :choices="GROUPS" />
      <span class="soft" data-test="kit-sums">
        {{ counted(sums.count, "piece") }};
        <Figure :value="sums.power_w" quantity="electric_power" /> electrical<template
          v-if="sums.weight_kg !== null"
          >; <Figure :value="sums.weight_kg" quantity="weight" /> of those whose weight is known</template
        >
      </span>
      <span class="grow" />
      <span v-if="left.length" class="soft">
        {{ counted(left.length, "note") }} of pieces that are no longer there:
        {{ left.map((note) => note.tag || note.remark).join(", ") }}
        <TextAct @click="forget">Remove</TextAct>
      </span>
    </div>
    <div v-if="rows.length" class="beside">
      <div class="rows">
        <DataGrid
          ref="grid"
          label="Kit list"
          :columns="columns"
          :rows="rows"
          :frozen="1"
          ranges
          :selected="piece?.id"
          :band="group === 'serves' ? (row) => row.serves : undefined"
          :save="save"
          @select="chosen = $event.id"
        />
      </div>
      <PieceAccount v-if="piece" :piece="piece" />
    </div>
    <p v-else class="empty">
      Nothing to buy yet: the kit list fills when an air system or a water circuit is calculated.
    </p>
  </div>
</template>

<style scoped>
.kit {
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
.beside {
  flex: 1;
  min-height: 0;
  display: flex;
}
.rows {
  flex: 1;
  min-width: 0;
  min-height: 0;
}
/* On paper the list alone; the accounts of all pieces stand in the report (Issue, Kit list). */
@media print {
  .kit,
  .beside {
    display: block;
  }
  .beside > :last-child {
    display: none;
  }
}
</style>
