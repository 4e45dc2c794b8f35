<script setup lang="ts">
import { compass, clock } from "@/units/units";
import { computed } from "vue";
import { drawnAt } from "./pointer";

const props = defineProps<{
  /** Sun elevation at each of 144 steps [deg]. */
  elevation: number[];
  /** Sun azimuth, clockwise from north [deg]. */
  azimuth: number[];
  step: number;
  month: string;
  /** A surface that looks out: tilt and azimuth [deg], and the incidence angle at each step. */
  surface: { tilt: number; azimuth: number; incidence: number[] };
  /** Elevation of the skyline every five degrees from north. */
  horizon: number[];
}>();
const emit = defineEmits<{
  /** Azimuth that was drawn with the pointer [deg]. */
  turn: [degrees: number];
}>();
const R = 112;

function turn(event: PointerEvent): void {
  const at = drawnAt(event);
  if (!at) return;
  const degrees = (Math.atan2(at.x, -at.y) * 180) / Math.PI;
  emit("turn", (Math.round(degrees / 5) * 5 + 360) % 360);
}

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
const incidence = computed(() => props.surface.incidence[props.step] ?? 180);

/** Sky behind the surface: points whose direction is more than a right angle off its normal. */
const behind = computed(() => {
  const rad = Math.PI / 180;
  const cosine = (e: number, a: number) =>
    Math.cos(e * rad) * Math.cos((a - props.surface.azimuth) * rad) * Math.sin(props.surface.tilt * rad) +
    Math.sin(e * rad) * Math.cos(props.surface.tilt * rad);
  const edge: string[] = [];
  const rim: string[] = [];
  for (let a = props.surface.azimuth + 90; a <= props.surface.azimuth + 270; a += 5) {
    let e = 0;
    while (e < 90 && cosine(e, a) < 0) e += 1;
    edge.push(point(e, a).map((v) => v.toFixed(1)).join(","));
    rim.unshift(point(0, a).map((v) => v.toFixed(1)).join(","));
  }
  return `M${edge.join("L")}L${rim.join("L")}Z`;
}); // prettier-ignore
const hidden = computed(() => {
  if (!props.horizon.some((e) => e > 0.1)) return "";
  const inner = props.horizon.map((e, i) => point(e, i * 5).map((v) => v.toFixed(1)).join(","));
  return `M${inner.join("L")}ZM0,${-R}A${R},${R} 0 1 0 0.1,${-R}Z`;
}); // prettier-ignore
const arrow = computed(() => {
  const [x, y] = point(0, props.surface.azimuth);
  const length = Math.sin((props.surface.tilt * Math.PI) / 180);
  return { x: x * 0.5 * length, y: y * 0.5 * length };
});
</script>

<template>
  <figure>
    <svg
      viewBox="-140 -140 280 280"
      role="img"
      :aria-label="`Sun path in ${month}`"
      @pointerdown="turn"
      @pointermove="turn"
    >
      <path :d="behind" fill="var(--hair)" />
      <path v-if="hidden" :d="hidden" fill="var(--neighbours)" opacity="0.55" fill-rule="evenodd" />
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
      <line x1="0" y1="0" :x2="arrow.x" :y2="arrow.y" class="normal" />
      <circle r="4" class="foot" />
      <circle
        v-if="now.e > 0"
        :cx="point(now.e, now.a)[0]"
        :cy="point(now.e, now.a)[1]"
        r="6"
        class="sun"
        :class="{ off: incidence >= 90 }"
      />
    </svg>
    <figcaption class="soft">
      21 {{ month }}, {{ clock(step) }}:
      {{
        now.e > 0
          ? `sun ${now.e.toFixed(0)}° high in the ${compass(now.a)} (${now.a.toFixed(0)}°), `
          : "sun below the horizon"
      }}<template v-if="now.e > 0">{{
        incidence < 90
          ? `${incidence.toFixed(0)}° off the surface's normal`
          : "behind the surface (grey part of the sky)"
      }}</template
      >. Rim: horizon; middle: zenith. Draw the arrow to where the surface faces, its tilt below.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 270px;
  touch-action: none;
  cursor: crosshair;
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
.sun.off {
  fill: var(--paper);
}
.normal {
  stroke: var(--accent);
  stroke-width: 3;
}
.foot {
  fill: var(--accent);
}
text {
  font-size: 11px;
  fill: var(--soft);
}
figcaption {
  font-size: 12px;
}
</style>
