<script setup lang="ts">
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
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

const cells = computed(() => {
  const { temperature_c: t, humidity_g_kg: w, counts } = props.weather.scatter;
  const most = Math.max(...counts.flat(), 1);
  const [t0, t1] = [t[0] ?? 0, t.at(-1) ?? 1];
  const w1 = w.at(-1) ?? 1;
  return counts.flatMap((column, i) =>
    column.flatMap((count, j) =>
      count
        ? [{ x: (((t[i] ?? 0) - t0) / (t1 - t0)) * 300, y: 150 - ((w[j + 1] ?? 0) / w1) * 150, w: 300 / counts.length, h: 150 / column.length, o: 0.12 + 0.88 * Math.sqrt(count / most) }]
        : [],
    ),
  );
}); // prettier-ignore
const degrees = (value: number) => toShown(value, "temperature", view.system).toFixed(0);
const bars = computed(() => {
  const [low, high] = span.value;
  const y = (v: number) => 140 - ((v - low) / (high - low)) * 125;
  return props.weather.ranges.map((r, i) => ({ ...r, x: 10 + i * 24, top: y(r.high_c), bottom: y(r.low_c), mean: y(r.mean_c) }));
}); // prettier-ignore
</script>

<template>
  <div class="plots">
    <figure>
      <canvas
        ref="carpet"
        :width="weather.carpet_c.length"
        height="24"
        role="img"
        aria-label="Temperature carpet of the year"
      />
      <figcaption class="soft">
        Dry-bulb, days across, midnight at the bottom: blue {{ degrees(span[0]) }} to red
        {{ degrees(span[1]) }}
        {{ unitOf("temperature", view.system) }}
      </figcaption>
    </figure>
    <div class="pair">
      <figure>
        <svg viewBox="-24 -6 330 176" role="img" aria-label="Dry-bulb against humidity">
          <rect
            v-for="(cell, i) in cells"
            :key="i"
            :x="cell.x"
            :y="cell.y"
            :width="cell.w"
            :height="cell.h"
            fill="var(--accent)"
            :opacity="cell.o"
          />
          <line x1="0" x2="300" y1="150" y2="150" stroke="var(--ink)" />
          <text x="0" y="164">{{ degrees(weather.scatter.temperature_c[0] ?? 0) }}</text>
          <text x="300" y="164" text-anchor="end">
            {{ degrees(weather.scatter.temperature_c.at(-1) ?? 0) }} {{ unitOf("temperature", view.system) }}
          </text>
          <text x="-4" y="8" text-anchor="end">
            {{ (weather.scatter.humidity_g_kg.at(-1) ?? 0).toFixed(0) }}
          </text>
        </svg>
        <figcaption class="soft">Hours by dry-bulb and humidity ratio, g/kg; the darker the more</figcaption>
      </figure>
      <figure>
        <svg viewBox="0 0 306 164" role="img" aria-label="Monthly ranges">
          <g v-for="bar in bars" :key="bar.month">
            <rect
              :x="bar.x"
              :width="14"
              :y="bar.top"
              :height="bar.bottom - bar.top"
              fill="var(--ember)"
              opacity="0.45"
            />
            <line
              :x1="bar.x - 2"
              :x2="bar.x + 16"
              :y1="bar.mean"
              :y2="bar.mean"
              stroke="var(--ink)"
              stroke-width="2"
            />
            <text :x="bar.x + 7" y="158" text-anchor="middle">{{ MONTHS[bar.month - 1] }}</text>
            <text :x="bar.x + 7" :y="bar.top - 3" text-anchor="middle">{{ degrees(bar.high_c) }}</text>
          </g>
        </svg>
        <figcaption class="soft">Lowest, mean and highest by month</figcaption>
      </figure>
    </div>
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
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
}
svg {
  width: 100%;
  max-height: 190px;
}
text {
  font-size: 9px;
  fill: var(--soft);
}
figcaption {
  font-size: 12px;
}
</style>
