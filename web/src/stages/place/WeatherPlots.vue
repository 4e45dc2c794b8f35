<script setup lang="ts">
import CarpetAxes from "@/parts/CarpetAxes.vue";
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { scaleLinear } from "d3-scale";
import { computed, onMounted, ref, watch } from "vue";
import type { Weather } from "./weather";

const props = defineProps<{ weather: Weather }>();
const view = useView();
const carpet = ref<HTMLCanvasElement | null>(null);
const STOPS = [[44, 102, 160], [140, 180, 205], [247, 245, 240], [222, 160, 90], [184, 72, 43]]; // prettier-ignore

function colour(share: number): number[] {
  const at = Math.max(0, Math.min(0.9999, share)) * (STOPS.length - 1);
  const [a, b] = [STOPS[Math.floor(at)] ?? [0, 0, 0], STOPS[Math.floor(at) + 1] ?? [0, 0, 0]];
  return a.map((value, i) => value + ((b[i] ?? 0) - value) * (at % 1));
}
const span = computed(() => {
  const all = props.weather.ranges;
  return [Math.min(...all.map((r) => r.low_c)), Math.max(...all.map((r) => r.high_c))] as const;
});
function draw(): void {
  const target = carpet.value?.getContext("2d");
  if (!target) return;
  const days = props.weather.carpet_c;
  const image = target.createImageData(days.length, 24);
  days.forEach((hours, day) =>
    hours.forEach((value, hour) => {
      const [r, g, b] = colour((value - span.value[0]) / (span.value[1] - span.value[0]));
      image.data.set([r ?? 0, g ?? 0, b ?? 0, 255], ((23 - hour) * days.length + day) * 4);
    }),
  );
  target.putImageData(image, 0, 0);
}
onMounted(draw);
watch(() => props.weather, draw);

const W = 600;
const H = 190;
const PAD = { left: 34, right: 8, top: 8, bottom: 18 };
const degrees = (value: number) => toShown(value, "temperature", view.system).toFixed(0);
const moisture = (g_kg: number) => toShown(g_kg / 1000, "humidity_ratio", view.system).toFixed(0);
/** Hours by dry-bulb and humidity ratio: a cell each, with scales and ticks. */
const scatter = computed(() => {
  const { temperature_c: t, humidity_g_kg: w, counts } = props.weather.scatter;
  const most = Math.max(...counts.flat(), 1);
  const x = scaleLinear([t[0] ?? 0, t.at(-1) ?? 1], [PAD.left, W - PAD.right]);
  const y = scaleLinear([0, w.at(-1) ?? 1], [H - PAD.bottom, PAD.top]);
  const cells = counts.flatMap((column, i) =>
    column.flatMap((count, j) => {
      const [left, right] = [x(t[i] ?? 0), x(t[i + 1] ?? t.at(-1) ?? 1)];
      const [top, bottom] = [y(w[j + 1] ?? 0), y(w[j] ?? 0)];
      return count ? [{ x: left, y: top, w: right - left, h: bottom - top, o: 0.12 + 0.88 * Math.sqrt(count / most) }] : [];
    }),
  );
  const along = x.ticks(8).map((value) => ({ at: x(value), text: degrees(value) }));
  const up = y.ticks(4).map((value) => ({ at: y(value), text: moisture(value) }));
  return { cells, along, up };
}); // prettier-ignore
/** Lowest, mean and highest of each month. */
const ranges = computed(() => {
  const y = scaleLinear(span.value, [H - PAD.bottom, PAD.top + 12]).nice(5);
  const step = (W - PAD.left - PAD.right) / 12;
  const bars = props.weather.ranges.map((r, i) => ({
    ...r, x: PAD.left + (i + 0.5) * step, top: y(r.high_c), bottom: y(r.low_c), mean: y(r.mean_c),
  }));
  return { bars, up: y.ticks(5).map((value) => ({ at: y(value), text: degrees(value) })) };
}); // prettier-ignore
</script>

<template>
  <div class="plots">
    <figure>
      <CarpetAxes :year="weather.about.year" :days="weather.carpet_c.length">
        <canvas
          ref="carpet"
          :width="weather.carpet_c.length"
          height="24"
          role="img"
          aria-label="Temperature carpet of the year"
        />
      </CarpetAxes>
      <figcaption class="soft">
        Dry-bulb by day and hour: blue {{ degrees(span[0]) }} to red
        {{ degrees(span[1]) }}
        {{ unitOf("temperature", view.system) }}
      </figcaption>
    </figure>
    <figure>
      <svg :viewBox="`0 0 ${W} ${H}`" role="img" aria-label="Dry-bulb against humidity">
        <g v-for="tick in scatter.up" :key="tick.at">
          <line :x1="PAD.left" :x2="W - PAD.right" :y1="tick.at" :y2="tick.at" class="hair" />
          <text :x="PAD.left - 5" :y="tick.at + 4" text-anchor="end">{{ tick.text }}</text>
        </g>
        <rect
          v-for="(cell, i) in scatter.cells"
          :key="i"
          :x="cell.x"
          :y="cell.y"
          :width="cell.w"
          :height="cell.h"
          fill="var(--accent)"
          :opacity="cell.o"
        />
        <text v-for="tick in scatter.along" :key="tick.at" :x="tick.at" :y="H - 4" text-anchor="middle">
          {{ tick.text }}
        </text>
      </svg>
      <figcaption class="soft">
        Hours by dry-bulb, {{ unitOf("temperature", view.system) }}, and humidity ratio,
        {{ unitOf("humidity_ratio", view.system) }}; the darker the more
      </figcaption>
    </figure>
    <figure>
      <svg :viewBox="`0 0 ${W} ${H}`" role="img" aria-label="Monthly ranges">
        <g v-for="tick in ranges.up" :key="tick.at">
          <line :x1="PAD.left" :x2="W - PAD.right" :y1="tick.at" :y2="tick.at" class="hair" />
          <text :x="PAD.left - 5" :y="tick.at + 4" text-anchor="end">{{ tick.text }}</text>
        </g>
        <g v-for="bar in ranges.bars" :key="bar.month">
          <rect
            :x="bar.x - 9"
            width="18"
            :y="bar.top"
            :height="bar.bottom - bar.top"
            fill="var(--ember)"
            opacity="0.45"
          />
          <line :x1="bar.x - 11" :x2="bar.x + 11" :y1="bar.mean" :y2="bar.mean" class="mean" />
          <text :x="bar.x" :y="H - 4" text-anchor="middle">{{ MONTHS[bar.month - 1] }}</text>
          <text :x="bar.x" :y="bar.top - 3" text-anchor="middle">{{ degrees(bar.high_c) }}</text>
        </g>
      </svg>
      <figcaption class="soft">
        Lowest, mean and highest by month, {{ unitOf("temperature", view.system) }}
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
figure {
  margin: 0 0 8px;
}
canvas {
  width: 100%;
  height: 84px;
  image-rendering: pixelated;
  display: block;
}
svg {
  width: 100%;
  display: block;
}
.hair {
  stroke: var(--hair);
}
.mean {
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: 10px;
  fill: var(--soft);
}
figcaption {
  font-size: 12px;
}
</style>
