<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import { freeName } from "@/document/copies";
import { newId, useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { onListKey } from "@/parts/listKeys";
import { computed, ref, watch } from "vue";
import CircuitSettings from "./CircuitSettings.vue";
import EmittersView from "./EmittersView.vue";
import HotWaterPage from "./HotWaterPage.vue";
import PipesView from "./PipesView.vue";
import PlantView from "./PlantView.vue";
import PumpFigures from "./PumpFigures.vue";
import PumpView from "./PumpView.vue";

const doc = useDocument();
const results = useResults();
const view = useView();
const tab = ref<"pipes" | "emitters" | "pumps" | "plant" | "settings">("pipes");
const circuits = computed(() => doc.rows("circuit").sort((a, b) => b.kind.localeCompare(a.kind)));
const circuit = computed(() => doc.get("circuit", view.circuit) ?? circuits.value[0]);
const stores = computed(() => doc.rows("hot_water").sort((a, b) => a.name.localeCompare(b.name)));
const store = computed(() => doc.get("hot_water", view.circuit));
const result = computed(() => results.get("circuit", circuit.value?.id));

/** Of its ends together; of a circuit that only has units or feeds others, of its units. */
const loadOf = (id: string) => results.get("circuit", id)?.duty_w ?? results.get("plant", id)?.design_w;
const byRefrigerant = computed(() => circuit.value?.medium === "refrigerant");
const tabs = computed(() => ({
  pipes: "Pipes",
  ...(byRefrigerant.value ? {} : { emitters: "Emitters" }),
  ...(byRefrigerant.value ? {} : { pumps: "Pumps" }),
  plant: "Plant",
  settings: "Settings",
}));

watch(
  () => store.value?.id,
  (id) => {
    if (id && results.get("hot_water", id)) view.working = { quantity: "hot_water_volume", subject: id };
  },
  { immediate: true },
);
watch(
  () => circuit.value?.id,
  (id) => {
    if (id && !store.value && results.get("circuit", id))
      view.working = { quantity: "pump_head", subject: id };
    if (!(tab.value in tabs.value)) tab.value = "pipes";
  },
  { immediate: true },
);

/** Fields of a circuit that stand under Pumps; the others stand under Settings. */
const OF_PUMPS = /^(pump_|motor_|other_|pinned_head_pa$|water_flow$|diversity$)/;
// Where a field is wanted, the page that has it is opened.
watch(
  () => view.wanted,
  (wanted) => {
    if (wanted?.kind === "pipe_section") tab.value = "pipes";
    else if (wanted?.kind === "plant_unit") tab.value = "plant";
    else if (wanted?.kind === "circuit") tab.value = OF_PUMPS.test(wanted.field) ? "pumps" : "settings";
  },
  { immediate: true },
);

async function add(kind: "heating" | "chilled"): Promise<void> {
  const id = newId();
  const fields =
    kind === "heating"
      ? { name: freeName("Heating", circuits.value), kind, flow_c: 55, return_c: 45 }
      : { name: freeName("Chilled water", circuits.value), kind, flow_c: 7, return_c: 13 };
  if (await doc.attempt("New circuit", [{ op: "create", kind: "circuit", id, fields }])) view.circuit = id;
}

async function addStore(): Promise<void> {
  const id = newId();
  const charged = circuits.value.find((row) => row.kind === "heating")?.id ?? null;
  const fields = { name: freeName("Hot water", stores.value), circuit: charged };
  if (await doc.attempt("New store of hot water", [{ op: "create", kind: "hot_water", id, fields }]))
    view.circuit = id;
}

async function remove(): Promise<void> {
  if (!circuit.value) return;
  if (await doc.attempt("Circuit deleted", [{ op: "delete", kind: "circuit", id: circuit.value.id }]))
    view.circuit = "";
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Water circuits" @keydown="onListKey">
      <v-list-item
        tag="button"
        v-for="row in circuits"
        :key="row.id"
        class="item"
        :class="{ on: !store && row.id === circuit?.id }"
        @click="view.circuit = row.id"
      >
        {{ row.name }}<span class="soft"><Figure :value="loadOf(row.id)" quantity="load" /></span>
      </v-list-item>
      <v-list-item
        tag="button"
        v-for="row in stores"
        :key="row.id"
        class="item"
        :class="{ on: row.id === store?.id }"
        @click="view.circuit = row.id"
      >
        {{ row.name
        }}<span class="soft"
          ><Figure :value="results.get('hot_water', row.id)?.charge_w" quantity="load"
        /></span>
      </v-list-item>
      <p class="add">
        <TextAct @click="add('heating')">+ heating</TextAct
        ><TextAct @click="add('chilled')">+ chilled</TextAct><TextAct @click="addStore">+ hot water</TextAct>
      </p>
    </nav>
    <HotWaterPage v-if="store" :key="store.id" :store="store" />
    <div v-else-if="circuit" class="page">
      <div class="head">
        <h1>{{ circuit.name }}</h1>
        <span class="soft"
          ><template v-if="byRefrigerant"
            >refrigerant at <Figure :value="circuit.flow_c" quantity="temperature" /></template
          ><template v-else
            >{{ circuit.piping === "reverse return" ? "reverse return, " : "" }}
            <Figure :value="circuit.flow_c" quantity="temperature" /> /
            <Figure :value="circuit.return_c" quantity="temperature" /></template
          ><template v-if="doc.get('circuit', circuit.source)">
            · fed by {{ doc.get("circuit", circuit.source)!.name }}</template
          ></span
        >
        <span class="grow" />
        <Segments v-model="tab" label="View" :choices="tabs" />
        <Act @click="remove">Delete</Act>
      </div>
      <PumpFigures
        v-if="result"
        :id="circuit.id"
        :result="result"
        :before="results.prior('circuit', circuit.id)"
      />
      <PipesView v-if="tab === 'pipes'" :key="circuit.id" :circuit="circuit" />
      <EmittersView v-else-if="tab === 'emitters'" :circuit="circuit" />
      <PumpView v-else-if="tab === 'pumps'" :key="circuit.id" :circuit="circuit" :result="result" />
      <PlantView v-else-if="tab === 'plant'" :key="circuit.id" :circuit="circuit" />
      <CircuitSettings v-else :circuit="circuit" />
    </div>
    <div v-else class="page">
      <div class="head"><h1>Water</h1></div>
      <p class="empty">
        No water circuit yet. A heating circuit feeds radiators and heating coils, a chilled one the cooling
        coils. Add one at the left.
      </p>
    </div>
  </div>
</template>

<style scoped src="../list.css"></style>
<style scoped>
.add {
  flex-wrap: wrap;
}
.split {
  grid-template-columns: 190px minmax(0, 1fr);
}
</style>
