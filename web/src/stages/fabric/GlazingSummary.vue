<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import type { GlazingResult } from "@/results/types";
import { toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

/** What a glazing comes to in a window of the standard's size, with the window drawn to scale. */
const props = defineProps<{
  found: GlazingResult;
  before: GlazingResult | undefined;
  frameShare: number;
}>();
const view = useView();
const SCALE = 70;
const size = computed(() => {
  const [w, h] = props.found.window_m;
  // A frame of even share on both sides: the glass is the window made smaller.
  const glass = Math.sqrt(1 - props.frameShare);
  return { w: w * SCALE, h: h * SCALE, glass };
});
const length = (metres: number) => toShown(metres, "length", view.system).toFixed(2);
</script>

<template>
  <div class="summary">
    <svg :viewBox="`-4 -4 ${size.w + 8} ${size.h + 8}`" role="img" aria-label="Window of the standard's size">
      <rect :width="size.w" :height="size.h" fill="var(--walls)" opacity="0.55" stroke="var(--ink)" />
      <rect
        :x="(size.w * (1 - size.glass)) / 2"
        :y="(size.h * (1 - size.glass)) / 2"
        :width="size.w * size.glass"
        :height="size.h * size.glass"
        fill="var(--windows)"
        stroke="var(--ink)"
      />
    </svg>
    <v-table class="plain" aria-label="What it comes to">
      <tbody>
        <tr>
          <td>
            U of a window of {{ length(found.window_m[0]) }} × {{ length(found.window_m[1]) }}
            {{ unitOf("length", view.system) }}
          </td>
          <td class="num">
            <Figure :value="found.window_u_value" :prior="before?.window_u_value" quantity="u_value" />
          </td>
        </tr>
        <tr v-if="found.centre_u_value !== null">
          <td>U of the glass, centre</td>
          <td class="num">
            <Figure :value="found.centre_u_value" :prior="before?.centre_u_value" quantity="u_value" />
          </td>
        </tr>
        <tr>
          <td>R from surface to surface</td>
          <td class="num"><Figure :value="found.surface_m2k_w" quantity="resistance" /></td>
        </tr>
        <tr>
          <td>g of the glass, square on</td>
          <td class="num"><Figure :value="found.g_glass" quantity="ratio" /></td>
        </tr>
        <tr>
          <td>g of the glass, for diffuse light</td>
          <td class="num"><Figure :value="found.g_diffuse" quantity="ratio" /></td>
        </tr>
        <tr>
          <td>g of the window, frame counted</td>
          <td class="num"><Figure :value="found.g_window" :prior="before?.g_window" quantity="ratio" /></td>
        </tr>
        <tr v-if="found.g_blind !== null">
          <td>the same, blind drawn</td>
          <td class="num"><Figure :value="found.g_blind" :prior="before?.g_blind" quantity="ratio" /></td>
        </tr>
      </tbody>
    </v-table>
  </div>
</template>

<style scoped>
.summary {
  display: grid;
  grid-template-columns: 96px minmax(0, 420px);
  gap: 20px;
  align-items: start;
  margin: 6px 0 10px;
}
</style>
