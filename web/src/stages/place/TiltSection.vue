<script setup lang="ts">
import { compass } from "@/units/units";
import { computed } from "vue";
import { drawnAt } from "./pointer";

/** The surface seen from the side, in the upright plane of its azimuth, with the sun's ray in that plane. */
const props = defineProps<{
  /** Tilt and azimuth of the surface [deg]. */
  tilt: number;
  azimuth: number;
  /** Sun's elevation and azimuth [deg]. */
  sunElevation: number;
  sunAzimuth: number;
}>();
const emit = defineEmits<{
  /** Tilt that was drawn with the pointer [deg]. */
  tilt: [degrees: number];
}>();
const HALF = 46;
const RAD = Math.PI / 180;
/** Right is where the surface faces; y is upwards here and turned when drawn. */
const normal = computed(() => ({ x: Math.sin(props.tilt * RAD), y: Math.cos(props.tilt * RAD) }));
const along = computed(() => ({ x: normal.value.y * HALF, y: -normal.value.x * HALF }));
/** Angle of the sun's ray above the horizon in this plane, from the side that the surface faces; null below the horizon. */
const profile = computed(() => {
  if (props.sunElevation <= 0) return null;
  const height = Math.sin(props.sunElevation * RAD);
  const ahead = Math.cos(props.sunElevation * RAD) * Math.cos((props.sunAzimuth - props.azimuth) * RAD);
  return Math.atan2(height, ahead) / RAD;
});
const sun = computed(() =>
  profile.value === null
    ? null
    : { x: Math.cos(profile.value * RAD) * 92, y: Math.sin(profile.value * RAD) * 92 },
);

function point(event: PointerEvent): void {
  const at = drawnAt(event);
  if (!at) return;
  const degrees = Math.atan2(Math.max(0, at.x), -at.y) / RAD;
  emit("tilt", Math.max(0, Math.min(180, Math.round(degrees / 5) * 5)));
}
</script>

<template>
  <svg
    viewBox="-130 -108 260 176"
    class="side"
    role="img"
    :aria-label="`Section through the surface, tilt ${tilt}°`"
    @pointerdown="point"
    @pointermove="point"
  >
    <line x1="-118" x2="118" y1="52" y2="52" class="ground" />
    <text x="114" y="64" text-anchor="end">{{ compass(azimuth) }} →</text>
    <text x="-114" y="64">← {{ compass((azimuth + 180) % 360) }}</text>
    <template v-if="sun">
      <line :x1="sun.x" :y1="-sun.y" x2="0" y2="0" class="ray" />
      <circle :cx="sun.x" :cy="-sun.y" r="6" class="sun" />
    </template>
    <line :x1="-along.x" :y1="along.y" :x2="along.x" :y2="-along.y" class="surface" />
    <line x1="0" y1="0" :x2="normal.x * 52" :y2="-normal.y * 52" class="normal" />
    <circle :cx="normal.x * 52" :cy="-normal.y * 52" r="4" class="grip" />
    <text x="0" y="-96" text-anchor="middle">from the side</text>
  </svg>
</template>

<style scoped>
.side {
  width: 100%;
  height: 190px;
  touch-action: none;
  cursor: crosshair;
}
.ground {
  stroke: var(--ink);
}
.surface {
  stroke: var(--walls);
  stroke-width: 6;
}
.normal {
  stroke: var(--accent);
  stroke-width: 3;
}
.grip {
  fill: var(--accent);
}
.ray {
  stroke: var(--sun);
  stroke-dasharray: 4 3;
}
.sun {
  fill: var(--sun);
  stroke: var(--ink);
}
text {
  font-size: 10px;
  fill: var(--soft);
}
</style>
