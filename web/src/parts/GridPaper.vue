<script setup lang="ts" generic="R extends { id: string }">
/** All rows of a grid as a plain table, there only while the page is printed. */
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { onBeforeUnmount, onMounted, ref } from "vue";
import type { Column } from "./grid";
import { shownText } from "./gridCells";

defineProps<{ columns: Column<R>[]; rows: R[] }>();
const view = useView();
const printing = ref(false);
const begin = () => (printing.value = true);
const end = () => (printing.value = false);
onMounted(() => {
  window.addEventListener("beforeprint", begin);
  window.addEventListener("afterprint", end);
});
onBeforeUnmount(() => {
  window.removeEventListener("beforeprint", begin);
  window.removeEventListener("afterprint", end);
});
</script>

<template>
  <div v-if="printing" class="whole" aria-hidden="true">
    <table>
      <thead>
        <tr>
          <th v-for="column in columns" :key="column.key" :class="{ num: column.quantity }">
            {{ column.title }}<br /><small>{{
              column.quantity ? unitOf(column.quantity, view.system) : ""
            }}</small>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id">
          <td v-for="column in columns" :key="column.key" :class="{ num: column.quantity }">
            {{ shownText(row, column, view.system) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
