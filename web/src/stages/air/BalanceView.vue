<script setup lang="ts">
/** The air balance of all rooms, drawn and in figures, with the extracts and transfers that make it. */
import Segments from "@/parts/Segments.vue";
import { newId, useDocument } from "@/document/store";
import type { Extract, Room, Transfer } from "@/document/types";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { choicesOf, gridSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import type { BalanceResult } from "@/results/types";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import BalanceBars from "./BalanceBars.vue";

const doc = useDocument();
const results = useResults();
const view = useView();
const extract = ref("");
const transfer = ref("");
const part = ref<"flows" | "extracts">("flows");
const PARTS = { flows: "Flows of rooms", extracts: "Extracts and air between rooms" };
const byNumber = (a: Room, b: Room) => a.number.localeCompare(b.number, "en", { numeric: true });
const rooms = computed(() => doc.rows("room").sort(byNumber));
const nameOf = (id: string | null | undefined) => {
  const room = doc.get("room", id);
  return room ? `${room.number} ${room.name}` : "–";
};
const drawn = computed(() =>
  rooms.value.flatMap((room) => {
    const balance = results.get("balance", room.id);
    return balance ? [{ id: room.id, name: `${room.number} ${room.name}`, balance }] : [];
  }),
);
const order = computed(() => new Map(rooms.value.map((room, index) => [room.id, index])));
const inOrder = <R extends { room: string }>(rows: R[]) =>
  rows.sort((a, b) => (order.value.get(a.room) ?? 0) - (order.value.get(b.room) ?? 0));
const extracts = computed(() => inOrder(doc.rows("extract")));
const transfers = computed(() => inOrder(doc.rows("transfer")));
const of = (row: Room) => results.get("balance", row.id);
const flow = (key: keyof BalanceResult & `${string}_m3_s`, title: string, width = 82): Column<Room> => ({
  key,
  title,
  quantity: "airflow",
  width,
  value: (row) => of(row)?.[key] || null,
  prior: (row) => results.prior("balance", row.id)?.[key],
});
const columns: Column<Room>[] = [
  { key: "number", title: "No.", width: 48, value: (r) => r.number },
  { key: "name", title: "Room", width: 128, value: (r) => r.name },
  {
    ...flow("supply_m3_s", "supply"),
    explain: (row) => (of(row) ? { quantity: "room_balance", subject: row.id } : null),
  },
  flow("make_up_m3_s", "make-up of it", 104),
  flow("transfer_in_m3_s", "from rooms", 92),
  flow("leak_in_m3_s", "leaks in"),
  flow("returned_m3_s", "return"),
  flow("extract_m3_s", "extracts"),
  flow("transfer_out_m3_s", "to rooms"),
  flow("leak_out_m3_s", "leaks out"),
  {
    key: "offset",
    title: "offset",
    quantity: "airflow",
    width: 82,
    value: (r) => r.offset_m3_s,
    editor: { type: "number", quantity: "airflow", clearable: true },
  },
  { key: "free", title: "balanced by", width: 108, value: (r) => of(r)?.free ?? "–" },
  flow("surplus_m3_s", "left over"),
];
const roomChoices = computed(() =>
  rooms.value.map((row) => ({ value: row.id, label: `${row.number} ${row.name}` })),
);
const extractColumns = computed<Column<Extract>[]>(() => [
  column("extract", "room", 128, { choices: roomChoices.value }),
  column("extract", "name", 118),
  column("extract", "flow_m3_s", 76, { title: "takes" }),
  column("extract", "schedule", 108, { empty: "always", choices: choicesOf(doc.rows("schedule").filter((s) => s.kind === "on_off" || s.kind === "fraction")) }),
  column("extract", "above_c", 66, { title: "above" }),
  column("extract", "lane", 104),
  column("extract", "fan_pa", 66, { title: "Fan", editable: (r) => r.lane !== "unit" }),
  column("extract", "fan_efficiency", 56, { title: "eff.", editable: (r) => r.lane !== "unit" }),
]); // prettier-ignore
const transferColumns = computed<Column<Transfer>[]>(() => [
  column("transfer", "source", 132, { choices: roomChoices.value }),
  column("transfer", "room", 132, { choices: roomChoices.value }),
  column("transfer", "flow_m3_s", 96, { text: (r) => (r.flow_m3_s === null ? "balances" : "") }),
]); // prettier-ignore
const saveExtract = gridSaver<Extract>("extract", "Extract");
const saveTransfer = gridSaver<Transfer>("transfer", "Transfer");
function saveOffset(edits: { row: Room; value: unknown }[]): Promise<void> {
  return doc.commit(
    "Pressure offset",
    edits.map(({ row, value }) => ({ op: "set", kind: "room", id: row.id, fields: { offset_m3_s: value } })),
  );
}
async function addExtract(): Promise<void> {
  const room = view.selectedRoom || rooms.value[0]?.id;
  const id = newId();
  const fields = { room, name: "Extract", flow_m3_s: 0.1 };
  if (room && (await doc.attempt("New extract", [{ op: "create", kind: "extract", id, fields }])))
    extract.value = id;
}
async function addTransfer(): Promise<void> {
  const room = view.selectedRoom || rooms.value[0]?.id;
  const id = newId();
  if (room && (await doc.attempt("New transfer", [{ op: "create", kind: "transfer", id, fields: { room } }])))
    transfer.value = id;
}
async function remove(kind: "extract" | "transfer", id: string): Promise<void> {
  await doc.attempt(kind === "extract" ? "Extract removed" : "Transfer removed", [
    { op: "delete", kind, id },
  ]);
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Air balance</h1>
      <span class="soft">all extracts running, air of 20 °C</span>
      <span class="grow" />
      <Segments v-model="part" label="Shown" :choices="PARTS" />
    </div>
    <BalanceBars
      class="drawn"
      :rows="drawn"
      :selected="view.selectedRoom"
      @choose="view.selectRoom($event)"
    />
    <div v-if="part === 'flows'" class="grid rooms">
      <DataGrid
        label="Air balance"
        :columns="columns"
        :rows="rooms"
        :selected="view.selectedRoom"
        :save="saveOffset"
        @select="view.selectRoom($event.id)"
      />
    </div>
    <div v-else class="two">
      <section>
        <p class="tools">
          <b>Extracts</b>
          <Act @click="addExtract">Add to {{ nameOf(view.selectedRoom || rooms[0]?.id) }}</Act>
          <Act :disabled="!doc.get('extract', extract)" @click="remove('extract', extract)">Remove</Act>
        </p>
        <div class="grid">
          <DataGrid
            v-if="extracts.length"
            label="Extracts"
            :columns="extractColumns"
            :rows="extracts"
            :selected="extract"
            :save="saveExtract"
            @select="extract = $event.id"
          />
          <p v-else class="empty">Hoods, toilets and processes that take air out of a room by a fan.</p>
        </div>
      </section>
      <section>
        <p class="tools">
          <b>Air between rooms</b>
          <Act @click="addTransfer">Add</Act>
          <Act :disabled="!doc.get('transfer', transfer)" @click="remove('transfer', transfer)">Remove</Act>
        </p>
        <div class="grid">
          <DataGrid
            v-if="transfers.length"
            label="Transfers"
            :columns="transferColumns"
            :rows="transfers"
            :selected="transfer"
            :save="saveTransfer"
            @select="transfer = $event.id"
          />
          <p v-else class="empty">Without a flow a transfer brings what balances the room.</p>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.drawn {
  flex: 3;
  border-top: 1px solid var(--line);
}
.grid.rooms {
  flex: 3;
  min-height: 120px;
  border-top: 1px solid var(--ink);
}
.two {
  flex: 3;
  min-height: 130px;
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(0, 4fr);
  border-top: 1px solid var(--ink);
}
.two section {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.two section + section {
  border-left: 1px solid var(--line);
}
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 3px 8px;
}
.grid {
  flex: 1;
  min-height: 0;
  overflow: hidden;
}
</style>
