<script setup lang="ts" generic="R extends { id: string }">
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, nextTick, onMounted, ref, watch } from "vue";
import { toText } from "./edit";
import { parseBlock, type Column, type Edit } from "./grid";
import { canEdit, priorText, shownText, useTypedCells } from "./gridCells";

const props = defineProps<{
  label: string;
  columns: Column<R>[];
  rows: R[];
  selected?: string;
  /** Rows that stand out as sums, by id. */
  strong?: (row: R) => boolean;
  /** Saves edits of one gesture together; throws when refused. */
  save?: (edits: Edit<R>[]) => Promise<void>;
}>();
const emit = defineEmits<{ select: [row: R] }>();
defineSlots<{ [name: `cell-${string}`]: (scope: { row: R }) => unknown }>();

const view = useView();
const box = ref<HTMLElement | null>(null);
const at = ref<{ row: number; column: number }>({ row: 0, column: 0 });
const editing = ref<string | null>(null);
const { faults, cellKey, keep } = useTypedCells<R>(
  () => view.system,
  () => props.save,
);
const shown = (row: R, column: Column<R>) => shownText(row, column, view.system);
const before = (row: R, column: Column<R>) => priorText(row, column, view.system);

const template = computed(() => props.columns.map((column) => `${column.width}px`).join(" "));
const width = computed(() => props.columns.reduce((sum, column) => sum + column.width, 0));
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => box.value,
    estimateSize: () => 28,
    overscan: 12,
    scrollPaddingStart: 40,
    scrollPaddingEnd: 52,
  })),
);

/** Bring a selection made elsewhere into view. */
function showSelected(): void {
  const index = props.rows.findIndex((row) => row.id === props.selected);
  if (index < 0 || at.value.row === index) return;
  at.value = { row: index, column: at.value.column };
  virtual.value.scrollToIndex(index, { align: "auto" });
}
watch(() => props.selected, showSelected);
onMounted(() => {
  const row = props.rows.find((candidate) => candidate.id === props.selected);
  // A grid opens at its top, not at its sums.
  if (row && !props.strong?.(row)) requestAnimationFrame(showSelected);
});

async function focusCell(): Promise<void> {
  virtual.value.scrollToIndex(at.value.row);
  await nextTick();
  const cell = box.value?.querySelector<HTMLElement>(`[data-cell="${at.value.row}/${at.value.column}"]`);
  cell?.focus();
}

async function go(row: number, column: number): Promise<void> {
  at.value = {
    row: Math.max(0, Math.min(props.rows.length - 1, row)),
    column: Math.max(0, Math.min(props.columns.length - 1, column)),
  };
  const target = props.rows[at.value.row];
  if (target) emit("select", target);
  await focusCell();
}

/** A click goes to the cell; on a figure that cannot be edited it also shows how it came about. */
async function choose(index: number, columnIndex: number): Promise<void> {
  if (editing.value !== null && at.value.row === index && at.value.column === columnIndex) return;
  await go(index, columnIndex);
  const row = props.rows[index];
  const column = props.columns[columnIndex];
  const target = row && column && !canEdit(row, column) ? column.explain?.(row) : null;
  if (target) view.explain(target.quantity, target.subject);
}

async function start(text?: string): Promise<void> {
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (!row || !column?.editor || !canEdit(row, column)) return;
  if (column.editor.type === "yesno") {
    await keep([{ row, column, text: column.value(row) ? "no" : "yes" }]);
    return;
  }
  const kept = faults.value.get(cellKey(row, column));
  editing.value = text ?? kept?.text ?? toText(column.value(row), column.editor, view.system);
  await nextTick();
  const input = box.value?.querySelector<HTMLInputElement>(".cell .editor");
  input?.focus();
  if (text === undefined) input?.select?.();
}

async function finish(down: number, right: number): Promise<void> {
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  const text = editing.value;
  editing.value = null;
  if (
    row &&
    column &&
    text !== null &&
    text !== toText(column.value(row), column.editor ?? { type: "text" }, view.system)
  ) {
    void keep([{ row, column, text }]);
  }
  await go(at.value.row + down, at.value.column + right);
}

async function cancel(): Promise<void> {
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (row && column) faults.value.delete(cellKey(row, column));
  editing.value = null;
  await focusCell();
}

const moves: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-20, 0],
  PageDown: [20, 0],
};

