<script setup lang="ts">
/** Ducts and pipes that have a course on a level: as wide as they are, with their sizes where there is room. */
import { useDocument } from "@/document/store";
import type { DuctSection, PipeSection } from "@/document/types";
import { useResults } from "@/results/store";
import { computed } from "vue";

const props = defineProps<{
  level: string;
  toX: (x: number) => number;
  toY: (y: number) => number;
  scale: number;
}>();
const doc = useDocument();
const results = useResults();
const LEAST_PX = 1.5;
const ROOM_PX = 70;
const BACK_PX = 9;
const between = (a: [number, number], b: [number, number], share: number): [number, number] => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
];
const lines = computed(() =>
  (["duct_section", "pipe_section"] as const).flatMap((kind) =>
    (doc.rows(kind) as (DuctSection | PipeSection)[])
      .filter((row) => row.level === props.level && row.course_m.length)
      .map((row) => {
        // Ducts that lead back lie beside those that lead there.
        const back = "network" in row && row.network === "return";
        const aside = back ? BACK_PX : 0;
        const points = row.course_m.map(([x, y]): [number, number] => [
          props.toX(x) + aside,
          props.toY(y) + aside,
        ]);
        const [a, b] = [points[0]!, points.at(-1)!];
        const found = results.get(kind, row.id);
        return {
          id: row.id,
          name: `${row.name}${found ? `, ${found.size}` : ""}`,
          pipe: kind === "pipe_section",
          back,
          up: points.length === 1,
          at: a,
          points: points.map((point) => point.join(" ")).join(", "),
          width: Math.max(LEAST_PX, (found?.diameter_m ?? 0) * props.scale),
          size: Math.hypot(b[0] - a[0], b[1] - a[1]) > ROOM_PX ? (found?.size ?? "") : "",
          // Sizes of ducts and pipes that lie on each other stand beside each other.
          middle: between(a, b, kind === "pipe_section" ? 0.7 : 0.35),
        };
      }),
  ),
);
</script>

<template>
  <g pointer-events="none" aria-label="Ducts and pipes">
    <template v-for="line in lines" :key="line.id">
      <circle
        v-if="line.up"
        :cx="line.at[0]"
        :cy="line.at[1]"
        r="6"
        class="up"
        :class="{ pipe: line.pipe, back: line.back }"
      />
      <polyline
        v-else
        :points="line.points"
        :stroke-width="line.width"
        class="run"
        :class="{ pipe: line.pipe, back: line.back }"
      >
        <title>{{ line.name }}</title>
      </polyline>
      <text v-if="line.size" :x="line.middle[0]" :y="line.middle[1] - line.width / 2 - 3" class="size">{{
        line.size
      }}</text>
    </template>
  </g>
</template>

<style scoped>
.run {
  fill: none;
  stroke: var(--accent);
  stroke-opacity: 0.55;
}
.run.back,
.up.back {
  stroke: var(--storage);
}
.run.pipe {
  stroke: var(--ember);
}
.up {
  fill: var(--paper);
  stroke: var(--accent);
  stroke-width: 3;
}
.up.pipe {
  stroke: var(--ember);
}
.size {
  font-size: 11px;
  text-anchor: middle;
  fill: var(--ink);
}
</style>
