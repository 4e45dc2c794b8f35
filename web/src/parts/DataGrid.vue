<script setup lang="ts" generic="R extends { id: string }">
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, nextTick, onBeforeUnmount, onMounted, onUpdated, ref, watch } from "vue";
import { toText } from "./edit";
import GridPaper from "./GridPaper.vue";
import { parseBlock, type Column, type Edit } from "./grid";
import { canEdit, editorOf, priorText, shownText, useTypedCells } from "./gridCells";
import { leftOut, moved, placed, useRange, type Place } from "./gridRange";

/** Quantities of which a sum means something. */
const ADDED = new Set(["area", "volume", "load", "power", "airflow", "count", "length"]);

const props = defineProps<{
  label: string;
  columns: Column<R>[];
  rows: R[];
  selected?: string;
  /** Columns at the left that stay while the others scroll. */
  frozen?: number;
  /** Whether ranges can be swept, copied, filled and cleared. */
  ranges?: boolean;
  /** What a row belongs to; a heavier line stands where it changes. */
  band?: (row: R) => string;
  /** Column that the rows are ordered by, with its direction. */
  sorted?: { key: string; down: boolean } | null;
  /** Rows that stand out as sums, by id. */
  strong?: (row: R) => boolean;
  /** Saves edits of one gesture together; throws when refused. */
  save?: (edits: Edit<R>[]) => Promise<void>;
}>();
/** A row chosen by the pointer is chosen at once; by keys it may be one of many passed on the way. */
const emit = defineEmits<{ select: [row: R, atOnce: boolean]; sort: [key: string] }>();
defineSlots<{ [name: `cell-${string}`]: (scope: { row: R }) => unknown }>();

const view = useView();
const box = ref<HTMLElement | null>(null);
const { at, anchor, range, isMany, holds, moveTo } = useRange();
const editing = ref<string | null>(null);
const { faults, cellKey, keep, make } = useTypedCells<R>(
  () => view.system,
  () => props.save,
);
const shown = (row: R, column: Column<R>) => shownText(row, column, view.system);
const before = (row: R, column: Column<R>) => priorText(row, column, view.system);

const template = computed(() => props.columns.map((column) => `${column.width}px`).join(" "));
const width = computed(() => props.columns.reduce((sum, column) => sum + column.width, 0));
/** How far from the left a frozen column stays. */
const lefts = computed(() => {
  let left = 0;
  return props.columns.map((column, index) => {
    const own = left;
    left += column.width;
    return index < (props.frozen ?? 0) ? `${own}px` : undefined;
  });
});
/** Name of what begins with a row; empty in its midst. */
function bandAt(index: number): string {
  const row = props.rows[index];
  if (!props.band || !row) return "";
  const before = props.rows[index - 1];
  return before && props.band(before) === props.band(row) ? "" : props.band(row);
}
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

/** The row that this grid chose last: it is known already, however late it comes back as the selection. */
let chosen: string | undefined;

/** Bring a selection made elsewhere into view. */
function showSelected(): void {
  if (props.selected === chosen) return;
  const index = props.rows.findIndex((row) => row.id === props.selected);
  if (index < 0 || at.value.row === index) return;
  moveTo({ row: index, column: at.value.column }, false);
  virtual.value.scrollToIndex(index, { align: "auto" });
}
watch(() => props.selected, showSelected);
onMounted(() => {
  const row = props.rows.find((candidate) => candidate.id === props.selected);
  // A grid opens at its top, not at its sums.
  if (row && !props.strong?.(row)) requestAnimationFrame(showSelected);
});

/** How many frames a far row may take until it is drawn. */
const FRAMES = 20;

async function focusCell(): Promise<void> {
  virtual.value.scrollToIndex(at.value.row);
  const { row, column } = at.value;
  for (let frame = 0; frame < FRAMES; frame += 1) {
    await nextTick();
    if (at.value.row !== row || at.value.column !== column) return;
    const cell = box.value?.querySelector<HTMLElement>(`[data-cell="${row}/${column}"]`);
    if (cell) {
      cell.focus();
      return;
    }
    // The grid keeps the keys while the row is drawn: they must not become commands of the page.
    box.value?.focus({ preventScroll: true });
    await new Promise((drawn) => requestAnimationFrame(drawn));
  }
}

/** A focused cell that is scrolled out of what is drawn leaves the focus to the grid. */
let within = false;
function noteFocus(event: FocusEvent): void {
  within = box.value?.contains(event.target as Node) ?? false;
}
onMounted(() => document.addEventListener("focusin", noteFocus));
onBeforeUnmount(() => document.removeEventListener("focusin", noteFocus));
onUpdated(() => {
  if (within && document.activeElement === document.body) box.value?.focus({ preventScroll: true });
});

