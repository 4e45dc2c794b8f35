<script setup lang="ts">
/** An ordinary chart, drawn by the chart package; its colours are names of the theme's, so that day and night both fit. */
import { useView } from "@/view/store";
import { BarChart, LineChart } from "echarts/charts";
import {
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
} from "echarts/components";
import { use, type EChartsCoreOption } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import { onMounted, ref, watch } from "vue";
import VChart from "vue-echarts";
import { tone } from "./tones";

use([
  BarChart,
  LineChart,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  DataZoomComponent,
  MarkLineComponent,
  CanvasRenderer,
]);

const props = defineProps<{
  /** What it shows, for those who do not see it. */
  label: string;
  /** The chart's option, made with the colours that `tone` gives. */
  option: (tone: (name: string) => string) => EChartsCoreOption;
}>();
const emit = defineEmits<{ choose: [series: string, index: number] }>();
const view = useView();
const ready = ref(false);
const made = ref<EChartsCoreOption>({});

function make(): void {
  const axis = {
    axisLine: { lineStyle: { color: tone("line") } },
    axisTick: { show: false },
    splitLine: { lineStyle: { color: tone("hair") } },
    axisLabel: { color: tone("soft"), fontSize: 12 },
    nameTextStyle: { color: tone("soft"), fontSize: 12, align: "left" },
  };
  const asked = props.option(tone) as Record<string, object>;
  made.value = {
    animation: false,
    textStyle: { fontFamily: "'IBM Plex Sans Condensed', sans-serif", color: tone("ink") },
    grid: { left: 58, right: 14, top: 28, bottom: 24 },
    tooltip: {
      trigger: "axis",
      backgroundColor: tone("paper"),
      borderColor: tone("line"),
      textStyle: { color: tone("ink"), fontSize: 13 },
      confine: true,
    },
    ...asked,
    xAxis: { ...axis, ...asked["xAxis"] },
    yAxis: { ...axis, ...asked["yAxis"] },
  };
}
onMounted(async () => {
  // A canvas is drawn once: with the letters that are there then.
  await document.fonts.ready;
  make();
  ready.value = true;
});
watch([() => props.option, () => view.dark], () => requestAnimationFrame(make));
</script>

<template>
  <figure class="chart" role="img" :aria-label="label">
    <VChart
      v-if="ready"
      :option="made"
      :update-options="{ notMerge: true }"
      autoresize
      @click="(event) => emit('choose', event.seriesName ?? '', event.dataIndex ?? 0)"
    />
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
  height: 100%;
  min-height: 0;
  min-width: 0;
}
</style>
