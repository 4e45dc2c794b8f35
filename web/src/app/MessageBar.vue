<script setup lang="ts">
import { useDocument } from "@/document/store";
import { computed } from "vue";

/** What was refused, until it is dismissed; and what was done that is easily regretted, with a way back, for a while. */
const doc = useDocument();
const TOLD_MS = 8000;
const told = computed({
  get: () => doc.done !== null && !doc.message,
  set: (open) => {
    if (!open) doc.done = null;
  },
});
/** Only the newest change can be taken back from here. */
const isNewest = computed(() => doc.done?.version === doc.version);

async function undo(): Promise<void> {
  doc.done = null;
  await doc.undo();
}
</script>

<template>
  <v-snackbar v-if="doc.message" :model-value="true" :timeout="-1" location="bottom" class="bar" role="alert">
    {{ doc.message }}
    <template #actions><TextAct @click="doc.message = ''">Dismiss</TextAct></template>
  </v-snackbar>
  <v-snackbar v-else v-model="told" :timeout="TOLD_MS" location="bottom" class="bar" role="note">
    {{ doc.done?.label }}
    <template #actions>
      <TextAct v-if="isNewest" title="Ctrl+Z" @click="undo">Undo</TextAct>
      <TextAct @click="doc.done = null">Close</TextAct>
    </template>
  </v-snackbar>
</template>

<style scoped>
.bar {
  margin-bottom: 112px;
}
.bar :deep(.v-snackbar__wrapper) {
  background: var(--ink);
  color: var(--paper);
  min-height: 36px;
  min-width: 0;
  max-width: 70ch;
  border-radius: 0;
  box-shadow: none;
}
.bar :deep(.v-snackbar__content) {
  padding: 8px 14px;
}
.bar :deep(.link) {
  color: inherit;
  margin-left: 12px;
  text-decoration: underline;
}
</style>
