<script setup lang="ts" generic="R extends { id: string }">
import type { Column } from "./grid";

/** A cell that keeps what was typed and refused; where the cursor is, the reason, and what can be done about it. */
defineProps<{ column: Column<R>; fault: { text: string; why: string }; at: boolean }>();
const emit = defineEmits<{ make: [] }>();
</script>

<template>
  {{ fault.text || "empty" }}
  <span v-if="at" class="why" role="alert"
    >{{ fault.why }}
    <TextAct v-if="column.editor?.make && fault.text" @click.stop="emit('make')"
      >Make the {{ column.editor.make.what }} “{{ fault.text }}”</TextAct
    ></span
  >
</template>

<style scoped>
.why {
  position: absolute;
  z-index: 3;
  left: 0;
  top: 27px;
  background: var(--paper);
  border: 1px solid var(--ember);
  padding: 2px 6px;
  font-style: normal;
}
</style>
