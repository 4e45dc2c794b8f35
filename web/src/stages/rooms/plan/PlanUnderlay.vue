<script setup lang="ts">
import { computed, onMounted, ref, watch } from "vue";
import { useDrawings } from "./drawings";

interface Part {
  layer: string;
  lines: [number, number][][];
}

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
/** What is drawn of each layer, as a path. */
const paths = ref<Record<string, string>>({});
const shown = computed(() =>
  Object.keys(paths.value).filter((layer) => !drawing.value?.hidden_layers.includes(layer)),
);

watch(
  () => (isLines.value ? `${drawing.value?.level}/${drawing.value?.name}` : ""),
  async (key) => {
    if (!key) return;
    const parts = (await (await fetch(drawings.path(props.level))).json()) as Part[];
    const path = (line: [number, number][]) => "M" + line.map(([x, y]) => `${x} ${-y}`).join("L");
    paths.value = Object.fromEntries(parts.map((part) => [part.layer, part.lines.map(path).join("")]));
  },
  { immediate: true },
);
const unit = computed(() => (drawing.value ? drawing.value.m_per_unit * props.scale : 1));
</script>

<template>
  <g v-if="drawing" opacity="0.45" pointer-events="none">
    <template v-if="isLines">
      <path
        v-for="layer in shown"
        :key="layer"
        :d="paths[layer]"
        :transform="`translate(${toX(drawing.x_m)} ${toY(drawing.y_m)}) scale(${unit})`"
        :stroke-width="1 / unit"
        fill="none"
        stroke="var(--faint)"
      />
    </template>
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