async function go(place: Place, extend = false, atOnce = false): Promise<void> {
  moveTo(
    {
      row: Math.max(0, Math.min(props.rows.length - 1, place.row)),
      column: Math.max(0, Math.min(props.columns.length - 1, place.column)),
    },
    extend,
  );
  const target = props.rows[at.value.row];
  if (target && !extend) {
    chosen = target.id;
    emit("select", target, atOnce);
  }
  await focusCell();
}

/** A press goes to the cell, with Shift it extends the range; on a figure that cannot be edited it shows how it came about. */
async function choose(event: PointerEvent, index: number, columnIndex: number): Promise<void> {
  if (event.button !== 0) return;
  if (editing.value !== null) {
    if (at.value.row === index && at.value.column === columnIndex) return;
    await finish(0, 0);
  }
  event.preventDefault();
  await go({ row: index, column: columnIndex }, event.shiftKey, true);
  const row = props.rows[index];
  const column = props.columns[columnIndex];
  const target = row && column && !canEdit(row, column) && !event.shiftKey ? column.explain?.(row) : null;
  if (target) view.explain(target.quantity, target.subject);
}

function sweep(event: PointerEvent, row: number, column: number): void {
  if (event.buttons === 1 && editing.value === null && props.ranges) moveTo({ row, column }, true);
}

async function start(text?: string): Promise<void> {
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (!row || !column?.editor || !canEdit(row, column)) return;
  if (column.editor.type === "yesno") {
    const text = column.value(row) ? "no" : "yes";
    const cells = wide.value > 1 ? inRange().filter((cell) => cell.column === column) : [{ row, column }];
    await keep(cells.map((cell) => ({ ...cell, text })));
    return;
  }
  const kept = faults.value.get(cellKey(row, column));
  editing.value = text ?? kept?.text ?? toText(column.value(row), editorOf(row, column), view.system);
  await nextTick();
  const input = box.value?.querySelector<HTMLInputElement>(".cell .editor");
  input?.focus();
  if (text === undefined) input?.select?.();
}

/** End the editing of a cell; `all` gives what was typed to every cell of the range. */
async function finish(down: number, right: number, all = false): Promise<void> {
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  const text = editing.value;
  editing.value = null;
  if (row && column && text !== null) {
    if (all) void keep(inRange().map((cell) => ({ ...cell, text })));
    else if (text !== toText(column.value(row), editorOf(row, column), view.system)) {
      void keep([{ row, column, text }]);
    }
  }
  if (all) await focusCell();
  else await go({ row: at.value.row + down, column: at.value.column + right });
}

/** Cells of the range that may be edited. */
function inRange(): { row: R; column: Column<R> }[] {
  const cells = [];
  for (let i = range.value.top; i <= range.value.bottom; i += 1) {
    for (let j = range.value.left; j <= range.value.right; j += 1) {
      const row = props.rows[i];
      const column = props.columns[j];
      if (row && column && canEdit(row, column)) cells.push({ row, column });
    }
  }
  return cells;
}
const wide = computed(() => (isMany.value ? inRange().length : 0));

/** Let the range step back to what is inherited, or be empty. */
async function clear(): Promise<void> {
  await keep(
    inRange()
      .filter(({ column }) => column.editor?.clearable)
      .map((cell) => ({ ...cell, text: "" })),
  );
}

/** The first line of the range, given to all below it. */
async function fillDown(): Promise<void> {
  const first = props.rows[range.value.top];
  if (!first) return;
  await keep(
    inRange()
      .filter(({ row }) => row !== first)
      .map(({ row, column }) => ({
        row,
        column,
        text: toText(column.value(first), editorOf(first, column), view.system),
      })),
  );
}
defineExpose({ clear, fillDown, wide });

/** Go to the cell of a field that is wanted, once the grid shows it. */
watch(
  () => [view.wanted, props.columns, props.rows] as const,
  ([wanted]) => {
    if (!wanted || !props.save) return;
    const row = props.rows.findIndex((candidate) => candidate.id === wanted.id);
    const column = props.columns.findIndex((candidate) => candidate.key === wanted.field);
    if (row < 0 || column < 0) return;
    view.wanted = null;
    void nextTick(() => go({ row, column }, false, true));
  },
  { immediate: true, flush: "post" },
);

