<script setup lang="ts">
import type { Opening, Surface } from "@/document/types";
import { compass } from "@/units/units";
import { computed } from "vue";

const props = defineProps<{ surfaces: Surface[]; openings: Opening[]; chosen: string }>();
const emit = defineEmits<{ choose: [id: string] }>();

/** Outer walls around the rose: as long as their share of area, glass drawn in front. */
const walls = computed(() => {
  const outer = props.surfaces.filter((s) => s.boundary === "outdoors" && s.tilt_deg > 0 && s.tilt_deg < 180);
  const most = Math.max(1, ...outer.map((s) => s.area_m2));
  return outer.map((s) => {
    const glass = props.openings
      .filter((o) => o.surface === s.id && o.kind === "window")
      .reduce((sum, o) => sum + o.count * o.width_m * o.height_m, 0);
    const half = 12 + 30 * (s.area_m2 / most);
    return {
      id: s.id,
      azimuth: s.azimuth_deg,
      half,
      glass: half * Math.min(1, glass / s.area_m2),
      name: `${s.name} ${compass(s.azimuth_deg)}`,
    };
  });
});
</script>

<template>
  <svg viewBox="-95 -95 190 190" class="rose" role="img" aria-label="Outer walls by the direction they face">
    <circle r="70" fill="none" stroke="var(--hair)" />
    <text
      v-for="a in [0, 90, 180, 270]"
      :key="a"
      :x="84 * Math.sin((a * Math.PI) / 180)"
      :y="4 - 84 * Math.cos((a * Math.PI) / 180)"
      text-anchor="middle"
    >
      {{ compass(a) }}
    </text>
    <g
      v-for="wall in walls"
      :key="wall.id"
      :transform="`rotate(${wall.azimuth})`"
      class="wall"
      :class="{ on: wall.id === chosen }"
      @click="emit('choose', wall.id)"
    >
      <rect :x="-wall.half" y="-62" :width="wall.half * 2" height="9" fill="var(--walls)" />
      <rect :x="-wall.glass" y="-62" :width="wall.glass * 2" height="5" fill="var(--windows)" />
      <line y1="-66" y2="-74" stroke="var(--ink)" />
      <title>{{ wall.name }}</title>
    </g>
    <text v-if="!walls.length" text-anchor="middle">no outer wall</text>
  </svg>
</template>

<style scoped>
.rose {
  width: 100%;
  max-height: 100%;
  align-self: center;
}
text {
  font-size: 10px;
  fill: var(--soft);
}
.wall {
  cursor: pointer;
}
.wall.on rect:first-child {
  stroke: var(--accent);
  stroke-width: 2;
}
</style>
