<script setup lang="ts" generic="R extends { id: string }">
import { computed, ref } from "vue";
import type { GridTable } from "./gridTable";

/** What can be done with a column: order, filter, pin, width, place; and which columns are there. */
const props = defineProps<{
  column: string;
  target: [number, number];
  table: GridTable<R>;
  all: { key: string; title: string }[];
  orders: boolean;
}>();
const emit = defineEmits<{ close: [] }>();
const WIDER_PX = 16;
const title = computed(() => props.all.find((one) => one.key === props.column)?.title ?? "");
const filter = ref(String(props.table.filters.value.find((one) => one.id === props.column)?.value ?? ""));
const shown = (key: string) => !props.table.layout.hidden[key];
const lastOne = computed(() => props.all.filter((one) => shown(one.key)).length < 2);

function toggle(key: string): void {
  props.table.show(key, !shown(key));
}
function widen(by: number): void {
  const now = props.table.columns.value.find((one) => one.key === props.column);
  if (now) props.table.widen(props.column, now.width + by);
}
function order(down: boolean | null): void {
  props.table.orderBy(props.column, down);
  emit("close");
}
function hide(): void {
  toggle(props.column);
  emit("close");
}
function reset(): void {
  props.table.reset();
  emit("close");
}
</script>

<template>
  <v-menu
    :model-value="true"
    :target="target"
    :close-on-content-click="false"
    location="bottom start"
    @update:model-value="emit('close')"
  >
    <v-list :aria-label="`Column ${title}`" class="menu" @keydown.esc.stop="emit('close')">
      <v-list-item class="filter">
        <v-text-field
          v-model="filter"
          autofocus
          :aria-label="`Only rows with ${title}`"
          placeholder="only text, > 500, 10 to 20"
          clearable
          @keydown.stop
          @keydown.esc="emit('close')"
          @keydown.enter="emit('close')"
          @update:model-value="table.filterBy(column, $event ?? '')"
        />
      </v-list-item>
      <template v-if="orders">
        <v-list-item title="Order, smallest first" @click="order(false)" />
        <v-list-item title="Order, largest first" @click="order(true)" />
        <v-list-item v-if="table.sorting.value.length" title="Order as entered" @click="order(null)" />
      </template>
      <v-divider />
      <v-list-item
        :title="table.pinned(column) ? 'Let it scroll' : 'Keep it at the left'"
        @click="table.pin(column)"
      />
      <v-list-item title="Move left" @click="table.move(column, -1)" />
      <v-list-item title="Move right" @click="table.move(column, 1)" />
      <v-list-item title="Wider" @click="widen(WIDER_PX)" />
      <v-list-item title="Narrower" @click="widen(-WIDER_PX)" />
      <v-list-item title="Hide" :disabled="lastOne" @click="hide" />
      <v-divider />
      <v-list-subheader>Columns</v-list-subheader>
      <v-list-item v-for="one in all" :key="one.key" class="which">
        <v-checkbox-btn
          :model-value="shown(one.key)"
          :label="one.title"
          :disabled="shown(one.key) && lastOne"
          @update:model-value="toggle(one.key)"
        />
      </v-list-item>
      <v-divider />
      <v-list-item title="Columns as they were" @click="reset" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.menu {
  min-width: 210px;
  max-height: 70vh;
  padding: 4px 0;
  border: 1px solid var(--ink);
  font-family: var(--narrow);
}
.menu :deep(.v-list-item) {
  min-height: 26px;
  padding: 0 12px;
}
.menu :deep(.v-list-item-title),
.menu :deep(.v-label) {
  font-size: 14px;
}
.menu :deep(.v-list-subheader) {
  min-height: 24px;
}
.filter {
  padding: 2px 8px 4px;
}
</style>
