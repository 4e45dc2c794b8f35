<script setup lang="ts">
import { useElementSize } from "@/parts/size";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { computed, ref } from "vue";

export interface Series {
  name: string;
  colour: string;
  /** y values, evenly spread over 0..24 h unless `x` is given. */
  values: number[];
  dashed?: boolean;
}

const props = defineProps<{
  title: string;
  unit: string;
  series: Series[];
  /** x positions; hours of a day by default. */
  x?: number[];
  xTicks?: number[];
  /** Names of the x ticks where they are no figures. */
  xNames?: string[];
  xUnit?: string;
  /** Position of a marker line on the x axis. */
  marker?: number;
  zero?: boolean;
  /** The least that the y axis spans, so that small differences look small. */
  span?: number;
}>();
const box = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(box);
const pad = { left: 36, right: 8, top: 20, bottom: 18 };

const xs = computed(
  () => props.x ?? (props.series[0]?.values ?? []).map((_, i, all) => ((i + 0.5) * 24) / all.length),
);
const ticks = computed(() => props.xTicks ?? [0, 3, 6, 9, 12, 15, 18, 21, 24]);
const xScale = computed(() =>
  scaleLinear(
    [ticks.value[0] ?? 0, ticks.value.at(-1) ?? 24],
    [pad.left, Math.max(pad.left + 1, width.value - pad.right)],
  ),
);
const yScale = computed(() => {
  const all = props.series.flatMap((series) => series.values).filter((value) => !Number.isNaN(value));
  const low = Math.min(...all, props.zero ? 0 : Infinity);
  const high = Math.max(...all, props.zero ? 0 : -Infinity);
  const room = Math.max(0, (props.span ?? (high === low ? 1 : 0)) - (high - low));
  const below = props.zero ? 0 : room / 2;
  return scaleLinear([low - below, high + room - below], [height.value - pad.bottom, pad.top]).nice(4);
});
const yTicks = computed(() => yScale.value.ticks(4));
const paths = computed(() =>
  props.series.map((series) => ({
    ...series,
    d:
      line<number>(
        (_, i) => xScale.value(xs.value[i] ?? 0),
        (value) => yScale.value(value),
      ).defined((value) => !Number.isNaN(value))(series.values) ?? "",
  })),
);
</script>

<template>
  <figure ref="box" class="chart">
    <svg :width="width" :height="height" role="img" :aria-label="`${title}, ${unit}`">
      <text :x="4" y="12" class="title">{{ title }}, {{ unit }}</text>
      <g v-for="tick in yTicks" :key="'y' + tick">
        <line :x1="pad.left" :x2="width - pad.right" :y1="yScale(tick)" :y2="yScale(tick)" class="hair" />
        <text :x="pad.left - 5" :y="yScale(tick) + 4" class="tick" text-anchor="end">{{ tick }}</text>
      </g>
      <text
        v-for="(tick, i) in ticks"
        :key="'x' + tick"
        :x="xScale(tick)"
        :y="height - 4"
        class="tick"
        text-anchor="middle"
      >
        {{ xNames?.[i] ?? tick }}{{ tick === ticks.at(-1) ? (xUnit ?? "") : "" }}
      </text>
      <path
        v-for="path in paths"
        :key="path.name"
        :d="path.d"
        fill="none"
        :stroke="path.colour"
        stroke-width="1.6"
        :stroke-dasharray="path.dashed ? '4 3' : undefined"
      />
      <line
        v-if="marker !== undefined"
        :x1="xScale(marker)"
        :x2="xScale(marker)"
        :y1="pad.top"
        :y2="height - pad.bottom"
        class="marker"
      />
    </svg>
    <figcaption v-if="series.length > 1">
      <span v-for="item in series" :key="item.name"
        ><i :class="{ dashed: item.dashed }" :style="{ borderColor: item.colour }" />{{ item.name }}</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
  height: 100%;
  display: flex;
  flex-direction: column;
  min-height: 0;
  position: relative;
}
svg {
  flex: 1;
  min-height: 0;
  display: block;
}
.title {
  font-size: 12px;
  fill: var(--soft);
}
.tick {
  font-size: 11px;
  fill: var(--soft);
}
.hair {
  stroke: var(--hair);
}
.marker {
  stroke: var(--accent);
  stroke-width: 1.5;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  font-size: 11px;
  color: var(--soft);
  padding-left: 4px;
}
figcaption i {
  display: inline-block;
  width: 14px;
  border-top: 3px solid;
  margin-right: 4px;
  vertical-align: middle;
}
figcaption .dashed {
  border-top-style: dashed;
}
</style>
