<script setup lang="ts">
import { useElementSize } from "@/parts/size";
import { clock, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { computed, ref } from "vue";
import type { AirDay, StateName } from "./types";

const props = defineProps<{ day: AirDay; step: number; month: number }>();
const view = useView();
const box = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(box);
/** Scales by what is shown: the day's states, with room around them. */
const span = computed(() => {
  const all = Object.values(props.day.points).filter((point) => point !== undefined);
  const t = all.flatMap((point) => point.temperature_c);
  const w = all.flatMap((point) => point.humidity_ratio);
  const low = Math.floor((Math.min(...t, 10) - 2) / 5) * 5;
  const high = Math.ceil((Math.max(...t, 25) + 2) / 5) * 5;
  return { low, high, wet: Math.max(0.008, Math.ceil((Math.max(...w) + 0.001) * 500) / 500) };
});
const x = computed(() => scaleLinear([span.value.low, span.value.high], [14, width.value - 44]));
const y = computed(() => scaleLinear([0, span.value.wet], [height.value - 24, 26]));
const along = computed(() => x.value.ticks(9));
const up = computed(() => y.value.ticks(6));
const curves = computed(() =>
  Object.entries(props.day.chart.relative).map(([relative, values]) => ({
    relative,
    d:
      line<number>(
        (_, i) => x.value(props.day.chart.temperature_c[i] ?? 0),
        (w) => y.value(w),
      ).defined((w, i) => w <= span.value.wet && (props.day.chart.temperature_c[i] ?? 0) >= span.value.low)(
        values,
      ) ?? "",
  })),
);
const NAMES: [StateName, string, number, number][] = [
  ["outdoors", "outdoors", 7, -6], ["recovered", "off recovery", 7, 12], ["mixed", "mixed", 7, -6], ["off_coil", "off coils", -8, -8], ["humidified", "humidified", -8, -8],
  ["supply", "supply", 6, 14], ["rooms", "rooms", 7, 12],
]; // prettier-ignore
const points = computed(() =>
  NAMES.flatMap(([key, name, dx, dy]) => {
    const point = props.day.points[key];
    if (!point) return [];
    const [t, w] = [point.temperature_c[props.step] ?? 0, point.humidity_ratio[props.step] ?? 0];
    return [{ key, name, dx, dy, x: x.value(t), y: y.value(w) }];
  }),
);
const LINES: [StateName, StateName, string][] = [
  ["outdoors", "recovered", "var(--outdoor-air)"], ["recovered", "mixed", "var(--infiltration)"], ["outdoors", "mixed", "var(--infiltration)"],
  ["rooms", "mixed", "var(--infiltration)"], ["mixed", "off_coil", "var(--tide)"], ["off_coil", "humidified", "var(--tide)"], ["humidified", "supply", "var(--ember)"], ["off_coil", "supply", "var(--ember)"], ["supply", "rooms", "var(--sun)"],
]; // prettier-ignore
const strokes = computed(() =>
  LINES.flatMap(([from, to, colour]) => {
    const ends = [from, to].map((key) => points.value.find((point) => point.key === key));
    // With an exchanger the outdoor air goes through it.
    if (from === "outdoors" && to === "mixed" && props.day.points.recovered) return [];
    if (from === "off_coil" && to === "supply" && props.day.points.humidified) return [];
    return ends[0] && ends[1] ? [{ from: ends[0], to: ends[1], colour }] : [];
  }),
);
/** The day's trails of outdoors, mixed, off coils and rooms. */
const TRAILS: [StateName, string][] = [
  ["outdoors", "var(--infiltration)"],
  ["mixed", "var(--soft)"],
  ["off_coil", "var(--tide)"],
  ["rooms", "var(--sun)"],
];
const trails = computed(() =>
  TRAILS.flatMap(([key, colour]) => {
    const point = props.day.points[key];
    const path =
      point &&
      line<number>(
        (_, i) => x.value(point.temperature_c[i] ?? 0),
        (w) => y.value(w),
      )(point.humidity_ratio);
    return path ? [{ key, colour, path }] : [];
  }),
);
</script>

<template>
  <div ref="box" class="chart">
    <svg
      :width="width"
      :height="height"
      role="img"
      aria-label="Psychrometric chart with the states of the air path"
    >
      <text x="8" y="14">
        air at {{ toShown(day.pressure_pa, "air_pressure", view.system).toFixed(1) }}
        {{ unitOf("air_pressure", view.system) }}, {{ month ? MONTHS[month - 1] : "winter day" }}
        {{ clock(step) }} · thin lines: the whole day
      </text>
      <g v-for="t in along" :key="t">
        <line :x1="x(t)" :x2="x(t)" :y1="y(0)" :y2="y(span.wet)" stroke="var(--hair)" />
        <text :x="x(t)" :y="height - 8" text-anchor="middle">
          {{ toShown(t, "temperature", view.system).toFixed(0) }}
        </text>
      </g>
      <g v-for="w in up" :key="w">
        <line :x1="x(span.low)" :x2="x(span.high)" :y1="y(w)" :y2="y(w)" stroke="var(--hair)" />
        <text :x="x(span.high) + 4" :y="y(w) + 4">
          {{ toShown(w, "humidity_ratio", view.system).toFixed(0) }}
        </text>
      </g>
      <text :x="width - 4" :y="y(span.wet) - 8" text-anchor="end">
        {{ unitOf("humidity_ratio", view.system) }}
      </text>
      <text :x="width - 4" :y="height - 8" text-anchor="end">
        {{ unitOf("temperature", view.system) }}
      </text>
      <path
        v-for="curve in curves"
        :key="curve.relative"
        :d="curve.d"
        fill="none"
        :stroke="curve.relative === '1.0' ? 'var(--ink)' : 'var(--line)'"
        :stroke-width="curve.relative === '1.0' ? 1.6 : 1"
      />
      <path
        v-for="trail in trails"
        :key="trail.key"
        :d="trail.path"
        fill="none"
        :stroke="trail.colour"
        stroke-opacity="0.5"
      />
      <line
        v-for="(s, i) in strokes"
        :key="i"
        :x1="s.from.x"
        :y1="s.from.y"
        :x2="s.to.x"
        :y2="s.to.y"
        :stroke="s.colour"
        stroke-width="2.4"
      />
      <g v-for="p in points" :key="p.key">
        <circle :cx="p.x" :cy="p.y" r="4" fill="var(--accent)" />
        <text :x="p.x + p.dx" :y="p.y + p.dy" :text-anchor="p.dx < 0 ? 'end' : 'start'" class="name">
          {{ p.name }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.chart {
  min-height: 0;
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
}
text {
  font-size: 11px;
  fill: var(--soft);
}
.name {
  fill: var(--ink);
}
</style>
