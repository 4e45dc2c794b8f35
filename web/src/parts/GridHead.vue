<script setup lang="ts" generic="R extends { id: string }">
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import GridColumnMenu from "./GridColumnMenu.vue";
import type { GridTable, Placed } from "./gridTable";
import { ref } from "vue";

/** Heads of a grid's columns: order by a press, width by dragging, everything else in a menu. */
const props = defineProps<{
  table: GridTable<R>;
  columns: Placed<R>[];
  all: { key: string; title: string }[];
  template: string;
  width: number;
  /** Whether rows may be put in another order. */
  orders: boolean;
}>();
const view = useView();
const menu = ref<{ key: string; target: [number, number] } | null>(null);
const box = ref<HTMLElement | null>(null);

function sortedBy(key: string): "ascending" | "descending" | undefined {
  const first = props.table.sorting.value.find((one) => one.id === key);
  return first && (first.desc ? "descending" : "ascending");
}
function press(key: string): void {
  const now = sortedBy(key);
  props.table.orderBy(key, now === "ascending" ? true : now === "descending" ? null : false);
}
const isFiltered = (key: string) => props.table.filters.value.some((one) => one.id === key);

/** The menu of a column, under its head. */
function openMenu(key: string): void {
  const head = [...(box.value?.querySelectorAll<HTMLElement>("[role=columnheader]") ?? [])].find((one) => one.dataset["key"] === key); // prettier-ignore
  const { left, bottom } = head?.getBoundingClientRect() ?? { left: 0, bottom: 0 };
  menu.value = { key, target: [left, bottom] };
}
defineExpose({ openMenu });

function drag(event: PointerEvent, column: Placed<R>): void {
  const from = event.clientX;
  const grip = event.target as HTMLElement;
  grip.setPointerCapture(event.pointerId);
  const follow = (moved: PointerEvent) => props.table.widen(column.key, column.width + moved.clientX - from);
  grip.addEventListener("pointermove", follow);
  grip.addEventListener("lostpointercapture", () => grip.removeEventListener("pointermove", follow), {
    once: true,
  });
}
</script>

<template>
  <div ref="box" class="header" role="row" :style="{ gridTemplateColumns: template, minWidth: width + 'px' }">
    <div
      v-for="column in columns"
      :key="column.key"
      role="columnheader"
      :data-key="column.key"
      :class="{ num: column.quantity, frozen: column.left, filtered: isFiltered(column.key) }"
      :style="{ left: column.left }"
      :aria-sort="sortedBy(column.key)"
      @contextmenu.prevent="openMenu(column.key)"
    >
      <button
        v-if="orders"
        class="order"
        :title="`Order by ${column.title}`"
        tabindex="-1"
        @click="press(column.key)"
      >
        {{ column.title
        }}{{ sortedBy(column.key) ? (sortedBy(column.key) === "descending" ? " ↓" : " ↑") : "" }}
      </button>
      <template v-else>{{ column.title }}</template>
      <span class="unit">{{ column.quantity ? unitOf(column.quantity, view.system) : "" }}</span>
      <button
        class="more"
        tabindex="-1"
        :aria-label="`Column ${column.title}`"
        title="Filter, pin, hide; also a right click, or Shift+F10 in a cell"
        @click="openMenu(column.key)"
      >
        ▾
      </button>
      <span class="grip" aria-hidden="true" @pointerdown.stop.prevent="drag($event, column)" />
    </div>
    <GridColumnMenu
      v-if="menu"
      :key="menu.key"
      :column="menu.key"
      :target="menu.target"
      :table="table"
      :all="all"
      :orders="orders"
      @close="menu = null"
    />
  </div>
</template>

<style scoped>
.header {
  display: grid;
  position: sticky;
  top: 0;
  z-index: 2;
  height: 38px;
  align-items: stretch;
  background: var(--paper);
  border-bottom: 1px solid var(--ink);
  color: var(--soft);
}
.header > div {
  position: relative;
  padding: 3px 7px;
  line-height: 1.25;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.num {
  text-align: right;
}
.unit {
  display: block;
  margin: 0;
  line-height: 1.1;
  min-height: 12px;
}
.header > .frozen {
  position: sticky;
  z-index: 1;
  background: var(--paper);
}
.filtered {
  box-shadow: inset 0 -3px 0 var(--accent);
}
.order {
  font: inherit;
  color: inherit;
}
.order:hover {
  color: var(--accent);
}
.more {
  position: absolute;
  left: 0;
  bottom: 1px;
  padding: 0 3px;
  font-size: 11px;
  line-height: 14px;
  color: var(--accent);
  background: var(--paper);
  opacity: 0;
}
.header > div:hover .more,
.filtered .more,
.more:focus-visible {
  opacity: 1;
}
.grip {
  position: absolute;
  right: 0;
  top: 0;
  bottom: 0;
  width: 5px;
  cursor: col-resize;
  touch-action: none;
}
.grip:hover {
  background: var(--line);
}
</style>
