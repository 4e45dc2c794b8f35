<script setup lang="ts">
import { useElementSize } from "@/parts/size";
import { clock, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { computed, ref } from "vue";
import type { AirDay } from "./types";

const props = defineProps<{ day: AirDay; step: number; month: number }>();
const view = useView();
const box = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(box);
const x = computed(() => scaleLinear([0, 42], [14, width.value - 44]));
const y = computed(() => scaleLinear([0, 0.022], [height.value - 24, 26]));
const curves = computed(() =>
  Object.entries(props.day.chart.relative).map(([relative, values]) => ({
    relative,
    d:
      line<number>(
        (_, i) => x.value(props.day.chart.temperature_c[i] ?? 0),
        (w) => y.value(w),
      ).defined((w) => w <= 0.022)(values) ?? "",
  })),
);
type Key = keyof AirDay["points"];
const NAMES: [Key, string, number, number][] = [
  ["outdoors", "outdoors", 7, -6], ["mixed", "mixed", 7, -6], ["off_coil", "off coil", -8, -8], ["supply", "supply", 6, 14], ["return", "rooms", 7, 12],
]; // prettier-ignore
const points = computed(() =>
  NAMES.map(([key, name, dx, dy]) => ({
    key,
    name,
    dx,
    dy,
    x: x.value(props.day.points[key].temperature_c[props.step] ?? 0),
    y: y.value(props.day.points[key].humidity_ratio[props.step] ?? 0),
  })),
);
const LINES: [Key, Key, string][] = [
  ["outdoors", "mixed", "var(--infiltration)"], ["return", "mixed", "var(--infiltration)"], ["mixed", "off_coil", "var(--tide)"],
  ["off_coil", "supply", "var(--ember)"], ["supply", "return", "var(--sun)"],
]; // prettier-ignore
const strokes = computed(() =>
  LINES.map(([from, to, colour]) => ({
    from: points.value.find((p) => p.key === from)!,
    to: points.value.find((p) => p.key === to)!,
    colour,
  })),
);
const loop = computed(
  () =>
    line<number>(
      (_, i) => x.value(props.day.points.outdoors.temperature_c[i] ?? 0),
      (w) => y.value(w),
    )(props.day.points.outdoors.humidity_ratio) ?? "",
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
        {{ unitOf("air_pressure", view.system) }}, {{ MONTHS[month - 1] }} {{ clock(step) }} · outdoor day in
        thin line
      </text>
      <g v-for="t in [0, 5, 10, 15, 20, 25, 30, 35, 40]" :key="t">
        <line :x1="x(t)" :x2="x(t)" :y1="y(0)" :y2="y(0.022)" stroke="var(--hair)" />
        <text :x="x(t)" :y="height - 8" text-anchor="middle">
          {{ toShown(t, "temperature", view.system).toFixed(0) }}
        </text>
      </g>
      <g v-for="w in [0, 0.004, 0.008, 0.012, 0.016, 0.02]" :key="w">
        <line :x1="x(0)" :x2="x(42)" :y1="y(w)" :y2="y(w)" stroke="var(--hair)" />
        <text :x="x(42) + 4" :y="y(w) + 4">{{ toShown(w, "humidity_ratio", view.system).toFixed(0) }}</text>
      </g>
      <text :x="width - 4" y="30" text-anchor="end">{{ unitOf("humidity_ratio", view.system) }}</text>
      <text :x="x(42)" :y="height - 8" text-anchor="end">{{ unitOf("temperature", view.system) }}</text>
      <path
        v-for="curve in curves"
        :key="curve.relative"
        :d="curve.d"
        fill="none"
        :stroke="curve.relative === '1.0' ? 'var(--ink)' : 'var(--line)'"
        :stroke-width="curve.relative === '1.0' ? 1.6 : 1"
      />
      <path :d="loop" fill="none" stroke="var(--infiltration)" />
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
