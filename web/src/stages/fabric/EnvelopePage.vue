<script setup lang="ts">
import { useDocument } from "@/document/store";
import BuildingPeaks from "@/parts/BuildingPeaks.vue";
import Figure from "@/parts/Figure.vue";
import { useResults } from "@/results/store";
import { computed } from "vue";

const doc = useDocument();
const results = useResults();
const found = computed(() => results.get("envelope", "building"));
const before = computed(() => results.prior("envelope", "building"));
const total = computed(() => (found.value ? found.value.transmission_w_k + found.value.air_w_k : 0));
const TOWARDS: Record<string, string> = {
  outdoors: "outdoors",
  temperature: "ground or fixed temperature",
  pattern: "scheduled temperature",
  room: "another room",
};
const share = (part: number) => ((100 * part) / (total.value || 1)).toFixed(1);
function nameOf(id: string): string {
  return doc.get("assembly", id)?.name ?? doc.get("glazing", id)?.name ?? "";
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Envelope</h1>
      <BuildingPeaks />
    </div>
    <div v-if="found" class="body">
      <v-table class="plain" aria-label="Envelope by element">
        <thead>
          <tr>
            <th>Element</th>
            <th>Construction</th>
            <th>towards</th>
            <th class="num">Area</th>
            <th class="num">U</th>
            <th class="num">U·A</th>
            <th class="num">share</th>
            <td />
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in found.lines" :key="line.construction + line.category + line.towards">
            <td>{{ line.category }}</td>
            <td>{{ nameOf(line.construction) }}</td>
            <td class="soft">{{ TOWARDS[line.towards] ?? line.towards }}</td>
            <td class="num"><Figure :value="line.area_m2" quantity="area" /></td>
            <td class="num"><Figure :value="line.u_value" quantity="u_value" /></td>
            <td class="num"><Figure :value="line.conductance_w_k" quantity="heat_loss" /></td>
            <td v-if="line.inside" class="num soft">inside</td>
            <td v-else class="num">{{ share(line.conductance_w_k) }} %</td>
            <td class="bar">
              <i v-if="!line.inside" :style="{ width: `${share(line.conductance_w_k)}%` }" />
            </td>
          </tr>
          <tr>
            <td>air</td>
            <td>infiltration and untreated outdoor air</td>
            <td class="soft">outdoors</td>
            <td />
            <td />
            <td class="num"><Figure :value="found.air_w_k" quantity="heat_loss" /></td>
            <td class="num">{{ share(found.air_w_k) }} %</td>
            <td class="bar"><i :style="{ width: `${share(found.air_w_k)}%` }" /></td>
          </tr>
        </tbody>
      </v-table>
      <p class="sums">
        Heat loss in all
        <b
          ><Figure
            :value="total"
            :prior="before ? before.transmission_w_k + before.air_w_k : null"
            quantity="heat_loss"
        /></b>
        · heat capacity that a day reaches <b><Figure :value="found.capacity_j_k" quantity="capacity" /></b> ·
        time constant
        <b><Figure :value="found.time_constant_h" :prior="before?.time_constant_h" quantity="time" /></b>
      </p>
      <p class="soft">
        U with the films of ISO 6946; floors with what the ground adds. Capacity: ISO 13786 areal heat
        capacity of every inner face over 24 h, with air and furniture. Walls between rooms store, and what
        passes through them stays in the building.
      </p>
    </div>
    <p v-else class="empty">No room can be calculated yet.</p>
  </div>
</template>

<style scoped>
.bar {
  width: 160px;
}
.bar i {
  display: block;
  height: 10px;
  background: var(--walls);
}
.sums {
  margin-top: 14px;
}
</style>