function onKey(event: KeyboardEvent): void {
  if (editing.value !== null || event.ctrlKey || event.metaKey || event.altKey) return;
  const move = moves[event.key];
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (move) void go(at.value.row + move[0], at.value.column + move[1]);
  else if (event.key === "Home") void go(at.value.row, 0);
  else if (event.key === "End") void go(at.value.row, props.columns.length - 1);
  else if (event.key === "Enter" || event.key === "F2") {
    const target = row && column?.explain?.(row);
    if (target && !(row && column && canEdit(row, column))) view.explain(target.quantity, target.subject);
    else void start();
  } else if (event.key === "Delete" || event.key === "Backspace") {
    if (row && column?.editor?.clearable) void keep([{ row, column, text: "" }]);
  } else if (row && column && canEdit(row, column) && event.key.length === 1 && event.key !== " ") {
    void start(column.editor?.type === "choice" ? undefined : event.key);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}

function onPaste(event: ClipboardEvent): void {
  if (editing.value !== null) return;
  const block = parseBlock(event.clipboardData?.getData("text/plain") ?? "");
  const cells = block.flatMap((line, i) =>
    line.flatMap((text, j) => {
      const row = props.rows[at.value.row + i];
      const column = props.columns[at.value.column + j];
      return row && column ? [{ row, column, text }] : [];
    }),
  );
  event.preventDefault();
  void keep(cells);
}

function onCopy(event: ClipboardEvent): void {
  if (editing.value !== null) return;
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (!row || !column) return;
  const text = column.editor ? toText(column.value(row), column.editor, view.system) : shown(row, column);
  event.clipboardData?.setData("text/plain", text);
  event.preventDefault();
}
</script>

<template>
  <div
    ref="box"
    class="grid"
    role="grid"
    :aria-label="label"
    :aria-rowcount="rows.length + 1"
    @keydown="onKey"
    @paste="onPaste"
    @copy="onCopy"
  >
    <div class="row header" role="row" :style="{ gridTemplateColumns: template, minWidth: width + 'px' }">
      <div v-for="column in columns" :key="column.key" role="columnheader" :class="{ num: column.quantity }">
        {{ column.title
        }}<span class="unit">{{ column.quantity ? unitOf(column.quantity, view.system) : "" }}</span>
      </div>
    </div>
    <div
      class="canvas"
      role="rowgroup"
      :style="{ height: virtual.getTotalSize() + 'px', minWidth: width + 'px' }"
    >
      <template v-for="item in virtual.getVirtualItems()" :key="rows[item.index]?.id ?? item.index">
        <div
          v-if="rows[item.index]"
          class="row"
          role="row"
          :aria-rowindex="item.index + 2"
          :aria-selected="rows[item.index]!.id === selected"
          :class="{ selected: rows[item.index]!.id === selected, strong: strong?.(rows[item.index]!) }"
          :style="{ gridTemplateColumns: template, transform: `translateY(${item.start}px)` }"
        >
          <div
            v-for="(column, index) in columns"
            :key="column.key"
            class="cell"
            role="gridcell"
            :data-cell="`${item.index}/${index}`"
            :data-column="column.key"
            :tabindex="at.row === item.index && at.column === index ? 0 : -1"
            :class="{
              num: column.quantity,
              open: canEdit(rows[item.index]!, column),
              inherited: !['own', '', undefined].includes(column.origin?.(rows[item.index]!)),
              bad: faults.has(cellKey(rows[item.index]!, column)),
              at: at.row === item.index && at.column === index,
            }"
            :title="
              faults.get(cellKey(rows[item.index]!, column))?.why ??
              column.origin?.(rows[item.index]!) ??
              undefined
            "
            @click="choose(item.index, index)"
            @dblclick="start()"
          >
            <template v-if="editing !== null && at.row === item.index && at.column === index">
              <select
                v-if="column.editor?.type === 'choice'"
                v-model="editing"
                class="editor"
                :aria-label="column.title"
                @change="finish(0, 0)"
                @keydown.enter.stop.prevent="finish(1, 0)"
                @keydown.esc.stop.prevent="cancel"
              >
                <option v-if="column.editor.clearable" value="">{{ column.editor.empty ?? "–" }}</option>
                <option v-for="choice in column.editor.choices" :key="choice.value" :value="choice.value">
                  {{ choice.label }}
                </option>
              </select>
              <input
                v-else
                v-model="editing"
                class="editor"
                :class="{ num: column.quantity }"
                :aria-label="column.title"
                @keydown.enter.stop.prevent="finish(1, 0)"
                @keydown.tab.stop.prevent="finish(0, $event.shiftKey ? -1 : 1)"
                @keydown.esc.stop.prevent="cancel"
                @blur="editing !== null && finish(0, 0)"
              />
            </template>
            <template v-else-if="faults.has(cellKey(rows[item.index]!, column))">
              {{ faults.get(cellKey(rows[item.index]!, column))!.text || "empty" }}
              <span v-if="at.row === item.index && at.column === index" class="why" role="alert">{{
                faults.get(cellKey(rows[item.index]!, column))!.why
              }}</span>
            </template>
            <slot v-else :name="`cell-${column.key}`" :row="rows[item.index]!">
              <s v-if="before(rows[item.index]!, column)" class="was">{{
                before(rows[item.index]!, column)
              }}</s>
              <span :class="{ now: before(rows[item.index]!, column) }">{{
                shown(rows[item.index]!, column)
              }}</span>
            </slot>
          </div>
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.grid {
  overflow: auto;
  font-family: var(--narrow);
  font-size: 14px;
  height: 100%;
  position: relative;
}
.row {
  display: grid;
  height: 28px;
  align-items: stretch;
  position: absolute;
  left: 0;
  right: 0;
  border-bottom: 1px solid var(--hair);
}
.header {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--paper);
  border-bottom: 1px solid var(--ink);
  color: var(--soft);
  height: 38px;
}
.header .unit {
  display: block;
  margin: 0;
  line-height: 1.1;
  min-height: 12px;
}
.header > div {
  padding: 3px 7px;
  line-height: 1.25;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.canvas {
  position: relative;
}
.cell {
  padding: 4px 7px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  position: relative;
}
.cell.num {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.cell.open {
  background: color-mix(in srgb, var(--field) 70%, transparent);
}
.cell.inherited {
  font-style: italic;
  color: var(--soft);
}
.cell:focus {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
  z-index: 1;
}
.selected {
  background: var(--wash);
}
.selected .cell.open {
  background: transparent;
}
.strong {
  font-weight: 600;
  background: var(--panel);
}
.bad {
  outline: 1px dashed var(--ember);
  outline-offset: -2px;
  color: var(--ember);
  overflow: visible;
}
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
.editor {
  width: 100%;
  height: 20px;
  border: 0;
  background: var(--field);
  padding: 0 2px;
  outline: none;
}
.editor.num {
  text-align: right;
}
</style>
