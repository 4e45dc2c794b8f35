<script setup lang="ts">
import { useDocument } from "@/document/store";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import type { LoadRow } from "./rows";

defineProps<{ rows: LoadRow[]; when: (row: LoadRow) => string }>();
const doc = useDocument();
const view = useView();
const shown = (value: number | null | undefined, quantity: string) => format(value, quantity, view.system);
const COLUMNS = [
  ["area", "area"],
  ["cooling", "load"],
  ["with margin", "load"],
  ["latent", "load"],
  ["outdoor air", "load"],
  ["heating", "load"],
  ["with margin", "load"],
  ["supply", "airflow"],
] as const;
</script>

<template>
  <!-- On the screen the grid stands for it; a grid that scrolls cannot be printed. -->
  <section class="paper" aria-hidden="true">
    <h1>{{ doc.project?.name }}: loads</h1>
    <p>
      Version {{ doc.version }}. Sensible peaks; the margin is a column of its own, outdoor air is a load of
      the systems’ coils.
    </p>
    <v-table>
      <thead>
        <tr>
          <th>No.</th>
          <th>Room</th>
          <th v-for="([title, quantity], i) in COLUMNS" :key="i" class="num">
            {{ title }}<br /><small>{{ unitOf(quantity, view.system) }}</small>
          </th>
          <th>when</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id">
          <td>{{ row.number }}</td>
          <td>{{ row.name }}</td>
          <td class="num">{{ shown(row.area_m2, "area") }}</td>
          <td class="num">{{ shown(row.peak?.sensible_w, "load") }}</td>
          <td class="num">{{ shown(row.with_margin.cooling_w, "load") }}</td>
          <td class="num">{{ shown(row.peak?.latent_w, "load") }}</td>
          <td class="num">{{ shown(row.outdoor_air_w, "load") }}</td>
          <td class="num">{{ shown(row.heating_w, "load") }}</td>
          <td class="num">{{ shown(row.with_margin.heating_w, "load") }}</td>
          <td class="num">{{ shown(row.flow_m3_s, "airflow") }}</td>
          <td>{{ when(row) }}</td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
.paper {
  display: none;
}
</style>
