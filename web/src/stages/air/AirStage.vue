<script setup lang="ts">
import { client, unwrap } from "@/api/client";
import { newId, useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { useView } from "@/view/store";
import { onListKey } from "@/parts/listKeys";
import { computed, ref, watch } from "vue";
import AirPath from "./AirPath.vue";
import DuctsView from "./DuctsView.vue";
import DutiesTable from "./DutiesTable.vue";
import PsychroChart from "./PsychroChart.vue";
import SystemSettings from "./SystemSettings.vue";
import TerminalsView from "./TerminalsView.vue";
import type { AirDay } from "./types";

const doc = useDocument();
const results = useResults();
const view = useView();
const tab = ref<"path" | "terminals" | "ducts" | "settings">("path");
const TABS = { path: "Path", terminals: "Terminals", ducts: "Ducts", settings: "Settings" };
const day = ref<AirDay | null>(null);
const systems = computed(() => doc.rows("air_system").sort((a, b) => a.name.localeCompare(b.name)));
const system = computed(() => doc.get("air_system", view.airSystem) ?? systems.value[0]);
const result = computed(() => results.get("air_system", system.value?.id));
const roomsOf = (id: string) => doc.rows("room").filter((room) => room.air_system === id);
const without = computed(() => doc.rows("room").filter((room) => !room.air_system).length);

watch(
  () => system.value?.id,
  (id) => {
    if (!id) return;
    view.airSystem = id;
    if (results.get("group", id)) view.subject = { kind: "group", id };
    const r = results.get("air_system", id);
    if (r) {
      view.month = r.coil_month;
      view.step = r.coil_step;
      view.working = { quantity: "coil_total", subject: id };
    }
  },
  { immediate: true },
);

watch(
  [() => system.value?.id, () => view.month, () => results.version],
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
    if (!stale) day.value = answer.response.ok ? (unwrap(answer) as unknown as AirDay) : null;
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
      <p class="soft group">Air systems</p>
      <v-list-item
        tag="button"
        v-for="row in systems"
        :key="row.id"
        class="item"
        :class="{ on: row.id === system?.id }"
        @click="view.airSystem = row.id"
      >
        {{ row.name
        }}<span class="soft"
          ><Figure :value="results.get('air_system', row.id)?.flow_m3_s" quantity="airflow"
        /></span>
      </v-list-item>
      <p class="add"><TextAct @click="add">+ air system</TextAct></p>
      <p class="soft group">
        Rooms on no air system: {{ without }}. Their ventilation comes in as untreated outdoor air.
      </p>
    </nav>
    <div v-if="system" class="page">
      <div class="head">
        <h1>{{ system.name }}</h1>
        <span class="soft"
          >{{ system.volume }} volume{{ system.outdoor_only ? ", outdoor air only" : "" }} ·
          {{ counted(roomsOf(system.id).length, "room") }}</span
        >
        <span class="grow" />
        <v-btn-group class="toggle" role="group" aria-label="View"
          ><v-btn
            v-for="(title, key) in TABS"
            :key="key"
            :active="tab === key"
            :aria-pressed="tab === key"
            @click="tab = key"
          >
            {{ title }}
          </v-btn></v-btn-group
        >
        <Act @click="remove">Delete</Act>
      </div>
      <template v-if="tab === 'path'">
        <template v-if="result">
          <AirPath :system="system" :day="day" :step="view.step" />
          <div class="two">
            <PsychroChart v-if="day" :day="day" :step="view.step" :month="view.month" />
            <p v-else class="empty">No result yet.</p>
            <DutiesTable :id="system.id" :result="result" :before="results.prior('air_system', system.id)" />
          </div>
        </template>
        <p v-else class="empty">
          Nothing to work out yet: put rooms on this system under Terminals. Snags (S) say what stops it.
        </p>
      </template>
      <TerminalsView v-else-if="tab === 'terminals'" :id="system.id" :key="system.id" />
      <DuctsView v-else-if="tab === 'ducts'" :id="system.id" :key="system.id" />
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
</style>
