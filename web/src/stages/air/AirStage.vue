<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import { client, unwrap } from "@/api/client";
import { newId, useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { BALANCE, useView } from "@/view/store";
import Choice from "@/parts/Choice.vue";
import { onListKey } from "@/parts/listKeys";
import { computed, ref, watch } from "vue";
import { isServedBy } from "@/document/served";
import AirPath from "./AirPath.vue";
import BalanceView from "./BalanceView.vue";
import DuctsView from "./DuctsView.vue";
import DutiesTable from "./DutiesTable.vue";
import PsychroChart from "./PsychroChart.vue";
import SystemSettings from "./SystemSettings.vue";
import TerminalsView from "./TerminalsView.vue";
import type { AirSystem } from "@/document/types";
import type { AirDay } from "./types";

const doc = useDocument();
const results = useResults();
const view = useView();
const tab = ref<"path" | "terminals" | "ducts" | "settings">("path");
const TABS = { path: "Path", terminals: "Terminals", ducts: "Ducts", settings: "Settings" };
const day = ref<AirDay | null>(null);
const systems = computed(() => doc.rows("air_system").sort((a, b) => a.name.localeCompare(b.name)));
const balancing = computed(() => view.airSystem === BALANCE);
const system = computed(() =>
  balancing.value ? undefined : (doc.get("air_system", view.airSystem) ?? systems.value[0]),
);
const roomsOf = (id: string) => doc.rows("room").filter((room) => isServedBy(room, id));
const without = computed(
  () => doc.rows("room").filter((room) => !room.air_system && !room.second_system).length,
);
/** Of sets of equipment, in rooms or for zones, each has results of its own: the one that is looked at. */
function setsOf(row: AirSystem): { value: string; label: string }[] {
  const rooms = roomsOf(row.id);
  if (row.arrangement === "room units")
    return rooms.map((room) => ({ value: `${row.id}~${room.id}`, label: `${room.number} ${room.name}` }));
  if (row.sets !== "zone") return [];
  const zones = [...new Set(rooms.map((room) => room.zone ?? null))];
  return zones.map((zone) => ({
    value: `${row.id}~${zone ?? "none"}`,
    label: doc.get("zone", zone)?.name ?? "Without a zone",
  }));
}
const units = computed(() => (system.value ? setsOf(system.value) : []));
const unit = ref("");
const resultId = computed(() => {
  const found = units.value.find((one) => one.value === unit.value) ?? units.value[0];
  return found?.value ?? system.value?.id ?? "";
});
const shownUnit = computed({ get: () => resultId.value, set: (id: string) => (unit.value = id) });
const result = computed(() => results.get("air_system", resultId.value));
/** Supply air of a system, of all its units together. */
function supplyOf(id: string): number | undefined {
  const own = results.get("air_system", id);
  if (own) return own.flow_m3_s;
  const row = doc.get("air_system", id);
  const flows = row
    ? setsOf(row).flatMap((one) => results.get("air_system", one.value)?.flow_m3_s ?? [])
    : [];
  return flows.length ? flows.reduce((sum, flow) => sum + flow, 0) : undefined;
}
const ARRANGED: Record<string, string> = {
  "make-up": "make-up air for extracts",
  "room units": "a unit in every room",
};

// What was explained of a set that is not looked at any more is not asked for again.
watch(
  resultId,
  (_, before) => {
    if (view.working?.subject === before) view.working = null;
  },
  { flush: "sync" },
);
watch(
  () => [system.value?.id, resultId.value, result.value !== undefined] as const,
  ([id, shown]) => {
    if (!id) return;
    view.airSystem = id;
    if (results.get("group", id)) view.subject = { kind: "group", id };
    const r = results.get("air_system", shown);
    if (r) {
      view.month = r.coil_month;
      view.step = r.coil_step;
      view.working = { quantity: "coil_total", subject: shown };
    }
  },
  { immediate: true },
);

watch(
  // A set that is new has its results after the edit's own.
  [resultId, () => view.month, () => results.version, () => result.value !== undefined],
  async ([id, month], _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    if (!id || !result.value) {
      day.value = null;
      return;
    }
    const answer = await client.GET("/api/projects/{project_id}/air/{system}", {
      params: { path: { project_id: doc.projectId, system: id }, query: { month } },
    });
    if (!stale) day.value = answer.response.ok ? unwrap(answer) : null;
  },
  { immediate: true },
);

// Where a field is wanted, the page that has it is opened.
watch(
  () => view.wanted,
  (wanted) => {
    if (wanted?.kind === "duct_section") tab.value = "ducts";
    else if (wanted?.kind === "air_system") tab.value = wanted.field === "parts" ? "path" : "settings";
    else if (wanted?.kind === "room") tab.value = "terminals";
  },
  { immediate: true },
);

async function add(): Promise<void> {
  const id = newId();
  const name = `AHU-${systems.value.length + 1}`;
  if (await doc.attempt("New air system", [{ op: "create", kind: "air_system", id, fields: { name } }])) {
    view.airSystem = id;
    tab.value = "terminals";
  }
}

async function remove(): Promise<void> {
  const id = system.value?.id;
  if (id && (await doc.attempt("Air system deleted", [{ op: "delete", kind: "air_system", id }])))
    view.airSystem = "";
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Air systems" @keydown="onListKey">
      <v-list-item tag="button" class="item" :class="{ on: balancing }" @click="view.airSystem = BALANCE"
        >Air balance of rooms</v-list-item
      >
      <p class="soft group">Air systems</p>
      <v-list-item
        tag="button"
        v-for="row in systems"
        :key="row.id"
        class="item"
        :class="{ on: row.id === system?.id }"
        @click="view.airSystem = row.id"
      >
        {{ row.name }}<span class="soft"><Figure :value="supplyOf(row.id)" quantity="airflow" /></span>
      </v-list-item>
      <p class="add"><TextAct @click="add">+ air system</TextAct></p>
      <p class="soft group">
        Rooms on no air system: {{ without }}. Their ventilation comes in as untreated outdoor air.
      </p>
    </nav>
    <BalanceView v-if="balancing" />
    <div v-else-if="system" class="page">
      <div class="head">
        <h1>{{ system.name }}</h1>
        <span class="soft"
          >{{
            ARRANGED[system.arrangement ?? ""] ??
            `${system.volume} volume${system.outdoor_only ? ", outdoor air only" : ""}`
          }}
          · {{ counted(roomsOf(system.id).length, "room") }}</span
        >
        <Choice v-if="units.length > 1" v-model="shownUnit" label="Set" :choices="units" />
        <span class="grow" />
        <Segments v-model="tab" label="View" :choices="TABS" />
        <Act @click="remove">Delete</Act>
      </div>
      <template v-if="tab === 'path'">
        <template v-if="result">
          <AirPath
            :system="system"
            :day="day"
            :step="view.step"
            :result-id="resultId"
            :coils="result.coils"
          />
          <div class="two">
            <PsychroChart v-if="day" :day="day" :step="view.step" :month="view.month" />
            <p v-else class="empty">No result yet.</p>
            <DutiesTable
              :id="resultId"
              :system="system"
              :result="result"
              :before="results.prior('air_system', resultId)"
            />
          </div>
        </template>
        <p v-else class="empty">
          Nothing to work out yet: put rooms on this system under Terminals. Snags (S) say what stops it.
        </p>
      </template>
      <TerminalsView v-else-if="tab === 'terminals'" :id="system.id" :key="system.id" />
      <DuctsView v-else-if="tab === 'ducts'" :id="system.id" :key="system.id" :result-id="resultId" />
      <SystemSettings v-else :system="system" />
    </div>
    <div v-else class="page">
      <div class="head"><h1>Air</h1></div>
      <p class="empty">No air system yet. Add one at the left, then choose its rooms.</p>
    </div>
  </div>
</template>

<style scoped src="../list.css"></style>
<style scoped>
.split {
  grid-template-columns: 190px minmax(0, 1fr);
}
.two {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 316px;
  min-height: 0;
  border-top: 1px solid var(--line);
}
@media (max-width: 899px) {
  .two {
    flex: none;
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: 300px auto;
  }
}
</style>
