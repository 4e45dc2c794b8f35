<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import { source } from "@/parts/sources";
import { useResults } from "@/results/store";
import { clock, MONTHS } from "@/units/units";
import { computed } from "vue";
import RoomComfort from "./RoomComfort.vue";
import type { LoadRow } from "./rows";

const props = defineProps<{ row: LoadRow; mode: "cooling" | "heating" }>();
const results = useResults();
const parts = computed(() => {
  const values = props.mode === "cooling" ? (props.row.peak?.parts_w ?? []) : props.row.heating_parts_w;
  return values
    .map((value, i) => ({ ...source(results.categories[i] ?? ""), value }))
    .filter((part) => Math.abs(part.value) > 0.5)
    .sort((a, b) => Math.abs(b.value) - Math.abs(a.value));
});
const total = computed(() => parts.value.reduce((sum, part) => sum + part.value, 0));
const most = computed(() => Math.max(1, ...parts.value.map((part) => Math.abs(part.value))));
const low = computed(() => Math.max(0, ...parts.value.map((part) => -part.value)) / most.value);
const title = computed(() => {
  if (props.mode === "heating") return "winter day";
  return props.row.peak
    ? `own peak, ${MONTHS[props.row.peak.month - 1]} ${clock(props.row.peak.step)}`
    : "not cooled";
});
/** Share of the bar column left of zero. */
const zero = computed(() => (low.value / (1 + low.value)) * 100);
const scale = computed(() => 100 / (1 + low.value));
</script>

<template>
  <section class="box" aria-label="Breakdown" tabindex="0">
    <h2>
      Breakdown of {{ row.number }} {{ row.name }} <span class="soft">{{ title }}</span>
    </h2>
    <div v-for="part in parts" :key="part.name" class="line">
      <span>{{ part.name }}</span>
      <span class="track"
        ><i
          :style="{
            background: part.colour,
            left: (part.value >= 0 ? zero : zero - (-part.value / most) * scale) + '%',
            width: (Math.abs(part.value) / most) * scale + '%',
          }"
      /></span>
      <span class="num"
        ><Figure :value="part.value" quantity="load" />
        <small class="soft">{{ total ? Math.round((part.value / total) * 100) : 0 }} %</small></span
      >
    </div>
    <div v-if="parts.length" class="line sum">
      <span>Sum</span><span /><span class="num"><Figure :value="total" quantity="load" /></span>
    </div>
    <RoomComfort v-if="row.isRoom" :id="row.id" :mode="mode" />
    <p v-if="!parts.length" class="soft">
      {{
        mode === "cooling" && row.floating
          ? `This room is not cooled; its air reaches ${row.floating.text}.`
          : "No load."
      }}
    </p>
  </section>
</template>

<style scoped>
.box {
  padding: 8px 14px;
  overflow: auto;
  font-family: var(--narrow);
}
h2 {
  font-family: var(--sans);
}
h2 .soft {
  font-weight: 400;
  font-size: 12px;
  margin-left: 6px;
}
.line {
  display: grid;
  grid-template-columns: 150px minmax(60px, 1fr) 128px;
  height: 21px;
  align-items: center;
  gap: 8px;
}
.track {
  position: relative;
  height: 11px;
}
.track i {
  position: absolute;
  height: 11px;
}
.sum {
  border-top: 1px solid var(--ink);
  font-weight: 600;
}
small {
  display: inline-block;
  min-width: 34px;
  text-align: right;
}
</style>
