<script setup lang="ts">
import { compass, clock } from "@/units/units";
import { computed } from "vue";

const props = defineProps<{
  /** Sun elevation at each of 144 steps [deg]. */
  elevation: number[];
  /** Sun azimuth, clockwise from north [deg]. */
  azimuth: number[];
  step: number;
  month: string;
}>();
const R = 112;

/** Zenith in the middle, horizon on the rim, north up. */
function point(elevation: number, azimuth: number): [number, number] {
  const r = ((90 - elevation) / 90) * R;
  const a = (azimuth * Math.PI) / 180;
  return [r * Math.sin(a), -r * Math.cos(a)];
}
const course = computed(() =>
  props.elevation
    .map((e, i) => ({ e, p: point(e, props.azimuth[i] ?? 0) }))
    .filter((item) => item.e > 0)
    .map((item, i) => `${i ? "L" : "M"}${item.p[0].toFixed(1)},${item.p[1].toFixed(1)}`)
    .join(""),
);
const hours = computed(() =>
  [6, 9, 12, 15, 18]
    .map((hour) => ({ hour, e: props.elevation[hour * 6] ?? -1, a: props.azimuth[hour * 6] ?? 0 }))
    .filter((item) => item.e > 0)
    .map((item) => ({ hour: item.hour, p: point(item.e, item.a) })),
);
const now = computed(() => ({ e: props.elevation[props.step] ?? -1, a: props.azimuth[props.step] ?? 0 }));
</script>

<template>
  <figure>
    <svg viewBox="-140 -140 280 280" role="img" :aria-label="`Sun path in ${month}`">
      <circle v-for="ring in [0, 30, 60]" :key="ring" :r="((90 - ring) / 90) * R" class="ring" />
      <line x1="-112" x2="112" class="ring" />
      <line y1="-112" y2="112" class="ring" />
      <text
        v-for="a in [0, 45, 90, 135, 180, 225, 270, 315]"
        :key="a"
        :x="point(-14, a)[0]"
        :y="point(-14, a)[1] + 4"
        text-anchor="middle"
      >
        {{ compass(a) }}
      </text>
      <path :d="course" class="course" />
      <g v-for="item in hours" :key="item.hour">
        <circle :cx="item.p[0]" :cy="item.p[1]" r="2" />
        <text :x="item.p[0]" :y="item.p[1] + 13" text-anchor="middle">{{ item.hour }}</text>
      </g>
      <circle v-if="now.e > 0" :cx="point(now.e, now.a)[0]" :cy="point(now.e, now.a)[1]" r="6" class="sun" />
    </svg>
    <figcaption class="soft">
      Sun on 21 {{ month }}, {{ clock(step) }}:
      {{
        now.e > 0
          ? `${now.e.toFixed(0)}° high in the ${compass(now.a)} (${now.a.toFixed(0)}°)`
          : "below the horizon"
      }}. Rim: horizon; middle: zenith.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 330px;
}
.ring {
  fill: none;
  stroke: var(--line);
}
.course {
  fill: none;
  stroke: var(--sun);
  stroke-width: 2.5;
}
.sun {
  fill: var(--sun);
  stroke: var(--ink);
}
text {
  font-size: 11px;
  fill: var(--soft);
}
figcaption {
  font-size: 12px;
}
</style>
