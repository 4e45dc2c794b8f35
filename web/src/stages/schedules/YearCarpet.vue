<script setup lang="ts">
import type { PatternPart } from "@/document/types";
import CarpetAxes from "@/parts/CarpetAxes.vue";
import { computed, onMounted, ref, watch } from "vue";
import type { ScheduleKind } from "./kinds";
import { toCells, type Steps } from "@/parts/pattern";

const props = defineProps<{ days: number[]; patterns: PatternPart[]; kind: ScheduleKind; year: number }>();
const canvas = ref<HTMLCanvasElement | null>(null);
const rows = computed(() => props.patterns.map((pattern) => toCells(pattern.steps as Steps, 60)));

/** Days across, hours upwards; the stronger the higher, on whatever ground the theme has. */
function draw(): void {
  const target = canvas.value?.getContext("2d");
  if (!target) return;
  const all = rows.value.flat();
  const low = Math.min(...all, props.kind.quantity === "temperature" ? Infinity : 0);
  const high = Math.max(...all, low + 1e-9);
  const image = target.createImageData(props.days.length, 24);
  props.days.forEach((pattern, day) => {
    for (let hour = 0; hour < 24; hour++) {
      const share = ((rows.value[pattern]?.[hour] ?? 0) - low) / (high - low);
      const at = ((23 - hour) * props.days.length + day) * 4;
      image.data.set([46, 132, 121, Math.round(share * 255)], at);
    }
  });
  target.putImageData(image, 0, 0);
}
onMounted(draw);
watch(() => [props.days, rows.value], draw);
</script>

<template>
  <CarpetAxes :year="year" :days="days.length">
    <canvas
      ref="canvas"
      :width="days.length"
      height="24"
      role="img"
      aria-label="Carpet of the year"
      title="Days across, hours of the day upwards; the stronger the more"
    />
  </CarpetAxes>
</template>

<style scoped>
canvas {
  width: 100%;
  height: 58px;
  image-rendering: pixelated;
  border: 1px solid var(--line);
  display: block;
}
</style>
