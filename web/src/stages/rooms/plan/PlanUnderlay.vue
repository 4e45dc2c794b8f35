<script setup lang="ts">
import { computed, onMounted, ref, watch } from "vue";
import { useDrawings } from "./drawings";

const props = defineProps<{
  level: string;
  toX: (x: number) => number;
  toY: (y: number) => number;
  scale: number;
}>();
const drawings = useDrawings();
onMounted(() => drawings.load());
const drawing = computed(() => drawings.of(props.level));
const isLines = computed(() => drawing.value?.media_type.includes("lines"));
const lines = ref("");

watch(
  () => (isLines.value ? `${drawing.value?.level}/${drawing.value?.name}` : ""),
  async (key) => {
    if (!key) return;
    const found = (await (await fetch(drawings.path(props.level))).json()) as [number, number][][];
    lines.value = found.map((line) => "M" + line.map(([x, y]) => `${x} ${-y}`).join("L")).join("");
  },
  { immediate: true },
);
const unit = computed(() => (drawing.value ? drawing.value.m_per_unit * props.scale : 1));
</script>

<template>
  <g v-if="drawing" opacity="0.45" pointer-events="none">
    <path
      v-if="isLines"
      :d="lines"
      :transform="`translate(${toX(drawing.x_m)} ${toY(drawing.y_m)}) scale(${unit})`"
      :stroke-width="1 / unit"
      fill="none"
      stroke="var(--faint)"
    />
    <image
      v-else
      :href="drawings.path(level)"
      :x="toX(drawing.x_m)"
      :y="toY(drawing.y_m) - drawing.height * unit"
      :width="drawing.width * unit"
      :height="drawing.height * unit"
      preserveAspectRatio="none"
    />
  </g>
</template>
