<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import type { SystemResult } from "@/results/types";
import { computed } from "vue";
import type { AirDay } from "./types";

const props = defineProps<{ result: SystemResult; day: AirDay | null; step: number }>();

const outdoor = computed(() => props.result.outdoor_air.intake_m3_s);
/** States between the components, left to right, each with the flow there. */
const states = computed(() => {
  const at = (key: keyof AirDay["points"], name: string, flow: number) => ({
    name,
    t: props.day?.points[key].temperature_c[props.step] ?? null,
    w: props.day?.points[key].humidity_ratio[props.step] ?? null,
    flow,
  });
  const supply = props.result.flow_m3_s;
  return [
    at("outdoors", "outdoors", outdoor.value),
    at("mixed", "mixed", supply),
    at("off_coil", "off coils", supply),
    at("supply", "after fan", supply),
    at("return", "rooms, return", supply - outdoor.value),
  ];
});
const PARTS = ["mixing", "filter, coils", "fan", "rooms"];
</script>

<template>
  <div class="path">
    <svg viewBox="0 0 760 74" role="img" aria-label="Air path from outdoors to the rooms">
      <rect x="10" y="29" width="740" height="14" fill="var(--outdoor-air)" opacity="0.55" />
      <g v-for="(part, i) in PARTS" :key="part" :transform="`translate(${130 + i * 152},14)`">
        <rect width="44" height="44" fill="var(--field)" stroke="var(--ink)" />
        <path v-if="i === 0" d="M4 8L24 22L4 36M24 22H42" class="accent" />
        <g v-else-if="i === 1">
          <path d="M8 4V40M12 4V40" stroke="var(--soft)" stroke-dasharray="2 2" />
          <path d="M18 34l5-24 5 24 5-24" stroke="var(--tide)" stroke-width="2.4" fill="none" />
          <path d="M36 6v32" stroke="var(--ember)" stroke-width="2.4" />
        </g>
        <g v-else-if="i === 2">
          <circle cx="22" cy="22" r="15" class="thin" />
          <path d="M22 22V8M22 22l12 7M22 22l-12 7" class="thin" />
        </g>
        <path v-else d="M8 36V18L22 8l14 10v18z" class="thin" />
        <text x="22" y="57" text-anchor="middle">{{ part }}</text>
      </g>
      <circle v-for="i in 5" :key="i" :cx="76 + (i - 1) * 152" cy="36" r="4.5" fill="var(--accent)" />
    </svg>
    <div class="states">
      <div v-for="state in states" :key="state.name">
        <span class="soft">{{ state.name }}</span>
        <b><Figure :value="state.t" quantity="temperature" /></b>
        <Figure :value="state.w" quantity="humidity_ratio" />
        <Figure :value="state.flow" quantity="airflow" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.path {
  padding: 6px 0;
}
svg {
  width: 100%;
  display: block;
}
text {
  font-size: 10.5px;
  fill: var(--soft);
}
.thin {
  fill: none;
  stroke: var(--ink);
}
.accent {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.states {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  font-family: var(--narrow);
  line-height: 1.25;
}
.states > div {
  display: flex;
  flex-direction: column;
  align-items: center;
}
</style>
