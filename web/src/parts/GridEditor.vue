<script setup lang="ts" generic="R extends { id: string }">
import { computed, ref } from "vue";
import type { Column } from "./grid";

/** The field in a cell that is being edited: a line to type into, or a list to choose from. */
const props = defineProps<{
  column: Column<R>;
  /** How many cells take it at once with Ctrl+Enter. */
  wide: number;
  /** What a list is found by when it opens. */
  begun: string;
}>();
const text = defineModel<string>({ required: true });
const emit = defineEmits<{ finish: [down: number, right: number, all: boolean]; cancel: [] }>();
const open = ref(true);
const search = ref(props.begun);
const items = computed(() => [
  ...(props.column.editor?.clearable ? [{ value: "", label: props.column.editor.empty ?? "–" }] : []),
  ...(props.column.editor?.choices ?? []),
]);
let over = false;

/** The end of the editing, once: leaving the field is an end as well. */
function end(down: number, right: number, all: boolean): void {
  if (over) return;
  over = true;
  emit("finish", down, right, all);
}
const closed = (): void => end(0, 0, props.wide > 1);
/** A name that no choice has: it is kept as typed, with what can be done about it. */
function takeTyped(event: KeyboardEvent): void {
  const typed = search.value.trim();
  if (!typed || items.value.some((item) => item.label.toLowerCase().includes(typed.toLowerCase()))) return;
  event.stopPropagation();
  text.value = typed;
  closed();
}
function drop(): void {
  over = true;
  emit("cancel");
}
</script>

<template>
  <v-autocomplete
    v-if="column.editor?.type === 'choice'"
    v-model="text"
    v-model:menu="open"
    v-model:search="search"
    class="editor"
    :items="items"
    item-title="label"
    item-value="value"
    :aria-label="column.title"
    :menu-props="{ maxHeight: 320, minWidth: 180 }"
    @update:menu="(shown: boolean) => !shown && closed()"
    @keydown.enter.capture="takeTyped"
    @keydown.esc.stop.prevent="drop"
    @keydown.stop
  />
  <v-text-field
    v-else
    v-model="text"
    class="editor"
    :class="{ num: column.quantity }"
    :aria-label="column.title"
    @keydown.enter.stop.prevent="end(1, 0, wide > 1 && ($event as KeyboardEvent).ctrlKey)"
    @keydown.tab.stop.prevent="end(0, ($event as KeyboardEvent).shiftKey ? -1 : 1, false)"
    @keydown.esc.stop.prevent="drop"
    @keydown.stop
    @blur="end(0, 0, false)"
  />
  <span v-if="wide > 1" class="hint">Ctrl+Enter: all {{ wide }} cells</span>
</template>

<style scoped>
.editor {
  height: 20px;
  background: var(--field);
}
.editor :deep(.v-field) {
  --v-field-padding-start: 2px;
  --v-field-padding-end: 2px;
  --v-input-control-height: 20px;
  padding: 0;
  font: inherit;
}
.editor :deep(.v-field__outline) {
  display: none;
}
.editor :deep(.v-field__input) {
  min-height: 20px;
  padding: 0 2px;
  font: inherit;
}
.editor :deep(.v-field__append-inner) {
  padding: 0;
}
.editor.num :deep(input) {
  text-align: right;
}
.hint {
  position: absolute;
  z-index: 3;
  left: 0;
  top: 27px;
  background: var(--paper);
  border: 1px solid var(--accent);
  padding: 2px 6px;
  font-style: normal;
}
</style>