/** What a range adds up to: its cells, and the sum where all have one quantity. */
const summary = computed(() => {
  if (!isMany.value || !props.ranges) return "";
  const { top, bottom, left, right } = range.value;
  const size = `${bottom - top + 1} × ${right - left + 1} cells`;
  const quantity = props.columns[left]?.quantity;
  if (left !== right || !quantity) return size;
  const values = props.rows.slice(top, bottom + 1).map((row) => props.columns[left]!.value(row));
  const figures = values.filter((value): value is number => typeof value === "number");
  if (!figures.length) return size;
  const sum = figures.reduce((total, value) => total + value, 0);
  const text = (value: number) => `${format(value, quantity, view.system)} ${unitOf(quantity, view.system)}`;
  return ADDED.has(quantity)
    ? `${size} · sum ${text(sum)} · mean ${text(sum / figures.length)}`
    : `${size} · mean ${text(sum / figures.length)} · ${text(Math.min(...figures))} to ${text(Math.max(...figures))}`;
});

async function cancel(): Promise<void> {
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (row && column) faults.value.delete(cellKey(row, column));
  editing.value = null;
  await focusCell();
}

function onKey(event: KeyboardEvent): void {
  if (editing.value !== null || event.altKey) return;
  const far = event.ctrlKey || event.metaKey;
  const place = moved(event, at.value, props.rows.length, props.columns.length);
  const row = props.rows[at.value.row];
  const column = props.columns[at.value.column];
  if (place) void go(place, event.shiftKey && props.ranges);
  else if (far && props.ranges && event.key.toLowerCase() === "d") void fillDown();
  else if (far && props.ranges && event.key.toLowerCase() === "a") {
    anchor.value = { row: props.rows.length - 1, column: props.columns.length - 1 };
    void go({ row: 0, column: 0 }, true);
  } else if (far && props.ranges && event.key === " ") {
    anchor.value = { row: props.rows.length - 1, column: at.value.column };
    void go({ row: 0, column: at.value.column }, true);
  } else if (far) return;
  else if (event.key === "Enter" || event.key === "F2") {
    const target = row && column?.explain?.(row);
    if (target && !(row && column && canEdit(row, column))) view.explain(target.quantity, target.subject);
    else void start();
  } else if (event.key === "Delete" || event.key === "Backspace") void clear();
  else if (row && column && canEdit(row, column) && event.key.length === 1 && event.key !== " ") {
    void start(column.editor?.type === "choice" ? undefined : event.key);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}

/** What a paste could not give to any cell; until the cursor moves on. */
const dropped = ref("");
watch([at, editing], () => (dropped.value = ""));
function onPaste(event: ClipboardEvent): void {
  if (editing.value !== null) return;
  const block = parseBlock(event.clipboardData?.getData("text/plain") ?? "");
  const given = placed(block, range.value);
  const cells = given.flatMap((cell) => {
    const row = props.rows[cell.row];
    const column = props.columns[cell.column];
    return row && column ? [{ row, column, text: cell.text }] : [];
  });
  const open = cells.filter(({ row, column }) => canEdit(row, column));
  dropped.value = leftOut(given.length - cells.length, cells.length - open.length);
  event.preventDefault();
  void keep(open);
}

/** The range as spreadsheet programs take it, in the units shown. */
function onCopy(event: ClipboardEvent): void {
  if (editing.value !== null) return;
  const { top, bottom, left, right } = range.value;
  const lines = props.rows.slice(top, bottom + 1).map((row) =>
    props.columns
      .slice(left, right + 1)
      .map((column) => copied(row, column))
      .join("\t"),
  );
  event.clipboardData?.setData("text/plain", lines.join("\n"));
  event.preventDefault();
}

function copied(row: R, column: Column<R>): string {
  if (!column.editor) return shown(row, column);
  if (column.editor.type !== "choice") return toText(column.value(row), editorOf(row, column), view.system);
  const value = column.value(row);
  return column.editor.choices?.find((choice) => choice.value === value)?.label ?? "";
}
</script>

<template>
  <div
    ref="box"
    class="grid"
    role="grid"
    tabindex="-1"
    :aria-label="label"
    :aria-rowcount="rows.length + 1"
    @keydown="onKey"
    @paste="onPaste"
    @copy="onCopy"
  >
    <div class="row header" role="row" :style="{ gridTemplateColumns: template, minWidth: width + 'px' }">
      <div
        v-for="(column, index) in columns"
        :key="column.key"
        role="columnheader"
        :class="{ num: column.quantity, frozen: lefts[index] }"
        :style="{ left: lefts[index] }"
        :aria-sort="sorted?.key === column.key ? (sorted.down ? 'descending' : 'ascending') : undefined"
      >
        <button
          v-if="sorted !== undefined"
          class="order"
          :title="`Order by ${column.title}`"
          tabindex="-1"
          @click="emit('sort', column.key)"
        >
          {{ column.title }}{{ sorted?.key === column.key ? (sorted.down ? " ↓" : " ↑") : "" }}
        </button>
        <template v-else>{{ column.title }}</template><span class="unit">{{
          column.quantity ? unitOf(column.quantity, view.system) : ""
        }}</span>
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
          :class="{
            selected: rows[item.index]!.id === selected,
            strong: strong?.(rows[item.index]!),
            first: bandAt(item.index),
          }"
          :style="{ gridTemplateColumns: template, transform: `translateY(${item.start}px)` }"
        >
          <span v-if="bandAt(item.index)" class="band" :class="{ top: item.index === 0 }">{{
            bandAt(item.index)
          }}</span>
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
              noted: column.note?.(rows[item.index]!),
              at: at.row === item.index && at.column === index,
              swept: holds(item.index, index),
              frozen: lefts[index],
            }"
            :style="{ left: lefts[index] }"
            :title="
              faults.get(cellKey(rows[item.index]!, column))?.why ??
              (column.note?.(rows[item.index]!) || undefined) ??
              column.origin?.(rows[item.index]!) ??
              undefined
            "
            @pointerdown="choose($event, item.index, index)"
            @pointerenter="sweep($event, item.index, index)"
            @dblclick="start()"
          >
            <template v-if="editing !== null && at.row === item.index && at.column === index">
              <select
                v-if="column.editor?.type === 'choice'"
                v-model="editing"
                class="editor"
                :aria-label="column.title"
                @change="finish(0, 0, wide > 1)"
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
                @keydown.enter.stop.prevent="finish(1, 0, wide > 1 && $event.ctrlKey)"
                @keydown.tab.stop.prevent="finish(0, $event.shiftKey ? -1 : 1)"
                @keydown.esc.stop.prevent="cancel"
                @blur="editing !== null && finish(0, 0)"
              />
              <span v-if="wide > 1" class="why hint">Ctrl+Enter: all {{ wide }} cells</span>
            </template>
            <template v-else-if="faults.has(cellKey(rows[item.index]!, column))">
              {{ faults.get(cellKey(rows[item.index]!, column))!.text || "empty" }}
              <span v-if="at.row === item.index && at.column === index" class="why" role="alert"
                >{{ faults.get(cellKey(rows[item.index]!, column))!.why }}
                <TextAct
                  v-if="column.editor?.make && faults.get(cellKey(rows[item.index]!, column))!.text"
                  @click.stop="make(column, faults.get(cellKey(rows[item.index]!, column))!.text, rows)"
                  >Make the {{ column.editor.make.what }} “{{
                    faults.get(cellKey(rows[item.index]!, column))!.text
                  }}”</TextAct
                ></span
              >
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
    <GridPaper :columns="columns" :rows="rows" />
    <p v-if="dropped" class="summary" role="alert">{{ dropped }}</p>
    <p v-else-if="summary" class="summary" role="note">{{ summary }}</p>
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
.grid:focus {
  outline: none;
}
.cell.noted {
  background-image: linear-gradient(225deg, var(--ember) 5px, transparent 5px);
}
.cell:focus {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
  z-index: 1;
}
.frozen {
  position: sticky;
  z-index: 1;
  background: var(--paper);
}
.cell.open.frozen {
  background: color-mix(in srgb, var(--field) 70%, var(--paper));
}
.selected .cell.frozen {
  background: var(--wash);
}
.strong .cell.frozen {
  background: var(--panel);
}
.cell.swept,
.selected .cell.open.swept {
  background: color-mix(in srgb, var(--accent) 16%, var(--paper));
}
.first {
  border-top: 2px solid var(--ink);
}
.band {
  position: absolute;
  left: 190px;
  top: -8px;
  padding: 0 4px;
  font-size: 11px;
  line-height: 13px;
  color: var(--accent);
  background: var(--paper);
  z-index: 2;
}
.band.top {
  top: 0;
}
.order {
  font: inherit;
  color: inherit;
}
.order:hover {
  color: var(--accent);
}
.summary {
  position: sticky;
  bottom: 0;
  left: 0;
  width: max-content;
  margin: 0;
  padding: 2px 8px;
  background: var(--panel);
  border-top: 1px solid var(--line);
  z-index: 2;
  font-variant-numeric: tabular-nums;
}
.hint {
  border-color: var(--accent) !important;
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
/* Each row is a layer of its own: what one says of a cell lies over the rows below it. */
.row:has(.why) {
  z-index: 3;
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
