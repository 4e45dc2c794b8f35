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
  const all = [...Object.values(props.day.points), ...props.day.parts].filter((point) => point !== undefined);
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
interface Course {
  key: string;
  name: string;
  t: number[];
  w: number[];
  /** Where its name stands beside the point. */
  dx: number;
  dy: number;
  /** Of the line that leads to it. */
  colour: string;
}
const OFF: Partial<Record<string, [name: string, colour: string]>> = {
  "heating coil": ["off heating", "var(--ember)"],
  "cooling coil": ["off cooling", "var(--tide)"],
  "steam humidifier": ["humidified", "var(--tide)"],
  "adiabatic humidifier": ["humidified", "var(--tide)"],
  fan: ["off fan", "var(--ember)"],
};
function named(key: StateName, name: string, [dx, dy]: [number, number], colour: string): Course[] {
  const point = props.day.points[key];
  return point ? [{ key, name, t: point.temperature_c, w: point.humidity_ratio, dx, dy, colour }] : [];
}
/** The way of the air: outdoors to the supply, part by part where they change it. */
const way = computed<Course[]>(() => [
  ...named("outdoors", "outdoors", [7, -6], ""),
  ...named("recovered", "off recovery", [7, 12], "var(--outdoor-air)"),
  ...named("mixed", "mixed", [7, -6], "var(--infiltration)"),
  ...props.day.parts.flatMap((part, i) => {
    const off = OFF[part.kind];
    if (!off) return [];
    return [{ key: `${part.kind} ${i}`, name: off[0], t: part.temperature_c, w: part.humidity_ratio, dx: part.kind === "fan" ? 7 : -8, dy: -8, colour: off[1] }];
  }),
  ...named("supply", "supply", [6, 14], "var(--ember)"),
]); // prettier-ignore
const rooms = computed(() => named("rooms", "rooms", [7, 12], "var(--sun)"));
const at = (course: Course) => ({ ...course, x: x.value(course.t[props.step] ?? 0), y: y.value(course.w[props.step] ?? 0) }); // prettier-ignore
/** What parts at rest leave as it was is drawn once, by the name before it; the supply by its own. */
const points = computed(() => {
  const all = [...way.value, ...rooms.value].map(at);
  return all.filter((one, i) => {
    const near = (next: (typeof all)[number] | undefined) => !!next && Math.hypot(one.x - next.x, one.y - next.y) < 3;
    return one.key === "supply" || (!near(all[i - 1]) && !(near(all[i + 1]) && all[i + 1]?.key === "supply"));
  });
}); // prettier-ignore
const strokes = computed(() => {
  const through = way.value.map(at);
  const [room] = rooms.value.map(at);
  const lines = through.slice(1).map((to, i) => ({ from: through[i]!, to, colour: to.colour }));
  const mixed = through.find((one) => one.key === "mixed");
  if (room && mixed) lines.push({ from: room, to: mixed, colour: "var(--infiltration)" });
  const supply = through.at(-1);
  if (room && supply) lines.push({ from: supply, to: room, colour: room.colour });
  return lines;
});
/** The day's trails of outdoors, mixed, off the cooling coil and rooms. */
const TRAILS: [start: string, colour: string][] = [
  ["outdoors", "var(--infiltration)"],
  ["mixed", "var(--soft)"],
  ["cooling coil", "var(--tide)"],
  ["rooms", "var(--sun)"],
];
const trails = computed(() =>
  TRAILS.flatMap(([start, colour]) => {
    const course = [...way.value, ...rooms.value].find((one) => one.key.startsWith(start));
    const path =
      course &&
      line<number>(
        (_, i) => x.value(course.t[i] ?? 0),
        (w) => y.value(w),
      )(course.w);
    return path ? [{ key: course.key, colour, path }] : [];
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
