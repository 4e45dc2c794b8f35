<script setup lang="ts">
/** Who else has the project open, and on which stage. */
import { computed } from "vue";
import { initials, useOthers, whereabouts } from "./presence";

const SHOWN = 3;
const others = useOthers();
const told = computed(() => others.value.map((one) => whereabouts(one)));
const label = computed(() => `Here too: ${told.value.join("; ")}`);
</script>

<template>
  <span v-if="others.length" class="others" role="img" :aria-label="label">
    <v-tooltip activator="parent" location="bottom">
      <div v-for="(line, index) in told" :key="index">{{ line }}</div>
    </v-tooltip>
    <b v-for="(one, index) in others.slice(0, SHOWN)" :key="index">{{ initials(one.name) }}</b>
    <b v-if="others.length > SHOWN">+{{ others.length - SHOWN }}</b>
  </span>
</template>

<style scoped>
.others {
  display: flex;
  cursor: default;
}
b {
  min-width: 22px;
  padding: 2px 3px;
  margin-left: -1px;
  border: 1px solid var(--accent);
  color: var(--accent);
  background: var(--paper);
  font-size: 10px;
  font-weight: 600;
  line-height: 14px;
  text-align: center;
}
</style>
