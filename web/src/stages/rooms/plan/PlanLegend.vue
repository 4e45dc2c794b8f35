<script setup lang="ts">
/** What the colours of the rooms mean. */
defineProps<{ items: { share: number; colour: string; text: string }[]; unit: string }>();
</script>

<template>
  <div class="legend">
    <span v-for="item in items" :key="item.share"
      ><i :style="{ background: item.colour }" />{{ item.text }}</span
    >
    <span class="unit">{{ unit }}</span>
  </div>
</template>

<style scoped>
.legend {
  position: absolute;
  left: 12px;
  bottom: 24px;
  display: flex;
  gap: 8px;
  background: color-mix(in srgb, var(--paper) 85%, transparent);
  padding: 2px 6px;
  font-family: var(--narrow);
  font-size: 12px;
}
i {
  display: inline-block;
  width: 16px;
  height: 10px;
  margin-right: 3px;
  border: 1px solid var(--line);
}
</style>
