<script setup lang="ts">
import { computed } from "vue";
import { source } from "./sources";

const props = defineProps<{
  /** Split of a load [W], in the order of `categories`. */
  parts: number[];
  categories: string[];
}>();
const pieces = computed(() => {
  const positive = props.parts
    .map((value, i) => ({ value, name: props.categories[i] ?? "" }))
    .filter((p) => p.value > 0);
  const total = positive.reduce((sum, piece) => sum + piece.value, 0);
  return positive.map((piece) => ({ ...source(piece.name), share: total ? piece.value / total : 0 }));
});
const text = computed(() => pieces.value.map((p) => `${p.name} ${Math.round(p.share * 100)} %`).join(", "));
</script>

<template>
  <span class="strip" role="img" :aria-label="text" :title="text"
    ><i
      v-for="piece in pieces"
      :key="piece.name"
      :style="{ width: piece.share * 100 + '%', background: piece.colour }"
  /></span>
</template>

<style scoped>
.strip {
  display: flex;
  height: 12px;
  width: 100%;
  margin-top: 4px;
}
.strip i {
  display: block;
  height: 100%;
}
</style>
